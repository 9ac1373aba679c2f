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
	"mallow/core/reason"
	"mallow/core/stage/pourday"
	"mallow/core/weather"
)

// The usual days, where the job says nothing else.
const (
	usualFrom, usualTo = "07:00", "16:00"
	usualPeople        = 3
	usualTravel        = 30.0
	// locating is how many working days an office takes that was not asked yet (common
	// practice: two or three).
	locating = 3
	// mostDays is how far ahead a place is looked for.
	mostDays = 400
)

// Given is what a schedule is made from.
type Given struct {
	Job      job.Job
	Cat      materials.Catalog
	Items    []bill.Item
	Pour     func(job.Job) *pourday.Day // the pour of a job like this one
	Cautions func(finding.Stage) []reason.Text
	Posts    []string // by run and name, in the order of the lines
	// Fast is the same job with its posts in mix that sets fast, and how to get there;
	// none where that is not to be had.
	Fast func() ([]job.Edit, Given)

	soonest bool                    // only the day of the end is asked for
	pours   map[string]*pourday.Day // by the day, while the rest of the pour stays
}

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

// unfit is a day that is not fit for the pour.
type unfit struct {
	day  int
	date string
	why  reason.Text
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
		d.People = usualPeople
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

// mostAhead is how many days from the start on are looked at for a pour that has none.
const mostAhead = 45

// solve finds the agenda. A pour that has no day of its own is tried on every day that is
// fit for it, each with what hardens as that day's weather has it; and after them all.
func (w *planner) solve() agenda.Answer {
	free := w.poured && w.Job.Pour.Date == "" && !w.sky.Empty() && !slices.ContainsFunc(w.days.Moves, func(m job.TaskMove) bool { return m.Task == "pour" })
	if !free {
		w.links()
		return agenda.Plan(w.q)
	}
	var known []int
	var best agenda.Answer
	var at string
	for day := 0; day < min(mostAhead, len(w.q.Days)); day++ {
		date := w.start.AddDate(0, 0, day).Format(time.DateOnly)
		noon, err := w.sky.Clock(date, 12*60)
		if _, ok := w.sky.At(noon); err != nil || !ok {
			continue
		}
		known = append(known, day)
		if w.q.Days[day].To <= w.q.Days[day].From {
			continue
		}
		pour := w.pourOn(date)
		if why, ok := pour.Unfit(); ok {
			w.unfit = append(w.unfit, unfit{day, date, why})
			continue
		}
		if a := w.with(date, pour, best.Finish); len(a.Left) == 0 && (at == "" || a.Better(best)) {
			best, at = a, date
		}
	}
	// On a day of which the weather is not known.
	w.relink("", w.Pour(w.Job))
	if k := w.place("pour"); k >= 0 {
		w.q.Tasks[k].Off = known
	}
	w.q.Until = best.Finish
	if a := agenda.Plan(w.q); at == "" || len(a.Left) == 0 && a.Better(best) {
		return a
	}
	return w.with(at, w.pourOn(at), 0)
}

// pourOn is the pour on a day.
func (w *planner) pourOn(date string) *pourday.Day {
	if d := w.pours[date]; d != nil {
		return d
	}
	j := w.Job
	j.Pour.Date = date
	d := w.Pour(j)
	w.pours[date] = d
	return d
}

// with is the agenda with the pour on a day; what ends later than a time is of no
// interest.
func (w *planner) with(date string, pour *pourday.Day, until float64) agenda.Answer {
	w.relink(date, pour)
	w.q.Until = until
	return agenda.Plan(w.q)
}

func (w *planner) relink(date string, pour *pourday.Day) {
	w.on, w.pour, w.q.Tasks, w.usual = date, pour, nil, map[string]bool{}
	w.links()
}

// place is where a task is, or -1.
func (w *planner) place(id string) int {
	return slices.IndexFunc(w.specs, func(t materials.WorkTask) bool { return t.ID == id })
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
