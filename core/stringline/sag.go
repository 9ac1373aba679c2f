// Package stringline says what strings do: how they square a corner, how far
// they sag, how far the wind pushes them, and how they are held.
package stringline

import (
	"math"

	"mallow/core/length"
)

// Cord is a string under pull.
type Cord struct {
	Weight   float64       // newtons for each metre
	Diameter length.Length // for the wind's push
	Pull     float64       // newtons
}

// Sag is how far a string hangs below the straight line between its ends, at
// a distance from one end of a span: the parabola w x (L - x) / 2T, which at
// mid-span is wL²/8T, the first term of the catenary.
func (c Cord) Sag(span, at length.Length) length.Length {
	return sideways(c.Weight, c.Pull, span, at)
}

// MidSag is the sag at mid-span.
func (c Cord) MidSag(span length.Length) length.Length { return c.Sag(span, span/2) }

func sideways(load, pull float64, span, at length.Length) length.Length {
	return length.Length(load * at.Metres() * (span - at).Metres() / (2 * pull) * 1000)
}

const (
	airDensity = 1.225 // kg/m³, ISO standard atmosphere
	roundDrag  = 1.2   // drag coefficient of a thin round line across the wind (published: long cylinder, subcritical)
)

// Push is the wind's force on a string across it, newtons for each metre.
func (c Cord) Push(wind float64) float64 {
	return airDensity / 2 * roundDrag * c.Diameter.Metres() * wind * wind
}

// Drift is how far the wind, in metres per second square across the line,
// pushes a string aside at a distance from one end of a span.
func (c Cord) Drift(wind float64, span, at length.Length) length.Length {
	return sideways(c.Push(wind), c.Pull, span, at)
}

// MidDrift is the drift at mid-span.
func (c Cord) MidDrift(wind float64, span length.Length) length.Length {
	return c.Drift(wind, span, span/2)
}

// longest is the longest span on which a load bows the string no more than
// allowed.
func longest(load, pull float64, allowed length.Length) length.Length {
	if load <= 0 {
		return length.Length(math.Inf(1))
	}
	return length.Length(math.Sqrt(8*pull*allowed.Metres()/load) * 1000)
}

// LongestSag is the longest span that sags no more than allowed.
func (c Cord) LongestSag(allowed length.Length) length.Length {
	return longest(c.Weight, c.Pull, allowed)
}

// LongestDrift is the longest span that the wind pushes no more than allowed.
func (c Cord) LongestDrift(wind float64, allowed length.Length) length.Length {
	return longest(c.Push(wind), c.Pull, allowed)
}

// Props is how many evenly spaced props keep the sag within what is allowed:
// each halving of the span quarters it.
func (c Cord) Props(span, allowed length.Length) int {
	return max(0, int(math.Ceil(float64(span/c.LongestSag(allowed))-1e-9))-1)
}

// Hung is the sag at a place of a string that stands on so many evenly spaced
// props.
func (c Cord) Hung(span length.Length, props int, at length.Length) length.Length {
	piece := span / length.Length(props+1)
	k := math.Min(math.Floor(float64(at/piece)), float64(props))
	return c.Sag(piece, at-piece*length.Length(max(0, k)))
}
