package document

import (
	"encoding/json"
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
// keep their names. A run that is not told of keeps what it has.
func (o *Opened) Lay(laid map[string]Laid) error {
	changed := false
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
			if err := layIn(o.tree, lines[l].ID, run); err != nil {
				return err
			}
			changed = true
		}
	}
	if !changed {
		return nil
	}
	doc, err := json.Marshal(o.tree)
	if err == nil {
		o.Job.Lines, o.Doc = lines, doc
	}
	return err
}

func layIn(tree map[string]any, line string, run *job.Run) error {
	return apply(tree, []job.Edit{
		job.Set(job.At("/lines", line, "runs", run.ID, "laid"), run.Laid),
		job.Set(job.At("/lines", line, "runs", run.ID, "named"), run.Named),
	})
}

// FactsKept refuses a document in which a fact of an earlier one is missing or
// says something else: facts are only added.
func FactsKept(before, now job.Job) error {
	has := make(map[string]job.Fact, len(now.Observed))
	for _, f := range now.Observed {
		has[f.ID] = f
	}
	var e Errors
	for _, f := range before.Observed {
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
