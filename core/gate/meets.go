package gate

import (
	"math"

	"mallow/core/job"
	"mallow/core/length"
)

// MeetsPost is the angle, in degrees from closed, at which a leaf on its way
// open meets the post that it hangs on; a straight angle where it never does.
//
// Seen from above, with the pin at zero and the closed leaf along x, the post's
// near corner on the leaf's side lies at (−g, a): g from the pin back to the
// post's face, a half the post's width. A leaf t thick, turned by θ about its
// middle, touches that corner where a cos θ + g sin θ = t/2. A round post has
// no corner: its middle lies at (−g − a, 0), and the leaf touches it where
// (g + a) sin θ = a + t/2.
func MeetsPost(post job.Post, hardware job.Hardware, thick length.Length) float64 {
	a, g, t := float64(post.Width)/2, float64(hardware.Hinge-hardware.Pin), float64(thick)/2
	if post.Shape == job.RoundPost {
		if a+t >= g+a {
			return 90 // the leaf lies against the post as soon as it is square open
		}
		return 180 - math.Asin((a+t)/(g+a))*180/math.Pi
	}
	reach := math.Hypot(a, g)
	if t >= reach {
		return 90
	}
	return min(180, (math.Atan2(g, a)+math.Acos(t/reach))*180/math.Pi)
}
