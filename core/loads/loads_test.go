package loads_test

import (
	"math"
	"math/rand/v2"
	"testing"

	"mallow/core/loads"
)

// exhaustive tries every way to break the posts into loads and every slot for each.
func exhaustive(q loads.Question) (best [3]float64, ok bool) {
	best = [3]float64{math.Inf(1), math.Inf(1), math.Inf(1)}
	var try func(first, n int, charge, after float64)
	try = func(first, n int, charge, after float64) {
		if first == len(q.Volumes) {
			got := [3]float64{float64(n), charge, after}
			for k := range got {
				if got[k] < best[k]-1e-9 {
					best, ok = got, true
				}
				if got[k] > best[k]+1e-9 || ok && got == best {
					return
				}
			}
			return
		}
		for last := first; last < len(q.Volumes); last++ {
			volume, minutes := 0.0, 0.0
			for i := first; i <= last; i++ {
				volume, minutes = volume+q.Volumes[i], minutes+q.Minutes[i]
			}
			if volume > q.Most+1e-9 {
				return
			}
			for _, at := range q.Slots {
				if at >= after-1e-9 && minutes <= q.Works(at)+1e-9 {
					try(last+1, n+1, charge+q.Charge(volume), at+minutes)
				}
			}
		}
	}
	try(0, 0, 0, 0)
	return best, ok
}

// The fewest loads, the least charge, the earliest end, as an exhaustive search has
// them: small pours on a day whose heat shortens what comes at noon.
func TestAsExhaustiveSearch(t *testing.T) {
	rng := rand.New(rand.NewPCG(22, 1))
	planned := 0
	for n := range 1000 {
		posts := 1 + rng.IntN(6)
		q := loads.Question{Most: 0.3 + rng.Float64()*1.5, Volumes: make([]float64, posts), Minutes: make([]float64, posts)}
		for i := range posts {
			q.Volumes[i], q.Minutes[i] = 0.05+rng.Float64()*0.4, 3+rng.Float64()*25
		}
		at := 0.0
		for range 1 + rng.IntN(6) {
			at += 10 + rng.Float64()*80
			q.Slots = append(q.Slots, at)
		}
		noon, heat := rng.Float64()*300, 10+rng.Float64()*60
		q.Works = func(at float64) float64 { return max(0, 70-heat*math.Exp(-(at-noon)*(at-noon)/8000)) }
		q.Charge = func(v float64) float64 { return math.Round(max(0, 0.8-v) * 10) }
		got := loads.Plan(q)
		want, ok := exhaustive(q)
		if ok != (got.Stuck < 0) {
			t.Fatalf("case %d: stuck at %d, a search %v", n, got.Stuck, ok)
		}
		if !ok {
			continue
		}
		planned++
		end, set := got.Loads[len(got.Loads)-1].End, 0
		for k, l := range got.Loads {
			if l.First != set || l.End > l.Worked+1e-9 || l.Volume > q.Most+1e-9 || k > 0 && l.At < got.Loads[k-1].End-1e-9 {
				t.Fatalf("case %d: load %d: %+v", n, k, l)
			}
			set = l.Last + 1
		}
		if have := [3]float64{float64(len(got.Loads)), got.Charge, end}; set != posts || math.Abs(have[0]-want[0]) > 0 || math.Abs(have[1]-want[1]) > 1e-6 || math.Abs(have[2]-want[2]) > 1e-6 {
			t.Fatalf("case %d: loads, charge, end %v, a search has %v", n, have, want)
		}
	}
	if planned < 300 {
		t.Errorf("only %d of 1000 could be planned at all", planned)
	}
}

// Thirty holes of a tenth of a yard are three yards: on a cool day one load, on a hot
// one, where a load is over after 45 minutes, half before and half after lunch.
func TestHalfInTheMorningHalfAfterLunch(t *testing.T) {
	q := loads.Question{Most: 10, Slots: []float64{0, 60, 120, 330}, Charge: func(float64) float64 { return 0 }}
	for range 30 {
		q.Volumes, q.Minutes = append(q.Volumes, 0.1), append(q.Minutes, 2)
	}
	q.Works = func(float64) float64 { return 75 }
	if a := loads.Plan(q); len(a.Loads) != 1 || math.Abs(a.Loads[0].Volume-3) > 1e-9 || a.Loads[0].End != 60 {
		t.Errorf("cool: %+v", a.Loads)
	}
	q.Slots = []float64{0, 330}
	q.Works = func(float64) float64 { return 45 }
	if a := loads.Plan(q); len(a.Loads) != 2 || a.Loads[1].At != 330 || a.Stuck >= 0 {
		t.Errorf("hot: %+v", a.Loads)
	}
	q.Works = func(float64) float64 { return 20 }
	if a := loads.Plan(q); a.Stuck != 20 {
		t.Errorf("two loads of ten posts set 20 of 30: stuck at %d", a.Stuck)
	}
}

func BenchmarkLoads(b *testing.B) {
	q := loads.Question{Most: 2, Charge: func(v float64) float64 { return max(0, 1-v) }, Works: func(at float64) float64 { return 60 - at/40 }}
	for i := range 200 {
		q.Volumes, q.Minutes = append(q.Volumes, 0.04+float64(i%7)/100), append(q.Minutes, 3)
	}
	for k := range 120 {
		q.Slots = append(q.Slots, float64(k)*15)
	}
	for b.Loop() {
		loads.Plan(q)
	}
}
