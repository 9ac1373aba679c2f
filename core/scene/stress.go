package scene

import (
	"math"
	"slices"

	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/stage/space"
)

// stress adds what a stage of the work is about.
func (r *run) stress() {
	switch r.v.Stress {
	case Walking:
		for i := range r.Ground {
			if g := &r.Ground[i]; g.Path != "" && g.At >= r.from && g.At <= r.to {
				r.s.say(Label{Class: Measure, Of: r.ID, At: Point{r.x(g.At), float64(g.Height)}, Put: Under, Off: 13, Rank: 5, Size: size(g.Height)})
			}
		}
	case Strings:
		r.hung()
	case Spacing:
		r.spaced()
	case Grading:
		r.graded()
	case Digging, Pouring:
		r.dug()
	case OnPaper:
		r.frosted()
	}
	if r.v.Stress == Spacing || r.v.Stress == OnPaper {
		r.kept()
	}
}

// wideEnough is how wide a bay is that words stand in.
const wideEnough = 2000

// frosted says how deep frost goes, between two posts of the stretch, clear
// of their holes.
func (r *run) frosted() {
	if r.Frost == nil || r.whole && r.off > 0 { // said once of a line
		return
	}
	best := 0 // the first one that is wide enough, or else the widest
	wide := func(i int) length.Length { return min(r.Posts[i].Station-r.Posts[i-1].Station, wideEnough) }
	for i := max(1, r.first+1); i < r.last; i++ {
		if r.Posts[i-1].Station >= r.left-1 && r.Posts[i].Station <= r.right+1 && r.Bays[i-1].Gate == "" && (best == 0 || wide(i) > wide(best)) {
			best = i
		}
	}
	if best > 0 {
		mid := (r.Posts[best-1].Station + r.Posts[best].Station) / 2
		r.s.say(Label{Class: FrostLine, Of: r.ID, At: Point{r.x(mid), r.height(mid) - float64(*r.Frost)}, Put: Over, Off: 4, Rank: 1, Keys: []string{"frost"}, Size: r.Frost})
	}
}

// dug says how deep each hole is, or what is poured into it.
func (r *run) dug() {
	r.frosted()
	if !r.spread() {
		return
	}
	for i := r.first; i < r.last; i++ {
		p := &r.Posts[i]
		l := Label{Class: Measure, Of: r.of(p.ID), At: Point{r.x(p.Station), float64(p.Ground - p.HoleDepth)}, Put: Under, Off: 3, Rank: 2}
		switch {
		case r.v.Stress == Digging:
			l.Size = size(p.HoleDepth)
		case r.setting(p) != nil:
			l.Words = r.setting(p).Says
		case p.Bags > 0:
			l.Keys, l.Count = []string{"bags"}, math.Round(p.Bags*10)/10
		case p.Card >= 0 && r.Cards[p.Card].Stone > 0:
			l.Keys = []string{"stone"}
		default:
			l.Keys = []string{"nothing"}
		}
		r.s.say(l)
	}
}

// graded shows the corridor that the fence's bottom runs in, its least and its
// most gap, and the ground to cut and to fill.
func (r *run) graded() {
	var least, most *bay
	for i := range r.Bays {
		b := &r.Bays[i]
		if b.Gate != "" {
			continue
		}
		if least == nil || b.GapLeast.Gap < least.GapLeast.Gap {
			least = b
		}
		if most == nil || b.GapMost.Gap > most.GapMost.Gap {
			most = b
		}
	}
	if r.v.Least != nil && r.v.Most != nil {
		for i := r.first; i < r.last-1; i++ {
			if r.Bays[i].Gate != "" {
				continue
			}
			k := i + 1
			for k < r.last-1 && r.Bays[k].Gate == "" {
				k++
			}
			low := r.surface(r.Ground, r.Posts[i].Station, r.Posts[k].Station)
			band := raised(low, *r.v.Least)
			for n := len(low) - 2; n >= 0; n -= 2 {
				band = append(band, low[n], low[n+1]+float64(*r.v.Most))
			}
			r.s.area(Corridor, "", r.of(r.Bays[i].ID), band...)
			i = k - 1
		}
	}
	if least != nil {
		for _, g := range []struct {
			key string
			at  length.Length
			gap length.Length
			of  string
		}{{"least", least.GapLeast.At, least.GapLeast.Gap, least.ID}, {"most", most.GapMost.At, most.GapMost.Gap, most.ID}} {
			if g.at < r.from || g.at > r.to {
				continue
			}
			x, y := r.x(g.at), r.height(g.at)
			r.s.line(Gap, r.of(g.of), x, y, x, y+float64(g.gap))
			r.s.say(Label{Class: Gap, Of: r.of(g.of), At: Point{x, y}, Put: Under, Off: 6, Rank: 0, Strong: true, Keys: []string{g.key}, Size: size(g.gap)})
		}
	}
	for i := r.first; i < r.last-1; i++ {
		b := &r.Bays[i]
		e, key := b.Fill, "fill"
		if e == nil {
			e, key = b.Cut, "cut"
		}
		if e == nil {
			continue
		}
		x1, x2 := r.x(r.Posts[i].Station), r.x(r.Posts[i+1].Station)
		r.s.say(Label{Class: Earth, Of: r.of(b.ID), At: Point{(x1 + x2) / 2, max(float64(b.TopStart), float64(b.TopEnd))}, Put: Over, Off: 4, Rank: 1, Room: x2 - x1, Keys: []string{key}, Size: size(r.units.Dug(e.Depth))})
	}
}

func raised(line []float64, by length.Length) []float64 {
	out := append([]float64{}, line...)
	for i := 1; i < len(out); i += 2 {
		out[i] += float64(by)
	}
	return out
}

// spaced shows each stretch's regular bay, the bays that are odd or take a cut
// piece, and holes that run into something.
func (r *run) spaced() {
	for i := range r.Segments {
		g := &r.Segments[i]
		if g.To < r.from || g.From > r.to {
			continue
		}
		a, b := max(r.x(g.From), r.x(r.from)), min(r.x(g.To), r.x(r.to))
		l := Label{Class: Measure, Of: g.Gate, At: Point{a, 0}, To: &Point{b, 0}, Put: RowOver, Rank: 1, Room: b - a, Size: size(g.Each)}
		switch {
		case g.Gate != "":
			if c := r.clear(g); c > 0 {
				l.Size, l.Keys = size(c), []string{"clear"}
			}
		case g.Bays == 1:
			l.Size = size(g.To - g.From)
		default:
			l.Keys, l.Count = []string{"bays"}, float64(g.Bays-g.Odd)
		}
		r.s.say(l)
	}
	for i := r.first; i < r.last-1; i++ {
		b := &r.Bays[i]
		if b.Gate != "" || !b.Odd && !b.PieceCut && b.Held == "" {
			continue
		}
		x1, x2 := r.x(r.Posts[i].Station), r.x(r.Posts[i+1].Station)
		r.s.area(Odd, "", r.of(b.ID), x1, float64(b.BottomStart), x2, float64(b.BottomEnd), x2, float64(b.TopEnd), x1, float64(b.TopStart))
		l := Label{Class: Odd, Of: r.of(b.ID), At: Point{(x1 + x2) / 2, float64(b.BottomStart+b.BottomEnd+b.TopStart+b.TopEnd) / 4}, Rank: 1, Strong: true, Room: x2 - x1, Size: size(b.CentreToCentre)}
		if b.PieceCut {
			l.Size = size(b.Piece)
		}
		switch {
		case b.Held != "":
			l.Keys = []string{"held"}
		case b.PieceCut:
			l.Keys = []string{"cut-piece"}
		}
		r.s.say(l)
	}
	for i := r.first; i < r.last; i++ {
		p := &r.Posts[i]
		if len(p.InWay) == 0 {
			continue
		}
		half, ground := float64(p.HoleWidth)/2, float64(p.Ground)
		r.s.box(Layer{Class: Hits, Least: 8}, r.of(p.ID), r.x(p.Station)-half, ground-max(float64(p.HoleDepth), 300), r.x(p.Station)+half, ground)
	}
}

// clear is the way between the posts of a gate's stretch.
func (r *run) clear(g *space.Segment) length.Length {
	i := slices.IndexFunc(r.Posts, func(p post) bool { return length.Same(p.Station, g.From) })
	if i < 0 || i >= len(r.Bays) {
		return 0
	}
	return r.Bays[i].Clear
}

// kept marks the posts that are held where they are, and old ones that stay.
func (r *run) kept() {
	for i := r.first; i < r.last; i++ {
		p := &r.Posts[i]
		x, half := r.x(p.Station), float64(p.Width)/2
		switch {
		case p.Held != "":
			r.s.mark(Held, r.of(p.ID), x, float64(p.Top), 0)
		case p.Stays != "":
			r.s.box(Layer{Class: Stays, Least: 10}, r.of(p.ID), x-half, float64(p.Ground), x+half, float64(p.Top))
		}
	}
}

// exaggerations are what a sag may be drawn larger by: round numbers.
var exaggerations = []float64{1, 2, 5, 10, 20, 50, 100, 200, 500, 1000}

// seen is how many pixels deep a sag is drawn at the least.
const seen = 10

// hung draws the strings from the side: the height string hanging from prop to
// prop, its sag drawn larger than it is and its true figure said; the alignment
// string low over the ground.
func (r *run) hung() {
	t := r.String
	if t == nil || r.whole {
		return
	}
	x1, x2 := r.x(0), r.x(r.Length)
	r.s.line(Straight, r.ID, x1, float64(t.HighStart), x2, float64(t.HighEnd))
	if t.Position == job.BySight {
		r.s.say(Label{Class: Sight, Of: r.ID, At: Point{(x1 + x2) / 2, float64(t.HighStart+t.HighEnd) / 2}, Put: Over, Off: 4, Strong: true, Must: true, Keys: []string{"line-of-sight"}, Size: size(t.Mark)})
		return
	}
	deepest := t.Hang[0]
	for _, h := range t.Hang {
		if h.Sag > deepest.Sag {
			deepest = h
		}
	}
	times := 1.0
	if pixels := float64(deepest.Sag) / max(r.tall(), 1e-9); pixels > 0 {
		times = exaggerations[len(exaggerations)-1]
		for _, k := range exaggerations {
			if pixels*k >= seen {
				times = k
				break
			}
		}
	}
	var hung []float64
	for i, h := range t.Hang {
		hung = append(hung, r.x(h.At), float64(h.Height)-float64(h.Sag)*times)
		if i > 0 && i < len(t.Hang)-1 && h.Sag < 1e-9 { // between its ends it hangs from nothing but its props
			r.s.line(Prop, r.ID, r.x(h.At), r.height(h.At), r.x(h.At), float64(h.Height))
			r.s.mark(Prop, r.ID, r.x(h.At), float64(h.Height), 0)
		}
	}
	r.s.line(String, r.ID, hung...)
	a, b := -float64(t.Beyond)+r.off, r.x(r.Length+t.Beyond)
	r.s.line(LowString, r.ID, a, float64(t.LowStart), b, float64(t.LowEnd))
	r.s.line(Stake, r.ID, a, r.height(0), a, float64(t.LowStart)+40)
	r.s.line(Stake, r.ID, b, r.height(r.Length), b, float64(t.LowEnd)+40)
	l := Label{Class: String, Of: r.ID, At: Point{r.x(deepest.At), float64(deepest.Height) - float64(deepest.Sag)*times}, Put: Under, Off: 4, Strong: true, Must: true, Keys: []string{"sags"}, Size: size(deepest.Sag)}
	if times > 1 {
		l.Keys, l.Count = append(l.Keys, "drawn-larger"), times
	}
	r.s.say(l)
}

// tall is how many millimetres of height a pixel is.
func (r *run) tall() float64 {
	if r.v.Frame.Y != nil {
		return 1 / r.v.Frame.Y.Scale
	}
	return 20 // of a strip of paper
}
