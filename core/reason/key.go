package reason

import (
	"fmt"
	"strconv"
)

// Key is what makes two rules the same: all that is written of them.
func (s Step) Key() string {
	b := make([]byte, 0, 256)
	b = append(append(append(b, s.Rule...), 0), s.Source.Kind...)
	b = append(append(b, s.Source.Name...), 0)
	b = strconv.AppendBool(b, s.Governs)
	b = s.Says.key(b)
	for _, set := range s.Settings {
		b = append(append(append(append(b, set.Path...), set.From...), 0), fmt.Sprint(set.Value, set.Usual, set.Changed, set.Name)...)
	}
	return string(b)
}

// Key is what makes two explanations the same, whose rules are named by their
// places.
func (w Why) Key() string {
	b := make([]byte, 0, 256)
	b = append(append(append(b, w.Figure...), 0), w.Caution...)
	b = w.Sentence.key(b)
	for _, r := range w.Rules {
		b = append(strconv.AppendInt(b, int64(r), 36), ' ')
	}
	for _, a := range w.Asked {
		b = append(strconv.AppendFloat(b, float64(a), 'g', -1, 64), ' ')
	}
	return string(b)
}

func (t Text) key(b []byte) []byte {
	for _, p := range t {
		b = append(append(b, p.Kind...), p.Text...)
		if p.Kind != PlainText {
			b = strconv.AppendFloat(b, p.Value, 'g', -1, 64)
			b = append(b, p.System...)
		}
		b = append(b, 0)
	}
	return b
}
