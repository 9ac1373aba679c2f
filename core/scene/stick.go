package scene

import (
	"math"

	"mallow/core/plan"
)

// stick draws the story stick: every mark that is the same on all posts, up
// and down from the reference mark.
func stick(r *plan.Run) Scene {
	var s Scene
	if r.TopLine == nil {
		return s
	}
	low, high := 0.0, 0.0
	for _, m := range r.TopLine.Stick {
		low, high = min(low, float64(m.Up), float64(m.To)), max(high, float64(m.Up), float64(m.To))
	}
	tall := max(1, high-low)
	half, past := tall*0.045, tall*0.025
	s.Box = &Box{Point{-3.4 * half, low - past}, Point{3.4 * half, high + past}}
	s.box(Layer{Class: Stick, Material: Timber}, r.ID, -half, low-past, half, high+past)
	for _, m := range r.TopLine.Stick {
		up, to := float64(m.Up), float64(m.To)
		label := Label{Class: Measure, Of: m.Name, At: Point{half * 1.6, (up + to) / 2}, Put: Right, Must: true, Words: m.Name, Strong: m.Kind == "cut"}
		switch {
		case m.Kind == "ground":
			s.box(Layer{Class: Ground, Material: Earthen}, m.Name, -3*half, min(to, up-tall*0.004), 3*half, up)
			s.line(GroundLine, m.Name, -3*half, up, 3*half, up)
		case math.Abs(up-to) > 0.01:
			class := Cut
			if m.Kind == "hole" {
				class = RailHole
			}
			s.box(Layer{Class: class}, m.Name, -half, to, half, up)
		case m.Kind == "mark":
			s.line(Reference, m.Name, -1.9*half, up, 1.9*half, up)
			s.mark(Reference, m.Name, -1.9*half, up, 0)
			label.Strong = true
		default:
			s.line(Measure, m.Name, -1.3*half, up, 1.3*half, up)
		}
		if m.Kind != "mark" {
			up := m.Up
			label.Keys = []string{"up-from-mark"}
			if m.Up < 0 {
				up, label.Keys = -m.Up, []string{"down-from-mark"}
			}
			label.Size = &up
		}
		s.say(label)
	}
	return s
}
