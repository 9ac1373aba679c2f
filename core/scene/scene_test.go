package scene

import (
	"fmt"
	"math"
	"slices"
	"strings"
	"testing"

	"mallow/catalog"
	"mallow/core/document"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/plan"
)

// of are the shapes of a class.
func of(s Scene, c Class) []Shape {
	var out []Shape
	for _, l := range s.Layers {
		if l.Class == c {
			out = append(out, l.Shapes...)
		}
	}
	return out
}

func span(s Shape) Box {
	scene := Scene{Layers: []Layer{{Shapes: []Shape{s}}}}
	return scene.bounds()
}

func near(a float64, b length.Length) bool { return math.Abs(a-float64(b)) <= 0.0501 }

func drawn(t *testing.T, p plan.Plan, v View) Scene {
	t.Helper()
	if v.Frame.Width == 0 {
		v.Frame = Frame{Width: 800, Height: 400}
	}
	s, err := sceneOf(p, v)
	if err != nil {
		t.Fatal(err)
	}
	return s
}

// The fence from the side is the plan: each post from ground to top at its
// station, each hole as wide and deep as it is dug, each bay and leaf, the
// ground at its heights.
func TestElevationIsThePlan(t *testing.T) {
	for _, p := range jobs(t) {
		for i := range p.Runs {
			r := &p.Runs[i]
			s := drawn(t, p, View{Of: OfElevation, Run: r.ID})
			posts, holes := of(s, Post), of(s, Fill)
			if len(posts) != len(r.Posts) {
				t.Fatalf("%s: %d posts drawn of %d", r.Name, len(posts), len(r.Posts))
			}
			for k, q := range r.Posts {
				b := span(posts[k])
				if posts[k].Of != q.ID || !near((b.Low.X+b.High.X)/2, q.Station) || !near(b.Low.Y, q.Ground) || !near(b.High.Y, q.Top) {
					t.Errorf("%s %s is drawn at %v", r.Name, q.Label, b)
				}
				var hole *Box
				for _, h := range holes {
					if h.Of != q.ID {
						continue
					}
					b := span(h)
					if hole == nil {
						hole = &b
					}
					hole.Low.X, hole.Low.Y = min(hole.Low.X, b.Low.X), min(hole.Low.Y, b.Low.Y)
					hole.High.X, hole.High.Y = max(hole.High.X, b.High.X), max(hole.High.Y, b.High.Y)
				}
				if q.HoleDepth > 0 && (hole == nil || math.Abs(hole.High.X-hole.Low.X-float64(q.HoleWidth)) > 0.11 || !near(float64(q.Ground)-hole.Low.Y, q.HoleDepth)) {
					t.Errorf("%s %s: its hole of %v × %v is drawn as %v", r.Name, q.Label, q.HoleWidth, q.HoleDepth, hole)
				}
			}
			faced := 0
			if r.Way != job.OverlapRails {
				faced = len(r.Bays) - len(r.Gates)
			}
			if bays := of(s, Bay); len(bays) != faced {
				t.Errorf("%s: %d bays drawn of %d", r.Name, len(bays), faced)
			}
			leaves := 0
			for _, g := range r.Gates {
				leaves += max(1, len(g.Leaves))
			}
			if got := of(s, Leaf); len(got) != leaves {
				t.Errorf("%s: %d leaves drawn of %d", r.Name, len(got), leaves)
			}
			line := of(s, GroundLine)[0].Points
			for _, g := range r.Ground {
				found := false
				for k := 0; k < len(line); k += 2 {
					found = found || near(line[k], g.At) && near(line[k+1], g.Height)
				}
				if !found {
					t.Errorf("%s: the ground at %v is not drawn at %v", r.Name, g.At, g.Height)
				}
			}
		}
	}
}

// Rails are drawn where they are planned, in every drawing of the fence: on
// paper and on the screen alike, each from joint to joint.
func TestRailsAreThePlanned(t *testing.T) {
	looked := 0
	for _, p := range jobs(t) {
		for i := range p.Runs {
			r := &p.Runs[i]
			place := map[string]int{}
			for k := range r.Posts {
				place[r.Posts[k].Label] = k
			}
			want := map[string]bool{} // ends of the stretches between two posts
			put := func(k int, rail length.Length) {
				b := &r.Bays[k]
				part := float64(rail) / float64(b.TopStart-b.BottomStart)
				end := float64(b.BottomEnd) + part*float64(b.TopEnd-b.BottomEnd)
				want[fmt.Sprint(round(float64(r.Posts[k].Station)), round(float64(b.BottomStart+rail)), round(float64(r.Posts[k+1].Station)), round(end))] = true
			}
			for n, rail := range r.TopLine.Rails {
				if n < len(r.Rails) {
					for _, piece := range r.Rails[n].Pieces {
						for k := place[piece.From]; k < place[piece.To]; k++ {
							put(k, rail)
						}
					}
					continue
				}
				for k := range r.Bays {
					if r.Bays[k].Gate == "" {
						put(k, rail)
					}
				}
			}
			pieces := -1
			for _, stress := range []Stress{OnPaper, Spacing, Digging, Plainly} {
				s := drawn(t, p, View{Of: OfElevation, Run: r.ID, Stress: stress})
				got := map[string]bool{}
				for _, l := range of(s, Rail) {
					for k := 0; k+3 < len(l.Points); k += 2 {
						if l.Points[k] != l.Points[k+2] { // not up a step
							got[fmt.Sprint(round(l.Points[k]), round(l.Points[k+1]), round(l.Points[k+2]), round(l.Points[k+3]))] = true
						}
					}
				}
				if len(got) != len(want) {
					t.Fatalf("%s %s: %d stretches of rail, want %d", r.Name, stress, len(got), len(want))
				}
				for w := range want {
					if !got[w] {
						t.Errorf("%s %s: no rail runs %s", r.Name, stress, w)
					}
					looked++
				}
				if n := len(of(s, Rail)); pieces >= 0 && n != pieces {
					t.Errorf("%s %s: %d pieces of rail, and %d elsewhere", r.Name, stress, n, pieces)
				} else {
					pieces = n
				}
			}
		}
	}
	if looked < 100 {
		t.Errorf("only %d rails were looked at", looked)
	}
}

// Strips of a run on paper are the run: each post stands in one, or in the two
// that meet on it.
func TestStripsMakeTheRun(t *testing.T) {
	p := jobs(t)[0]
	r := &p.Runs[0]
	seen := map[string]int{}
	for from := 0; from < len(r.Posts)-1; from += 6 {
		to := min(from+6, len(r.Posts)-1)
		d := must(t, p, View{Of: OfElevation, Run: r.ID, Stress: OnPaper, From: &r.Posts[from].Station, To: &r.Posts[to].Station, Frame: Frame{Width: 1000, Height: 300}})
		for _, l := range d.Labels {
			seen[said(l, p.Units)]++
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

// A whole line is its runs one after the other: every post once, and each bay
// where its run begins.
func TestWholeLineIsItsRuns(t *testing.T) {
	for _, p := range jobs(t) {
		for _, l := range p.Lines {
			runs := p.Runs[l.First : l.First+l.Runs]
			if len(runs) < 2 {
				continue
			}
			s := drawn(t, p, View{Of: OfElevation, Run: runs[0].ID, Whole: true})
			posts := map[string]Box{}
			for _, q := range of(s, Post) {
				if _, twice := posts[q.Of]; twice {
					t.Errorf("%s is drawn twice", q.Of)
				}
				posts[q.Of] = span(q)
			}
			for k, r := range runs {
				for n, q := range r.Posts {
					b, ok := posts[r.ID+"/"+q.ID]
					if ok != (k == 0 || n > 0) { // a corner post stands as the last of the run before
						t.Errorf("%s %s: drawn %v", r.ID, q.Label, ok)
					}
					if at := r.Start - runs[0].Start + q.Station; ok && !near((b.Low.X+b.High.X)/2, at) {
						t.Errorf("%s %s stands at %v, not %v", r.ID, q.Label, b, at)
					}
				}
			}
		}
	}
}

// From above, posts stand where the plan puts them on the map, and the swept
// ground of a leaf is as far across as it reaches.
func TestMapIsThePlan(t *testing.T) {
	for _, p := range jobs(t) {
		s := drawn(t, p, View{Of: OfMap, Run: p.Runs[0].ID, Stress: OnPaper, Frame: Frame{Width: 4000, Height: 4000}})
		marks := map[Class]int{}
		for _, m := range s.Marks {
			marks[m.Class]++
		}
		posts, corners, swings := 0, 0, 0
		for i := range p.Runs {
			posts += len(p.Runs[i].Posts)
			for _, g := range p.Runs[i].Gates {
				for _, l := range g.Leaves {
					swings += len(l.Sides)
				}
			}
		}
		for _, l := range p.Lines {
			corners += len(l.Corners)
		}
		if marks[Post]+marks[Hits] != posts || marks[Corner] != corners {
			t.Errorf("%d posts and %d corners drawn, want %d and %d", marks[Post]+marks[Hits], marks[Corner], posts, corners)
		}
		all := append(of(s, Swept), of(s, Struck)...)
		if len(all) != swings {
			t.Errorf("%d swings drawn of %d", len(all), swings)
		}
		reach := float64(p.Runs[0].Gates[0].Leaves[0].Reach)
		q := all[0].Points
		for k := 2; k < len(q); k += 2 {
			if d := math.Hypot(q[k]-q[0], q[k+1]-q[1]); math.Abs(d-reach) > 0.2 {
				t.Errorf("the swept ground is %v from its pin, the leaf reaches %v", d, reach)
			}
		}
	}
}

// A hole's layers fill it from the bottom up, and say what they are.
func TestHolesAreFilled(t *testing.T) {
	for _, p := range jobs(t) {
		for i := range p.Runs {
			r := &p.Runs[i]
			for k := range r.Cards {
				c := &r.Cards[k]
				v := View{Of: OfHole, Run: r.ID, Card: k, Frame: Frame{Width: 620, Height: 430}}
				low, area := 0.0, 0.0
				for _, l := range of(drawn(t, p, v), Fill) {
					low = min(low, span(l).Low.Y)
					for n := 0; n < len(l.Points); n += 2 {
						m := (n + 2) % len(l.Points)
						area += (l.Points[n]*l.Points[m+1] - l.Points[m]*l.Points[n+1]) / 2
					}
				}
				if c.Depth > 0 && !near(-low, c.Depth) {
					t.Errorf("%s: layers reach %v, the hole is %v deep", r.Name, -low, c.Depth)
				}
				// The section of a straight hole is as wide as it is, times its depth, and the cone over it.
				if len(c.Cuts) == 2 && c.Cuts[0].Width == c.Cuts[1].Width {
					cone := 0.0
					for _, l := range c.Layers {
						if l.From < 0 {
							cone += -float64(l.From) * (float64(c.Post) + float64(c.Width)) / 2
						}
					}
					if want := float64(c.Width*c.Depth) + cone; math.Abs(math.Abs(area)-want) > want*0.001 {
						t.Errorf("%s: its layers are %v in section, want %v", r.Name, math.Abs(area), want)
					}
				}
				var words []string
				for _, l := range must(t, p, v).Labels {
					words = append(words, said(l, p.Units))
				}
				all := strings.Join(words, "\n")
				for _, l := range c.Layers {
					if !strings.Contains(all, p.Units.Small(l.Volume)) {
						t.Errorf("%s: nothing says that %s takes %s: %s", r.Name, l.Kind, p.Units.Small(l.Volume), all)
					}
				}
				if want := "dig"; c.Depth > 0 && (!strings.Contains(all, want) || !strings.Contains(all, p.Units.Short(c.Depth))) {
					t.Errorf("%s: nothing says how deep to dig: %s", r.Name, all)
				}
			}
		}
	}
}

// A gate's front says its measures, and what its hinges are set at.
func TestGatesSayTheirMeasures(t *testing.T) {
	for _, p := range jobs(t) {
		for i := range p.Runs {
			r := &p.Runs[i]
			for _, g := range r.Gates {
				words := func(hang bool) string {
					all := ""
					for _, l := range must(t, p, View{Of: OfFront, Run: r.ID, Gate: g.ID, Hang: hang, Frame: Frame{Width: 620, Height: 400}}).Labels {
						all += said(l, p.Units) + "\n"
					}
					return all
				}
				short := p.Units.Short
				for _, want := range []string{"inside " + short(g.Opening), map[length.System]string{length.Imperial: "center to center ", length.Metric: "centre to centre "}[p.Units.System] + short(g.Centre), "outside " + short(g.Outside), "diagonals " + short(length.Length(math.Hypot(float64(g.Opening), float64(r.Bays[slices.IndexFunc(r.Bays, func(b bay) bool { return b.Label == g.Bay })].TopStart-g.Bottom))))} {
					if !strings.Contains(words(false), want+"\n") {
						t.Errorf("%s: its front does not say %q: %s", g.Name, want, words(false))
					}
				}
				for _, l := range g.Leaves {
					for _, h := range l.Hinges {
						if !strings.Contains(words(true), short(h.Above)+"\n") {
							t.Errorf("%s: nothing says that a hinge sits at %s", g.Name, short(h.Above))
						}
					}
					if !strings.Contains(words(true), l.Post+" hinges\n") {
						t.Errorf("%s: nothing says that it hangs on %s", g.Name, l.Post)
					}
				}
			}
		}
	}
}

// Between the angles of the plan the ground under a leaf lies between theirs;
// at each of them it is theirs.
func TestGroundUnderALeaf(t *testing.T) {
	for _, p := range jobs(t) {
		for i := range p.Runs {
			for _, g := range p.Runs[i].Gates {
				for _, l := range g.Leaves {
					for n := range l.Sides {
						s := &l.Sides[n]
						for k, a := range s.Angles {
							if got := under(s, a); !length.Same(got.Gap, s.Ground[k].Gap) || !length.Same(got.Heights[0], s.Ground[k].Heights[0]) {
								t.Errorf("%s at %v°: a gap of %v, the plan's is %v", g.Name, a, got.Gap, s.Ground[k].Gap)
							}
							if k == 0 {
								continue
							}
							got := under(s, -(a+s.Angles[k-1])/2).Gap
							if want := (s.Ground[k].Gap + s.Ground[k-1].Gap) / 2; !length.Same(got, want) {
								t.Errorf("%s between two angles: %v, want %v", g.Name, got, want)
							}
						}
					}
				}
			}
		}
	}
}

// An eye sees by the rule of thirds of similar triangles: worked by hand, a
// top 2 m high, 9 m along the line from a post that it stands 3 m before, 1 m
// beside the line and at 1.5 m: at 12 m it lies 1/12 m to the left and 0.5/12 m
// up on a pane one metre away; parallels meet where the eye looks.
func TestAlongTheLine(t *testing.T) {
	e := eye{height: 1500, back: 3000, aside: 1000, side: 1}
	x, y, ok := e.sees(9000, 2000, 0)
	if !ok || math.Abs(x+1000.0/12) > 1e-9 || math.Abs(y-500.0/12) > 1e-9 {
		t.Errorf("seen at %v, %v", x, y)
	}
	if _, _, ok := e.sees(-2800, 2000, 0); ok {
		t.Error("what is at the eye is seen")
	}
	if x, y, _ := e.sees(1e9, 2000, 0); math.Hypot(x, y) > 0.01 {
		t.Errorf("far away a top is seen at %v, %v", x, y)
	}
	for _, p := range jobs(t) {
		r := &p.Runs[0]
		for _, fromEnd := range []bool{false, true} {
			s := drawn(t, p, View{Of: OfAlong, Run: r.ID, FromEnd: fromEnd, Aside: 2000, Back: 3000})
			if got := len(of(s, Post)); got != 2*len(r.Posts) {
				t.Errorf("%d faces of %d posts", got, len(r.Posts))
			}
			// What is farther is drawn first.
			last := math.Inf(1)
			for _, l := range s.Layers {
				if l.Class == Bay || l.Class == Leaf {
					b := r.Bays[slices.IndexFunc(r.Bays, func(b bay) bool { return b.ID == l.Shapes[0].Of })]
					k := slices.IndexFunc(r.Posts, func(q post) bool { return q.Label == b.From })
					far := float64(r.Posts[k].Station)
					if fromEnd {
						far = float64(r.Length) - far
					}
					if far > last {
						t.Errorf("bay %s is drawn over one before it", b.Label)
					}
					last = far
				}
			}
		}
	}
}

// A sag is drawn so much larger that it is seen, by a round number that is
// said; what is said is the true one.
func TestSagIsSeen(t *testing.T) {
	looked := 0
	for _, p := range jobs(t) {
		for i := range p.Runs {
			r := &p.Runs[i]
			if r.String == nil || r.String.Position == job.BySight {
				continue
			}
			f := sideFrame(r, r.Length, 1280, 300)
			s := drawn(t, p, View{Of: OfElevation, Run: r.ID, Stress: Strings, Frame: f})
			hung := of(s, String)[0].Points
			most, deep := 0.0, length.Length(0)
			for k, h := range r.String.Hang {
				most = max(most, float64(h.Height)-hung[2*k+1])
				deep = max(deep, h.Sag)
			}
			times := most / float64(deep)
			if pixels := most * f.Y.Scale; pixels < seen-0.5 || pixels > 2.6*seen {
				t.Errorf("%s: the sag is %.1f pixels deep", r.Name, pixels)
			}
			said := fmt.Sprintf("sags %s, drawn × %.0f", p.Units.Short(deep), times)
			if times < 1.5 {
				said = "sags " + p.Units.Short(deep)
			}
			found := false
			for i := range s.Labels {
				l := &s.Labels[i]
				found = found || l.Class == String && l.text(p.Units)[0].Print(p.Units) == said
			}
			if !found && deep >= p.Units.SmallestMark/2 {
				t.Errorf("%s: nothing says %q", r.Name, said)
			}
			looked++
		}
	}
	if looked == 0 {
		t.Error("no string hangs")
	}
}

// long is a straight run of many posts over rolling ground.
func long(t testing.TB, posts int) plan.Plan {
	t.Helper()
	cat, err := catalog.Load()
	if err != nil {
		t.Fatal(err)
	}
	bay := 2438.4
	ground := ""
	for i := 0; i < posts; i += 10 {
		ground += fmt.Sprintf(`{"at":%g,"height":%g},`, float64(i)*bay, 900*math.Sin(float64(i)/40))
	}
	raw := fmt.Sprintf(`{"mallow":2,"name":"Long","units":{"system":"imperial","smallestMark":1.5875},"lines":[{"id":"L1","runs":[{"id":"R1","name":"Long","length":%g,"ground":[%s]}]}]}`, float64(posts-1)*bay, strings.TrimSuffix(ground, ","))
	j, _, err := document.Decode([]byte(raw), cat)
	if err != nil {
		t.Fatal(err)
	}
	r, err := plan.Compute(func() error { return nil }, j, cat, nil)
	if err != nil {
		t.Fatal(err)
	}
	return r.Figures()
}

// Of ten thousand posts, what is under a pixel is not drawn: the drawing stays
// small, and its tops lie within a pixel of where some within two pixels lie.
func TestLongRunIsDrawnCoarsely(t *testing.T) {
	p := long(t, 10_000)
	r := &p.Runs[0]
	if len(r.Posts) < 9_000 {
		t.Fatalf("%d posts", len(r.Posts))
	}
	f := sideFrame(r, r.Length, 1280, 300)
	whole := drawn(t, p, View{Of: OfElevation, Run: r.ID, Stress: Digging})
	coarse := drawn(t, p, View{Of: OfElevation, Run: r.ID, Stress: Digging, Frame: f})
	count := func(s Scene) (n int) {
		for _, l := range s.Layers {
			for _, k := range l.Shapes {
				n += len(k.Points) / 2
			}
		}
		return n
	}
	if n := count(coarse); n > 24*1280 {
		t.Errorf("%d points are drawn on 1280 pixels; the whole has %d", n, count(whole))
	}
	// The tops, pixel by pixel: the highest of each column.
	columns := func(s Scene) []float64 {
		out := make([]float64, 1280)
		for i := range out {
			out[i] = math.Inf(1)
		}
		for _, b := range of(s, Top) {
			for q := b.Points; len(q) >= 4; q = q[2:] {
				x1, x2 := f.X.Zero+q[0]*f.X.Scale, f.X.Zero+q[2]*f.X.Scale
				for x := max(0, int(math.Ceil(x1))); x <= min(1279, int(x2)); x++ {
					part := (float64(x) - x1) / max(1e-9, x2-x1)
					out[x] = min(out[x], f.Y.Zero-(q[1]+part*(q[3]-q[1]))*f.Y.Scale)
				}
			}
		}
		return out
	}
	a, b := columns(whole), columns(coarse)
	for x := 30; x < 1250; x++ {
		lowest, highest := min(a[x-2], a[x-1], a[x], a[x+1], a[x+2]), max(a[x-2], a[x-1], a[x], a[x+1], a[x+2])
		if b[x] < lowest-1 || b[x] > highest+1 {
			t.Errorf("at pixel %d the tops lie at %.1f, drawn in full at %.1f to %.1f", x, b[x], lowest, highest)
		}
	}
	// Close to, every post is there again.
	from, to := r.Posts[5000].Station, r.Posts[5020].Station
	x := Axis{0, 1280 / float64(to-from)}
	x.Zero = -float64(from) * x.Scale
	close := drawn(t, p, View{Of: OfElevation, Run: r.ID, From: &from, To: &to, Frame: Frame{Width: 1280, Height: 300, X: &x, Y: f.Y}})
	if n := len(of(close, Post)); n != 23 { // and one to spare either side
		t.Errorf("%d posts drawn of a stretch with 21", n)
	}
}

func BenchmarkScene(b *testing.B) {
	p := jobs(b)[0]
	r := &p.Runs[0]
	big := long(b, 10_000)
	for name, v := range map[string]View{
		"elevation": {Of: OfElevation, Run: r.ID, Stress: Digging, Frame: sideFrame(r, r.Length, 1280, 300)},
		"map":       {Of: OfMap, Run: r.ID, Frame: Frame{Width: 320, Height: 300}},
		"hole":      {Of: OfHole, Run: r.ID, Frame: Frame{Width: 600, Height: 430}},
	} {
		b.Run(name, func(b *testing.B) {
			for b.Loop() {
				must(b, p, v)
			}
		})
	}
	b.Run("10000 posts", func(b *testing.B) {
		v := View{Of: OfElevation, Run: "R1", Stress: Digging, Frame: sideFrame(&big.Runs[0], big.Runs[0].Length, 1280, 300)}
		for b.Loop() {
			must(b, big, v)
		}
	})
}

// A bay shows every piece that its parts are counted as: uprights within it, rows
// and rails over it.
func TestABayIsItsParts(t *testing.T) {
	for _, fence := range []string{"boards-on-rails", "horizontal-boards", "vinyl-picket", "panel-between", "chain-link", "cedar-screen", "slotted-concrete"} {
		p := begunPlan(t, fence)
		r := &p.Runs[0]
		b := &r.Bays[1]
		for _, apart := range []bool{false, true} {
			s := drawn(t, p, View{Of: OfBay, Run: r.ID, Bay: b.ID, Apart: apart, Frame: Frame{Width: 800, Height: 500}})
			shown := map[string]int{}
			for _, x := range of(s, Piece) {
				shown[x.Of]++
			}
			for i := range r.Built.Parts {
				part := &r.Built.Parts[i]
				if part.Kind != job.BoardPart && part.Kind != job.RailPart && part.Kind != job.PanelPart || part.By == job.ByRoll || part.By == job.PerGap || part.By == job.PerCorner {
					continue
				}
				want := 0
				for _, q := range part.Pieces {
					if q.Bay <= 1 && q.To >= 1 {
						want += q.Count
					}
				}
				if got := shown[part.ID]; got != want {
					t.Errorf("%s, %s: %d drawn, %d counted", fence, part.ID, got, want)
				}
			}
		}
	}
}

// begunPlan is a straight run of 40 ft of a fence type.
func begunPlan(t *testing.T, fence string) plan.Plan {
	t.Helper()
	cat, err := catalog.Load()
	if err != nil {
		t.Fatal(err)
	}
	sys, _ := cat.System(fence, nil)
	long := 40 * length.Foot
	j := document.New(fence, length.Imperial, cat)
	run := &j.Lines[0].Runs[0]
	*run = sys.Outfit(*run)
	run.Length = &long
	return plan.Make(j, cat)
}
