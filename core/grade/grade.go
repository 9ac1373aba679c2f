// Package grade finds the tops and bottoms of the bays: level, stepped, raked
// or rolling over the ground.
//
// The fence's bottom runs in a corridor, between the least and the most gap
// over the ground, over the whole of each bay and not only at its posts.
// Where the corridor is too narrow for the look, what gives is the run's
// choice: the fence holds the least gap and low ground is filled, or it holds
// the most gap and high ground is cut, or half and half. What is given up is
// always the least, in the measure that each look states, and always reported.
package grade

import (
	"mallow/core/job"
	"mallow/core/length"
)

// Gap is a gap and the station where it is.
type Gap struct {
	Gap length.Length `json:"gap" jsonschema:"required"`
	At  length.Length `json:"at" jsonschema:"required"`
}

// Earth is ground to cut or fill.
type Earth struct {
	Depth   length.Length `json:"depth" jsonschema:"required" jsonschema_description:"Where it is deepest."`
	At      length.Length `json:"at" jsonschema:"required" jsonschema_description:"Station where it is deepest."`
	Section length.Area   `json:"section" jsonschema:"required" jsonschema_description:"Area seen from the side, square metres; times the strip's width it is the soil."`
}

// Bay is the line of one bay. For a gate, the bottom is the leaf's.
type Bay struct {
	BottomStart, BottomEnd length.Length
	TopStart, TopEnd       length.Length
	Least, Most            Gap
	Cut, Fill              *Earth // nil where the corridor holds, and at gates
}

// Lean is how far the bay is out of square: its rise or fall.
func (b Bay) Lean() length.Length { return (b.TopEnd - b.TopStart).Abs() }

// Line is the graded course: its bays, the top of each post, and the posts at
// which a leaning top changes slope.
type Line struct {
	Bays  []Bay
	Tops  []length.Length
	Knots []bool

	// Lost says that a solver did not come to its end: the line is not known
	// to be the one with the least earth, nor the smoothest.
	Lost bool
}

// Solve grades a course.
//
// What is level or stepped is found first, then what rolls, then what is
// raked: a leaning line takes up the height of a level neighbour where that
// lies in its own corridor, so that the top flows on.
func Solve(c Course) Line {
	w := newSolving(c)
	for _, look := range []job.Look{job.Level, job.Stepped, job.Rolling, job.Raked} {
		for _, s := range w.spans {
			if s.look == look {
				w.span(s)
			}
		}
	}
	w.gates()
	return w.line()
}

// span is a stretch of bays of one look, the last one included.
type span struct {
	look        job.Look
	first, last int
}

// solving is a course under way: bottoms of every bay as they are found.
type solving struct {
	Course
	corridor []corridor
	spans    []span
	start    []length.Length // bottom of each bay at its first post
	end      []length.Length // and at its second
	done     []bool
	knots    []bool
	touch    map[int]length.Length // tops that a string asks for over the panels
	lost     bool                  // some solver did not come to its end
}

func newSolving(c Course) *solving {
	n := len(c.Bays)
	w := &solving{Course: c, corridor: corridors(c), start: make([]length.Length, n), end: make([]length.Length, n), done: make([]bool, n), knots: make([]bool, n+1), touch: map[int]length.Length{}}
	for i := range c.Bays {
		// What is level or stepped starts again at a corner.
		fresh := c.Posts[i].Corner && !c.Bays[i].Look.Leans()
		if k := len(w.spans); k > 0 && w.spans[k-1].look == c.Bays[i].Look && !fresh {
			w.spans[k-1].last = i
			continue
		}
		w.spans = append(w.spans, span{c.Bays[i].Look, i, i})
	}
	return w
}

func (w *solving) span(s span) {
	switch s.look {
	case job.Level:
		w.level(s)
	case job.Stepped:
		w.stepped(s)
	case job.Rolling:
		w.rolling(s)
	default:
		w.raked(s)
	}
	for i := s.first; i <= s.last; i++ {
		w.done[i] = true
	}
}

// held is the fence's bottom that the user holds at a post.
func (w *solving) held(post int) (length.Length, bool) {
	p := w.Posts[post]
	if p.Gap == nil {
		return 0, false
	}
	return w.Ground.Height(p.Station) + *p.Gap, true
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

// level gives all bays of a span one height.
func (w *solving) level(s span) {
	bottom, top := w.Ground.Span(w.from(s.first), w.to(s.last))
	y := give(w.Grade.Give, top+w.Fence.GapLeast, bottom+w.Fence.GapMost)
	for _, p := range []int{s.last + 1, s.first} { // the start's own word counts first
		if h, ok := w.held(p); ok {
			y = h
		}
	}
	for i := s.first; i <= s.last; i++ {
		w.start[i], w.end[i] = y, y
	}
}

// gates puts the leaves where they hang: over the highest ground across the
// opening, up to the fence's top. Flat, the tops of both gate posts are those
// of the higher neighbour.
func (w *solving) gates() {
	for i := 0; i < len(w.Bays); i++ {
		if !w.Bays[i].Gate {
			continue
		}
		j := i
		for j+1 < len(w.Bays) && w.Bays[j+1].Gate && !w.Posts[j+1].Corner {
			j++
		}
		if w.Grade.Across != job.GoesOn && !w.Bays[i].Look.Leans() {
			w.flat(i, j)
		}
		i = j
	}
}

// flat gives gates that hang beside each other the height of the higher
// neighbour; without any, that of their own ground.
func (w *solving) flat(first, last int) {
	var y length.Length
	found := false
	take := func(h length.Length) {
		if !found || h > y {
			y, found = h, true
		}
	}
	if first > 0 && !w.Posts[first].Corner {
		take(w.end[first-1])
	}
	if last+1 < len(w.Bays) && !w.Posts[last+1].Corner {
		take(w.start[last+1])
	}
	if !found {
		return // nothing but gates: as found over their own ground
	}
	for i := first; i <= last; i++ {
		w.start[i], w.end[i] = y, y
	}
}

// line measures what was found.
func (w *solving) line() Line {
	line := Line{Bays: make([]Bay, len(w.Bays)), Tops: make([]length.Length, len(w.Posts)), Knots: w.knots, Lost: w.lost}
	for i, b := range w.Bays {
		bay := Bay{BottomStart: w.start[i], BottomEnd: w.end[i], TopStart: w.start[i] + w.high(i), TopEnd: w.end[i] + w.high(i)}
		if b.Gate {
			bay.BottomStart = w.opening(i) + b.LeafGap
			bay.BottomEnd = bay.BottomStart
		}
		bay.measure(w.from(i), w.to(i), w.Ground)
		if !b.Gate {
			bay.judge(w.from(i), w.to(i), w.Fence, w.Ground)
		}
		line.Bays[i] = bay
	}
	for p := range w.Posts {
		line.Tops[p] = line.FenceTop(p) + w.Posts[p].Above
		if t, ok := w.touch[p]; ok {
			line.Tops[p] = max(line.Tops[p], t+w.Posts[p].Above)
		}
	}
	return line
}

// FenceTop is the fence's top at a post: the higher of the two bays'.
func (l Line) FenceTop(post int) length.Length {
	switch {
	case post == 0:
		return l.Bays[0].TopStart
	case post == len(l.Bays):
		return l.Bays[post-1].TopEnd
	}
	return max(l.Bays[post-1].TopEnd, l.Bays[post].TopStart)
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
