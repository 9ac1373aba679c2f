package plan_test

import (
	"fmt"
	"math"
	"slices"
	"strings"
	"testing"

	"mallow/core/document"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/materials"
	"mallow/core/report"
	"mallow/core/scene"
	"mallow/core/stage/load"
	"mallow/core/stage/record"
)

// at is a fact with another time.
func when(f job.Fact, at string) job.Fact {
	f.When = at
	return f
}

// By hand: holes are done at 8:00, 8:40, 9:30 and, after lunch and a drive, 13:30 and
// 14:00. The first of each stretch tells nothing: what is timed is 40 + 50 + 30 minutes in
// three holes, 40 a hole. An entry of two posts 60 minutes on counts 30 each.
func TestPaceByHand(t *testing.T) {
	j, ids := logged(t)
	day := "2027-05-03T"
	j = saw(j,
		when(fact(1, ids[0], job.MarkDug), day+"08:00:00-05:00"),
		when(fact(2, ids[1], job.MarkDug), day+"08:40:00-05:00"),
		when(fact(3, ids[2], job.MarkDug), day+"09:30:00-05:00"),
		when(fact(4, ids[3], job.MarkDug), day+"13:30:00-05:00"),
		when(fact(5, ids[4], job.MarkDug), day+"14:00:00-05:00"))
	r := recordOf(t, j)
	if len(r.Paces) != 1 {
		t.Fatalf("%+v", r.Paces)
	}
	p := r.Paces[0]
	run := computed(t, j, nil).Runs[0].Load
	planned := (run.HoleMinutes(1, 3, false) + run.HoleMinutes(2, 3, false) + run.HoleMinutes(4, 3, false)) / 3
	if p.What != job.MarkDug || p.Posts != 3 || p.Minutes != 40 || !p.Sure || math.Abs(p.Planned-planned) > 1e-9 || p.Left != len(ids)-5 {
		t.Fatalf("%+v, planned %g", p, planned)
	}
	all := 0.0
	for i := range ids {
		all += run.HoleMinutes(i, 3, false)
	}
	if by := 60 * run.Totals.Hours.ByAuger; math.Abs(all-by) > 1e-6 {
		t.Errorf("holes take %g min one by one, %g together", all, by)
	}
	left := 0.0
	for i := 5; i < len(ids); i++ {
		left += run.HoleMinutes(i, 3, false) * 40 / planned / 60
	}
	if math.Abs(p.Hours-left) > 1e-9 {
		t.Errorf("%g h are left, not %g", p.Hours, left)
	}
	if said := saidIn(r, "record-pace"); (said != nil) != (40 > 1.25*planned) {
		t.Errorf("40 min a hole where %g are planned: %v", planned, said)
	}
	two := saw(j, when(fact(6, ids[5], job.MarkDug), day+"15:00:00-05:00"), when(fact(7, ids[6], job.MarkDug), day+"15:00:05-05:00"))
	if p := recordOf(t, two).Paces[0]; p.Posts != 5 || p.Minutes != 36 { // (120 + 60) / 5
		t.Errorf("two at once: %+v", p)
	}
	night := saw(j, when(fact(6, ids[5], job.MarkDug), "2027-05-04T08:00:00-05:00"))
	if p := recordOf(t, night).Paces[0]; p.Posts != 3 {
		t.Errorf("the night counts: %+v", p)
	}
	one := saw(func() job.Job { j, _ := logged(t); return j }(), when(fact(1, ids[0], job.MarkDug), day+"08:00:00Z"))
	if p := recordOf(t, one).Paces; len(p) != 0 {
		t.Errorf("one hole is timed by nothing: %+v", p)
	}
}

// Corner posts are dug once, old posts not at all, and facts can be about posts that are
// no longer there: each has its place in a record.
func TestRecordOfCornersAndLostPosts(t *testing.T) {
	j, ids := fenced(t, length.Imperial, "boards-on-rails", 6*ft, 40*ft, 30*ft, 20*ft)
	for n, id := range append(ids, "R1.999", "nothing") {
		j = saw(j, when(fact(3*n+1, id, job.MarkDug), fmt.Sprintf("2027-05-03T%02d:%02d:00Z", 8+n/4, 15*(n%4))), fact(3*n+2, id, job.CutTo, 1500), fact(3*n+3, id, job.OffLine, 30))
	}
	r := recordOf(t, j)
	if r.Dug != len(ids) || len(r.Paces) != 1 || r.Paces[0].Posts != len(ids)-1 || r.Paces[0].Minutes != 15 {
		t.Errorf("%d of %d are dug, %+v", r.Dug, len(ids), r.Paces)
	}
	p := computed(t, j, nil).Figures()
	p.Log = r
	if rows := report.AsBuilt(p, r).Rows; len(rows) != len(ids) {
		t.Errorf("%d rows for %d posts", len(rows), len(ids))
	}
}

// A quarter over the plan is said of nobody; a little more is.
func TestPaceIsToldFromAQuarterOver(t *testing.T) {
	j, ids := logged(t)
	for n := range 4 { // ten minutes each
		j = saw(j, when(fact(2*n+1, ids[n], job.MarkDug), fmt.Sprintf("2027-05-03T08:%02d:00Z", 10*n)), when(fact(2*n+2, ids[n], job.MarkPoured), fmt.Sprintf("2027-05-04T08:%02d:00Z", 10*n)))
	}
	for _, c := range []struct {
		planned float64
		told    bool
	}{{8, false}, {7.9, true}, {10, false}, {20, false}, {0, false}} {
		r := record.Compute(j, []*load.Load{computed(t, j, nil).Runs[0].Load})
		crew := record.Crew{People: 3}
		if c.planned > 0 {
			crew.PerHour, crew.Bears = 60/c.planned, 12
		}
		r.Go(crew, func(string) float64 { return c.planned })
		if said := saidIn(r, "record-pace"); (said != nil) != c.told {
			t.Errorf("10 min where %g are planned: %v", c.planned, said)
		}
		if said := saidIn(r, "record-truck"); (said != nil) != c.told {
			t.Errorf("poured in 10 min where %g are planned: %v", c.planned, said)
		}
	}
}

// The pace against the days: with as many days left as the work takes, nothing is said;
// with one less, it is, and how many it takes.
func TestLateByHand(t *testing.T) {
	r := record.Log{Days: []record.Daily{{Date: "2027-05-03"}}, Paces: []record.Pace{{What: job.MarkDug, Hours: 20, Sure: true}}}
	for _, c := range []struct {
		dates []string
		late  bool
	}{
		{[]string{"2027-05-03", "2027-05-04", "2027-05-05"}, false}, // 2.5 days in 2 days and a half
		{[]string{"2027-05-03", "2027-05-04"}, true},
		{nil, false},
	} {
		r := r
		r.Late(c.dates, 8)
		if (len(r.Finds) > 0) != c.late {
			t.Errorf("%v: %v", c.dates, r.Finds)
		}
		if c.late && !strings.Contains(r.Finds[0].Says.Print(length.Units{}), "20 h more, about 3 days; 1 is planned") {
			t.Error(r.Finds[0].Says.Print(length.Units{}))
		}
	}
}

// A truck's load that was to bear 12 posts at 15 an hour, 4 minutes each, bears 8 at 6.
func TestTruckByHand(t *testing.T) {
	j, ids := logged(t)
	for n := range 4 {
		j = saw(j, when(fact(n, ids[n], job.MarkPoured), []string{"2027-05-03T08:00:00Z", "2027-05-03T08:06:00Z", "2027-05-03T08:12:00Z", "2027-05-03T08:18:00Z"}[n]))
	}
	r := record.Compute(j, []*load.Load{computed(t, j, nil).Runs[0].Load})
	r.Go(record.Crew{People: 3, Brace: 6, PerHour: 15, Bears: 12}, func(string) float64 { return 30 })
	said := saidIn(r, "record-truck")
	if said == nil || !strings.Contains(said.Says.Print(j.Units), "about 8 posts before it stiffens, not 12") {
		t.Fatalf("%v, %+v", r.Finds, r.Paces)
	}
	slow := record.Compute(j, []*load.Load{computed(t, j, nil).Runs[0].Load})
	slow.Go(record.Crew{People: 3, Brace: 6, PerHour: 10, Bears: 8}, func(string) float64 { return 30 }) // as planned
	if said := saidIn(slow, "record-truck"); said != nil {
		t.Error(said.Says.Print(j.Units))
	}
}

// What was done on which day, by the clock of who wrote it: at ten in the evening it is
// tomorrow elsewhere. What was struck out is counted, and no more.
func TestRecordOfADayByHand(t *testing.T) {
	j, ids := logged(t)
	note := fact(5, ids[2], job.Noted)
	note.Note, note.Photo, note.Who = "muddy", "p1", "Ash"
	struck := job.Fact{ID: "f9", On: job.On("post", ids[3]), What: job.StruckOut, Strikes: "f4", When: "2027-05-04T09:00:00-05:00"}
	j = saw(j,
		when(fact(1, ids[0], job.MarkDug), "2027-05-03T08:10:00-05:00"),
		when(fact(2, ids[1], job.MarkDug), "2027-05-03T22:30:00-05:00"),
		when(fact(3, ids[0], job.BagsUsed, 3), "2027-05-04T08:00:00-05:00"),
		when(fact(4, ids[3], job.OffLine, 80), "2027-05-04T08:30:00-05:00"),
		when(note, "2027-05-04T10:00:00-05:00"),
		when(fact(6, ids[4], job.OffLine, -30), "2027-05-04T08:40:00-05:00"), struck)
	j.Weather.Days = []job.WeatherDay{{Date: "2027-05-04", Morning: 8, Noon: 19, Night: 6}}
	d := recordOf(t, j).Days
	if len(d) != 2 || d[0].Date != "2027-05-03" || d[0].From != "08:10" || d[0].To != "22:30" || d[1].Date != "2027-05-04" {
		t.Fatalf("%+v", d)
	}
	if len(d[0].Done) != 1 || d[0].Done[0].What != job.MarkDug || !slices.Equal(d[0].Done[0].Posts, []string{"P1", "P2"}) {
		t.Errorf("%+v", d[0].Done)
	}
	if d[1].Bags != 3 || d[1].Holes != 1 || d[1].Struck != 1 || len(d[1].Found) != 1 || d[1].Found[0].Post != "P5" || d[1].Found[0].State != record.Open {
		t.Errorf("%+v", d[1])
	}
	if len(d[1].Notes) != 1 || d[1].Notes[0].Photo != "p1" || d[1].Notes[0].On != "P3" || !slices.Equal(d[1].Who, []string{"Ash"}) {
		t.Errorf("%+v", d[1].Notes)
	}
	if d[1].High == nil || *d[1].High != 19 || *d[1].Low > 8 || d[0].High != nil {
		t.Errorf("weather %v %v", d[1].Low, d[1].High)
	}
}

// The worst of each kind, the farthest over what may be first; what is still to do; when
// to come back.
func TestInspectionByHand(t *testing.T) {
	j, ids := logged(t)
	j.Lines[0].Runs[0].Gates = nil
	for n, id := range ids {
		j = saw(j, when(fact(100+n, id, job.MarkBuilt), "2027-03-29T10:00:00Z"))
	}
	j = saw(j, fact(1, ids[1], job.OffLine, 5), fact(2, ids[2], job.OffLine, -20), fact(3, ids[3], job.OffPlumb, 9), fact(4, ids[4], job.OffPlumb, -4))
	r := recordOf(t, j)
	if len(r.Worst) != 2 || r.Worst[0].Label != "P3" || r.Worst[0].What != job.OffLine || r.Worst[0].By != -20 || r.Worst[1].Label != "P4" || r.Worst[1].By != 9 {
		t.Errorf("%+v", r.Worst)
	}
	if len(r.Punch) != r.Open || r.Open == 0 {
		t.Errorf("%d are open, %+v", r.Open, r.Punch)
	}
	if len(r.Later) != 1 || r.Later[0].ID != "spring" || r.Later[0].Date != "2027-04-01" { // three days after the last was built; what was measured later is no building
		t.Errorf("%+v", r.Later)
	}
	var g record.Log
	g.Remind("2027-04-01", 2, false)
	if len(g.Later) != 2 || g.Later[0].Date != "2027-04-08" || g.Later[1].Date != "2028-04-01" {
		t.Errorf("%+v", g.Later)
	}
	g.Remind("2027-09-30", 0, true)
	if len(g.Later) != 1 || g.Later[0].Date != "2027-10-01" {
		t.Errorf("%+v", g.Later)
	}
	unbuilt, _ := logged(t)
	unbuilt = saw(unbuilt, fact(1, ids[0], job.MarkBuilt))
	if r := recordOf(t, unbuilt); len(r.Later) != 0 || len(r.Punch) != 1 || !strings.Contains(r.Punch[0].Says.Print(j.Units), "P2 to P") {
		t.Errorf("%+v %+v", r.Later, r.Punch)
	}
}

// Rails that were cut: by hand, 2,400 for a bay of 2,500 does not reach and goes where
// 2,380 is needed, 20 off, not where 2,200 is; a longer one for another bay takes the bay
// that only it can fill. What reaches is trimmed.
func TestCutRailsGoElsewhere(t *testing.T) {
	j, ids := logged(t)
	j = saw(j, fact(1, ids[0], job.CutTo, 2400), fact(2, ids[1], job.CutTo, 2450), fact(3, ids[2], job.CutTo, 2300), fact(4, ids[3], job.CutTo, 2199))
	r := record.Compute(j, []*load.Load{computed(t, j, nil).Runs[0].Load})
	run := j.Lines[0].Runs[0].ID
	bay := func(n int, needs length.Length) record.RailBay {
		return record.RailBay{Run: run, Post: ids[n], Label: ids[n] + "+", Needs: needs, Count: 3}
	}
	r.Fit([]record.RailBay{bay(0, 2500), bay(1, 2500), bay(2, 2290), bay(3, 2200), bay(4, 2380), bay(5, 2440)})
	want := []record.CutRail{
		{Fact: "f1", Bay: ids[0] + "+", Long: 2400, Needs: 2500, Use: ids[4] + "+", Off: 20},
		{Fact: "f2", Bay: ids[1] + "+", Long: 2450, Needs: 2500, Use: ids[5] + "+", Off: 10},
		{Fact: "f3", Bay: ids[2] + "+", Long: 2300, Needs: 2290, Fits: true, Trim: 10},
		{Fact: "f4", Bay: ids[3] + "+", Long: 2199, Needs: 2200, Fits: true}, // a millimetre is let go
	}
	for i := range r.Cut {
		r.Cut[i].Run = ""
	}
	if !slices.Equal(r.Cut, want) {
		t.Errorf("%+v", r.Cut)
	}
	if said := saidIn(r, "record-cut"); said == nil {
		t.Error("nothing is said")
	}
}

// Every way that advice offers has a short name, for the punch list.
func TestWaysHaveNames(t *testing.T) {
	j, ids := fenced(t, length.Imperial, "boards-on-rails", 6*ft, 80*ft)
	for _, f := range []job.Fact{fact(1, ids[3], job.OffLine, 40), fact(1, ids[3], job.OffPlumb, 30), fact(1, ids[3], job.DepthDug, 500), fact(1, ids[3], job.TopMark, 40), fact(1, ids[3], job.WidthDug, 150), seenAt(1, ids[3], job.Landed, 24*ft+50), seenAt(1, ids[3], job.SeenRock, 24*ft, 500)} {
		for _, stage := range []job.Seen{job.MarkDug, job.MarkSet, job.MarkPoured} {
			all, err := computed(t, saw(j, f, fact(2, ids[3], stage)), nil).Amend(nil, ids[3])
			if err != nil {
				t.Fatal(err)
			}
			for _, a := range all {
				for _, w := range a.Ways {
					if record.WayName(w.ID) == w.ID {
						t.Errorf("%s has no name", w.ID)
					}
				}
			}
		}
	}
}

// What finished jobs teach, weighed by how many posts each rests on.
func TestUsualIsWeighed(t *testing.T) {
	var u record.Usual
	u.Learn(&record.Log{Paces: []record.Pace{{What: job.MarkDug, Posts: 30, Minutes: 20, Planned: 10}}, Bags: &record.RecordBags{Used: 22, Planned: 20, Holes: 10}}, 3, 0.1)
	u.Learn(&record.Log{Paces: []record.Pace{{What: job.MarkDug, Posts: 10, Minutes: 12, Planned: 12}, {What: job.MarkSet, Posts: 8, Minutes: 5, Planned: 6}}}, 2, 0.1)
	if u.Jobs != 2 || u.Dig.Value != 1.75 || u.Dig.Posts != 40 || u.Set.Value != 10 || u.Set.Posts != 8 || math.Abs(u.Bags.Value-1.21) > 1e-12 || math.Abs(u.Waste-0.21) > 1e-12 {
		t.Errorf("%+v", u)
	}
}

// What is offered is the usual rate over what digging took, and never more than a job takes.
func TestWhatWasLearnedFitsTheJob(t *testing.T) {
	rate := materials.CrewRate{Hand: 0.4, Auger: 6000, Setup: 5}
	for _, c := range []struct{ took, hand, auger, setup float64 }{{2, 0.2, 3000, 10}, {0.5, 0.8, 12000, 2.5}, {1000, 0.001, 100, 120}, {0.001, 5, 100000, 0.005}} {
		u := record.Usual{Dig: record.Learned{Value: c.took, Posts: 9}, Waste: 0.7}
		u.Offer(rate)
		if u.Crew == nil || u.Crew.Hand != c.hand || float64(*u.Crew.Auger) != c.auger || *u.Crew.Setup != c.setup || u.Waste != 0.5 {
			t.Errorf("%g times as long: %+v", c.took, u.Crew)
			continue
		}
		j, _ := logged(t)
		j.Site.Crew = u.Crew
		if e := document.Check(j); len(e) > 0 {
			t.Error(e)
		}
	}
	var none record.Usual
	if none.Offer(rate); none.Crew != nil {
		t.Error("rates are offered that nothing was timed for")
	}
}

// From above a post that is 20 off stands 20 times the scale beside the line, and is
// named; one that is within what may be is not.
func TestStripsDrawWhatWasMeasured(t *testing.T) {
	j, ids := logged(t)
	j = saw(j, fact(1, ids[2], job.OffLine, -20), fact(2, ids[3], job.OffLine, 4), fact(3, ids[4], job.OffPlumb, 25))
	r := computed(t, j, nil)
	p := r.Figures()
	p.Log = r.Record()
	d, err := scene.Of(p, scene.View{Of: scene.OfStrips, Run: p.Runs[0].ID, Frame: scene.Frame{Width: 900, Height: 260}}, scene.Screen)
	if err != nil {
		t.Fatal(err)
	}
	var off []float64
	for _, m := range d.Marks {
		off = append(off, m.At.Y)
	}
	slices.Sort(off)
	if !slices.Equal(off, []float64{-1000, 0, 200}) { // half a strip is 0.055 × 80 ft: 67 times 20, drawn 50 times
		t.Errorf("%v", off)
	}
	named := ""
	for _, l := range d.Labels {
		if l.Class == scene.Gap {
			named += l.Of + " "
		}
	}
	if named != ids[2]+" "+ids[4]+" " && named != ids[4]+" "+ids[2]+" " {
		t.Errorf("named %q", named)
	}
}
