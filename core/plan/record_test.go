package plan_test

import (
	"fmt"
	"math"
	"math/rand/v2"
	"reflect"
	"slices"
	"strings"
	"testing"

	"mallow/core/document"
	"mallow/core/finding"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/stage/load"
	"mallow/core/stage/record"
)

// logged is a fence of 11 posts whose layout is written down, so that facts find them.
func logged(t testing.TB) (job.Job, []string) {
	t.Helper()
	j := fenceOf(t, length.Imperial, "boards-on-rails", 6*ft, 80*ft)
	j.Setting.Method = ptr(job.Braced)
	r := computed(t, j, nil)
	laid := r.Laid()["R1"]
	run := &j.Lines[0].Runs[0]
	if run.ID != "R1" {
		laid = r.Laid()[run.ID]
	}
	run.Laid, run.Named = laid.Posts, laid.Named
	var ids []string
	for _, p := range computed(t, j, nil).Runs[0].Load.Posts {
		ids = append(ids, p.ID)
	}
	return j, ids
}

func fact(n int, post string, what job.Seen, value ...float64) job.Fact {
	f := job.Fact{ID: fmt.Sprintf("f%d", n), On: job.On("post", post), What: what, When: fmt.Sprintf("2027-05-03T08:%02d:00Z", n%60)}
	if len(value) > 0 {
		f.Value = &value[0]
	}
	return f
}

func recordOf(t testing.TB, j job.Job) *record.Log {
	t.Helper()
	if e := document.Check(j); len(e) > 0 {
		t.Fatal(e)
	}
	return computed(t, j, nil).Record()
}

func saidIn(r *record.Log, code string) *finding.Finding {
	k := slices.IndexFunc(r.Finds, func(f finding.Finding) bool { return f.Rule == code })
	if k < 0 {
		return nil
	}
	return &r.Finds[k]
}

// By hand: each of 11 holes takes b bags by the plan. Three took half as many again. Of
// the bags that were bought, 4.5 b are gone, and each hole to come takes 1.5 b: all of it
// takes 16.5 b, and what lacks is that less what was bought, rounded up.
func TestBagsForecastByHand(t *testing.T) {
	j, ids := logged(t)
	plan := recordOf(t, j)
	if plan.Bags != nil || plan.Next != ids[0] || plan.Dug != 0 {
		t.Fatalf("nothing is written down: %+v", plan)
	}
	b := computed(t, j, nil).Runs[0].Load.Posts[0].Bags
	for n := range 3 {
		j.Observed = append(j.Observed, fact(n+1, ids[n], job.BagsUsed, 1.5*b))
	}
	r := recordOf(t, j)
	bought := math.Ceil(11*b - 1e-6)
	want := int(math.Ceil(16.5*b - bought - 1e-6))
	if g := r.Bags; !g.Sure || g.Holes != 3 || math.Abs(g.Used-4.5*b) > 1e-9 || math.Abs(g.Expect-16.5*b) > 1e-9 || float64(g.Bought) != bought || g.Short != want {
		t.Errorf("%+v; by hand %d short of %v, at %v bags a hole", g, want, bought, b)
	}
	// The first hole that what is left does not fill, counted off one by one.
	left, by := bought-4.5*b, ""
	for n := 3; n < 11 && by == ""; n++ {
		if left -= 1.5 * b; left < -1e-6 {
			by = fmt.Sprintf("P%d", n+1)
		}
	}
	if r.Bags.By != by {
		t.Errorf("they last to before %s, by hand %s", r.Bags.By, by)
	}
	f := saidIn(r, "record-bags")
	if f == nil || !strings.Contains(f.Says.Print(j.Units), fmt.Sprintf("%d bags short by %s", want, by)) {
		t.Errorf("%+v", f)
	}
	// Two holes are too few to judge by; as many as planned are enough.
	j.Observed = j.Observed[:2]
	if r := recordOf(t, j); r.Bags.Sure || saidIn(r, "record-bags") != nil {
		t.Errorf("judged by two: %+v", r.Bags)
	}
	for n := range 3 {
		j.Observed = append(j.Observed[:n], fact(n+1, ids[n], job.BagsUsed, b))
	}
	if r := recordOf(t, j); r.Bags.Short != 0 || r.Bags.By != "" {
		t.Errorf("as planned, and short: %+v", r.Bags)
	}
}

// How far each post is, and the next; what is met three times is to be expected; a hole
// above the frost, and a service, are said at their post.
func TestRecordFindsAndProgress(t *testing.T) {
	j, ids := logged(t)
	at := func(f job.Fact, i int) job.Fact { f.At = ptr(computedStation(t, j, i)); return f }
	j.Observed = []job.Fact{
		fact(1, ids[0], job.MarkPoured), fact(2, ids[1], job.MarkDug), fact(3, ids[2], job.MarkStaked),
		at(fact(4, ids[3], job.SeenRock, 550), 3), at(fact(5, ids[4], job.SeenRock, 560), 4),
	}
	r := recordOf(t, j)
	if r.Staked != 3 || r.Dug != 2 || r.Set != 1 || r.Poured != 1 || r.Built != 0 || r.Next != ids[3] {
		t.Errorf("%d %d %d %d %d, next %s", r.Staked, r.Dug, r.Set, r.Poured, r.Built, r.Next)
	}
	if saidIn(r, "record-ground") != nil {
		t.Error("rock twice is a rule already")
	}
	j.Observed = append(j.Observed, at(fact(6, ids[5], job.SeenRock, 600), 5))
	if f := saidIn(recordOf(t, j), "record-ground"); f == nil || !strings.Contains(f.Says.Print(j.Units), "3 times, about 22") {
		t.Errorf("%+v", f)
	}
	frost := 600.0 // of the fence
	for depth, want := range map[float64]bool{frost - 0.01: true, frost: false} {
		j.Observed = []job.Fact{fact(1, ids[6], job.DepthDug, depth)}
		r := recordOf(t, j)
		if f := saidIn(r, "record-frost"); (f != nil) != want || f != nil && f.Place.Post != "P7" {
			t.Errorf("%v deep: %+v", depth, f)
		}
		if r.Posts[6].Stage != record.Dug {
			t.Error("a hole with a depth is not dug")
		}
	}
	j.Observed = []job.Fact{at(fact(1, ids[2], job.SeenPipe, 400), 2)}
	if f := saidIn(recordOf(t, j), "record-service"); f == nil || f.Place.Post != "P3" {
		t.Errorf("%+v", f)
	}
}

func computedStation(t testing.TB, j job.Job, post int) length.Length {
	j.Observed = nil
	return computed(t, j, nil).Runs[0].Load.Posts[post].Station
}

// 500 random logs: facts about different posts give the same in any order, and one that
// is struck out is as if it had never been written.
func TestRecordOrderAndStriking(t *testing.T) {
	j, ids := logged(t)
	rng := rand.New(rand.NewPCG(23, 1))
	kinds := []job.Seen{job.MarkStaked, job.MarkDug, job.MarkSet, job.MarkPoured, job.DepthDug, job.BagsUsed, job.OffLine, job.OffPlumb, job.WidthDug}
	values := map[job.Seen]float64{job.DepthDug: 700, job.BagsUsed: 3, job.OffLine: 12, job.OffPlumb: -4, job.WidthDug: 300}
	of := func(facts []job.Fact) *record.Log {
		k := j
		k.Observed = facts
		return record.Compute(k, loadsOf(t, j))
	}
	for n := range 500 {
		var facts []job.Fact
		for i := range ids {
			if rng.IntN(3) == 0 {
				continue
			}
			what := kinds[rng.IntN(len(kinds))]
			f := fact(i+1, ids[i], what)
			if v, ok := values[what]; ok {
				f.Value = ptr(v + float64(rng.IntN(5)))
			}
			facts = append(facts, f)
		}
		if len(facts) == 0 {
			continue
		}
		want := of(facts)
		mixed := slices.Clone(facts)
		rng.Shuffle(len(mixed), func(a, b int) { mixed[a], mixed[b] = mixed[b], mixed[a] })
		if got := of(mixed); !reflect.DeepEqual(got, want) {
			t.Fatalf("log %d: another order, another record", n)
		}
		gone := rng.IntN(len(facts))
		struck := append(slices.Clone(facts), job.Fact{ID: "s1", On: facts[gone].On, What: job.StruckOut, Strikes: facts[gone].ID, When: "2027-05-03T09:00:00Z"})
		got := of(struck)
		for i := range got.Days {
			got.Days[i].Struck = 0 // that it was, is told
		}
		if !reflect.DeepEqual(got, of(slices.Delete(slices.Clone(facts), gone, gone+1))) {
			t.Fatalf("log %d: what was struck out still counts", n)
		}
	}
}

func loadsOf(t testing.TB, j job.Job) []*load.Load {
	t.Helper()
	var out []*load.Load
	for _, run := range computed(t, j, nil).Runs {
		out = append(out, run.Load)
	}
	return out
}

// Bags put in twice add up; a hole that is poured without a count takes none of what is
// left; a mark of an earlier stage takes nothing back; a corner post is one post; and a
// hole that is planned above the frost is not held against it.
func TestRecordDetails(t *testing.T) {
	j, ids := logged(t)
	b := computed(t, j, nil).Runs[0].Load.Posts[0].Bags
	for n := range 3 {
		j.Observed = append(j.Observed, fact(2*n+1, ids[n], job.BagsUsed, b), fact(2*n+2, ids[n], job.BagsUsed, b/2))
	}
	for n := 3; n < 11; n++ {
		j.Observed = append(j.Observed, fact(n+10, ids[n], job.MarkPoured), fact(n+30, ids[n], job.MarkStaked))
	}
	r := recordOf(t, j)
	if g := r.Bags; math.Abs(g.Used-4.5*b) > 1e-9 || math.Abs(g.Expect-4.5*b) > 1e-9 || g.Short != 0 || r.Poured != 11 {
		t.Errorf("%+v with %d poured", g, r.Poured)
	}
	two := fenceOf(t, length.Imperial, "boards-on-rails", 6*ft, 40*ft, 40*ft)
	if n := len(computed(t, two, nil).Record().Posts); n != 11 {
		t.Errorf("%d posts round a corner", n)
	}
	j, ids = logged(t)
	j.Site.FrostDepth = ptr(1500 * length.Millimetre)
	j.Lines[0].Runs[0].Hole.SkipFrost = ptr(true)
	if p := computed(t, j, nil).Runs[0].Load.Posts[5]; p.HoleDepth < 1500 {
		j.Observed = []job.Fact{fact(1, ids[5], job.DepthDug, float64(p.HoleDepth))}
		if f := saidIn(recordOf(t, j), "record-frost"); f != nil {
			t.Errorf("dug as planned, and held against it: %+v", f)
		}
	} else {
		t.Errorf("planned %v deep", p.HoleDepth)
	}
}
