package gate

import (
	"math"

	"mallow/core/job"
	"mallow/core/length"
)

// MeetsPost is the angle, in degrees from closed, at which a leaf on its way
// open meets the post that it hangs on; a straight angle where it never does.
//
// Seen from above, with the pin at zero and the closed leaf along x from its
// edge at p on, the post's near corner on the leaf's side lies at (−g, a): g
// from the pin back to the post's face, a half the post's width. The face of a
// leaf t thick, turned by θ about its middle, touches that corner where
// a cos θ + g sin θ = t/2. A round post has no corner: its middle lies at
// (−g − a, 0), and the face touches it where (g + a) sin θ = a + t/2. Before
// that the leaf's own heel, its corner at (p, t/2), may run into the post's face, or come down on its side.
func MeetsPost(post job.Post, hardware job.Hardware, thick length.Length) float64 {
	a, g, t, p := float64(post.Width)/2, float64(hardware.Hinge-hardware.Pin), float64(thick)/2, float64(hardware.Pin)
	round := post.Shape == job.RoundPost
	return min(180, faceMeets(a, g, t, p, round), heelMeets(a, g, t, p, round))
}

const degrees = 180 / math.Pi

func faceMeets(a, g, t, p float64, round bool) float64 {
	at, along := math.Pi, 0.0
	if middle := g + a; round {
		if a+t >= middle {
			return 180 // the heel is there before
		}
		at = math.Pi - math.Asin((a+t)/middle)
		along = -middle * math.Cos(at)
	} else {
		reach := math.Hypot(a, g)
		if t >= reach {
			return 180
		}
		at = math.Atan2(g, a) + math.Acos(t/reach)
		along = a*math.Sin(at) - g*math.Cos(at)
	}
	if along < p {
		return 180 // past the leaf's edge
	}
	return at * degrees
}

func heelMeets(a, g, t, p float64, round bool) float64 {
	reach, lies := math.Hypot(p, t), math.Atan2(t, p)
	if reach <= g || reach == 0 {
		return 180
	}
	turned := math.Acos(-g / reach) // of the heel, to the post's face
	if round {
		middle := g + a
		turned = math.Acos((a*a - reach*reach - middle*middle) / (2 * reach * middle))
	} else if reach*math.Sin(turned) > a { // it comes down on the post's side
		turned = math.Pi - math.Asin(a/reach)
		if reach*math.Cos(turned) < -g-2*a {
			return 180 // or behind it
		}
	}
	if math.IsNaN(turned) || turned < lies {
		return 180
	}
	return (turned - lies) * degrees
}
