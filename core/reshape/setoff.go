package reshape

import (
	"math"

	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/survey"
	"mallow/core/words"
)

// SetOff lays a line out beside the edge that was measured: a patio's paving, a
// wall, an old fence. Every run lies so far to one hand of where it was, parallel to
// it, and its corners follow; to the left is positive. What stands on a run keeps
// its distance from the run's start.
func SetOff(j job.Job, line int, by length.Length) (job.Line, error) {
	l := copied(j.Lines[line])
	for _, r := range l.Runs {
		if r.Length == nil {
			return l, refuse(words.Plain("reshape.has-no-length-yet-enter", words.V{"name": named(r.Name, r.ID)}))
		}
	}
	sv := survey.Reduce(l, "")
	laid := survey.Lay(l, levels(sv))
	n := len(l.Runs)
	ways := make([][2]float64, n)
	for r := range ways {
		a, b := laid.Raw[r], laid.Raw[r+1]
		d := float64(a.To(b))
		ways[r] = [2]float64{float64(b.X-a.X) / d, float64(b.Y-a.Y) / d}
	}
	places := make([]survey.Place, n+1)
	for i := range places {
		before, after := i-1, i
		switch {
		case l.Closed:
			before, after = (i+n-1)%n, i%n
		case i == 0:
			before = 0
		case i == n:
			after = n - 1
		}
		// Where the two runs set off meet: along the middle between their normals.
		p, q := ways[before], ways[after]
		nx, ny := -p[1]-q[1], p[0]+q[0]
		half := 1 + p[0]*q[0] + p[1]*q[1] // twice the square of the cosine of half the turn
		if half < 2*leastTurned {
			return l, refuse(words.Plain("reshape.turns-back", words.V{"name": named(l.Runs[after].Name, l.Runs[after].ID)}))
		}
		places[i] = survey.Place{X: laid.Raw[i].X + by*length.Length(nx/half), Y: laid.Raw[i].Y + by*length.Length(ny/half)}
	}
	freeze(&l)
	spans := make([]length.Length, n)
	for r := range spans {
		spans[r] = places[r].To(places[r+1])
		if ahead := float64(places[r+1].X-places[r].X)*ways[r][0] + float64(places[r+1].Y-places[r].Y)*ways[r][1]; ahead < float64(least) {
			return l, refuse(words.Plain("reshape.set-off-too-far", words.V{"name": named(l.Runs[r].Name, l.Runs[r].ID), "by": j.Units.Tape(by.Abs())}))
		}
	}
	taped := tapedFor(l, sv, spans)
	for r := range l.Runs {
		if !length.Same(spans[r], sv.Runs[r].Length) {
			if err := resize(&l, r, taped[r], j.Units); err != nil {
				return l, err
			}
		}
	}
	l.X, l.Y = places[0].X, places[0].Y
	return l, nil
}

// leastTurned is the square of the cosine of half the sharpest turn at which a line
// can be set off: 150°.
var leastTurned = math.Pow(math.Cos(75*math.Pi/180), 2)
