package catalog_test

import (
	"math"
	"testing"

	"mallow/catalog"
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
			u.Run.Setting.Bag = "sack"
			c.Usual[length.Metric] = u
		},
	} {
		c := load(t)
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

func load(t *testing.T) materials.Catalog {
	t.Helper()
	c, err := catalog.Load()
	if err != nil {
		t.Fatal(err)
	}
	return c
}
