package plan

import (
	"fmt"
	"slices"

	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/reason"
	"mallow/core/spacing"
)

// NewGate is a gate that can be put into a run.
type NewGate struct {
	ID      string      `json:"id" jsonschema:"required"`
	Name    string      `json:"name" jsonschema:"required"`
	Says    reason.Text `json:"says" jsonschema:"required"`
	Edits   []job.Edit  `json:"edits" jsonschema:"required" jsonschema_description:"That put it there; empty where it is refused."`
	Gate    string      `json:"gate" jsonschema:"required" jsonschema_description:"Its name in the document, once it is there."`
	Refused string      `json:"refused,omitempty"`
}

// usualSize is a round figure of the job's system.
func (m *maker) usualSize(imperial, metric length.Length) length.Length {
	if m.job.Units.System == length.Metric {
		return metric
	}
	return imperial
}

// newGates are the gates that can be put into the run, and where each goes:
// into the middle of its longest stretch of fence, to either end beside a
// house or a wall, or across the whole run.
func (m *maker) newGates() []NewGate {
	walk, drive := m.usualSize(4*length.Foot, 1200), m.usualSize(12*length.Foot, 3600)
	post := m.run.PostOf(job.GatePost).Width
	half := func(inside length.Length) length.Length { return (inside + post) / 2 }
	end := m.out.Length
	var middle, longest length.Length
	for _, s := range m.layout.Segments {
		if span := s.To - s.From; s.Gate == spacing.NoGate && span > longest {
			longest, middle = span, (s.From+s.To)/2
		}
	}
	whole := end - post
	list := []NewGate{
		m.newGate("walk", "Walk gate in the fence", reason.Say(walk, ", in the middle of the longest stretch."), job.Gate{At: middle, Opening: walk, Use: job.WalkGate}),
		m.newGate("drive", "Vehicle gate in the fence", reason.Say(drive, " in two leaves, in the middle of the longest stretch."), job.Gate{At: middle, Opening: drive, Use: job.VehicleGate, Leaves: 2}),
		m.newGate("start", "Gate at the run's start", reason.Say("Against a house or wall: its first post is the run's, and a short panel makes up the rest."), job.Gate{At: half(walk), Opening: walk, Use: job.WalkGate}),
		m.newGate("end", "Gate at the run's end", reason.Say("Against a house or wall: its second post is the run's, and a short panel makes up the rest."), job.Gate{At: end - half(walk), Opening: walk, Use: job.WalkGate}),
		m.newGate("slide", "Sliding gate", reason.Say(drive, ", with its run-back along the fence."), job.Gate{At: middle, Opening: drive, Use: job.VehicleGate, Kind: job.SlideGate}),
		m.newGate("across", "Gate across the whole run", reason.Say("Alone across a drive: both posts are the run's, ", max(0, whole), " inside."), job.Gate{At: end / 2, Opening: whole, Leaves: acrossLeaves(whole)}),
	}
	return list
}

func acrossLeaves(inside length.Length) int {
	if inside > 3*length.Metre {
		return 2
	}
	return 1
}

// newGate tries a gate on the run.
func (m *maker) newGate(id, name string, says reason.Text, g job.Gate) NewGate {
	out := NewGate{ID: id, Name: name, Says: says, Edits: []job.Edit{}}
	usual := m.cat.UsualGate(m.job.Units.System)
	full := usual
	full.Hardware = m.cat.HardwareFor(m.run.PostOf(job.GatePost), usual.Hardware)
	full.At, full.Opening, full.Use, full.Kind, full.Leaves = g.At, g.Opening, g.Use, g.Kind, g.Leaves
	n := len(m.given.Gates) + 1
	for ; slices.ContainsFunc(m.given.Gates, func(o job.Gate) bool { return o.ID == fmt.Sprintf("G%d", n) }); n++ {
	}
	full.ID = fmt.Sprintf("G%d", n)
	full.Name = fmt.Sprintf("Gate %d", n)
	out.Gate = full.ID
	run := m.given
	run.Gates = append(slices.Clone(run.Gates), full)
	level := m.run
	level.Gates = append(slices.Clone(level.Gates), full)
	switch {
	case g.Opening < 300*length.Millimetre || g.Opening > 12*length.Metre:
		out.Refused = "an opening is 12 in to 39 ft (300 mm to 12 m)"
	case len(job.CheckGates("", level, m.job.Units)) > 0 || !m.sound(run):
		out.Refused = "no room for it there"
	default:
		// Only what is not usual is written down.
		entry := map[string]any{"id": full.ID, "name": full.Name, "at": full.At, "opening": full.Opening, "gap": full.Gap}
		if full.Use != "" {
			entry["use"] = full.Use
		}
		if full.Kind != "" {
			entry["kind"] = full.Kind
		}
		if full.Leaves > 0 {
			entry["leaves"] = full.Leaves
		}
		if full.Hardware != usual.Hardware {
			entry["hardware"] = full.Hardware
		}
		out.Edits = []job.Edit{m.set("/gates/-", entry)}
	}
	return out
}
