package plan

import (
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/reason"
	"mallow/core/spacing"
	"mallow/core/survey"
)

// lowersAnything is the depth of cut or fill from which a hole is spoken of as
// in ground that changes: half a millimetre.
const lowersAnything = length.Millimetre / 2

// lowered is by how much the plan's own cuts take the ground down at a post,
// negative where its fills raise it, and how much post shows above the ground
// as it will be. Frost and floor count from that ground: where the two sides
// of a post end at two heights, as at a step that is cut, from the lower one.
// A share of the post goes by the side that shows more fence over its own
// ground. A gate's side stays as it is.
func (m *maker) lowered(i int, top length.Length) (down, shows length.Length) {
	ground := m.profile.Height(m.layout.Posts[i].Station)
	level, found := length.Length(0), false
	over := top - m.line.FenceTop(i) // what the post stands above the fence
	side := func(o *maker, bay int, bottom, top length.Length) {
		finished := ground
		if o.layout.Bays[bay].Gate == spacing.NoGate {
			finished = o.finished(bay, ground, bottom)
		}
		if !found || finished < level {
			level = finished
		}
		if show := top - finished; !found || show > shows {
			shows = show
		}
		found = true
	}
	if i > 0 {
		b := m.line.Bays[i-1]
		side(m, i-1, b.BottomEnd, b.TopEnd+over)
	}
	switch last := len(m.layout.Posts) - 1; {
	case i < last:
		b := m.line.Bays[i]
		side(m, i, b.BottomStart, b.TopStart+over)
	case m.end != nil:
		side(m.end.next, 0, m.end.next.line.Bays[0].BottomStart, m.end.next.line.Tops[0])
	}
	return ground - level, shows
}

// finishedGround is the run's ground as it will be; nil where nothing is cut
// or filled.
func (m *maker) finishedGround() []survey.Point {
	out := []survey.Point{}
	changed := false
	for i := range m.layout.Bays {
		from, to := m.span(i)
		b := m.line.Bays[i]
		m.profile.Each(from, to, func(at, ground length.Length) {
			level := ground
			if m.layout.Bays[i].Gate == spacing.NoGate {
				level = m.finished(i, ground, b.Bottom((at-from)/(to-from)))
			}
			changed = changed || (level-ground).Abs() > lowersAnything
			out = append(out, survey.Point{At: at, Height: level})
		})
	}
	if !changed {
		return nil
	}
	return out
}

// finished is the height of the ground under one end of a bay of fence once it
// is cut or filled.
func (m *maker) finished(bay int, ground, bottom length.Length) length.Length {
	b, f := m.line.Bays[bay], m.run.Fence
	switch {
	case b.Cut != nil && bottom-f.GapLeast < ground:
		return bottom - f.GapLeast
	case b.Fill != nil && !m.boarded(bay) && bottom-f.GapMost > ground:
		return bottom - f.GapMost
	}
	return ground
}

// boarded tells whether boards close what a level panel leaves over a slope,
// so that nothing is filled there.
func (m *maker) boarded(bay int) bool {
	kind := m.run.Grade.Infill
	return (kind == job.GravelBoards || kind == job.CutBoards) && !m.courseLook(bay).Leans()
}

// loweredSays goes on from how deep a hole is under the finished ground to how
// deep it is dug.
func loweredSays(lowered, hole length.Length) reason.Text {
	if lowered > 0 {
		return reason.Say(" All that from the ground as it will be: it is cut by ", lowered, " here, so dig ", hole, " from the ground as it is.")
	}
	return reason.Say(" All that from the ground as it will be: it is filled by ", -lowered, " here, so dig ", hole, " from the ground as it is.")
}
