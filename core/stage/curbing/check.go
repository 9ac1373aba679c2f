package curbing

import (
	"mallow/core/finding"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/reason"
	"mallow/core/stage"
	"mallow/core/stage/build"
	"mallow/core/words"
)

// What a curb finds, by its code in the plan document.
const (
	codeRail   = "curb-rail"
	codeBeside = "curb-beside"
	codeCorner = "curb-corner"
)

// Findings are what a curb finds: what each means, how bad it can be, and from what on
// it is said.
var Findings = []finding.Kind{
	{Rule: codeRail, Costs: finding.Rework, Stage: finding.Pour, Severities: []finding.Severity{finding.Check}, Means: "The fence comes so near the mowing curb that it stands wet, or is in the trowel's way.", Threshold: "pouring.curb.gap"},
	{Rule: codeBeside, Costs: finding.Rework, Stage: finding.Pour, Severities: []finding.Severity{finding.Check}, Means: "So little concrete stands beside a post that the mowing curb breaks there.", Threshold: "pouring.curb.beside"},
	{Rule: codeCorner, Costs: finding.Rework, Stage: finding.Pour, Severities: []finding.Severity{finding.Check}, Means: "A corner is too sharp for a mitered curb.", Threshold: "curb.sharpest"},
}

// Check says where fence, posts and corners do not go with the curb.
func (c *CurbPlan) Check(b *build.Build, ch *stage.Checking) {
	if c == nil {
		return
	}
	sys := b.Job.Units.System
	if least := b.Cat.Pouring.Curb.Gap[sys]; c.LeastAt != "" && c.Least < least-length.Tolerance {
		ch.Find(finding.Finding{Rule: codeRail, Severity: finding.Check, Stage: finding.Pour, Place: finding.Place{Bay: c.LeastAt}, Field: b.Path + "/curb/above",
			Says: words.Say("curb.rail", words.V{"bay": c.LeastAt, "gap": c.Least, "least": least})}, func(*stage.Advising) []finding.Remedy { return c.clear(b, least) })
	}
	if least := b.Cat.Pouring.Curb.Beside[sys]; c.BesideAt != "" && c.Beside < least-length.Tolerance {
		wide := c.Width + 2*(least-c.Beside)
		ch.Find(finding.Finding{Rule: codeBeside, Severity: finding.Check, Stage: finding.Pour, Place: finding.Place{Post: c.BesideAt}, Field: b.Path + "/curb/width",
			Says: words.Say("curb.beside", words.V{"post": c.BesideAt, "beside": max(0, c.Beside), "least": least})}, func(*stage.Advising) []finding.Remedy {
			ways := []finding.Remedy{{Says: words.Say("curb.wider", words.V{"width": up(b, wide)}), Edits: []job.Edit{job.Set(b.Path+"/curb/width", up(b, wide))}}}
			if c.Beside+c.Off.Abs() >= least {
				ways = append([]finding.Remedy{{Says: words.Say("curb.centered"), Edits: []job.Edit{job.Set(b.Path+"/curb/off", nil)}}}, ways...)
			}
			return ways
		})
	}
	for k, post := range []int{0, len(b.Posts) - 1} {
		if c.square[k] && b.Posts[post].Shared == "" {
			ch.Find(finding.Finding{Rule: codeCorner, Severity: finding.Check, Stage: finding.Pour, Place: finding.Place{Post: b.Posts[post].Label},
				Says: words.Say("curb.corner", words.V{"post": b.Posts[post].Label})})
		}
	}
}

// up is a length that a tape has, no shorter.
func up(b *build.Build, l length.Length) length.Length {
	if r := b.Job.Units.Round(l); r >= l-length.Tolerance {
		return r
	}
	return b.Job.Units.Round(l + b.Job.Units.SmallestMark/2)
}

// clear are the ways to a gap between the curb and the fence: a lower top, or a fence
// that keeps more from the ground.
func (c *CurbPlan) clear(b *build.Build, least length.Length) []finding.Remedy {
	var ways []finding.Remedy
	short := least - c.Least
	if lower := c.Above - short; lower >= 0 {
		to := b.Job.Units.Round(lower - b.Job.Units.SmallestMark/2)
		ways = append(ways, finding.Remedy{Says: lowered(max(0, to)), Edits: []job.Edit{job.Set(b.Path+"/curb/above", max(0, to))}})
	}
	gap, most := up(b, b.Spec.Fence.GapLeast+short), b.Spec.Fence.GapMost
	edits := []job.Edit{job.Set(b.Path+"/fence/gapLeast", gap)}
	if most < gap {
		edits = append([]job.Edit{job.Set(b.Path+"/fence/gapMost", gap)}, edits...)
	}
	return append(ways, finding.Remedy{Says: words.Say("curb.lift", words.V{"gap": gap}), Edits: edits})
}

func lowered(to length.Length) reason.Text {
	if to == 0 {
		return words.Say("curb.flush")
	}
	return words.Say("curb.lower", words.V{"above": to})
}
