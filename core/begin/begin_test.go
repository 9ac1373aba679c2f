package begin_test

import (
	"errors"
	"math/rand/v2"
	"strings"
	"testing"

	"mallow/core/begin"
	"mallow/core/document"
	"mallow/core/finding"
	"mallow/core/length"
	"mallow/core/plan"
	"mallow/demo/demotest"
)

func ft(n float64) *length.Length { l := length.Length(n) * length.Foot; return &l }

// Worked by hand: 60 ft of boards on rails at 8 ft, equal or on stock lengths,
// take 8 bays at least and 9 posts; in 36 in of frost and 6 in more every hole
// is 42 in deep or deeper. Nothing warns.
func TestAFlatJobWarnsOfNothing(t *testing.T) {
	cat := demotest.Catalog(t)
	for _, fence := range begin.Fences(length.Imperial, cat) {
		if strings.Contains(fence.ID, "gate") {
			continue
		}
		a := begin.Answers{System: length.Imperial, Fence: fence.ID, Length: ft(60), Frost: ft(3)}
		j, err := begin.Job(a, cat)
		if err != nil {
			t.Fatalf("%s: %v", fence.ID, err)
		}
		p := plan.Make(j, cat)
		for _, f := range p.Findings {
			if f.Severity != finding.Note {
				t.Errorf("%s warns on a flat 60 ft: %s %s %v", fence.ID, f.Severity, f.Rule, f.Says)
			}
		}
	}
	j, err := begin.Job(begin.Answers{System: length.Imperial, Fence: "boards-on-rails", Length: ft(60), Frost: ft(3)}, cat)
	if err != nil {
		t.Fatal(err)
	}
	p := plan.Make(j, cat)
	if n := len(p.Runs[0].Posts); n != 9 {
		t.Errorf("%d posts, by hand 9", n)
	}
	for _, post := range p.Runs[0].Posts {
		if post.HoleDepth < 42*length.Inch-length.Tolerance {
			t.Errorf("%s: a hole of %v", post.Label, post.HoleDepth)
		}
	}
	if j.Name != "Close boards or slats on rails, 60' 0\"" {
		t.Errorf("named %q", j.Name)
	}
}

// Any answer may be left out, and the whole plan stands; what was assumed is
// said, once each.
func TestAnyAnswerMayBeLeftOut(t *testing.T) {
	cat := demotest.Catalog(t)
	r := rand.New(rand.NewPCG(20, 13))
	for _, sys := range []length.System{length.Imperial, length.Metric} {
		fences := append(begin.Fences(sys, cat), begin.FenceType{})
		for n, fence := range fences {
			for mask := range 64 {
				if testing.Short() && (n+mask)%7 != 0 {
					continue
				}
				a := begin.Answers{System: sys}
				if mask&1 != 0 {
					a.Fence = fence.ID
				}
				if mask&2 != 0 {
					a.Height = ft(3 + float64(r.IntN(5)))
				}
				if mask&4 != 0 {
					a.Length = ft(14 + 200*r.Float64())
				}
				if mask&8 != 0 {
					a.Gate = begin.Walk
				}
				if mask&16 != 0 {
					a.Fall = *ft(r.Float64() * 2)
				}
				if mask&32 != 0 {
					a.Frost = ft(3)
				}
				bare := a.Fence == "drive-gate" || a.Fence == "drive-gate-m"
				j, err := begin.Job(a, cat)
				var refused document.Errors
				if err != nil {
					// A gate may have no room, or a bare gate no end.
					if !errors.As(err, &refused) && !bare || bare && a.Length == nil {
						t.Fatalf("%+v: %v", a, err)
					}
					continue
				}
				p := plan.Make(j, cat)
				if len(p.Runs[0].Posts) < 2 || len(p.Runs[0].Cards) == 0 {
					t.Fatalf("%+v: %d posts", a, len(p.Runs[0].Posts))
				}
				said := map[string]int{}
				for _, f := range p.Findings {
					said[f.Rule]++
					if f.Severity == finding.Missing {
						t.Errorf("%+v: %s is missing", a, f.Rule)
					}
				}
				if want := btoi(a.Length == nil); said["length-assumed"] != want {
					t.Errorf("%+v: an assumed length said %d times", a, said["length-assumed"])
				}
				if want := btoi(a.Frost == nil); said["frost-estimate"] != want {
					t.Errorf("%+v: an estimated frost said %d times", a, said["frost-estimate"])
				}
				if want := btoi(a.Gate != "" || bare); len(p.Runs[0].Gates) != want {
					t.Errorf("%+v: %d gates", a, len(p.Runs[0].Gates))
				}
			}
		}
	}
}

func btoi(b bool) int {
	if b {
		return 1
	}
	return 0
}

// A colder winter freezes deeper, and each estimate lies where building offices
// of such places have theirs (from memory: about 1, 3 and 5 ft).
func TestWinters(t *testing.T) {
	cat := demotest.Catalog(t)
	var last length.Length
	for _, c := range []struct {
		winter      begin.Winter
		least, most float64
	}{{begin.Mild, 0.8, 2}, {begin.Cold, 2.2, 4.2}, {begin.Severe, 4, 7}} {
		j, err := begin.Job(begin.Answers{System: length.Imperial, Length: ft(60), Winter: c.winter}, cat)
		if err != nil {
			t.Fatal(err)
		}
		p := plan.Make(j, cat)
		frost := *p.Runs[0].Frost
		if !p.Runs[0].FrostEstimated || frost <= last || frost < *ft(c.least) || frost > *ft(c.most) {
			t.Errorf("%s: %v", c.winter, frost)
		}
		last = frost
	}
}

// What cannot be is refused by its field.
func TestAnswersThatCannotBe(t *testing.T) {
	cat := demotest.Catalog(t)
	for field, a := range map[string]begin.Answers{
		"/system": {System: "cubits"}, "/fence": {System: length.Metric, Fence: "chain-link"}, "/height": {System: length.Imperial, Height: ft(99)},
		"/length": {System: length.Imperial, Length: ft(0.1)}, "/fall": {System: length.Imperial, Fall: *ft(9999)}, "/frost": {System: length.Imperial, Frost: ft(-1)},
		"/gate": {System: length.Imperial, Gate: "stile"}, "/winter": {System: length.Imperial, Winter: "nuclear"},
	} {
		_, err := begin.Job(a, cat)
		var refused document.Errors
		if !errors.As(err, &refused) || refused[0].Field != field {
			t.Errorf("%s: %v", field, err)
		}
	}
	// No room for a gate, and it says so.
	_, err := begin.Job(begin.Answers{System: length.Imperial, Length: ft(3), Gate: begin.Drive}, cat)
	var refused document.Errors
	if !errors.As(err, &refused) || refused[0].Field != "/gate" {
		t.Errorf("a drive gate in 3 ft: %v", err)
	}
}

// Every fence type is there in both systems of units, drawn.
func TestTypesAreTheSameInBothSystems(t *testing.T) {
	cat := demotest.Catalog(t)
	imperial, metric := begin.Fences(length.Imperial, cat), begin.Fences(length.Metric, cat)
	names := map[string]bool{}
	for _, f := range metric {
		names[f.Name] = true
	}
	for _, f := range imperial {
		if !names[f.Name] {
			t.Errorf("%s is not there in metres", f.Name)
		}
	}
	if len(imperial) != len(metric) {
		t.Errorf("%d types in feet, %d in metres", len(imperial), len(metric))
	}
	for _, f := range append(imperial, metric...) {
		if f.Drawing == nil || len(f.Drawing.Layers) < 3 {
			t.Errorf("%s is not drawn", f.ID)
		}
	}
}
