package materials

import (
	"errors"
	"fmt"
	"math"
	"slices"

	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/reason"
)

// Pouring is how concrete is poured: its mixes, how fast posts are set, and how strong
// it must be before it is loaded.
type Pouring struct {
	Mixes  []PourMix                       `json:"mixes" jsonschema:"required"`
	Rates  []PourRate                      `json:"rates" jsonschema:"required" jsonschema_description:"Of each way to set a post that takes concrete or tamping."`
	Waits  []PourWait                      `json:"waits" jsonschema:"required" jsonschema_description:"What may load a post, the earliest first."`
	Trucks map[length.System]length.Volume `json:"trucks" jsonschema:"required" jsonschema_description:"Most that a truck brings."`
	Mixing float64                         `json:"mixing" jsonschema:"required" jsonschema_description:"Minutes of one person to mix a bag of 25 kg."`
	Water  float64                         `json:"water" jsonschema:"required" jsonschema_description:"Litres of water to a kilogram of dry bag mix."`
	Fast   float64                         `json:"fast" jsonschema:"required" jsonschema_description:"The same of fast-setting mix, poured into the hole."`
	Pallet length.Mass                     `json:"pallet" jsonschema:"required" jsonschema_description:"Of bags on one pallet."`
	Slump  map[job.Method]Slump            `json:"slump" jsonschema:"required" jsonschema_description:"That a truck is ordered with."`
	Curb   PourCurb                        `json:"curb" jsonschema:"required" jsonschema_description:"How a mowing curb is formed and poured."`
	Source reason.Source                   `json:"source" jsonschema:"required"`
}

// PourCurb is how a mowing curb is formed, poured and finished.
type PourCurb struct {
	Place  float64                         `json:"place" jsonschema:"required" jsonschema_description:"Minutes of one person to place and screed a meter."`
	Most   int                             `json:"most" jsonschema:"required" jsonschema_description:"More hands than this do not make it faster."`
	Boards map[length.System]length.Length `json:"boards" jsonschema:"required" jsonschema_description:"Length of a form board."`
	Stakes map[length.System]length.Length `json:"stakes" jsonschema:"required" jsonschema_description:"From stake to stake, on each side."`
	Gap    map[length.System]length.Length `json:"gap" jsonschema:"required" jsonschema_description:"Least gap from its top to the fence's bottom."`
	Beside map[length.System]length.Length `json:"beside" jsonschema:"required" jsonschema_description:"Least concrete beside a post."`
	Source reason.Source                   `json:"source" jsonschema:"required"`
}

func (c PourCurb) validate() error {
	if c.Place <= 0 || c.Most < 1 || c.Source.Kind == "" {
		return errCurb
	}
	for _, sys := range []length.System{length.Imperial, length.Metric} {
		if c.Boards[sys] <= 0 || c.Stakes[sys] <= 0 || c.Gap[sys] <= 0 || c.Beside[sys] <= 0 {
			return errCurb
		}
	}
	return nil
}

var errCurb = errors.New("curb")

// Slump is how wet concrete is ordered.
type Slump struct {
	Least length.Length `json:"least" jsonschema:"required"`
	Most  length.Length `json:"most" jsonschema:"required"`
}

// PourMix is one kind of concrete.
type PourMix struct {
	ID    string     `json:"id" jsonschema:"required"`
	Name  string     `json:"name" jsonschema:"required"`
	By    job.PourBy `json:"by,omitempty" jsonschema:"enum=truck,enum=bags,enum=site" jsonschema_description:"Left out: what the way of setting asks for."`
	Works float64    `json:"works" jsonschema:"required" jsonschema_description:"Minutes from batching that it can be worked at 20 °C, out of sun and wind."`
	Ends  float64    `json:"ends,omitempty" jsonschema_description:"Minutes from batching after which it is not placed, however cool it is; 0 for none."`
	Speed float64    `json:"speed" jsonschema:"required" jsonschema_description:"How fast it gains strength: 1 is ordinary cement."`
	Says  string     `json:"says" jsonschema:"required"`

	Source reason.Source `json:"source" jsonschema:"required"`
}

// PourRate is how long one person takes to set one post.
type PourRate struct {
	Method job.Method `json:"method" jsonschema:"required"`
	Place  float64    `json:"place" jsonschema:"required" jsonschema_description:"Minutes of one person with the concrete: fill, stab or prod, plumb."`
	Least  int        `json:"least" jsonschema:"required" jsonschema_description:"Fewest hands that can do it."`
	Most   int        `json:"most" jsonschema:"required" jsonschema_description:"More hands than this do not make it faster."`
}

// PourWait is what may load a post once its concrete is so strong.
type PourWait struct {
	ID    string     `json:"id" jsonschema:"required"`
	Name  string     `json:"name" jsonschema:"required"`
	Share float64    `json:"share" jsonschema:"required" jsonschema_description:"Of the strength of 28 days."`
	Warm  [2]float64 `json:"warm" jsonschema:"required" jsonschema_description:"Hours that crews commonly wait above 15 °C (60 °F), from and to."`
	Cool  [2]float64 `json:"cool" jsonschema:"required" jsonschema_description:"The same below."`
}

// fastest is the shortest wait, in hours, whatever sets how fast: as bags of mix that
// sets fast say it.
const fastest = 4

// Sooner are hours of waiting for ordinary cement, with a mix that gains strength so many
// times as fast.
func Sooner(hours [2]float64, speed float64) [2]float64 {
	if speed <= 1 {
		return hours
	}
	return [2]float64{max(fastest, math.Ceil(hours[0]/speed)), max(fastest, math.Ceil(hours[1]/speed))}
}

// PourRate finds how fast posts are set in a way.
func (c Catalog) PourRate(m job.Method) (PourRate, bool) {
	k := slices.IndexFunc(c.Pouring.Rates, func(r PourRate) bool { return r.Method == m })
	if k < 0 {
		return PourRate{}, false
	}
	return c.Pouring.Rates[k], true
}

// MixFor is the concrete that posts of a way of setting are set in.
func (c Catalog) MixFor(m job.Method, by job.PourBy) PourMix {
	if m == job.FastDry {
		by = ""
	}
	k := slices.IndexFunc(c.Pouring.Mixes, func(x PourMix) bool { return x.By == by })
	return c.Pouring.Mixes[max(0, k)]
}

var errPouring = errors.New("mixes, rates and waits")

func (p Pouring) validate() error {
	if len(p.Mixes) == 0 || len(p.Rates) == 0 || len(p.Waits) == 0 || p.Mixing <= 0 || p.Water <= 0 || p.Fast <= 0 || p.Pallet <= 0 {
		return errPouring
	}
	for _, m := range p.Mixes {
		if m.ID == "" || m.Name == "" || m.Says == "" || m.Works <= 0 || m.Speed <= 0 || m.Source.Kind == "" {
			return fmt.Errorf("mix %q", m.ID)
		}
	}
	for _, r := range p.Rates {
		if r.Method.Told().Name == "" || r.Place <= 0 || r.Least < 1 || r.Most < r.Least {
			return fmt.Errorf("rate of %q", r.Method)
		}
	}
	last := 0.0
	for _, w := range p.Waits {
		if w.ID == "" || w.Name == "" || w.Share <= last || w.Share >= 1 || w.Warm[1] < w.Warm[0] || w.Cool[0] < w.Warm[0] {
			return fmt.Errorf("wait %q", w.ID)
		}
		last = w.Share
	}
	for _, sys := range []length.System{length.Imperial, length.Metric} {
		if p.Trucks[sys] <= 0 {
			return fmt.Errorf("truck of %s", sys)
		}
	}
	return p.Curb.validate()
}
