package materials

import (
	"errors"
	"fmt"
	"slices"

	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/reason"
)

// Hardware is a set of hinges and latch with the room that it takes.
type Hardware struct {
	Name   string        `json:"name" jsonschema:"required"`
	Says   string        `json:"says" jsonschema:"required"`
	System length.System `json:"system" jsonschema:"required,enum=imperial,enum=metric"`
	Takes  job.Hardware  `json:"takes" jsonschema:"required"`
	Posts  []HungOn      `json:"posts" jsonschema:"required" jsonschema_description:"Posts that it goes on: solid ones, hollow square ones (square), hollow round ones (round)."`
	Most   length.Mass   `json:"most" jsonschema:"required" jsonschema_description:"Heaviest leaf that it is for, kilograms."`
	Source reason.Source `json:"source" jsonschema:"required"`
}

// HungOn is a kind of post that hinges go on.
type HungOn string

// Posts, as a hinge sees them.
const (
	OnSolid  HungOn = "solid"
	OnSquare HungOn = "square" // hollow
	OnRound  HungOn = "round"  // hollow: pipe
)

// Hinge is how hinges see a post.
func Hinge(p job.Post) HungOn {
	switch {
	case !p.Hollow:
		return OnSolid
	case p.Shape == job.RoundPost:
		return OnRound
	}
	return OnSquare
}

// Goes tells whether the hardware goes on a post.
func (h Hardware) Goes(p job.Post) bool { return slices.Contains(h.Posts, Hinge(p)) }

// HardwareFor is the usual hardware of a system for a post: the one that is
// given, or the first of the catalogue that goes on it.
func (c Catalog) HardwareFor(p job.Post, usual job.Hardware) job.Hardware {
	own, ok := c.HardwareOf(usual.Kind)
	if !ok || own.Goes(p) {
		return usual
	}
	for _, h := range c.Hardware {
		if h.System == own.System && h.Goes(p) {
			return h.Takes
		}
	}
	return usual
}

// Brace is what keeps a leaf from sagging.
type Brace string

// Ways to brace a leaf.
const (
	Strut    Brace = "strut"    // timber pressed together: from the hinge end's foot up to the latch end's head
	Tie      Brace = "tie"      // wire or rod pulled: from the hinge end's head down to the latch end's foot
	Unbraced Brace = "unbraced" // a frame stiff in itself
)

// Make is a way that a gate leaf is made.
type Make struct {
	ID     string                       `json:"id" jsonschema:"required"`
	Name   string                       `json:"name" jsonschema:"required"`
	Area   float64                      `json:"area" jsonschema:"required" jsonschema_description:"Kilograms for each square metre of face."`
	Metre  float64                      `json:"metre" jsonschema:"required" jsonschema_description:"Kilograms for each metre of frame, round the edge and along the brace."`
	Brace  Brace                        `json:"brace" jsonschema:"required,enum=strut,enum=tie,enum=unbraced"`
	Parts  map[length.System][]job.Part `json:"parts,omitempty" jsonschema_description:"What a leaf is made of and hung with, in each unit system."`
	Source reason.Source                `json:"source" jsonschema:"required"`
}

// Passage is what is usual of gates and those who use them.
type Passage struct {
	Clear     length.Length `json:"clear" jsonschema:"required" jsonschema_description:"Least clear way for machinery whose width is not known."`
	Beside    length.Length `json:"beside" jsonschema:"required" jsonschema_description:"Room on either side of a vehicle."`
	LiftMost  length.Length `json:"liftMost" jsonschema:"required" jsonschema_description:"Most that rising hinges lift a leaf until it is square open."`
	Third     length.Length `json:"third" jsonschema:"required" jsonschema_description:"Height of leaf from which a third hinge is usual."`
	Share     float64       `json:"share" jsonschema:"required" jsonschema_description:"Share of the footing's limit that a leaf's weight should not pass."`
	Heavy     length.Mass   `json:"heavy" jsonschema:"required" jsonschema_description:"Mass of leaf from which a post is left a week before it is hung."`
	PoolLatch length.Length `json:"poolLatch" jsonschema:"required" jsonschema_description:"Latch height in a pool barrier, above the ground."`
	PoolGap   length.Length `json:"poolGap" jsonschema:"required" jsonschema_description:"Most gap under a gate in a pool barrier."`
	Creeping  length.Length `json:"creeping" jsonschema:"required" jsonschema_description:"Most gap under a gate that small animals are kept behind."`
	Source    reason.Source `json:"source" jsonschema:"required"`
	Pool      reason.Source `json:"pool" jsonschema:"required"`
}

// HardwareOf finds a set of hinges and latch by its name in the catalogue.
func (c Catalog) HardwareOf(id string) (Hardware, bool) {
	for _, h := range c.Hardware {
		if h.Takes.Kind == id {
			return h, true
		}
	}
	return Hardware{}, false
}

// Make finds a way that leaves are made by its name in the catalogue.
func (c Catalog) Make(id string) (Make, bool) {
	for _, m := range c.Makes {
		if m.ID == id {
			return m, true
		}
	}
	return Make{}, false
}

func (c Catalog) validateGates() error {
	seen := map[string]bool{}
	for _, h := range c.Hardware {
		t := h.Takes
		if t.Kind == "" || seen[t.Kind] || t.Hinge < 0 || t.Latch < 0 || t.Meeting < 0 || t.Pin > t.Hinge || t.Pitch < 0 || h.Most <= 0 || len(h.Posts) == 0 || h.Source.Kind == "" {
			return fmt.Errorf("hardware %q: id, gaps, pin, pitch, most or source is wrong", t.Kind)
		}
		seen[t.Kind] = true
	}
	for _, m := range c.Makes {
		if m.ID == "" || seen[m.ID] || m.Area < 0 || m.Metre < 0 || m.Area+m.Metre <= 0 || m.Brace == "" || m.Source.Kind == "" {
			return fmt.Errorf("leaf %q: id, weights, brace or source is wrong", m.ID)
		}
		seen[m.ID] = true
	}
	for _, s := range []length.System{length.Imperial, length.Metric} {
		if h, ok := c.HardwareOf(c.Usual[s].Gate.Hardware.Kind); !ok || h.Takes != c.Usual[s].Gate.Hardware {
			return fmt.Errorf("usual %s gate: its hardware is not the catalogue's", s)
		}
	}
	if p := c.Passage; p.Clear <= 0 || p.Beside <= 0 || p.LiftMost <= 0 || p.Third <= 0 || p.Share <= 0 || p.Heavy <= 0 || p.PoolLatch <= 0 || p.PoolGap <= 0 || p.Creeping <= 0 || p.Source.Kind == "" || p.Pool.Kind == "" {
		return errors.New("passage: a figure or a source is missing")
	}
	return nil
}
