package plan

import (
	"strconv"

	"mallow/core/length"
	"mallow/core/reason"
)

var (
	practice = reason.Source{Kind: reason.Practice}
	geometry = reason.Source{Kind: reason.Geometry}
	yours    = reason.Source{Kind: reason.Yours}
)

// steps returns the rules behind a figure, written once and shared by all
// figures of that key. Those who change them clone them first.
func (m *maker) steps(key any, write func() []reason.Step) []reason.Step {
	if s, ok := m.shared[key]; ok {
		return s
	}
	s := write()
	m.shared[key] = s
	return s
}

// measured is a length setting of the run with its usual value.
func (m *maker) measured(path, name string, value, usual length.Length) reason.Setting {
	return reason.Setting{
		Path: m.path + path, Name: name, Kind: reason.LengthSetting,
		Value: value, Usual: usual, Changed: !length.Same(value, usual),
	}
}

// byHand is a length setting that is usually not set.
func (m *maker) byHand(path, name string, value *length.Length) reason.Setting {
	s := reason.Setting{Path: m.path + path, Name: name, Kind: reason.LengthSetting, Changed: value != nil}
	if value != nil {
		s.Value = *value
	}
	return s
}

func (m *maker) choice(path, name, value, usual string, choices ...string) reason.Setting {
	return reason.Setting{
		Path: m.path + path, Name: name, Kind: reason.ChoiceSetting,
		Value: value, Usual: usual, Changed: value != usual, Choices: choices,
	}
}

func plural(n int, one, many string) string {
	if n == 1 {
		return one
	}
	return many
}

// list names lengths one after another.
func list(ls []length.Length) reason.Text {
	var t reason.Text
	for i, l := range ls {
		if i > 0 {
			t = append(t, reason.Say(", ")...)
		}
		t = append(t, reason.Say(l)...)
	}
	return t
}

func (m *maker) gatePath(gate int) string {
	return m.path + "/gates/" + strconv.Itoa(m.gates[gate])
}
