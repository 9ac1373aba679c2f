package reshape

import (
	"slices"
	"strconv"

	"mallow/core/document"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/survey"
	"mallow/core/words"
)

// What can be done with the lines as a whole.
const (
	DoAddRun     = "add run"
	DoRemoveRun  = "remove run"
	DoMoveRun    = "move run"
	DoSplit      = "split"
	DoJoin       = "join"
	DoReverse    = "reverse"
	DoClose      = "close"
	DoOpen       = "open"
	DoResize     = "resize"
	DoCorrect    = "correct length"
	DoOutfit     = "outfit"
	DoMoveCorner = "move corner"
	DoAddLine    = "add line"
	DoRemoveLine = "remove line"
	DoSetOff     = "set off"
)

// ofLine are the changes of a line as a whole; the others are of one run.
var ofLine = map[string]bool{DoReverse: true, DoClose: true, DoOpen: true, DoAddLine: true, DoRemoveLine: true, DoSetOff: true}

// Op is one change of the lines as a whole.
type Op struct {
	Do     string        `json:"do" jsonschema:"required,enum=add run,enum=remove run,enum=move run,enum=split,enum=join,enum=reverse,enum=close,enum=open,enum=resize,enum=correct length,enum=outfit,enum=move corner,enum=add line,enum=remove line,enum=set off"`
	Line   string        `json:"line" jsonschema:"required" jsonschema_description:"The line, by its id."`
	Run    string        `json:"run,omitempty" jsonschema_description:"The run, by its id; for a corner, the run that starts there, left out for the end of an open line."`
	After  string        `json:"after,omitempty" jsonschema_description:"Move run: the run that it comes to stand after; left out, it comes first."`
	At     length.Length `json:"at,omitempty" jsonschema_description:"Split: level station. Resize and correct length: the new length, as taped. Set off: how far to the left of where it is; negative is to the right."`
	System string        `json:"system,omitempty" jsonschema_description:"Outfit: the fence system, in the catalogue or among the job's own; left out, none. Without a run it is for all runs of the line."`
	Place  *survey.Place `json:"place,omitempty" jsonschema_description:"Move corner: where to."`
}

// at is an Op with the places of what it names.
type at struct {
	Op
	line, run, to int
}

// find looks up what an Op names.
func (op Op) find(j job.Job) (at, error) {
	f := at{Op: op}
	f.line = slices.IndexFunc(j.Lines, func(l job.Line) bool { return l.ID == op.Line })
	if f.line < 0 {
		return f, refuse(words.Plain("reshape.there-is-no-line-the", words.V{"line": strconv.Quote(op.Line), "count": len(j.Lines)}))
	}
	runs := j.Lines[f.line].Runs
	place := func(id string) int { return slices.IndexFunc(runs, func(r job.Run) bool { return r.ID == id }) }
	switch f.run = place(op.Run); {
	case op.Run == "" && op.Do == DoMoveCorner:
		f.run = len(runs)
	case op.Run == "" && op.Do == DoOutfit:
		f.run = -1 // all of them
	case op.Run == "" && ofLine[op.Do]:
		f.run = 0
	case f.run < 0:
		return f, refuse(words.Plain("reshape.there-is-no-run-on", words.V{"run": strconv.Quote(op.Run), "runs": len(runs)}))
	}
	if op.Do == DoMoveRun && op.After != "" {
		after := place(op.After)
		if after < 0 {
			return f, refuse(words.Plain("reshape.there-is-no-run-on", words.V{"run": strconv.Quote(op.After), "runs": len(runs)}))
		}
		if f.to = after + 1; after >= f.run {
			f.to = after // it is taken out before it
		}
	}
	return f, nil
}

// Apply makes a change in a job document and says what was done, in words for
// the history. A change that cannot be made is a Refused or a document.Errors.
func Apply(doc []byte, op Op, usual document.Usual) (changed []byte, what string, err error) {
	j, _, err := document.Decode(doc, usual)
	if err != nil {
		return nil, "", err
	}
	do, err := op.find(j)
	if err != nil {
		return nil, "", err
	}
	for l := range j.Lines { // facts are moved themselves, and settle again afterwards
		for r := range j.Lines[l].Runs {
			j.Lines[l].Runs[r] = j.Lines[l].Runs[r].Planned()
		}
	}
	if p := op.Place; p != nil && !(p.X.Abs() <= farthest && p.Y.Abs() <= farthest) {
		return nil, "", refuse(words.Plain("reshape.that-place-is-off-the", words.V{"farthest": j.Units.Tape(farthest)}))
	}
	made := map[string]string{}
	lines := slices.Clone(j.Lines)
	if systems, ok := usual.(Systems); ok && (op.Do == DoCorrect || op.Do == DoOutfit) {
		lines[do.line], what, err = dressed(j, do, systems, usual)
	} else {
		lines[do.line], what, err = one(j, do, made)
	}
	if err != nil {
		return nil, "", err
	}
	switch op.Do {
	case DoAddLine:
		lines = append(lines[:len(lines):len(lines)], lines[do.line])
		lines[do.line] = j.Lines[do.line]
	case DoRemoveLine:
		if len(lines) == 1 {
			return nil, "", refuse(words.Plain("reshape.a-job-has-at-least"))
		}
		lines = slices.Delete(lines, do.line, do.line+1)
	}
	j.Lines = lines
	if errs := document.Check(j); len(errs) > 0 {
		return nil, "", errs
	}
	if changed, err = document.ReplaceLines(doc, lines, made); err != nil {
		return nil, "", err
	}
	// The fields' own limits, which a run that was made longer may pass.
	if _, _, err := document.Decode(changed, usual); err != nil {
		return nil, "", err
	}
	return changed, what, nil
}

// dressed makes the changes that ask what fence a run has.
func dressed(j job.Job, op at, systems Systems, usual document.Usual) (job.Line, string, error) {
	if op.Do == DoOutfit {
		return Outfit(j, op.line, op.run, op.System, systems, usual)
	}
	run := j.Lines[op.line].Runs[op.run]
	l, moved, err := Correct(j, op.line, op.run, op.At, systems)
	what := words.Plain("reshape.run-length", words.V{"name": named(run.Name, run.ID), "at": j.Units.Tape(op.At)})
	if moved != "" {
		what += words.Plain("reshape.and-moved", words.V{"moved": moved})
	}
	return l, what, err
}

// farthest is how far the map reaches from its zero.
const farthest = 10000 * length.Metre

// one changes one line.
func one(j job.Job, op at, made map[string]string) (job.Line, string, error) {
	l := j.Lines[op.line]
	name := ""
	if op.run < len(l.Runs) {
		name = named(l.Runs[op.run].Name, l.Runs[op.run].ID)
	}
	var err error
	what := ""
	switch op.Do {
	case DoAddRun:
		what = words.Plain("reshape.a-run-added-after", words.V{"name": name})
		l, err = AddRun(j, op.line, op.run)
	case DoRemoveRun:
		what = words.Plain("reshape.taken-away", words.V{"name": name})
		l, err = RemoveRun(j, op.line, op.run)
	case DoMoveRun:
		what = words.Plain("reshape.moved-in-the-line", words.V{"name": name})
		l, err = MoveRun(j, op.line, op.run, op.to)
	case DoSplit:
		what = words.Plain("reshape.split-at", words.V{"name": name, "at": j.Units.Tape(op.At)})
		if l, err = Split(j, op.line, op.run, op.At); err == nil {
			made[l.Runs[op.run+1].ID] = l.Runs[op.run].ID
		}
	case DoJoin:
		what = words.Plain("reshape.joined-with-the-next-run", words.V{"name": name})
		l, err = Join(j, op.line, op.run)
	case DoReverse:
		what = words.Plain("reshape.line-turned-round")
		l, err = Reverse(j, op.line)
	case DoClose, DoOpen:
		what = map[string]string{DoClose: words.Plain("reshape.line-closed"), DoOpen: words.Plain("reshape.line-opened")}[op.Do]
		l, err = SetClosed(j, op.line, op.Do == DoClose)
	case DoResize:
		what = words.Plain("reshape.run-length", words.V{"name": name, "at": j.Units.Tape(op.At)})
		l, err = Resize(j, op.line, op.run, op.At)
	case DoSetOff:
		what = words.Plain("reshape.line-set-off", words.V{"by": j.Units.Tape(op.At.Abs()), "side": map[bool]string{true: "left", false: "right"}[op.At >= 0]})
		l, err = SetOff(j, op.line, op.At)
	case DoMoveCorner:
		what = words.Plain("reshape.corner-moved")
		if op.Place == nil {
			return l, "", refuse(words.Plain("reshape.a-corner-is-moved-to"))
		}
		l, err = MoveCorner(j, op.line, op.run, *op.Place)
	case DoAddLine:
		what = words.Plain("reshape.a-line-added")
		l = newLine(j, op.line)
	case DoRemoveLine:
		what = words.Plain("reshape.line-taken-away", words.V{"name": named(l.Name, l.ID)})
	default:
		return l, "", refuse(words.Plain("reshape.is-no-change-of-a", words.V{"do": strconv.Quote(op.Do)}))
	}
	return l, what, err
}

// newLine is a further line, built like the first run of another, a little
// way off it on the map.
func newLine(j job.Job, like int) job.Line {
	taken := func(id string) bool { return slices.ContainsFunc(j.Lines, func(l job.Line) bool { return l.ID == id }) }
	run := j.Lines[like].Runs[0]
	run.ID = job.FreeID("R", runIDs(j))
	run.Name = words.Plain("reshape.run", words.V{"value": run.ID[1:]})
	bare(&run)
	id := job.FreeID("L", taken)
	return job.Line{ID: id, Name: words.Plain("reshape.line", words.V{"value": id[1:]}), X: j.Lines[like].X, Y: j.Lines[like].Y - 5*length.Metre, Bearing: j.Lines[like].Bearing, Runs: []job.Run{run}}
}
