// Package length holds the physical measures that cross package borders in
// Mallow, and the tape notation that crews write them in.
//
// Values are exact (as exact as a float64 is); rounding happens only when a
// measure is printed, to the user's smallest mark. Sums are therefore always
// sums of exact values, never of rounded ones.
package length

import "math"

// Length is a distance in millimetres.
type Length float64

// Units of length. The inch and the foot are the international ones
// (1 in = 25.4 mm exactly).
const (
	Millimetre Length = 1
	Centimetre Length = 10
	Metre      Length = 1000
	Inch       Length = 25.4
	Foot       Length = 12 * Inch
	Yard       Length = 3 * Foot
)

// Tolerance is the distance below which two lengths are the same place: a
// thousandth of a millimetre, far below any tape and far above float error on
// a run of many kilometres.
const Tolerance Length = 1e-3

// Inches returns the length in inches.
func (l Length) Inches() float64 { return float64(l / Inch) }

// Metres returns the length in metres.
func (l Length) Metres() float64 { return float64(l / Metre) }

// Abs returns the length without its sign.
func (l Length) Abs() Length { return Length(math.Abs(float64(l))) }

// Same tells whether two lengths agree within Tolerance.
func Same(a, b Length) bool { return (a - b).Abs() <= Tolerance }

// Area is a surface in square metres.
type Area float64

// Volume is a volume in cubic metres.
type Volume float64

// Mass is a mass in kilograms.
type Mass float64

// Volumes in use on site. A cubic foot is exactly 0.3048³ m³ (NIST Handbook
// 44, Appendix C).
const (
	CubicMetre Volume = 1
	CubicFoot  Volume = 0.028316846592
	CubicYard  Volume = 27 * CubicFoot
)

// Masses in use on site. The avoirdupois pound is exactly 0.45359237 kg.
const (
	Kilogram Mass = 1
	Pound    Mass = 0.45359237
	ShortTon Mass = 2000 * Pound
)

// Square returns the area of a square with the given side.
func Square(side Length) Area {
	m := side.Metres()
	return Area(m * m)
}

// Disc returns the area of a circle with the given diameter.
func Disc(diameter Length) Area {
	m := diameter.Metres()
	return Area(math.Pi / 4 * m * m)
}

// Times returns the volume of a prism: this area over the given height.
func (a Area) Times(height Length) Volume {
	return Volume(float64(a) * height.Metres())
}

// CubicFeet returns the volume in cubic feet.
func (v Volume) CubicFeet() float64 { return float64(v / CubicFoot) }

// CubicYards returns the volume in cubic yards.
func (v Volume) CubicYards() float64 { return float64(v / CubicYard) }
