package plan_test

import (
	"math"
	"slices"
	"strings"
	"testing"

	"mallow/core/document"
	"mallow/core/finding"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/stage/days"
)

// scheduledJob is the fence of the pour days, whose crew can come from Monday 26 April
// 2027 on, with mild weather for three weeks, and services marked.
func scheduledJob(t testing.TB, long length.Length) job.Job {
	t.Helper()
	j := pouredIn(t, long, skies(20, 12, 18, 10)...)
	j.Pour.Date = ""
	j.Setting.Method = ptr(job.Braced)
	j.Site.Before.Services = true
	j.Days.Start = "2027-04-26"
	if e := document.Check(j); len(e) > 0 {
		t.Fatal(e)
	}
	return j
}

func scheduleOf(t testing.TB, j job.Job) *days.Schedule { return computed(t, j, nil).Schedule() }

func taskOf(t testing.TB, s *days.Schedule, id string) days.AgendaTask {
	t.Helper()
	k := slices.IndexFunc(s.Tasks, func(o days.AgendaTask) bool { return o.ID == id })
	if k < 0 {
		t.Fatalf("no task %s", id)
	}
	return s.Tasks[k]
}

// Hours by hand: 11 posts at 6 minutes of one person and an hour for the strings, by
// three hands, are 42 minutes; bracing at 18 minutes and half an hour 76; boards and
// rails by their pieces. Every task is done within its days, in order, and after what
// must harden.
func TestDaysByHand(t *testing.T) {
	s := scheduleOf(t, scheduledJob(t, 80*ft))
	for id, want := range map[string]float64{"stake": (11*6 + 60) / 3.0 / 60, "brace": (11*18 + 30) / 3.0 / 60, "tops": (11*5 + 20) / 2.0 / 60} {
		if got := taskOf(t, s, id); math.Abs(got.Hours-want) > 1e-9 || got.Count != 11 {
			t.Errorf("%s: %v h for %v, by hand %v", id, got.Hours, got.Count, want)
		}
	}
	if !s.Best || len(s.Left) != 0 || len(s.Finds) != 1 || s.Finds[0].Rule != "days-usual-waits" {
		t.Errorf("best %v, left %v, %+v", s.Best, s.Left, s.Finds)
	}
	order := []string{"stake", "dig", "brace", "pour", "tops", "rails", "boards", "clear"}
	for k := 1; k < len(order); k++ {
		if a, b := taskOf(t, s, order[k-1]), taskOf(t, s, order[k]); b.Begin < a.End {
			t.Errorf("%s begins at %s, %s ends at %s", b.ID, b.Begin, a.ID, a.End)
		}
	}
	sum := 0.0
	for _, d := range s.Days {
		sum += d.Hours
		if d.From < "07:30" || d.To > "15:30" {
			t.Errorf("%s from %s to %s: half an hour's way from 7 and until 16", d.Date, d.From, d.To)
		}
	}
	if math.Abs(sum-s.Hours) > 1e-6 || len(s.Days) != s.Trips {
		t.Errorf("%v hours on %d days, in all %v on %d", sum, len(s.Days), s.Hours, s.Trips)
	}
	// Without a day of the pour what hardens is waited for as usual: tops 24 hours.
	pour, tops := taskOf(t, s, "pour"), taskOf(t, s, "tops")
	if wait := clock(t, tops.Begin+":00Z").Sub(clock(t, pour.End+":00Z")).Hours(); wait < 24 {
		t.Errorf("poured until %s, cut from %s", pour.End, tops.Begin)
	}
	if load := s.Days[0].Load; len(load) == 0 {
		t.Error("nothing is on the truck on the first day")
	}
}

// Moving the dig day moves all that follows, and what that costs is said; the way back
// is offered and works. The pour card's hour is kept.
func TestMovedTasks(t *testing.T) {
	j := scheduledJob(t, 80*ft)
	was := scheduleOf(t, j)
	j.Days.Moves = []job.TaskMove{{Task: "dig", Date: "2027-05-05"}}
	s := scheduleOf(t, j)
	if dig := taskOf(t, s, "dig"); !dig.Moved || dig.Begin[:10] != "2027-05-05" || taskOf(t, s, "pour").Begin < dig.End || s.Finish <= was.Finish {
		t.Errorf("dug %s, done %s; before %s", dig.Begin, s.Finish, was.Finish)
	}
	k := slices.IndexFunc(s.Finds, func(f finding.Finding) bool { return f.Rule == "days-moved" })
	if k < 0 || scheduleOf(t, wayTaken(t, j, s.Finds[k].Remedies[0])).Finish != was.Finish {
		t.Errorf("what it costs is not said: %+v", s.Finds)
	}
	j.Days.Moves = nil
	j.Pour.Date = "2027-05-03"
	if pour := taskOf(t, scheduleOf(t, j), "pour"); pour.Begin != "2027-05-03T07:30" {
		t.Errorf("poured at %s", pour.Begin)
	}
	j.Pour.Date = "2027-04-26" // nothing is dug yet at half past seven of the first day
	s = scheduleOf(t, j)
	if len(s.Finds) == 0 || s.Finds[0].Rule != "days-pour" || len(s.Left) == 0 || s.Finish != "" {
		t.Fatalf("%+v, left %v", s.Finds, s.Left)
	}
	if then := scheduleOf(t, wayTaken(t, j, s.Finds[0].Remedies[0])); len(then.Left) != 0 {
		t.Errorf("the way out leaves %v", then.Left)
	}
}

// What would be sooner is: each change taken ends on the day that it says. A frost after
// the pour moves the rails by days. An office that was not asked takes three working
// days.
func TestSoonerAndLater(t *testing.T) {
	j := scheduledJob(t, 200*ft)
	j.Days.People = 1
	s := scheduleOf(t, j)
	if len(s.Sooner) == 0 {
		t.Fatal("a second hand helps nothing")
	}
	for _, o := range s.Sooner {
		if then := scheduleOf(t, wayTaken(t, j, o.Remedy)); then.Finish != o.Finish || o.Finish >= s.Finish || o.Days < 1 {
			t.Errorf("%+v: ends %s, said %s, now %s", o.Edits, then.Finish, o.Finish, s.Finish)
		}
	}
	mild, cold := scheduledJob(t, 80*ft), scheduledJob(t, 80*ft)
	mild.Pour.Date, cold.Pour.Date = "2027-05-04", "2027-05-04"
	for i := range cold.Weather.Days {
		if d := &cold.Weather.Days[i]; d.Date >= "2027-05-04" && d.Date < "2027-05-09" {
			d.Morning, d.Noon, d.Night = 3, 6, 1
		}
	}
	if a, b := taskOf(t, scheduleOf(t, mild), "rails"), taskOf(t, scheduleOf(t, cold), "rails"); b.Begin[:10] <= a.Begin[:10] {
		t.Errorf("rails %s in the mild, %s in the cold", a.Begin, b.Begin)
	}
	j = scheduledJob(t, 80*ft)
	j.Site.Before.Services = false
	if dig := taskOf(t, scheduleOf(t, j), "dig"); dig.Begin[:10] != "2027-04-29" {
		t.Errorf("dug on %s, before the marks are down on the 29th", dig.Begin)
	}
	j.Days.Rest, j.Days.Inspected = []string{"2027-04-29", "2027-04-30"}, true
	s = scheduleOf(t, j)
	if dig := taskOf(t, s, "dig"); dig.Begin[:10] != "2027-05-03" || taskOf(t, s, "pour").Begin < taskOf(t, s, "inspect").End {
		t.Errorf("with two days off and a weekend dug on %s", dig.Begin)
	}
	for _, d := range s.Days {
		if slices.Contains(j.Days.Rest, d.Date) || d.Date == "2027-05-01" || d.Date == "2027-05-02" {
			t.Errorf("work on %s", d.Date)
		}
	}
	// A pour that takes longer than a day has a place too.
	long := scheduledJob(t, 2400*ft)
	if pour := taskOf(t, scheduleOf(t, long), "pour"); pour.Hours < 9 || pour.End[:10] == pour.Begin[:10] {
		t.Errorf("%v hours from %s to %s", pour.Hours, pour.Begin, pour.End)
	}
	told := scheduledJob(t, 80*ft)
	finish := scheduleOf(t, told).Finish
	for end, late := range map[string]bool{finish: false, "2027-04-27": true} {
		told.Offer.End = end
		if got := slices.ContainsFunc(scheduleOf(t, told).Finds, func(f finding.Finding) bool { return f.Rule == "days-offer" }); got != late {
			t.Errorf("told %s, done on %s: late %v", end, finish, got)
		}
	}
	for rain, wet := range map[float64]bool{9: false, 10: true} { // 13 of 24 hours are looked at: 4.9 and 5.4 mm
		told.Weather.Days = skies(20, 12, 18, 10)
		told.Days.Start = "2027-05-03"
		for i := range told.Weather.Days {
			told.Weather.Days[i].Rain = ptr(rain)
		}
		if got := slices.ContainsFunc(scheduleOf(t, told).Finds, func(f finding.Finding) bool { return f.Rule == "days-wet" }); got != wet {
			t.Errorf("%v mm a day: said %v", rain, got)
		}
	}
	j.Days.Start = ""
	if s = scheduleOf(t, j); len(s.Asks) != 1 || len(s.Days) != 0 || len(s.Tasks) == 0 {
		t.Errorf("without a first day: %+v", s.Asks)
	}
}

// weathered is the same job, which can begin on Monday 3 May, in weather of its own; its
// pour has no day.
func weathered(t testing.TB, sky []job.WeatherDay) job.Job {
	t.Helper()
	j := scheduledJob(t, 80*ft)
	j.Days.Start, j.Weather.Days = "2027-05-03", sky
	return j
}

// The pour's day is found: no other day that is fit ends earlier, by setting each as the
// day of the pour and planning again; days of frost are passed over, and that is said.
func TestPourDayFoundByWeather(t *testing.T) {
	cold := skies(20, 12, 18, 10)
	for i := range 5 { // 2 to 6 May: frost at night, and by day
		cold[i] = skyOf(cold[i].Date, -4, -1, -6)
	}
	for name, sky := range map[string][]job.WeatherDay{"mild": skies(20, 12, 18, 10), "frost until the 6th": cold} {
		j := weathered(t, sky)
		s := scheduleOf(t, j)
		if s.Pour == "" || taskOf(t, s, "pour").Begin[:10] != s.Pour {
			t.Fatalf("%s: found %q, poured %s", name, s.Pour, taskOf(t, s, "pour").Begin)
		}
		least, trips := "", 0
		for day := 3; day <= 18; day++ {
			then := j
			then.Pour.Date = skies(20, 0, 0, 0)[day-2].Date
			if _, unfit := dayOf(t, then).Unfit(); unfit {
				continue
			}
			if o := computed(t, then, nil).Elsewhere(nil); o.Finish != "" && (least == "" || o.Finish < least || o.Finish == least && o.Trips < trips) {
				least, trips = o.Finish, o.Trips
			}
		}
		if s.Finish != least || s.Trips != trips {
			t.Errorf("%s: ends %s in %d trips, the best of all days %s in %d", name, s.Finish, s.Trips, least, trips)
		}
		k := slices.IndexFunc(s.Finds, func(f finding.Finding) bool { return f.Rule == "days-pour-found" })
		if k < 0 {
			t.Fatalf("%s: not said: %+v", name, s.Finds)
		}
		if says := s.Finds[k].Says.Print(j.Units); strings.Contains(says, "Not on") != (name != "mild") {
			t.Errorf("%s: %s", name, says)
		}
		if then := scheduleOf(t, wayTaken(t, j, s.Finds[k].Remedies[0])); then.Finish != s.Finish || then.Pour != "" {
			t.Errorf("%s: set to that day it ends %s, found it ended %s", name, then.Finish, s.Finish)
		}
	}
	if s := scheduleOf(t, weathered(t, cold)); s.Pour <= "2027-05-06" {
		t.Errorf("poured in frost on %s", s.Pour)
	}
}

// A pour is not put on a day of hard rain, nor before a night in which it freezes too
// soon.
func TestPourKeepsOffRainAndFrost(t *testing.T) {
	day := scheduleOf(t, weathered(t, skies(20, 12, 18, 10))).Pour
	for name, spoil := range map[string]func(*job.WeatherDay){
		"rain":  func(d *job.WeatherDay) { d.Rain = ptr(120.0) },
		"frost": func(d *job.WeatherDay) { d.Night = -8 },
	} {
		sky := skies(20, 12, 18, 10)
		for i := range sky {
			if sky[i].Date == day {
				spoil(&sky[i])
			}
		}
		if s := scheduleOf(t, weathered(t, sky)); s.Pour == day || s.Pour == "" {
			t.Errorf("%s: poured on %q", name, s.Pour)
		}
	}
}

// Rain on a day on site is said, and staying away that day moves the rest.
func TestRainMovesTheRest(t *testing.T) {
	sky := skies(20, 12, 18, 10)
	sky[2].Rain = ptr(120.0) // 4 May, all day
	j := weathered(t, sky)
	s := scheduleOf(t, j)
	k := slices.IndexFunc(s.Finds, func(f finding.Finding) bool { return f.Rule == "days-wet" })
	if k < 0 || len(s.Finds[k].Remedies) != 1 {
		t.Fatalf("rain is not said, or nothing helps: %+v", s.Finds)
	}
	then := scheduleOf(t, wayTaken(t, j, s.Finds[k].Remedies[0]))
	for _, d := range then.Days {
		if d.Date == "2027-05-04" {
			t.Error("somebody works in the rain")
		}
	}
	if then.Finish < s.Finish || len(then.Left) != 0 {
		t.Errorf("ends %s, before %s; left %v", then.Finish, s.Finish, then.Left)
	}
}

// Nobody is on the job on days that are taken; a task that there is not is said.
func TestTakenDaysAndStrangeTasks(t *testing.T) {
	j := scheduledJob(t, 80*ft)
	alone := scheduleOf(t, j)
	j.Days.Taken = []string{alone.Days[0].Date, alone.Days[1].Date}
	j.Days.Moves = []job.TaskMove{{Task: "paint", Date: "2027-04-28"}}
	s := scheduleOf(t, j)
	for _, d := range s.Days {
		if slices.Contains(j.Days.Taken, d.Date) {
			t.Errorf("on site on %s", d.Date)
		}
	}
	k := slices.IndexFunc(s.Finds, func(f finding.Finding) bool { return f.Rule == "days-unknown-task" })
	if k < 0 {
		t.Fatalf("a task that there is not is not said: %+v", s.Finds)
	}
	if then := scheduleOf(t, wayTaken(t, j, s.Finds[k].Remedies[0])); slices.ContainsFunc(then.Finds, func(f finding.Finding) bool { return f.Rule == "days-unknown-task" }) {
		t.Error("it is still said once it is forgotten")
	}
	if e := document.Check(func() job.Job { j.Days.Taken = []string{"tomorrow"}; return j }()); len(e) != 1 || e[0].Field != "/days/taken/0" {
		t.Errorf("a day that is none: %v", e)
	}
}

// Mix that sets fast is offered where the wait costs a day, and ends on the day it says.
func TestFastMixIsSooner(t *testing.T) {
	j := scheduledJob(t, 80*ft)
	s := scheduleOf(t, j)
	k := slices.IndexFunc(s.Sooner, func(o days.Sooner) bool { return strings.Contains(o.Says.Print(j.Units), "sets fast") })
	if k < 0 {
		t.Fatalf("not offered: ends %s, %+v", s.Finish, s.Sooner)
	}
	then := scheduleOf(t, wayTaken(t, j, s.Sooner[k].Remedy))
	if then.Finish != s.Sooner[k].Finish || then.Finish >= s.Finish {
		t.Errorf("ends %s, promised %s, before %s", then.Finish, s.Sooner[k].Finish, s.Finish)
	}
}
