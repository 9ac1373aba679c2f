package plan

import (
	"slices"

	"mallow/core/engine"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/stage/build"
	"mallow/core/stage/load"
)

// Built is what stands above ground on a run, and what it is cut from.
type Built struct {
	Run   string        `json:"run" jsonschema:"required"`
	Type  string        `json:"type,omitempty" jsonschema_description:"Name of its fence type; left out where it has none, and no parts are known."`
	Parts []BuiltPart   `json:"parts" jsonschema:"required" jsonschema_description:"Those that count for nothing, and those left out, among them."`
	Steps []string      `json:"steps" jsonschema:"required" jsonschema_description:"Order in which the type is put together."`
	Kerf  length.Length `json:"kerf" jsonschema:"required" jsonschema_description:"What a cut takes."`
	Keep  length.Length `json:"keep" jsonschema:"required" jsonschema_description:"Shortest offcut that is kept."`
	Cuts  []CutList     `json:"cuts" jsonschema:"required" jsonschema_description:"Of the run, or of the whole job."`
}

// BuiltPart is one part of a run.
type BuiltPart struct {
	Part    job.Part       `json:"part" jsonschema:"required" jsonschema_description:"As it is written."`
	Own     bool           `json:"own,omitempty" jsonschema_description:"The run has it otherwise than its type, or the type has none."`
	Gates   bool           `json:"gates,omitempty" jsonschema_description:"Of the gates' leaves."`
	Count   int            `json:"count" jsonschema:"required"`
	Width   length.Length  `json:"width,omitempty"`
	Laid    length.Length  `json:"laid,omitempty" jsonschema_description:"Of what comes by length."`
	Area    float64        `json:"area,omitempty" jsonschema_description:"Square metres that a finish coats."`
	Joints  int            `json:"joints,omitempty"`
	Gap     *length.Length `json:"gap,omitempty" jsonschema_description:"Between pieces side by side: the spacer; the least of it where stretches differ."`
	GapTo   length.Length  `json:"gapTo,omitempty" jsonschema_description:"The most of it, where stretches differ."`
	Wider   int            `json:"wider,omitempty" jsonschema_description:"Gaps that are a mark wider."`
	Ripped  int            `json:"ripped,omitempty" jsonschema_description:"Pieces that are ripped."`
	Lengths []PartLength   `json:"lengths,omitempty" jsonschema_description:"The longest first."`
	More    int            `json:"more,omitempty" jsonschema_description:"Lengths beyond those that are listed."`
	Fits    bool           `json:"fits" jsonschema:"required" jsonschema_description:"A whole number fills every bay as the gap may be."`
}

// PartLength is how many pieces of a part are of one length.
type PartLength struct {
	Long  length.Length `json:"long" jsonschema:"required"`
	Wide  length.Length `json:"wide,omitempty" jsonschema_description:"What they are ripped to."`
	Count int           `json:"count" jsonschema:"required"`
}

// mostLengths is how many lengths of a part are listed one by one.
const mostLengths = 12

// Built is what stands above ground on a run. The cut lists are of the whole job,
// or of the run alone.
func (r *Result) Built(run string, alone bool) (Built, bool) {
	k := slices.IndexFunc(r.Runs, func(x *engine.Run) bool { return x.Load.Spec.ID == run })
	if k < 0 {
		return Built{}, false
	}
	b := r.Runs[k].Build
	out := Built{Run: run, Parts: []BuiltPart{}, Steps: []string{}, Cuts: []CutList{}}
	saw := load.SawOf(r.Job)
	out.Kerf, out.Keep = saw.Kerf, saw.Keep
	sys, known := r.Catalog.System(b.Spec.System, r.Job.Systems)
	if known {
		out.Type = sys.Name
		out.Steps = append(out.Steps, r.Catalog.Steps(b.Spec.System, r.Job.Systems)...)
	}
	own := map[string]bool{}
	for _, p := range b.Spec.Parts {
		own[p.ID] = true
	}
	listed := map[string]bool{}
	for _, p := range r.Catalog.Whole(b.Spec.System, r.Job.Systems, b.Spec.Parts) {
		listed[p.ID] = true
		out.Parts = append(out.Parts, builtPart(p, b.Of(p.ID), own[p.ID]))
	}
	for i := range b.Parts {
		if p := &b.Parts[i]; !listed[p.ID] {
			out.Parts = append(out.Parts, builtPart(p.Part, p, false))
		}
	}
	if alone {
		out.Cuts = cutLists(r.Runs[k].Load.Items(), r.names())
	} else {
		out.Cuts = cutLists(r.Bill().Items, r.names())
	}
	return out, true
}

// names are the runs' names.
func (r *Result) names() map[string]string {
	out := map[string]string{}
	for _, run := range r.Runs {
		out[run.Load.Spec.ID] = run.Load.Name()
	}
	return out
}

func builtPart(spec job.Part, p *build.Part, own bool) BuiltPart {
	out := BuiltPart{Part: spec, Own: own, Fits: true}
	if p == nil {
		return out
	}
	out.Gates, out.Count, out.Area, out.Joints, out.Width, out.Fits = p.Gates, p.Count, p.Area, p.Joints, p.Width, len(p.Unfit) == 0
	if p.By == job.ByRoll {
		out.Laid = length.Length(p.Taken()) * length.Metre
	}
	for _, f := range p.Fills {
		out.Wider += f.Wider
		out.Ripped += f.Ripped
		if f.Gaps > 0 {
			least, most := f.Gap, max(out.GapTo, f.Gap)
			if out.Gap != nil {
				least = min(least, *out.Gap)
			}
			out.Gap, out.GapTo = &least, most
		}
	}
	if out.Gap != nil && length.Same(out.GapTo, *out.Gap) {
		out.GapTo = 0
	}
	for _, q := range p.Pieces {
		if q.Long == 0 {
			continue
		}
		k := slices.IndexFunc(out.Lengths, func(l PartLength) bool { return length.Same(l.Long, q.Long) && length.Same(l.Wide, q.Wide) })
		switch {
		case k >= 0:
			out.Lengths[k].Count += q.Count
		case len(out.Lengths) == mostLengths:
			out.More++
		default:
			out.Lengths = append(out.Lengths, PartLength{q.Long, q.Wide, q.Count})
		}
	}
	slices.SortFunc(out.Lengths, func(a, b PartLength) int {
		if a.Long > b.Long {
			return -1
		}
		return 1
	})
	return out
}
