package scene

import (
	"math"

	"mallow/core/length"
	"mallow/core/plan"
	"mallow/core/stage/record"
	"mallow/core/words"
)

// Shares of a strip chart: of the run's length, so that it looks the same however long
// the run is.
const (
	stripHigh   = 0.055 // half of the strip from above
	stripPost   = 0.085 // a post in the strip from the side
	stripApart  = 0.05  // between them
	stripMargin = 0.02
	stripThin   = 0.0018 // half a post's width
	least       = 2.5    // times what may be fits into half a strip, where nothing is worse
)

// strips draws a run as it was measured: from above, each post beside the string with
// its lean across the fence, and from the side, each with its lean along it and its top.
// What is off is drawn so many times larger that the worst fills the strip; the band is
// what is let go.
func strips(p plan.Plan, r *plan.Run) Scene {
	var s Scene
	if p.Log == nil || r.Length <= 0 {
		return s
	}
	seen := map[string]*record.RecordPost{}
	for i := range p.Log.Posts {
		seen[p.Log.Posts[i].ID] = &p.Log.Posts[i]
	}
	long := float64(r.Length)
	half, post := long*stripHigh, long*stripPost
	allowed := p.Log.May(r.ID)
	if allowed.Line == nil || allowed.Plumb == nil {
		return s
	}
	may := struct{ line, plumb float64 }{float64(*allowed.Line), float64(*allowed.Plumb)}
	off := func(l *length.Length) float64 {
		if l == nil {
			return 0
		}
		return float64(*l)
	}
	worstLine, worstLean := least*may.line, least*may.plumb
	for i := range r.Posts {
		if o := seen[r.Posts[i].ID]; o != nil {
			worstLine = max(worstLine, math.Abs(off(o.Off)), math.Abs(off(o.Off)+off(o.Across)))
			worstLean = max(worstLean, math.Abs(off(o.Plumb)), math.Abs(off(o.Top)))
		}
	}
	up, lean := nice(half/worstLine), nice(min(half, post)/worstLean)
	thin := long * stripThin
	foot := -half - long*stripApart - post // of the posts from the side
	s.Box = &Box{Point{-long * stripMargin, foot - half*0.4}, Point{long * (1 + stripMargin), half * 1.15}}

	band := may.line * up
	s.area(Corridor, "", "", 0, -band, long, -band, long, band, 0, band)
	s.line(String, "", 0, 0, long, 0)
	s.line(Straight, "", 0, foot+post, long, foot+post)
	s.line(GroundLine, "", 0, foot, long, foot)
	var tops []float64
	for i := range r.Posts {
		t := &r.Posts[i]
		x, o := float64(t.Station), seen[t.ID]
		if o == nil || o.Off == nil && o.Across == nil && o.Plumb == nil && o.Top == nil {
			s.line(Was, t.ID, x, foot, x, foot+post)
			continue
		}
		worse := func(by, allowed float64) bool { return math.Abs(by) > allowed+float64(length.Tolerance) }
		y := off(o.Off) * up
		class := Post
		if worse(off(o.Off), may.line) {
			class = Hits
			size := o.Off.Abs()
			s.say(Label{Class: Gap, Of: t.ID, At: Point{x, y}, Put: Beside, Off: 8, Rank: 1, Strong: true, Words: t.Label, Size: &size})
		}
		if o.Across != nil {
			s.area(Post, Timber, t.ID, x-thin, y, x+thin, y, x+thin, y+off(o.Across)*up, x-thin, y+off(o.Across)*up)
		}
		s.mark(class, t.ID, x, y, 0)
		headX, headY := x+off(o.Plumb)*lean, foot+post+off(o.Top)*lean
		s.area(Post, Timber, t.ID, x-thin, foot, x+thin, foot, headX+thin, headY, headX-thin, headY)
		tops = append(tops, headX, headY)
		if worse(off(o.Plumb), may.plumb) {
			size := o.Plumb.Abs()
			s.say(Label{Class: Gap, Of: t.ID, At: Point{headX, headY}, Put: Over, Rank: 1, Strong: true, Words: t.Label, Size: &size})
		}
	}
	if len(tops) >= 4 {
		s.line(Top, "", tops...)
	}
	for i := range r.Posts {
		s.say(Label{Class: Name, Of: r.Posts[i].ID, At: Point{float64(r.Posts[i].Station), foot}, Put: RowUnder, Rank: 3, Words: r.Posts[i].Label})
	}
	s.say(Label{Class: Measure, At: Point{0, half}, Put: Beside, Rank: 2, Words: words.Plain("scene.strip-above", words.V{"times": number(up)})})
	s.say(Label{Class: Measure, At: Point{0, foot + post*1.25}, Put: Beside, Rank: 2, Words: words.Plain("scene.strip-side", words.V{"times": number(lean)})})
	return s
}

// nice is a scale that can be said: the next lower of 1, 2 or 5 times a power of ten.
func nice(v float64) float64 {
	if v <= 1 {
		return 1
	}
	tens := math.Pow(10, math.Floor(math.Log10(v)))
	for _, k := range []float64{5, 2} {
		if v >= k*tens {
			return k * tens
		}
	}
	return tens
}

// asBuilt marks where posts were measured to stand, with by how much that is beside the
// string, and what was met in their holes.
func (s *Scene) asBuilt(p plan.Plan) {
	if p.Log == nil {
		return
	}
	runs := map[string]*plan.Run{}
	for i := range p.Runs {
		runs[p.Runs[i].ID] = &p.Runs[i]
	}
	for i := range p.Log.Posts {
		o := &p.Log.Posts[i]
		if runs[o.Run] == nil || o.Stage < record.Set && o.At == nil && o.Off == nil && o.HitAt == nil {
			continue
		}
		place := runs[o.Run].Beside(o.Stands())
		x, y := float64(place.X), float64(place.Y)
		s.mark(Cross, o.ID, x, y, 0)
		l := Label{Class: Name, Of: o.ID, At: Point{x, y}, Put: Beside, Off: 9, Rank: 2, Words: o.Label}
		if o.Off != nil && o.Off.Abs() >= p.Units.SmallestMark/2 {
			size := o.Off.Abs()
			l.Size = &size
		}
		s.say(l)
		if o.HitAt != nil {
			s.say(Label{Class: Service, Of: o.ID, At: Point{x, y}, Put: Under, Off: 9, Rank: 1, Words: words.Plain("choice.seen-" + words.Key(o.Hit)), Size: o.HitAt})
		}
	}
}
