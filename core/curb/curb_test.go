package curb_test

import (
	"math"
	"math/rand/v2"
	"testing"

	"mallow/core/curb"
	"mallow/core/length"
)

// A corner's two strips, each cut square at where Miter has their middles meet, cover
// together as much as the mitered curb: by counting points of a grid.
func TestMiteredCornersCountOnce(t *testing.T) {
	const long = 3000.0
	for _, c := range []struct{ turn, off, width float64 }{{90, 0, 300}, {-90, 0, 300}, {45, 80, 300}, {-60, 80, 300}, {120, -50, 200}, {15, 100, 400}} {
		end, start, ok := curb.Miter(c.turn, length.Length(c.off), length.Length(c.off))
		if !ok {
			t.Fatalf("turn %g is not mitered", c.turn)
		}
		strips := c.width * (long + float64(end) + long + float64(start)) // both from 3 m away
		sin, cos := math.Sincos(c.turn * math.Pi / 180)
		// A point is in the curb if it is in the strip on its own side of the corner's bisector.
		bx, by := 1+cos, sin
		n, step := 0, 5.0
		for x := -long - 1001.3; x < long+1000; x += step {
			for y := -long - 1002.9; y < long+1000; y += step {
				first := x*bx+y*by <= 0
				along, across := -x, y
				if !first {
					along, across = x*cos+y*sin, -x*sin+y*cos
				}
				if along <= long && math.Abs(across-c.off) <= c.width/2 {
					n++
				}
			}
		}
		if got := float64(n) * step * step; math.Abs(got-strips) > 0.004*strips {
			t.Errorf("turn %g, off %g: the curb is %.0f mm², the strips have %.0f", c.turn, c.off, got, strips)
		}
	}
	if _, _, ok := curb.Miter(150, 0, 0); ok {
		t.Error("a turn of 150 degrees is mitered")
	}
	if end, start, ok := curb.Miter(0, 20, 20); end != 0 || start != 0 || !ok {
		t.Error("a straight line is not left as it is")
	}
}

// Curbs beside their lines by different widths meet where both middles are.
func TestMiddlesMeet(t *testing.T) {
	rng := rand.New(rand.NewPCG(22, 15))
	for range 1000 {
		turn := rng.Float64()*250 - 125
		if math.Abs(turn) < 1 {
			continue
		}
		off, next := rng.Float64()*400-200, rng.Float64()*400-200
		end, start, _ := curb.Miter(turn, length.Length(off), length.Length(next))
		sin, cos := math.Sincos(turn * math.Pi / 180)
		// On the first line's axes: along it x, to its left y.
		x, y := float64(end), off
		x2, y2 := -float64(start)*cos-next*sin, -float64(start)*sin+next*cos
		if math.Hypot(x-x2, y-y2) > 1e-6 {
			t.Fatalf("turn %g, %g and %g: middles at %g %g and %g %g", turn, off, next, x, y, x2, y2)
		}
	}
}

// What of a hole lies under a strip, against counting points.
func TestUnder(t *testing.T) {
	rng := rand.New(rand.NewPCG(3, 9))
	for range 60 {
		hole := 200 + rng.Float64()*300
		in := curb.Reach{Before: length.Length(rng.Float64()*400 - 50), After: length.Length(rng.Float64() * 400), Low: length.Length(rng.Float64()*200 - 250)}
		in.High = in.Low + length.Length(100+rng.Float64()*400)
		for _, square := range []bool{false, true} {
			n, step := 0, 1.0
			for x := -hole / 2; x < hole/2; x += step {
				for y := -hole / 2; y < hole/2; y += step {
					if (square || x*x+y*y <= hole*hole/4) && x >= -float64(in.Before) && x <= float64(in.After) && y >= float64(in.Low) && y <= float64(in.High) {
						n++
					}
				}
			}
			want, got := float64(n)*step*step, float64(curb.Under(length.Length(hole), square, in))*1e6
			if math.Abs(got-want) > 0.01*hole*hole {
				t.Errorf("hole %.0f square %v in %+v: %.0f mm², counted %.0f", hole, square, in, got, want)
			}
		}
	}
}

// A bay of 8 ft takes no joint between its posts with one allowed every 8 ft, and one
// with a little less.
func TestParts(t *testing.T) {
	if n := curb.Parts(8*length.Foot, 8*length.Foot); n != 1 {
		t.Errorf("8 ft in %d parts", n)
	}
	if n := curb.Parts(8*length.Foot, 95*length.Inch); n != 2 {
		t.Errorf("8 ft with 95 in at most: %d parts", n)
	}
}
