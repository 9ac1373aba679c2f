package server

import (
	"context"
	"encoding/json"
	"errors"

	"mallow/core/document"
	"mallow/core/job"
	"mallow/core/plan"
	"mallow/store"

	"github.com/gofiber/fiber/v3"
)

// lay writes into a document that is about to be saved how its posts stand, so
// that they keep their names, and returns the edits that did it, with what the
// job was computed to. A job that takes too long to lay out keeps the names
// that it has.
func (s *Server) lay(ctx context.Context, id string, o *document.Opened, last *plan.Result) (laid []job.Edit, r *plan.Result) {
	ctx, end := context.WithTimeoutCause(ctx, layBudget, errTookTooLong)
	defer end()
	err := s.planned(ctx, "lay", planBudget, func(stop func() error) (err error) {
		if last == nil {
			last = s.core.Last(o.Job)
		}
		if r, err = plan.Again(stop, o.Job, s.Catalog, last); err == nil {
			laid, err = o.Lay(r.Laid())
		}
		return err
	})
	if err != nil {
		s.Log.Warn("posts keep the names that they had", "job", id, "error", err)
	}
	return laid, r
}

// change is a document that is to be saved on top of another one, with the
// edits that make it of that, where that can be read.
func (s *Server) change(before, now document.Opened, what string) (store.Draft, error) {
	d := draft(now.Doc, now.Job.Name, what)
	if before.Doc == nil {
		return d, nil
	}
	var err error
	d.Ops, err = json.Marshal(now.Since(before))
	return d, err
}

// base is the document that a change was made to. Of one that cannot be read there
// are the facts alone, as far as they can be: those bind whoever saves after it.
func (s *Server) base(doc []byte) document.Opened {
	o, err := document.Open(doc, s.Catalog)
	if err != nil {
		return document.Opened{Job: job.Job{Observed: document.FactsIn(doc)}}
	}
	return o
}

// restored saves an earlier revision as a new one, with the facts that were
// written down since: what was seen stays seen.
func (s *Server) restored(ctx context.Context, id string, req MoveRequest) (store.Revision, error) {
	head, err := s.Store.Get(ctx, id)
	if err != nil {
		return head, err
	}
	earlier, err := s.Store.Doc(ctx, id, req.Revision)
	if err != nil {
		return store.Revision{}, err
	}
	doc, facts := earlier, document.FactsIn(head.Doc)
	if len(facts) > 0 {
		if doc, err = document.WithFactsOf(earlier, head.Doc); err != nil {
			return store.Revision{}, err // the earlier one cannot be read, and would be without them
		}
	}
	o, err := document.Open(doc, s.Catalog)
	switch {
	case err != nil && len(facts) > 0: // to be read only, and with its facts
		return s.Store.Save(ctx, id, req.base(), draft(doc, nameIn(doc), store.RestoredAs(req.Revision)))
	case err != nil:
		return s.Store.Restore(ctx, id, req.base(), req.Revision)
	}
	s.lay(ctx, id, &o, nil)
	d, err := s.change(s.base(head.Doc), o, store.RestoredAs(req.Revision))
	if err != nil {
		return store.Revision{}, err
	}
	return s.Store.Save(ctx, id, req.base(), d)
}

// edits answers with what was edited in a revision, by id.
func (s *Server) edits(c fiber.Ctx) error {
	ops, err := s.Store.Ops(c.Context(), c.Params("id"), fiber.Params[int](c, "revision"))
	if err != nil {
		return err
	}
	out := Edits{Known: ops != nil, Edits: []job.Edit{}}
	if out.Known {
		err = json.Unmarshal(ops, &out.Edits)
	}
	return errors.Join(err, c.JSON(out))
}
