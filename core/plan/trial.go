package plan

import (
	"slices"

	"mallow/core/finding"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/reason"
	"mallow/core/spacing"
)

// weighMost is the longest run, in posts, on which remedies are weighed:
// beyond it a plan would take too long to change under a finger.
const weighMost = 1500

// trial plans the run as it would be, by itself: what its corner posts share
// with other runs is the same before and after, and falls out of a difference.
func (m *maker) trial(run job.Run) *maker {
	t := newMaker(m.job, run, m.cat, reason.Unread(), m.watch, m.path)
	t.inside = m.inside
	t.lay(m.ground, m.turned)
	return t
}

// weigh finishes a trial.
func (m *maker) weigh() *maker {
	alone := []*maker{m}
	gradeTogether(alone, nil, false)
	settle(alone, func() { gradeTogether(alone, nil, false) })
	m.make(nil, nil)
	m.weighed()
	return m
}

// weighed works out what a trial takes.
func (m *maker) weighed() {
	if m.laid() {
		m.obstacles()
		m.bays()
		m.rails()
	}
	m.out.Totals = m.totals()
}

// now is the run as it is, weighed like a trial.
func (m *maker) now() *maker {
	if m.asIs == nil {
		m.asIs = m.trial(m.given).weigh()
	}
	return m.asIs
}

// trouble counts what a layout does not meet: holes that run into something
// and stretches that had to give up a demand.
func (m *maker) trouble() int {
	n := 0
	for i := range m.out.Posts {
		n += len(m.out.Posts[i].InWay)
	}
	for _, s := range m.layout.Segments {
		if s.Block != nil {
			n += 1 + len(s.Block.Of)
		}
	}
	return n
}

func (m *maker) odd() int {
	n := 0
	for _, s := range m.layout.Segments {
		n += s.Odd
	}
	return n
}

// offer weighs a way out and, if better says so, offers it with its cost. A
// way that the job would refuse is not offered.
func (m *maker) offer(says reason.Text, better func(now, then *maker) bool, change func(*job.Run), edits ...job.Edit) []finding.Remedy {
	if len(m.layout.Posts) > weighMost {
		return nil
	}
	run := m.given
	change(&run)
	if !m.sound(run) || !m.afford(run) {
		return nil
	}
	now, then := m.now(), m.trial(run).weigh()
	if !better(now, then) {
		return nil
	}
	cost := costOf(now, then)
	return []finding.Remedy{{Says: says, Edits: edits, Cost: &cost}}
}

// costOf is what a trial takes more than the run as it is.
func costOf(now, then *maker) finding.Cost {
	a, b := now.out.Totals, then.out.Totals
	return finding.Cost{
		Posts: b.Posts - a.Posts, CutPieces: b.CutPieces - a.CutPieces, Concrete: b.ConcreteToBuy - a.ConcreteToBuy,
		Bags: b.Bags - a.Bags, OddBays: then.odd() - now.odd(), Stock: b.stockLength() - a.stockLength(),
	}
}

// inLine plans the run as it would be within its whole line, so that the
// posts which it shares with its neighbours are what they would be too.
func (m *maker) inLine(run job.Run) *maker {
	j := m.job
	j.Lines = slices.Clone(j.Lines)
	for l := range j.Lines {
		for r := range j.Lines[l].Runs {
			if j.Lines[l].Runs[r].ID != run.ID {
				continue
			}
			j.Lines[l].Runs = slices.Clone(j.Lines[l].Runs)
			j.Lines[l].Runs[r] = run
			w := newLiner(j, l, m.cat, reason.Unread(), m.watch)
			w.quiet = true
			w.make()
			return w.runs[r]
		}
	}
	return m.trial(run).weigh()
}

// GivenUp names what a plan's layouts had to leave out, run by run.
func GivenUp(p Plan) []string {
	var out []string
	for _, r := range p.Runs {
		for _, s := range r.Segments {
			for _, id := range s.GivenUp {
				out = append(out, r.ID+"/"+id)
			}
		}
	}
	return out
}

// anyway takes whatever comes.
func anyway(_, _ *maker) bool { return true }

// frees is what a way out of a clash must do.
func frees(now, then *maker) bool { return then.trouble() < now.trouble() }

// evens is what a way to equal bays must do.
func evens(now, then *maker) bool { return then.trouble() <= now.trouble() && then.odd() == 0 }

// mostMore is how many more bays are tried before giving up.
const mostMore = 6

// evenBays looks for the least shortening of the most spacing with which all
// bays stay equal and no hole runs into anything.
func (m *maker) evenBays() []finding.Remedy {
	if _, ok := m.run.Spacing.ByPiece(); ok {
		return nil
	}
	longest := spacing.Segment{}
	for _, s := range m.layout.Segments {
		if s.Odd > 0 && s.To-s.From > longest.To-longest.From {
			longest = s
		}
	}
	for more := 1; more <= mostMore && longest.Bays > 0; more++ {
		// Up to the next mark, so that the count of bays is what was tried.
		mark := m.job.Units.SmallestMark
		most := mark * length.Length(int((longest.To-longest.From)/length.Length(longest.Bays+more)/mark)+1)
		if most >= m.run.Spacing.Most || most < 300 {
			continue
		}
		if r := m.offer(reason.Say("Even bays of at most ", most), evens, func(r *job.Run) { r.Spacing.Most = most }, m.set("/spacing/most", most)); r != nil {
			return r
		}
	}
	return nil
}
