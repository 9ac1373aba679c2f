package paper_test

import (
	"fmt"
	"math"
	"strings"
	"testing"

	"mallow/core/begin"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/plan"
	"mallow/demo/demotest"
	"mallow/paper"
)

func begun(t *testing.T, a begin.Answers) (job.Job, plan.Plan) {
	t.Helper()
	cat := demotest.Catalog(t)
	j, err := begin.Job(a, cat)
	if err != nil {
		t.Fatal(err)
	}
	return j, plan.Make(j, cat)
}

func laid(j job.Job, p plan.Plan, set string, size paper.Size) paper.Document {
	return paper.Lay(p.Name, paper.Write(j, p, set, ""), size, stamp(p))
}

// A crew carries few sheets, and they are full: the 40-post job on 10, a
// straight one with a gate on 4, on either paper, and only the last page of a
// set may be less than two thirds full.
func TestACrewsSetIsFewFullSheets(t *testing.T) {
	long, frost := 140*length.Foot, 36*length.Inch
	type set struct {
		name string
		j    job.Job
		p    plan.Plan
		most int
	}
	orchard, planned := demotest.Job(t, 0)
	sets := []set{{"orchard", orchard, planned, 10}}
	cat := demotest.Catalog(t)
	for _, s := range begin.Fences(length.Imperial, cat) {
		if s.Gate {
			continue
		}
		for _, gate := range []begin.AskedGate{"", begin.Walk} {
			j, p := begun(t, begin.Answers{System: length.Imperial, Fence: s.ID, Length: &long, Frost: &frost, Gate: gate})
			sets = append(sets, set{fmt.Sprintf("140 ft of %s, gate %q", s.ID, gate), j, p, 4})
		}
	}
	for _, s := range sets {
		for _, size := range []paper.Size{paper.Letter, paper.A4} {
			d := laid(s.j, s.p, "crew", size)
			if len(d.Pages) > s.most {
				t.Errorf("%s: %d sheets of %s, at most %d", s.name, len(d.Pages), size.Name, s.most)
			}
			for i, page := range d.Pages[:len(d.Pages)-1] {
				low := 0.0
				for _, w := range page.Words {
					if w.Y < size.Height-11 { // above the foot
						low = max(low, w.Y)
					}
				}
				if low < size.Height*2/3 {
					t.Errorf("%s, %s: page %d of %d ends at %.0f mm", s.name, size.Name, i+1, len(d.Pages), low)
				}
			}
		}
	}
}

// What the customer gets names fences, gates, what is in and what is not, and
// the days, and nothing that is the firm's own.
func TestTheCustomersSheet(t *testing.T) {
	for n := range 2 {
		j, p := demotest.Job(t, n)
		j.Site.Customer, j.Site.Address = "The committee", "Upper gate"
		j.Lines[0].Runs[0].Finish = "cedar, oiled"
		j.Offer = job.Offer{Start: "2027-04-06", End: "2027-04-16", OldFence: job.Included, Permit: job.NotIncluded, Also: "A bench\n\n by the gate ", Not: "Paint"}
		for _, size := range []paper.Size{paper.Letter, paper.A4} {
			if d := laid(j, p, "customer", size); len(d.Pages) != 1 {
				t.Errorf("job %d: the customer gets %d pages of %s", n, len(d.Pages), size.Name)
			}
		}
		said := words(j, p, "customer", "")
		running := strings.ReplaceAll(said, "\n", " ")
		for _, want := range []string{"The committee", "Upper gate", "cedar, oiled", "6 April 2027", "16 April 2027", "A bench\n", "by the gate\n", "Paint\n", "Taking down the old fence", "The permit and its fee"} {
			if !strings.Contains(said, want) && !strings.Contains(running, want) {
				t.Errorf("job %d does not say %q", n, want)
			}
		}
		if in, out := strings.Index(said, "Taking down"), strings.Index(said, "The permit and its fee"); in > out {
			t.Errorf("job %d: what is included comes after what is not", n)
		}
		for i, r := range p.Runs {
			if !strings.Contains(said, p.Units.Tape(r.Length)) || !strings.Contains(said, p.Units.Short(j.Lines[0].Runs[i].Fence.Height)) {
				t.Errorf("%s: its length or height is not said", r.Name)
			}
			for _, g := range r.Gates {
				if !strings.Contains(said, p.Units.Short(g.Clear)) {
					t.Errorf("%s: its clear opening is not said", g.Name)
				}
			}
			for _, q := range r.Posts {
				if strings.Contains(said, "\n"+q.Label+"\n") {
					t.Errorf("job %d names post %s", n, q.Label)
				}
			}
		}
		low := strings.ToLower(said)
		for _, internal := range []string{"bag", "hour", "concrete", "yd³", "m³", "not cleared", "gravel", "frost", "sag", "finding"} {
			if strings.Contains(low, internal) {
				t.Errorf("job %d: the customer is told of %q", n, internal)
			}
		}
		if yard := words(j, p, "yard", ""); strings.Contains(yard, "NOT CLEARED") || strings.Contains(yard, "Cautions") || !strings.Contains(yard, "Upper gate") {
			t.Errorf("job %d: the yard gets what is not its own, or not where to", n)
		}
	}
	j, p := begun(t, begin.Answers{System: length.Imperial})
	said := words(j, p, "customer", "")
	for _, want := range []string{"No gates.", "The days are not set yet.", "Anything that is not listed here.", "the length is a guess"} {
		if !strings.Contains(said, want) {
			t.Errorf("an empty offer does not say %q", want)
		}
	}
}

// Every page bears the code of its first sheet, which leads back to its place;
// a file of no kept job bears none, and prints.
func TestCodesLeadBack(t *testing.T) {
	j, p := demotest.Job(t, 0)
	want := map[string]paper.Place{
		"K7QF-L": {Run: "R1", Stage: "pour"}, "K7QF-T1": {Run: "R1", Stage: "string"}, "K7QF-S2": {Run: "R2", Stage: "space"}, "K7QF-H": {Run: "R1", Stage: "dig"},
		" k7qf-g2 ": {Run: "R2", Gate: "G1", Stage: "gates"}, "K7QF-S9": {},
	}
	for typed, place := range want {
		code, ok := paper.ParseCode(typed)
		if !ok || code.Job != "k7qf" {
			t.Errorf("%q is no code", typed)
			continue
		}
		if got := code.In(p); got.Run != place.Run || got.Gate != place.Gate || place.Run != "" && got.Stage != place.Stage {
			t.Errorf("%q leads to %+v, not %+v", typed, got, place)
		}
	}
	// A run's code stays its own when runs are moved; one with an id of another
	// kind goes by its place, unless another run has that number.
	for _, c := range []struct {
		ids  []string
		code string
		want string
	}{
		{[]string{"R2", "R1"}, "K7QF-S1", "R1"}, {[]string{"R2", "R1"}, "K7QF-S2", "R2"}, {[]string{"R7", "R3"}, "K7QF-S2", ""}, {[]string{"R7", "R3"}, "K7QF-S7", "R7"},
		{[]string{"lane", "R1"}, "K7QF-S1", "R1"}, {[]string{"lane", "R5"}, "K7QF-S1", "lane"}, {[]string{"R02", "yard"}, "K7QF-S2", "yard"}, {[]string{"R10000", "R1"}, "K7QF-S", "R10000"},
	} {
		moved := plan.Plan{Runs: make([]plan.Run, len(c.ids))}
		for i, id := range c.ids {
			moved.Runs[i].ID = id
		}
		code, _ := paper.ParseCode(c.code)
		if got := code.In(moved).Run; got != c.want {
			t.Errorf("%s among %v leads to %q, not %q", c.code, c.ids, got, c.want)
		}
	}
	for _, typed := range []string{"", "K7Q", "K7QF", "Lane", "K7QFS1", "K7QF-X1", "K7QF-S99999", "🦊", "K7QF-S-2", strings.Repeat("A", 1e6)} {
		if _, ok := paper.ParseCode(typed); ok {
			t.Errorf("%.20q is taken as a code", typed)
		}
	}
	for _, page := range laid(j, p, "", paper.Letter).Pages {
		found := false
		for _, w := range page.Words {
			code, ok := paper.ParseCode(w.Text)
			if !ok {
				continue
			}
			found = true
			if at := code.In(p); at.Run == "" && !strings.HasSuffix(w.Text, "-C") {
				t.Errorf("%s leads nowhere", w.Text)
			}
		}
		dark := 0.0
		for _, line := range page.Lines {
			if line.Fill == 1 && line.Width == 0 {
				dark += (line.Points[2][0] - line.Points[0][0]) * (line.Points[2][1] - line.Points[0][1])
			}
		}
		if !found || math.Abs(dark/(15*15)-0.5) > 0.1 { // about half of a QR code's modules are dark
			t.Errorf("a page without its code, or %.2f of its square is dark", dark/(15*15))
		}
	}
	bare := stamp(p)
	bare.ID, bare.Base = "", ""
	for _, page := range paper.Lay(p.Name, paper.Write(j, p, "", ""), paper.Letter, bare).Pages {
		for _, w := range page.Words {
			if _, ok := paper.ParseCode(w.Text); ok {
				t.Errorf("a file bears the code %s", w.Text)
			}
		}
	}
	if got := (paper.Place{Run: "R 2/x", Stage: "gates", Gate: "G&1"}).Path("k7qf"); got != "/jobs/k7qf/runs/R%202%2Fx/gates?gate=G%261" {
		t.Errorf("path %s", got)
	}
}
