package stringline_test

import (
	"math"
	"math/rand/v2"
	"testing"

	"mallow/core/length"
	"mallow/core/stringline"
)

func near(a length.Length, mm, within float64) bool { return math.Abs(float64(a)-mm) <= within }

// Sag by wL²/8T at the handbook's values, and the exact catenary T/w
// (cosh(wL/2T) - 1) beside it (published).
func TestSagAgainstTheCatenary(t *testing.T) {
	for _, c := range []struct{ pull, span, sag float64 }{{50, 15, 5.51}, {50, 30, 22.05}, {100, 60, 44.10}} {
		cord := stringline.Cord{Weight: 0.0098, Pull: c.pull}
		got := cord.MidSag(length.Length(c.span) * length.Metre)
		exact := c.pull / 0.0098 * (math.Cosh(0.0098*c.span/2/c.pull) - 1) * 1000
		if !near(got, c.sag, 0.005) || !near(got, exact, 0.005) {
			t.Errorf("%v m at %v N: %v mm; tables have %v, the catenary %v", c.span, c.pull, got, c.sag, exact)
		}
	}
}

// A 40 mph wind on a 1.5 mm string, drag coefficient 1.2: 0.3525 N/m, and
// 0.68 m out at the middle of 100 ft at 60 N (handbook values).
func TestDriftInTheWind(t *testing.T) {
	cord := stringline.Cord{Weight: 0.0098, Diameter: 1.5, Pull: 60}
	wind := 40 * 1609.344 / 3600
	if push := cord.Push(wind); math.Abs(push-0.3525) > 0.0005 {
		t.Errorf("push %v N/m, want 0.3525", push)
	}
	if out := cord.MidDrift(wind, 100*length.Foot); !near(out, 680, 5) {
		t.Errorf("out by %v, want about 0.68 m", out)
	}
}

// The curve is that of a beam of string elements in balance: each short piece
// between two points is pulled by its weight alone (finite differences).
func TestCurveIsInBalance(t *testing.T) {
	cord := stringline.Cord{Weight: 0.013, Pull: 40}
	span, h := 25*length.Metre, 100*length.Millimetre
	for at := h; at < span; at += h {
		bend := (cord.Sag(span, at-h) - 2*cord.Sag(span, at) + cord.Sag(span, at+h)).Metres() / (h.Metres() * h.Metres())
		if math.Abs(bend*cord.Pull+cord.Weight) > 1e-6 {
			t.Fatalf("at %v the string is not in balance: %v", at, bend)
		}
	}
	if cord.Sag(span, 0) != 0 || !length.Same(cord.Sag(span, span), 0) {
		t.Error("the ends hang")
	}
}

// Props: the fewest that keep the sag allowed, by trying them all.
func TestPropsAreTheFewest(t *testing.T) {
	rng := rand.New(rand.NewPCG(1, 9))
	for range 2000 {
		cord := stringline.Cord{Weight: 0.002 + rng.Float64()*0.05, Pull: 10 + rng.Float64()*150}
		span, allowed := length.Length(3000+rng.Float64()*90000), length.Length(1+rng.Float64()*9)
		want := 0
		for cord.MidSag(span/length.Length(want+1)) > allowed {
			want++
		}
		if got := cord.Props(span, allowed); got != want {
			t.Fatalf("%+v over %v, %v allowed: %d props, want %d", cord, span, allowed, got, want)
		}
		most := length.Length(0)
		for i := range 1001 {
			most = max(most, cord.Hung(span, want, span*length.Length(i)/1000))
		}
		if most > allowed+length.Tolerance {
			t.Fatalf("on %d props it hangs %v, %v allowed", want, most, allowed)
		}
	}
	cord := stringline.Cord{Weight: 0.01, Pull: 50}
	if whole, half := cord.MidSag(30000), cord.Hung(30000, 1, 7500); !length.Same(whole, 4*half) {
		t.Errorf("a prop in the middle leaves a quarter: %v and %v", whole, half)
	}
	if l := cord.LongestSag(5); !length.Same(cord.MidSag(l), 5) {
		t.Errorf("longest span for 5 mm: %v", l)
	}
}

// The largest 3-4-5 that fits, by trying every size both ways round.
func TestLargest345(t *testing.T) {
	rng := rand.New(rand.NewPCG(3, 4))
	for range 3000 {
		a, b, unit := length.Length(300+rng.Float64()*30000), length.Length(300+rng.Float64()*30000), length.Foot
		want := 0
		for n := 1; n < 60; n++ {
			u := unit * length.Length(n)
			if 3*u <= a && 4*u <= b || 4*u <= a && 3*u <= b {
				want = n
			}
		}
		got, ok := stringline.Largest345(a, b, unit)
		if ok != (want > 0) || ok && (got.Times != want || got.LegA > a+length.Tolerance || got.LegB > b+length.Tolerance ||
			!length.Same(got.LegA*got.LegA+got.LegB*got.LegB, got.Long*got.Long)) {
			t.Fatalf("%v by %v: %+v, want %d times", a, b, got, want)
		}
	}
	// Common practice: on 24 by 32 ft of ground, a 24-32-40.
	if got, _ := stringline.Largest345(32*length.Foot, 24*length.Foot, length.Foot); got.Times != 8 || !length.Same(got.Long, 40*length.Foot) {
		t.Errorf("got %+v", got)
	}
}

// A diagonal that is out, against coordinates: the far end's distance from
// where it should be, and the way to move.
func TestDiagonalErrorAgainstCoordinates(t *testing.T) {
	rng := rand.New(rand.NewPCG(5, 12))
	for range 3000 {
		q := stringline.Square{LegA: length.Length(2000 + rng.Float64()*20000), LegB: length.Length(2000 + rng.Float64()*20000), Angle: 40 + rng.Float64()*100}
		out := (rng.Float64() - 0.5) * 4 // degrees that the corner is out
		far := q.LegB * length.Length(1+rng.Float64()*4)
		at := func(deg float64, l length.Length) (x, y float64) {
			sin, cos := math.Sincos(deg * math.Pi / 180)
			return float64(l) * cos, float64(l) * sin
		}
		bx, by := at(q.Angle+out, q.LegB)
		taped := length.Length(math.Hypot(float64(q.LegA)-bx, by))
		x1, y1 := at(q.Angle, far)
		x2, y2 := at(q.Angle+out, far)
		c, err := q.Judge(taped, far, 1)
		if err != nil || math.Abs(c.Error-out) > 1e-6 || !near(c.FarEnd, math.Hypot(x2-x1, y2-y1), 1e-3) {
			t.Fatalf("%+v taped %v: %+v, want %v°, far end %v (%v)", q, taped, c, out, math.Hypot(x2-x1, y2-y1), err)
		}
		if want := map[bool]stringline.Move{true: stringline.In, false: stringline.Out}[out > 0]; !c.Within && c.Move != want {
			t.Fatalf("out by %v°: moves %s, want %s", out, c.Move, want)
		}
		if c.Within && (taped-c.Diagonal).Abs() > 0.5+length.Tolerance {
			t.Fatalf("%v is not within half a mark of %v", taped, c.Diagonal)
		}
	}
	// By hand: 8 by 6 m is 10 m; 10.02 is too open by 0.24°, and a run of 30 m ends 125 mm out.
	c, err := stringline.Square{LegA: 8000, LegB: 6000, Angle: 90}.Judge(10020, 30000, 1)
	if err != nil || math.Abs(c.Error-0.239) > 0.001 || !near(c.FarEnd, 125, 0.5) || c.Move != stringline.In {
		t.Errorf("got %+v, %v", c, err)
	}
	if _, err := (stringline.Square{LegA: 8000, LegB: 6000, Angle: 90}).Judge(14001, 30000, 1); err == nil {
		t.Error("a diagonal longer than both legs was let pass")
	}
}
