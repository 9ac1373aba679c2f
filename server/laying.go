package server

import (
	"bytes"
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
// that they keep their names. A job that takes too long to lay out keeps the
// names that it has.
func (s *Server) lay(ctx context.Context, o *document.Opened) {
	err := s.planned(ctx, "lay", planBudget, func(stop func() error) error {
		r, err := plan.Compute(stop, o.Job, s.Catalog, nil)
		if err != nil {
			return err
		}
		return o.Lay(r.Laid())
	})
	if err != nil {
		s.Log.Warn("posts keep the names that they had", "job", o.Job.Name, "error", err)
	}
}

// change is a document that is to be saved on top of another one, with the
// edits that make it of that.
func (s *Server) change(before []byte, o document.Opened, what string) store.Draft {
	d := s.draft(o.Doc, o.Job.Name, what)
	edits, err := document.Diff(before, o.Doc)
	if err == nil {
		d.Ops, err = json.Marshal(edits)
	}
	if err != nil { // the one before cannot be read: what made this one is not known
		d.Ops = nil
	}
	return d
}

// factsKept refuses a save that takes a fact away or changes what it says.
func (s *Server) factsKept(before []byte, now document.Opened) error {
	if !bytes.Contains(before, []byte(`"observed"`)) {
		return nil
	}
	was, err := document.Open(before, s.Catalog)
	if err != nil {
		return nil // a document that cannot be read binds nobody
	}
	return document.FactsKept(was.Job, now.Job)
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
	doc := earlier
	if bytes.Contains(head.Doc, []byte(`"observed"`)) {
		if doc, err = document.WithFactsOf(earlier, head.Doc); err != nil {
			return s.Store.Restore(ctx, id, req.Base, req.Revision) // one of both cannot be read
		}
	}
	o, err := document.Open(doc, s.Catalog)
	if err != nil {
		return s.Store.Restore(ctx, id, req.Base, req.Revision)
	}
	s.lay(ctx, &o)
	return s.Store.Save(ctx, id, req.Base, s.change(head.Doc, o, store.RestoredAs(req.Revision)))
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
