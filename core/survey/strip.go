package survey

import (
	"cmp"
	"math"
	"slices"

	"mallow/core/job"
	"mallow/core/length"
)

// Point is the ground at a station of a run, with the entry that says so.
type Point struct {
	At     length.Length `json:"at" jsonschema:"required" jsonschema_description:"Station, level."`
	Height length.Length `json:"height" jsonschema:"required"`
	Path   string        `json:"path,omitempty" jsonschema_description:"JSON pointer of the entry that this height comes from; left out for what lies between entries."`
	Sign   float64       `json:"sign,omitempty" jsonschema_description:"What one more in that entry makes of the height: 1, -1, or left out where the entry moves other points too."`
}

// Ground is one run's part of the line's profile.
type Ground struct {
	Length     length.Length // level
	Correction length.Length // what a slope tape's reduction took off
	Start      length.Length // taped distance along the line to the run's start
	Points     []Point       // in order of level station, from end to end
	Measured   bool          // some height of this run was measured
	Steep      *Steep        // where the slope tape is shorter than the rise
}

// Steep is a stretch whose heights differ by more than its slope tape.
type Steep struct{ From, To, Rise length.Length }

// Conflict is a place to which two entries give different heights.
type Conflict struct {
	Run      string
	At       length.Length
	Have     length.Length // the height that stands
	Given    length.Length // the height that a later entry gives
	Book     int           // index of the later entry's page, or -1 for the run's own list
	RunIndex int
}

// Loop is the height misclosure of a closed line.
type Loop struct {
	Error     length.Length // height found at the start after going round
	Allowance length.Length
}

// Survey is what a line's field books come to.
type Survey struct {
	Runs      []Ground
	Blunders  []Blunder
	Rods      []Levels // one for each page of rod readings, in order
	Conflicts []Conflict
	Loop      *Loop
}

// entry is one height on the strip: the whole line unrolled, corner after
// corner, so that a corner has one place and one height.
type entry struct {
	run    int
	at     length.Length // station as taped
	chain  length.Length // along the strip
	height length.Length
	path   string
	sign   float64
}

// page is a page of heights that hang together.
type page struct {
	entries  []entry
	absolute bool // heights are over the line's own datum
	book     int
	first    int // run of its first entry
}

// Reduce brings all of a line's field books to one profile over one datum. A
// page of drops or rises tells heights only among its own points: it is tied
// at one of them whose height is known already. Between points the
// ground is straight, also across a corner; beyond the outermost it is level.
func Reduce(l job.Line, path string) Survey {
	s := Survey{Runs: make([]Ground, len(l.Runs))}
	chain := length.Length(0)
	for r, run := range l.Runs {
		s.Runs[r] = Ground{Start: chain}
		if run.Length != nil {
			chain += *run.Length
		}
	}
	pages := s.pages(l, path)
	s.Blunders = blunders(l, path)
	known := s.tie(l, pages, chain)
	if l.Closed {
		known = s.close(known, chain, len(pages))
	}
	for r, run := range l.Runs {
		s.run(r, run, known)
	}
	return s
}

// pages collects the pages in the order of the runs that they begin on.
func (s *Survey) pages(l job.Line, path string) []page {
	byID := map[string]int{}
	var pages []page
	for r, run := range l.Runs {
		byID[run.ID] = r
		if len(run.Ground) == 0 || run.Length == nil {
			continue
		}
		p := page{absolute: true, book: -1, first: r}
		at := job.At(path, "runs", run.ID, "ground")
		for _, g := range run.Ground {
			p.entries = append(p.entries, entry{r, g.At, s.Runs[r].Start + g.At, g.Height,
				job.At(at, g.ID, "height"), 1})
		}
		pages = append(pages, p)
	}
	for b, book := range l.Books {
		at := job.At(path, "books", book.ID, "rows")
		p := page{book: b}
		if book.Kind == job.Rod {
			levels := LevelBook(book)
			s.Rods = append(s.Rods, levels)
			p.absolute = book.Start != nil
			for i, row := range book.Rows {
				r, on := byID[row.Run]
				if !on || l.Runs[r].Length == nil {
					continue
				}
				e := entry{r, row.At, s.Runs[r].Start + row.At, levels.Heights[i], "", 0}
				if row.Side != nil {
					e.path, e.sign = job.At(at, row.ID, "side"), -1
				}
				p.entries = append(p.entries, e)
			}
		} else if r, on := byID[book.Run]; on && l.Runs[r].Length != nil {
			height := length.Length(0)
			for i, row := range book.Rows {
				e := entry{r, row.At, s.Runs[r].Start + row.At, -row.Drop, job.At(at, row.ID, "drop"), -1}
				if book.Kind == job.Rises {
					if i > 0 {
						height += row.Rise
					}
					e.height, e.path, e.sign = height, "", 0
				}
				p.entries = append(p.entries, e)
			}
		}
		if len(p.entries) > 0 {
			p.first = p.entries[0].run
			pages = append(pages, p)
		}
	}
	slices.SortStableFunc(pages, func(a, b page) int { return cmp.Compare(a.first, b.first) })
	return pages
}

// tie puts the pages together. Those over the line's own datum stand as they
// are. Of the others a page that shares a point with what is known comes
// first, then one that lies within it, then the nearest; without any known
// height the first page makes the datum.
func (s *Survey) tie(l job.Line, pages []page, round length.Length) []entry {
	var known []entry
	waiting := make([]page, 0, len(pages))
	for _, p := range pages {
		if p.absolute {
			known = s.join(l, known, p, 0)
			continue
		}
		waiting = append(waiting, p)
	}
	if !l.Closed {
		round = 0
	}
	for len(waiting) > 0 {
		k, shift := nextPage(waiting, known, round)
		known = s.join(l, known, waiting[k], shift)
		waiting = slices.Delete(waiting, k, k+1)
	}
	return known
}

// nextPage picks the page to tie next and what lifts it.
func nextPage(waiting []page, known []entry, round length.Length) (int, length.Length) {
	if len(known) == 0 {
		return 0, 0
	}
	for k, p := range waiting {
		for _, e := range p.entries {
			for _, at := range []length.Length{e.chain, e.chain - round, e.chain + round} {
				if i, found := find(known, at); found {
					return k, known[i].height - e.height
				}
			}
		}
	}
	first, last := known[0].chain, known[len(known)-1].chain
	best, shift, away := 0, length.Length(0), length.Length(math.Inf(1))
	for k, p := range waiting {
		for _, e := range p.entries {
			// Nearest is what lies within; the ground is held level beyond.
			if d := max(first-e.chain, e.chain-last, 0); d < away-length.Tolerance {
				best, shift, away = k, heightAt(known, e.chain)-e.height, d
			}
		}
	}
	return best, shift
}

// join adds a lifted page to what is known and notes where they disagree.
func (s *Survey) join(l job.Line, known []entry, p page, shift length.Length) []entry {
	var fresh []entry
	been := map[int64]bool{} // places of this page so far, in hundredths of a millimetre
	for _, e := range p.entries {
		e.height += shift
		spot := int64(math.Round(float64(e.chain) * 100))
		again := been[spot] && p.book >= 0
		been[spot] = true
		i, found := find(known, e.chain)
		if !found {
			fresh = append(fresh, e)
			continue
		}
		// A page that comes back to a point closes on it; that is its own affair.
		if !again && !length.Same(known[i].height, e.height) {
			s.Conflicts = append(s.Conflicts, Conflict{l.Runs[e.run].ID, e.at, known[i].height, e.height, p.book, e.run})
		}
	}
	// A page may come back to a place; its first word on it stands.
	slices.SortStableFunc(fresh, byChain)
	fresh = slices.CompactFunc(fresh, func(a, b entry) bool { return length.Same(a.chain, b.chain) })
	return merged(known, fresh)
}

// merged puts two lists in order of place together.
func merged(a, b []entry) []entry {
	out := make([]entry, 0, len(a)+len(b))
	for len(a) > 0 && len(b) > 0 {
		if b[0].chain < a[0].chain {
			out, b = append(out, b[0]), b[1:]
		} else {
			out, a = append(out, a[0]), a[1:]
		}
	}
	return append(append(out, a...), b...)
}

func byChain(a, b entry) int { return cmp.Compare(a.chain, b.chain) }

// find looks for a known height at a place.
func find(known []entry, chain length.Length) (int, bool) {
	i, _ := slices.BinarySearchFunc(known, chain-length.Tolerance, func(e entry, c length.Length) int { return cmp.Compare(e.chain, c) })
	return i, i < len(known) && known[i].chain <= chain+length.Tolerance
}

// heightAt is the height of the strip at a place.
func heightAt(known []entry, chain length.Length) length.Length {
	if len(known) == 0 {
		return 0
	}
	i, _ := slices.BinarySearchFunc(known, chain, func(e entry, c length.Length) int { return cmp.Compare(e.chain, c) })
	switch {
	case i == 0:
		return known[0].height
	case i == len(known):
		return known[i-1].height
	}
	a, b := known[i-1], known[i]
	return a.height + (b.height-a.height)*(chain-a.chain)/(b.chain-a.chain)
}

// stringAllowance is how far a set of level strings may be out, for each root
// of a page (common practice: a line level holds 1/4 in).
const stringAllowance = 6 * length.Millimetre

// close brings a closed line's first corner to one height. Where it was
// reached from both sides, the misclosure is spread with the distance round
// the line; where it was reached from one, that height is used for the other;
// where from neither, the ground is straight across it.
func (s *Survey) close(known []entry, round length.Length, pages int) []entry {
	if len(known) == 0 || round <= 0 {
		return known
	}
	first, began := find(known, 0)
	last, ended := find(known, round)
	n := len(known)
	switch {
	case began && ended:
		off := known[last].height - known[first].height
		s.Loop = &Loop{Error: off, Allowance: stringAllowance * length.Length(math.Sqrt(float64(pages)))}
		for i := range known {
			known[i].height -= off * known[i].chain / round
		}
		return known
	case began:
		return append(known, entry{run: -1, chain: round, height: known[first].height})
	case ended:
		return slices.Insert(known, 0, entry{run: -1, height: known[last].height})
	}
	gap := round - known[n-1].chain + known[0].chain
	height := known[n-1].height + (known[0].height-known[n-1].height)*(round-known[n-1].chain)/gap
	known = slices.Insert(known, 0, entry{run: -1, height: height})
	return append(known, entry{run: -1, chain: round, height: height})
}

// run cuts a run's profile out of the strip and reduces it to level.
func (s *Survey) run(r int, run job.Run, known []entry) {
	g := &s.Runs[r]
	if run.Length == nil {
		return
	}
	end := g.Start + *run.Length
	add := func(at, height length.Length, e *entry) {
		p := Point{At: at, Height: height}
		if e != nil {
			p.Path, p.Sign = e.path, e.sign
			g.Measured = g.Measured || e.run == r
		}
		g.Points = append(g.Points, p)
	}
	lo, found := find(known, g.Start)
	if !found {
		add(0, heightAt(known, g.Start), nil)
	}
	for i := lo; i < len(known) && known[i].chain <= end+length.Tolerance; i++ {
		add(min(max(known[i].chain-g.Start, 0), *run.Length), known[i].height, &known[i])
	}
	if n := len(g.Points); g.Points[n-1].At < *run.Length-length.Tolerance {
		add(*run.Length, heightAt(known, end), nil)
	}
	g.Length = *run.Length
	if run.Taped == job.TapedSlope {
		g.Steep = reduceSlope(g.Points)
		g.Length = g.Points[len(g.Points)-1].At
		g.Correction = *run.Length - g.Length
	}
}

// reduceSlope turns slope-taped stations into level ones: each piece is the
// hypotenuse over its rise. A piece that is shorter than its rise cannot be;
// it is left as taped and reported.
func reduceSlope(points []Point) *Steep {
	var steep *Steep
	taped, level := points[0].At, points[0].At
	for i := 1; i < len(points); i++ {
		along, rise := float64(points[i].At-taped), float64(points[i].Height-points[i-1].Height)
		flat := along
		if math.Abs(rise) < along {
			flat = math.Sqrt(along*along - rise*rise)
		} else if steep == nil && along > 0 {
			steep = &Steep{taped, points[i].At, length.Length(rise)}
		}
		taped = points[i].At
		level += length.Length(flat)
		points[i].At = level
	}
	return steep
}

// Profile is the run's ground as a profile.
func (g Ground) Profile() Profile {
	points := make([]job.GroundPoint, len(g.Points))
	for i, p := range g.Points {
		points[i] = job.GroundPoint{At: p.At, Height: p.Height}
	}
	return NewProfile(points, g.Length)
}
