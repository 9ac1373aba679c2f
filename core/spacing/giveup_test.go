package spacing_test

import (
	"math/rand/v2"
	"slices"
	"testing"

	"mallow/core/length"
	"mallow/core/spacing"
)

// What is given up does not depend on the end that is looked from, nor on
// which end is the odd one; what cannot be dug out is given up last, and of
// few closed pieces no cheaper choice exists.
func TestGivenUpIsTheSameFromEitherEnd(t *testing.T) {
	rng := rand.New(rand.NewPCG(12, 34))
	blocked, hard := 0, 0
	for n := range 3000 {
		long := length.Length(4000 + rng.IntN(12000))
		s := spacing.Stretch{To: long, Most: 2400, Least: 800, Mark: 1, RemainderFirst: rng.IntN(2) == 0}
		if rng.IntN(2) == 0 {
			s.Module = length.Length(1200 + rng.IntN(1200))
			s.Most = s.Module
		}
		count := 1 + rng.IntN(5)
		if n%20 == 0 {
			count = 13 + rng.IntN(4) // more than are all weighed
		}
		for i := range count {
			from := length.Length(rng.Float64()) * long
			s.Closed = append(s.Closed, spacing.Closed{From: from, To: from + length.Length(300+rng.IntN(2600)), Of: i, Yields: rng.IntN(2) == 0})
		}
		a := spacing.Solve(s)
		turned := s
		turned.RemainderFirst = !s.RemainderFirst
		turned.Closed = nil
		for _, c := range s.Closed {
			turned.Closed = append(turned.Closed, spacing.Closed{From: long - c.To, To: long - c.From, Of: c.Of, Yields: c.Yields})
		}
		b := spacing.Solve(turned)
		other := s
		other.RemainderFirst = !s.RemainderFirst
		c := spacing.Solve(other)
		if (a.Block == nil) != (b.Block == nil) || (a.Block == nil) != (c.Block == nil) {
			t.Fatalf("case %d: blocked %v, mirrored %v, odd at the other end %v", n, a.Block, b.Block, c.Block)
		}
		if a.Block == nil {
			continue
		}
		if !slices.Equal(a.Block.Of, b.Block.Of) || !slices.Equal(a.Block.Of, c.Block.Of) {
			t.Fatalf("case %d: given up %v, mirrored %v, odd at the other end %v", n, a.Block.Of, b.Block.Of, c.Block.Of)
		}
		if len(a.Block.Of) > 0 && (!length.Same(a.Block.From, long-b.Block.To) || !length.Same(a.Block.To, long-b.Block.From)) {
			t.Fatalf("case %d: from %v to %v, mirrored %v to %v", n, a.Block.From, a.Block.To, b.Block.From, b.Block.To)
		}
		blocked++
		// No choice of fewer that cannot be dug out, or as few and fewer others.
		own := [2]int{}
		for _, of := range a.Block.Of {
			if s.Closed[of].Yields {
				own[1]++
			} else {
				own[0]++
				hard++
			}
		}
		if count > 6 {
			continue
		}
		for set := range 1 << count {
			cost, left := [2]int{}, []spacing.Closed{}
			for i, c := range s.Closed {
				switch {
				case set&(1<<i) == 0:
					left = append(left, c)
				case c.Yields:
					cost[1]++
				default:
					cost[0]++
				}
			}
			if cost[0] > own[0] || cost[0] == own[0] && cost[1] >= own[1] {
				continue
			}
			free := s
			free.Closed, free.Least = left, s.Least
			if free.Module == 0 {
				if d := spacing.Solve(free); d.Block == nil || d.Block.Short && len(d.Block.Of) == 0 {
					t.Fatalf("case %d: %v are given up where set %b is enough", n, a.Block.Of, set)
				}
			}
		}
	}
	if blocked < 200 || hard < 50 {
		t.Errorf("only %d were blocked, %d hard ones given up", blocked, hard)
	}
}
