package paper_test

import (
	"strings"
	"testing"

	"mallow/core/document"
	"mallow/core/job"
	"mallow/core/plan"
	"mallow/demo/demotest"
)

// A mowing curb has its own sheet with forms and marks, rows on the pour card after its
// run's posts, and a line for the customer.
func TestCurbOnPaper(t *testing.T) {
	cat := demotest.Catalog(t)
	doc := `{"mallow":2,"name":"Curb","units":{"system":"imperial","smallestMark":1.5875},"pour":{"date":"2027-05-04"},"lines":[{"id":"L1","runs":[{"id":"R1","name":"Front","length":24384,"curb":{}}]}]}`
	j, _, err := document.Decode([]byte(doc), cat)
	if err != nil {
		t.Fatal(err)
	}
	p, err := plan.Worded(nil, j, cat)
	if err != nil {
		t.Fatal(err)
	}
	text := func(j job.Job, set string) string { return strings.ReplaceAll(words(j, p, set, ""), "\n", " ") }
	for set, wants := range map[string][]string{
		"curb":     {`12" wide, 4" deep, 81' 0" long`, "11 form boards of 16' 0\"", "P11", "80' 0\""},
		"pour":     {"curb at B1", "curb at B10", "Broom it lightly"},
		"order":    {"P1 to", "curb at B10", "edger"},
		"customer": {`Front: with a mowing curb, 12" wide, 4" deep, 81' 0" long.`},
	} {
		got := text(j, set)
		for _, want := range wants {
			if !strings.Contains(got, want) {
				t.Errorf("%s does not say %q", set, want)
			}
		}
	}
	if at, b1, p11 := text(j, "pour"), "curb at B1", "P10"; strings.Index(at, b1) < strings.Index(at, p11) {
		t.Error("the curb is poured before the posts")
	}
}
