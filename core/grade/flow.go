package grade

import (
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/qp"
)

// flow is the quadratic program of a leaning line: the height of the bottom
// at every post, and for every bay what its corridor and its panel's rack must
// let go.
//
// The objective, in this order: the least earth (the squares of the depths,
// so that one deep place weighs more than several shallow ones), then the
// least racking over the limit, then near to the ground or straight, as the
// run asks. The order is kept by weights that lie far apart.
type flow struct {
	*solving
	span
	p       *qp.Program
	node    []int // variable of each post; a flat gate's two posts share one
	earth   []int // variable of each bay's earth; −1 at gates
	rack    []int
	pins    []pin
	regular float64 // mean bay, so that bends are heights
}

// pin is a height that is fixed at a post.
type pin struct {
	post   int
	height float64
	soft   bool // taken over from a neighbour
}

const (
	earthWeight = 1e6
	rackWeight  = 1e3
	// flowBand: a post, its bay's earth, the next post and the one after that;
	// two more where panels rack.
	flowBand = 4
)

// flowOf sets up the program of a span; straight is how stiff it is.
func (w *solving) flowOf(s span, straight float64) *flow {
	f := &flow{solving: w, span: s, regular: float64(w.to(s.last)-w.from(s.first)) / float64(s.last-s.first+1)}
	n := 0
	for i := s.first; i <= s.last+1; i++ {
		if i > s.first && w.gateFlat(i-1) {
			f.node = append(f.node, f.node[len(f.node)-1])
		} else {
			f.node = append(f.node, n)
			n++
		}
		if i <= s.last {
			f.earth, f.rack = append(f.earth, -1), append(f.rack, -1)
			if !w.Bays[i].Gate {
				f.earth[i-s.first] = n
				n++
				if w.Grade.Rack != nil {
					f.rack[i-s.first] = n
					n++
				}
			}
		}
	}
	band := flowBand
	if w.Grade.Rack != nil {
		band += 2
	}
	f.p = qp.New(n, band)
	f.p.Expect(f.limits())
	f.pins = w.pinsOf(s)
	for i := s.first; i <= s.last; i++ {
		f.bay(i)
	}
	f.shape(straight)
	return f
}

// limits is about how many limits the program has.
func (f *flow) limits() int {
	n := 0
	for i := f.first; i <= f.last; i++ {
		n += len(f.corridor[i].low) + len(f.corridor[i].high) + 2
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

func (f *flow) at(post int, by float64) qp.Term { return qp.Term{At: f.node[post-f.first], By: by} }

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

// bay adds what bounds one bay of fence.
func (f *flow) bay(i int) {
	e, r := f.earth[i-f.first], f.rack[i-f.first]
	if e < 0 {
		return
	}
	f.p.Square(earthWeight, 0, qp.Term{At: e, By: 1})
	if r >= 0 {
		f.p.Square(rackWeight, 0, qp.Term{At: r, By: 1})
		rack := float64(*f.Grade.Rack)
		f.p.AtMost(rack, f.at(i+1, 1), f.at(i, -1), qp.Term{At: r, By: -1})
		f.p.AtMost(rack, f.at(i+1, -1), f.at(i, 1), qp.Term{At: r, By: -1})
	}
	if pinned(f.pins, i) && pinned(f.pins, i+1) {
		return // nothing is left to choose
	}
	cut, fill := share(f.Grade.Give)
	low0, high0 := f.slack(f.pins, i)
	low1, high1 := f.slack(f.pins, i+1)
	var terms [3]qp.Term
	line := func(part, earth float64) []qp.Term {
		t := terms[:0]
		if part < 1 {
			t = append(t, f.at(i, 1-part))
		}
		if part > 0 {
			t = append(t, f.at(i+1, part))
		}
		if earth != 0 {
			t = append(t, qp.Term{At: e, By: earth})
		}
		return t
	}
	for _, b := range f.corridor[i].low {
		f.p.AtLeast(b.height-low0*(1-b.part)-low1*b.part, line(b.part, cut)...)
	}
	for _, b := range f.corridor[i].high {
		f.p.AtMost(b.height+high0*(1-b.part)+high1*b.part, line(b.part, -fill)...)
	}
}

// shape adds what the line would be like: near to the least gap at every
// post, and with little bend at any. A flat gate parts the bends.
func (f *flow) shape(straight float64) {
	near, even := stiffness(straight)
	for i := f.first; i <= f.last+1; i++ {
		f.p.Square(near, float64(f.Ground.Height(f.Posts[i].Station)+f.Fence.GapLeast), f.at(i, 1))
		if i > f.first && i <= f.last && !f.gateFlat(i-1) && !f.gateFlat(i) {
			before, after := f.regular/float64(f.to(i-1)-f.from(i-1)), f.regular/float64(f.to(i)-f.from(i))
			f.p.Square(even, 0, f.at(i-1, before), f.at(i, -before-after), f.at(i+1, after))
		}
	}
	for _, p := range f.pins {
		f.p.Square(fixing, p.height, f.at(p.post, 1))
	}
}

// solve returns the heights at the span's posts and the earth and racking
// that its bays need.
func (f *flow) solve() (y, earth, rack []float64) {
	x, ok := f.p.Solve()
	y, earth, rack = make([]float64, len(f.node)), make([]float64, len(f.earth)), make([]float64, len(f.earth))
	for i, n := range f.node {
		if ok {
			y[i] = x[n]
		} else { // never seen: the plain line over the posts
			y[i] = float64(f.Ground.Height(f.Posts[f.first+i].Station) + f.Fence.GapLeast)
		}
	}
	for i := range earth {
		if ok && f.earth[i] >= 0 {
			earth[i] = max(0, x[f.earth[i]])
		}
		if ok && f.rack[i] >= 0 {
			rack[i] = max(0, x[f.rack[i]])
		}
	}
	return y, earth, rack
}

// raked leans every panel with the ground, as near to it or as straight as
// the run asks.
func (w *solving) raked(s span) {
	y, _, _ := w.flowOf(s, w.Grade.Stiff()).solve()
	w.put(s, y)
}

// put takes the heights at a span's posts for the ends of its bays.
func (w *solving) put(s span, y []float64) {
	for i := s.first; i <= s.last; i++ {
		w.start[i], w.end[i] = length.Length(y[i-s.first]), length.Length(y[i-s.first+1])
	}
}
