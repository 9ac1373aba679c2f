package engine

import (
	"testing"

	"mallow/catalog"
	"mallow/core/document"
	"mallow/core/finding"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/reason"
	"mallow/core/stage"
)

// built is what a stage of building would begin with: it counts the bays that
// are boarded, and minds a run of gates alone.
type built struct{ Bays int }

var building = Stage{
	Name: "build",
	Compute: func(run Finished) any {
		n := 0
		for _, b := range run.Bays {
			if b.Gate == "" {
				n++
			}
		}
		return built{n}
	},
	Check: func(part any, c *stage.Checking) {
		if part.(built).Bays == 0 {
			c.Find(finding.Finding{Rule: "nothing-to-build", Severity: finding.Note, Says: reason.Say("No bay of fence is to be built.")})
		}
	},
	Explain: func(part any, f stage.Figure) (reason.Why, bool) {
		if f.What != "bays" {
			return reason.Why{}, false
		}
		return reason.Why{Figure: "Bays to build", Sentence: reason.Say(part.(built).Bays, " bays without gates.")}, true
	},
}

// A stage that is added is its doors and a line in the list: its part is
// computed, kept, checked and explained without a word in any other stage.
func TestAStageIsALineInTheList(t *testing.T) {
	laterList = append(laterList, building)
	defer func() { laterList = laterList[:len(laterList)-1] }()
	cat, err := catalog.Load()
	if err != nil {
		t.Fatal(err)
	}
	j := document.New("Built", length.Metric, cat)
	total := 20 * length.Metre
	j.Lines[0].Runs[0].Length = &total
	r := Compute(j, cat, nil, func() {})
	part, ok := r.Runs[0].Parts["build"].(built)
	if want := len(r.Runs[0].Slope.Bays); !ok || part.Bays != want || want == 0 {
		t.Fatalf("got %+v, want %d bays", r.Runs[0].Parts, want)
	}
	if why, ok := r.Explain(stage.Figure{Run: "R1", Of: "build", What: "bays"}); !ok || why.Figure != "Bays to build" {
		t.Errorf("explained as %+v", why)
	}
	renamed := j
	renamed.Name = "Kept"
	if again := Compute(renamed, cat, r, func() {}); again.Runs[0].Parts["build"] != r.Runs[0].Parts["build"] {
		t.Error("its part was computed again, though nothing changed")
	}
	j.Lines[0].Runs[0].Gates = []job.Gate{{ID: "G1", At: total / 2, Opening: total - j.Lines[0].Runs[0].PostOf(job.GatePost).Width, Gap: 100}}
	for _, f := range Compute(j, cat, r, func() {}).Findings() {
		if f.Rule == "nothing-to-build" && f.Place.Run == "R1" {
			return
		}
	}
	t.Error("its check found nothing on a run of gates alone")
}
