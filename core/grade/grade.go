// Package grade finds the tops and bottoms of the bays: level, stepped or
// raked over the ground.
//
// The fence's bottom runs in a corridor, between the least and the most gap
// over the ground, over the whole of each bay and not only at its posts.
// Where the corridor is too narrow for the look, what gives is the run's
// choice: the fence holds the least gap and low ground is filled, or it holds
// the most gap and high ground is cut, or half and half. The rules are simple
// and safe rather than best: the raked line, for one, is lifted at both posts
// of a bay by the whole bulge between them.
package grade

import (
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/spacing"
	"mallow/core/survey"
)

// Gap is a gap and the station where it is.
type Gap struct {
	Gap length.Length `json:"gap" jsonschema:"required"`
	At  length.Length `json:"at" jsonschema:"required"`
}

// Earth is a depth of ground to cut or fill and where it is deepest.
type Earth struct {
	Depth length.Length `json:"depth" jsonschema:"required"`
	At    length.Length `json:"at" jsonschema:"required"`
}

// Bay is the line of one bay. For a gate, the bottom is the leaf's.
type Bay struct {
	BottomStart, BottomEnd length.Length
	TopStart, TopEnd       length.Length
	Least, Most            Gap
	Cut, Fill              *Earth // nil where the corridor holds, and at gates
}

// Lean is how far the bay is out of square: its rise or fall.
func (b Bay) Lean() length.Length { return (b.BottomEnd - b.BottomStart).Abs() }

// Line is the graded run: its bays, and the top of each post.
type Line struct {
	Bays []Bay
	Tops []length.Length
}

// Solve grades a run's layout over its ground.
func Solve(run job.Run, layout spacing.Layout, ground survey.Profile) Line {
	low, high := bounds(run, layout, ground)
	line := Line{Bays: make([]Bay, len(layout.Bays)), Tops: make([]length.Length, len(layout.Posts))}
	for i, b := range layout.Bays {
		from, to := layout.Posts[b.First].Station, layout.Posts[b.First+1].Station
		bay := Bay{
			BottomStart: give(run.Grade.Give, low[i].start, high[i].start),
			BottomEnd:   give(run.Grade.Give, low[i].end, high[i].end),
		}
		bay.TopStart, bay.TopEnd = bay.BottomStart+run.Fence.Height, bay.BottomEnd+run.Fence.Height
		if b.Gate != spacing.NoGate {
			_, top := ground.Span(from, to)
			bay.BottomStart = top + run.Gates[b.Gate].Gap
			bay.BottomEnd = bay.BottomStart
		}
		bay.measure(from, to, ground)
		if b.Gate == spacing.NoGate {
			bay.judge(run.Fence)
		}
		line.Bays[i] = bay
	}
	for p := range layout.Posts {
		line.Tops[p] = line.topAt(p) + run.Post.Above
	}
	return line
}

// topAt is the higher of the two bays' tops at a post.
func (l Line) topAt(post int) length.Length {
	switch {
	case post == 0:
		return l.Bays[0].TopStart
	case post == len(l.Bays):
		return l.Bays[post-1].TopEnd
	}
	return max(l.Bays[post-1].TopEnd, l.Bays[post].TopStart)
}

// give picks the bottom between the lowest line that holds the least gap and
// the highest that holds the most gap. While low is not above high both hold,
// and the low one is taken: it shows the least daylight.
func give(g job.Give, low, high length.Length) length.Length {
	if low <= high {
		return low
	}
	switch g {
	case job.Cut:
		return high
	case job.Both:
		return (low + high) / 2
	}
	return low
}

// ends is the bottom of a bay at its two posts.
type ends struct{ start, end length.Length }

// bounds returns for each bay the lowest bottom that holds the least gap all
// along, and the highest that holds the most gap all along.
func bounds(run job.Run, layout spacing.Layout, ground survey.Profile) (low, high []ends) {
	switch run.Grade.Look {
	case job.Level:
		return level(run, layout, ground)
	case job.Raked:
		return raked(run, layout, ground)
	}
	return stepped(run, layout, ground)
}

func level(run job.Run, layout spacing.Layout, ground survey.Profile) (low, high []ends) {
	bottom, top := ground.Span(0, *run.Length)
	l, h := top+run.Fence.GapLeast, bottom+run.Fence.GapMost
	low, high = make([]ends, len(layout.Bays)), make([]ends, len(layout.Bays))
	for i := range layout.Bays {
		low[i], high[i] = ends{l, l}, ends{h, h}
	}
	return low, high
}

func stepped(run job.Run, layout spacing.Layout, ground survey.Profile) (low, high []ends) {
	low, high = make([]ends, len(layout.Bays)), make([]ends, len(layout.Bays))
	for i, b := range layout.Bays {
		bottom, top := ground.Span(layout.Posts[b.First].Station, layout.Posts[b.First+1].Station)
		l, h := top+run.Fence.GapLeast, bottom+run.Fence.GapMost
		low[i], high[i] = ends{l, l}, ends{h, h}
	}
	return low, high
}

// raked hangs the bottom line on the posts. Lifting both posts of a bay by
// the most that the ground between them stands above their chord clears all
// of it, since the lifted chord lies at least that much higher everywhere;
// the highest line is found the same way upside down. A gate's two posts take
// one height, so that the tops run flat across the opening.
func raked(run job.Run, layout spacing.Layout, ground survey.Profile) (low, high []ends) {
	n := len(layout.Posts)
	bulge, hollow := make([]length.Length, n), make([]length.Length, n)
	for _, b := range layout.Bays {
		if b.Gate != spacing.NoGate {
			continue
		}
		up, down := offChord(layout.Posts[b.First].Station, layout.Posts[b.First+1].Station, ground)
		for _, p := range []int{b.First, b.First + 1} {
			bulge[p], hollow[p] = max(bulge[p], up), max(hollow[p], down)
		}
	}
	l, h := make([]length.Length, n), make([]length.Length, n)
	for p := range layout.Posts {
		g := ground.Height(layout.Posts[p].Station)
		l[p], h[p] = g+run.Fence.GapLeast+bulge[p], g+run.Fence.GapMost-hollow[p]
	}
	flatten(run, layout, ground, l, h)
	low, high = make([]ends, len(layout.Bays)), make([]ends, len(layout.Bays))
	for i, b := range layout.Bays {
		low[i], high[i] = ends{l[b.First], l[b.First+1]}, ends{h[b.First], h[b.First+1]}
	}
	return low, high
}

// flatten gives the posts of each gate, and of gates that share a post, one
// height.
func flatten(run job.Run, layout spacing.Layout, ground survey.Profile, low, high []length.Length) {
	for i := 0; i < len(layout.Bays); i++ {
		if layout.Bays[i].Gate == spacing.NoGate {
			continue
		}
		j := i
		for j+1 < len(layout.Bays) && layout.Bays[j+1].Gate != spacing.NoGate {
			j++
		}
		first, last := layout.Bays[i].First, layout.Bays[j].First+1
		_, top := ground.Span(layout.Posts[first].Station, layout.Posts[last].Station)
		l, h := top+run.Fence.GapLeast, high[first]
		for p := first; p <= last; p++ {
			l, h = max(l, low[p]), min(h, high[p])
		}
		for p := first; p <= last; p++ {
			low[p], high[p] = l, h
		}
		i = j
	}
}

// offChord returns how far the ground stands above, and lies below, the
// straight line between its heights at the two ends of a stretch.
func offChord(from, to length.Length, ground survey.Profile) (above, below length.Length) {
	a, b := ground.Height(from), ground.Height(to)
	ground.Each(from, to, func(at, h length.Length) {
		chord := a + (b-a)*((at-from)/(to-from))
		above, below = max(above, h-chord), max(below, chord-h)
	})
	return above, below
}

// measure finds the least and the most gap over the bay.
func (b *Bay) measure(from, to length.Length, ground survey.Profile) {
	first := true
	ground.Each(from, to, func(at, h length.Length) {
		gap := b.BottomStart + (b.BottomEnd-b.BottomStart)*((at-from)/(to-from)) - h
		if first || gap < b.Least.Gap {
			b.Least = Gap{gap, at}
		}
		if first || gap > b.Most.Gap {
			b.Most = Gap{gap, at}
		}
		first = false
	})
}

// judge reports by how much the bay leaves the corridor.
func (b *Bay) judge(f job.Fence) {
	if short := f.GapLeast - b.Least.Gap; short > length.Tolerance {
		b.Cut = &Earth{short, b.Least.At}
	}
	if over := b.Most.Gap - f.GapMost; over > length.Tolerance {
		b.Fill = &Earth{over, b.Most.At}
	}
}

// Worst returns the deepest cut and fill on the line; nil where none is
// needed.
func (l Line) Worst() (cut, fill *Earth) {
	for _, b := range l.Bays {
		if b.Cut != nil && (cut == nil || b.Cut.Depth > cut.Depth) {
			cut = b.Cut
		}
		if b.Fill != nil && (fill == nil || b.Fill.Depth > fill.Depth) {
			fill = b.Fill
		}
	}
	return cut, fill
}
