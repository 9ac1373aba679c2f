package materials

import (
	"fmt"

	"mallow/core/bill"
	"mallow/core/finding"
	"mallow/core/reason"
)

// Work is the tasks of a job, in the order in which crews do them, and how long each
// takes.
type Work struct {
	Tasks  []WorkTask    `json:"tasks" jsonschema:"required"`
	Source reason.Source `json:"source" jsonschema:"required"`
}

// WorkTask is one task. Its hours are minutes of one person for each of what it counts.
type WorkTask struct {
	ID      string          `json:"id" jsonschema:"required"`
	Name    string          `json:"name" jsonschema:"required"`
	Counts  []bill.Kind     `json:"counts,omitempty" jsonschema_description:"Items of the bill whose exact amounts are counted: pieces, metres, cubic metres or hours of one person."`
	Minutes float64         `json:"minutes" jsonschema:"required" jsonschema_description:"Of one person, for each."`
	Once    float64         `json:"once,omitempty" jsonschema_description:"Of one person, however much there is."`
	Most    int             `json:"most,omitempty" jsonschema_description:"More hands than this do not make it faster; 0: no limit."`
	After   []string        `json:"after,omitempty" jsonschema_description:"Tasks that must be done."`
	Wait    string          `json:"wait,omitempty" jsonschema_description:"What must have hardened since the pour, by the name of the wait."`
	Whole   bool            `json:"whole,omitempty" jsonschema_description:"Not spread over two days."`
	Stages  []finding.Stage `json:"stages,omitempty" jsonschema_description:"Whose cautions are read out that day."`
	Takes   []bill.Kind     `json:"takes,omitempty" jsonschema_description:"Items of the bill that are on the truck that day."`
	Says    string          `json:"says,omitempty"`
}

func (w Work) validate() error {
	seen := map[string]bool{}
	for _, t := range w.Tasks {
		if t.ID == "" || t.Name == "" || seen[t.ID] || t.Minutes < 0 || t.Once < 0 {
			return fmt.Errorf("task %q", t.ID)
		}
		for _, a := range t.After {
			if !seen[a] {
				return fmt.Errorf("task %q comes after %q, which is not before it", t.ID, a)
			}
		}
		seen[t.ID] = true
	}
	return nil
}
