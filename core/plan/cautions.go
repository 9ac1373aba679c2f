package plan

import (
	"mallow/core/finding"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/reason"
)

// aloneMost is the mass above which two people lift (common practice).
const aloneMost = 25 * length.Kilogram

// deepEarth is the depth from which cut or filled ground is a bank that has to
// be held (common practice: 1 ft).
const deepEarth = 300 * length.Millimetre

// gradeCautions stand where tops are cut and ground is moved.
func gradeCautions(runs []*maker) []Caution {
	timber, laser, boards, deep := false, false, false, length.Length(0)
	for _, m := range runs {
		timber = timber || !m.run.Post.Hollow && m.can(job.CutPosts) && len(m.out.Posts) > 0
		laser = laser || m.run.Grade.By == job.ByLaser
		for i := range m.out.Bays {
			b := &m.out.Bays[i]
			boards = boards || b.Infill != nil && b.Infill.Kind == job.GravelBoards
			if b.Infill == nil {
				deep = max(deep, earth(m.line.Bays[i]))
			}
		}
	}
	var out []Caution
	add := func(parts ...any) { out = append(out, Caution{finding.Grade, reason.Say(parts...)}) }
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

// holeCautions stand where holes are belled, drilled, packed with stone and
// weighed against the wind.
func holeCautions(runs []*maker) []Caution {
	belled, pinned, stone, wind := false, false, false, false
	for _, m := range runs {
		for i := range m.out.Cards {
			c := &m.out.Cards[i]
			stone = stone || c.Stone > 0
			pinned = pinned || c.Pin > 0
			belled = belled || m.ditches[i].sized.rules.Hole.Bell > c.Width
			wind = true
		}
	}
	var out []Caution
	add := func(stage finding.Stage, says string) { out = append(out, Caution{stage, reason.Say(says)}) }
	if belled {
		add(finding.Dig, "A bell is cut from above with a bar; nobody goes head first into a hole, and loose sides are not undercut.")
	}
	if pinned {
		add(finding.Dig, "Drilling rock throws chips and a dust that harms lungs: goggles, mask, water on the drill.")
	}
	if stone {
		add(finding.Pour, "Stone over 25 kg (55 lb) is carried by two, and set down, not dropped beside a foot or a post.")
	}
	if wind {
		add(finding.Dig, "Gust figures compare footings by a published formula. They approve nothing: where wind can throw a fence on someone, an engineer decides.")
	}
	return out
}

// gateCautions stand where leaves are hung, and where a gate is all that keeps
// a child from water.
func gateCautions(runs []*maker) []Caution {
	leaf, slide, drive, pool, animals := length.Mass(0), false, false, false, false
	for _, m := range runs {
		for i := range m.out.Gates {
			g, own := &m.out.Gates[i], m.run.Gates[m.out.Gates[i].index]
			slide = slide || g.Kind == job.SlideGate
			drive = drive || g.Use == job.VehicleGate
			pool, animals = pool || own.Pool, animals || own.Animals
			for _, l := range g.Leaves {
				leaf = max(leaf, l.Mass)
			}
		}
	}
	var out []Caution
	add := func(parts ...any) { out = append(out, Caution{finding.Gates, reason.Say(parts...)}) }
	switch {
	case leaf > 2*aloneMost:
		add("A leaf falls from its hinges when it is hung, adjusted or lifted off: this is more than two people should hold. Blocks, a strap or a machine; nobody stands under it.")
	case leaf > 0:
		add("A leaf falls from its hinges when it is hung, adjusted or lifted off: two people, blocks under it, and fingers out of the hinge gap.")
	}
	if slide {
		add("A sliding leaf that passes its stop falls over, and has killed: end stops and guides stand before it is first run. A driven gate is for a licensed installer.")
	}
	if drive {
		add("At a drive there is traffic: cones and a lookout while you work in it, and the leaf tied back in wind.")
	}
	if pool {
		add("A gate in a pool barrier keeps children alive. What stands here is what codes usually ask; only the local code and its inspector count. Try it each time: it closes and latches by itself from any angle.")
	}
	if animals {
		add("Animals lean on gates and lift them: opposed pins, a latch that none noses open, and no gap for a head.")
	}
	return out
}

// cautions stand at the stage where the work can hurt someone.
func cautions(runs []*maker) []Caution {
	out := []Caution{
		{finding.Walk, reason.Say("Prove the boundary and read the local code before anything is dug. A survey and the local office decide, not this plan.")},
		{finding.Strings, reason.Say("A string across a path or a drive trips people and catches riders: flag it, and take it down at night. Steel wire whips when it breaks.")},
		{finding.Dig, reason.Say("Have every service located and marked first; dig by hand near a mark. Private lines are the owner's to find.")},
		{finding.Dig, reason.Say("No loose clothing at an auger; it kicks when it meets rock or root. Cover or guard every open hole.")},
		{finding.Dig, reason.Say("Frost and depth figures defer to the local code; an engineer decides where wind or load matters.")},
		{finding.Pour, reason.Say("Wet concrete burns skin and eyes and cement dust harms lungs: gloves, goggles, mask, and water to wash with.")},
	}
	out = append(out, gradeCautions(runs)...)
	out = append(out, holeCautions(runs)...)
	out = append(out, gateCautions(runs)...)
	heavy := map[string]bool{}
	for _, m := range runs {
		if bag := m.bag; bag.Mass > aloneMost && !heavy[bag.ID] {
			heavy[bag.ID] = true
			out = append(out, Caution{finding.Pour, reason.Say("One ", bag.Name, " is over what one person should lift again and again (25 kg, 55 lb): two people, or smaller bags.")})
		}
	}
	return out
}
