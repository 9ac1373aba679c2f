package scene

import (
	"encoding/json"
	"fmt"
	"math"
	"math/rand"
	"strings"
	"testing"

	"mallow/core/document"
	"mallow/core/length"
	"mallow/core/plan"
	"mallow/demo/demotest"
)

// jobs are the demo's plans.
func jobs(t testing.TB) []plan.Plan {
	_, a := demotest.Job(t, 0)
	_, b := demotest.Job(t, 1)
	return []plan.Plan{a, b}
}

// sideFrame is the frame of the drawing from the side, as the screen makes it.
func sideFrame(r *plan.Run, run length.Length, width, height float64) Frame {
	high, low := 0.0, 0.0
	for i := range r.Posts {
		high, low = max(high, float64(r.Posts[i].Top)), min(low, float64(r.Posts[i].Ground-r.Posts[i].HoleDepth))
	}
	const over = 40
	across := (width - 56) / max(1, float64(run))
	rise := (height - over - 20) / max(1, high-low)
	return Frame{Width: width, Height: height, Top: over, X: &Axis{28, across}, Y: &Axis{over + high*rise, rise}}
}

// views are all drawings of a plan at a width, as the screen asks for them.
func views(p plan.Plan, width float64) []View {
	var out []View
	narrow := min(width, 620)
	for i := range p.Runs {
		r := &p.Runs[i]
		least, most := length.Length(25), length.Length(150)
		for _, s := range []Stress{Walking, Strings, Spacing, Grading, Gates, Digging, Pouring, OnPaper} {
			out = append(out, View{Of: OfElevation, Run: r.ID, Stress: s, Least: &least, Most: &most, Frame: sideFrame(r, r.Length, width, 300)})
		}
		for _, l := range p.Lines {
			if l.ID == r.Line && l.Runs > 1 {
				out = append(out, View{Of: OfElevation, Run: r.ID, Whole: true, Stress: Digging, Frame: sideFrame(r, l.Length, width, 330)})
			}
		}
		for _, s := range []Stress{Plainly, Strings, OnPaper} {
			out = append(out, View{Of: OfMap, Run: r.ID, Stress: s, Frame: Frame{Width: width, Height: min(400, width*0.7)}})
		}
		out = append(out, View{Of: OfStick, Run: r.ID, Frame: Frame{Width: min(width, 420), Height: 560}})
		out = append(out, View{Of: OfAlong, Run: r.ID, Aside: 2000, Back: 3000, Closer: 1, Frame: Frame{Width: width, Height: 430}})
		for k := range r.Cards {
			out = append(out, View{Of: OfHole, Run: r.ID, Card: k, Frame: Frame{Width: narrow, Height: 430}})
		}
		for _, g := range r.Gates {
			room := length.Length(1500)
			for _, hang := range []bool{true, false} {
				out = append(out, View{Of: OfFront, Run: r.ID, Gate: g.ID, Hang: hang, Frame: Frame{Width: narrow, Height: 420}})
			}
			for _, angle := range []float64{0, 37, 90} {
				out = append(out, View{Of: OfAbove, Run: r.ID, Gate: g.ID, Angle: angle, Room: &room, Road: &room, Frame: Frame{Width: narrow, Height: 300}})
				for _, l := range g.Leaves {
					out = append(out, View{Of: OfSide, Run: r.ID, Gate: g.ID, Leaf: l.Post, Angle: angle, Frame: Frame{Width: narrow, Height: 220, Stretch: 6}},
						View{Of: OfSwing, Run: r.ID, Gate: g.ID, Leaf: l.Post, Angle: angle, Frame: Frame{Width: narrow, Height: 110, Stretch: free}})
				}
			}
			for _, l := range g.Leaves {
				if l.Adjust != nil {
					out = append(out, View{Of: OfDrop, Run: r.ID, Gate: g.ID, Leaf: l.Post, Frame: Frame{Width: narrow, Height: 220}})
				}
			}
		}
	}
	return out
}

// corners of a placed label's box, turned.
func corners(p Placed) [4][2]float64 {
	b := p.Box
	cx, cy := b[0]+b[2]/2, b[1]+b[3]/2
	sin, cos := math.Sincos(p.Turn * math.Pi / 180)
	var out [4][2]float64
	for i, k := range [4][2]float64{{-1, -1}, {1, -1}, {1, 1}, {-1, 1}} {
		x, y := k[0]*b[2]/2, k[1]*b[3]/2
		out[i] = [2]float64{cx + x*cos - y*sin, cy + x*sin + y*cos}
	}
	return out
}

// overlap is the area that two turned boxes share: the one clipped by each
// edge of the other (Sutherland and Hodgman 1974), another method than the
// axes that the labels are placed by.
func overlap(a, b [4][2]float64) float64 {
	poly := a[:]
	for i := range b {
		p, q := b[i], b[(i+1)%4]
		inside := func(r [2]float64) float64 { return (q[0]-p[0])*(r[1]-p[1]) - (q[1]-p[1])*(r[0]-p[0]) }
		var next [][2]float64
		for k := range poly {
			r, s := poly[k], poly[(k+1)%len(poly)]
			dr, ds := inside(r), inside(s)
			if dr >= 0 {
				next = append(next, r)
			}
			if dr >= 0 != (ds >= 0) {
				t := dr / (dr - ds)
				next = append(next, [2]float64{r[0] + t*(s[0]-r[0]), r[1] + t*(s[1]-r[1])})
			}
		}
		if poly = next; len(poly) == 0 {
			return 0
		}
	}
	area := 0.0
	for i := range poly {
		k := (i + 1) % len(poly)
		area += poly[i][0]*poly[k][1] - poly[k][0]*poly[i][1]
	}
	return math.Abs(area) / 2
}

func said(p Placed, u length.Units) string {
	var out []string
	for _, l := range p.Lines {
		out = append(out, l.Print(u))
	}
	return strings.Join(out, "; ")
}

// clear holds that no label crosses another or the frame.
func clear(t *testing.T, name string, d Drawing, u length.Units) {
	t.Helper()
	for i, p := range d.Labels {
		for _, c := range corners(p) {
			if c[0] < -0.1 || c[0] > d.Width+0.1 || c[1] < -0.1 || c[1] > d.Height+0.1 {
				t.Errorf("%s: %q leaves the frame at %.1f, %.1f of %v × %v", name, said(p, u), c[0], c[1], d.Width, d.Height)
				break
			}
		}
		for _, q := range d.Labels[:i] {
			if area := overlap(corners(p), corners(q)); area > 0.5 {
				t.Errorf("%s: %q lies on %q by %.1f square pixels", name, said(p, u), said(q, u), area)
			}
		}
	}
}

// No label crosses another or the frame, in any drawing of the demo's jobs, on
// a phone, on a laptop and on a large screen; and what must be said is.
func TestLabelsAreApart(t *testing.T) {
	seen := 0
	for n, p := range jobs(t) {
		for _, width := range []float64{390, 1280, 2560} {
			for _, v := range views(p, width) {
				name := fmt.Sprintf("job %d at %v: %s of %s %s %s, card %d, %v°, hang %v", n, width, v.Of, v.Run, v.Gate, v.Stress, v.Card, v.Angle, v.Hang)
				d, err := Of(p, v, Screen)
				if err != nil {
					t.Fatalf("%s: %v", name, err)
				}
				seen += len(d.Labels)
				clear(t, name, d, p.Units)
				s, err := sceneOf(p, v)
				if err != nil {
					t.Fatal(err)
				}
				placed := map[string]int{}
				for _, l := range d.Labels {
					placed[said(l, p.Units)]++
				}
				for i := range s.Labels {
					l := &s.Labels[i]
					what := said(Placed{Lines: l.text(p.Units)}, p.Units)
					if placed[what]--; l.Must && v.Stress != OnPaper && placed[what] < 0 {
						t.Errorf("%s: nothing says %q", name, what)
					}
				}
			}
		}
	}
	if seen < 3000 {
		t.Errorf("only %d labels were looked at", seen)
	}
}

// Placing keeps labels apart whatever there is to place.
func TestAnyLabelsAreApart(t *testing.T) {
	rng := rand.New(rand.NewSource(7))
	u := length.Usual(length.Imperial)
	for n := range 300 {
		var s Scene
		s.line(Line, "", 0, 0, 10000, 5000)
		for range 1 + rng.Intn(60) {
			l := Label{At: Point{rng.Float64() * 10000, rng.Float64() * 5000}, Words: strings.Repeat("m", 1+rng.Intn(12)), Strong: rng.Intn(3) == 0, Must: rng.Intn(4) == 0,
				Put: []Put{On, Over, Under, Beside, Along, Left, Right, RowOver, RowUnder, Leftmost, Rightend}[rng.Intn(11)], Turn: rng.Float64()*720 - 360, Row: rng.Intn(2), Off: float64(rng.Intn(20)), Rank: rng.Intn(5)}
			if l.Put == Left || l.Put == Right {
				l.Must = false
			}
			s.say(l)
		}
		s.sorted()
		d := Arrange(s, Frame{Width: 300 + rng.Float64()*900, Height: 200 + rng.Float64()*400}, u, Screen)
		clear(t, fmt.Sprint("case ", n), d, u)
		if len(d.Labels)+d.Left > len(s.Labels) {
			t.Errorf("case %d: %d placed and %d left of %d", n, len(d.Labels), d.Left, len(s.Labels))
		}
	}
}

func TestViewsAreRefused(t *testing.T) {
	p := jobs(t)[0]
	good := View{Of: OfElevation, Run: p.Runs[0].ID, Frame: Frame{Width: 100, Height: 100}}
	for field, spoil := range map[string]func(*View){
		"/frame": func(v *View) { v.Frame.Width = math.NaN() },
		"/run":   func(v *View) { v.Run = "果" },
		"/of":    func(v *View) { v.Of = "sideways" },
		"/card":  func(v *View) { v.Of, v.Card = OfHole, 1<<40 },
		"/gate":  func(v *View) { v.Of, v.Gate = OfFront, "?" },
		"/leaf":  func(v *View) { v.Of, v.Gate, v.Leaf = OfSide, p.Runs[0].Gates[0].ID, "?" },
	} {
		v := good
		spoil(&v)
		_, err := Of(p, v, Screen)
		errs, ok := err.(document.Errors)
		if !ok || errs[0].Field != field || errs[0].Allowed == "" {
			t.Errorf("%s: %v", field, err)
		}
	}
	v := good
	v.Frame.X, v.Frame.Y = &Axis{0, math.Inf(1)}, &Axis{0, 1}
	if _, err := Of(p, v, Screen); err == nil {
		t.Error("a scale without end is drawn")
	}
	if _, err := json.Marshal(must(t, p, good)); err != nil {
		t.Error(err)
	}
}

func must(t testing.TB, p plan.Plan, v View) Drawing {
	t.Helper()
	d, err := Of(p, v, Screen)
	if err != nil {
		t.Fatal(err)
	}
	return d
}
