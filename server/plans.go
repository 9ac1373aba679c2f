package server

import (
	"context"
	"crypto/sha256"
	"encoding/json"
	"fmt"
	"slices"
	"strings"
	"sync"

	"github.com/gofiber/fiber/v3"

	"mallow/core/document"
	"mallow/core/job"
	"mallow/core/plan"
	"mallow/core/report"
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
	sum    [sha256.Size]byte // of the document
	of     string            // which job it is, as far as its document tells
	posts  int
	result *plan.Result
}

// find is what was computed of the very document, or else the last that was
// computed of the same job.
func (r *results) find(sum [sha256.Size]byte, of string) (same, last *plan.Result) {
	r.Lock()
	defer r.Unlock()
	for _, k := range r.list {
		if k.sum == sum {
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
	r.list = slices.DeleteFunc(r.list, func(o kept) bool { return o.of == k.of || o.sum == k.sum })
	r.list = slices.Insert(r.list, 0, k)
	posts := 0
	for i := range r.list {
		if posts += r.list[i].posts; i > 0 && (posts > mostPostsKept || i >= mostResults) {
			r.list = slices.Delete(r.list, i, len(r.list))
			break
		}
	}
}

// computed is a document as it is computed: kept from the last request, or
// else found again, with what did not change since.
func (s *Server) computed(stop func() error, doc []byte) (*plan.Result, error) {
	sum := sha256.Sum256(doc)
	if same, _ := s.results.find(sum, ""); same != nil {
		return same, nil
	}
	j, _, err := document.Decode(doc, s.Catalog)
	if err != nil {
		return nil, waysOut{err, document.Mends(j)}
	}
	return s.compute(stop, j, sum)
}

func (s *Server) compute(stop func() error, j job.Job, sum [sha256.Size]byte) (*plan.Result, error) {
	of := identity(j)
	_, last := s.results.find(sum, of)
	r, err := plan.Compute(stop, j, s.Catalog, last)
	if err != nil {
		return nil, err
	}
	s.results.keep(kept{sum: sum, of: of, posts: r.Posts(), result: r})
	return r, nil
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

// plan answers a job document with its figures and findings. Nothing is saved.
func (s *Server) plan(c fiber.Ctx) error {
	doc := c.Body()
	return s.planning(c, "plan", planBudget, func(stop func() error) error {
		r, err := s.computed(stop, doc)
		if err != nil {
			return err
		}
		p := r.Figures()
		s.recent.keep(doc, factsOf(p))
		return figures(c, p)
	})
}

// tell answers a job document with what is said beside its figures.
func (s *Server) tell(c fiber.Ctx) error {
	doc := c.Body()
	return s.planning(c, "tell", planBudget, func(stop func() error) error {
		r, err := s.computed(stop, doc)
		if err != nil {
			return err
		}
		told, err := r.Tell(stop)
		if err != nil {
			return err
		}
		return figures(c, told)
	})
}

// bill answers with what the job takes, item by item.
func (s *Server) bill(c fiber.Ctx) error {
	doc := c.Body()
	return s.planning(c, "bill", planBudget, func(stop func() error) error {
		r, err := s.computed(stop, doc)
		if err != nil {
			return err
		}
		return figures(c, r.Bill())
	})
}

// mostRows is how many rows of a table are sent at once.
const mostRows = 500

// table answers with rows of a table of a run.
func (s *Server) table(c fiber.Ctx) error {
	var req TableRequest
	if err := read(c, &req); err != nil {
		return err
	}
	if req.From < 0 || req.Most < 1 || req.Most > mostRows {
		return document.Errors{{Field: "/most", Given: fmt.Sprintf("%d rows from %d on", req.Most, req.From), Allowed: fmt.Sprintf("1 to %d, from 0 on", mostRows)}}
	}
	return s.planning(c, "table", planBudget, func(stop func() error) error {
		r, err := s.computed(stop, req.Doc)
		if err != nil {
			return err
		}
		p := r.Figures()
		run := slices.IndexFunc(p.Runs, func(run plan.Run) bool { return run.ID == req.Run })
		if run < 0 {
			return document.Errors{{Field: "/run", Given: document.Brief(req.Run), Allowed: "a run of the job"}}
		}
		t, ok := report.Of(p, req.Table, run)
		if !ok {
			return document.Errors{{Field: "/table", Given: document.Brief(req.Table), Allowed: strings.Join(report.IDs(), ", ")}}
		}
		t = t.Read()
		out := TableRows{Name: t.Name, Columns: append([]report.Column{}, t.Columns...), Rows: []TableRow{}, Count: len(t.Rows)}
		for i := min(req.From, len(t.Rows)); i < min(req.From+req.Most, len(t.Rows)); i++ {
			out.Rows = append(out.Rows, TableRow{Post: t.Rows[i].Post, Bay: t.Rows[i].Bay, Cells: t.Shown(i)})
		}
		return c.JSON(out)
	})
}

// explain answers with the reasons of one figure.
func (s *Server) explain(c fiber.Ctx) error {
	var req ExplainRequest
	if err := read(c, &req); err != nil {
		return err
	}
	return s.planning(c, "explain", planBudget, func(stop func() error) error {
		r, err := s.computed(stop, req.Doc)
		if err != nil {
			return err
		}
		why, ok := r.Explain(req.Figure)
		if !ok {
			given, _ := json.Marshal(req.Figure)
			return document.Errors{{Field: "/figure", Given: document.Brief(string(given)), Allowed: "a figure of the plan that can be explained"}}
		}
		return c.JSON(Explained{Figure: why.Figure, Sentence: why.Sentence, Steps: why.Steps, Asked: why.Asked, Caution: why.Caution})
	})
}

// advise answers with the ways out of findings, one finding a line, each as
// soon as it is worked out.
func (s *Server) advise(c fiber.Ctx) error {
	var req AdviseRequest
	if err := read(c, &req); err != nil {
		return err
	}
	if _, _, err := document.Decode(req.Doc, s.Catalog); err != nil {
		return err // while it can still be said as an error
	}
	return s.stream(c, "application/x-ndjson", mostWait+planBudget, func(ctx context.Context, out pipe) error {
		return s.planned(ctx, "advise", planBudget, func(stop func() error) error {
			r, err := s.computed(stop, req.Doc)
			if err != nil {
				return err
			}
			lines := json.NewEncoder(out)
			return r.Advise(stop, req.Findings, func(a plan.Advised) error {
				if err := lines.Encode(a); err != nil {
					return err
				}
				return out.Flush()
			})
		})
	}, nil)
}

// ways answers with the ways out of a hole that was stopped.
func (s *Server) ways(c fiber.Ctx) error {
	var req WaysRequest
	if err := read(c, &req); err != nil {
		return err
	}
	return s.planning(c, "ways", planBudget, func(stop func() error) error {
		r, err := s.computed(stop, req.Doc)
		if err != nil {
			return err
		}
		ways, ok, err := r.Ways(stop, req.Run, req.Post)
		if err != nil {
			return err
		}
		if !ok {
			return document.Errors{{Field: "/post", Given: document.Brief(req.Run + " " + req.Post), Allowed: "a post whose hole was stopped"}}
		}
		return c.JSON(Ways{Ways: ways})
	})
}
