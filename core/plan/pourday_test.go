package plan_test

import (
	"encoding/json"
	"fmt"
	"math"
	"slices"
	"strings"
	"testing"
	"time"

	"mallow/core/curing"
	"mallow/core/document"
	"mallow/core/finding"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/plan"
	"mallow/core/stage/dig"
	"mallow/core/stage/pourday"
)

// pouredIn is a fence whose posts are stabbed into truck mix on 3 May 2027.
func pouredIn(t testing.TB, long length.Length, weather ...job.WeatherDay) job.Job {
	t.Helper()
	j := fenceOf(t, length.Imperial, "boards-on-rails", 6*ft, long)
	j.Setting.Method = ptr(job.Stabbed)
	j.Pour = job.Pour{Date: "2027-05-03", By: job.ByTruck}
	j.Weather = job.Weather{Offset: ptr(-5.0), Days: weather}
	if e := document.Check(j); len(e) > 0 {
		t.Fatal(e)
	}
	return j
}

func skyOf(date string, morning, noon, night float64) job.WeatherDay {
	return job.WeatherDay{Date: date, Morning: morning, Noon: noon, Night: night, Humidity: ptr(0.5), Wind: ptr(2.0), Sun: ptr(0.0)}
}

// days are days of the same weather from 2 May 2027 on.
func skies(n int, morning, noon, night float64) []job.WeatherDay {
	out := make([]job.WeatherDay, n)
	for i := range out {
		out[i] = skyOf(time.Date(2027, 5, 2+i, 0, 0, 0, 0, time.UTC).Format(time.DateOnly), morning, noon, night)
	}
	return out
}

func dayOf(t testing.TB, j job.Job) *pourday.Day { return computed(t, j, nil).PourDay() }

func foundOn(d *pourday.Day, code string) *finding.Finding {
	k := slices.IndexFunc(d.Finds, func(f finding.Finding) bool { return f.Rule == code })
	if k < 0 {
		return nil
	}
	return &d.Finds[k]
}

func clock(t testing.TB, at string) time.Time {
	t.Helper()
	out, err := time.Parse(time.RFC3339, at)
	if err != nil {
		t.Fatalf("%q: %v", at, err)
	}
	return out
}

// wayTaken is the job with a way out taken.
func wayTaken(t *testing.T, j job.Job, way finding.Remedy) job.Job {
	t.Helper()
	doc, err := json.Marshal(j)
	if err != nil {
		t.Fatal(err)
	}
	return taken(t, doc, way)
}

// Thirty posts at three hands and six minutes of one: two minutes a post, thirty an
// hour. In the cool one load bears them all; by hand it may be worked for 90 minutes
// from batching, 30 of which it was on the road. In the heat it stiffens sooner, and
// what comes is broken in two: after each no post is set later than its load is worked.
func TestHotDayBreaksTheLoad(t *testing.T) {
	cool := dayOf(t, pouredIn(t, 232*ft, skies(9, 10, 16, 8)...))
	if len(cool.Posts) != 30 || math.Abs(cool.PerHour-30) > 1e-9 || len(cool.Loads) != 1 || cool.Days != 1 || len(cool.Left) != 0 {
		t.Fatalf("cool: %d posts, %v an hour, %d loads", len(cool.Posts), cool.PerHour, len(cool.Loads))
	}
	if l := cool.Loads[0]; clock(t, l.Done).Sub(clock(t, l.Comes)) != time.Hour || clock(t, l.Worked).Sub(clock(t, l.Comes)) != time.Hour || l.Comes != "2027-05-03T07:30:00-05:00" {
		t.Errorf("cool: %+v", l)
	}
	hotJob := pouredIn(t, 232*ft, skies(9, 28, 36, 25)...)
	hot := dayOf(t, hotJob)
	if len(hot.Loads) < 2 || len(hot.Left) != 0 {
		t.Fatalf("hot: %d loads, %d posts left", len(hot.Loads), len(hot.Left))
	}
	whole, order, set := 0.0, length.Volume(0), 0
	for _, l := range hot.Loads {
		if clock(t, l.Done).After(clock(t, l.Worked)) {
			t.Errorf("a load is done at %s, and worked until %s", l.Done, l.Worked)
		}
		if q := l.Order.CubicYards() * 4; math.Abs(q-math.Round(q)) > 1e-9 || l.Order < l.Volume {
			t.Errorf("%v yd³ ordered for %v", l.Order.CubicYards(), l.Volume.CubicYards())
		}
		whole, order, set = whole+float64(l.Volume), order+l.Order, set+len(l.Posts)
	}
	if buy := float64(plan.Make(hotJob, shipped(t)).Totals.ConcreteToBuy); set != 30 || math.Abs(whole-buy) > 1e-9 || order != hot.Order.Volume {
		t.Errorf("loads of %v m³ and %d posts; the bill has %v", whole, set, buy)
	}
	f := foundOn(hot, "pour-split")
	if f == nil {
		t.Fatalf("nothing says why: %+v", hot.Finds)
	}
	for _, way := range f.Remedies {
		if then := dayOf(t, wayTaken(t, hotJob, way)); foundOn(then, "pour-split") != nil {
			t.Errorf("%v does not help", way.Edits)
		}
	}
	// At 35 °C, by hand: a third sooner for each 10 °F, 27 °F over 68 °F, and drying at
	// about half of the limit another sixth.
	want := 90 / (math.Pow(4.0/3, 2.7) * (1 + curing.Evaporation(35, 35, 0.5, 2)/3))
	noon := hot.Curve[slices.IndexFunc(hot.Curve, func(h pourday.DayHour) bool { return h.At == "2027-05-03T13:30:00-05:00" })]
	if got := noon.Works + 30; math.Abs(got-want) > 2 {
		t.Errorf("batched at one it is over after %v minutes, by hand %v", got, want)
	}
}

// Displacement: a 3 1/2 in post pushed to the bottom of a round hole raises what is in
// it by its own section (Archimedes; worked here without the core's shapes).
func TestStabbedPostsRaiseTheConcrete(t *testing.T) {
	j := pouredIn(t, 80*ft, skies(4, 10, 16, 8)...)
	r := computed(t, j, nil)
	d := r.PourDay()
	for _, p := range d.Posts {
		run := r.Runs[0].Load
		k := slices.IndexFunc(run.Posts, func(o dig.Post) bool { return o.Label == p.Post })
		o := run.Posts[k]
		hole := math.Pi / 4 * float64(o.HoleWidth) * float64(o.HoleWidth)
		post := float64(run.Spec.PostOf(o.Kind).Width)
		foot := float64(o.Bottom - o.Foot) // of the post over the concrete's bottom
		want := float64(o.Concrete) - post*post*(float64(o.Concrete)-foot)/hole
		if math.Abs(float64(p.Fill)-want) > 0.5 || p.Rises <= 0 || !length.Same(p.Fill+p.Rises, o.Concrete) {
			t.Errorf("%s: filled to %v and rises %v; by hand %v of %v", p.Post, p.Fill, p.Rises, want, o.Concrete)
		}
		if back := clock(t, p.Back); !back.After(clock(t, p.Done)) || !back.Before(clock(t, p.Finish)) {
			t.Errorf("%s: set at %s, come back at %s, finish at %s", p.Post, p.Done, p.Back, p.Finish)
		}
	}
	if first, last := d.Posts[0], d.Posts[len(d.Posts)-1]; first.Kind == job.LinePost || last.Kind != job.LinePost {
		t.Errorf("set first %s, last %s: ends come first", first.Kind, last.Kind)
	}
}

// Maturity by hand: at a steady 20 °C braces come off after 0.437 days, 10 1/2 hours; at
// a steady 60 °F 13.5, and in a 45 °F night 29. The common waits are 12 to 24 hours, and
// 24 to 48 below 60 °F.
func TestWaitsByMaturity(t *testing.T) {
	for _, c := range []struct {
		temp, hours float64
		cool        bool
	}{{20, 10.49, false}, {60/1.8 - 32/1.8, 13.49, false}, {45/1.8 - 32/1.8, 29.06, true}} {
		d := dayOf(t, pouredIn(t, 80*ft, skies(12, c.temp, c.temp, c.temp)...))
		w := d.Waits[0]
		if w.ID != "braces" || math.Abs(w.Hours-c.hours) > 0.02 || w.Cool != c.cool {
			t.Errorf("%.1f °C: %+v, by hand %v h", c.temp, w, c.hours)
		}
		for k := 1; k < len(d.Waits); k++ {
			if d.Waits[k].At != "" && d.Waits[k].Hours <= d.Waits[k-1].Hours {
				t.Errorf("%s before %s", d.Waits[k].ID, d.Waits[k-1].ID)
			}
		}
	}
}

// A cold snap after the pour moves the gates by days, and is said with ways out that
// help: covered footings, another day.
func TestColdSnapMovesTheGates(t *testing.T) {
	gates := func(d *pourday.Day) time.Time {
		return clock(t, d.Waits[slices.IndexFunc(d.Waits, func(w pourday.DayWait) bool { return w.ID == "gates" })].At)
	}
	mild := dayOf(t, pouredIn(t, 80*ft, skies(16, 12, 18, 10)...))
	sky := skies(16, 12, 18, 10)
	for i := 1; i <= 3; i++ { // the nights of the 3rd to the 5th
		sky[i] = skyOf(sky[i].Date, 3, 4, -4)
	}
	j := pouredIn(t, 80*ft, sky...)
	snap := dayOf(t, j)
	if late := gates(snap).Sub(gates(mild)); late < 24*time.Hour {
		t.Errorf("gates are late by %v only", late)
	}
	f := foundOn(snap, "pour-frost-after")
	if f == nil || len(f.Remedies) == 0 || foundOn(mild, "pour-frost-after") != nil || foundOn(mild, "pour-cold") != nil {
		t.Fatalf("the snap: %+v; mild: %+v", snap.Finds, mild.Finds)
	}
	for _, way := range f.Remedies {
		if foundOn(dayOf(t, wayTaken(t, j, way)), "pour-frost-after") != nil {
			t.Errorf("%+v does not help", way.Edits)
		}
	}
	// 40 °F is the limit of protection (ACI 306), to a tenth of a degree on either side.
	for night, want := range map[float64]bool{4.3: true, 4.5: false} {
		if got := foundOn(dayOf(t, pouredIn(t, 80*ft, skies(9, 10, 14, night)...)), "pour-cold") != nil; got != want {
			t.Errorf("a night of %v °C: found %v", night, got)
		}
	}
}

// Nothing is poured in frost; in a morning's frost the first load waits for the sun.
func TestNoConcreteInFrost(t *testing.T) {
	sky := skies(12, -6, -1, -8)
	for i := 3; i < 12; i++ { // from the 5th on it is mild
		sky[i] = skyOf(sky[i].Date, 12, 16, 10)
	}
	j := pouredIn(t, 80*ft, sky...)
	d := dayOf(t, j)
	if clock(t, d.Loads[0].Comes).Before(clock(t, "2027-05-05T07:30:00-05:00")) {
		t.Errorf("poured in frost at %s", d.Loads[0].Comes)
	}
	late := dayOf(t, pouredIn(t, 80*ft, skies(12, -2, 12, 6)...))
	if at := clock(t, late.Loads[0].Comes); at.Day() != 3 || at.Hour() < 8 || at.Hour() > 9 {
		t.Errorf("from -2 at 7 to 12 at 14 it thaws at 8; the first load comes at %v", at)
	}
	all := dayOf(t, pouredIn(t, 80*ft, skies(12, -6, -1, -8)...))
	if f := foundOn(all, "pour-frost"); f == nil || f.Severity != finding.Cannot || len(all.Left) != len(all.Posts) || len(all.Loads) != 0 {
		t.Errorf("a week of frost: %+v", all.Finds)
	}
}

// Bags: each post's bags, water and minutes by hand. 60 lb bags are mixed in 2.5 minutes
// of one person to 25 kg; three hands share it.
func TestPourFromBags(t *testing.T) {
	j := pouredIn(t, 80*ft, skies(9, 12, 18, 10)...)
	j.Setting.Method, j.Pour.By = ptr(job.Braced), job.ByBags
	j.Setting.Bag = ptr("60lb")
	d := dayOf(t, j)
	if len(d.Loads) != 0 || len(d.Left) != 0 || len(d.Order.Bags) != 1 {
		t.Fatalf("%d loads, %d left, bags %+v", len(d.Loads), len(d.Left), d.Order.Bags)
	}
	bags := 0.0
	for _, p := range d.Posts {
		bags += p.Bags
		mass := p.Bags * 60 * 0.45359237
		want := (10 + mass/25*2.5) / 3
		if got := clock(t, p.Done).Sub(clock(t, p.At)).Minutes(); math.Abs(got-want) > 0.02 {
			t.Errorf("%s takes %v minutes, by hand %v", p.Post, got, want)
		}
		if math.Abs(float64(p.Water)*1000-mass*0.078) > 1e-9 {
			t.Errorf("%s takes %v of water", p.Post, p.Water)
		}
	}
	o := d.Order.Bags[0]
	if o.Count != int(math.Ceil(bags-1e-6)) || o.Pallets != int(math.Ceil(float64(o.Count)*60*0.45359237/1500)) || math.Abs(float64(o.Water)*1000-2.123) > 0.001 {
		t.Errorf("%+v for %v bags", o, bags)
	}
	for k := 1; k < len(d.Posts); k++ {
		if clock(t, d.Posts[k].At).Before(clock(t, d.Posts[k-1].Done)) {
			t.Errorf("%s begins before %s is done", d.Posts[k].Post, d.Posts[k-1].Post)
		}
	}
	at := clock(t, d.Lunch)
	for _, p := range d.Posts {
		if clock(t, p.Done).After(at) && clock(t, p.At).Before(clock(t, d.LunchEnd)) {
			t.Errorf("%s is set over lunch", p.Post)
		}
	}
}

// What is not known is asked for: without weather loads are planned by the limit of
// discharge alone, and nothing is said of when posts may be loaded.
func TestUnknownWeatherIsAsked(t *testing.T) {
	j := pouredIn(t, 80*ft)
	d := dayOf(t, j)
	if d.Known || len(d.Curve) != 0 || len(d.Asks) != 1 || d.Asks[0].Field != "/weather" || len(d.Loads) == 0 {
		t.Errorf("%+v", d.Asks)
	}
	for _, w := range d.Waits {
		if w.At != "" {
			t.Errorf("%s is known to end at %s", w.ID, w.At)
		}
	}
	j.Pour.Date = ""
	if d = dayOf(t, j); len(d.Asks) != 1 || d.Asks[0].Field != "/pour/date" || len(d.Loads) != 0 || len(d.Posts) == 0 {
		t.Errorf("without a day: %+v, %d loads", d.Asks, len(d.Loads))
	}
	// Three days known: gates, which take longer, are left out, braces are not.
	d = dayOf(t, pouredIn(t, 80*ft, skies(3, 15, 18, 12)...))
	if d.Waits[0].At == "" || d.Waits[len(d.Waits)-1].At != "" {
		t.Errorf("%+v", d.Waits)
	}
}

// Pours of every size and weather: each post once and in order, no load beyond what it
// can be worked or the truck brings, everything that is not set is said.
func TestPourDaysHold(t *testing.T) {
	for n, c := range []struct {
		long   length.Length
		people int
		temp   float64
		by     job.PourBy
	}{{8 * ft, 1, 20, job.ByTruck}, {800 * ft, 2, 30, job.ByTruck}, {2000 * ft, 4, 12, job.ByTruck}, {300 * ft, 1, 38, job.ByBags}, {900 * ft, 6, 5, job.BySiteMix}, {1600 * ft, 1, 40, job.ByTruck}} {
		j := pouredIn(t, c.long, skies(20, c.temp-4, c.temp, c.temp-8)...)
		j.Pour.People, j.Pour.By = c.people, c.by
		d := dayOf(t, j)
		set := 0
		for _, p := range d.Posts {
			if p.At != "" {
				set++
			}
		}
		if set+len(d.Left) != len(d.Posts) {
			t.Errorf("case %d: %d set and %d left of %d", n, set, len(d.Left), len(d.Posts))
		}
		if len(d.Left) > 0 && !slices.ContainsFunc(d.Finds, func(f finding.Finding) bool { return f.Severity == finding.Cannot }) {
			t.Errorf("case %d: %d left, and nothing says so", n, len(d.Left))
		}
		for _, f := range d.Finds {
			if says := f.Says.Print(j.Units); strings.Contains(says, "[") {
				t.Errorf("case %d: %s", n, says)
			}
		}
		for k, l := range d.Loads {
			if clock(t, l.Done).After(clock(t, l.Worked)) || l.Volume > 10*length.CubicYard || k > 0 && clock(t, l.Comes).Before(clock(t, d.Loads[k-1].Done)) {
				t.Errorf("case %d: load %d %+v", n, k, l)
			}
		}
		if _, err := json.Marshal(d); err != nil {
			t.Error(fmt.Errorf("case %d: %w", n, err))
		}
	}
}

// Each finding just over its threshold and not just under it. Drying by hand, air and
// concrete at 30 °C, a tenth damp: 5 (48^2.5) (0.9) (V + 4) 1e-6 with V in km/h is 1.0 at
// 9.92 km/h. Rain of 2.5 mm in the hour. Frost is borne from a share of 0.15, 0.69 days of
// 20 °C (ACI 306: 500 of 3,500 psi): at a steady 10 °C after 33 hours.
func TestPourFindingsAtTheirThresholds(t *testing.T) {
	steady := func(temp float64, change func(h *job.WeatherHour)) job.Job {
		j := pouredIn(t, 80*ft)
		at := time.Date(2027, 5, 3, 0, 0, 0, 0, time.FixedZone("", -5*3600))
		for k := range 24 * 8 {
			h := job.WeatherHour{At: at.Add(time.Duration(k) * time.Hour).Format(time.RFC3339), Temp: temp}
			change(&h)
			j.Weather.Hours = append(j.Weather.Hours, h)
		}
		return j
	}
	for _, c := range []struct {
		code  string
		found bool
		job   job.Job
	}{
		{"pour-drying", false, steady(30, func(h *job.WeatherHour) { h.Humidity, h.Wind = ptr(0.1), ptr(9.8/3.6) })},
		{"pour-drying", true, steady(30, func(h *job.WeatherHour) { h.Humidity, h.Wind = ptr(0.1), ptr(10.0/3.6) })},
		{"pour-rain", false, steady(15, func(h *job.WeatherHour) { h.Rain = ptr(2.4) })},
		{"pour-rain", true, steady(15, func(h *job.WeatherHour) { h.Rain = ptr(2.5) })},
		{"pour-frost-after", true, steady(10, func(h *job.WeatherHour) { frostAt(h, "2027-05-04T12:00:00-05:00") })},
		{"pour-frost-after", false, steady(10, func(h *job.WeatherHour) { frostAt(h, "2027-05-04T23:00:00-05:00") })},
	} {
		if got := foundOn(dayOf(t, c.job), c.code) != nil; got != c.found {
			t.Errorf("%s: found %v, want %v", c.code, got, c.found)
		}
	}
}

func frostAt(h *job.WeatherHour, at string) {
	if h.At == at {
		h.Temp = -1
	}
}

// At the equator the sun is up for twelve hours: who begins at half past seven sets every
// post by daylight, who begins at 4 in the morning does not.
func TestDarkness(t *testing.T) {
	j := pouredIn(t, 80*ft, skies(4, 15, 18, 12)...)
	j.Site.Place = &job.Place{Latitude: 0, Longitude: -75}
	if d := dayOf(t, j); foundOn(d, "pour-dark") != nil || d.Sunrise[11:13] != "05" {
		t.Errorf("sunrise %s; %+v", d.Sunrise, d.Finds)
	}
	j.Pour.From = "04:00"
	if f := foundOn(dayOf(t, j), "pour-dark"); f == nil || f.Severity != finding.Check {
		t.Error("posts are set at 4 in the morning")
	}
}

// More hands than a way of setting has room for do not make it faster: stabbing is done
// by four at most. A crew's own rate goes before the usual one.
func TestPaceOfTheCrew(t *testing.T) {
	j := pouredIn(t, 80*ft, skies(4, 15, 18, 12)...)
	for people, want := range map[int]float64{1: 10, 3: 30, 4: 40, 9: 40} {
		j.Pour.People = people
		if d := dayOf(t, j); math.Abs(d.PerHour-want) > 1e-9 {
			t.Errorf("%d hands set %v an hour, by hand %v", people, d.PerHour, want)
		}
	}
	j.Pour.People, j.Pour.Rates = 4, []job.PourRate{{Method: job.Stabbed, Place: 12}}
	if d := dayOf(t, j); math.Abs(d.PerHour-20) > 1e-9 {
		t.Errorf("at 12 minutes of one person four set %v an hour", d.PerHour)
	}
}

// Fast-setting mix is eight times as strong for its age: braces come off after 10.5 / 8
// hours of 20 °C, and 20 minutes after it is wetted it is over.
func TestFastMix(t *testing.T) {
	j := pouredIn(t, 80*ft, skies(4, 20, 20, 20)...)
	j.Setting.Method, j.Pour.By = ptr(job.FastDry), job.ByBags
	d := dayOf(t, j)
	if w := d.Waits[0]; math.Abs(w.Hours-10.49/8) > 0.01 {
		t.Errorf("%+v", w)
	}
	if p := d.Posts[0]; clock(t, p.Finish).Sub(clock(t, p.Done)) > 20*time.Minute {
		t.Errorf("done at %s, finished at %s", p.Done, p.Finish)
	}
}
