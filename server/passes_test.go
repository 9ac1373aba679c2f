package server_test

import (
	"bytes"
	"encoding/json"
	"fmt"
	"strings"
	"sync"
	"testing"

	"mallow/core/calls"
	"mallow/core/document"
	"mallow/core/plan"
	"mallow/demo"
)

// advised are the lines of an answer to a question for advice.
func advised(t *testing.T, raw []byte) []plan.Advised {
	t.Helper()
	var all []plan.Advised
	for _, line := range said(t, raw) {
		var a plan.Advised
		if err := json.Unmarshal(line, &a); err != nil {
			t.Fatalf("%v in %s", err, raw)
		}
		all = append(all, a)
	}
	return all
}

func request(t *testing.T, doc json.RawMessage, more map[string]any) string {
	t.Helper()
	all := map[string]any{"doc": doc}
	for k, v := range more {
		all[k] = v
	}
	return body(t, all)
}

// Figures and findings come at once, without a reason or a way out; those come
// when they are asked for, and are those of the whole plan.
func TestReasonsAndWaysOutOnRequest(t *testing.T) {
	c := start(t)
	doc := json.RawMessage(demoDoc(t))
	j, _, err := document.Decode(doc, shippedNow(t))
	if err != nil {
		t.Fatal(err)
	}
	whole := plan.Make(j, shippedNow(t))
	var p plan.Plan
	c.must(200, "POST", "/api/plan", string(doc), &p)
	if len(p.Findings) == 0 || len(p.Findings) > len(whole.Findings) {
		t.Fatalf("%d findings, the whole plan has %d", len(p.Findings), len(whole.Findings))
	}
	for _, f := range p.Findings {
		if len(f.Remedies) > 0 {
			t.Errorf("%s comes with ways out that nobody asked for", f.Rule)
		}
	}
	_, _, raw := c.ask("POST", "/api/advise", request(t, doc, nil))
	ways, more := 0, 0
	for _, a := range advised(t, raw) {
		ways += len(a.Remedies)
		if a.More != nil {
			more++
		}
	}
	want := 0
	for _, f := range whole.Findings {
		want += len(f.Remedies)
	}
	if ways != want || len(p.Findings)+more != len(whole.Findings) {
		t.Errorf("%d ways out of %d findings, want %d of %d", ways, len(p.Findings)+more, want, len(whole.Findings))
	}
	one := p.Findings[0]
	_, _, raw = c.ask("POST", "/api/advise", request(t, doc, map[string]any{"findings": []string{one.ID}}))
	for _, a := range advised(t, raw) {
		if a.ID != one.ID {
			t.Errorf("asked about %s, advised about %s", one.ID, a.ID)
		}
	}
	run := p.Runs[0]
	var why calls.Explained
	c.must(200, "POST", "/api/explain", request(t, doc, map[string]any{"figure": plan.Figure{Run: run.ID, Of: "post", ID: run.Posts[1].Label, What: "holeDepth"}}), &why)
	if len(why.Steps) == 0 || len(why.Sentence) == 0 {
		t.Errorf("a hole's depth is explained as %+v", why)
	}
	c.must(200, "POST", "/api/tell", string(doc), nil)
	var b plan.Bill
	if c.must(200, "POST", "/api/bill", string(doc), &b); len(b.Items) < 15 || len(b.Runs) != len(p.Runs) || len(b.Runs[0].Items) == 0 {
		t.Errorf("the bill has %d items and %d runs", len(b.Items), len(b.Runs))
	}
}

// Every question about a plan answers what it cannot take with the field, what
// was given and what is allowed.
func TestBadQuestionsAboutAPlan(t *testing.T) {
	c := start(t)
	doc := json.RawMessage(demoDoc(t))
	million := strings.Repeat("9", 1_000_000)
	for _, q := range []struct {
		path, body string
		status     int
		field      string
	}{
		{"/api/explain", request(t, doc, map[string]any{"figure": map[string]string{"run": "R1", "of": "post", "id": "🪵", "what": "top"}}), 422, "/figure"},
		{"/api/explain", request(t, doc, map[string]any{"figure": map[string]string{"run": "🪵", "of": "post", "id": "1"}}), 422, "/figure"},
		{"/api/explain", request(t, doc, map[string]any{"figure": map[string]string{"run": "R1", "of": "segment", "id": million}}), 422, "/figure"},
		{"/api/explain", request(t, doc, map[string]any{"figure": map[string]string{"run": "R1", "of": "segment", "id": "-1"}}), 422, "/figure"},
		{"/api/explain", request(t, doc, map[string]any{"figure": map[string]string{"line": "L1", "of": "corner", "id": "-1"}}), 422, "/figure"},
		{"/api/explain", request(t, doc, map[string]any{"figure": map[string]string{"run": "R1", "of": "gate", "id": "none", "what": "swing"}}), 422, "/figure"},
		{"/api/explain", request(t, json.RawMessage(`{"mallow":1}`), map[string]any{"figure": map[string]string{"of": "totals"}}), 422, "/lines"},
		{"/api/ways", request(t, doc, map[string]any{"run": "R1", "post": million}), 422, "/post"},
		{"/api/ways", request(t, doc, map[string]any{"run": "🪵", "post": ""}), 422, "/post"},
		{"/api/tell", `{"mallow":9}`, 422, "/mallow"},
		{"/api/bill", `{"mallow":9}`, 422, "/mallow"},
		{"/api/bill", `[]`, 422, "/"},
		{"/api/advise", request(t, json.RawMessage(`{"mallow":9}`), nil), 422, "/mallow"},
	} {
		status, _, raw := c.ask("POST", q.path, q.body)
		var got struct {
			Fields []struct{ Field, Given, Allowed string } `json:"fields"`
		}
		_ = json.Unmarshal(raw, &got)
		if len(raw) > 4000 {
			t.Errorf("%s answers bad input with %d bytes", q.path, len(raw))
			raw = raw[:300]
		}
		if status != q.status || len(got.Fields) == 0 || got.Fields[0].Field != q.field || got.Fields[0].Allowed == "" {
			t.Errorf("%s: %d %s, want %d for %s", q.path, status, raw, q.status, q.field)
		}
	}
	for _, path := range []string{"/api/explain", "/api/advise", "/api/ways"} {
		for _, bad := range []string{"", "{", "[]", "null", `{"doc":null}`, `{"doc":5}`, `{"figure":7}`, `{"findings":"all"}`} {
			if status, _, raw := c.ask("POST", path, bad); status < 400 || status >= 500 {
				t.Errorf("%s with %q: %d %.200s", path, bad, status, raw)
			}
		}
	}
	// What is asked about and is not there has nothing to be said of it.
	status, _, raw := c.ask("POST", "/api/advise", request(t, doc, map[string]any{"findings": []string{"🪵", million}}))
	if status != 200 || len(advised(t, raw)) != 0 {
		t.Errorf("advice on nothing: %d %.200s", status, raw)
	}
}

// One result serves many who ask at once, and edits on the way do not disturb
// what another still reads.
func TestOneResultServesMany(t *testing.T) {
	c := start(t)
	docs, err := demo.Jobs()
	if err != nil {
		t.Fatal(err)
	}
	first := func(path, body string) []byte {
		_, _, raw := c.ask("POST", path, body)
		return raw
	}
	doc := docs[0]
	var p plan.Plan
	c.must(200, "POST", "/api/plan", string(doc), &p)
	why := request(t, doc, map[string]any{"figure": plan.Figure{Run: p.Runs[0].ID, Of: "post", ID: p.Runs[0].Posts[1].Label, What: "top"}})
	asks := map[string]string{"/api/plan": string(doc), "/api/tell": string(doc), "/api/bill": string(doc), "/api/explain": why, "/api/advise": request(t, doc, nil)}
	want := map[string][]byte{}
	for path, body := range asks {
		want[path] = first(path, body)
	}
	var wg sync.WaitGroup
	for n := range 6 {
		wg.Go(func() {
			for path, body := range asks {
				if n%2 == 0 { // another window drags at the same job meanwhile
					var edited map[string]any
					_ = json.Unmarshal(doc, &edited)
					edited["site"] = map[string]any{"frostDepth": 500 + n}
					raw, _ := json.Marshal(edited)
					_, _, _ = c.ask("POST", "/api/plan", string(raw))
				}
				if got := first(path, body); !bytes.Equal(got, want[path]) {
					t.Errorf("%s answers otherwise while others ask: %s", path, differ(got, want[path]))
				}
			}
		})
	}
	wg.Wait()
}

func differ(a, b []byte) string {
	n := 0
	for n < len(a) && n < len(b) && a[n] == b[n] {
		n++
	}
	from := max(n-60, 0)
	return fmt.Sprintf("at %d %.120s, was %.120s", n, a[min(from, len(a)):], b[min(from, len(b)):])
}

// An answer carries what is drawn and no more: a budget, in bytes.
func TestAnswerBudgets(t *testing.T) {
	c := start(t)
	doc := demoDoc(t)
	for path, most := range map[string]int{"/api/plan": 140_000, "/api/tell": 115_000, "/api/bill": 80_000} {
		_, _, raw := c.ask("POST", path, doc)
		t.Logf("%s: %d bytes", path, len(raw))
		if len(raw) > most {
			t.Errorf("%s answers demo job 1 with %d bytes, at most %d", path, len(raw), most)
		}
	}
}
