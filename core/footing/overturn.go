package footing

import (
	"math"

	"mallow/core/length"
)

// Pushed is a post with what pushes it over. The published formulas are in
// pounds and feet; so is this.
type LateralLoad struct {
	Bearing    float64 // lateral bearing of the soil, psf for each foot of depth
	Width      float64 // of the footing, ft
	Depth      float64 // of the footing, ft
	Height     float64 // of the push above ground, ft
	Moment     float64 // that acts besides, from a leaf that hangs on it, lb ft
	Restrained bool    // held at the ground by paving or a slab
}

// deepest is the depth to which bearing still grows, ft.
const deepest = 12

// Limit is the push, in pounds, at which a footing reaches the published
// limit of a post in soil: IBC 1807.3 (from memory), solved for the push.
//
// Free at the ground, d = A/2 (1 + √(1 + 4.36 h/A)) with A = 2.34 P/(S1 b)
// and S1 the bearing at d/3, so that A = d²/(d + 1.09 h). Held at the ground,
// d = √(4.25 P h/(S3 b)) with S3 the bearing at d. A moment that acts besides
// takes its share first; below 0 it is over the limit alone.
func Limit(p LateralLoad) float64 {
	reach := min(p.Depth, deepest)
	if p.Depth <= 0 || p.Width <= 0 {
		return 0
	}
	if p.Restrained {
		if p.Height <= 0 {
			return math.Inf(1)
		}
		return (p.Bearing*reach*p.Width*p.Depth*p.Depth/4.25 - p.Moment) / p.Height
	}
	s1 := p.Bearing * reach / 3
	return (s1*p.Width*p.Depth*p.Depth/2.34 - 1.09*p.Moment) / (p.Depth + 1.09*p.Height)
}

// Pinned is the push at which a footing that a steel pin holds at its foot
// reaches the limit: it then turns about its foot, and the soil's allowed
// pressure, which grows with depth, holds it up there (statics). The pin must
// bear what is left over; shear is its strength in pounds.
func Pinned(p LateralLoad, shear float64) float64 {
	d := min(p.Depth, deepest)
	if p.Depth <= 0 {
		return 0
	}
	soil := p.Bearing * p.Width * d * d / 2             // total of the pressure
	moment := p.Bearing * p.Width * d * d * p.Depth / 6 // of it about the foot
	push := (moment - p.Moment) / (p.Depth + p.Height)
	// Soil, push and pin balance: the pin holds soil - push.
	if most := soil - push; most > shear && most > 0 {
		push *= shear / most
	}
	return push
}

// Wind is a wind against a fence that stands on the ground.
type Wind struct {
	Exposure string  // B, C or D
	Solidity float64 // share of the face that is solid
}

// The published wind on a free-standing wall or open sign, ASCE 7 (from
// memory): q = 0.00256 Kz Kzt Kd V² psf with V in mph.
const (
	velocity    = 0.00256
	directional = 0.85
	gustFactor  = 0.85
	longWall    = 1.3 // net force coefficient of a long wall that reaches the ground
)

// kz is the exposure coefficient at or under 15 ft.
var kz = map[string]float64{"B": 0.57, "C": 0.85, "D": 1.03}

// Pressure is the velocity pressure of a gust, psf, on level land.
func (w Wind) Pressure(mph float64) float64 {
	return velocity * kz[w.Exposure] * directional * mph * mph
}

// Force is the net force coefficient on the fence's whole face. A face with
// small openings counts as a wall, less what they let through; one more open
// than solid is a frame of flat members (ASCE 7, from memory).
func (w Wind) Force() float64 {
	s := min(max(w.Solidity, 0), 1)
	switch {
	case s >= 0.7:
		return longWall * (1 - math.Pow(1-s, 1.5))
	case s >= 0.3:
		return 1.6 * s
	case s >= 0.1:
		return 1.8 * s
	}
	return 2 * s
}

// Gust is the gust, mph, that pushes a face of so many square feet with a
// force of so many pounds; 0 for no force, and a face without area stands
// any.
func (w Wind) Gust(pounds, face float64) float64 {
	if pounds <= 0 {
		return 0
	}
	per := w.Pressure(1) * gustFactor * w.Force() * face
	if per <= 0 {
		return math.Inf(1)
	}
	return math.Sqrt(pounds / per)
}

// Middle is the height, as a share of the fence's, at which wind pushes it:
// the middle and a twentieth (ASCE 7, from memory).
const Middle = 0.55

// Feet is a length in feet.
func Feet(l length.Length) float64 { return float64(l / length.Foot) }
