package plan

import (
	"fmt"

	"mallow/core/finding"
	"mallow/core/job"
	"mallow/core/reason"
	"mallow/core/spacing"
)

// judgeLanded lists the bays that a post which landed off its mark changed,
// and what to do in each.
func (m *maker) judgeLanded() {
	for i := range m.layout.Posts {
		at := m.layout.Posts[i]
		if at.Held == spacing.Nothing || i == 0 || i == len(m.layout.Posts)-1 {
			continue
		}
		held := m.run.FixedPosts[at.Held]
		if !held.Landed || held.Respace || at.Shift.Abs() <= m.job.Units.SmallestMark/2 {
			continue
		}
		p := &m.out.Posts[i]
		severity := finding.Note
		says := reason.Say(p.ID, " landed ", at.Shift.Abs(), " ", heading(at.Shift), " of its mark.")
		for b := i - 1; b <= i; b++ {
			todo, work := m.changedBay(&m.out.Bays[b])
			says = append(append(says, reason.Say(" ")...), todo...)
			if work {
				severity = finding.Check
			}
		}
		m.find(finding.Finding{Rule: "landed", Stage: finding.Space, Severity: severity, Place: finding.Place{Post: p.ID}, Says: says,
			Remedies: m.offer(reason.Say("Space the rest again from here"), anyway,
				func(r *job.Run) { r.FixedPosts = respaced(r.FixedPosts, at.Held) }, m.set(fmt.Sprintf("/fixedPosts/%d/respace", at.Held), true))})
	}
}

func respaced(list []job.FixedPost, i int) []job.FixedPost {
	out := append([]job.FixedPost(nil), list...)
	out[i].Respace = true
	return out
}

// changedBay says what to do in a bay whose post landed off its mark, and
// whether that is any work.
func (m *maker) changedBay(b *Bay) (reason.Text, bool) {
	s := m.run.Spacing
	off := m.misfit()
	switch long := b.Piece - s.Piece; {
	case b.Piece == 0 || b.Trims > 0:
		return reason.Say(b.ID, " is ", b.CentreToCentre, " now: nothing to do."), false
	case long > off:
		return reason.Say(b.ID, " is ", b.CentreToCentre, " now: pack it out by ", long, "."), true
	case b.PieceCut:
		return reason.Say(b.ID, " is ", b.CentreToCentre, " now: cut its piece to ", b.Piece, "."), true
	}
	return reason.Say(b.ID, " is ", b.CentreToCentre, " now: the play takes it up."), false
}

// judgeFaces asks which face panels are on, where it makes a difference.
func (m *maker) judgeFaces() {
	if m.run.Spacing.Way != job.PanelsOnFaces || m.run.Spacing.Face != "" || !m.turned[0].Turns && !m.turned[1].Turns {
		return
	}
	wide := m.run.PostOf(job.CornerPost).Width
	f := finding.Finding{Rule: "which-face", Stage: finding.Space, Severity: finding.Note,
		Says: reason.Say("Which face are the panels of ", m.name(), " on? On the outer face of a corner the bay beside it is ", wide, ", a post's width, shorter. They are taken to be on the inner face.")}
	for _, side := range []job.Side{job.Left, job.Right} {
		f.Remedies = append(f.Remedies, m.offer(reason.Say("On the ", string(side), ", walking from ", m.out.Posts[0].ID), anyway,
			func(r *job.Run) { r.Spacing.Face = side }, m.set("/spacing/face", side))...)
	}
	m.find(f)
}
