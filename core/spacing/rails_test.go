package spacing

import (
	"math/rand"
	"testing"

	"mallow/core/length"
)

// A 3.6 m rail spans two 1.8 m bays (common practice): over six bays the lower
// rail breaks on posts 2 and 4, the upper on 1, 3 and 5, and no post carries
// both joints.
func TestStaggerTwoBays(t *testing.T) {
	bays := []length.Length{1800, 1800, 1800, 1800, 1800, 1800}
	j := Stagger(bays, 3600, 2)
	if j.Pieces != 7 || len(j.Weak) != 0 {
		t.Fatalf("%+v: want 3 pieces and 4, no weak post", j)
	}
	seen := map[int]int{}
	for _, r := range j.Rails {
		for _, at := range r.Joints[1 : len(r.Joints)-1] {
			seen[at]++
		}
	}
	for at, n := range seen {
		if n > 1 {
			t.Errorf("post %d carries %d joints", at, n)
		}
	}
	if one := Stagger(bays, 3600, 1); one.Pieces != 3 || len(one.Weak) != 2 {
		t.Errorf("a single rail: %+v, want 3 pieces and 2 posts with its joint", one)
	}
	if short := Stagger(bays, 1800, 2); len(short.Weak) != 5 {
		t.Errorf("rails of one bay break on every post: %+v", short)
	}
}

// Against trying every way to break two rows on the posts.
func TestStaggerEqualsExhaustiveSearch(t *testing.T) {
	r := rand.New(rand.NewSource(5))
	for range 2000 {
		bays := make([]length.Length, 1+r.Intn(7))
		for i := range bays {
			bays[i] = length.Length(600 + r.Intn(1300))
		}
		stock, rails := length.Length(1500+r.Intn(3500)), 1+r.Intn(4)
		got := Stagger(bays, stock, rails)
		want, found := cost{}, false
		n := len(bays) - 1 // inner posts
		for a := range 1 << n {
			for b := range 1 << n {
				if !fits(bays, stock, a) || !fits(bays, stock, b) {
					continue
				}
				c := cost{pieces: (ones(a)+1)*(rails-rails/2) + (ones(b)+1)*(rails/2)}
				if c.weak = ones(a & b); rails == 1 {
					c.weak = ones(a)
				}
				if !found || c.less(want) {
					want, found = c, true
				}
			}
		}
		if got.Pieces != want.pieces || len(got.Weak) != want.weak {
			t.Fatalf("bays %v, stock %v, %d rails: %+v, want %+v", bays, stock, rails, got, want)
		}
		for _, rail := range got.Rails {
			for k := 1; k < len(rail.Joints); k++ {
				long := length.Length(0)
				for _, d := range bays[rail.Joints[k-1]:rail.Joints[k]] {
					long += d
				}
				if long > stock && rail.Joints[k] > rail.Joints[k-1]+1 {
					t.Fatalf("a piece of %v from stock of %v", long, stock)
				}
			}
		}
	}
}

func fits(bays []length.Length, stock length.Length, joints int) bool {
	long, n := length.Length(0), 0
	for i, d := range bays {
		if long, n = long+d, n+1; long > stock && n > 1 {
			return false
		}
		if joints&(1<<i) != 0 {
			long, n = 0, 0
		}
	}
	return true
}

func ones(x int) int {
	n := 0
	for ; x > 0; x &= x - 1 {
		n++
	}
	return n
}
