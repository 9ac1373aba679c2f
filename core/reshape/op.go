package reshape

import (
	"slices"

	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/survey"
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
// the history. A change that cannot be made is a Refused or a job.Errors.
func Apply(doc []byte, op Op, usual job.Usual) (changed []byte, what string, err error) {
	j, _, err := job.Decode(doc, usual)
	if err != nil {
		return nil, "", err
	}
	if op.Line < 0 || op.Line >= len(j.Lines) {
		return nil, "", refuse("There is no line %d; the job has %d.", op.Line+1, len(j.Lines))
	}
	runs := len(j.Lines[op.Line].Runs)
	if op.Run < 0 || op.Run > runs || op.Run == runs && op.Do != "move corner" {
		return nil, "", refuse("There is no run %d on this line; it has %d.", op.Run+1, runs)
	}
	if p := op.Place; p != nil && !(p.X.Abs() <= farthest && p.Y.Abs() <= farthest) {
		return nil, "", refuse("That place is off the map: it reaches %s either way.", j.Units.Tape(farthest))
	}
	made := map[string]string{}
	lines := slices.Clone(j.Lines)
	if systems, ok := usual.(Systems); ok && (op.Do == "correct length" || op.Do == "outfit") {
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
			return nil, "", refuse("A job has at least one line.")
		}
		lines = slices.Delete(lines, op.Line, op.Line+1)
	}
	j.Lines = lines
	if errs := job.Check(j); len(errs) > 0 {
		return nil, "", errs
	}
	if changed, err = job.ReplaceLines(doc, lines, made); err != nil {
		return nil, "", err
	}
	// The fields' own limits, which a run that was made longer may pass.
	if _, _, err := job.Decode(changed, usual); err != nil {
		return nil, "", err
	}
	return changed, what, nil
}

// dressed makes the changes that ask what fence a run has.
func dressed(j job.Job, op Op, systems Systems, usual job.Usual) (job.Line, string, error) {
	run := j.Lines[op.Line].Runs[op.Run]
	if op.Do == "outfit" {
		return Outfit(j, op.Line, op.Run, op.System, systems, usual)
	}
	l, moved, err := Correct(j, op.Line, op.Run, op.At, systems)
	what := named(run.Name, run.ID) + ": run length " + j.Units.Tape(op.At)
	if moved != "" {
		what += "; " + moved
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
		what = "A run added after " + name
		l, err = AddRun(j, op.Line, op.Run)
	case "remove run":
		what = name + " taken away"
		l, err = RemoveRun(j, op.Line, op.Run)
	case "move run":
		what = name + " moved in the line"
		l, err = MoveRun(j, op.Line, op.Run, op.To)
	case "split":
		what = name + " split at " + j.Units.Tape(op.At)
		if l, err = Split(j, op.Line, op.Run, op.At); err == nil {
			made[l.Runs[op.Run+1].ID] = l.Runs[op.Run].ID
		}
	case "join":
		what = name + " joined with the next run"
		l, err = Join(j, op.Line, op.Run)
	case "reverse":
		what = "Line turned round"
		l, err = Reverse(j, op.Line)
	case "close", "open":
		what = map[string]string{"close": "Line closed", "open": "Line opened"}[op.Do]
		l, err = SetClosed(j, op.Line, op.Do == "close")
	case "resize":
		what = name + ": run length " + j.Units.Tape(op.At)
		l, err = Resize(j, op.Line, op.Run, op.At)
	case "move corner":
		what = "Corner moved"
		if op.Place == nil {
			return l, "", refuse("A corner is moved to a place; none was given.")
		}
		l, err = MoveCorner(j, op.Line, op.Run, *op.Place)
	case "add line":
		what = "A line added"
		l = newLine(j, op.Line)
	case "remove line":
		what = "Line " + named(l.Name, l.ID) + " taken away"
	default:
		return l, "", refuse("%q is no change of a line that Mallow knows.", op.Do)
	}
	return l, what, err
}

// newLine is a further line, built like the first run of another, a little
// way off it on the map.
func newLine(j job.Job, like int) job.Line {
	taken := func(id string) bool { return slices.ContainsFunc(j.Lines, func(l job.Line) bool { return l.ID == id }) }
	run := j.Lines[like].Runs[0]
	run.ID = fresh("R", runIDs(j))
	run.Name = "Run " + run.ID[1:]
	bare(&run)
	id := fresh("L", taken)
	return job.Line{ID: id, Name: "Line " + id[1:], X: j.Lines[like].X, Y: j.Lines[like].Y - 5*length.Metre, Bearing: j.Lines[like].Bearing, Runs: []job.Run{run}}
}
