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
		"a bag twice":             func(c *materials.Catalog) { c.Bags = append(c.Bags, c.Bags[0]) },
		"a bag without a yield":   func(c *materials.Catalog) { c.Bags[0].Yield = 0 },
		"a yield in feet":         func(c *materials.Catalog) { c.Bags[0].Yield = 0.6 },
		"a bag without a source":  func(c *materials.Catalog) { c.Bags[0].Source.Kind = "" },
		"gravel as light as wood": func(c *materials.Catalog) { c.Gravel.Density = 500 },
		"a hollow post, no wall":  func(c *materials.Catalog) { c.Posts[0].Hollow = true },
		"no metric values":        func(c *materials.Catalog) { delete(c.Usual, length.Metric) },
		"an unknown usual bag": func(c *materials.Catalog) {
			u := c.Usual[length.Metric]
			u.Run.Setting.Bag = "sack"
			c.Usual[length.Metric] = u
		},
	} {
		c := load(t)
		c.Bags = append([]materials.Bag(nil), c.Bags...)
		c.Posts = append([]materials.PostSize(nil), c.Posts...)
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

func load(t *testing.T) materials.Catalog {
	t.Helper()
	c, err := catalog.Load()
	if err != nil {
		t.Fatal(err)
	}
	return c
}
