package spacing

import (
	"fmt"
	"math"
	"math/rand"
	"testing"

	"mallow/core/length"
)

// best is what the exhaustive search found.
type best struct {
	n, odd, uneven, shift int
	shifts                []int
}

// exhaustive tries every layout with posts on whole millimetres. All numbers
// of the cases are whole and every regular bay is, so an optimum stands on
// whole millimetres too: the limits are differences of posts, and a least sum
// under such limits has whole corners.
func exhaustive(s Stretch) (best, bool) {
	long := int(s.To - s.From)
	open := func(x int) bool {
		for _, c := range s.Closed {
			if at := s.From + length.Length(x); at > c.From && at < c.To {
				return false
			}
		}
		return true
	}
	for n := 1; n <= long; n++ {
		if n > 1 && n*int(s.Least) > long {
			break
		}
		regular := []int{int(s.Module)}
		if s.Module == 0 {
			if long%n != 0 {
				panic("the case has no whole regular bay")
			}
			regular = []int{long / n, int(s.Most)}
		}
		for _, whole := range regular {
			rest := long - n*whole
			least := int(s.Least)
			if n == 1 && least > long {
				least = long
			}
			cap := math.MaxInt
			if s.Shared && rest != 0 && n > 1 {
				cap = -rest/2 + 1
				if rest > 0 {
					cap = rest/2 + 1
				}
			}
			var found *best
			shifts := make([]int, n+1)
			var place func(i int)
			place = func(i int) {
				if i == n {
					d := long - (whole*(n-1) + shifts[n-1])
					if d < least || d > int(s.Most) || max(d-whole, whole-d) > cap {
						return
					}
					shifts[n] = rest
					b := best{n: n, shifts: append([]int(nil), shifts...)}
					for k := 1; k <= n; k++ {
						if c := shifts[k] - shifts[k-1]; c != 0 {
							b.odd++
							b.uneven = max(b.uneven, c, -c)
						}
						b.shift = max(b.shift, shifts[k]-max(0, rest), min(0, rest)-shifts[k])
					}
					if found == nil || b.better(*found) {
						found = &b
					}
					return
				}
				for d := least; d <= int(s.Most); d++ {
					shift := whole*(i-1) + shifts[i-1] + d - whole*i
					if left := long - whole*i - shift; left < (n-i)*least || left > (n-i)*int(s.Most) {
						continue
					}
					if shift <= min(0, rest)-whole || shift >= max(0, rest)+whole || max(d-whole, whole-d) > cap {
						continue
					}
					if open(whole*i + shift) {
						shifts[i] = shift
						place(i + 1)
					}
				}
			}
			place(1)
			if found != nil {
				return *found, true
			}
		}
	}
	return best{}, false
}

func (b best) better(o best) bool {
	if b.odd != o.odd {
		return b.odd < o.odd
	}
	if b.uneven != o.uneven {
		return b.uneven < o.uneven
	}
	if b.shift != o.shift {
		return b.shift < o.shift
	}
	for i := range b.shifts {
		x, y := max(b.shifts[i], -b.shifts[i]), max(o.shifts[i], -o.shifts[i])
		if x != y {
			return x < y
		}
	}
	return false
}

// randomStretch is a small case whose numbers are all whole.
func randomStretch(r *rand.Rand) Stretch {
	s := Stretch{From: 0, To: 60, Most: length.Length(16 + r.Intn(25)), Mark: 1}
	s.Least = s.Most/3 + length.Length(r.Intn(int(s.Most)/4))
	s.Least = length.Length(math.Floor(float64(s.Least)))
	few := length.Length(5 + r.Intn(12))
	switch r.Intn(3) {
	case 0:
		s.Module, s.To = s.Most, s.Most+2*few
	case 1:
		s.Module, s.To, s.Shared = s.Most, s.Most+2*few, true
	}
	for range r.Intn(5) {
		from := length.Length(r.Intn(int(s.To)))
		s.Closed = append(s.Closed, Closed{From: from, To: from + length.Length(1+r.Intn(8+r.Intn(20))), Of: len(s.Closed)})
	}
	return s
}

func TestSolveEqualsExhaustiveSearch(t *testing.T) {
	r := rand.New(rand.NewSource(4))
	cases, blocked, odd, shared := 0, 0, 0, 0
	for cases < 20000 {
		s := randomStretch(r)
		// Six bays of 60 are whole; seven are not. A module is whole anyway.
		if s.Module == 0 && s.Most < 16 {
			continue
		}
		want, ok := func() (b best, ok bool) {
			defer func() {
				if recover() != nil { // needed a number of bays that 60 does not divide by
					b.n = -1
				}
			}()
			return exhaustive(s)
		}()
		if want.n < 0 {
			continue
		}
		cases++
		got := Solve(s)
		if !ok {
			blocked++
			if got.Block == nil {
				t.Fatalf("%+v: solved as %v, exhaustive search finds nothing", s, got.Posts)
			}
			continue
		}
		if got.Block != nil {
			t.Fatalf("%+v: blocked %+v, exhaustive search finds %+v", s, *got.Block, want)
		}
		if want.odd > 0 {
			odd++
		}
		if s.Shared {
			shared++
		}
		n := len(got.Posts) - 1
		shifts := make([]int, n+1)
		for i, p := range got.Posts {
			shifts[i] = int(math.Round(float64(p - s.From - got.Regular*length.Length(i))))
		}
		ours := best{n: n, odd: got.Odd, uneven: int(math.Round(float64(got.Uneven))), shifts: shifts}
		for i := range shifts {
			rest := shifts[n]
			ours.shift = max(ours.shift, shifts[i]-max(0, rest), min(0, rest)-shifts[i])
		}
		if ours.n != want.n || ours.better(want) || want.better(ours) {
			t.Fatalf("%+v:\n got %+v\nwant %+v", s, ours, want)
		}
		check(t, s, got)
	}
	t.Logf("%d cases: %d with odd bays, %d shared, %d impossible", cases, odd, shared, blocked)
	if odd < 1000 || blocked < 200 {
		t.Error("the cases are too easy to mean anything")
	}
}

// table finds the fewest posts and odd bays of a stretch of middle size by
// another method: for each number of bays, a table of the fewest odd bays to
// every whole-millimetre shift of every post.
func table(s Stretch) (n, odd int, ok bool) {
	long, least, most := int(s.To-s.From), int(s.Least), int(s.Most)
	for n = 1; n*least <= long || n == 1; n++ {
		for _, whole := range []int{int(s.Module), most} {
			if s.Module == 0 && whole == 0 {
				if long%n != 0 {
					continue
				}
				whole = long / n
			}
			rest := long - n*whole
			low, high := min(0, rest)-whole+1, max(0, rest)+whole-1
			best := map[int]int{0: 0}
			for i := 1; i <= n; i++ {
				next := map[int]int{}
				for from, k := range best {
					for to := from + least - whole; to <= from+most-whole; to++ {
						at := s.From + length.Length(whole*i+to)
						if to < low || to > high || i == n && to != rest || i < n && closedAt(s, at) {
							continue
						}
						cost := k
						if to != from {
							cost++
						}
						if old, seen := next[to]; !seen || cost < old {
							next[to] = cost
						}
					}
				}
				best = next
			}
			if k, found := best[rest]; found {
				return n, k, true
			}
			if s.Module > 0 {
				break
			}
		}
	}
	return 0, 0, false
}

func closedAt(s Stretch, at length.Length) bool {
	for _, c := range s.Closed {
		if at > c.From && at < c.To {
			return true
		}
	}
	return false
}

// Stretches of up to fifteen bays, where the exhaustive search cannot go.
func TestSolveEqualsATableOfShifts(t *testing.T) {
	r := rand.New(rand.NewSource(21))
	odd, blocked := 0, 0
	for range 250 {
		s := Stretch{Most: length.Length(30 + r.Intn(20)), Mark: 1}
		s.Least = length.Length(8 + r.Intn(int(s.Most)-8)) // up to the most: hardly any play
		if r.Intn(2) == 0 {
			s.Module, s.To = s.Most, length.Length(100+r.Intn(450))
		} else {
			s.To = 360 * length.Length(1+r.Intn(2)) / 2 * 2 // whole bays for most counts
			s.Least = min(s.Least, 20)
		}
		for i := range r.Intn(9) {
			from := length.Length(r.Intn(int(s.To)))
			s.Closed = append(s.Closed, Closed{From: from, To: from + length.Length(2+r.Intn(22)), Of: i})
		}
		n, k, ok := table(s)
		got := Solve(s)
		if s.Module == 0 && (ok && 720%n != 0 || len(got.Posts) > 16) {
			continue // no whole regular bay: the table cannot look at it
		}
		if ok != (got.Block == nil) {
			t.Fatalf("%+v: the table finds one: %v; blocked: %+v", s, ok, got.Block)
		}
		if !ok {
			blocked++
			continue
		}
		if k > 0 {
			odd++
		}
		if s.Module == 0 && int(s.To)%(len(got.Posts)-1) != 0 {
			continue
		}
		if len(got.Posts)-1 != n || got.Odd != k {
			t.Fatalf("%+v: %d bays, %d odd; the table finds %d and %d", s, len(got.Posts)-1, got.Odd, n, k)
		}
	}
	if odd < 60 || blocked < 12 {
		t.Errorf("too easy: %d with odd bays, %d impossible", odd, blocked)
	}
}

// check looks at what any layout must keep, whatever its objective.
func check(t *testing.T, s Stretch, a Answer) {
	t.Helper()
	if a.Posts[0] != s.From || a.Posts[len(a.Posts)-1] != s.To {
		t.Fatalf("%+v: the fixed posts moved: %v", s, a.Posts)
	}
	left := map[int]bool{}
	if a.Block != nil {
		for _, of := range a.Block.Of {
			left[of] = true
		}
	}
	for i := 1; i < len(a.Posts); i++ {
		d := a.Posts[i] - a.Posts[i-1]
		if d > s.Most+length.Tolerance && (a.Block == nil || len(left) < len(s.Closed)) {
			t.Fatalf("%+v: bay %d is %v, over the most", s, i, d)
		}
		if d < s.Least-length.Tolerance && len(a.Posts) > 2 && a.Block == nil {
			t.Fatalf("%+v: bay %d is %v, under the least", s, i, d)
		}
		if i == len(a.Posts)-1 {
			break
		}
		for _, c := range s.Closed {
			if !left[c.Of] && a.Posts[i] > c.From+length.Tolerance && a.Posts[i] < c.To-length.Tolerance {
				t.Fatalf("%+v: post %d stands at %v, in the closed piece %v to %v", s, i, a.Posts[i], c.From, c.To)
			}
		}
	}
}

// Mirrored, a stretch asks for the same posts, odd bays and evenness.
func TestSolveMirrored(t *testing.T) {
	r := rand.New(rand.NewSource(9))
	for range 3000 {
		s := realStretch(r, 1+r.Intn(20), r.Intn(12))
		s.RemainderFirst = false
		a := Solve(s)
		m := s.mirrored()
		m.RemainderFirst = true
		b := Solve(m)
		if len(a.Posts) != len(b.Posts) || a.Odd != b.Odd || !length.Same(a.Uneven, b.Uneven) {
			t.Fatalf("%+v: %d posts %d odd %v, mirrored %d posts %d odd %v", s, len(a.Posts), a.Odd, a.Uneven, len(b.Posts), b.Odd, b.Uneven)
		}
		for i, p := range a.Posts {
			if q := s.From + s.To - b.Posts[len(b.Posts)-1-i]; (p - q).Abs() > length.Tolerance {
				t.Fatalf("%+v: post %d at %v, mirrored at %v", s, i, p, q)
			}
		}
		check(t, s, a)
		check(t, m, b)
	}
}

// realStretch is a case of the sizes met on site, in any fraction.
func realStretch(r *rand.Rand, bays, closed int) Stretch {
	s := Stretch{From: length.Length(r.Float64() * 5000), Most: length.Length(1200 + r.Float64()*1800), Mark: length.Inch / 16}
	s.To = s.From + s.Most*length.Length(float64(bays)*(0.7+0.3*r.Float64()))
	s.Least = s.Most / 3
	if r.Intn(2) == 0 {
		s.Module = s.Most
		s.Shared = r.Intn(3) == 0
	}
	for i := range closed {
		from := s.From + (s.To-s.From)*length.Length(r.Float64())
		s.Closed = append(s.Closed, Closed{From: from, To: from + length.Length(300+r.Float64()*500), Of: i})
	}
	return s
}

// More room never costs: with a closed piece less or a longer bay allowed,
// no more posts are needed, and with the same posts no more odd bays.
func TestSolveMoreRoomNeverCosts(t *testing.T) {
	r := rand.New(rand.NewSource(11))
	for range 2000 {
		s := realStretch(r, 2+r.Intn(12), 1+r.Intn(8))
		s.Module, s.Shared = 0, false
		a := Solve(s)
		if a.Block != nil {
			continue
		}
		w := s
		w.Closed = w.Closed[1:]
		wider := s
		wider.Most += 100
		for what, x := range map[string]Stretch{"a piece less": w, "a longer bay": wider} {
			b := Solve(x)
			if len(b.Posts) > len(a.Posts) || len(b.Posts) == len(a.Posts) && b.Odd > a.Odd {
				t.Fatalf("%+v with %s: %d posts %d odd, before %d posts %d odd", s, what, len(b.Posts), b.Odd, len(a.Posts), a.Odd)
			}
		}
	}
}

// What a block says must be true: with the longest bay grown by that much a
// layout exists, by a mark less it does not; and without the pieces named one
// exists too.
func TestBlockSaysWhatWouldFreeIt(t *testing.T) {
	r := rand.New(rand.NewSource(12))
	blocked := 0
	for range 4000 {
		s := realStretch(r, 1+r.Intn(6), 1+r.Intn(6))
		for i := range s.Closed {
			s.Closed[i].To += length.Length(r.Float64() * 2500)
		}
		a := Solve(s)
		if a.Block == nil {
			continue
		}
		blocked++
		if a.Block.Over > 0 {
			w := s
			w.Most += a.Block.Over
			if _, ok := w.problem(within(w.Closed, w.From, w.To)).reach(); !ok {
				t.Fatalf("%+v: %v longer does not free it", s, a.Block.Over)
			}
			w.Most -= w.Mark
			if _, ok := w.problem(within(w.Closed, w.From, w.To)).reach(); ok {
				t.Fatalf("%+v: less than %v longer frees it", s, a.Block.Over)
			}
		}
		check(t, s, a)
	}
	if blocked < 300 {
		t.Errorf("only %d cases were blocked", blocked)
	}
}

// Followed bay by bay, the same places are reached.
func TestReachableIsAllThatBaysLeadTo(t *testing.T) {
	r := rand.New(rand.NewSource(31))
	for range 3000 {
		s := realStretch(r, 1+r.Intn(12), r.Intn(10))
		for i := range s.Closed {
			s.Closed[i].To += length.Length(r.Float64() * 1500)
		}
		s.Least = s.Most * length.Length(0.1+0.85*r.Float64())
		p := s.problem(within(s.Closed, s.From, s.To))
		want, front, room := spans{{0, 0}}, spans{{0, 0}}, &room{}
		for range p.bays() {
			front = front.moved(p.least, p.most, span{0, p.long}, room).and(p.open, room)
			want = want.or(front, room)
		}
		if got := p.reachable(); !got.equal(want) {
			t.Fatalf("%+v:\n got %v\nwant %v", s, got, want)
		}
	}
}

// Bays that can give next to nothing, on a long stretch with much in the way:
// an answer still comes, and says what it could not meet.
func TestHardlyAnyPlay(t *testing.T) {
	for _, least := range []length.Length{2438.3, 2430, 2400} {
		s := long(200)
		s.To /= 4
		s.Least = least
		for _, module := range []length.Length{0, s.Most} {
			s.Module = module
			check(t, s, Solve(s))
		}
	}
}

func long(closed int) Stretch {
	r := rand.New(rand.NewSource(1))
	s := Stretch{To: 10000 * 2400, Most: 2438.4, Least: 800, Mark: length.Inch / 16}
	for i := range closed {
		at := length.Length(r.Float64()) * s.To
		s.Closed = append(s.Closed, Closed{From: at, To: at + length.Length(300+r.Float64()*600), Of: i})
	}
	return s
}

func BenchmarkSolve(b *testing.B) {
	for _, closed := range []int{0, 50, 500} {
		b.Run(fmt.Sprintf("10000 posts, %d closed", closed), func(b *testing.B) {
			s := long(closed)
			a := Solve(s)
			if a.Block != nil {
				b.Fatalf("%+v", a.Block)
			}
			b.ReportMetric(float64(a.Odd), "odd")
			for b.Loop() {
				Solve(s)
			}
		})
	}
	b.Run("10000 posts of a module, 500 closed", func(b *testing.B) {
		s := long(500)
		s.Module = 2438.4
		for b.Loop() {
			Solve(s)
		}
	})
	b.Run("10000 posts, 500 closed and a wall", func(b *testing.B) {
		s := long(500)
		s.Closed = append(s.Closed, Closed{From: s.To / 2, To: s.To/2 + 5000, Of: 500})
		for b.Loop() {
			if Solve(s).Block == nil {
				b.Fatal("nothing is blocked")
			}
		}
	})
	b.Run("40 posts, 5 closed", func(b *testing.B) {
		s := long(0)
		s.To = 40 * 2400
		for i := range 5 {
			s.Closed = append(s.Closed, Closed{From: length.Length(i*17000 + 2300), To: length.Length(i*17000 + 2900), Of: i})
		}
		for b.Loop() {
			Solve(s)
		}
	})
}
