// Package days lays a job's work out in days: what is done when, by whom, with what on
// the truck; what makes it late; and what else would be sooner.
package days

import (
	"mallow/core/bill"
	"mallow/core/finding"
	"mallow/core/job"
	"mallow/core/materials"
	"mallow/core/reason"
	"mallow/core/stage/pourday"
)

// Given is what a schedule is made from.
type Given struct {
	Job      job.Job
	Cat      materials.Catalog
	Items    []bill.Item
	Pour     func(job.Job) *pourday.Day // the pour of a job like this one
	Cautions func(finding.Stage) []reason.Text
	Posts    []string // by run and name, in the order of the lines
	// Fast is the same job with its posts in mix that sets fast, and how to get there;
	// none where that is not to be had.
	Fast func() ([]job.Edit, Given)

	soonest bool                    // only the day of the end is asked for
	pours   map[string]*pourday.Day // by the day, while the rest of the pour stays
}

// Schedule is the days of a job.
type Schedule struct {
	Start  string       `json:"start,omitempty" jsonschema_description:"Left out: not set yet."`
	Finish string       `json:"finish,omitempty" jsonschema_description:"The last day."`
	People int          `json:"people" jsonschema:"required"`
	From   string       `json:"from" jsonschema:"required" jsonschema_description:"When the crew leaves, as entered or as usual."`
	To     string       `json:"to" jsonschema:"required"`
	Travel float64      `json:"travel" jsonschema:"required" jsonschema_description:"Minutes each way."`
	Hours  float64      `json:"hours" jsonschema:"required" jsonschema_description:"Hours of the whole crew on site."`
	Trips  int          `json:"trips" jsonschema:"required"`
	Best   bool         `json:"best" jsonschema:"required" jsonschema_description:"Every order was weighed: nothing ends earlier."`
	Pour   string       `json:"pour,omitempty" jsonschema_description:"Day of the pour where it was found by the weather; left out where it is set, or the weather is not known."`
	Bound  string       `json:"bound,omitempty" jsonschema_description:"Nothing could end before this day; where not every order was weighed."`
	Tasks  []AgendaTask `json:"tasks" jsonschema:"required"`
	Days   []OnDay      `json:"days" jsonschema:"required"`
	Waits  []AgendaWait `json:"waits" jsonschema:"required" jsonschema_description:"What nobody works on, and what is waited for."`
	Left   []string     `json:"left" jsonschema:"required" jsonschema_description:"Tasks that have no place."`

	Sooner []Sooner          `json:"sooner" jsonschema:"required" jsonschema_description:"What would end earlier."`
	Asks   []pourday.DayAsk  `json:"asks" jsonschema:"required"`
	Finds  []finding.Finding `json:"findings" jsonschema:"required"`
}

// AgendaTask is one task with its hours and when it is done.
type AgendaTask struct {
	ID    string  `json:"id" jsonschema:"required"`
	Name  string  `json:"name" jsonschema:"required"`
	Says  string  `json:"says,omitempty"`
	Count float64 `json:"count" jsonschema:"required" jsonschema_description:"Of what it counts."`
	Each  float64 `json:"each" jsonschema:"required" jsonschema_description:"Minutes of one person for each."`
	Rated bool    `json:"rated,omitempty" jsonschema_description:"Its minutes are a rate that can be changed; the others follow from the holes or the pour."`
	Hours float64 `json:"hours" jsonschema:"required" jsonschema_description:"Of the whole crew."`
	Moved bool    `json:"moved,omitempty" jsonschema_description:"It begins on a day that was chosen."`
	Begin string  `json:"begin,omitempty" jsonschema_description:"Day and time, by the site's clock; left out where it has no place."`
	End   string  `json:"end,omitempty"`
	After string  `json:"after,omitempty" jsonschema_description:"Earliest that it could begin, by what it waits for: day and time."`
}

// OnDay is one day on site.
type OnDay struct {
	Date     string        `json:"date" jsonschema:"required"`
	Hours    float64       `json:"hours" jsonschema:"required"`
	From     string        `json:"from" jsonschema:"required" jsonschema_description:"On site from, by the site's clock."`
	To       string        `json:"to" jsonschema:"required"`
	Parts    []AgendaPart  `json:"parts" jsonschema:"required"`
	Load     []Carried     `json:"load" jsonschema:"required" jsonschema_description:"What is on the truck."`
	Who      []string      `json:"who" jsonschema:"required" jsonschema_description:"Who comes beside the crew: truck, machine, inspector, office."`
	Checks   []string      `json:"checks" jsonschema:"required" jsonschema_description:"What is looked at before leaving."`
	Cautions []reason.Text `json:"cautions" jsonschema:"required"`
	Low      *float64      `json:"low,omitempty" jsonschema_description:"Degrees Celsius; left out where the weather is not known."`
	High     *float64      `json:"high,omitempty"`
	Rain     *float64      `json:"rain,omitempty" jsonschema_description:"Millimetres while the crew is there."`
}

// AgendaPart is what is done of a task on a day.
type AgendaPart struct {
	Task  string   `json:"task" jsonschema:"required"`
	Name  string   `json:"name" jsonschema:"required"`
	From  string   `json:"from" jsonschema:"required"`
	To    string   `json:"to" jsonschema:"required"`
	Hours float64  `json:"hours" jsonschema:"required"`
	More  bool     `json:"more,omitempty" jsonschema_description:"It goes on another day."`
	Posts []string `json:"posts,omitempty" jsonschema_description:"Posts that it is about, by run and name."`
}

// Carried is an item on the truck.
type Carried struct {
	What string      `json:"what" jsonschema:"required"`
	Many reason.Text `json:"many" jsonschema:"required"`
	Of   reason.Text `json:"of" jsonschema:"required"`
}

// AgendaWait is a time in which something is waited for.
type AgendaWait struct {
	For   string `json:"for" jsonschema:"required"`
	Until string `json:"until" jsonschema:"required" jsonschema_description:"Day and time."`
	Usual bool   `json:"usual,omitempty" jsonschema_description:"By what crews usually wait: the weather is not known for so long."`
}

// Sooner is a change by which the work ends earlier.
type Sooner struct {
	finding.Remedy
	Finish string  `json:"finish" jsonschema:"required"`
	Days   int     `json:"days" jsonschema:"required" jsonschema_description:"By how many days earlier."`
	Hours  float64 `json:"hours" jsonschema:"required" jsonschema_description:"Hours of one person more, or fewer."`
}
