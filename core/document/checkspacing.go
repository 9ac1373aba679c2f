package document

import (
	"fmt"
	"slices"
	"sort"
	"strconv"
	"strings"

	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/words"
)

// checkSystems looks at the user's own fence systems.
func checkSystems(all []job.System) Errors {
	var e Errors
	for _, s := range all {
		at := job.At("/systems", s.ID)
		e = append(e, checkParts(at, s.Parts, length.Usual(s.System))...)
		for k, a := range s.Cannot {
			if !slices.Contains(job.Abilities, a) {
				known := make([]string, len(job.Abilities))
				for n, b := range job.Abilities {
					known[n] = string(b)
				}
				e = append(e, FieldError{fmt.Sprintf("%s/cannot/%d", at, k), strconv.Quote(string(a)), strings.Join(known, ", ")})
			}
		}
		for k, m := range s.Allowed {
			if !slices.Contains(job.Methods, m) {
				e = append(e, FieldError{fmt.Sprintf("%s/allowed/%d", at, k), strconv.Quote(string(m)), knownMethods()})
			}
		}
	}
	return e
}

func knownMethods() string {
	out := make([]string, len(job.Methods))
	for i, m := range job.Methods {
		out[i] = string(m)
	}
	return strings.Join(out, ", ")
}

// shortestBay is the least bay that a piece may set, so that posts do not
// stand in one another.
const shortestBay = 150 * length.Millimetre

func checkSpacing(at string, r job.Run, u length.Units) Errors {
	s := r.Spacing
	what, ok := s.ByPiece()
	if !ok {
		return nil
	}
	field := at + "/spacing/piece"
	regular := s.Regular(r.Post.Width, r.Post.Width)
	switch {
	case s.Piece == 0:
		return Errors{{field, "nothing", words.Plain("document.the-length-of-which-sets", words.V{"what": what})}}
	case regular < max(shortestBay, 2*r.Post.Width):
		return Errors{{field, u.Short(s.Piece), words.Plain("document.long-enough-for-a-bay", words.V{"shortestBay": u.Short(max(shortestBay, 2*r.Post.Width)), "regular": u.Short(regular)})}}
	case s.Least != nil && *s.Least > regular:
		return Errors{{at + "/spacing/least", u.Short(*s.Least), words.Plain("document.at-most-the-regular-bay", words.V{"regular": u.Short(regular)})}}
	}
	return nil
}

// place is something that stands on a run, for looking whether two are in
// each other's way.
type place struct {
	field, what string
	from, to    length.Length // centres of its posts
}

// checkHeld refuses held posts and bays that are off the run, in a gate, or
// in one another.
func checkHeld(at string, r job.Run, u length.Units) Errors {
	var e Errors
	var held, all []place
	for _, f := range r.FixedPosts {
		field := job.At(at, "fixedPosts", f.ID)
		held = append(held, place{field + "/at", words.Plain("document.held-post"), f.At, f.At})
	}
	for _, b := range r.HeldBays {
		field := job.At(at, "heldBays", b.ID)
		held = append(held, place{field + "/at", words.Plain("document.held-bay"), b.At, b.At + b.Width})
	}
	for _, h := range held {
		if h.to > *r.Length+length.Tolerance {
			e = append(e, FieldError{h.field, u.Tape(h.from), words.Plain("document.a-station-such-that-the", words.V{"what": h.what, "value": u.Tape(max(0, *r.Length-(h.to-h.from)))})})
		}
	}
	if len(e) > 0 {
		return e
	}
	if len(held) == 0 {
		return nil
	}
	all = append(all, place{"", words.Plain("document.runs-first-post"), 0, 0}, place{"", words.Plain("document.runs-last-post"), *r.Length, *r.Length})
	for _, g := range r.Gates {
		first, second := r.GatePosts(g)
		all = append(all, place{"", words.Plain("document.gate-at", words.V{"at": u.Tape(g.At)}), first, second})
	}
	all = append(all, held...)
	sort.SliceStable(all, func(a, b int) bool { return all[a].from < all[b].from })
	for i := 1; i < len(all); i++ {
		a, b := all[i-1], all[i]
		// They may share a post; else the posts must stand clear of each other.
		apart := b.from - a.to
		share := apart.Abs() <= length.Tolerance && (a.from < a.to || b.from < b.to)
		if a.field == "" && b.field == "" || share || apart >= r.Post.Width-length.Tolerance {
			continue
		}
		if b.field == "" {
			a, b = b, a
		}
		e = append(e, FieldError{b.field, u.Tape(b.from), words.Plain("document.clear-of-the-by-a", words.V{"what": a.what + from(a, u), "width": u.Short(r.Post.Width)})})
	}
	return e
}

func from(p place, u length.Units) string {
	if p.field == "" {
		return ""
	}
	return words.Plain("document.at", words.V{"from": u.Tape(p.from)})
}
