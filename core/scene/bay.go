package scene

import (
	"slices"
	"sort"

	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/plan"
	"mallow/core/stage/build"
	"mallow/core/stage/slope"
)

// bayParts draws one bay with all its parts; apart, what hangs on the posts and
// rails stands above them.
func bayParts(r *plan.Run, i int, v View) Scene {
	var s Scene
	e := run{Run: r, s: &s, v: v}
	e.ground = profile(r.Ground, r.Length)
	b := &r.Bays[i]
	first, second := &r.Posts[i], &r.Posts[i+1]
	from, to := float64(first.Station), float64(second.Station)
	wide := to - from
	low := min(float64(b.BottomStart), float64(b.BottomEnd), float64(first.Ground), float64(second.Ground))
	high := max(float64(first.Top), float64(second.Top))
	left, right := from-wide*0.08-float64(first.Width), to+wide*0.08+float64(second.Width)
	deep := low - wide*0.06
	ground := []float64{left, e.height(length.Length(left)), from, float64(first.Ground)}
	for _, q := range r.Ground {
		if q.At > first.Station && q.At < second.Station {
			ground = append(ground, float64(q.At), float64(q.Height))
		}
	}
	ground = append(ground, to, float64(second.Ground), right, e.height(length.Length(right)))
	s.area(Ground, Earthen, b.ID, append(append([]float64{}, ground...), right, deep, left, deep)...)
	s.area(Soil, Earthen, b.ID, append(append([]float64{}, ground...), right, deep, left, deep)...)
	s.line(GroundLine, b.ID, ground...)
	for _, p := range []*post{first, second} {
		half := float64(p.Width) / 2
		s.box(Layer{Class: Post, Material: e.material()}, p.ID, float64(p.Station)-half, deep, float64(p.Station)+half, float64(p.Top))
		s.say(Label{Class: Name, Of: p.ID, At: Point{float64(p.Station), float64(p.Top)}, Put: Over, Off: 4, Strong: true, Must: true, Words: p.Label})
	}
	lift := 0.0
	if v.Apart {
		lift = (high - low) * 1.12
	}
	top := e.parts(i, lift)
	s.Box = &Box{Point{left, deep}, Point{right, max(high, top) + (high-low)*0.04}}
	s.say(Label{Class: Measure, Of: b.ID, At: Point{from + float64(first.Width)/2, low}, To: &Point{to - float64(second.Width)/2, low}, Put: RowUnder, Row: 0, Must: true, Strong: true, Keys: []string{"clear"}, Size: size(b.Clear)})
	s.say(Label{Class: Measure, Of: b.ID, At: Point{from, low}, To: &Point{to, low}, Put: RowUnder, Row: 1, Must: true, Keys: []string{"centre-to-centre"}, Size: size(b.CentreToCentre)})
	return s
}

// lies is a height over a bay's bottom, at a station of it: parts lean with it.
func lies(b *bay, first length.Length, at, up length.Length) float64 {
	share := (at - first) / b.CentreToCentre
	return float64(b.BottomStart + (b.BottomEnd-b.BottomStart)*share + up)
}

func topAt(b *bay, first, at length.Length) float64 {
	share := (at - first) / b.CentreToCentre
	return float64(b.TopStart + (b.TopEnd-b.TopStart)*share)
}

// behind are the parts that others hang on, which stay where they are when a bay is
// drawn apart.
func behind(p *build.Part) bool { return p.Kind == job.RailPart || p.ID == "gravel-board" }

// parts draws the pieces of one bay: rails and what stands under, then what hangs
// on them, lifted. It returns how high it drew.
func (r *run) parts(i int, lift float64) float64 {
	m := r.Built
	if m == nil {
		return 0
	}
	b := &r.Bays[i]
	first, second := r.Posts[i].Station, r.Posts[i+1].Station
	highest := 0.0
	quad := func(p *build.Part, x1, x2, low1, high1, low2, high2 float64, least float64) {
		up := 0.0
		if !behind(p) {
			up = lift
		}
		highest = max(highest, high1+up, high2+up)
		r.s.put(Layer{Class: Piece, Material: r.partMaterial(p), Area: true, Least: least}, p.ID, []float64{x1, low1 + up, x1, high1 + up, x2, high2 + up, x2, low2 + up})
	}
	foot := m.Foot(i)
	named := map[string]bool{}
	name := func(p *build.Part, x, y float64, put Put) {
		if !behind(p) {
			y += lift
		}
		if !named[p.ID] && r.v.Of == OfBay {
			named[p.ID] = true
			r.s.say(Label{Class: Name, Of: p.ID, At: Point{x, y}, Put: put, Must: true, Rank: 1, Words: p.Name})
		}
	}
	order := make([]*build.Part, 0, len(m.Parts))
	for k := range m.Parts {
		order = append(order, &m.Parts[k])
	}
	slices.SortStableFunc(order, func(a, c *build.Part) int { return depth(a) - depth(c) })
	for _, p := range order {
		if p.Gates {
			continue
		}
		x1, x2 := r.x(first+r.Posts[i].Width/2), r.x(second-r.Posts[i+1].Width/2)
		switch {
		case p.ID == "gravel-board":
			for k := range b.Boards {
				up, over := length.Length(k)*b.Board, length.Length(k+1)*b.Board
				quad(p, x1, x2, lies(b, first, first, up), lies(b, first, first, over), lies(b, first, second, up), lies(b, first, second, over), 0)
				name(p, x2, lies(b, first, second, up+b.Board/2), Right)
			}
		case p.By == job.ByRails && p.Kind == job.RailPart:
			half, a, z := p.Width/2, first, second
			if p.Long == job.InClear || r.Way == job.OverlapRails { // into the posts
				a, z = first+r.Posts[i].Width/2, second-r.Posts[i+1].Width/2
			}
			for _, up := range r.railHeights(p, b) {
				quad(p, r.x(a), r.x(z), lies(b, first, a, up-half), lies(b, first, a, up+half), lies(b, first, z, up-half), lies(b, first, z, up+half), 1)
				name(p, r.x(first), lies(b, first, first, up), Left)
			}
		case p.By == job.ByRows:
			for _, row := range m.RowsOf(p, i) {
				quad(p, r.x(first), r.x(second), lies(b, first, first, foot+row.From), lies(b, first, first, foot+row.To), lies(b, first, second, foot+row.From), lies(b, first, second, foot+row.To), 0)
				name(p, r.x(second), lies(b, first, second, foot+row.From), Right)
			}
		case p.By == job.Along || p.By == job.PerGap && len(p.Pieces) > 0:
			all := r.uprights(p)
			begin, end := first, second
			if r.v.Of == OfBay { // a neighbour's board over the second post is seen too
				end += r.Posts[i+1].Width / 2
			}
			from := sort.Search(len(all), func(k int) bool { return (all[k].From+all[k].To)/2 >= begin })
			for _, u := range all[from:] {
				mid := (u.From + u.To) / 2
				if mid > end {
					break
				}
				if mid > second {
					r.s.put(Layer{Class: Piece, Material: r.partMaterial(p), Area: true}, "", []float64{r.x(u.From), lies(b, first, u.From, foot) + lift, r.x(u.From), topAt(b, first, u.From) + lift, r.x(u.To), topAt(b, first, u.To) + lift, r.x(u.To), lies(b, first, u.To, foot) + lift})
					continue
				}
				low1, high1, low2, high2 := lies(b, first, u.From, foot), topAt(b, first, u.From)+float64(p.More), lies(b, first, u.To, foot), topAt(b, first, u.To)+float64(p.More)
				ear := float64(u.To-u.From) / 4
				switch p.Top {
				case job.DogEar: // a quarter of the width off each corner
					highest = max(highest, high1+lift, high2+lift)
					r.s.put(Layer{Class: Piece, Material: r.partMaterial(p), Area: true}, p.ID, []float64{r.x(u.From), low1 + lift, r.x(u.From), high1 + lift - ear, r.x(u.From) + ear, high1 + lift, r.x(u.To) - ear, high2 + lift, r.x(u.To), high2 + lift - ear, r.x(u.To), low2 + lift})
				case job.SlopedTop:
					quad(p, r.x(u.From), r.x(u.To), low1, high1, low2, high2-ear, 0)
				default:
					quad(p, r.x(u.From), r.x(u.To), low1, high1, low2, high2, 0)
				}
				name(p, r.x(u.To), lies(b, first, u.To, foot+(b.TopStart-b.BottomStart)*2/3), Right)
			}
		case p.Kind == job.PanelPart:
			low, high := foot, foot+p.Width
			if p.ID != "panel" { // on top of the panel
				high = b.TopStart - b.BottomStart
				low = high - p.Width
			}
			quad(p, x1, x2, lies(b, first, first, low), lies(b, first, first, high), lies(b, first, second, low), lies(b, first, second, high), 0)
			name(p, x2, lies(b, first, second, (low+high)/2), Right)
		case p.Kind == job.MeshPart && p.High:
			quad(p, x1, x2, lies(b, first, first, 0), topAt(b, first, first), lies(b, first, second, 0), topAt(b, first, second), 0)
			name(p, x2, lies(b, first, second, (b.TopStart-b.BottomStart)/2), Right)
		case p.Kind == job.RailPart && p.By == job.ByRoll:
			quad(p, r.x(first), r.x(second), topAt(b, first, first)-float64(p.Width), topAt(b, first, first), topAt(b, first, second)-float64(p.Width), topAt(b, first, second), 1)
			name(p, r.x(first), topAt(b, first, first), Left)
		case p.Kind == job.RailPart && p.By == job.PerBay && p.Long == job.ByHeight:
			mid := (first + second) / 2
			quad(p, r.x(mid-p.Width/2), r.x(mid+p.Width/2), lies(b, first, mid, foot), topAt(b, first, mid), lies(b, first, mid, foot), topAt(b, first, mid), 1)
			name(p, r.x(mid), topAt(b, first, mid), Over)
		}
	}
	return highest
}

// uprights are where a part's pieces stand, found once.
func (r *run) uprights(p *build.Part) []build.Upright {
	all, ok := r.stand[p.ID]
	if !ok {
		if r.stand == nil {
			r.stand = map[string][]build.Upright{}
		}
		all = r.Built.Uprights(p)
		r.stand[p.ID] = all
	}
	return all
}

// depth is how far in front a part hangs.
func depth(p *build.Part) int {
	switch {
	case p.By == job.PerGap:
		return 0
	case p.Kind == job.RailPart:
		return 1
	case p.Kind == job.MeshPart || p.Kind == job.PanelPart:
		return 2
	}
	return 3
}

func (r *run) partMaterial(p *build.Part) Material {
	switch {
	case p.Kind == job.MeshPart:
		return Mesh
	case p.ID == "gravel-board":
		return Concrete
	case p.Kind == job.PanelPart:
		return r.faced()
	case p.Round || r.Hollow && p.Kind != job.MeshPart:
		return Metal
	}
	return Timber
}

// railHeights are the middles of a part's rails over the bay's bottom: as they are
// planned, or spread evenly; one alone lies on the bottom, or on top where its name
// says so.
func (r *run) railHeights(p *build.Part, b *slope.Bay) []length.Length {
	rows := 0
	for _, q := range p.Pieces {
		rows = max(rows, q.Row)
	}
	high := b.TopStart - b.BottomStart
	if rows > 1 && r.TopLine != nil && len(r.TopLine.Rails) == rows {
		return r.TopLine.Rails
	}
	if rows == 1 {
		if p.ID == "top-rail" {
			return []length.Length{high - p.Width/2}
		}
		return []length.Length{p.Width / 2}
	}
	out := make([]length.Length, rows)
	for k := range out {
		out[k] = p.Width/2 + (high-p.Width)*length.Length(k)/length.Length(max(1, rows-1))
	}
	return out
}
