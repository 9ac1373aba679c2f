package reshape

import (
	"cmp"
	"math"
	"slices"

	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/survey"
	"mallow/core/words"
)

// Reverse walks a line the other way: its last post becomes the first. The
// fence itself stays where it is.
func Reverse(j job.Job, line int) (job.Line, error) {
	l := copied(j.Lines[line])
	for _, r := range l.Runs {
		if r.Length == nil {
			return l, refuse(words.Plain("reshape.needs-a-length-before-the", words.V{"name": named(r.Name, r.ID)}))
		}
	}
	sv := survey.Reduce(l, "")
	laid := survey.Lay(l, levels(sv))
	n := len(l.Runs)
	turned := make([]job.Run, n)
	taped := map[string]length.Length{}
	for i, run := range l.Runs {
		taped[run.ID] = *run.Length
		turned[n-1-i] = reverseRun(run, sv.Runs[i].Length)
	}
	for i := range turned {
		// Between old runs k-1 and k lies the corner kept at old run k.
		k := n - i
		if k == n {
			if turned[0].Corner = nil; l.Closed {
				turned[0].Corner = reverseCorner(l.Runs[0].Corner)
			}
			continue
		}
		turned[i].Corner = reverseCorner(l.Runs[k].Corner)
	}
	handOver(turned, l.Closed, func(i int) length.Length { return sv.Runs[n-1-i].Length })
	end, from := laid.Raw[n], laid.Raw[n-1]
	l.Runs = turned
	l.X, l.Y = end.X, end.Y
	if l.Closed {
		// It starts at the same post; the misclosure is left on the far side.
		l.X, l.Y = laid.Raw[0].X, laid.Raw[0].Y
	}
	l.Bearing = ptr(degreesFromUp(end, from))
	// The ground that it fences in is on the other hand now.
	if !l.Closed || l.Inside != "" {
		l.Inside = cmp.Or(l.Inside, job.Left).Other()
	}
	for b := range l.Books {
		reverseBook(&l.Books[b], taped)
	}
	return l, nil
}

func degreesFromUp(from, to survey.Place) float64 {
	d := math.Atan2(float64(to.X-from.X), float64(to.Y-from.Y)) * 180 / math.Pi
	if d < 0 {
		d += 360
	}
	return d
}

// reverseCorner is the same corner walked the other way: it turns to the
// other hand, and the legs of a diagonal change places. An offset was
// measured along the one run; along the other it is an angle.
func reverseCorner(c *job.Corner) *job.Corner {
	if c == nil {
		return nil
	}
	r := *c
	r.Side = c.Side.Other()
	r.Back, r.Forth = c.Forth, c.Back
	if c.By == job.ByOffset {
		r = job.Corner{By: job.ByDeflection, Side: r.Side, Angle: math.Atan2(float64(c.Off), float64(c.Along)) * 180 / math.Pi}
	}
	return &r
}

func reverseRun(run job.Run, level length.Length) job.Run {
	for i := range run.Ground {
		run.Ground[i].At = *run.Length - run.Ground[i].At
	}
	slices.Reverse(run.Ground)
	for i := range run.Gates {
		run.Gates[i] = run.Gates[i].Reversed(level)
	}
	slices.Reverse(run.Gates)
	for i := range run.KeepOuts {
		run.KeepOuts[i].At = level - run.KeepOuts[i].At
	}
	slices.Reverse(run.KeepOuts)
	reverseHeld(&run, level)
	reverseOverrides(&run, level)
	reverseGrade(&run, level)
	run.String.Face = run.String.Face.Other()
	if run.Spacing.Face != "" {
		run.Spacing.Face = run.Spacing.Face.Other()
	}
	return run
}

func reverseBook(b *job.Book, taped map[string]length.Length) {
	if b.Kind == job.Rod {
		for i := range b.Rows {
			if row := &b.Rows[i]; row.Run != "" {
				row.At = taped[row.Run] - row.At
			}
		}
		return
	}
	for i := range b.Rows {
		b.Rows[i].At = taped[b.Run] - b.Rows[i].At
	}
	rises := make([]length.Length, len(b.Rows))
	for i := range b.Rows {
		rises[i] = b.Rows[i].Rise
	}
	slices.Reverse(b.Rows)
	if b.Kind == job.Rises {
		for i := range b.Rows {
			if b.Rows[i].Rise = 0; i > 0 {
				b.Rows[i].Rise = -rises[len(rises)-i]
			}
		}
	}
}
