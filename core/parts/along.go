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

// Fill is pieces set along a length. A piece is as wide as it was bought; its gaps
// are all alike, and measured by hand: as so many marks of the tape each, the
// first Wider of them, spread over the length, a mark more.
type Fill struct {
	Pieces int
	Gaps   int
	Gap    length.Length // of the narrower ones, in whole marks
	Wider  int
	Over   length.Length // all gaps together, to the last fraction of a mark
	Ripped int           // how many pieces are ripped, at the ends
	Rip    length.Length // to this width, in whole marks
}

// share puts what is left over into the gaps.
func (f Fill) share(over, mark length.Length) Fill {
	f.Over = over
	each := math.Floor(float64(over/mark)/float64(f.Gaps) + slack)
	f.Wider = int(math.Round(float64(over/mark) - each*float64(f.Gaps)))
	if f.Wider >= f.Gaps { // nearly a mark more each
		each, f.Wider = each+1, f.Wider-f.Gaps
	}
	f.Gap = length.Length(each) * mark
	return f
}

// Along sets pieces of a width along a clear length so that nothing is left: as
// many as make the gaps come nearest to what is wanted, within what they may be.
// With a gap at both ends, as pickets between two posts have it, there is one
// more gap than pieces; without, as boards from post to post, one less. False
// where no number of whole pieces does it.
func Along(clear, width length.Length, gap Gap, mark length.Length, ends bool) (Fill, bool) {
	least, most := math.Ceil(float64(gap.Least/mark)-slack), math.Floor(float64(gap.Most/mark)+slack)
	if width <= 0 || clear <= 0 || least < 0 {
		return Fill{}, false
	}
	var best Fill
	off, found := math.Inf(1), false
	for n := 1; length.Length(n)*width <= clear+length.Tolerance; n++ {
		gaps := n - 1
		if ends {
			gaps = n + 1
		}
		over := max(0, clear-length.Length(n)*width)
		if gaps == 0 {
			if over <= length.Tolerance && off > 0 {
				best, off, found = Fill{Pieces: 1}, 0, true
			}
			continue
		}
		each := float64(over/mark) / float64(gaps)
		if math.Floor(each+slack) < least || math.Ceil(each-slack) > most {
			continue
		}
		// Of two as near, the one with more pieces is the closer fence.
		if d := math.Abs(each - float64(gap.Want/mark)); d <= off+slack {
			best, off, found = Fill{Pieces: n, Gaps: gaps}.share(over, mark), d, true
		}
	}
	return best, found
}

// Rip sets pieces from end to end with the gap that is wanted, and rips the last
// to what is left, to the mark; where that were a sliver, the first and the last
// alike. What is less than a mark goes to the gaps.
func Rip(clear, width, gap, sliver, mark length.Length) (Fill, bool) {
	g := toMark(gap, mark)
	if width <= 0 || g < 0 || clear <= 0 || clear < sliver-length.Tolerance {
		return Fill{}, false
	}
	whole := int(math.Floor(float64((clear+g)/(width+g)) + slack))
	f := Fill{Pieces: whole, Gaps: max(0, whole-1), Gap: g}
	over := clear - length.Length(whole)*(width+g) // what is left past the last gap; below nothing where only the gap is short
	if whole > 0 && over <= length.Tolerance {
		// The last piece ends at the post, or a part of a gap before it, which is shared out.
		spare := over + g
		if f.Gaps > 0 {
			return f.share(clear-length.Length(whole)*width, mark), true
		}
		if spare > length.Tolerance {
			// One piece with less than a gap beside it: two narrower ones, and a gap.
			return ripped(Fill{Pieces: 2, Gaps: 1, Ripped: 2}, clear, width, (clear-g)/2, sliver, mark)
		}
		return f, true
	}
	f.Pieces, f.Gaps, f.Ripped = whole+1, whole, 1
	if whole > 0 && over < sliver-length.Tolerance {
		f.Ripped = 2
		return ripped(f, clear, width, (over+width)/2, sliver, mark)
	}
	return ripped(f, clear, width, over, 0, mark)
}

// ripped rips pieces of a fill to a width, down to the mark, and shares out the rest.
func ripped(f Fill, clear, width, to, sliver, mark length.Length) (Fill, bool) {
	f.Rip = mark * length.Length(math.Floor(float64(to/mark)+slack))
	if f.Gaps > 0 {
		f = f.share(clear-length.Length(f.Pieces-f.Ripped)*width-length.Length(f.Ripped)*f.Rip, mark)
	}
	return f, f.Rip >= sliver-length.Tolerance && f.Rip > 0
}

// At is where each piece begins, from the start of the clear length. Whoever
// marks them rounds each to his tape by itself, so that nothing adds up.
func (f Fill) At(width length.Length, ends bool) []length.Length {
	out := make([]length.Length, 0, f.Pieces)
	at, gap := length.Length(0), length.Length(0)
	if f.Gaps > 0 {
		gap = f.Over / length.Length(f.Gaps)
	}
	for i := range f.Pieces {
		if ends || i > 0 {
			at += gap
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

// toMark is a length in whole marks of the tape, the nearest.
func toMark(l, mark length.Length) length.Length {
	return mark * length.Length(math.Round(float64(l/mark)))
}
