package reason_test

import (
	"testing"

	"mallow/core/length"
	"mallow/core/reason"
)

// One sentence serves both systems, since its measures stay numbers.
func TestSentencePrintsInEitherSystem(t *testing.T) {
	s := reason.Say("Bay ", 7, " is ", 54*length.Millimetre, " too long at ", reason.Tape(11347), ", ", length.CubicFoot, " or ",
		reason.Bulk(length.CubicYard), ", factor ", 2.5, reason.Say(", ", "so move it"))
	for sys, want := range map[length.System]string{
		length.Imperial: `Bay 7 is 2 1/8" too long at 37' 2 3/4", 1.0 ft³ or 1.00 yd³, factor 2.50, so move it`,
		length.Metric:   `Bay 7 is 54 mm too long at 11.347 m, 28 L or 0.76 m³, factor 2.50, so move it`,
	} {
		if got := s.Print(length.Usual(sys)); got != want {
			t.Errorf("got  %s\nwant %s", got, want)
		}
	}
	built := reason.Text{}.Words("at ").Length(25.4).Words(" from ").Tape(304.8)
	if got := built.Print(length.Usual(length.Imperial)); got != `at 1" from 1' 0"` {
		t.Errorf("got %s", got)
	}
}

// Figures with one key share one explanation, and a folded book holds each
// shared list of rules once.
func TestBookSharesAndFolds(t *testing.T) {
	var b reason.Book
	x, y := reason.NewIndex[int](&b), reason.NewIndex[string](&b)
	shared := []reason.Step{{Rule: "one"}, {Rule: "two"}}
	written := 0
	put := func(key int, steps []reason.Step) reason.Ref {
		return x.Put(key, func() reason.Why {
			written++
			return reason.Why{Steps: steps}
		})
	}
	first, again, other := put(1, shared), put(1, nil), put(2, shared)
	own := y.Put("1", func() reason.Why { return reason.Why{Steps: []reason.Step{{Rule: "three"}}} })
	if first != again || first == other || other == own || written != 2 {
		t.Errorf("places %d %d %d %d, %d written", first, again, other, own, written)
	}
	rules, whys := b.Fold(), b.Whys()
	if len(rules) != 3 || len(whys) != 3 {
		t.Fatalf("%d rules of %d explanations", len(rules), len(whys))
	}
	for _, c := range []struct {
		at   reason.Ref
		want []string
	}{{first, []string{"one", "two"}}, {other, []string{"one", "two"}}, {own, []string{"three"}}} {
		for i, rule := range whys[c.at].Rules {
			if rules[rule].Rule != c.want[i] {
				t.Errorf("explanation %d, rule %d is %s, want %s", c.at, i, rules[rule].Rule, c.want[i])
			}
		}
	}
}
