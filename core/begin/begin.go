// Package begin makes a whole job of what a customer says on the phone: six
// answers, any of which may be left out. What was not said is assumed, and the
// plan says that it was.
package begin

import (
	"cmp"
	"encoding/json"
	"slices"
	"strconv"

	"mallow/core/document"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/materials"
	"mallow/core/plan"
	"mallow/core/reshape"
	"mallow/core/words"
)

// Answers is what a customer says on the phone.
type Answers struct {
	Name   string         `json:"name,omitempty" jsonschema:"maxLength=120" jsonschema_description:"Left out: the fence and its length."`
	System length.System  `json:"system" jsonschema:"required,enum=imperial,enum=metric"`
	Fence  string         `json:"fence,omitempty" jsonschema:"maxLength=40" jsonschema_description:"Fence type, by its id in the catalogue; left out: usual values."`
	Height *length.Length `json:"height,omitempty" jsonschema:"minimum=300,maximum=6000" jsonschema_description:"Left out: the type's own."`
	Length *length.Length `json:"length,omitempty" jsonschema:"minimum=300,maximum=10000000" jsonschema_description:"Left out: 60 ft or 20 m are assumed, 12 ft or 3.6 m between the posts of a bare gate, and the plan says so."`
	Gate   AskedGate      `json:"gate,omitempty" jsonschema:"enum=walk,enum=drive" jsonschema_description:"Left out: none."`
	Fall   length.Length  `json:"fall,omitempty" jsonschema:"minimum=-100000,maximum=100000" jsonschema_description:"How much lower the far end is; left out: flat."`
	Frost  *length.Length `json:"frost,omitempty" jsonschema:"minimum=0,maximum=5000" jsonschema_description:"Frost depth; left out: estimated from the winter."`
	Winter Winter         `json:"winter,omitempty" jsonschema:"enum=mild,enum=cold,enum=severe" jsonschema_description:"What the frost is estimated from where its depth is not known; left out: cold."`
}

// AskedGate is a gate as a customer asks for it.
type AskedGate string

// Gates.
const (
	Walk  AskedGate = "walk"
	Drive AskedGate = "drive"
)

// Winter is how cold it gets, as people remember it.
type Winter string

// Winters.
const (
	Mild   Winter = "mild"   // frozen for days
	Cold   Winter = "cold"   // for weeks
	Severe Winter = "severe" // for months
)

// indexes are freezing indexes of the air in a cold winter, Celsius degree-days.
// From memory: maps of the index in Fahrenheit degree-days draw lines at 250,
// 1,000 and 2,500, which part winters about so.
var indexes = map[Winter]float64{Mild: 250 / 1.8, Cold: 1000 / 1.8, Severe: 2500 / 1.8}

// What a length is taken to be that nobody said: of a run, and between the posts
// of a bare gate, where 10 to 12 ft (3 to 3.6 m) clear is usual for a drive.
var (
	assumedRun     = map[length.System]length.Length{length.Imperial: 60 * length.Foot, length.Metric: 20 * length.Metre}
	assumedOpening = map[length.System]length.Length{length.Imperial: 12 * length.Foot, length.Metric: 3.6 * length.Metre}
)

// assumed is how long a run is taken to be, center to center of its end posts.
func assumed(run job.Run, bare bool, sys length.System) length.Length {
	if bare {
		return assumedOpening[sys] + run.PostOf(job.GatePost).Width
	}
	return assumedRun[sys]
}

// Job makes the job. An answer that cannot be is refused by its name.
func Job(a Answers, cat materials.Catalog) (job.Job, error) {
	if err := a.check(cat); err != nil {
		return job.Job{}, err
	}
	j := document.New(a.Name, a.System, cat)
	run := &j.Lines[0].Runs[0]
	s, typed := cat.System(a.Fence, nil)
	if typed {
		*run = s.Outfit(*run)
	}
	if a.Height != nil {
		run.Fence.Height = *a.Height
	}
	long := assumed(*run, typed && s.Gate, a.System)
	if a.Length != nil {
		long = *a.Length
	} else {
		run.Assumed = true
	}
	run.Length = &long
	run.Ground = []job.GroundPoint{{At: 0}, {At: long, Height: -a.Fall}}
	if a.Frost != nil {
		j.Site.FrostDepth = a.Frost
	} else {
		j.Site.Frost = &job.Frost{Index: indexes[cmp.Or(a.Winter, Cold)]}
	}
	if j.Name == "" {
		j.Name = named(a, cat, j.Units.Tape(long))
	}
	if err := gated(&j, a.Gate, cat); err != nil {
		return job.Job{}, err
	}
	return j, nil
}

// named is what a job is called that nobody named.
func named(a Answers, cat materials.Catalog, long string) string {
	if s, ok := cat.System(a.Fence, nil); ok {
		return words.Plain("begin.named", words.V{"fence": s.Name, "long": long})
	}
	return words.Plain("begin.a-fence", words.V{"long": long})
}

// gated puts the gate in where the plan would offer it. A bare gate has its own.
func gated(j *job.Job, g AskedGate, cat materials.Catalog) error {
	run := &j.Lines[0].Runs[0]
	if s, ok := cat.System(run.System, nil); ok && s.Gate {
		l, _, err := reshape.Outfit(*j, 0, 0, run.System, cat, cat)
		if err == nil {
			j.Lines[0] = l
		}
		return err
	}
	if g == "" {
		return nil
	}
	for _, o := range plan.Make(*j, cat).Runs[0].AddGate {
		if o.ID != string(g) {
			continue
		}
		if o.Refused != "" {
			return document.Errors{{Field: "/gate", Given: strconv.Quote(string(g)), Allowed: o.Refused}}
		}
		return put(j, o.Edits, cat)
	}
	return nil
}

// put makes edits of a job that is no document yet.
func put(j *job.Job, edits []job.Edit, cat materials.Catalog) error {
	doc, err := json.Marshal(j)
	if err == nil {
		doc, err = document.Apply(doc, edits)
	}
	if err == nil {
		*j, _, err = document.Decode(doc, cat)
	}
	return err
}

func (a Answers) check(cat materials.Catalog) error {
	var errs document.Errors
	add := func(field, given, allowed string) {
		errs = append(errs, document.FieldError{Field: "/" + field, Given: given, Allowed: allowed})
	}
	within := func(field string, v *length.Length, least, most length.Length) {
		if v != nil && !(*v >= least && *v <= most) {
			add(field, length.Usual(a.System).Tape(*v), words.Plain("begin.from-to", words.V{"least": length.Usual(a.System).Tape(least), "most": length.Usual(a.System).Tape(most)}))
		}
	}
	if a.System != length.Imperial && a.System != length.Metric {
		return document.Errors{{Field: "/system", Given: strconv.Quote(string(a.System)), Allowed: "imperial, metric"}}
	}
	if s, ok := cat.System(a.Fence, nil); a.Fence != "" && (!ok || s.System != a.System) {
		add("fence", strconv.Quote(a.Fence), words.In(a.System, "begin.a-fence-type"))
	}
	within("height", a.Height, 300, 6*length.Metre)
	within("length", a.Length, 300, 10000*length.Metre)
	within("fall", &a.Fall, -100*length.Metre, 100*length.Metre)
	within("frost", a.Frost, 0, 5*length.Metre)
	if !slices.Contains([]AskedGate{"", Walk, Drive}, a.Gate) {
		add("gate", strconv.Quote(string(a.Gate)), "walk, drive")
	}
	if _, ok := indexes[a.Winter]; a.Winter != "" && !ok {
		add("winter", strconv.Quote(string(a.Winter)), "mild, cold, severe")
	}
	if len(errs) > 0 {
		return errs
	}
	return nil
}
