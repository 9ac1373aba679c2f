package server

import (
	"context"
	"errors"
	"fmt"
	"io"
	"slices"
	"strconv"
	"time"

	"github.com/gofiber/fiber/v3"

	"mallow/core/document"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/survey"
	"mallow/standin"
)

// Bounds of a walk with the level.
const (
	mostStops = 2000
	walkReach = 30 * length.Metre
)

// walk streams the readings of the simulated level, one line of JSON each, as
// they are taken.
func (s *Server) walk(c fiber.Ctx) error {
	var req WalkRequest
	if err := read(c, &req); err != nil {
		return err
	}
	j, _, err := document.Decode(req.Doc, s.Catalog)
	if err != nil {
		return err
	}
	at := slices.IndexFunc(j.Lines, func(l job.Line) bool { return l.ID == req.Line })
	if at < 0 {
		return fiber.NewError(fiber.StatusUnprocessableEntity, fmt.Sprintf("There is no line %q; the job has %d.", req.Line, len(j.Lines)))
	}
	if !(req.Every >= 300 && req.Every <= 1e6) {
		return document.Errors{{Field: "/every", Given: fmt.Sprint(float64(req.Every)), Allowed: "millimetres from 300 to 1000000"}}
	}
	line := j.Lines[at]
	stops := survey.Route(line, req.Every, walkReach)
	if len(stops) == 0 {
		return fiber.NewError(fiber.StatusUnprocessableEntity, "The line has no length yet: tape its runs first, then walk it with the level.")
	}
	if len(stops) > mostStops {
		return document.Errors{{Field: "/every", Given: fmt.Sprint(float64(req.Every)), Allowed: fmt.Sprintf("wide enough for %d readings; this makes %d", mostStops, len(stops))}}
	}
	var rows []job.Reading
	return s.readings(c, standin.NewWalk(s.Level, line, stops), len(stops), func(i int, r standin.Reading) any {
		rows = survey.Record(rows, stops[i], r.Rod, r.Sight)
		last := len(rows) - 1
		return WalkReading{Stop: stops[i], Reading: r.Rod, Sight: r.Sight, Number: i + 1, Of: len(stops), Row: last, Entry: rows[last]}
	})
}

// pegApart is how far apart the pegs of the simulated test stand.
const pegApart = 30 * length.Metre

// walkPegs streams the four readings of a two-peg test.
func (s *Server) walkPegs(c fiber.Ctx) error {
	return s.readings(c, standin.NewPegs(s.Level, pegApart), 4, func(i int, r standin.Reading) any {
		return PegReading{Name: [4]string{"midA", "midB", "endA", "endB"}[i], Reading: r.Rod, Sight: r.Sight}
	})
}

// walkBudget is how long a walk may take.
const walkBudget = 5 * time.Minute

// readings takes readings from a rod one by one and sends each at once.
func (s *Server) readings(c fiber.Ctx, rod standin.Rod, n int, of func(int, standin.Reading) any) error {
	return s.lines(c, walkBudget, func(ctx context.Context, say func(any) error) error {
		for i := range n {
			r, err := rod.Next(ctx)
			if errors.Is(err, standin.ErrDone) || errors.Is(err, io.EOF) {
				return nil
			}
			if err != nil {
				return err
			}
			if err := say(of(i, r)); err != nil {
				return err
			}
		}
		return nil
	})
}

func (s *Server) office() standin.Office {
	return standin.Office{Wait: 3, Services: s.Catalog.Services}
}

// askOffice files a request with the simulated locating office.
func (s *Server) askOffice(c fiber.Ctx) error {
	j, day, req, err := s.officeRequest(c)
	if err != nil {
		return err
	}
	t := s.office().Ask(j, day)
	doc, err := document.Apply(req.Doc, []job.Edit{job.Set("/site/before/ticket", t)})
	if err != nil {
		return err
	}
	return c.JSON(Changed{Doc: doc, What: "Asked the locating office, ticket " + t.Number})
}

// officeMarks puts the office's marks into the job once it has been.
func (s *Server) officeMarks(c fiber.Ctx) error {
	j, day, req, err := s.officeRequest(c)
	if err != nil {
		return err
	}
	t := j.Site.Before.Ticket
	if t == nil {
		return fiber.NewError(fiber.StatusUnprocessableEntity, "The locating office has not been asked yet. Ask it first.")
	}
	lines, n, err := s.office().Visit(j, *t, day)
	if err != nil {
		return err
	}
	doc, err := document.ReplaceLines(req.Doc, lines, nil)
	if err != nil {
		return err
	}
	doc, err = document.Apply(doc, []job.Edit{job.Set("/site/before/ticket/marked", true), job.Set("/site/before/services", true)})
	if err != nil {
		return err
	}
	return c.JSON(Changed{Doc: doc, What: fmt.Sprintf("The office's marks: %d new", n)})
}

func (s *Server) officeRequest(c fiber.Ctx) (job.Job, time.Time, OfficeRequest, error) {
	var req OfficeRequest
	if err := read(c, &req); err != nil {
		return job.Job{}, time.Time{}, req, err
	}
	j, _, err := document.Decode(req.Doc, s.Catalog)
	if err != nil {
		return j, time.Time{}, req, err
	}
	day, err := time.Parse(time.DateOnly, req.Day)
	if err != nil {
		err = document.Errors{{Field: "/day", Given: strconv.Quote(req.Day), Allowed: "a date, year-month-day"}}
	}
	return j, day, req, err
}
