package slope

import (
	"mallow/core/finding"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/reason"
	"mallow/core/stage"
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
	add := func(parts ...any) { out = append(out, stage.Caution{Stage: finding.Grade, Says: reason.Say(parts...)}) }
	if timber {
		add("Tops are cut with a saw at chest or head height: clamp a guide, stand firm, goggles on. Treated timber is not breathed or burnt; coat every cut end.")
	}
	if laser {
		add("Nobody looks into a laser's beam, nor lets it sweep a road or a neighbour's windows.")
	}
	if boards {
		add("A concrete gravel board can pass 55 kg (120 lb): two people.")
	}
	if deep > deepEarth {
		add("Ground is cut or filled up to ", deep, ": a bank that high slumps, or leans on the fence. Holding it is a wall's work, for the local code and an engineer.")
	}
	return out
}
