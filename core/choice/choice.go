// Package choice names what a job's fields can be: the values of those that are
// chosen from a few, each with what it costs, and the rules for holes, each
// with how it is entered. The interface, the reasons and the catalogue read
// these tables and no other.
package choice

import (
	"mallow/core/job"
	"mallow/core/words"
)

// Choice is one value of a field.
type Choice struct {
	Value string `json:"value" jsonschema:"required"`
	Name  string `json:"name" jsonschema:"required"`
	Costs string `json:"costs,omitempty" jsonschema_description:"What it gives and costs."`
}

// of names values by a family of messages: choice.way-equal, and
// choice.way-equal-costs where it costs something.
func of[T ~string](family string, values ...T) []Choice {
	out := make([]Choice, len(values))
	for i, v := range values {
		id := family + words.Key(v)
		out[i] = Choice{Value: string(v), Name: words.Plain(id)}
		if words.Has(id + "-costs") {
			out[i].Costs = words.Plain(id + "-costs")
		}
	}
	return out
}

// methods are the ways to set a post in a hole, by their own table.
func methods() []Choice {
	out := make([]Choice, len(job.HoleMethods))
	for i, m := range job.HoleMethods {
		out[i] = Choice{Value: string(m), Name: m.Told().Name, Costs: m.Told().Costs}
	}
	return out
}

// Fields are the choices of each field, by its place in what holds it: a run,
// a gate, a page of the field book, the site, the rules for holes.
var Fields = map[string][]Choice{
	"spacing/way":       of("choice.way-", job.EqualBays, job.PanelsBetween, job.PanelsOnFaces, job.FixedModule, job.StockRails, job.OverlapRails),
	"spacing/remainder": of("choice.remainder-", job.RemainderLast, job.RemainderFirst, job.RemainderAway, job.RemainderShared, job.RemainderInAll),
	"spacing/turning":   of("choice.turning-", job.Meeting, job.Overlapping),
	"spacing/face":      of("choice.panel-face-", job.Left, job.Right),
	"spacing/ends":      of("choice.free-end-", job.MiddleOfPost, job.WholePost),
	"grade/look":        of("choice.look-", job.Looks...),
	"grade/steps":       of("choice.steps-", job.LeastGap, job.EvenSteps, job.Gradual, job.RoundStep),
	"grade/give":        of("choice.give-", job.Fill, job.Cut, job.Both),
	"grade/across":      of("choice.across-", job.FlatAcross, job.GoesOn),
	"grade/infill":      of("choice.infill-", job.EarthInfill, job.GravelBoards, job.CutBoards),
	"grade/by":          of("choice.tops-", job.ByString, job.ByLaser, job.ByDrops, job.ByEye),
	"post/cut":          of("choice.cut-", job.CutAfter, job.CutFirst),
	"string/position":   of("choice.string-", job.OnFace, job.JustOff, job.StandOff, job.BySight),
	"string/face":       of("choice.side-", job.Left, job.Right),
	"string/ends":       of("choice.tied-", job.Boards, job.Stakes),
	"taped":             of("choice.taped-", job.TapedLevel, job.TapedSlope),

	"gates/use":   of("choice.use-", job.WalkGate, job.VehicleGate),
	"gates/swing": of("choice.swing-", job.SwingIn, job.SwingOut, job.SwingBoth),

	"site/exposure":      of("choice.exposure-", job.Sheltered, job.OpenLand, job.OpenWater),
	"site/before/permit": of("choice.permit-", job.PermitUnknown, job.PermitNotNeeded, job.PermitApplied, job.PermitGranted),
	"books/allow":        of("choice.allow-", job.PerSetup, job.ThirdOrder),

	"observed/what": of("choice.seen-", job.MarkStaked, job.MarkDug, job.MarkSet, job.MarkPoured, job.MarkBuilt, job.DepthDug, job.WidthDug, job.OffPlumb, job.OffAcross, job.OffLine, job.TopMark, job.CutTo,
		job.BagsUsed, job.GravelUsed, job.SeenPipe, job.Noted, job.Decided, job.Landed, job.SeenRock, job.SeenWater, job.SeenRoot, job.Sagged, job.StruckOut),

	"hole/share":     of("choice.share-", job.NoShare, job.Quarter, job.Third, job.Half),
	"hole/shape":     of("choice.shape-", job.RoundHole, job.SquareHole),
	"hole/driven":    of("choice.driven-", job.NoneDriven, job.LineDriven, job.AllDriven),
	"setting/method": methods(),
	"setting/top":    of("choice.top-", job.CoverTop, job.CrownTop),
	"setting/inside": of("choice.inside-", job.OpenInside, job.ClosedInside, job.CoreInside),
}

// Ways are what can be decided about something that differs, by short names.
var Ways = of("choice.todo-", "on-mark", "shave", "push-back", "pack", "take", "longer", "share", "corner", "dig-on", "shallow", "tamp", "fill", "widen", "trim", "ease", "dig-again", "leave",
	"as is", "wider", "belled", "pinned", "moved")
