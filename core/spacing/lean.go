package spacing

import (
	"math"
	"sort"

	"mallow/core/job"
	"mallow/core/length"
)

// Lean is a stretch over which the fence's pieces lean by one slope, rise over
// level distance.
type Lean struct {
	From, To length.Length
	Slope    float64
}

// stretch is how much longer a piece is along the slope than over the level.
func (l Lean) stretch() float64 { return math.Hypot(1, l.Slope) }

// slant measures a run in regular bays of pieces that lean, so that bays
// which are equal to a crew are equal in it: a panel, board or rail is as long
// as it is and spans less level distance on a slope, while posts stay plumb
// and stand as far from it as on the flat.
type slant struct {
	at, along []length.Length // stations, and how far they are along
}

// newSlant lays the measure over a run: level between the leans that are
// given.
func newSlant(leans []Lean, s job.Spacing, post length.Length) slant {
	w := slant{at: []length.Length{0}, along: []length.Length{0}}
	piece, plumb := s.Piece, length.Length(0)
	if s.Way == job.PanelsBetween {
		plumb = post + 2*s.Play - 2*s.Slot // of the regular bay, this does not lean
	}
	put := func(to length.Length, per float64) {
		n := len(w.at) - 1
		if to-w.at[n] <= length.Tolerance {
			return
		}
		w.at, w.along = append(w.at, to), append(w.along, w.along[n]+(to-w.at[n])*length.Length(per))
	}
	for _, l := range leans {
		put(l.From, 1)
		per := l.stretch()
		if plumb != 0 && piece > 0 {
			per = float64((piece + plumb) / (piece/length.Length(per) + plumb))
		}
		put(l.To, per)
	}
	return w
}

// Along is how far a station is along the pieces.
func (w slant) Along(at length.Length) length.Length { return between(w.at, w.along, at) }

// Level is the station so far along.
func (w slant) Level(along length.Length) length.Length { return between(w.along, w.at, along) }

// between reads a table that rises, and goes on past its ends one to one.
func between(from, to []length.Length, x length.Length) length.Length {
	n := len(from)
	switch {
	case x <= from[0]:
		return to[0] + x - from[0]
	case x >= from[n-1]:
		return to[n-1] + x - from[n-1]
	}
	i := sort.Search(n, func(i int) bool { return from[i] > x })
	return to[i-1] + (to[i]-to[i-1])*(x-from[i-1])/(from[i]-from[i-1])
}

// rise is how far pieces rise between two stations.
func rise(leans []Lean, from, to length.Length) length.Length {
	sum := length.Length(0)
	for _, l := range leans {
		if a, b := max(from, l.From), min(to, l.To); b > a {
			sum += (b - a) * length.Length(l.Slope)
		}
	}
	return sum
}

// steepest is the most by which a bay between two stations is longer along
// the slope than over the level.
func steepest(leans []Lean, from, to length.Length) length.Length {
	most := 1.0
	for _, l := range leans {
		if l.To > from+length.Tolerance && l.From < to-length.Tolerance {
			most = max(most, l.stretch())
		}
	}
	return length.Length(most)
}
