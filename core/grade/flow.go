package grade

import (
	"math"

	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/qp"
)

// flow is the quadratic program of a leaning line: the height of the bottom
// at every post.
//
// The objective, in this order: the least earth (the square of its depth,
// summed along the whole line, so that one deep place weighs more than several
// shallow ones), then the least racking over the limit, then near to the
// ground or straight, as the run asks. The order is kept by weights that lie
// far apart.
type flow struct {
	*solving
	span
	p       *qp.Program
	node    []int // variable of each post; a flat gate's two posts share one
	pins    []pin
	regular float64 // mean bay, so that bends are heights
	weighs  weighing
}

// weighing is how a flow counts earth.
type weighing int

const (
	atBreaks weighing = iota // at the posts and the breaks of the ground
	allAlong                 // all along the bays
	noneOfIt                 // there is room for a line that moves none
)

// pin is a height that is fixed at a post.
type pin struct {
	post   int
	height float64
}

// Weights of the order, against a shape's of 1.
const (
	earthWeight = 1e6
	rackWeight  = 1e3
)

// flowOf sets up the program of a span; straight is how stiff it is. Earth is
// weighed at the posts and the breaks of the ground: that is enough to find
// whether any must be moved, and quick.
func (w *solving) flowOf(s span, straight float64) *flow { return w.newFlow(s, straight, atBreaks) }

func (w *solving) newFlow(s span, straight float64, weighs weighing) *flow {
	f := &flow{solving: w, span: s, weighs: weighs, regular: float64(w.to(s.last)-w.from(s.first)) / float64(s.last-s.first+1), node: make([]int, s.last-s.first+2)}
	limits := 0
	for i := s.first; i <= s.last; i++ {
		k := i - s.first
		if f.node[k+1] = f.node[k] + 1; w.gateFlat(i) {
			f.node[k+1]--
		}
		limits += len(w.corridor[i].between)*2 + 4
		if weighs == allAlong {
			limits += 2 * (len(w.corridor[i].between) + 2 + weighed)
		}
	}
	f.p = qp.New(f.node[len(f.node)-1]+1, 2)
	f.p.Expect(limits)
	f.pins = w.pinsOf(s)
	for _, p := range f.pins {
		f.p.Fix(f.node[p.post-s.first], p.height)
	}
	for i := s.first; i <= s.last+1; i++ {
		f.post(i)
		if i <= s.last {
			f.bay(i)
		}
	}
	f.shape(straight)
	return f
}

// gateFlat tells whether a bay is a gate with flat tops.
func (w *solving) gateFlat(bay int) bool {
	return w.Bays[bay].Gate && w.Grade.Across != job.GoesOn
}

// pinsOf lists the heights that are fixed on a span: those the user holds,
// and those of neighbours that are found already and lie in the corridor.
func (w *solving) pinsOf(s span) []pin {
	var out []pin
	for i := s.first; i <= s.last+1; i++ {
		if h, ok := w.held(i); ok {
			out = append(out, pin{i, float64(h)})
			continue
		}
		if i == s.first && i > 0 && w.done[i-1] {
			out = w.takeOver(out, i, w.end[i-1], s.first)
		}
		if i == s.last+1 && i < len(w.Bays) && w.done[i] {
			out = w.takeOver(out, i, w.start[i], s.last)
		}
	}
	return out
}

func (w *solving) takeOver(out []pin, post int, height length.Length, bay int) []pin {
	gap := height - w.Ground.Height(w.Posts[post].Station)
	if w.Bays[bay].Gate || gap < w.Fence.GapLeast-length.Tolerance || gap > w.Fence.GapMost+length.Tolerance {
		return out
	}
	return append(out, pin{post, float64(height)})
}

func (f *flow) y(post int, by float64) qp.Term { return qp.Term{At: f.node[post-f.first], By: by} }

// slack is by how much a pin at a post breaks its corridor: the bounds beside
// it give way as far, less and less towards the next post, so that a height
// held by hand is held and reported, not fought.
func (w *solving) slack(pins []pin, post int) (below, above float64) {
	for _, p := range pins {
		if p.post != post {
			continue
		}
		g := float64(w.Ground.Height(w.Posts[post].Station))
		below = max(0, g+float64(w.Fence.GapLeast)-p.height)
		above = max(0, p.height-g-float64(w.Fence.GapMost))
	}
	return below, above
}

func pinned(pins []pin, post int) bool {
	for _, p := range pins {
		if p.post == post {
			return true
		}
	}
	return false
}

// within keeps a place of the line in its corridor. What gives may be passed,
// at the cost of earth over the length that the place stands for.
func (f *flow) within(low, high, length float64, terms ...qp.Term) {
	switch f.weighs {
	case noneOfIt: // as wide as the polygon method found room in
		f.p.AtLeast(low-widening, terms...)
		f.p.AtMost(high+widening, terms...)
		return
	case allAlong: // what it costs is weighed by itself
		if f.Grade.Give == job.Fill {
			f.p.AtLeast(low, terms...)
		}
		if f.Grade.Give == job.Cut {
			f.p.AtMost(high, terms...)
		}
		return
	}
	weight := earthWeight * length / f.regular
	if f.Grade.Give == job.Fill {
		f.p.AtLeast(low, terms...)
	} else {
		f.p.NearlyAtLeast(low, weight, terms...)
	}
	if f.Grade.Give == job.Cut {
		f.p.AtMost(high, terms...)
	} else {
		f.p.NearlyAtMost(high, weight, terms...)
	}
}

// post keeps the bottom in its corridor at a post beside which fence stands.
func (f *flow) post(i int) {
	long := 0.0
	if i > f.first {
		long += f.corridor[i-1].last
	}
	if i <= f.last {
		long += f.corridor[i].first
	}
	if long == 0 || pinned(f.pins, i) {
		return
	}
	ground := f.Ground.Height(f.Posts[i].Station)
	f.within(float64(ground+f.Fence.GapLeast), float64(ground+f.Fence.GapMost), long, f.y(i, 1))
}

// bay keeps the bottom in its corridor between the posts of a bay of fence,
// and its panel from racking.
func (f *flow) bay(i int) {
	if f.Bays[i].Gate {
		return
	}
	if f.Grade.Rack != nil {
		rack := float64(*f.Grade.Rack)
		f.p.NearlyAtMost(rack, rackWeight, f.y(i+1, 1), f.y(i, -1))
		f.p.NearlyAtMost(rack, rackWeight, f.y(i+1, -1), f.y(i, 1))
	}
	if pinned(f.pins, i) && pinned(f.pins, i+1) {
		return // nothing is left to choose
	}
	low0, high0 := f.slack(f.pins, i)
	low1, high1 := f.slack(f.pins, i+1)
	for _, b := range f.corridor[i].between {
		low := b.ground + float64(f.Fence.GapLeast) - low0*(1-b.part) - low1*b.part
		high := b.ground + float64(f.Fence.GapMost) + high0*(1-b.part) + high1*b.part
		f.within(low, high, b.length, f.y(i, 1-b.part), f.y(i+1, b.part))
	}
	if f.weighs == allAlong {
		f.weigh(i)
	}
}

// weighed is into how many pieces a bay's length is cut where earth is
// weighed all along it.
const weighed = 12

// weigh adds the earth of a bay to the objective, summed along its length by
// Simpson's rule on each straight piece of the ground: exact wherever a piece
// lies wholly in the earth, for its depth runs straight there.
func (f *flow) weigh(i int) {
	low0, high0 := f.slack(f.pins, i)
	low1, high1 := f.slack(f.pins, i+1)
	wide := float64(f.to(i) - f.from(i))
	put := func(part, ground, share float64) {
		weight := earthWeight * share * wide / f.regular
		terms := []qp.Term{f.y(i, 1-part), f.y(i+1, part)}
		switch part { // at a post the other one does not count
		case 0:
			terms = terms[:1]
		case 1:
			terms = terms[1:]
		}
		if f.Grade.Give != job.Fill {
			f.p.NearlyAtLeast(ground+float64(f.Fence.GapLeast)-low0*(1-part)-low1*part, weight, terms...)
		}
		if f.Grade.Give != job.Cut {
			f.p.NearlyAtMost(ground+float64(f.Fence.GapMost)+high0*(1-part)+high1*part, weight, terms...)
		}
	}
	// Where two pieces meet, one weight stands for both their ends.
	from, height, met := 0.0, float64(f.Ground.Height(f.from(i))), 0.0
	piece := func(to, high float64) {
		n := 2 * int(math.Ceil((to-from)*weighed/2))
		step := (to - from) / float64(n)
		put(from, height, met+step/3)
		for k := 1; k < n; k++ {
			share := step * 2 / 3
			if k%2 == 1 {
				share = step * 4 / 3
			}
			t := float64(k) / float64(n)
			put(from+t*(to-from), height+t*(high-height), share)
		}
		from, height, met = to, high, step/3
	}
	for _, b := range f.corridor[i].between {
		piece(b.part, b.ground)
	}
	piece(1, float64(f.Ground.Height(f.to(i))))
	put(from, height, met)
}

// shape adds what the line would be like: near to the least gap at every
// post, and with little bend at any. Flat gates and corners part the bends.
func (f *flow) shape(straight float64) {
	near, even := stiffness(straight)
	for i := f.first; i <= f.last+1; i++ {
		f.p.Square(near, float64(f.Ground.Height(f.Posts[i].Station)+f.Fence.GapLeast), f.y(i, 1))
		if i > f.first && i <= f.last && !f.gateFlat(i-1) && !f.gateFlat(i) && !f.Posts[i].Corner {
			before, after := f.regular/float64(f.to(i-1)-f.from(i-1)), f.regular/float64(f.to(i)-f.from(i))
			f.p.Square(even, 0, f.y(i-1, before), f.y(i, -before-after), f.y(i+1, after))
		}
	}
}

// solve returns the heights at the span's posts. Where earth must be moved, it
// is found again with the earth weighed all along the line.
func (f *flow) solve(straight float64) []float64 {
	y, ok := f.heights()
	if ok && f.moves(y) {
		if _, fits := f.fits(); fits {
			if z, ended := f.newFlow(f.span, straight, noneOfIt).heights(); ended {
				return z
			}
		}
		fine := f.newFlow(f.span, straight, allAlong)
		if z, ended := fine.heights(); ended {
			return z
		}
		f.lost = true
		return y
	}
	if ok {
		return y
	}
	f.lost = true // said by the plan: the line that follows is not the best one
	if z, fits := f.fits(); fits {
		return z
	}
	for i := range y { // the plain line over the posts
		y[i] = float64(f.Ground.Height(f.Posts[f.first+i].Station) + f.Fence.GapLeast)
	}
	return y
}

func (f *flow) heights() (y []float64, ok bool) {
	x, ok := f.p.Solve()
	y = make([]float64, len(f.node))
	for i, n := range f.node {
		if ok {
			y[i] = x[n]
		}
	}
	return y, ok
}

// moves tells whether a line asks for earth to be moved.
func (f *flow) moves(y []float64) bool {
	for i := f.first; i <= f.last; i++ {
		if f.Bays[i].Gate {
			continue
		}
		a, b := y[i-f.first], y[i+1-f.first]
		out := false
		f.Ground.Each(f.from(i), f.to(i), func(at, ground length.Length) {
			part := float64((at - f.from(i)) / (f.to(i) - f.from(i)))
			gap := length.Length(a+(b-a)*part) - ground
			out = out || gap < f.Fence.GapLeast-noEarth || gap > f.Fence.GapMost+noEarth
		})
		if out {
			return true
		}
	}
	return false
}

// fits looks for any line that keeps to the corridor and may break at every
// post, by the polygon method that grade posts are found with. It needs no
// solver that could fail to come to an end.
func (f *flow) fits() ([]float64, bool) {
	r := newRoll(f, nil, 0)
	for i := range r.free {
		r.free[i] = true
	}
	if !r.explore() {
		return nil, false
	}
	posts, at, ok := r.anyLine(0)
	if !ok {
		return nil, false
	}
	y := make([]float64, len(r.at))
	for k := 1; k < len(posts); k++ {
		a, b := posts[k-1], posts[k]
		for p := a; p <= b; p++ {
			y[p] = at[k-1] + (at[k]-at[k-1])*(r.at[p]-r.at[a])/(r.at[b]-r.at[a])
		}
	}
	return y, true
}

// raked leans every panel with the ground, as near to it or as straight as
// the run asks.
func (w *solving) raked(s span) {
	stiff := w.Grade.Stiff()
	w.put(s, w.flowOf(s, stiff).solve(stiff))
}

// put takes the heights at a span's posts for the ends of its bays.
func (w *solving) put(s span, y []float64) {
	for i := s.first; i <= s.last; i++ {
		w.start[i], w.end[i] = length.Length(y[i-s.first]), length.Length(y[i-s.first+1])
	}
}
