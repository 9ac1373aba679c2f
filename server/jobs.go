package server

import (
	"bytes"
	"cmp"
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"slices"
	"strconv"

	"github.com/gofiber/fiber/v3"

	"mallow/core/begin"
	"mallow/core/calls"
	"mallow/core/document"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/plan"
	"mallow/store"
)

// read parses a request's body.
func read(c fiber.Ctx, into any) error { return calls.Read(c.Body(), into) }

func (s *Server) state(r store.Revision) JobState {
	if o, ok := s.heads.find(r.Job, r.At()); ok {
		return stateOf(r, o.opened, nil)
	}
	o, err := document.Open(r.Doc, s.Catalog)
	if err == nil {
		s.heads.keep(r, o, nil)
	}
	return stateOf(r, o, err)
}

// stateOf is the state of a document that has just been opened.
func stateOf(r store.Revision, o document.Opened, err error) JobState {
	unknown := o.Unknown
	if err != nil || unknown == nil {
		unknown = []string{}
	}
	if err == nil {
		r.Doc = o.Doc
	}
	problem, wrong := "", document.Errors{}
	if err != nil {
		problem = plainly(err)
		errors.As(err, &wrong)
	}
	return JobState{
		Name: r.Name, Problem: problem, Wrong: wrong, Left: o.Left,
		ID: r.Job, Revision: r.Number, Generation: r.Generation, Doc: r.Doc, What: r.What, SavedAt: r.SavedAt,
		CanUndo: r.CanUndo, CanRedo: r.CanRedo, Unknown: unknown,
	}
}

// sendJob sends the state of a job. Its document is JSON already, which would
// take longer to look through again than to read.
func sendJob(c fiber.Ctx, status int, j JobState) error {
	doc := j.Doc
	j.Doc = nil
	raw, err := json.Marshal(j)
	if err != nil {
		return err
	}
	before, after, ok := bytes.Cut(raw, []byte(`"doc":null`))
	if doc == nil || !ok {
		doc = Document("null")
	}
	c.Set(fiber.HeaderContentType, fiber.MIMEApplicationJSONCharsetUTF8)
	return c.Status(status).Send(slices.Concat(before, []byte(`"doc":`), doc, after))
}

// answer sends a revision, or the error that stood in its way.
func (s *Server) answer(c fiber.Ctx, r store.Revision, err error) error {
	if err != nil {
		return err
	}
	return sendJob(c, fiber.StatusOK, s.state(r))
}

// saved tells those who listen of a revision, and sends it.
func (s *Server) saved(c fiber.Ctx, r store.Revision, err error) error {
	if err == nil {
		s.tellSaved(r)
	}
	return s.answer(c, r, err)
}

func (s *Server) tellSaved(r store.Revision) {
	s.described(r)
	s.live.tell(Event{Job: r.Job, Revision: r.Number, What: r.What, Kind: EventSaved})
}

func (s *Server) get(c fiber.Ctx) error {
	r, err := s.Store.Get(c.Context(), c.Params("id"))
	return s.answer(c, r, err)
}

func (s *Server) create(c fiber.Ctx) error {
	var req CreateRequest
	if err := read(c, &req); err != nil {
		return err
	}
	doc := []byte(req.Doc)
	if n := req.Example; n != 0 {
		if n < 1 || n > len(s.Examples) {
			return document.Errors{{Field: "/example", Given: strconv.Itoa(n), Allowed: fmt.Sprintf("1 to %d", len(s.Examples))}}
		}
		doc, req.What = s.Examples[n-1], "A job to try"
	}
	if req.Answers != nil && doc == nil {
		j, err := begin.Job(*req.Answers, s.Catalog)
		if err != nil {
			return err
		}
		if doc, err = json.Marshal(j); err != nil {
			return err
		}
	}
	if doc == nil {
		if req.System != length.Metric {
			req.System = length.Imperial
		}
		fresh, err := json.Marshal(document.New(req.Name, req.System, s.Catalog))
		if err != nil {
			return err
		}
		doc = fresh
	}
	o, err := document.Open(doc, s.Catalog)
	if err != nil {
		return err
	}
	if req.What == "" {
		req.What = "New job"
	}
	_, result := s.lay(c.Context(), "new", &o, nil)
	r, err := s.Store.Create(c.Context(), draft(o.Doc, o.Job.Name, req.What))
	if err != nil {
		return err
	}
	s.heads.keep(r, o, result)
	s.tellSaved(r)
	return sendJob(c, fiber.StatusCreated, stateOf(r, o, nil))
}

func (s *Server) save(c fiber.Ctx) error {
	var req SaveRequest
	if err := read(c, &req); err != nil {
		return err
	}
	o, err := document.Open(req.Doc, s.Catalog)
	if err != nil {
		return err
	}
	before := s.open(c.Context(), c.Params("id"), req.base()).opened
	if err := document.FactsKept(before.Job, o.Job); err != nil {
		return err
	}
	_, result := s.lay(c.Context(), c.Params("id"), &o, nil)
	d, err := s.change(before, o, req.What)
	if err != nil {
		return err
	}
	r, over, err := s.put(c, req, d, o, result)
	switch {
	case err != nil:
		return err
	case over != nil:
		return sendJob(c, fiber.StatusOK, *over)
	}
	return sendJob(c, fiber.StatusOK, stateOf(r, o, nil))
}

// put saves a change on top of its base and keeps it open; or lays it over what
// another window saved since, and returns the job that came of both.
func (s *Server) put(c fiber.Ctx, req SaveRequest, d store.Draft, o document.Opened, result *plan.Result) (r store.Revision, over *JobState, err error) {
	r, err = s.Store.Save(c.Context(), c.Params("id"), req.base(), d)
	var stale *store.StaleError
	if errors.As(err, &stale) {
		state, err := s.saveOver(c, req, stale.Head)
		return r, &state, err
	}
	if err == nil {
		s.heads.keep(r, o, result)
		s.tellSaved(r)
	}
	return r, nil, err
}

// mostEdits is how many edits are saved in one request; a document that was
// changed in more places is saved as a whole.
const mostEdits = 1000

// edit saves edits of a revision.
func (s *Server) edit(c fiber.Ctx) error {
	var req EditRequest
	if err := read(c, &req); err != nil {
		return err
	}
	id := c.Params("id")
	if n := len(req.Edits); n > mostEdits {
		return document.Errors{{Field: "/edits", Given: strconv.Itoa(n) + " edits", Allowed: "at most " + strconv.Itoa(mostEdits) + "; save the whole document"}}
	}
	head := s.open(c.Context(), id, req.base())
	before := head.opened
	if before.Doc == nil {
		return s.nothingToEdit(c.Context(), id, req.base())
	}
	o, err := before.Edited(req.Edits, s.Catalog)
	if err == nil {
		err = document.FactsKept(before.Job, o.Job)
	}
	if err != nil {
		return err
	}
	mine := o.Doc // without the names of posts, which both windows' changes may move
	laid, result := s.lay(c.Context(), id, &o, head.result)
	d := store.Draft{Doc: o.Doc, What: clip(req.What), Name: o.Job.Name}
	if d.Ops, err = json.Marshal(slices.Concat(req.Edits, laid)); err != nil {
		return err
	}
	r, over, err := s.put(c, SaveRequest{Base: req.Base, Generation: req.Generation, From: before.Doc, Doc: mine, What: req.What}, d, o, result)
	switch {
	case err != nil:
		return err
	case over != nil:
		return c.JSON(Saved{Revision: over.Revision, Generation: over.Generation, SavedAt: over.SavedAt, CanUndo: over.CanUndo, CanRedo: over.CanRedo, Unknown: over.Unknown, Made: []job.Edit{}, State: over})
	}
	return c.JSON(Saved{Revision: r.Number, Generation: r.Generation, SavedAt: r.SavedAt, CanUndo: r.CanUndo, CanRedo: r.CanRedo, Unknown: append([]string{}, o.Unknown...), Made: append([]job.Edit{}, laid...)})
}

// nothingToEdit says why a revision cannot be edited.
func (s *Server) nothingToEdit(ctx context.Context, id string, base store.Base) error {
	head, err := s.Store.Get(ctx, id)
	if err != nil {
		return err
	}
	raw, err := s.Store.DocAt(ctx, id, base)
	if errors.Is(err, store.ErrNothingThen) { // it is of another database, or went by age
		return &store.StaleError{Base: base, Head: head}
	}
	if err != nil {
		return err
	}
	if _, err = document.Open(raw, s.Catalog); err != nil {
		return err
	}
	return fiber.NewError(fiber.StatusServiceUnavailable, "The revision could not be read a moment ago. Try again.")
}

// mostMerges is how often a save that another one came before is tried again.
const mostMerges = 5

// saveOver lays a change over what another window saved since. Fields that
// both changed are asked about; nothing is saved then.
func (s *Server) saveOver(c fiber.Ctx, req SaveRequest, head store.Revision) (JobState, error) {
	base := []byte(req.From)
	if base == nil {
		var err error
		base, err = s.Store.DocAt(c.Context(), head.Job, req.base())
		if errors.Is(err, store.ErrNothingThen) {
			err = &store.StaleError{Base: req.base(), Head: head}
		}
		if err != nil {
			return JobState{}, err
		}
	}
	for range mostMerges {
		merged, clashes, err := document.Merge(base, req.Doc, head.Doc)
		if err != nil {
			return JobState{}, err
		}
		if len(clashes) > 0 {
			return JobState{}, clash{&store.StaleError{Base: req.base(), Head: head}, clashes, merged}
		}
		o, err := document.Open(merged, s.Catalog)
		if err != nil {
			return JobState{}, err // each change is sound and both together are not
		}
		theirs := s.base(head.Doc)
		if err := document.FactsKept(theirs.Job, o.Job); err != nil {
			return JobState{}, err
		}
		s.lay(c.Context(), head.Job, &o, nil)
		d, err := s.change(theirs, o, req.What)
		if err != nil {
			return JobState{}, err
		}
		r, err := s.Store.Save(c.Context(), head.Job, head.At(), d)
		var stale *store.StaleError
		if errors.As(err, &stale) {
			head = stale.Head
			continue
		}
		if err != nil {
			return JobState{}, err
		}
		s.tellSaved(r)
		state := s.state(r)
		state.Merged = true
		return state, nil
	}
	return JobState{}, &store.StaleError{Base: req.base(), Head: head}
}

// clash is a save in which both windows changed the same fields.
type clash struct {
	error
	clashes []document.Clash
	merged  Document
}

func (e clash) Unwrap() error { return e.error }

// head says which revision is current, for a window that is looked at again.
func (s *Server) head(c fiber.Ctx) error {
	r, err := s.Store.Head(c.Context(), c.Params("id"))
	if err != nil {
		return err
	}
	return c.JSON(Head{r.Number, r.Generation})
}

// clip keeps a history line a line.
func clip(what string) string {
	if r := []rune(what); len(r) > 200 {
		return string(r[:200]) + "…"
	}
	return what
}

func (s *Server) move(c fiber.Ctx, to func(id string, req MoveRequest) (store.Revision, error)) error {
	var req MoveRequest
	if err := read(c, &req); err != nil {
		return err
	}
	r, err := to(c.Params("id"), req)
	return s.saved(c, r, err)
}

func (s *Server) undo(c fiber.Ctx) error {
	return s.move(c, func(id string, req MoveRequest) (store.Revision, error) {
		return s.Store.Undo(c.Context(), id, req.base())
	})
}

func (s *Server) redo(c fiber.Ctx) error {
	return s.move(c, func(id string, req MoveRequest) (store.Revision, error) {
		return s.Store.Redo(c.Context(), id, req.base())
	})
}

func (s *Server) restore(c fiber.Ctx) error {
	return s.move(c, func(id string, req MoveRequest) (store.Revision, error) {
		return s.restored(c.Context(), id, req)
	})
}

func (s *Server) delete(c fiber.Ctx) error {
	if err := s.Store.Delete(c.Context(), c.Params("id")); err != nil {
		return err
	}
	s.live.tell(Event{Job: c.Params("id"), Kind: EventDeleted})
	return c.SendStatus(fiber.StatusNoContent)
}

func (s *Server) undelete(c fiber.Ctx) error {
	if err := s.Store.Undelete(c.Context(), c.Params("id")); err != nil {
		return err
	}
	s.live.tell(Event{Job: c.Params("id"), Kind: EventPutBack})
	return c.SendStatus(fiber.StatusNoContent)
}

// history sends a page of a job's revisions, the newest first.
func (s *Server) history(c fiber.Ctx) error {
	before, most := fiber.Query[int](c, "before"), fiber.Query[int](c, "most", usualPage)
	var bad document.Errors
	if before < 0 {
		bad = append(bad, document.FieldError{Field: "/before", Given: strconv.Itoa(before), Allowed: "the number of a revision, or 0 for the newest"})
	}
	if most < 1 || most > mostPage {
		bad = append(bad, document.FieldError{Field: "/most", Given: strconv.Itoa(most), Allowed: "1 to " + strconv.Itoa(mostPage)})
	}
	if len(bad) > 0 {
		return bad
	}
	page, err := s.Store.History(c.Context(), c.Params("id"), before, most)
	if err != nil {
		return err
	}
	h := History{Revisions: []RevisionSummary{}, More: page.More}
	for _, r := range page.Revisions {
		h.Revisions = append(h.Revisions, RevisionSummary{r.Number, r.Parent, r.What, r.SavedAt, r.Number == page.Head, r.Pinned})
	}
	return c.JSON(h)
}

// Pages of the list of jobs.
const (
	usualPage = 50
	mostPage  = 200
	mostWords = 200
)

// list sends a page of the list. Nothing is planned and no document is read
// for it.
func (s *Server) list(c fiber.Ctx) error {
	q := store.Query{Words: c.Query("words"), Bin: fiber.Query[bool](c, "bin"), Skip: fiber.Query[int](c, "skip"), Most: fiber.Query[int](c, "most", usualPage)}
	var bad document.Errors
	if q.Skip < 0 {
		bad = append(bad, document.FieldError{Field: "/skip", Given: strconv.Itoa(q.Skip), Allowed: "0 or more"})
	}
	if q.Most < 1 || q.Most > mostPage {
		bad = append(bad, document.FieldError{Field: "/most", Given: strconv.Itoa(q.Most), Allowed: "1 to " + strconv.Itoa(mostPage)})
	}
	if n := len([]rune(q.Words)); n > mostWords {
		bad = append(bad, document.FieldError{Field: "/words", Given: strconv.Itoa(n) + " characters", Allowed: "at most " + strconv.Itoa(mostWords)})
	}
	if len(bad) > 0 {
		return bad
	}
	page, err := s.Store.List(c.Context(), q)
	if err != nil {
		return err
	}
	list := JobList{Jobs: []JobSummary{}, Count: page.Count, Binned: page.Binned}
	for _, e := range page.Entries {
		sum, err := summary(e)
		if err != nil {
			return err
		}
		list.Jobs = append(list.Jobs, sum)
	}
	return c.JSON(list)
}

// summary is a job in the list, with what was kept of it when it was saved.
func summary(e store.Entry) (JobSummary, error) {
	sum := JobSummary{ID: e.Job, Name: cmp.Or(e.Name, "Unreadable job"), SavedAt: e.SavedAt, Deleted: !e.DeletedAt.IsZero(), Pending: e.Facts == nil,
		Facts: Facts{Units: length.Usual(length.Imperial), Outline: plan.Plan{}.Outline()}}
	if sum.Deleted {
		gone := e.DeletedAt.Add(store.BinFor)
		sum.GoneAt = &gone
	}
	if e.Facts == nil {
		return sum, nil
	}
	return sum, json.Unmarshal(e.Facts, &sum.Facts)
}
