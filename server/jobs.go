package server

import (
	"encoding/json"
	"errors"
	"fmt"
	"sync"

	"github.com/gofiber/fiber/v3"

	"mallow/core/finding"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/plan"
	"mallow/store"
)

// read parses a request's body.
func read(c fiber.Ctx, into any) error {
	if err := json.Unmarshal(c.Body(), into); err != nil {
		return fiber.NewError(fiber.StatusBadRequest, "The request is not the JSON that belongs here: "+err.Error()+".")
	}
	return nil
}

func (s *server) state(r store.Revision) JobState {
	_, unknown, err := job.Decode(r.Doc, s.Catalog)
	if err != nil || unknown == nil {
		unknown = []string{}
	}
	return JobState{
		ID: r.Job, Revision: r.Number, Doc: r.Doc, What: r.What, SavedAt: r.SavedAt,
		CanUndo: r.CanUndo, CanRedo: r.CanRedo, Unknown: unknown,
	}
}

// answer sends a revision, or the error that stood in its way.
func (s *server) answer(c fiber.Ctx, r store.Revision, err error) error {
	if err != nil {
		return err
	}
	return c.JSON(s.state(r))
}

func (s *server) get(c fiber.Ctx) error {
	r, err := s.Store.Get(c.Context(), c.Params("id"))
	return s.answer(c, r, err)
}

func (s *server) create(c fiber.Ctx) error {
	var req CreateRequest
	if err := read(c, &req); err != nil {
		return err
	}
	doc := []byte(req.Doc)
	if doc == nil {
		if req.System != length.Metric {
			req.System = length.Imperial
		}
		fresh, err := json.Marshal(job.New(req.Name, req.System, s.Catalog))
		if err != nil {
			return err
		}
		doc = fresh
	}
	if _, _, err := job.Decode(doc, s.Catalog); err != nil {
		return err
	}
	if req.What == "" {
		req.What = "New job"
	}
	r, err := s.Store.Create(c.Context(), doc, clip(req.What))
	if err == nil {
		c.Status(fiber.StatusCreated)
	}
	return s.answer(c, r, err)
}

func (s *server) save(c fiber.Ctx) error {
	var req SaveRequest
	if err := read(c, &req); err != nil {
		return err
	}
	if _, _, err := job.Decode(req.Doc, s.Catalog); err != nil {
		return err
	}
	r, err := s.Store.Save(c.Context(), c.Params("id"), req.Base, req.Doc, clip(req.What))
	var stale *store.StaleError
	if !errors.As(err, &stale) {
		return s.answer(c, r, err)
	}
	return s.saveOver(c, req, stale.Head)
}

// mostMerges is how often a save that another one came before is tried again.
const mostMerges = 5

// saveOver lays a change over what another window saved since. Fields that
// both changed are asked about; nothing is saved then.
func (s *server) saveOver(c fiber.Ctx, req SaveRequest, head store.Revision) error {
	base := []byte(req.From)
	if base == nil {
		var err error
		if base, err = s.Store.Doc(c.Context(), head.Job, req.Base); err != nil {
			return err
		}
	}
	for range mostMerges {
		merged, clashes, err := job.Merge(base, req.Doc, head.Doc)
		if err != nil {
			return err
		}
		if len(clashes) > 0 {
			return clash{&store.StaleError{Base: req.Base, Head: head}, clashes, merged}
		}
		if _, _, err := job.Decode(merged, s.Catalog); err != nil {
			return err // each change is sound and both together are not
		}
		r, err := s.Store.Save(c.Context(), head.Job, head.Number, merged, clip(req.What))
		var stale *store.StaleError
		if errors.As(err, &stale) {
			head = stale.Head
			continue
		}
		if err != nil {
			return err
		}
		state := s.state(r)
		state.Merged = true
		return c.JSON(state)
	}
	return &store.StaleError{Base: req.Base, Head: head}
}

// clash is a save in which both windows changed the same fields.
type clash struct {
	error
	clashes []job.Clash
	merged  Document
}

func (e clash) Unwrap() error { return e.error }

// head says which revision is current, for a window that is looked at again.
func (s *server) head(c fiber.Ctx) error {
	r, err := s.Store.Get(c.Context(), c.Params("id"))
	if err != nil {
		return err
	}
	return c.JSON(Head{r.Number})
}

// clip keeps a history line a line.
func clip(what string) string {
	if r := []rune(what); len(r) > 200 {
		return string(r[:200]) + "…"
	}
	return what
}

func (s *server) move(c fiber.Ctx, to func(id string, req MoveRequest) (store.Revision, error)) error {
	var req MoveRequest
	if err := read(c, &req); err != nil {
		return err
	}
	r, err := to(c.Params("id"), req)
	return s.answer(c, r, err)
}

func (s *server) undo(c fiber.Ctx) error {
	return s.move(c, func(id string, req MoveRequest) (store.Revision, error) {
		return s.Store.Undo(c.Context(), id, req.Base)
	})
}

func (s *server) redo(c fiber.Ctx) error {
	return s.move(c, func(id string, req MoveRequest) (store.Revision, error) {
		return s.Store.Redo(c.Context(), id, req.Base)
	})
}

func (s *server) restore(c fiber.Ctx) error {
	return s.move(c, func(id string, req MoveRequest) (store.Revision, error) {
		return s.Store.Restore(c.Context(), id, req.Base, req.Revision)
	})
}

func (s *server) delete(c fiber.Ctx) error {
	if err := s.Store.Delete(c.Context(), c.Params("id")); err != nil {
		return err
	}
	return c.SendStatus(fiber.StatusNoContent)
}

func (s *server) undelete(c fiber.Ctx) error {
	if err := s.Store.Undelete(c.Context(), c.Params("id")); err != nil {
		return err
	}
	return c.SendStatus(fiber.StatusNoContent)
}

func (s *server) history(c fiber.Ctx) error {
	id := c.Params("id")
	head, err := s.Store.Get(c.Context(), id)
	if err != nil {
		return err
	}
	all, err := s.Store.History(c.Context(), id)
	if err != nil {
		return err
	}
	h := History{Revisions: []RevisionSummary{}}
	for _, r := range all {
		h.Revisions = append(h.Revisions, RevisionSummary{r.Number, r.Parent, r.What, r.SavedAt, r.Number == head.Number})
	}
	return c.JSON(h)
}

func (s *server) list(c fiber.Ctx) error {
	all, err := s.Store.List(c.Context())
	if err != nil {
		return err
	}
	list := JobList{Jobs: []JobSummary{}}
	for _, r := range all {
		list.Jobs = append(list.Jobs, s.outlines.of(r, s.summarise))
	}
	return c.JSON(list)
}

// summarise plans a job for the list. A job that cannot be read is listed
// with the reason rather than hidden.
func (s *server) summarise(r store.Revision) JobSummary {
	sum := JobSummary{ID: r.Job, SavedAt: r.SavedAt, Units: length.Usual(length.Imperial), Outline: plan.Plan{}.Outline()}
	j, _, err := job.Decode(r.Doc, s.Catalog)
	if err != nil {
		sum.Name, sum.Problem = r.Job, err.Error()
		return sum
	}
	p := plan.Make(j, s.Catalog)
	sum.Name, sum.Units, sum.Outline = j.Name, j.Units, p.Outline()
	sum.Posts, sum.Bags = p.Totals.Posts, p.Totals.Bags
	for _, f := range p.Findings {
		switch f.Severity {
		case finding.Missing:
			sum.Missing++
		case finding.Cannot, finding.Check:
			sum.Problems++
		}
	}
	return sum
}

// outlineCache keeps the summaries of revisions, which never change.
type outlineCache struct {
	mu   sync.Mutex
	kept map[string]JobSummary
}

const outlinesMost = 2000

func (o *outlineCache) of(r store.Revision, make func(store.Revision) JobSummary) JobSummary {
	key := fmt.Sprintf("%s/%d", r.Job, r.Number)
	o.mu.Lock()
	defer o.mu.Unlock()
	sum, ok := o.kept[key]
	if !ok {
		if o.kept == nil || len(o.kept) >= outlinesMost {
			o.kept = map[string]JobSummary{}
		}
		sum = make(r)
		o.kept[key] = sum
	}
	sum.Deleted = r.Deleted
	return sum
}
