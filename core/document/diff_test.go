package document_test

import (
	"encoding/json"
	"fmt"
	"math/rand/v2"
	"reflect"
	"testing"

	"mallow/core/document"
	"mallow/core/job"
	"mallow/demo"
)

// random changes anything of a tree: fields set, taken away and added, entries
// added, taken out, moved and changed.
func random(rng *rand.Rand, v any, name string) any {
	switch x := v.(type) {
	case map[string]any:
		for k := range x {
			switch {
			case k == "id" || k == "kind" || k == "mallow":
			case rng.IntN(25) == 0:
				delete(x, k)
			case rng.IntN(4) == 0:
				x[k] = random(rng, x[k], k)
			}
		}
		if rng.IntN(20) == 0 {
			x[fmt.Sprint("own", rng.IntN(3))] = rng.IntN(9)
		}
		return x
	case []any:
		for i := range x {
			if rng.IntN(4) == 0 {
				x[i] = random(rng, x[i], "")
			}
		}
		switch n := len(x); {
		case n > 0 && rng.IntN(8) == 0:
			i := rng.IntN(n)
			x = append(x[:i:i], x[i+1:]...)
		case n > 1 && rng.IntN(8) == 0:
			i := rng.IntN(n - 1)
			x[i], x[i+1] = x[i+1], x[i]
		case job.IsList(name) && name != "kinds" && rng.IntN(6) == 0:
			x = append(x, map[string]any{"id": fmt.Sprint("new", rng.IntN(1e6)), "at": rng.IntN(9000)})
		}
		return x
	case float64:
		return x + float64(rng.IntN(7))
	case string:
		return x + "!"
	}
	return v
}

// The edits that are kept beside a revision make it again of the one before,
// whatever was changed in between; and one change laid over another by its
// edits is what merging the documents comes to, where they do not meet.
func TestDiffMakesTheSameDocument(t *testing.T) {
	docs, err := demo.Jobs()
	if err != nil {
		t.Fatal(err)
	}
	rng := rand.New(rand.NewPCG(18, 3))
	edits, most := 0, 0
	for n := range 600 {
		before := docs[n%len(docs)]
		var tree any
		if err := json.Unmarshal(before, &tree); err != nil {
			t.Fatal(err)
		}
		after, err := json.Marshal(random(rng, tree, ""))
		if err != nil {
			t.Fatal(err)
		}
		ops, err := document.Diff(before, after)
		if err != nil {
			t.Fatal(err)
		}
		made, err := document.Apply(before, ops)
		if err != nil {
			t.Fatalf("%v: %v", ops, err)
		}
		var a, b any
		// Compared as they are named: Diff has read both as this version writes them.
		named, err := document.Apply(after, nil)
		if err != nil {
			t.Fatal(err)
		}
		_, _ = json.Unmarshal(made, &a), json.Unmarshal(named, &b)
		if !reflect.DeepEqual(a, b) {
			t.Fatalf("case %d: %v makes\n%s\nwant\n%s", n, ops, made, named)
		}
		edits, most = edits+len(ops), max(most, len(ops))
		if same, err := document.Diff(after, after); err != nil || len(same) > 0 {
			t.Fatalf("nothing changed, and %v, %v", same, err)
		}
	}
	if edits < 1500 || most < 10 {
		t.Errorf("only %d edits, at most %d at once", edits, most)
	}
	one, err := document.Diff([]byte(`{"lines":[{"id":"L1","runs":[{"id":"R1","gates":[{"id":"G1","at":1},{"id":"G2","at":2}]}]}]}`),
		[]byte(`{"lines":[{"id":"L1","runs":[{"id":"R1","gates":[{"id":"G2","at":3}]}]}]}`))
	if want := "[{/lines/L1/runs/R1/gates/G1 <nil>} {/lines/L1/runs/R1/gates/G2/at 3}]"; err != nil || fmt.Sprint(one) != want {
		t.Errorf("got %v, %v, want %s", one, err, want)
	}
}
