package setout

import (
	"slices"

	"mallow/core/finding"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/reason"
	"mallow/core/stage"
)

// remind says what is easily forgotten while posts are lined up and set.
func (m *Marking) Remind() (out []stage.Caution) {
	s := m.Strings
	add := func(when finding.Stage, parts ...any) {
		out = append(out, stage.Caution{Stage: when, Says: reason.Say(parts...)})
	}
	side := string(s.Face)
	if m.Spec.Post.Shape == job.SquarePost && !m.Spec.Post.Hollow {
		add(finding.Strings, "Sort the posts first: sight along each and mark its straightest face. That face goes to the ", side, ", where it is lined up; a bow goes along the fence, never across it.")
		add(finding.Pour, "Before each post goes in: its marked straight face to the ", side, ", the side that is lined up.")
	} else if m.Spec.Post.Shape == job.SquarePost {
		add(finding.Pour, "Turn each post so that its face lies flat to the line on the ", side, " before the concrete takes hold; a twist cannot be planed off later.")
	} else {
		add(finding.Pour, "A round post has no face to turn: hold its ", side, " side to the line, and turn brackets and marks the same way on all.")
	}
	if !m.Job.Site.Before.Neighbour {
		add(finding.Strings, "Which way the good face looks is not settled yet: see Before you dig. The lined side is the one that shows.")
	}
	if s.Position == job.BySight {
		add(finding.Pour, "Sight along both sides of the posts to ", s.Target, ": a twisted or bowed post then cancels out.")
	}
	sys, ok := m.Cat.System(m.Spec.System, m.Job.Systems)
	if !ok || m.Spec.System == "" {
		return out
	}
	for _, c := range sys.Cautions {
		add(finding.Pour, c)
	}
	for _, f := range sys.Forbidden {
		add(finding.Pour, "Not ", f.Method.Told().Done, ": ", f.Why)
	}
	for _, f := range sys.Mind {
		add(finding.Pour, "Mind, ", f.Method.Told().Done, ": ", f.Why)
	}
	return out
}

// topSteps says how the tops are set, for the chosen method.
func (m *Marking) TopSteps(t *TopLine) []reason.Text {
	say := func(parts ...any) reason.Text { return reason.Say(parts...) }
	first, last := m.Posts[0], m.Posts[len(m.Posts)-1]
	var out []reason.Text
	switch t.By {
	case job.ByLaser:
		out = append(out,
			say("Set the laser where it sees every post, its plane ", t.Laser, " above the datum: ", t.Laser-first.Ground, " above the ground at ", first.ID, "."),
			say("Mark every post at the plane, then measure from that mark: the list gives up or down to the cut, post by post."),
			say("Check the last post against the first before cutting: the two marks must still agree."))
		if over := m.overTops(t.Laser); len(over) > 0 {
			out = slices.Insert(out, 2, say("The plane passes over the tops at ", stage.Ids(over), ": there, hold the rod on the post and cut where the plane lies over it by what the list says; or set the laser lower and carry its height over."))
		}
	case job.ByDrops:
		out = append(out,
			say("Tie a string at the top of ", t.High, ", the highest, and level it with a line level or a water level; bump it down where it gets too high to reach."),
			say("At every post measure down from the level string by its drop, and mark."),
			say("A level string over a long run sags: prop it every 3 or 4 posts, or carry the level on post by post."))
	case job.ByEye:
		out = append(out,
			say("Set ", m.tied(), " to their heights first, the eyes level with their marks, ", t.Mark, " below the tops."),
			say("From one, sight over the next set post: have each post between dropped or lifted by what the list says, working away from you."),
			say("Look along again from the other end before the concrete takes hold: the eye sees a bump of 3 mm (1/8 in) that a tape does not."))
	default:
		out = append(out, say("Set ", m.tied(), " first, to their heights above ground. They carry the string."))
		out = append(out, say("Drive a dead-man post or stake ", m.Spec.String.Beyond, " beyond ", first.ID, " and ", last.ID, " and tie off there, over their tops, so that the pull does not lean the set posts."))
		if k := t.longest(); k >= 0 {
			p := t.Pieces[k]
			if len(p.Props) > 0 {
				mid := p.Props[len(p.Props)/2]
				says := say("Pull tight. From ", p.From, " to ", p.To, " it would sag ", p.Sag, ": ")
				if n := len(p.Props); n == 1 {
					says = append(says, say("set a prop in the middle, its head ")...)
				} else {
					says = append(says, say("set ", n, " props, evenly; the head of the middle one ")...)
				}
				out = append(out, append(says, say(mid.Height, " above the ground at ", reason.Tape(mid.At), ".")...))
			} else {
				out = append(out, say("Pull tight. At its longest, ", p.From, " to ", p.To, ", the string sags ", p.Sag, "; that is let go."))
			}
		}
		if m.Spec.Grade.Look == job.Stepped && m.Spec.Grade.Steps == job.EvenSteps {
			out = append(out, say("Lift each post until its top touches the string, and hold it there. Equal bays then drop equally."))
		} else {
			out = append(out, say("Bring each top to the string, or off it by what the list says."))
		}
	}
	return out
}

// overTops lists the posts that a level plane passes over.
func (m *Marking) overTops(plane length.Length) []string {
	var out []string
	for i := range m.Posts {
		if m.Posts[i].Top < plane {
			out = append(out, m.Posts[i].ID)
		}
	}
	return out
}

// tied names the posts that are set first.
func (m *Marking) tied() string {
	first := []string{m.Posts[0].ID}
	n := len(m.Posts)
	for i := 1; i < n; i++ {
		if i == n-1 || m.tiedAt(i) {
			first = append(first, m.Posts[i].ID)
		}
	}
	if len(first) > stage.MostNamed {
		return "the end, gate and grade posts"
	}
	return stage.Ids(first)
}
