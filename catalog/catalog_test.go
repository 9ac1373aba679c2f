package catalog_test

import (
	"bytes"
	"encoding/json"
	"math"
	"os"
	"strings"
	"testing"

	"github.com/santhosh-tekuri/jsonschema/v6"

	"mallow/catalog"
	"mallow/core/document"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/materials"
)

// Dressed sizes: American Softwood Lumber Standard PS 20 (published).
func TestDressedLumber(t *testing.T) {
	c := load(t)
	for name, inches := range map[string]float64{"4x4 timber": 3.5, "6x6 timber": 5.5} {
		found := false
		for _, p := range c.Posts {
			if p.Name == name {
				found = true
				if math.Abs(p.Width.Inches()-inches) > 1e-9 || p.Hollow {
					t.Errorf("%s is %v in wide", name, p.Width.Inches())
				}
			}
		}
		if !found {
			t.Errorf("no %s", name)
		}
	}
}

// Crushed gravel: about 1.4 short ton to the cubic yard, 1.6 t/m³ (common
// practice; the two differ by a thirtieth).
func TestGravelInBothSystems(t *testing.T) {
	tons := load(t).Gravel.Density * float64(length.CubicYard) / float64(length.ShortTon)
	if math.Abs(tons-1.4) > 0.06 {
		t.Errorf("%.3f short tons to the yard", tons)
	}
}

// Every way to spoil the catalogue is found at the start, not on site.
func TestValidateFindsWhatIsWrong(t *testing.T) {
	for what, spoil := range map[string]func(*materials.Catalog){
		"a bag twice":                     func(c *materials.Catalog) { c.Bags = append(c.Bags, c.Bags[0]) },
		"a bag without a yield":           func(c *materials.Catalog) { c.Bags[0].Yield = 0 },
		"a yield in feet":                 func(c *materials.Catalog) { c.Bags[0].Yield = 0.6 },
		"a bag without a source":          func(c *materials.Catalog) { c.Bags[0].Source.Kind = "" },
		"gravel as light as wood":         func(c *materials.Catalog) { c.Gravel.Density = 500 },
		"a hollow post, no wall":          func(c *materials.Catalog) { c.Posts[0].Hollow = true },
		"no metric values":                func(c *materials.Catalog) { delete(c.Usual, length.Metric) },
		"a string that weighs nothing":    func(c *materials.Catalog) { c.Strings[0].Weight = 0 },
		"a string pulled past breaking":   func(c *materials.Catalog) { c.Strings[0].Most = c.Strings[0].Pull / 2 },
		"a string without a source":       func(c *materials.Catalog) { c.Strings[0].Source.Kind = "" },
		"a service without a colour":      func(c *materials.Catalog) { c.Services[0].Token = "" },
		"a service dug beside by machine": func(c *materials.Catalog) { c.Services[0].Hand = 0 },
		"a service without a source":      func(c *materials.Catalog) { c.Services[0].Source.Kind = "" },
		"an unknown usual string": func(c *materials.Catalog) {
			u := c.Usual[length.Imperial]
			u.Run.String.Kind = "wool"
			c.Usual[length.Imperial] = u
		},
		"an unknown usual bag": func(c *materials.Catalog) {
			u := c.Usual[length.Metric]
			sack := "sack"
			u.Setting.Bag = &sack
			c.Usual[length.Metric] = u
		},
		"a usual rule that nobody says": func(c *materials.Catalog) {
			u := c.Usual[length.Metric]
			u.Hole.Floor = nil
			c.Usual[length.Metric] = u
		},
		"a soil that bears nothing":       func(c *materials.Catalog) { c.Soils[1].Bearing = 0 },
		"no soil for where it is unknown": func(c *materials.Catalog) { c.Soils = c.Soils[:2] },
		"rocks without room between":      func(c *materials.Catalog) { c.Supply.Voids = 0 },
		"a system given twice":            func(c *materials.Catalog) { c.Systems[1].ID = c.Systems[0].ID },
		"a system without a source":       func(c *materials.Catalog) { c.Systems[2].Source.Kind = "" },
		"a system that no way may set":    func(c *materials.Catalog) { c.Systems[2].Allowed = nil },
		"a way both allowed and forbidden": func(c *materials.Catalog) {
			c.Systems[0].Forbidden = []job.Forbidden{{Method: c.Systems[0].Allowed[0], Why: "no"}}
		},
		"a system with an unknown bag":       func(c *materials.Catalog) { sack := "sack"; c.Systems[3].Setting.Bag = &sack },
		"panels without a length":            func(c *materials.Catalog) { c.Systems[0].Spacing.Piece = 0 },
		"a post wider than any post":         func(c *materials.Catalog) { c.Systems[0].Post.Width = 900 },
		"a way of setting that nobody knows": func(c *materials.Catalog) { c.Systems[0].Allowed = []job.Method{"glued"} },
	} {
		c := load(t)
		c.Systems = append([]materials.System(nil), c.Systems...)
		c.Bags = append([]materials.Bag(nil), c.Bags...)
		c.Posts = append([]materials.PostSize(nil), c.Posts...)
		c.Strings = append([]materials.String(nil), c.Strings...)
		c.Services = append([]materials.Service(nil), c.Services...)
		usual := map[length.System]materials.UsualJob{}
		for s, u := range c.Usual {
			usual[s] = u
		}
		c.Usual = usual
		spoil(&c)
		if c.Validate() == nil {
			t.Errorf("%s is not found", what)
		}
	}
}

// The uniform colours of marks on the ground (from memory: the public works
// associations' color code): each has its own name in the interface.
func TestServicesHaveTheirUniformColours(t *testing.T) {
	want := map[string]string{"electric": "red", "gas": "yellow", "telecom": "orange", "water": "blue", "irrigation": "purple", "sewer": "green"}
	seen := map[string]bool{}
	for _, s := range load(t).Services {
		if want[s.ID] != s.Colour || seen[s.Token] {
			t.Errorf("%s is marked %s, want %s", s.ID, s.Colour, want[s.ID])
		}
		// Tolerance zones are 18 to 24 in by law where there is one; nothing public is less.
		if s.Office && s.Hand < 18*length.Inch-length.Tolerance {
			t.Errorf("%s is dug by hand only %v either side", s.ID, s.Hand)
		}
		seen[s.Token], want[s.ID] = true, ""
	}
}

// The systems of the handbook, and each in both unit systems where the trade
// makes it in both. Each says how its posts are set, and how not.
func TestSystemsCoverTheTrade(t *testing.T) {
	both := []string{"panel-between", "panel-on-face", "slotted-timber", "boards-on-rails", "horizontal-boards", "split-rail", "split-rail-steel",
		"chain-link", "light-mesh", "vinyl-picket", "vinyl-privacy", "metal-panel", "pool-panel", "cedar-screen", "drive-gate"}
	all := map[string]materials.System{}
	for _, s := range load(t).Systems {
		all[s.ID] = s
		if len(s.Forbidden) == 0 && s.ID != "boards-on-rails" && s.ID != "boards-on-rails-m" || len(s.Cautions) == 0 || s.Says == "" {
			t.Errorf("%s: forbids %d ways, %d cautions, says %q", s.ID, len(s.Forbidden), len(s.Cautions), s.Says)
		}
	}
	for _, id := range both {
		a, b := all[id], all[id+"-m"]
		if a.System.System != length.Imperial || b.System.System != length.Metric || a.Spacing.Way != b.Spacing.Way || a.Name != b.Name {
			t.Errorf("%s: %q in %s and %q in %s", id, a.Name, a.System.System, b.Name, b.System.System)
		}
	}
	if all["slotted-concrete-m"].ID == "" {
		t.Error("no slotted concrete posts")
	}
	// A pool barrier's gap is small; stabbing vinyl is a choice with its caution.
	if all["pool-panel"].Fence.GapMost > 2*length.Inch || all["vinyl-picket"].Mind[0].Method != job.Stabbed {
		t.Error("what protects life or material is missing")
	}
}

func load(t *testing.T) materials.Catalog {
	t.Helper()
	c, err := catalog.Load()
	if err != nil {
		t.Fatal(err)
	}
	return c
}

// The shipped systems are what the published schema says, and the schema
// finds what is not.
func TestSystemsFollowTheirSchema(t *testing.T) {
	schema, err := jsonschema.NewCompiler().Compile("../docs/systems.schema.json")
	if err != nil {
		t.Fatal(err)
	}
	raw, err := os.ReadFile("data/systems.json")
	if err != nil {
		t.Fatal(err)
	}
	data, err := jsonschema.UnmarshalJSON(bytes.NewReader(raw))
	if err != nil {
		t.Fatal(err)
	}
	if err := schema.Validate(data); err != nil {
		t.Error(err)
	}
	for from, to := range map[string]string{`"stepped"`: `"wavy"`, `"panels between"`: `"by eye"`, `"allowed"`: `"alowed"`, `"common practice"`: `"hearsay"`} {
		bad, err := jsonschema.UnmarshalJSON(strings.NewReader(strings.Replace(string(raw), from, to, 1)))
		if err != nil || schema.Validate(bad) == nil {
			t.Errorf("%s for %s passes the schema", to, from)
		}
	}
}

// Every part that ships, of fences and of gate leaves, keeps to the limits of the job
// document, which may carry a copy of it; its parts name parts that there are, and
// no name stands for two.
func TestPartsKeepToTheDocument(t *testing.T) {
	c := load(t)
	check := func(name string, sys length.System, parts []job.Part, more []job.Part) {
		t.Helper()
		long := 30 * length.Metre
		run := c.UsualRun(sys)
		run.ID, run.Length, run.Parts = "R", &long, parts
		j := job.Job{Mallow: job.Version, Name: name, Units: length.Usual(sys), Lines: []job.Line{{ID: "L", Runs: []job.Run{run}}}}
		doc, err := json.Marshal(j)
		if err != nil {
			t.Fatal(err)
		}
		if _, unknown, err := document.Decode(doc, c); err != nil || len(unknown) > 0 {
			t.Errorf("%s: %v, unknown %v", name, err, unknown)
		}
		known := map[string]bool{job.OverPosts: true, "feet": true, "gravel-board": true}
		for _, p := range append(append([]job.Part{}, more...), parts...) {
			known[p.ID] = true
		}
		for _, p := range parts {
			for _, id := range append(append([]string{}, p.Of...), p.Over...) {
				if !known[id] {
					t.Errorf("%s: %s names %s, which is no part of it", name, p.ID, id)
				}
			}
			if p.By == job.PerCrossing && len(p.Over) == 0 {
				t.Errorf("%s: %s crosses nothing", name, p.ID)
			}
		}
	}
	for _, s := range c.Systems {
		if len(s.Parts) == 0 || len(s.Steps) == 0 {
			t.Errorf("%s has no parts, or no order of work", s.ID)
		}
		check(s.ID, s.System.System, s.Parts, nil)
	}
	for _, m := range c.Makes {
		for sys, parts := range m.Parts {
			check(m.ID, sys, parts, nil)
		}
	}
}
