package record

import (
	"cmp"
	"slices"
	"strings"
	"time"

	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/reason"
	"mallow/core/weather"
)

// Daily is what was done and found on one day, by the clock of who wrote it down.
type Daily struct {
	Date   string        `json:"date" jsonschema:"required" jsonschema_description:"Year-month-day."`
	From   string        `json:"from" jsonschema:"required" jsonschema_description:"When the first thing was written down."`
	To     string        `json:"to" jsonschema:"required" jsonschema_description:"When the last was."`
	Who    []string      `json:"who" jsonschema:"required"`
	Done   []DailyDone   `json:"done" jsonschema:"required"`
	Found  []DailyFound  `json:"found" jsonschema:"required" jsonschema_description:"What differed from the plan, with what was decided."`
	Notes  []DailyNote   `json:"notes" jsonschema:"required"`
	Bags   float64       `json:"bags" jsonschema:"required"`
	Holes  int           `json:"holes" jsonschema:"required" jsonschema_description:"In which bags were counted."`
	Gravel length.Volume `json:"gravel" jsonschema:"required"`
	Struck int           `json:"struck" jsonschema:"required" jsonschema_description:"Things that were written down on the day and struck out since."`
	Low    *float64      `json:"low,omitempty" jsonschema_description:"Degrees Celsius; left out where the weather is not known."`
	High   *float64      `json:"high,omitempty"`
	Rain   *float64      `json:"rain,omitempty" jsonschema_description:"Millimetres."`
}

// DailyDone is posts of a run that were brought so far.
type DailyDone struct {
	What  job.Seen `json:"what" jsonschema:"required,enum=staked,enum=dug,enum=set,enum=poured,enum=built,enum=cut"`
	Run   string   `json:"run" jsonschema:"required"`
	Posts []string `json:"posts" jsonschema:"required" jsonschema_description:"Their labels, in the order of the line; empty where it is the run or a gate."`
	Gate  string   `json:"gate,omitempty" jsonschema_description:"The gate that is built."`
}

// DailyFound is something that differs, or was met.
type DailyFound struct {
	Run   string      `json:"run" jsonschema:"required"`
	Post  string      `json:"post" jsonschema:"required" jsonschema_description:"Its label."`
	Says  reason.Text `json:"says" jsonschema:"required"`
	State Standing    `json:"state" jsonschema:"required,enum=let go,enum=open,enum=decided,enum=spaced"`
	Way   string      `json:"way,omitempty"`
}

// DailyNote is free words, and a photograph where one was taken.
type DailyNote struct {
	On    string `json:"on" jsonschema:"required" jsonschema_description:"Label of its post; empty where it is about no post."`
	Run   string `json:"run,omitempty"`
	Says  string `json:"says" jsonschema:"required"`
	Photo string `json:"photo,omitempty"`
}

// doneMarks are what is done at a post, in order.
var doneMarks = []job.Seen{job.MarkStaked, job.MarkDug, job.MarkSet, job.MarkPoured, job.CutTo, job.MarkBuilt}

// days sorts what was written down by days. A fact that has no time belongs to none.
func (w *recorder) days() {
	by := map[string]*Daily{}
	done := map[string]map[doneOn][]int{}
	place := map[string]int{}
	for i := range w.out.Posts {
		place[w.out.Posts[i].ID] = i
	}
	struck := map[string]bool{}
	for _, f := range w.job.Observed {
		if f.What == job.StruckOut {
			struck[f.Strikes] = true
		}
	}
	on := func(f job.Fact) *Daily {
		date, clock := f.When[:10], f.When[11:16]
		d := by[date]
		if d == nil {
			d = &Daily{Date: date, From: clock, To: clock, Who: []string{}, Done: []DailyDone{}, Found: []DailyFound{}, Notes: []DailyNote{}}
			by[date], done[date] = d, map[doneOn][]int{}
		}
		d.From, d.To = min(d.From, clock), max(d.To, clock)
		if f.Who != "" && !slices.Contains(d.Who, f.Who) {
			d.Who = append(d.Who, f.Who)
		}
		return d
	}
	dayOf := map[string]*Daily{}        // of each fact
	gone := map[string]int{}            // struck out, by the day
	all := slices.Clone(w.job.Observed) // in whatever order they were written in
	slices.SortStableFunc(all, func(a, b job.Fact) int {
		return cmp.Or(cmp.Compare(a.When, b.When), cmp.Compare(a.On, b.On), cmp.Compare(a.What, b.What))
	})
	for _, f := range all {
		if len(f.When) < 16 || f.What == job.StruckOut {
			continue
		}
		if struck[f.ID] {
			gone[f.When[:10]]++
			continue
		}
		d := on(f)
		dayOf[f.ID] = d
		i, known := place[f.OnPost()]
		label, run := "", ""
		if known {
			label, run = w.out.Posts[i].Label, w.out.Posts[i].Run
		}
		switch kind, ids := f.About(); {
		case f.Note != "" || f.Photo != "":
			d.Notes = append(d.Notes, DailyNote{On: label, Run: run, Says: f.Note, Photo: f.Photo})
		case f.What == job.MarkBuilt && kind != "post":
			o := DailyDone{What: f.What, Run: ids[0], Posts: []string{}}
			if kind == "gate" {
				o.Gate = ids[1]
			}
			d.Done = append(d.Done, o)
		case slices.Contains(doneMarks, f.What) && known:
			k := doneOn{f.What, run}
			done[d.Date][k] = append(done[d.Date][k], i)
		case f.What == job.BagsUsed && f.Value != nil:
			d.Bags, d.Holes = d.Bags+*f.Value, d.Holes+1
		case f.What == job.GravelUsed && f.Value != nil:
			d.Gravel += length.Volume(*f.Value)
		}
	}
	for i := range w.out.Posts {
		o := &w.out.Posts[i]
		for _, v := range o.Deviations {
			if d := dayOf[v.Fact]; d != nil {
				d.Found = append(d.Found, DailyFound{Run: o.Run, Post: o.Label, Says: v.Says, State: v.State, Way: v.Way})
			}
		}
	}
	sky, err := weather.New(w.job.Weather)
	for date, d := range by {
		d.Struck = gone[date]
		for _, m := range w.runs {
			for _, what := range doneMarks {
				posts := done[date][doneOn{what, m.Spec.ID}]
				if len(posts) == 0 {
					continue
				}
				slices.Sort(posts)
				posts = slices.Compact(posts) // marked twice
				o := DailyDone{What: what, Run: m.Spec.ID}
				for _, i := range posts {
					o.Posts = append(o.Posts, w.out.Posts[i].Label)
				}
				d.Done = append(d.Done, o)
			}
		}
		if err == nil {
			d.sky(sky)
		}
		w.out.Days = append(w.out.Days, *d)
	}
	slices.SortFunc(w.out.Days, func(a, b Daily) int { return strings.Compare(a.Date, b.Date) })
}

// doneOn is what was done on which run.
type doneOn struct {
	what job.Seen
	run  string
}

// sky is the weather between the hours of a day's light, where it is known for one of them.
func (d *Daily) sky(s weather.Series) {
	day, err := time.Parse(time.DateOnly, d.Date)
	if err != nil {
		return
	}
	zone := s.Zone(day)
	for h := 0; h < 24; h++ {
		at := time.Date(day.Year(), day.Month(), day.Day(), h, 0, 0, 0, zone)
		c, known := s.At(at)
		if !known {
			continue
		}
		low, high := c.Temp, c.Temp
		if d.Low != nil {
			low, high = min(*d.Low, low), max(*d.High, high)
		}
		d.Low, d.High = &low, &high
		if c.Rain != nil {
			sum := *c.Rain
			if d.Rain != nil {
				sum += *d.Rain
			}
			d.Rain = &sum
		}
	}
}
