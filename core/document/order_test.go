package document_test

import (
	"testing"

	"mallow/core/document"
)

// Errors of a document come in the order of the document, always the same.
func TestErrorsInDocumentOrder(t *testing.T) {
	doc := `{"mallow":1,"name":"A","units":{"system":"metric","smallestMark":1},"site":{},"lines":[{"id":"L1","runs":[
	 {"id":"R1","terminal":{"shape":"square","width":100,"hollow":true,"wall":50},"gatePost":{"shape":"square","width":90,"hollow":true,"wall":45},"fence":{"gapLeast":60,"gapMost":50},"length":9000,
	  "gates":[{"id":"G1","at":4000,"opening":900,"gap":100,"out":[{"off":500,"first":1},{"off":400,"first":1}],"in":[{"off":700,"first":1},{"off":600,"first":1}]}]}]}]}`
	var first string
	for n := range 40 {
		_, _, err := document.Decode([]byte(doc), shipped(t))
		if n == 0 {
			first = err.Error()
			var fields []string
			for _, f := range err.(document.Errors) {
				fields = append(fields, f.Field[len("/lines/L1/runs/R1"):])
			}
			want := []string{"/terminal/wall", "/gatePost/wall", "/fence/gapMost", "/gates/G1/out/n2/off", "/gates/G1/in/n2/off"}
			if len(fields) != len(want) {
				t.Fatalf("%v", fields)
			}
			for i := range want {
				if fields[i] != want[i] {
					t.Errorf("error %d is at %s, want %s", i, fields[i], want[i])
				}
			}
		} else if err.Error() != first {
			t.Fatalf("now %v, before %v", err, first)
		}
	}
}
