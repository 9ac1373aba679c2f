package record

import (
	"slices"

	"mallow/core/finding"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/reason"
	"mallow/core/words"
)

// What a record finds, by its code.
const (
	codeBags    = "record-bags"
	codeGround  = "record-ground"
	codeShallow = "record-frost"
	codeService = "record-service"
	// Off is of what differs with nothing decided: its ways out say more.
	Off       = "record-off"
	codePace  = "record-pace"
	codeTruck = "record-truck"
	codeLate  = "record-late"
	codeCut   = "record-cut"
)

// Findings are what a record finds: what each means, how bad it can be, and from what on
// it is said.
var Findings = []finding.Kind{
	{Rule: codeBags, Costs: finding.Time, Stage: finding.Pour, Severities: []finding.Severity{finding.Check}, Means: "The bags that were bought do not last, if the holes to come take as many more than planned as those before.", Threshold: "enough"},
	{Rule: codeGround, Costs: finding.Time, Stage: finding.Dig, Severities: []finding.Severity{finding.Note}, Means: "The same was met in so many holes that more of it is to be expected.", Threshold: "enough"},
	{Rule: codeShallow, Costs: finding.Rework, Stage: finding.Dig, Severities: []finding.Severity{finding.Check}, Means: "A hole was dug less deep than frost goes.", Threshold: "length.Tolerance"},
	{Rule: Off, Costs: finding.Rework, Stage: finding.Build, Severities: []finding.Severity{finding.Check}, Means: "Something differs from the plan by more than the fence type lets go, and nothing is decided.", Threshold: "Tolerances"},
	{Rule: codePace, Costs: finding.Time, Stage: finding.Dig, Severities: []finding.Severity{finding.Note}, Means: "The work takes longer than planned, by the times at which posts were written down.", Threshold: "told"},
	{Rule: codeTruck, Costs: finding.Rework, Stage: finding.Pour, Severities: []finding.Severity{finding.Check}, Means: "Posts are poured slower than planned: a load bears fewer of them before it stiffens.", Threshold: "told"},
	{Rule: codeLate, Costs: finding.Time, Stage: finding.Dig, Severities: []finding.Severity{finding.Check}, Means: "At the pace so far the posts take more days than are planned."},
	{Rule: codeCut, Costs: finding.Rework, Stage: finding.Build, Severities: []finding.Severity{finding.Check}, Means: "Rails that were cut no longer reach over their bay.", Threshold: "Tolerances.Bay"},
	{Rule: codeService, Costs: finding.Harm, Stage: finding.Dig, Severities: []finding.Severity{finding.Check}, Means: "A service was met in a hole."},
}

// find adds a finding, as bad as its kind can be.
func (r *Log) find(code string, at finding.Place, says reason.Text) {
	k := slices.IndexFunc(Findings, func(f finding.Kind) bool { return f.Rule == code })
	r.Finds = append(r.Finds, finding.Finding{ID: code, Rule: code, Severity: Findings[k].Severities[0], Stage: Findings[k].Stage, Place: at, Says: says})
}

// check says what is to be said, the gravest first.
func (w *recorder) check() {
	for i := range w.out.Posts {
		o := &w.out.Posts[i]
		place := finding.Place{Run: o.Run, Post: o.Label}
		if o.Hit == job.SeenPipe {
			w.out.find(codeService, place, words.Say("record.service", words.V{"post": o.Label, "depth": *o.HitAt}))
		}
		for _, d := range o.Deviations {
			if d.State == Open {
				w.out.find(Off, place, d.Says)
			}
		}
		frost, _ := w.at[o.ID].Frost()
		if o.Depth != nil && frost != nil && *o.Depth < *frost-length.Tolerance && o.Planned >= *frost-length.Tolerance {
			w.out.find(codeShallow, place, words.Say("record.shallow", words.V{"post": o.Label, "depth": *o.Depth, "frost": *frost}))
		}
	}
	if b := w.out.Bags; b != nil && b.Short > 0 && b.Sure {
		w.out.find(codeBags, finding.Place{}, words.Say("record.bags-short", words.V{"short": b.Short, "post": b.By, "holes": b.Holes, "used": oneDecimal(b.Used), "planned": oneDecimal(b.Planned)}))
	}
	for _, what := range []job.Seen{job.SeenRock, job.SeenWater, job.SeenRoot} {
		if at := w.met(what); len(at) >= enough {
			w.out.find(codeGround, finding.Place{}, words.Say("record.met-"+string(what), words.V{"times": len(at), "depth": at[len(at)/2]}))
		}
	}
}

func oneDecimal(v float64) float64 { return float64(int(v*10+0.5)) / 10 }
