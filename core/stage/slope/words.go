package slope

import (
	"mallow/core/finding"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/reason"
	"mallow/core/stage"
	"mallow/core/words"
)

// deepEarth is the depth from which cut or filled ground is a bank that has to
// be held (common practice: 1 ft).
const deepEarth = 300 * length.Millimetre

// gradeCautions stand where tops are cut and ground is moved.
func GradeCautions(runs []*Slope) []stage.Caution {
	timber, laser, boards, deep := false, false, false, length.Length(0)
	for _, m := range runs {
		timber = timber || !m.Spec.Post.Hollow && m.Can(job.CutPosts) && len(m.Posts) > 0
		laser = laser || m.Spec.Grade.By == job.ByLaser
		for i := range m.Bays {
			b := &m.Bays[i]
			boards = boards || b.Infill != nil && b.Infill.Kind == job.GravelBoards
			if b.Infill == nil {
				deep = max(deep, Earth(m.Top.Bays[i]))
			}
		}
	}
	var out []stage.Caution
	add := func(t reason.Text) { out = append(out, stage.Caution{Stage: finding.Grade, Says: t}) }
	if timber {
		add(words.Say("slope.tops-are-cut-with-a"))
	}
	if laser {
		add(words.Say("slope.nobody-looks-into-a-lasers"))
	}
	if boards {
		add(words.Say("slope.a-concrete-gravel-board-can"))
	}
	if deep > deepEarth {
		add(words.Say("slope.ground-is-cut-or-filled", words.V{"deep": deep}))
	}
	return out
}
