package space

import (
	"fmt"
	"slices"
	"sort"

	"mallow/core/document"
	"mallow/core/finding"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/reason"
	"mallow/core/spacing"
	"mallow/core/stage"
	"mallow/core/words"
)

// advising finds other layouts of a run's posts.
type advising struct{ *Spacing }

// idea is an alternative to try.
type Idea struct {
	Id, Name, Says string
	Edits          []job.Edit
}

// ideas are the layouts worth trying on this run.
func (m *Spacing) Ideas(a *stage.Advising) []Idea {
	var out []Idea
	sp := m.Spec.Spacing
	odd := func(o job.Remainder, name, says string) {
		out = append(out, Idea{string(o), name, says, []job.Edit{m.Set("/spacing/remainder", o)}})
	}
	if _, ok := sp.ByPiece(); ok {
		if len(m.Spec.Gates) > 0 {
			odd(job.RemainderAway, words.Plain("space.no-cut-piece-beside-the"), words.Plain("space.what-is-left-over-goes"))
		}
		odd(job.RemainderInAll, words.Plain("space.all-even"), words.Plain("space.every-bay-of-a-stretch"))
		odd(job.RemainderLast, words.Plain("space.full-bays-one-cut"), words.Plain("space.full-pieces-from-the-start"))
		odd(job.RemainderShared, words.Plain("space.cut-shared-over-two"), words.Plain("space.no-sliver-two-bays-take"))
	} else {
		for _, r := range (advising{m}).evenBays(a) {
			out = append(out, Idea{"even", words.Plain("space.all-even"), words.Plain("space.one-more-post-or-a"), r.Edits})
		}
		if most := (advising{m}).mostOfSystem(); most > sp.Most {
			out = append(out, Idea{"fewest", words.Plain("space.fewest-posts"), words.Plain("space.bays-as-long-as-the"), []job.Edit{m.Set("/spacing/most", most)}})
		}
		most := sp.Most
		out = append(out, Idea{"full", words.Plain("space.full-bays-one-short"), words.Plain("space.every-bay-as-long-as"), []job.Edit{m.Set("/spacing/way", job.FixedModule), m.Set("/spacing/piece", most), m.Set("/spacing/remainder", job.RemainderAway)}})
	}
	return append(out, advising{m}.soilIdeas(a)...)
}

// mostOfSystem is the longest bay that the run's system allows, or else the
// usual one.
func (m advising) mostOfSystem() length.Length {
	if s, ok := m.Cat.System(m.Spec.System, m.Job.Systems); ok {
		return s.Spacing.Most
	}
	return m.Usual.Spacing.Most
}

// soilIdeas keep farther from what is under ground than they must.
func (m advising) soilIdeas(a *stage.Advising) []Idea {
	var out []Idea
	service := slices.ContainsFunc(m.Spec.KeepOuts, func(k job.KeepOut) bool { return k.Kind == job.Service && k.Hand > 0 })
	if service && m.Spec.Spacing.HandDig {
		out = append(out, Idea{"machine", words.Plain("space.no-hole-dug-by-hand"), words.Plain("space.every-hole-stays-out-of"), []job.Edit{m.Set("/spacing/handDig", nil)}})
	} else if service {
		out = append(out, Idea{"hand", words.Plain("space.dug-by-hand-beside-the"), words.Plain("space.bays-stay-as-they-would"), []job.Edit{m.Set("/spacing/handDig", true)}})
	}
	if slices.ContainsFunc(m.Spec.KeepOuts, IsFooting) {
		if soil, ok := m.farthest(a); ok {
			out = append(out, Idea{"midway", words.Plain("space.midway-between-the-old-holes"), words.Plain("space.as-much-firm-soil-between"), []job.Edit{m.Set("/spacing/soil", soil)}})
		}
	}
	return out
}

// mostSoil is more soil than any hole needs beside it.
const mostSoil = 600 * length.Millimetre

// farthest is the most undisturbed soil beside old footings that takes no
// more posts than now.
func (m advising) farthest(a *stage.Advising) (length.Length, bool) {
	mark, now := m.Job.Units.SmallestMark, spacing.Soil(m.Spec.Spacing)
	from := int(now/mark) + 1
	posts, trouble := len(m.Layout.Posts), a.Now().Trouble
	n := sort.Search(int(mostSoil/mark)-from, func(i int) bool {
		soil := mark * length.Length(from+i)
		run := m.Given
		run.Spacing.Soil = &soil
		t := Compute(stage.NewRun(m.Job, run, m.Cat, m.Path, m.Lie))
		blocked := 0
		for _, s := range t.Layout.Segments {
			if s.Block != nil {
				blocked += 1 + len(s.Block.Of)
			}
		}
		return len(t.Layout.Posts) > posts || blocked > 0 && blocked >= trouble
	})
	return mark * length.Length(from+n-1), n > 0
}

// moveGates offers to close a short segment, so that one post serves both
// ends, or to open it to a full bay, by moving a gate beside it.
func (m *Spacing) MoveGates(a *stage.Advising, segment int, span length.Length) []finding.Remedy {
	var out []finding.Remedy
	offer := func(gate int, by length.Length, so string) {
		if gate == spacing.NoGate {
			return
		}
		moved := m.Spec
		moved.Gates = append([]job.Gate(nil), m.Spec.Gates...)
		moved.Gates[gate].At += by
		if !a.Sound(moved) {
			return
		}
		at := moved.Gates[gate].At
		out = append(out, a.Offer(words.Say("space.move-the-gate", words.V{"by": by.Abs(), "so": so}), stage.Anyway, job.Set(m.GatePath(gate)+"/at", at))...)
	}
	full := m.Spec.Spacing.Most - span
	if segment+1 < len(m.Layout.Segments) {
		g := m.Layout.Segments[segment+1].Gate
		offer(g, -span, "one")
		offer(g, full, "full")
	}
	if segment > 0 {
		g := m.Layout.Segments[segment-1].Gate
		offer(g, span, "one")
		offer(g, -full, "full")
	}
	return out
}

// NewGate is a gate that can be put into a run.
type NewGate struct {
	ID      string      `json:"id" jsonschema:"required"`
	Name    string      `json:"name" jsonschema:"required"`
	Says    reason.Text `json:"says" jsonschema:"required"`
	Edits   []job.Edit  `json:"edits" jsonschema:"required" jsonschema_description:"That put it there; empty where it is refused."`
	Gate    string      `json:"gate" jsonschema:"required" jsonschema_description:"Its name in the document, once it is there."`
	Refused string      `json:"refused,omitempty"`
}

// newGates are the gates that can be put into the run, and where each goes:
// into the middle of its longest stretch of fence, to either end beside a
// house or a wall, or across the whole run.
func (m *Spacing) NewGates(a *stage.Advising) []NewGate {
	walk, drive := m.UsualSize(4*length.Foot, 1200), m.UsualSize(12*length.Foot, 3600)
	post := m.Spec.PostOf(job.GatePost).Width
	half := func(inside length.Length) length.Length { return (inside + post) / 2 }
	end := m.Ground.Length
	var middle, longest length.Length
	for _, s := range m.Layout.Segments {
		if span := s.To - s.From; s.Gate == spacing.NoGate && span > longest {
			longest, middle = span, (s.From+s.To)/2
		}
	}
	whole := end - post
	list := []NewGate{
		advising{m}.newGate(a, "walk", words.Plain("space.walk-gate-in-the-fence"), words.Say("space.in-the-middle-of-the", words.V{"walk": walk}), job.Gate{At: middle, Opening: walk, Use: job.WalkGate}),
		advising{m}.newGate(a, "drive", words.Plain("space.vehicle-gate-in-the-fence"), words.Say("space.in-two-leaves-in-the", words.V{"drive": drive}), job.Gate{At: middle, Opening: drive, Use: job.VehicleGate, Leaves: 2}),
		advising{m}.newGate(a, "start", words.Plain("space.gate-at-the-runs-start"), words.Say("space.against-a-house-or-wall"), job.Gate{At: half(walk), Opening: walk, Use: job.WalkGate}),
		advising{m}.newGate(a, "end", words.Plain("space.gate-at-the-runs-end"), words.Say("space.against-a-house-or-wall-2"), job.Gate{At: end - half(walk), Opening: walk, Use: job.WalkGate}),
		advising{m}.newGate(a, "slide", words.Plain("space.sliding-gate"), words.Say("space.with-its-run-back-along", words.V{"drive": drive}), job.Gate{At: middle, Opening: drive, Use: job.VehicleGate, Kind: job.SlideGate}),
		advising{m}.newGate(a, "across", words.Plain("space.gate-across-the-whole-run"), words.Say("space.alone-across-a-drive-both", words.V{"value": max(0, whole)}), job.Gate{At: end / 2, Opening: whole, Leaves: acrossLeaves(whole)}),
	}
	return list
}

func acrossLeaves(inside length.Length) int {
	if inside > 3*length.Metre {
		return 2
	}
	return 1
}

// newGate tries a gate on the run.
func (m advising) newGate(a *stage.Advising, id, name string, says reason.Text, g job.Gate) NewGate {
	out := NewGate{ID: id, Name: name, Says: says, Edits: []job.Edit{}}
	usual := m.Cat.UsualGate(m.Job.Units.System)
	full := usual
	full.Hardware = m.Cat.HardwareFor(m.Spec.PostOf(job.GatePost), usual.Hardware)
	full.At, full.Opening, full.Use, full.Kind, full.Leaves = g.At, g.Opening, g.Use, g.Kind, g.Leaves
	n := len(m.Given.Gates) + 1
	for ; slices.ContainsFunc(m.Given.Gates, func(o job.Gate) bool { return o.ID == fmt.Sprintf("G%d", n) }); n++ {
	}
	full.ID = fmt.Sprintf("G%d", n)
	full.Name = words.Plain("space.gate-number", words.V{"number": n})
	out.Gate = full.ID
	run := m.Given
	run.Gates = append(slices.Clone(run.Gates), full)
	level := m.Spec
	level.Gates = append(slices.Clone(level.Gates), full)
	switch {
	case g.Opening < 300*length.Millimetre || g.Opening > 12*length.Metre:
		out.Refused = words.Plain("space.an-opening-is-12-in")
	case len(document.CheckGates("", level, m.Job.Units)) > 0 || !a.Sound(run):
		out.Refused = words.Plain("space.no-room-for-it-there")
	default:
		// Only what is not usual is written down.
		entry := map[string]any{"id": full.ID, "name": full.Name, "at": full.At, "opening": full.Opening, "gap": full.Gap}
		if full.Use != "" {
			entry["use"] = full.Use
		}
		if full.Kind != "" {
			entry["kind"] = full.Kind
		}
		if full.Leaves > 0 {
			entry["leaves"] = full.Leaves
		}
		if full.Hardware != usual.Hardware {
			entry["hardware"] = full.Hardware
		}
		out.Edits = []job.Edit{m.Set(job.At("/gates", full.ID), entry)}
	}
	return out
}

// changedBay says what to do in a bay whose post landed off its mark, and
// whether that is any work.
func (m advising) changedBay(b *Bay) (reason.Text, bool) {
	s := m.Spec.Spacing
	off := m.Misfit()
	most := s.Regular(m.Spec.Post.Width, m.Spec.Post.Width)
	switch long := b.Piece - s.Piece; {
	case b.Piece == 0 && b.CentreToCentre > most+*m.Tolerances.Bay:
		return words.Say("space.is-now-over-the-most", words.V{"post": b.Label, "centreToCentre": b.CentreToCentre, "over": b.CentreToCentre - most}), true
	case b.Piece == 0 || b.Trims > 0:
		return words.Say("space.is-now-nothing-to-do", words.V{"post": b.Label, "centreToCentre": b.CentreToCentre}), false
	case long > *m.Tolerances.Pack+length.Tolerance:
		return words.Say("space.is-now-too-long", words.V{"post": b.Label, "centreToCentre": b.CentreToCentre, "long": long}), true
	case long > off:
		return words.Say("space.is-now-pack-it-out", words.V{"post": b.Label, "centreToCentre": b.CentreToCentre, "long": long}), true
	case b.PieceCut:
		return words.Say("space.is-now-cut-its-piece", words.V{"post": b.Label, "centreToCentre": b.CentreToCentre, "piece": b.Piece}), true
	}
	return words.Say("space.is-now-the-play-takes", words.V{"post": b.Label, "centreToCentre": b.CentreToCentre}), false
}

// otherBays are ways out by other bays: longer, shorter, or all equal.
func (m advising) otherBays(a *stage.Advising, over length.Length) []finding.Remedy {
	var out []finding.Remedy
	sp := m.Spec.Spacing
	regular := sp.Regular(m.Spec.Post.Width, m.Spec.Post.Width)
	if _, ok := sp.ByPiece(); ok {
		out = append(out, a.Offer(words.Say("space.equal-bays-every-piece-cut"), stage.Frees, m.Set("/spacing/remainder", job.RemainderInAll))...)
	} else if over > 0 && sp.Most+over <= 10000 {
		most := sp.Most + over
		out = append(out, a.Offer(words.Say("space.let-a-bay-be-as", words.V{"most": most}), stage.Frees, m.Set("/spacing/most", most))...)
	}
	least := m.Job.Units.Round(sp.Shortest(regular) / 2)
	if least > m.Spec.Post.Width && least >= 50 {
		out = append(out, a.Offer(words.Say("space.let-a-bay-be-as-2", words.V{"least": least}), stage.Frees, m.Set("/spacing/least", least))...)
	}
	return out
}

// repour offers to dig out the old footings and pour them again.
func (m *Spacing) Repour(a *stage.Advising, of []int) []finding.Remedy {
	var edits []job.Edit
	for _, i := range of {
		if IsFooting(m.Spec.KeepOuts[i]) {
			edits = append(edits, job.Set(job.At(m.Path, "keepOuts", m.Spec.KeepOuts[i].ID, "repour"), true))
		}
	}
	if len(edits) == 0 {
		return nil
	}
	return a.Offer(words.Say("space.dig-out-the-old-where", words.V{"count": len(edits)}), stage.Frees, edits...)
}

var oddNames = map[job.Remainder]string{
	job.RemainderLast: words.Plain("space.one-odd-bay-at-the"), job.RemainderFirst: words.Plain("space.one-odd-bay-at-the-2"), job.RemainderAway: words.Plain("space.one-odd-bay-away-from"),
	job.RemainderShared: words.Plain("space.share-it-over-two-bays"), job.RemainderInAll: words.Plain("space.all-bays-equal-every-piece"),
}

// gateForPiece offers to move a gate beside a stretch so that its cut piece
// becomes a full one.
func (m advising) gateForPiece(a *stage.Advising, bay int) []finding.Remedy {
	const little = 4 // a move of more than a quarter of a piece is another design
	segment := m.Layout.Bays[bay].Segment
	short := m.Layout.Segments[segment].Regular - m.Bays[bay].CentreToCentre
	over := -m.Bays[bay].CentreToCentre
	for _, by := range []length.Length{short, over} {
		if by.Abs() > m.Spec.Spacing.Piece/little {
			continue
		}
		for _, side := range []int{segment + 1, segment - 1} {
			if side < 0 || side >= len(m.Layout.Segments) || m.Layout.Segments[side].Gate == spacing.NoGate {
				continue
			}
			move := by
			if side < segment {
				move = -by
			}
			g := m.Layout.Segments[side].Gate
			if r := m.MoveGate(a, g, move, func(now, then *stage.Outcome) bool {
				return then.CutPieces < now.CutPieces && then.Trouble <= now.Trouble
			}); r != nil {
				return r
			}
		}
	}
	return nil
}

// moveGate offers to move a gate along the run.
func (m *Spacing) MoveGate(a *stage.Advising, gate int, by length.Length, better func(now, then *stage.Outcome) bool) []finding.Remedy {
	place := m.GatePlaces[gate]
	to := m.Given.Gates[place].At + by
	return a.Offer(words.Say("space.move", words.V{"gateName": stage.GateName(m.Spec.Gates[gate]), "by": by.Abs(), "heading": stage.Heading(by)}), better, job.Set(m.GatePath(gate)+"/at", to))
}

// mostMore is how many more bays are tried before giving up.
const mostMore = 6

// evenBays looks for the least shortening of the most spacing with which all
// bays stay equal and no hole runs into anything.
func (m advising) evenBays(a *stage.Advising) []finding.Remedy {
	if _, ok := m.Spec.Spacing.ByPiece(); ok {
		return nil
	}
	longest := spacing.Segment{}
	for _, s := range m.Layout.Segments {
		if s.Odd > 0 && s.To-s.From > longest.To-longest.From {
			longest = s
		}
	}
	for more := 1; more <= mostMore && longest.Bays > 0; more++ {
		// Up to the next mark, so that the count of bays is what was tried.
		mark := m.Job.Units.SmallestMark
		most := mark * length.Length(int((longest.To-longest.From)/length.Length(longest.Bays+more)/mark)+1)
		if most >= m.Spec.Spacing.Most || most < 300 {
			continue
		}
		if r := a.Offer(words.Say("space.even-bays-of-at-most", words.V{"most": most}), stage.Evens, m.Set("/spacing/most", most)); r != nil {
			return r
		}
	}
	return nil
}
