package build

import (
	"strconv"

	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/reason"
	"mallow/core/stage"
	"mallow/core/words"
)

// Explain says why there are so many of a part.
func (b *Build) Explain(f stage.Figure) (reason.Why, bool) {
	if f.Of != "part" {
		return b.Gates.Explain(f)
	}
	p := b.Of(f.ID)
	if p == nil {
		return reason.Why{}, false
	}
	why := reason.Why{Figure: p.Name, Sentence: b.says(p)}
	source := stage.Practice
	if p.From != "" {
		source = reason.Source{Kind: reason.Memory, Name: p.From}
	}
	step := reason.Step{Rule: words.Plain("build.rule-" + words.Key(p.By)), Governs: true, Source: source, Says: b.counted(p)}
	why.Steps = append(why.Steps, step)
	for _, t := range b.fills(p) {
		why.Steps = append(why.Steps, reason.Step{Rule: words.Plain("build.rule-fill"), Source: stage.Geometry, Says: t})
	}
	if t := b.cut(p); t != nil {
		why.Steps = append(why.Steps, reason.Step{Rule: words.Plain("build.rule-cut"), Source: stage.Practice, Says: t})
	}
	if p.Says != "" {
		why.Steps = append(why.Steps, reason.Step{Rule: words.Plain("build.rule-fixed"), Source: source, Says: reason.Say(p.Says)})
	}
	return why, true
}

// says is how much of it there is, in a sentence.
func (b *Build) says(p *Part) reason.Text {
	switch {
	case p.Kind == job.FinishPart:
		return words.Say("build.is-coated", words.V{"area": areaText(p.Area, b.Job.Units.System), "ends": p.CutEnds})
	case p.By == job.ByRoll:
		return words.Say("build.is-laid", words.V{"length": length.Length(p.Taken()) * length.Metre, "joints": p.Joints})
	}
	return words.Say("build.there-are", words.V{"count": p.Count})
}

// counted is how it was counted, with what went into it.
func (b *Build) counted(p *Part) reason.Text {
	bays, ends := 0, 0
	for _, s := range b.Stretches {
		bays += s.Last - s.First + 1
		ends += 2
	}
	each, of := p.each(), b.names(p.Of)
	switch p.By {
	case job.PerPost:
		return words.Say("build.counted-post", words.V{"each": each})
	case job.PerCorner:
		return words.Say("build.counted-corner", words.V{"each": each})
	case job.PerGate:
		return words.Say("build.counted-gate", words.V{"each": each})
	case job.PerLeaf:
		return words.Say("build.counted-leaf", words.V{"each": each})
	case job.PerHinge:
		return words.Say("build.counted-hinge", words.V{"each": each})
	case job.PerBay:
		return words.Say("build.counted-bay", words.V{"each": each, "bays": bays})
	case job.PerBayEnd:
		return words.Say("build.counted-bay-end", words.V{"each": each, "bays": bays})
	case job.PerStretch:
		return words.Say("build.counted-stretch", words.V{"each": each, "stretches": len(b.Stretches)})
	case job.PerStretchEnd:
		return words.Say("build.counted-stretch-end", words.V{"each": each, "ends": ends})
	case job.ByBands:
		return words.Say("build.counted-bands", words.V{"ends": ends})
	case job.ByRails:
		return words.Say("build.counted-rails", words.V{"rows": b.rails(p, b.usualBay()), "bays": bays})
	case job.ByRows:
		return words.Say("build.counted-rows", words.V{"bays": bays})
	case job.Along:
		return words.Say("build.counted-along", words.V{"stretches": len(b.Stretches)})
	case job.PerGap:
		return words.Say("build.counted-gap", words.V{"each": each, "of": of})
	case job.ByRoll:
		return words.Say("build.counted-roll", words.V{"stretches": len(b.Stretches), "lap": p.Lap})
	case job.Spaced:
		return words.Say("build.counted-spaced", words.V{"spacing": p.Spacing})
	case job.PerCrossing:
		return words.Say("build.counted-crossing", words.V{"each": each, "of": of, "over": b.names(p.Over)})
	case job.PerJoint:
		return words.Say("build.counted-joint", words.V{"each": each, "of": of})
	case job.PerPiece:
		return words.Say("build.counted-piece", words.V{"each": each, "of": of})
	case job.PerCutEnd:
		return words.Say("build.counted-cut-end", words.V{"of": of, "coats": max(1, p.Coats)})
	}
	return words.Say("build.counted-area", words.V{"of": of, "coats": max(1, p.Coats)})
}

func (b *Build) names(ids []string) string {
	out := ""
	for _, id := range ids {
		name := ""
		switch part := b.Of(id); {
		case id == job.OverPosts:
			name = words.Plain("build.the-posts")
		case id == postFeet:
			name = words.Plain("build.the-feet")
		case part != nil:
			name = stage.Lower(part.Name)
		default:
			continue
		}
		if out != "" {
			out += ", "
		}
		out += name
	}
	return out
}

// mostFills is how many fills are told one by one.
const mostFills = 4

// fills is how pieces side by side fill what they stand in, each kind once.
func (b *Build) fills(p *Part) (out []reason.Text) {
	seen := map[string]bool{}
	for _, f := range p.Fills {
		t := words.Say("build.fill", words.V{"clear": f.To - f.From, "count": f.Pieces, "width": p.Width, "gap": f.Gap, "wider": f.Wider, "mark": f.Gap + b.mark()})
		if f.Ripped > 0 {
			t = append(t, words.Say("build.fill-ripped", words.V{"ripped": f.Ripped, "rip": f.Rip})...)
		}
		if key := t.Print(b.Job.Units); !seen[key] {
			seen[key] = true
			out = append(out, t)
		}
		if len(out) == mostFills {
			return out
		}
	}
	return out
}

// cut is what its pieces are as long as.
func (b *Build) cut(p *Part) reason.Text {
	if p.Long == "" || len(p.Pieces) == 0 {
		return nil
	}
	t := words.Say("build.long-" + words.Key(p.Long))
	if p.More > 0 {
		t = append(t, words.Say("build.and-more", words.V{"more": p.More})...)
	} else if p.More < 0 {
		t = append(t, words.Say("build.less", words.V{"more": -p.More})...)
	}
	return append(t, words.Say("build.stop")...)
}

// areaText is an area in the job's units: square feet or square metres.
func areaText(m2 float64, sys length.System) string {
	unit, per := "m²", 1.0
	if sys == length.Imperial {
		unit, per = "ft²", float64(length.Foot/length.Metre)*float64(length.Foot/length.Metre)
	}
	return words.Plain("build.area", words.V{"many": strconv.FormatFloat(m2/per, 'f', 1, 64), "unit": unit})
}
