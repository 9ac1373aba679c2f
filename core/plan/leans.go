package plan

import (
	"math"

	"mallow/core/finding"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/reason"
	"mallow/core/spacing"
)

// groundLeans is how pieces would lean that lay on the ground itself: where a
// leaning run's spacing begins, before its top line is known.
func (m *maker) groundLeans(run job.Run) []spacing.Lean {
	var out []spacing.Lean
	var from, low length.Length
	m.profile.Each(0, m.ground.Length, func(at, high length.Length) {
		if at > from && run.Grade.LookAt((from+at)/2).Leans() {
			out = append(out, spacing.Lean{From: from, To: at, Slope: leanable((high - low) / (at - from))})
		}
		from, low = at, high
	})
	return out
}

// steepestLean is the steepest that pieces are spaced along: 2 up for 1 along,
// where nobody stands any more. What is steeper has no posts on which leaning
// pieces fit, and judgeLeans says so; a slip of a height does not ask for
// millions of posts.
const steepestLean = 2

func leanable(slope length.Length) float64 {
	return math.Max(-steepestLean, math.Min(steepestLean, float64(slope)))
}

// lineLeans is how the pieces lean on the line that was found.
func (m *maker) lineLeans() []spacing.Lean {
	var out []spacing.Lean
	for i, b := range m.line.Bays {
		if !m.courseLook(i).Leans() || m.layout.Bays[i].Gate != spacing.NoGate {
			continue
		}
		from, to := m.span(i)
		out = append(out, spacing.Lean{From: from, To: to, Slope: leanable((b.TopEnd - b.TopStart) / (to - from))})
	}
	return out
}

// span are the stations of a bay's two posts.
func (m *maker) span(bay int) (from, to length.Length) {
	first := m.layout.Bays[bay].First
	return m.layout.Posts[first].Station, m.layout.Posts[first+1].Station
}

const (
	// mostSettling is how often posts and top line are found from each other
	// before what is left over is said instead.
	mostSettling = 12
	// longLine is how many posts make a line on which fewer turns are taken; so
	// many heights of the ground weigh as much as one post.
	longLine       = 500
	heightsPerPost = 4
	longSettling   = 2
	// settled is how far posts may still move: a hundredth of a millimetre.
	settled = length.Millimetre / 100
)

// settle finds the posts again from the line that was graded over them, as
// long as that moves any: how far apart the posts of leaning pieces stand
// depends on how they lean, which depends on where the posts stand. regrade
// finds the line of all runs that are graded together.
func settle(runs []*maker, regrade func()) {
	for range turnsFor(runs) {
		moved := false
		for _, m := range runs {
			if m.laid() && m.run.Leans() && m.relay() {
				moved = true
			}
		}
		if !moved {
			return
		}
		regrade()
	}
}

// turnsFor is how many turns are taken: fewer on lines so long that each takes
// its time.
func turnsFor(runs []*maker) int {
	size := 0
	for _, m := range runs {
		size += len(m.layout.Posts) + len(m.ground.Points)/heightsPerPost
	}
	if size > longLine {
		return longSettling
	}
	return mostSettling
}

// relay lays the run out again by the line that was found, and tells whether
// a post moved.
func (m *maker) relay() bool {
	leans := m.lineLeans()
	s := m.site(m.run)
	if _, piece := m.run.Spacing.ByPiece(); !piece {
		// A slope that was once too long for equal bays stays so, or bays
		// would come and go: a line with one bay more leans otherwise.
		long := false
		for i := range m.layout.Bays {
			if from, to := m.span(i); m.layout.Bays[i].Gate == spacing.NoGate && m.layout.Bays[i].Held == spacing.Nothing {
				rise := m.line.Bays[i].TopEnd - m.line.Bays[i].TopStart
				long = long || length.Length(math.Hypot(float64(to-from), float64(rise))) > m.run.Spacing.Most+length.Tolerance
			}
		}
		if !long {
			return false
		}
		m.steep = append(m.steep, leans...)
		leans = m.steep
	}
	s.Leans = leans
	next := spacing.Lay(m.run, s)
	// What the corners at both ends are was settled between the runs.
	last, before := &next.Posts[len(next.Posts)-1], m.layout.Posts[len(m.layout.Posts)-1]
	next.Posts[0].Kind, last.Kind = m.layout.Posts[0].Kind, before.Kind
	moved := len(next.Posts) != len(m.layout.Posts)
	for i := 0; !moved && i < len(next.Posts); i++ {
		moved = (next.Posts[i].Station - m.layout.Posts[i].Station).Abs() > settled
	}
	if !moved { // the pieces as they lean on this very line, on the posts that it was found over
		for i := range next.Posts {
			next.Posts[i].Station = m.layout.Posts[i].Station
		}
	}
	m.layout = next
	return moved
}

// misfit is by how much a piece may be too short for its bay before it is
// said: half a mark of the tape, and what its play takes up.
func (m *maker) misfit() length.Length {
	return max(length.Tolerance, m.job.Units.SmallestMark/2) + 2*m.run.Spacing.Play
}

// judgeLeans says where no posts could be found on which leaning pieces fit.
func (m *maker) judgeLeans() {
	_, piece := m.run.Spacing.ByPiece()
	if !m.run.Leans() || piece && m.run.Spacing.Odd == job.OddAll {
		return
	}
	worst, over := -1, m.misfit()
	for i := range m.out.Bays {
		b := &m.out.Bays[i]
		if b.Gate != "" || b.Held != "" || !b.Look.Leans() {
			continue
		}
		long := length.Length(0)
		switch {
		case !piece:
			long = b.CentreToCentre*length.Length(math.Hypot(1, float64(b.Lean/b.CentreToCentre))) - m.run.Spacing.Most
		case b.Piece > 0 && b.Trims == 0:
			long = b.Piece - m.run.Spacing.Piece
		}
		if slope := b.Lean / b.CentreToCentre; piece && slope.Abs() > steepestLean {
			// Spaced as if it leaned no more than that, which it does.
			long = b.CentreToCentre * length.Length(math.Hypot(1, float64(slope))-math.Hypot(1, steepestLean))
		}
		if long > over {
			worst, over = i, long
		}
	}
	if worst < 0 {
		return
	}
	b := &m.out.Bays[worst]
	m.find(finding.Finding{Rule: "lean-misfit", Stage: finding.Space, Severity: finding.Check, Place: finding.Place{Bay: b.ID},
		Says: reason.Say(b.ID, " is ", over, " too long along its slope: no posts were found on which every leaning piece fits. Set its far post back by so much, or hold a post beside it.")})
}
