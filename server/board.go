package server

import (
	"context"
	"encoding/json"
	"errors"
	"slices"
	"time"

	"github.com/gofiber/fiber/v3"

	"mallow/core/board"
	"mallow/core/document"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/plan"
	"mallow/core/stage/days"
	"mallow/files"
	"mallow/store"
)

// mostOnBoard is how many jobs are held against each other, the latest saved first.
const mostOnBoard = 60

// Board is the jobs of each crew, held against each other.
type Board struct {
	Crews []board.CrewDays `json:"crews" jsonschema:"required"`
	Left  int              `json:"left" jsonschema:"required" jsonschema_description:"Jobs with a first day that are beyond what one board takes."`
	Wrong []BoardWrong     `json:"wrong" jsonschema:"required" jsonschema_description:"Jobs that could not be read or planned."`
}

// BoardWrong is a job that is not on the board, and why.
type BoardWrong struct {
	ID   string `json:"id" jsonschema:"required"`
	Name string `json:"name" jsonschema:"required"`
	Why  string `json:"why" jsonschema:"required"`
}

// BoardLine is one line of the answer: how far it is, and at the end the board.
type BoardLine struct {
	Done  int    `json:"done" jsonschema:"required"`
	Of    int    `json:"of" jsonschema:"required"`
	Board *Board `json:"board,omitempty"`
}

// boardOf answers with the board, line by line as the jobs are planned.
func (s *Server) boardOf(c fiber.Ctx) error {
	return s.stream(c, "application/x-ndjson", mostWait+mostOnBoard*planBudget, func(ctx context.Context, out pipe) error {
		say := func(l BoardLine) error {
			raw, err := json.Marshal(l)
			if err != nil {
				return err
			}
			_, err = out.Write(append(raw, '\n'))
			return errors.Join(err, out.Flush())
		}
		b, _, err := s.board(ctx, func(done, of int) error { return say(BoardLine{Done: done, Of: of}) })
		if err != nil {
			return err
		}
		return say(BoardLine{Board: b})
	}, nil)
}

// crewCalendar answers with the days of one crew on all of its jobs.
func (s *Server) crewCalendar(c fiber.Ctx) error {
	crew := c.Query("crew")
	ctx, end := s.until(c.RequestCtx().Conn(), mostWait+mostOnBoard*planBudget)
	defer end()
	b, units, err := s.board(ctx, func(int, int) error { return nil })
	if err != nil {
		return err
	}
	var all []files.CalendarJob
	for _, k := range b.Crews {
		for i := range k.Jobs {
			if o := &k.Jobs[i]; k.Name == crew {
				all = append(all, files.CalendarJob{Name: o.Name, ID: o.ID, Schedule: o.Schedule(), Units: units[o.ID]})
			}
		}
	}
	c.Set(fiber.HeaderContentType, "text/calendar; charset=utf-8")
	c.Set(fiber.HeaderContentDisposition, `attachment; filename="crew.ics"`)
	return c.Send(files.CrewCalendar(crew, all, time.Now()))
}

// board reads and plans the jobs that have a first day.
func (s *Server) board(ctx context.Context, told func(done, of int) error) (*Board, map[string]length.Units, error) {
	out := &Board{Crews: []board.CrewDays{}, Wrong: []BoardWrong{}}
	units := map[string]length.Units{}
	var jobs []board.Job
	for skip := 0; ; skip += 100 {
		page, err := s.Store.List(ctx, store.Query{Skip: skip, Most: 100})
		if err != nil {
			return nil, nil, err
		}
		for _, e := range page.Entries {
			doc, err := s.Store.Doc(ctx, e.Job, e.Number)
			if err != nil {
				out.Wrong = append(out.Wrong, BoardWrong{e.Job, e.Name, plainly(err)})
				continue
			}
			if !startsIn(doc) {
				continue
			}
			if len(jobs) >= mostOnBoard {
				out.Left++
				continue
			}
			j, _, err := document.Decode(doc, s.Catalog)
			if err != nil {
				out.Wrong = append(out.Wrong, BoardWrong{e.Job, e.Name, plainly(err)})
				continue
			}
			units[e.Job] = j.Units
			jobs = append(jobs, board.Job{ID: e.Job, Name: j.Name, Crew: j.Days.Crew, Revision: e.Number, Start: j.Days.Start, Taken: j.Days.Taken, Plan: s.elsewhere(ctx, j, func(why error) { out.Wrong = append(out.Wrong, BoardWrong{e.Job, j.Name, plainly(why)}) })})
		}
		if len(page.Entries) < 100 {
			break
		}
	}
	crews, err := board.Lay(jobs, func(done int) { _ = told(done, len(jobs)) })
	if err != nil {
		return nil, nil, err
	}
	out.Crews = append(out.Crews, crews...)
	return out, units, nil
}

// startsIn tells whether a document has a first day, without reading all of it.
func startsIn(doc []byte) bool {
	var d struct {
		Days struct {
			Start string `json:"start"`
		} `json:"days"`
	}
	return json.Unmarshal(doc, &d) == nil && d.Days.Start != ""
}

// elsewhere plans a job's days, kept clear of those that are taken. The fence is planned
// once. A job that takes too long is told, and has no days.
func (s *Server) elsewhere(ctx context.Context, j job.Job, wrong func(error)) func([]string) (*days.Schedule, error) {
	var r *plan.Result
	return func(taken []string) (out *days.Schedule, err error) {
		err = s.planned(ctx, "board", planBudget, func(stop func() error) error {
			if r == nil {
				if r, err = plan.Compute(stop, j, s.Catalog, nil); err != nil {
					return err
				}
			}
			out = r.Elsewhere(slices.Clone(taken))
			return nil
		})
		if errors.Is(err, errTookTooLong) {
			wrong(err)
			return &days.Schedule{}, nil
		}
		return out, err
	}
}
