package gate_test

import (
	"fmt"
	"math"
	"math/rand/v2"
	"testing"

	"mallow/core/gate"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/survey"
)

const (
	in = length.Inch
	ft = length.Foot
)

func ptr[T any](v T) *T { return &v }

// level is a run of level ground, long enough for any gate.
func level() survey.Profile { return survey.NewProfile(nil, 40*ft) }

// hang is one leaf hung in its own edge in the middle of a run.
func hang(width, gap length.Length) gate.Leaf {
	return gate.Leaf{Post: job.FirstPost, Pin: 12 * ft, Ahead: true, Width: width, Bottom: gap, Open: 90}
}

// rises is ground that rises evenly off the line.
func rises(by, over length.Length) gate.Ground {
	return gate.Ground{Line: level(), From: 12 * ft, To: 22 * ft, Side: []job.GroundLevel{{Off: over, First: by}}}
}

// TestRisingGround: ground rising 8 in over a 10 ft swing needs a gap of at
// least 9 in (common practice, from the handbook of the trade: 8 in and an inch to
// clear by). Also by similar triangles: half the width meets half the rise.
func TestRisingGround(t *testing.T) {
	for _, c := range []struct{ width, gap, left length.Length }{
		{10 * ft, 9 * in, 1 * in},
		{10 * ft, 8 * in, 0},
		{10 * ft, 4 * in, -4 * in},
		{5 * ft, 4 * in, 0},
	} {
		got := gate.Sweep(hang(c.width, c.gap), rises(8*in, 10*ft))
		if (got.Gap - c.left).Abs() > 0.1 {
			t.Errorf("%v wide, gap %v: %v left, want %v", c.width, c.gap, got.Gap, c.left)
		}
		if got.Angle < 89.9 || (got.Out-c.width).Abs() > 1 {
			t.Errorf("%v wide: nearest at %.1f°, %v out, want its tip square open", c.width, got.Angle, got.Out)
		}
	}
	// On a slope square to the line the tip's rise is its distance off the
	// line: 10 ft sin θ × 8/120. A gap of 4 in is used up at sin θ = 1/2.
	angle, ok := gate.Touch(hang(10*ft, 4*in), rises(8*in, 10*ft), 0)
	if !ok || math.Abs(angle-30) > 0.05 {
		t.Errorf("touches at %.2f° (%v), want 30°", angle, ok)
	}
}

// TestGroundBesidePosts: a cross-fall is ruled between the posts' lines, and
// goes on level beyond them.
func TestGroundBesidePosts(t *testing.T) {
	g := gate.Ground{Line: level(), From: 10 * ft, To: 20 * ft, Side: []job.GroundLevel{{Off: 6 * ft, First: 0, Second: ptr(10 * in)}}}
	for at, want := range map[length.Length]length.Length{5 * ft: 0, 10 * ft: 0, 15 * ft: 5 * in, 20 * ft: 10 * in, 30 * ft: 10 * in} {
		if h := g.Height(at, 6*ft); (h - want).Abs() > 1e-6 {
			t.Errorf("at %v: %v, want %v", at, h, want)
		}
	}
}

// TestCrown: a crowned drive is highest in its middle, which the closed leaf
// of a gate as wide as the drive lies over, and half of a pair ends over.
func TestCrown(t *testing.T) {
	g := gate.Ground{Line: level(), From: 12 * ft, To: 22 * ft, Crown: 3 * in}
	for _, width := range []length.Length{10 * ft, 5 * ft} {
		if got := gate.Sweep(hang(width, 4*in), g); (got.Gap - 1*in).Abs() > 0.1 {
			t.Errorf("%v leaf over a 3 in crown: %v left of 4 in, want 1 in", width, got.Gap)
		}
	}
}

// rough is random ground: a broken line, a crown, and levels to one side.
func rough(r *rand.Rand) (gate.Leaf, gate.Ground) {
	var pts []job.GroundPoint
	for at := length.Length(0); at < 12000; at += length.Length(300 + 2000*r.Float64()) {
		pts = append(pts, job.GroundPoint{At: at, Height: length.Length(400 * (r.Float64() - 0.5))})
	}
	g := gate.Ground{Line: survey.NewProfile(pts, 12000), From: 4000, To: 4000 + length.Length(1000+3000*r.Float64()), Crown: length.Length(200 * max(0, r.Float64()-0.5))}
	off := length.Length(0)
	for range r.IntN(5) {
		off += length.Length(20 + 1200*r.Float64())
		l := job.GroundLevel{Off: off, First: length.Length(500 * (r.Float64() - 0.4))}
		if r.IntN(2) == 0 {
			l.Second = ptr(length.Length(500 * (r.Float64() - 0.4)))
		}
		g.Side = append(g.Side, l)
	}
	l := gate.Leaf{Pin: g.From + 40, Ahead: true, Heel: 38, Width: g.To - g.From - 80, Bottom: 300, Open: 30 + 150*r.Float64()}
	if r.IntN(2) == 0 {
		l.Pin, l.Ahead = g.To-40, false
	}
	if r.IntN(3) == 0 {
		l.Lift = length.Length(150 * r.Float64())
	}
	return l, g
}

// lowest looks at a fine grid of places under the whole swing, one by one.
func lowest(l gate.Leaf, g gate.Ground, angles, outs int) length.Length {
	best := length.Length(math.Inf(1))
	for i := range angles + 1 {
		a := l.Open * float64(i) / float64(angles)
		for k := range outs + 1 {
			at, off := l.At(a, l.Reach()*length.Length(k)/length.Length(outs))
			best = min(best, l.Height(a)-g.Height(at, off))
		}
	}
	return best
}

// TestSweepAgainstSampling: no sampled place under the swing is nearer than
// what the search found, and a fine sampling comes close to it.
func TestSweepAgainstSampling(t *testing.T) {
	r := rand.New(rand.NewPCG(7, 1))
	for n := range 150 {
		l, g := rough(r)
		got, grid := gate.Sweep(l, g), lowest(l, g, 300, 200)
		if grid < got.Gap-0.06 {
			t.Fatalf("case %d: a sampled place is %v under the leaf, the search found %v at least", n, grid, got.Gap)
		}
		if grid > got.Gap+12 {
			t.Errorf("case %d: the search found %v, the sampling nothing under %v", n, got.Gap, grid)
		}
		at, off := l.At(got.Angle, got.Out)
		if here := l.Height(got.Angle) - g.Height(at, off); (here - got.Gap).Abs() > 1e-6 {
			t.Errorf("case %d: at its own place the gap is %v, not %v", n, here, got.Gap)
		}
		if lift, ok := gate.Rising(l, g, 25, 400); ok {
			l.Lift = lift
			if c := gate.Sweep(l, g); c.Gap < 24.8 {
				t.Errorf("case %d: lifted by %v it clears by %v only", n, lift, c.Gap)
			}
			if lift > 1 {
				l.Lift = lift - 1
				if c := gate.Sweep(l, g); c.Gap > 25 {
					t.Errorf("case %d: %v less lift does too", n, length.Length(1))
				}
			}
		}
	}
}

// TestHighestHoldsItsBox: nothing in a box is higher than is said of the box.
func TestHighestHoldsItsBox(t *testing.T) {
	r := rand.New(rand.NewPCG(3, 9))
	for range 2000 {
		_, g := rough(r)
		from, near := length.Length(9000*r.Float64()), length.Length(3000*r.Float64())
		to, far := from+length.Length(3000*r.Float64()), near+length.Length(2000*r.Float64())
		top := g.Highest(from, to, near, far)
		for range 200 {
			at, off := from+(to-from)*length.Length(r.Float64()), near+(far-near)*length.Length(r.Float64())
			if h := g.Height(at, off); h > top+1e-6 {
				t.Fatalf("ground %v at %v, %v, said to be at most %v", h, at, off, top)
			}
		}
	}
}

// TestEarthByWedges: the earth under a leaf over evenly rising ground, against
// the integral by hand. Square to the line the ground stands r sin θ · s over
// it; with s = 8/120 and 4 in given, a 10 ft leaf cuts the part of a wedge
// where r sin θ > 60 in.
func TestEarthByWedges(t *testing.T) {
	var want float64 // by thin strips across the line, in metres
	const strips = 200000
	reach, s, gap := 3.048, 8.0/120, 0.1016
	for i := range strips {
		y := reach * (float64(i) + 0.5) / strips
		if high := y*s - gap; high > 0 {
			want += high * math.Sqrt(reach*reach-y*y) * reach / strips
		}
	}
	got := float64(gate.Earth(hang(10*ft, 4*in), rises(8*in, 10*ft), 0))
	if math.Abs(got-want) > 0.005*want {
		t.Errorf("%.5f m³ to cut, by strips %.5f", got, want)
	}
}

// TestAcross: the highest ground across an opening, from face to face of its
// posts, against looking at every tenth of a millimetre.
func TestAcross(t *testing.T) {
	r := rand.New(rand.NewPCG(5, 5))
	for range 100 {
		_, g := rough(r)
		run := job.Run{Length: ptr(length.Length(12000)), Post: job.Post{Width: 100}}
		gt := job.Gate{At: (g.From + g.To) / 2, Opening: g.To - g.From, Crown: g.Crown}
		got := gate.Across(g.Line, run, gt)
		want := length.Length(math.Inf(-1))
		for at := g.From; at <= g.To; at += 0.1 {
			h := g.Line.Height(at)
			if at > g.From && at < g.To {
				part := float64((at-g.From)/(g.To-g.From)) - 0.5
				h += g.Crown * length.Length(1-4*part*part)
			}
			want = max(want, h)
		}
		if (got - want).Abs() > 0.5 {
			t.Errorf("highest across %v, by looking %v", got, want)
		}
	}
}

func BenchmarkSweep(b *testing.B) {
	r := rand.New(rand.NewPCG(7, 1))
	type one struct {
		l gate.Leaf
		g gate.Ground
	}
	var all []one
	for range 50 {
		l, g := rough(r)
		all = append(all, one{l, g})
	}
	for b.Loop() {
		for _, o := range all {
			gate.Sweep(o.l, o.g)
		}
	}
}

func BenchmarkSweepSlope(b *testing.B) {
	for b.Loop() {
		gate.Sweep(hang(10*ft, 4*in), rises(8*in, 10*ft))
	}
}

func ExampleSweep() {
	drive := gate.Ground{Line: survey.NewProfile(nil, 40*ft), From: 12 * ft, To: 22 * ft,
		Side: []job.GroundLevel{{Off: 10 * ft, First: 8 * in}}}
	leaf := gate.Leaf{Pin: 12 * ft, Ahead: true, Width: 10 * ft, Bottom: 4 * in, Open: 90}
	u := length.Usual(length.Imperial)
	c := gate.Sweep(leaf, drive)
	fmt.Printf("needs %s more at %.0f°\n", u.Short(-c.Gap), c.Angle)
	// Output: needs 4" more at 90°
}
