// Package curing tells what the weather does to concrete: how fast its surface
// dries, for how long it can be worked, and how strong it has become.
package curing

import "math"

// Evaporation is how much water leaves a fresh surface, in kilograms to the square
// metre and hour: Uno's equation (1998) of the chart in ACI 305. Temperatures are in
// degrees Celsius, the humidity is a share, the wind in metres per second.
func Evaporation(concrete, air, humidity, wind float64) float64 {
	pull := math.Pow(concrete+18, 2.5) - humidity*math.Pow(air+18, 2.5)
	return max(0, 5*pull*(wind*3.6+4)*1e-6)
}

// DryingFast is the evaporation at which plastic cracking is looked for: 0.2 lb to
// the square foot and hour, 1 kg to the square metre (ACI 305).
const DryingFast = 1.0

// Temperatures at which cold is looked at, degrees Celsius.
const (
	Freezing = 0.0
	Cold     = 40.0/1.8 - 32/1.8 // 40 °F: below it concrete is protected (ACI 306)
)

// Third is by how much setting slows for each 10 °F that it is colder: a third
// (common practice).
const (
	slower   = 4.0 / 3
	slowerBy = 10 / 1.8
	standard = 20.0 // degrees at which times are told
)

// Pace is how fast concrete ages at a temperature, 1 at 20 °C, as far as its setting
// goes. Frozen water does not set anything.
func Pace(temp float64) float64 {
	if temp <= Freezing {
		return 0
	}
	return math.Pow(slower, (temp-standard)/slowerBy)
}

// Weathering is what makes concrete stiffen sooner than the air's temperature alone.
type Weathering struct {
	Sun float64 // share of full sun
	Dry float64 // evaporation over DryingFast
	Bed bool    // the holes are dry and drink
}

// Sooner is by how much: a seventh in full sun, a quarter where it dries fast, a fifth
// in a dry hole (common practice; nobody has published it for post holes).
func (w Weathering) Sooner() float64 {
	f := 1 + w.Sun/6 + min(1.5, w.Dry)/3
	if w.Bed {
		f *= 1.25
	}
	return f
}

// Maturity adds up temperature over hours: Nurse and Saul (ASTM C1074), in degree-hours
// over a datum of 0 °C.
func Maturity(temps []float64) float64 {
	sum := 0.0
	for _, t := range temps {
		sum += max(0, t)
	}
	return sum
}

// EquivalentDays is how many days at 20 °C a maturity is.
func EquivalentDays(maturity float64) float64 { return maturity / standard / 24 }

// Share is how much of its strength of 28 days concrete has after so many days at
// 20 °C: ACI 209, moist-cured, of ordinary cement.
func Share(days float64) float64 {
	if days <= 0 {
		return 0
	}
	return days / (4 + 0.85*days)
}

// DaysTo is the other way round: how many days at 20 °C reach a share.
func DaysTo(share float64) float64 {
	if share >= 1/0.85 {
		return math.Inf(1)
	}
	return 4 * share / (1 - 0.85*share)
}

// FrostProof is the share from which one freezing does no more harm: 500 of 3,000 or
// 3,500 psi (ACI 306).
const FrostProof = 0.15
