package curbing

import (
	"math"

	"mallow/core/curb"
	"mallow/core/footing"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/pour"
	"mallow/core/stage/build"
)

// Compute plans a run's curb, or none.
func Compute(b *build.Build, ends [2]End) *CurbPlan {
	if b.Given.Curb == nil || !b.Laid() || len(b.Posts) < 2 {
		return nil
	}
	u := b.Job.Units
	s := b.Given.Curb.Filled(u)
	c := &CurbPlan{Width: s.Width, Depth: s.Depth, Above: s.Above, Off: s.Off, Past: *s.Past, Most: s.Joints, Gates: s.Gates,
		Parts: []CurbPart{}, Pours: []CurbPour{}, Marks: []CurbMark{}, Bag: b.Bag, Waste: b.RunRules().Setting.Waste, Board: b.Cat.Pouring.Curb.Boards[u.System]}
	w := planner{Build: b, out: c, ends: ends}
	w.parts()
	w.pours()
	w.marks()
	w.forms()
	w.stands()
	return c
}

// planner plans one curb.
type planner struct {
	*build.Build
	out   *CurbPlan
	ends  [2]End
	at    []length.Length // posts, along the ground
	bayOf []int           // part that a bay lies in, or -1
}

// crosses tells whether there is curb in a bay.
func (w *planner) crosses(bay int) bool {
	return w.Bays[bay].Gate == "" || w.out.Gates == job.CurbThrough
}

// parts finds the stretches, from post to post and on past the ends.
func (w *planner) parts() {
	c := w.out
	w.at = make([]length.Length, len(w.Posts))
	w.bayOf = make([]int, len(w.Bays))
	for i := range w.Bays {
		w.at[i+1] = w.at[i] + w.Bays[i].OnGround
		w.bayOf[i] = -1
	}
	for i := range w.Bays {
		if !w.crosses(i) {
			continue
		}
		if i == 0 || !w.crosses(i-1) {
			c.Parts = append(c.Parts, CurbPart{From: w.at[i] - c.Past, Begin: w.Posts[i].Station - c.Past})
		}
		w.bayOf[i] = len(c.Parts) - 1
		c.Parts[w.bayOf[i]].To, c.Parts[w.bayOf[i]].Stop = w.at[i+1]+c.Past, w.Posts[i+1].Station+c.Past
	}
	if len(c.Parts) == 0 {
		return
	}
	if first := &c.Parts[0]; w.ends[0].Meets && w.bayOf[0] == 0 {
		if _, start, ok := curb.Miter(w.ends[0].Turn, w.ends[0].Off, c.Off); ok {
			first.From, first.Begin, first.Start = -start, -start, true
		} else {
			c.square[0] = true
		}
	}
	if last := &c.Parts[len(c.Parts)-1]; w.ends[1].Meets && w.bayOf[len(w.Bays)-1] == len(c.Parts)-1 {
		if end, _, ok := curb.Miter(w.ends[1].Turn, c.Off, w.ends[1].Off); ok {
			last.To, last.Stop, last.End = w.at[len(w.at)-1]+end, w.Posts[len(w.Posts)-1].Station+end, true
		} else {
			c.square[1] = true
		}
	}
	for _, p := range c.Parts {
		c.Length += p.To - p.From
	}
}

// pours finds what is poured from post to post: the strip, less the posts that stand in
// it and the concrete that is counted in their holes. A post's share is with the bay
// that ends at it, the first one's with the bay that begins there.
func (w *planner) pours() {
	c := w.out
	section := length.Area(c.Width.Metres() * c.Depth.Metres())
	for i := range w.Bays {
		k := w.bayOf[i]
		if k < 0 {
			continue
		}
		from, to := w.at[i], w.at[i+1]
		if i == 0 || w.bayOf[i-1] != k {
			from = c.Parts[k].From
		}
		if i == len(w.Bays)-1 || w.bayOf[i+1] != k {
			to = c.Parts[k].To
		}
		p := CurbPour{Bay: w.Bays[i].Label, Length: to - from, Volume: section.Times(to - from)}
		trench := length.Area(c.Width.Metres() * (c.Depth - c.Above).Metres()).Times(to - from)
		posts := []int{i + 1}
		if i == 0 || w.bayOf[i-1] != k {
			posts = append(posts, i)
		}
		for _, n := range posts {
			post, hole, dug := w.taken(n)
			p.Volume -= post + hole
			c.InHoles += hole
			trench -= dug
		}
		p.Volume = max(0, p.Volume)
		p.Buy = p.Volume * length.Volume(1+c.Waste)
		c.Dug += max(0, trench)
		c.Concrete, c.Buy = c.Concrete+p.Volume, c.Buy+p.Buy
		c.Pours = append(c.Pours, p)
	}
}

// taken is what a post takes of the curb's section: itself, concrete that is in its
// hole, and what of the trench the hole has dug already. A corner post is the run's that
// ends there.
func (w *planner) taken(i int) (post, hole, dug length.Volume) {
	c, p := w.out, &w.Posts[i]
	if p.Shared != "" {
		return 0, 0, 0
	}
	in := w.reach(i)
	own := curb.Under(p.Width, !p.Round, in)
	post = own.Times(c.Depth)
	if p.Card < 0 {
		return post, 0, 0
	}
	d := &w.Designs[p.Card]
	bottom := c.Depth - c.Above
	for _, l := range d.Fill.Layers {
		from, to := max(l.From, -c.Above), min(l.To, bottom)
		if to <= from || l.Volume <= 0 {
			continue
		}
		ring := (curb.Under(d.Shape.Mean(from, to), d.Shape.Square, in) - own).Times(to - from)
		if l.Kind == footing.ConcreteLayer || l.Kind == footing.RocksLayer {
			hole += max(0, ring)
		}
	}
	if foot := min(bottom, p.HoleDepth); foot > 0 {
		dug = curb.Under(d.Shape.Mean(0, foot), d.Shape.Square, in).Times(foot)
	}
	return post, hole, dug
}

// reach is how far the strip goes round a post's middle. Round a corner it goes on.
func (w *planner) reach(i int) curb.Reach {
	c := w.out
	const on = 10 * length.Metre
	in := curb.Reach{Before: on, After: on, Low: c.Off - c.Width/2, High: c.Off + c.Width/2}
	before, after := w.around(i)
	if first := i == 0 && w.bayOf[0] >= 0 && c.Parts[0].Start; !before && !first {
		in.Before = c.Past
	}
	if last := i == len(w.Posts)-1 && w.bayOf[i-1] >= 0 && c.Parts[len(c.Parts)-1].End; !after && !last {
		in.After = c.Past
	}
	return in
}

// marks are the posts and the joints, along the forms: one at each post, where a curb
// cracks first, and evenly between.
func (w *planner) marks() {
	c := w.out
	for i := range w.Posts {
		before, after := w.around(i)
		if before || after {
			c.Marks = append(c.Marks, CurbMark{At: w.at[i], Post: w.Posts[i].Label, Joint: before && after})
		}
		if !after {
			continue
		}
		bay := w.at[i+1] - w.at[i]
		n := curb.Parts(bay, c.Most)
		for k := 1; k < n; k++ {
			c.Marks = append(c.Marks, CurbMark{At: w.at[i] + bay*length.Length(k)/length.Length(n), Joint: true})
		}
	}
}

// forms are the boards on both sides and at the ends, and the stakes that hold them.
func (w *planner) forms() {
	c := w.out
	every := w.Cat.Pouring.Curb.Stakes[w.Job.Units.System]
	for _, p := range c.Parts {
		c.Forms += 2 * (p.To - p.From)
		c.Stakes += 2 * (int(math.Ceil(float64((p.To-p.From)/every)-1e-9)) + 1)
		for _, joined := range []bool{p.Start, p.End} {
			if !joined {
				c.Forms += c.Width
			}
		}
	}
	c.Boards = pour.Whole(float64(c.Forms / c.Board))
}

// stands finds how near the fence comes to the curb's top, and how much concrete stands
// beside the posts.
func (w *planner) stands() {
	c := w.out
	for i := range w.Bays {
		b := &w.Bays[i]
		if w.bayOf[i] < 0 {
			continue
		}
		if gap := b.GapLeast.Gap - c.Above; c.LeastAt == "" || gap < c.Least {
			c.Least, c.LeastAt = gap, b.Label
		}
	}
	for i := range w.Posts {
		before, after := w.around(i)
		if !before && !after {
			continue
		}
		p := &w.Posts[i]
		if beside := c.Width/2 - c.Off.Abs() - p.Width/2; c.BesideAt == "" || beside < c.Beside {
			c.Beside, c.BesideAt = beside, p.Label
		}
	}
}

// around tells whether there is curb before a post, and after it.
func (w *planner) around(i int) (before, after bool) {
	return i > 0 && w.bayOf[i-1] >= 0, i < len(w.Bays) && w.bayOf[i] >= 0
}
