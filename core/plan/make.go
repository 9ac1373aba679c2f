package plan

import (
	"cmp"
	"slices"
	"strconv"

	"mallow/core/finding"
	"mallow/core/footing"
	"mallow/core/grade"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/materials"
	"mallow/core/reason"
	"mallow/core/spacing"
	"mallow/core/survey"
)

// Make plans a job that Decode has checked.
func Make(j job.Job, cat materials.Catalog) Plan { return makePlan(j, cat, newWatch(nil)) }

// MakeUntil is Make for those who cannot wait without end: stop is asked now
// and then, and the error that it gives ends the planning.
func MakeUntil(stop func() error, j job.Job, cat materials.Catalog) (p Plan, err error) {
	err = until(func() { p = makePlan(j, cat, newWatch(stop)) })
	return p, err
}

func makePlan(j job.Job, cat materials.Catalog, watch *watch) Plan {
	p := Plan{Mallow: Version, Name: j.Name, Units: j.Units, Lines: []Line{}, Findings: []finding.Finding{}}
	book := &reason.Book{}
	var makers []*maker
	for l := range j.Lines {
		w := newLiner(j, l, cat, book, watch)
		w.make()
		for _, m := range w.runs {
			p.Runs = append(p.Runs, m.out)
		}
		w.out.First = len(makers)
		makers = append(makers, w.runs...)
		p.Lines = append(p.Lines, w.out)
		p.Findings = append(p.Findings, w.findings...)
	}
	judgeSwings(makers)
	for _, m := range makers {
		p.Findings = append(p.Findings, m.findings...)
	}
	p.Levels = jobLevel(j, cat.UsualRules(j.Units.System))
	p.Before = clearance(j)
	p.Findings = append(p.Findings, siteFindings(j, cat, makers)...)
	p.Cautions = cautions(makers)
	p.Totals = jobTotals(makers, book, cat)
	p.Findings = append(p.Findings, nearMix(j, p.Totals, makers)...)
	p.Findings = append(p.Findings, watch.findings()...)
	p.Rules = book.Fold()
	p.Reasons = book.Whys()
	return p
}

// maker plans one run.
type maker struct {
	job   job.Job
	given job.Run // as in the document
	run   job.Run // as planned: its length level, without gates that do not fit on it
	gates []int   // place of each planned gate in the document
	usual job.Run

	usualRules job.Said
	rules      ruleBook
	soil       materials.Soil
	soilKnown  bool
	cards      map[cardKey]int
	ditches    []ditch // what each card was worked out from

	path      string
	cat       materials.Catalog
	cannot    []job.Ability // what the run's material cannot be asked to do
	bag       materials.Bag
	bagKnown  bool
	book      *reason.Book
	watch     *watch
	few       reason.Index[any] // explanations of which there are few, under any key
	findings  []finding.Finding
	depthWhys reason.Index[depthKey]
	stockWhys reason.Index[[2]length.Length] // by reveal and foot
	gapWhys   reason.Index[[2]grade.Gap]     // by least and most
	windWhys  reason.Index[windKey]
	shared    map[any][]reason.Step // rules that many explanations have in common

	widths map[holeKind]footing.Width

	// Posts that something is to be said of, noted while their holes are sized.
	noAuger, shallow, dry int

	widest length.Length // of the holes and posts
	weak   []string      // posts that carry a joint in every rail
	asIs   *maker        // the run as it is, weighed as trials are

	ground  survey.Ground
	profile survey.Profile
	layout  spacing.Layout
	steep   []spacing.Lean // leans that were too long for equal bays
	line    grade.Line
	rough   bool              // a trial that asks only what earth the line takes
	turned  [2]spacing.Corner // the run starts, ends at a corner
	inside  job.Side          // hand on which the line's own ground lies
	start   *joint            // the corner post that the run before ends on, or nil
	end     *joint            // the corner post that the next run starts on, or nil
	out     Run
}

func newMaker(j job.Job, run job.Run, cat materials.Catalog, book *reason.Book, watch *watch, path string) *maker {
	watch.look()
	m := &maker{
		job: j, given: run, run: run, usual: cat.UsualRun(j.Units.System), path: path, cat: cat, book: book, watch: watch,
		few:       reason.NewIndex[any](book),
		depthWhys: reason.NewIndex[depthKey](book),
		stockWhys: reason.NewIndex[[2]length.Length](book),
		gapWhys:   reason.NewIndex[[2]grade.Gap](book),
		windWhys:  reason.NewIndex[windKey](book),
		shared:    map[any][]reason.Step{},
		widths:    map[holeKind]footing.Width{},
		noAuger:   -1, shallow: -1, dry: -1,
	}
	if sys, ok := cat.System(run.System, j.Systems); ok {
		m.cannot = sys.Cannot
	}
	m.run.KeepOuts = slices.Clone(run.KeepOuts)
	for i := range m.run.KeepOuts { // a pipe has a diameter, measured or usual
		if k := &m.run.KeepOuts[i]; k.Kind == job.Service && k.Width == 0 {
			if s, ok := cat.Service(k.Service); ok {
				k.Width = s.Diameter
			}
		}
	}
	m.usualRules = cat.UsualRules(j.Units.System)
	m.bag, m.bagKnown = cat.Bag(m.runRules().Setting.Bag)
	m.soil, m.soilKnown = cat.Soil(cmp.Or(run.Soil, j.Site.Soil))
	frost, estimated := m.frost()
	m.out = Run{
		Solid: m.solid(), LooksRefused: m.looksRefused(),
		ID: run.ID, Name: run.Name, Path: m.path, Hollow: run.Post.Hollow, Frost: frost, FrostEstimated: estimated, Cards: []Card{}, Levels: []RuleLevel{},
		Ground: []survey.Point{}, Segments: []Segment{}, Posts: []Post{}, Bays: []Bay{}, Gates: []Gate{}, AddGate: []NewGate{}, InTheWay: []InTheWay{}, Reminders: []Caution{}, Rails: []RailRow{}, Way: cmp.Or(run.Spacing.Way, job.EqualBays),
	}
	return m
}

// laid tells whether the run has a length, without which nothing stands.
func (m *maker) laid() bool { return m.given.Length != nil }

// lay finds where the run's posts stand, which the runs on both sides of a
// corner must know of each other.
func (m *maker) lay(ground survey.Ground, turned [2]spacing.Corner) {
	m.ground, m.turned = ground, turned
	m.missing()
	if !m.laid() {
		return
	}
	level := ground.Length
	m.run.Length = &level
	m.fitGates()
	m.profile = ground.Profile()
	m.layout = spacing.Lay(m.run, m.site(m.run))
	m.out.Length, m.out.Correction = level, ground.Correction
	m.out.SlopeLength = m.profile.Along(level)
	m.out.Ground, m.out.Measured = ground.Points, ground.Measured
}

// site is what the spacing must know beside the run.
func (m *maker) site(run job.Run) spacing.Site {
	s := spacing.Site{Mark: m.job.Units.SmallestMark, Hole: m.opened, Start: m.turned[0], End: m.turned[1]}
	if _, piece := run.Spacing.ByPiece(); piece && run.Leans() {
		s.Leans = m.groundLeans(run)
	}
	return s
}

// fitGates leaves out the gates that do not fit once a slope tape is reduced
// to level, and says so; the document was checked against the tape.
func (m *maker) fitGates() {
	m.gates = make([]int, len(m.run.Gates))
	for i := range m.gates {
		m.gates[i] = i
	}
	if m.run.Taped != job.TapedSlope {
		return
	}
	all := m.run.Gates
	m.run.Gates, m.gates = nil, nil
	for i, g := range all {
		trial := m.run
		trial.Gates = append(append([]job.Gate(nil), m.run.Gates...), g)
		if len(job.CheckGates("", trial, m.job.Units)) == 0 {
			m.run.Gates, m.gates = trial.Gates, append(m.gates, i)
			continue
		}
		m.find(finding.Finding{Rule: "gate-off-level", Stage: finding.Walk, Severity: finding.Cannot, Place: finding.Place{Gate: g.ID},
			Says: reason.Say("Level, the run is ", reason.Tape(*m.run.Length), " long, and the gate at ", reason.Tape(g.At), " no longer fits on it: it is left out.")})
	}
}

// make plans the posts and bays; the runs on either side have been laid.
func (m *maker) make(start, end *joint) {
	if !m.laid() {
		return
	}
	m.start, m.end = start, end
	m.book.Expect(4*len(m.layout.Posts) + 16) // most posts differ in depth, length and gap
	m.segments()
	m.posts()
}

// finish plans what needs the corner posts of the runs on either side.
func (m *maker) finish() {
	if m.laid() {
		m.obstacles()
		m.bays()
		m.out.Finished = m.finishedGround()
		m.wind()
		m.gatesMade()
		m.stopped()
		m.rails()
		m.strings()
		m.setOut()
		m.topLine()
	}
	m.out.Totals = m.totals()
	if m.laid() {
		m.judge()
		m.judgeObstacles()
		m.judgeSpacing()
		m.judgeLeans()
		m.judgeSystem()
		m.judgeStopped()
		m.judgeFilling()
		m.judgeGates()
		m.judgeNear()
		m.out.AddGate = m.newGates()
	}
	m.out.Levels = m.levels()
}

func (m *maker) gateID(index int) string {
	if index == spacing.NoGate {
		return ""
	}
	return m.run.Gates[index].ID
}

func (m *maker) segments() {
	for _, s := range m.layout.Segments {
		out := Segment{
			From: s.From, To: s.To, Gate: m.gateID(s.Gate), Bays: s.Bays, Each: s.Regular,
			Odd: s.Odd, Uneven: s.Uneven, Shift: s.Shift, Why: m.whySegment(s),
		}
		if s.Block != nil {
			for _, k := range s.Block.Of {
				out.GivenUp = append(out.GivenUp, m.run.KeepOuts[k].ID)
			}
		}
		m.out.Segments = append(m.out.Segments, out)
	}
}

func postID(i int) string { return "P" + strconv.Itoa(i+1) }
func bayID(i int) string  { return "B" + strconv.Itoa(i+1) }

func (m *maker) posts() {
	m.out.Posts = make([]Post, len(m.layout.Posts))
	for i, at := range m.layout.Posts {
		m.watch.look()
		ground := m.profile.Height(at.Station)
		p := Post{
			ID: postID(i), Kind: at.Kind, Gate: m.gateID(at.Gate),
			Station: at.Station, Slope: m.profile.Along(at.Station),
			Ground: ground, Finished: ground, Top: m.line.Tops[i], Reveal: m.line.Tops[i] - ground,
			Shift: at.Shift, Card: -1, spot: -1,
		}
		if at.Held != spacing.Nothing {
			held := m.run.FixedPosts[at.Held]
			p.Held, p.Landed, p.Grade = held.ID, held.Landed, held.Grade
		}
		if at.Stays != spacing.Nothing {
			p.Stays = m.run.KeepOuts[at.Stays].ID
		}
		if i == len(m.out.Posts)-1 && m.end != nil {
			p.Top = max(p.Top, m.end.next.line.Tops[0])
			p.Reveal = p.Top - ground
		}
		p.Grade = p.Grade || m.line.Knots[i]
		m.section(&p, at)
		m.onSlope(&p, i)
		switch {
		case p.Stays != "":
			m.reuse(&p)
		default:
			m.dig(&p, i)
			m.cut(&p)
		}
		p.Why.Station = m.whyStation(p, at)
		p.Why.Top = m.whyTop(p, m.courseLook(min(i, len(m.layout.Bays)-1)))
		m.out.Posts[i] = p
	}
}

// widestPost is the widest that an old post is taken to be; what is wider is
// its footing, or a stretch.
const widestPost = 400 * length.Millimetre

// section gives a post its own section: that of its kind, or of the old post
// that it is.
func (m *maker) section(p *Post, at spacing.Post) {
	own := m.run.PostOf(p.Kind)
	p.Width, p.Round, p.Hollow = own.Width, own.Shape == job.RoundPost, own.Hollow
	if at.Stays == spacing.Nothing {
		return
	}
	if wide := m.run.KeepOuts[at.Stays].Width; wide >= 20 && wide <= widestPost {
		p.Width = wide
	}
}

// cut takes the post from the stock lengths.
func (m *maker) cut(p *Post) {
	p.Needed = p.Reveal + p.Foot
	if p.CutFirst = m.run.Post.Cut == job.CutFirst; !p.CutFirst && m.can(job.CutPosts) {
		p.Needed += m.run.Post.Trim
	}
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
			Clear:          to.Station - from.Station - (m.run.PostOf(from.Kind).Width+m.run.PostOf(to.Kind).Width)/2,
			Odd:            b.Odd, Piece: b.Piece, PieceCut: b.Cut, Trims: b.Trims, Lead: b.Lead, Trail: b.Trail,
			BottomStart: g.BottomStart, BottomEnd: g.BottomEnd,
			TopStart: g.TopStart, TopEnd: g.TopEnd,
			GapLeast: g.Least, GapMost: g.Most, Cut: g.Cut, Fill: g.Fill,
			Why: BayWhy{Spacing: m.out.Segments[b.Segment].Why},
		}
		if b.Held != spacing.Nothing {
			bay.Held = m.run.HeldBays[b.Held].ID
		}
		m.leaning(&bay, i, from, to)
		bay.Why.Gap = m.whyGap(bay, b.Gate)
		m.out.Bays[i] = bay
		if b.Gate != spacing.NoGate {
			m.out.Gates = append(m.out.Gates, m.sized(b.Gate, &bay))
		}
	}
}
