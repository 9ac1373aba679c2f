package standin

import (
	"fmt"
	"hash/fnv"
	"math"
	"time"

	"mallow/core/job"
)

// Spot is where on earth weather is asked for.
type Spot struct{ Latitude, Longitude float64 }

// WeatherOffice tells the hourly weather of a place. A real one asks its station; it
// knows only so many days ahead.
type WeatherOffice interface {
	Hours(at Spot, from, to time.Time) ([]job.WeatherHour, error)
}

// Forecast is a simulated weather office: the same place and hour have the same weather
// whenever it is asked. Summers are warm, nights cool, every few days a front goes
// through with wind and rain.
type Forecast struct{}

// MostForecast is how many days are told at once.
const MostForecast = 30

// Hours tells the weather at every full hour from one time to another.
func (Forecast) Hours(at Spot, from, to time.Time) ([]job.WeatherHour, error) {
	if to.Before(from) || to.Sub(from) > MostForecast*24*time.Hour {
		return nil, fmt.Errorf("weather from %s to %s: up to %d days are told", from.Format(time.DateOnly), to.Format(time.DateOnly), MostForecast)
	}
	out := []job.WeatherHour{}
	for t := from.Truncate(time.Hour); !t.After(to); t = t.Add(time.Hour) {
		out = append(out, weatherAt(at, t))
	}
	return out, nil
}

func weatherAt(at Spot, t time.Time) job.WeatherHour {
	solar := t.UTC().Add(time.Duration(at.Longitude / 15 * float64(time.Hour)))
	day := float64(solar.YearDay())
	hour := float64(solar.Hour()) + float64(solar.Minute())/60
	season := -math.Cos(2 * math.Pi * (day - 20) / 365)
	if at.Latitude < 0 {
		season = -season
	}
	away := math.Abs(at.Latitude)
	front := wave(at, t, 5) // -1 to 1: clear to foul
	clear := (1 - front) / 2
	temp := 27 - 0.42*away + season*(2+0.22*away) + wave(at, t, 9)*4 - front*2
	temp += (3 + 4*clear) * math.Cos(2*math.Pi*(hour-15)/24)
	light := max(0, math.Sin(math.Pi*(hour-6+season)/(12+2*season)))
	round := func(v float64, to float64) float64 { return math.Round(v/to) * to }
	p := func(v float64) *float64 { return &v }
	rain := 0.0
	if front > 0.6 {
		rain = (front - 0.6) * 12
	}
	return job.WeatherHour{
		At: t.Format(time.RFC3339), Temp: round(min(45, max(-40, temp)), 0.1),
		Humidity: p(round(min(0.98, max(0.2, 0.62+0.25*front-0.2*math.Cos(2*math.Pi*(hour-15)/24))), 0.01)),
		Wind:     p(round(2+2.5*(1+front)+1.2*math.Cos(2*math.Pi*(hour-15)/24), 0.1)),
		Sun:      p(round(light*clear, 0.01)), Rain: p(round(rain, 0.1)),
	}
}

// wave is a smooth course between -1 and 1 that turns about every so many days, each
// place by its own.
func wave(at Spot, t time.Time, days float64) float64 {
	x := float64(t.Unix()) / 86400 / days
	k := math.Floor(x)
	knot := func(k float64) float64 {
		h := fnv.New32a()
		_, _ = fmt.Fprintf(h, "%.1f %.1f %.0f %.0f", at.Latitude, at.Longitude, k, days)
		return float64(h.Sum32()%2001)/1000 - 1
	}
	share := (1 - math.Cos(math.Pi*(x-k))) / 2
	return knot(k)*(1-share) + knot(k+1)*share
}
