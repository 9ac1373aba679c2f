package record

import (
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/reason"
	"mallow/core/stage/load"
	"mallow/core/words"
)

// Standing is how a deviation stands.
type Standing string

// How deviations stand.
const (
	LetGo   Standing = "let go"  // within what may be
	Open    Standing = "open"    // something is to be decided
	Decided Standing = "decided" // it was
	Spaced  Standing = "spaced"  // the rest of the run is spaced again from it
)

// Deviation is by how much something differs from the plan.
type Deviation struct {
	Fact    string        `json:"fact" jsonschema:"required" jsonschema_description:"Where it was seen."`
	What    job.Seen      `json:"what" jsonschema:"required" jsonschema_description:"landed, line, plumb, lean, depth, width or top; rock, water or root for a hole that was stopped."`
	By      length.Length `json:"by" jsonschema:"required" jsonschema_description:"Along the fence: on is more; a hole: deeper or wider is more; a top: over is more."`
	Allowed length.Length `json:"allowed" jsonschema:"required" jsonschema_description:"So much is let go."`
	State   Standing      `json:"state" jsonschema:"required,enum=let go,enum=open,enum=decided,enum=spaced"`
	Way     string        `json:"way,omitempty" jsonschema_description:"What was decided."`
	Says    reason.Text   `json:"says" jsonschema:"required"`
}

// deviations compares what was seen of a post with the plan, along the fence first.
func (w *recorder) deviations(m *load.Load, i int, o *RecordPost) {
	p, tol := &m.Posts[i], m.Tolerances
	last, decided := map[job.Seen]job.Fact{}, map[string]string{}
	for _, f := range w.facts[p.ID] {
		if last[f.What] = f; f.What == job.Decided {
			decided[f.Answers] = f.Way
		}
	}
	add := func(f job.Fact, by length.Length, allowed *length.Length, says reason.Text) {
		if by.Abs() < max(2*length.Tolerance, w.job.Units.SmallestMark/2) { // no tape tells it
			return
		}
		d := Deviation{Fact: f.ID, What: f.What, By: by, Allowed: *allowed, State: Open, Says: says}
		if d.Way = decided[f.ID]; d.Way != "" {
			d.State = Decided
		} else if by.Abs() <= *allowed+length.Tolerance {
			d.State = LetGo
		}
		o.Deviations = append(o.Deviations, d)
	}
	if f, ok := last[job.Landed]; ok {
		by, held := along(m, i, *f.At)
		if held {
			o.Deviations = append(o.Deviations, Deviation{Fact: f.ID, What: f.What, Allowed: *tol.Bay, State: Spaced, Way: decided[f.ID], Says: words.Say("record.spaced", words.V{"post": p.Label, "at": *f.At})})
		} else {
			past := "record.along-past"
			if by < 0 {
				past = "record.along-short"
			}
			add(f, by, tol.Bay, words.Say(past, words.V{"post": p.Label, "by": by.Abs()}))
		}
	}
	sided := func(what job.Seen, allowed *length.Length, more, less string) {
		f, ok := last[what]
		if !ok || f.Value == nil {
			return
		}
		by, side := length.Length(*f.Value), more
		if by < 0 {
			side = less
		}
		add(f, by, allowed, words.Say(side, words.V{"post": p.Label, "by": by.Abs()}))
	}
	sided(job.OffLine, tol.Line, "record.line-left", "record.line-right")
	sided(job.OffPlumb, tol.Plumb, "record.plumb-on", "record.plumb-back")
	sided(job.OffAcross, tol.Plumb, "record.lean-left", "record.lean-right")
	sided(job.TopMark, tol.Top, "record.top-over", "record.top-under")
	if s := p.Stopped; s != nil {
		for _, what := range []job.Seen{job.SeenRock, job.SeenWater, job.SeenRoot} {
			f, ok := last[what]
			if !ok || job.Struck(what) != s.What {
				continue
			}
			if add(f, p.Bottom-s.Wanted, tol.Depth, words.Say("record.stopped-"+string(what), words.V{"post": p.Label, "depth": s.Depth, "by": (s.Wanted - p.Bottom).Abs()})); s.Settled != "" && len(o.Deviations) > 0 {
				d := &o.Deviations[len(o.Deviations)-1]
				d.State, d.Way = Decided, string(s.Settled)
			}
		}
	} else if f, ok := last[job.DepthDug]; ok && f.Value != nil && !p.Driven {
		by, deep := length.Length(*f.Value)-p.HoleDepth, "record.deep"
		if by < 0 {
			deep = "record.not-deep"
		}
		add(f, by, tol.Depth, words.Say(deep, words.V{"post": p.Label, "by": by.Abs(), "planned": p.HoleDepth}))
	}
	if f, ok := last[job.WidthDug]; ok && f.Value != nil && !p.Driven {
		by, wide := length.Length(*f.Value)-p.HoleWidth, "record.wide"
		if by < 0 {
			wide = "record.narrow"
		}
		add(f, by, tol.Width, words.Say(wide, words.V{"post": p.Label, "by": by.Abs(), "planned": p.HoleWidth}))
	}
}

// along is how far a post landed off its mark; it is held where no bay beside it could
// take that, or where the crew said so, and the rest is spaced again from it.
func along(m *load.Load, i int, at length.Length) (by length.Length, held bool) {
	switch p := &m.Posts[i]; {
	case i == 0:
		return at, false
	case i == len(m.Posts)-1:
		return at - p.Station, false
	case !p.Landed:
		return 0, false
	case p.Off != 0:
		return p.Off, false
	}
	l := &m.Layout
	return 0, l.Posts[i].Held >= 0 && l.Bays[i-1].Segment != l.Bays[i].Segment
}

// Deviating is the deviation of a post that is known by the fact that says so.
func (r *Log) Deviating(post, fact string) (*RecordPost, *Deviation) {
	for i := range r.Posts {
		o := &r.Posts[i]
		if o.ID != post {
			continue
		}
		for k := range o.Deviations {
			if o.Deviations[k].Fact == fact {
				return o, &o.Deviations[k]
			}
		}
	}
	return nil, nil
}
