package paper

import (
	"slices"

	"mallow/core/job"
	"mallow/core/plan"
	"mallow/core/words"
)

// Kind is a kind of sheet.
type Kind struct {
	ID    string
	Stage string // where it is offered
	Of    string // what it is of: job, run or gate
}

// Kinds are all of them, in the order in which they are printed.
var Kinds = []Kind{
	{"load", "pour", "job"},
	{"strings", "string", "job"},
	{"stakeout", "space", "run"},
	{"holes", "dig", "job"},
	{"gate", "gates", "gate"},
	{"yard", "pour", "job"},
	{"order", "pour", "job"},
	{"pour", "pour", "job"},
	{"curb", "pour", "job"},
	{"build", "build", "run"},
	{"cuts", "build", "job"},
	{"labels", "build", "job"},
	{"day", "days", "job"},
	{"record", "log", "job"},
	{"inspect", "log", "job"},
	{"asbuilt", "log", "job"},
	{"customer", "walk", "job"},
}

// Name is what people call it.
func (k Kind) Name() string { return words.Plain("paper.kind-" + k.ID) }

// Set is the sheets that go to one person.
type Set struct {
	ID    string
	Kinds []string
}

// Sets are whom sheets go to.
var Sets = []Set{
	{"crew", []string{"load", "strings", "stakeout", "holes", "gate"}},
	{"yard", []string{"yard"}},
	{"pourday", []string{"order", "pour", "curb"}},
	{"builders", []string{"build", "cuts", "labels"}},
	{"days", []string{"day"}},
	{"records", []string{"record"}},
	{"handover", []string{"inspect", "asbuilt"}},
	{"customer", []string{"customer"}},
}

// Name is what people call it.
func (s Set) Name() string { return words.Plain("paper.set-" + s.ID) }

// Says is what is in it.
func (s Set) Says() string { return words.Plain("paper.set-" + s.ID + "-says") }

// IsSet tells whether a kind of sheet makes up a set of its own.
func IsSet(id string) bool {
	return slices.ContainsFunc(Sets, func(s Set) bool { return s.ID == id })
}

// Known tells whether there is such a set or kind of sheet.
func Known(id string) bool {
	return slices.Contains(IDs(), id)
}

// IDs are the ids of the sets and kinds, the sets first.
func IDs() []string {
	var out []string
	for _, s := range Sets {
		out = append(out, s.ID)
	}
	for _, k := range Kinds {
		if !slices.Contains(out, k.ID) {
			out = append(out, k.ID)
		}
	}
	return out
}

// Write is the sheets of a set, of one kind, or where neither is named the
// crew's and the customer's. With the id of a run, what is of runs or gates is
// of that one. A run that has no length yet has none.
func Write(j job.Job, p plan.Plan, id, run string) []Sheet { return write(j, p, id, run, func() {}) }

func write(j job.Job, p plan.Plan, id, run string, look func()) []Sheet {
	w := writer{job: j, plan: p, units: p.Units, look: look}
	for _, s := range Sets {
		if s.ID == id {
			return w.kinds(s.Kinds, run)
		}
	}
	if id == "" {
		return w.kinds([]string{"load", "strings", "stakeout", "holes", "gate", "customer"}, run)
	}
	return w.kinds([]string{id}, run)
}

func (w writer) kinds(ids []string, run string) []Sheet {
	var out []Sheet
	write := map[string]func(run string) []Sheet{
		"load": w.loadAndChecks, "yard": w.yard, "strings": w.strings, "stakeout": w.stakeOuts, "holes": w.holes, "gate": w.gates, "customer": w.customer,
		"build": w.builds, "cuts": w.cuts, "labels": w.labels,
		"order": w.orderSheet, "pour": w.pourCard, "curb": w.curbs, "day": w.daySheets,
		"record": w.recordSheets, "inspect": w.inspection, "asbuilt": w.asBuilt,
	}
	for _, k := range Kinds {
		if slices.Contains(ids, k.ID) && write[k.ID] != nil {
			for _, s := range write[k.ID](run) {
				s.Kind, s.At.Stage = k.ID, k.Stage
				if s.Title == "" {
					s.Title = k.Name()
				}
				out = append(out, s)
			}
		}
	}
	return out
}
