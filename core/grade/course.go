package grade

import (
	"slices"

	"mallow/core/gate"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/spacing"
	"mallow/core/survey"
)

// Course is the bays to be graded, in order, whatever runs they were taped in.
type Course struct {
	Fence     job.Fence
	Grade     job.Grade     // its parts are in the bays already
	Increment length.Length // of round steps
	Ground    survey.Profile
	Posts     []Post
	Bays      []Stretch

	// Rough asks only what earth a line takes: grade posts stand where the
	// search first finds as few as can be, and are not moved for smoothness.
	Rough bool
}

// Post is a place where bays meet.
type Post struct {
	Station length.Length
	Knot    bool           // a grade post that the user holds: a leaning top may break here
	Above   length.Length  // how far the post stands above the fence's top
	Corner  bool           // the line turns: tops meet here, and may break
	Gap     *length.Length // gap under the fence that the user holds here
}

// Stretch is one bay between its post and the next.
type Stretch struct {
	Look    job.Look
	Height  length.Length // of the fence here; 0 is the course's
	Gate    bool
	Half    length.Length // gate: half of each of its posts, so that the opening is from face to face
	LeafGap length.Length // over the highest ground across the opening; over a crown it is more
}

// NewCourse sets out a run's layout for grading.
func NewCourse(run job.Run, layout spacing.Layout, ground survey.Profile, u length.Units) Course {
	c := Course{
		Fence: run.Fence, Grade: run.Grade, Increment: run.Grade.Increment(u), Ground: ground,
		Posts: make([]Post, len(layout.Posts)), Bays: make([]Stretch, len(layout.Bays)),
	}
	for i, p := range layout.Posts {
		c.Posts[i] = Post{Station: p.Station, Above: run.PostOf(p.Kind).Above}
		if p.Held != spacing.Nothing {
			held := run.FixedPosts[p.Held]
			c.Posts[i].Knot, c.Posts[i].Gap = held.Grade, held.Gap
		}
	}
	if n := len(c.Posts); n > 1 {
		c.Posts[0].Gap = run.Grade.StartGap
		c.Posts[n-1].Gap = run.Grade.EndGap
	}
	for i, b := range layout.Bays {
		middle := (c.Posts[b.First].Station + c.Posts[b.First+1].Station) / 2
		c.Bays[i].Look, c.Bays[i].Height = run.Grade.LookAt(middle), run.HeightAt(middle)
		if b.Gate != spacing.NoGate {
			g, half := run.Gates[b.Gate], run.PostOf(job.GatePost).Width/2
			_, top := ground.Span(c.Posts[b.First].Station+half, c.Posts[b.First+1].Station-half)
			c.Bays[i].Gate, c.Bays[i].Half, c.Bays[i].LeafGap = true, half, g.Gap+gate.Across(ground, run, g)-top
		}
	}
	return c
}

// Join puts courses of the same fence end to end: the last post of each is the
// first of the next. At says where each begins, turns whether the line turns
// there.
func Join(courses []Course, at []length.Length, turns []bool) Course {
	out := courses[0]
	out.Posts, out.Bays = nil, nil
	var ground []job.GroundPoint
	for k, c := range courses {
		for i, p := range c.Posts {
			if p.Station += at[k]; i > 0 || k == 0 {
				out.Posts = append(out.Posts, p)
				continue
			}
			last := &out.Posts[len(out.Posts)-1]
			last.Above = max(last.Above, p.Above)
			if last.Corner = turns[k]; last.Gap == nil {
				last.Gap, last.Knot = p.Gap, last.Knot || p.Knot
			}
		}
		out.Bays = append(out.Bays, c.Bays...)
		for _, g := range c.Ground.Points() {
			ground = append(ground, job.GroundPoint{At: g.At + at[k], Height: g.Height})
		}
	}
	out.Ground = survey.NewProfile(ground, out.Posts[len(out.Posts)-1].Station)
	return out
}

// SolveRing grades a course that comes back to its first post. A leaning top
// meets itself there half way between where its two ends would lie, where
// that is in the corridor.
func SolveRing(c Course) Line {
	line := Solve(c)
	n := len(c.Bays)
	first, last := &c.Posts[0], &c.Posts[n]
	if !c.Bays[0].Look.Leans() || !c.Bays[n-1].Look.Leans() || first.Gap != nil && last.Gap != nil {
		return line
	}
	gap := (line.Bays[0].BottomStart-c.Ground.Height(first.Station))/2 + (line.Bays[n-1].BottomEnd-c.Ground.Height(last.Station))/2
	for _, held := range []*length.Length{first.Gap, last.Gap} {
		if held != nil {
			gap = *held
		}
	}
	if gap < c.Fence.GapLeast-length.Tolerance || gap > c.Fence.GapMost+length.Tolerance {
		return line
	}
	c.Posts = slices.Clone(c.Posts)
	c.Posts[0].Gap, c.Posts[n].Gap = &gap, &gap
	return Solve(c)
}

func (c Course) from(bay int) length.Length { return c.Posts[bay].Station }
func (c Course) to(bay int) length.Length   { return c.Posts[bay+1].Station }

// high is a bay's height of fence.
func (c Course) high(bay int) length.Length {
	if h := c.Bays[bay].Height; h > 0 {
		return h
	}
	return c.Fence.Height
}

// opening is the highest ground across a gate, face to face.
func (c Course) opening(bay int) length.Length {
	_, top := c.Ground.Span(c.from(bay)+c.Bays[bay].Half, c.to(bay)-c.Bays[bay].Half)
	return top
}

// corridor is what a bay of fence runs over: the ground's break points between
// its posts, and how much of its length each place stands for, half way to
// those beside it. At a gate it is empty.
type corridor struct {
	between     []place
	first, last float64 // lengths that its two posts stand for
}

// place is a break point of the ground, at a part of the bay's length.
type place struct{ part, ground, length float64 }

func corridors(c Course) []corridor {
	out := make([]corridor, len(c.Bays))
	var all []place
	for i, b := range c.Bays {
		if b.Gate {
			continue
		}
		n := len(all)
		from, to := c.from(i), c.to(i)
		last := from // the place before
		c.Ground.Each(from, to, func(at, ground length.Length) {
			if at <= from {
				return
			}
			// Half of the way between two places belongs to either.
			half := float64(at-last) / 2
			if len(all) == n {
				out[i].first = half
			} else {
				all[len(all)-1].length += half
			}
			if last = at; at >= to {
				out[i].last = half
				return
			}
			all = append(all, place{float64((at - from) / (to - from)), float64(ground), half})
		})
		out[i].between = all[n:len(all):len(all)]
	}
	return out
}

// bound is a height that a straight piece must not pass, at a part of its
// length.
type bound struct {
	part, height float64
}

// hull adds a point to the upper (side 1) or lower (side −1) hull that begins
// at first, taking away those that it hides.
func hull(h []bound, first int, b bound, side float64) []bound {
	for n := len(h); n >= first+2; n = len(h) {
		p, q := h[n-2], h[n-1]
		if side*((q.height-p.height)*(b.part-p.part)-(b.height-p.height)*(q.part-p.part)) > 0 {
			break
		}
		h = h[:n-1]
	}
	return append(h, b)
}
