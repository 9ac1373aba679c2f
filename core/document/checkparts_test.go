package document_test

import (
	"strings"
	"testing"

	"mallow/catalog"
	"mallow/core/document"
)

// Parts that make no sense, or that would come to millions, are refused by the field
// that is wrong.
func TestPartsThatMakeNoSense(t *testing.T) {
	cat, err := catalog.Load()
	if err != nil {
		t.Fatal(err)
	}
	for _, c := range []struct{ part, field string }{
		{`{"id":"a","name":"A","kind":"board","by":"along","width":2}`, "/parts/a/width"},
		{`{"id":"a","name":"A","kind":"board","by":"rows","width":20,"gap":{"want":5,"least":9,"most":12}}`, "/parts/a/gap/want"},
		{`{"id":"a","name":"A","kind":"fixing","by":"spaced","spacing":0.5}`, "/parts/a/spacing"},
		{`{"id":"a","name":"A","kind":"rail","by":"rails","stock":[3]}`, "/parts/a/stock"},
		{`{"id":"a","name":"A","kind":"mesh","by":"roll","stock":[1000],"lap":1500}`, "/parts/a/stock"},
		{`{"id":"a","name":"A","kind":"mesh","by":"roll"}`, "/parts/a/stock"},
		{`{"id":"a","name":"A","kind":"board","by":"magic"}`, "/parts/a/by"},
		{`{"id":"a","name":"🪵","kind":"board","by":"bay","each":101}`, "/parts/a/each"},
		{`{"id":"a","name":"A","kind":"board","by":"bay"},{"id":"a","name":"B","kind":"board","by":"bay"}`, "/parts/a/id"},
		{`{"id":"a","name":"A","kind":"board","by":"along","width":5},{"id":"b","name":"B","kind":"rail","by":"rails","each":100}`, "/parts"},
	} {
		doc := `{"mallow":2,"name":"P","units":{"system":"metric","smallestMark":1},"lines":[{"id":"L1","runs":[{"id":"R1","length":5000000,"parts":[` + c.part + `]}]}]}`
		_, _, err := document.Decode([]byte(doc), cat)
		errs, ok := err.(document.Errors)
		if !ok || !strings.Contains(errs.Error(), c.field) {
			t.Errorf("%s: %v, want an error at %s", c.part, err, c.field)
			continue
		}
		for _, e := range errs {
			if e.Allowed == "" || e.Given == "" {
				t.Errorf("%s: %+v does not say what is allowed", c.part, e)
			}
		}
	}
}
