package plan

import (
	"reflect"

	"mallow/core/grade"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/spacing"
	"mallow/core/survey"
)

// alike tells whether two runs carry the same fence, so that a straight joint
// between them is no more than a place where the tape was put down anew.
func alike(a, b job.Run) bool {
	same := reflect.DeepEqual
	return same(a.Fence, b.Fence) && same(a.Post, b.Post) && same(a.Grade, b.Grade) && same(a.Hole, b.Hole) && same(a.Setting, b.Setting)
}

// grade finds the top lines. Runs that go straight on with the same fence are
// graded as one, so that how a straight fence was taped changes nothing.
func (w *liner) grade(joints []*joint) {
	for r := 0; r < len(w.runs); {
		last := r
		for last+1 < len(w.runs) && joints[last] != nil && joints[last].plain {
			last++
		}
		if w.runs[r].laid() {
			gradeTogether(w.runs[r : last+1])
		}
		r = last + 1
	}
}

// gradeTogether puts runs end to end, grades them, and gives each its part.
func gradeTogether(runs []*maker) {
	first := runs[0]
	if len(runs) == 1 {
		first.line = grade.Solve(first.run, first.layout, first.profile)
		return
	}
	whole, layout, ground := first.run, spacing.Layout{}, []job.GroundPoint{}
	whole.Gates = nil
	start := length.Length(0)
	for _, m := range runs {
		gates, base := len(whole.Gates), len(layout.Posts)
		if base > 0 {
			base-- // the joint is one post
		}
		for _, g := range m.run.Gates {
			g.At += start
			whole.Gates = append(whole.Gates, g)
		}
		for i, p := range m.layout.Posts {
			if p.Station += start; i > 0 || base == 0 {
				layout.Posts = append(layout.Posts, p)
			}
		}
		for _, b := range m.layout.Bays {
			b.First += base
			if b.Gate != spacing.NoGate {
				b.Gate += gates
			}
			layout.Bays = append(layout.Bays, b)
		}
		for _, p := range m.profile.Points() {
			ground = append(ground, job.GroundPoint{At: p.At + start, Height: p.Height})
		}
		start += m.out.Length
	}
	whole.Length = &start
	line := grade.Solve(whole, layout, survey.NewProfile(ground, start))
	at := 0
	for _, m := range runs {
		n := len(m.layout.Bays)
		m.line = grade.Line{Bays: line.Bays[at : at+n : at+n], Tops: line.Tops[at : at+n+1 : at+n+1]}
		if at > 0 {
			m.line.Bays = shifted(m.line.Bays, -m.out.Start+first.out.Start)
		}
		at += n
	}
}

// shifted moves the stations of the bays' gaps and earth.
func shifted(bays []grade.Bay, by length.Length) []grade.Bay {
	out := make([]grade.Bay, len(bays))
	move := func(e *grade.Earth) *grade.Earth {
		if e == nil {
			return nil
		}
		return &grade.Earth{Depth: e.Depth, At: e.At + by}
	}
	for i, b := range bays {
		b.Least.At, b.Most.At = b.Least.At+by, b.Most.At+by
		b.Cut, b.Fill = move(b.Cut), move(b.Fill)
		out[i] = b
	}
	return out
}
