package reshape

import (
	"slices"

	"mallow/core/job"
	"mallow/core/length"
)

// station is a place on a run at which it is cut or joined: level from its
// start, and as it was taped.
type station struct{ level, taped length.Length }

// lies is one kind of thing that lies along a run, through every change of the
// run. All of them are in the list everything: what is new there is split,
// joined, turned round and cut short with the rest.
type lies interface {
	bare(run *job.Run)                                       // takes it all away
	copied(run *job.Run)                                     // makes the list the run's own
	split(run job.Run, first, second *job.Run, at station)   // shares it out
	join(into *job.Run, second job.Run, by, end station)     // appends the second run's
	reverse(run *job.Run, end station)                       // walks the run the other way
	shorten(run *job.Run, end station, u length.Units) error // leaves what lies before a nearer end
	barred(run job.Run, at station, u length.Units) error    // why a run cannot be split there
}

// along is how the entries of one list lie.
type along[T any] struct {
	letter string // of their ids
	list   func(*job.Run) *[]T
	id     func(*T) *string
	taped  bool          // their stations are as taped, not level
	near   length.Length // to what their stations are kept, where that is not exact
	move   func(t *T, by length.Length)
	turn   func(t *T, end length.Length)

	// cut is what each part of a split run gets of an entry; what the second
	// gets is moved to its own stations afterwards.
	cut func(t T, at length.Length) (first, second []T)
	// left is what is left of an entry on a run that ends sooner.
	left func(t T, end length.Length) []T
	// over says what stands in the way of a nearer end, and bars what stands
	// in the way of a split.
	over func(run job.Run, t T, end length.Length, u length.Units) error
	bars func(run job.Run, t T, at length.Length, u length.Units) error
	// at is where an entry that is a place is. It and between make an entry where a run is cut between two others, so
	// that what they say of the ground between them stays so.
	at      func(T) length.Length
	between func(before, after T, at length.Length) T
	// again tells whether an entry says of the joint what the last one said.
	again func(last, t T) bool
}

func (a along[T]) pick(s station) length.Length {
	if a.taped {
		return s.taped
	}
	return s.level
}

func (a along[T]) bare(run *job.Run) { *a.list(run) = nil }

func (a along[T]) copied(run *job.Run) { *a.list(run) = slices.Clone(*a.list(run)) }

func (a along[T]) split(run job.Run, first, second *job.Run, at station) {
	s := a.pick(at)
	into, rest := []T(nil), []T(nil)
	for _, t := range a.known(*a.list(&run), s) {
		before, after := a.cut(t, s)
		into = append(into, before...)
		for _, t := range after {
			a.move(&t, -s)
			rest = append(rest, t)
		}
	}
	*a.list(first), *a.list(second) = into, rest
}

// known is a list with an entry at a station, where it can be told from those
// on either side.
func (a along[T]) known(list []T, at length.Length) []T {
	if a.between == nil {
		return list
	}
	i := slices.IndexFunc(list, func(t T) bool { return a.at(t) > at+length.Tolerance })
	if i < 1 || a.at(list[i-1]) >= at-length.Tolerance {
		return list
	}
	t := a.between(list[i-1], list[i], at)
	*a.id(&t) = a.free(list)
	return slices.Insert(slices.Clone(list), i, t)
}

func (a along[T]) free(list []T) string {
	return job.FreeID(a.letter, func(id string) bool { return a.has(list, id) })
}

func (a along[T]) has(list []T, id string) bool {
	return slices.ContainsFunc(list, func(t T) bool { return *a.id(&t) == id })
}

func (a along[T]) join(into *job.Run, second job.Run, by, _ station) {
	list := a.list(into)
	for _, t := range *a.list(&second) {
		a.move(&t, a.pick(by))
		if n := len(*list); n > 0 && a.again != nil && a.again((*list)[n-1], t) {
			continue
		}
		if a.has(*list, *a.id(&t)) {
			*a.id(&t) = a.free(*list)
		}
		*list = append(*list, t)
	}
}

func (a along[T]) reverse(run *job.Run, end station) {
	list := *a.list(run)
	for i := range list {
		a.turn(&list[i], a.pick(end))
	}
	slices.Reverse(list)
}

func (a along[T]) shorten(run *job.Run, end station, u length.Units) error {
	s := a.pick(end)
	var kept []T
	for _, t := range a.known(*a.list(run), s) {
		if a.over != nil {
			if err := a.over(*run, t, s, u); err != nil {
				return err
			}
		}
		if a.left == nil {
			kept = append(kept, t)
		} else {
			kept = append(kept, a.left(t, s)...)
		}
	}
	if list := *a.list(run); len(kept) == 0 && len(list) > 0 && a.between != nil {
		t := a.between(list[0], list[0], s) // as before the first of them
		*a.id(&t) = *a.id(&list[0])
		kept = append(kept, t)
	}
	*a.list(run) = kept
	return nil
}

func (a along[T]) barred(run job.Run, at station, u length.Units) error {
	if a.bars == nil {
		return nil
	}
	for _, t := range *a.list(&run) {
		if err := a.bars(run, t, a.pick(at), u); err != nil {
			return err
		}
	}
	return nil
}

// sides gives an entry at a place to the part that the place is in.
func sides[T any](t T, at, split length.Length) (first, second []T) {
	if at < split {
		return []T{t}, nil
	}
	return nil, []T{t}
}
