package calls

import (
	"fmt"
	"slices"

	"mallow/core/document"
	"mallow/core/plan"
	"mallow/core/scene"
	"mallow/core/stage"
)

// mostViews is how many drawings are asked for at once.
const mostViews = 60

// drawn are drawings of a job's plan.
func drawn(c *Core, stop func() error, req DrawRequest) (any, error) {
	r, err := c.computed(stop, req.Doc)
	if err != nil {
		return nil, err
	}
	all, err := draw(stop, logged(r, req.Views), req.Views)
	return Drawn{Drawings: all}, err
}

// logged is a plan with what was seen on site, where a view shows that.
func logged(r *plan.Result, views []View) plan.Plan {
	p := r.Figures()
	if slices.ContainsFunc(views, func(v View) bool { return v.Of == scene.OfStrips || v.Stress == scene.AsBuilt }) {
		p.Log = r.Record()
	}
	return p
}

// draw draws views of a plan. What is not there any more is left out: a hand
// that removes a gate has its drawings still open. What makes no sense is
// refused.
func draw(stop func() error, p plan.Plan, views []View) ([]*scene.Drawing, error) {
	if len(views) > mostViews {
		return nil, document.Errors{{Field: "/views", Given: fmt.Sprintf("%d views", len(views)), Allowed: fmt.Sprintf("at most %d", mostViews)}}
	}
	all := make([]*scene.Drawing, len(views))
	look := stage.NewWatch(stop).Look
	letters := scene.Type(scene.Screen).Asking(look)
	for i, v := range views {
		if err := stage.Until(look); err != nil {
			return nil, err
		}
		var d scene.Drawing
		var err error
		if stopped := stage.Until(func() { d, err = scene.Of(p, v, letters) }); stopped != nil {
			return nil, stopped
		}
		switch {
		case err == nil:
			d.Short()
			all[i] = &d
		case !scene.IsGone(err):
			return nil, err
		}
	}
	return all, nil
}
