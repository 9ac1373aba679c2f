// Package amend says what to do about what differs from the plan: for each deviation the
// ways that are sound, the cheapest first, with what each costs.
package amend

import (
	"mallow/core/finding"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/reason"
	"mallow/core/stage"
	"mallow/core/stage/load"
)

// Amending is a deviation with what can be done about it.
type Amending struct {
	Post string      `json:"post" jsonschema:"required" jsonschema_description:"Its id."`
	Fact string      `json:"fact" jsonschema:"required" jsonschema_description:"Fact that says what differs."`
	Says reason.Text `json:"says" jsonschema:"required"`
	Ways []Way       `json:"ways" jsonschema:"required" jsonschema_description:"The cheapest sound way first."`
}

// Way is one thing to do. Taking it is taking its edits.
type Way struct {
	ID      string        `json:"id" jsonschema:"required" jsonschema_description:"Stable, for programs; kept with the decision."`
	Name    reason.Text   `json:"name" jsonschema:"required"`
	Says    reason.Text   `json:"says,omitempty" jsonschema_description:"What to mind."`
	Minutes float64       `json:"minutes" jsonschema:"required" jsonschema_description:"Of one person, about."`
	Cost    *finding.Cost `json:"cost,omitempty" jsonschema_description:"What it changes in the load; left out where it changes nothing."`
	Moves   []Move        `json:"moves" jsonschema:"required" jsonschema_description:"Posts that stand elsewhere then."`
	Edits   []job.Edit    `json:"edits" jsonschema:"required"`

	last bool    // it is taken when nothing else will do
	gust float64 // that the hole bears then, where that is asked
}

// Move is where a post goes.
type Move struct {
	Post  string        `json:"post" jsonschema:"required"`
	Label string        `json:"label" jsonschema:"required"`
	From  length.Length `json:"from" jsonschema:"required"`
	To    length.Length `json:"to" jsonschema:"required"`
}

// Trial plans a run as it would be, within its line.
type Trial func(run job.Run) (*load.Load, *stage.Outcome)
