package document

import (
	"sort"

	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/words"
)

// CheckGates returns which gates do not fit on a run of this length.
func CheckGates(at string, r job.Run, u length.Units) Errors { return checkGates(at, r, u) }

// The limits of a gate's inside measure and of the width of one leaf, however
// it was sized.
const (
	leastInside = 300 * length.Millimetre
	mostInside  = 12 * length.Metre
	leastLeaf   = 150 * length.Millimetre
)

func checkGates(at string, r job.Run, u length.Units) Errors {
	var e Errors
	order := make([]int, len(r.Gates))
	for i, g := range r.Gates {
		order[i] = i
		field := job.At(at, "gates", g.ID)
		if own := checkGate(field, g, u); len(own) > 0 {
			e = append(e, own...)
			continue
		}
		half := (g.Inside() + r.PostOf(job.GatePost).Width) / 2
		first, second := r.GatePosts(g)
		name, given := sizedBy(g, u)
		switch {
		case 2*half > *r.Length+length.Tolerance:
			e = append(e, FieldError{field + name, given, words.Plain("document.an-inside-measure-of-at", words.V{"length": u.Short(*r.Length - r.PostOf(job.GatePost).Width)})})
		case first < -length.Tolerance || second > *r.Length+length.Tolerance:
			e = append(e, FieldError{field + "/at", u.Tape(g.At),
				words.Plain("document.the-middle-of-the-opening", words.V{"half": u.Tape(half), "length": u.Tape(*r.Length - half)})})
		}
	}
	if len(e) > 0 {
		return e
	}
	sort.SliceStable(order, func(a, b int) bool { return r.Gates[order[a]].At < r.Gates[order[b]].At })
	for k := 1; k < len(order); k++ {
		_, before := r.GatePosts(r.Gates[order[k-1]])
		first, _ := r.GatePosts(r.Gates[order[k]])
		if first < before-length.Tolerance {
			e = append(e, FieldError{job.At(at, "gates", r.Gates[order[k]].ID, "at"), u.Tape(r.Gates[order[k]].At),
				words.Plain("document.at-least-clear-of-the", words.V{"at": u.Tape(r.Gates[order[k]].At + before - first)})})
		}
	}
	return e
}

// sizedBy is the field that a gate is sized by, and what was given there.
func sizedBy(g job.Gate, u length.Units) (field, given string) {
	switch {
	case g.Leaf != nil:
		return "/leaf", u.Short(*g.Leaf)
	case g.Clear != nil:
		return "/clear", u.Short(*g.Clear)
	}
	return "/opening", u.Short(g.Opening)
}

// checkGate looks at what a gate says by itself.
func checkGate(at string, g job.Gate, u length.Units) Errors {
	if g.Leaf != nil && g.Clear != nil {
		return Errors{{at + "/clear", u.Short(*g.Clear), words.Plain("document.nothing-while-the-leafs-width")}}
	}
	var e Errors
	field, given := sizedBy(g, u)
	inside := g.Inside()
	switch {
	case inside < leastInside-length.Tolerance || inside > mostInside+length.Tolerance:
		e = append(e, FieldError{at + field, given, words.Plain("document.what-makes-an-inside-measure", words.V{"leastInside": u.Short(leastInside), "mostInside": u.Short(mostInside), "inside": u.Short(inside)})})
	case g.Kind != job.SlideGate && inside-g.Gaps() < length.Length(g.LeafCount())*leastLeaf:
		e = append(e, FieldError{at + field, given, words.Plain("document.room-for-leaves-of-at", words.V{"leastLeaf": u.Short(leastLeaf), "gaps": u.Short(g.Gaps())})})
	case g.LeafCount() == 2 && g.Second != nil && g.LeafWidths()[0] < leastLeaf:
		e = append(e, FieldError{at + "/second", u.Short(*g.Second), words.Plain("document.at-most-which-leaves-the", words.V{"inside": u.Short(inside - g.Gaps() - leastLeaf), "leastLeaf": u.Short(leastLeaf)})})
	}
	for _, ground := range []struct {
		side string
		list []job.GroundLevel
	}{{"in", g.In}, {"out", g.Out}} {
		side, list := ground.side, ground.list
		for i := 1; i < len(list); i++ {
			if list[i].Off <= list[i-1].Off+length.Tolerance {
				e = append(e, FieldError{job.At(at, side, list[i].ID, "off"), u.Short(list[i].Off), words.Plain("document.farther-out-than-the-one", words.V{"off": u.Short(list[i-1].Off)})})
			}
		}
	}
	return e
}
