package survey_test

import (
	"fmt"
	"math"
	"math/rand/v2"
	"strings"
	"testing"

	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/survey"
)

func ptr[T any](v T) *T { return &v }

// levelPage is a page of rod readings in feet: back and fore at turning points.
func levelPage(start float64, backs, fores []float64) job.Book {
	foot := func(v float64) *length.Length { return ptr(length.Length(v) * length.Foot) }
	b := job.Book{Kind: job.Rod, Start: foot(start), Rows: []job.Reading{{Mark: "bench mark", Back: foot(backs[0])}}}
	for i, f := range fores {
		row := job.Reading{Mark: "turning point", Fore: foot(f)}
		if i == len(fores)-1 {
			row.Mark = "bench mark"
		} else {
			row.Back = foot(backs[i+1])
		}
		b.Rows = append(b.Rows, row)
	}
	return b
}

// A worked example of differential levelling from a textbook of elementary
// surveying (from memory): from a bench mark at 2053.18 ft round a loop of
// seven set-ups; backsights add up to 40.24 and foresights to 40.21, so the
// loop closes 0.03 ft high. Its heights of instrument and elevations stand in
// the book's page.
func TestLevellingWorkedExample(t *testing.T) {
	b := levelPage(2053.18,
		[]float64{1.33, 0.22, 0.96, 0.46, 11.95, 12.55, 12.77},
		[]float64{8.37, 7.91, 11.72, 8.71, 2.61, 0.68, 0.21})
	l := survey.LevelBook(b)
	feet := func(v length.Length) float64 { return math.Round(float64(v/length.Foot)*100) / 100 }
	for i, want := range []float64{2054.51, 2046.36, 2039.41, 2028.15, 2031.39, 2041.33, 2053.42} {
		if got := feet(l.Setups[i]); got != want {
			t.Errorf("height of instrument %d: %.2f, the book has %.2f", i+1, got, want)
		}
	}
	for i, want := range []float64{2053.18, 2046.14, 2038.45, 2027.69, 2019.44, 2028.78, 2040.65, 2053.21} {
		if got := feet(l.Heights[i]); got != want {
			t.Errorf("elevation %d: %.2f, the book has %.2f", i+1, got, want)
		}
	}
	if feet(l.SumBack) != 40.24 || feet(l.SumFore) != 40.21 || feet(l.Error) != 0.03 || !l.Closed {
		t.Errorf("page check: %.2f - %.2f, error %.2f", feet(l.SumBack), feet(l.SumFore), feet(l.Error))
	}
	b.Spread = true
	if l := survey.LevelBook(b); !length.Same(l.Heights[7], l.Heights[0]) || !near(l.Heights[4]/length.Foot, length.Length(2019.44-0.03*4/7), 1e-6) {
		t.Errorf("spread evenly over the set-ups: %v, %v", l.Heights[4]/length.Foot, l.Heights[7]/length.Foot)
	}
}

// Third-order levelling: 12 mm times the root of the kilometres (FGCC, from
// memory). Four sights of 250 m are a kilometre.
func TestThirdOrderAllowance(t *testing.T) {
	b := levelPage(0, []float64{5, 5}, []float64{5, 5})
	b.Allow = job.ThirdOrder
	for i := range b.Rows {
		b.Rows[i].BackSight, b.Rows[i].Sight = 250*length.Metre, 250*length.Metre
	}
	if l := survey.LevelBook(b); !length.Same(l.Allow, 12) || !length.Same(l.Circuit, length.Metre*1000) {
		t.Errorf("allowed %v over %v, want 12 mm over a kilometre", l.Allow, l.Circuit)
	}
}

// A two-peg test by hand: the pegs 0.3 m apart in height; 1 mm in each 10 m
// up. From 2 and 32 m the readings are 0.2 and 3.2 mm too high.
func TestTwoPegs(t *testing.T) {
	got := survey.Pegs{MidA: 1501.5, MidB: 1201.5, EndA: 1400.2, EndB: 1103.2, FarA: 2000, FarB: 32000}.Test()
	if !length.Same(got.Difference, 300) || math.Abs(got.Tilt-0.1) > 1e-9 || !near(got.AtThirty, 3, 1e-9) || got.Passes {
		t.Errorf("got %+v", got)
	}
	if fine := (survey.Pegs{MidA: 1500, MidB: 1200, EndA: 1400, EndB: 1101, FarA: 2000, FarB: 32000}).Test(); !fine.Passes {
		t.Errorf("1 mm in 30 m is within 1.5: %+v", fine)
	}
}

// Sights that balance cancel the tilt; readings with distances are corrected
// by it. Ground is known, the readings are made from it.
func TestTiltIsTakenOut(t *testing.T) {
	read := func(ground, far length.Length) *length.Length { return ptr(2000 - ground + 0.2*far/1000) }
	b := job.Book{Kind: job.Rod, Start: ptr(length.Length(0)), Tilt: 0.2, Rows: []job.Reading{
		{Run: "R1", Back: read(0, 5000), BackSight: 5000},
		{Run: "R1", At: 10000, Side: read(-130, 15000), Sight: 15000},
		{Run: "R1", At: 40000, Fore: read(410, 45000), Sight: 45000},
	}}
	l := survey.LevelBook(b)
	if !length.Same(l.Heights[1], -130) || !length.Same(l.Heights[2], 410) {
		t.Errorf("corrected: %v", l.Heights)
	}
	b.Tilt = 0
	if l := survey.LevelBook(b); !near(l.Heights[2], 410-8, 1e-9) {
		t.Errorf("uncorrected it is out by 0.2 mm on 40 m more: %v", l.Heights[2])
	}
}

// line is two runs of 20 and 10 m with books.
func line(books ...job.Book) job.Line {
	for _, b := range books {
		for i := range b.Rows {
			b.Rows[i].ID = fmt.Sprint("w", i+1)
		}
	}
	return job.Line{ID: "L1", Books: books, Runs: []job.Run{{ID: "R1", Length: ptr(20 * length.Metre)}, {ID: "R2", Length: ptr(10 * length.Metre)}}}
}

// One hillside written down in four field books comes to one profile.
func TestFourBooksOneProfile(t *testing.T) {
	rng := rand.New(rand.NewPCG(4, 4))
	for n := range 500 {
		var at, ground []length.Length
		for s := length.Length(0); s <= 20000; s += 2500 {
			at, ground = append(at, s), append(ground, length.Length(rng.NormFloat64()*300))
		}
		base := ground[0]
		drops := job.Book{ID: "B1", Kind: job.Drops, Run: "R1"}
		rises := job.Book{ID: "B2", Kind: job.Rises, Run: "R1"}
		rod := job.Book{ID: "B3", Kind: job.Rod, Start: &base}
		heights := line()
		for i := range at {
			drops.Rows = append(drops.Rows, job.Reading{At: at[i], Drop: 1500 - ground[i]})
			row := job.Reading{At: at[i]}
			if i > 0 {
				row.Rise = ground[i] - ground[i-1]
			}
			rises.Rows = append(rises.Rows, row)
			heights.Runs[0].Ground = append(heights.Runs[0].Ground, job.GroundPoint{At: at[i], Height: ground[i]})
			r := job.Reading{Run: "R1", At: at[i]}
			switch {
			case i == 0:
				r.Back = ptr(1400 - ground[i] + base)
			case i == 4: // a turning point; the level moves
				r.Fore, r.Back = ptr(1400-ground[i]+base), ptr(900-ground[i])
			case i < 4:
				r.Side = ptr(1400 - ground[i] + base)
			default:
				r.Side = ptr(900 - ground[i])
			}
			rod.Rows = append(rod.Rows, r)
		}
		// The rod page's line of sight is at 1400 over the first point's base.
		for i := range rod.Rows[:5] {
			for _, v := range []*length.Length{rod.Rows[i].Side, rod.Rows[i].Fore} {
				if v != nil {
					*v = base + *rod.Rows[0].Back - ground[i]
				}
			}
		}
		want := survey.Reduce(heights, "").Runs[0]
		for _, b := range []job.Book{drops, rises, rod} {
			got := survey.Reduce(line(b), "").Runs[0]
			shift := want.Points[0].Height - got.Points[0].Height
			for i := range want.Points {
				if !near(got.Points[i].Height+shift, want.Points[i].Height, 1e-6) || !length.Same(got.Points[i].At, want.Points[i].At) {
					t.Fatalf("hillside %d by %s: point %d at %v is %v, want %v", n, b.Kind, i, got.Points[i].At, got.Points[i].Height+shift, want.Points[i].Height)
				}
			}
		}
	}
}

// A corner has one height: the second string is tied to the first where they
// meet, whatever height each was tied at.
func TestCornerHasOneHeight(t *testing.T) {
	l := line(
		job.Book{ID: "B1", Kind: job.Drops, Run: "R1", Rows: []job.Reading{{At: 0, Drop: 300}, {At: 20000, Drop: 800}}},
		job.Book{ID: "B2", Kind: job.Drops, Run: "R2", Rows: []job.Reading{{At: 0, Drop: 1000}, {At: 10000, Drop: 700}}},
	)
	s := survey.Reduce(l, "/lines/L1")
	a, b := s.Runs[0].Points, s.Runs[1].Points
	if !length.Same(a[len(a)-1].Height, b[0].Height) || !length.Same(b[1].Height-b[0].Height, 300) || !length.Same(a[1].Height-a[0].Height, -500) {
		t.Errorf("got %v then %v", a, b)
	}
	if p := a[0]; p.Path != "/lines/L1/books/B1/rows/w1/drop" || p.Sign != -1 {
		t.Errorf("the first height comes from %q, sign %v", p.Path, p.Sign)
	}
}

// Round a closed line the heights close; what they miss is spread with the
// distance, and reported.
func TestHeightsRoundAClosedLine(t *testing.T) {
	l := job.Line{Closed: true, Runs: []job.Run{{ID: "R1", Length: ptr(length.Length(4000))}, {ID: "R2", Length: ptr(length.Length(3000))}, {ID: "R3", Length: ptr(length.Length(5000))}}}
	for i, rise := range []length.Length{100, 50, -138} { // 12 mm are missing
		l.Books = append(l.Books, job.Book{ID: string(rune('A' + i)), Kind: job.Rises, Run: l.Runs[i].ID, Rows: []job.Reading{{At: 0}, {At: *l.Runs[i].Length, Rise: rise}}})
	}
	s := survey.Reduce(l, "")
	if s.Loop == nil || !length.Same(s.Loop.Error, 12) {
		t.Fatalf("loop %+v", s.Loop)
	}
	first, last := s.Runs[0].Points[0], s.Runs[2].Points[len(s.Runs[2].Points)-1]
	if !length.Same(first.Height, last.Height) || !length.Same(s.Runs[1].Points[0].Height, 100-4) {
		t.Errorf("spread: %v, %v, %v", first.Height, s.Runs[1].Points[0].Height, last.Height)
	}
}

// A slope tape is the long side over its rise: 5 m of tape over 3 m of rise
// are 4 m level (3-4-5).
func TestSlopeTapeIsReduced(t *testing.T) {
	l := job.Line{Runs: []job.Run{{ID: "R1", Length: ptr(15 * length.Metre), Taped: job.TapedSlope,
		Ground: []job.GroundPoint{{At: 0}, {At: 5000, Height: 3000}, {At: 10000, Height: 6000}, {At: 15000, Height: 6000}}}}}
	g := survey.Reduce(l, "").Runs[0]
	if !length.Same(g.Length, 13000) || !length.Same(g.Correction, 2000) || !length.Same(g.Points[1].At, 4000) {
		t.Errorf("level %v, correction %v, points %v", g.Length, g.Correction, g.Points)
	}
	l.Runs[0].Ground[1].Height = 5100
	if g := survey.Reduce(l, "").Runs[0]; g.Steep == nil || g.Steep.From != 0 || g.Steep.To != 5000 {
		t.Errorf("5.1 m of rise on 5 m of tape was let pass: %+v", g.Steep)
	}
}

// The blunder: a drop of 13 in between neighbours of 2 and 3.
func TestSlipIsPointedAt(t *testing.T) {
	inch := length.Inch
	b := job.Book{ID: "B1", Kind: job.Drops, Run: "R1"}
	for i, d := range []length.Length{2, 2.5, 2, 13, 3, 3.5, 4} {
		b.Rows = append(b.Rows, job.Reading{At: length.Length(i) * 2000, Drop: d * inch})
	}
	blunders := survey.Reduce(line(b), "").Blunders
	if len(blunders) != 1 || blunders[0].Path != "/books/B1/rows/w4/drop" || !length.Same(blunders[0].Before, 2*inch) || !length.Same(blunders[0].After, 3*inch) {
		t.Fatalf("got %+v", blunders)
	}
	if len(blunders[0].Likely) == 0 || !length.Same(blunders[0].Likely[0], 3*inch) {
		t.Errorf("likely meant %v, want 3 in, ten less", blunders[0].Likely)
	}
	b.Rows[3].Sure = true
	if s := survey.Reduce(line(b), "").Blunders; len(s) != 0 {
		t.Errorf("measured twice and still asked: %+v", s)
	}
}

// Ground that goes up and down by 15 mm at every entry stands 30 mm off the
// line between its neighbours: five times that is a blunder, a little less is none.
func TestSlipStandsOutFiveTimes(t *testing.T) {
	for out, want := range map[length.Length]int{149: 0, 151: 1} {
		b := job.Book{ID: "B1", Kind: job.Drops, Run: "R1"}
		for i := range 17 {
			h := length.Length(500 + 15 - 30*(i%2))
			if i == 8 {
				h = 500 - 15 + out
			}
			b.Rows = append(b.Rows, job.Reading{At: length.Length(i) * 2000, Drop: h})
		}
		if s := survey.Reduce(line(b), "").Blunders; len(s) != want {
			t.Errorf("%v mm off: %+v, want %d", out, s, want)
		}
	}
}

// Rough ground, steady slopes, banks and ditches are no blunders; one entry that
// is ten inches or more out of a smooth series is one.
func TestSlipsOnRandomGround(t *testing.T) {
	rng := rand.New(rand.NewPCG(6, 1))
	false1, missed := 0, 0
	const series = 2000
	for range series {
		b := job.Book{ID: "B1", Kind: job.Drops, Run: "R1"}
		slope, rough, h := rng.NormFloat64()*0.1, 5+rng.Float64()*25, 500.0
		for i := range 9 {
			h += slope*2000 + rng.NormFloat64()*rough
			b.Rows = append(b.Rows, job.Reading{At: length.Length(i) * 2000, Drop: length.Length(h)})
		}
		false1 += len(survey.Reduce(line(b), "").Blunders)
		at := 1 + rng.IntN(7)
		b.Rows[at].Drop += length.Length([]float64{-1, 1}[rng.IntN(2)] * (300 + 10*rough))
		found := false
		for _, s := range survey.Reduce(line(b), "").Blunders {
			found = found || strings.HasSuffix(s.Path, "/w"+string(rune('1'+at))+"/drop")
		}
		if !found {
			missed++
		}
	}
	if false1 > series/50 || missed > series/10 {
		t.Errorf("%d false alarms and %d missed slips in %d series", false1, missed, series)
	}
	t.Logf("%d false alarms, %d missed of %d", false1, missed, series)
}

func TestConflictingHeightsAreReported(t *testing.T) {
	l := line(job.Book{ID: "B1", Kind: job.Drops, Run: "R1", Rows: []job.Reading{{At: 0, Drop: 100}, {At: 8000, Drop: 100}, {At: 20000, Drop: 100}}})
	l.Runs[0].Ground = []job.GroundPoint{{At: 0, Height: 50}, {At: 8000, Height: 90}, {At: 20000, Height: 50}}
	s := survey.Reduce(l, "")
	if len(s.Conflicts) != 1 || s.Conflicts[0].At != 8000 || !length.Same(s.Conflicts[0].Have, 90) || !length.Same(s.Conflicts[0].Given, 50) {
		t.Errorf("got %+v", s.Conflicts)
	}
}

// A walk's page, read without error, gives back the ground it was read from.
func TestRouteAndPage(t *testing.T) {
	for _, closed := range []bool{false, true} {
		l := job.Line{ID: "L1", Closed: closed, Runs: []job.Run{{ID: "R1", Length: ptr(47 * length.Metre)}, {ID: "R2", Length: ptr(38 * length.Metre)}, {ID: "R3", Length: ptr(61 * length.Metre)}}}
		truth := func(s survey.Stop) length.Length {
			base := map[string]length.Length{"R1": 0, "R2": 47000, "R3": 85000}[s.Run] + s.At
			if closed {
				base = length.Length(math.Mod(float64(base), 146000))
			}
			return length.Length(800 * math.Sin(float64(base)/9000))
		}
		stops := survey.Route(l, 4*length.Metre, 25*length.Metre)
		page := job.Book{ID: "B1", Kind: job.Rod, Start: ptr(truth(stops[0]))}
		for _, s := range stops {
			page.Rows = survey.Record(page.Rows, s, length.Length(3000+s.Setup*10)-truth(s), 9000)
		}
		levels := survey.LevelBook(page)
		if !levels.Closed || levels.Error.Abs() > 1e-6 || len(levels.Setups) < 5 {
			t.Fatalf("closed %v: %d set-ups, error %v", closed, len(levels.Setups), levels.Error)
		}
		l.Books = []job.Book{page}
		for r, g := range survey.Reduce(l, "").Runs {
			for _, p := range g.Points {
				want := truth(survey.Stop{Run: l.Runs[r].ID, At: p.At})
				if !near(p.Height, want, 1e-6) {
					t.Fatalf("closed %v, run %d at %v: %v, want %v", closed, r+1, p.At, p.Height, want)
				}
			}
			if len(g.Points) < 10 {
				t.Fatalf("run %d has %d points", r+1, len(g.Points))
			}
		}
	}
}

// Pages that hang together come to one profile whatever order they are kept
// in: a chain of pages over three runs, each sharing its ends with the next.
func TestOrderOfPagesDoesNotMatter(t *testing.T) {
	rng := rand.New(rand.NewPCG(7, 7))
	for n := range 300 {
		l := job.Line{ID: "L1"}
		var books []job.Book
		height := length.Length(0)
		for r := range 3 {
			id := string(rune('1' + r))
			l.Runs = append(l.Runs, job.Run{ID: "R" + id, Length: ptr(12 * length.Metre)})
			book := job.Book{ID: "B" + id, Run: "R" + id, Kind: []job.BookKind{job.Drops, job.Rises}[rng.IntN(2)]}
			string0 := height + 900
			for i := range 5 {
				next := height
				if i > 0 {
					next += length.Length(rng.NormFloat64() * 120)
				}
				book.Rows = append(book.Rows, job.Reading{At: length.Length(i) * 3000, Drop: string0 - next, Rise: next - height})
				height = next
			}
			books = append(books, book)
		}
		// The datum is a mark on the middle run, so that pages lie on both sides of it.
		l.Runs[1].Ground = []job.GroundPoint{{At: 0, Height: 5000}}
		l.Books = books
		want := survey.Reduce(l, "")
		for range 4 {
			rng.Shuffle(len(books), func(i, j int) { books[i], books[j] = books[j], books[i] })
			l.Books = append([]job.Book(nil), books...)
			got := survey.Reduce(l, "")
			if len(got.Conflicts) > 0 {
				t.Fatalf("chain %d: %+v", n, got.Conflicts)
			}
			for r := range want.Runs {
				for i, p := range want.Runs[r].Points {
					if q := got.Runs[r].Points[i]; !near(q.Height, p.Height, 1e-6) || !length.Same(q.At, p.At) {
						t.Fatalf("chain %d: run %d at %v is %v, was %v", n, r+1, p.At, q.Height, p.Height)
					}
				}
			}
		}
		first, last := want.Runs[0].Points[0].Height, want.Runs[2].Points[4].Height
		if fall := want.Runs[1].Points[0].Height; !length.Same(fall, 5000) || !near(last-first, height, 1e-6) {
			t.Fatalf("chain %d: the datum is at %v, the ends differ by %v, want %v", n, fall, last-first, height)
		}
	}
}

// A bank, a ditch's edge and a kerb are ground, not blunders.
func TestBanksAreNoSlips(t *testing.T) {
	for what, heights := range map[string][]length.Length{
		"a bank":         {0, 5, 10, 600, 610, 615, 620},
		"a wide ditch":   {0, 0, -500, -520, -510, 5, 0},
		"a steady slope": {0, 300, 600, 900, 1200, 1500},
		"a terrace":      {0, 400, 400, 800, 800, 1200},
		"a small dip":    {0, 0, -90, 0, 0, 0},
	} {
		l := line()
		for i, h := range heights {
			l.Runs[0].Ground = append(l.Runs[0].Ground, job.GroundPoint{At: length.Length(i) * 2000, Height: h})
		}
		if s := survey.Reduce(l, "").Blunders; len(s) > 0 {
			t.Errorf("%s is called a slip: %+v", what, s)
		}
	}
}
