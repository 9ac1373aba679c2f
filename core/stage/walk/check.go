package walk

import (
	"cmp"
	"fmt"
	"math"

	"mallow/core/finding"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/reason"
	"mallow/core/stage"
	"mallow/core/survey"
)

// walkCheck looks at what a line's measures say of each other.
type check struct {
	*Walk
	found []stage.Found
}

func (w *check) find(f finding.Finding, ways ...func(*stage.Advising) []finding.Remedy) {
	f.Place.Line = w.Line.ID
	one := stage.Found{Finding: f}
	if len(ways) > 0 {
		one.Ways = ways[0]
	}
	w.found = append(w.found, one)
}

// check says what is to be said of the line's measures.
func (w *Walk) Check() []stage.Found {
	c := &check{Walk: w}
	c.turns()
	c.closes()
	c.blunders()
	c.conflicts()
	c.levels()
	c.slopes()
	return c.found
}

func (w *check) runName(r int) string { return cmp.Or(w.Line.Runs[r].Name, w.Line.Runs[r].ID) }

func (w *check) turns() {
	for i, t := range w.traverse.Turns {
		field := fmt.Sprintf("%s/runs/%d/corner", w.Path, i)
		place := finding.Place{Run: w.Line.Runs[i].ID}
		switch {
		case t.Wrong != nil:
			w.find(finding.Finding{Rule: codeTriangle, Stage: finding.Walk, Severity: finding.Cannot, Place: place,
				Says: reason.Say("No triangle has legs of ", reason.Tape(t.Wrong.Back), " and ", reason.Tape(t.Wrong.Forth), " and a diagonal of ", reason.Tape(t.Wrong.Diagonal),
					": it can be ", reason.Tape(t.Wrong.Least), " to ", reason.Tape(t.Wrong.Most), ". The corner before ", w.runName(i), " is taken as straight on.")})
		case i > 0 && !t.Measured && !t.Found:
			w.find(finding.Finding{Rule: codeCornerMissing, Stage: finding.Walk, Severity: finding.Missing, Field: field, Place: place,
				Says: reason.Say("How does the line turn from ", w.runName(i-1), " to ", w.runName(i), "? Until then it goes straight on.")})
		}
	}
}

// looseRatio is the misclosure past which a blunder is likelier than taping
// error: 1 in 500 (common practice for a tape on rough ground).
const looseRatio = 500

// looseAngle is how far, in degrees, measured turns may miss closing for each
// root of a corner: a carpenter's protractor reads to half a degree.
const looseAngle = 0.5

func (w *check) closes() {
	c := w.traverse.Closing
	if c == nil {
		return
	}
	ratio := c.Ratio()
	loose := ratio < looseRatio
	if c.Miss > w.units.SmallestMark && (loose || !w.Line.Balance) {
		f := finding.Finding{Rule: codeMisclosure, Stage: finding.Walk, Severity: finding.Note,
			Says: reason.Say("The line misses closing by ", c.Miss, ", 1 in ", math.Round(ratio), ".")}
		if loose {
			f.Severity = finding.Check
			f.Says = append(f.Says, reason.Say(" That is more than taping error, which is about 1 in 500: look for a slip first.")...)
		}
		if w.Line.Balance {
			f.Says = append(f.Says, reason.Say(" It is spread all the same.")...)
			w.find(f)
		} else {
			w.find(f, stage.OneWay(reason.Say("Spread it by the compass rule"), job.Set(w.Path+"/balance", true)))
		}
	}
	if k := w.traverse.Checked; k != nil && math.Abs(normalTurn(k.Left, k.Found)) > looseAngle*math.Sqrt(float64(len(w.Line.Runs))) {
		tenth := func(v float64) float64 { return math.Round(10*math.Abs(v)) / 10 }
		w.find(finding.Finding{Rule: codeCornerUnmeasured, Stage: finding.Walk, Severity: finding.Check, Place: finding.Place{Run: w.Line.Runs[k.Run].ID},
			Says: reason.Say("The corner before ", w.runName(k.Run), " was not measured. The lengths make it a turn of ", tenth(k.Found), "°, the other corners leave ", tenth(k.Left), "° for it: a length or a turn is likely wrong. Measure it.")})
	}
	if s := c.AngleSum; s != nil && math.Abs(*s) > looseAngle*math.Sqrt(float64(len(w.Line.Runs))) {
		w.find(finding.Finding{Rule: codeAngleSum, Stage: finding.Walk, Severity: finding.Check,
			Says: reason.Say("The turns round the line add up ", math.Abs(*s), "° off a whole turn: one of them, or its left or right, is likely wrong.")})
	}
}

// most findings of one kind that are worth reading at once.
const mostBlunders = 6

func (w *check) blunders() {
	for k, s := range w.survey.Blunders {
		if k == mostBlunders {
			w.find(finding.Finding{Rule: codeBlunders, Stage: finding.Walk, Severity: finding.Note,
				Says: reason.Say(len(w.survey.Blunders)-mostBlunders, " more entries stand out from their neighbours.")})
			return
		}
		severity := finding.Check
		if s.Weak {
			severity = finding.Note
		}
		f := finding.Finding{Rule: codeBlunder, Stage: finding.Walk, Severity: severity, Field: s.Path, Place: finding.Place{Run: s.Run},
			Says: reason.Say("Is the ", s.Kind, " at ", reason.Tape(s.At), " a slip? ", s.Given, " stands between ", s.Before, " and ", s.After, ".")}
		w.find(f, func(a *stage.Advising) (out []finding.Remedy) {
			for _, v := range s.Likely {
				out = append(out, finding.Remedy{Says: reason.Say("It was ", v), Edits: []job.Edit{job.Set(s.Path, v)}})
			}
			out = append(out, finding.Remedy{Says: reason.Say("Measured twice, it is so"), Edits: []job.Edit{job.Set(s.Sure, true)}})
			return out
		})
	}
}

// apartMuch is how far two heights of one place may lie apart before one of
// them is likely wrong: under 3/8 in or 10 mm it is how a rod is held (common
// practice).
const apartMuch = 10 * length.Millimetre

// conflicts reports places with two heights, once for each page.
func (w *check) conflicts() {
	told := map[[2]int]bool{}
	for _, c := range w.survey.Conflicts {
		key := [2]int{c.Book, c.RunIndex}
		if told[key] || (c.Given-c.Have).Abs() <= w.units.SmallestMark/2 {
			continue
		}
		told[key] = true
		off := c.Given - c.Have
		severity := finding.Note
		if off.Abs() > apartMuch {
			severity = finding.Check
		}
		f := finding.Finding{Rule: codeTwoHeights, Stage: finding.Walk, Severity: severity, Place: finding.Place{Run: c.Run},
			Says: reason.Say("At ", reason.Tape(c.At), " on ", w.runName(c.RunIndex), " the ground has two heights, ", c.Have, " and ", c.Given, ", ", off.Abs(), " apart. The first is used.")}
		w.find(f, func(a *stage.Advising) (out []finding.Remedy) {
			if c.Book < 0 {
				out = []finding.Remedy{{Says: reason.Say("They are from another mark: move all heights of ", w.runName(c.RunIndex), " by ", -off),
					Edits: w.lifted(c.RunIndex, -off)}}
			}
			return out
		})
	}
}

// lifted moves all of a run's own heights.
func (w *check) lifted(r int, by length.Length) []job.Edit {
	ground := append([]job.GroundPoint(nil), w.Line.Runs[r].Ground...)
	for i := range ground {
		ground[i].Height += by
	}
	return []job.Edit{job.Set(fmt.Sprintf("%s/runs/%d/ground", w.Path, r), ground)}
}

func (w *check) levels() {
	k := 0
	for b, book := range w.Line.Books {
		if book.Kind != job.Rod {
			continue
		}
		l := w.survey.Rods[k]
		k++
		if !l.Closed || l.Error.Abs() <= length.Tolerance {
			continue
		}
		at := fmt.Sprintf("%s/books/%d", w.Path, b)
		if l.Error.Abs() > l.Allow+length.Tolerance {
			w.find(finding.Finding{Rule: codeLevelClosing, Stage: finding.Walk, Severity: finding.Check,
				Says: reason.Say(pageName(book), " closes ", l.Error.Abs(), " ", stage.Plural(sign(l.Error), "high", "low"), "; ", l.Allow, " is allowed. Test the level on two pegs, or look for a slip.")})
		} else if !book.Spread && l.Error.Abs() > w.units.SmallestMark/2 {
			w.find(finding.Finding{Rule: codeLevelClosing, Stage: finding.Walk, Severity: finding.Note,
				Says: reason.Say(pageName(book), " closes ", l.Error.Abs(), " ", stage.Plural(sign(l.Error), "high", "low"), ", within the ", l.Allow, " allowed.")}, func(a *stage.Advising) []finding.Remedy {
				return []finding.Remedy{{Says: reason.Say("Spread it over the set-ups"), Edits: []job.Edit{job.Set(at+"/spread", true)}}}
			})
		}
	}
	if loop := w.survey.Loop; loop != nil && loop.Error.Abs() > w.units.SmallestMark/2 {
		f := finding.Finding{Rule: codeHeightLoop, Stage: finding.Walk, Severity: finding.Note,
			Says: reason.Say("Going round the line, the heights end ", loop.Error.Abs(), " ", stage.Plural(sign(loop.Error), "above", "below"), " where they began. That is spread with the distance, so that the first corner has one height.")}
		if loop.Error.Abs() > loop.Allowance {
			f.Severity = finding.Check
			f.Says = append(f.Says, reason.Say(" It is more than the ", loop.Allowance, " that so many strings may be out: look for a slip.")...)
		}
		w.find(f)
	}
}

func pageName(b job.Book) string {
	if b.Name != "" {
		return b.Name
	}
	return "Page " + b.ID
}

func sign(l length.Length) int {
	if l > 0 {
		return 1
	}
	return 2
}

func (w *check) slopes() {
	for r, g := range w.survey.Runs {
		if g.Steep == nil {
			continue
		}
		w.steep(r, *g.Steep)
	}
}

func (w *check) steep(r int, s survey.Steep) {
	w.find(finding.Finding{Rule: codeSteep, Stage: finding.Walk, Severity: finding.Cannot, Place: finding.Place{Run: w.Line.Runs[r].ID},
		Says: reason.Say("On ", w.runName(r), " the ground goes ", s.Rise.Abs(), " up or down between ", reason.Tape(s.From), " and ", reason.Tape(s.To),
			", which is more than the tape along it. A height or a station is wrong; that piece is taken as level.")})
}
