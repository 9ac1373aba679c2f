package pourday

import (
	"math"
	"time"

	"mallow/core/curing"
	"mallow/core/job"
	"mallow/core/materials"
	"mallow/core/weather"
)

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
		e := dries(c)
		w.out.Curve = append(w.out.Curve, DayHour{At: at.Format(time.RFC3339), Temp: c.Temp, Works: w.works(mix, at, before), Dries: e, Cracks: e != nil && *e >= curing.DryingFast, Wind: c.Wind, Humidity: c.Humidity, Rain: c.Rain, Light: w.light(at)})
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
