package plan_test

import (
	"fmt"
	"os"
	"path/filepath"
	"slices"
	"strings"
	"testing"

	"mallow/core/document"
	"mallow/core/plan"
)

// figures are what a crew works by, to the last bit.
func figures(p plan.Plan) string {
	var out strings.Builder
	for _, r := range p.Runs {
		fmt.Fprintf(&out, "run %s %x\n", r.ID, float64(r.Length))
		for _, q := range r.Posts {
			fmt.Fprintf(&out, "post %x %x %x %x %x %x %x %x %v\n", float64(q.Station), float64(q.Ground), float64(q.Top), float64(q.HoleWidth), float64(q.HoleDepth), float64(q.Foot), float64(q.ConcreteVolume), q.Bags, q.Stopped != nil)
		}
		for _, b := range r.Bays {
			fmt.Fprintf(&out, "bay %x %x %x\n", float64(b.CentreToCentre), float64(b.Clear), float64(b.Piece))
		}
		for _, g := range r.Gates {
			fmt.Fprintf(&out, "gate %x %x", float64(g.Opening), float64(g.Clear))
			for _, l := range g.Leaves {
				if l.Adjust != nil {
					fmt.Fprintf(&out, " %x %x", float64(l.Adjust.Drop), l.Adjust.Turns)
				}
			}
			out.WriteByte('\n')
		}
	}
	t := p.Totals
	fmt.Fprintf(&out, "totals %d %x %x %d\n", t.Posts, float64(t.Concrete), float64(t.Gravel), t.Bags)
	var found []string
	for _, f := range p.Findings {
		found = append(found, fmt.Sprintf("finding %s %s\n", f.Rule, f.Severity))
	}
	slices.Sort(found) // in what order they are said is a later matter
	for _, f := range found {
		out.WriteString(f)
	}
	return out.String()
}

// sorted puts what was found then in the same order.
func sorted(was string) string {
	i := strings.Index(was, "finding ")
	if i < 0 {
		return was
	}
	lines := strings.SplitAfter(was[i:], "\n")
	slices.Sort(lines)
	return was[:i] + strings.Join(lines, "")
}

// Jobs of version 1 are planned as the last Mallow that wrote them planned
// them, to the last bit of every figure: testdata/version1 has what it found. Written
// anew were 08 and 10, when loose fill ceased to hold footings, and 03 and 09, when a
// post that landed ceased to move others.
func TestVersion1IsPlannedAsItWas(t *testing.T) {
	files, err := filepath.Glob("../document/testdata/version1/*.json")
	if err != nil || len(files) != 12 {
		t.Fatal(files, err)
	}
	cat := shipped(t)
	for _, file := range files {
		raw, err := os.ReadFile(file)
		if err != nil {
			t.Fatal(err)
		}
		j, _, err := document.Decode(raw, cat)
		if err != nil {
			t.Fatalf("%s: %v", file, err)
		}
		was := filepath.Join("testdata/version1", strings.Replace(filepath.Base(file), ".json", ".figures", 1))
		want, err := os.ReadFile(was)
		if err != nil {
			t.Fatal(err)
		}
		if got := figures(plan.Make(j, cat)); got != sorted(string(want)) {
			t.Errorf("%s is planned otherwise than it was:\n%s\nwas\n%s", file, got, want)
		}
	}
}
