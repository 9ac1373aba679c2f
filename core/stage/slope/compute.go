package slope

import (
	"math"
	"slices"

	"mallow/core/grade"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/spacing"
	"mallow/core/stage/space"
	"mallow/core/survey"
)

// lineRun is a run with the top line that was found over its posts.
type Line struct {
	*space.Spacing
	Top   grade.Line
	steep []spacing.Lean // leans that were too long for equal bays
	rough bool           // a trial that asks only what earth the line takes
}

// gradeRun is a run with its posts and bays as they stand on the slope.
type Slope struct {
	*Line
	Posts    []Post
	Bays     []Bay
	Finished []survey.Point // the ground as it will be; nil where it stays as it is
	RailRows []RailRow
	Weak     []string // posts that carry a joint in every rail
}

// unsolved is a run of which no top line is known yet. Its layout is its own:
// it changes while posts are found from the line and the line from the posts.
func Unsolved(m *space.Spacing) *Line {
	own := *m
	return &Line{Spacing: &own}
}

// newGrade stands the run's posts and panels on the line that was found. A
// corner post is no lower than the next run's first top, where there is one.
func Compute(line *Line, next *length.Length) *Slope {
	m := &Slope{Line: line, RailRows: []RailRow{}}
	if !m.Laid() {
		return m
	}
	m.Posts = make([]Post, len(line.Posts))
	for i := range m.Posts {
		p := Post{Post: line.Posts[i], Top: m.Top.Tops[i]}
		if i == len(m.Posts)-1 && next != nil {
			p.Top = max(p.Top, *next)
		}
		p.AboveGrade = p.Top - p.Ground
		p.Grade = m.Top.Knots[i]
		if held := m.Layout.Posts[i].Held; held != spacing.Nothing {
			p.Grade = p.Grade || m.Spec.FixedPosts[held].Grade
		}
		m.onSlope(&p, i)
		m.Posts[i] = p
	}
	m.Bays = make([]Bay, len(line.Bays))
	for i, b := range m.Layout.Bays {
		g := m.Top.Bays[i]
		m.Bays[i] = Bay{Bay: line.Bays[i], BottomStart: g.BottomStart, BottomEnd: g.BottomEnd, TopStart: g.TopStart, TopEnd: g.TopEnd,
			GapLeast: g.Least, GapMost: g.Most, Cut: g.Cut, Fill: g.Fill}
		m.leaning(&m.Bays[i], i, &m.Posts[b.First], &m.Posts[b.First+1])
	}
	m.Finished = m.finishedGround()
	m.breakRails()
	return m
}

func Earth(b grade.Bay) length.Length {
	d := length.Length(0)
	if b.Cut != nil {
		d += b.Cut.Depth
	}
	if b.Fill != nil {
		d += b.Fill.Depth
	}
	return d
}

// lineLeans is how the pieces lean on the line that was found.
func (m *Line) lineLeans() []spacing.Lean {
	var out []spacing.Lean
	for i, b := range m.Top.Bays {
		if !m.courseLook(i).Leans() || m.Layout.Bays[i].Gate != spacing.NoGate {
			continue
		}
		from, to := m.Span(i)
		out = append(out, spacing.Lean{From: from, To: to, Slope: space.Leanable((b.TopEnd - b.TopStart) / (to - from))})
	}
	return out
}

const (
	// mostSettling is how often posts and top line are found from each other
	// before what is left over is said instead.
	mostSettling = 12
	// longLine is how many posts make a line on which fewer turns are taken; so
	// many heights of the ground weigh as much as one post.
	longLine       = 500
	heightsPerPost = 4
	longSettling   = 2
	// settled is how far posts may still move: a hundredth of a millimetre.
	settled = length.Millimetre / 100
)

// turnsFor is how many turns are taken: fewer on lines so long that each takes
// its time.
func turnsFor(runs []*Line) int {
	size := 0
	for _, m := range runs {
		size += len(m.Layout.Posts) + len(m.Ground.Points)/heightsPerPost
	}
	if size > longLine {
		return longSettling
	}
	return mostSettling
}

// relay lays the run out again by the line that was found, and tells whether
// a post moved.
func (m *Line) relay() bool {
	leans := m.lineLeans()
	s := m.Site(m.Spec)
	if _, piece := m.Spec.Spacing.ByPiece(); !piece {
		// A slope that was once too long for equal bays stays so, or bays
		// would come and go: a line with one bay more leans otherwise.
		long := false
		for i := range m.Layout.Bays {
			if from, to := m.Span(i); m.Layout.Bays[i].Gate == spacing.NoGate && m.Layout.Bays[i].Held == spacing.Nothing {
				rise := m.Top.Bays[i].TopEnd - m.Top.Bays[i].TopStart
				long = long || length.Length(math.Hypot(float64(to-from), float64(rise))) > m.Spec.Spacing.Most+length.Tolerance
			}
		}
		if !long {
			return false
		}
		m.steep = append(m.steep, leans...)
		leans = m.steep
	}
	s.Leans = leans
	next := spacing.Lay(m.Spec, s)
	// What the corners at both ends are was settled between the runs.
	last, before := &next.Posts[len(next.Posts)-1], m.Layout.Posts[len(m.Layout.Posts)-1]
	next.Posts[0].Kind, last.Kind = m.Layout.Posts[0].Kind, before.Kind
	moved := len(next.Posts) != len(m.Layout.Posts)
	for i := 0; !moved && i < len(next.Posts); i++ {
		moved = (next.Posts[i].Station - m.Layout.Posts[i].Station).Abs() > settled
	}
	if !moved { // the pieces as they lean on this very line, on the posts that it was found over
		for i := range next.Posts {
			next.Posts[i].Station = m.Layout.Posts[i].Station
		}
	}
	m.Layout = next
	return moved
}

// broken counts the posts at which the top steps or changes slope by what the
// eye sees: half a mark over a bay.
func (m *Slope) Broken() int {
	n := 0
	seen := m.Job.Units.SmallestMark / 2
	for i := 1; i < len(m.Bays); i++ {
		a, b := &m.Bays[i-1], &m.Bays[i]
		slope := (b.Lean/b.CentreToCentre - a.Lean/a.CentreToCentre) * (a.CentreToCentre + b.CentreToCentre) / 2
		if (b.TopStart-a.TopEnd).Abs() >= seen || slope.Abs() >= seen {
			n++
		}
	}
	return n
}

// lowersAnything is the depth of cut or fill from which a hole is spoken of as
// in ground that changes: half a millimetre.
const LowersAnything = length.Millimetre / 2

// Standing is the ground that a post is counted to stand in.
type Standing struct {
	Down  length.Length // by how much it lies below today's ground; negative: above
	Shows length.Length // how much of the post is above it
}

// Standings is how a post stands once the plan's cuts and fills are made: in
// the ground that holds it, which loose fill does not, and in the ground as it
// will be, with fill that was placed and compacted first. Frost and floor count
// from there: where the two sides of a post end at two heights, as at a step
// that is cut, from the lower one. A share of the post goes by the side that
// shows more fence over its own ground. A gate's side stays as it is.
func (m *Line) Standings(i int, top length.Length, next *Line) (firm, finished Standing) {
	ground := m.Profile.Height(m.Layout.Posts[i].Station)
	found := false
	over := top - m.Top.FenceTop(i) // what the post stands above the fence
	put := func(s *Standing, level, top length.Length) {
		if down := ground - level; !found || down > s.Down {
			s.Down = down
		}
		if show := top - level; !found || show > s.Shows {
			s.Shows = show
		}
	}
	side := func(o *Line, bay int, bottom, top length.Length) {
		level := ground
		if o.Layout.Bays[bay].Gate == spacing.NoGate {
			level = o.finishedAt(bay, ground, bottom)
		}
		put(&firm, min(level, ground), top)
		put(&finished, level, top)
		found = true
	}
	if i > 0 {
		b := m.Top.Bays[i-1]
		side(m, i-1, b.BottomEnd, b.TopEnd+over)
	}
	switch last := len(m.Layout.Posts) - 1; {
	case i < last:
		b := m.Top.Bays[i]
		side(m, i, b.BottomStart, b.TopStart+over)
	case next != nil:
		side(next, 0, next.Top.Bays[0].BottomStart, next.Top.Tops[0])
	}
	return firm, finished
}

// finishedGround is the run's ground as it will be; nil where nothing is cut
// or filled.
func (m *Line) finishedGround() []survey.Point {
	out := []survey.Point{}
	changed := false
	for i := range m.Layout.Bays {
		from, to := m.Span(i)
		b := m.Top.Bays[i]
		m.Profile.Each(from, to, func(at, ground length.Length) {
			level := ground
			if m.Layout.Bays[i].Gate == spacing.NoGate {
				level = m.finishedAt(i, ground, b.Bottom((at-from)/(to-from)))
			}
			changed = changed || (level-ground).Abs() > LowersAnything
			out = append(out, survey.Point{At: at, Height: level})
		})
	}
	if !changed {
		return nil
	}
	return out
}

// finishedAt is the height of the ground under one end of a bay of fence once it
// is cut or filled.
func (m *Line) finishedAt(bay int, ground, bottom length.Length) length.Length {
	b, f := m.Top.Bays[bay], m.Spec.Fence
	switch {
	case b.Cut != nil && bottom-f.GapLeast < ground:
		return bottom - f.GapLeast
	case b.Fill != nil && !m.boarded(bay) && bottom-f.GapMost > ground:
		return bottom - f.GapMost
	}
	return ground
}

// boarded tells whether boards close what a level panel leaves over a slope,
// so that nothing is filled there.
func (m *Line) boarded(bay int) bool {
	kind := m.Spec.Grade.Infill
	return (kind == job.GravelBoards || kind == job.CutBoards) && !m.courseLook(bay).Leans()
}

// rails breaks the rails of every stretch on posts.
func (m *Slope) breakRails() {
	s := m.Spec.Spacing
	if s.Way != job.StockRails {
		return
	}
	rows := max(1, s.Rails)
	for r := range rows {
		m.RailRows = append(m.RailRows, RailRow{Row: r + 1, Pieces: []Piece{}})
	}
	for i := 0; i < len(m.Layout.Bays); {
		first, n, high := i, m.Layout.Bays[i].Segment, m.HighAt(i)
		var bays []length.Length
		for ; i < len(m.Layout.Bays) && m.Layout.Bays[i].Segment == n && length.Same(m.HighAt(i), high); i++ {
			bays = append(bays, m.long(m.Layout.Bays[i].First, m.Layout.Bays[i].First+1))
		}
		if m.Layout.Segments[n].Gate != spacing.NoGate {
			continue
		}
		rows := rows
		if !length.Same(high, m.Spec.Fence.Height) { // where the fence is lower, fewer rails may go one above the other
			rows = min(rows, len(m.Spec.RailHeightsAt(high)))
		}
		joints := spacing.Stagger(bays, s.Piece, rows)
		for _, w := range joints.Weak {
			if rows > 1 {
				m.Weak = append(m.Weak, m.Posts[first+w].Label)
			}
		}
		for r, rail := range joints.Rails {
			for k := 1; k < len(rail.Joints); k++ {
				a, z := first+rail.Joints[k-1], first+rail.Joints[k]
				from, to, long := m.Posts[a], m.Posts[z], m.long(a, z)
				m.RailRows[r].Pieces = append(m.RailRows[r].Pieces, Piece{From: from.Label, To: to.Label, Length: long,
					Cut: long < s.Piece-max(length.Tolerance, m.Job.Units.SmallestMark/2)})
			}
		}
	}
}

// long is how long a rail from one post to another is, as it leans.
func (m *Slope) long(from, to int) length.Length {
	sum := length.Length(0)
	for i := from; i < to; i++ {
		b := &m.Bays[i]
		sum += b.CentreToCentre * length.Length(math.Hypot(1, float64(b.Lean/b.CentreToCentre)))
	}
	return sum
}

// onSlope gives a post what the slope does to it.
func (m *Slope) onSlope(p *Post, i int) {
	half := m.Spec.PostOf(p.Kind).Width / 2
	at := func(station length.Length) length.Length {
		return p.Top - m.Profile.Height(min(max(0, station), m.Ground.Length))
	}
	p.AboveBefore, p.AboveAfter = at(p.Station-half), at(p.Station+half)
	p.Mark = m.Top.FenceTop(i) - p.Ground - m.Spec.String.Mark
	p.Overlap = m.Spec.Fence.Height
	if i > 0 && i < len(m.Top.Bays) {
		before, after := m.Top.Bays[i-1], m.Top.Bays[i]
		p.Step = after.TopStart - before.TopEnd
		if p.Step.Abs() <= length.Tolerance {
			p.Step = 0
		}
		p.Overlap = max(0, min(before.TopEnd, after.TopStart)-max(before.BottomEnd, after.BottomStart))
	}
	if m.railsIntoPosts() {
		p.Holes = m.holes(p, i)
	}
}

// railsIntoPosts tells whether rails go into holes or routs of the posts.
func (m *Slope) railsIntoPosts() bool {
	s := m.Spec.Spacing
	return s.Way == job.OverlapRails && m.Can(job.MorticePosts) || s.Way == job.PanelsBetween && s.Slot > 0 && len(m.Spec.RailHeights()) > 0
}

func (m *Slope) holes(p *Post, i int) []RailHole {
	side := func(bay int, bottom func(grade.Bay) length.Length) []length.Length {
		if bay < 0 || bay >= len(m.Top.Bays) || m.Layout.Bays[bay].Gate != spacing.NoGate {
			return nil
		}
		b := bottom(m.Top.Bays[bay]) - p.Ground
		out := slices.Clone(m.Spec.RailHeightsAt(m.HighAt(bay)))
		for k := range out {
			out[k] += b
		}
		return out
	}
	before := side(i-1, func(b grade.Bay) length.Length { return b.BottomEnd })
	after := side(i, func(b grade.Bay) length.Length { return b.BottomStart })
	// A side without fence has as many, all empty: the post's other face is whole.
	out := make([]RailHole, max(len(before), len(after), len(m.Spec.RailHeights())))
	for k := range out {
		if k < len(before) {
			out[k].Before = &before[k]
		}
		if k < len(after) {
			out[k].After = &after[k]
		}
	}
	return out
}

// leaning gives a bay what the slope does to it.
func (m *Slope) leaning(b *Bay, i int, from, to *Post) {
	b.Look = m.courseLook(i)
	b.Lean = b.TopEnd - b.TopStart
	slope := float64(b.Lean / b.CentreToCentre)
	b.Angle = math.Atan(slope) * 180 / math.Pi
	b.Long = b.Clear * length.Length(math.Hypot(1, slope))
	b.OnGround = to.Slope - from.Slope
	face := func(at length.Length) length.Length {
		return b.BottomStart + (b.BottomEnd-b.BottomStart)*(at-from.Station)/b.CentreToCentre - m.Profile.Height(at)
	}
	b.FaceStart = face(from.Station + m.Spec.PostOf(from.Kind).Width/2)
	b.FaceEnd = face(to.Station - m.Spec.PostOf(to.Kind).Width/2)
	if b.Gate == "" && m.Spec.Fence.Boards > 0 {
		b.Boards, b.Board = m.Spec.Fence.Boards, m.Spec.Grade.BoardHeight(m.Job.Units)
	}
	if b.Infill = m.infill(*b, m.Spec.Grade.Infill, from, to); b.Infill != nil {
		b.Fill = nil // boards close it: nothing is filled
	}
}

// HighAt is the height of a bay's fence: its stretch's own, else the run's.
func (m *Line) HighAt(i int) length.Length {
	b := m.Layout.Bays[i]
	return m.Spec.HeightAt((m.Layout.Posts[b.First].Station + m.Layout.Posts[b.First+1].Station) / 2)
}

// courseLook is a bay's look, by its middle.
func (m *Line) courseLook(i int) job.Look {
	b := m.Layout.Bays[i]
	return m.Spec.Grade.LookAt((m.Layout.Posts[b.First].Station + m.Layout.Posts[b.First+1].Station) / 2)
}

// infill sizes what closes the triangle under a level panel: boards cut to
// run at the least gap over the ground, or level boards one under the other
// until the gap under the lowest is no more than the most.
func (m *Slope) infill(b Bay, kind job.Infill, from, to *Post) *PanelInfill {
	if kind != job.CutBoards && kind != job.GravelBoards || b.Gate != "" || b.Look.Leans() || b.Fill == nil {
		return nil
	}
	start := from.Station + m.Spec.PostOf(from.Kind).Width/2
	end := to.Station - m.Spec.PostOf(to.Kind).Width/2
	if end <= start {
		return nil
	}
	f := m.Spec.Fence
	out := &PanelInfill{Kind: kind, Long: b.Clear, Board: m.Spec.Grade.BoardHeight(m.Job.Units), Marks: []InfillMark{}}
	high := length.Length(math.Inf(1)) // gap over the highest ground
	m.Profile.Each(start, end, func(at, ground length.Length) {
		under := max(0, b.BottomStart-ground-f.GapLeast)
		if at == start {
			out.Start = under
		}
		out.End, out.Most = under, max(out.Most, under)
		high = min(high, b.BottomStart-ground)
		if kind == job.CutBoards {
			out.Marks = append(out.Marks, InfillMark{at - start, under})
		}
	})
	need := out.Most
	if kind == job.GravelBoards {
		need = max(0, b.GapMost.Gap-f.GapMost) // a level board leaves the most gap at the low end
	}
	out.Boards = int(math.Ceil(float64((need - noBoard) / out.Board)))
	if kind == job.GravelBoards {
		out.Let = max(0, length.Length(out.Boards)*out.Board-high)
	}
	if out.Boards < 1 {
		return nil
	}
	return out
}

// noBoard is what no board is taken for.
const noBoard = length.Millimetre / 2

// group is runs that are graded as one, end to end.
type Group struct {
	Runs  []*Line
	Turns []bool // whether the line turns where each begins
	Ring  bool
}

// grade finds the top lines of a group, and their posts again where pieces
// lean. It ends when nothing moves any more.
func (g *Group) Grade(look func()) {
	look()
	g.together()
	for range turnsFor(g.Runs) {
		moved := false
		for _, m := range g.Runs {
			look()
			if m.Spec.Leans() && m.relay() {
				moved = true
			}
		}
		if !moved {
			return
		}
		g.together()
	}
}

// together puts runs end to end, grades them, and gives each its part. How far
// apart the posts of leaning pieces stand depends on how they lean, which
// depends on where the posts stand.
func (g *Group) together() {
	runs := g.Runs
	courses, at := make([]grade.Course, len(runs)), make([]length.Length, len(runs))
	for k, m := range runs {
		courses[k] = m.course(m.Spec, m.Layout)
		if k > 0 {
			at[k] = at[k-1] + runs[k-1].Ground.Length
		}
	}
	if len(runs) == 1 {
		runs[0].Top = grade.Solve(courses[0])
		return
	}
	course := grade.Join(courses, at, g.Turns)
	line := grade.Line{}
	if g.Ring {
		line = grade.SolveRing(course)
	} else {
		line = grade.Solve(course)
	}
	bay := 0
	for k, m := range runs {
		n := len(m.Layout.Bays)
		m.Top = grade.Line{Bays: line.Bays[bay : bay+n : bay+n], Tops: line.Tops[bay : bay+n+1 : bay+n+1], Knots: line.Knots[bay : bay+n+1 : bay+n+1], Lost: line.Lost}
		if k > 0 {
			m.Top.Bays = shifted(m.Top.Bays, -at[k])
		}
		bay += n
	}
}

// course is what is graded of a run.
func (m *Line) course(run job.Run, layout spacing.Layout) grade.Course {
	c := grade.NewCourse(run, layout, m.Profile, m.Job.Units)
	c.Rough = m.rough
	return c
}

// shifted moves the stations of the bays' gaps and earth.
func shifted(bays []grade.Bay, by length.Length) []grade.Bay {
	out := make([]grade.Bay, len(bays))
	move := func(e *grade.Earth) *grade.Earth {
		if e == nil {
			return nil
		}
		return &grade.Earth{Depth: e.Depth, At: e.At + by, Section: e.Section}
	}
	for i, b := range bays {
		b.Least.At, b.Most.At = b.Least.At+by, b.Most.At+by
		b.Cut, b.Fill = move(b.Cut), move(b.Fill)
		out[i] = b
	}
	return out
}

func (m *Slope) stepping() job.Steps {
	if s := m.Spec.Grade.Steps; s != "" {
		return s
	}
	return job.LeastGap
}

// earthWork is the soil that is moved along the fence.
type earthWork struct {
	Cut, Fill length.Volume
	Boards    int // that close triangles under level panels
}

// earth adds up what is cut and filled along the run; what a board closes is
// not filled.
func (m *Slope) Earth() earthWork {
	cut, fill := m.Spec.Grade.StripWidth(m.Job.Units).Metres(), m.Spec.Grade.FillWidth(m.Job.Units).Metres()
	t := earthWork{}
	for i := range m.Bays {
		b := &m.Bays[i]
		if b.Cut != nil {
			t.Cut += length.Volume(float64(b.Cut.Section) * cut)
		}
		switch {
		case b.Infill != nil:
			t.Boards += b.Infill.Boards
		case b.Fill != nil:
			t.Fill += length.Volume(float64(b.Fill.Section) * fill)
		}
	}
	return t
}

// same tells whether a line was found again as it is.
func (m *Line) SameAs(o *Line) bool {
	return slices.Equal(m.Layout.Posts, o.Layout.Posts) && slices.Equal(m.Top.Tops, o.Top.Tops) && slices.Equal(m.Top.Knots, o.Top.Knots) && m.Top.Lost == o.Top.Lost &&
		slices.Equal(m.Layout.Bays, o.Layout.Bays) && slices.EqualFunc(m.Top.Bays, o.Top.Bays, sameBay)
}

func sameBay(a, b grade.Bay) bool {
	cutA, cutB, fillA, fillB := a.Cut, b.Cut, a.Fill, b.Fill
	a.Cut, a.Fill, b.Cut, b.Fill = nil, nil, nil, nil
	return a == b && sameEarth(cutA, cutB) && sameEarth(fillA, fillB)
}

func sameEarth(a, b *grade.Earth) bool { return a == b || a != nil && b != nil && *a == *b }
