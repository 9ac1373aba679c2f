// Package record holds what was done and found on site against the plan: how far each
// post is, what differs and by how much it may, how far the bags last, and what the
// digging says of the ground.
package record

import (
	"mallow/core/finding"
	"mallow/core/job"
	"mallow/core/length"
)

// Log is a job as it really goes.
type Log struct {
	Posts  []RecordPost      `json:"posts" jsonschema:"required" jsonschema_description:"In the order of the lines; a corner post once."`
	Staked int               `json:"staked" jsonschema:"required" jsonschema_description:"Posts that are so far, or further."`
	Dug    int               `json:"dug" jsonschema:"required"`
	Set    int               `json:"set" jsonschema:"required"`
	Poured int               `json:"poured" jsonschema:"required"`
	Built  int               `json:"built" jsonschema:"required"`
	Next   string            `json:"next,omitempty" jsonschema_description:"Id of the first post that is least far; left out where all are built."`
	Open   int               `json:"open" jsonschema:"required" jsonschema_description:"Deviations on which something is to be decided."`
	Bags   *RecordBags       `json:"bags,omitempty" jsonschema_description:"How far the bags last; left out where none were counted."`
	Finds  []finding.Finding `json:"findings" jsonschema:"required"`

	Days  []Daily    `json:"days" jsonschema:"required" jsonschema_description:"What was done and found on each day; what has no time is on none."`
	Paces []Pace     `json:"paces" jsonschema:"required" jsonschema_description:"How fast it goes."`
	Worst []Worst    `json:"worst" jsonschema:"required" jsonschema_description:"What differs most of each kind, the worst first."`
	Cut   []CutRail  `json:"cut" jsonschema:"required" jsonschema_description:"Rails that were cut, against their bays as they are now."`
	Punch []Punch    `json:"punch" jsonschema:"required" jsonschema_description:"What is to be done before the crew leaves for good."`
	Later []Reminder `json:"later" jsonschema:"required" jsonschema_description:"When to come back; empty while the last day is not known."`

	marks  map[job.Seen][]entry // of posts, by what is done
	cuts   []job.Fact
	gates  map[string]bool // that are built
	runIDs []string
	may    map[string]job.Tolerances
}

// May is by how much posts of a run may differ.
func (r *Log) May(run string) job.Tolerances { return r.may[run] }

// Stage of a post's work.
type Stage int

// Stages of a post's work.
const (
	Nothing Stage = iota
	Staked
	Dug
	Set
	Poured
	Built
)

// Name is by what a stage is told.
func (s Stage) Name() string {
	return []string{"nothing", "staked", "dug", "set", "poured", "built"}[s]
}

// RecordPost is one post as it really goes. What was not measured is left out.
type RecordPost struct {
	Run     string         `json:"run" jsonschema:"required"`
	ID      string         `json:"id" jsonschema:"required"`
	Label   string         `json:"label" jsonschema:"required"`
	Stage   Stage          `json:"stage" jsonschema:"required" jsonschema_description:"0 nothing yet, 1 staked, 2 dug, 3 set, 4 poured, 5 built."`
	Planned length.Length  `json:"planned" jsonschema:"required" jsonschema_description:"Depth to dig."`
	Depth   *length.Length `json:"depth,omitempty"`
	Width   *length.Length `json:"width,omitempty"`
	Off     *length.Length `json:"off,omitempty" jsonschema_description:"Beside the string."`
	Plumb   *length.Length `json:"plumb,omitempty" jsonschema_description:"Out of plumb over its height."`
	Bags    *float64       `json:"bags,omitempty"`
	Gravel  *length.Volume `json:"gravel,omitempty"`
	Hit     job.Seen       `json:"hit,omitempty" jsonschema_description:"What stopped the hole, or was met in it: rock, water, root or service."`
	HitAt   *length.Length `json:"hitAt,omitempty" jsonschema_description:"Depth at which it was met."`
	Across  *length.Length `json:"across,omitempty" jsonschema_description:"The same across the fence."`
	Top     *length.Length `json:"top,omitempty" jsonschema_description:"Its top mark over where it should be."`
	At      *length.Length `json:"at,omitempty" jsonschema_description:"Station at which it was measured to stand."`
	Station length.Length  `json:"station" jsonschema:"required" jsonschema_description:"At which it stands by the plan, as it follows what was measured."`

	Deviations []Deviation `json:"deviations" jsonschema:"required" jsonschema_description:"What differs from the plan, whether it is let go or not."`

	Notes []string `json:"notes" jsonschema:"required"`
	When  string   `json:"when,omitempty" jsonschema_description:"Of the last that was written down, RFC 3339."`
	Who   string   `json:"who,omitempty"`

	bags float64 // planned
}

// Stands is where a post really stands: its station, and how far left of the string.
func (o *RecordPost) Stands() (at length.Length, left float64) {
	at = o.Station
	if o.At != nil {
		at = *o.At
	}
	if o.Off != nil {
		left = float64(*o.Off)
	}
	return at, left
}

// RecordBags is how far the bags last.
type RecordBags struct {
	Bought  int     `json:"bought" jsonschema:"required" jsonschema_description:"For the whole job, as planned."`
	Used    float64 `json:"used" jsonschema:"required"`
	Holes   int     `json:"holes" jsonschema:"required" jsonschema_description:"In which they were counted."`
	Planned float64 `json:"planned" jsonschema:"required" jsonschema_description:"For those holes."`
	Expect  float64 `json:"expect" jsonschema:"required" jsonschema_description:"For the whole job, if it goes on so."`
	Sure    bool    `json:"sure" jsonschema:"required" jsonschema_description:"Enough holes were counted to go by."`
	Short   int     `json:"short" jsonschema:"required" jsonschema_description:"Whole bags that lack; 0 where they last."`
	By      string  `json:"by,omitempty" jsonschema_description:"Post that they do not last to, by its label."`
}
