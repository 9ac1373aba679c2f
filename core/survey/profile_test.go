package survey_test

import (
	"math"
	"math/rand/v2"
	"testing"

	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/survey"
)

// 3-4-5: 4 m level and 3 m up are 5 m along the ground.
func TestSlopeTape(t *testing.T) {
	p := survey.NewProfile([]job.GroundPoint{{At: 0, Height: 100}, {At: 4000, Height: 3100}}, 10000)
	for _, c := range []struct{ at, height, along length.Length }{
		{0, 100, 0}, {2000, 1600, 2500}, {4000, 3100, 5000}, {10000, 3100, 11000},
	} {
		if got := p.Height(c.at); !length.Same(got, c.height) {
			t.Errorf("height at %v: got %v, want %v", c.at, got, c.height)
		}
		if got := p.Along(c.at); !length.Same(got, c.along) {
			t.Errorf("slope tape at %v: got %v, want %v", c.at, got, c.along)
		}
	}
}

func TestGroundIsLevelBeyondWhatWasMeasured(t *testing.T) {
	p := survey.NewProfile([]job.GroundPoint{{At: 3000, Height: -40}}, 9000)
	low, high := p.Span(0, 9000)
	if low != -40 || high != -40 || len(p.Points()) != 3 {
		t.Errorf("got %v to %v over %v", low, high, p.Points())
	}
	if flat := survey.NewProfile(nil, 9000); flat.Height(4500) != 0 || flat.Along(9000) != 9000 {
		t.Errorf("unmeasured ground: %v", flat.Points())
	}
}

func TestEachVisitsBreaksBetween(t *testing.T) {
	p := survey.NewProfile([]job.GroundPoint{{At: 0, Height: 0}, {At: 1000, Height: 90}, {At: 2000, Height: -30}, {At: 3000, Height: 0}}, 3000)
	var seen []length.Length
	p.Each(500, 2000, func(at, h length.Length) { seen = append(seen, at, h) })
	want := []length.Length{500, 45, 1000, 90, 2000, -30}
	if len(seen) != len(want) {
		t.Fatalf("got %v", seen)
	}
	for i := range want {
		if math.Abs(float64(seen[i]-want[i])) > 1e-9 {
			t.Errorf("got %v, want %v", seen, want)
		}
	}
}

// The slope tape and its inverse agree everywhere, on steep and level pieces.
func TestLevelIsTheInverseOfAlong(t *testing.T) {
	rng := rand.New(rand.NewPCG(8, 8))
	for range 300 {
		run := length.Length(5000 + rng.Float64()*50000)
		var ground []job.GroundPoint
		for at := length.Length(0); at < run; at += length.Length(200 + rng.Float64()*8000) {
			ground = append(ground, job.GroundPoint{At: at, Height: length.Length(rng.NormFloat64() * 600)})
		}
		p := survey.NewProfile(ground, run)
		for range 20 {
			at := run * length.Length(rng.Float64())
			if back := p.Level(p.Along(at)); !length.Same(back, at) {
				t.Fatalf("%v is %v along the ground, which is %v level", at, p.Along(at), back)
			}
		}
	}
}
