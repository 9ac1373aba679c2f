// Package reshape changes fence lines as a whole: runs are split, joined,
// turned round, moved, lengthened, and corners dragged, without losing what
// stands on them. Every change is a new line; what does not fit is refused
// with the reason.
package reshape

import (
	"math"
	"slices"
	"strconv"
	"strings"

	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/survey"
	"mallow/core/words"
)

// Refused says why a change cannot be made, and what to do instead.
type Refused struct{ Why string }

func (r Refused) Error() string { return r.Why }

func refuse(why string) error { return Refused{why} }

// runIDs tells which ids of runs are taken: by a run, or by a post that was
// named after one that is no more.
func runIDs(j job.Job) func(string) bool {
	gone := map[string]bool{}
	for _, f := range j.Observed {
		if _, ids := f.About(); len(ids) > 0 {
			run, _, _ := strings.Cut(ids[0], ".")
			gone[run] = true
		}
	}
	return func(id string) bool {
		if gone[id] {
			return true
		}
		for _, l := range j.Lines {
			for _, r := range l.Runs {
				if r.ID == id {
					return true
				}
			}
		}
		return false
	}
}

// copied is a line whose lists can be changed without changing the old one's.
func copied(l job.Line) job.Line {
	l.Runs = slices.Clone(l.Runs)
	for i := range l.Runs {
		for _, list := range everything {
			list.copied(&l.Runs[i])
		}
	}
	l.Books = slices.Clone(l.Books)
	for i := range l.Books {
		l.Books[i].Rows = slices.Clone(l.Books[i].Rows)
	}
	return l
}

// freeze writes down the legs of diagonals that stand for whole runs, level,
// before those runs change.
func freeze(l *job.Line) {
	level := levels(survey.Reduce(*l, ""))
	n := len(l.Runs)
	for i := range l.Runs {
		c := l.Runs[i].Corner
		if c == nil || c.By != job.ByDiagonal {
			continue
		}
		fixed, before := *c, (i+n-1)%n
		if fixed.Back == nil && l.Runs[before].Length != nil {
			fixed.Back = ptr(level[before])
		}
		if fixed.Forth == nil && l.Runs[i].Length != nil {
			fixed.Forth = ptr(level[i])
		}
		l.Runs[i].Corner = &fixed
	}
}

func ptr[T any](v T) *T { return &v }

// bare takes away what stands on one run only, from a run that is built like
// another.
func bare(r *job.Run) {
	r.Length, r.Corner = nil, nil
	for _, list := range everything {
		list.bare(r)
	}
}

// AddRun puts a new run after run r, built like it, with nothing measured.
func AddRun(j job.Job, line, r int) (job.Line, error) {
	l := copied(j.Lines[line])
	freeze(&l)
	like := l.Runs[r]
	like.ID = job.FreeID("R", runIDs(j))
	like.Name = words.Plain("reshape.run", words.V{"value": like.ID[1:]})
	bare(&like)
	l.Runs = slices.Insert(l.Runs, r+1, like)
	return l, nil
}

// RemoveRun takes a run away with all that stands on it.
func RemoveRun(j job.Job, line, r int) (job.Line, error) {
	l := copied(j.Lines[line])
	if len(l.Runs) == 1 {
		return l, refuse(words.Plain("reshape.a-line-has-at-least"))
	}
	freeze(&l)
	id := l.Runs[r].ID
	if r+1 < len(l.Runs) {
		l.Runs[r+1].Corner = nil // it was measured against the run that goes
	} else if l.Closed {
		l.Runs[0].Corner = nil
	}
	l.Runs = slices.Delete(l.Runs, r, r+1)
	l.Books = slices.DeleteFunc(l.Books, func(b job.Book) bool { return b.Kind != job.Rod && b.Run == id })
	for b := range l.Books {
		for i := range l.Books[b].Rows {
			if row := &l.Books[b].Rows[i]; row.Run == id {
				// The reading still carries the height on: as a mark beside the line.
				row.Mark, row.Run = words.Plain("reshape.on-a-run-taken-away"), ""
			}
		}
	}
	if l.Closed && len(l.Runs) < 3 {
		l.Closed = false
	}
	return l, nil
}

// MoveRun changes the order of the runs: run r comes to stand at place to. It
// takes its corner's measures along.
func MoveRun(j job.Job, line, r, to int) (job.Line, error) {
	l := copied(j.Lines[line])
	freeze(&l)
	run := l.Runs[r]
	l.Runs = slices.Insert(slices.Delete(l.Runs, r, r+1), to, run)
	return l, nil
}

// Join makes one run of run r and the one after it. They must be one straight
// line. The fence, posts, holes and strings are those of run r.
func Join(j job.Job, line, r int) (job.Line, error) {
	l := copied(j.Lines[line])
	if r+1 >= len(l.Runs) {
		return l, refuse(words.Plain("reshape.there-is-no-run-after"))
	}
	if l.Closed && len(l.Runs) == 3 {
		return l, refuse(words.Plain("reshape.a-closed-line-has-at"))
	}
	a, b := l.Runs[r], l.Runs[r+1]
	switch {
	case a.Length == nil || b.Length == nil:
		return l, refuse(words.Plain("reshape.both-runs-need-a-length"))
	case a.Taped != b.Taped:
		return l, refuse(words.Plain("reshape.one-run-was-taped-level"))
	}
	sv := survey.Reduce(l, "")
	turn := survey.Lay(l, levels(sv)).Turns[r+1].Degrees
	if math.Abs(turn) > straight {
		return l, refuse(words.Plain("reshape.the-line-turns-between-runs", words.V{"turn": strconv.FormatFloat(math.Abs(turn), 'f', 1, 64)}))
	}
	freeze(&l)
	taped, level := *a.Length, sv.Runs[r].Length
	joined := l.Runs[r]
	joined.Length = ptr(taped + *b.Length)
	by := station{level, taped}
	end := station{level + sv.Runs[r+1].Length, taped + *b.Length}
	for _, list := range everything {
		list.join(&joined, b, by, end)
	}
	l.Runs[r] = joined
	l.Runs = slices.Delete(l.Runs, r+1, r+2)
	readdress(&l, b.ID, func(at length.Length) (string, length.Length) { return a.ID, at + taped })
	mend(&l, a.ID)
	return l, nil
}

// straight is the turn, in degrees, up to which two runs can be joined.
const straight = 1.0

func levels(s survey.Survey) []length.Length {
	out := make([]length.Length, len(s.Runs))
	for i, r := range s.Runs {
		out[i] = r.Length
	}
	return out
}

// readdress moves the field book's rows of a run to where they are now.
func readdress(l *job.Line, id string, to func(length.Length) (string, length.Length)) {
	for b := range l.Books {
		book := &l.Books[b]
		for i := range book.Rows {
			row := &book.Rows[i]
			if book.Kind == job.Rod && row.Run == id {
				row.Run, row.At = to(row.At)
			} else if book.Kind != job.Rod && book.Run == id {
				_, row.At = to(row.At)
			}
		}
		if book.Kind != job.Rod && book.Run == id {
			book.Run, _ = to(0)
		}
	}
}

// mend leaves pages whose rows are in order; nothing else is promised of them.
func mend(l *job.Line, run string) {
	for b := range l.Books {
		if book := &l.Books[b]; book.Run == run && book.Kind != job.Rod {
			slices.SortStableFunc(book.Rows, func(a, b job.Reading) int { return compare(a.At, b.At) })
		}
	}
}

func compare(a, b length.Length) int {
	switch {
	case a < b:
		return -1
	case a > b:
		return 1
	}
	return 0
}

// SetClosed makes a line closed or open.
func SetClosed(j job.Job, line int, closed bool) (job.Line, error) {
	l := copied(j.Lines[line])
	if closed && len(l.Runs) < 3 {
		return l, refuse(words.Plain("reshape.a-closed-line-has-at-2", words.V{"count": len(l.Runs)}))
	}
	l.Closed = closed
	if !closed {
		l.Balance, l.Runs[0].Corner = false, nil
	}
	return l, nil
}
