package grade

import (
	"math"
	"slices"

	"mallow/core/job"
)

// rolling draws the top straight over several bays, broken at as few grade
// posts as the corridor allows; among the choices with so few, the smoothest:
// the one with the least sum of squares of its breaks.
//
// The corridor is first widened by the least earth that any line needs which
// may break at every post, and by what dips the run lets be taken out.
func (w *solving) rolling(s span) {
	f := w.flowOf(s, mostStiff)
	y := make([]float64, s.last-s.first+2)
	r, knots, heights, ok := f.roll(nil)
	if !ok {
		y = f.solve(mostStiff)
		r, knots, heights, ok = f.roll(y)
	}
	if !ok {
		w.lost = true
	}
	if ok {
		for k := 1; k < len(knots); k++ {
			a, b := knots[k-1], knots[k]
			for p := a; p <= b; p++ {
				y[p] = heights[k-1] + (heights[k]-heights[k-1])*(r.at[p]-r.at[a])/(r.at[b]-r.at[a])
			}
			if k+1 < len(knots) && !r.free[b] || w.Posts[s.first+b].Knot {
				w.knots[s.first+b] = true
			}
		}
	}
	w.put(s, y)
}

// roll finds the grade posts in the corridor widened by what the line y lets
// go; in the corridor as it is where y is nil. Whether that holds is asked
// without the dips that may be taken out, so that these only ever help.
func (f *flow) roll(y []float64) (r *roll, knots []int, heights []float64, ok bool) {
	if y == nil && f.Grade.Dips > 0 {
		if r = newRoll(f, nil, 0); !r.explore() {
			return r, nil, nil, false
		}
	}
	if r = newRoll(f, y, float64(f.Grade.Dips)); !r.explore() {
		return r, nil, nil, false
	}
	knots, heights, ok = r.best()
	return r, knots, heights, ok
}

// roll is the search for grade posts on one span. Posts are counted from the
// span's first.
type roll struct {
	regular float64   // mean bay, so that breaks are heights
	rough   bool      // see Course.Rough
	near    []float64 // where the line lies when nothing else settles it
	at      []float64 // stations of the posts
	low     [][]bound // of each bay, widened
	high    [][]bound
	steep   []float64 // greatest slope of each bay
	flat    []bool    // bay is a gate with flat tops
	stop    []bool    // a line must end at this post
	free    []bool    // a break here is no grade post: an end, a gate, a corner, a post the user holds
	corner  []bool    // the line turns: no break is seen
	fixed   []*float64
	reach   [][]layer // of each post: the heights reached, by the number of grade posts before
	left    []int     // of each post: the least grade posts from it to the end
	room    [2]polygon
	loose   float64
}

// layer is the heights at a post that so many grade posts reach.
type layer struct {
	count   int
	heights []interval
}

// widening keeps what the solver found to be just possible from failing by its
// last digits; it is less than is ever called earth.
const widening = float64(noEarth) / 2

// newRoll widens the corridor by what a line that may break at every post
// lets go, and by dips; y is that line, nil where it lets nothing go.
func newRoll(f *flow, y []float64, dips float64) *roll {
	n := f.last - f.first + 1
	r := &roll{regular: f.regular, rough: f.Rough, near: make([]float64, n+1), at: make([]float64, n+1), low: make([][]bound, n), high: make([][]bound, n), steep: make([]float64, n),
		flat: make([]bool, n), stop: make([]bool, n+1), free: make([]bool, n+1), corner: make([]bool, n+1), fixed: make([]*float64, n+1)}
	r.posts(f)
	for i := range n {
		r.steep[i] = steepest
		switch {
		case f.gateFlat(f.first + i):
			r.flat[i] = true
			r.ends(i)
			r.ends(i + 1)
		case !f.Bays[f.first+i].Gate:
			r.widen(f, i, y, dips)
		}
	}
	return r
}

// posts tells where lines must end, and what is fixed there.
func (r *roll) posts(f *flow) {
	for i := range r.at {
		p := f.Posts[f.first+i]
		r.at[i] = float64(p.Station)
		r.near[i] = float64(f.Ground.Height(p.Station) + f.Fence.GapLeast)
		if r.corner[i] = p.Corner; p.Knot || p.Corner || i == 0 || i == len(r.at)-1 {
			r.ends(i)
		}
	}
	for k := range f.pins {
		i := f.pins[k].post - f.first
		r.fixed[i] = &f.pins[k].height
		r.ends(i)
	}
}

// ends makes lines end at a post, where a break is no grade post.
func (r *roll) ends(i int) { r.stop[i], r.free[i] = true, true }

// widen bounds one bay of fence.
func (r *roll) widen(f *flow, i int, y []float64, dips float64) {
	b := f.first + i
	if f.Grade.Rack != nil {
		rack := float64(*f.Grade.Rack)
		if y != nil {
			rack = max(rack, math.Abs(y[i+1]-y[i]))
		}
		r.steep[i] = (rack + widening) / (r.at[i+1] - r.at[i])
	}
	if r.fixed[i] != nil && r.fixed[i+1] != nil {
		r.steep[i] = steepest
		return
	}
	dipCut, dipFill := dips, dips
	switch f.Grade.Give {
	case job.Fill:
		dipCut = 0
	case job.Cut:
		dipFill = 0
	}
	low0, high0 := f.slack(f.pins, b)
	low1, high1 := f.slack(f.pins, b+1)
	add := func(part, ground float64) {
		low := ground + float64(f.Fence.GapLeast) - low0*(1-part) - low1*part
		high := ground + float64(f.Fence.GapMost) + high0*(1-part) + high1*part
		cut, fill := 0.0, 0.0
		if y != nil {
			line := y[i]*(1-part) + y[i+1]*part
			cut, fill = max(0, low-line), max(0, line-high)
		}
		r.low[i] = append(r.low[i], bound{part, low - cut - widening - dipCut})
		r.high[i] = append(r.high[i], bound{part, high + fill + widening + dipFill})
	}
	add(0, float64(f.Ground.Height(f.from(b))))
	for _, p := range f.corridor[b].between {
		add(p.part, p.ground)
	}
	add(1, float64(f.Ground.Height(f.to(b))))
}

// mostLayers is how many more grade posts than the fewest are kept at a post:
// one more can reach heights that the fewest cannot.
const mostLayers = 3

// mostBays is the longest straight piece that is looked at.
const mostBays = 128

// walk goes on from a set of lines that begin at a post, bay by bay, and
// shows every post that some of them reach.
func (r *roll) walk(from int, p polygon, visit func(to int, p polygon) bool) {
	if r.flat[from] {
		return
	}
	for bay := from; bay < len(r.steep) && bay < from+mostBays; bay++ {
		if r.flat[bay] || bay > from && r.stop[bay] {
			return
		}
		if p = r.through(from, bay, p); len(p) == 0 {
			return
		}
		if !visit(bay+1, p) {
			return
		}
	}
}

// through keeps the lines that pass one bay. Two rooms take turns, so that
// nothing is allocated.
func (r *roll) through(from, bay int, p polygon) polygon {
	keep := func(a, b, c float64) {
		q := p.clip(a, b, c, r.room[0])
		if len(q) == 0 || len(p) == 0 || &q[0] != &p[0] {
			if cap(q) > 0 {
				r.room[0], r.room[1] = r.room[1], q[:0:cap(q)]
			}
		}
		p = q
	}
	d0, wide := r.at[bay]-r.at[from], r.at[bay+1]-r.at[bay]
	for _, l := range r.low[bay] {
		if keep(-1, -(d0 + l.part*wide), -l.height); len(p) == 0 {
			return nil
		}
	}
	for _, h := range r.high[bay] {
		if keep(1, d0+h.part*wide, h.height); len(p) == 0 {
			return nil
		}
	}
	if s := r.steep[bay]; s < steepest {
		if keep(0, 1, s); len(p) > 0 {
			keep(0, -1, s)
		}
	}
	if f := r.fixed[bay+1]; f != nil && len(p) > 0 {
		d := d0 + wide
		if keep(1, d, *f+widening); len(p) > 0 {
			keep(-1, -d, widening-*f)
		}
	}
	return p
}

// begin is the heights at the first post.
func (r *roll) begin() interval {
	if f := r.fixed[0]; f != nil {
		return interval{*f, *f}
	}
	return interval{-1e7, 1e7}
}

// cost is 1 where a break at the post is a grade post.
func (r *roll) cost(post int) int {
	if r.free[post] {
		return 0
	}
	return 1
}

// explore finds, for every post, what heights how many grade posts reach, and
// whether the last post is reached at all.
func (r *roll) explore() bool {
	n := len(r.steep)
	r.reach = make([][]layer, n+1)
	r.reach[0] = []layer{{0, []interval{r.begin()}}}
	for p := range n {
		for _, l := range r.reach[p] {
			if r.flat[p] {
				for _, v := range l.heights {
					r.add(p+1, l.count, v)
				}
				continue
			}
			for _, v := range l.heights {
				r.walk(p, rays(v.low, v.high), func(to int, lines polygon) bool {
					r.add(to, l.count+r.cost(to), lines.heightsAt(r.at[to]-r.at[p]))
					return true
				})
			}
		}
	}
	return len(r.reach[n]) > 0
}

// add notes heights reached at a post.
func (r *roll) add(post, count int, v interval) {
	if f := r.fixed[post]; f != nil {
		v = interval{*f, *f}
	}
	all := r.reach[post]
	i := 0
	for i < len(all) && all[i].count < count {
		i++
	}
	if i < len(all) && all[i].count == count {
		all[i].heights = insert(all[i].heights, v)
		return
	}
	if i >= mostLayers {
		return
	}
	all = slices.Insert(all, i, layer{count, []interval{v}})
	r.reach[post] = all[:min(len(all), mostLayers)]
}

// best returns the posts at which the line may break and its heights there.
func (r *roll) best() (knots []int, heights []float64, ok bool) {
	fewest := r.reach[len(r.steep)][0].count
	if r.rough {
		if knots, ok = r.anyWay(fewest); ok {
			heights, _, ok = r.smooth(knots)
		}
		return knots, heights, ok
	}
	if sets, whole := r.choices(fewest); whole {
		least := math.Inf(1)
		r.loose = looseTrials
		for _, k := range sets {
			if _, cost, ok := r.smooth(k); ok && cost < least-1e-4 {
				knots, least = k, cost
			}
		}
		if r.loose = 1; knots == nil {
			return nil, nil, false
		}
		heights, _, ok = r.smooth(knots)
		return knots, heights, ok
	}
	// Moving posts one by one ends where it began to look: from both ends, the
	// better of the two is the same whichever end the run is taped from.
	knots, heights, cost, ok := r.search(fewest)
	if fewest > mostMoved {
		return knots, heights, ok
	}
	back := r.turned()
	back.explore()
	other, otherHeights, otherCost, otherOK := back.search(fewest)
	if otherOK && (!ok || otherCost < cost-1e-4) {
		n := len(r.steep)
		slices.Reverse(other)
		slices.Reverse(otherHeights)
		for i := range other {
			other[i] = n - other[i]
		}
		return other, otherHeights, true
	}
	return knots, heights, ok
}

// search takes any line with the fewest grade posts and moves them.
func (r *roll) search(fewest int) (knots []int, heights []float64, cost float64, ok bool) {
	knots, ok = r.anyWay(fewest)
	if !ok {
		return nil, nil, 0, false
	}
	if knots, heights, ok = r.improve(knots); !ok {
		return nil, nil, 0, false
	}
	for k := range knots {
		cost += r.broken(knots, heights, k)
	}
	return knots, heights, cost, true
}

// turned is the same span seen from its other end.
func (r *roll) turned() *roll {
	t := *r
	n := len(r.steep)
	t.near, t.steep, t.flat = slices.Clone(r.near), slices.Clone(r.steep), slices.Clone(r.flat)
	t.stop, t.free, t.fixed, t.corner = slices.Clone(r.stop), slices.Clone(r.free), slices.Clone(r.fixed), slices.Clone(r.corner)
	slices.Reverse(t.near)
	slices.Reverse(t.steep)
	slices.Reverse(t.flat)
	slices.Reverse(t.stop)
	slices.Reverse(t.free)
	slices.Reverse(t.fixed)
	slices.Reverse(t.corner)
	t.at, t.low, t.high = make([]float64, n+1), make([][]bound, n), make([][]bound, n)
	for i := range t.at {
		t.at[i] = r.at[n] - r.at[n-i]
	}
	turn := func(b []bound) []bound {
		out := slices.Clone(b)
		slices.Reverse(out)
		for i := range out {
			out[i].part = 1 - out[i].part
		}
		return out
	}
	for i := range n {
		t.low[i], t.high[i] = turn(r.low[n-1-i]), turn(r.high[n-1-i])
	}
	t.reach, t.left, t.room = nil, nil, [2]polygon{}
	return &t
}

const (
	// mostChoices is up to how many sets of grade posts are all tried.
	mostChoices = 32
	// mostListed is up to how many grade posts sets are listed at all: more
	// than so many always have more choices.
	mostListed = 16
)

// choices lists every set of posts with the fewest grade posts. whole is false
// when there are too many to list.
func (r *roll) choices(fewest int) (sets [][]int, whole bool) {
	if fewest > mostListed {
		return nil, false
	}
	r.lefts()
	whole = true
	visits := 0
	var follow func(path []int, count int, v interval)
	follow = func(path []int, count int, v interval) {
		p := path[len(path)-1]
		if visits++; visits > 40*mostChoices || len(sets) > mostChoices {
			whole = false
			return
		}
		if p == len(r.steep) {
			sets = append(sets, slices.Clone(path))
			return
		}
		goOn := func(to int, v interval) {
			if f := r.fixed[to]; f != nil {
				v = interval{*f, *f}
			}
			if c := count + r.cost(to); c+r.left[to] <= fewest {
				follow(append(path, to), c, v)
			}
		}
		if r.flat[p] {
			goOn(p+1, v)
			return
		}
		type stop struct {
			to int
			v  interval
		}
		var stops []stop // walk's room is used again further on
		r.walk(p, rays(v.low, v.high), func(to int, lines polygon) bool {
			if count+r.cost(to)+r.left[to] <= fewest {
				stops = append(stops, stop{to, lines.heightsAt(r.at[to] - r.at[p])})
			}
			return true
		})
		for _, s := range stops {
			goOn(s.to, s.v)
		}
	}
	follow([]int{0}, 0, r.begin())
	return sets, whole && len(sets) > 0
}

// lefts finds the least grade posts from each post to the end, whatever the
// height there.
func (r *roll) lefts() {
	n := len(r.steep)
	r.left = make([]int, n+1)
	const never = math.MaxInt / 2
	for p := n - 1; p >= 0; p-- {
		r.left[p] = never
		if r.flat[p] {
			r.left[p] = r.left[p+1]
			continue
		}
		r.walk(p, rays(-1e7, 1e7), func(to int, _ polygon) bool {
			r.left[p] = min(r.left[p], r.cost(to)+r.left[to])
			return true
		})
	}
}
