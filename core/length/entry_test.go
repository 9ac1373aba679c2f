package length_test

import (
	"testing"

	"mallow/core/length"
)

// What a bare number means is what a person means there; a comma or a point
// changes nothing.
func TestBareNumbersByField(t *testing.T) {
	ft, in, m, mm := length.Foot, length.Inch, length.Metre, length.Millimetre
	for _, c := range []struct {
		text     string
		as       length.Entry
		imperial length.Length
		metric   length.Length
	}{
		{"120", length.Distance, 120 * ft, 120 * m},
		{"120.0", length.Distance, 120 * ft, 120 * m},
		{"11.35", length.Distance, 11.35 * ft, 11.35 * m},
		{"11,35", length.Distance, 11.35 * ft, 11.35 * m},
		{"0", length.Distance, 0, 0},
		{"3.5", length.Section, 3.5 * in, 3.5 * mm},
		{"100", length.Section, 100 * in, 100 * mm},
		{"8", length.Either, 8 * ft, 8 * m},
		{"96", length.Either, 96 * in, 96 * mm},
		{"6", length.Either, 6 * ft, 6 * m},
		{"72", length.Either, 72 * in, 72 * mm},
		{"1.8", length.Either, 1.8 * ft, 1.8 * m},
		{"1800", length.Either, 1800 * in, 1800 * mm},
		{"23.9", length.Either, 23.9 * ft, 23.9 * m}, // just under where the unit changes
		{"24", length.Either, 24 * in, 24 * m},
		{"29.9", length.Either, 29.9 * in, 29.9 * m},
		{"30", length.Either, 30 * in, 30 * mm},
		{"14.5", length.Level, 14.5 * in, 14.5 * mm},
		{"1.42", length.Level, 1.42 * in, 1.42 * m},
		{"4.99", length.Level, 4.99 * in, 4.99 * m},
		{"5", length.Level, 5 * in, 5 * mm},
		{"-0.6", length.Level, -0.6 * in, -0.6 * m},
	} {
		for sys, want := range map[length.System]length.Length{length.Imperial: c.imperial, length.Metric: c.metric} {
			r, err := length.ReadAs(c.text, sys, c.as)
			if err != nil || !length.Same(r.Length, want) || !r.Bare {
				t.Errorf("%q as %s, %s: read as %v, want %v (%v)", c.text, c.as, sys, r.Length, want, err)
			}
			for _, o := range r.Others { // the other readings stay at hand, and are others
				if c.text != "0" && length.Same(o.Length, r.Length) || len(r.Others) != 2 {
					t.Errorf("%q as %s, %s: the other readings are %v", c.text, c.as, sys, r.Others)
				}
			}
		}
	}
	// A unit decides, whatever the field.
	if r, err := length.ReadAs("8ft", length.Metric, length.Section); err != nil || !length.Same(r.Length, 8*ft) || r.Bare {
		t.Errorf("8ft: %+v, %v", r, err)
	}
}
