package build

import (
	"math"
	"slices"

	"mallow/core/finding"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/parts"
	"mallow/core/stage"
	"mallow/core/words"
)

// Check says which pieces do not fit their bay, or no length that is sold.
func (b *Build) Check(c *stage.Checking) {
	b.oldPosts(c)
	b.ownHeights(c)
	for i := range b.Parts {
		p := &b.Parts[i]
		if n := len(p.Unfit); n > 0 {
			b.unfit(c, p)
		}
		if len(p.Stock) == 0 {
			continue
		}
		most := slices.Max(p.Stock)
		for _, q := range p.Pieces {
			if q.Long <= most+b.mark()/2 {
				continue
			}
			f := finding.Finding{Rule: codePartLong, Severity: finding.Cannot, Stage: finding.Build, Place: b.place(q.Bay),
				Says: words.Say("build.longer-than-sold", words.V{"part": p.Name, "long": q.Long, "most": most})}
			c.Find(f, stage.OneWay(words.Say("build.buy-it-longer", words.V{"part": p.Name, "long": b.Up(q.Long)}), b.own(p, func(o *job.Part) { o.Stock = append(slices.Clone(o.Stock), b.Up(q.Long)) })))
			break
		}
	}
}

// oldPosts says which old posts that stay are higher or lower than the plan has
// them: they keep their height, and what is built onto them is matched to it.
func (b *Build) oldPosts(c *stage.Checking) {
	for i := range b.Posts {
		p := &b.Posts[i]
		if p.Stays == "" {
			continue
		}
		k := slices.IndexFunc(b.Spec.KeepOuts, func(k job.KeepOut) bool { return k.ID == p.Stays })
		if k < 0 || b.Spec.KeepOuts[k].Tall == nil {
			continue
		}
		tall := *b.Spec.KeepOuts[k].Tall
		over := p.AboveGrade - tall
		if over.Abs() <= b.mark()+length.Tolerance {
			continue
		}
		v := words.V{"post": p.Label, "tall": tall, "planned": p.AboveGrade, "over": over.Abs()}
		says := words.Say("build.old-post-low", v)
		if over < 0 {
			says = words.Say("build.old-post-high", v)
		}
		f := finding.Finding{Rule: codeOldHeight, Severity: finding.Check, Stage: finding.Build, Place: finding.Place{Post: p.Label}, Says: says}
		if high := b.Spec.Fence.Height - over; high >= leastFence {
			c.Find(f, stage.OneWay(words.Say("build.match-old-post", words.V{"high": high, "post": p.Label}), b.Set("/fence/height", high)))
			continue
		}
		c.Find(f)
	}
}

// ownHeights says where a stretch has another height than what its type buys
// ready made: a panel is cut down there, a roll of its own is bought.
func (b *Build) ownHeights(c *stage.Checking) {
	k := slices.IndexFunc(b.Parts, func(p Part) bool {
		return !p.Gates && (p.High || p.Kind == job.PanelPart)
	})
	if k < 0 {
		return
	}
	seen := map[length.Length]bool{}
	for i := range b.Bays {
		high := b.HighAt(i)
		if b.Bays[i].Gate != "" || (high-b.Spec.Fence.Height).Abs() <= b.mark()/2 || seen[high] {
			continue
		}
		seen[high] = true
		f := finding.Finding{Rule: codePartHigh, Severity: finding.Check, Stage: finding.Build, Place: b.place(i),
			Says: words.Say("build.sold-as-high", words.V{"part": b.Parts[k].Name, "high": high, "run": b.Spec.Fence.Height})}
		var edits []job.Edit
		for _, p := range b.Spec.Grade.Parts {
			if p.Height != nil && length.Same(*p.Height, high) {
				edits = append(edits, b.Set("/grade/parts/"+p.ID+"/height", nil))
			}
		}
		c.Find(f, stage.OneWay(words.Say("build.as-high-as-the-run", words.V{"run": b.Spec.Fence.Height}), edits...))
	}
}

// leastFence is the lowest that a fence may be.
const leastFence = 300 * length.Millimetre

func (b *Build) place(bay int) finding.Place {
	if bay < 0 {
		return finding.Place{}
	}
	return finding.Place{Bay: b.Bays[bay].Label}
}

// own is the edit by which the run has a part otherwise than its type.
func (b *Build) own(p *Part, change func(*job.Part)) job.Edit {
	o := p.Part
	for _, r := range b.recipe { // as it is written, not as it came out
		if r.ID == p.ID {
			o = r
		}
	}
	change(&o)
	return b.Set("/parts/"+o.ID, o)
}

// unfit says that no number of whole pieces does, and what would.
func (b *Build) unfit(c *stage.Checking, p *Part) {
	bay := p.Unfit[0]
	f := finding.Finding{Rule: codePartUnfit, Severity: finding.Check, Stage: finding.Build, Place: b.place(bay)}
	gap := job.PartGap{}
	if p.Gap != nil {
		gap = *p.Gap
	}
	f.Says = words.Say("build.no-number-fits", words.V{"part": p.Name, "least": gap.Least, "most": gap.Most, "count": len(p.Unfit)})
	if p.Gates {
		c.Find(f)
		return
	}
	clear := b.Posts[bay+1].Station - b.Posts[bay].Station - (b.Posts[bay].Width+b.Posts[bay+1].Width)/2
	if p.By == job.ByRows {
		clear = b.high(bay, b.middle(bay)) + p.More
	} else if !p.PerBay {
		for _, s := range b.Stretches {
			if s.First == bay {
				first, last := &b.Posts[s.First], &b.Posts[s.Last+1]
				clear = last.Station + last.Width/2 - first.Station + first.Width/2
			}
		}
	}
	any, ok := parts.Along(clear, p.Width, parts.Gap{Want: gap.Want, Most: length.Length(math.Inf(1))}, b.mark(), p.Ends)
	if !ok {
		c.Find(f)
		return
	}
	widest := any.Gap
	if any.Wider > 0 {
		widest += b.mark()
	}
	wide := job.PartGap{Want: gap.Want, Least: min(gap.Least, any.Gap), Most: max(gap.Most, widest)}
	c.Find(f, stage.OneWay(words.Say("build.allow-gaps", words.V{"least": wide.Least, "most": wide.Most}), b.own(p, func(o *job.Part) { o.Gap = &wide })))
}

// Cautions are of what is lifted and sawn.
func Cautions(runs []*Build) []stage.Caution {
	var out []stage.Caution
	heaviest, what, sawn, pool := length.Mass(0), "", false, false
	for _, b := range runs {
		pool = pool || b.Spec.System == "pool-panel" || b.Spec.System == "pool-panel-m"
		for i := range b.Parts {
			p := &b.Parts[i]
			for _, q := range p.Pieces {
				m := p.Mass
				if len(p.Stock) > 0 && p.Kind != job.PanelPart {
					m *= length.Mass(q.Long / length.Metre)
				}
				if m > heaviest {
					heaviest, what = m, p.Name
				}
			}
			sawn = sawn || p.Kind == job.RailPart || p.Kind == job.BoardPart || p.Kind == job.PanelPart
		}
	}
	add := func(id string, v ...words.V) {
		out = append(out, stage.Caution{Stage: finding.Build, Says: words.Say(id, v...)})
	}
	if sawn {
		add("build.caution-saw")
	}
	if heaviest > stage.AloneMost {
		add("build.caution-heavy", words.V{"part": stage.Lower(what), "mass": heaviest})
	}
	if pool {
		add("build.caution-pool")
	}
	return out
}
