package stage

import (
	"math"
	"strconv"
	"strings"

	"mallow/core/finding"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/materials"
	"mallow/core/reason"
	"mallow/core/words"
)

var StruckNames = map[job.Struck]string{job.HitRock: "rock", job.HitWater: "water", job.HitRoot: words.Plain("stage.a-root")}

func (m *Run) Set(path string, value any) job.Edit { return job.Set(m.Path+path, value) }

// usualSize is a round figure of the job's system.
func (m *Run) UsualSize(imperial, metric length.Length) length.Length {
	if m.Job.Units.System == length.Metric {
		return metric
	}
	return imperial
}

func Has(list []string, s string) bool {
	for _, x := range list {
		if x == s {
			return true
		}
	}
	return false
}

func Names(posts []string) string {
	const most = 5
	out := ""
	for i, p := range posts {
		switch {
		case i == most:
			return words.Plain("stage.and-more", words.V{"posts": out, "more": len(posts) - most})
		case i > 0 && i == len(posts)-1:
			out += words.Plain("stage.and")
		case i > 0:
			out += ", "
		}
		out += p
	}
	return out
}

func (m *Run) Name() string {
	if m.Spec.Name != "" {
		return m.Spec.Name
	}
	return m.Spec.ID
}

// heading is which way along the run a move goes, in words.
func Heading(by length.Length) string {
	if by > 0 {
		return "on"
	}
	return "back"
}

func GateName(g job.Gate) string {
	if g.Name != "" {
		return g.Name
	}
	return words.Plain("stage.the-gate")
}

// outward rounds away from zero to the tape's next mark.
func (m *Run) Outward(by length.Length) length.Length {
	mark := m.Job.Units.SmallestMark
	n := length.Length(int64(by.Abs()/mark - 1e-6))
	if by < 0 {
		return -(n + 1) * mark
	}
	return (n + 1) * mark
}

// up is a length rounded up to the tape's mark.
func (m *Run) Up(l length.Length) length.Length {
	mark := m.Job.Units.SmallestMark
	return mark * length.Length(math.Ceil(float64((l-length.Tolerance)/mark)))
}

// Caution stands where work can hurt someone.
type Caution struct {
	Stage finding.Stage `json:"stage" jsonschema:"required,enum=walk,enum=string,enum=space,enum=grade,enum=gates,enum=dig,enum=pour,enum=build"`
	Says  reason.Text   `json:"says" jsonschema:"required"`
}

// mostNamed is how many posts are named one by one.
const MostNamed = 6

// ids names posts: P1, P2 and P3; of many the first, the last and how many.
func Ids(all []string) string {
	if n := len(all); n > MostNamed {
		return words.Plain("stage.many-posts", words.V{"count": n, "first": all[0], "last": all[n-1]})
	}
	out := all[0]
	for i, id := range all[1:] {
		if i == len(all)-2 {
			out += words.Plain("stage.and") + id
		} else {
			out += ", " + id
		}
	}
	return out
}

var (
	Practice = reason.Source{Kind: reason.Practice}
	Geometry = reason.Source{Kind: reason.Geometry}
	Yours    = reason.Source{Kind: reason.Yours}
)

// measured is a length setting of the run with its usual value.
func (m *Run) Measured(path, name string, value, usual length.Length) reason.Setting {
	return reason.Setting{
		Path: m.Path + path, Name: name, Kind: reason.LengthSetting,
		Value: value, Usual: usual, Changed: !length.Same(value, usual),
	}
}

// byHand is a length setting that is usually not set.
func (m *Run) ByHand(path, name string, value *length.Length) reason.Setting {
	s := reason.Setting{Path: m.Path + path, Name: name, Kind: reason.LengthSetting, Changed: value != nil}
	if value != nil {
		s.Value = *value
	}
	return s
}

func (m *Run) Choice(path, name, value, usual string, choices ...string) reason.Setting {
	return reason.Setting{
		Path: m.Path + path, Name: name, Kind: reason.ChoiceSetting,
		Value: value, Usual: usual, Changed: value != usual, Choices: choices,
	}
}

// list names lengths one after another.
func List(ls []length.Length) reason.Text {
	var t reason.Text
	for i, l := range ls {
		if i > 0 {
			t = append(t, words.Say("stage.comma")...)
		}
		t = append(t, reason.Say(l)...)
	}
	return t
}

func (m *Run) GatePath(gate int) string {
	return job.At(m.Path, "gates", m.Spec.Gates[gate].ID)
}

func (m *Run) BagStep(r *job.Rules, bag materials.Bag) reason.Step {
	which := m.Rule(r, "setting/bag")
	for _, b := range m.Cat.Bags {
		which.Choices = append(which.Choices, b.ID)
	}
	return reason.Step{Rule: words.Plain("stage.yield-of-a-bag"), Source: bag.Source,
		Says:     words.Say("stage.a-makes", words.V{"name": bag.Name, "yield": bag.Yield}),
		Settings: []reason.Setting{which}}
}

func Lower(s string) string { return strings.ToLower(s[:1]) + s[1:] }

func (m *Run) SoilSays() reason.Text {
	if m.soilKnown {
		return words.Say("stage.soil-and-what-it-is", words.V{"name": m.Soil.Name, "says": m.Soil.Says})
	}
	return words.Say("stage.not-known-taken-as-the", words.V{"name": Lower(m.Soil.Name)})
}

// placeOf finds what has an id among so many: most ids end with their number,
// so that is looked at first. It is −1 where there is none.
func PlaceOf(n int, id string, at func(int) string) int {
	tail := strings.TrimLeftFunc(id, func(r rune) bool { return r < '0' || r > '9' })
	if i, err := strconv.Atoi(tail); err == nil && i >= 1 && i <= n && at(i-1) == id {
		return i - 1
	}
	for i := range n {
		if at(i) == id {
			return i
		}
	}
	return -1
}

// aloneMost is the mass above which two people lift (common practice).
const AloneMost = 25 * length.Kilogram
