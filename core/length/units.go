package length

import (
	"fmt"
	"math"
	"strconv"
	"strings"
)

// System is the measuring system that a job is written and printed in.
type System string

// The two systems.
const (
	Imperial System = "imperial"
	Metric   System = "metric"
)

// Units says how measures are printed: the system, and the smallest mark on
// the user's tape, to which printed lengths are rounded.
type Units struct {
	System       System `json:"system" jsonschema:"required,enum=imperial,enum=metric" jsonschema_description:"System that lengths are printed and bare numbers are read in. Lengths in this document are millimetres either way."`
	SmallestMark Length `json:"smallestMark" jsonschema:"required,minimum=0.79375,maximum=25.4" jsonschema_description:"Smallest mark on the tape: 1/2, 1/4, 1/8, 1/16 or 1/32 in, or 1, 5 or 10 mm."`
}

// Marks lists the smallest marks a system's tapes have, finest first.
func Marks(s System) []Length {
	if s == Metric {
		return []Length{1, 5, 10}
	}
	return []Length{Inch / 32, Inch / 16, Inch / 8, Inch / 4, Inch / 2}
}

// HasMark tells whether the smallest mark is one that the system's tapes have.
func (u Units) HasMark() bool {
	for _, m := range Marks(u.System) {
		if math.Abs(float64(m-u.SmallestMark)) < 1e-9 {
			return true
		}
	}
	return false
}

// Usual returns a system's common tape: sixteenths, or millimetres.
func Usual(s System) Units {
	if s == Metric {
		return Units{Metric, 1}
	}
	return Units{Imperial, Inch / 16}
}

// count returns the number of smallest marks nearest to l. Halfway goes away
// from zero; a value within a millionth of a mark of halfway counts as
// halfway, so that float noise does not decide.
func (u Units) count(l Length) int64 {
	marks := math.Abs(float64(l / u.SmallestMark))
	n := int64(math.Floor(marks + 0.5 + 1e-6))
	if l < 0 {
		return -n
	}
	return n
}

// Round returns the length at the smallest mark nearest to l; halfway goes
// away from zero.
func (u Units) Round(l Length) Length {
	return Length(u.count(l)) * u.SmallestMark
}

// Feet is an imperial length split as a tape shows it.
type Feet struct {
	Negative               bool
	Feet, Inches           int64
	Numerator, Denominator int64 // of an inch; 0/1 when whole
}

// Split rounds l to the smallest mark and splits it into feet, inches and a
// fraction in lowest terms.
func (u Units) Split(l Length) Feet {
	per := int64(math.Round(float64(Inch / u.SmallestMark)))
	n := u.count(l)
	f := Feet{Negative: n < 0, Denominator: 1}
	if n < 0 {
		n = -n
	}
	f.Feet, n = n/(12*per), n%(12*per)
	f.Inches, n = n/per, n%per
	if n != 0 {
		for n%2 == 0 {
			n, per = n/2, per/2
		}
		f.Numerator, f.Denominator = n, per
	}
	return f
}

// ShortFeet is where Short changes from inches alone to feet and inches.
const ShortFeet = 5

// ShortMetres is where Short changes from millimetres to metres.
const ShortMetres = 10

// Short prints a measure the way it is said on site: inches alone below 5 ft
// (42"), feet and inches above; millimetres below 10 m, metres above.
func (u Units) Short(l Length) string {
	if u.System == Metric {
		r := u.Round(l)
		if r.Abs() < ShortMetres*Metre {
			return strconv.FormatFloat(float64(r), 'f', 0, 64) + " mm"
		}
		return u.metres(r)
	}
	f := u.Split(l)
	if f.Feet < ShortFeet {
		f.Inches += 12 * f.Feet
		f.Feet = 0
		return f.print(false)
	}
	return f.print(true)
}

// Tape prints a running distance: always feet and inches (3' 10 1/2"), or
// metres to the millimetre (11.347 m), so that a column of stations reads the
// same from top to bottom.
func (u Units) Tape(l Length) string {
	if u.System == Metric {
		return u.metres(u.Round(l))
	}
	return u.Split(l).print(true)
}

func (u Units) metres(r Length) string {
	decimals := 3
	if u.SmallestMark >= Centimetre {
		decimals = 2
	}
	return strconv.FormatFloat(r.Metres(), 'f', decimals, 64) + " m"
}

func (f Feet) print(feet bool) string {
	var b strings.Builder
	if f.Negative {
		b.WriteByte('-')
	}
	if feet {
		fmt.Fprintf(&b, "%d' ", f.Feet)
	}
	switch {
	case f.Numerator == 0:
		fmt.Fprintf(&b, "%d\"", f.Inches)
	case f.Inches == 0 && !feet:
		fmt.Fprintf(&b, "%d/%d\"", f.Numerator, f.Denominator)
	default:
		fmt.Fprintf(&b, "%d %d/%d\"", f.Inches, f.Numerator, f.Denominator)
	}
	return b.String()
}

// Bulk prints a volume as it is ordered: cubic yards or cubic metres.
func (u Units) Bulk(v Volume) string {
	if u.System == Metric {
		return hundredths(float64(v)) + " m³"
	}
	return hundredths(v.CubicYards()) + " yd³"
}

// hundredths prints to a hundredth; a little that is there is not said to be
// none.
func hundredths(v float64) string {
	if v > 0 && v < 0.005 {
		return "under 0.01"
	}
	return strconv.FormatFloat(v, 'f', 2, 64)
}

// Small prints a volume as it is poured: cubic feet or litres, to what a bucket
// or a part of a bag can tell.
func (u Units) Small(v Volume) string {
	of, unit, fine := v.CubicFeet(), " ft³", 2
	if u.System == Metric {
		of, unit, fine = float64(v)*1000, " L", 1
	}
	if math.Abs(of) >= coarse[u.System] {
		fine--
	}
	return strconv.FormatFloat(of, 'f', fine, 64) + unit
}

// coarse is from where on a small volume loses a decimal: cubic feet, litres.
var coarse = map[System]float64{Imperial: 1, Metric: 10}

// Dug is a depth of soil to cut or fill as a spade can work it: to the next half
// inch or five millimetres.
func (u Units) Dug(l Length) Length {
	step := halfInch
	if u.System == Metric {
		step = 5
	}
	return Length(math.Ceil(float64((l-Tolerance)/step))) * step
}

const halfInch Length = 12.7

// Weight prints a mass as it is loaded: pounds or kilograms.
func (u Units) Weight(m Mass) string {
	if u.System == Metric {
		return figures(float64(m)) + " kg"
	}
	return figures(float64(m/Pound)) + " lb"
}

// figures prints a measure whole, and one under ten with two figures or so.
func figures(v float64) string {
	switch a := math.Abs(v); {
	case a == 0 || a >= 9.95:
		return strconv.FormatFloat(v, 'f', 0, 64)
	case a >= 0.995:
		return strconv.FormatFloat(v, 'f', 1, 64)
	case a >= 0.0995:
		return strconv.FormatFloat(v, 'f', 2, 64)
	}
	return strconv.FormatFloat(v, 'f', 3, 64)
}

// Wind prints a wind of so many metres per second: miles or kilometres per
// hour.
func (u Units) Wind(v float64) string {
	if u.System == Metric {
		return strconv.FormatFloat(v*3.6, 'f', 0, 64) + " km/h"
	}
	return strconv.FormatFloat(v*3600/1609.344, 'f', 0, 64) + " mph"
}

const (
	poundForce = 4.4482216152605 // newtons, exact
	poundFoot  = poundForce * 0.3048
)

// Torque prints a moment given in newton metres: pounds-force times feet, or
// newton metres.
func (u Units) Torque(newtonMetres float64) string {
	if u.System == Metric {
		return figures(newtonMetres) + " N m"
	}
	return figures(newtonMetres/poundFoot) + " lbf ft"
}

// Force prints a force given in newtons: pounds-force, or newtons.
func (u Units) Force(newtons float64) string {
	if u.System == Metric {
		return figures(newtons) + " N"
	}
	return figures(newtons/poundForce) + " lbf"
}

// Temperature prints degrees Celsius: degrees Fahrenheit, or Celsius.
func (u Units) Temperature(celsius float64) string {
	if u.System == Metric {
		return strconv.FormatFloat(math.Round(celsius)+0, 'f', 0, 64) + " °C"
	}
	return strconv.FormatFloat(math.Round(celsius*1.8+32)+0, 'f', 0, 64) + " °F"
}

// poundsPerFoot2 is a kilogram to the square metre, in pounds to the square foot.
const poundsPerFoot2 = 0.3048 * 0.3048 / 0.45359237

// Drying prints water that leaves a surface, in kilograms to the square metre and hour.
func (u Units) Drying(v float64) string {
	if u.System == Metric {
		return strconv.FormatFloat(v, 'f', 2, 64) + " kg/m²/h"
	}
	return strconv.FormatFloat(v*poundsPerFoot2, 'f', 2, 64) + " lb/ft²/h"
}

const (
	quart  = 946.352946e-6 // cubic metres, of the United States
	gallon = 4 * quart
)

// Water prints a volume of water: quarts or gallons, or litres.
func (u Units) Water(v Volume) string {
	switch {
	case u.System == Metric:
		return strconv.FormatFloat(float64(v)*1000, 'f', 1, 64) + " L"
	case v < gallon:
		return strconv.FormatFloat(float64(v)/quart, 'f', 1, 64) + " qt"
	}
	return strconv.FormatFloat(float64(v)/gallon, 'f', 1, 64) + " gal"
}

// PerSquareFoot is one pound-force on a square foot, in pascals.
const PerSquareFoot = poundForce / (0.3048 * 0.3048)

// Pressure prints a pressure given in pascals: pounds-force on a square foot,
// or kilopascals.
func (u Units) Pressure(pascals float64) string {
	if u.System == Metric {
		return figures(pascals/1000) + " kPa"
	}
	return figures(pascals/PerSquareFoot) + " psf"
}
