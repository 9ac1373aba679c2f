package grade

import (
	"math"

	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/qp"
)

// stepped levels each panel by itself. Gates part a span: the steps begin
// again on either side.
func (w *solving) stepped(s span) {
	for i := s.first; i <= s.last; {
		if w.Bays[i].Gate {
			top := w.opening(i)
			w.start[i], w.end[i] = top+w.Fence.GapLeast, top+w.Fence.GapLeast
			i++
			continue
		}
		j := i
		for j < s.last && !w.Bays[j+1].Gate {
			j++
		}
		w.steps(i, j)
		i = j + 1
	}
}

// panel is what one level panel asks: at least low over its highest ground,
// at most high over its lowest; best is what it takes by itself.
type panel struct{ low, high, best float64 }

func (w *solving) panels(first, last int) []panel {
	out := make([]panel, 0, last-first+1)
	for i := first; i <= last; i++ {
		bottom, top := w.Ground.Span(w.from(i), w.to(i))
		low, high := top+w.Fence.GapLeast, bottom+w.Fence.GapMost
		out = append(out, panel{float64(low), float64(high), float64(give(w.Grade.Give, low, high))})
	}
	return out
}

// floor and ceiling are what a panel may not pass, by what gives: filling
// never lets go of the least gap, and cutting never of the most. Half and half
// may go either way. The other gap is kept where the drops allow; past it the
// ground is filled or cut.
func (p panel) floor(g job.Give) float64 {
	if g == job.Fill {
		return p.low
	}
	return math.Inf(-1)
}

func (p panel) ceiling(g job.Give) float64 {
	if g == job.Cut {
		return p.high
	}
	return math.Inf(1)
}

func (w *solving) steps(first, last int) {
	panels := w.panels(first, last)
	z := make([]float64, len(panels))
	switch w.Grade.Steps {
	case job.EvenSteps:
		w.even(first, panels, z)
	case job.Gradual:
		w.gradual(first, panels, z)
	case job.RoundStep:
		w.round(first, panels, z)
	default:
		for i, p := range panels {
			z[i] = p.best
		}
		for _, at := range []int{len(z), 0} {
			if h, ok := w.held(first + at); ok {
				z[min(at, len(z)-1)] = float64(h)
			}
		}
	}
	for i := range z {
		w.start[first+i], w.end[first+i] = length.Length(z[i]), length.Length(z[i])
	}
}

// even pulls a tight string over the tops, from the top post to the bottom
// post. Each post's top touches it, and a panel hangs level from the string at
// its lower post, so that equal bays drop equally.
//
// Filling, the string is the lowest that keeps every panel up to its least
// gap; cutting, the highest that keeps them under their most; half and half
// lies midway between the two. Lowest and highest are meant over all panels
// together: the least sum of gaps, or the most.
func (w *solving) even(first int, panels []panel, z []float64) {
	var lines []line
	if w.Grade.Give != job.Cut {
		lines = append(lines, w.tight(first, panels, func(p panel) float64 { return p.low }, 1))
	}
	if w.Grade.Give != job.Fill {
		lines = append(lines, w.tight(first, panels, func(p panel) float64 { return p.high }, -1))
	}
	mean := func(of func(line) float64) float64 {
		sum := 0.0
		for _, l := range lines {
			sum += of(l) / float64(len(lines))
		}
		return sum
	}
	for i := range z {
		z[i] = mean(func(l line) float64 { return w.hung(l, first+i) })
	}
	// The post at the upper end touches the string too, though its panel hangs
	// a drop lower.
	for _, p := range []int{first, first + len(panels)} {
		bay := min(p, first+len(panels)-1)
		if p == 0 || p == len(w.Posts)-1 || w.Posts[p].Corner {
			top := length.Length(mean(func(l line) float64 { return l.y(float64(w.Posts[p].Station)) })) + w.high(bay)
			if t, ok := w.touch[p]; !ok || top > t {
				w.touch[p] = top
			}
		}
	}
}

// line is a string over stations: its height at a place and its slope.
type line struct{ at, height, slope float64 }

func (l line) y(at float64) float64 { return l.height + l.slope*(at-l.at) }

// hung is the bottom of a panel that hangs from the string at its lower post.
func (w *solving) hung(l line, bay int) float64 {
	return min(l.y(float64(w.from(bay))), l.y(float64(w.to(bay))))
}

// tight finds the string. It either falls along the course, and panels hang
// from their second posts, or rises, and they hang from their first: in each
// case it is the tangent of a hull, held at the ends that the user holds.
func (w *solving) tight(first int, panels []panel, of func(panel) float64, side float64) line {
	var best line
	cost := math.Inf(1)
	slope := trend(panels, func(i int) float64 { return float64(w.from(first+i)+w.to(first+i)) / 2 }, of)
	for _, falls := range []bool{true, false} {
		l := w.tangent(first, panels, of, side, falls, slope)
		sum := 0.0
		for i, p := range panels {
			sum += side * (w.hung(l, first+i) - of(p))
		}
		// Of two as near, the one that goes more with the ground.
		tie := math.Abs(sum-cost) <= 1e-6 && math.Abs(l.slope-slope) < math.Abs(best.slope-slope)
		if sum < cost-1e-6 || tie {
			best, cost = l, sum
		}
	}
	return best
}

// tangent is the lowest string (side 1) over the panels, or the highest under
// them (side −1), among those that fall or that rise.
func (w *solving) tangent(first int, panels []panel, of func(panel) float64, side float64, falls bool, trend float64) line {
	last := first + len(panels)
	at := func(i int) float64 { // where panel i hangs
		if falls {
			return float64(w.to(first + i))
		}
		return float64(w.from(first + i))
	}
	a, aHeld := w.held(first)
	b, bHeld := w.held(last)
	x0, x1 := float64(w.Posts[first].Station), float64(w.Posts[last].Station)
	switch {
	case aHeld && bHeld:
		return line{x0, float64(a), float64(b-a) / (x1 - x0)}
	case aHeld || bHeld:
		// The string turns about the held end until it touches.
		l := line{at: x0, height: float64(a)}
		if bHeld {
			l = line{at: x1, height: float64(b)}
		}
		low, high := math.Inf(-1), math.Inf(1)
		for i, p := range panels {
			d := at(i) - l.at
			if d == 0 {
				continue // under the held end nothing can be done
			}
			if m := (of(p) - l.height) / d; (side > 0) == (d > 0) {
				low = max(low, m)
			} else {
				high = min(high, m)
			}
		}
		if math.IsInf(low, 0) || !math.IsInf(high, 0) && bHeld == (side > 0) {
			low = high
		}
		l.slope = sign(low, falls)
		return l
	}
	// Of all strings that keep to their side, the one nearest to the panels
	// on the whole is the tangent of their hull at the middle of their places.
	var h []bound
	middle := 0.0
	for i, p := range panels {
		h = hull(h, 0, bound{at(i), of(p)}, side)
		middle += at(i) / float64(len(panels))
	}
	l := touching(h, middle, trend)
	if l.slope != sign(l.slope, falls) { // it would go the other way: level is the nearest
		l.slope = 0
		for _, p := range h {
			if side*p.height > side*l.height {
				l.height = p.height
			}
		}
	}
	return l
}

// touching is the tangent of a hull at a place. At a corner many are, and the
// one is taken that goes most with the trend.
func touching(h []bound, middle, trend float64) line {
	const corner = 1e-6
	for k := range h {
		if math.Abs(h[k].part-middle) > corner {
			continue
		}
		if k == 0 || k == len(h)-1 { // one panel only
			return line{at: h[k].part, height: h[k].height}
		}
		before := (h[k].height - h[k-1].height) / (h[k].part - h[k-1].part)
		after := (h[k+1].height - h[k].height) / (h[k+1].part - h[k].part)
		return line{h[k].part, h[k].height, min(max(trend, min(before, after)), max(before, after))}
	}
	for k := 1; k < len(h); k++ {
		if h[k].part >= middle || k == len(h)-1 {
			p, q := h[k-1], h[k]
			return line{p.part, p.height, (q.height - p.height) / (q.part - p.part)}
		}
	}
	return line{at: h[0].part, height: h[0].height}
}

// trend is the slope of the straight line nearest to the panels.
func trend(panels []panel, at func(int) float64, of func(panel) float64) float64 {
	n := float64(len(panels))
	var x, y, xx, xy float64
	for i, p := range panels {
		x, y = x+at(i)/n, y+of(p)/n
	}
	for i, p := range panels {
		d := at(i) - x
		xx, xy = xx+d*d, xy+d*(of(p)-y)
	}
	if xx == 0 {
		return 0
	}
	return xy / xx
}

// sign keeps a slope that falls, or rises, and takes any other as level.
func sign(slope float64, falls bool) float64 {
	if falls {
		return min(slope, 0)
	}
	return max(slope, 0)
}

// gradual weighs how near each panel is to its best height against how
// evenly the drops change, by the square of each, within what may not be
// passed. It is a quadratic program: its answer is the least there is, and
// moves no faster than the ground that it is found from.
func (w *solving) gradual(first int, panels []panel, z []float64) {
	x, ok := w.drops(first, panels, true)
	if !ok { // a height held by hand may ask for more than the drops allow
		x, ok = w.drops(first, panels, false)
	}
	for i := range z {
		z[i] = panels[i].best
		if ok {
			z[i] = x[i]
		}
	}
	w.lost = w.lost || !ok
}

func (w *solving) drops(first int, panels []panel, limited bool) ([]float64, bool) {
	near, even := stiffness(w.Grade.Stiff())
	p := qp.New(len(panels), 2)
	if h, ok := w.held(first + len(panels)); ok {
		p.Fix(len(panels)-1, float64(h))
	}
	if h, ok := w.held(first); ok && (len(panels) > 1 || !p.Fixed(0)) {
		p.Fix(0, float64(h))
	}
	for i, panel := range panels {
		at := qp.Term{At: i, By: 1}
		floor, ceiling := panel.floor(w.Grade.Give), panel.ceiling(w.Grade.Give)
		p.Square(near, panel.best, at)
		if !math.IsInf(floor, 0) {
			p.AtLeast(floor, at)
		}
		if !math.IsInf(ceiling, 0) {
			p.AtMost(ceiling, at)
		}
		if i > 1 {
			p.Square(even, 0, qp.Term{At: i - 2, By: 1}, qp.Term{At: i - 1, By: -2}, at)
		}
		if most := w.Grade.StepMost; most != nil && i > 0 && limited {
			before := qp.Term{At: i - 1, By: 1}
			p.AtMost(float64(*most), before, qp.Term{At: i, By: -1})
			p.AtLeast(-float64(*most), before, qp.Term{At: i, By: -1})
		}
	}
	return p.Solve()
}

// stiffness turns the one control, 0 to 1, into the weights of keeping near
// and of being straight. A line weighed so evens out over about t/(1−t) bays
// and a half.
func stiffness(t float64) (near, straight float64) {
	t = min(max(t, 0), mostStiff)
	w := math.Pow(t/(1-t), 4)
	return 1 / (1 + w), w / (1 + w)
}

// mostStiff evens out over some thirty bays and more: to the eye, straight.
const mostStiff = 0.97
