package scene

import (
	"math"
	"slices"
	"sort"

	"mallow/core/footing"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/plan"
	"mallow/core/stage/build"
	"mallow/core/stage/dig"
	"mallow/core/stage/gates"
	"mallow/core/stage/slope"
	"mallow/core/survey"
)

type (
	gate = gates.Gate
	leaf = gates.GateLeaf
	bay  = slope.Bay
	post = dig.Post
)

const (
	leastPost = 3 // pixels that a post is never drawn thinner than
	leastHole = 5
	together  = 6  // pixels: bays that are less wide are drawn as one
	legible   = 30 // pixels between two posts under which nothing is said of each
)

// run is one run as it is drawn from the side: where it begins, what of it is
// in sight, and how fine it is drawn.
type run struct {
	*plan.Run
	s           *Scene
	units       length.Units
	v           View
	off         float64 // of its first post in the drawing
	first       int     // its first post in sight; the last is one past it
	last        int
	from, to    length.Length // what is drawn
	left, right length.Length // what is in the frame
	per         float64       // millimetres of a pixel; 0: as fine as it is
	ground      survey.Profile
	stand       map[string][]build.Upright
	whole       bool // one of several, corner after corner
}

func (r *run) x(at length.Length) float64 { return float64(at) + r.off }

func (r *run) height(at length.Length) float64 {
	return float64(r.ground.Height(max(0, min(r.Length, at))))
}

// elevation draws a run, or a whole line, from the side.
func elevation(p plan.Plan, i int, v View) Scene {
	var s Scene
	runs := []int{i}
	if v.Whole {
		runs = nil
		for k := range p.Runs {
			if p.Runs[k].Line == p.Runs[i].Line {
				runs = append(runs, k)
			}
		}
	}
	start := p.Runs[runs[0]].Start
	for n, k := range runs {
		r := run{Run: &p.Runs[k], s: &s, units: p.Units, v: v, per: v.per(0), whole: v.Whole && len(runs) > 1}
		r.off = 0
		if v.Whole {
			r.off = float64(r.Start - start)
		}
		r.draw(n > 0, n == 0, n == len(runs)-1)
		if r.whole {
			r.fold(p, n > 0)
		}
	}
	return s
}

// draw draws the run; after is whether another one ends where it begins, and
// open and close whether it is the first and the last of what is drawn.
func (r *run) draw(after, open, close bool) {
	r.ground = profile(r.Ground, r.Length)
	r.from, r.to = -math.MaxFloat64, math.MaxFloat64
	if r.v.From != nil {
		r.from = *r.v.From - length.Length(r.off)
	}
	if r.v.To != nil {
		r.to = *r.v.To - length.Length(r.off)
	}
	r.left, r.right = r.from, r.to
	if x := r.v.Frame.X; x != nil {
		r.left, r.right = length.Length(-x.Zero/x.Scale-r.off), length.Length((r.v.Frame.Width-x.Zero)/x.Scale-r.off)
	}
	if r.to < 0 || r.from > max(r.Length, 1) {
		return
	}
	r.first = sort.Search(len(r.Posts), func(i int) bool { return r.Posts[i].Station >= r.from-1 })
	r.last = sort.Search(len(r.Posts), func(i int) bool { return r.Posts[i].Station > r.to+1 })
	if r.v.Stress != OnPaper { // what reaches into sight is drawn too
		r.first, r.last = max(0, r.first-1), min(len(r.Posts), r.last+1)
	}
	r.soil(open, close)
	groups := r.groups()
	for _, g := range groups {
		r.bays(g)
	}
	for n, g := range groups {
		if n == 0 && after {
			continue // the corner post stands as the last one of the run before
		}
		r.post(&r.Posts[g.from], float64(r.Posts[g.to].Station-r.Posts[g.from].Station) < together*r.per)
	}
	r.curb()
	r.rails()
	if len(groups) > 0 {
		r.post(&r.Posts[groups[len(groups)-1].to], false)
	}
	r.obstacles()
	r.stress()
}

func profile(points []survey.Point, run length.Length) survey.Profile {
	out := make([]job.GroundPoint, len(points))
	for i, g := range points {
		out[i] = job.GroundPoint{At: g.At, Height: g.Height}
	}
	return survey.NewProfile(out, run)
}

// beyond is how far the ground goes on past what is drawn.
const beyond = 600

// soil draws the ground in section, and frost under it.
func (r *run) soil(open, close bool) {
	from, to := max(0, r.from), min(r.Length, r.to)
	low, high := from, to
	if open || r.from > 0 {
		low -= r.past()
	}
	if close || r.to < r.Length {
		high += r.past()
	}
	if len(r.Ground) == 0 && r.Length <= 0 {
		high = 1
	}
	line := r.surface(r.Ground, low, high)
	r.s.line(GroundLine, r.ID, line...)
	deep := r.deep()
	r.s.area(Ground, Earthen, r.ID, r.down(line, deep)...)
	r.s.area(Soil, Earthen, r.ID, r.down(line, deep)...)
	after := line
	if len(r.Finished) > 0 {
		after = r.surface(r.Finished, low, high)
		r.s.line(Finished, r.ID, after...)
	}
	if r.Frost == nil {
		return
	}
	// Frost goes down from the ground as it will be.
	under := append([]float64{}, after...)
	for i := 1; i < len(under); i += 2 {
		under[i] -= float64(*r.Frost)
	}
	r.s.line(FrostLine, r.ID, append([]float64{}, under...)...)
	band := append([]float64{}, line...)
	for i := len(under) - 2; i >= 0; i -= 2 {
		band = append(band, under[i], under[i+1])
	}
	r.s.area(Frost, "", r.ID, band...)
}

// past is how far the ground is drawn past the run: to the edge of the frame
// where that is known.
func (r *run) past() length.Length {
	if r.per > 0 {
		return length.Length(max(beyond, r.v.Frame.Width*r.per))
	}
	return beyond
}

// deep is the lowest that anything reaches, and a little more.
func (r *run) deep() float64 {
	low := math.Inf(1)
	for _, g := range r.Ground {
		low = min(low, float64(g.Height))
	}
	if math.IsInf(low, 1) {
		low = 0
	}
	most := 1200.0
	if r.Frost != nil {
		most = max(most, float64(*r.Frost))
	}
	for i := range r.Cards {
		most = max(most, float64(r.Cards[i].Depth), float64(r.Cards[i].Foot))
	}
	if r.v.Frame.Y != nil { // to the foot of the frame
		most = max(most, r.v.Frame.Height/r.v.Frame.Y.Scale)
	}
	return low - most - 300
}

// down closes a line of the surface into the ground under it.
func (r *run) down(line []float64, deep float64) []float64 {
	out := append([]float64{}, line...)
	return append(out, line[len(line)-2], deep, line[0], deep)
}

func (r *run) material() Material {
	if r.Hollow {
		return Metal
	}
	return Timber
}

// faced is what a bay's face is drawn as: what its fence type says, or else
// mesh where wind goes through, and nothing where rails are all there is.
func (r *run) faced() Material {
	switch r.Face {
	case job.BoardFace:
		return Boards
	case job.SlatFace:
		return Slats
	case job.PicketFace:
		return Pickets
	case job.BarFace:
		return Bars
	case job.MeshFace:
		return Mesh
	case job.SheetFace:
		return Metal
	case job.OpenFace:
		return ""
	}
	switch {
	case r.Way == job.OverlapRails:
		return ""
	case r.Hollow && r.Solid < 0.5:
		return Mesh
	case r.Hollow:
		return Metal
	}
	return Boards
}

// finest is how many millimetres a pixel may be for parts to be drawn one by one.
const finest = 40

// bays draws a bay, or several together, between their posts.
func (r *run) bays(g group) {
	b, end := &r.Bays[g.from], &r.Bays[g.to-1]
	x1, x2 := r.x(r.Posts[g.from].Station), r.x(r.Posts[g.to].Station)
	if g.to == g.from+1 && b.Gate != "" {
		r.gate(b, x1, x2)
		return
	}
	of := r.of(b.ID)
	if g.to > g.from+1 {
		of = ""
	}
	start, stop := float64(b.TopStart), float64(end.TopEnd)
	low, foot := float64(b.BottomStart), float64(end.BottomEnd)
	tops, feet := []float64{x1, start, x2, stop}, []float64{x1, low, x2, foot}
	if g.to > g.from+1 {
		tops, feet = r.together(g)
	}
	class := Bay
	if g.to > g.from+1 {
		class = Far
	}
	if g.to == g.from+1 && r.v.Stress == Building && r.Built != nil && len(r.Built.Parts) > 0 && r.per < finest {
		r.parts(g.from, 0)
	} else if m := r.faced(); m != "" {
		r.s.area(class, m, of, append(append([]float64{}, feet...), backwards(tops)...)...)
	}
	r.s.line(Top, of, tops...)
	if g.to > g.from+1 {
		return
	}
	for k := 1; k <= b.Boards; k++ { // gravel boards at its foot
		up := float64(k) * float64(b.Board)
		r.s.line(Board, of, x1, low+up, x2, foot+up)
	}
	if f := b.Infill; f != nil && f.Kind == job.GravelBoards {
		for k := 1; k <= f.Boards; k++ {
			top := low - float64(k-1)*float64(f.Board)
			r.s.box(Layer{Class: Infill, Material: Concrete}, of, x1, top-float64(f.Board), x2, top)
		}
	} else if f != nil {
		first := x1 + float64(b.CentreToCentre-f.Long)/2
		under := []float64{x1, low}
		for _, m := range f.Marks {
			under = append(under, first+float64(m.At), float64(b.BottomStart-m.Under))
		}
		r.s.area(Infill, Concrete, of, append(under, x2, low)...)
	}
	if r.v.Stress == Grading && (b.Fill != nil || b.Cut != nil) {
		from, to := r.Posts[g.from].Station, r.Posts[g.to].Station
		out := r.surface(r.Ground, from, to)
		r.s.area(Earth, Earthen, of, append(out, x2, foot, x1, low)...)
	}
}

// of is the id of something on this run.
func (r *run) of(id string) string {
	if r.whole {
		return r.ID + "/" + id
	}
	return id
}

// gate draws a gate's leaves in their bay, as they hang closed.
func (r *run) gate(b *bay, x1, x2 float64) {
	for i := range r.Gates {
		if g := &r.Gates[i]; g.Bay == b.Label {
			leaves(r.s, g, b, r.off, r.of(g.ID), r.Hollow)
			r.s.say(Label{Class: Name, Of: r.of(g.ID), At: Point{(x1 + x2) / 2, max(float64(b.TopStart), float64(b.TopEnd))}, Put: Over, Off: r.lift(), Rank: 5, Words: named(g), Room: 3 * (x2 - x1)})
		}
	}
}

// lift keeps gates' names over those of posts.
func (r *run) lift() float64 {
	if r.v.Stress == OnPaper {
		return 20
	}
	return 6
}

func named(g *gate) string {
	if g.Name != "" {
		return g.Name
	}
	return g.ID
}

// leaves draws a gate's leaves as they hang closed, with their braces. A strut
// presses, up from the hinges; a tie pulls, down from them.
func leaves(s *Scene, g *gate, b *bay, off float64, of string, hollow bool) {
	bottom, at := float64(g.Bottom), float64(g.At)+off
	m := Timber
	if hollow {
		m = Metal
	}
	if len(g.Leaves) == 0 {
		half := float64(g.Opening) / 2
		s.area(Leaf, m, of, at-half, bottom, at+half, bottom, at+half, float64(b.TopEnd), at-half, float64(b.TopStart))
	}
	for i := range g.Leaves {
		l := &g.Leaves[i]
		near, far := edges(l)
		near, far = near+off, far+off
		hinge, tip := bottom+float64(l.Height), bottom+float64(l.TipHeight)
		s.area(Leaf, m, of, near, bottom, far, bottom, far, tip, near, hinge)
		switch {
		case l.Brace == nil:
		case l.Brace.Kind == "strut":
			s.line(Strut, of, near, bottom, far, tip)
		case l.Brace.Kind == "tie":
			s.line(Tie, of, near, hinge, far, bottom)
		}
	}
}

// post draws a post with its hole; from far, only what is seen of it.
func (r *run) post(p *post, far bool) {
	x, of := r.x(p.Station), r.of(p.ID)
	if far {
		of = ""
	}
	half, ground := float64(p.Width)/2, float64(p.Ground)
	m := r.material()
	r.s.box(Layer{Class: Post, Material: m, Least: leastPost}, of, x-half, ground, x+half, float64(p.Top))
	if p.Foot > 0 && !far {
		r.s.box(Layer{Class: Below, Material: m, Least: leastPost}, of, x-half, ground-float64(p.Foot), x+half, ground)
	}
	if r.v.Stress == OnPaper || r.v.Stress != Spacing && r.spread() && !r.handled(p) {
		r.s.say(Label{Class: Name, Of: of, At: Point{x, float64(p.Top)}, Put: Over, Off: 3, Rank: 4, Strong: r.v.Stress == OnPaper, Must: r.v.Stress == OnPaper, Words: p.Label})
	}
	if p.Card < 0 || p.HoleDepth <= 0 {
		return
	}
	c := &r.Cards[p.Card]
	if far {
		most := Earthen
		for _, l := range c.Layers {
			if l.Kind == footing.ConcreteLayer {
				most = Concrete
			}
		}
		hole := float64(p.HoleWidth) / 2
		r.s.box(Layer{Class: Fill, Material: most, Least: leastHole - 2}, "", x-hole, ground-float64(p.HoleDepth), x+hole, ground)
		return
	}
	for _, l := range c.Layers {
		if m, ok := filled[l.Kind]; ok && l.To > 0 {
			if set := r.setting(p); m == Concrete && set != nil && !set.In {
				m = Open
			}
			r.s.put(Layer{Class: Fill, Material: m, Area: true, Least: leastHole}, of, section(c, float64(max(0, l.From)), float64(l.To), x+float64(c.Along), ground))
		}
	}
}

// curb draws the mowing curb in the ground.
func (r *run) curb() {
	if r.Curb == nil {
		return
	}
	for _, p := range r.Curb.Parts {
		from, to := max(p.Begin, r.from), min(p.Stop, r.to)
		if to <= from {
			continue
		}
		line := r.surface(r.Ground, from, to)
		band, low := raised(line, r.Curb.Above), raised(line, r.Curb.Above-r.Curb.Depth)
		for n := len(low) - 2; n >= 0; n -= 2 {
			band = append(band, low[n], low[n+1])
		}
		r.s.area(Infill, Concrete, "", band...)
	}
}

// handled tells whether a hand holds the string at a post's head: its name
// would lie under the hand.
func (r *run) handled(p *post) bool {
	return r.v.Stress == Grading && (p == &r.Posts[0] || p == &r.Posts[len(r.Posts)-1])
}

// setting is how far a post is on the day of the pour, where that is told.
func (r *run) setting(p *post) *SetPost {
	k := slices.IndexFunc(r.v.Set, func(s SetPost) bool { return s.Run == r.ID && s.Post == p.Label })
	if k < 0 {
		return nil
	}
	return &r.v.Set[k]
}

// spread tells whether there is room to say something of each post here.
func (r *run) spread() bool {
	if r.per == 0 || len(r.Posts) < 2 {
		return true
	}
	return float64(r.Length)/float64(len(r.Posts)-1) > legible*r.per
}

// filled is what each layer of a hole is drawn as.
var filled = map[footing.LayerKind]Material{
	footing.GravelLayer: Gravel, footing.SmallStone: Gravel, footing.MiddleStone: Stones, footing.LargeStone: Boulders, footing.RocksLayer: Boulders,
	footing.ConcreteLayer: Concrete, footing.CrownLayer: Concrete, footing.SoilLayer: Earthen, footing.MoundLayer: Earthen,
}

// rails draws every rail at its height, from joint to joint.
func (r *run) rails() {
	if r.TopLine == nil || len(r.TopLine.Rails) == 0 {
		return
	}
	thick := 0.0
	for _, m := range r.TopLine.Stick {
		if m.Kind == "rail" {
			thick = max(thick, float64(m.Up-m.To))
		}
	}
	if r.Way == job.OverlapRails && thick == 0 {
		thick = 125 // a split rail is some 5 in (125 mm) through
	}
	if r.v.Stress == Building && r.per < finest && r.Built != nil && len(r.Built.Parts) > 0 {
		return // drawn with the other parts
	}
	if r.per > 0 && !r.spread() && r.faced() != "" {
		return // under a pixel, behind what hangs on them
	}
	height := func(b *bay, rail length.Length) (start, end float64) {
		part := float64(rail) / max(1, float64(b.TopStart-b.BottomStart))
		return float64(b.BottomStart) + float64(rail), float64(b.BottomEnd) + part*float64(b.TopEnd-b.BottomEnd)
	}
	place := map[string]int{}
	if len(r.Rails) > 0 {
		for i := range r.Posts {
			place[r.Posts[i].Label] = i
		}
	}
	for n, rail := range r.TopLine.Rails {
		layer := Layer{Class: Rail, Material: Timber, Thick: thick}
		if n < len(r.Rails) { // broken at every joint
			for _, piece := range r.Rails[n].Pieces {
				from, to := place[piece.From], place[piece.To]
				if to < r.first || from > r.last {
					continue
				}
				var points []float64
				for i := max(from, r.first); i < to && i < r.last-1; i++ {
					b := &r.Bays[i]
					if b.Gate != "" {
						continue
					}
					start, end := height(b, rail)
					if k := len(points); k < 2 || points[k-2] != r.x(r.Posts[i].Station) || points[k-1] != start {
						points = append(points, r.x(r.Posts[i].Station), start)
					}
					points = append(points, r.x(r.Posts[i+1].Station), end)
				}
				if len(points) == 0 {
					continue
				}
				r.s.put(layer, piece.From, points)
				if r.v.Stress == Spacing {
					r.s.mark(Joint, piece.From, points[0], points[1], 0)
					r.s.mark(Joint, piece.To, points[len(points)-2], points[len(points)-1], 0)
				}
			}
			continue
		}
		for i := r.first; i < r.last-1; i++ {
			if b := &r.Bays[i]; b.Gate == "" {
				start, end := height(b, rail)
				r.s.put(layer, r.of(b.ID), []float64{r.x(r.Posts[i].Station), start, r.x(r.Posts[i+1].Station), end})
			}
		}
	}
}

// obstacles draws what is in the way, under ground, and where digging is by
// hand for it.
func (r *run) obstacles() {
	deep := r.deep()
	for i := range r.InTheWay {
		o := &r.InTheWay[i]
		if o.HandTo < r.from || o.HandFrom > r.to {
			continue
		}
		middle := (o.From + o.To) / 2
		x, y := r.x(middle), r.height(middle)
		a, b := r.x(o.From), r.x(o.To)
		if ha, hb := r.x(o.HandFrom), r.x(o.HandTo); hb-ha > b-a+1 {
			r.s.box(Layer{Class: Hand, Hue: o.Colour}, o.ID, ha, deep, hb, y)
		}
		switch {
		case o.Kind == job.OldPost:
			r.s.mark(OldPost, o.ID, x, y, 0)
		case o.Kind == job.Service:
			r.s.put(Layer{Class: Service, Hue: o.Colour}, o.ID, []float64{x, deep, x, y})
			r.s.Marks = append(r.s.Marks, Mark{Class: Flag, Hue: o.Colour, Of: o.ID, At: Point{x, y}})
		default:
			top := y
			if o.Depth != nil {
				top = y - float64(*o.Depth)
			}
			r.s.box(Layer{Class: InTheWay, Hue: o.Colour, Least: 5}, o.ID, a, deep, b, top)
		}
		r.s.say(Label{Class: InTheWay, Of: o.ID, At: Point{x, y}, Put: Under, Off: 24, Rank: 2, Words: o.Name})
	}
}

// fold marks where the unrolled line turns, and names its runs.
func (r *run) fold(p plan.Plan, turns bool) {
	name := r.Name
	if name == "" {
		name = r.ID
	}
	r.s.say(Label{Class: Name, Of: r.ID, At: Point{r.off + float64(r.Length)/2, 0}, Put: RowOver, Row: 2, Strong: true, Words: name, Room: float64(r.Length)})
	if !turns {
		return
	}
	r.s.line(Fold, r.ID, r.off, r.deep(), r.off, r.highest())
	for _, l := range p.Lines {
		if l.ID != r.Line {
			continue
		}
		for i := range l.Corners {
			if c := &l.Corners[i]; c.After == r.ID && c.Before != "" {
				label := Label{Class: Fold, Of: r.ID, At: Point{r.off, 0}, Put: RowOver, Row: 1}
				switch {
				case c.Turn == nil:
					continue
				case c.Side == "":
					label.Keys = []string{"turn-straight"}
				default:
					label.Keys, label.Count = []string{"turn-" + string(c.Side)}, hundredth(math.Abs(*c.Turn))
				}
				r.s.say(label)
			}
		}
	}
}

func (r *run) highest() float64 {
	high := math.Inf(-1)
	for i := range r.Posts {
		high = max(high, float64(r.Posts[i].Top))
	}
	if math.IsInf(high, -1) {
		return 1800
	}
	return high
}
