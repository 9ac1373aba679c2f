package document_test

import (
	"encoding/json"
	"os"
	"reflect"
	"strings"
	"testing"

	"mallow/core/document"
	"mallow/core/job"
)

// The edits that the front end is held against too: both must do the same.
func TestApply(t *testing.T) {
	raw, err := os.ReadFile("testdata/edits.json")
	if err != nil {
		t.Fatal(err)
	}
	var list []struct {
		What    string
		Doc     json.RawMessage
		Edits   []job.Edit
		Want    any
		Refused string
	}
	if err := json.Unmarshal(raw, &list); err != nil {
		t.Fatal(err)
	}
	for _, c := range list {
		got, err := document.Apply(c.Doc, c.Edits)
		if c.Refused != "" {
			if err == nil || !strings.Contains(err.Error(), c.Refused) {
				t.Errorf("%s: got %s, %v, want it refused: %s", c.What, got, err, c.Refused)
			}
			continue
		}
		var made any
		if err != nil || json.Unmarshal(got, &made) != nil || !reflect.DeepEqual(made, c.Want) {
			t.Errorf("%s: got %s, %v, want %v", c.What, got, err, c.Want)
		}
	}
}

// Entries whose writers left the ids out get them, the same ones every time,
// and what is theirs already stays.
func TestEntriesAreNamed(t *testing.T) {
	doc := []byte(`{"lines":[{"id":"L1","runs":[{"id":"R1","ground":[{"at":0},{"id":"h1","at":2},{"at":4}],"gates":[{"id":"G1","in":[{"off":9}]}]}],"books":[{"id":"B1","rows":[{"at":1}]}]}]}`)
	for range 2 {
		got, err := document.Apply(doc, []job.Edit{job.Set("/lines/L1/runs/R1/ground/h3/height", 7)})
		if want := `{"lines":[{"books":[{"id":"B1","rows":[{"at":1,"id":"w1"}]}],"id":"L1","runs":[{"gates":[{"id":"G1","in":[{"id":"n1","off":9}]}],"ground":[{"at":0,"id":"h2"},{"at":2,"id":"h1"},{"at":4,"height":7,"id":"h3"}],"id":"R1"}]}]}`; err != nil || string(got) != want {
			t.Errorf("got  %s, %v\nwant %s", got, err, want)
		}
	}
}
