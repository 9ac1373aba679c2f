// Package agenda lays tasks out in days for one crew: the earliest finish, of those the
// fewest days on site, of those the most even days.
package agenda

import (
	"math"
	"slices"
)

// Task is one piece of work. The crew does one at a time.
type Task struct {
	Hours     float64
	Whole     bool    // it is not spread over two days: concrete does not wait
	NotBefore float64 // hours from midnight of the first day
	Day       int     // the day that it must begin on; -1 for any
	Clock     float64 // the hour of the day at which it must begin; 0 for any
	Off       []int   // days on which it may not begin
	After     []Link
}

// Link says that a task begins only so many hours after another has ended: concrete
// hardens at night too.
type Link struct {
	Task  int
	Hours float64
}

// Question is the tasks, and how long the crew works on each day: from From to To,
// hours of the clock; the same where nobody works.
type Question struct {
	Tasks   []Task
	Days    []Span
	Until   float64 // what ends on a later day is of no interest; 0: anything is
	Soonest bool    // only the day of the end is asked for: trips and evenness are not weighed
}

// Span is a stretch of hours.
type Span struct{ From, To float64 }

func (s Span) long() float64 { return max(0, s.To-s.From) }

// Part is what is done of a task on one day, in hours from midnight of the first day.
type Part struct{ Begin, End float64 }

// Answer is when each task is done.
type Answer struct {
	Parts  [][]Part // of each task; nil where it has no place in the days given
	Finish float64  // when the last one ends
	Trips  int      // days on site
	Uneven float64  // sum of the squares of the days' hours
	Best   bool     // every order was weighed: nothing ends earlier
	Bound  float64  // nothing could end before
	Left   []int    // tasks without a place
}

// mostSteps is how many steps of the search are taken.
const mostSteps = 200_000

const tolerance = 1e-9

// Plan finds the agenda. It weighs every order that the links allow, each task as early
// as it may be or on the next day, and stops at mostSteps: what it has by then is said
// not to be proved.
func Plan(q Question) Answer {
	s := search{q: q, parts: make([][]Part, len(q.Tasks)), ends: make([]float64, len(q.Tasks)), tails: tails(q.Tasks)}
	s.try(0, 0)
	if s.best == nil {
		return s.partly()
	}
	s.best.Best = s.steps < mostSteps
	s.best.Bound = s.best.Finish
	if !s.best.Best {
		s.best.Bound = s.bound()
	}
	return *s.best
}

type search struct {
	q     Question
	parts [][]Part
	ends  []float64
	tails []float64 // hours that must follow each task's end
	steps int
	best  *Answer
}

// tails are the hours of work and waiting that must follow the end of each task.
func tails(tasks []Task) []float64 {
	out := make([]float64, len(tasks))
	for range tasks { // as deep as the chain of links can be
		for k, t := range tasks {
			for _, l := range t.After {
				out[l.Task] = max(out[l.Task], l.Hours+t.Hours+out[k])
			}
		}
	}
	return out
}

// try places the tasks that are left, from a time on.
func (s *search) try(done int, now float64) {
	if s.steps++; s.steps > mostSteps {
		return
	}
	if done == len(s.q.Tasks) {
		s.keep()
		return
	}
	type place struct {
		task  int
		parts []Part
	}
	var next []place
	for k := range s.q.Tasks {
		if s.parts[k] != nil {
			continue
		}
		ready, ok := s.ready(k)
		if !ok {
			continue
		}
		at := max(now, ready)
		soon, ok := s.fit(k, at)
		if !ok {
			return // one that has no place now has none later
		}
		next = append(next, place{k, soon})
		// On a later day instead: fewer trips, evener days.
		for day := int(soon[0].Begin/24) + 1; s.q.Tasks[k].Day < 0 && day < len(s.q.Days); day++ {
			later, ok := s.fit(k, float64(day)*24)
			if !ok || s.tooLate(k, later) {
				break
			}
			day = int(later[0].Begin / 24)
			next = append(next, place{k, later})
		}
	}
	slices.SortStableFunc(next, func(a, b place) int {
		x, y := a.parts[0].Begin-s.tails[a.task]*1e-6, b.parts[0].Begin-s.tails[b.task]*1e-6
		switch {
		case x < y:
			return -1
		case x > y:
			return 1
		}
		return 0
	})
	for _, p := range next {
		end := p.parts[len(p.parts)-1].End
		if s.tooLate(p.task, p.parts) {
			continue
		}
		s.parts[p.task], s.ends[p.task] = p.parts, end
		s.try(done+1, end)
		s.parts[p.task] = nil
	}
}

// ready is when a task may begin; false where something before it is not placed yet.
func (s *search) ready(k int) (float64, bool) {
	at := s.q.Tasks[k].NotBefore
	for _, l := range s.q.Tasks[k].After {
		if s.parts[l.Task] == nil {
			return 0, false
		}
		at = max(at, s.ends[l.Task]+l.Hours)
	}
	return at, true
}

// fit is the first place of a task from a time on, day by day.
func (s *search) fit(k int, from float64) ([]Part, bool) {
	t := s.q.Tasks[k]
	var out []Part
	left := t.Hours
	for day := max(0, int(from/24)); day < len(s.q.Days); day++ {
		d := s.q.Days[day]
		if len(out) == 0 && t.Day >= 0 && day != t.Day {
			if day > t.Day {
				return nil, false
			}
			continue
		}
		if len(out) == 0 && slices.Contains(t.Off, day) {
			continue
		}
		begin, end := max(from, float64(day)*24+d.From), float64(day)*24+d.To
		if at := float64(day)*24 + t.Clock; t.Clock > 0 && len(out) == 0 {
			if begin > at+tolerance { // that hour is past
				if t.Day >= 0 {
					return nil, false
				}
				continue
			}
			begin = at
		}
		switch room := end - begin; {
		case d.long() == 0 || room < -tolerance || room < tolerance && left > tolerance:
			continue
		case t.Whole && room < left-tolerance:
			if t.Day >= 0 {
				return nil, false
			}
			continue
		case room >= left-tolerance:
			return append(out, Part{begin, begin + left}), true
		default:
			out = append(out, Part{begin, end})
			left -= room
		}
	}
	return nil, false
}

// tooLate tells whether what must follow a task ends on a later day than the best that
// is known.
func (s *search) tooLate(task int, parts []Part) bool {
	day := dayOf(parts[len(parts)-1].End + s.tails[task])
	switch {
	case s.q.Until > 0 && day > dayOf(s.q.Until):
		return true
	case s.best == nil:
		return false
	}
	return day > dayOf(s.best.Finish) || s.q.Soonest && day == dayOf(s.best.Finish)
}

// bound is the earliest that anything could end: by the work of all tasks in the days as
// they come, and by each chain of links.
func (s *search) bound() float64 {
	sum := 0.0
	for _, t := range s.q.Tasks {
		sum += t.Hours
	}
	out := 0.0
	all := Task{Hours: sum, Day: -1}
	w := search{q: Question{Tasks: []Task{all}, Days: s.q.Days}}
	if parts, ok := w.fit(0, 0); ok {
		out = parts[len(parts)-1].End
	}
	for k, t := range s.q.Tasks {
		out = max(out, t.NotBefore+t.Hours+s.tails[k])
	}
	return out
}

// Better tells whether an agenda that has a place for everything is better than
// another: it ends on an earlier day, or with fewer trips, or with evener days, or at an
// earlier hour.
func (a Answer) Better(b Answer) bool {
	if x, y := dayOf(a.Finish), dayOf(b.Finish); x != y {
		return x < y
	}
	switch {
	case a.Trips != b.Trips:
		return a.Trips < b.Trips
	case math.Abs(a.Uneven-b.Uneven) > tolerance:
		return a.Uneven < b.Uneven
	}
	return a.Finish < b.Finish-tolerance
}

// keep compares what is placed with the best so far.
func (s *search) keep() {
	a := s.measured()
	if s.best != nil && !a.Better(*s.best) {
		return
	}
	a.Parts = make([][]Part, len(s.parts))
	for k := range s.parts {
		a.Parts[k] = slices.Clone(s.parts[k])
	}
	s.best = &a
}

func dayOf(at float64) int { return int(math.Ceil(at/24 - tolerance)) }

func (s *search) measured() Answer {
	var a Answer
	hours := map[int]float64{}
	for k := range s.parts {
		for _, p := range s.parts[k] {
			a.Finish = max(a.Finish, p.End)
			hours[int(p.Begin/24)] += p.End - p.Begin
		}
	}
	a.Trips = len(hours)
	for _, h := range hours {
		a.Uneven += h * h
	}
	return a
}

// partly places what has a place, in the order of the tasks, where not all have one.
func (s *search) partly() Answer {
	now := 0.0
	for range s.q.Tasks {
		for k := range s.q.Tasks {
			if s.parts[k] != nil {
				continue
			}
			ready, ok := s.ready(k)
			if !ok {
				continue
			}
			if parts, ok := s.fit(k, max(now, ready)); ok {
				s.parts[k], s.ends[k] = parts, parts[len(parts)-1].End
				now = s.ends[k]
			}
		}
	}
	a := s.measured()
	a.Parts = s.parts
	for k := range s.parts {
		if s.parts[k] == nil {
			a.Left = append(a.Left, k)
		}
	}
	return a
}
