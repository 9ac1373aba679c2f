package gate

import (
	"math"

	"mallow/core/length"
)

// gravity is the standard acceleration of free fall, m/s² (exact by definition).
const gravity = 9.80665

// Moment is what a leaf's weight pulls its post over with: its weight times
// half its width, newton metres.
func Moment(mass length.Mass, width length.Length) float64 {
	return float64(mass) * gravity * width.Metres() / 2
}

// HingeForce is what the top hinge is pulled out of the post with, and the
// bottom one pushed in: the moment over the distance between them, newtons.
func HingeForce(moment float64, spacing length.Length) float64 {
	if spacing <= 0 {
		return math.Inf(1)
	}
	return moment / spacing.Metres()
}

// Weigh estimates a leaf's mass from its face and its frame: kilograms for
// each square metre, and for each metre round its edge and along its brace.
func Weigh(width, height length.Length, area, metre float64) length.Mass {
	w, h := width.Metres(), height.Metres()
	return length.Mass(w*h*area + (2*w+2*h+math.Hypot(w, h))*metre)
}

// Adjust is how far the top hinge's bolt is turned in so that the tip of a
// leaf comes up by its drop: x there lifts the tip by x times the width over
// the hinge spacing. Turns is 0 for a bolt without a thread.
func Adjust(drop, width, spacing, pitch length.Length) (in length.Length, turns float64) {
	if width <= 0 {
		return 0, 0
	}
	in = drop * spacing / width
	if pitch > 0 {
		turns = float64(in / pitch)
	}
	return in, turns
}

// SetBack is the distance from the line that a vehicle needs to stand clear
// of the road while the gate is opened: its length, that of its trailer, and
// the swing toward it.
func SetBack(vehicle, trailer, swing length.Length) length.Length {
	return vehicle + trailer + swing
}

// Diagonal is the check from the foot of one post to the head of the other,
// over an opening and a height between two marks.
func Diagonal(inside, height length.Length) length.Length {
	return length.Length(math.Hypot(float64(inside), float64(height)))
}
