package pour_test

import (
	"math"
	"testing"

	"mallow/catalog"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/pour"
)

const in = length.Inch

// Round holes without a post, in ft³ (exact, by geometry, to the printed
// places).
func TestHoleVolumes(t *testing.T) {
	for _, c := range []struct{ width, depth, want float64 }{
		{10, 24, 1.0908}, {12, 24, 1.5708}, {12, 30, 1.9635}, {12, 36, 2.3562}, {12, 42, 2.7489},
		{12, 48, 3.1416}, {18, 30, 4.4179}, {18, 48, 7.0686},
	} {
		f := pour.Fill(pour.Hole{Width: length.Length(c.width) * in, Foot: length.Length(c.depth) * in}, job.Post{}, job.Setting{})
		if math.Abs(f.Concrete.CubicFeet()-c.want) > 0.00005 {
			t.Errorf("%v x %v in: got %.4f ft³, want %v", c.width, c.depth, f.Concrete.CubicFeet(), c.want)
		}
	}
}

// Ten 12 x 42 in holes to the yard, so 30 posts are three yards (common
// practice: 1.018 of a yard is called one).
func TestTenHolesToTheYard(t *testing.T) {
	f := pour.Fill(pour.Hole{Width: 12 * in, Foot: 42 * in}, job.Post{}, job.Setting{})
	if yards := 30 * f.Concrete.CubicYards(); math.Round(yards) != 3 || math.Abs(f.Concrete.CubicYards()-0.1018) > 0.00005 {
		t.Errorf("30 holes take %.3f yd³", yards)
	}
}

// Yields from memory (printed on packaged dry concrete): so many bags to the
// cubic yard.
func TestBagsToTheYard(t *testing.T) {
	cat, err := catalog.Load()
	if err != nil {
		t.Fatal(err)
	}
	for id, want := range map[string]int{"80lb": 45, "60lb": 60, "50lb": 72, "40lb": 90, "20kg": 77} {
		bag, ok := cat.Bag(id)
		if !ok {
			t.Fatalf("no bag %s", id)
		}
		if got := pour.WholeBags(pour.Bags(length.CubicYard, bag.Yield)); got != want {
			t.Errorf("%s: %d bags to the yard, want %d", id, got, want)
		}
	}
	// At least four 60 lb bags to a 12 x 30 in hole (common practice): the
	// computed 4.36 less the post.
	bag, _ := cat.Bag("60lb")
	empty := pour.Fill(pour.Hole{Width: 12 * in, Foot: 30 * in}, job.Post{}, job.Setting{})
	if got := pour.Bags(empty.Concrete, bag.Yield); math.Abs(got-4.36) > 0.005 {
		t.Errorf("12 x 30 in: %.3f bags", got)
	}
	post := pour.Fill(pour.Hole{Width: 12 * in, Foot: 30 * in}, job.Post{Shape: job.SquarePost, Width: 3.5 * in}, job.Setting{})
	if got := pour.Bags(post.Concrete, bag.Yield); got < 3.8 || got > 4 {
		t.Errorf("12 x 30 in with a 4x4: %.3f bags", got)
	}
	// Two 20 kg bags to a 1.8 m fence's post in a 250 x 600 mm hole (common
	// practice, generous to the mix: the hole is only part filled).
	bag, _ = cat.Bag("20kg")
	part := pour.Fill(pour.Hole{Width: 250, Foot: 600}, job.Post{Shape: job.SquarePost, Width: 100}, job.Setting{Cover: 75})
	if got := pour.Bags(part.Concrete, bag.Yield); got < 1.8 || got > 2.3 {
		t.Errorf("250 x 600 mm: %.2f bags of 20 kg", got)
	}
}

// The concrete against counting little cubes: another way to the same volume,
// for solid, round and hollow posts.
func TestConcreteByCounting(t *testing.T) {
	hole := pour.Hole{Width: 300, Foot: 800}
	setting := job.Setting{Gravel: 100, Cover: 50}
	for _, post := range []job.Post{
		{Shape: job.SquarePost, Width: 100},
		{Shape: job.RoundPost, Width: 60},
		{Shape: job.SquarePost, Width: 100, Hollow: true, Wall: 6},
		{Shape: job.RoundPost, Width: 100, Hollow: true, Wall: 5},
	} {
		const step = 0.25
		cells := 0
		for x := -150 + step/2; x < 150; x += step {
			for y := -150 + step/2; y < 150; y += step {
				if math.Hypot(x, y) < 150 && !inPost(post, x, y) {
					cells++
				}
			}
		}
		want := float64(cells) * step * step * (800 - 50) * 1e-9
		f := pour.Fill(hole, post, setting)
		if math.Abs(float64(f.Concrete)-want) > want*2e-4 {
			t.Errorf("%+v: got %.6f m³, counted %.6f", post, f.Concrete, want)
		}
		if g := math.Pi / 4 * 0.3 * 0.3 * 0.1; math.Abs(float64(f.Gravel)-g) > 1e-12 {
			t.Errorf("gravel %.6f m³, want %.6f", f.Gravel, g)
		}
	}
}

func inPost(p job.Post, x, y float64) bool {
	inside := func(width float64) bool {
		if p.Shape == job.RoundPost {
			return math.Hypot(x, y) < width/2
		}
		return max(math.Abs(x), math.Abs(y)) < width/2
	}
	w := float64(p.Width)
	return inside(w) && !(p.Hollow && inside(w-2*float64(p.Wall)))
}

func TestCoverDeeperThanTheFootLeavesNoConcrete(t *testing.T) {
	f := pour.Fill(pour.Hole{Width: 300, Foot: 100}, job.Post{Shape: job.SquarePost, Width: 100}, job.Setting{Cover: 150})
	if f.Concrete != 0 || f.ConcreteHeight != 0 {
		t.Errorf("got %+v", f)
	}
}

func TestWholeBags(t *testing.T) {
	for bags, want := range map[float64]int{0: 0, 0.2: 1, 4: 4, 4.0000000001: 4, 4.01: 5} {
		if got := pour.WholeBags(bags); got != want {
			t.Errorf("%v bags are %d, want %d", bags, got, want)
		}
	}
}
