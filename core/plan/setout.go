package plan

import (
	"math"

	"mallow/core/length"
	"mallow/core/spacing"
)

// SetOut is how a run's posts are marked on the ground.
type SetOut struct {
	Tape   length.Length `json:"tape" jsonschema:"required" jsonschema_description:"Length of the tape that is reckoned with."`
	Offset length.Length `json:"offset" jsonschema:"required" jsonschema_description:"From the string to each post's middle."`
	Check  length.Length `json:"check" jsonschema:"required" jsonschema_description:"From the first post to the last, level: the list is right when it ends here."`
	Pins   []Pin         `json:"pins" jsonschema:"required" jsonschema_description:"Pins driven where the tape ends, from which it is pulled on."`
	Marks  []Mark        `json:"marks" jsonschema:"required" jsonschema_description:"In taping order."`
	Sticks []Stick       `json:"sticks" jsonschema:"required" jsonschema_description:"Spacer sticks that set posts without a tape, the most used first."`
}

// Pin is a place where the tape is put down anew.
type Pin struct {
	At    length.Length `json:"at" jsonschema:"required" jsonschema_description:"Level, from the first post."`
	Slope length.Length `json:"slope" jsonschema:"required" jsonschema_description:"The same along the ground."`
	Post  string        `json:"post,omitempty" jsonschema_description:"The post that stands there, where one does."`
}

// Mark is one post's mark. All distances run from one end: chained from post
// to post, the errors of every reading would add up.
type Mark struct {
	Post      string        `json:"post" jsonschema:"required"`
	Level     length.Length `json:"level" jsonschema:"required" jsonschema_description:"From the first post, tape held level."`
	Slope     length.Length `json:"slope" jsonschema:"required" jsonschema_description:"From the first post, tape on the ground."`
	Pin       int           `json:"pin,omitempty" jsonschema_description:"Pin that it is read from, 1 first; 0: the first post."`
	Past      length.Length `json:"past" jsonschema:"required" jsonschema_description:"What the level tape reads from that pin."`
	PastSlope length.Length `json:"pastSlope" jsonschema:"required" jsonschema_description:"The same along the ground."`
	Back      length.Length `json:"back" jsonschema:"required" jsonschema_description:"Check measure: from the far end, level."`
	BackSlope length.Length `json:"backSlope" jsonschema:"required"`
	Bay       length.Length `json:"bay" jsonschema:"required" jsonschema_description:"From the post before, centre to centre; 0 at the first."`
	Clear     length.Length `json:"clear" jsonschema:"required" jsonschema_description:"From the post before, face to face."`
}

// Stick is a spacer stick: as long as the clear opening between two posts.
type Stick struct {
	Length length.Length `json:"length" jsonschema:"required"`
	Bays   int           `json:"bays" jsonschema:"required" jsonschema_description:"How many bays it sets."`
	First  string        `json:"first" jsonschema:"required" jsonschema_description:"First bay that it sets."`
}

// setOut lists the run's marks.
func (m *maker) setOut() {
	out := &SetOut{Tape: tapeReach, Check: m.out.Length, Offset: m.out.String.ToCentre, Pins: []Pin{}, Marks: make([]Mark, 0, len(m.out.Posts)), Sticks: m.sticks()}
	if m.out.String.Sight {
		out.Offset = 0
	}
	// A slope tape is the longer one: it runs out first.
	whole := m.out.SlopeLength
	for i := range m.out.Posts {
		p := &m.out.Posts[i]
		for {
			from, along := length.Length(0), length.Length(0)
			if n := len(out.Pins); n > 0 {
				from, along = out.Pins[n-1].At, out.Pins[n-1].Slope
			}
			if p.Slope-along <= tapeReach+length.Tolerance {
				k := Mark{Post: p.ID, Level: p.Station, Slope: p.Slope, Pin: len(out.Pins), Past: p.Station - from, PastSlope: p.Slope - along,
					Back: m.out.Length - p.Station, BackSlope: whole - p.Slope}
				if i > 0 {
					k.Bay, k.Clear = m.out.Bays[i-1].CentreToCentre, m.out.Bays[i-1].Clear
				}
				out.Marks = append(out.Marks, k)
				break
			}
			out.Pins = append(out.Pins, m.nextPin(i, from, along))
		}
	}
	m.out.SetOut = out
}

// nextPin is where the tape is bumped: at the last post that it reaches, or,
// where no post is within reach, at its end.
func (m *maker) nextPin(i int, from, along length.Length) Pin {
	if before := m.out.Posts[i-1]; before.Slope > along+length.Tolerance {
		return Pin{At: before.Station, Slope: before.Slope, Post: before.ID}
	}
	// Level distance at which the ground has run one tape's length.
	lo, hi := from, m.out.Posts[i].Station
	for hi-lo > length.Tolerance {
		if mid := (lo + hi) / 2; m.profile.Along(mid)-along < tapeReach {
			lo = mid
		} else {
			hi = mid
		}
	}
	return Pin{At: lo, Slope: m.profile.Along(lo)}
}

// sticks are the clear openings that occur, each once, the commonest first;
// along the slope where the pieces lie so.
func (m *maker) sticks() []Stick {
	out := []Stick{}
	seen := map[int64]int{}
	mark := float64(m.job.Units.SmallestMark)
	for i, b := range m.layout.Bays {
		if b.Gate != spacing.NoGate {
			continue
		}
		bay := &m.out.Bays[i]
		long := bay.Clear
		if _, piece := m.run.Spacing.ByPiece(); piece && m.run.Leans() { // held along the slope, as the piece lies
			long *= length.Length(math.Hypot(1, float64(bay.Lean/bay.CentreToCentre)))
		}
		key := int64(math.Round(float64(long) / mark))
		if k, ok := seen[key]; ok {
			out[k].Bays++
			continue
		}
		seen[key] = len(out)
		out = append(out, Stick{Length: long, Bays: 1, First: bay.ID})
	}
	for i := 1; i < len(out); i++ { // few, and equal counts keep their order
		for j := i; j > 0 && out[j].Bays > out[j-1].Bays; j-- {
			out[j], out[j-1] = out[j-1], out[j]
		}
	}
	return out
}
