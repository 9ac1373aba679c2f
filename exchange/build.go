package exchange

import (
	"fmt"
	"math"
	"slices"

	"github.com/paulmach/orb"
	"github.com/paulmach/orb/simplify"

	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/survey"
)

// Build says how points become a line.
type Build struct {
	Off  length.Length // how far off a straight run a point may lie; more makes a corner
	Thin length.Length // ground points that change the profile by no more are left out
	Like job.Run       // what the new runs are built like
	ID   func() string // names for the runs
}

// Built is a line made of points.
type Built struct {
	Line    job.Line
	Corners []int // places of the corners among the points
	Kept    int   // ground points kept
	Notes   []string
}

const (
	mostRuns   = 500
	leastRun   = 300 * length.Millimetre
	highest    = 1000 * length.Metre // heights in a job lie within this of its datum
	mostGround = 20000
)

// Line makes a line of the points: corners where the file says so, or else
// where the points leave a straight line by more than is allowed; the others
// become ground along the runs.
func (f Found) Line(b Build) (Built, error) {
	if f.Shape != Plan {
		return Built{}, Refuse("The file has heights at stations, which belong to one run; it is no line on the map.")
	}
	if len(f.Points) < 2 {
		return Built{}, Refuse("A line needs 2 points; the file has %d that can be used.", len(f.Points))
	}
	points := slices.Clone(f.Points)
	out := Built{}
	out.Corners = corners(points, b.Off)
	if n := len(out.Corners) - 1; n > mostRuns {
		return Built{}, Refuse("The points make %d runs; a line has at most %d. Allow points to lie farther off a straight run.", n, mostRuns)
	}
	if out.Corners = longEnough(points, out.Corners); len(out.Corners) < 2 {
		return Built{}, Refuse("All points lie within %g mm of each other: that is no line.", float64(leastRun))
	}
	datum := out.lower(points)
	first, last := points[out.Corners[0]], points[out.Corners[len(out.Corners)-1]]
	l := job.Line{X: first.X, Y: first.Y}
	if l.X.Abs() > 9e6 || l.Y.Abs() > 9e6 {
		// Grid numbers run to millions.
		out.Notes = append(out.Notes, fmt.Sprintf("The map's zero is put at the first point, x %.3f m, y %.3f m", first.X.Metres(), first.Y.Metres()))
		l.X, l.Y = 0, 0
	}
	l.Closed = len(out.Corners) > 3 && place(first).To(place(last)) <= max(b.Off, leastRun)
	for k := 1; k < len(out.Corners); k++ {
		run := b.Like
		run.ID = b.ID()
		run.Name = "Run " + run.ID[1:]
		run.Corner, run.Taped, run.Gates, run.KeepOuts = nil, job.TapedLevel, []job.Gate{}, nil
		run.FixedPosts, run.HeldBays, run.Overrides = nil, nil, nil
		from, to := out.Corners[k-1], out.Corners[k]
		span := place(points[from]).To(place(points[to]))
		run.Length = &span
		run.Ground = ground(points[from:to+1], datum, b.Thin)
		out.Kept += len(run.Ground)
		l.Runs = append(l.Runs, run)
	}
	out.turn(&l, points)
	bearing := bearingOf(points[out.Corners[0]], points[out.Corners[1]])
	l.Bearing = &bearing
	out.Line = l
	return out, nil
}

func place(p Point) survey.Place { return survey.Place{X: p.X, Y: p.Y} }

// corners are the points that the file marks, or that Douglas and Peucker's
// method keeps.
func corners(points []Point, off length.Length) []int {
	var marked []int
	for i, p := range points {
		if p.Corner {
			marked = append(marked, i)
		}
	}
	if len(marked) >= 2 {
		return marked
	}
	line := make(orb.LineString, len(points))
	for i, p := range points {
		line[i] = orb.Point{float64(p.X), float64(p.Y)}
	}
	kept := simplify.DouglasPeucker(float64(max(off, 1))).LineString(slices.Clone(line))
	out := make([]int, 0, len(kept))
	i := 0
	for _, k := range kept {
		for line[i] != k {
			i++
		}
		out = append(out, i)
		i++
	}
	return out
}

// longEnough drops corners that stand closer to the one before than a run can
// be short.
func longEnough(points []Point, at []int) []int {
	out := at[:1]
	for k, i := range at[1:] {
		near := place(points[out[len(out)-1]]).To(place(points[i])) < leastRun
		switch {
		case !near:
			out = append(out, i)
		case k == len(at)-2 && len(out) > 1:
			out[len(out)-1] = i // the end stays the end
		}
	}
	return out
}

// lower brings heights that are over the sea to within what a job holds.
func (b *Built) lower(points []Point) length.Length {
	for _, p := range points {
		if p.Height != nil && p.Height.Abs() > highest {
			datum := length.Length(math.Floor(p.Height.Metres())) * length.Metre
			b.Notes = append(b.Notes, fmt.Sprintf("Heights are kept over %.0f m above the file's zero", datum.Metres()))
			return datum
		}
	}
	return 0
}

// ground lays points on the run between the first and the last of them.
func ground(points []Point, datum, thin length.Length) []job.GroundPoint {
	a, b := place(points[0]), place(points[len(points)-1])
	span := a.To(b)
	ux, uy := (b.X-a.X)/span, (b.Y-a.Y)/span
	out := []job.GroundPoint{}
	for i, p := range points {
		if p.Height == nil || (*p.Height-datum).Abs() > highest {
			continue
		}
		at := (p.X-a.X)*ux + (p.Y-a.Y)*uy
		switch i { // the ends exactly, whatever the rounding
		case 0:
			at = 0
		case len(points) - 1:
			at = span
		default:
			if at <= length.Millimetre || at >= span-length.Millimetre {
				continue
			}
		}
		if n := len(out); n > 0 && at-out[n-1].At <= length.Millimetre {
			if i < len(points)-1 {
				continue
			}
			out = out[:n-1] // a track that turned back at the end
		}
		out = append(out, job.GroundPoint{At: at, Height: *p.Height - datum})
	}
	return thinned(out, thin)
}

// thinned leaves out the points that the profile does without.
func thinned(points []job.GroundPoint, by length.Length) []job.GroundPoint {
	if len(points) < 3 || by <= 0 && len(points) <= mostGround {
		return points
	}
	line := make(orb.LineString, len(points))
	for i, p := range points {
		line[i] = orb.Point{float64(p.At), float64(p.Height)}
	}
	kept := simplify.DouglasPeucker(float64(by)).LineString(line)
	out := make([]job.GroundPoint, len(kept))
	for i, k := range kept {
		out[i] = job.GroundPoint{At: length.Length(k[0]), Height: length.Length(k[1])}
	}
	return out
}

func bearingOf(a, b Point) float64 {
	d := math.Atan2(float64(b.X-a.X), float64(b.Y-a.Y)) * 180 / math.Pi
	if d < 0 {
		d += 360
	}
	return d
}

// turn writes the corners as turned angles.
func (b *Built) turn(l *job.Line, points []Point) {
	n := len(l.Runs)
	way := func(k int) float64 { return bearingOf(points[b.Corners[k]], points[b.Corners[k+1]]) }
	for k := range l.Runs {
		before := k - 1
		if k == 0 {
			if !l.Closed {
				continue
			}
			before = n - 1
		}
		turn := math.Mod(way(before)-way(k)+540, 360) - 180
		side := job.Left
		if turn < 0 {
			side = job.Right
		}
		l.Runs[k].Corner = &job.Corner{By: job.ByDeflection, Side: side, Angle: math.Abs(turn)}
	}
}

// Ground makes a profile's points into a run's heights at stations.
func (f Found) Ground(run length.Length) ([]job.GroundPoint, []string, error) {
	if f.Shape != Profile {
		return nil, nil, Refuse("The file has places on the map, not heights at stations along one run. Take it in as a line.")
	}
	out := []job.GroundPoint{}
	past := 0
	for _, p := range f.Points {
		if p.X > run+length.Tolerance || p.Height.Abs() > highest {
			past++
			continue
		}
		out = append(out, job.GroundPoint{At: min(p.X, run), Height: *p.Height})
	}
	if len(out) == 0 {
		return nil, nil, Refuse("No point of the file lies on the run.")
	}
	var notes []string
	if past > 0 {
		notes = append(notes, fmt.Sprintf("%d points lie past the run's end and are left out", past))
	}
	return out, notes, nil
}
