package drawing_test

import (
	"math"
	"strings"
	"testing"

	"mallow/catalog"
	"mallow/core/document"
	"mallow/core/plan"
	"mallow/demo"
	"mallow/drawing"
)

func planned(t *testing.T, n int) plan.Plan {
	t.Helper()
	cat, err := catalog.Load()
	if err != nil {
		t.Fatal(err)
	}
	docs, err := demo.Jobs()
	if err != nil {
		t.Fatal(err)
	}
	j, _, err := document.Decode(docs[n], cat)
	if err != nil {
		t.Fatal(err)
	}
	return plan.Make(j, cat)
}

func of(pic drawing.Picture, l drawing.Layer, closed bool) []drawing.Path {
	var out []drawing.Path
	for _, p := range pic.Paths {
		if p.Layer == l && p.Closed == closed {
			out = append(out, p)
		}
	}
	return out
}

func span(p drawing.Path) (low, high drawing.Point) {
	low, high, _ = drawing.Picture{Paths: []drawing.Path{p}}.Bounds()
	return low, high
}

// The picture from the side is the plan: each post from ground to top at its
// station, each hole as wide and deep as it is dug, each bay between its
// posts, the ground at its heights.
func TestElevationIsThePlan(t *testing.T) {
	for n := range 2 {
		p := planned(t, n)
		for i, r := range p.Runs {
			pic := drawing.Elevation(p, i, 0, r.Length)
			posts := of(pic, drawing.Posts, true)
			if len(posts) != len(r.Posts) {
				t.Fatalf("%s: %d posts drawn of %d", r.Name, len(posts), len(r.Posts))
			}
			holes := of(pic, drawing.Footings, true)
			for k, q := range r.Posts {
				low, high := span(posts[k])
				if math.Abs((low.X+high.X)/2-float64(q.Station)) > 1e-6 || math.Abs(low.Y-float64(q.Ground)) > 1e-6 || math.Abs(high.Y-float64(q.Top)) > 1e-6 {
					t.Errorf("%s %s is drawn from %v to %v", r.Name, q.Label, low, high)
				}
				found := false
				for _, h := range holes {
					low, high := span(h)
					found = found || math.Abs((low.X+high.X)/2-float64(q.Station)) < 1 && math.Abs(high.X-low.X-float64(q.HoleWidth)) < 1e-6 && math.Abs(high.Y-low.Y-float64(q.HoleDepth)) < 1e-6
				}
				if !found {
					t.Errorf("%s %s: no hole of %v × %v is drawn", r.Name, q.Label, q.HoleWidth, q.HoleDepth)
				}
			}
			if bays := of(pic, drawing.Fence, true); len(bays) != len(r.Bays)-len(r.Gates) {
				t.Errorf("%s: %d bays drawn of %d", r.Name, len(bays), len(r.Bays)-len(r.Gates))
			}
			leaves := 0
			for _, g := range r.Gates {
				leaves += len(g.Leaves)
			}
			if drawn := of(pic, drawing.Gates, true); len(drawn) != leaves {
				t.Errorf("%s: %d leaves drawn of %d", r.Name, len(drawn), leaves)
			}
			ground := of(pic, drawing.Ground, false)[0]
			for _, g := range r.Ground {
				found := false
				for _, q := range ground.Points {
					found = found || math.Abs(q.X-float64(g.At)) < 1e-6 && math.Abs(q.Y-float64(g.Height)) < 1e-6
				}
				if !found {
					t.Errorf("%s: the ground at %v is not drawn at %v", r.Name, g.At, g.Height)
				}
			}
		}
	}
}

// Strips of a run are the run: each post stands in one, or in the two that
// meet on it.
func TestStripsMakeTheRun(t *testing.T) {
	p := planned(t, 0)
	r := p.Runs[0]
	seen := map[string]int{}
	for from := 0; from < len(r.Posts)-1; from += 6 {
		to := min(from+6, len(r.Posts)-1)
		for _, text := range drawing.Elevation(p, 0, r.Posts[from].Station, r.Posts[to].Station).Texts {
			seen[text.Words]++
		}
	}
	for k, q := range r.Posts {
		want := 1
		if k%6 == 0 && k > 0 && k < len(r.Posts)-1 {
			want = 2
		}
		if seen[q.Label] != want {
			t.Errorf("%s stands in %d strips, want %d", q.Label, seen[q.Label], want)
		}
	}
}

// From above, posts stand where the plan puts them on the map, and the swept
// ground of a leaf is as far across as it reaches.
func TestMapIsThePlan(t *testing.T) {
	for n := range 2 {
		p := planned(t, n)
		pic := drawing.Map(p)
		count, swings := 0, 0
		for _, r := range p.Runs {
			count += len(r.Posts)
			for _, g := range r.Gates {
				for _, l := range g.Leaves {
					swings += len(l.Sides)
				}
			}
		}
		corners := 0
		for _, l := range p.Lines {
			corners += len(l.Corners)
		}
		if posts := of(pic, drawing.Posts, true); len(posts) != count+corners {
			t.Errorf("%d posts and corners drawn, want %d", len(posts), count+corners)
		}
		drawn := of(pic, drawing.Swings, true)
		if len(drawn) != swings {
			t.Errorf("%d swings drawn of %d", len(drawn), swings)
		}
		reach := float64(p.Runs[0].Gates[0].Leaves[0].Reach)
		pin := drawn[0].Points[0]
		for _, q := range drawn[0].Points[1:] {
			if d := math.Hypot(q.X-pin.X, q.Y-pin.Y); math.Abs(d-reach) > 0.05 {
				t.Errorf("the swept ground is %v from its pin, the leaf reaches %v", d, reach)
			}
		}
	}
}

// A hole's layers fill it from the bottom up, and its words keep apart.
func TestHolesAreFilled(t *testing.T) {
	p := planned(t, 0)
	for i, r := range p.Runs {
		for _, c := range r.Cards {
			pic := drawing.Hole(p, i, c)
			low, _ := 0.0, 0.0
			for _, layer := range of(pic, drawing.Footings, true) {
				bottom, _ := span(layer)
				low = math.Min(low, bottom.Y)
			}
			if c.Depth > 0 && math.Abs(low+float64(c.Depth)) > 1e-6 {
				t.Errorf("%s: layers reach %v, the hole is %v deep", r.Name, -low, c.Depth)
			}
			last := math.Inf(-1)
			said := false
			for _, text := range pic.Texts {
				if text.Words == "dig "+p.Units.Short(c.Depth) {
					said = true
				}
				if text.Size == 6.5 {
					if text.At.Y <= last {
						t.Errorf("%s: %q runs into the words below", r.Name, text.Words)
					}
					last = text.At.Y
				}
			}
			if !said {
				t.Errorf("%s: nothing says how deep to dig", r.Name)
			}
		}
		for _, g := range r.Gates {
			words := ""
			for _, text := range drawing.GateFront(p, i, g).Texts {
				words += text.Words + "\n"
			}
			for _, want := range []string{"inside " + p.Units.Short(g.Opening), "centre to centre " + p.Units.Short(g.Centre), "outside " + p.Units.Short(g.Outside), g.First + " hinges", p.Units.Short(g.Leaves[0].Hinges[0].Above)} {
				if !strings.Contains(words, want) {
					t.Errorf("%s: its front does not say %q", g.Name, want)
				}
			}
		}
		if _, _, ok := drawing.Stick(p, *r.TopLine).Bounds(); !ok {
			t.Errorf("%s: no story stick", r.Name)
		}
	}
}
