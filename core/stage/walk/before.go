package walk

import (
	"slices"

	"mallow/core/finding"
	"mallow/core/job"
	"mallow/core/materials"
	"mallow/core/reason"
	"mallow/core/stage"
	"mallow/core/words"
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
	waiting := words.Say("walk.ask-the-locating-office-it")
	if b.Ticket != nil {
		waiting = words.Say("walk.asked-on-ticket-the-marks", words.V{"asked": b.Ticket.Asked, "number": b.Ticket.Number, "clear": b.Ticket.Clear})
	}
	marked := words.Say("walk.located-and-marked")
	if b.Ticket != nil && b.Ticket.Marked {
		marked = words.Say("walk.marked-ticket-keep-the-marks", words.V{"number": b.Ticket.Number})
	}
	add("services", words.Plain("walk.public-services-located"), b.Services, marked, waiting)
	add("private", words.Plain("walk.private-lines-found"), b.Private, words.Say("walk.found-or-there-are-none"),
		words.Say("walk.irrigation-septic-a-gas-line"))
	add("boundary", words.Plain("walk.boundary-proved"), b.Boundary, words.Say("walk.pegs-found-or-a-surveyors"),
		words.Say("walk.find-the-pegs-or-ask"))
	permits := map[job.Permit]string{job.PermitApplied: words.Plain("walk.applied-for-not-granted-yet"), job.PermitGranted: words.Plain("walk.granted"), job.PermitNotNeeded: words.Plain("walk.not-needed-here")}
	permit := permits[b.Permit]
	if permit == "" {
		permit = words.Plain("walk.ask-the-local-office-whether")
	}
	add("permit", words.Plain("walk.permit"), b.Permit == job.PermitGranted || b.Permit == job.PermitNotNeeded, reason.Say(permit), reason.Say(permit))
	read := words.Say("walk.read")
	if b.MaxHeight != nil {
		read = words.Say("walk.read-at-most-high", words.V{"maxHeight": *b.MaxHeight})
	}
	add("code", words.Plain("walk.local-code-read"), b.Code, read, words.Say("walk.height-limits-frost-depth-sight"))
	add("neighbour", words.Plain("walk.face-settled"), b.Neighbour, words.Say("walk.settled-with-the-neighbour"),
		words.Say("walk.which-face-looks-outward-usual"))
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
				Says: words.Say("walk.frost-estimate", words.V{"depth": *depth})})
		}
	case j.Site.FrostDepth == nil:
		find(finding.Finding{Rule: codeFrostMissing, Stage: finding.Walk, Severity: finding.Missing, Field: "/site/frostDepth",
			Says: words.Say("walk.frost-missing")})
	}
	for _, id := range soilsOf(j) {
		if _, known := cat.Soil(id); !known && id != "" {
			find(finding.Finding{Rule: codeSoilUnknown, Stage: finding.Dig, Severity: finding.Check,
				Says: words.Say("walk.soil-unknown", words.V{"id": id})}, stage.OneWay(words.Say("walk.forget-it"), forgetSoil(j, id)...))
		}
	}
	most := j.Site.Before.MaxHeight
	if most == nil {
		return out
	}
	for _, line := range j.Lines {
		for _, run := range line.Runs {
			if high := run.Highest(); high > *most {
				at := job.At("/lines", line.ID, "runs", run.ID)
				edits := []job.Edit{}
				if run.Fence.Height > *most {
					edits = append(edits, job.Set(job.At(at, "fence", "height"), *most))
				}
				for _, p := range run.Grade.Parts {
					if p.Height != nil && *p.Height > *most {
						edits = append(edits, job.Set(job.At(at, "grade", "parts", p.ID, "height"), *most))
					}
				}
				find(finding.Finding{Rule: codeTooHigh, Stage: finding.Grade, Severity: finding.Cannot, Place: finding.Place{Run: run.ID},
					Says: words.Say("walk.too-high", words.V{"height": high, "most": *most})},
					stage.OneWay(words.Say("walk.a-fence-high", words.V{"most": *most}), edits...))
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
	for _, line := range j.Lines {
		for _, run := range line.Runs {
			if run.Soil == id {
				out = append(out, job.Set(job.At("/lines", line.ID, "runs", run.ID, "soil"), nil))
			}
		}
	}
	return out
}
