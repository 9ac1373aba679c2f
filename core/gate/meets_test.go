package gate_test

import (
	"math"
	"testing"

	"mallow/core/gate"
	"mallow/core/job"
	"mallow/core/length"
)

// A leaf is turned degree by hundredth of a degree until one of its corners'
// worth of points lies inside the post: no trigonometry of the formula's own.
func TestLeafMeetsPostByTurningIt(t *testing.T) {
	for _, c := range []struct {
		round            bool
		wide, hinge, pin length.Length
		thick            length.Length
	}{
		{false, 100, 30, 0, 40},
		{false, 89, 60, 10, 45},
		{false, 60, 120, 80, 40}, // its face ends before the post
		{false, 100, 4, 0, 40},
		{true, 100, 30, 0, 40},
		{true, 76, 60, 0, 20},
		{true, 140, 80, 20, 50},
		{true, 100, 10, 0, 40}, // at once: half the leaf is thicker than the room
	} {
		post := job.Post{Width: c.wide, Shape: job.SquarePost}
		if c.round {
			post.Shape = job.RoundPost
		}
		got := gate.MeetsPost(post, job.Hardware{Hinge: c.hinge, Pin: c.pin}, c.thick)
		g, a, half := float64(c.hinge-c.pin), float64(c.wide)/2, float64(c.thick)/2
		inside := func(x, y float64) bool {
			if c.round {
				return math.Hypot(x+g+a, y) < a-1e-6
			}
			return x < -g-1e-6 && x > -g-2*a+1e-6 && math.Abs(y) < a-1e-6
		}
		want := 180.0
		for turn := 0.0; turn < 180 && want == 180; turn += 0.01 {
			sin, cos := math.Sincos(turn * math.Pi / 180)
			for along := float64(c.pin); along < g+3*a; along += 0.25 {
				// The face towards the post: half a thickness to the left of the way the leaf points.
				if inside(along*cos-half*sin, along*sin+half*cos) {
					want = turn
					break
				}
			}
		}
		if math.Abs(got-want) > 0.25 {
			t.Errorf("%+v: meets at %.2f°, turned it touches at %.2f°", c, got, want)
		}
	}
}
