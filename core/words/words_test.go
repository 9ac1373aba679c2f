package words

import (
	"strings"
	"testing"

	"golang.org/x/text/feature/plural"
	"golang.org/x/text/language"

	"mallow/core/length"
	"mallow/core/reason"
)

func of(t *testing.T, plural Plural, text string) catalogue {
	t.Helper()
	c, err := read([]byte(`{"m": "`+text+`"}`), plural)
	if err != nil {
		t.Fatal(err)
	}
	return c
}

func TestSaysValuesByTheirKinds(t *testing.T) {
	values := V{"post": "P7", "l": 54 * length.Millimetre, "at": 11347 * length.Millimetre, "v": length.CubicFoot, "share": 0.125,
		"more": reason.Say("so ", 25.4*length.Millimetre), "n": 3, "x": 2.5, "side": "left", "gust": reason.Speed(20)}
	for _, c := range []struct{ text, imperial, metric string }{
		{"It stands.", "It stands.", "It stands."},
		{"{post} is {l, length} off at {at, tape}", `P7 is 2 1/8" off at 37' 2 3/4"`, "P7 is 54 mm off at 11.347 m"},
		{"{v, volume} or {v, bulk}", "1.0 ft³ or 0.04 yd³", "28 L or 0.03 m³"},
		{"{share, percent}: {x, number}, {n, number}", "12.5 %: 2.50, 3", "12.5 %: 2.50, 3"},
		{"{more, text}, {gust, speed}", `so 1", 45 mph`, "so 25 mm, 72 km/h"},
		{"Center {post}, {l, length} to the neighbor's curb", `Center P7, 2 1/8" to the neighbor's curb`, "Centre P7, 54 mm to the neighbour's kerb"},
		{"centered, {n, plural, one {center} other {centers}}", "centered, centers", "centered, centres"},
		{"{n, plural, one {post} other {{n, number} posts}}", "3 posts", "3 posts"},
		{"{n, plural, =3 {all} one {post} other {posts}}", "all", "all"},
		{"to the {side, select, left {left} other {right}}", "to the left", "to the left"},
		{"{post, select, P1 {first} other {another}}", "another", "another"},
		// What is missing, or of another kind, is seen.
		{"{who} and {post, length} and {l, tape} and {l}", `[who] and [post] and 0' 2 1/8" and [l]`, "[who] and [post] and 0.054 m and [l]"},
	} {
		said := of(t, plurals["en"], c.text).sentence("m", []V{values})
		if got := said.Print(length.Usual(length.Imperial)); got != c.imperial {
			t.Errorf("%s: got %s, want %s", c.text, got, c.imperial)
		}
		if got := said.Print(length.Usual(length.Metric)); got != c.metric {
			t.Errorf("%s: got %s, want %s", c.text, got, c.metric)
		}
	}
	if got := Plain("no.such-message"); got != "[no.such-message]" {
		t.Errorf("got %s", got)
	}
}

// Another language has other plurals: Polish has three for whole numbers and a
// fourth for parts (Unicode CLDR, plural rules).
func TestPluralsOfAnotherLanguage(t *testing.T) {
	c := of(t, published(language.Polish), "{n, number} {n, plural, one {słupek} few {słupki} many {słupków} other {słupka}}")
	for n, want := range map[any]string{1: "1 słupek", 2: "2 słupki", 5: "5 słupków", 12: "12 słupków", 22: "22 słupki", 0: "0 słupków", 1.5: "1.50 słupka"} {
		if got := c.sentence("m", []V{{"n": n}}).Print(length.Usual(length.Metric)); got != want {
			t.Errorf("%v: got %s, want %s", n, got, want)
		}
	}
}

// published are a language's plurals as golang.org/x/text has them of Unicode
// CLDR.
func published(tag language.Tag) Plural {
	names := map[plural.Form]string{plural.Zero: "zero", plural.One: "one", plural.Two: "two", plural.Few: "few", plural.Many: "many", plural.Other: "other"}
	return func(whole, shown, decimals int) string {
		return names[plural.Cardinal.MatchPlural(tag, whole, shown, shown, decimals, decimals)]
	}
}

// The plurals of each catalogue are the published ones.
func TestPluralsArePublished(t *testing.T) {
	for name, own := range plurals {
		want := published(language.MustParse(name))
		for n := range 1200 {
			for _, v := range []any{n, float64(n) / 10, -n} {
				if got := own.of(v); got != want.of(v) {
					t.Errorf("%s: %v is %s, published %s", name, v, got, want.of(v))
				}
			}
		}
	}
}

// A sentence of words alone is kept once; whoever goes on writing it does not
// write into it.
func TestAFixedSentenceIsNotWrittenInto(t *testing.T) {
	c := of(t, plurals["en"], "Dig.")
	one := append(c.sentence("m", nil), reason.Say(" Then fill.")...)
	two := append(c.sentence("m", nil), reason.Say(" Then rest.")...)
	for want, got := range map[string]reason.Text{"Dig.": c.sentence("m", nil), "Dig. Then fill.": one, "Dig. Then rest.": two} {
		if s := got.Print(length.Usual(length.Metric)); s != want {
			t.Errorf("got %s, want %s", s, want)
		}
	}
}

func TestRefusesMessagesThatCannotBeRead(t *testing.T) {
	for text, want := range map[string]string{
		"a {post":                      "not closed",
		"a } b":                        "not opened",
		"{}":                           "not the name",
		"{two words}":                  "not the name",
		"{l, girth}":                   "none of",
		"{l, length, other {x}}":       "nothing else",
		"{n, plural}":                  "forms follow",
		"{n, plural, one {post}}":      "all others",
		"{n, plural, one {a} other {b": "not closed",
		"{n, plural, other}":           "not closed",
	} {
		if _, err := parse(text); err == nil || !strings.Contains(err.Error(), want) {
			t.Errorf("%s: got %v, want %s", text, err, want)
		}
	}
}

func FuzzParse(f *testing.F) {
	f.Add("{n, plural, one {post} other {{n, number} posts}} at {at, tape}")
	f.Add("{{}{,}")
	f.Fuzz(func(t *testing.T, text string) {
		m, err := parse(text)
		if err != nil {
			return
		}
		// What can be read can be said.
		catalogue{plurals["en"], map[string]entry{"m": {message: m}}}.sentence("m", []V{{"n": 2}})
	})
}

func BenchmarkSay(b *testing.B) {
	spoken()
	for b.Loop() {
		Say("dig.short-bay", V{"post": "P1", "post2": "P2", "span": length.Foot})
	}
}
