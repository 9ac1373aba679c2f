package walk

import (
	"slices"

	"mallow/core/finding"
	"mallow/core/job"
	"mallow/core/materials"
	"mallow/core/reason"
	"mallow/core/stage"
)

// Clearance is what must be settled before anything is dug. It never keeps
// anyone from looking; it is printed on what goes to site.
type Clearance struct {
	Ready  bool    `json:"ready" jsonschema:"required"`
	Checks []Check `json:"checks" jsonschema:"required"`
}

// Check is one thing to settle.
type Check struct {
	ID   string      `json:"id" jsonschema:"required,enum=services,enum=private,enum=boundary,enum=permit,enum=code,enum=neighbour"`
	Name string      `json:"name" jsonschema:"required"`
	Done bool        `json:"done" jsonschema:"required"`
	Says reason.Text `json:"says" jsonschema:"required" jsonschema_description:"How it stands, and what to do."`
}

func ClearanceOf(j job.Job) Clearance {
	b := j.Site.Before
	c := Clearance{Ready: true}
	add := func(id, name string, done bool, yes, no reason.Text) {
		says := no
		if done {
			says = yes
		}
		c.Ready = c.Ready && done
		c.Checks = append(c.Checks, Check{id, name, done, says})
	}
	waiting := reason.Say("Ask the locating office; it takes some working days. Dig nothing before the marks are down.")
	if b.Ticket != nil {
		waiting = reason.Say("Asked on ", b.Ticket.Asked, ", ticket ", b.Ticket.Number, ". The marks must be down by ", b.Ticket.Clear, ".")
	}
	marked := reason.Say("Located and marked.")
	if b.Ticket != nil && b.Ticket.Marked {
		marked = reason.Say("Marked, ticket ", b.Ticket.Number, ". Keep the marks alive; they fade and get mown.")
	}
	add("services", "Public services located", b.Services, marked, waiting)
	add("private", "Private lines found", b.Private, reason.Say("Found, or there are none."),
		reason.Say("Irrigation, septic, a gas line to a patio: the owner's to find. The office does not mark them."))
	add("boundary", "Boundary proved", b.Boundary, reason.Say("Pegs found, or a surveyor's line."),
		reason.Say("Find the pegs or ask a surveyor. A fence on the wrong side is taken down."))
	permits := map[job.Permit]string{job.PermitApplied: "Applied for; not granted yet.", job.PermitGranted: "Granted.", job.PermitNotNeeded: "Not needed here."}
	permit := permits[b.Permit]
	if permit == "" {
		permit = "Ask the local office whether one is needed."
	}
	add("permit", "Permit", b.Permit == job.PermitGranted || b.Permit == job.PermitNotNeeded, reason.Say(permit), reason.Say(permit))
	read := reason.Say("Read.")
	if b.MaxHeight != nil {
		read = reason.Say("Read: at most ", *b.MaxHeight, " high.")
	}
	add("code", "Local code read", b.Code, read, reason.Say("Height limits, frost depth, sight lines at a drive, pool rules where water is near."))
	add("neighbour", "Face settled", b.Neighbour, reason.Say("Settled with the neighbour."),
		reason.Say("Which face looks outward? Usual courtesy: the good face to the neighbour."))
	return c
}

// siteFindings are what the site as a whole still needs or does not allow.
func SiteFindings(j job.Job, cat materials.Catalog, runs []*stage.Run) []stage.Found {
	var out []stage.Found
	find := func(f finding.Finding, ways ...func(*stage.Advising) []finding.Remedy) {
		one := stage.Found{Finding: f}
		if len(ways) > 0 {
			one.Ways = ways[0]
		}
		out = append(out, one)
	}
	switch {
	case j.Site.FrostDepth == nil && j.Site.Frost != nil && len(runs) > 0:
		if depth, _ := runs[0].Frost(); depth != nil {
			find(finding.Finding{Rule: codeFrostEstimate, Stage: finding.Dig, Severity: finding.Check, Field: "/site/frostDepth",
				Says: reason.Say("The frost depth, ", *depth, ", is an estimate. Ask the local building office for its figure, which goes before it.")})
		}
	case j.Site.FrostDepth == nil:
		find(finding.Finding{Rule: codeFrostMissing, Stage: finding.Walk, Severity: finding.Missing, Field: "/site/frostDepth",
			Says: reason.Say("How deep does the frost go? The local building office knows. Until then the holes follow the other rules.")})
	}
	for _, id := range soilsOf(j) {
		if _, known := cat.Soil(id); !known && id != "" {
			find(finding.Finding{Rule: codeSoilUnknown, Stage: finding.Dig, Severity: finding.Check,
				Says: reason.Say("There is no soil called ", id, " in the catalogue: it is taken as the weakest.")}, stage.OneWay(reason.Say("Forget it"), forgetSoil(j, id)...))
		}
	}
	most := j.Site.Before.MaxHeight
	if most == nil {
		return out
	}
	for l, line := range j.Lines {
		for r, run := range line.Runs {
			if run.Fence.Height > *most {
				find(finding.Finding{Rule: codeTooHigh, Stage: finding.Grade, Severity: finding.Cannot, Place: finding.Place{Run: run.ID},
					Says: reason.Say("The fence is ", run.Fence.Height, " high; the code, as it was read, allows ", *most, ". The local office decides.")},
					stage.OneWay(reason.Say("A fence ", *most, " high"), job.Set(stage.RunPath(l, r)+"/fence/height", *most)))
			}
		}
	}
	return out
}

// soilsOf are the soils that a job names, each once.
func soilsOf(j job.Job) []string {
	out := []string{j.Site.Soil}
	for _, line := range j.Lines {
		for _, run := range line.Runs {
			if !slices.Contains(out, run.Soil) {
				out = append(out, run.Soil)
			}
		}
	}
	return out
}

func forgetSoil(j job.Job, id string) []job.Edit {
	var out []job.Edit
	if j.Site.Soil == id {
		out = append(out, job.Set("/site/soil", nil))
	}
	for l, line := range j.Lines {
		for r, run := range line.Runs {
			if run.Soil == id {
				out = append(out, job.Set(stage.RunPath(l, r)+"/soil", nil))
			}
		}
	}
	return out
}
