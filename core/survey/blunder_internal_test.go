package survey

import (
	"math/rand/v2"
	"slices"
	"testing"

	"mallow/core/length"
)

// The roughness without an entry, found by leaving it out and sorting again.
func plainRoughness(s []reading, i int) (typical, around length.Length) {
	rest := slices.Concat(s[:i], s[i+1:])
	var off []length.Length
	for k := 1; k < len(rest)-1; k++ {
		d := (rest[k].value - lineAt(rest[k-1], rest[k+1], rest[k].at)).Abs()
		off = append(off, d)
		if k == i-1 || k == i {
			around = max(around, d)
		}
	}
	if len(off) == 0 {
		return 0, 0
	}
	slices.Sort(off)
	return off[len(off)/2], around
}

func TestRoughnessIsAsIfLeftOut(t *testing.T) {
	r := rand.New(rand.NewPCG(3, 16))
	for range 3000 {
		n := 3 + r.IntN(40)
		s := make([]reading, n)
		for i := range s {
			s[i] = reading{at: length.Length(i * 1000), value: length.Length(r.IntN(6))} // many that are alike
			if r.IntN(4) == 0 {
				s[i].value = length.Length(r.NormFloat64() * 300)
			}
		}
		off, sorted := make([]length.Length, n), []length.Length{}
		for i := 1; i < n-1; i++ {
			off[i] = s[i].value - lineAt(s[i-1], s[i+1], s[i].at)
			sorted = append(sorted, off[i].Abs())
		}
		slices.Sort(sorted)
		for i := 1; i < n-1; i++ {
			typical, around := roughness(s, off, sorted, i)
			if wantT, wantA := plainRoughness(s, i); typical != wantT || around != wantA {
				t.Fatalf("%d of %d: %v and %v, want %v and %v", i, n, typical, around, wantT, wantA)
			}
		}
	}
}
