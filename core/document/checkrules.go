package document

import (
	"strconv"

	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/words"
)

// checkRules looks at what a run says about holes, and its kinds of post and
// single posts.
func checkRules(at string, r job.Run, u length.Units) Errors {
	e := checkHole(at, r.Hole, r.Setting, stoutest(r), u)
	for _, k := range r.Kinds {
		field := job.At(at, "kinds", string(k.Kind))
		e = append(e, checkHole(field, k.Hole, k.Setting, r.PostOf(k.Kind), u)...)
	}
	for _, s := range r.Overrides {
		field := job.At(at, "overrides", s.ID)
		e = append(e, onRun(field+"/at", s.At, r, u)...)
		e = append(e, checkHole(field, s.Hole, s.Setting, r.Post, u)...)
	}
	return e
}

// leastStep is the finest that a depth is rounded to: no digger marks finer.
const leastStep = length.Millimetre

// stoutest is the run's post that is widest across.
func stoutest(r job.Run) job.Post {
	if end := r.PostOf(job.EndPost); end.Across() > r.Post.Across() {
		return end
	}
	return r.Post
}

// leastHole is the least width of a hole, and leastFoot the least depth of a
// foot, that is set by hand; 0 takes back what is set farther out.
const (
	leastHole = 50 * length.Millimetre
	leastFoot = 100 * length.Millimetre
)

// checkHole looks at what one level says, for the post that it is said of.
func checkHole(at string, h job.HoleRules, s job.SettingRules, post job.Post, u length.Units) Errors {
	var e Errors
	refuse := func(field, given, allowed string) { e = append(e, FieldError{at + field, given, allowed}) }
	for _, l := range h.Augers {
		if l < 50 || l > 2000 {
			refuse("/hole/augers", u.Short(l), words.Plain("document.from-to", words.V{"least": u.Short(50), "most": u.Short(2000)}))
		}
	}
	across := post.Across()
	if h.Shape != nil && *h.Shape == job.SquareHole {
		across = post.Width
	}
	if w := h.Width; w != nil && *w != 0 && *w < max(leastHole, across) {
		refuse("/hole/width", u.Short(*w), words.Plain("document.at-least-the-post-across", words.V{"leastHole": u.Short(max(leastHole, across))}))
	}
	if d := h.Depth; d != nil && *d != 0 && *d < leastFoot {
		refuse("/hole/depth", u.Short(*d), words.Plain("document.at-least-or-0-to", words.V{"leastFoot": u.Short(leastFoot)}))
	}
	if d := h.RoundDepthTo; d != nil && *d != 0 && *d < leastStep {
		refuse("/hole/roundDepthTo", words.Plain("document.mm", words.V{"depth": plain(float64(*d))}), words.Plain("document.at-least-or-0-not", words.V{"leastStep": u.Short(leastStep)}))
	}
	if f := h.WideFactor; f != nil && *f > 0 && *f < 1 {
		refuse("/hole/wideFactor", plain(*f), words.Plain("document.0-or-from-1-to"))
	}
	if s.Inside != nil && *s.Inside != job.OpenInside && post.Width > 0 && !post.Hollow {
		refuse("/setting/inside", strconv.Quote(string(*s.Inside)), words.Plain("document.open-only-a-hollow-post"))
	}
	if c := s.Core; c != nil && post.Hollow && *c > post.Width-2*post.Wall {
		refuse("/setting/core", u.Short(*c), words.Plain("document.at-most-the-room-inside", words.V{"width": u.Short(post.Width - 2*post.Wall)}))
	}
	if w := s.CoreWall; w != nil && s.Core != nil && 2**w > *s.Core {
		refuse("/setting/coreWall", u.Short(*w), words.Plain("document.at-most-half-the-core", words.V{"core": u.Short(*s.Core / 2)}))
	}
	return e
}
