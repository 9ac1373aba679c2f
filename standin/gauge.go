package standin

import (
	"context"
	"hash/fnv"
	"math"
	"math/rand/v2"
	"time"

	"mallow/core/length"
)

// Gauge is a device that sends what it measures when its button is pressed, as the rod
// does: a tape with a button, a digital level laid on a post, an inclinometer.
type Gauge interface {
	// Next waits for the next measure.
	Next(ctx context.Context) (length.Length, error)
}

// GaugeKind is which device it is.
type GaugeKind string

// The devices.
const (
	ButtonTape   GaugeKind = "tape"         // lengths, to its marks
	DigitalLevel GaugeKind = "level"        // how much higher one end is
	Inclinometer GaugeKind = "inclinometer" // an angle from plumb, told over a height
)

// steady is how steadily each device reads: by what steps it tells, and the standard
// deviation of what it measures, along the tape or over a post of 2 m.
var steady = map[GaugeKind]struct{ step, noise length.Length }{
	ButtonTape:   {1, 6},
	DigitalLevel: {0.5, 4},
	Inclinometer: {0, 5},
}

// angleStep is what an inclinometer tells an angle to, degrees.
const angleStep = 0.1

// simulated is a device held to something that is as long as it should be, give or take
// what a crew does.
type simulated struct {
	kind   GaugeKind
	truth  length.Length
	over   length.Length // height of the post
	lag    time.Duration
	random *rand.Rand
}

// NewGauge holds a simulated device to something: what it should measure, over which
// height for an angle, and a name by which it measures the same again.
func NewGauge(kind GaugeKind, should, over length.Length, of string, lag time.Duration) Gauge {
	h := fnv.New64a()
	_, _ = h.Write([]byte(string(kind) + of))
	return &simulated{kind, should, over, lag, rand.New(rand.NewPCG(h.Sum64(), 3))}
}

func (g *simulated) Next(ctx context.Context) (length.Length, error) {
	select {
	case <-ctx.Done():
		return 0, ctx.Err()
	case <-time.After(g.lag):
	}
	s := steady[g.kind]
	v := g.truth + s.noise*length.Length(g.random.NormFloat64())
	if g.kind == Inclinometer && g.over > 0 {
		angle := math.Round(math.Atan2(float64(v), float64(g.over))*180/math.Pi/angleStep) * angleStep
		return g.over * length.Length(math.Tan(angle*math.Pi/180)), nil
	}
	if s.step > 0 {
		v = length.Length(math.Round(float64(v/s.step))) * s.step
	}
	return v, nil
}
