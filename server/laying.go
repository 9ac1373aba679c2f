package server

import (
	"bytes"
	"context"

	"mallow/core/document"
	"mallow/core/plan"
	"mallow/store"
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

// factsKept refuses a save that takes a fact away or changes what it says.
func (s *Server) factsKept(ctx context.Context, id string, base int, now document.Opened) error {
	before, err := s.Store.Doc(ctx, id, base)
	if err != nil || !bytes.Contains(before, []byte(`"observed"`)) {
		return nil // a base that is not there is refused by the save itself
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
	if head.Number != req.Base || !bytes.Contains(head.Doc, []byte(`"observed"`)) {
		return s.Store.Restore(ctx, id, req.Base, req.Revision)
	}
	earlier, err := s.Store.Doc(ctx, id, req.Revision)
	if err != nil {
		return store.Revision{}, err
	}
	doc, err := document.WithFactsOf(earlier, head.Doc)
	if err != nil {
		return store.Revision{}, err
	}
	o, err := document.Open(doc, s.Catalog)
	if err != nil {
		return store.Revision{}, err
	}
	s.lay(ctx, &o)
	return s.Store.Save(ctx, id, req.Base, s.draft(o.Doc, o.Job.Name, store.RestoredAs(req.Revision)))
}
