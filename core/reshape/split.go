package reshape

import (
	"slices"

	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/survey"
	"mallow/core/words"
)

// least is the shortest run.
const least = 300 * length.Millimetre

// Split makes two runs of run r, at a level station. Both are built alike and
// go straight on; what stands on the run stays where it is.
func Split(j job.Job, line, r int, at length.Length) (job.Line, error) {
	l := copied(j.Lines[line])
	run := l.Runs[r]
	if run.Length == nil {
		return l, refuse(words.Plain("reshape.the-run-needs-a-length"))
	}
	sv := survey.Reduce(l, "")
	lie := sv.Runs[r]
	u := j.Units
	if at < least || at > lie.Length-least {
		return l, refuse(words.Plain("reshape.given-a-run-is-split", words.V{"at": u.Tape(at), "least": u.Tape(least), "length": u.Tape(lie.Length - least)}))
	}
	profile := lie.Profile()
	taped := at
	if run.Taped == job.TapedSlope {
		taped = profile.Along(at)
	}
	cut := station{at, taped}
	for _, list := range everything {
		if err := list.barred(run, cut, u); err != nil {
			return l, err
		}
	}
	freeze(&l)
	a, b := l.Runs[r], run
	b.ID = job.FreeID("R", runIDs(j))
	b.Name = halfName(run.Name, 2)
	b.Corner = &job.Corner{By: job.ByDeflection, Side: job.Left}
	a.Length, b.Length = ptr(taped), ptr(*run.Length-taped)
	for _, list := range everything {
		list.split(run, &a, &b, cut)
	}
	l.Runs[r] = a
	l.Runs = slices.Insert(l.Runs, r+1, b)
	splitBooks(&l, run.ID, b.ID, taped)
	return l, nil
}

func named(name, id string) string {
	if name != "" {
		return name
	}
	return id
}

func halfName(name string, n int) string {
	if name == "" {
		return ""
	}
	return words.Plain("reshape.part", words.V{"name": name, "count": n})
}

// splitBooks shares out the field book. Pages of one run are cut, with the
// reading at the cut in both parts, as straight ground between readings has
// it; rod readings only change the run they name.
func splitBooks(l *job.Line, old, next string, at length.Length) {
	var more []job.Book
	for i := range l.Books {
		book := &l.Books[i]
		if book.Kind == job.Rod {
			for k := range book.Rows {
				if row := &book.Rows[k]; row.Run == old && row.At > at+length.Tolerance {
					row.Run, row.At = next, row.At-at
				}
			}
			continue
		}
		if book.Run != old {
			continue
		}
		first, second := cutRows(*book, at)
		switch {
		case len(second) == 0:
		case len(first) == 0:
			book.Run, book.Rows = next, second
		default:
			taken := func(id string) bool {
				return slices.ContainsFunc(append(slices.Clone(l.Books), more...), func(b job.Book) bool { return b.ID == id })
			}
			other := *book
			other.ID, other.Run, other.Rows = job.FreeID("B", taken), next, second
			book.Rows = first
			more = append(more, other)
		}
	}
	l.Books = append(l.Books, more...)
}

// cutRows cuts a page of drops or rises. The ground's height relative to the
// page is what is cut; a drop is that turned down, a rise its steps.
func cutRows(b job.Book, at length.Length) (first, second []job.Reading) {
	heights := make([]length.Length, len(b.Rows))
	for i, row := range b.Rows {
		if b.Kind == job.Drops {
			heights[i] = -row.Drop
		} else if i > 0 {
			heights[i] = heights[i-1] + row.Rise
		}
	}
	reading := func(before *length.Length, row job.Reading, height length.Length) job.Reading {
		if b.Kind == job.Drops {
			row.Drop = -height
			return row
		}
		if row.Rise = 0; before != nil {
			row.Rise = height - *before
		}
		return row
	}
	var lastA, lastB *length.Length
	for i, row := range b.Rows {
		h := heights[i]
		if i > 0 && row.At > at+length.Tolerance && b.Rows[i-1].At < at-length.Tolerance {
			p := b.Rows[i-1]
			cut := heights[i-1] + (h-heights[i-1])*(at-p.At)/(row.At-p.At)
			first = append(first, reading(lastA, job.Reading{At: at}, cut))
			second = append(second, reading(nil, job.Reading{}, cut))
			lastB = ptr(cut)
		}
		if row.At <= at+length.Tolerance {
			first = append(first, reading(lastA, row, h))
			lastA = ptr(h)
		}
		if row.At >= at-length.Tolerance {
			row.At = max(0, row.At-at)
			second = append(second, reading(lastB, row, h))
			lastB = ptr(h)
		}
	}
	if len(second) == 1 && second[0].At <= length.Tolerance {
		second = nil // it ends at the cut
	}
	if len(first) == 1 && first[0].At >= at-length.Tolerance && len(second) > 0 {
		first = nil // it begins there
	}
	return first, second
}
