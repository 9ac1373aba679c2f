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
	var req AlternativesRequest
	if err := read(c, &req); err != nil {
		return err
	}
	j, _, err := job.Decode(req.Doc, s.Catalog)
	if err != nil {
		return err
	}
	layouts, ok := plan.Alternatives(j, s.Catalog, req.Run)
	if !ok {
		return job.Errors{{Field: "/run", Given: strconv.Quote(req.Run), Allowed: "the id of a run that has a length"}}
	}
	return c.JSON(Alternatives{Run: req.Run, Layouts: layouts})
}
