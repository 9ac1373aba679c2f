package pourday

import (
	"math"
	"slices"
	"time"

	"mallow/core/curing"
	"mallow/core/finding"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/loads"
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
	trial  bool // a day that is only tried: no ways out are looked for
}

// Compute plans the pour of all runs of a job.
func Compute(j job.Job, cat materials.Catalog, runs []*load.Load) *Day {
	return compute(j, cat, runs, false)
}

func compute(j job.Job, cat materials.Catalog, runs []*load.Load, trial bool) *Day {
	w := planner{job: j, pour: j.Pour, cat: cat, runs: runs, trial: trial, out: &Day{
		Mixes: []DayMix{}, Curve: []DayHour{}, Loads: []DayLoad{}, Posts: []DayPost{}, Left: []string{}, Waits: []DayWait{}, Asks: []DayAsk{}, mixOf: map[string]materials.PourMix{},
		Order: DayOrder{Bags: []BagOrder{}}, Finds: []finding.Finding{},
	}}
	w.usual(runs)
	for _, m := range runs {
		w.posts(m)
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
			if slices.ContainsFunc(m.Designs, stabbed) {
				p.By = job.ByTruck
			}
		}
	}
	w.out.By, w.out.People = p.By, p.People
}

func stabbed(d dig.Design) bool { return d.Sized.Rules.Setting.Method == job.Stabbed }

// posts lists a run's posts in the order in which they are set: its ends, corners and
// gate posts, which the others are sighted or strung from, then the line posts.
func (w *planner) posts(m *load.Load) {
	for _, line := range []bool{false, true} {
		for i := range m.Posts {
			p := &m.Posts[i]
			if p.Shared != "" || p.Stays != "" || p.Card < 0 || (p.Kind == job.LinePost) != line {
				continue
			}
			d := &m.Designs[p.Card]
			if d.Buy <= 0 {
				continue
			}
			method := d.Sized.Rules.Setting.Method
			if p.Driven {
				method = job.Drive
			}
			mix := w.cat.MixFor(method, w.pour.By)
			w.out.mixOf[mix.ID] = mix
			o := DayPost{Run: m.Spec.ID, Post: p.Label, Kind: p.Kind, Method: method, Mix: mix.ID, Volume: p.ConcreteVolume, buy: d.Buy, speed: mix.Speed, Ready: []DayReady{}}
			o.place = w.minutes(method)
			if mix.By != job.ByTruck && d.Bag.Yield > 0 && mix.By != job.BySiteMix {
				o.Bags = pour.Bags(d.Buy, d.Bag.Yield)
				litres := w.cat.Pouring.Water
				if method == job.FastDry {
					litres = w.cat.Pouring.Fast
				} else { // dry mix goes into the hole as it is
					o.place += o.Bags * w.cat.Pouring.Mixing * float64(d.Bag.Mass) / 25 / float64(w.pour.People)
				}
				o.Water = length.Volume(o.Bags * float64(d.Bag.Mass) * litres / 1000)
			}
			if method == job.Stabbed {
				o.Fill = p.Bottom - d.Shape.Level(p.Bottom, d.Fill.Concrete)
				o.Rises = max(0, p.Concrete-o.Fill)
			}
			w.out.Posts = append(w.out.Posts, o)
		}
	}
}

// minutes is how long the crew takes for a post.
func (w *planner) minutes(method job.Method) float64 {
	r, ok := w.cat.PourRate(method)
	if !ok {
		r, _ = w.cat.PourRate(job.Braced)
	}
	for _, own := range w.pour.Rates {
		if own.Method == method {
			r.Place = own.Place
		}
	}
	return r.Place / float64(max(1, min(w.pour.People, r.Most)))
}

// mixes adds up what is poured of each kind, and how many posts an hour takes.
func (w *planner) mixes() {
	minutes := 0.0
	for i := range w.out.Posts {
		p := &w.out.Posts[i]
		minutes += p.place
		k := slices.IndexFunc(w.out.Mixes, func(m DayMix) bool { return m.ID == p.Mix })
		if k < 0 {
			x := w.out.mixOf[p.Mix]
			k = len(w.out.Mixes)
			w.out.Mixes = append(w.out.Mixes, DayMix{ID: x.ID, Name: x.Name, Says: x.Says, Source: x.Source})
		}
		m := &w.out.Mixes[k]
		m.Posts, m.Volume, m.Buy = m.Posts+1, m.Volume+p.Volume, m.Buy+p.buy
		p.Volume = p.buy
	}
	if minutes > 0 {
		w.out.PerHour = 60 * float64(len(w.out.Posts)) / minutes
	}
}

// order is what is told to the plant or the merchant.
func (w *planner) order(runs []*load.Load) {
	o, cat := &w.out.Order, w.cat.Pouring
	kinds := map[string]*BagOrder{}
	exact := map[string]float64{}
	var names []string
	site := length.Volume(0)
	for _, m := range runs {
		for i := range m.Posts {
			p := &m.Posts[i]
			if p.Shared != "" || p.Stays != "" || p.Card < 0 || m.Designs[p.Card].Buy <= 0 {
				continue
			}
			d := &m.Designs[p.Card]
			method := d.Sized.Rules.Setting.Method
			if s, ok := cat.Slump[method]; ok && w.pour.By == job.ByTruck {
				if o.Least == 0 || s.Least < o.Least {
					o.Least = s.Least
				}
				o.Most = max(o.Most, s.Most)
			}
			// The stone is a third of the clear way from post to hole at most (common practice).
			if room := (p.HoleWidth - p.Width) / 2 / 3; room > 0 && (o.Stone == 0 || room < o.Stone) {
				o.Stone = room
			}
			switch by := w.cat.MixFor(method, w.pour.By).By; {
			case by == job.ByTruck:
			case by == job.BySiteMix:
				site += d.Buy
			case d.Bag.Yield > 0:
				if kinds[d.Bag.ID] == nil {
					litres := cat.Water
					if method == job.FastDry {
						litres = cat.Fast
					}
					kinds[d.Bag.ID] = &BagOrder{Bag: d.Bag.Name, Mass: d.Bag.Mass, Water: length.Volume(float64(d.Bag.Mass) * litres / 1000)}
					names = append(names, d.Bag.ID)
				}
				exact[d.Bag.ID] += pour.Bags(d.Buy, d.Bag.Yield)
			}
		}
	}
	for _, id := range names {
		b := kinds[id]
		b.Count = pour.Whole(exact[id])
		o.PerHour = 60 / (cat.Mixing * float64(b.Mass) / 25)
		b.Mass *= length.Mass(b.Count)
		b.Pallets = pour.Whole(float64(b.Mass / cat.Pallet))
		o.Bags = append(o.Bags, *b)
	}
	o.Stone = roundStone(o.Stone)
	if site > 0 {
		m := pour.MixOnSite(site, w.cat.Supply.Mix, w.job.Units.System)
		o.Cement, o.Sand, o.Gravel = pour.Whole(m.Bags), m.Sand, m.Stone
	}
}

// stones are the sizes that concrete is ordered with.
var stones = []length.Length{9.525, 12.7, 19.05, 25.4}

func roundStone(l length.Length) length.Length {
	best := stones[0]
	for _, s := range stones {
		if s <= l {
			best = s
		}
	}
	return best
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
	if w.pour.By == job.ByTruck {
		w.byTruck()
	} else {
		w.mixed(slices.Collect(indices(len(d.Posts))))
	}
	w.ready()
	w.check()
}

func minutes(m float64) time.Duration { return time.Duration(m * float64(time.Minute)) }

// minutesOf is a clock's time in minutes; it was checked when the document was read.
func minutesOf(clock string) float64 {
	t, _ := time.Parse("15:04", clock)
	return float64(t.Hour()*60 + t.Minute())
}

func indices(n int) func(func(int) bool) {
	return func(yield func(int) bool) {
		for i := range n {
			if !yield(i) {
				return
			}
		}
	}
}

// works is for how many minutes a mix can be worked that was batched so many minutes
// before a time: it ages minute by minute, as fast as the weather then has it. What is
// not known of the weather makes it no faster; the mix's own end holds in any case.
func (w *planner) works(mix materials.PourMix, at time.Time, before float64) float64 {
	const step = 5.0
	most := longestWork
	if mix.Ends > 0 {
		most = min(most, mix.Ends-before)
	}
	age := 0.0
	for m := -before; m < most; m += step {
		c, ok := w.sky.At(at.Add(minutes(m)))
		rate := 1.0
		if ok {
			rate = w.pace(c)
		}
		if part := step * rate / mix.Works; age+part >= 1 {
			return max(0, m+step*(1-age)/part)
		} else {
			age += part
		}
	}
	return max(0, most)
}

// pace is how fast a fresh mix ages, 1 at 20 °C out of sun and wind.
func (w *planner) pace(c weather.Conditions) float64 {
	temp := c.Temp
	if w.pour.Warm {
		temp += warmMix
	}
	weathering := curing.Weathering{Bed: w.pour.DryBed}
	if c.Sun != nil {
		weathering.Sun = *c.Sun
	}
	if e := dries(c); e != nil {
		weathering.Dry = *e / curing.DryingFast
	}
	return curing.Pace(temp) * weathering.Sooner()
}

// dries is how fast a surface dries: concrete as warm as the air.
func dries(c weather.Conditions) *float64 {
	if c.Humidity == nil || c.Wind == nil {
		return nil
	}
	e := curing.Evaporation(c.Temp, c.Temp, *c.Humidity, *c.Wind)
	return &e
}

// curve is the day's weather and what it does to the mix of most posts.
func (w *planner) curve(from, to time.Time) {
	if len(w.out.Mixes) == 0 {
		return
	}
	mix := w.out.mixOf[w.out.Mixes[0].ID]
	before := w.before(mix)
	for at := from.Add(-2 * time.Hour).Truncate(curveEvery); !at.After(to.Add(4 * time.Hour)); at = at.Add(curveEvery) {
		c, ok := w.sky.At(at)
		if !ok {
			continue
		}
		at := at.In(w.sky.Zone(at))
		w.out.Curve = append(w.out.Curve, DayHour{At: at.Format(time.RFC3339), Temp: c.Temp, Works: w.works(mix, at, before), Dries: dries(c), Wind: c.Wind, Humidity: c.Humidity, Rain: c.Rain, Light: w.light(at)})
	}
}

// before is how long a mix has been wet when it comes.
func (w *planner) before(mix materials.PourMix) float64 {
	if mix.By == job.ByTruck {
		return *w.pour.Transit
	}
	return 0
}

func (w *planner) light(at time.Time) bool {
	p := w.job.Site.Place
	if p == nil {
		return true
	}
	rise, set, ok := weather.Daylight(p.Latitude, p.Longitude, at)
	if !ok { // the sun does not rise, or does not set
		return math.Signbit(p.Latitude) != (at.Month() > 3 && at.Month() < 10)
	}
	return !at.Before(rise) && !at.After(set)
}

// span is a time at which the crew works.
type span struct{ from, to time.Time }

// spans are the times at which the crew can pour on a day: before and after lunch.
func (w *planner) spans(day int) []span {
	date := w.date(day)
	at := func(clock string, more float64) time.Time {
		t, _ := w.sky.Clock(date, minutesOf(clock)+more)
		return t
	}
	from, to, lunch := at(w.pour.From, 0), at(w.pour.To, 0), at(w.pour.Lunch, 0)
	if *w.pour.LunchFor == 0 || !lunch.After(from) || !lunch.Before(to) {
		return []span{{from, to}}
	}
	return []span{{from, lunch}, {at(w.pour.Lunch, *w.pour.LunchFor), to}}
}

// date is a working day after the first: Saturdays and Sundays are none.
func (w *planner) date(day int) string {
	t, _ := time.Parse(time.DateOnly, w.pour.Date)
	for ; day > 0; day-- {
		t = t.AddDate(0, 0, 1)
		for t.Weekday() == time.Saturday || t.Weekday() == time.Sunday {
			t = t.AddDate(0, 0, 1)
		}
	}
	return t.Format(time.DateOnly)
}

// byTruck finds the loads of what comes by truck, on as few days as it takes; what is
// set in another mix follows the truck.
func (w *planner) byTruck() {
	d := w.out
	var own, rest []int
	for i := range d.Posts {
		if d.mixOf[d.Posts[i].Mix].By == job.ByTruck {
			own = append(own, i)
		} else {
			rest = append(rest, i)
		}
	}
	if len(own) > 0 {
		w.trucks(own)
	}
	w.mixed(rest)
}

// mostAtOnce is how many posts are weighed in one search for loads; a longer pour is
// found part by part, each after the one before.
const mostAtOnce = 150

func (w *planner) trucks(own []int) {
	d := w.out
	mix := d.mixOf[d.Posts[own[0]].Mix]
	order := w.cat.Supply.Truck.In(w.job.Units.System)
	after := w.start
	for first := 0; first < len(own); first += mostAtOnce {
		part := own[first:min(len(own), first+mostAtOnce)]
		q := loads.Question{Most: float64(*w.pour.Carries), Charge: func(v float64) float64 {
			return max(0, float64(order.Short-pour.Ordered(length.Volume(v), order)))
		}}
		for _, i := range part {
			q.Volumes, q.Minutes = append(q.Volumes, float64(d.Posts[i].buy)), append(q.Minutes, d.Posts[i].place)
		}
		var a loads.Answer
		// On no fewer days than are begun already, and than the work takes.
		for days := w.leastDays(after, q.Minutes); days <= mostDays; days++ {
			works := map[float64]float64{}
			q.Slots = nil
			for day := range days {
				for _, s := range w.spans(day) {
					for at := s.from; at.Before(s.to); at = at.Add(minutes(slotEvery)) {
						if at.Before(after) {
							continue
						}
						slot := at.Sub(w.start).Minutes()
						q.Slots = append(q.Slots, slot)
						works[slot] = min(w.mayPour(mix, at), s.to.Sub(at).Minutes())
						if day == 0 {
							w.bears(works[slot], part)
						}
					}
				}
			}
			q.Works = func(at float64) float64 { return works[at] }
			if a = loads.Plan(q); a.Stuck < 0 {
				break
			}
		}
		for _, l := range a.Loads {
			w.load(l, part, order)
			after = w.start.Add(minutes(l.End))
		}
		if a.Stuck >= 0 {
			for _, i := range own[first+a.Stuck:] {
				d.Left = append(d.Left, d.Posts[i].Post)
			}
			return
		}
	}
}

// leastDays is on how many days posts are set at least that are set from a time on.
func (w *planner) leastDays(after time.Time, work []float64) int {
	left := 0.0
	for _, m := range work {
		left += m
	}
	for day := range mostDays {
		for _, s := range w.spans(day) {
			if from := s.from; after.Before(s.to) {
				if after.After(from) {
					from = after
				}
				left -= s.to.Sub(from).Minutes()
			}
		}
		if left <= 0 {
			return day + 1
		}
	}
	return mostDays
}

// mayPour is for how long what comes at a time can be worked; 0 in frost.
func (w *planner) mayPour(mix materials.PourMix, at time.Time) float64 {
	if c, ok := w.sky.At(at); ok && c.Temp <= curing.Freezing {
		return 0
	}
	return w.works(mix, at, w.before(mix))
}

// bears remembers how many posts the crew sets from one load at the best time.
func (w *planner) bears(works float64, part []int) {
	n, minutes := 0, 0.0
	for _, i := range part {
		if minutes += w.out.Posts[i].place; minutes > works+1e-9 {
			break
		}
		n++
	}
	w.out.Bears = max(w.out.Bears, n)
}

// load writes one load down, and when each of its posts is set.
func (w *planner) load(l loads.Load, part []int, order materials.Order) {
	d := w.out
	at := w.start.Add(minutes(l.At))
	o := DayLoad{Comes: w.clock(at), Done: w.clock(w.start.Add(minutes(l.End))), Worked: w.clock(w.start.Add(minutes(l.Worked))),
		Volume: length.Volume(l.Volume), Order: pour.Ordered(length.Volume(l.Volume), order), Posts: []string{}}
	o.Short = o.Order < order.Short
	if c, ok := w.sky.At(at); ok {
		o.Temp = &c.Temp
	}
	d.Order.Volume += o.Order
	for k := l.First; k <= l.Last; k++ {
		p := &d.Posts[part[k]]
		p.Load, p.works = len(d.Loads)+1, w.start.Add(minutes(l.Worked)).Sub(at).Minutes()
		w.set(p, at)
		at = at.Add(minutes(p.place))
		o.Posts = append(o.Posts, p.Post)
	}
	d.Loads = append(d.Loads, o)
}

// set writes down when a post is set, when to come back to it, and when it is finished.
func (w *planner) set(p *DayPost, at time.Time) {
	done := at.Add(minutes(p.place))
	p.At, p.Done = w.clock(at), w.clock(done)
	left := w.works(w.out.mixOf[p.Mix], done, w.before(w.out.mixOf[p.Mix]))
	if p.Method == job.Stabbed {
		p.Back = w.clock(done.Add(minutes(left / 2)))
	}
	p.Finish = w.clock(done.Add(minutes(left)))
	w.out.Days = max(w.out.Days, w.dayOf(at)+1)
}

// dayOf is on which of the working days a time is.
func (w *planner) dayOf(at time.Time) int {
	date := at.In(w.sky.Zone(at)).Format(time.DateOnly)
	for day := range mostDays * 4 {
		if w.date(day) == date {
			return day
		}
	}
	return 0
}

func (w *planner) clock(t time.Time) string { return t.In(w.sky.Zone(t)).Format(time.RFC3339) }

// mixed sets posts one after the other in what is mixed on site, after what the truck
// brought.
func (w *planner) mixed(posts []int) {
	d := w.out
	after := w.start
	for i := range d.Posts {
		if t, err := time.Parse(time.RFC3339, d.Posts[i].Done); err == nil && t.After(after) {
			after = t
		}
	}
	k := 0
	for day := range mostDays {
		for _, s := range w.spans(day) {
			at := s.from
			if after.After(at) {
				at = after
			}
			for k < len(posts) && at.Before(s.to) {
				p := &d.Posts[posts[k]]
				works := w.mayPour(d.mixOf[p.Mix], at)
				if works == 0 { // frost: wait for the sun
					at = at.Add(minutes(slotEvery))
					continue
				}
				if at.Add(minutes(p.place)).After(s.to) {
					break
				}
				p.works = works
				w.set(p, at)
				at = at.Add(minutes(p.place))
				k++
			}
		}
	}
	for _, i := range posts[k:] {
		d.Left = append(d.Left, d.Posts[i].Post)
	}
}
