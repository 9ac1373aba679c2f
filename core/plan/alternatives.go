package plan

import (
	"slices"
	"sort"

	"mallow/core/finding"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/materials"
	"mallow/core/reason"
	"mallow/core/spacing"
)

// Alternative is one layout of a run worth having, with what it takes.
type Alternative struct {
	ID      string       `json:"id" jsonschema:"required" jsonschema_description:"Stable, for programs."`
	Name    string       `json:"name" jsonschema:"required"`
	Says    reason.Text  `json:"says" jsonschema:"required" jsonschema_description:"What it gives and what it costs."`
	Edits   []job.Edit   `json:"edits" jsonschema:"required" jsonschema_description:"What takes it; empty for the layout as it is."`
	Cost    finding.Cost `json:"cost" jsonschema:"required" jsonschema_description:"Against the layout as it is."`
	Posts   int          `json:"posts" jsonschema:"required"`
	Bags    int          `json:"bags" jsonschema:"required"`
	Cut     int          `json:"cut" jsonschema:"required" jsonschema_description:"Pieces cut."`
	Odd     int          `json:"odd" jsonschema:"required" jsonschema_description:"Odd bays."`
	Clashes int          `json:"clashes" jsonschema:"required" jsonschema_description:"Holes that run into something, and demands given up."`
	Drawing Silhouette   `json:"drawing" jsonschema:"required"`
}

// mostAlternatives is how many are shown beside the layout as it is.
const mostAlternatives = 3

// Alternatives lays a run out in the other ways worth having. It is false
// when the job has no such run with a length.
func Alternatives(j job.Job, cat materials.Catalog, run string) ([]Alternative, bool) {
	out, ok, _ := AlternativesUntil(nil, j, cat, run)
	return out, ok
}

// AlternativesUntil is Alternatives with somebody who may end it, as MakeUntil.
func AlternativesUntil(stop func() error, j job.Job, cat materials.Catalog, run string) (out []Alternative, ok bool, err error) {
	err = until(func() {
		if m := planned(j, cat, run, newWatch(stop)); m != nil {
			out, ok = m.alternatives(), true
		}
	})
	return out, ok, err
}

// planned is a run of the job with its whole line planned around it; nil when
// there is no such run with a length.
func planned(j job.Job, cat materials.Catalog, run string, watch *watch) *maker {
	for l := range j.Lines {
		if !slices.ContainsFunc(j.Lines[l].Runs, func(r job.Run) bool { return r.ID == run }) {
			continue
		}
		w := newLiner(j, l, cat, reason.Unread(), watch)
		w.make()
		for _, m := range w.runs {
			if m.run.ID == run && m.laid() {
				return m
			}
		}
	}
	return nil
}

// idea is an alternative to try.
type idea struct {
	id, name, says string
	change         func(*job.Run)
	edits          []job.Edit
}

func (m *maker) alternatives() []Alternative {
	now := m.inLine(m.given)
	out := []Alternative{m.alternative(now, now, idea{id: "now", name: "As it is", says: "The layout that is planned."})}
	seen := [][]spacing.Post{now.layout.Posts}
	for _, i := range m.ideas() {
		run := m.given
		i.change(&run)
		if len(out) > mostAlternatives || !m.sound(run) {
			continue
		}
		then := m.inLine(run)
		if then.trouble() > now.trouble() || slices.ContainsFunc(seen, func(p []spacing.Post) bool { return sameStations(p, then.layout.Posts) }) {
			continue
		}
		seen = append(seen, then.layout.Posts)
		out = append(out, m.alternative(now, then, i))
	}
	return out
}

func sameStations(a, b []spacing.Post) bool {
	return slices.EqualFunc(a, b, func(p, q spacing.Post) bool { return length.Same(p.Station, q.Station) })
}

// alternative tells what a trial comes to.
func (m *maker) alternative(now, then *maker, i idea) Alternative {
	cost := costOf(now, then)
	alt := Alternative{ID: i.id, Name: i.name, Says: reason.Say(i.says), Edits: i.edits, Cost: cost,
		Posts: then.out.Totals.Posts, Bags: then.out.Totals.Bags, Cut: then.out.Totals.CutPieces,
		Odd: then.odd(), Clashes: then.trouble(), Drawing: then.out.outline()}
	if alt.Edits == nil {
		alt.Edits = []job.Edit{}
	}
	return alt
}

// ideas are the layouts worth trying on this run.
func (m *maker) ideas() []idea {
	var out []idea
	sp := m.run.Spacing
	odd := func(o job.Odd, name, says string) {
		out = append(out, idea{string(o), name, says, func(r *job.Run) { r.Spacing.Odd = o }, []job.Edit{m.set("/spacing/odd", o)}})
	}
	if _, ok := sp.ByPiece(); ok {
		if len(m.run.Gates) > 0 {
			odd(job.OddAway, "No cut piece beside the gate", "What is left over goes to the end of each stretch that is farther from a gate, where few look.")
		}
		odd(job.OddAll, "All even", "Every bay of a stretch alike; every piece is cut.")
		odd(job.OddLast, "Full bays, one cut", "Full pieces from the start of each stretch, the remainder at its end.")
		odd(job.OddShared, "Cut shared over two", "No sliver: two bays take the remainder between them.")
	} else {
		for _, r := range m.evenBays() {
			out = append(out, idea{"even", "All even", "One more post or a few, and every bay of a stretch alike: one spacer stick sets them all.",
				func(run *job.Run) { run.Spacing.Most = r.Edits[0].Value.(length.Length) }, r.Edits})
		}
		if most := m.mostOfSystem(); most > sp.Most {
			out = append(out, idea{"fewest", "Fewest posts", "Bays as long as the system allows.",
				func(r *job.Run) { r.Spacing.Most = most }, []job.Edit{m.set("/spacing/most", most)}})
		}
		most := sp.Most
		out = append(out, idea{"full", "Full bays, one short", "Every bay as long as the stock reaches, so that rails and boards go in uncut; the remainder in one bay.",
			func(r *job.Run) { r.Spacing.Way, r.Spacing.Piece, r.Spacing.Odd = job.FixedModule, most, job.OddAway },
			[]job.Edit{m.set("/spacing/way", job.FixedModule), m.set("/spacing/piece", most), m.set("/spacing/odd", job.OddAway)}})
	}
	return append(out, m.soilIdeas()...)
}

// mostOfSystem is the longest bay that the run's system allows, or else the
// usual one.
func (m *maker) mostOfSystem() length.Length {
	if s, ok := m.cat.System(m.run.System, m.job.Systems); ok {
		return s.Spacing.Most
	}
	return m.usual.Spacing.Most
}

// soilIdeas keep farther from what is under ground than they must.
func (m *maker) soilIdeas() []idea {
	var out []idea
	service := slices.ContainsFunc(m.run.KeepOuts, func(k job.KeepOut) bool { return k.Kind == job.Service && k.Hand > 0 })
	if service && m.run.Spacing.HandDig {
		out = append(out, idea{"machine", "No hole dug by hand", "Every hole stays out of the hand-dig width beside a service.",
			func(r *job.Run) { r.Spacing.HandDig = false }, []job.Edit{m.set("/spacing/handDig", nil)}})
	} else if service {
		out = append(out, idea{"hand", "Dug by hand beside the service", "Bays stay as they would be without it; holes in the hand-dig width are dug by hand, clear of the pipe itself.",
			func(r *job.Run) { r.Spacing.HandDig = true }, []job.Edit{m.set("/spacing/handDig", true)}})
	}
	if slices.ContainsFunc(m.run.KeepOuts, isFooting) {
		if soil, ok := m.farthest(); ok {
			out = append(out, idea{"midway", "Midway between the old holes", "As much firm soil between new holes and old footings as the same posts allow.",
				func(r *job.Run) { r.Spacing.Soil = &soil }, []job.Edit{m.set("/spacing/soil", soil)}})
		}
	}
	return out
}

// mostSoil is more soil than any hole needs beside it.
const mostSoil = 600 * length.Millimetre

// farthest is the most undisturbed soil beside old footings that takes no
// more posts than now.
func (m *maker) farthest() (length.Length, bool) {
	mark, now := m.job.Units.SmallestMark, spacing.Soil(m.run.Spacing)
	from := int(now/mark) + 1
	posts, trouble := len(m.layout.Posts), m.now().trouble()
	n := sort.Search(int(mostSoil/mark)-from, func(i int) bool {
		soil := mark * length.Length(from+i)
		run := m.given
		run.Spacing.Soil = &soil
		t := m.trial(run)
		blocked := 0
		for _, s := range t.layout.Segments {
			if s.Block != nil {
				blocked += 1 + len(s.Block.Of)
			}
		}
		return len(t.layout.Posts) > posts || blocked > 0 && blocked >= trouble
	})
	return mark * length.Length(from+n-1), n > 0
}
