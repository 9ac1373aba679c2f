package parts

import (
	"math"

	"mallow/core/length"
)

// Spaced is how many fixings go along a length at no more than a spacing, the
// first and the last at most so far in from its ends: ties on a rail, screws in
// a board, staples on a post.
func Spaced(long, spacing, in length.Length) int {
	if long <= 0 || spacing <= 0 {
		return 0
	}
	between := long - 2*in
	if between <= 0 {
		return 1
	}
	return int(math.Ceil(float64(between/spacing)-slack)) + 1
}

// Rolls is how many rolls reach along some stretches, and how many joints that
// makes: what is left of one goes on along the next stretch, and a joint takes
// its overlap. A stretch ends at a terminal post, where the roll is cut.
func Rolls(stretches []length.Length, roll, overlap length.Length) (rolls, joints int) {
	if roll <= overlap || roll <= 0 {
		return 0, 0
	}
	left := length.Length(0)
	for _, s := range stretches {
		started := false
		for need := s; need > slack; {
			if left <= overlap+slack && started || left <= slack {
				rolls++
				left = roll
				if started {
					joints++
					left -= overlap
				}
			}
			take := min(left, need)
			left -= take
			need -= take
			started = true
		}
	}
	return rolls, joints
}

// Bands is how many bands hold a fabric to a terminal post, one end and one
// direction: its height in feet less one; common practice.
func Bands(height length.Length) int {
	return max(1, int(math.Ceil(float64(height/length.Foot)-slack))-1)
}

// Paint is how much finish an area takes in some coats, of which a volume covers
// an area once.
func Paint(squareMetres float64, coats int, perSquareMetre length.Volume) length.Volume {
	if squareMetres <= 0 || coats <= 0 {
		return 0
	}
	return length.Volume(squareMetres*float64(coats)) * perSquareMetre
}
