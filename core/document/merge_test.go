package document_test

import (
	"encoding/json"
	"reflect"
	"testing"

	"mallow/core/document"
)

// Two windows change one job: what touches different fields is in the merged
// job, and only a field that both changed is asked about.
func TestMerge(t *testing.T) {
	const base = `{"name":"A","lines":[{"id":"L1","runs":[{"id":"R1","length":10,"ground":[{"id":"h1","at":0}],"gates":[{"id":"G1","at":2},{"id":"G2","at":5}]},{"id":"R2"}]}],"mine":1}`
	for _, c := range []struct {
		what, mine, theirs, want string
		clashes                  []string
	}{
		{"different fields", `{"name":"B","lines":[{"id":"L1","runs":[{"id":"R1","length":10,"ground":[{"id":"h1","at":0}],"gates":[{"id":"G1","at":3},{"id":"G2","at":5}]},{"id":"R2"}]}],"mine":1}`,
			`{"name":"A","lines":[{"id":"L1","runs":[{"id":"R1","length":12,"ground":[{"id":"h1","at":0}],"gates":[{"id":"G1","at":2},{"id":"G2","at":6}]},{"id":"R2"}]}],"mine":1}`,
			`{"name":"B","lines":[{"id":"L1","runs":[{"id":"R1","length":12,"ground":[{"id":"h1","at":0}],"gates":[{"id":"G1","at":3},{"id":"G2","at":6}]},{"id":"R2"}]}],"mine":1}`, nil},
		{"one adds, one takes away", `{"name":"A","lines":[{"id":"L1","runs":[{"id":"R1","length":10,"ground":[{"id":"h1","at":0}],"gates":[{"id":"G1","at":2},{"id":"G3","at":4},{"id":"G2","at":5}]},{"id":"R2"}]}],"mine":1}`,
			`{"name":"A","lines":[{"id":"L1","runs":[{"id":"R1","length":10,"ground":[{"id":"h1","at":0}],"gates":[{"id":"G2","at":5}]},{"id":"R2"}]}]}`,
			`{"name":"A","lines":[{"id":"L1","runs":[{"id":"R1","length":10,"ground":[{"id":"h1","at":0}],"gates":[{"id":"G3","at":4},{"id":"G2","at":5}]},{"id":"R2"}]}]}`, nil},
		{"the same field", `{"name":"B","lines":[{"id":"L1","runs":[{"id":"R1","length":11,"ground":[{"id":"h1","at":0}],"gates":[{"id":"G1","at":2},{"id":"G2","at":5}]},{"id":"R2"}]}],"mine":1}`,
			`{"name":"C","lines":[{"id":"L1","runs":[{"id":"R1","length":11,"ground":[{"at":2}],"gates":[{"id":"G1","at":2}]},{"id":"R2"}]}],"mine":1}`,
			`{"name":"C","lines":[{"id":"L1","runs":[{"id":"R1","length":11,"ground":[{"id":"h1","at":2}],"gates":[{"id":"G1","at":2}]},{"id":"R2"}]}],"mine":1}`,
			[]string{"/name"}},
		{"both add", `{"name":"A","lines":[{"id":"L1","runs":[{"id":"R1","length":10,"ground":[{"id":"h1","at":0},{"at":1}],"gates":[{"id":"G1","at":2},{"id":"G2","at":5},{"id":"G3","at":7}]},{"id":"R2"}]}],"mine":1}`,
			`{"name":"A","lines":[{"id":"L1","runs":[{"id":"R1","length":10,"ground":[{"id":"h1","at":0},{"at":2}],"gates":[{"id":"G1","at":2},{"id":"G2","at":5},{"id":"G3","at":9}]},{"id":"R2"}]}],"mine":1}`,
			`{"name":"A","lines":[{"id":"L1","runs":[{"id":"R1","length":10,"ground":[{"id":"h1","at":0},{"id":"h3","at":1},{"id":"h2","at":2}],"gates":[{"id":"G1","at":2},{"id":"G2","at":5},{"id":"G4","at":7},{"id":"G3","at":9}]},{"id":"R2"}]}],"mine":1}`, nil},
		{"two change one kind of post", `{"name":"A","lines":[{"id":"L1","runs":[{"id":"R1","length":10,"ground":[{"id":"h1","at":0}],"kinds":[{"kind":"gate","hole":{"depth":9}}],"gates":[{"id":"G1","at":2},{"id":"G2","at":5}]},{"id":"R2"}]}],"mine":1}`,
			`{"name":"A","lines":[{"id":"L1","runs":[{"id":"R1","length":10,"ground":[{"id":"h1","at":0}],"kinds":[{"kind":"gate","hole":{"width":7}}],"gates":[{"id":"G1","at":2},{"id":"G2","at":5}]},{"id":"R2"}]}],"mine":1}`,
			`{"name":"A","lines":[{"id":"L1","runs":[{"id":"R1","length":10,"ground":[{"id":"h1","at":0}],"kinds":[{"kind":"gate","hole":{"depth":9,"width":7}}],"gates":[{"id":"G1","at":2},{"id":"G2","at":5}]},{"id":"R2"}]}],"mine":1}`, nil},
		{"changed here, taken away there", `{"name":"A","lines":[{"id":"L1","runs":[{"id":"R1","length":10,"ground":[{"id":"h1","at":0}],"gates":[{"id":"G1","at":2},{"id":"G2","at":7}]},{"id":"R2"}]}],"mine":1}`,
			`{"name":"A","lines":[{"id":"L1","runs":[{"id":"R1","length":10,"ground":[{"id":"h1","at":0}],"gates":[{"id":"G1","at":2}]},{"id":"R2"}]}],"mine":1}`,
			`{"name":"A","lines":[{"id":"L1","runs":[{"id":"R1","length":10,"ground":[{"id":"h1","at":0}],"gates":[{"id":"G1","at":2}]},{"id":"R2"}]}],"mine":1}`,
			[]string{"/lines/L1/runs/R1/gates/G2"}},
	} {
		got, clashes, err := document.Merge([]byte(base), []byte(c.mine), []byte(c.theirs))
		if err != nil {
			t.Fatalf("%s: %v", c.what, err)
		}
		var a, b any
		_ = json.Unmarshal(got, &a)
		_ = json.Unmarshal([]byte(c.want), &b)
		if !reflect.DeepEqual(a, b) {
			t.Errorf("%s:\ngot  %s\nwant %s", c.what, got, c.want)
		}
		var paths []string
		for _, k := range clashes {
			paths = append(paths, k.Path)
		}
		if !reflect.DeepEqual(paths, c.clashes) {
			t.Errorf("%s: asks about %v, want %v", c.what, paths, c.clashes)
		}
	}
}
