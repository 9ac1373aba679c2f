// Package pour works out what goes into the holes.
package pour

import (
	"math"

	"mallow/core/job"
	"mallow/core/length"
)

// Hole is a round, straight hole with its post.
type Hole struct {
	Width length.Length
	Foot  length.Length // depth of the post's foot, where the gravel ends
}

// Filling is what one hole takes, exactly.
type Filling struct {
	Gravel         length.Volume // as tamped
	ConcreteHeight length.Length // from the gravel up to the soil cover
	Concrete       length.Volume
}

// Fill works out a hole's filling: gravel under the foot, then concrete round
// the post up to the soil cover. Hole less post, so that bags are not bought
// for the room that the timber takes.
func Fill(h Hole, post job.Post, s job.Setting) Filling {
	f := Filling{
		Gravel:         length.Disc(h.Width).Times(s.Gravel),
		ConcreteHeight: max(0, h.Foot-s.Cover),
	}
	f.Concrete = (length.Disc(h.Width) - post.Section()).Times(f.ConcreteHeight)
	return f
}

// Bags is how many bags, as a decimal, a volume takes.
func Bags(v, yield length.Volume) float64 { return float64(v / yield) }

// WholeBags rounds bags up, for a run or a job: never for each post. A
// millionth of a bag over a whole number is float noise, not a bag.
func WholeBags(bags float64) int { return int(math.Ceil(bags - 1e-6)) }
