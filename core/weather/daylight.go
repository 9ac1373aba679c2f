package weather

import (
	"math"
	"time"
)

// Daylight is when the sun rises and sets on a day at a place: the sunrise equation
// with the sun's mean place (Meeus, low precision: within two minutes below the polar
// circles). It is false where the sun does not rise, or does not set, that day.
func Daylight(latitude, longitude float64, day time.Time) (rise, set time.Time, ok bool) {
	const rad = math.Pi / 180
	noon := time.Date(day.Year(), day.Month(), day.Day(), 12, 0, 0, 0, time.UTC)
	j2000 := time.Date(2000, 1, 1, 12, 0, 0, 0, time.UTC)
	n := noon.Sub(j2000).Hours()/24 - longitude/360
	anomaly := math.Mod(357.5291+0.98560028*n, 360) * rad
	centre := 1.9148*math.Sin(anomaly) + 0.02*math.Sin(2*anomaly) + 0.0003*math.Sin(3*anomaly)
	long := math.Mod(anomaly/rad+centre+180+102.9372, 360) * rad
	transit := n + 0.0053*math.Sin(anomaly) - 0.0069*math.Sin(2*long)
	dip := math.Asin(math.Sin(long) * math.Sin(23.4397*rad))
	// The sun's upper edge, seen through the air: 50 minutes of arc under the horizon.
	cos := (math.Sin(-0.833*rad) - math.Sin(latitude*rad)*math.Sin(dip)) / (math.Cos(latitude*rad) * math.Cos(dip))
	if cos < -1 || cos > 1 {
		return rise, set, false
	}
	half := math.Acos(cos) / rad / 360
	at := func(days float64) time.Time {
		return j2000.Add(time.Duration(days * 24 * float64(time.Hour))).In(day.Location())
	}
	return at(transit - half), at(transit + half), true
}
