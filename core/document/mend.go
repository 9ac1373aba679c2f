package document

import (
	"math"

	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/words"
)

// Mend is a way out of a change that was refused, beside typing something else:
// edits on top of that change.
type Mend struct {
	Says  string     `json:"says" jsonschema:"required"`
	Edits []job.Edit `json:"edits" jsonschema:"required"`
}

// Mends are the ways out of a job that cannot be: a run is made longer for a
// gate that is too wide for it, and a gate that hangs over an end is put at
// that end.
func Mends(j job.Job) []Mend {
	out := []Mend{}
	for _, line := range j.Lines {
		for _, run := range line.Runs {
			if run.Length == nil {
				continue
			}
			for i, g := range run.Gates {
				if len(checkGate("", g, j.Units)) == 0 {
					out = append(out, gateWays(job.At("/lines", line.ID, "runs", run.ID), run, i, j.Units)...)
				}
			}
		}
	}
	return out
}

func gateWays(path string, run job.Run, i int, u length.Units) []Mend {
	g, long := run.Gates[i], *run.Length
	first, second := run.GatePosts(g)
	wide := second - first
	at := job.At(path, "gates", g.ID, "at")
	name := g.Name
	if name == "" {
		name = words.Plain("document.the-gate")
	}
	switch {
	case wide > long+length.Tolerance:
		need := u.SmallestMark * length.Length(math.Ceil(float64((wide-length.Tolerance)/u.SmallestMark)))
		return []Mend{{words.Plain("document.make-the-run-long", words.V{"need": u.Tape(need)}), append(longer(path, run, need), job.Set(at, need/2))}}
	case first < -length.Tolerance:
		return []Mend{{words.Plain("document.put-at-the-runs-start", words.V{"name": name}), []job.Edit{job.Set(at, wide/2)}}}
	case second > long+length.Tolerance:
		return []Mend{{words.Plain("document.put-at-the-runs-end", words.V{"name": name}), []job.Edit{job.Set(at, long-wide/2)}},
			{words.Plain("document.make-the-run-long-2", words.V{"second": u.Tape(second)}), longer(path, run, second)}}
	}
	return nil
}

// longer gives a run a length, and takes the height at its far end along.
func longer(path string, run job.Run, to length.Length) []job.Edit {
	edits := []job.Edit{job.Set(path+"/length", to)}
	for _, g := range run.Ground {
		if length.Same(g.At, *run.Length) {
			edits = append(edits, job.Set(job.At(path, "ground", g.ID, "at"), to))
		}
	}
	return edits
}
