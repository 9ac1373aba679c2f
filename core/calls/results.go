package calls

import (
	"bytes"
	"mallow/core/document"
	"mallow/core/job"
	"mallow/core/plan"
	"slices"
	"sync"
)

// What is kept of jobs that were just planned: whoever asks for a plan asks a
// moment later for what else there is to say of it, and then for the plan of
// the same job with one thing changed.
const (
	mostResults   = 16
	mostPostsKept = 40_000 // on all of them together
)

// results are the jobs that were computed last, the latest first.
type results struct {
	sync.Mutex
	list []kept
}

type kept struct {
	doc    []byte // as it was sent
	of     string // which job it is, as far as its document tells
	posts  int
	result *plan.Result
}

// find is what was computed of the very document, or else the last that was
// computed of the same job.
func (r *results) find(doc []byte, of string) (same, last *plan.Result) {
	r.Lock()
	defer r.Unlock()
	for _, k := range r.list {
		if doc != nil && bytes.Equal(k.doc, doc) {
			return k.result, nil
		}
		if k.of == of && last == nil && of != "" {
			last = k.result
		}
	}
	return nil, last
}

// keep keeps a result, in the place of the last one of the same job.
func (r *results) keep(k kept) {
	r.Lock()
	defer r.Unlock()
	r.list = slices.DeleteFunc(r.list, func(o kept) bool { return o.of == k.of || bytes.Equal(o.doc, k.doc) })
	r.list = slices.Insert(r.list, 0, k)
	posts := 0
	for i := range r.list {
		if posts += r.list[i].posts; i > 0 && (posts > mostPostsKept || i >= mostResults) {
			r.list = slices.Delete(r.list, i, len(r.list))
			break
		}
	}
}

// computed is a document as it is computed: kept from the last call, or else
// found again, with what did not change since.
func (c *Core) computed(stop func() error, doc []byte) (*plan.Result, error) {
	if same, _ := c.results.find(doc, ""); same != nil {
		return same, nil
	}
	j, _, err := document.Decode(doc, c.Catalog)
	if err != nil {
		return nil, WaysOut{err, document.Mends(j)}
	}
	of := identity(j)
	_, last := c.results.find(nil, of)
	r, err := plan.Compute(stop, j, c.Catalog, last)
	if err != nil {
		return nil, err
	}
	c.results.keep(kept{doc: bytes.Clone(doc), of: of, posts: r.Posts(), result: r})
	return r, nil
}

// Last is what was computed last of a job, for who computes it again.
func (c *Core) Last(j job.Job) *plan.Result {
	_, last := c.results.find(nil, identity(j))
	return last
}

// identity tells jobs apart well enough for keeping: by their names and those
// of their lines. Two jobs that are not told apart only keep less.
func identity(j job.Job) string {
	of := j.Name
	for _, l := range j.Lines {
		of += "\x00" + l.ID
	}
	return of
}
