package reshape

import (
	"math"
	"slices"

	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/survey"
	"mallow/core/words"
)

// Resize gives a run another taped length. Heights past its new end are cut
// off there, in the field book too; what else stands past it is not moved
// without being asked.
func Resize(j job.Job, line, r int, to length.Length) (job.Line, error) {
	l := copied(j.Lines[line])
	return l, resize(&l, r, to, j.Units)
}

func resize(l *job.Line, r int, to length.Length, u length.Units) error {
	run := &l.Runs[r]
	if to < least {
		return refuse(words.Plain("reshape.given-a-run-is-at", words.V{"to": u.Tape(to), "least": u.Tape(least)}))
	}
	sv := survey.Reduce(*l, "")
	level := to
	if run.Taped == job.TapedSlope {
		level = to - sv.Runs[r].Correction
	}
	if run.Length != nil && to < *run.Length {
		cutBooks(l, run.ID, to)
	}
	heights := run.Ground
	for _, list := range everything {
		if err := list.shorten(run, station{level, to}, u); err != nil {
			return err
		}
	}
	if run.Length == nil { // what is past a first length is a slip of one or the other
		run.Ground = heights
	}
	run.Length = &to
	return nil
}

// cutBooks cuts a run's readings off at its new end. Rod readings past it
// still carry the height on: they become marks beside the line.
func cutBooks(l *job.Line, run string, at length.Length) {
	for b := range l.Books {
		book := &l.Books[b]
		if book.Kind != job.Rod {
			if book.Run == run {
				book.Rows, _ = cutRows(*book, at)
			}
			continue
		}
		for i := range book.Rows {
			if row := &book.Rows[i]; row.Run == run && row.At > at+length.Tolerance {
				row.Run, row.At, row.Mark = "", 0, words.Plain("reshape.past-the-end-of", words.V{"run": run})
			}
		}
	}
}

// MoveCorner puts corner i somewhere else on the map. The lengths of the runs
// that meet there follow, and the turns there and at the corners next to it,
// which are from then on turned angles.
func MoveCorner(j job.Job, line, i int, to survey.Place) (job.Line, error) {
	l := copied(j.Lines[line])
	for _, r := range l.Runs {
		if r.Length == nil {
			return l, refuse(words.Plain("reshape.has-no-length-yet-enter", words.V{"name": named(r.Name, r.ID)}))
		}
	}
	sv := survey.Reduce(l, "")
	laid := survey.Lay(l, levels(sv))
	n := len(l.Runs)
	places := append([]survey.Place(nil), laid.Raw...)
	miss := survey.Place{X: places[n].X - places[0].X, Y: places[n].Y - places[0].Y}
	// What is dragged is the corner as it is shown, its misclosure spread if
	// that was asked.
	to.X, to.Y = to.X+laid.Raw[i].X-laid.Places[i].X, to.Y+laid.Raw[i].Y-laid.Places[i].Y
	places[i] = to
	if l.Closed && (i == 0 || i == n) {
		places[0] = to
		places[n] = survey.Place{X: to.X + miss.X, Y: to.Y + miss.Y}
	}
	freeze(&l)
	spans := make([]length.Length, n)
	for r := range spans {
		spans[r] = places[r].To(places[r+1])
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
	if i <= 1 || l.Closed && i == n {
		l.Bearing = ptr(degreesFromUp(places[0], places[1]))
	}
	retire(&l, laid, places)
	return l, nil
}

// tapedFor is what runs of these level lengths are taped: the same, or on a
// slope what the slope takes more. That depends on where the runs end, and
// round a closed line on each other, so it is found by trying.
func tapedFor(l job.Line, before survey.Survey, level []length.Length) []length.Length {
	taped := make([]length.Length, len(level))
	trial := copied(l)
	for r := range taped {
		taped[r] = *l.Runs[r].Length + level[r] - before.Runs[r].Length
	}
	for range 30 {
		trial.Books = copied(l).Books
		for r := range taped {
			trial.Runs[r].Length = &taped[r]
			trial.Runs[r].Ground = slices.Clone(l.Runs[r].Ground)
			if taped[r] < *l.Runs[r].Length {
				_ = ground.shorten(&trial.Runs[r], station{taped: taped[r]}, length.Units{}) // heights are in nothing's way
				cutBooks(&trial, l.Runs[r].ID, taped[r])
			}
		}
		found, off := survey.Reduce(trial, ""), length.Length(0)
		for r := range taped {
			if l.Runs[r].Taped == job.TapedSlope && !length.Same(level[r], before.Runs[r].Length) {
				d := level[r] - found.Runs[r].Length
				taped[r], off = taped[r]+d, max(off, d.Abs())
			}
		}
		if off <= length.Tolerance {
			break
		}
	}
	return taped
}

// retire turns the corners that have moved into turned angles.
func retire(l *job.Line, laid survey.Traverse, places []survey.Place) {
	n := len(l.Runs)
	for r := range l.Runs {
		if r == 0 && !l.Closed || l.Runs[r].Corner == nil && (laid.Turns[r].Found || r == 0) {
			continue
		}
		before, at, after := places[(r+n-1)%n], places[r], places[r+1]
		if r == 0 {
			// The last run's end misses the first corner by the misclosure.
			before = survey.Place{X: places[n-1].X - (places[n].X - at.X), Y: places[n-1].Y - (places[n].Y - at.Y)}
		}
		turn := math.Mod(degreesFromUp(before, at)-degreesFromUp(at, after)+540, 360) - 180
		if c := l.Runs[r].Corner; c != nil && math.Abs(turn-laid.Turns[r].Degrees) < 1e-9 {
			continue
		}
		side := job.Left
		if turn < 0 {
			side = job.Right
		}
		l.Runs[r].Corner = &job.Corner{By: job.ByDeflection, Side: side, Angle: math.Abs(turn)}
	}
}
