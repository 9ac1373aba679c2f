package grade

import (
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/survey"
)

// measure finds the least and the most gap over the bay.
func (b *Bay) measure(from, to length.Length, ground survey.Profile) {
	first := true
	ground.Each(from, to, func(at, h length.Length) {
		gap := b.Bottom((at-from)/(to-from)) - h
		if first || gap < b.Least.Gap {
			b.Least = Gap{gap, at}
		}
		if first || gap > b.Most.Gap {
			b.Most = Gap{gap, at}
		}
		first = false
	})
}

// Bottom is the height of the bay's bottom at a part of its length.
func (b Bay) Bottom(part length.Length) length.Length {
	return b.BottomStart + (b.BottomEnd-b.BottomStart)*part
}

// noEarth is the depth below which nobody digs: a tenth of a millimetre, well
// below any tape mark and well above the solver's error.
const noEarth = length.Millimetre / 10

// judge reports by how much the bay leaves the corridor, and how much soil
// that is, seen from the side.
func (b *Bay) judge(from, to length.Length, f job.Fence, ground survey.Profile) {
	if short := f.GapLeast - b.Least.Gap; short > noEarth {
		b.Cut = &Earth{short, b.Least.At, b.section(from, to, ground, func(gap length.Length) length.Length { return f.GapLeast - gap })}
	}
	if over := b.Most.Gap - f.GapMost; over > noEarth {
		b.Fill = &Earth{over, b.Most.At, b.section(from, to, ground, func(gap length.Length) length.Length { return gap - f.GapMost })}
	}
}

// section is the area over which an excess of the gap is positive. Between
// the ground's break points the excess runs straight.
func (b *Bay) section(from, to length.Length, ground survey.Profile, excess func(gap length.Length) length.Length) length.Area {
	area := 0.0
	var last, at0 length.Length
	first := true
	ground.Each(from, to, func(at, h length.Length) {
		e := excess(b.Bottom((at-from)/(to-from)) - h)
		if !first {
			area += positive(last.Metres(), e.Metres()) * (at - at0).Metres()
		}
		last, at0, first = e, at, false
	})
	return length.Area(area)
}

// positive is the mean of the positive part of a straight line between two
// heights.
func positive(a, b float64) float64 {
	switch {
	case a >= 0 && b >= 0:
		return (a + b) / 2
	case a <= 0 && b <= 0:
		return 0
	}
	most := max(a, b)
	return most * most / (2 * (most - min(a, b)))
}
