package document

import (
	"math"
	"strconv"

	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/words"
)

// What one job may ask of the machine, all its lines together. It is far more
// than a season's work on one site; a larger site is several jobs.
const (
	MostPosts     = 10000 // some 24 km of fence
	MostLeaning   = 1500  // of them on runs that are raked or rolling somewhere
	MostRuns      = 500
	MostGates     = 500
	MostHeights   = 20000  // ground heights, and rows of field books
	MostOverrides = 2000   // single holes with rules of their own
	MostInWay     = 2000   // things in the way
	MostHeld      = 2000   // held posts and bays
	MostParts     = 2000   // parts of runs with looks of their own
	MostPieces    = 400000 // of parts that are the job's own
)

// count is how many of one thing a job has, and where it first had too many.
type count struct {
	what  string
	most  int
	given float64
	field string
}

func (c *count) add(n float64, field string) {
	if c.given += n; c.given > float64(c.most) && c.field == "" {
		c.field = field
	}
}

// checkCost refuses a job that is over what a job may ask, at the run or book
// that takes it over.
func checkCost(j job.Job) Errors {
	posts := count{what: "posts", most: MostPosts}
	runs := count{what: "runs", most: MostRuns}
	gates := count{what: "gates", most: MostGates}
	heights := count{what: words.Plain("document.ground-heights"), most: MostHeights}
	spots := count{what: words.Plain("document.single-holes-with-rules-of"), most: MostOverrides}
	inWay := count{what: words.Plain("document.things-in-the-way"), most: MostInWay}
	held := count{what: words.Plain("document.held-posts-and-bays"), most: MostHeld}
	lean := count{what: words.Plain("document.posts-on-raked-and-rolling"), most: MostLeaning}
	parts := count{what: words.Plain("document.parts-with-a-look-of"), most: MostParts}
	pieces := count{what: words.Plain("document.pieces-of-its-own-parts"), most: MostPieces}
	own := map[string][]job.Part{}
	for _, s := range j.Systems {
		own[s.ID] = s.Parts
	}
	for _, line := range j.Lines {
		at := job.At("/lines", line.ID)
		for _, book := range line.Books {
			heights.add(float64(len(book.Rows)), job.At(at, "books", book.ID, "rows"))
		}
		for _, run := range line.Runs {
			at := job.At(at, "runs", run.ID)
			runs.add(1, at)
			gates.add(float64(len(run.Gates)), at+"/gates")
			heights.add(float64(len(run.Ground)), at+"/ground")
			spots.add(float64(len(run.Overrides)), at+"/overrides")
			inWay.add(float64(len(run.KeepOuts)), at+"/keepOuts")
			held.add(float64(len(run.FixedPosts)+len(run.HeldBays)), at+"/fixedPosts")
			parts.add(float64(len(run.Grade.Parts)), at+"/grade/parts")
			n := postsOf(run)
			posts.add(n, at+"/length")
			pieces.add(piecesOf(run, run.Parts, n)+piecesOf(run, own[run.System], n), at+"/parts")
			if run.Leans() {
				lean.add(n, at+"/grade/look")
			}
		}
	}
	var e Errors
	for _, c := range []count{posts, lean, runs, gates, heights, spots, inWay, held, parts, pieces} {
		if c.field != "" {
			e = append(e, FieldError{c.field, words.Plain("document.in-the-job", words.V{"number": number(c.given), "what": c.what}),
				words.Plain("document.at-most-in-one-job", words.V{"number": number(float64(c.most)), "what": c.what})})
		}
	}
	return e
}

// postsOf is how many posts a run takes at the least.
func postsOf(r job.Run) float64 {
	if r.Length == nil {
		return 0
	}
	bay := r.Spacing.Most
	if _, ok := r.Spacing.ByPiece(); ok {
		bay = r.Spacing.Regular(r.Post.Width, r.Post.Width)
	}
	if bay <= 0 {
		return 0 // refused with the spacing
	}
	long := *r.Length
	if r.Leans() { // spaced along the ground
		long = 0
		var from, low length.Length
		for i, g := range r.Ground {
			if i > 0 {
				long += length.Length(math.Hypot(float64(g.At-from), min(mostLean*float64(g.At-from), math.Abs(float64(g.Height-low)))))
			} else {
				long += g.At
			}
			from, low = g.At, g.Height
		}
		long += *r.Length - from
	}
	n := math.Ceil(float64(long/max(bay, length.Millimetre))) + 1
	if n > mostPosts+1 {
		return 0 // refused with the run's spacing already
	}
	return n
}

// mostLean is the steepest ground that posts are counted along.
const mostLean = 2

// number prints a count with its thousands apart.
func number(n float64) string {
	s := strconv.FormatFloat(math.Round(n), 'f', 0, 64)
	for i := len(s) - 3; i > 0; i -= 3 {
		s = s[:i] + "," + s[i:]
	}
	return s
}
