package scene

import (
	"encoding/json"
	"fmt"
	"math"
	"math/rand"
	"slices"
	"strings"
	"testing"

	"mallow/core/footing"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/plan"
	"mallow/core/stage/dig"
	"mallow/core/stage/gates"
)

// changed is a plan with one of its runs changed, the others as they were.
func changed(p plan.Plan, run int, change func(r *plan.Run)) plan.Plan {
	p.Runs = slices.Clone(p.Runs)
	r := &p.Runs[run]
	r.Bays, r.Posts = slices.Clone(r.Bays), slices.Clone(r.Posts)
	change(r)
	return p
}

// A rail lies at the same part of the bay's height at either end. By hand: a
// rail 500 mm over the bottom of a bay that is 2000 mm high at its start and
// 2400 at its end lies 600 over the bottom there.
func TestRailInABayThatGrows(t *testing.T) {
	p := changed(jobs(t)[1], 0, func(r *plan.Run) {
		b := &r.Bays[0]
		b.BottomStart, b.BottomEnd, b.TopStart, b.TopEnd = 0, 100, 2000, 2500
		top := *r.TopLine
		top.Rails = []length.Length{500}
		r.TopLine, r.Rails = &top, nil
	})
	got := of(drawn(t, p, View{Of: OfElevation, Run: p.Runs[0].ID}), Rail)[0].Points
	if got[1] != 500 || got[3] != 700 {
		t.Errorf("the rail runs from %v to %v", got[1], got[3])
	}
}

// What stands out of a stretch that is drawn coarsely is not lost, and no more
// is drawn together than a few pixels.
func TestOneHighBayIsSeenFromFar(t *testing.T) {
	p := changed(long(t, 10_000), 0, func(r *plan.Run) {
		r.Bays[5003].TopStart += 3000
		r.Bays[7001].BottomEnd -= 2000
	})
	r := &p.Runs[0]
	s := drawn(t, p, View{Of: OfElevation, Run: r.ID, Frame: sideFrame(r, r.Length, 1280, 300)})
	high, low := math.Inf(-1), math.Inf(1)
	for _, b := range of(s, Far) {
		high, low = max(high, span(b).High.Y), min(low, span(b).Low.Y)
	}
	if want := float64(r.Bays[5003].TopStart); high != want {
		t.Errorf("the highest top is drawn at %v, it lies at %v", high, want)
	}
	if want := float64(r.Bays[7001].BottomEnd); low != want {
		t.Errorf("the lowest foot is drawn at %v, it lies at %v", low, want)
	}
	if n := len(of(s, Far)); n < 1224/(2*together) || n > 1224/(together-2) {
		t.Errorf("%d stretches are drawn on 1224 pixels", n)
	}
}

// Under a bell the gravel lies in a pit as wide as the hole: by hand, a hole
// of 300 mm that widens from 600 down to 450 at 900, and 150 of gravel.
func TestGravelUnderABell(t *testing.T) {
	c := &dig.Card{Depth: 1050, Cuts: []footing.Cut{{Depth: 0, Width: 300}, {Depth: 600, Width: 300}, {Depth: 900, Width: 450}, {Depth: 900, Width: 300}, {Depth: 1050, Width: 300}}}
	gravel := span(Shape{Points: section(c, 900, 1050, 0, 0)})
	if math.Abs(gravel.High.X-150) > 0.01 || gravel.Low.Y != -1050 || gravel.High.Y != -900 {
		t.Errorf("the gravel lies in %v", gravel)
	}
	concrete := Shape{Points: section(c, 0, 900, 0, 0)}
	if b := span(concrete); b.High.X != 225 || len(concrete.Points) < 2*6 {
		t.Errorf("the concrete lies in %v, %d points", b, len(concrete.Points)/2)
	}
}

// The gaps that are said are the least and the most of the run, and a
// stretch's measure spans the stretch.
func TestMeasuresAreThePlans(t *testing.T) {
	for _, p := range jobs(t) {
		for i := range p.Runs {
			r := &p.Runs[i]
			least, most := length.Length(math.Inf(1)), length.Length(math.Inf(-1))
			for _, b := range r.Bays {
				if b.Gate == "" {
					least, most = min(least, b.GapLeast.Gap), max(most, b.GapMost.Gap)
				}
			}
			said := map[string]length.Length{}
			for _, l := range drawn(t, p, View{Of: OfElevation, Run: r.ID, Stress: Grading}).Labels {
				if l.Class == Gap {
					said[l.Keys[0]] = *l.Size
				}
			}
			if said["least"] != least || said["most"] != most {
				t.Errorf("%s: gaps from %v to %v are said to be %v", r.Name, least, most, said)
			}
			n := 0
			for _, l := range drawn(t, p, View{Of: OfElevation, Run: r.ID, Stress: Spacing}).Labels {
				if l.Put != RowOver {
					continue
				}
				if g := r.Segments[n]; !near(l.At.X, g.From) || !near(l.To.X, g.To) {
					t.Errorf("%s: a stretch from %v to %v is measured from %v to %v", r.Name, g.From, g.To, l.At.X, l.To.X)
				}
				n++
			}
			if n != len(r.Segments) {
				t.Errorf("%s: %d stretches measured of %d", r.Name, n, len(r.Segments))
			}
		}
	}
}

// Closed, a leaf's tip stands at its far edge on the line; square open, as far
// off it as it reaches, inside or outside.
func TestWhereALeafStands(t *testing.T) {
	for _, p := range jobs(t) {
		for i := range p.Runs {
			for _, g := range p.Runs[i].Gates {
				for k := range g.Leaves {
					l := &g.Leaves[k]
					_, far := edges(l)
					if x, y := standing(l, 0, l.Reach); math.Abs(x-far) > 1e-6 || y != 0 || math.Abs(x-float64(g.At)) > float64(g.Opening)/2+1 {
						t.Errorf("%s: closed, its tip stands at %v, %v", g.Name, x, y)
					}
					for _, angle := range []float64{90, -90} {
						if x, y := standing(l, angle, l.Reach); math.Abs(x-float64(l.Pin)) > 1e-6 || math.Abs(y-math.Copysign(float64(l.Reach), angle)) > 1e-6 {
							t.Errorf("%s: at %v° its tip stands at %v, %v", g.Name, angle, x, y)
						}
					}
				}
			}
		}
	}
}

// inside tells whether a place lies in a polygon (the even-odd rule).
func inside(x, y float64, corners []Point) bool {
	in := false
	for i, a := range corners {
		b := corners[(i+1)%len(corners)]
		if a.Y > y != (b.Y > y) && x < a.X+(y-a.Y)*(b.X-a.X)/(b.Y-a.Y) {
			in = !in
		}
	}
	return in
}

// Names of a closed line stand outside it, and each string lies on the hand
// that it is pulled on, as far off as it is held or as can be seen.
func TestSidesOfTheLine(t *testing.T) {
	p := jobs(t)[1]
	var corners []Point
	for _, c := range p.Lines[0].Corners {
		corners = append(corners, Point{float64(c.Place.X), float64(c.Place.Y)})
	}
	d := must(t, p, View{Of: OfMap, Run: p.Runs[0].ID, Frame: Frame{Width: 900, Height: 700}})
	names := 0
	for _, l := range d.Labels {
		if l.Class != Name {
			continue
		}
		at := d.Real(l.Box[0]+l.Box[2]/2, l.Box[1]+l.Box[3]/2)
		if names++; inside(at.X, at.Y, corners) {
			t.Errorf("%s is named inside the line", said(l, p.Units))
		}
	}
	if names != len(p.Runs) {
		t.Errorf("%d runs are named of %d", names, len(p.Runs))
	}
	for _, p := range jobs(t) {
		const per = 40.0
		v := View{Of: OfMap, Run: p.Runs[0].ID, Stress: Strings, Frame: Frame{Width: 900, Height: 700, X: &Axis{0, 1 / per}, Y: &Axis{0, 1 / per}}}
		for _, s := range of(drawn(t, p, v), String) {
			i := slices.IndexFunc(p.Runs, func(r plan.Run) bool { return r.ID == s.Of })
			r := &p.Runs[i]
			ux, uy := float64(r.To.X-r.From.X)/float64(r.Length), float64(r.To.Y-r.From.Y)/float64(r.Length)
			left := -uy*(s.Points[0]-float64(r.From.X)) + ux*(s.Points[1]-float64(r.From.Y))
			want := max(float64(r.String.ToCentre), offLine*per)
			if r.String.Face == job.Right {
				want = -want
			}
			if math.Abs(left-want) > 0.2 {
				t.Errorf("%s: the string lies %v to the left, want %v", r.Name, left, want)
			}
		}
	}
}

// At full size everything lies in the frame, and a pixel's millimetres are
// what they were.
func TestFullSize(t *testing.T) {
	for _, p := range jobs(t) {
		for _, kind := range []Kind{OfMap, OfElevation} {
			for i := range p.Runs {
				d, err := FullSize(p, View{Of: kind, Run: p.Runs[i].ID, Stress: OnPaper}, Screen)
				if err != nil {
					t.Fatal(err)
				}
				clear(t, fmt.Sprint(kind, " of ", p.Runs[i].Name), d, p.Units)
				for _, l := range d.Layers {
					for _, s := range l.Shapes {
						for k := 0; k < len(s.Points); k += 2 {
							x, y := d.X.Zero+s.Points[k]*d.X.Scale, d.Y.Zero-s.Points[k+1]*d.Y.Scale
							if x < 0 || y < 0 || x > d.Width || y > d.Height {
								t.Fatalf("%s of %s: %s lies at %.0f, %.0f of %.0f × %.0f", kind, p.Runs[i].Name, l.Class, x, y, d.Width, d.Height)
							}
							if q := d.Real(x, y); math.Abs(q.X-s.Points[k]) > 1e-6 || math.Abs(q.Y-s.Points[k+1]) > 1e-6 {
								t.Fatalf("%v is %v", s.Points[k:k+2], q)
							}
						}
					}
				}
			}
		}
	}
}

// A column that is too full for its frame leaves out what does not fit, and
// says so; what stands near the bottom is moved up.
func TestColumnsAreMovedApart(t *testing.T) {
	for _, n := range []int{5, 12, 40} {
		var s Scene
		s.line(Line, "", 0, 0, 1000, 1000)
		for k := range n {
			s.say(Label{At: Point{0, float64(k)}, Put: Left, Must: true, Words: strings.Repeat("m", 1+k%4)})
		}
		d := Arrange(s, Frame{Width: 400, Height: 300}, length.Usual(length.Metric), Screen)
		clear(t, fmt.Sprint(n, " labels"), d, length.Usual(length.Metric))
		if len(d.Labels)+d.Left != n || n <= 12 && d.Left > 0 {
			t.Errorf("%d of %d are placed, %d left out", len(d.Labels), n, d.Left)
		}
	}
}

// Whatever is asked for, a drawing has numbers that can be sent, its labels
// apart, or is refused.
func TestAnyView(t *testing.T) {
	rng := rand.New(rand.NewSource(11))
	all := jobs(t)
	odd := []float64{0, 1, 1e-9, 17, 1e9, 90, 179.9, 1e4, 3000, 250}
	some := func(least, most float64) float64 { // within what is allowed, but for now and then
		if rng.Intn(40) == 0 {
			return odd[rng.Intn(len(odd))] * -1
		}
		return []float64{least, most, least + rng.Float64()*(most-least)}[rng.Intn(3)]
	}
	one := func() float64 { return odd[rng.Intn(len(odd))] * []float64{1, 1, 1, -1}[rng.Intn(4)] }
	size := func() *length.Length {
		if rng.Intn(3) == 0 {
			return nil
		}
		l := length.Length(one())
		return &l
	}
	refused := 0
	for n := range 4000 {
		p := all[n%2]
		r := &p.Runs[rng.Intn(len(p.Runs))]
		v := View{Of: Kinds[rng.Intn(len(Kinds))], Run: r.ID, Whole: rng.Intn(4) == 0, Stress: []Stress{Plainly, Walking, Strings, Spacing, Grading, Digging, Pouring, OnPaper, "果"}[rng.Intn(9)],
			From: size(), To: size(), Least: size(), Most: size(), Wanted: size(), Road: size(), Room: size(), Angle: some(-360, 360), Closer: some(0, 1000), Aside: length.Length(some(0, 1e9)), Back: length.Length(some(0, 1e9)), FromEnd: rng.Intn(2) == 0, Hang: rng.Intn(2) == 0,
			Card: rng.Intn(3), Frame: Frame{Width: 20 + rng.Float64()*1500, Height: 20 + rng.Float64()*600, Top: rng.Float64() * 50, Stretch: some(0, 1e6)}}
		if len(r.Gates) > 0 {
			g := r.Gates[0]
			v.Gate, v.Leaf = g.ID, g.First
			if rng.Intn(2) == 0 {
				v.Leaf = g.Second
			}
		}
		if rng.Intn(2) == 0 {
			v.Frame.X, v.Frame.Y = &Axis{rng.Float64() * 500, math.Exp(rng.NormFloat64()*3 - 3)}, &Axis{rng.Float64() * 500, math.Exp(rng.NormFloat64()*3 - 3)}
		}
		d, err := Of(p, v, Screen)
		if err != nil {
			refused++
			continue
		}
		d.Short()
		if _, err := json.Marshal(d); err != nil {
			t.Fatalf("%+v: %v", v, err)
		}
		clear(t, fmt.Sprintf("%+v", v), d, p.Units)
		if t.Failed() {
			return
		}
	}
	if refused > 2500 || refused < 100 {
		t.Errorf("%d of 4000 are refused", refused)
	}
}

// A dropped tip: by how much it is lifted, and how far the bolt goes in.
func TestDroppedTip(t *testing.T) {
	p := jobs(t)[0]
	l := p.Runs[0].Gates[0].Leaves[0]
	l.Adjust = &gates.Adjusting{Drop: 19.05, In: 12.7}
	d := Arrange(dropped(&l), Frame{Width: 360, Height: 200}, p.Units, Screen)
	clear(t, "dropped", d, p.Units)
	all := ""
	for _, label := range d.Labels {
		all += said(label, p.Units) + "\n"
	}
	if !strings.Contains(all, "up 3/4\"") || !strings.Contains(all, "in 1/2\"") {
		t.Errorf("it says %q", all)
	}
}
