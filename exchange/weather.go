package exchange

import (
	"bytes"
	"encoding/csv"
	"errors"
	"fmt"
	"io"
	"strconv"
	"strings"
	"time"

	"mallow/core/calls"
	"mallow/core/job"
)

// WeatherRequest is a file of hourly weather to be read.
type WeatherRequest struct {
	Text   string  `json:"text" jsonschema:"required"`
	Offset float64 `json:"offset" jsonschema:"required,minimum=-14,maximum=14" jsonschema_description:"Hours that the site's clock is ahead of UTC, for times without an offset."`
}

// WeatherRead is what was read of it.
type WeatherRead struct {
	Hours []job.WeatherHour `json:"hours" jsonschema:"required"`
	Notes []string          `json:"notes" jsonschema:"required" jsonschema_description:"Columns and rows that were not used."`
}

// MostHours is how many hours of weather a job keeps.
const MostHours = 2000

// weatherColumn is a column by its heading: what it is, and how its numbers become
// those of the document.
type weatherColumn struct {
	into func(h *job.WeatherHour, v float64)
	unit func(v float64) float64
	least,
	most float64
}

func same(v float64) float64 { return v }

// weatherColumns are the headings that are known, without spaces and signs.
var weatherColumns = map[string]weatherColumn{}

func init() {
	temp := func(h *job.WeatherHour, v float64) { h.Temp = v }
	humidity := func(h *job.WeatherHour, v float64) { h.Humidity = &v }
	wind := func(h *job.WeatherHour, v float64) { h.Wind = &v }
	sun := func(h *job.WeatherHour, v float64) { h.Sun = &v }
	rain := func(h *job.WeatherHour, v float64) { h.Rain = &v }
	add := func(into func(*job.WeatherHour, float64), unit func(float64) float64, least, most float64, names ...string) {
		for _, n := range names {
			weatherColumns[n] = weatherColumn{into, unit, least, most}
		}
	}
	add(temp, same, -60, 60, "temp", "temperature", "tempc", "temperaturec")
	add(temp, func(v float64) float64 { return (v - 32) / 1.8 }, -60, 60, "tempf", "temperaturef")
	add(humidity, func(v float64) float64 { return v / 100 }, 0, 1, "humidity", "relativehumidity", "rh", "humidity%", "rh%")
	add(wind, same, 0, 80, "wind", "windspeed", "windms", "windspeedms", "windm/s")
	add(wind, func(v float64) float64 { return v / 3.6 }, 0, 80, "windkmh", "windspeedkmh", "windkm/h")
	add(wind, func(v float64) float64 { return v * 0.44704 }, 0, 80, "windmph", "windspeedmph")
	add(sun, func(v float64) float64 { return v / 100 }, 0, 1, "sun", "sunshine", "sun%")
	add(sun, func(v float64) float64 { return 1 - v/100 }, 0, 1, "cloud", "clouds", "cloudcover", "cloud%")
	add(rain, same, 0, 300, "rain", "precipitation", "rainmm", "precipitationmm")
	add(rain, func(v float64) float64 { return v * 25.4 }, 0, 300, "rainin", "precipitationin")
}

// heading is a heading as it is looked up.
func heading(s string) string {
	return strings.Map(func(r rune) rune {
		if strings.ContainsRune(" _-()[]°.\ufeff", r) {
			return -1
		}
		return r
	}, strings.ToLower(s))
}

var timeHeadings = map[string]bool{"time": true, "date": true, "datetime": true, "at": true, "hour": true, "timestamp": true, "localtime": true}

// timeForms are the ways in which times are written; those without an offset are meant
// by the site's clock.
var timeForms = []string{time.RFC3339, "2006-01-02T15:04Z07:00", "2006-01-02T15:04:05", "2006-01-02T15:04", "2006-01-02 15:04:05", "2006-01-02 15:04"}

// ReadWeather reads hourly weather as comma-separated values: a heading for each column,
// one of them the time and one the temperature.
func ReadWeather(req WeatherRequest) (WeatherRead, error) {
	out := WeatherRead{Hours: []job.WeatherHour{}, Notes: []string{}}
	data := []byte(req.Text)
	r := csv.NewReader(bytes.NewReader(data))
	r.Comma, r.FieldsPerRecord, r.TrimLeadingSpace, r.LazyQuotes = delimiterOf(data), -1, true, true
	head, err := r.Read()
	if err != nil {
		return out, Refuse("The file has no rows of weather.")
	}
	zone := time.FixedZone("", int(req.Offset*3600))
	when, temp := -1, false
	columns := map[int]weatherColumn{}
	for i, name := range head {
		key := heading(name)
		c, ok := weatherColumns[key]
		switch {
		case timeHeadings[key] && when < 0:
			when = i
		case ok:
			columns[i] = c
			temp = temp || strings.HasPrefix(key, "temp")
		case strings.TrimSpace(name) != "":
			out.Notes = append(out.Notes, fmt.Sprintf("Column %q isn't used.", brief(name)))
		}
	}
	if when < 0 || !temp {
		return out, Refuse("The file needs a column of times and one of temperatures, by their headings: time, temp (°C) or temp_f. Given: %s.", brief(strings.Join(head, ", ")))
	}
	skipped := 0
	for {
		record, err := r.Read()
		if errors.Is(err, io.EOF) {
			break
		}
		if err != nil || blank(record) {
			continue
		}
		h, ok := weatherRow(record, when, columns, zone)
		if !ok {
			skipped++
			continue
		}
		if len(out.Hours) == MostHours {
			return out, Refuse("The file has more than %d hours; at most %d are kept.", MostHours, MostHours)
		}
		out.Hours = append(out.Hours, h)
	}
	if len(out.Hours) == 0 {
		return out, Refuse("The file has no row with a time and a temperature.")
	}
	if skipped > 0 {
		out.Notes = append(out.Notes, fmt.Sprintf("%d rows have no time or a number out of range, and aren't used.", skipped))
	}
	return out, nil
}

func weatherRow(record []string, when int, columns map[int]weatherColumn, zone *time.Location) (job.WeatherHour, bool) {
	if when >= len(record) {
		return job.WeatherHour{}, false
	}
	var h job.WeatherHour
	for _, form := range timeForms {
		if t, err := time.ParseInLocation(form, strings.TrimSpace(record[when]), zone); err == nil {
			h.At = t.Format(time.RFC3339)
			break
		}
	}
	read := false
	for i, c := range columns {
		if i >= len(record) || strings.TrimSpace(record[i]) == "" {
			continue
		}
		v, err := strconv.ParseFloat(strings.Replace(strings.TrimSpace(record[i]), ",", ".", 1), 64)
		if v = c.unit(v); err != nil || v < c.least || v > c.most || v != v {
			return h, false
		}
		c.into(&h, v)
		read = true
	}
	return h, read && h.At != ""
}

// brief is what a message shows of what was given.
func brief(s string) string {
	const most = 80
	if r := []rune(s); len(r) > most {
		return string(r[:most]) + "…"
	}
	return s
}

func weatherTaken(_ *calls.Core, _ func() error, req WeatherRequest) (any, error) {
	return ReadWeather(req)
}
