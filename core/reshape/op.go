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

// Op is one change of the lines as a whole.
type Op struct {
	Do     string        `json:"do" jsonschema:"required,enum=add run,enum=remove run,enum=move run,enum=split,enum=join,enum=reverse,enum=close,enum=open,enum=resize,enum=correct length,enum=outfit,enum=move corner,enum=add line,enum=remove line"`
	Line   int           `json:"line" jsonschema:"required" jsonschema_description:"Place of the line in the document."`
	Run    int           `json:"run,omitempty" jsonschema_description:"Place of the run in its line; for a corner, of the run that starts there, or one more at the end of an open line."`
	To     int           `json:"to,omitempty" jsonschema_description:"Move run: its new place."`
	At     length.Length `json:"at,omitempty" jsonschema_description:"Split: level station. Resize and correct length: the new length, as taped."`
	System string        `json:"system,omitempty" jsonschema_description:"Outfit: the fence system, in the catalogue or among the job's own."`
	Place  *survey.Place `json:"place,omitempty" jsonschema_description:"Move corner: where to."`
}

// Apply makes a change in a job document and says what was done, in words for
// the history. A change that cannot be made is a Refused or a document.Errors.
func Apply(doc []byte, op Op, usual document.Usual) (changed []byte, what string, err error) {
	j, _, err := document.Decode(doc, usual)
	if err != nil {
		return nil, "", err
	}
	if op.Line < 0 || op.Line >= len(j.Lines) {
		return nil, "", refuse(words.Plain("reshape.there-is-no-line-the", words.V{"line": op.Line + 1, "count": len(j.Lines)}))
	}
	runs := len(j.Lines[op.Line].Runs)
	if op.Run < 0 || op.Run > runs || op.Run == runs && op.Do != words.Plain("reshape.move-corner") {
		return nil, "", refuse(words.Plain("reshape.there-is-no-run-on", words.V{"run": op.Run + 1, "runs": runs}))
	}
	if p := op.Place; p != nil && !(p.X.Abs() <= farthest && p.Y.Abs() <= farthest) {
		return nil, "", refuse(words.Plain("reshape.that-place-is-off-the", words.V{"farthest": j.Units.Tape(farthest)}))
	}
	made := map[string]string{}
	lines := slices.Clone(j.Lines)
	if systems, ok := usual.(Systems); ok && (op.Do == words.Plain("reshape.correct-length") || op.Do == "outfit") {
		lines[op.Line], what, err = dressed(j, op, systems, usual)
	} else {
		lines[op.Line], what, err = one(j, op, made)
	}
	if err != nil {
		return nil, "", err
	}
	switch op.Do {
	case "add line":
		lines = append(lines[:len(lines):len(lines)], lines[op.Line])
		lines[op.Line] = j.Lines[op.Line]
	case "remove line":
		if len(lines) == 1 {
			return nil, "", refuse(words.Plain("reshape.a-job-has-at-least"))
		}
		lines = slices.Delete(lines, op.Line, op.Line+1)
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
func dressed(j job.Job, op Op, systems Systems, usual document.Usual) (job.Line, string, error) {
	run := j.Lines[op.Line].Runs[op.Run]
	if op.Do == "outfit" {
		return Outfit(j, op.Line, op.Run, op.System, systems, usual)
	}
	l, moved, err := Correct(j, op.Line, op.Run, op.At, systems)
	what := words.Plain("reshape.run-length", words.V{"name": named(run.Name, run.ID), "at": j.Units.Tape(op.At)})
	if moved != "" {
		what += words.Plain("reshape.and-moved", words.V{"moved": moved})
	}
	return l, what, err
}

// farthest is how far the map reaches from its zero.
const farthest = 10000 * length.Metre

// one changes one line.
func one(j job.Job, op Op, made map[string]string) (job.Line, string, error) {
	l := j.Lines[op.Line]
	name := ""
	if op.Run < len(l.Runs) {
		name = named(l.Runs[op.Run].Name, l.Runs[op.Run].ID)
	}
	var err error
	what := ""
	switch op.Do {
	case "add run":
		what = words.Plain("reshape.a-run-added-after", words.V{"name": name})
		l, err = AddRun(j, op.Line, op.Run)
	case "remove run":
		what = words.Plain("reshape.taken-away", words.V{"name": name})
		l, err = RemoveRun(j, op.Line, op.Run)
	case "move run":
		what = words.Plain("reshape.moved-in-the-line", words.V{"name": name})
		l, err = MoveRun(j, op.Line, op.Run, op.To)
	case "split":
		what = words.Plain("reshape.split-at", words.V{"name": name, "at": j.Units.Tape(op.At)})
		if l, err = Split(j, op.Line, op.Run, op.At); err == nil {
			made[l.Runs[op.Run+1].ID] = l.Runs[op.Run].ID
		}
	case "join":
		what = words.Plain("reshape.joined-with-the-next-run", words.V{"name": name})
		l, err = Join(j, op.Line, op.Run)
	case "reverse":
		what = words.Plain("reshape.line-turned-round")
		l, err = Reverse(j, op.Line)
	case "close", "open":
		what = map[string]string{"close": words.Plain("reshape.line-closed"), "open": words.Plain("reshape.line-opened")}[op.Do]
		l, err = SetClosed(j, op.Line, op.Do == "close")
	case "resize":
		what = words.Plain("reshape.run-length", words.V{"name": name, "at": j.Units.Tape(op.At)})
		l, err = Resize(j, op.Line, op.Run, op.At)
	case "move corner":
		what = words.Plain("reshape.corner-moved")
		if op.Place == nil {
			return l, "", refuse(words.Plain("reshape.a-corner-is-moved-to"))
		}
		l, err = MoveCorner(j, op.Line, op.Run, *op.Place)
	case "add line":
		what = words.Plain("reshape.a-line-added")
		l = newLine(j, op.Line)
	case "remove line":
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
	run.ID = fresh("R", runIDs(j))
	run.Name = words.Plain("reshape.run", words.V{"value": run.ID[1:]})
	bare(&run)
	id := fresh("L", taken)
	return job.Line{ID: id, Name: words.Plain("reshape.line", words.V{"value": id[1:]}), X: j.Lines[like].X, Y: j.Lines[like].Y - 5*length.Metre, Bearing: j.Lines[like].Bearing, Runs: []job.Run{run}}
}
