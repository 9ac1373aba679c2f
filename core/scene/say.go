package scene

import (
	"math"
	"strconv"
	"strings"

	"mallow/core/length"
	"mallow/core/reason"
	"mallow/core/words"
)

func number(v float64) string { return strconv.FormatFloat(v, 'f', -1, 64) }

func kinds() string {
	names := make([]string, len(Kinds))
	for i, k := range Kinds {
		names[i] = string(k)
	}
	return strings.Join(names, ", ")
}

// text is what a label says, line by line. Messages are in four families, by
// the values that they take.
func (l *Label) text(u length.Units) []reason.Text {
	var t reason.Text
	join := ""
	add := func(more reason.Text) {
		if join != "" {
			t = t.Words(join)
		}
		t = append(t, more...)
		join = ", "
	}
	if l.Words != "" {
		t = t.Words(l.Words)
		join = " "
	}
	said := l.Size == nil
	for _, key := range l.Keys {
		switch {
		case key == "sags" && *l.Size < u.SmallestMark/2:
			add(words.Say("scene.size-sags-less", words.V{"size": u.SmallestMark}))
			said = true
		case words.Has("scene.both-" + key):
			add(words.Say("scene.both-"+key, words.V{"count": number(l.Count), "size": *l.Size}))
			said = true
		case words.Has("scene.size-" + key):
			add(words.Say("scene.size-"+key, words.V{"size": *l.Size}))
			said = true
		case words.Has("scene.count-" + key):
			add(words.Say("scene.count-"+key, words.V{"count": number(l.Count)}))
		default:
			add(words.Say("scene.say-" + key))
		}
	}
	if !said {
		if len(t) > 0 {
			t = t.Words(" ")
		}
		if l.Long {
			t = t.Tape(*l.Size)
		} else {
			t = t.Length(*l.Size)
		}
	}
	out := []reason.Text{t}
	if l.Wide != nil {
		out = append(out, reason.Say(*l.Wide))
	}
	return out
}

// Type is how wide words are, set at the size of one pixel.
type Type func(words string, strong bool) float64

// Asking is a type that asks whether to go on each time that it measures words: those
// are what takes long in a drawing of many posts.
func (t Type) Asking(look func()) Type {
	return func(words string, strong bool) float64 {
		look()
		return t(words, strong)
	}
}

// Sizes of type, in pixels.
const (
	Normal  = 13.5
	Strong  = 15.0
	leading = 1.22 // of a line, times the size
	descent = 0.24 // of the letters, times the size
)

// Screen is the type of the screen.
func Screen(text string, strong bool) float64 {
	widths := &normalWidths
	if strong {
		widths = &strongWidths
	}
	sum := 0.0
	for _, r := range text {
		switch {
		case r >= ' ' && r <= '~':
			sum += float64(widths[r-' '])
		case strings.ContainsRune("°·–−′″⁄", r):
			sum += 0.64 * 1000
		default:
			sum += 1000 // as wide as it is high: no letter of another script is wider
		}
	}
	return sum / 1000
}

// Widths of the letters from the blank to the tilde, thousandths of their
// size, of the type that ships with the application, as a browser sets them.
var (
	normalWidths = [95]int16{200, 292, 444, 583, 541, 966, 729, 246, 357, 357, 407, 636, 300, 333, 300, 298, 579, 579, 579, 579, 579, 579, 579, 579, 579, 579, 336, 336, 636, 636, 636, 613, 998, 709, 706, 721, 728, 672, 609, 794, 732, 282, 585, 695, 570, 844, 732, 782, 670, 782, 717, 667, 619, 724, 671, 954, 686, 677, 634, 339, 298, 339, 636, 507, 214, 556, 592, 547, 592, 561, 295, 591, 584, 252, 250, 543, 252, 861, 584, 598, 592, 592, 362, 541, 314, 583, 529, 758, 546, 529, 509, 394, 245, 394, 636}
	strongWidths = [95]int16{196, 301, 456, 600, 556, 973, 764, 253, 364, 364, 407, 641, 307, 333, 307, 300, 598, 598, 598, 598, 598, 598, 598, 598, 598, 598, 335, 335, 641, 641, 641, 613, 1001, 724, 722, 733, 739, 683, 622, 802, 754, 301, 603, 725, 591, 872, 754, 793, 681, 793, 730, 679, 641, 748, 694, 964, 706, 699, 653, 350, 300, 350, 641, 518, 233, 580, 608, 573, 608, 584, 313, 607, 602, 267, 264, 570, 267, 891, 602, 613, 608, 608, 380, 556, 342, 601, 547, 798, 572, 547, 519, 393, 253, 393, 641}
)

func hundredth(v float64) float64 { return math.Round(v*100) / 100 }

func radians(degrees float64) float64 { return degrees * math.Pi / 180 }
