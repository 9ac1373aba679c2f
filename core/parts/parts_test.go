package parts_test

import (
	"math"
	"math/rand/v2"
	"testing"

	"mallow/core/length"
	"mallow/core/parts"
)

const inch = length.Inch

// sum is what pieces and gaps come to, from where each piece is said to begin: pieces
// as wide as they are, gaps alike, and all of it as long as what is to be filled. What
// is measured by hand, gaps in marks, comes to the same within half a mark.
func sum(t *testing.T, f parts.Fill, clear, width, mark length.Length, ends bool) {
	t.Helper()
	at := f.At(width, ends)
	if len(at) != f.Pieces {
		t.Fatalf("%d places for %d pieces", len(at), f.Pieces)
	}
	wide := func(i int) length.Length {
		if f.Ripped > 0 && i == f.Pieces-1 || f.Ripped == 2 && i == 0 {
			return f.Rip
		}
		return width
	}
	before := length.Length(0)
	gap := func(g length.Length) {
		if g < f.Gap-mark || g > f.Gap+mark+1e-6 {
			t.Fatalf("a gap of %v beside gaps of %v: %+v", g, f.Gap, f)
		}
	}
	all := length.Length(0)
	for i, a := range at {
		if ends || i > 0 {
			gap(a - before)
		}
		before = a + wide(i)
		all += wide(i)
	}
	if ends {
		gap(clear - before)
	} else if f.Gaps > 0 && !length.Same(before, clear) {
		t.Fatalf("the pieces end at %v of %v: %+v", before, clear, f)
	}
	said := all + length.Length(f.Gaps)*f.Gap + length.Length(f.Wider)*mark
	if f.Gaps > 0 && (said-clear).Abs() > mark/2+1e-6 {
		t.Fatalf("as it is said it comes to %v of %v: %+v", said, clear, f)
	}
}

// Against every number of pieces, on random lengths.
func TestAlongAgainstEveryNumber(t *testing.T) {
	r := rand.New(rand.NewPCG(21, 6))
	for range 3000 {
		mark := []length.Length{1, inch / 16}[r.IntN(2)]
		width := length.Length(20+r.IntN(150)) * mark
		clear := length.Length(200+r.IntN(3000)) * mark
		if r.IntN(2) == 0 { // a bought width is no whole number of marks
			width, clear = width+length.Length(r.Float64())*mark, clear+length.Length(r.Float64())*mark
		}
		least := length.Length(r.IntN(30)) * mark
		gap := parts.Gap{Least: least, Want: least + length.Length(r.IntN(20))*mark, Most: least + length.Length(20+r.IntN(40))*mark}
		ends := r.IntN(2) == 0
		want, n := math.Inf(1), 0
		for k := 1; k < 400; k++ {
			gaps := k - 1
			if ends {
				gaps = k + 1
			}
			over := float64((clear - length.Length(k)*width) / mark)
			if over < -1e-6 || gaps == 0 {
				continue
			}
			each := math.Floor(over/float64(gaps) + 1e-9)
			widest := math.Ceil(over/float64(gaps) - 1e-9)
			if each < float64(gap.Least/mark)-1e-6 || widest > float64(gap.Most/mark)+1e-6 {
				continue
			}
			if d := math.Abs(over/float64(gaps) - float64(gap.Want/mark)); d <= want+1e-9 {
				want, n = d, k
			}
		}
		f, ok := parts.Along(clear, width, gap, mark, ends)
		if ok != (n > 0) || ok && f.Pieces != n {
			t.Fatalf("%v of %v with %+v: %+v, %v; want %d", clear, width, gap, f, ok, n)
		}
		if ok {
			sum(t, f, clear, width, mark, ends)
		}
	}
}

// Worked by hand.
func TestByHand(t *testing.T) {
	// A bay of 8 ft on posts of 3 1/2 in: 92 1/2 in clear. Pickets of 3 1/2 in with about 2 1/2 in:
	// 15 pickets take 52 1/2, and 16 gaps 40: 2 1/2 in each.
	f, ok := parts.Along(92.5*inch, 3.5*inch, parts.Gap{Want: 2.5 * inch, Least: 1.5 * inch, Most: 3.5 * inch}, inch/16, true)
	if !ok || f.Pieces != 15 || f.Gap != 2.5*inch || f.Wider != 0 {
		t.Errorf("pickets in an eight-foot bay: %+v", f)
	}
	// 3.6 m of slats of 90 mm with a gap of 20 mm, from post to post: 33 slats are 2970 and 32 gaps
	// 630 mm, 19 and 22 of them 20 mm.
	f, ok = parts.Along(3600, 90, parts.Gap{Want: 20, Least: 12, Most: 28}, 1, false)
	if !ok || f.Pieces != 33 || f.Gap != 19 || f.Wider != 22 || 33*90+32*19+22 != 3600 {
		t.Errorf("slats in 3.6 m: %+v", f)
	}
	sum(t, f, 3600, 90, 1, false)
	// 95 mm boards on a run of 14672, to the outer faces of end posts of 90, with a tape of
	// centimeters: 118 boards are 11210, and 117 gaps 3552: 30.4 each, which is 30 and four of
	// them 40 (3510 + 40, 2 mm less than there is). 114 boards would end 57 cm short.
	f, ok = parts.Along(14762, 95, parts.Gap{Want: 30, Least: 20, Most: 40}, 10, false)
	if !ok || f.Pieces != 118 || f.Gap != 30 || f.Wider != 4 {
		t.Errorf("boards between the marks of a tape: %+v", f)
	}
	sum(t, f, 14762, 95, 10, false)
	// Boards of 5 1/2 in set tight over 90 in: 16 are 88, the 17th is ripped to 2 in; with a third of
	// a board, 1 13/16 in, as the least that stands. A least of 2 1/2 in makes it two of 3 3/4.
	f, ok = parts.Rip(90*inch, 5.5*inch, 0, 1.8125*inch, inch/16)
	if !ok || f.Pieces != 17 || f.Ripped != 1 || f.Rip != 2*inch {
		t.Errorf("tight boards: %+v", f)
	}
	f, ok = parts.Rip(90*inch, 5.5*inch, 0, 2.5*inch, inch/16)
	if !ok || f.Pieces != 17 || f.Ripped != 2 || f.Rip != 3.75*inch || 15*5.5+2*3.75 != 90 {
		t.Errorf("no sliver: %+v", f)
	}
	// Eight-foot horizontal boards of 5 1/2 in with 1/2 in between in a fence of 6 ft: 12 rows, 11 gaps, 71 1/2 in.
	f, _ = parts.Along(71.5*inch, 5.5*inch, parts.Gap{Want: inch / 2, Least: inch / 4, Most: inch}, inch/16, false)
	if f.Pieces != 12 || f.Gap != inch/2 || f.Wider != 0 {
		t.Errorf("rows: %+v", f)
	}
	for _, c := range []struct {
		long, spacing, in length.Length
		want              int
	}{
		{46 * inch, 12 * inch, 2 * inch, 5}, // 42 in between the first and the last tie: four spaces of 10 1/2
		{10 * length.Foot, 24 * inch, 0, 6}, {24 * inch, 24 * inch, 0, 2}, {3 * inch, 24 * inch, 2 * inch, 1}, {0, inch, 0, 0}, {inch, 0, 0, 0},
	} {
		if got := parts.Spaced(c.long, c.spacing, c.in); got != c.want {
			t.Errorf("%d along %v every %v, want %d", got, c.long, c.spacing, c.want)
		}
	}
	// Bands on a four-foot fence: three an end and direction; five on six feet (common practice).
	if parts.Bands(4*length.Foot) != 3 || parts.Bands(6*length.Foot) != 5 || parts.Bands(3.5*length.Foot) != 3 || parts.Bands(inch) != 1 {
		t.Error("bands")
	}
	// Three sides of 60, 40 and 60 ft from rolls of 50: four rolls, 160 of 200 ft. Joined in the first
	// side (at 50), not at the corner of 60, in the second (at 100) and third (at 150).
	if rolls, joints := parts.Rolls([]length.Length{60 * length.Foot, 40 * length.Foot, 60 * length.Foot}, 50*length.Foot, 0); rolls != 4 || joints != 2 {
		t.Errorf("%d rolls with %d joints", rolls, joints)
	}
	if rolls, joints := parts.Rolls([]length.Length{101}, 40, 10); rolls != 4 || joints != 3 { // 40 + 30 + 30 + 1
		t.Errorf("with an overlap %d rolls, %d joints", rolls, joints)
	}
	if got := parts.Paint(10, 2, 0.0001); math.Abs(float64(got)-0.002) > 1e-12 {
		t.Errorf("two coats on ten square metres: %v", got)
	}
}

// Ripped boards fill their bay to the mark, and no board is a sliver.
func TestRipFills(t *testing.T) {
	r := rand.New(rand.NewPCG(21, 7))
	for range 3000 {
		mark := []length.Length{1, inch / 16}[r.IntN(2)]
		width, gap := length.Length(40+r.IntN(120))*mark, length.Length(r.IntN(3)*6)*mark
		sliver := length.Length(math.Ceil(float64(width/mark)/3)) * mark
		clear := length.Length(int(float64(width/mark))+1+r.IntN(3000)) * mark
		if r.IntN(2) == 0 {
			width, clear = width+length.Length(r.Float64())*mark, clear+length.Length(1+r.Float64())*mark
		}
		f, ok := parts.Rip(clear, width, gap, sliver, mark)
		if !ok {
			if (clear - width - gap) > width*2 {
				t.Fatalf("%v of %v is refused", clear, width)
			}
			continue
		}
		sum(t, f, clear, width, mark, false)
		if f.Ripped > 0 && (f.Rip < sliver-1e-9 || f.Rip > width+1e-9) {
			t.Fatalf("%v of %v with %v: a board of %v: %+v", clear, width, gap, f.Rip, f)
		}
	}
}

func TestBadInput(t *testing.T) {
	for _, v := range []length.Length{0, -5} {
		if _, ok := parts.Along(100, v, parts.Gap{Most: 5}, 1, true); ok {
			t.Errorf("pieces %v wide", v)
		}
		if _, ok := parts.Rip(v, 10, 0, 3, 1); ok {
			t.Errorf("a bay of %v", v)
		}
		if rolls, _ := parts.Rolls([]length.Length{100}, v, 0); rolls != 0 {
			t.Errorf("rolls of %v", v)
		}
	}
	if _, ok := parts.Along(1000, 90, parts.Gap{Want: 5, Least: 5, Most: 6}, 1, true); ok {
		t.Error("gaps that cannot be are found")
	}
}
