package server

import (
	"context"
	"slices"
	"sync"

	"mallow/core/document"
	"mallow/core/plan"
	"mallow/store"
)

// What is kept open of jobs that are worked on: a save is a few edits of the
// revision before, which would take longer to read than to change.
const (
	mostHeads     = 8
	mostHeadBytes = 8 << 20 // of all their documents together
)

// heads are the revisions that were opened last, the latest first, one of each
// job.
type heads struct {
	sync.Mutex
	list []openHead
}

type openHead struct {
	job    string
	at     store.Base
	opened document.Opened
	result *plan.Result // of the job as it was laid out; nil where it was not yet
}

func (h *heads) find(job string, at store.Base) (openHead, bool) {
	h.Lock()
	defer h.Unlock()
	for _, o := range h.list {
		if o.job == job && o.at.Number == at.Number && (at.Generation == "" || at.Generation == o.at.Generation) {
			return o, true
		}
	}
	return openHead{}, false
}

func (h *heads) keep(r store.Revision, o document.Opened, result *plan.Result) {
	h.Lock()
	defer h.Unlock()
	o.Left = nil // it is saved as what it was read as
	h.list = slices.DeleteFunc(h.list, func(k openHead) bool { return k.job == r.Job })
	h.list = slices.Insert(h.list, 0, openHead{r.Job, r.At(), o, result})
	bytes := 0
	for i := range h.list {
		if bytes += len(h.list[i].opened.Doc); i > 0 && (bytes > mostHeadBytes || i >= mostHeads) {
			h.list = slices.Delete(h.list, i, len(h.list))
			break
		}
	}
}

// forget closes all of them: the database that they are of was replaced.
func (h *heads) forget() {
	h.Lock()
	defer h.Unlock()
	h.list = nil
}

// open reads a revision of a job, unless it is open still; nothing where there
// is none that can be read, which binds nobody.
func (s *Server) open(ctx context.Context, id string, at store.Base) openHead {
	if o, ok := s.heads.find(id, at); ok {
		return o
	}
	raw, err := s.Store.DocAt(ctx, id, at) // one that is not there is refused by the save itself
	if err != nil {
		return openHead{}
	}
	return openHead{job: id, at: at, opened: s.base(raw)}
}
