package footing

import (
	"math"

	"mallow/core/length"
)

// Freeze is what the depth of frost is estimated from, in the units that the
// published formula was written in.
type Freeze struct {
	Index        float64 // freezing index of the air, °F-days
	Surface      float64 // surface index over that of the air
	Conductivity float64 // Btu/(ft h °F)
	Moisture     float64 // per cent of the dry weight
	Density      float64 // dry, lb/ft³
	Lambda       float64
}

// Units of the published formula.
const (
	FahrenheitDays = 1.8                // °F-days in a °C-day
	BtuPerFoot     = 1 / 1.730734666    // Btu/(ft h °F) in a W/(m K)
	PoundsPerFoot3 = 1 / 16.01846337396 // lb/ft³ in a kg/m³
)

// latent is the heat that freezing takes out of a pound of water over 100,
// since moisture is per cent: Btu/lb / 100.
const latent = 1.434

// FrostDepth is the modified Berggren formula of TM 5-852-6:
// X = λ √(48 k n F / L) feet, with L = 1.434 w γ Btu/ft³.
func FrostDepth(f Freeze) length.Length {
	l := latent * f.Moisture * f.Density
	if l <= 0 {
		return 0
	}
	return length.Length(f.Lambda*math.Sqrt(48*f.Conductivity*f.Surface*f.Index/l)) * length.Foot
}
