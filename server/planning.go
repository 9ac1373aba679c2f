package server

import (
	"errors"
	"slices"
	"strings"

	"github.com/gofiber/fiber/v3"

	"mallow/core/choice"
	"mallow/core/document"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/paper"
)

// waysOut is an error of a document with the ways out of it.
type waysOut struct {
	error
	ways []document.Mend
}

func (w waysOut) Unwrap() error { return w.error }

// tape reads an entry while it is being typed, so that the notation has one
// reader. What is not understood is an answer too, not a failure.
func (s *Server) tape(c fiber.Ctx) error {
	sys := length.Imperial
	if c.Query("system") == string(length.Metric) {
		sys = length.Metric
	}
	text := c.Query("text")
	r, err := length.ReadAs(text, sys, job.EntryOf(c.Query("field")))
	var not *length.ParseError
	switch {
	case errors.As(err, &not):
		return c.JSON(Reading{Others: []OtherReading{}, Part: not.Part, Why: not.Why})
	case err != nil:
		return err
	}
	out := Reading{OK: true, Length: r.Length, Bare: r.Bare, System: r.System, Others: []OtherReading{}}
	for _, o := range r.Others {
		out.Others = append(out.Others, OtherReading{strings.TrimSpace(text) + " " + o.Unit, o.Length})
	}
	return c.JSON(out)
}

func (s *Server) catalogue(c fiber.Ctx) error {
	out := Catalogue{Bags: s.Catalog.Bags, Posts: s.Catalog.Posts, Strings: s.Catalog.Strings, Services: s.Catalog.Services, Systems: s.Catalog.Systems, Soils: s.Catalog.Soils, Supply: s.Catalog.Supply, Hardware: s.Catalog.Hardware, Makes: s.Catalog.Makes, Runs: map[string]job.Run{}, Gates: map[string]job.Gate{}, Marks: map[string][]float64{}, Ways: map[string]map[string]job.Spacing{}, Choices: choice.Fields, Rules: choice.Rules, Sights: job.Sights}
	soil, _ := s.Catalog.Soil("")
	out.Site, out.Book = job.Site{Soil: soil.ID}.Filled(), job.Book{Rows: []job.Reading{}}.Filled()
	for _, m := range job.SettingMethods {
		out.Methods = append(out.Methods, MethodChoice{m.Method, m.Name, m.Done, m.Costs, slices.Contains(job.HoleMethods, m.Method)})
	}
	for _, k := range paper.Kinds {
		out.Sheets = append(out.Sheets, SheetKind{k.ID, k.Name, k.Stage, k.Of})
	}
	for _, sys := range []length.System{length.Imperial, length.Metric} {
		out.Runs[string(sys)] = s.Catalog.UsualRun(sys).Filled(length.Usual(sys))
		out.Gates[string(sys)] = s.Catalog.UsualGate(sys).Filled()
		ways := map[string]job.Spacing{}
		for _, way := range choice.Fields["spacing/way"] {
			if s, ok := s.Catalog.SpacingBy(job.Way(way.Value), sys); ok {
				ways[way.Value] = s
			}
		}
		out.Ways[string(sys)] = ways
		for _, m := range length.Marks(sys) {
			out.Marks[string(sys)] = append(out.Marks[string(sys)], float64(m))
		}
	}
	return c.JSON(out)
}
