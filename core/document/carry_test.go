package document_test

import (
	"encoding/json"
	"errors"
	"strings"
	"testing"

	"mallow/core/document"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/demo"
)

// Lines that are put back unchanged change nothing but how the document is
// spelled, and keep every field that Mallow does not know in its place.
func TestReplaceLinesKeepsWhatItDoesNotKnow(t *testing.T) {
	docs, err := demo.Jobs()
	if err != nil {
		t.Fatal(err)
	}
	cat := shipped(t)
	strange := []string{
		"/mood", "/lines/L1/mood", "/lines/L1/runs/R2/mood", "/lines/L1/runs/R2/post/mood", "/lines/L1/books/B1/mood", "/lines/L1/runs/R1/gates/G1/mood",
	}
	for _, raw := range docs {
		var edits []job.Edit
		for _, path := range strange {
			edits = append(edits, job.Set(path, map[string]any{"kept": true}))
		}
		doc, err := document.Apply(raw, edits)
		if err != nil {
			t.Fatal(err)
		}
		before, _, err := document.Decode(doc, cat)
		if err != nil {
			t.Fatal(err)
		}
		after, err := document.ReplaceLines(doc, before.Lines, nil)
		if err != nil {
			t.Fatal(err)
		}
		again, unknown, err := document.Decode(after, cat)
		if err != nil || len(unknown) != len(strange) {
			t.Fatalf("kept %v of %v (%v)", unknown, strange, err)
		}
		a, _ := json.Marshal(before)
		b, _ := json.Marshal(again)
		if string(a) != string(b) {
			t.Error("the lines came back changed")
		}
		// A run made from another takes its unknown fields; one that goes takes them away.
		lines := append([]job.Line(nil), before.Lines...)
		made := lines[0].Runs[1]
		made.ID, made.Gates, made.KeepOuts = "R99", nil, nil
		lines[0].Runs = append(append([]job.Run(nil), lines[0].Runs[1:]...), made)
		after, err = document.ReplaceLines(doc, lines, map[string]string{"R99": lines[0].Runs[0].ID})
		if err != nil {
			t.Fatal(err)
		}
		if n := strings.Count(string(after), `"kept"`); n != 7 { // one gate's goes with its run, two runs' come
			t.Errorf("%d unknown fields, want 7: %s", n, after)
		}
	}
	if _, err := document.ReplaceLines([]byte(`[]`), nil, nil); err == nil {
		t.Error("a list was taken for a document")
	}
}

// Rows of a rod page in every order that makes no sense, each refused at its
// field, and one that does.
func TestRodPagesThatMakeNoSense(t *testing.T) {
	page := func(rows string) error {
		raw := strings.Replace(string(with("")), `"id":"L1"`, `"id":"L1","books":[{"id":"B1","kind":"rod","rows":[`+rows+`]}]`, 1)
		_, _, err := document.Decode([]byte(raw), shipped(t))
		return err
	}
	if err := page(`{"run":"R1","back":1000},{"run":"R1","at":500,"side":900},{"run":"R1","at":900,"fore":950,"back":1200},{"mark":"sill","fore":3}`); err != nil {
		t.Errorf("a sound page: %v", err)
	}
	for rows, field := range map[string]string{
		`{"run":"R1","at":0}`:                                           "/w1/back",
		`{"run":"R1","back":1,"side":2}`:                                "/w1/side",
		`{"run":"R1","back":1,"fore":2}`:                                "/w1/side",
		`{"run":"R1","back":1},{"run":"R1","at":5}`:                     "/w2/side",
		`{"run":"R1","back":1},{"run":"R1","at":5,"side":1,"fore":1}`:   "/w2/side",
		`{"run":"R1","back":1},{"run":"R1","at":5,"side":1,"back":1}`:   "/w2/back",
		`{"run":"R1","back":1},{"run":"R9","at":5,"side":1}`:            "/w2/run",
		`{"run":"R1","back":1},{"run":"R1","at":30001,"side":1}`:        "/w2/at",
		`{"run":"R1","back":1},{"run":"R1","at":5,"side":20001}`:        "/w2/side",
		`{"run":"R1","back":1},{"run":"R1","at":-5,"side":1}`:           "/w2/at",
		`{"run":"R1","back":1},{"run":"R1","at":5,"side":1,"sight":-1}`: "/w2/sight",
	} {
		var refused document.Errors
		if err := page(rows); !errors.As(err, &refused) || !strings.HasSuffix(refused[0].Field, "/rows"+field) {
			t.Errorf("%s: got %v, want a refusal at %s", rows, err, field)
		}
	}
}

// Legs of a corner's triangle are what was taped, or else the whole runs.
func TestLegsOfACorner(t *testing.T) {
	long, short := length.Length(9000), length.Length(4000)
	before, after := job.Run{Length: &long}, job.Run{Length: &short}
	for _, c := range []struct {
		corner      job.Corner
		back, forth length.Length
		ok          bool
	}{
		{job.Corner{}, 9000, 4000, true},
		{job.Corner{Back: &short}, 4000, 4000, true},
		{job.Corner{Forth: &long}, 9000, 9000, true},
	} {
		if b, f, ok := c.corner.Legs(before, after); b != c.back || f != c.forth || ok != c.ok {
			t.Errorf("%+v: %v, %v, %v", c.corner, b, f, ok)
		}
	}
	if _, _, ok := (job.Corner{Back: &long}).Legs(before, job.Run{}); ok {
		t.Error("a leg that is a whole run without a length")
	}
	if b, _, ok := (job.Corner{Back: &long, Forth: &short}).Legs(job.Run{}, job.Run{}); b != 9000 || !ok {
		t.Error("both legs were taped")
	}
	if job.Left.Other() != job.Right || job.Right.Other() != job.Left || job.Left.Sign() != 1 || job.Right.Sign() != -1 {
		t.Error("left and right")
	}
}
