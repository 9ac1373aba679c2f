package gate_test

import (
	"math"
	"math/rand/v2"
	"testing"

	"mallow/core/gate"
)

// apart is how far a place is from the leaf, which is a line from its pin to
// its reach.
func apart(s gate.Swept, angle, x, y float64) float64 {
	tx, ty := s.Point(angle, s.Reach)
	dx, dy := tx-s.X, ty-s.Y
	t := min(1, max(0, ((x-s.X)*dx+(y-s.Y)*dy)/(dx*dx+dy*dy)))
	return math.Hypot(s.X+t*dx-x, s.Y+t*dy-y)
}

// crosses tells whether the leaf and a wall cross.
func crosses(s gate.Swept, angle, x1, y1, x2, y2 float64) bool {
	tx, ty := s.Point(angle, s.Reach)
	side := func(ax, ay, bx, by, px, py float64) float64 { return (bx-ax)*(py-ay) - (by-ay)*(px-ax) }
	return side(s.X, s.Y, tx, ty, x1, y1)*side(s.X, s.Y, tx, ty, x2, y2) < 0 &&
		side(x1, y1, x2, y2, s.X, s.Y)*side(x1, y1, x2, y2, tx, ty) < 0
}

func anyLeaf(r *rand.Rand) gate.Swept {
	return gate.Swept{X: 3 * r.Float64(), Y: 3 * r.Float64(), From: 7 * r.Float64(), Left: r.IntN(2) == 0, Reach: 1 + 3*r.Float64(), Half: 0.05 * r.Float64(), Open: 30 + 150*r.Float64()}
}

// TestStrikesBySteps turns the leaf by hundredths of a degree until it meets a
// post or a wall: the angle by geometry is the same.
func TestStrikesBySteps(t *testing.T) {
	r := rand.New(rand.NewPCG(21, 2))
	struck := [2]int{}
	for n := range 400 {
		s := anyLeaf(r)
		px, py, radius := s.X+8*(r.Float64()-0.5), s.Y+8*(r.Float64()-0.5), 0.02+0.1*r.Float64()
		if math.Hypot(px-s.X, py-s.Y) < 0.3 {
			continue
		}
		qx, qy := s.X+8*(r.Float64()-0.5), s.Y+8*(r.Float64()-0.5)
		for kind, meets := range []func(a float64) bool{
			func(a float64) bool { return apart(s, a, px, py) < radius+s.Half },
			func(a float64) bool { return crosses(s, a, px, py, qx, qy) },
		} {
			first := -1.0
			for a := 0.0; a <= s.Open; a += 0.01 {
				if meets(a) {
					first = a
					break
				}
			}
			angle, ok := s.Round(px, py, radius)
			if kind == 1 {
				angle, ok = s.Wall(px, py, qx, qy)
			}
			// A thing that the leaf only just reaches can fall between steps.
			if ok != (first >= 0) && !(ok && angle > s.Open-0.02) && !grazes(s, kind, px, py, qx, qy, radius) {
				t.Fatalf("case %d, kind %d: struck %v at %.3f°, by steps at %.3f°", n, kind, ok, angle, first)
			}
			if ok && first >= 0 && math.Abs(angle-first) > 0.03 {
				t.Errorf("case %d, kind %d: struck at %.3f°, by steps at %.3f°", n, kind, angle, first)
			}
			if ok {
				struck[kind]++
			}
		}
	}
	if struck[0] < 40 || struck[1] < 40 {
		t.Errorf("only %v were struck: the test says little", struck)
	}
}

// grazes tells whether a thing lies just at the leaf's reach.
func grazes(s gate.Swept, kind int, px, py, qx, qy, radius float64) bool {
	if kind == 0 {
		return math.Abs(math.Hypot(px-s.X, py-s.Y)-radius-s.Half-s.Reach) < 1e-3
	}
	dx, dy := qx-px, qy-py
	t := min(1, max(0, ((s.X-px)*dx+(s.Y-py)*dy)/(dx*dx+dy*dy)))
	return math.Abs(math.Hypot(px+t*dx-s.X, py+t*dy-s.Y)-s.Reach) < 1e-3
}

// TestLeavesMeet: two leaves are in each other's way where some place lies
// under both, by throwing places at both.
func TestLeavesMeet(t *testing.T) {
	r := rand.New(rand.NewPCG(4, 4))
	under := func(s gate.Swept, x, y float64) bool {
		turn := math.Atan2(y-s.Y, x-s.X) - s.From
		if !s.Left {
			turn = -turn
		}
		turn = math.Mod(math.Mod(turn, 2*math.Pi)+2*math.Pi, 2*math.Pi)
		return math.Hypot(x-s.X, y-s.Y) < s.Reach && turn*180/math.Pi < s.Open
	}
	met := 0
	for n := range 150 {
		a, b := anyLeaf(r), anyLeaf(r)
		b.X, b.Y = a.X+5*(r.Float64()-0.5), a.Y+5*(r.Float64()-0.5)
		both := 0
		for range 4000 {
			x, y := a.X+8*(r.Float64()-0.5), a.Y+8*(r.Float64()-0.5)
			if under(a, x, y) && under(b, x, y) {
				both++
			}
		}
		meets := a.Meets(b)
		if meets != b.Meets(a) {
			t.Errorf("case %d: it depends on which is asked", n)
		}
		if both > 0 {
			met++
		}
		if both > 8 && !meets || both == 0 && meets && overlapsLittle(a, b, under) > 20 {
			t.Errorf("case %d: meets %v, %d places under both", n, meets, both)
		}
	}
	if met < 30 {
		t.Errorf("only %d met", met)
	}
}

// overlapsLittle looks closer where a rough look saw nothing.
func overlapsLittle(a, b gate.Swept, under func(gate.Swept, float64, float64) bool) int {
	none := 0
	for i := range 500 {
		for k := range 200 {
			x, y := a.Point(a.Open*float64(i)/499, a.Reach*(1-float64(k*k)/40000))
			if under(b, x, y) {
				return 0
			}
			none++
		}
	}
	return none
}
