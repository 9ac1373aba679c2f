package begin

import (
	"mallow/core/length"
	"mallow/core/materials"
	"mallow/core/plan"
	"mallow/core/scene"
)

// FenceType is a fence type to choose from, with a small true drawing of it.
type FenceType struct {
	ID      string         `json:"id" jsonschema:"required"`
	Name    string         `json:"name" jsonschema:"required"`
	Says    string         `json:"says,omitempty"`
	Height  length.Length  `json:"height" jsonschema:"required" jsonschema_description:"The height that it usually has."`
	Assumed length.Length  `json:"assumed" jsonschema:"required" jsonschema_description:"How long a run of it is taken to be that nobody measured."`
	Gate    bool           `json:"gate,omitempty" jsonschema_description:"It is a bare gate, with no fence beside it."`
	Drawing *scene.Drawing `json:"drawing,omitempty" jsonschema_description:"Two bays of it on level ground."`
}

// How large the small drawings are, pixels, and what share of a run they show.
const (
	wide, tall = 168, 76
	sample     = 2.02 // bays
)

// Fences are the types of a catalogue in one system of units, in its order.
func Fences(sys length.System, cat materials.Catalog) []FenceType {
	out := []FenceType{}
	for i := range cat.Systems {
		s := &cat.Systems[i]
		if s.System.System != sys {
			continue
		}
		f := FenceType{ID: s.ID, Name: s.Name, Says: s.Says, Height: s.Fence.Height, Gate: s.Gate}
		f.Assumed = assumed(s.Outfit(cat.UsualRun(sys)), s.Gate, sys)
		long := length.Length(sample * float64(s.Spacing.Most))
		if s.Gate {
			long = 4 * length.Metre
		}
		if j, err := Job(Answers{System: sys, Fence: s.ID, Length: &long, Frost: new(length.Length)}, cat); err == nil {
			f.Drawing = drawn(plan.Make(j, cat))
		}
		out = append(out, f)
	}
	return out
}

// Assumed is how long a run of no type is taken to be that nobody measured.
func Assumed(sys length.System) length.Length { return assumedRun[sys] }

// drawn is a plan's run from the side without what is under the ground, and
// without words.
func drawn(p plan.Plan) *scene.Drawing {
	if len(p.Runs) == 0 || len(p.Runs[0].Posts) == 0 {
		return nil
	}
	run := &p.Runs[0]
	var high length.Length
	for i := range run.Posts {
		high = max(high, run.Posts[i].Top)
	}
	per := min((wide-8)/float64(run.Length), (tall-16)/float64(high))
	left := (wide - float64(run.Length)*per) / 2
	d, err := scene.Of(p, scene.View{Of: scene.OfElevation, Run: run.ID, Stress: "looks",
		Frame: scene.Frame{Width: wide, Height: tall, X: &scene.Axis{Zero: left, Scale: per}, Y: &scene.Axis{Zero: tall - 8, Scale: per}}}, scene.Screen)
	if err != nil {
		return nil
	}
	d.Labels = []scene.Placed{}
	return &d
}
