package plan

import (
	"mallow/core/bill"
	"mallow/core/stage/load"
)

// Bill is what a job takes, item by item: of all runs, rounded up once, and of
// each run by itself.
type Bill struct {
	Items []bill.Item `json:"items" jsonschema:"required"`
	Runs  []RunBill   `json:"runs" jsonschema:"required" jsonschema_description:"In the order of the plan."`
}

// RunBill is the bill of one run.
type RunBill struct {
	Run   string      `json:"run" jsonschema:"required"`
	Name  string      `json:"name" jsonschema:"required"`
	Items []bill.Item `json:"items" jsonschema:"required"`
}

// Bill is what the job takes.
func (r *Result) Bill() Bill {
	out := Bill{Runs: []RunBill{}}
	runs := make([][]bill.Item, len(r.Runs))
	for i, run := range r.Runs {
		runs[i] = run.Load.Items()
		out.Runs = append(out.Runs, RunBill{run.Load.Spec.ID, run.Load.Name(), runs[i]})
	}
	out.Items = load.JobItems(runs, r.Catalog, r.Job)
	return out
}

// putBill puts the bill into the plan's own places.
func (r *Result) putBill(p *Plan) {
	b := r.Bill()
	p.Items = b.Items
	for i := range p.Runs {
		p.Runs[i].Items = b.Runs[i].Items
	}
}
