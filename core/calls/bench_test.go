package calls_test

import (
	"encoding/json"
	"strconv"
	"testing"

	"mallow/catalog"
	"mallow/core/calls"
	"mallow/demo"
)

// dragged are documents with a gate a little farther on in each, as while it is
// dragged.
func dragged(t testing.TB, n int) [][]byte {
	t.Helper()
	docs, err := demo.Jobs()
	if err != nil {
		t.Fatal(err)
	}
	out := make([][]byte, n)
	for i := range out {
		var tree map[string]any
		if err := json.Unmarshal(docs[0], &tree); err != nil {
			t.Fatal(err)
		}
		run := tree["lines"].([]any)[0].(map[string]any)["runs"].([]any)[0].(map[string]any)
		gate := run["gates"].([]any)[0].(map[string]any)
		gate["at"] = gate["at"].(float64) + float64(i)*3
		if out[i], err = json.Marshal(tree); err != nil {
			t.Fatal(err)
		}
	}
	return out
}

// BenchmarkDragged answers for one frame of a drag after the other.
func BenchmarkDragged(b *testing.B) {
	cat, err := catalog.Load()
	if err != nil {
		b.Fatal(err)
	}
	docs := dragged(b, 40)
	for _, call := range []string{"plan", "tell", "bill"} {
		b.Run(call, func(b *testing.B) {
			c := &calls.Core{Catalog: cat}
			b.ReportAllocs()
			for i := 0; b.Loop(); i++ {
				if err := c.Answer(nil, call, docs[i%len(docs)], func([]byte) error { return nil }); err != nil {
					b.Fatal(strconv.Itoa(i), err)
				}
			}
		})
	}
}
