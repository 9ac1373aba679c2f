package server

import (
	"strconv"

	"github.com/gofiber/fiber/v3"

	"mallow/core/job"
	"mallow/core/plan"
)

// alternatives answers with the layouts of a run that are worth having.
// Nothing is kept: the interface saves the one that is taken.
func (s *Server) alternatives(c fiber.Ctx) error {
	j, run, err := s.ofRun(c)
	if err != nil {
		return err
	}
	return s.planning(c, "alternatives", planBudget, func(stop func() error) error {
		layouts, ok, err := plan.AlternativesUntil(stop, j, s.Catalog, run)
		if err != nil {
			return err
		}
		if !ok {
			return noSuchRun(run)
		}
		return c.JSON(Alternatives{Run: run, Layouts: layouts})
	})
}

// looks answers with a run in every look, side by side.
func (s *Server) looks(c fiber.Ctx) error {
	j, run, err := s.ofRun(c)
	if err != nil {
		return err
	}
	return s.planning(c, "looks", planBudget, func(stop func() error) error {
		looks, ok, err := plan.LooksUntil(stop, j, s.Catalog, run)
		if err != nil {
			return err
		}
		if !ok {
			return noSuchRun(run)
		}
		return c.JSON(Looks{Run: run, Looks: looks})
	})
}

// ofRun reads a question about one run of a job document.
func (s *Server) ofRun(c fiber.Ctx) (job.Job, string, error) {
	var req AlternativesRequest
	if err := read(c, &req); err != nil {
		return job.Job{}, "", err
	}
	j, _, err := job.Decode(req.Doc, s.Catalog)
	return j, req.Run, err
}

func noSuchRun(run string) error {
	return job.Errors{{Field: "/run", Given: strconv.Quote(run), Allowed: "the id of a run that has a length"}}
}
