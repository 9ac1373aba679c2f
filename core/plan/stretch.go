package plan

import (
	"reflect"

	"mallow/core/grade"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/spacing"
)

// alike tells whether two runs carry the same fence. Then a straight joint
// between them is no more than a place where the tape was put down anew, and
// at a corner their tops meet.
func alike(a, b job.Run) bool {
	same := reflect.DeepEqual
	return same(a.Fence, b.Fence) && same(a.Post, b.Post) && same(a.Grade.Settings(), b.Grade.Settings()) && same(a.Hole, b.Hole) && same(a.Setting, b.Setting) && same(a.Kinds, b.Kinds)
}

// grade finds the top lines. Runs with the same fence are graded as one, so
// that how a straight fence was taped changes nothing, and tops meet at
// corners.
func (w *liner) grade(joints []*joint) {
	n := len(w.runs)
	flows := func(r int) bool { return joints[r] != nil && alike(w.runs[r].run, joints[r].next.run) }
	first := 0 // the run after which something else comes
	for first < n && flows(first) {
		first++
	}
	ring := first == n
	if ring {
		first = n - 1
	}
	var group []*maker
	var turns []bool
	for k := range n {
		r := (first + 1 + k) % n
		m := w.runs[r]
		if !m.laid() {
			continue
		}
		group, turns = append(group, m), append(turns, len(group) > 0 && !joints[(r+n-1)%n].plain)
		if k == n-1 || !flows(r) {
			gradeTogether(group, turns, ring)
			settle(group, func() { gradeTogether(group, turns, ring) })
			group, turns = nil, nil
		}
	}
}

// gradeTogether puts runs end to end, grades them, and gives each its part.
func gradeTogether(runs []*maker, turns []bool, ring bool) {
	courses, at := make([]grade.Course, len(runs)), make([]length.Length, len(runs))
	for k, m := range runs {
		courses[k] = m.course(m.run, m.layout)
		if k > 0 {
			at[k] = at[k-1] + runs[k-1].out.Length
		}
	}
	if len(runs) == 1 {
		runs[0].line = grade.Solve(courses[0])
		return
	}
	course := grade.Join(courses, at, turns)
	line := grade.Line{}
	if ring {
		line = grade.SolveRing(course)
	} else {
		line = grade.Solve(course)
	}
	bay := 0
	for k, m := range runs {
		n := len(m.layout.Bays)
		m.line = grade.Line{Bays: line.Bays[bay : bay+n : bay+n], Tops: line.Tops[bay : bay+n+1 : bay+n+1], Knots: line.Knots[bay : bay+n+1 : bay+n+1], Lost: line.Lost}
		if k > 0 {
			m.line.Bays = shifted(m.line.Bays, -at[k])
		}
		bay += n
	}
}

// course is what is graded of a run.
func (m *maker) course(run job.Run, layout spacing.Layout) grade.Course {
	c := grade.NewCourse(run, layout, m.profile, m.job.Units)
	c.Rough = m.rough
	return c
}

// shifted moves the stations of the bays' gaps and earth.
func shifted(bays []grade.Bay, by length.Length) []grade.Bay {
	out := make([]grade.Bay, len(bays))
	move := func(e *grade.Earth) *grade.Earth {
		if e == nil {
			return nil
		}
		return &grade.Earth{Depth: e.Depth, At: e.At + by, Section: e.Section}
	}
	for i, b := range bays {
		b.Least.At, b.Most.At = b.Least.At+by, b.Most.At+by
		b.Cut, b.Fill = move(b.Cut), move(b.Fill)
		out[i] = b
	}
	return out
}
