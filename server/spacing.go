package server

import (
	"strconv"

	"github.com/gofiber/fiber/v3"

	"mallow/core/document"
)

// alternatives answers with the layouts of a run that are worth having.
// Nothing is kept: the interface saves the one that is taken.
func (s *Server) alternatives(c fiber.Ctx) error {
	var req AlternativesRequest
	if err := read(c, &req); err != nil {
		return err
	}
	run := req.Run
	return s.planning(c, "alternatives", planBudget, func(stop func() error) error {
		r, err := s.computed(stop, req.Doc)
		if err != nil {
			return err
		}
		layouts, ok, err := r.Alternatives(stop, run)
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
	var req AlternativesRequest
	if err := read(c, &req); err != nil {
		return err
	}
	run := req.Run
	return s.planning(c, "looks", planBudget, func(stop func() error) error {
		r, err := s.computed(stop, req.Doc)
		if err != nil {
			return err
		}
		looks, ok, err := r.Looks(stop, run)
		if err != nil {
			return err
		}
		if !ok {
			return noSuchRun(run)
		}
		return c.JSON(Looks{Run: run, Looks: looks})
	})
}

func noSuchRun(run string) error {
	return document.Errors{{Field: "/run", Given: strconv.Quote(run), Allowed: "the id of a run that has a length"}}
}
