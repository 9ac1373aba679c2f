package server

import (
	"strconv"

	"github.com/gofiber/fiber/v3"

	"mallow/core/job"
	"mallow/core/plan"
)

// alternatives answers with the layouts of a run that are worth having.
// Nothing is kept: the interface saves the one that is taken.
func (s *server) alternatives(c fiber.Ctx) error {
	j, run, err := s.ofRun(c)
	if err != nil {
		return err
	}
	layouts, ok := plan.Alternatives(j, s.Catalog, run)
	if !ok {
		return noSuchRun(run)
	}
	return c.JSON(Alternatives{Run: run, Layouts: layouts})
}

// looks answers with a run in every look, side by side.
func (s *server) looks(c fiber.Ctx) error {
	j, run, err := s.ofRun(c)
	if err != nil {
		return err
	}
	looks, ok := plan.Looks(j, s.Catalog, run)
	if !ok {
		return noSuchRun(run)
	}
	return c.JSON(Looks{Run: run, Looks: looks})
}

// ofRun reads a question about one run of a job document.
func (s *server) ofRun(c fiber.Ctx) (job.Job, string, error) {
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
