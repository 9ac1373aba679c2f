package server

import (
	"context"
	"errors"
	"slices"
	"strings"
	"sync"
	"time"
	"unsafe"

	"github.com/gofiber/fiber/v3"

	"mallow/core/board"
	"mallow/core/document"
	"mallow/core/length"
	"mallow/core/plan"
	"mallow/core/stage/days"
	"mallow/files"
	"mallow/store"
)

const (
	// mostOnBoard is how many jobs are held against each other, the latest saved first.
	mostOnBoard = 60
	// What is kept of jobs for the board: their days alone, never their plans.
	mostNoted     = 20_000   // revisions that are known to be on it, or not
	mostDayBytes  = 48 << 20 // of all days together
	mostOfOneJob  = 4        // days of one revision, each kept clear of others
	boardPlanning = boardWait + mostOnBoard*planBudget
)

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

// boards is what is known of revisions for the board, so that a job is read and planned
// once for each of them.
type boards struct {
	sync.Mutex
	by    map[boardKey]*onBoard
	order []boardKey // as they were noted
	bytes int        // of all days
}

type boardKey struct {
	generation, job string
	number          int
}

// onBoard is what the board needs of a revision.
type onBoard struct {
	starts bool
	wrong  string // why it cannot be read
	name   string
	days   jobDays
	plans  []boardPlan
}

type jobDays struct {
	crew, start string
	taken       []string
	units       length.Units
}

// boardPlan is a job's days, kept clear of those that are taken.
type boardPlan struct {
	taken    string
	schedule *days.Schedule
	wrong    string
	bytes    int
}

func (b *boards) find(k boardKey) *onBoard {
	b.Lock()
	defer b.Unlock()
	return b.by[k]
}

func (b *boards) note(k boardKey, o *onBoard) {
	b.Lock()
	defer b.Unlock()
	if b.by == nil {
		b.by = map[boardKey]*onBoard{}
	}
	if _, known := b.by[k]; !known {
		b.order = append(b.order, k)
	}
	b.by[k] = o
	b.shrink()
}

// plan keeps a job's days.
func (b *boards) plan(k boardKey, o *onBoard, p boardPlan) {
	b.Lock()
	defer b.Unlock()
	if b.by[k] != o {
		return // it was let go meanwhile
	}
	p.bytes = dayBytes(p.schedule)
	for len(o.plans) >= mostOfOneJob {
		b.bytes -= o.plans[0].bytes
		o.plans = o.plans[1:]
	}
	o.plans = append(o.plans, p)
	b.bytes += p.bytes
	b.shrink()
}

func (b *boards) planned(o *onBoard, taken string) (boardPlan, bool) {
	b.Lock()
	defer b.Unlock()
	for _, p := range o.plans {
		if p.taken == taken {
			return p, true
		}
	}
	return boardPlan{}, false
}

// shrink lets go of what was noted first, until the rest is within its bounds.
func (b *boards) shrink() {
	for len(b.order) > 1 && (len(b.order) > mostNoted || b.bytes > mostDayBytes) {
		for _, p := range b.by[b.order[0]].plans {
			b.bytes -= p.bytes
		}
		delete(b.by, b.order[0])
		b.order = b.order[1:]
	}
}

func (b *boards) forget() {
	b.Lock()
	defer b.Unlock()
	b.by, b.order, b.bytes = nil, nil, 0
}

// dayBytes is about what a job's days take in memory.
func dayBytes(s *days.Schedule) int {
	n := int(unsafe.Sizeof(*s))
	for i := range s.Days {
		n += int(unsafe.Sizeof(s.Days[i]))
		for k := range s.Days[i].Parts {
			n += int(unsafe.Sizeof(s.Days[i].Parts[k])) + 200 // and what it says
		}
	}
	return n
}

// boardOf answers with the board, line by line as the jobs are planned.
func (s *Server) boardOf(c fiber.Ctx) error {
	return s.lines(c, boardPlanning, func(ctx context.Context, say func(any) error) error {
		b, _, err := s.boardNow(ctx, func(done, of int) error { return say(BoardLine{Done: done, Of: of}) })
		if err != nil {
			return err
		}
		return say(BoardLine{Board: b})
	})
}

// crewCalendar answers with the days of one crew on all of its jobs.
func (s *Server) crewCalendar(c fiber.Ctx) error {
	crew := c.Query("crew")
	ctx, end := s.until(c.RequestCtx().Conn(), boardPlanning)
	defer end()
	b, units, err := s.boardNow(ctx, func(int, int) error { return nil })
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

// boardNow holds the jobs that have a first day against each other. One board is worked
// out at a time, and one of its jobs.
func (s *Server) boardNow(ctx context.Context, told func(done, of int) error) (*Board, map[string]length.Units, error) {
	leave, err := s.boardGate.enter(ctx)
	if err != nil {
		return nil, nil, err
	}
	defer leave()
	out := &Board{Crews: []board.CrewDays{}, Wrong: []BoardWrong{}}
	units := map[string]length.Units{}
	var jobs []board.Job
	for skip := 0; ; skip += 100 {
		page, err := s.Store.List(ctx, store.Query{Skip: skip, Most: 100})
		if err != nil {
			return nil, nil, err
		}
		for _, e := range page.Entries {
			k := boardKey{page.Generation, e.Job, e.Number}
			o, err := s.noted(ctx, k)
			if err != nil {
				return nil, nil, err
			}
			switch {
			case o.wrong != "":
				out.Wrong = append(out.Wrong, BoardWrong{e.Job, e.Name, o.wrong})
			case o.starts && len(jobs) >= mostOnBoard:
				out.Left++
			case o.starts:
				units[e.Job] = o.days.units
				jobs = append(jobs, board.Job{ID: e.Job, Name: o.name, Crew: o.days.crew, Revision: e.Number, Start: o.days.start, Taken: o.days.taken,
					Plan: func(taken []string) (*days.Schedule, error) {
						p, err := s.boardPlan(ctx, k, o, taken)
						if err == nil && p.wrong != "" {
							out.Wrong = append(out.Wrong, BoardWrong{e.Job, o.name, p.wrong})
						}
						return p.schedule, err
					}})
			}
		}
		if len(page.Entries) < 100 {
			break
		}
	}
	gone := error(nil)
	crews, err := board.Lay(jobs, func(done int) {
		if gone == nil {
			gone = told(done, len(jobs))
		}
	})
	if err = errors.Join(err, gone); err != nil {
		return nil, nil, err
	}
	out.Crews = append(out.Crews, crews...)
	return out, units, nil
}

// noted is what the board needs to know of a revision. It is read once.
func (s *Server) noted(ctx context.Context, k boardKey) (*onBoard, error) {
	if o := s.board.find(k); o != nil {
		return o, nil
	}
	o := &onBoard{}
	doc, err := s.Store.DocAt(ctx, k.job, store.Base{Number: k.number, Generation: k.generation})
	if err == nil && strings.Contains(string(doc), `"start"`) {
		j, _, e := document.Decode(doc, s.Catalog)
		err = e
		o.starts, o.name, o.days = j.Days.Start != "", j.Name, jobDays{j.Days.Crew, j.Days.Start, j.Days.Taken, j.Units}
	}
	if ctx.Err() != nil {
		return nil, context.Cause(ctx)
	}
	if err != nil {
		o.starts, o.wrong = false, plainly(err)
	}
	s.board.note(k, o)
	return o, nil
}

// boardPlan plans a job's days, kept clear of those that are taken, and keeps them: the
// plan itself is let go. A job that takes too long is told, and has no days.
func (s *Server) boardPlan(ctx context.Context, k boardKey, o *onBoard, taken []string) (boardPlan, error) {
	key := strings.Join(taken, " ")
	if p, known := s.board.planned(o, key); known {
		return p, nil
	}
	p := boardPlan{taken: key, schedule: &days.Schedule{}}
	doc, err := s.Store.DocAt(ctx, k.job, store.Base{Number: k.number, Generation: k.generation})
	if err != nil {
		return p, err
	}
	err = s.planned(ctx, "board", planBudget, func(stop func() error) error {
		j, _, err := document.Decode(doc, s.Catalog)
		if err != nil {
			return err
		}
		r, err := plan.Compute(stop, j, s.Catalog, nil)
		if err == nil {
			p.schedule = r.Elsewhere(slices.Clone(taken))
		}
		return err
	})
	switch {
	case errors.Is(err, errTookTooLong): // which is not kept: it may have been the machine
		p.wrong = plainly(err)
		return p, nil
	case err != nil:
		return p, err
	}
	s.board.plan(k, o, p)
	return p, nil
}
