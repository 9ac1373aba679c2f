package exchange_test

import (
	"math"
	"strings"
	"testing"

	"mallow/exchange"
)

// Headings say what a column is and in which unit; times without an offset are by the
// site's clock. By hand: 50 °F are 10 °C, 10 mph 4.47 m/s, 0.1 in 2.54 mm, clouds of 20 %
// leave 80 % of the sun.
func TestReadWeather(t *testing.T) {
	read := func(text string) (exchange.WeatherRead, error) {
		return exchange.ReadWeather(exchange.WeatherRequest{Text: text, Offset: -5})
	}
	r, err := read("Time,Temp_F,Humidity,Wind_mph,Cloud,Rain_in,Pressure\n2027-05-03 07:00,50,60,10,20,0.1,1013\n2027-05-03T08:00:00-04:00,59,,,,,\n\nsoon,1,2,3,4,5,6\n2027-05-03 09:00,999,60,10,20,0,0\n")
	if err != nil || len(r.Hours) != 2 || len(r.Notes) != 2 {
		t.Fatalf("%v: %+v", err, r)
	}
	h := r.Hours[0]
	if h.At != "2027-05-03T07:00:00-05:00" || math.Abs(h.Temp-10) > 1e-9 || *h.Humidity != 0.6 || math.Abs(*h.Wind-4.4704) > 1e-9 || math.Abs(*h.Sun-0.8) > 1e-9 || math.Abs(*h.Rain-2.54) > 1e-9 {
		t.Errorf("%+v", h)
	}
	if h = r.Hours[1]; h.At != "2027-05-03T08:00:00-04:00" || math.Abs(h.Temp-15) > 1e-9 || h.Humidity != nil || h.Wind != nil {
		t.Errorf("what is empty is known: %+v", h)
	}
	if r, err = read("time;temp;wind (km/h)\n2027-05-03 07:00;10,5;36\n"); err != nil || r.Hours[0].Temp != 10.5 || *r.Hours[0].Wind != 10 {
		t.Errorf("decimal commas: %v %+v", err, r.Hours)
	}
	for name, text := range map[string]string{
		"nothing": "", "no times": "temp,wind\n1,2\n", "no temperature": "time,wind\n2027-05-03 07:00,2\n", "no rows": "time,temp\n", "not a table": "\x00\x01😀",
		"too many": "time,temp\n" + strings.Repeat("2027-05-03 07:00,10\n", exchange.MostHours+1),
	} {
		if _, err := read(text); err == nil {
			t.Errorf("%s is read", name)
		}
	}
}
