package server

import (
	"encoding/json"
	"sync"

	"github.com/gofiber/fiber/v3"

	"mallow/core/begin"
	"mallow/core/length"
)

// fences draws the fence types once, when they are first asked for.
type fences struct {
	once sync.Once
	of   map[length.System]Fences
}

func (s *Server) fenceTypes(c fiber.Ctx) error {
	s.fences.once.Do(func() {
		s.fences.of = map[length.System]Fences{}
		for _, sys := range []length.System{length.Imperial, length.Metric} {
			s.fences.of[sys] = Fences{begin.Fences(sys, s.Catalog), begin.Assumed(sys)}
		}
	})
	sys := length.System(c.Query("system", string(length.Imperial)))
	out, ok := s.fences.of[sys]
	if !ok {
		return fiber.NewError(fiber.StatusUnprocessableEntity, "system: imperial or metric.")
	}
	c.Set(fiber.HeaderCacheControl, "no-cache")
	return c.JSON(out)
}

// exampleJobs names the jobs that are there to try.
func (s *Server) exampleJobs(c fiber.Ctx) error {
	out := Examples{Names: []string{}}
	for _, doc := range s.Examples {
		var named struct{ Name string }
		if err := json.Unmarshal(doc, &named); err != nil {
			return err
		}
		out.Names = append(out.Names, named.Name)
	}
	return c.JSON(out)
}
