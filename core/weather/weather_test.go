package weather_test

import (
	"math"
	"testing"
	"time"

	"mallow/core/job"
	"mallow/core/weather"
)

func at(t *testing.T, s string) time.Time {
	t.Helper()
	out, err := time.Parse(time.RFC3339, s)
	if err != nil {
		t.Fatal(err)
	}
	return out
}

func ptr(v float64) *float64 { return &v }

// Typed in: 8 in the morning at 7, 22 at 14, 4 at 4 in the night after it. By hand half
// way from 7 to 14 is 10:30, at 15 °C; at 21 it is half way from 22 to 4.
func TestTypedDays(t *testing.T) {
	s, err := weather.New(job.Weather{Offset: ptr(-5), Days: []job.WeatherDay{{Date: "2027-05-03", Morning: 8, Noon: 22, Night: 4, Wind: ptr(3)}}})
	if err != nil {
		t.Fatal(err)
	}
	for when, want := range map[string]float64{"2027-05-03T07:00:00-05:00": 8, "2027-05-03T10:30:00-05:00": 15, "2027-05-03T21:00:00-05:00": 13, "2027-05-04T04:00:00-05:00": 4} {
		if c, ok := s.At(at(t, when)); !ok || math.Abs(c.Temp-want) > 1e-9 || c.Wind == nil || *c.Wind != 3 || c.Humidity != nil {
			t.Errorf("%s: %+v, %v; by hand %v", when, c, ok, want)
		}
	}
	for _, when := range []string{"2027-05-03T06:59:00-05:00", "2027-05-04T04:01:00-05:00"} {
		if _, ok := s.At(at(t, when)); ok {
			t.Errorf("%s is known though nobody said it", when)
		}
	}
}

// Hours go before typed days, and a gap of most of a day is a gap.
func TestHoursAndGaps(t *testing.T) {
	w := job.Weather{Hours: []job.WeatherHour{
		{At: "2027-05-03T09:00:00+02:00", Temp: 12}, {At: "2027-05-03T08:00:00+02:00", Temp: 10}, {At: "2027-05-04T08:00:00+02:00", Temp: 20},
	}}
	s, err := weather.New(w)
	if err != nil {
		t.Fatal(err)
	}
	if c, ok := s.At(at(t, "2027-05-03T08:30:00+02:00")); !ok || c.Temp != 11 {
		t.Errorf("%+v %v", c, ok)
	}
	if _, ok := s.At(at(t, "2027-05-03T20:00:00+02:00")); ok {
		t.Error("a day without weather is known")
	}
	w.Days = []job.WeatherDay{{Date: "2027-05-03", Morning: 0, Noon: 30, Night: 0}}
	if s, err = weather.New(w); err != nil {
		t.Fatal(err)
	}
	if c, _ := s.At(at(t, "2027-05-03T08:30:00+02:00")); c.Temp != 11 {
		t.Errorf("what was typed goes before the hours: %+v", c)
	}
	if c, ok := s.At(at(t, "2027-05-03T14:00:00+02:00")); !ok || c.Temp != 30 {
		t.Errorf("what was typed does not fill the gap: %+v %v", c, ok)
	}
	if _, err := weather.New(job.Weather{Hours: []job.WeatherHour{{At: "soon"}}}); err == nil {
		t.Error("no time is taken for one")
	}
}

// The clocks go forward on 14 March 2027 at 2 in the morning: 7 o'clock that day is 11
// UTC, the day before it was 12 UTC, and the night is an hour shorter.
func TestClocksGoForward(t *testing.T) {
	s, err := weather.New(job.Weather{Hours: []job.WeatherHour{
		{At: "2027-03-13T07:00:00-05:00", Temp: 1}, {At: "2027-03-14T01:00:00-05:00", Temp: 1}, {At: "2027-03-14T03:00:00-04:00", Temp: 1}, {At: "2027-03-14T12:00:00-04:00", Temp: 1},
	}})
	if err != nil {
		t.Fatal(err)
	}
	before, err := s.Clock("2027-03-13", 17*60)
	if err != nil {
		t.Fatal(err)
	}
	after, err := s.Clock("2027-03-14", 7*60)
	if err != nil {
		t.Fatal(err)
	}
	if before.UTC().Hour() != 22 || after.UTC().Hour() != 11 || after.Sub(before) != 13*time.Hour {
		t.Errorf("%v to %v is %v", before, after, after.Sub(before))
	}
}

// The sun on well-known days (almanac, from memory, to five minutes): at the equator
// twelve hours and seven minutes at an equinox; at 51.5 north 16 h 38 min on the longest
// day and 7 h 50 min on the shortest; beyond the polar circle none in midwinter.
func TestDaylight(t *testing.T) {
	for _, c := range []struct {
		latitude float64
		day      string
		want     time.Duration
	}{
		{0, "2027-03-20", 12*time.Hour + 7*time.Minute}, {51.5, "2027-06-21", 16*time.Hour + 38*time.Minute}, {51.5, "2027-12-21", 7*time.Hour + 50*time.Minute}, {-51.5, "2027-12-21", 16*time.Hour + 38*time.Minute},
	} {
		rise, set, ok := weather.Daylight(c.latitude, 0, at(t, c.day+"T12:00:00Z"))
		if got := set.Sub(rise); !ok || (got-c.want).Abs() > 5*time.Minute {
			t.Errorf("%v on %s: %v of light, want %v", c.latitude, c.day, got, c.want)
		}
		if noon := rise.Add(set.Sub(rise) / 2); noon.Sub(at(t, c.day+"T12:00:00Z")).Abs() > 17*time.Minute {
			t.Errorf("on the meridian noon is at %v", noon)
		}
	}
	if _, _, ok := weather.Daylight(70, 0, at(t, "2027-12-21T12:00:00Z")); ok {
		t.Error("the sun rises in the polar night")
	}
	rise, _, _ := weather.Daylight(40, -90, at(t, "2027-03-20T12:00:00-06:00"))
	if rise.Hour() != 6 {
		t.Errorf("six hours west of the meridian the sun rises at %v", rise)
	}
}
