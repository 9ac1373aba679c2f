package calls

import (
	"reflect"
	"slices"
	"sync"

	"mallow/core/plan"
)

// lastPlan is the plan that was answered last, with its number: of the next one
// only what differs is sent. A core in a browser has one asker; where there are
// more, they take turns at being sent the whole.
type lastPlan struct {
	sync.Mutex
	number int
	plan   plan.Plan
}

// replanned is a plan for who has the one before: most of a drag moves one run.
func replanned(c *Core, stop func() error, body []byte, send func([]byte) error) error {
	var req ReplanRequest
	if err := Read(body, &req); err != nil {
		return err
	}
	r, err := c.computed(stop, req.Doc)
	if err != nil {
		return err
	}
	drawings, err := draw(stop, logged(r, req.Views), req.Views)
	if err != nil {
		return err
	}
	next := c.last.since(req.After, r.Figures())
	next.Drawings = drawings
	return sent(next, nil, send)
}

// since is what of a plan is not in the one before.
func (l *lastPlan) since(after int, p plan.Plan) Replanned {
	l.Lock()
	defer l.Unlock()
	had := map[string]*plan.Run{}
	if after != 0 && after == l.number {
		for i := range l.plan.Runs {
			had[l.plan.Runs[i].ID] = &l.plan.Runs[i]
		}
	}
	l.number++
	l.plan = p
	out := Replanned{Number: l.number, Runs: []string{}, Plan: p}
	out.Plan.Runs = []plan.Run{}
	for i := range p.Runs {
		run := &p.Runs[i]
		out.Runs = append(out.Runs, run.ID)
		// What was taken over is the very same list, which takes no time to see.
		if was := had[run.ID]; was == nil || !reflect.DeepEqual(*was, *run) {
			out.Plan.Runs = append(out.Plan.Runs, *run)
		}
	}
	out.Plan.Runs = slices.Clip(out.Plan.Runs)
	return out
}
