// Package standin holds small simulated outside devices and services, behind
// the interfaces that real ones would have: a level with a digital rod, and
// the office that locates public services.
package standin

import (
	"context"
	"hash/fnv"
	"math"
	"math/rand/v2"
	"time"

	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/survey"
)

// Reading is what a digital rod tells when its foot is put down.
type Reading struct {
	Rod   length.Length `json:"rod"`   // where the line of sight meets the rod
	Sight length.Length `json:"sight"` // distance to the level
}

// Rod is a digital levelling rod. A real one gives a reading when its button
// is pressed; whoever holds it knows where it stands.
type Rod interface {
	// Next waits for the next reading.
	Next(ctx context.Context) (Reading, error)
}

// Level is the simulated instrument: how badly it is out, and how steadily it
// is read.
type Level struct {
	Tilt  float64       // millimetres for each metre that the line of sight climbs
	Noise length.Length // standard deviation of one reading
	Lag   time.Duration // between readings
	Seed  uint64
}

// Usual is the level that ships: out by 5 mm at 30 m, which is more than is
// allowed, so that the peg test and the closing check have something to find.
var Usual = Level{Tilt: 1.0 / 6, Noise: 0.4, Lag: 60 * time.Millisecond, Seed: 7}

// near is where between the point behind and the one ahead the level is set
// up: carelessly close to the first, so that its tilt does not cancel out.
const near = 0.2

// tripod is the height of the line of sight over the highest ground of a
// set-up.
const tripod = 1400 * length.Millimetre

// Walk is a rod that walks a line's stops by itself.
type Walk struct {
	level  Level
	stops  []survey.Stop
	truth  []length.Length // ground under each stop
	places []survey.Place
	random *rand.Rand
	next   int
}

// NewWalk walks a line. Its ground is what the job knows of it; a line of
// which nothing was measured stands on made-up ground.
func NewWalk(level Level, l job.Line, stops []survey.Stop) *Walk {
	w := &Walk{level: level, stops: stops, random: rand.New(rand.NewPCG(level.Seed, 1))}
	sv := survey.Reduce(l, "")
	lengths := make([]length.Length, len(sv.Runs))
	byID, measured := map[string]int{}, false
	for r, g := range sv.Runs {
		lengths[r], measured = g.Length, measured || g.Measured
		byID[l.Runs[r].ID] = r
	}
	laid := survey.Lay(l, lengths)
	for _, s := range stops {
		r := byID[s.Run]
		part := 0.0
		if run := l.Runs[r].Length; run != nil {
			part = float64(s.At / *run)
		}
		at := laid.Places[r].Towards(laid.Places[r+1], part)
		height := madeUp(at, l.ID)
		if measured {
			height = sv.Runs[r].Profile().Height(lengths[r] * length.Length(part))
		}
		w.places, w.truth = append(w.places, at), append(w.truth, height)
	}
	return w
}

// madeUp is ground that nobody measured: a slope with two swells.
func madeUp(p survey.Place, seed string) length.Length {
	h := fnv.New64a()
	_, _ = h.Write([]byte(seed))
	turn := float64(h.Sum64()%360) * math.Pi / 180
	x, y := p.X.Metres(), p.Y.Metres()
	return length.Length(35*(x*math.Cos(turn)+y*math.Sin(turn)) + 180*math.Sin(x/9+turn) + 120*math.Cos(y/7))
}

// Next gives the reading at the next stop.
func (w *Walk) Next(ctx context.Context) (Reading, error) {
	if w.next >= len(w.stops) {
		return Reading{}, ErrDone
	}
	if w.next > 0 && w.level.Lag > 0 {
		select {
		case <-ctx.Done():
			return Reading{}, ctx.Err()
		case <-time.After(w.level.Lag):
		}
	}
	i := w.next
	w.next++
	first, last := i, i
	for first > 0 && w.stops[first-1].Setup == w.stops[i].Setup {
		first--
	}
	for last+1 < len(w.stops) && w.stops[last+1].Setup == w.stops[i].Setup {
		last++
	}
	level := w.places[first].Towards(w.places[last], near)
	sight := w.truth[first]
	for _, g := range w.truth[first : last+1] {
		sight = max(sight, g)
	}
	return w.level.read(sight+tripod-w.truth[i], level.To(w.places[i]), w.random), nil
}

// read is a true reading as this level gives it.
func (v Level) read(true, far length.Length, random *rand.Rand) Reading {
	return Reading{true + length.Length(v.Tilt*far.Metres()) + v.Noise*length.Length(random.NormFloat64()), far}
}

// Pegs is a rod held for a two-peg test: on both pegs from midway, then on
// both from just beyond the first.
type Pegs struct {
	level  Level
	apart  length.Length
	next   int
	random *rand.Rand
}

// NewPegs sets two pegs out.
func NewPegs(level Level, apart length.Length) *Pegs {
	return &Pegs{level: level, apart: apart, random: rand.New(rand.NewPCG(level.Seed, 2))}
}

// Next gives the next of the four readings: A and B from midway, A and B from
// beyond A.
func (p *Pegs) Next(ctx context.Context) (Reading, error) {
	if p.next >= 4 {
		return Reading{}, ErrDone
	}
	if p.next > 0 && p.level.Lag > 0 {
		select {
		case <-ctx.Done():
			return Reading{}, ctx.Err()
		case <-time.After(p.level.Lag):
		}
	}
	const rise, beyond = 237 * length.Millimetre, 3 * length.Metre // of peg B over peg A; of the second place past A
	far := [4]length.Length{p.apart / 2, p.apart / 2, beyond, beyond + p.apart}[p.next]
	true := [4]length.Length{1500, 1500 - rise, 1420, 1420 - rise}[p.next]
	p.next++
	return p.level.read(true, far, p.random), nil
}

type done struct{}

func (done) Error() string { return "the walk is done" }

// ErrDone is what a simulated rod says when it has been everywhere.
var ErrDone error = done{}
