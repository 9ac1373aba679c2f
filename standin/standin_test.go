package standin_test

import (
	"context"
	"errors"
	"math"
	"testing"
	"time"

	"mallow/catalog"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/survey"
	"mallow/standin"
)

func ptr[T any](v T) *T { return &v }

func line() job.Line {
	return job.Line{ID: "L1", Runs: []job.Run{
		{ID: "R1", Length: ptr(36 * length.Metre), Ground: []job.GroundPoint{{At: 0, Height: 200}, {At: 18000, Height: -150}, {At: 36000, Height: 900}}},
		{ID: "R2", Length: ptr(24 * length.Metre), Corner: &job.Corner{By: job.ByInterior, Side: job.Left, Angle: 90}, Ground: []job.GroundPoint{{At: 0, Height: 900}, {At: 24000, Height: 400}}},
	}}
}

// page walks a line and writes what the rod says.
func page(t *testing.T, level standin.Level, l job.Line) job.Book {
	t.Helper()
	stops := survey.Route(l, 4*length.Metre, 20*length.Metre)
	rod := standin.NewWalk(level, l, stops)
	book := job.Book{ID: "B1", Kind: job.Rod, Start: ptr(length.Length(200))}
	for i := 0; ; i++ {
		r, err := rod.Next(context.Background())
		if errors.Is(err, standin.ErrDone) {
			break
		}
		if err != nil || r.Rod < 0 {
			t.Fatal(r, err)
		}
		book.Rows = survey.Record(book.Rows, stops[i], r.Rod, r.Sight)
	}
	return book
}

// A true level gives back the ground it stands on; a tilted one closes by the
// tilt times what its fore sights are longer than its back sights.
func TestWalkReadsTheGround(t *testing.T) {
	l := line()
	book := page(t, standin.Level{}, l)
	levels := survey.LevelBook(book)
	for i, row := range book.Rows {
		at := map[string]length.Length{"R1": 0, "R2": 36000}[row.Run] + row.At
		want := length.Length(0)
		switch {
		case at <= 18000:
			want = 200 - 350*at/18000
		case at <= 36000:
			want = -150 + 1050*(at-18000)/18000
		default:
			want = 900 - 500*(at-36000)/24000
		}
		if (levels.Heights[i] - want).Abs() > 1e-6 {
			t.Errorf("at %v of %s: %v, want %v", row.At, row.Run, levels.Heights[i], want)
		}
	}
	if !levels.Closed || levels.Error.Abs() > 1e-6 {
		t.Errorf("a true level closes by %v", levels.Error)
	}
	tilted := page(t, standin.Level{Tilt: 0.2}, l)
	out, unequal := survey.LevelBook(tilted), 0.0
	for _, row := range tilted.Rows {
		if row.Fore != nil {
			unequal += row.Sight.Metres()
		}
		unequal -= row.BackSight.Metres()
	}
	if want := -0.2 * unequal; math.Abs(float64(out.Error)-want) > 1e-6 || math.Abs(want) < 5 {
		t.Errorf("closes by %v, want %v", out.Error, want)
	}
}

// The noise is what it is said to be, and the same seed reads the same.
func TestNoiseIsWhatItIsSaidToBe(t *testing.T) {
	l := job.Line{ID: "L1", Runs: []job.Run{{ID: "R1", Length: ptr(400 * length.Metre)}}}
	stops := survey.Route(l, 300, 500*length.Metre)
	read := func(seed uint64) []length.Length {
		truth, noisy := standin.NewWalk(standin.Level{}, l, stops), standin.NewWalk(standin.Level{Noise: 2, Seed: seed}, l, stops)
		var out []length.Length
		for range stops {
			a, _ := truth.Next(context.Background())
			b, _ := noisy.Next(context.Background())
			out = append(out, b.Rod-a.Rod)
		}
		return out
	}
	a, sum := read(3), 0.0
	for i, v := range read(3) {
		if v != a[i] {
			t.Fatal("the same seed reads otherwise")
		}
		sum += float64(v * v)
	}
	if sd := math.Sqrt(sum / float64(len(a))); len(a) < 1000 || math.Abs(sd-2) > 0.15 {
		t.Errorf("%d readings scatter by %.2f mm, want 2", len(a), sd)
	}
}

func TestARodIsWaitedForNoLongerThanAsked(t *testing.T) {
	l := line()
	rod := standin.NewWalk(standin.Level{Lag: time.Minute}, l, survey.Route(l, 4*length.Metre, 20*length.Metre))
	if _, err := rod.Next(context.Background()); err != nil {
		t.Fatal(err)
	}
	ctx, stop := context.WithCancel(context.Background())
	stop()
	if _, err := rod.Next(ctx); !errors.Is(err, context.Canceled) {
		t.Errorf("got %v", err)
	}
}

func day(t *testing.T, s string) time.Time {
	t.Helper()
	d, err := time.Parse(time.DateOnly, s)
	if err != nil {
		t.Fatal(err)
	}
	return d
}

// Working days by the calendar: weekends do not count.
func TestOfficeWaitsWorkingDays(t *testing.T) {
	cat, err := catalog.Load()
	if err != nil {
		t.Fatal(err)
	}
	office := standin.Office{Wait: 3, Services: cat.Services}
	j := job.Job{Name: "A", Lines: []job.Line{line()}}
	for asked, clear := range map[string]string{
		"2026-11-23": "2026-11-26", // Monday to Thursday
		"2026-11-25": "2026-11-30", // Wednesday over the weekend to Monday
		"2026-11-27": "2026-12-02", // Friday to Wednesday
		"2026-11-28": "2026-12-02", // Saturday
	} {
		ticket := office.Ask(j, day(t, asked))
		if ticket.Asked != asked || ticket.Clear != clear || ticket.Number == "" {
			t.Errorf("asked on %s: %+v, want clear on %s", asked, ticket, clear)
		}
		_, _, err := office.Visit(j, ticket, day(t, clear).AddDate(0, 0, -1))
		var wait standin.WaitError
		if !errors.As(err, &wait) || wait.Clear != clear {
			t.Errorf("a day early: %v", err)
		}
		lines, n, err := office.Visit(j, ticket, day(t, clear))
		if err != nil || n != len(lines[0].Runs[0].KeepOuts)+len(lines[0].Runs[1].KeepOuts) || len(j.Lines[0].Runs[0].KeepOuts) > 0 {
			t.Errorf("%d marks, %v", n, err)
		}
	}
}

// The weather office tells the same hours whenever it is asked, warm in summer and cold
// in winter, with nights cooler than days; south of the equator the other way round.
func TestForecast(t *testing.T) {
	office := standin.Forecast{}
	mean := func(at standin.Spot, day string, hour int) float64 {
		from, err := time.Parse(time.DateOnly, day)
		if err != nil {
			t.Fatal(err)
		}
		hours, err := office.Hours(at, from, from.AddDate(0, 0, 20))
		if err != nil || len(hours) != 20*24+1 {
			t.Fatalf("%d hours, %v", len(hours), err)
		}
		sum, n := 0.0, 0.0
		for _, h := range hours {
			when, err := time.Parse(time.RFC3339, h.At)
			if err != nil {
				t.Fatal(err)
			}
			if when.Hour() == hour {
				sum, n = sum+h.Temp, n+1
			}
			if *h.Humidity < 0 || *h.Humidity > 1 || *h.Sun < 0 || *h.Sun > 1 || *h.Wind < 0 || *h.Rain < 0 {
				t.Fatalf("%+v", h)
			}
		}
		return sum / n
	}
	north, south := standin.Spot{Latitude: 47, Longitude: 0}, standin.Spot{Latitude: -47, Longitude: 0}
	summer, night, winter := mean(north, "2027-07-01", 15), mean(north, "2027-07-01", 3), mean(north, "2027-01-05", 15)
	if summer < 15 || summer > 32 || winter > 8 || summer-night < 5 {
		t.Errorf("summer %v, its nights %v, winter %v", summer, night, winter)
	}
	if mean(south, "2027-01-05", 15) < mean(south, "2027-07-01", 15)+8 {
		t.Error("south of the equator January is winter")
	}
	if mean(north, "2027-07-01", 15) != summer {
		t.Error("asked again it tells another weather")
	}
	from, _ := time.Parse(time.DateOnly, "2027-07-01")
	if _, err := office.Hours(north, from, from.AddDate(1, 0, 0)); err == nil {
		t.Error("a year is told")
	}
}
