package curing_test

import (
	"math"
	"slices"
	"testing"

	"mallow/core/curing"
)

func near(t *testing.T, what string, got, want, within float64) {
	t.Helper()
	if math.Abs(got-want) > within {
		t.Errorf("%s: %.4f, want %v", what, got, want)
	}
}

// Uno 1998, the equation of the chart in ACI 305; worked outside the code.
func TestEvaporation(t *testing.T) {
	near(t, "27 °C, half damp, 16 km/h", curing.Evaporation(27, 27, 0.5, 16/3.6), 0.679, 0.0006)
	near(t, "30 on 35 °C, 40 %, 20 km/h", curing.Evaporation(30, 35, 0.4, 20/3.6), 0.934, 0.0006)
	if e := curing.Evaporation(5, 30, 1, 3); e != 0 {
		t.Errorf("dew gives water back: %v", e)
	}
}

// ACI 306: 40 °F. A third slower for each 10 °F, so twice as slow after some 24 °F.
func TestColdAndPace(t *testing.T) {
	near(t, "40 °F", curing.Cold, 4.444, 0.001)
	near(t, "70 °F over 60 °F", curing.Pace(70/1.8-32/1.8)/curing.Pace(60/1.8-32/1.8), 4.0/3, 1e-9)
	near(t, "at 20 °C", curing.Pace(20), 1, 0)
	if curing.Pace(0) != 0 || curing.Pace(0.1) <= 0 {
		t.Error("frozen concrete sets")
	}
}

// Maturity by Nurse and Saul (ASTM C1074): a day of 20 °C and a day of 10 °C are 720
// degree-hours, a day and a half of 20 °C. Frost adds nothing.
func TestMaturity(t *testing.T) {
	hours := slices.Concat(slices.Repeat([]float64{20}, 24), slices.Repeat([]float64{10}, 24), slices.Repeat([]float64{-8}, 24))
	near(t, "degree-hours", curing.Maturity(hours), 720, 1e-9)
	near(t, "days", curing.EquivalentDays(720), 1.5, 1e-12)
}

// Strength against another method, Plowman's of 1956 (per cent of that of 28 days are
// 21 + 61 log of thousands of degree-hours over -10 °C, for 17 to 35 MPa, from memory):
// the two agree within a tenth from one day on. ACI 209 for 7 days is 70 % (printed).
func TestStrength(t *testing.T) {
	near(t, "7 days", curing.Share(7), 0.70, 0.006)
	near(t, "28 days", curing.Share(28), 1, 0.01)
	for _, days := range []float64{1, 2, 3, 7, 14, 28} {
		plowman := (21 + 61*math.Log10(days*24*(20+10)/1000)) / 100
		near(t, "by Plowman", curing.Share(days), plowman, 0.105)
	}
	for _, share := range []float64{0.1, 0.35, 0.7, 0.95} {
		near(t, "there and back", curing.Share(curing.DaysTo(share)), share, 1e-12)
	}
	if !math.IsInf(curing.DaysTo(1.2), 1) || curing.Share(-1) != 0 {
		t.Error("what is never reached is reached")
	}
	// The common waits: 12 to 24 h in the warm, twice that in the cold.
	warm, cold := curing.DaysTo(0.2)*24, curing.DaysTo(0.2)*24*20/7
	if warm < 12 || warm > 24 || cold < 48 || cold > 72 {
		t.Errorf("a fifth of the strength after %.0f h, and %.0f h at 7 °C", warm, cold)
	}
}

// What dries it makes it stiffen sooner, each in its own measure.
func TestSooner(t *testing.T) {
	near(t, "nothing", curing.Weathering{}.Sooner(), 1, 0)
	near(t, "full sun", curing.Weathering{Sun: 1}.Sooner(), 7.0/6, 1e-12)
	near(t, "drying fast", curing.Weathering{Dry: 1}.Sooner(), 4.0/3, 1e-12)
	near(t, "dry holes", curing.Weathering{Bed: true}.Sooner(), 1.25, 0)
}
