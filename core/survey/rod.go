package survey

import (
	"math"

	"mallow/core/job"
	"mallow/core/length"
)

// Levels is what a page of rod readings comes to.
type Levels struct {
	Heights []length.Length // of each row's point, closing error spread if asked
	Setups  []length.Length // heights of the line of sight, one for each set-up
	SumBack length.Length
	SumFore length.Length
	Closed  bool          // the page ends on a point of known height
	Error   length.Length // height found at the last point less the known one
	Allow   length.Length // how large that may be
	Circuit length.Length // length of the circuit, as far as it is known
}

// perSetup is the closing error that a builder's level may have for each root
// of a set-up: 3 mm, 1/8 in (common practice).
const perSetup = 3 * length.Millimetre

// thirdOrder is the closing error of third-order levelling for each root of a
// kilometre: 12 mm (FGCC standards, from memory).
const thirdOrder = 12 * length.Millimetre

// LevelBook reduces a page of rod readings: the line of sight stands at the
// height of a known point plus the reading on it, and every other point at
// the line of sight less its reading. The page has been checked.
func LevelBook(b job.Book) Levels {
	l := Levels{Heights: make([]length.Length, len(b.Rows))}
	setup := make([]int, len(b.Rows)) // set-ups seen when a row's height was found
	sight := length.Length(0)
	for i, row := range b.Rows {
		if i == 0 && b.Start != nil {
			l.Heights[0] = *b.Start
		}
		if row.Side != nil {
			l.Heights[i] = sight - corrected(*row.Side, row.Sight, b.Tilt)
		}
		if row.Fore != nil {
			fore := corrected(*row.Fore, row.Sight, b.Tilt)
			l.Heights[i] = sight - fore
			l.SumFore += fore
		}
		setup[i] = len(l.Setups)
		if row.Back != nil {
			back := corrected(*row.Back, row.BackSight, b.Tilt)
			sight = l.Heights[i] + back
			l.SumBack += back
			l.Setups = append(l.Setups, sight)
		}
	}
	l.Circuit = circuit(b)
	l.close(b, setup)
	return l
}

// corrected takes the tilt of the line of sight out of a reading: a line that
// climbs reads too high, the more the farther the rod.
func corrected(reading, sight length.Length, tilt float64) length.Length {
	return reading - length.Length(tilt*sight.Metres())
}

// close finds the closing error and spreads it if asked.
func (l *Levels) close(b job.Book, setup []int) {
	n := len(b.Rows)
	if n < 2 {
		return
	}
	first, last := b.Rows[0], b.Rows[n-1]
	known := l.Heights[0]
	switch {
	case b.Close != nil:
		known = *b.Close
	case first.Run != last.Run || first.Mark != last.Mark || !length.Same(first.At, last.At):
		return
	}
	l.Closed = true
	l.Error = l.Heights[n-1] - known
	l.Allow = perSetup * length.Length(math.Sqrt(float64(len(l.Setups))))
	if b.Allow == job.ThirdOrder {
		l.Allow = thirdOrder * length.Length(math.Sqrt(l.Circuit.Metres()/1000))
	}
	if !b.Spread {
		return
	}
	for i := range l.Heights {
		l.Heights[i] -= l.Error * length.Length(setup[i]) / length.Length(len(l.Setups))
	}
	for k := range l.Setups {
		l.Setups[k] -= l.Error * length.Length(k) / length.Length(len(l.Setups))
	}
}

// circuit is the length of the way levelled: the sights to turning points
// where the rod told them, or else the distance from turning point to turning
// point along each run.
func circuit(b job.Book) length.Length {
	sights, chained := length.Length(0), length.Length(0)
	all := true
	var from *job.Reading
	for i := range b.Rows {
		row := &b.Rows[i]
		if row.Back == nil && row.Fore == nil {
			continue
		}
		if row.Back != nil {
			sights += row.BackSight
			all = all && row.BackSight > 0
		}
		if row.Fore != nil {
			sights += row.Sight
			all = all && row.Sight > 0
		}
		if from != nil && from.Run == row.Run && row.Run != "" {
			chained += (row.At - from.At).Abs()
		}
		from = row
	}
	if all {
		return sights
	}
	return chained
}
