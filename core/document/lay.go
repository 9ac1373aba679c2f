package document

import (
	"encoding/json"
	"maps"
	"slices"

	"mallow/core/job"
	"mallow/core/words"
)

// Laid is how a run was laid out: the names of its posts.
type Laid struct {
	Posts []job.Laid
	Named int // highest number that was given to a post of the run
}

// Lay writes into an opened document how its runs are laid out, so that posts
// keep their names, and returns the edits that did it. A run that is not told
// of keeps what it has.
func (o *Opened) Lay(laid map[string]Laid) ([]job.Edit, error) {
	var edits []job.Edit
	lines := slices.Clone(o.Job.Lines)
	for l := range lines {
		lines[l].Runs = slices.Clone(lines[l].Runs)
		for r := range lines[l].Runs {
			run := &lines[l].Runs[r]
			now, ok := laid[run.ID]
			if !ok || run.Named == now.Named && slices.Equal(run.Laid, now.Posts) {
				continue
			}
			run.Laid, run.Named = now.Posts, now.Named
			at := job.At("/lines", lines[l].ID, "runs", run.ID)
			edits = append(edits, job.Set(at+"/laid", run.Laid), job.Set(at+"/named", run.Named))
		}
	}
	if len(edits) == 0 {
		return nil, nil
	}
	tree := apart(o.tree, "lines")
	if err := apply(tree, edits); err != nil {
		return nil, err
	}
	o.tree, o.Job.Lines, o.parts = tree, lines, maps.Clone(o.parts)
	delete(o.parts, "lines")
	return edits, o.write()
}

// FactsKept refuses a document in which a fact of an earlier one is missing or
// says something else: facts are only added.
func FactsKept(before, now job.Job) error {
	kept := 0 // as they were, mostly all of them
	for kept < min(len(before.Observed), len(now.Observed)) && before.Observed[kept] == now.Observed[kept] {
		kept++
	}
	if kept == len(before.Observed) {
		return nil
	}
	has := make(map[string]job.Fact, len(now.Observed))
	for _, f := range now.Observed {
		has[f.ID] = f
	}
	var e Errors
	for _, f := range before.Observed[kept:] {
		g, there := has[f.ID]
		switch at := job.At("/observed", f.ID); {
		case !there:
			e = append(e, FieldError{at, "nothing", words.Plain("document.a-fact-stays")})
		case !f.SaysAs(g):
			e = append(e, FieldError{at, words.Plain("document.something-else"), words.Plain("document.a-fact-stays")})
		}
	}
	if len(e) > 0 {
		return e
	}
	return nil
}

// FactsIn are the facts of a document that may not be one that can be used, as far as
// they can be read.
func FactsIn(doc []byte) []job.Fact {
	var out struct {
		Observed []job.Fact `json:"observed"`
	}
	if tree, err := current(doc); err == nil { // of an older version they stand elsewhere
		if doc, err = json.Marshal(map[string]any{"observed": tree["observed"]}); err != nil {
			return nil
		}
	}
	if json.Unmarshal(doc, &out) != nil {
		return nil
	}
	return out.Observed
}

// WithFactsOf is a document with the facts of a later one.
func WithFactsOf(doc, later []byte) ([]byte, error) {
	tree, err := current(doc)
	if err != nil {
		return nil, err
	}
	since, err := current(later)
	if err != nil {
		return nil, err
	}
	if facts, ok := since["observed"]; ok {
		tree["observed"] = facts
	}
	return json.Marshal(tree)
}
