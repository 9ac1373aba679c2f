package plan_test

import (
	"encoding/json"
	"errors"
	"math/rand/v2"
	"reflect"
	"strconv"
	"strings"
	"testing"

	"mallow/core/document"
	"mallow/core/finding"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/plan"
	"mallow/core/reason"
)

// written is a result as it is sent, with all that is said of it.
func written(t testing.TB, r *plan.Result) string {
	t.Helper()
	told, err := r.Tell(nil)
	if err != nil {
		t.Fatal(err)
	}
	raw, err := json.Marshal([]any{r.Figures(), told})
	if err != nil {
		t.Fatal(err)
	}
	return string(raw)
}

// tinker changes one thing of a job at random: what the whole job says, what a
// run says, how its neighbours lie, or which runs there are at all.
func tinker(rng *rand.Rand, j job.Job) job.Job {
	j.Lines = append([]job.Line{}, j.Lines...)
	l := rng.IntN(len(j.Lines))
	line := &j.Lines[l]
	line.Runs = append([]job.Run{}, line.Runs...)
	r := rng.IntN(len(line.Runs))
	run := &line.Runs[r]
	switch rng.IntN(14) {
	case 0:
		j.Site.FrostDepth = ptr(length.Length(rng.IntN(1200)))
	case 1:
		j.Site.Wind = 0.5 + 10*rng.Float64()
	case 2:
		run.Fence.Height = length.Length(900 + rng.IntN(1200))
	case 3:
		run.Spacing.Most = length.Length(1500 + rng.IntN(1500))
	case 4:
		run.Grade.Look = job.Looks[rng.IntN(2+rng.IntN(2)*rng.IntN(3))]
	case 5:
		if len(run.Gates) > 0 {
			run.Gates = append([]job.Gate{}, run.Gates...)
			run.Gates[0].At += length.Length(rng.IntN(400) - 200)
		} else if run.Length != nil && *run.Length > 5000 {
			run.Gates = []job.Gate{{ID: "G1", At: []length.Length{*run.Length / 2, 600}[rng.IntN(2)], Opening: 1000, Gap: 100}}
		}
	case 6:
		run.Gates = nil
	case 7:
		if run.Length != nil {
			run.Length = ptr(*run.Length + length.Length(rng.IntN(600)))
		}
	case 8:
		run.Ground = append([]job.GroundPoint{}, run.Ground...)
		if len(run.Ground) > 0 {
			run.Ground[rng.IntN(len(run.Ground))].Height += length.Length(rng.IntN(200) - 100)
		}
	case 9:
		if run.Corner != nil {
			corner := *run.Corner
			corner.Angle = rng.Float64() * 120
			run.Corner = &corner
		}
	case 10:
		run.Hole.FrostMargin = ptr(length.Length(rng.IntN(300)))
	case 11:
		if len(line.Runs) > 1 {
			line.Runs = append(line.Runs[:r:r], line.Runs[r+1:]...)
			line.Closed = line.Closed && len(line.Runs) > 2
		}
	case 12:
		run.Name = "Run " + strconv.Itoa(rng.IntN(9))
	case 13:
		run.Overrides = append(append([]job.HoleOverride{}, run.Overrides...), job.HoleOverride{ID: "S" + strconv.Itoa(len(run.Overrides)+1), At: length.Length(rng.IntN(4000)), Hit: &job.Hit{What: job.HitRock, Depth: 400}})
		return j.WithFacts()
	}
	return j
}

// plain makes most runs of a job level or stepped, which is found in no time;
// that pieces lean makes no other work of keeping.
func plain(rng *rand.Rand, j job.Job) {
	for l := range j.Lines {
		for r := range j.Lines[l].Runs {
			if rng.IntN(20) > 0 {
				j.Lines[l].Runs[r].Grade.Look = job.Looks[rng.IntN(2)]
			}
		}
	}
}

// A result that takes over what did not change is the result found from
// nothing, whatever was changed one after the other.
func TestTakenOverEqualsFromNothing(t *testing.T) {
	t.Parallel()
	rng := rand.New(rand.NewPCG(17, 4))
	kept, all := 0, 0
	for n := range sized(20000, 250) {
		j := randomLines(t, rng)
		if n%50 == 0 {
			j = demoJob(t, n/50%2)
		}
		plain(rng, j)
		last := computed(t, j, nil)
		if n%2 == 0 {
			last.Figures() // its findings are kept too, where somebody has asked
		}
		for range 1 + rng.IntN(5) {
			next := tinker(rng, j)
			if len(document.Check(next)) > 0 {
				continue
			}
			j = next
			was := last
			last = computed(t, j, was)
			for _, run := range last.Runs {
				for _, old := range was.Runs {
					if run.Load == old.Load {
						kept++
					}
				}
				all++
			}
		}
		if got, want := written(t, last), written(t, computed(t, j, nil)); got != want {
			i := 0
			for got[i] == want[i] {
				i++
			}
			t.Fatalf("sequence %d: taken over …%s, from nothing …%s", n, got[max(0, i-200):i+80], want[max(0, i-200):i+80])
		}
	}
	if kept*3 < all { // or it proves little
		t.Errorf("only %d of %d runs were taken over", kept, all)
	}
}

// An edit of one run leaves the results of those that do not touch it as they
// are.
func TestAnEditLeavesTheOthers(t *testing.T) {
	j := longLine(t)
	j.Lines[0].Runs = j.Lines[0].Runs[:40]
	j.Lines[0].Books = j.Lines[0].Books[:40]
	was := computed(t, j, nil)
	j.Lines = []job.Line{j.Lines[0]}
	j.Lines[0].Runs = append([]job.Run{}, j.Lines[0].Runs...)
	j.Lines[0].Runs[20].Spacing.Most -= 200
	now, fresh := computed(t, j, was), 0
	for r := range now.Runs {
		if now.Runs[r].Load != was.Runs[r].Load {
			fresh++
		}
	}
	if fresh < 1 || fresh > 4 { // it, those that share a post with it, and one whose top meets theirs
		t.Errorf("%d of 40 runs were found again", fresh)
	}
}

// Every figure that the whole plan explains is explained alike when it is
// asked for by its address; what there is none of is no figure.
func TestFiguresAreExplainedByAddress(t *testing.T) {
	for n := range 2 {
		j := demoJob(t, n)
		r, p := computed(t, j, nil), plan.Make(j, shipped(t))
		same := func(f plan.Figure, ref reason.Ref) {
			t.Helper()
			w, ok := r.Explain(f)
			if !ok {
				t.Errorf("%+v is not explained", f)
				return
			}
			whole := p.Reasons[ref]
			if !reflect.DeepEqual(w.Sentence, whole.Sentence) || len(w.Steps) != len(whole.Rules) {
				t.Errorf("%+v: %s, in the plan %s", f, w.Sentence.Print(j.Units), whole.Sentence.Print(j.Units))
			}
			for i, at := range whole.Rules {
				if !reflect.DeepEqual(w.Steps[i], p.Rules[at]) {
					t.Errorf("%+v, rule %d: %+v, in the plan %+v", f, i, w.Steps[i], p.Rules[at])
				}
			}
		}
		for _, run := range p.Runs {
			for _, post := range run.Posts {
				for what, ref := range map[string]reason.Ref{"station": post.Why.Station, "top": post.Why.Top, "holeWidth": post.Why.HoleWidth, "holeDepth": post.Why.HoleDepth, "concrete": post.Why.Concrete, "stock": post.Why.Stock} {
					same(plan.Figure{Run: run.ID, Of: "post", ID: post.Label, What: what}, ref)
				}
			}
			for _, b := range run.Bays {
				same(plan.Figure{Run: run.ID, Of: "bay", ID: b.Label, What: "gap"}, b.Why.Gap)
			}
		}
		for _, f := range []plan.Figure{{}, {Of: "post"}, {Run: "R1", Of: "post", ID: "P999", What: "holeDepth"}, {Run: "R1", Of: "post", ID: "P1", What: "colour"},
			{Run: "nobody", Of: "bay", ID: "B1", What: "gap"}, {Line: "L1", Of: "corner", ID: "-1"}, {Line: "L1", Of: "corner", ID: "999999999999999999999"}, {Run: "R1", Of: "segment", ID: "99"}} {
			if w, ok := r.Explain(f); ok {
				t.Errorf("%+v is explained: %s", f, w.Sentence.Print(j.Units))
			}
		}
	}
}

// Ways out that are asked for by the name of their finding are those of the
// whole plan; every finding has a name of its own.
func TestWaysOutByName(t *testing.T) {
	rng := rand.New(rand.NewPCG(3, 17))
	asked := 0
	for n := range sized(60, 12) {
		j := randomLines(t, rng)
		if n < 2 {
			j = demoJob(t, n)
		}
		r, whole := computed(t, j, nil), plan.Make(j, shipped(t))
		names := map[string]finding.Finding{}
		for _, f := range whole.Findings {
			if names[f.ID].Rule != "" {
				t.Fatalf("two findings are called %q", f.ID)
			}
			names[f.ID] = f
		}
		for id, f := range names {
			if f.Rule == "not-all-weighed" {
				continue
			}
			var got []plan.Advised
			if err := r.Advise(nil, []string{id}, func(a plan.Advised) error { got = append(got, a); return nil }); err != nil {
				t.Fatal(err)
			}
			if len(got) == 0 || got[0].ID != id || len(got[0].Remedies) != len(f.Remedies) {
				t.Fatalf("%s: %+v, in the whole plan %d ways out", id, got, len(f.Remedies))
			}
			for i := range f.Remedies {
				if !reflect.DeepEqual(got[0].Remedies[i], f.Remedies[i]) {
					t.Fatalf("%s, way %d: %+v, in the whole plan %+v", id, i, got[0].Remedies[i], f.Remedies[i])
				}
			}
			asked++
		}
	}
	if asked < 50 {
		t.Errorf("only %d findings were asked about", asked)
	}
}

// What is tried is what the button does: a remedy's edits come to the same on
// the run that is tried and on the document that is saved.
func TestTrialsAreTheEdits(t *testing.T) {
	t.Parallel()
	rng := rand.New(rand.NewPCG(8, 15))
	cat := shipped(t)
	tried := map[string]int{}
	for range sized(300, 30) {
		j := randomLines(t, rng)
		if rng.IntN(3) > 0 {
			j = random(t, rng)
			spoil(rng, &j.Lines[0].Runs[0])
		}
		raw, err := json.Marshal(j)
		if err != nil {
			t.Fatal(err)
		}
		if j, _, err = document.Decode(raw, cat); err != nil {
			continue
		}
		for _, f := range plan.Make(j, cat).Findings {
			l, r, ok := whereIs(j, f.Place.Run)
			if !ok {
				continue
			}
			path := job.At("/lines", j.Lines[l].ID, "runs", j.Lines[l].Runs[r].ID)
			for _, way := range f.Remedies {
				edited, err := j.Lines[l].Runs[r].Edited(path, cat.UsualRun(j.Units.System), way.Edits)
				if err != nil {
					if strings.HasPrefix(way.Edits[0].Path, path) {
						t.Fatalf("%s: %v", f.Rule, err)
					}
					continue // the job's own, which are not tried on a run
				}
				doc, err := document.Apply(raw, way.Edits)
				if err != nil {
					t.Fatal(err)
				}
				after, _, err := document.Decode(doc, cat)
				if err != nil {
					t.Fatal(err)
				}
				a, _ := json.Marshal(edited)
				b, _ := json.Marshal(after.Lines[l].Runs[r])
				if string(a) != string(b) {
					t.Fatalf("%s, %s: tried\n%s\nsaved\n%s", f.Rule, way.Says.Print(j.Units), a, b)
				}
				tried[f.Rule]++
			}
		}
	}
	for _, rule := range []string{"corridor", "stock", "rack"} {
		if tried[rule] == 0 {
			t.Errorf("no way out of %s was tried: %v", rule, tried)
		}
	}
}

func whereIs(j job.Job, run string) (line, at int, ok bool) {
	for l := range j.Lines {
		for r := range j.Lines[l].Runs {
			if j.Lines[l].Runs[r].ID == run {
				return l, r, true
			}
		}
	}
	return 0, 0, false
}

// Advice ends when it is told to, and hands back the reason.
func TestAdviceEnds(t *testing.T) {
	enough, calls := errors.New("enough"), 0
	r := computed(t, demoJob(t, 0), nil)
	err := r.Advise(func() error {
		if calls++; calls > 20 {
			return enough
		}
		return nil
	}, nil, func(plan.Advised) error { return nil })
	if !errors.Is(err, enough) {
		t.Errorf("got %v", err)
	}
	if err := r.Advise(nil, nil, func(plan.Advised) error { return enough }); !errors.Is(err, enough) {
		t.Errorf("who takes no more is given %v", err)
	}
}
