package setout

import (
	"slices"

	"mallow/core/finding"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/reason"
	"mallow/core/stage"
	"mallow/core/words"
)

// remind says what is easily forgotten while posts are lined up and set.
func (m *Marking) Remind() (out []stage.Caution) {
	s := m.Strings
	add := func(when finding.Stage, says reason.Text) {
		out = append(out, stage.Caution{Stage: when, Says: says})
	}
	side := string(s.Face)
	if m.Spec.Post.Shape == job.SquarePost && !m.Spec.Post.Hollow {
		add(finding.Strings, words.Say("setout.sort-the-posts-first-sight", words.V{"side": side}))
		add(finding.Pour, words.Say("setout.before-each-post-goes-in", words.V{"side": side}))
	} else if m.Spec.Post.Shape == job.SquarePost {
		add(finding.Pour, words.Say("setout.turn-each-post-so-that", words.V{"side": side}))
	} else {
		add(finding.Pour, words.Say("setout.a-round-post-has-no", words.V{"side": side}))
	}
	if !m.Job.Site.Before.Neighbour {
		add(finding.Strings, words.Say("setout.which-way-the-good-face"))
	}
	if s.Position == job.BySight {
		add(finding.Pour, words.Say("setout.sight-along-both-sides-of", words.V{"target": s.Target}))
	}
	sys, ok := m.Cat.System(m.Spec.System, m.Job.Systems)
	if !ok || m.Spec.System == "" {
		return out
	}
	for _, c := range sys.Cautions {
		add(finding.Pour, words.Say("setout.caution-of-the-system", words.V{"value": c}))
	}
	for _, f := range sys.Forbidden {
		add(finding.Pour, words.Say("setout.not", words.V{"done": f.Method.Told().Done, "why": f.Why}))
	}
	for _, f := range sys.Mind {
		add(finding.Pour, words.Say("setout.mind", words.V{"done": f.Method.Told().Done, "why": f.Why}))
	}
	return out
}

// topSteps says how the tops are set, for the chosen method.
func (m *Marking) TopSteps(t *TopLine) []reason.Text {
	first, last := m.Posts[0], m.Posts[len(m.Posts)-1]
	var out []reason.Text
	switch t.By {
	case job.ByLaser:
		out = append(out,
			words.Say("setout.set-the-laser-where-it", words.V{"laser": t.Laser, "above": t.Laser - first.Ground, "first": first.Label}),
			words.Say("setout.mark-every-post-at-the"),
			words.Say("setout.check-the-last-post-against"))
		if over := m.overTops(t.Laser); len(over) > 0 {
			out = slices.Insert(out, 2, words.Say("setout.the-plane-passes-over-the", words.V{"posts": stage.Ids(over)}))
		}
	case job.ByDrops:
		out = append(out,
			words.Say("setout.tie-a-string-at-the", words.V{"high": t.High}),
			words.Say("setout.at-every-post-measure-down"),
			words.Say("setout.a-level-string-over-a"))
	case job.ByEye:
		out = append(out,
			words.Say("setout.set-to-their-heights-first", words.V{"tied": m.tied(), "mark": t.Mark}),
			words.Say("setout.from-one-sight-over-the"),
			words.Say("setout.look-along-again-from-the"))
	default:
		out = append(out, words.Say("setout.set-first-to-their-heights", words.V{"tied": m.tied()}))
		out = append(out, words.Say("setout.drive-a-dead-man-post", words.V{"beyond": m.Spec.String.Beyond, "first": first.Label, "last": last.Label}))
		if k := t.longest(); k >= 0 {
			p := t.Pieces[k]
			if len(p.Props) > 0 {
				mid := p.Props[len(p.Props)/2]
				says := words.Say("setout.pull-tight-from-to-it", words.V{"from": p.From, "to": p.To, "sag": p.Sag})
				if n := len(p.Props); n == 1 {
					says = append(says, words.Say("setout.set-a-prop-in-the")...)
				} else {
					says = append(says, words.Say("setout.set-props-evenly-the-head", words.V{"count": n})...)
				}
				out = append(out, append(says, words.Say("setout.above-the-ground-at", words.V{"height": mid.Height, "at": mid.At})...))
			} else {
				out = append(out, words.Say("setout.pull-tight-at-its-longest", words.V{"from": p.From, "to": p.To, "sag": p.Sag}))
			}
		}
		if m.Spec.Grade.Look == job.Stepped && m.Spec.Grade.Steps == job.EvenSteps {
			out = append(out, words.Say("setout.lift-each-post-until-its"))
		} else {
			out = append(out, words.Say("setout.bring-each-top-to-the"))
		}
	}
	return out
}

// overTops lists the posts that a level plane passes over.
func (m *Marking) overTops(plane length.Length) []string {
	var out []string
	for i := range m.Posts {
		if m.Posts[i].Top < plane {
			out = append(out, m.Posts[i].Label)
		}
	}
	return out
}

// tied names the posts that are set first.
func (m *Marking) tied() string {
	first := []string{m.Posts[0].Label}
	n := len(m.Posts)
	for i := 1; i < n; i++ {
		if i == n-1 || m.tiedAt(i) {
			first = append(first, m.Posts[i].Label)
		}
	}
	if len(first) > stage.MostNamed {
		return words.Plain("setout.the-end-gate-and-grade")
	}
	return stage.Ids(first)
}
