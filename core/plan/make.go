package plan

import (
	"strconv"

	"mallow/core/engine"
	"mallow/core/finding"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/materials"
	"mallow/core/reason"
	"mallow/core/stage"
	"mallow/core/stage/dig"
	"mallow/core/stage/gates"
	"mallow/core/stage/load"
	"mallow/core/stage/setout"
	"mallow/core/stage/slope"
	"mallow/core/stage/space"
	"mallow/core/stage/walk"
	"mallow/core/survey"
)

// Make plans a job that Decode has checked, with all that can be said of it:
// every figure explained, every finding with its ways out.
func Make(j job.Job, cat materials.Catalog) Plan {
	p, _ := MakeUntil(nil, j, cat) // only who stops it gets an error
	return p
}

// MakeUntil is Make for those who cannot wait without end: stop is asked now
// and then, and the error that it gives ends the planning.
func MakeUntil(stop func() error, j job.Job, cat materials.Catalog) (p Plan, err error) {
	watch := stage.NewWatch(stop)
	err = stage.Until(func() {
		r := &Result{engine.Compute(j, cat, nil, watch.Look)}
		p = r.Figures()
		r.put(&p, r.tell(watch))
		r.putBill(&p)
		p.Pour, p.Log = r.PourDay(), r.Forecast()
		p.Findings = r.advised(watch)
		r.putWays(&p, watch)
		r.putReasons(&p)
	})
	return p, err
}

// Worded plans a job with all that is said on paper and in files: figures,
// findings and what to do, without reasons and ways out.
func Worded(stop func() error, j job.Job, cat materials.Catalog) (p Plan, err error) {
	watch := stage.NewWatch(stop)
	err = stage.Until(func() {
		r := &Result{engine.Compute(j, cat, nil, watch.Look)}
		p = r.Figures()
		r.put(&p, r.tell(watch))
		r.putBill(&p)
		p.Pour, p.Schedule, p.Log = r.PourDay(), r.schedule(p, p.Items), r.Forecast()
	})
	return p, err
}

// Posts is how many posts the job has.
func (r *Result) Posts() int {
	n := 0
	for _, run := range r.Runs {
		n += len(run.Holes.Posts)
	}
	return n
}

// Compute finds a job's figures. What the last result has from the same, it
// takes over; there need be none.
func Compute(stop func() error, j job.Job, cat materials.Catalog, last *Result) (r *Result, err error) {
	var was *engine.Result
	if last != nil {
		was = last.Result
	}
	err = stage.Until(func() { r = &Result{engine.Compute(j, cat, was, stage.NewWatch(stop).Look)} })
	return r, err
}

// Again is Compute of a job in which mostly nothing was changed but what is
// written down, which it does not compute again.
func Again(stop func() error, j job.Job, cat materials.Catalog, last *Result) (*Result, error) {
	if last != nil {
		if noted, ok := last.Noted(j); ok {
			return &Result{noted}, nil
		}
	}
	return Compute(stop, j, cat, last)
}

// Result is a job as it is computed. It does not change: many may ask it at
// once, and the next one takes over what is still the same.
type Result struct{ *engine.Result }

// Figures is the plan without words but those of the findings, and without the
// ways out of these.
func (r *Result) Figures() Plan {
	p := Plan{Mallow: Version, Name: r.Job.Name, Units: r.Job.Units, Lines: []walk.Line{}, Findings: []finding.Finding{}, Before: walk.ClearanceOf(r.Job), Totals: r.Totals}
	for _, l := range r.Lines {
		line := l.Walk.Out
		line.First = len(p.Runs)
		line.Corners = append([]walk.Corner{}, line.Corners...)
		for i := range line.Corners {
			line.Corners[i].Post = cornerPost(l, i)
		}
		p.Lines = append(p.Lines, line)
		for i, run := range l.Runs {
			p.Runs = append(p.Runs, document(run, l, i))
		}
	}
	r.putStruck(&p)
	for _, f := range r.Findings() {
		if !f.Maybe {
			p.Findings = append(p.Findings, f.Finding)
		}
	}
	return p
}

// cornerPost is the post at one of a line's corners: the last one of the run
// that ends there, or else the first one of the run that starts.
func cornerPost(l *engine.Line, i int) string {
	n := len(l.Runs)
	before := i - 1
	if l.Walk.Line.Closed {
		before = (i + n - 1) % n
	}
	if before >= 0 {
		if posts := l.Runs[before].Holes.Posts; len(posts) > 0 {
			return posts[len(posts)-1].Label
		}
	}
	if i < n && len(l.Runs[i].Holes.Posts) > 0 {
		return l.Runs[i].Holes.Posts[0].Label
	}
	return ""
}

// document is one run of the plan document.
func document(run *engine.Run, l *engine.Line, i int) Run {
	m, at := run.Load, l.Walk.Places[i]
	frost, estimated := m.Frost()
	out := Run{
		ID: m.Spec.ID, Name: m.Spec.Name, Path: m.Path, Line: l.Walk.Line.ID, Start: at.Start, From: at.From, To: at.To, Bearing: at.Bearing,
		Hollow: m.Spec.Post.Hollow, Frost: frost, FrostEstimated: estimated, Solid: m.Solid(), LooksRefused: m.LooksRefused(), Way: m.Spec.Spacing.Way,
		Cards: m.Cards, Ground: []survey.Point{}, Segments: m.Segments, Posts: m.Holes.Posts, Bays: m.Slope.Bays, Gates: m.Made, InTheWay: m.InTheWay, Rails: m.RailRows,
		String: run.Marking.Strings, SetOut: run.Marking.Marks, TopLine: run.Marking.Tops, Totals: m.Totals, Curb: m.Curb, Parts: run.Parts, Built: run.Build,
	}
	if s, ok := m.Cat.System(m.Spec.System, m.Job.Systems); ok {
		out.Face, out.Type = s.Face, s.Name
	}
	if out.Way == "" {
		out.Way = job.EqualBays
	}
	if !m.Laid() {
		out.Segments, out.Posts, out.Bays, out.InTheWay = []space.Segment{}, []dig.Post{}, []slope.Bay{}, []space.InTheWay{}
		return out
	}
	out.Length, out.Correction, out.SlopeLength = m.Ground.Length, m.Ground.Correction, m.Profile.Along(m.Ground.Length)
	out.Ground, out.Measured, out.Finished = m.Ground.Points, m.Ground.Measured, m.Slope.Finished
	return out
}

// putStruck marks what leaves strike on the map.
func (r *Result) putStruck(p *Plan) {
	all := make([]*gates.Gates, len(r.Runs))
	place := map[*gates.Gates]int{}
	for i, run := range r.Runs {
		all[i], place[run.Gates] = run.Gates, i
	}
	hits, _ := gates.Strikes(all)
	for _, h := range hits {
		run := &p.Runs[place[h.On()]]
		run.Gates = h.Mark(run.Gates)
	}
}

// Told is what is said beside the figures: what to do, what to mind, what can
// be chosen.
type Told struct {
	Cautions []stage.Caution `json:"cautions" jsonschema:"required"`
	Levels   stage.RuleLevel `json:"levels" jsonschema:"required" jsonschema_description:"The rules for holes as they come out for the whole job."`
	Runs     []RunTold       `json:"runs" jsonschema:"required" jsonschema_description:"In the plan's order."`
}

// RunTold is what is said of a run.
type RunTold struct {
	Run       string            `json:"run" jsonschema:"required"`
	Reminders []stage.Caution   `json:"reminders" jsonschema:"required"`
	Levels    []stage.RuleLevel `json:"levels" jsonschema:"required" jsonschema_description:"The rules for holes as they come out for the run, for each kind of post, and for the single posts that have their own."`
	AddGate   []space.NewGate   `json:"addGate" jsonschema:"required" jsonschema_description:"Gates that can be put into it, and where each would go."`
	Cards     [][]reason.Text   `json:"cards" jsonschema:"required" jsonschema_description:"What to do at each kind of hole, in order."`
	Gates     []GateTold        `json:"gates" jsonschema:"required"`
	Tops      []reason.Text     `json:"tops" jsonschema:"required" jsonschema_description:"What to do on site to set the tops, in order."`
}

// GateTold is what is said of a gate.
type GateTold struct {
	Checks []gates.GateCheck `json:"checks" jsonschema:"required" jsonschema_description:"Measures that show that its two posts stand right, before anything is hung."`
	leaves []gates.GateLeaf
	Braces []gates.LeafBrace  `json:"braces" jsonschema:"required"`
	Adjust []*gates.Adjusting `json:"adjust" jsonschema:"required" jsonschema_description:"How each leaf's tip is lifted; null where it has not dropped."`
	Steps  []gates.GateStep   `json:"steps" jsonschema:"required"`
	After  []gates.GateStep   `json:"after" jsonschema:"required"`
	Order  []gates.GateStep   `json:"order" jsonschema:"required"`
}

// Tell says what there is to say beside the figures.
func (r *Result) Tell(stop func() error) (t Told, err error) {
	err = stage.Until(func() { t = r.tell(stage.NewWatch(stop)) })
	return t, err
}

func (r *Result) tell(watch *stage.Watch) Told {
	t := Told{Cautions: r.Cautions(), Levels: stage.JobLevel(r.Job, r.Catalog.UsualRules(r.Job.Units.System)), Runs: []RunTold{}}
	advice := r.Advice(watch)
	for _, run := range r.Runs {
		out := RunTold{Run: run.Laid.Spec.ID, Reminders: []stage.Caution{}, Levels: run.Holes.Levels(), AddGate: []space.NewGate{}, Cards: run.Holes.Tell(), Gates: []GateTold{}, Tops: []reason.Text{}}
		if run.Laid.Laid() {
			out.Reminders, out.Tops = run.Marking.Remind(), run.Marking.TopSteps(run.Marking.Tops)
			out.AddGate = run.Line.NewGates(advice.On(run.Laid.Spec.ID))
		}
		for _, g := range run.Gates.Tell() {
			told := GateTold{Checks: g.Checks, leaves: g.Leaves, Steps: g.Steps, After: g.After, Order: g.Order, Braces: []gates.LeafBrace{}, Adjust: []*gates.Adjusting{}}
			for _, l := range g.Leaves {
				told.Braces, told.Adjust = append(told.Braces, *l.Brace), append(told.Adjust, l.Adjust)
			}
			out.Gates = append(out.Gates, told)
		}
		t.Runs = append(t.Runs, out)
	}
	return t
}

// put puts what is told into the plan's own places.
func (r *Result) put(p *Plan, t Told) {
	p.Cautions, p.Levels = t.Cautions, &t.Levels
	for i := range p.Runs {
		run, told := &p.Runs[i], &t.Runs[i]
		run.Reminders, run.Levels, run.AddGate = told.Reminders, told.Levels, told.AddGate
		run.Cards = append([]dig.Card{}, run.Cards...)
		for k := range run.Cards {
			run.Cards[k].Steps = told.Cards[k]
		}
		run.Gates = append([]gates.Gate{}, run.Gates...)
		for k := range run.Gates {
			g, said := &run.Gates[k], &told.Gates[k]
			g.Checks, g.Steps, g.After, g.Order = said.Checks, said.Steps, said.After, said.Order
			g.Leaves = append([]gates.GateLeaf{}, g.Leaves...)
			for l := range g.Leaves {
				g.Leaves[l].Brace, g.Leaves[l].Adjust = said.leaves[l].Brace, said.leaves[l].Adjust
			}
		}
		if run.TopLine != nil {
			tops := *run.TopLine
			tops.Steps = told.Tops
			run.TopLine = &tops
		}
	}
}

// Advised is a finding with its ways out.
type Advised struct {
	ID       string           `json:"id" jsonschema:"required" jsonschema_description:"Name of the finding."`
	Remedies []finding.Remedy `json:"remedies" jsonschema:"required"`
	More     *finding.Finding `json:"more,omitempty" jsonschema_description:"The finding itself, where it is only worth saying since there is a way out."`
}

// Advise works out the ways out of findings, one after the other, of all of
// them or of those that are named, and hands each over as it is found.
func (r *Result) Advise(stop func() error, ids []string, each func(Advised) error) error {
	watch := stage.NewWatch(stop)
	var failed error
	err := stage.Until(func() {
		advice := r.Advice(watch)
		for _, f := range r.Findings() {
			if len(ids) > 0 && !contains(ids, f.ID) {
				continue
			}
			one := Advised{ID: f.ID, Remedies: advice.Ways(f)}
			if f.Maybe {
				if len(one.Remedies) == 0 {
					continue
				}
				whole := f.Finding
				whole.Remedies = one.Remedies
				one.More = &whole
			}
			if one.Remedies == nil {
				one.Remedies = []finding.Remedy{}
			}
			if failed = each(one); failed != nil {
				return
			}
		}
		for _, f := range watch.Findings() {
			f.ID = f.Rule
			if failed = each(Advised{ID: f.ID, Remedies: []finding.Remedy{}, More: &f}); failed != nil {
				return
			}
		}
	})
	if failed != nil {
		return failed
	}
	return err
}

func contains(list []string, s string) bool { return stage.Has(list, s) }

// advised are all findings with their ways out.
func (r *Result) advised(watch *stage.Watch) []finding.Finding {
	out := []finding.Finding{}
	advice := r.Advice(watch)
	for _, f := range r.Findings() {
		f.Remedies = advice.Ways(f)
		if !f.Maybe || len(f.Remedies) > 0 {
			out = append(out, f.Finding)
		}
	}
	return append(out, watch.Findings()...)
}

// Ways are the ways out of a hole that was stopped, each in the measure of the
// hole as it should have been.
func (r *Result) Ways(stop func() error, run, post string) (ways []dig.WayOut, ok bool, err error) {
	err = stage.Until(func() {
		res := r.Run(run)
		if res == nil {
			return
		}
		for i := range res.Holes.Posts {
			if p := &res.Holes.Posts[i]; p.Label == post && p.Stopped != nil {
				ways, ok = res.Holes.WaysOut(r.Advice(stage.NewWatch(stop)).On(run), i), true
			}
		}
	})
	return ways, ok, err
}

// putWays puts the ways out of stopped holes into the plan.
func (r *Result) putWays(p *Plan, watch *stage.Watch) {
	advice := r.Advice(watch)
	for i, run := range r.Runs {
		var posts []dig.Post
		for k := range run.Holes.Posts {
			if run.Holes.Posts[k].Stopped == nil {
				continue
			}
			if posts == nil {
				posts = append([]dig.Post{}, p.Runs[i].Posts...)
				p.Runs[i].Posts = posts
			}
			s := *posts[k].Stopped
			s.Ways = run.Holes.WaysOut(advice.On(run.Laid.Spec.ID), k)
			posts[k].Stopped = &s
		}
	}
}

// Alternatives lays a run out in the other ways worth having. It is false
// when the job has no such run with a length.
func (r *Result) Alternatives(stop func() error, run string) (out []Alternative, ok bool, err error) {
	err = stage.Until(func() {
		if m := r.Run(run); m != nil && m.Laid.Laid() {
			out, ok = alternatives(r.Advice(stage.NewWatch(stop)), m), true
		}
	})
	return out, ok, err
}

// Looks plans a run in every look. It is false when the job has no such
// run with a length.
func (r *Result) Looks(stop func() error, run string) (out []LookChoice, ok bool, err error) {
	err = stage.Until(func() {
		if m := r.Run(run); m != nil && m.Laid.Laid() {
			out, ok = looksOf(r.Advice(stage.NewWatch(stop)), m), true
		}
	})
	return out, ok, err
}

// Alternatives computes a job and lays one of its runs out in other ways.
func Alternatives(j job.Job, cat materials.Catalog, run string) ([]Alternative, bool) {
	out, ok, _ := AlternativesUntil(nil, j, cat, run)
	return out, ok
}

// AlternativesUntil is Alternatives with somebody who may end it, as MakeUntil.
func AlternativesUntil(stop func() error, j job.Job, cat materials.Catalog, run string) ([]Alternative, bool, error) {
	r, err := Compute(stop, j, cat, nil)
	if err != nil {
		return nil, false, err
	}
	return r.Alternatives(stop, run)
}

// Looks computes a job and plans one of its runs in every look.
func Looks(j job.Job, cat materials.Catalog, run string) ([]LookChoice, bool) {
	out, ok, _ := LooksUntil(nil, j, cat, run)
	return out, ok
}

// LooksUntil is Looks with somebody who may end it, as MakeUntil.
func LooksUntil(stop func() error, j job.Job, cat materials.Catalog, run string) ([]LookChoice, bool, error) {
	r, err := Compute(stop, j, cat, nil)
	if err != nil {
		return nil, false, err
	}
	return r.Looks(stop, run)
}

// explainer puts explanations into a plan, each once.
type explainer struct {
	r     *Result
	whys  []reason.Why
	seen  map[string]reason.Ref
	rules map[string]int
	all   []reason.Step
}

// putReasons explains every figure of the plan that can be explained.
func (r *Result) putReasons(p *Plan) {
	e := &explainer{r: r, seen: map[string]reason.Ref{}, rules: map[string]int{}, all: []reason.Step{}, whys: []reason.Why{}}
	for l := range p.Lines {
		line := &p.Lines[l]
		for i := range line.Corners {
			line.Corners[i].Why = e.ref(stage.Figure{Line: line.ID, Of: "corner", ID: line.Corners[i].After})
		}
		if line.Closing != nil {
			c := *line.Closing
			c.Why = e.ref(stage.Figure{Line: line.ID, Of: "closing"})
			line.Closing = &c
		}
	}
	for i := range p.Runs {
		e.run(&p.Runs[i])
	}
	p.Totals.Why = e.totals("")
	p.Reasons, p.Rules = e.whys, e.all
}

func (e *explainer) run(run *Run) {
	of := func(of, id, what string) *reason.Ref {
		return e.ref(stage.Figure{Run: run.ID, Of: of, ID: id, What: what})
	}
	must := func(of2, id, what string) reason.Ref {
		if ref := of(of2, id, what); ref != nil {
			return *ref
		}
		return 0
	}
	run.Segments = append([]space.Segment{}, run.Segments...)
	for i := range run.Segments {
		run.Segments[i].Why = of("segment", strconv.Itoa(i), "")
	}
	run.Posts = append([]dig.Post{}, run.Posts...)
	for i := range run.Posts {
		p := &run.Posts[i]
		p.Why = &dig.PostWhy{Station: must("post", p.Label, "station"), Top: must("post", p.Label, "top"), HoleWidth: must("post", p.Label, "holeWidth"),
			HoleDepth: must("post", p.Label, "holeDepth"), Concrete: must("post", p.Label, "concrete"), Stock: must("post", p.Label, "stock")}
		if p.Wind != nil {
			w := *p.Wind
			w.Why = of("post", p.Label, "gust")
			p.Wind = &w
		}
	}
	run.Bays = append([]slope.Bay{}, run.Bays...)
	for i := range run.Bays {
		b := &run.Bays[i]
		b.Why = &slope.BayWhy{Spacing: must("bay", b.Label, "spacing"), Gap: must("bay", b.Label, "gap"), Lean: must("bay", b.Label, "lean")}
	}
	for i := range run.Gates {
		g := &run.Gates[i]
		g.Why = &gates.GateWhy{Inside: must("gate", g.ID, "inside"), Clear: must("gate", g.ID, "clear"), Swing: must("gate", g.ID, "swing"), Pull: must("gate", g.ID, "pull")}
	}
	if run.String != nil {
		s := *run.String
		s.Why = &setout.RunStringWhy{Constant: must("string", "", "constant"), Sag: must("string", "", "sag"), Drift: must("string", "", "drift")}
		run.String = &s
	}
	if run.TopLine != nil {
		t := *run.TopLine
		t.Why = of("tops", "", "")
		run.TopLine = &t
	}
	run.Totals.Why = e.totals(run.ID)
}

func (e *explainer) totals(run string) *load.TotalsWhy {
	of := func(what string) reason.Ref {
		if ref := e.ref(stage.Figure{Run: run, Of: "totals", What: what}); ref != nil {
			return *ref
		}
		return 0
	}
	return &load.TotalsWhy{Concrete: of("concrete"), Gravel: of("gravel"), Hours: of("hours"), Spoil: of("spoil")}
}

// ref is the place of a figure's explanation in the plan's list; nil where the
// figure has none.
func (e *explainer) ref(f stage.Figure) *reason.Ref {
	w, ok := e.r.Explain(f)
	if !ok {
		return nil
	}
	w.Rules = make([]int, len(w.Steps))
	for i, s := range w.Steps {
		key := s.Key()
		at, ok := e.rules[key]
		if !ok {
			at = len(e.all)
			e.all, e.rules[key] = append(e.all, s), at
		}
		w.Rules[i] = at
	}
	key := w.Key()
	ref, ok := e.seen[key]
	if !ok {
		ref = reason.Ref(len(e.whys))
		e.whys, e.seen[key] = append(e.whys, w), ref
	}
	return &ref
}

// GivenUp names what a plan's layouts had to leave out, run by run.
func GivenUp(p Plan) []string {
	var out []string
	for _, r := range p.Runs {
		for _, s := range r.Segments {
			for _, id := range s.GivenUp {
				out = append(out, r.ID+"/"+id)
			}
		}
	}
	return out
}

// outline draws a trial small.
func outline(m *load.Load) Silhouette {
	s := Silhouette{Ground: [][2]length.Length{}, Posts: [][3]length.Length{}, Bays: []Outline{}, Hollow: m.Spec.Post.Hollow}
	s.add(Run{Length: m.Ground.Length, Ground: m.Ground.Points, Posts: m.Holes.Posts, Bays: m.Slope.Bays}, 0, true)
	return s
}
