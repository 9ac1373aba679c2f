package pour_test

import (
	"math"
	"testing"

	"mallow/catalog"
	"mallow/core/length"
	"mallow/core/materials"
	"mallow/core/pour"
)

func shipped(t testing.TB) materials.Catalog {
	t.Helper()
	cat, err := catalog.Load()
	if err != nil {
		t.Fatal(err)
	}
	return cat
}

// Yields from memory (printed on packaged dry concrete): so many bags to the
// cubic yard.
func TestBagsToTheYard(t *testing.T) {
	cat := shipped(t)
	for id, want := range map[string]int{"80lb": 45, "60lb": 60, "50lb": 72, "40lb": 90, "20kg": 77} {
		bag, ok := cat.Bag(id)
		if !ok {
			t.Fatalf("no bag %s", id)
		}
		if got := pour.Whole(pour.Bags(length.CubicYard, bag.Yield)); got != want {
			t.Errorf("%s: %d bags to the yard, want %d", id, got, want)
		}
	}
}

func TestWhole(t *testing.T) {
	for n, want := range map[float64]int{0: 0, 0.2: 1, 4: 4, 4.0000000001: 4, 4.01: 5} {
		if got := pour.Whole(n); got != want {
			t.Errorf("%v are %d, want %d", n, got, want)
		}
	}
}

// Trucks come in quarters of a yard or of a cubic metre (common practice):
// 30 holes at ten to the yard, 3.05 yd³, are ordered as 3 1/4.
func TestOrdered(t *testing.T) {
	truck := shipped(t).Supply.Truck
	for _, c := range []struct {
		sys       length.System
		of, want  float64 // yd³ or m³
		cubicUnit length.Volume
	}{
		{length.Imperial, 30 * 0.1018, 3.25, length.CubicYard}, {length.Imperial, 3, 3, length.CubicYard}, {length.Imperial, 0.01, 0.25, length.CubicYard},
		{length.Metric, 1.26, 1.5, length.CubicMetre}, {length.Metric, 0, 0, length.CubicMetre},
	} {
		if got := float64(pour.Ordered(length.Volume(c.of)*c.cubicUnit, truck.In(c.sys)) / c.cubicUnit); math.Abs(got-c.want) > 1e-9 {
			t.Errorf("%v is ordered as %v, want %v", c.of, got, c.want)
		}
	}
}

// A cubic metre at 1:2:3 takes some 370 kg of cement, 0.51 m³ of sand, 0.77 m³
// of stone and 185 litres of water (common practice: loose materials shrink to
// two thirds, and a 94 lb bag is a loose cubic foot; a yard takes about 7 bags).
func TestMixOnSite(t *testing.T) {
	mix := shipped(t).Supply.Mix
	m := pour.MixOnSite(1, mix, length.Metric)
	for _, c := range []struct {
		what              string
		got, want, within float64
	}{
		{"cement, kg", float64(m.Cement), 370, 5}, {"bags of 25 kg", m.Bags, 14.8, 0.2},
		{"sand, m³", float64(m.Sand), 0.513, 0.005}, {"stone, m³", float64(m.Stone), 0.77, 0.005}, {"water, L", 1000 * float64(m.Water), 185, 3},
	} {
		if math.Abs(c.got-c.want) > c.within {
			t.Errorf("%s: %.3f, want %v", c.what, c.got, c.want)
		}
	}
	if yard := pour.MixOnSite(length.CubicYard, mix, length.Imperial); math.Abs(yard.Bags-6.6) > 0.5 {
		t.Errorf("a yard takes %.2f bags of cement", yard.Bags)
	}
}

// Hours against counting by hand: half a cubic metre at a fifth an hour is two
// and a half hours, in soil that takes twice as long five; a 3 ft hole at 20 ft
// an hour is nine minutes and the setting up.
func TestHours(t *testing.T) {
	rate := materials.CrewRate{Hand: 0.2, Auger: 20 * length.Foot, Setup: 4}
	if got := pour.HandHours(0.5, 2, rate); math.Abs(got-5) > 1e-9 {
		t.Errorf("by hand %v h", got)
	}
	if got := 60 * pour.AugerHours(3*length.Foot, 1, rate); math.Abs(got-13) > 1e-9 {
		t.Errorf("by auger %v minutes", got)
	}
}

// What is ordered is never more than what the truck carries: of 6.9 m³ in quarters 6.75.
func TestMostOrdered(t *testing.T) {
	o := materials.Order{Step: 0.25}
	for carries, want := range map[length.Volume]length.Volume{6.9: 6.75, 6: 6, 0.2: 0.2} {
		if got := pour.MostOrdered(carries, o); math.Abs(float64(got-want)) > 1e-9 || carries >= o.Step && pour.Ordered(got, o) > carries+1e-9 {
			t.Errorf("of %v are ordered %v, want %v", carries, got, want)
		}
	}
}
