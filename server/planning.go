package server

import (
	"slices"

	"github.com/gofiber/fiber/v3"

	"mallow/core/choice"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/paper"
)

func (s *Server) catalogue(c fiber.Ctx) error {
	out := Catalogue{Bags: s.Catalog.Bags, Posts: s.Catalog.Posts, Strings: s.Catalog.Strings, Services: s.Catalog.Services, Systems: slices.Clone(s.Catalog.Systems), Soils: s.Catalog.Soils, Supply: s.Catalog.Supply, Hardware: s.Catalog.Hardware, Makes: slices.Clone(s.Catalog.Makes), Runs: map[string]job.Run{}, Gates: map[string]job.Gate{}, Marks: map[string][]float64{}, Ways: map[string]map[string]job.Spacing{}, Tolerances: map[string]job.Tolerances{}, Choices: choice.Fields, Rules: choice.Rules, Sights: job.Sights, Todo: choice.Ways}
	for i := range out.Systems { // their parts are told of a run, where they are built
		out.Systems[i].Parts, out.Systems[i].Steps = nil, nil
	}
	for i := range out.Makes {
		out.Makes[i].Parts = nil
	}
	soil, _ := s.Catalog.Soil("")
	out.Site, out.Book = job.Site{Soil: soil.ID}.Filled(), job.Book{Rows: []job.Reading{}}.Filled()
	for _, m := range job.SettingMethods {
		out.Methods = append(out.Methods, MethodChoice{m.Method, m.Name, m.Done, m.Costs, slices.Contains(job.HoleMethods, m.Method)})
	}
	for _, k := range paper.Kinds {
		out.Sheets = append(out.Sheets, SheetKind{k.ID, k.Name(), k.Stage, k.Of})
	}
	for _, set := range paper.Sets {
		out.Sets = append(out.Sets, SheetSet{set.ID, set.Name(), set.Says(), set.Kinds})
	}
	for _, item := range (job.Offer{}).Scopes() {
		out.Offers = append(out.Offers, choice.Choice{Value: item.ID, Name: item.Name()})
	}
	for _, sys := range []length.System{length.Imperial, length.Metric} {
		out.Runs[string(sys)] = s.Catalog.UsualRun(sys).Filled(length.Usual(sys))
		out.Tolerances[string(sys)] = s.Catalog.Usual[sys].Tolerances
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
