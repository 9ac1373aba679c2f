package pourday

import (
	"math"
	"sort"
	"time"

	"mallow/core/curing"
	"mallow/core/materials"
	"mallow/core/weather"
)

// maturing is the maturity that concrete gains over a known course of weather, hour by
// hour from its beginning.
type maturing struct {
	from  time.Time
	sums  []float64 // degree-hours until each hour
	known bool
}

// newMaturing adds up the weather. Covered footings are warmer. It ends where the
// weather is no longer known.
func newMaturing(sky weather.Series, covered bool) maturing {
	from, to := sky.Span()
	m := maturing{from: from, sums: []float64{0}, known: !sky.Empty()}
	if !m.known {
		return m
	}
	for at := from; at.Before(to); at = at.Add(time.Hour) {
		c, ok := sky.At(at.Add(30 * time.Minute))
		if !ok {
			if len(m.sums) == 1 { // nothing yet: it begins where something is known without a gap
				m.from = at.Add(time.Hour)
				continue
			}
			break
		}
		temp := c.Temp
		if covered {
			temp += blankets
		}
		m.sums = append(m.sums, m.sums[len(m.sums)-1]+curing.Maturity([]float64{temp}))
	}
	return m
}

// at is the maturity until a time; false outside what is known.
func (m maturing) at(t time.Time) (float64, bool) {
	h := t.Sub(m.from).Hours()
	last := float64(len(m.sums) - 1)
	if !m.known || h < 0 || h > last {
		return 0, false
	}
	k := int(h)
	if float64(k) == last {
		return m.sums[k], true
	}
	return m.sums[k] + (m.sums[k+1]-m.sums[k])*(h-float64(k)), true
}

// until is when so much maturity is gained from a time on; false where that is beyond
// what is known.
func (m maturing) until(from time.Time, more float64) (time.Time, bool) {
	base, ok := m.at(from)
	if !ok {
		return from, false
	}
	want := base + more
	k := sort.SearchFloat64s(m.sums, want)
	if k == len(m.sums) {
		return from, false
	}
	if k == 0 {
		return from, true
	}
	share := 0.0
	if d := m.sums[k] - m.sums[k-1]; d > 0 {
		share = (want - m.sums[k-1]) / d
	}
	return m.from.Add(time.Duration((float64(k-1) + share) * float64(time.Hour))), true
}

// ready is when each post, and when all of them, may be loaded.
func (w *planner) ready() {
	d := w.out
	type last struct {
		at       time.Time
		set      time.Time
		all, any bool
	}
	lasts := make([]last, len(w.cat.Pouring.Waits))
	for k := range lasts {
		lasts[k].all = true
	}
	mean, n := 0.0, 0.0
	for i := range d.Posts {
		p := &d.Posts[i]
		done, err := time.Parse(time.RFC3339, p.Done)
		if err != nil {
			continue
		}
		if c, ok := w.sky.At(done); ok {
			mean, n = mean+c.Temp, n+1
		}
		for k, wait := range w.cat.Pouring.Waits {
			r := DayReady{ID: wait.ID}
			at, ok := w.mature.until(done, curing.DaysTo(wait.Share)*24*20/p.speed)
			if ok {
				r.At = w.clock(at)
				if at.After(lasts[k].at) {
					lasts[k].at = at
				}
			}
			lasts[k].any, lasts[k].all = true, lasts[k].all && ok
			if done.After(lasts[k].set) {
				lasts[k].set = done
			}
			p.Ready = append(p.Ready, r)
		}
	}
	slowest := d.Slowest()
	for k, wait := range w.cat.Pouring.Waits {
		if !lasts[k].any {
			continue
		}
		o := DayWait{ID: wait.ID, Name: wait.Name, Share: wait.Share, Usual: wait.Warm, Cool: n > 0 && mean/n < warmDay}
		if o.Cool {
			o.Usual = wait.Cool
		}
		o.Usual = materials.Sooner(o.Usual, slowest)
		if lasts[k].all {
			o.At, o.Hours = w.clock(lasts[k].at), lasts[k].at.Sub(lasts[k].set).Hours()
		}
		d.Waits = append(d.Waits, o)
	}
}

// Slowest is how fast what is poured gains strength, at its slowest: 1 is ordinary
// cement.
func (d *Day) Slowest() float64 {
	slowest := math.Inf(1)
	for _, m := range d.Mixes {
		slowest = min(slowest, d.mixOf[m.ID].Speed)
	}
	if math.IsInf(slowest, 1) {
		return 1
	}
	return slowest
}
