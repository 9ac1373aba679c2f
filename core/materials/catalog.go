// Package materials says what the core needs to know about the things that
// are bought: bags, gravel, post sizes, and the usual values of a run. The
// data itself is given to the core.
package materials

import (
	"fmt"
	"slices"

	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/reason"
)

// Bag is a bag of dry concrete.
type Bag struct {
	ID     string        `json:"id" jsonschema:"required"`
	Name   string        `json:"name" jsonschema:"required"`
	System length.System `json:"system" jsonschema:"required,enum=imperial,enum=metric"`
	Mass   length.Mass   `json:"mass" jsonschema:"required"`  // kilograms
	Yield  length.Volume `json:"yield" jsonschema:"required"` // cubic metres of concrete in place
	Source reason.Source `json:"source" jsonschema:"required"`
}

// Gravel is crushed gravel as it is bought.
type Gravel struct {
	Density float64       `json:"density"` // kilograms per loose cubic metre
	Tamping float64       `json:"tamping"` // loose volume beyond the tamped one, as a fraction
	Source  reason.Source `json:"source"`
}

// PostSize is a post that can be bought.
type PostSize struct {
	Name   string        `json:"name" jsonschema:"required"`
	System length.System `json:"system" jsonschema:"required,enum=imperial,enum=metric"`
	Shape  job.Shape     `json:"shape" jsonschema:"required,enum=square,enum=round"`
	Width  length.Length `json:"width" jsonschema:"required"`
	Hollow bool          `json:"hollow" jsonschema:"required"`
	Wall   length.Length `json:"wall" jsonschema:"required"`
	Source reason.Source `json:"source" jsonschema:"required"`
}

// String is a kind of string that posts are set to.
type String struct {
	ID       string        `json:"id" jsonschema:"required"`
	Name     string        `json:"name" jsonschema:"required"`
	Weight   float64       `json:"weight" jsonschema:"required" jsonschema_description:"Newtons for each metre."`
	Diameter length.Length `json:"diameter" jsonschema:"required"`
	Pull     float64       `json:"pull" jsonschema:"required" jsonschema_description:"Usual pull, newtons."`
	Most     float64       `json:"most" jsonschema:"required" jsonschema_description:"Pull that it stands without breaking, newtons."`
	Source   reason.Source `json:"source" jsonschema:"required"`
}

// Service is a kind of pipe or cable under ground, with the colour in which
// it is marked.
type Service struct {
	ID       string        `json:"id" jsonschema:"required"`
	Name     string        `json:"name" jsonschema:"required"`
	Colour   string        `json:"colour" jsonschema:"required" jsonschema_description:"Of its marks on the ground, in words."`
	Token    string        `json:"token" jsonschema:"required" jsonschema_description:"Name of that colour in the interface."`
	Hand     length.Length `json:"hand" jsonschema:"required" jsonschema_description:"Width either side of a mark that is dug by hand."`
	Diameter length.Length `json:"diameter" jsonschema:"required" jsonschema_description:"Usual outside diameter, where it was not measured."`
	Office   bool          `json:"office" jsonschema:"required" jsonschema_description:"Public: the locating office marks it. Others are the owner's to find."`
	Source   reason.Source `json:"source" jsonschema:"required"`
}

// System is a fence system of the catalogue.
type System struct {
	job.System
	Source reason.Source `json:"source" jsonschema:"required"`
}

// UsualJob is what a new run and a new gate start with in one system.
type UsualJob struct {
	Run     job.Run          `json:"run"`
	Gate    job.Gate         `json:"gate"`
	Hole    job.HoleRules    `json:"hole"`
	Setting job.SettingRules `json:"setting"`

	Tolerances job.Tolerances `json:"tolerances"`
}

// Catalog is all of it.
type Catalog struct {
	Bags   []Bag                      `json:"bags"`
	Gravel Gravel                     `json:"gravel"`
	Posts  []PostSize                 `json:"posts"`
	Usual  map[length.System]UsualJob `json:"usual"`

	Strings  []String  `json:"strings"`
	Services []Service `json:"services"`
	Systems  []System  `json:"systems"`

	Soils  []Soil `json:"soils"`
	Supply Supply `json:"supply"`

	Hardware []Hardware `json:"hardware"`
	Makes    []Make     `json:"makes"`
	Passage  Passage    `json:"passage"`

	Pouring Pouring `json:"pouring"`
	Work    Work    `json:"work"`
}

// System finds a fence system: one of the job's own, or one of the catalogue.
func (c Catalog) System(id string, own []job.System) (job.System, bool) {
	for i := range own {
		if own[i].ID == id {
			return own[i], true
		}
	}
	for i := range c.Systems {
		if c.Systems[i].ID == id {
			return c.Systems[i].System, true
		}
	}
	return job.System{}, false
}

// Recipe is the parts of a run: those of its fence system with its own changes. A
// user's own system without parts has those of the one that it is a copy of.
func (c Catalog) Recipe(id string, own []job.System, changes []job.Part) []job.Part {
	return slices.DeleteFunc(c.Whole(id, own, changes), func(p job.Part) bool { return p.Off })
}

// Whole is the same with the parts that are left out.
func (c Catalog) Whole(id string, own []job.System, changes []job.Part) []job.Part {
	return c.recipeOf(id, own).PartsOf(changes)
}

// Steps is the order in which a fence system is put together.
func (c Catalog) Steps(id string, own []job.System) []string { return c.recipeOf(id, own).Steps }

func (c Catalog) recipeOf(id string, own []job.System) job.System {
	s, ok := c.System(id, own)
	if ok && len(s.Parts) == 0 && s.From != "" {
		from, _ := c.System(s.From, nil)
		s.Parts, s.Steps = from.Parts, from.Steps
	}
	return s
}

// UsualRun returns the usual values of a run.
func (c Catalog) UsualRun(s length.System) job.Run { return c.Usual[s].Run }

// UsualGate returns the usual values of a gate.
func (c Catalog) UsualGate(s length.System) job.Gate { return c.Usual[s].Gate }

// UsualRules returns the usual rules for holes and what goes into them.
func (c Catalog) UsualRules(s length.System) job.Said {
	u := c.Usual[s]
	return job.Said{Tier: job.Tier{Kind: job.UsualLevel}, Hole: u.Hole, Setting: u.Setting}
}

// Tolerances are by how much the posts of a run may differ from the plan: what the run
// says, or else its fence type, or what is usual.
func (c Catalog) Tolerances(r job.Run, own []job.System, s length.System) job.Tolerances {
	t := c.Usual[s].Tolerances
	if sys, ok := c.System(r.System, own); ok {
		t = t.Over(sys.Tolerances)
	}
	return t.Over(r.Tolerances)
}

// Bag finds a bag by its name in the catalogue.
func (c Catalog) Bag(id string) (Bag, bool) {
	for _, b := range c.Bags {
		if b.ID == id {
			return b, true
		}
	}
	return Bag{}, false
}

// String finds a kind of string by its name in the catalogue.
func (c Catalog) String(id string) (String, bool) {
	for _, s := range c.Strings {
		if s.ID == id {
			return s, true
		}
	}
	return String{}, false
}

// Service finds a service by its name in the catalogue.
func (c Catalog) Service(id string) (Service, bool) {
	for _, s := range c.Services {
		if s.ID == id {
			return s, true
		}
	}
	return Service{}, false
}

// Validate returns the first thing wrong with the catalogue.
func (c Catalog) Validate() error {
	seen := map[string]bool{}
	for _, b := range c.Bags {
		switch {
		case b.ID == "" || seen[b.ID]:
			return fmt.Errorf("bag %q: id is empty or given twice", b.ID)
		case b.Mass <= 0 || b.Yield <= 0:
			return fmt.Errorf("bag %q: mass and yield must be above 0", b.ID)
		case float64(b.Mass)/float64(b.Yield) < 1500 || float64(b.Mass)/float64(b.Yield) > 2500:
			return fmt.Errorf("bag %q: %.0f kg/m³ is not concrete (1500 to 2500)", b.ID, float64(b.Mass)/float64(b.Yield))
		case b.Source.Kind == "":
			return fmt.Errorf("bag %q: has no source", b.ID)
		}
		seen[b.ID] = true
	}
	if c.Gravel.Density < 1000 || c.Gravel.Density > 2500 || c.Gravel.Tamping < 0 || c.Gravel.Tamping > 0.5 {
		return fmt.Errorf("gravel: density %g (1000 to 2500 kg/m³) or tamping %g (0 to 0.5) is out of range", c.Gravel.Density, c.Gravel.Tamping)
	}
	for _, p := range c.Posts {
		if p.Width <= 0 || p.Hollow && (p.Wall <= 0 || 2*p.Wall >= p.Width) || p.Source.Kind == "" {
			return fmt.Errorf("post %q: width, wall or source is wrong", p.Name)
		}
	}
	for _, k := range c.Strings {
		if k.ID == "" || k.Weight <= 0 || k.Diameter <= 0 || k.Pull <= 0 || k.Most < k.Pull || k.Source.Kind == "" {
			return fmt.Errorf("string %q: weight, diameter, pull, most or source is wrong", k.ID)
		}
	}
	for _, v := range c.Services {
		if v.ID == "" || v.Colour == "" || v.Token == "" || v.Hand <= 0 || v.Source.Kind == "" {
			return fmt.Errorf("service %q: colour, token, hand-dig width or source is missing", v.ID)
		}
	}
	for _, s := range []length.System{length.Imperial, length.Metric} {
		u, ok := c.Usual[s]
		if !ok {
			return fmt.Errorf("no usual values for %s jobs", s)
		}
		if t := u.Tolerances; t.Line == nil || t.Bay == nil || t.Plumb == nil || t.Depth == nil || t.Width == nil || t.Top == nil || t.Pack == nil {
			return fmt.Errorf("usual %s tolerances: one is missing", s)
		}
		if u.Setting.Bag == nil || !seen[*u.Setting.Bag] {
			return fmt.Errorf("usual %s bag is not in the catalogue", s)
		}
		if _, ok := c.String(u.Run.String.Kind); !ok {
			return fmt.Errorf("usual %s string %q is not in the catalogue", s, u.Run.String.Kind)
		}
	}
	if err := c.validateDigging(); err != nil {
		return err
	}
	if err := c.validateGates(); err != nil {
		return err
	}
	if err := c.Pouring.validate(); err != nil {
		return fmt.Errorf("pouring: %w", err)
	}
	if err := c.Work.validate(); err != nil {
		return fmt.Errorf("work: %w", err)
	}
	return c.validateSystems()
}
