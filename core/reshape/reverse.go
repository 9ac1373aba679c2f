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
	end := station{level, *run.Length}
	for _, list := range everything {
		list.reverse(&run, end)
	}
	if _, ok := run.Spacing.ByPiece(); ok { // the remainder of a stretch stays where it is
		switch run.Spacing.Remainder {
		case job.RemainderFirst:
			run.Spacing.Remainder = job.RemainderLast
		case "", job.RemainderLast:
			run.Spacing.Remainder = job.RemainderFirst
		}
	}
	run.String.Face = run.String.Face.Other()
	if run.Curb != nil {
		run.Curb = ptr(*run.Curb)
		run.Curb.Off = -run.Curb.Off
	}
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

// handOver gives what belongs to a corner post, which is dug with the run that
// ends there, from the run that starts at it to that one.
func handOver(runs []job.Run, closed bool, level func(run int) length.Length) {
	n := len(runs)
	for i := range runs {
		if i == 0 && !closed || n == 1 {
			continue
		}
		k := (i + n - 1) % n
		overrides.handOver(&runs[i], &runs[k], level(k))
		laid.handOver(&runs[i], &runs[k], level(k))
		seen.handOver(&runs[i], &runs[k], level(k))
	}
}

func (a along[T]) handOver(from, to *job.Run, end length.Length) {
	var kept, given []T
	for _, t := range *a.list(from) {
		if at := a.at(t); at > max(a.near, length.Tolerance) {
			kept = append(kept, t)
		} else {
			a.move(&t, -at)
			given = append(given, t)
		}
	}
	if len(given) == 0 {
		return
	}
	corner := job.Run{}
	*a.list(from), *a.list(&corner) = kept, given
	a.join(to, corner, station{end, end}, station{end, end})
}
