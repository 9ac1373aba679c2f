// Package parts counts what a fence is made of, one way of counting a function:
// pieces along a length or rows over a height with a gap, fixings at a spacing,
// rolls with joints, coats over an area. It knows no fence; who asks says what
// the lengths are.
package parts

import (
	"math"

	"mallow/core/length"
)

// Gap is the room wanted between pieces, and what it may be.
type Gap struct{ Want, Least, Most length.Length }

// Fill is pieces set along a length. All gaps are alike, or alike to one mark of
// the tape: the first Wider ones, spread over the length, are a mark wider.
type Fill struct {
	Pieces int
	Gaps   int
	Gap    length.Length // of the narrower ones
	Wider  int
	Ripped int           // how many pieces are ripped, at the ends
	Rip    length.Length // to this width
}

// Along sets pieces of a width along a clear length so that nothing is left: as
// many as make the gaps come nearest to what is wanted, within what they may be.
// With a gap at both ends, as pickets between two posts have it, there is one
// more gap than pieces; without, as boards from post to post, one less. False
// where no number of whole pieces does it.
func Along(clear, width length.Length, gap Gap, mark length.Length, ends bool) (Fill, bool) {
	room, w := marks(clear, mark), marks(width, mark)
	least, most := int(math.Ceil(float64(gap.Least/mark)-slack)), int(math.Floor(float64(gap.Most/mark)+slack))
	if w <= 0 || room <= 0 || least < 0 {
		return Fill{}, false
	}
	var best Fill
	off, found := math.Inf(1), false
	for n := 1; n*w <= room; n++ {
		gaps := n - 1
		if ends {
			gaps = n + 1
		}
		over := room - n*w
		if gaps == 0 {
			if over == 0 && off > 0 {
				best, off, found = Fill{Pieces: 1}, 0, true
			}
			continue
		}
		each, wider := over/gaps, over%gaps
		widest := each
		if wider > 0 {
			widest++
		}
		if each < least || widest > most {
			continue
		}
		// Of two as near, the one with more pieces is the closer fence.
		if d := math.Abs(float64(over)/float64(gaps) - float64(gap.Want/mark)); d <= off+slack {
			best, off, found = Fill{Pieces: n, Gaps: gaps, Gap: length.Length(each) * mark, Wider: wider}, d, true
		}
	}
	return best, found
}

// Rip sets pieces from end to end with the gap that is wanted, and rips the last
// to what is left; where that were a sliver, the first and the last alike.
func Rip(clear, width, gap, sliver, mark length.Length) (Fill, bool) {
	room, w, g := marks(clear, mark), marks(width, mark), marks(gap, mark)
	if w <= 0 || g < 0 || room <= 0 || room < marks(sliver, mark) {
		return Fill{}, false
	}
	whole := (room + g) / (w + g)
	f := Fill{Pieces: whole, Gaps: max(0, whole-1), Gap: length.Length(g) * mark}
	over := room - whole*(w+g) // what is left past the last gap; below nothing where only the gap is short
	if whole > 0 && over <= 0 {
		// The last piece ends at the post, or a part of a gap before it, which is shared out by marks.
		if spare := over + g; spare > 0 && f.Gaps == 0 {
			// One piece with less than a gap beside it: two narrower ones, and a gap.
			two := room - g
			f = Fill{Pieces: 2, Gaps: 1, Gap: f.Gap, Wider: two % 2, Ripped: 2, Rip: length.Length(two/2) * mark}
			return f, float64(two/2) >= float64(sliver/mark)-slack
		} else if spare > 0 {
			f.Gap += length.Length(spare/f.Gaps) * mark
			f.Wider = spare % f.Gaps
		}
		return f, true
	}
	f.Pieces, f.Gaps = whole+1, whole
	f.Ripped, f.Rip = 1, length.Length(over)*mark
	if float64(over) < float64(sliver/mark)-slack && whole > 0 {
		two := over + w // shared by the first and the last
		f.Ripped, f.Rip = 2, length.Length(two/2)*mark
		if two%2 == 1 {
			if f.Gaps == 0 {
				return Fill{}, false
			}
			f.Wider = 1
		}
	}
	return f, true
}

// At is where each piece begins, from the start of the clear length: the wider
// gaps are spread over it.
func (f Fill) At(width, mark length.Length, ends bool) []length.Length {
	out := make([]length.Length, 0, f.Pieces)
	at, gap := length.Length(0), 0
	step := func() {
		at += f.Gap
		// The k-th wider gap is the one at which k/Wider of all gaps are passed.
		if f.Gaps > 0 && (gap+1)*f.Wider/f.Gaps > gap*f.Wider/f.Gaps {
			at += mark
		}
		gap++
	}
	for i := range f.Pieces {
		if ends || i > 0 {
			step()
		}
		out = append(out, at)
		w := width
		if f.Ripped > 0 && i == f.Pieces-1 || f.Ripped == 2 && i == 0 {
			w = f.Rip
		}
		at += w
	}
	return out
}

// slack is what a sum of marks may be off by in floating point.
const slack = 1e-6

// marks is a length in marks of the tape, the nearest.
func marks(l, mark length.Length) int { return int(math.Round(float64(l / mark))) }
