// Package finding holds what a plan has to say beyond its numbers: what is
// missing, what does not fit, and the ways out.
package finding

import (
	"cmp"
	"slices"

	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/reason"
)

// Severity orders findings.
type Severity string

// Severities.
const (
	Missing Severity = "missing" // a measure that the plan still needs
	Cannot  Severity = "cannot"  // cannot be built as planned
	Check   Severity = "check"   // can be built; look before digging
	Note    Severity = "note"    // worth knowing
)

// Stage is the stage of the work at which something is to be said.
type Stage string

// The stages that work so far.
const (
	Walk    Stage = "walk"
	Strings Stage = "string"
	Space   Stage = "space"
	Grade   Stage = "grade"
	Gates   Stage = "gates"
	Dig     Stage = "dig"
	Pour    Stage = "pour"
	Build   Stage = "build"
	Days    Stage = "days"
)

// Place is what a finding is about; empty parts do not apply.
type Place struct {
	Line string `json:"line,omitempty"`
	Run  string `json:"run,omitempty"`
	Post string `json:"post,omitempty"`
	Bay  string `json:"bay,omitempty"`
	Gate string `json:"gate,omitempty"`
}

// Remedy is a way out: edits of the job that can be taken with one tap.
type Remedy struct {
	Says  reason.Text `json:"says" jsonschema:"required"`
	Edits []job.Edit  `json:"edits" jsonschema:"required"`
	Cost  *Cost       `json:"cost,omitempty" jsonschema_description:"What it changes in the load; left out where that was not worked out."`
}

// Cost is what a remedy changes: more is positive.
type Cost struct {
	Posts     int           `json:"posts" jsonschema:"required"`
	CutPieces int           `json:"cutPieces" jsonschema:"required"`
	Concrete  length.Volume `json:"concrete" jsonschema:"required"`
	Bags      int           `json:"bags" jsonschema:"required"`
	OddBays   int           `json:"oddBays" jsonschema:"required"`
	Stock     length.Length `json:"stock,omitempty" jsonschema_description:"Length of all posts together, as bought."`
}

// Finding is one thing that the plan has to say.
type Finding struct {
	ID       string      `json:"id,omitempty" jsonschema_description:"Its name, by which its ways out are asked for."`
	Rule     string      `json:"rule" jsonschema:"required" jsonschema_description:"Which check spoke; stable, for programs."`
	Severity Severity    `json:"severity" jsonschema:"required,enum=missing,enum=cannot,enum=check,enum=note"`
	Stage    Stage       `json:"stage" jsonschema:"required,enum=walk,enum=string,enum=space,enum=grade,enum=gates,enum=dig,enum=pour,enum=build,enum=days"`
	Place    Place       `json:"place" jsonschema:"required"`
	Field    string      `json:"field,omitempty" jsonschema_description:"JSON pointer of the measure to enter, for what is missing."`
	Says     reason.Text `json:"says" jsonschema:"required"`
	Remedies []Remedy    `json:"remedies,omitempty"`
}

// Stake is what it costs to pass a finding over.
type Stake int

// Stakes, the dearest first.
const (
	Harm     Stake = iota + 1 // somebody is hurt, or the law is broken
	Rework                    // what was dug, set or built is done again
	Purchase                  // more is bought than is needed
	Time                      // it takes longer
	Looks                     // it shows
)

// Kind is one thing that a stage finds.
type Kind struct {
	Rule       string
	Costs      Stake
	Stage      Stage
	Severities []Severity // that it can have
	Means      string
	Threshold  string // what it is said from, by its name; empty where it is or is not
}

// severities, the gravest first.
var severities = []Severity{Missing, Cannot, Check, Note}

// Order is whether a finding comes before another: the graver first, and of
// those the one that costs more to pass over.
func Order(a, b Severity, costsA, costsB Stake) int {
	return cmp.Or(cmp.Compare(slices.Index(severities, a), slices.Index(severities, b)), cmp.Compare(costsA, costsB))
}
