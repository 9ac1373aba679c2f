package walk

import (
	"cmp"
	"math"

	"mallow/core/finding"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/stage"
	"mallow/core/survey"
	"mallow/core/words"
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
		field := job.At(w.Path, "runs", w.Line.Runs[i].ID, "corner")
		place := finding.Place{Run: w.Line.Runs[i].ID}
		switch {
		case t.Wrong != nil:
			w.find(finding.Finding{Rule: codeTriangle, Stage: finding.Walk, Severity: finding.Cannot, Place: place,
				Says: words.Say("walk.triangle", words.V{"back": t.Wrong.Back, "forth": t.Wrong.Forth, "diagonal": t.Wrong.Diagonal, "least": t.Wrong.Least, "most": t.Wrong.Most, "runName": w.runName(i)})})
		case i > 0 && !t.Measured && !t.Found:
			w.find(finding.Finding{Rule: codeCornerMissing, Stage: finding.Walk, Severity: finding.Missing, Field: field, Place: place,
				Says: words.Say("walk.corner-missing", words.V{"from": w.runName(i - 1), "to": w.runName(i)})})
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
			Says: words.Say("walk.misclosure", words.V{"miss": c.Miss, "ratio": math.Round(ratio)})}
		if loose {
			f.Severity = finding.Check
			f.Says = append(f.Says, words.Say("walk.that-is-more-than-taping")...)
		}
		if w.Line.Balance {
			f.Says = append(f.Says, words.Say("walk.it-is-spread-all-the")...)
			w.find(f)
		} else {
			w.find(f, stage.OneWay(words.Say("walk.spread-it-by-the-compass"), job.Set(w.Path+"/balance", true)))
		}
	}
	if k := w.traverse.Checked; k != nil && math.Abs(normalTurn(k.Left, k.Found)) > looseAngle*math.Sqrt(float64(len(w.Line.Runs))) {
		tenth := func(v float64) float64 { return math.Round(10*math.Abs(v)) / 10 }
		w.find(finding.Finding{Rule: codeCornerUnmeasured, Stage: finding.Walk, Severity: finding.Check, Place: finding.Place{Run: w.Line.Runs[k.Run].ID},
			Says: words.Say("walk.corner-unmeasured", words.V{"run": w.runName(k.Run), "byLengths": tenth(k.Found), "byCorners": tenth(k.Left)})})
	}
	if s := c.AngleSum; s != nil && math.Abs(*s) > looseAngle*math.Sqrt(float64(len(w.Line.Runs))) {
		w.find(finding.Finding{Rule: codeAngleSum, Stage: finding.Walk, Severity: finding.Check,
			Says: words.Say("walk.angle-sum", words.V{"value": math.Abs(*s)})})
	}
}

// most findings of one kind that are worth reading at once.
const mostBlunders = 6

func (w *check) blunders() {
	for k, s := range w.survey.Blunders {
		if k == mostBlunders {
			w.find(finding.Finding{Rule: codeBlunders, Stage: finding.Walk, Severity: finding.Note,
				Says: words.Say("walk.slips", words.V{"count": len(w.survey.Blunders) - mostBlunders})})
			return
		}
		severity := finding.Check
		if s.Weak {
			severity = finding.Note
		}
		f := finding.Finding{Rule: codeBlunder, Stage: finding.Walk, Severity: severity, Field: s.Path, Place: finding.Place{Run: s.Run},
			Says: words.Say("walk.slip", words.V{"kind": s.Kind, "at": s.At, "given": s.Given, "before": s.Before, "after": s.After})}
		w.find(f, func(a *stage.Advising) (out []finding.Remedy) {
			for _, v := range s.Likely {
				out = append(out, finding.Remedy{Says: words.Say("walk.it-was", words.V{"value": v}), Edits: []job.Edit{job.Set(s.Path, v)}})
			}
			out = append(out, finding.Remedy{Says: words.Say("walk.measured-twice-it-is-so"), Edits: []job.Edit{job.Set(s.Sure, true)}})
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
			Says: words.Say("walk.two-heights", words.V{"at": c.At, "runName": w.runName(c.RunIndex), "have": c.Have, "given": c.Given, "off": off.Abs()})}
		w.find(f, func(a *stage.Advising) (out []finding.Remedy) {
			if c.Book < 0 {
				out = []finding.Remedy{{Says: words.Say("walk.they-are-from-another-mark", words.V{"runName": w.runName(c.RunIndex), "off": -off}),
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
	return []job.Edit{job.Set(job.At(w.Path, "runs", w.Line.Runs[r].ID, "ground"), ground)}
}

func (w *check) levels() {
	k := 0
	for _, book := range w.Line.Books {
		if book.Kind != job.Rod {
			continue
		}
		l := w.survey.Rods[k]
		k++
		if !l.Closed || l.Error.Abs() <= length.Tolerance {
			continue
		}
		at := job.At(w.Path, "books", book.ID)
		if l.Error.Abs() > l.Allow+length.Tolerance {
			w.find(finding.Finding{Rule: codeLevelClosing, Stage: finding.Walk, Severity: finding.Check,
				Says: words.Say("walk.level-closing", words.V{"page": pageName(book), "error": l.Error.Abs(), "sign": sign(l.Error), "allow": l.Allow})})
		} else if !book.Spread && l.Error.Abs() > w.units.SmallestMark/2 {
			w.find(finding.Finding{Rule: codeLevelClosing, Stage: finding.Walk, Severity: finding.Note,
				Says: words.Say("walk.level-closing-2", words.V{"page": pageName(book), "error": l.Error.Abs(), "sign": sign(l.Error), "allow": l.Allow})}, func(a *stage.Advising) []finding.Remedy {
				return []finding.Remedy{{Says: words.Say("walk.spread-it-over-the-set"), Edits: []job.Edit{job.Set(at+"/spread", true)}}}
			})
		}
	}
	if loop := w.survey.Loop; loop != nil && loop.Error.Abs() > w.units.SmallestMark/2 {
		f := finding.Finding{Rule: codeHeightLoop, Stage: finding.Walk, Severity: finding.Note,
			Says: words.Say("walk.height-loop", words.V{"error": loop.Error.Abs(), "sign": sign(loop.Error)})}
		if loop.Error.Abs() > loop.Allowance {
			f.Severity = finding.Check
			f.Says = append(f.Says, words.Say("walk.it-is-more-than-the", words.V{"allowance": loop.Allowance})...)
		}
		w.find(f)
	}
}

func pageName(b job.Book) string {
	if b.Name != "" {
		return b.Name
	}
	return words.Plain("walk.page", words.V{"id": b.ID})
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
		Says: words.Say("walk.steep", words.V{"runName": w.runName(r), "rise": s.Rise.Abs(), "from": s.From, "to": s.To})})
}
