package plan

import (
	"mallow/core/engine"
	"mallow/core/job"
	"mallow/core/stage"
	"mallow/core/stage/amend"
	"mallow/core/stage/days"
	"mallow/core/stage/load"
	"mallow/core/stage/record"
)

// Record holds what was seen on site against the plan: with it how fast it goes, what is
// left to do, and which rails that were cut fit no more.
func (r *Result) Record() *record.Log { return r.recorded(false) }

// Forecast is the record with what takes longer to find, since the pour and the days are
// planned for it: how the pace does against the truck, and against the days that are left.
func (r *Result) Forecast() *record.Log { return r.recorded(true) }

func (r *Result) recorded(ahead bool) *record.Log {
	out := record.Compute(r.Job, r.loads())
	if len(r.Job.Observed) == 0 {
		return out
	}
	r.going(out, ahead)
	var gates []record.GateAt
	for _, run := range r.Runs {
		for i := range run.Gates.Made {
			g := &run.Gates.Made[i]
			name := g.Name
			if name == "" {
				name = g.ID
			}
			gates = append(gates, record.GateAt{Run: run.Load.Spec.ID, ID: g.ID, Name: name})
		}
	}
	out.Punches(gates)
	out.Fit(r.rails())
	out.Remind(out.Last(), len(gates), r.Job.Site.Place != nil && r.Job.Site.Place.Latitude < 0)
	return out
}

// going adds how fast the work goes against the days and the pour that were planned.
func (r *Result) going(out *record.Log, ahead bool) {
	d := r.Job.Days
	crew := record.Crew{People: r.people(), ByHand: d.ByHand, Brace: r.minutes("brace") / float64(r.people())}
	at := map[string]*engine.Run{}
	for _, run := range r.Runs {
		for i := range run.Load.Posts {
			if run.Load.Posts[i].Shared == "" { // a corner post's hole is the run's before
				at[run.Load.Posts[i].ID] = run
			}
		}
	}
	if ahead && out.Poured > 0 && out.Poured < len(out.Posts) {
		day := r.PourDay()
		crew.PerHour, crew.Bears = day.PerHour, day.Bears
		if day.By != job.ByTruck {
			crew.Bears = 0
		}
	}
	out.Go(crew, func(post string) float64 {
		run := at[post]
		if run == nil {
			return 0
		}
		return run.Load.HoleMinutes(run.Load.PostAt(post), crew.People, crew.ByHand)
	})
	if !ahead || d.Start == "" || len(out.Paces) == 0 {
		return
	}
	s := r.Elsewhere(d.Taken) // as figures: nobody asks here what would be sooner
	var dates []string
	hours := 0.0
	for i := range s.Days {
		dates, hours = append(dates, s.Days[i].Date), max(hours, s.Days[i].Hours)
	}
	out.Late(dates, hours)
}

// people is how many hands the crew has.
func (r *Result) people() int {
	if n := r.Job.Days.People; n > 0 {
		return n
	}
	return days.UsualPeople
}

// minutes is how long one person takes for one of what a task counts.
func (r *Result) minutes(task string) float64 {
	for _, own := range r.Job.Days.Rates {
		if own.Task == task {
			return own.Minutes
		}
	}
	for _, t := range r.Catalog.Work.Tasks {
		if t.ID == task {
			return t.Minutes
		}
	}
	return 0
}

// rails are the bays of the job with the length of their rails.
func (r *Result) rails() (out []record.RailBay) {
	had := map[string]bool{}
	for _, run := range r.Runs {
		for k := range run.Build.Parts {
			p := &run.Build.Parts[k]
			if p.Kind != job.RailPart || p.Gates {
				continue
			}
			for _, q := range p.Pieces {
				if q.Bay < 0 || q.Bay != q.To || had[run.Load.Posts[q.Bay].ID] {
					continue
				}
				had[run.Load.Posts[q.Bay].ID] = true
				bay := &run.Load.Bays[q.Bay]
				out = append(out, record.RailBay{Run: run.Load.Spec.ID, Post: run.Load.Posts[q.Bay].ID, Label: bay.Label, Needs: q.Long, Count: q.Count})
			}
		}
	}
	return out
}

// Learn adds what a finished job says of its crew to what others did, against the usual
// rates whatever the job's own were.
func (r *Result) Learn(u *record.Usual) bool {
	if r.Job.Site.Crew != nil {
		j := r.Job
		j.Site.Crew = nil
		r = &Result{engine.Compute(j, r.Catalog, nil, func() {})}
	}
	log := r.Record()
	if !log.Finished() {
		return false
	}
	buy, need := 0.0, 0.0
	for _, run := range r.Runs {
		t := &run.Load.Totals
		buy, need = buy+float64(t.ConcreteToBuy), need+float64(t.Concrete)
	}
	waste := 0.0
	if need > 0 {
		waste = buy/need - 1
	}
	u.Learn(log, r.people(), waste)
	return true
}

// Amend says what can be done about what differs at a post, or at every post where
// something is to be decided; a post that nothing differs at has nothing.
func (r *Result) Amend(stop func() error, post string) (out []amend.Amending, err error) {
	out = []amend.Amending{}
	err = stage.Until(func() {
		advice, rec := r.Advice(stage.NewWatch(stop)), r.Record()
		for i := range rec.Posts {
			o := &rec.Posts[i]
			if post != "" && o.ID != post {
				continue
			}
			for k := range o.Deviations {
				if d := &o.Deviations[k]; d.State == record.Open || post != "" && d.State != record.LetGo {
					out = append(out, amend.Amending{Post: o.ID, Fact: d.Fact, Says: d.Says, Ways: r.waysOf(advice, o, d)})
				}
			}
		}
	})
	return out, err
}

func (r *Result) waysOf(advice *engine.Advice, o *record.RecordPost, d *record.Deviation) []amend.Way {
	run := r.Run(o.Run)
	a := advice.On(o.Run)
	ways := amend.Ways(r.Job.Observed, run.Load, a, func(then job.Run) (*load.Load, *stage.Outcome) {
		l := advice.InLine(then)
		if l == nil {
			return nil, nil
		}
		return l, engine.OutcomeOf(l)
	}, o, d)
	return ways
}
