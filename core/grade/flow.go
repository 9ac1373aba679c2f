package grade

import (
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/qp"
)

// flow is the quadratic program of a leaning line: the height of the bottom
// at every post, and what the corridor must let go at every post and between
// posts, and what every panel's rack must.
//
// The objective, in this order: the least earth (the squares of the depths at
// every post and of the deepest place between two, so that one deep place
// weighs more than several shallow ones), then the least racking over the
// limit, then near to the ground or straight, as the run asks. The order is
// kept by weights that lie far apart.
type flow struct {
	*solving
	span
	p       *qp.Program
	node    []int // variable of each post; a flat gate's two posts share one
	at      []int // variable of each post's earth; −1 between two gates
	earth   []int // variable of the earth between a bay's posts; −1 where the ground does not break
	rack    []int // variable of each bay's racking over the limit; −1 without one
	pins    []pin
	regular float64 // mean bay, so that bends are heights
}

// relief is what a line lets go: earth at posts and between them, and racking.
type relief struct{ at, between, rack []float64 }

// pin is a height that is fixed at a post.
type pin struct {
	post   int
	height float64
	soft   bool // taken over from a neighbour
}

const (
	earthWeight = 1e6
	rackWeight  = 1e3
)

// flowOf sets up the program of a span; straight is how stiff it is.
func (w *solving) flowOf(s span, straight float64) *flow {
	f := &flow{solving: w, span: s, regular: float64(w.to(s.last)-w.from(s.first)) / float64(s.last-s.first+1)}
	n, band := f.number()
	f.p = qp.New(n, band)
	f.p.Expect(f.limits())
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

// number gives every unknown its place, in order along the fence.
func (f *flow) number() (n, band int) {
	next := func(wanted bool) int {
		if !wanted {
			return -1
		}
		n++
		return n - 1
	}
	for i := f.first; i <= f.last+1; i++ {
		if i > f.first && f.gateFlat(i-1) {
			f.node = append(f.node, f.node[len(f.node)-1])
		} else {
			f.node = append(f.node, next(true))
		}
		f.at = append(f.at, next(f.fenced(i)))
		if i <= f.last {
			fence := !f.Bays[i].Gate
			f.earth = append(f.earth, next(fence && len(f.corridor[i].low) > 0))
			f.rack = append(f.rack, next(fence && f.Grade.Rack != nil))
		}
		k := len(f.node) - 1
		band = max(band, n-1-f.node[k], f.node[k]-f.node[max(0, k-2)])
	}
	return n, max(band, 1)
}

// fenced tells whether fence stands on some side of a post of the span.
func (f *flow) fenced(post int) bool {
	return post > f.first && !f.Bays[post-1].Gate || post <= f.last && !f.Bays[post].Gate
}

// limits is about how many limits the program has.
func (f *flow) limits() int {
	n := 0
	for i := f.first; i <= f.last; i++ {
		n += len(f.corridor[i].low) + len(f.corridor[i].high) + 4
	}
	return n
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
			out = append(out, pin{i, float64(h), false})
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
	return append(out, pin{post, float64(height), true})
}

func (f *flow) y(post int, by float64) qp.Term { return qp.Term{At: f.node[post-f.first], By: by} }

// share is how much of a bay's earth is cut, and how much filled.
func share(g job.Give) (cut, fill float64) {
	switch g {
	case job.Cut:
		return 1, 0
	case job.Both:
		return 0.5, 0.5
	}
	return 0, 1
}

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

// post adds what bounds the bottom at a post.
func (f *flow) post(i int) {
	q := f.at[i-f.first]
	if q < 0 {
		return
	}
	f.p.Square(earthWeight, 0, qp.Term{At: q, By: 1})
	if pinned(f.pins, i) {
		return
	}
	cut, fill := share(f.Grade.Give)
	ground := f.Ground.Height(f.Posts[i].Station)
	f.least(float64(ground+f.Fence.GapLeast), q, cut, f.y(i, 1))
	f.most(float64(ground+f.Fence.GapMost), q, fill, f.y(i, 1))
}

// least keeps a place up to its least gap, unless earth is cut there.
func (f *flow) least(height float64, earth int, share float64, terms ...qp.Term) {
	if share > 0 {
		terms = append(terms, qp.Term{At: earth, By: share})
	}
	f.p.AtLeast(height, terms...)
}

// most keeps a place down to its most gap, unless earth is filled there.
func (f *flow) most(height float64, earth int, share float64, terms ...qp.Term) {
	if share > 0 {
		terms = append(terms, qp.Term{At: earth, By: -share})
	}
	f.p.AtMost(height, terms...)
}

// bay adds what bounds the bottom between the posts of a bay of fence.
func (f *flow) bay(i int) {
	e, r := f.earth[i-f.first], f.rack[i-f.first]
	if r >= 0 {
		f.p.Square(rackWeight, 0, qp.Term{At: r, By: 1})
		rack := float64(*f.Grade.Rack)
		f.p.AtMost(rack, f.y(i+1, 1), f.y(i, -1), qp.Term{At: r, By: -1})
		f.p.AtMost(rack, f.y(i+1, -1), f.y(i, 1), qp.Term{At: r, By: -1})
	}
	if e < 0 {
		return
	}
	f.p.Square(earthWeight, 0, qp.Term{At: e, By: 1})
	if pinned(f.pins, i) && pinned(f.pins, i+1) {
		return // nothing is left to choose
	}
	cut, fill := share(f.Grade.Give)
	low0, high0 := f.slack(f.pins, i)
	low1, high1 := f.slack(f.pins, i+1)
	for _, b := range f.corridor[i].low {
		f.least(b.height-low0*(1-b.part)-low1*b.part, e, cut, f.y(i, 1-b.part), f.y(i+1, b.part))
	}
	for _, b := range f.corridor[i].high {
		f.most(b.height+high0*(1-b.part)+high1*b.part, e, fill, f.y(i, 1-b.part), f.y(i+1, b.part))
	}
}

// shape adds what the line would be like: near to the least gap at every
// post, and with little bend at any. A flat gate parts the bends.
func (f *flow) shape(straight float64) {
	near, even := stiffness(straight)
	for i := f.first; i <= f.last+1; i++ {
		f.p.Square(near, float64(f.Ground.Height(f.Posts[i].Station)+f.Fence.GapLeast), f.y(i, 1))
		if i > f.first && i <= f.last && !f.gateFlat(i-1) && !f.gateFlat(i) {
			before, after := f.regular/float64(f.to(i-1)-f.from(i-1)), f.regular/float64(f.to(i)-f.from(i))
			f.p.Square(even, 0, f.y(i-1, before), f.y(i, -before-after), f.y(i+1, after))
		}
	}
}

// solve returns the heights at the span's posts and what they let go.
func (f *flow) solve() (y []float64, let relief) {
	x, ok := f.p.Solve()
	if !ok { // never seen: the plain line over the posts
		for i := range f.node {
			y = append(y, float64(f.Ground.Height(f.Posts[f.first+i].Station)+f.Fence.GapLeast))
		}
		return y, relief{make([]float64, len(y)), make([]float64, len(y)), make([]float64, len(y))}
	}
	read := func(from []int) []float64 {
		out := make([]float64, len(from))
		for i, at := range from {
			if at >= 0 {
				out[i] = x[at]
			}
		}
		return out
	}
	return read(f.node), relief{read(f.at), read(f.earth), read(f.rack)}
}

// raked leans every panel with the ground, as near to it or as straight as
// the run asks.
func (w *solving) raked(s span) {
	y, _ := w.flowOf(s, w.Grade.Stiff()).solve()
	w.put(s, y)
}

// put takes the heights at a span's posts for the ends of its bays.
func (w *solving) put(s span, y []float64) {
	for i := s.first; i <= s.last; i++ {
		w.start[i], w.end[i] = length.Length(y[i-s.first]), length.Length(y[i-s.first+1])
	}
}
