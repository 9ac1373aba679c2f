// Package weather reads what is known of a site's weather as a course over time, and
// tells when it is light.
package weather

import (
	"sort"
	"time"

	"mallow/core/job"
)

// Conditions are the weather at one time. What is nil is not known.
type Conditions struct {
	Temp                      float64 // °C
	Humidity, Wind, Sun, Rain *float64
}

// Series is a course of weather.
type Series struct {
	at   []time.Time
	what []Conditions
}

// Hours of the day at which typed temperatures are meant, and how far apart two that
// are known may lie for what is between them to be known as well.
const (
	morning, noon, night = 7, 14, 28
	longestGap           = 15 * time.Hour
	between              = time.Hour // days are told by the hour
)

// New reads the weather of a job: its hours, and its typed days where it has none.
func New(w job.Weather) (Series, error) {
	var s Series
	zone := time.UTC
	for _, h := range w.Hours {
		at, err := time.Parse(time.RFC3339, h.At)
		if err != nil {
			return Series{}, err
		}
		zone = at.Location()
		s.at = append(s.at, at)
		s.what = append(s.what, Conditions{h.Temp, h.Humidity, h.Wind, h.Sun, h.Rain})
	}
	sort.Stable(byTime{&s})
	if w.Offset != nil {
		zone = time.FixedZone("", int(*w.Offset*3600))
	}
	typed, err := days(w.Days, zone)
	if err != nil {
		return Series{}, err
	}
	for i, at := range typed.at {
		if _, known := s.At(at); !known {
			s.at, s.what = append(s.at, at), append(s.what, typed.what[i])
		}
	}
	sort.Stable(byTime{&s})
	return s, nil
}

type byTime struct{ *Series }

func (b byTime) Len() int           { return len(b.at) }
func (b byTime) Less(i, k int) bool { return b.at[i].Before(b.at[k]) }
func (b byTime) Swap(i, k int) {
	b.at[i], b.at[k] = b.at[k], b.at[i]
	b.what[i], b.what[k] = b.what[k], b.what[i]
}

// days are typed days as hours: temperatures go straight from one to the next.
func days(all []job.WeatherDay, zone *time.Location) (Series, error) {
	var marks Series
	for _, d := range all {
		day, err := time.ParseInLocation(time.DateOnly, d.Date, zone)
		if err != nil {
			return Series{}, err
		}
		for _, m := range []struct{ hour, temp float64 }{{morning, d.Morning}, {noon, d.Noon}, {night, d.Night}} {
			c := Conditions{Temp: m.temp, Humidity: d.Humidity, Wind: d.Wind, Sun: d.Sun}
			if m.hour == night && d.Sun != nil {
				c.Sun = new(float64)
			}
			if d.Rain != nil {
				hourly := *d.Rain / 24
				c.Rain = &hourly
			}
			marks.at, marks.what = append(marks.at, day.Add(time.Duration(m.hour)*time.Hour)), append(marks.what, c)
		}
	}
	sort.Stable(byTime{&marks})
	var out Series
	for i := range marks.at {
		out.at, out.what = append(out.at, marks.at[i]), append(out.what, marks.what[i])
		if i+1 == len(marks.at) || marks.at[i+1].Sub(marks.at[i]) > longestGap {
			continue
		}
		for at := marks.at[i].Add(between); at.Before(marks.at[i+1]); at = at.Add(between) {
			c, _ := marks.At(at)
			out.at, out.what = append(out.at, at), append(out.what, c)
		}
	}
	return out, nil
}

// At is the weather at a time, straight between what is known on either side of it;
// false where nothing near enough is.
func (s Series) At(t time.Time) (Conditions, bool) {
	k := sort.Search(len(s.at), func(i int) bool { return !s.at[i].Before(t) })
	switch {
	case k < len(s.at) && s.at[k].Equal(t):
		return s.what[k], true
	case k == 0 || k == len(s.at):
		return Conditions{}, false
	}
	a, b := s.at[k-1], s.at[k]
	if b.Sub(a) > longestGap {
		return Conditions{}, false
	}
	share := float64(t.Sub(a)) / float64(b.Sub(a))
	from, to := s.what[k-1], s.what[k]
	mid := func(x, y *float64) *float64 {
		if x == nil || y == nil {
			return nil
		}
		v := *x + (*y-*x)*share
		return &v
	}
	return Conditions{from.Temp + (to.Temp-from.Temp)*share, mid(from.Humidity, to.Humidity), mid(from.Wind, to.Wind), mid(from.Sun, to.Sun), from.Rain}, true
}

// Empty tells whether nothing is known.
func (s Series) Empty() bool { return len(s.at) == 0 }

// Span is the first and the last time of which something is known.
func (s Series) Span() (from, to time.Time) {
	if s.Empty() {
		return from, to
	}
	return s.at[0], s.at[len(s.at)-1]
}

// Zone is the clock that the site goes by at a time, as its hours tell it.
func (s Series) Zone(t time.Time) *time.Location {
	k := sort.Search(len(s.at), func(i int) bool { return s.at[i].After(t) })
	if s.Empty() {
		return time.UTC
	}
	return s.at[max(0, k-1)].Location()
}

// Clock is the time at which the site's clocks show an hour and minute of a day, after
// a change of the clocks as well.
func (s Series) Clock(date string, minutes float64) (time.Time, error) {
	day, err := time.ParseInLocation(time.DateOnly, date, time.UTC)
	if err != nil {
		return time.Time{}, err
	}
	wall := day.Add(time.Duration(minutes * float64(time.Minute)))
	for _, z := range []*time.Location{s.Zone(wall.Add(-12 * time.Hour)), s.Zone(wall.Add(12 * time.Hour))} {
		at := time.Date(wall.Year(), wall.Month(), wall.Day(), wall.Hour(), wall.Minute(), wall.Second(), 0, z)
		if _, want := at.Zone(); zoneOf(s.Zone(at)) == want {
			return at.In(z), nil
		}
	}
	return time.Date(wall.Year(), wall.Month(), wall.Day(), wall.Hour(), wall.Minute(), wall.Second(), 0, s.Zone(wall)), nil
}

func zoneOf(z *time.Location) int {
	_, off := time.Unix(0, 0).In(z).Zone()
	return off
}
