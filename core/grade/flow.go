package grade

import (
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/qp"
)

// flow is the quadratic program of a leaning line: the height of the bottom
// at every post.
//
// The objective, in this order: the least earth (the square of its depth,
// taken over the whole line, so that one deep place weighs more than several
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
}

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

// flowOf sets up the program of a span; straight is how stiff it is.
func (w *solving) flowOf(s span, straight float64) *flow {
	f := &flow{solving: w, span: s, regular: float64(w.to(s.last)-w.from(s.first)) / float64(s.last-s.first+1), node: make([]int, s.last-s.first+2)}
	limits := 0
	for i := s.first; i <= s.last; i++ {
		k := i - s.first
		if f.node[k+1] = f.node[k] + 1; w.gateFlat(i) {
			f.node[k+1]--
		}
		limits += len(w.corridor[i].between)*2 + 4
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

// solve returns the heights at the span's posts.
func (f *flow) solve() []float64 {
	x, ok := f.p.Solve()
	y := make([]float64, len(f.node))
	for i, n := range f.node {
		if ok {
			y[i] = x[n]
		} else { // never seen: the plain line over the posts
			y[i] = float64(f.Ground.Height(f.Posts[f.first+i].Station) + f.Fence.GapLeast)
		}
	}
	return y
}

// raked leans every panel with the ground, as near to it or as straight as
// the run asks.
func (w *solving) raked(s span) {
	w.put(s, w.flowOf(s, w.Grade.Stiff()).solve())
}

// put takes the heights at a span's posts for the ends of its bays.
func (w *solving) put(s span, y []float64) {
	for i := s.first; i <= s.last; i++ {
		w.start[i], w.end[i] = length.Length(y[i-s.first]), length.Length(y[i-s.first+1])
	}
}
