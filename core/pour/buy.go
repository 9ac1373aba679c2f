// Package pour works out what is bought and mixed to fill holes: bags, a
// truck, or cement, sand, stone and water; and how long the digging takes.
package pour

import (
	"math"

	"mallow/core/length"
	"mallow/core/materials"
)

// Bags is how many bags, as a decimal, a volume takes.
func Bags(v, yield length.Volume) float64 { return float64(v / yield) }

// Whole rounds up what is bought whole, for a run or a job: never for each
// post. A millionth over a whole number is float noise, not a bag.
func Whole(n float64) int { return int(math.Ceil(n - 1e-6)) }

// MostOrdered is the most that can be ordered of what a truck carries: whole steps. What
// carries less than a step brings what it carries.
func MostOrdered(carries length.Volume, o materials.Order) length.Volume {
	steps := math.Floor(float64(carries/o.Step) + 1e-9)
	if steps < 1 {
		return carries
	}
	return o.Step * length.Volume(steps)
}

// Ordered is how much a truck is ordered with: the next whole step.
func Ordered(v length.Volume, o materials.Order) length.Volume {
	return o.Step * length.Volume(Whole(float64(v/o.Step)))
}

// SiteMix is what concrete mixed on site takes.
type SiteMix struct {
	Cement length.Mass   `json:"cement" jsonschema:"required"`
	Bags   float64       `json:"bags" jsonschema:"required" jsonschema_description:"Bags of cement, as a decimal."`
	Bag    string        `json:"bag" jsonschema:"required"`
	Sand   length.Volume `json:"sand" jsonschema:"required" jsonschema_description:"Loose."`
	Stone  length.Volume `json:"stone" jsonschema:"required" jsonschema_description:"Loose."`
	Water  length.Volume `json:"water" jsonschema:"required"`
}

// waterDensity is a cubic metre of water in kilograms.
const waterDensity = 1000

// MixOnSite is what a volume of concrete takes of each, by the mix's parts of
// loose volume.
func MixOnSite(v length.Volume, m materials.Mix, sys length.System) SiteMix {
	part := float64(v) * m.Dry / (m.Cement + m.Sand + m.Stone)
	cement := length.Mass(part * m.Cement * m.Density)
	bag := m.Bags[sys]
	return SiteMix{
		Cement: cement, Bags: float64(cement / bag.Mass), Bag: bag.Name,
		Sand: length.Volume(part * m.Sand), Stone: length.Volume(part * m.Stone),
		Water: length.Volume(float64(cement) * m.Water / waterDensity),
	}
}

// HandHours is how long one person digs a volume by hand.
func HandHours(v length.Volume, soil float64, rate materials.CrewRate) float64 {
	return float64(v) * soil / rate.Hand
}

// AugerHours is how long the auger takes for one hole.
func AugerHours(depth length.Length, soil float64, rate materials.CrewRate) float64 {
	return rate.Setup/60 + float64(depth/rate.Auger)*soil
}
