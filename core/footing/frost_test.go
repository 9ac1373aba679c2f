package footing_test

import (
	"math"
	"testing"

	"mallow/core/footing"
)

// The modified Berggren formula of TM 5-852-6 (published, quoted from memory),
// worked outside this project.
func TestFrostDepth(t *testing.T) {
	for _, c := range []struct {
		f    footing.Freeze
		feet float64
	}{
		{footing.Freeze{Index: 1000, Surface: 0.7, Conductivity: 1, Moisture: 15, Density: 110, Lambda: 1}, 3.768},
		{footing.Freeze{Index: 2000, Surface: 0.7, Conductivity: 0.8, Moisture: 20, Density: 100, Lambda: 1}, 4.330},
		{footing.Freeze{Index: 0, Surface: 0.7, Conductivity: 1, Moisture: 15, Density: 110, Lambda: 1}, 0},
	} {
		if got := footing.Feet(footing.FrostDepth(c.f)); math.Abs(got-c.feet) > 0.0005 {
			t.Errorf("%+v: %.4f ft, want %v", c.f, got, c.feet)
		}
	}
}

// The same depth from the heat itself: freezing a column downwards in thin
// slices, each of which costs its latent heat times the frozen depth over the
// conductivity, until the winter's degree-hours are spent. Stefan's problem by
// summing, against the closed form.
func TestFrostDepthByFreezingSlices(t *testing.T) {
	const index, surface, k, moisture, density = 1500.0, 0.7, 0.9, 18.0, 105.0
	left := 24 * surface * index // °F-hours at the surface
	latent := 1.434 * moisture * density
	const slice = 0.0005 // ft
	depth := 0.0
	for {
		if left -= latent * slice * (depth + slice/2) / k; left < 0 {
			break
		}
		depth += slice
	}
	got := footing.Feet(footing.FrostDepth(footing.Freeze{Index: index, Surface: surface, Conductivity: k, Moisture: moisture, Density: density, Lambda: 1}))
	if math.Abs(got-depth) > 0.002 {
		t.Errorf("closed form %.4f ft, slice by slice %.4f ft", got, depth)
	}
}
