package survey

import (
	"math"
	"slices"

	"mallow/core/job"
	"mallow/core/length"
)

// Slip is an entry that stands out from its neighbours as a misreading does.
type Blunder struct {
	Path   string        // JSON pointer of the entry
	Sure   string        // JSON pointer that says it was measured twice; empty for a run's own heights
	Run    string        // run that it is on; may be empty
	At     length.Length // as taped
	Kind   string        // what was read: "drop", "rise", "height", "reading"
	Given  length.Length
	Before length.Length // its neighbours
	After  length.Length
	Likely []length.Length // what was probably meant, the likeliest first
	Weak   bool            // too few other entries to tell a blunder from the ground
}

// enough is how many other places must tell how rough the ground is before an
// entry that stands out is likelier a blunder than a bump.
const enough = 3

// leastBlunder is the least by which a blunder stands out: a hand's breadth, 100 mm
// or 4 in. Less is ground.
const leastBlunder = 100 * length.Millimetre

// times is how many times its surroundings' roughness a blunder stands out.
const times = 5

// reading is one entry of a series, with where it was taken.
type reading struct {
	at, value  length.Length
	path, sure string
	run        string
	known      bool // measured twice
}

// blunders looks through every page of the line.
func blunders(l job.Line, path string) []Blunder {
	var out []Blunder
	for _, run := range l.Runs {
		var series []reading
		for _, g := range run.Ground {
			at := job.At(path, "runs", run.ID, "ground", g.ID)
			series = append(series, reading{g.At, g.Height, at + "/height", at + "/sure", run.ID, g.Sure})
		}
		out = append(out, standOut(series, "height")...)
	}
	for _, book := range l.Books {
		out = append(out, bookBlunders(book, job.At(path, "books", book.ID))...)
	}
	return out
}

func bookBlunders(b job.Book, path string) []Blunder {
	var series []reading
	var out []Blunder
	run := b.Run
	flush := func(kind string) {
		out = append(out, standOut(series, kind)...)
		series = nil
	}
	for i, row := range b.Rows {
		at := job.At(path, "rows", row.ID)
		switch {
		case b.Kind == job.Drops:
			series = append(series, reading{row.At, row.Drop, at + "/drop", at + "/sure", run, row.Sure})
		case b.Kind == job.Rises && i > 0:
			series = append(series, reading{row.At, row.Rise, at + "/rise", at + "/sure", run, row.Sure})
		case row.Side != nil && (len(series) == 0 || row.Run == run):
			run = row.Run
			series = append(series, reading{row.At, *row.Side, at + "/side", at + "/sure", run, row.Sure})
		case b.Kind == job.Rod:
			flush("reading") // another run, or another set-up: another series
			if run = row.Run; row.Side != nil {
				series = append(series, reading{row.At, *row.Side, at + "/side", at + "/sure", run, row.Sure})
			}
		}
	}
	kinds := map[job.BookKind]string{job.Drops: "drop", job.Rises: "rise", job.Rod: "reading"}
	flush(kinds[b.Kind])
	return out
}

// standOut finds the entries that stand off the line between their neighbours
// much more than the rest of the series does, and more than their
// neighbourhood would if they were not there: beside a bank or a ditch the
// neighbours stand out too, and it is ground.
func standOut(s []reading, kind string) []Blunder {
	n := len(s)
	if n < 3 {
		return nil
	}
	off := make([]length.Length, n)
	for i := 1; i < n-1; i++ {
		off[i] = s[i].value - lineAt(s[i-1], s[i+1], s[i].at)
	}
	sorted := make([]length.Length, 0, n-2)
	for _, o := range off[1 : n-1] {
		sorted = append(sorted, o.Abs())
	}
	slices.Sort(sorted)
	var out []Blunder
	for i := 1; i < n-1; i++ {
		stands := off[i].Abs()
		if s[i].known || stands < leastBlunder || stands < off[i-1].Abs() || stands < off[i+1].Abs() {
			continue
		}
		rough, around := roughness(s, off, sorted, i)
		if stands < times*rough || stands < 3*around {
			continue
		}
		out = append(out, Blunder{Path: s[i].path, Sure: s[i].sure, Run: s[i].run, At: s[i].at, Kind: kind, Given: s[i].value,
			Before: s[i-1].value, After: s[i+1].value, Likely: likely(s[i].value, s[i].value-off[i], rough), Weak: n-3 < enough})
	}
	return out
}

// lineAt is the value at a place of the straight line between two readings.
func lineAt(a, b reading, at length.Length) length.Length {
	if b.at-a.at <= length.Tolerance {
		return (a.value + b.value) / 2
	}
	return a.value + (b.value-a.value)*(at-a.at)/(b.at-a.at)
}

// roughness is how far the series' other entries typically stand off the line
// between their neighbours, were entry i not there; and how far its own two
// neighbours do. Only those two stand otherwise then, so that the middle of all
// of them is found from all as they stand, sorted once.
func roughness(s []reading, off, sorted []length.Length, i int) (typical, around length.Length) {
	gone := []length.Length{off[i].Abs()}
	var come []length.Length
	for _, k := range [2]int{i - 1, i + 1} {
		if k < 1 || k > len(s)-2 {
			continue
		}
		before, after := s[i-1], s[i+1]
		if k == i-1 {
			before = s[i-2]
		} else {
			after = s[i+2]
		}
		d := (s[k].value - lineAt(before, after, s[k].at)).Abs()
		gone, come = append(gone, off[k].Abs()), append(come, d)
		around = max(around, d)
	}
	return middleOf(sorted, gone, come), around
}

// middleOf is the middle of sorted values, the upper one of two, had some of
// them gone and others come. It looks no farther from the middle than those
// can move it.
func middleOf(sorted, gone, come []length.Length) length.Length {
	n := len(sorted) - len(gone) + len(come)
	if n == 0 {
		return 0
	}
	reach := len(gone) + len(come) + 1
	low, high := max(0, n/2-reach), min(len(sorted), n/2+reach+1)
	near := slices.Clone(sorted[low:high])
	for _, g := range gone {
		if k, ok := slices.BinarySearch(near, g); ok {
			near = slices.Delete(near, k, k+1)
		} else if k == 0 && low > 0 {
			low--
		}
	}
	for _, c := range come {
		if k, _ := slices.BinarySearch(near, c); k == 0 && low > 0 {
			low++
		} else {
			near = slices.Insert(near, k, c)
		}
	}
	return near[n/2-low]
}

// likely lists what was probably meant: a foot, ten inches, a decimetre or a
// metre too many or too few, two digits of inches changed round, the sign
// lost. Only what fits the neighbours is named.
func likely(given, line, rough length.Length) []length.Length {
	var out []length.Length
	near := max(2*rough, 40*length.Millimetre)
	try := func(v length.Length) {
		if (v-line).Abs() <= near && !slices.ContainsFunc(out, func(o length.Length) bool { return length.Same(o, v) }) {
			out = append(out, v)
		}
	}
	for _, by := range []length.Length{length.Foot, 10 * length.Inch, 100, 1000, 2 * length.Foot, 20 * length.Inch, 200, 500} {
		try(given + by)
		try(given - by)
	}
	if inches := math.Round(given.Inches()); inches >= 10 && inches < 100 && length.Same(length.Length(inches)*length.Inch, given) {
		try(length.Length(math.Mod(inches, 10)*10+math.Floor(inches/10)) * length.Inch)
	}
	try(-given)
	slices.SortStableFunc(out, func(a, b length.Length) int {
		if da, db := (a - line).Abs(), (b - line).Abs(); da < db {
			return -1
		} else if da > db {
			return 1
		}
		return 0
	})
	return out[:min(len(out), 2)]
}
