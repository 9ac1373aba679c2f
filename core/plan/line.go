package plan

import (
	"fmt"
	"math"

	"mallow/core/finding"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/materials"
	"mallow/core/reason"
	"mallow/core/spacing"
	"mallow/core/stringline"
	"mallow/core/survey"
)

// Line is one fence line on the map.
type Line struct {
	ID      string        `json:"id" jsonschema:"required"`
	Name    string        `json:"name" jsonschema:"required"`
	Path    string        `json:"path" jsonschema:"required" jsonschema_description:"JSON pointer of the line in the job document."`
	Closed  bool          `json:"closed" jsonschema:"required"`
	Inside  job.Side      `json:"inside" jsonschema:"required,enum=left,enum=right" jsonschema_description:"Hand on which the ground lies that it fences in."`
	First   int           `json:"first" jsonschema:"required" jsonschema_description:"Place of its first run in the plan's list of runs; the others follow."`
	Runs    int           `json:"runs" jsonschema:"required"`
	Length  length.Length `json:"length" jsonschema:"required" jsonschema_description:"Of all its runs, level."`
	Corners []Corner      `json:"corners" jsonschema:"required" jsonschema_description:"In order, its two ends among them when it is open."`
	Closing *Closing      `json:"closing,omitempty" jsonschema_description:"How a closed line closes, once all its turns are known."`
	Loop    *HeightLoop   `json:"loop,omitempty" jsonschema_description:"How the heights of a closed line close."`
	Books   []BookCheck   `json:"books" jsonschema:"required" jsonschema_description:"What each page of rod readings comes to."`
}

// Corner is a place where two runs meet, or an end.
type Corner struct {
	Place    survey.Place `json:"place" jsonschema:"required"`
	Before   string       `json:"before,omitempty" jsonschema_description:"Run that ends here."`
	After    string       `json:"after,omitempty" jsonschema_description:"Run that starts here."`
	Path     string       `json:"path,omitempty" jsonschema_description:"JSON pointer of the corner's measures in the job document."`
	Post     string       `json:"post,omitempty" jsonschema_description:"The post that stands here, in the run that ends here or else in the one that starts."`
	Turn     *float64     `json:"turn,omitempty" jsonschema_description:"Degrees off the straight-on line, left positive; left out at an end, and while it is not known."`
	Interior *float64     `json:"interior,omitempty" jsonschema_description:"Degrees between the two runs."`
	Side     job.Side     `json:"side,omitempty" jsonschema:"enum=left,enum=right" jsonschema_description:"Way it turns; left out when straight."`
	Measured bool         `json:"measured" jsonschema:"required" jsonschema_description:"The turn was measured; else it follows from closing, or is still missing."`
	Square   *Squaring    `json:"square,omitempty"`
	Why      *reason.Ref  `json:"why,omitempty"`
}

// Squaring is how a corner is set by tape.
type Squaring struct {
	LegA     length.Length             `json:"legA" jsonschema:"required" jsonschema_description:"Along the run before."`
	LegB     length.Length             `json:"legB" jsonschema:"required" jsonschema_description:"Along the run after."`
	Diagonal length.Length             `json:"diagonal" jsonschema:"required"`
	Right    bool                      `json:"right" jsonschema:"required" jsonschema_description:"A right angle to the tape's mark."`
	Three    *stringline.ThreeFourFive `json:"three,omitempty" jsonschema_description:"Largest 3-4-5 that fits, at a right angle."`
	Whole    length.Length             `json:"whole" jsonschema:"required" jsonschema_description:"Diagonal across both whole runs, to check with."`
	Along    length.Length             `json:"along" jsonschema:"required" jsonschema_description:"By offset instead: from the corner along the run before, prolonged; negative is back along it."`
	Off      length.Length             `json:"off" jsonschema:"required" jsonschema_description:"From there square off, to the end of the second leg."`
	A        survey.Place              `json:"a" jsonschema:"required" jsonschema_description:"End of the first leg on the map."`
	B        survey.Place              `json:"b" jsonschema:"required"`
}

// Closing is a closed line's misclosure and its spreading.
type Closing struct {
	Perimeter length.Length `json:"perimeter" jsonschema:"required"`
	X         length.Length `json:"x" jsonschema:"required" jsonschema_description:"From the start to where the measures end, to the right."`
	Y         length.Length `json:"y" jsonschema:"required" jsonschema_description:"The same, up."`
	Miss      length.Length `json:"miss" jsonschema:"required"`
	Ratio     *float64      `json:"ratio,omitempty" jsonschema_description:"One part in so many; left out when nothing is missed."`
	AngleSum  *float64      `json:"angleSum,omitempty" jsonschema_description:"Degrees by which the turns miss closing, when all were measured."`
	Spread    bool          `json:"spread" jsonschema:"required"`
	Legs      []Balance     `json:"legs" jsonschema:"required"`
	Why       reason.Ref    `json:"why" jsonschema:"required"`
}

// Balance is one run before and after the misclosure is spread.
type Balance struct {
	Run             string        `json:"run" jsonschema:"required"`
	Taped           length.Length `json:"taped" jsonschema:"required"`
	Balanced        length.Length `json:"balanced" jsonschema:"required"`
	Bearing         float64       `json:"bearing" jsonschema:"required" jsonschema_description:"Degrees clockwise from the map's up."`
	BalancedBearing float64       `json:"balancedBearing" jsonschema:"required"`
	EndBefore       survey.Place  `json:"endBefore" jsonschema:"required"`
	EndAfter        survey.Place  `json:"endAfter" jsonschema:"required"`
}

// HeightLoop is the height misclosure of a closed line.
type HeightLoop struct {
	Error     length.Length `json:"error" jsonschema:"required"`
	Allowance length.Length `json:"allowance" jsonschema:"required"`
}

// BookCheck is what a page of rod readings comes to.
type BookCheck struct {
	Book      string          `json:"book" jsonschema:"required"`
	Heights   []length.Length `json:"heights" jsonschema:"required" jsonschema_description:"Of each row's point, over the page's first."`
	Setups    []length.Length `json:"setups" jsonschema:"required" jsonschema_description:"Height of the line of sight at each set-up."`
	SumBack   length.Length   `json:"sumBack" jsonschema:"required"`
	SumFore   length.Length   `json:"sumFore" jsonschema:"required"`
	Closed    bool            `json:"closed" jsonschema:"required"`
	Error     length.Length   `json:"error" jsonschema:"required"`
	Allowance length.Length   `json:"allowance" jsonschema:"required"`
	Circuit   length.Length   `json:"circuit" jsonschema:"required"`
}

// joint is a corner post that two runs share.
type joint struct {
	next  *maker // the run that starts there
	turn  survey.Turn
	plain bool // straight on, with the same fence on both sides
}

// liner plans one line: its runs on the map and the corners between them.
type liner struct {
	job      job.Job
	line     job.Line
	path     string
	book     *reason.Book
	few      reason.Index[any]
	runs     []*maker
	survey   survey.Survey
	traverse survey.Traverse
	findings []finding.Finding
	quiet    bool // a trial: nothing is judged, worded for the site, or offered
	out      Line
}

func newLiner(j job.Job, l int, cat materials.Catalog, book *reason.Book, watch *watch) *liner {
	line := j.Lines[l]
	w := &liner{job: j, line: line, path: fmt.Sprintf("/lines/%d", l), book: book, few: reason.NewIndex[any](book)}
	for r, run := range line.Runs {
		w.runs = append(w.runs, newMaker(j, run, cat, book, watch, fmt.Sprintf("%s/runs/%d", w.path, r)))
	}
	w.out = Line{ID: line.ID, Name: line.Name, Path: w.path, Closed: line.Closed, Runs: len(line.Runs), Corners: []Corner{}, Books: []BookCheck{}}
	return w
}

func (w *liner) make() {
	w.survey = survey.Reduce(w.line, w.path)
	levels := make([]length.Length, len(w.runs))
	for r := range w.runs {
		levels[r] = w.survey.Runs[r].Length
	}
	w.traverse = survey.Lay(w.line, levels)
	w.out.Inside = w.inside()
	for r, m := range w.runs {
		m.inside = w.out.Inside
		m.lay(w.survey.Runs[r], [2]spacing.Corner{w.corner(r), w.corner(r + 1)})
	}
	start := length.Length(0)
	for r, m := range w.runs {
		from, to := w.traverse.Places[r], w.traverse.Places[r+1]
		m.out.Line, m.out.Start, m.out.From, m.out.To = w.line.ID, start, from, to
		m.out.Bearing = bearing(from, to)
		start += levels[r]
	}
	w.out.Length = start
	joints := w.joints()
	w.grade(joints)
	for r, m := range w.runs {
		m.make(joints[(r+len(w.runs)-1)%len(w.runs)], joints[r])
	}
	for r, j := range joints {
		if j != nil {
			share(w.runs[r], j.next)
		}
	}
	for _, m := range w.runs {
		if w.quiet {
			m.weighed()
		} else {
			m.finish()
		}
	}
	if w.quiet {
		return
	}
	w.corners()
	w.closing()
	w.books()
	w.judge()
}

// inside is the hand on which the ground lies that the line fences in.
func (w *liner) inside() job.Side {
	if w.line.Inside != "" {
		return w.line.Inside
	}
	var area float64 // twice, positive when the line goes round to the left
	for i, a := range w.traverse.Places {
		b := w.traverse.Places[(i+1)%len(w.traverse.Places)]
		area += float64(a.X*b.Y - b.X*a.Y)
	}
	if w.line.Closed && area < 0 {
		return job.Right
	}
	return job.Left
}

// bends tells whether the line turns at the start of a run, or at the end of
// the last one.
func (w *liner) bends(r int) bool {
	n := len(w.runs)
	if !w.line.Closed && (r == 0 || r == n) {
		return false
	}
	if turn := w.traverse.Turns[r%n]; turn.Measured || turn.Found {
		return math.Abs(turn.Degrees) >= straight
	}
	return w.line.Closed // what is not measured yet is no straight line by chance
}

// corner is how the line turns at the start of a run, or at the end of the
// last one.
func (w *liner) corner(r int) spacing.Corner {
	c := spacing.Corner{Turns: w.bends(r)}
	if turn := w.traverse.Turns[r%len(w.runs)]; c.Turns && (turn.Measured || turn.Found) {
		if c.To = job.Left; turn.Degrees < 0 {
			c.To = job.Right
		}
	} else if c.Turns && w.line.Closed { // the first corner: round to the inner hand
		c.To = w.out.Inside
	}
	return c
}

// straight is the turn, in degrees, under which two runs are one straight
// fence: the post between them is no corner post.
const straight = 1.0

// joints finds the corner posts, by the run that ends at each, and settles
// what kind of post each is: a gate's if either run hangs one on it.
func (w *liner) joints() []*joint {
	n := len(w.runs)
	out := make([]*joint, n)
	for r, m := range w.runs {
		after := (r + 1) % n
		if after == 0 && !w.line.Closed || !m.laid() || !w.runs[after].laid() || n == 1 {
			continue
		}
		j := &joint{next: w.runs[after], turn: w.traverse.Turns[after]}
		if after == 0 && !j.turn.Measured {
			j.turn.Degrees = normalTurn(w.runs[r].out.Bearing, w.runs[0].out.Bearing)
		}
		a, b := &m.layout.Posts[len(m.layout.Posts)-1], &j.next.layout.Posts[0]
		switch {
		case a.Kind == job.GatePost || b.Kind == job.GatePost:
			a.Kind, b.Kind = job.GatePost, job.GatePost
		case math.Abs(j.turn.Degrees) >= straight:
			a.Kind, b.Kind = job.CornerPost, job.CornerPost
		case alike(m.run, j.next.run):
			// One straight fence that is only taped in two pieces.
			a.Kind, b.Kind, j.plain = job.LinePost, job.LinePost, true
		}
		out[r] = j
	}
	return out
}

// share gives a corner post to the run that starts at it, as the run that
// ends there has planned it.
func share(ends, starts *maker) {
	post := ends.out.Posts[len(ends.out.Posts)-1]
	own := &starts.out.Posts[0]
	post.ID, post.Gate, post.Station, post.Slope, post.Shared = own.ID, own.Gate, own.Station, own.Slope, ends.run.ID
	post.Why.Station = own.Why.Station
	// What is marked on it for this run's panels is this run's.
	post.Mark, post.Holes, post.Step, post.Overlap, post.Why.Top = own.Mark, own.Holes, own.Step, own.Overlap, own.Why.Top
	if post.Card >= 0 {
		starts.out.Cards = append(starts.out.Cards, ends.out.Cards[post.Card])
		starts.ditches = append(starts.ditches, ends.ditches[post.Card])
		post.Card = len(starts.out.Cards) - 1
	}
	post.Spot, post.spot = "", -1
	*own = post
}

// bearing is the direction from one place to another, degrees clockwise from
// the map's up.
func bearing(from, to survey.Place) float64 {
	d := math.Atan2(float64(to.X-from.X), float64(to.Y-from.Y)) * 180 / math.Pi
	if d < 0 {
		d += 360
	}
	return d
}

// normalTurn is the turn from one bearing to another, left positive.
func normalTurn(before, after float64) float64 {
	d := math.Mod(before-after+540, 360) - 180
	if d == -180 {
		return 180
	}
	return d
}
