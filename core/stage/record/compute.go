package record

import (
	"cmp"
	"math"
	"slices"
	"time"

	"mallow/core/finding"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/pour"
	"mallow/core/stage/load"
)

// enough is how many holes must have been counted before the rest is judged by them
// (common practice: three times is no chance).
const enough = 3

// recorder writes a record.
type recorder struct {
	job   job.Job
	runs  []*load.Load
	out   *Log
	facts map[string][]job.Fact // that hold, by the post
	at    map[string]*load.Load // run of each post
}

// Compute holds what was seen against the plan.
func Compute(j job.Job, runs []*load.Load) *Log {
	w := recorder{job: j, runs: runs, facts: map[string][]job.Fact{}, at: map[string]*load.Load{}, out: &Log{Posts: []RecordPost{}, Finds: []finding.Finding{}, Days: []Daily{}, Paces: []Pace{}, Worst: []Worst{}, Cut: []CutRail{}, Punch: []Punch{}, Later: []Reminder{}, marks: map[job.Seen][]entry{}, gates: map[string]bool{}, may: map[string]job.Tolerances{}}}
	w.read()
	for _, all := range w.out.marks {
		slices.SortStableFunc(all, func(a, b entry) int { return cmp.Or(a.at.Compare(b.at), cmp.Compare(a.posts[0], b.posts[0])) })
	}
	for _, m := range runs {
		w.out.runIDs, w.out.may[m.Spec.ID] = append(w.out.runIDs, m.Spec.ID), m.Tolerances
		for i := range m.Posts {
			if p := &m.Posts[i]; p.Shared == "" && p.Stays == "" {
				w.post(m, i)
			}
		}
	}
	w.progress()
	w.bags()
	w.check()
	w.worst()
	w.days()
	return w.out
}

// read takes the facts about posts that no later one strikes out.
func (w *recorder) read() {
	struck := map[string]bool{}
	for _, f := range w.job.Observed {
		if f.What == job.StruckOut {
			struck[f.Strikes] = true
		}
	}
	for _, f := range w.job.Observed {
		if f.What == job.StruckOut || struck[f.ID] {
			continue
		}
		id := f.OnPost()
		if id == "" {
			if kind, ids := f.About(); kind == "gate" && f.What == job.MarkBuilt {
				w.out.gates[ids[0]+"/"+ids[1]] = true
			}
			continue
		}
		f.Value = f.Measure()
		w.facts[id] = append(w.facts[id], f)
		if at, err := time.Parse(time.RFC3339, f.When); err == nil {
			w.out.marks[f.What] = append(w.out.marks[f.What], entry{at, []string{id}})
		}
	}
}

// stages are the marks by which a post is so far.
var stages = map[job.Seen]Stage{job.MarkStaked: Staked, job.MarkDug: Dug, job.MarkSet: Set, job.MarkPoured: Poured, job.MarkBuilt: Built}

// post reads one post's facts; of two about the same the later one holds, whatever else
// stands between them. Bags and gravel that were put in twice add up.
func (w *recorder) post(m *load.Load, i int) {
	p := &m.Posts[i]
	o := RecordPost{Run: m.Spec.ID, ID: p.ID, Label: p.Label, Planned: p.HoleDepth, Station: p.Station, Deviations: []Deviation{}, Notes: []string{}, bags: p.Bags}
	w.at[p.ID] = m
	for _, f := range w.facts[p.ID] {
		if f.When != "" {
			o.When, o.Who = f.When, f.Who
		}
		if f.Note != "" {
			o.Notes = append(o.Notes, f.Note)
		}
		if s, ok := stages[f.What]; ok {
			o.Stage = max(o.Stage, s)
		}
		switch f.What {
		case job.Landed:
			o.At = f.At
		case job.CutTo:
			if n := len(w.out.cuts); n > 0 && w.out.cuts[n-1].On == f.On { // cut again
				w.out.cuts = w.out.cuts[:n-1]
			}
			w.out.cuts = append(w.out.cuts, f)
		}
		if f.Value == nil {
			continue
		}
		long := length.Length(*f.Value)
		switch f.What {
		case job.DepthDug:
			o.Depth = &long
			o.Stage = max(o.Stage, Dug)
		case job.WidthDug:
			o.Width = &long
		case job.OffLine:
			o.Off = &long
		case job.OffPlumb:
			o.Plumb = &long
		case job.OffAcross:
			o.Across = &long
		case job.TopMark:
			o.Top = &long
		case job.BagsUsed:
			n := *f.Value
			if o.Bags != nil {
				n += *o.Bags
			}
			o.Bags, o.Stage = &n, max(o.Stage, Poured)
		case job.GravelUsed:
			v := length.Volume(*f.Value)
			if o.Gravel != nil {
				v += *o.Gravel
			}
			o.Gravel = &v
		case job.SeenRock, job.SeenWater, job.SeenRoot, job.SeenPipe:
			o.Hit, o.HitAt = f.What, &long
		}
	}
	w.deviations(m, i, &o)
	for _, d := range o.Deviations {
		if d.State == Open {
			w.out.Open++
		}
	}
	w.out.Posts = append(w.out.Posts, o)
}

// progress counts how many posts are how far, and finds the next.
func (w *recorder) progress() {
	d := w.out
	least := Built
	for i := range d.Posts {
		s := d.Posts[i].Stage
		for stage, n := range map[Stage]*int{Staked: &d.Staked, Dug: &d.Dug, Set: &d.Set, Poured: &d.Poured, Built: &d.Built} {
			if s >= stage {
				*n++
			}
		}
		if s < least {
			least, d.Next = s, d.Posts[i].ID
		}
	}
}

// bags finds how far the bags last, if the holes to come take as many more than planned
// as those before them. Holes are filled in the order of the lines.
func (w *recorder) bags() {
	b := RecordBags{}
	all := 0.0
	for i := range w.out.Posts {
		o := &w.out.Posts[i]
		all += o.bags
		if o.Bags != nil && o.bags > 0 {
			b.Holes, b.Used, b.Planned = b.Holes+1, b.Used+*o.Bags, b.Planned+o.bags
		}
	}
	if b.Holes == 0 {
		return
	}
	b.Bought, b.Sure = pour.Whole(all), b.Holes >= enough
	more := 1.0
	if b.Sure {
		more = b.Used / b.Planned
	}
	left := float64(b.Bought) - b.Used
	b.Expect = b.Used
	for i := range w.out.Posts {
		o := &w.out.Posts[i]
		if o.Bags != nil || o.Stage >= Poured {
			continue
		}
		takes := o.bags * more
		b.Expect += takes
		if left -= takes; left < -1e-6 && b.By == "" && takes > 0 {
			b.By = o.Label
		}
	}
	b.Short = max(0, int(math.Ceil(b.Expect-float64(b.Bought)-1e-6)))
	if b.Short == 0 {
		b.By = ""
	}
	w.out.Bags = &b
}

// met are the depths at which one thing was met, in order.
func (w *recorder) met(what job.Seen) []length.Length {
	var out []length.Length
	for i := range w.out.Posts {
		if o := &w.out.Posts[i]; o.Hit == what && o.HitAt != nil {
			out = append(out, *o.HitAt)
		}
	}
	slices.Sort(out)
	return out
}
