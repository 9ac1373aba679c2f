package pourday

import (
	"time"

	"mallow/core/curing"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/loads"
	"mallow/core/materials"
	"mallow/core/pour"
)

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

// place finds the loads of what comes by truck, on as few days as it takes; what is
// mixed on site follows the truck.
func (w *planner) place() {
	d := w.out
	var own, rest []int
	for i := range w.pieces {
		if d.mixOf[w.pieces[i].mix].By == job.ByTruck {
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
	mix := d.mixOf[w.pieces[own[0]].mix]
	order := w.cat.Supply.Truck.In(w.job.Units.System)
	after := w.start
	for first := 0; first < len(own); first += mostAtOnce {
		part := own[first:min(len(own), first+mostAtOnce)]
		q := loads.Question{Most: float64(pour.MostOrdered(*w.pour.Carries, order)), Charge: func(v float64) float64 {
			return max(0, float64(order.Short-pour.Ordered(length.Volume(v), order)))
		}}
		for _, i := range part {
			q.Volumes, q.Minutes = append(q.Volumes, float64(w.pieces[i].buy)), append(q.Minutes, w.pieces[i].place)
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
				d.Left = append(d.Left, w.name(i))
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
		if minutes += w.pieces[i].place; minutes > works+1e-9 {
			break
		}
		if w.pieces[i].post >= 0 {
			n++
		}
	}
	w.out.Bears = max(w.out.Bears, n)
}

// load writes one load down, and when each of its posts is set.
func (w *planner) load(l loads.Load, part []int, order materials.Order) {
	d := w.out
	at := w.start.Add(minutes(l.At))
	o := DayLoad{Comes: w.clock(at), Done: w.clock(w.start.Add(minutes(l.End))), Worked: w.clock(w.start.Add(minutes(l.Worked))),
		Volume: length.Volume(l.Volume), Order: pour.Ordered(length.Volume(l.Volume), order), Posts: []string{}, Curb: []string{}}
	o.Short = o.Order < order.Short
	if c, ok := w.sky.At(at); ok {
		o.Temp = &c.Temp
	}
	d.Order.Volume += o.Order
	for k := l.First; k <= l.Last; k++ {
		p := &w.pieces[part[k]]
		p.load = len(d.Loads) + 1
		w.set(p, at)
		at = p.done
		if p.post >= 0 {
			o.Posts = append(o.Posts, d.Posts[p.post].Post)
		} else {
			o.Curb = append(o.Curb, d.Curb[p.curb].Bay)
		}
	}
	d.Loads = append(d.Loads, o)
}

// name is what a piece is called where it is left.
func (w *planner) name(i int) string {
	if p := &w.pieces[i]; p.post < 0 {
		return curbOf(w.out.Curb[p.curb].Bay, w.job.Units.System)
	}
	return w.out.Posts[w.pieces[i].post].Post
}

// set writes down when a piece is set, when to come back to it, and when it is finished.
func (w *planner) set(p *piece, at time.Time) {
	p.at, p.done = at, at.Add(minutes(p.place))
	mix := w.out.mixOf[p.mix]
	left := w.works(mix, p.done, w.before(mix))
	from, to, finish := w.clock(p.at), w.clock(p.done), w.clock(p.done.Add(minutes(left)))
	if p.post >= 0 {
		o := &w.out.Posts[p.post]
		o.Load, o.At, o.Done, o.Finish = p.load, from, to, finish
		if o.Method == job.Stabbed {
			o.Back = w.clock(p.done.Add(minutes(left / 2)))
		}
	} else {
		o := &w.out.Curb[p.curb]
		o.Load, o.At, o.Done, o.Finish = p.load, from, to, finish
	}
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

// mixed sets posts one after the other in what is mixed on site, after what the truck
// brought.
func (w *planner) mixed(posts []int) {
	d := w.out
	after := w.start
	for i := range w.pieces {
		if t := w.pieces[i].done; t.After(after) {
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
				p := &w.pieces[posts[k]]
				if w.mayPour(d.mixOf[p.mix], at) == 0 { // frost: wait for the sun
					at = at.Add(minutes(slotEvery))
					continue
				}
				if at.Add(minutes(p.place)).After(s.to) {
					break
				}
				w.set(p, at)
				at = p.done
				k++
			}
		}
	}
	for _, i := range posts[k:] {
		d.Left = append(d.Left, w.name(i))
	}
}
