// Package catalog holds the data about materials that ships with Mallow.
package catalog

import (
	"bytes"
	"embed"
	"encoding/json"
	"fmt"
	"sync"

	"mallow/core/job"
	"mallow/core/materials"
)

//go:embed data/*.json
var files embed.FS

// Load reads and checks the catalogue. It fails only if the shipped data is
// wrong, which the tests and every start would show.
var Load = sync.OnceValues(func() (materials.Catalog, error) {
	var c materials.Catalog
	recipes := map[string]struct {
		Parts []job.Part
		Steps []string
	}{}
	for name, into := range map[string]any{
		"bags": &c.Bags, "gravel": &c.Gravel, "posts": &c.Posts, "usual": &c.Usual,
		"strings": &c.Strings, "services": &c.Services, "systems": &c.Systems,
		"soils": &c.Soils, "supply": &c.Supply,
		"recipes": &recipes, "hardware": &c.Hardware, "makes": &c.Makes, "passage": &c.Passage, "pouring": &c.Pouring, "work": &c.Work,
	} {
		raw, err := files.ReadFile("data/" + name + ".json")
		if err != nil {
			return c, err
		}
		dec := json.NewDecoder(bytes.NewReader(raw))
		dec.DisallowUnknownFields()
		if err := dec.Decode(into); err != nil {
			return c, fmt.Errorf("catalogue file %s: %w", name, err)
		}
	}
	for i := range c.Systems {
		s := &c.Systems[i]
		s.Parts, s.Steps = recipes[s.ID].Parts, recipes[s.ID].Steps
	}
	return c, c.Validate()
})
