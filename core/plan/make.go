package plan

import (
	"fmt"
	"strconv"

	"mallow/core/finding"
	"mallow/core/footing"
	"mallow/core/grade"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/materials"
	"mallow/core/pour"
	"mallow/core/reason"
	"mallow/core/spacing"
	"mallow/core/survey"
)

// Make plans a job that Decode has checked.
func Make(j job.Job, cat materials.Catalog) Plan {
	p := Plan{Mallow: Version, Name: j.Name, Units: j.Units, Findings: []finding.Finding{}}
	book := &reason.Book{}
	for l, line := range j.Lines {
		for r, run := range line.Runs {
			m := newMaker(j, run, cat, book, fmt.Sprintf("/lines/%d/runs/%d", l, r))
			p.Runs = append(p.Runs, m.make())
			p.Findings = append(p.Findings, m.findings...)
			p.Cautions = append(p.Cautions, cautions(m.bag)...)
		}
	}
	// One run so far, so that its totals are the job's.
	p.Totals = p.Runs[0].Totals
	p.Rules = book.Fold()
	p.Reasons = book.Whys()
	return p
}

// maker plans one run.
type maker struct {
	job       job.Job
	run       job.Run
	usual     job.Run
	path      string
	cat       materials.Catalog
	bag       materials.Bag
	bagKnown  bool
	book      *reason.Book
	few       reason.Index[any] // explanations of which there are few, under any key
	findings  []finding.Finding
	depthWhys reason.Index[depthKey]
	stockWhys reason.Index[[2]length.Length] // by reveal and foot
	gapWhys   reason.Index[[2]grade.Gap]     // by least and most
	shared    map[any][]reason.Step          // rules that many explanations have in common

	widths map[job.PostKind]footing.Width

	// Posts that something is to be said of, noted while their holes are sized.
	noAuger, shallow, dry int

	ground survey.Profile
	layout spacing.Layout
	line   grade.Line
	out    Run
}

func newMaker(j job.Job, run job.Run, cat materials.Catalog, book *reason.Book, path string) *maker {
	m := &maker{
		job: j, run: run, usual: cat.UsualRun(j.Units.System), path: path, cat: cat, book: book,
		few:       reason.NewIndex[any](book),
		depthWhys: reason.NewIndex[depthKey](book),
		stockWhys: reason.NewIndex[[2]length.Length](book),
		gapWhys:   reason.NewIndex[[2]grade.Gap](book),
		shared:    map[any][]reason.Step{},
		widths:    map[job.PostKind]footing.Width{},
		noAuger:   -1, shallow: -1, dry: -1,
	}
	m.bag, m.bagKnown = cat.Bag(run.Setting.Bag)
	return m
}

func (m *maker) make() Run {
	m.out = Run{
		ID: m.run.ID, Name: m.run.Name, Path: m.path, Hollow: m.run.Post.Hollow, Frost: m.job.Site.FrostDepth,
		Ground: []job.GroundPoint{}, Segments: []Segment{}, Posts: []Post{}, Bays: []Bay{}, Gates: []Gate{},
	}
	m.missing()
	if m.run.Length == nil {
		m.out.Totals = m.totals()
		return m.out
	}
	m.ground = survey.NewProfile(m.run.Ground, *m.run.Length)
	m.layout = spacing.Equal(m.run)
	m.book.Expect(3*len(m.layout.Posts) + 16) // most posts differ in depth, length and gap
	m.line = grade.Solve(m.run, m.layout, m.ground)
	m.out.Length = *m.run.Length
	m.out.SlopeLength = m.ground.Along(*m.run.Length)
	m.out.Ground = m.ground.Points()
	m.segments()
	m.posts()
	m.bays()
	m.out.Totals = m.totals()
	m.judge()
	return m.out
}

func (m *maker) gateID(index int) string {
	if index == spacing.NoGate {
		return ""
	}
	return m.run.Gates[index].ID
}

func (m *maker) segments() {
	for _, s := range m.layout.Segments {
		m.out.Segments = append(m.out.Segments, Segment{
			From: s.From, To: s.To, Gate: m.gateID(s.Gate), Bays: s.Bays, Each: s.Each(),
			Why: m.whySegment(s),
		})
	}
}

func postID(i int) string { return "P" + strconv.Itoa(i+1) }
func bayID(i int) string  { return "B" + strconv.Itoa(i+1) }

func (m *maker) posts() {
	m.out.Posts = make([]Post, len(m.layout.Posts))
	for i, at := range m.layout.Posts {
		ground := m.ground.Height(at.Station)
		p := Post{
			ID: postID(i), Kind: at.Kind, Gate: m.gateID(at.Gate),
			Station: at.Station, Slope: m.ground.Along(at.Station),
			Ground: ground, Top: m.line.Tops[i], Reveal: m.line.Tops[i] - ground,
			Gravel: m.run.Setting.Gravel,
		}
		m.dig(&p, i)
		m.cut(&p)
		p.Why.Station = m.whyStation(p, at)
		p.Why.Top = m.whyTop(p)
		m.out.Posts[i] = p
	}
}

// dig sizes a post's hole and its filling.
func (m *maker) dig(p *Post, i int) {
	q := footing.Question{
		Kind: p.Kind, Reveal: p.Reveal, Frost: m.job.Site.FrostDepth, Height: m.run.Fence.Height,
		Post: m.run.Post, Hole: m.run.Hole, Gravel: m.run.Setting.Gravel,
	}
	width, depth := m.width(q), footing.FindDepth(q)
	fill := pour.Fill(pour.Hole{Width: width.Width, Foot: depth.Foot}, m.run.Post, m.run.Setting)
	p.HoleWidth, p.HoleDepth, p.Foot = width.Width, depth.Hole, depth.Foot
	p.Concrete, p.ConcreteVolume, p.GravelVolume = fill.ConcreteHeight, fill.Concrete, fill.Gravel
	m.noteHole(i, width, depth, fill)
	if m.bagKnown {
		p.Bags = pour.Bags(fill.Concrete, m.bag.Yield)
	}
	p.Why.HoleWidth = m.whyWidth(q, width)
	p.Why.HoleDepth = m.whyDepth(q, depth)
	p.Why.Concrete = m.whyConcrete(p)
}

// width finds a hole's width, which all posts of a kind share.
func (m *maker) width(q footing.Question) footing.Width {
	w, ok := m.widths[q.Kind]
	if !ok {
		w = footing.FindWidth(q)
		m.widths[q.Kind] = w
	}
	return w
}

// noteHole keeps the first post that needs a spade, that was set shallower by
// hand than the rules ask, and that no concrete is left for.
func (m *maker) noteHole(i int, w footing.Width, d footing.Depth, f pour.Filling) {
	if m.noAuger < 0 && !w.Auger {
		m.noAuger = i
	}
	if m.shallow < 0 && d.ByHand && d.Foot < d.Rounded-length.Tolerance {
		m.shallow = i
	}
	if m.dry < 0 && f.ConcreteHeight <= 0 {
		m.dry = i
	}
}

// cut takes the post from the stock lengths.
func (m *maker) cut(p *Post) {
	p.Needed = p.Reveal + p.Foot + m.run.Post.Trim
	if stock, ok := footing.Stock(p.Needed, m.run.Post.Stock); ok {
		off := stock - p.Reveal - p.Foot
		p.Stock, p.CutOff = &stock, &off
	}
	p.Why.Stock = m.whyStock(p)
}

func (m *maker) bays() {
	m.out.Bays = make([]Bay, len(m.layout.Bays))
	for i, b := range m.layout.Bays {
		from, to := m.out.Posts[b.First], m.out.Posts[b.First+1]
		g := m.line.Bays[i]
		bay := Bay{
			ID: bayID(i), Gate: m.gateID(b.Gate), From: from.ID, To: to.ID,
			CentreToCentre: to.Station - from.Station,
			Clear:          to.Station - from.Station - m.run.Post.Width,
			BottomStart:    g.BottomStart, BottomEnd: g.BottomEnd,
			TopStart: g.TopStart, TopEnd: g.TopEnd,
			GapLeast: g.Least, GapMost: g.Most, Cut: g.Cut, Fill: g.Fill,
			Why: BayWhy{Spacing: m.out.Segments[b.Segment].Why},
		}
		bay.Why.Gap = m.whyGap(bay, b.Gate)
		m.out.Bays[i] = bay
		if b.Gate != spacing.NoGate {
			gate := m.run.Gates[b.Gate]
			m.out.Gates = append(m.out.Gates, Gate{
				ID: gate.ID, Name: gate.Name, Path: fmt.Sprintf("%s/gates/%d", m.path, b.Gate),
				At: gate.At, Opening: gate.Opening, First: from.ID, Second: to.ID, Bay: bay.ID,
				Leaf: bay.TopStart - bay.BottomStart,
			})
		}
	}
}
