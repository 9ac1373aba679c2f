package length_test

import (
	"errors"
	"fmt"
	"math"
	"math/rand/v2"
	"strings"
	"testing"

	"mallow/core/length"
)

var (
	sixteenths = length.Usual(length.Imperial)
	millimetre = length.Usual(length.Metric)
)

// International units: NIST Handbook 44, Appendix C (published).
func TestUnitsArePublishedValues(t *testing.T) {
	for _, c := range []struct {
		what      string
		got, want float64
	}{
		{"inch, mm", float64(length.Inch), 25.4},
		{"foot, mm", float64(length.Foot), 304.8},
		{"cubic yard, m³", float64(length.CubicYard), 0.764554857984},
		{"cubic yard, ft³", length.CubicYard.CubicFeet(), 27},
		{"pound, kg", float64(length.Pound), 0.45359237},
	} {
		if math.Abs(c.got-c.want) > 1e-12 {
			t.Errorf("%s: got %.15f, want %.15f", c.what, c.got, c.want)
		}
	}
}

func TestParse(t *testing.T) {
	const in = 25.4
	for _, c := range []struct {
		text string
		sys  length.System
		want float64
	}{
		{`8' 6 1/2"`, length.Imperial, 102.5 * in},
		{`8-6-1/2`, length.Imperial, 102.5 * in},
		{`8-6-1/2`, length.Metric, 102.5 * in},
		{`8ft 6.5`, length.Imperial, 102.5 * in},
		{`102.5in`, length.Metric, 102.5 * in},
		{`2.45m`, length.Imperial, 2450},
		{`2450`, length.Metric, 2450},
		{`2450mm`, length.Imperial, 2450},
		{`245 cm`, length.Imperial, 2450},
		{`2 m 45 cm`, length.Metric, 2450},
		{`96`, length.Imperial, 96 * in},
		{`6 1/2`, length.Imperial, 6.5 * in},
		{`6-1/2`, length.Imperial, 6.5 * in},
		{`6-1/2"`, length.Imperial, 6.5 * in},
		{`1/16`, length.Metric, in / 16},
		{`8'-6"`, length.Imperial, 102 * in},
		{`8' 1/2"`, length.Imperial, 96.5 * in},
		{`8′ 6½″`, length.Imperial, 102.5 * in},
		{`8’6”`, length.Imperial, 102 * in},
		{`5''`, length.Metric, 5 * in},
		{`131-6`, length.Imperial, 131.5 * 12 * in},
		{`-8-6-1/2`, length.Imperial, -102.5 * in},
		{`−2"`, length.Imperial, -2 * in},
		{`+3 in`, length.Imperial, 3 * in},
		{`2,45 m`, length.Metric, 2450},
		{`10 FEET 3 Inches`, length.Metric, 123 * in},
		{`0`, length.Imperial, 0},
		{`1yd`, length.Metric, 36 * in},
	} {
		got, err := length.Parse(c.text, c.sys)
		if err != nil {
			t.Errorf("%q: %v", c.text, err)
		} else if math.Abs(float64(got)-c.want) > 1e-9 {
			t.Errorf("%q: got %v mm, want %v", c.text, got, c.want)
		}
	}
}

// A wrong entry is refused, and the error names the part that was not
// understood.
func TestParseSaysWhatItDidNotUnderstand(t *testing.T) {
	for text, part := range map[string]string{
		"":           "",
		"eight":      "eight",
		"8' x":       "x",
		"8 6":        "6",
		"8-14":       "8-14",
		"8' 14\"":    "14",
		"6\" 8'":     "8 '",
		"8' 2m":      "2 m",
		"3/2":        "3/2",
		"1/0":        "1/0",
		"1.5 1/2":    "1",
		"1,250":      "1,250",
		"1.2.3":      "1.2.3",
		"8 furlongs": "furlongs",
		"8#":         "#",
		"8-":         "-",
		"2m 30":      "30",
		"9999999 m":  "",
		"--8":        "-",
	} {
		_, err := length.Parse(text, length.Imperial)
		var bad *length.ParseError
		if !errors.As(err, &bad) {
			t.Errorf("%q: got %v, want a ParseError", text, err)
			continue
		}
		if bad.Part != part || bad.Why == "" {
			t.Errorf("%q: names %q (%s), want %q", text, bad.Part, bad.Why, part)
		}
	}
}

func TestBareNumberOffersItsOtherMeanings(t *testing.T) {
	r, err := length.Read("131.5", length.Imperial)
	if err != nil || !r.Bare {
		t.Fatalf("got %+v, %v", r, err)
	}
	if !length.Same(r.Length, 131.5*length.Inch) || !length.Same(r.Others[0].Length, 131.5*length.Foot) || !length.Same(r.Others[1].Length, 131.5) {
		t.Errorf("got %+v", r)
	}
}

func TestPrint(t *testing.T) {
	for _, c := range []struct {
		l           length.Length
		u           length.Units
		short, tape string
	}{
		{42 * length.Inch, sixteenths, `42"`, `3' 6"`},
		{102.5 * length.Inch, sixteenths, `8' 6 1/2"`, `8' 6 1/2"`},
		{length.Inch / 16, sixteenths, `1/16"`, `0' 1/16"`},
		{length.Inch / 16, length.Units{System: length.Imperial, SmallestMark: length.Inch / 8}, `1/8"`, `0' 1/8"`}, // halfway goes away from zero
		{-length.Inch / 16, length.Units{System: length.Imperial, SmallestMark: length.Inch / 8}, `-1/8"`, `-0' 1/8"`},
		{-0.1, sixteenths, `0"`, `0' 0"`}, // no minus before nothing
		{59.99 * length.Inch, sixteenths, `5' 0"`, `5' 0"`},
		{600, millimetre, `600 mm`, `0.600 m`},
		{11347, millimetre, `11.347 m`, `11.347 m`},
		{9999.6, millimetre, `10.000 m`, `10.000 m`},
		{1234, length.Units{System: length.Metric, SmallestMark: 10}, `1230 mm`, `1.23 m`},
	} {
		if got := c.u.Short(c.l); got != c.short {
			t.Errorf("Short(%v): got %s, want %s", c.l, got, c.short)
		}
		if got := c.u.Tape(c.l); strings.Replace(got, "' 0 ", "' ", 1) != c.tape && got != c.tape {
			t.Errorf("Tape(%v): got %s, want %s", c.l, got, c.tape)
		}
	}
}

// A volume is printed to what a bucket tells, soil to what a spade works.
func TestVolumesAndSoil(t *testing.T) {
	feet, metres := length.Usual(length.Imperial), length.Usual(length.Metric)
	for _, c := range []struct {
		v              length.Volume
		imperial, litr string
	}{
		{0, "0.00 ft³", "0.0 L"}, {length.CubicFoot, "1.0 ft³", "28 L"}, {2.66 * length.CubicFoot, "2.7 ft³", "75 L"},
		{0.3 * length.CubicFoot, "0.30 ft³", "8.5 L"}, {-2 * length.CubicFoot, "-2.0 ft³", "-57 L"},
	} {
		if a, b := feet.Small(c.v), metres.Small(c.v); a != c.imperial || b != c.litr {
			t.Errorf("%v is printed as %s and %s, want %s and %s", c.v, a, b, c.imperial, c.litr)
		}
	}
	for _, c := range []struct{ soil, feet, metres length.Length }{
		{0, 0, 0}, {1, 12.7, 5}, {12.7, 12.7, 15}, {12.7 + length.Tolerance/2, 12.7, 15}, {12.8, 25.4, 15}, {100, 101.6, 100}, {100.5, 101.6, 105},
	} {
		if a, b := feet.Dug(c.soil), metres.Dug(c.soil); !length.Same(a, c.feet) || b != c.metres {
			t.Errorf("%v of soil is dug as %v and %v, want %v and %v", c.soil, a, b, c.feet, c.metres)
		}
	}
}

// What is printed reads back as the printed mark, in both styles and on every
// tape; and the mark is the nearest one.
func TestRoundTrip(t *testing.T) {
	rng := rand.New(rand.NewPCG(1, 2))
	for _, sys := range []length.System{length.Imperial, length.Metric} {
		for _, mark := range length.Marks(sys) {
			u := length.Units{System: sys, SmallestMark: mark}
			for range 4000 {
				l := length.Length((rng.Float64() - 0.3) * math.Pow(10, 1+4*rng.Float64()))
				want := u.Round(l)
				if d := (want - l).Abs(); d > mark/2+1e-5 {
					t.Fatalf("%v rounds to %v on marks of %v", l, want, mark)
				}
				for _, text := range []string{u.Short(l), u.Tape(l)} {
					got, err := length.Parse(text, sys)
					if err != nil || !length.Same(got, want) {
						t.Fatalf("%v prints as %s, which reads as %v (%v), want %v", l, text, got, err, want)
					}
				}
			}
		}
	}
}

func FuzzParse(f *testing.F) {
	for _, s := range []string{`8' 6 1/2"`, "8-6-1/2", "2.45m", "2,45 m", "1/2", "--", "8 6", "½", "9e9", "' \" /"} {
		f.Add(s)
	}
	f.Fuzz(func(t *testing.T, s string) {
		for _, u := range []length.Units{sixteenths, millimetre} {
			l, err := length.Parse(s, u.System)
			if err != nil {
				var bad *length.ParseError
				if !errors.As(err, &bad) || bad.Why == "" {
					t.Fatalf("%q: %v does not say why", s, err)
				}
				continue
			}
			if math.IsNaN(float64(l)) || l.Abs() > length.Longest {
				t.Fatalf("%q reads as %v", s, l)
			}
			again, err := length.Parse(u.Tape(l), u.System)
			if err != nil || !length.Same(again, u.Round(l)) {
				t.Fatalf("%q reads as %v and prints as %s, which reads as %v (%v)", s, l, u.Tape(l), again, err)
			}
		}
	})
}

func BenchmarkParse(b *testing.B) {
	b.ReportAllocs()
	for b.Loop() {
		if _, err := length.Parse(`8' 6 1/2"`, length.Imperial); err != nil {
			b.Fatal(err)
		}
	}
}

func BenchmarkPrint(b *testing.B) {
	b.ReportAllocs()
	for b.Loop() {
		_ = sixteenths.Tape(2358.5)
	}
}

func ExampleParse() {
	l, _ := length.Parse("8-6-1/2", length.Metric)
	fmt.Println(length.Usual(length.Imperial).Tape(l), length.Usual(length.Metric).Short(l))
	_, err := length.Parse("8' x", length.Imperial)
	fmt.Println(err)
	// Output:
	// 8' 6 1/2" 2604 mm
	// "8' x": did not understand "x": a number belongs here
}
