package build

import (
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/parts"
)

// Stretch is the bays from one terminal post to the next, without a gate.
type Stretch struct{ First, Last int } // places in the run's bays

// Piece is pieces of a part that are alike.
type Piece struct {
	Bay, To int // the bays that it begins and ends in; -1 for a part of a gate
	Gate    int // place of its gate in the run's, or -1
	Row     int // from the ground up, 1 first; 0: not in rows
	Count   int
	Long    length.Length
	Wide    length.Length // what it is ripped to; 0: as it is sold
	Cut     bool          // known not to be a whole one
}

// Fill is pieces side by side over a stretch, in a bay, or up a bay.
type Fill struct {
	parts.Fill
	First, Last int           // bays
	From, To    length.Length // stations, or heights above the bottom of what is filled
}

// Part is one part of a run, counted.
type Part struct {
	job.Part
	Given   bool // counted by the slope, and in the bill by it
	Gates   bool // of the gates' leaves, not of the fence
	Count   int
	Pieces  []Piece // where it has lengths
	Fills   []Fill
	Rolled  []length.Length // stretches that rolls or lengths are laid along
	Joints  int
	CutEnds int     // of pieces that are no whole lengths
	Litres  float64 // of a finish
	Area    float64 // square metres that it coats
	Unfit   []int   // first bays of what it does not fill as its gap is set
}

// Taken is how much of it is built in: pieces, or metres of what comes by length.
func (p *Part) Taken() float64 {
	switch {
	case p.Kind == job.FinishPart:
		return p.Litres / 1000
	case p.By == job.ByRoll:
		sum := length.Length(0)
		for _, l := range p.Rolled {
			sum += l
		}
		return float64(sum / length.Metre)
	}
	return float64(p.Count)
}
