package job_test

import (
	"errors"
	"strings"
	"testing"

	"mallow/catalog"
	"mallow/core/document"
)

// Bad gates are refused with the field, what was given and what is allowed.
func TestBadGatesAreRefused(t *testing.T) {
	cat, err := catalog.Load()
	if err != nil {
		t.Fatal(err)
	}
	for _, c := range []struct{ gate, field, given, allowed string }{
		{`"opening":1200,"leaf":1000,"clear":900`, "/clear", "900 mm", "nothing while the leaf"},
		{`"opening":1200,"leaf":100`, "/leaf", "100", "150 mm"},
		{`"opening":1200,"clear":150`, "/clear", "150", "200 mm"},
		{`"opening":1200,"leaf":10900,"leaves":2`, "/leaf", "", "between the posts"},
		{`"opening":350,"hardware":{"hinge":150,"latch":100,"meeting":0,"pin":0}`, "/opening", "350 mm", "leaves of at least"},
		{`"opening":1200,"leaves":2,"second":980`, "/second", "980 mm", "at most"},
		{`"opening":1200,"in":[{"off":900,"first":10},{"off":800,"first":20}]`, "/in/n2/off", "800 mm", "farther out"},
		{`"opening":1200,"open":200`, "/open", "200", "180"},
		{`"opening":1200,"swing":"up"`, "/swing", "up", "in, out, both"},
		{`"opening":1200,"hardware":{"hinge":-5,"latch":0,"meeting":0,"pin":0}`, "/hardware/hinge", "-5", "0 mm"},
		{`"opening":1200,"clear":9000`, "/clear", "", "what the run has room for"},
	} {
		doc := `{"mallow":1,"name":"Gate","units":{"system":"metric","smallestMark":1},"site":{},"lines":[{"id":"L1","runs":[
			{"id":"R1","length":6000,"gates":[{"id":"G1","at":3000,"gap":100,` + c.gate + `}]}]}]}`
		_, _, err := document.Decode([]byte(doc), cat)
		var all document.Errors
		if !errors.As(err, &all) {
			t.Errorf("%s: %v", c.gate, err)
			continue
		}
		found := false
		for _, e := range all {
			found = found || e.Field == "/lines/L1/runs/R1/gates/G1"+c.field && strings.Contains(e.Given, c.given) && strings.Contains(e.Allowed, c.allowed)
		}
		if !found {
			t.Errorf("%s: %v, want %s: %s; %s", c.gate, all, c.field, c.given, c.allowed)
		}
	}
}
