package pourday

import (
	"slices"
	"time"

	"mallow/core/curing"
	"mallow/core/finding"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/materials"
	"mallow/core/pour"
	"mallow/core/stage/dig"
	"mallow/core/stage/load"
	"mallow/core/weather"
)

// The usual day, where the job says nothing else.
const (
	usualFrom, usualTo, usualLunch = "07:30", "16:00", "12:00"
	usualLunchFor                  = 30.0
	usualPeople                    = 3
	usualTransit                   = 30.0

	slotEvery   = 15.0 // minutes: trucks are ordered to the quarter hour
	mostDays    = 5    // on which one pour may go on
	curveEvery  = 30 * time.Minute
	longestWork = 240.0 // minutes: nobody counts on a mix for longer
	warmDay     = 15.0  // °C: from here on crews wait half as long
	blankets    = 5.0   // °C that covered footings stay warmer
	warmMix     = 8.0   // °C that hot water makes the mix warmer while it is fresh
)

// planner plans the pour of a job.
type planner struct {
	job    job.Job
	pour   job.Pour
	cat    materials.Catalog
	sky    weather.Series
	out    *Day
	start  time.Time // midnight of the first day, as the site's clock has it
	mature maturing
	runs   []*load.Load
	pieces []piece
	trial  bool // a day that is only tried: no ways out are looked for
}

// piece is what is poured at one go: a post's hole, or a bay of mowing curb. They are
// set in their order.
type piece struct {
	post, curb int // its place among the day's, -1 for none
	mix        string
	place      float64 // minutes with the whole crew
	volume     length.Volume
	buy        length.Volume
	load       int
	at, done   time.Time // zero where it is not set
}

// Compute plans the pour of all runs of a job.
func Compute(j job.Job, cat materials.Catalog, runs []*load.Load) *Day {
	return compute(j, cat, runs, false)
}

// Figures is the same without ways out of what is found.
func Figures(j job.Job, cat materials.Catalog, runs []*load.Load) *Day {
	return compute(j, cat, runs, true)
}

func compute(j job.Job, cat materials.Catalog, runs []*load.Load, trial bool) *Day {
	w := planner{job: j, pour: j.Pour, cat: cat, runs: runs, trial: trial, out: &Day{
		Mixes: []DayMix{}, Curve: []DayHour{}, Loads: []DayLoad{}, Posts: []DayPost{}, Curb: []DayCurb{}, Left: []string{}, Rates: []DayRate{}, Waits: []DayWait{}, Asks: []DayAsk{}, mixOf: map[string]materials.PourMix{},
		Order: DayOrder{Bags: []BagOrder{}}, Finds: []finding.Finding{},
	}}
	w.usual(runs)
	for _, m := range runs {
		w.posts(m)
		w.curb(m)
	}
	w.mixes()
	w.order(runs)
	if w.pour.Date == "" {
		w.ask("/pour/date", "pour.ask-date")
	}
	sky, err := weather.New(j.Weather)
	if err == nil {
		w.sky = sky
	}
	if w.pour.Date != "" {
		w.day()
	}
	return w.out
}

// usual takes for what is left out what is usual.
func (w *planner) usual(runs []*load.Load) {
	p := &w.pour
	or := func(s *string, usual string) {
		if *s == "" {
			*s = usual
		}
	}
	or(&p.From, usualFrom)
	or(&p.To, usualTo)
	or(&p.Lunch, usualLunch)
	if p.LunchFor == nil {
		v := usualLunchFor
		p.LunchFor = &v
	}
	if p.People == 0 {
		p.People = usualPeople
	}
	if p.Transit == nil {
		v := usualTransit
		p.Transit = &v
	}
	if p.Carries == nil {
		v := w.cat.Pouring.Trucks[w.job.Units.System]
		p.Carries = &v
	}
	if p.By == "" {
		p.By = job.ByBags
		for _, m := range runs {
			if m.Curb != nil || slices.ContainsFunc(m.Designs, stabbed) {
				p.By = job.ByTruck
			}
		}
	}
	w.out.By, w.out.People = p.By, p.People
	w.out.Clock, w.out.Protect = DayClock{p.From, p.To, p.Lunch, *p.Transit}, curing.Cold
}

func stabbed(d dig.Design) bool { return d.Sized.Rules.Setting.Method == job.Stabbed }

// pouredIn is the design of a post's hole; nil where no concrete is poured in it here.
func pouredIn(m *load.Load, p *dig.Post) *dig.Design {
	if p.Shared != "" || p.Stays != "" || p.Card < 0 || m.Designs[p.Card].Buy <= 0 {
		return nil
	}
	return &m.Designs[p.Card]
}

// water is what so much dry mix takes, set in a way: mixed, or poured into the hole.
func (w *planner) water(method job.Method, dry length.Mass) length.Volume {
	litres := w.cat.Pouring.Water
	if method == job.FastDry {
		litres = w.cat.Pouring.Fast
	}
	return length.Volume(float64(dry) * litres / 1000)
}

// posts lists a run's posts in the order in which they are set: its ends, corners and
// gate posts, which the others are sighted or strung from, then the line posts.
func (w *planner) posts(m *load.Load) {
	for _, line := range []bool{false, true} {
		for i := range m.Posts {
			p := &m.Posts[i]
			d := pouredIn(m, p)
			if d == nil || (p.Kind == job.LinePost) != line {
				continue
			}
			method := d.Sized.Rules.Setting.Method
			if p.Driven {
				method = job.Drive
			}
			mix := w.cat.MixFor(method, w.pour.By)
			w.out.mixOf[mix.ID] = mix
			o := DayPost{Run: m.Spec.ID, Post: p.Label, Kind: p.Kind, Method: method, Mix: mix.ID, Volume: d.Buy, speed: mix.Speed, Ready: []DayReady{}}
			part := piece{post: len(w.out.Posts), curb: -1, mix: mix.ID, volume: p.ConcreteVolume, buy: d.Buy, place: w.minutes(method)}
			if mix.By != job.ByTruck && d.Bag.Yield > 0 && mix.By != job.BySiteMix {
				o.Bags = pour.Bags(d.Buy, d.Bag.Yield)
				o.Water = w.water(method, length.Mass(o.Bags)*d.Bag.Mass)
				if method != job.FastDry { // that goes into the hole as it is
					part.place += w.mixing(o.Bags, d.Bag.Mass)
				}
			}
			if method == job.Stabbed {
				o.Fill = p.Bottom - d.Shape.Level(p.Bottom, d.Fill.Concrete)
				o.Rises = max(0, p.Concrete-o.Fill)
			}
			w.out.Posts, w.pieces = append(w.out.Posts, o), append(w.pieces, part)
		}
	}
}

// mixing is how long the crew takes to mix bags.
func (w *planner) mixing(bags float64, mass length.Mass) float64 {
	return bags * w.cat.Pouring.Mixing * float64(mass) / 25 / float64(w.pour.People)
}

// curb is a run's mowing curb, bay by bay after its posts.
func (w *planner) curb(m *load.Load) {
	if m.Curb == nil {
		return
	}
	mix, usual := w.cat.MixFor(job.Braced, w.pour.By), w.cat.Pouring.Curb
	rate := DayRate{Name: curbName(w.job.Units.System), Minutes: usual.Place, Usual: usual.Place}
	if own := w.pour.Curb; own != nil {
		rate.Minutes, rate.Own = *own, true
	}
	w.rate(rate)
	w.out.mixOf[mix.ID] = mix
	for _, p := range m.Curb.Pours {
		o := DayCurb{Run: m.Spec.ID, Bay: p.Bay, Length: p.Length, Volume: p.Buy}
		part := piece{post: -1, curb: len(w.out.Curb), mix: mix.ID, volume: p.Volume, buy: p.Buy,
			place: rate.Minutes * p.Length.Metres() / float64(max(1, min(w.pour.People, usual.Most)))}
		if bag := m.Curb.Bag; mix.By == job.ByBags && bag.Yield > 0 {
			o.Bags = pour.Bags(p.Buy, bag.Yield)
			o.Water = w.water(job.Braced, length.Mass(o.Bags)*bag.Mass)
			part.place += w.mixing(o.Bags, bag.Mass)
		}
		w.out.Curb, w.pieces = append(w.out.Curb, o), append(w.pieces, part)
	}
}

// minutes is how long the crew takes for a post.
func (w *planner) minutes(method job.Method) float64 {
	usual, ok := w.cat.PourRate(method)
	if !ok {
		usual, _ = w.cat.PourRate(job.Braced)
	}
	r := DayRate{Method: method, Name: method.Told().Name, Minutes: usual.Place, Usual: usual.Place}
	for _, own := range w.pour.Rates {
		if own.Method == method {
			r.Minutes, r.Own = own.Place, true
		}
	}
	w.rate(r)
	return r.Minutes / float64(max(1, min(w.pour.People, usual.Most)))
}

// rate remembers how fast one kind of work goes.
func (w *planner) rate(r DayRate) {
	if !slices.ContainsFunc(w.out.Rates, func(o DayRate) bool { return o.Method == r.Method }) {
		w.out.Rates = append(w.out.Rates, r)
	}
}

// mixes adds up what is poured of each kind, and how many posts an hour takes.
func (w *planner) mixes() {
	minutes := 0.0
	for i := range w.pieces {
		p := &w.pieces[i]
		k := slices.IndexFunc(w.out.Mixes, func(m DayMix) bool { return m.ID == p.mix })
		if k < 0 {
			x := w.out.mixOf[p.mix]
			k = len(w.out.Mixes)
			w.out.Mixes = append(w.out.Mixes, DayMix{ID: x.ID, Name: x.Name, Says: x.Says, Source: x.Source})
		}
		m := &w.out.Mixes[k]
		m.Volume, m.Buy = m.Volume+p.volume, m.Buy+p.buy
		w.out.Minutes += p.place
		if p.post >= 0 {
			m.Posts++
			minutes += p.place
		}
	}
	if minutes > 0 {
		w.out.PerHour = 60 * float64(len(w.out.Posts)) / minutes
	}
}

// day plans the hours.
func (w *planner) day() {
	d := w.out
	midnight, err := w.sky.Clock(w.pour.Date, 0)
	if err != nil {
		return
	}
	w.start = midnight
	at := func(clock string) time.Time {
		t, _ := w.sky.Clock(w.pour.Date, minutesOf(clock))
		return t
	}
	from, to, lunch := at(w.pour.From), at(w.pour.To), at(w.pour.Lunch)
	d.Date = w.pour.Date
	d.From, d.To = from.Format(time.RFC3339), to.Format(time.RFC3339)
	if *w.pour.LunchFor > 0 && lunch.After(from) && lunch.Before(to) {
		d.Lunch, d.LunchEnd = lunch.Format(time.RFC3339), lunch.Add(minutes(*w.pour.LunchFor)).Format(time.RFC3339)
	}
	if p := w.job.Site.Place; p != nil {
		if rise, set, ok := weather.Daylight(p.Latitude, p.Longitude, from); ok {
			d.Sunrise, d.Sunset = rise.Format(time.RFC3339), set.Format(time.RFC3339)
		}
	}
	w.mature = newMaturing(w.sky, w.pour.Covered)
	w.curve(from, to)
	_, d.Known = w.sky.At(from)
	if !d.Known {
		w.ask("/weather", "pour.ask-weather")
	}
	w.place()
	w.ready()
	w.check()
}

func minutes(m float64) time.Duration { return time.Duration(m * float64(time.Minute)) }

// minutesOf is a clock's time in minutes; it was checked when the document was read.
func minutesOf(clock string) float64 {
	t, _ := time.Parse("15:04", clock)
	return float64(t.Hour()*60 + t.Minute())
}

func (w *planner) clock(t time.Time) string { return t.In(w.sky.Zone(t)).Format(time.RFC3339) }
