package document_test

import (
	"bytes"
	"encoding/json"
	"errors"
	"fmt"
	"math/rand/v2"
	"reflect"
	"testing"

	"mallow/core/document"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/demo"
)

// Edits of an opened document come to what they come to when the whole document
// is written and read again: the same job, byte for byte the same document, the
// same errors. Reading it again is the other method here.
func TestEditedIsWhatReadingAgainGives(t *testing.T) {
	cat := shipped(t)
	docs, err := demo.Jobs()
	if err != nil {
		t.Fatal(err)
	}
	rng := rand.New(rand.NewPCG(18, 1))
	added, other, refused := 0, 0, 0
	for _, doc := range docs {
		o := opened(t, doc)
		for n := range 500 {
			edits := someEdits(rng, o.Job, n)
			was := bytes.Clone(o.Doc)
			got, err := o.Edited(edits, cat)
			if !bytes.Equal(was, o.Doc) {
				t.Fatalf("%v changed what they were made to", edits)
			}
			again, wanted := document.Apply(o.Doc, edits)
			var want document.Opened
			if wanted == nil {
				want, wanted = document.Open(again, cat)
			}
			if (err == nil) != (wanted == nil) {
				t.Fatalf("%v: %v; read again: %v", edits, err, wanted)
			}
			if err != nil {
				var mine, theirs document.Errors
				if errors.As(err, &mine); errors.As(wanted, &theirs) && !reflect.DeepEqual(mine, theirs) {
					t.Fatalf("%v: %v; read again: %v", edits, err, wanted)
				}
				refused++
				continue
			}
			if !bytes.Equal(got.Doc, again) {
				t.Fatalf("%v: written\n%s\nnot\n%s", edits, got.Doc, again)
			}
			if !reflect.DeepEqual(got.Job, want.Job) || !reflect.DeepEqual(got.Unknown, want.Unknown) {
				t.Fatalf("%v: another job than when it is read again", edits)
			}
			if made := got.Since(want); len(made) > 0 {
				t.Fatalf("%v: another tree: %v", edits, made)
			}
			if other++; len(got.Job.Observed) > len(o.Job.Observed) {
				added++
			}
			o = got
		}
	}
	if added < 100 || other < 300 || refused < 20 {
		t.Fatalf("%d times facts were added, %d edits were made, %d refused: too few to tell", added, other, refused)
	}
}

// someEdits are edits such as a bench makes, some of them wrong.
func someEdits(rng *rand.Rand, j job.Job, n int) []job.Edit {
	line := j.Lines[rng.IntN(len(j.Lines))]
	run := line.Runs[rng.IntN(len(line.Runs))]
	at := job.At("/lines", line.ID, "runs", run.ID)
	fact := func(id string) job.Edit {
		depth, where := float64(300+rng.IntN(900)), length.Length(1000*rng.IntN(20))
		on := job.On("run", run.ID)
		if len(run.Laid) > 0 {
			on = job.On("post", run.Laid[rng.IntN(len(run.Laid))].ID)
		}
		f := job.Fact{ID: id, On: on, What: job.SeenRock, At: &where, Value: &depth, Note: "<&> “stone”"}
		switch rng.IntN(6) {
		case 0:
			f = job.Fact{ID: id, On: on, What: job.MarkDug}
			if rng.IntN(3) == 0 {
				f.What = job.DepthDug // of no depth, which is refused though nothing moves
			}
		case 1:
			if k := len(j.Observed); k > 0 {
				f = job.Fact{ID: id, On: "job", What: job.StruckOut, Strikes: j.Observed[rng.IntN(k)].ID}
			}
		case 2:
			f.Value = nil // which is refused
		}
		return job.Set(job.At("/observed", id), f)
	}
	switch rng.IntN(8) {
	case 0:
		return []job.Edit{job.Set("/name", fmt.Sprint("Job <", n, ">"))}
	case 1:
		return []job.Edit{job.Set("/notes", nil), job.Set(job.At("/own", "x"), n)}
	case 2:
		return []job.Edit{job.Set(at+"/fence/height", 900+rng.IntN(600))}
	case 3:
		return []job.Edit{job.Set("/lines/L99/name", "nowhere")}
	case 4:
		if k := len(j.Observed); k > 0 { // one that is there
			f := j.Observed[rng.IntN(k)]
			f.Note = "changed"
			return []job.Edit{job.Set(job.At("/observed", f.ID), f)}
		}
		return []job.Edit{job.Set("/observed/f1/note", "of what?")}
	case 5:
		return []job.Edit{job.Set("/units/system", "cubits")}
	}
	if rng.IntN(2) == 0 { // facts alone
		return []job.Edit{fact(fmt.Sprint("f", 1000+n))}
	}
	return []job.Edit{fact(fmt.Sprint("f", 1000+n)), fact(fmt.Sprint("g", n)), job.Set(at+"/name", fmt.Sprint("Run ", n))}
}

// The version of a document is no field to edit.
func TestEditedKeepsTheVersion(t *testing.T) {
	docs, err := demo.Jobs()
	if err != nil {
		t.Fatal(err)
	}
	var refused document.Errors
	if _, err := opened(t, docs[0]).Edited([]job.Edit{job.Set("/mallow", 1)}, shipped(t)); !errors.As(err, &refused) || refused[0].Field != "/mallow" {
		t.Fatalf("%v", err)
	}
}

// A list of facts is not longer for having been edited bit by bit.
func TestEditedHoldsNoMoreFactsThanADocument(t *testing.T) {
	cat := shipped(t)
	docs, err := demo.Jobs()
	if err != nil {
		t.Fatal(err)
	}
	o := opened(t, docs[0])
	facts := []job.Fact{}
	for i := range 29_999 {
		facts = append(facts, job.Fact{ID: fmt.Sprint("f", i), On: "post/R1.1", What: job.MarkDug})
	}
	if o, err = o.Edited([]job.Edit{job.Set("/observed", facts)}, cat); err != nil {
		t.Fatal(err)
	}
	one := func(id string) []job.Edit {
		return []job.Edit{job.Set(job.At("/observed", id), job.Fact{ID: id, On: "post/R1.1", What: job.MarkDug})}
	}
	if o, err = o.Edited(one("last"), cat); err != nil {
		t.Fatalf("the 30,000th is allowed: %v", err)
	}
	var refused document.Errors
	if _, err = o.Edited(one("more"), cat); !errors.As(err, &refused) || refused[0].Field != "/observed" {
		t.Fatalf("the 30,001st: %v", err)
	}
	var plain map[string]json.RawMessage
	if err := json.Unmarshal(o.Doc, &plain); err != nil || len(plain["observed"]) < 29_000*30 {
		t.Fatalf("what is written is no document: %v", err)
	}
}

func opened(t *testing.T, doc []byte) document.Opened {
	t.Helper()
	o, err := document.Open(doc, shipped(t))
	if err != nil {
		t.Fatal(err)
	}
	return o
}
