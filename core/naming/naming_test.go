package naming_test

import (
	"math"
	"math/rand/v2"
	"slices"
	"strings"
	"testing"

	"mallow/core/length"
	"mallow/core/naming"
)

func line(at ...float64) []naming.Known {
	out := make([]naming.Known, len(at))
	for i, s := range at {
		out[i].At = length.Length(s)
	}
	return out
}

// Layouts worked by hand.
func TestMatch(t *testing.T) {
	gate := func(list []naming.Known, i int, by string) []naming.Known {
		list = slices.Clone(list)
		list[i].By = by
		return list
	}
	for _, c := range []struct {
		what       string
		known, now []naming.Known
		want       []int
	}{
		{"nothing moved", line(0, 2400, 4800), line(0, 2400, 4800), []int{0, 1, 2}},
		{"closer together by one post: the new one is where there was none", line(0, 2400, 4800, 7200), line(0, 1800, 3600, 5400, 7200), []int{0, 1, -1, 2, 3}},
		{"the run is longer", line(0, 2400, 4800), line(0, 2400, 4800, 7200), []int{0, 1, 2, -1}},
		{"the run is shorter", line(0, 2400, 4800, 7200), line(0, 2400, 4800), []int{0, 1, 2}},
		{"one goes: the rest stay who they are", line(0, 1000, 2000, 3000, 4000), line(0, 1000, 3000, 4000), []int{0, 1, 3, 4}},
		{"the first of all", line(), line(0, 2400), []int{-1, -1}},
		{"a gate moved past a post", gate(line(0, 2000, 3000, 6000), 1, "gates/G1/first"), gate(line(0, 3000, 3500, 6000), 2, "gates/G1/first"), []int{0, 2, 1, 3}},
		{"a held post is let go", gate(line(0, 2400, 4800), 1, "fixedPosts/F1"), line(0, 2500, 4800), []int{0, 1, 2}},
		{"a line post is held", line(0, 2400, 4800), gate(line(0, 2500, 4800), 1, "fixedPosts/F1"), []int{0, 1, 2}},
	} {
		if got := naming.Match(c.known, c.now); !slices.Equal(got, c.want) {
			t.Errorf("%s: got %v, want %v", c.what, got, c.want)
		}
	}
}

// least is the least that posts move when as many names as can be are kept in
// their order, by trying all.
func least(known, now []naming.Known) (kept int, moved float64) {
	if len(known) == 0 || len(now) == 0 {
		return 0, 0
	}
	kept, moved = least(known[1:], now[1:])
	kept, moved = kept+1, moved+math.Abs(float64(known[0].At-now[0].At))
	for _, other := range []func() (int, float64){
		func() (int, float64) { return least(known[1:], now) },
		func() (int, float64) { return least(known, now[1:]) },
	} {
		if k, m := other(); k > kept || k == kept && m < moved {
			kept, moved = k, m
		}
	}
	return kept, moved
}

// Of every small layout as many names are kept, in their order, with as little
// moving as trying all ways finds; and a post that has not moved is itself.
func TestMatchIsTheBestOfAll(t *testing.T) {
	rng := rand.New(rand.NewPCG(18, 1))
	some := func() []naming.Known {
		at := make([]float64, rng.IntN(8))
		for i := range at {
			at[i] = 10 * float64(rng.IntN(900))
		}
		slices.Sort(at)
		return line(slices.Compact(at)...)
	}
	for range 4000 {
		known, now := some(), some()
		shares := slices.ContainsFunc(known, func(k naming.Known) bool { return slices.Contains(now, k) })
		match := naming.Match(known, now)
		kept, moved, last := 0, 0.0, -1
		for i, k := range match {
			if k < 0 {
				continue
			}
			if k <= last {
				t.Fatalf("%v to %v: %v changes places", known, now, match)
			}
			kept, moved, last = kept+1, moved+math.Abs(float64(known[k].At-now[i].At)), k
		}
		for i, p := range now {
			if k := slices.Index(known, p); k >= 0 && match[i] != k {
				t.Fatalf("%v to %v: %v renames a post that stands still", known, now, match)
			}
		}
		if wantKept, wantMoved := least(known, now); !shares && (kept != wantKept || math.Abs(moved-wantMoved) > 1e-6) {
			t.Fatalf("%v to %v: %v keeps %d and moves %g, of all ways %d and %g", known, now, match, kept, moved, wantKept, wantMoved)
		}
	}
}

func TestLabels(t *testing.T) {
	for pinned, want := range map[string]string{
		"":                                 "",
		",,":                               "P1 P2 P3",
		",,P3,P4,":                         "P1 P2 P3 P4 P5",
		",P7,,P8,":                         "P1 P7 P7a P8 P9",
		"P7,,,P8":                          "P7 P7a P7b P8",
		"P7,P7a,,P8":                       "P7 P7a P7b P8",
		"P7,,P7a,P8":                       "P7 P7b P7a P8",
		"P1,,,,P4":                         "P1 P2 P3 P3a P4",
		"P1,,P9":                           "P1 P2 P9",
		",,P2":                             "P1 P1a P2",
		",P1":                              "P1a P1",
		",P5,,P3,":                         "P6 P5 P4 P3 P2",
		"P5,,P4,,,,,":                      "P5 P5a P4 P3 P2 P1 P1a P1b",
		"P3,P3":                            "P3 P4",
		"P2,,,,,,,,,,,,,,,,,,,,,,,,,,,,P3": "P2 P2a P2b P2c P2d P2e P2f P2g P2h P2i P2j P2k P2l P2m P2n P2o P2p P2q P2r P2s P2t P2u P2v P2w P2x P2y P2z P2aa P3",
	} {
		var list []string
		if pinned != "" {
			list = strings.Split(pinned, ",")
		}
		if got := strings.Join(naming.Labels(list), " "); got != want {
			t.Errorf("%q: got %s, want %s", pinned, got, want)
		}
	}
}

// Whatever is pinned, no two posts are called alike, and what is pinned stays.
func TestLabelsAreApart(t *testing.T) {
	rng := rand.New(rand.NewPCG(18, 2))
	for range 5000 {
		list := make([]string, rng.IntN(30))
		order := rng.Perm(40)
		for i := range list {
			if rng.IntN(3) == 0 {
				list[i] = "P" + string(rune('1'+order[i]%9)) + []string{"", "", "a", "b"}[rng.IntN(4)]
			}
		}
		seen := map[string]bool{}
		got := naming.Labels(list)
		for i, l := range got {
			if l == "" || seen[l] {
				t.Fatalf("%v: %v", list, got)
			}
			if list[i] != "" && !slices.Contains(list[:i], list[i]) && l != list[i] {
				t.Fatalf("%v: %v does not keep %s", list, got, list[i])
			}
			seen[l] = true
		}
	}
}

func BenchmarkMatch10000(b *testing.B) {
	known, now := make([]naming.Known, 10000), make([]naming.Known, 7500)
	for i := range known {
		known[i].At = length.Length(i) * 1800
	}
	for i := range now {
		now[i].At = length.Length(i)*2400 + 7
	}
	for b.Loop() {
		naming.Match(known, now)
	}
}
