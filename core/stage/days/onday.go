package days

import (
	"math"
	"slices"
	"time"

	"mallow/core/agenda"
	"mallow/core/bill"
	"mallow/core/job"
	"mallow/core/reason"
)

// onDay writes one day on site down.
func (w *planner) onDay(day int, a agenda.Answer) {
	d := OnDay{Date: w.start.AddDate(0, 0, day).Format(time.DateOnly), Parts: []AgendaPart{}, Load: []Carried{}, Who: []string{}, Checks: []string{}, Cautions: []reason.Text{}}
	var kinds []bill.Kind
	for k := range w.tasks {
		for i, p := range a.Parts[k] {
			if int(p.Begin/24) != day {
				continue
			}
			t := &w.tasks[k]
			d.Parts = append(d.Parts, AgendaPart{Task: t.ID, Name: t.Name, From: w.clock(p.Begin)[11:], To: w.clock(p.End)[11:], Hours: p.End - p.Begin, More: i < len(a.Parts[k])-1, Posts: w.posts(t.ID, a.Parts[k], i)})
			d.Hours += p.End - p.Begin
			if i == 0 {
				kinds = append(kinds, w.specs[k].Takes...)
			}
			w.who(&d, t.ID)
			if t.Says != "" {
				d.Checks = append(d.Checks, t.Says)
			}
			for _, stage := range w.specs[k].Stages {
				d.Cautions = append(d.Cautions, w.Cautions(stage)...)
			}
		}
	}
	if len(d.Parts) == 0 {
		return
	}
	slices.SortStableFunc(d.Parts, func(a, b AgendaPart) int {
		switch {
		case a.From < b.From:
			return -1
		case a.From > b.From:
			return 1
		}
		return 0
	})
	d.From, d.To = d.Parts[0].From, d.Parts[len(d.Parts)-1].To
	for _, i := range bill.Rows(slices.DeleteFunc(slices.Clone(w.Items), func(i bill.Item) bool { return !slices.Contains(kinds, i.Kind) })) {
		if !i.Or {
			d.Load = append(d.Load, Carried{i.Buy.What, i.Many, i.Of})
		}
	}
	w.weather(&d)
	w.out.Days = append(w.out.Days, d)
}

// posts are the posts that a task is about on a day: as many as its hours are of all.
func (w *planner) posts(id string, parts []agenda.Part, i int) []string {
	if !slices.Contains([]string{"stake", "dig", "brace", "tops"}, id) || len(w.Posts) == 0 {
		return nil
	}
	sum, before := 0.0, 0.0
	for k, p := range parts {
		sum += p.End - p.Begin
		if k < i {
			before += p.End - p.Begin
		}
	}
	n := float64(len(w.Posts))
	from, to := int(math.Round(n*before/sum)), int(math.Round(n*(before+parts[i].End-parts[i].Begin)/sum))
	return w.Posts[from:to]
}

func (w *planner) who(d *OnDay, id string) {
	add := func(who string) {
		if !slices.Contains(d.Who, who) {
			d.Who = append(d.Who, who)
		}
	}
	switch {
	case id == "dig" && !w.days.ByHand:
		add(augerComes)
	case id == "inspect":
		add(inspectorComes)
	case id == "pour" && w.pour.By == job.ByTruck:
		add(truckComes)
	}
}

// weather is the day's coldest and warmest while the crew is there.
func (w *planner) weather(d *OnDay) {
	rain, low, high, known := 0.0, 99.0, -99.0, false
	for h := 6.0; h <= 18; h++ {
		at, err := w.sky.Clock(d.Date, h*60)
		if err != nil {
			return
		}
		c, ok := w.sky.At(at)
		if !ok {
			continue
		}
		known = true
		low, high = min(low, c.Temp), max(high, c.Temp)
		if c.Rain != nil {
			rain += *c.Rain
		}
	}
	if known {
		d.Low, d.High, d.Rain = &low, &high, &rain
	}
}
