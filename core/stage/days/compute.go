package days

import (
	"cmp"
	"math"
	"slices"
	"time"

	"mallow/core/agenda"
	"mallow/core/bill"
	"mallow/core/finding"
	"mallow/core/job"
	"mallow/core/materials"
	"mallow/core/stage/pourday"
	"mallow/core/weather"
)

// The usual days, where the job says nothing else.
const (
	usualFrom, usualTo = "07:00", "16:00"
	// UsualPeople is how many hands a crew has.
	UsualPeople = 3
	usualTravel = 30.0
	// locating is how many working days an office takes that was not asked yet (common
	// practice: two or three).
	locating = 3
	// mostDays is how far ahead a place is looked for.
	mostDays = 400
)

type planner struct {
	Given
	days   job.Days
	out    *Schedule
	start  time.Time
	tasks  []AgendaTask
	specs  []materials.WorkTask
	q      agenda.Question
	sky    weather.Series
	pour   *pourday.Day
	usual  map[string]bool // waits that are the usual ones
	poured bool
	on     string // day of the pour, where it was found
	unfit  []unfit
}

// Compute lays the work out.
func Compute(g Given) *Schedule {
	g.pours = map[string]*pourday.Day{}
	return compute(g, false)
}

// Figures is the same without ways out, and without what would be sooner.
func Figures(g Given) *Schedule {
	g.pours = map[string]*pourday.Day{}
	return compute(g, true)
}

func compute(g Given, trial bool) *Schedule {
	w := planner{Given: g, days: g.Job.Days, usual: map[string]bool{}, out: &Schedule{
		Tasks: []AgendaTask{}, Days: []OnDay{}, Waits: []AgendaWait{}, Left: []string{}, Sooner: []Sooner{}, Asks: []pourday.DayAsk{}, Finds: []finding.Finding{},
	}}
	w.take()
	if w.days.Start == "" {
		w.out.Asks = append(w.out.Asks, pourday.DayAsk{Field: "/days/start", Says: startAsked})
	}
	w.sky, _ = weather.New(g.Job.Weather)
	w.pour = g.Pour(g.Job)
	w.count()
	if w.days.Start == "" || len(w.tasks) == 0 {
		w.out.Tasks = append(w.out.Tasks, w.tasks...)
		return w.out
	}
	w.start, _ = time.Parse(time.DateOnly, w.days.Start)
	w.q.Soonest = g.soonest
	w.calendar()
	a := w.solve()
	w.write(a)
	if !trial {
		w.check(a)
		w.sooner()
	}
	return w.out
}

// take takes for what is left out what is usual.
func (w *planner) take() {
	d := &w.days
	if d.From == "" {
		d.From = usualFrom
	}
	if d.To == "" {
		d.To = usualTo
	}
	if d.People == 0 {
		d.People = UsualPeople
	}
	if d.Travel == nil {
		v := usualTravel
		d.Travel = &v
	}
	w.out.Start, w.out.People, w.out.From, w.out.To, w.out.Travel = d.Start, d.People, d.From, d.To, *d.Travel
}

// count finds the tasks that there are, and how long the crew takes for each.
func (w *planner) count() {
	for _, t := range w.Cat.Work.Tasks {
		n := w.amount(t)
		each := t.Minutes
		for _, r := range w.days.Rates {
			if r.Task == t.ID {
				each = r.Minutes
			}
		}
		hands := w.days.People
		if t.Most > 0 {
			hands = min(hands, t.Most)
		}
		minutes := n*each + t.Once
		switch t.ID {
		case "inspect":
			if !w.days.Inspected {
				continue
			}
			minutes = t.Once * float64(hands) // the crew waits
		case "dig":
			minutes = n*60 + t.Once
			if !w.days.ByHand { // by machine: two at the auger, whoever else is there
				hands = min(hands, 1)
			}
		case "pour":
			if len(w.pour.Posts) == 0 {
				continue
			}
			n = float64(len(w.pour.Posts))
			minutes = t.Once + w.pour.Minutes*float64(hands)
			each = minutes / n
			w.poured = true
		case "clear":
		default:
			if n == 0 {
				continue
			}
		}
		w.specs = append(w.specs, t)
		w.tasks = append(w.tasks, AgendaTask{ID: t.ID, Name: t.Name, Says: t.Says, Count: n, Each: each, Rated: !slices.Contains([]string{"dig", "pour", "inspect"}, t.ID), Hours: minutes / 60 / float64(hands)})
	}
	if len(w.Items) == 0 {
		w.tasks, w.specs = nil, nil
	}
	for _, t := range w.tasks {
		w.out.Hours += t.Hours
	}
}

// amount is how much there is of what a task counts.
func (w *planner) amount(t materials.WorkTask) float64 {
	n := 0.0
	for _, i := range w.Items {
		if !slices.Contains(t.Counts, i.Kind) {
			continue
		}
		if i.Kind == bill.Labour { // hours of digging: by machine, or all by hand
			if (i.ID == "digging-by-hand") == w.days.ByHand {
				n += i.Exact
			}
			continue
		}
		n += i.Exact
	}
	return n
}

// calendar is the hours of every day from the start on.
func (w *planner) calendar() {
	from, to := hoursOf(w.days.From), hoursOf(w.days.To)
	way := *w.days.Travel / 60
	for k := range mostDays {
		day := w.start.AddDate(0, 0, k)
		s := agenda.Span{From: from + way, To: to - way}
		date := day.Format(time.DateOnly)
		off := day.Weekday() == time.Sunday || day.Weekday() == time.Saturday && !w.days.Saturdays || slices.Contains(w.days.Rest, date) || slices.Contains(w.days.Taken, date)
		if off || s.To < s.From {
			s.To = s.From
		}
		if p := w.Job.Site.Place; p != nil && !off { // nobody works in the dark
			if rise, set, ok := weather.Daylight(p.Latitude, p.Longitude, time.Date(day.Year(), day.Month(), day.Day(), 12, 0, 0, 0, w.sky.Zone(day))); ok && !w.sky.Empty() {
				s.From, s.To = max(s.From, clockHours(rise)), min(s.To, clockHours(set))
				s.To = max(s.To, s.From)
			}
		}
		w.q.Days = append(w.q.Days, s)
	}
}

func hoursOf(clock string) float64 {
	t, _ := time.Parse("15:04", clock)
	return float64(t.Hour()) + float64(t.Minute())/60
}

func clockHours(t time.Time) float64 {
	return math.Ceil((float64(t.Hour())+float64(t.Minute())/60)*4) / 4
}

// links tells the agenda what comes after what, and what must have hardened.
func (w *planner) links() {
	at := map[string]int{}
	for k, t := range w.specs {
		at[t.ID] = k
	}
	longest := 0.0
	for _, d := range w.q.Days {
		longest = max(longest, d.To-d.From)
	}
	for k, t := range w.specs {
		// What takes longer than a day goes on the next, as the pour card has it.
		q := agenda.Task{Hours: w.tasks[k].Hours, Whole: t.Whole && w.tasks[k].Hours <= longest, Day: -1}
		for _, before := range w.before(t.ID) {
			if i, ok := at[before]; ok {
				q.After = append(q.After, agenda.Link{Task: i})
			}
		}
		if i, ok := at["pour"]; ok && t.Wait != "" {
			q.After = append(q.After, agenda.Link{Task: i, Hours: w.wait(t.Wait)})
		}
		if t.ID == "dig" {
			q.NotBefore = w.located()
		}
		if date := cmp.Or(w.Job.Pour.Date, w.on); t.ID == "pour" && date != "" {
			q.Day = w.day(date)
			if len(w.pour.From) > 15 { // as the pour card has it
				q.Clock = hoursOf(w.pour.From[11:16])
			}
		}
		for _, m := range w.days.Moves {
			if m.Task == t.ID {
				q.Day, w.tasks[k].Moved = w.day(m.Date), true
			}
		}
		w.q.Tasks = append(w.q.Tasks, q)
	}
}

// before are the tasks before one, going through those that this job has not.
func (w *planner) before(id string) []string {
	var out []string
	for _, t := range w.Cat.Work.Tasks {
		if t.ID != id {
			continue
		}
		for _, a := range t.After {
			if slices.ContainsFunc(w.specs, func(s materials.WorkTask) bool { return s.ID == a }) {
				out = append(out, a)
			} else {
				out = append(out, w.before(a)...)
			}
		}
	}
	return out
}

// wait is how many hours after the pour something may be loaded: by the weather, or as
// long as crews usually wait at most.
func (w *planner) wait(id string) float64 {
	for _, o := range w.pour.Waits {
		if o.ID == id && o.Hours > 0 {
			return o.Hours
		}
	}
	w.usual[id] = true
	for _, o := range w.Cat.Pouring.Waits {
		if o.ID == id {
			return materials.Sooner(o.Warm, w.pour.Slowest())[1]
		}
	}
	return 0
}

// located is from when on holes may be dug: when the office's marks must be down.
func (w *planner) located() float64 {
	b := w.Job.Site.Before
	if b.Services {
		return 0
	}
	clear := w.start
	if b.Ticket != nil {
		if t, err := time.Parse(time.DateOnly, b.Ticket.Clear); err == nil {
			clear = t
		}
	} else {
		for n := 0; n < locating; {
			clear = clear.AddDate(0, 0, 1)
			if d := clear.Weekday(); d != time.Saturday && d != time.Sunday {
				n++
			}
		}
	}
	if !clear.After(w.start) {
		return 0
	}
	w.out.Waits = []AgendaWait{{For: marksDown, Until: clear.Format(time.DateOnly)}}
	return clear.Sub(w.start).Hours()
}

// day is which day of the calendar a date is; beyond it where it lies before the start.
func (w *planner) day(date string) int {
	t, err := time.Parse(time.DateOnly, date)
	if err != nil || t.Before(w.start) {
		return mostDays
	}
	return int(t.Sub(w.start).Hours() / 24)
}

// write tells the agenda in days.
func (w *planner) write(a agenda.Answer) {
	o := w.out
	o.Trips, o.Best, o.Pour = a.Trips, a.Best, w.on
	pour := -1
	for k := range w.tasks {
		t := &w.tasks[k]
		if parts := a.Parts[k]; parts != nil {
			t.Begin, t.End = w.clock(parts[0].Begin), w.clock(parts[len(parts)-1].End)
		} else {
			o.Left = append(o.Left, t.Name)
		}
		if t.ID == "pour" {
			pour = k
		}
	}
	if pour >= 0 && a.Parts[pour] != nil {
		done := a.Parts[pour][len(a.Parts[pour])-1].End
		for _, x := range w.Cat.Pouring.Waits {
			if slices.ContainsFunc(w.specs, func(s materials.WorkTask) bool { return s.Wait == x.ID }) {
				o.Waits = append(o.Waits, AgendaWait{For: x.Name, Until: w.clock(done + w.wait(x.ID)), Usual: w.usual[x.ID]})
			}
		}
	}
	o.Tasks = append(o.Tasks, w.tasks...)
	if len(o.Left) == 0 {
		o.Finish = w.clock(a.Finish)[:10]
	}
	if !a.Best && a.Bound > 0 {
		o.Bound = w.clock(a.Bound)[:10]
	}
	for day := range w.q.Days {
		w.onDay(day, a)
	}
}

// clock is a time of the agenda: day and time by the site's clock.
func (w *planner) clock(at float64) string {
	return w.start.Add(time.Duration(math.Round(at*60)) * time.Minute).Format("2006-01-02T15:04")
}
