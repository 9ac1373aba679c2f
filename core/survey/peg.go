package survey

import (
	"math"

	"mallow/core/length"
)

// Pegs is a two-peg test: the level stands once midway between two pegs, where
// its tilt cancels out, and once beyond or near one of them.
type Pegs struct {
	MidA, MidB length.Length // readings from midway
	EndA, EndB length.Length // readings from the other place
	FarA, FarB length.Length // distances from that place to the pegs; they must differ
}

// PegTest is what a two-peg test comes to.
type PegTest struct {
	Difference length.Length `json:"difference" jsonschema:"required" jsonschema_description:"True height of peg B over peg A."`
	Tilt       float64       `json:"tilt" jsonschema:"required" jsonschema_description:"How far the line of sight climbs, millimetres for each metre; falling is negative."`
	AtThirty   length.Length `json:"atThirty" jsonschema:"required" jsonschema_description:"What that makes at 30 m, 100 ft."`
	Passes     bool          `json:"passes" jsonschema:"required"`
}

// pegAllowed is how far a builder's level may be out: 1.5 mm in 30 m, 1/16 in
// in 100 ft (common practice).
const pegAllowed = 1.5 / 30

// Test works out the tilt. The two distances must differ.
func (p Pegs) Test() PegTest {
	difference := p.MidA - p.MidB
	// A line that climbs by t reads t·d too high at d: the difference seen
	// from the second place is out by t·(FarA - FarB).
	out := (p.EndA - p.EndB) - difference
	tilt := float64(out) / (p.FarA - p.FarB).Metres()
	return PegTest{Difference: difference, Tilt: tilt, AtThirty: length.Length(tilt * 30), Passes: math.Abs(tilt) <= pegAllowed}
}
