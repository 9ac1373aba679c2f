package survey

import (
	"math"

	"mallow/core/job"
	"mallow/core/length"
)

// Look is what a reading is for.
type Look string

// Readings of a set-up: back to a known point, to a side point, and forward
// to the point that the next set-up starts from.
const (
	BackLook Look = "back"
	SideLook Look = "side"
	ForeLook Look = "fore"
)

// Stop is one place where the rod is held, in order of the walk.
type Stop struct {
	Run   string        `json:"run" jsonschema:"required"`
	At    length.Length `json:"at" jsonschema:"required" jsonschema_description:"Station on the run, as taped."`
	Look  Look          `json:"look" jsonschema:"required,enum=back,enum=side,enum=fore"`
	Setup int           `json:"setup" jsonschema:"required" jsonschema_description:"Set-up of the level, from 0."`
}

// Route plans a walk with level and rod over a whole line: its ends and
// corners and a point every so far, a turning point before the sight gets
// longer than reach, and back to the first post to close. Runs without a
// length are passed over.
func Route(l job.Line, every, reach length.Length) []Stop {
	var points []Stop
	chain := []length.Length{}
	start := length.Length(0)
	for _, run := range l.Runs {
		if run.Length == nil {
			continue
		}
		pieces := int(math.Ceil(float64(*run.Length/every) - 1e-9))
		for i := range pieces + 1 {
			if i == 0 && len(points) > 0 {
				continue // the corner has been read as the end of the run before
			}
			at := *run.Length * length.Length(i) / length.Length(pieces)
			points = append(points, Stop{Run: run.ID, At: at})
			chain = append(chain, start+at)
		}
		start += *run.Length
	}
	if len(points) < 2 {
		return nil
	}
	if l.Closed {
		points = points[:len(points)-1] // the last point is the first corner again
	}
	w := walker{out: []Stop{}}
	w.add(points[0], BackLook)
	at := length.Length(0)
	for i := 1; i < len(points); i++ {
		if i+1 < len(chain) && chain[i+1]-at <= reach {
			w.add(points[i], SideLook)
			continue
		}
		w.turn(points[i])
		at = chain[i]
	}
	if !l.Closed { // home again by long sights
		for i := len(points) - 2; i > 0; i-- {
			if at-chain[i-1] > reach {
				w.turn(points[i])
				at = chain[i]
			}
		}
	}
	w.add(points[0], ForeLook)
	return w.out
}

type walker struct {
	out   []Stop
	setup int
}

func (w *walker) add(s Stop, look Look) {
	s.Look, s.Setup = look, w.setup
	w.out = append(w.out, s)
}

// turn reads a turning point: forward to it, and back on it from the next
// set-up.
func (w *walker) turn(s Stop) {
	w.add(s, ForeLook)
	w.setup++
	w.add(s, BackLook)
}

// Record writes the reading at a stop into a page of the field book. A reading
// back on a turning point belongs to the row of its fore reading.
func Record(rows []job.Reading, s Stop, reading, sight length.Length) []job.Reading {
	switch row := (job.Reading{Run: s.Run, At: s.At}); s.Look {
	case BackLook:
		if n := len(rows); n > 0 {
			rows[n-1].Back, rows[n-1].BackSight = &reading, sight
			return rows
		}
		row.Back, row.BackSight = &reading, sight
		return append(rows, row)
	case ForeLook:
		row.Fore, row.Sight = &reading, sight
		return append(rows, row)
	default:
		row.Side, row.Sight = &reading, sight
		return append(rows, row)
	}
}
