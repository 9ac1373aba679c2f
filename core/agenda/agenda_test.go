package agenda_test

import (
	"math"
	"math/rand/v2"
	"slices"
	"testing"

	"mallow/core/agenda"
)

// exhaustive tries every order of the tasks, and every day for each to begin on, and has
// the best by finish, trips and evenness.
func exhaustive(q agenda.Question) (best [3]float64, ok bool) {
	n := len(q.Tasks)
	ends, placed := make([]float64, n), make([]bool, n)
	hours := make([]float64, len(q.Days))
	place := func(t agenda.Task, from float64) (parts [][3]float64, end float64, ok bool) {
		left := t.Hours
		for day := int(from / 24); day < len(q.Days); day++ {
			if len(parts) == 0 && slices.Contains(t.Off, day) {
				continue
			}
			if t.Day >= 0 && len(parts) == 0 && day != t.Day {
				if day > t.Day {
					return nil, 0, false
				}
				continue
			}
			a, z := math.Max(from, float64(24*day)+q.Days[day].From), float64(24*day)+q.Days[day].To
			if t.Clock > 0 && len(parts) == 0 {
				if a > float64(24*day)+t.Clock+1e-9 {
					if t.Day >= 0 {
						return nil, 0, false
					}
					continue
				}
				a = float64(24*day) + t.Clock
			}
			if q.Days[day].To <= q.Days[day].From || z-a < 1e-9 {
				continue
			}
			if t.Whole && z-a < left-1e-9 {
				if t.Day >= 0 {
					return nil, 0, false
				}
				continue
			}
			d := math.Min(left, z-a)
			parts, left = append(parts, [3]float64{float64(day), a, d}), left-d
			if left < 1e-9 {
				return parts, a + d, true
			}
		}
		return nil, 0, false
	}
	var try func(done int, now float64)
	try = func(done int, now float64) {
		if done == n {
			finish, trips, uneven := 0.0, 0.0, 0.0
			for k := range n {
				finish = math.Max(finish, ends[k])
			}
			for _, h := range hours {
				if h > 0 {
					trips++
				}
				uneven += h * h
			}
			got := [3]float64{math.Ceil(finish/24 - 1e-9), trips, uneven}
			if !ok || slices.Compare(got[:], best[:]) < 0 {
				best, ok = got, true
			}
			return
		}
		for k, t := range q.Tasks {
			if placed[k] {
				continue
			}
			ready, may := t.NotBefore, true
			for _, l := range t.After {
				may = may && placed[l.Task]
				ready = math.Max(ready, ends[l.Task]+l.Hours)
			}
			if !may {
				continue
			}
			from := math.Max(now, ready)
			for day := int(from / 24); day < len(q.Days); day++ {
				parts, end, fits := place(t, math.Max(from, float64(24*day)))
				if !fits {
					break
				}
				if int(parts[0][0]) != day {
					continue
				}
				for _, p := range parts {
					hours[int(p[0])] += p[2]
				}
				placed[k], ends[k] = true, end
				try(done+1, end)
				placed[k] = false
				for _, p := range parts {
					hours[int(p[0])] -= p[2]
				}
			}
		}
	}
	try(0, 0)
	return best, ok
}

// As early, and on as few days, as an exhaustive search has it: small jobs with waits,
// days off, what must be whole and what has its day.
func TestAsExhaustiveSearch(t *testing.T) {
	rng := rand.New(rand.NewPCG(22, 2))
	proved := 0
	for n := range 400 {
		q := agenda.Question{}
		for range 5 + rng.IntN(3) {
			d := agenda.Span{From: 8, To: 8 + float64(2+rng.IntN(7))}
			if rng.IntN(4) == 0 {
				d.To = d.From
			}
			q.Days = append(q.Days, d)
		}
		for k := range 2 + rng.IntN(3) {
			task := agenda.Task{Hours: float64(1+rng.IntN(12)) / 2, Day: -1, Whole: rng.IntN(4) == 0}
			if rng.IntN(5) == 0 {
				task.NotBefore = float64(rng.IntN(60))
			}
			if rng.IntN(6) == 0 {
				task.Clock = float64(8 + rng.IntN(4))
			}
			if rng.IntN(8) == 0 {
				task.Day = rng.IntN(len(q.Days))
			}
			if rng.IntN(5) == 0 && task.Day < 0 {
				task.Off = []int{rng.IntN(len(q.Days)), rng.IntN(len(q.Days))}
			}
			if k > 0 && rng.IntN(3) > 0 {
				task.After = []agenda.Link{{Task: rng.IntN(k), Hours: float64(rng.IntN(3) * 12)}}
			}
			q.Tasks = append(q.Tasks, task)
		}
		want, ok := exhaustive(q)
		got := agenda.Plan(q)
		if ok != (len(got.Left) == 0) {
			t.Fatalf("case %d: left %v, a search %v", n, got.Left, ok)
		}
		if !ok {
			continue
		}
		proved++
		if !got.Best || math.Ceil(got.Finish/24-1e-9) != want[0] {
			t.Fatalf("case %d: ends on day %v, a search has %v: %+v", n, got.Finish/24, want[0], q)
		}
		if float64(got.Trips) != want[1] {
			t.Fatalf("case %d: %d trips, a search has %v: %+v", n, got.Trips, want[1], q)
		}
		if math.Abs(got.Uneven-want[2]) > 1e-6 {
			t.Errorf("case %d: uneven %v, a search has %v", n, got.Uneven, want[2])
		}
		holds(t, q, got)
		// Asked for the end alone, or for what ends by then, it ends on the same day.
		soon, by := q, q
		soon.Soonest, by.Until = true, got.Finish
		if a := agenda.Plan(soon); math.Ceil(a.Finish/24-1e-9) != want[0] {
			t.Errorf("case %d: the end alone is day %v, a search has %v", n, a.Finish/24, want[0])
		}
		if a := agenda.Plan(by); a.Better(got) || got.Better(a) {
			t.Errorf("case %d: by its own end another agenda is found", n)
		}
	}
	if proved < 200 {
		t.Errorf("only %d had an answer", proved)
	}
}

// holds: the hours of every task, within the days, after what it waits for, one at a
// time.
func holds(t *testing.T, q agenda.Question, a agenda.Answer) {
	t.Helper()
	var all []agenda.Part
	for k, parts := range a.Parts {
		sum := 0.0
		for _, p := range parts {
			day := int(p.Begin / 24)
			if p.Begin < float64(24*day)+q.Days[day].From-1e-9 || p.End > float64(24*day)+q.Days[day].To+1e-9 {
				t.Fatalf("task %d is done outside the day: %+v", k, p)
			}
			sum += p.End - p.Begin
			all = append(all, p)
		}
		if math.Abs(sum-q.Tasks[k].Hours) > 1e-6 {
			t.Fatalf("task %d has %v of %v hours", k, sum, q.Tasks[k].Hours)
		}
		for _, l := range q.Tasks[k].After {
			before := a.Parts[l.Task]
			if parts[0].Begin < before[len(before)-1].End+l.Hours-1e-9 {
				t.Fatalf("task %d begins before task %d has hardened", k, l.Task)
			}
		}
	}
	slices.SortFunc(all, func(a, b agenda.Part) int { return int(math.Copysign(1, a.Begin-b.Begin)) })
	for k := 1; k < len(all); k++ {
		if all[k].Begin < all[k-1].End-1e-9 {
			t.Fatalf("two at once: %+v %+v", all[k-1], all[k])
		}
	}
}

// By hand: digging of 10 hours, a pour of 3 in one go, a wait of a day and a half, rails
// of 6. Days of 8 hours: dig on the first and 2 hours of the second, pour at 10 on the
// second until 13, rails may begin 36 hours later, at 1 in the night of the fourth: they
// are built on the fourth day. A chain of that length is found at once.
func TestAgendaByHand(t *testing.T) {
	day := agenda.Span{From: 8, To: 16}
	q := agenda.Question{Days: []agenda.Span{day, day, day, day, day}, Tasks: []agenda.Task{
		{Hours: 10, Day: -1}, {Hours: 3, Whole: true, Day: -1, After: []agenda.Link{{Task: 0}}}, {Hours: 6, Day: -1, After: []agenda.Link{{Task: 1, Hours: 36}}},
	}}
	a := agenda.Plan(q)
	if a.Finish != 72+14 || a.Trips != 3 || !a.Best {
		t.Errorf("%+v", a)
	}
	// The truck comes on the third day only: digging begins on the second, so that there
	// are no more trips; rails may begin at 1 in the night of the fifth.
	q.Tasks[1].Day = 2
	if a = agenda.Plan(q); a.Parts[0][0].Begin != 24+8 || a.Parts[1][0].Begin != 48+10 || a.Trips != 3 || a.Finish != 96+14 {
		t.Errorf("moved: %+v", a)
	}
}

// With so many tasks that not every order can be weighed the bound is said.
func TestLongAgendaSaysItsBound(t *testing.T) {
	q := agenda.Question{}
	for range 60 {
		q.Days = append(q.Days, agenda.Span{From: 8, To: 16})
	}
	for range 30 {
		q.Tasks = append(q.Tasks, agenda.Task{Hours: 3.5, Day: -1})
	}
	a := agenda.Plan(q)
	if a.Best || a.Bound <= 0 || a.Bound > a.Finish || len(a.Left) != 0 {
		t.Errorf("best %v, bound %v of %v", a.Best, a.Bound, a.Finish)
	}
	holds(t, q, a)
}

func BenchmarkAgenda(b *testing.B) {
	q := agenda.Question{}
	for range 30 {
		q.Days = append(q.Days, agenda.Span{From: 8, To: 16})
	}
	for k := range 12 {
		task := agenda.Task{Hours: 2 + float64(k%5), Day: -1}
		if k > 0 {
			task.After = []agenda.Link{{Task: k - 1, Hours: float64(k%3) * 12}}
		}
		q.Tasks = append(q.Tasks, task)
	}
	for b.Loop() {
		agenda.Plan(q)
	}
}
