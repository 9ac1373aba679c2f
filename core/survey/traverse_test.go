package survey_test

import (
	"math"
	"math/rand/v2"
	"testing"

	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/survey"
)

func near(a, b length.Length, within float64) bool { return math.Abs(float64(a-b)) <= within }

// deflections makes a line of runs with the given azimuths, in degrees.
func deflections(azimuths []float64, closed bool) job.Line {
	l := job.Line{Closed: closed, Bearing: &azimuths[0]}
	for i, az := range azimuths {
		run := job.Run{}
		if i > 0 || closed {
			before := azimuths[(i+len(azimuths)-1)%len(azimuths)]
			turn := math.Mod(before-az+540, 360) - 180
			side := job.Left
			if turn < 0 {
				side = job.Right
			}
			run.Corner = &job.Corner{By: job.ByDeflection, Side: side, Angle: math.Abs(turn)}
		}
		l.Runs = append(l.Runs, run)
	}
	return l
}

func degrees(d, m, s float64) float64 { return d + m/60 + s/3600 }

// A worked example of the compass rule from a textbook of elementary
// surveying (from memory): five courses in feet with their azimuths, their
// departures and latitudes (azimuths to the second carry 0.001 ft), a misclosure of 0.026 ft east and 0.077 ft north
// in 2466.00 ft, and the balanced departures and latitudes of the first.
func TestCompassRuleWorkedExample(t *testing.T) {
	azimuths := []float64{degrees(126, 55, 17), degrees(178, 18, 58), degrees(15, 31, 54), degrees(284, 35, 20), degrees(206, 9, 41)}
	feet := []float64{647.25, 203.03, 720.35, 610.24, 285.13}
	departures := []float64{517.451, 5.966, 192.889, -590.565, -125.715}
	latitudes := []float64{-388.815, -202.942, 694.045, 153.708, -255.919}
	l := deflections(azimuths, true)
	l.Balance = true
	runs := make([]length.Length, len(feet))
	for i, f := range feet {
		runs[i] = length.Length(f) * length.Foot
	}
	laid := survey.Lay(l, runs)
	for i := range feet {
		e, n := (laid.Raw[i+1].X-laid.Raw[i].X)/length.Foot, (laid.Raw[i+1].Y-laid.Raw[i].Y)/length.Foot
		if !near(e, length.Length(departures[i]), 0.002) || !near(n, length.Length(latitudes[i]), 0.002) {
			t.Errorf("course %d: departure %.3f, latitude %.3f; want %.3f, %.3f", i+1, e, n, departures[i], latitudes[i])
		}
	}
	c := laid.Closing
	if !near(c.X/length.Foot, 0.026, 0.002) || !near(c.Y/length.Foot, 0.077, 0.002) || !near(c.Perimeter/length.Foot, 2466, 1e-6) {
		t.Errorf("misclosure %.3f, %.3f ft in %.2f; want 0.026, 0.077 in 2466.00", c.X/length.Foot, c.Y/length.Foot, c.Perimeter/length.Foot)
	}
	if r := c.Ratio(); r < 29000 || r > 32000 {
		t.Errorf("1 in %.0f; the book has about 1 in 30,000", r)
	}
	e, n := (laid.Places[1].X-laid.Places[0].X)/length.Foot, (laid.Places[1].Y-laid.Places[0].Y)/length.Foot
	if !near(e, 517.444, 0.001) || !near(n, -388.835, 0.001) {
		t.Errorf("balanced first course %.3f, %.3f; the book has 517.444, -388.835", e, n)
	}
	if laid.Places[5] != laid.Places[0] {
		t.Errorf("spread, the line ends at %v", laid.Places[5])
	}
}

// polygon is a random one that does not cross itself: a star round its middle.
func polygon(rng *rand.Rand) []survey.Place {
	n := 3 + rng.IntN(12)
	out := make([]survey.Place, n)
	for i := range out {
		sin, cos := math.Sincos(2 * math.Pi * (float64(i) + 0.8*rng.Float64()) / float64(n))
		r := length.Length(5000 + rng.Float64()*60000)
		out[i] = survey.Place{X: r * length.Length(cos), Y: r * length.Length(sin)}
	}
	if rng.IntN(2) == 0 { // the other way round
		for i, j := 0, n-1; i < j; i, j = i+1, j-1 {
			out[i], out[j] = out[j], out[i]
		}
	}
	return out
}

// measured measures a polygon's corners in ways picked at random, as a crew
// would: from its coordinates alone, by other formulas than the code's.
func measured(rng *rand.Rand, p []survey.Place) (job.Line, []length.Length) {
	n := len(p)
	l := job.Line{Closed: true}
	runs := make([]length.Length, n)
	bearing := math.Mod(math.Atan2(float64(p[1].X-p[0].X), float64(p[1].Y-p[0].Y))*180/math.Pi+360, 360)
	l.Bearing = &bearing
	for i := range p {
		a, b, c := p[(i+n-1)%n], p[i], p[(i+1)%n]
		before, after := a.To(b), b.To(c)
		runs[i] = after
		ux, uy := (b.X-a.X)/before, (b.Y-a.Y)/before
		along := (c.X-b.X)*ux + (c.Y-b.Y)*uy
		left := (c.Y-b.Y)*ux - (c.X-b.X)*uy
		corner := &job.Corner{Side: job.Left}
		if left < 0 {
			corner.Side = job.Right
		}
		cos := float64(along / after)
		switch rng.IntN(4) {
		case 0:
			corner.By, corner.Angle = job.ByDeflection, math.Acos(max(-1, min(1, cos)))*180/math.Pi
		case 1:
			corner.By, corner.Angle = job.ByInterior, 180-math.Acos(max(-1, min(1, cos)))*180/math.Pi
		case 2:
			corner.By, corner.Along, corner.Off = job.ByOffset, along/2, left.Abs()/2
		case 3:
			corner.By = job.ByDiagonal
			if rng.IntN(2) == 0 {
				corner.Diagonal = a.To(c) // whole runs
				break
			}
			back, forth := before*length.Length(0.2+0.7*rng.Float64()), after*length.Length(0.2+0.7*rng.Float64())
			corner.Back, corner.Forth = &back, &forth
			corner.Diagonal = b.Towards(a, float64(back/before)).To(b.Towards(c, float64(forth/after)))
		}
		l.Runs = append(l.Runs, job.Run{Length: &runs[i], Corner: corner})
	}
	return l, runs
}

// Measured without error, any polygon closes to rounding, its turns add up to
// a whole turn, and one corner that was not measured follows from the rest.
func TestClosureOfRandomPolygons(t *testing.T) {
	rng := rand.New(rand.NewPCG(3, 5))
	for k := range 3000 {
		p := polygon(rng)
		l, runs := measured(rng, p)
		l.X, l.Y = p[0].X, p[0].Y
		laid := survey.Lay(l, runs)
		if laid.Closing == nil || laid.Closing.Miss > 0.01 || math.Abs(*laid.Closing.AngleSum) > 1e-5 {
			t.Fatalf("polygon %d of %d corners: %+v", k, len(p), laid.Closing)
		}
		for i := range p {
			if laid.Places[i].To(p[i]) > 0.01 {
				t.Fatalf("polygon %d: corner %d at %v, want %v", k, i, laid.Places[i], p[i])
			}
		}
		lost := 1 + rng.IntN(len(p)-1)
		l.Runs[lost].Corner = nil
		found := survey.Lay(l, runs)
		if found.Closing == nil || found.Closing.Miss > 0.01 || !found.Turns[lost].Found || found.Places[lost].To(p[lost]) > 0.01 {
			t.Fatalf("polygon %d: corner %d was not found: %+v", k, lost, found.Closing)
		}
	}
}

// Spreading moves no corner by more than the misclosure, and the line closes.
func TestSpreadingClosesAnyLine(t *testing.T) {
	rng := rand.New(rand.NewPCG(8, 5))
	for k := range 1000 {
		l, runs := measured(rng, polygon(rng))
		for i := range runs {
			runs[i] += length.Length(rng.NormFloat64() * 20)
			l.Runs[i].Length = &runs[i]
			if l.Runs[i].Corner.By == job.ByDiagonal {
				l.Runs[i].Corner = &job.Corner{By: job.ByDeflection, Side: job.Left, Angle: 80}
			}
		}
		l.Balance = true
		laid := survey.Lay(l, runs)
		last := len(runs)
		if laid.Places[last] != laid.Places[0] {
			t.Fatalf("line %d ends at %v, begins at %v", k, laid.Places[last], laid.Places[0])
		}
		for i := range laid.Places {
			if laid.Places[i].To(laid.Raw[i]) > laid.Closing.Miss+length.Tolerance {
				t.Fatalf("line %d: corner %d moved %v for a misclosure of %v", k, i, laid.Places[i].To(laid.Raw[i]), laid.Closing.Miss)
			}
		}
	}
}

// Plain corners, by hand: a 3-4-5 is square whichever way it is measured.
func TestCornersOfAThreeFourFive(t *testing.T) {
	three, four := 3*length.Metre, 4*length.Metre
	for _, c := range []job.Corner{
		{By: job.ByDeflection, Side: job.Right, Angle: 90},
		{By: job.ByInterior, Side: job.Right, Angle: 90},
		{By: job.ByOffset, Side: job.Right, Along: 0, Off: 1000},
		{By: job.ByDiagonal, Side: job.Right, Back: &three, Forth: &four, Diagonal: 5 * length.Metre},
	} {
		l := job.Line{Runs: []job.Run{{}, {Corner: &c}}}
		laid := survey.Lay(l, []length.Length{10000, 6000})
		// North is up and no bearing is known: the first run goes right.
		if got := laid.Places[2]; !near(got.X, 10000, 1e-6) || !near(got.Y, -6000, 1e-6) {
			t.Errorf("by %s: ends at %v, want 10000, -6000", c.By, got)
		}
	}
}

func TestImpossibleTriangleSaysWhatCouldBe(t *testing.T) {
	back, forth := 3*length.Metre, 4*length.Metre
	for _, d := range []length.Length{900, 7100} {
		l := job.Line{Runs: []job.Run{{}, {Corner: &job.Corner{By: job.ByDiagonal, Side: job.Left, Back: &back, Forth: &forth, Diagonal: d}}}}
		w := survey.Lay(l, []length.Length{9000, 9000}).Turns[1].Wrong
		if w == nil || !length.Same(w.Least, 1000) || !length.Same(w.Most, 7000) {
			t.Errorf("diagonal %v: %+v, want 1 to 7 m", d, w)
		}
	}
	if _, err := survey.Angle(3000, 4000, 7001); err == nil {
		t.Error("a triangle of 3, 4 and 7.001 m was let pass")
	}
}

// The law of cosines there and back, against coordinates.
func TestDiagonalAndAngle(t *testing.T) {
	rng := rand.New(rand.NewPCG(2, 2))
	for range 5000 {
		a, b, deg := length.Length(500+rng.Float64()*30000), length.Length(500+rng.Float64()*30000), 1+rng.Float64()*178
		sin, cos := math.Sincos(deg * math.Pi / 180)
		want := length.Length(math.Hypot(float64(a)-float64(b)*cos, float64(b)*sin))
		d := survey.Diagonal(a, b, deg)
		if !near(d, want, 1e-6) {
			t.Fatalf("diagonal of %v and %v at %v°: %v, want %v", a, b, deg, d, want)
		}
		back, err := survey.Angle(a, b, d)
		if err != nil || math.Abs(back-deg) > 1e-6 {
			t.Fatalf("angle back: %v, want %v (%v)", back, deg, err)
		}
	}
}
