package stage

import (
	"cmp"
	"reflect"
	"slices"

	"mallow/core/document"
	"mallow/core/finding"
	"mallow/core/footing"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/materials"
	"mallow/core/reason"
	"mallow/core/spacing"
	"mallow/core/survey"
)

// baseRun is one run of the job with what holds for it before anything is
// planned: its rules, its ground, how the line bends at its ends. Every stage
// reads it, none changes it once it is laid.
type Run struct {
	Job        job.Job
	Given      job.Run // as in the document
	Spec       job.Run // as planned: its length level, without gates that do not fit on it
	Path       string
	GatePlaces []int // place of each planned gate in the document

	Cat    materials.Catalog
	Usual  job.Run
	cannot []job.Ability // what the run's material cannot be asked to do
	Soils
	Lie

	UsualRules job.Said
	Tolerances job.Tolerances // of the fence type, with the run's own
	rules      ruleBook
	widths     map[holeKind]footing.Width
}

// soils is what the run is dug in and poured with.
type Soils struct {
	Soil      materials.Soil
	soilKnown bool
	Bag       materials.Bag
	BagKnown  bool
}

// lie is where a run lies: its ground, and how it meets the others.
type Lie struct {
	Ground  survey.Ground
	Profile survey.Profile
	Inside  job.Side          // hand on which the line's own ground lies
	Turned  [2]spacing.Corner // it starts, ends at a corner
}

// place is where a run lies on the map.
type MapPlace struct {
	From, To survey.Place  // its first and last post
	Start    length.Length // level, along the line to its first post
	Bearing  float64       // degrees clockwise from the map's up
}

// newBase reads what holds for a run. Without a length nothing stands on it.
func NewRun(j job.Job, run job.Run, cat materials.Catalog, path string, at Lie) *Run {
	m := &Run{
		Job: j, Given: run, Spec: run, Usual: cat.UsualRun(j.Units.System), Path: path, Cat: cat, Lie: at,
		widths: map[holeKind]footing.Width{},
	}
	if sys, ok := cat.System(run.System, j.Systems); ok {
		m.cannot = sys.Cannot
	}
	m.Spec.KeepOuts = slices.Clone(run.KeepOuts)
	for i := range m.Spec.KeepOuts { // a pipe has a diameter, measured or usual
		if k := &m.Spec.KeepOuts[i]; k.Kind == job.Service && k.Width == 0 {
			if s, ok := cat.Service(k.Service); ok {
				k.Width = s.Diameter
			}
		}
	}
	m.UsualRules, m.Tolerances = cat.UsualRules(j.Units.System), cat.Tolerances(run, j.Systems, j.Units.System)
	m.writeRules()
	m.Bag, m.BagKnown = cat.Bag(m.RunRules().Setting.Bag)
	m.Soil, m.soilKnown = cat.Soil(cmp.Or(run.Soil, j.Site.Soil))
	for _, kind := range postKinds {
		for _, hung := range []bool{false, true} {
			m.widths[holeKind{kind, hung}] = footing.FindWidth(m.Question(kind, hung, 0, m.KindRules(kind)))
		}
	}
	if m.Laid() {
		level := m.Ground.Length
		m.Spec.Length = &level
		m.Spec.Gates, m.GatePlaces = m.fitting()
		m.Profile = m.Ground.Profile()
	}
	return m
}

// laid tells whether the run has a length, without which nothing stands.
func (m *Run) Laid() bool { return m.Given.Length != nil }

// fitting are the gates that fit once a slope tape is reduced to level, and
// their places in the document, which was checked against the tape.
func (m *Run) fitting() (fit []job.Gate, places []int) {
	if m.Spec.Taped != job.TapedSlope {
		for i := range m.Spec.Gates {
			places = append(places, i)
		}
		return m.Spec.Gates, places
	}
	trial := m.Spec
	for i, g := range m.Spec.Gates {
		trial.Gates = append(slices.Clone(fit), g)
		if len(document.CheckGates("", trial, m.Job.Units)) == 0 {
			fit, places = trial.Gates, append(places, i)
		}
	}
	return fit, places
}

func (m *Run) GateID(index int) string {
	if index == spacing.NoGate {
		return ""
	}
	return m.Spec.Gates[index].ID
}

// found is a finding with the ways out of it, which are worked out when
// somebody asks for them.
type Found struct {
	finding.Finding
	Ways  func(*Advising) []finding.Remedy
	Maybe bool // it is only worth saying if there is a way out
}

// checking collects what a stage finds on a run.
type Checking struct {
	RunID string
	Found []Found
}

// find notes a finding, and how its ways out are worked out.
func (c *Checking) Find(f finding.Finding, ways ...func(*Advising) []finding.Remedy) {
	f.Place.Run = c.RunID
	one := Found{Finding: f}
	if len(ways) > 0 {
		one.Ways = ways[0]
	}
	c.Found = append(c.Found, one)
}

// oneWay is the way out of a finding that has but one.
func OneWay(says reason.Text, edits ...job.Edit) func(*Advising) []finding.Remedy {
	return func(*Advising) []finding.Remedy { return []finding.Remedy{{Says: says, Edits: edits}} }
}

// Figure is the address of a figure that can be explained.
type Figure struct {
	Line string `json:"line,omitempty" jsonschema_description:"Line, for its corners and its closing."`
	Run  string `json:"run,omitempty" jsonschema_description:"Run; left out for the whole job's totals and for a line's figures."`
	Of   string `json:"of" jsonschema:"required,enum=post,enum=bay,enum=segment,enum=gate,enum=string,enum=tops,enum=part,enum=totals,enum=corner,enum=closing"`
	ID   string `json:"id,omitempty" jsonschema_description:"Of the post, bay or gate; of a corner the run that starts there; the place of the segment in its list."`
	What string `json:"what,omitempty" jsonschema_description:"Which of its figures: a post's station, top, holeWidth, holeDepth, concrete, stock or gust; a bay's spacing, gap or lean; a gate's inside, clear, swing or pull; a string's constant, sag or drift; concrete, gravel, hours or spoil in all."`
}

// same tells whether a run lies as another does.
func (l Lie) Same(o Lie) bool {
	return l.Inside == o.Inside && l.Turned == o.Turned && reflect.DeepEqual(l.Ground, o.Ground)
}
