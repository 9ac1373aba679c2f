// Package build plans what stands above ground: the parts of every bay and every
// leaf, counted from the planned bays by the recipe of the fence's type.
package build

import (
	"math"
	"slices"

	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/parts"
	"mallow/core/stage/gates"
	"mallow/core/words"
)

// Build is a run with its parts.
type Build struct {
	*gates.Gates
	Stretches []Stretch
	Parts     []Part // nil for a fence of no known type

	recipe []job.Part
}

// Compute counts the run's parts. A run of no known type has none.
func Compute(m *gates.Gates) *Build {
	b := &Build{Gates: m}
	if !m.Laid() {
		return b
	}
	b.Stretches = stretches(m)
	b.gravelBoards()
	b.recipe = m.Cat.Recipe(m.Spec.System, m.Job.Systems, m.Spec.Parts)
	for _, p := range b.recipe {
		b.put(p, false)
	}
	if len(b.recipe) == 0 {
		b.Parts = nil
		return b
	}
	b.liftOut()
	made := map[string]bool{}
	for g := range m.Made {
		made[m.MadeOf(g).ID] = true
	}
	for _, make := range m.Cat.Makes {
		if made[make.ID] {
			for _, p := range make.Parts[m.Job.Units.System] {
				b.put(p, true)
			}
		}
	}
	return b
}

func stretches(m *gates.Gates) []Stretch {
	var out []Stretch
	open := false
	for i := range m.Bays {
		switch {
		case m.Bays[i].Gate != "":
			open = false
		case open && m.Posts[i].Kind == job.LinePost:
			out[len(out)-1].Last = i
		default:
			out, open = append(out, Stretch{i, i}), true
		}
	}
	return out
}

// Of finds a part.
func (b *Build) Of(id string) *Part {
	for i := range b.Parts {
		if b.Parts[i].ID == id {
			return &b.Parts[i]
		}
	}
	return nil
}

// counters is how each way of counting counts, given what was counted before it.
var counters = map[job.CountBy]func(*Build, *Part){
	job.PerPost: perPost, job.PerBay: perBay, job.PerBayEnd: perBayEnd,
	job.PerStretch: perStretch, job.PerStretchEnd: perStretchEnd, job.ByBands: byBands,
	job.PerCorner: perCorner, job.PerGate: perGate, job.PerLeaf: perLeaf, job.PerHinge: perHinge,
	job.ByRails: byRails, job.ByRows: byRows, job.Along: along, job.PerGap: perGap,
	job.ByRoll: byRoll, job.Spaced: spaced, job.PerCrossing: perCrossing,
	job.PerJoint: perJoint, job.PerPiece: perPiece, job.PerCutEnd: perCutEnd, job.ByArea: byArea,
}

// gravelBoard is the part that gravel boards are: how many there are, the run
// says, and its slopes.
const gravelBoard = "gravel-board"

func (b *Build) gravelBoards() {
	p := Part{Part: job.Part{ID: gravelBoard, Name: words.Plain("build.gravel-board"), Kind: job.BoardPart, By: job.PerBay, Long: job.InClear}, Given: true}
	for i := range b.Bays {
		v := &b.Bays[i]
		n := v.Boards
		if v.Infill != nil && v.Infill.Kind == job.GravelBoards {
			n += v.Infill.Boards
		}
		if v.Gate == "" && n > 0 {
			p.Width = v.Board
			p.add(Piece{Bay: i, To: i, Gate: -1, Count: n, Long: v.Long})
		}
	}
	if p.Count > 0 {
		b.Parts = append(b.Parts, p)
	}
}

// panel is a panel's size, where the run says it: as long as the piece that sets
// its bays, as high as the fence less what stands under and on it.
func (b *Build) panel(p *job.Part) {
	if p.High {
		p.Width = b.Spec.Fence.Height
	}
	if p.Kind != job.PanelPart {
		return
	}
	piece := b.Spec.Spacing.Piece
	if _, set := b.Spec.Spacing.ByPiece(); !set || piece == 0 { // bays are equal: panels are cut to them
		sys, _ := b.Cat.System(b.Spec.System, b.Job.Systems)
		piece = sys.Spacing.Piece
	}
	if len(p.Stock) == 0 && piece > 0 {
		p.Stock = []length.Length{piece}
	}
	if p.Width == 0 {
		p.Width = b.Spec.Fence.Height - length.Length(b.Spec.Fence.Boards)*b.Spec.Grade.BoardHeight(b.Job.Units)
		for _, o := range b.recipe {
			if o.Kind == job.PanelPart && o.ID != p.ID {
				p.Width -= o.Width
			}
		}
	}
}

func (b *Build) put(spec job.Part, leaf bool) {
	b.panel(&spec)
	b.Parts = append(b.Parts, Part{Part: spec, Gates: leaf})
	p := &b.Parts[len(b.Parts)-1]
	if count := counters[spec.By]; count != nil {
		count(b, p)
	}
	if p.Count == 0 && p.Litres == 0 && p.Unfit == nil {
		b.Parts = b.Parts[:len(b.Parts)-1]
	}
}

func (p *Part) each() int { return max(1, p.Each) }

func (p *Part) counts(kind job.PostKind) bool { return len(p.At) == 0 || slices.Contains(p.At, kind) }

func (p *Part) add(n Piece) {
	p.Count += n.Count
	if last := len(p.Pieces) - 1; last >= 0 {
		at := &p.Pieces[last]
		if at.Bay == n.Bay && at.To == n.To && at.Gate == n.Gate && at.Row == n.Row && at.Cut == n.Cut && length.Same(at.Long, n.Long) && length.Same(at.Wide, n.Wide) {
			at.Count += n.Count
			return
		}
	}
	p.Pieces = append(p.Pieces, n)
}

func (b *Build) mark() length.Length { return b.Job.Units.SmallestMark }

// level is the bay's height of fence at a station of it: what is above its
// gravel boards.
func (b *Build) high(bay int, at length.Length) length.Length {
	v := &b.Bays[bay]
	share := (at - b.Posts[bay].Station) / v.CentreToCentre
	share = max(0, min(1, share))
	top, bottom := v.TopStart+(v.TopEnd-v.TopStart)*share, v.BottomStart+(v.BottomEnd-v.BottomStart)*share
	return max(0, top-bottom-length.Length(v.Boards)*v.Board)
}

func (b *Build) middle(bay int) length.Length {
	return (b.Posts[bay].Station + b.Posts[bay+1].Station) / 2
}

// leaning is how long something over a bay is that leans with its top.
func (b *Build) leaning(bay int) length.Length {
	v := &b.Bays[bay]
	return v.CentreToCentre * length.Length(math.Hypot(1, float64(v.Lean/v.CentreToCentre)))
}

// over is how long a piece over some bays is.
func (b *Build) over(p *Part, first, last int) length.Length {
	switch p.Long {
	case job.ByHeight:
		return b.high(first, b.middle(first)) + p.More
	case job.InClear:
		sum := length.Length(0)
		for i := first; i <= last; i++ {
			sum += b.Bays[i].Long
			if i > first {
				sum += b.Posts[i].Width
			}
		}
		return sum + p.More
	case job.AsPlanned:
		if piece := b.Bays[first].Piece; piece > 0 {
			return piece + p.More
		}
		if p.Kind == job.PanelPart {
			return b.Bays[first].Clear + p.More
		}
	}
	sum := length.Length(0)
	for i := first; i <= last; i++ {
		sum += b.leaning(i)
	}
	return sum + p.More
}

// long is a stretch as what hangs between its terminal posts is long.
func (b *Build) long(s Stretch) length.Length {
	sum := -(b.Posts[s.First].Width + b.Posts[s.Last+1].Width) / 2
	for i := s.First; i <= s.Last; i++ {
		sum += b.leaning(i)
	}
	return max(0, sum)
}

func perPost(b *Build, p *Part) {
	for i := range b.Posts {
		if post := &b.Posts[i]; post.Shared == "" && post.Stays == "" && p.counts(post.Kind) {
			p.Count += p.each()
		}
	}
}

func perCorner(b *Build, p *Part) {
	for i := range b.Posts {
		if post := &b.Posts[i]; post.Shared == "" && post.Kind == job.CornerPost {
			long := length.Length(0)
			if p.Long == job.ByHeight {
				long = b.high(max(0, i-1), post.Station) + p.More
			}
			p.add(Piece{Bay: max(0, i-1), To: max(0, i-1), Gate: -1, Count: p.each(), Long: long})
		}
	}
}

func perBay(b *Build, p *Part) {
	for i := range b.Bays {
		if b.Bays[i].Gate == "" {
			n := Piece{Bay: i, To: i, Gate: -1, Count: p.each(), Cut: p.Long == job.AsPlanned && b.Bays[i].PieceCut}
			if p.Long != "" {
				n.Long = b.over(p, i, i)
			}
			p.add(n)
		}
	}
}

func perBayEnd(b *Build, p *Part) {
	times := b.each(p.Of)
	for i := range b.Bays {
		if b.Bays[i].Gate != "" {
			continue
		}
		for _, post := range []int{i, i + 1} {
			if p.counts(b.Posts[post].Kind) {
				p.Count += p.each() * times[i]
			}
		}
	}
}

// each is how many pieces of some parts there are in every bay; 1 in each, of no
// parts.
func (b *Build) each(of []string) []int {
	out := make([]int, len(b.Bays))
	if len(of) == 0 {
		for i := range out {
			out[i] = 1
		}
	}
	for _, id := range of {
		part := b.Of(id)
		if part == nil {
			continue
		}
		for _, q := range part.Pieces {
			for i := max(0, q.Bay); i <= q.To; i++ {
				out[i] += q.Count
			}
		}
	}
	return out
}

func perStretch(b *Build, p *Part) {
	for _, s := range b.Stretches {
		p.add(Piece{Bay: s.First, To: s.Last, Gate: -1, Count: p.each()})
	}
}

func (b *Build) ends(p *Part, each func(bay int) int, long func(bay, post int) length.Length) {
	for _, s := range b.Stretches {
		for _, at := range [][2]int{{s.First, s.First}, {s.Last, s.Last + 1}} {
			if p.counts(b.Posts[at[1]].Kind) {
				p.add(Piece{Bay: at[0], To: at[0], Gate: -1, Count: each(at[0]), Long: long(at[0], at[1])})
			}
		}
	}
}

func perStretchEnd(b *Build, p *Part) {
	b.ends(p, func(int) int { return p.each() }, func(bay, post int) length.Length {
		if p.Long == job.ByHeight {
			return b.high(bay, b.Posts[post].Station) + p.More
		}
		return 0
	})
}

func byBands(b *Build, p *Part) {
	b.ends(p, func(int) int { return p.each() * bandsOf(b) }, func(int, int) length.Length { return 0 })
}

func bandsOf(b *Build) int { return parts.Bands(b.Spec.Fence.Height) }

func perGate(b *Build, p *Part) {
	for g := range b.Made {
		if b.hangs(p, g) {
			p.add(Piece{Bay: -1, To: -1, Gate: g, Count: p.each()})
		}
	}
}

// hangs tells whether a part is of a gate: one with leaves, made so; and where it
// is for pairs of leaves, one that has two.
func (b *Build) hangs(p *Part, g int) bool {
	if p.Gates && !slices.ContainsFunc(b.MadeOf(g).Parts[b.Job.Units.System], func(o job.Part) bool { return o.ID == p.ID }) {
		return false
	}
	return len(b.Made[g].Leaves) > p.Span // a drop bolt has a span of one leaf: it is for two
}

func (b *Build) leaves(p *Part, each func(g int, l *gates.GateLeaf)) {
	for g := range b.Made {
		if !b.hangs(p, g) {
			continue
		}
		for l := range b.Made[g].Leaves {
			each(g, &b.Made[g].Leaves[l])
		}
	}
}

// leafLong is how long a piece of a leaf is.
func leafLong(p *Part, l *gates.GateLeaf) length.Length {
	high := max(l.Height, l.TipHeight)
	switch p.Long {
	case job.LeafWidth:
		return l.Width + p.More
	case job.LeafHeight:
		return high + p.More
	case job.ByBrace:
		if l.Brace != nil {
			return l.Brace.Length + p.More
		}
	}
	return 0
}

func perLeaf(b *Build, p *Part) {
	b.leaves(p, func(g int, l *gates.GateLeaf) {
		if p.Long == job.ByBrace && l.Brace == nil {
			return
		}
		p.add(Piece{Bay: -1, To: -1, Gate: g, Count: p.each(), Long: leafLong(p, l)})
	})
}

func perHinge(b *Build, p *Part) {
	b.leaves(p, func(g int, l *gates.GateLeaf) {
		p.add(Piece{Bay: -1, To: -1, Gate: g, Count: p.each() * len(l.Hinges)})
	})
}

// rails is how many rails stand one above the other.
func (b *Build) rails(p *Part) int {
	if p.Each > 0 {
		return p.Each
	}
	if n := b.Spec.Spacing.Rails; n > 0 {
		return n
	}
	if n := len(b.Spec.Fence.Rails); n > 0 {
		return n
	}
	for _, r := range p.Rows {
		if b.Spec.Fence.Height <= r.To+length.Tolerance {
			return r.Rows
		}
	}
	if n := len(p.Rows); n > 0 {
		return p.Rows[n-1].Rows
	}
	return 1
}

func byRails(b *Build, p *Part) {
	if p.Long == job.AsPlanned && b.Spec.Spacing.Way == job.StockRails {
		b.plannedRails(p)
		return
	}
	for r := range b.rails(p) {
		b.row(p, r+1, 0)
	}
}

// comesOut tells whether a bay must come out again.
func (b *Build) comesOut(bay int) bool {
	held := b.Bays[bay].Held
	return held != "" && slices.ContainsFunc(b.Spec.HeldBays, func(h job.HeldBay) bool { return h.ID == held && h.Removable })
}

// liftOut are the brackets that hold what must come out again: one at each end of
// each rail or panel.
func (b *Build) liftOut() {
	p := Part{Part: job.Part{ID: "lift-out", Name: words.Plain("build.lift-out"), Kind: job.HardwarePart, By: job.PerBayEnd, Says: words.Plain("build.lift-out-says")}}
	for i := range b.Bays {
		if !b.comesOut(i) {
			continue
		}
		n := 0
		for k := range b.Parts {
			if q := &b.Parts[k]; !q.Gates && (q.By == job.ByRails || q.Kind == job.PanelPart) {
				n += b.each([]string{q.ID})[i]
			}
		}
		p.Count += 2 * max(1, n)
	}
	if p.Count > 0 {
		b.Parts = append(b.Parts, p)
	}
}

// plannedRails are rails that the spacing broke on posts.
func (b *Build) plannedRails(p *Part) {
	at := make(map[string]int, len(b.Posts))
	for i := range b.Posts {
		at[b.Posts[i].Label] = i
	}
	for _, row := range b.RailRows {
		for _, rail := range row.Pieces {
			first, last := at[rail.From], at[rail.To]-1
			for from, i := first, first; i <= last; i++ {
				if i < last && !b.comesOut(i) && !b.comesOut(i+1) {
					continue
				}
				long, cut := rail.Length+p.More, rail.Cut
				if from > first || i < last { // parted at a bay that comes out
					long, cut = p.More, true
					for k := from; k <= i; k++ {
						long += b.leaning(k)
					}
				}
				p.add(Piece{Bay: from, To: i, Gate: -1, Row: row.Row, Count: 1, Long: long, Cut: cut})
				from = i + 1
			}
		}
	}
	p.Joints = b.joints(p)
}

// row lays pieces along one row of every stretch: over as many bays as they may
// reach, broken on posts and where the top steps, every other row one bay on.
func (b *Build) row(p *Part, row int, wide length.Length) {
	most := length.Length(math.Inf(1))
	if n := len(p.Stock); n > 0 {
		most = slices.Max(p.Stock) + p.Give + length.Tolerance
	}
	span := max(1, p.Span)
	for _, s := range b.Stretches {
		for i, first := s.First, true; i <= s.Last; first = false {
			reach := span
			if first && span > 1 && row%2 == 0 {
				reach = span - 1
			}
			last := i
			for last < s.Last && last-i+1 < reach && b.level(last) && b.over(p, i, last+1) <= most {
				last++
			}
			p.add(Piece{Bay: i, To: last, Gate: -1, Row: row, Count: 1, Long: b.over(p, i, last), Wide: wide})
			i = last + 1
		}
	}
	p.Joints = b.joints(p)
}

// level tells whether the fence goes on from a bay to the next without a step.
func (b *Build) level(bay int) bool {
	if b.comesOut(bay) || b.comesOut(bay+1) {
		return false
	}
	return (b.Bays[bay].TopEnd-b.Bays[bay+1].TopStart).Abs() < b.mark() && b.Posts[bay+1].Kind == job.LinePost
}

// joints is where a piece goes on from another of its row.
func (b *Build) joints(p *Part) int {
	n := 0
	for k := 1; k < len(p.Pieces); k++ {
		if a, z := &p.Pieces[k-1], &p.Pieces[k]; a.Row == z.Row && a.To+1 == z.Bay && b.Posts[z.Bay].Kind == job.LinePost {
			n++
		}
	}
	return n
}

// fill sets pieces side by side over a length, by the part's gap.
func (b *Build) fill(p *Part, clear length.Length) (parts.Fill, bool) {
	gap := parts.Gap{}
	if p.Gap != nil {
		gap = parts.Gap{Want: p.Gap.Want, Least: p.Gap.Least, Most: p.Gap.Most}
	}
	if !p.Rip {
		if f, ok := parts.Along(clear, p.Width, gap, b.mark(), p.Ends); ok {
			return f, true
		}
	}
	if p.Ends {
		return parts.Fill{}, false
	}
	sliver := b.mark() * length.Length(math.Ceil(float64(p.Width/3/b.mark())))
	f, ok := parts.Rip(clear, p.Width, gap.Want, sliver, b.mark())
	return f, ok && p.Rip
}

// byRows sets boards over the height of every bay.
func byRows(b *Build, p *Part) {
	type fit struct {
		f  parts.Fill
		ok bool
	}
	known := map[length.Length]fit{}
	most := 0
	fits := make([]fit, len(b.Bays))
	for _, s := range b.Stretches {
		for i := s.First; i <= s.Last; i++ {
			high := b.high(i, b.middle(i)) + p.More
			key := length.Length(math.Round(float64(high/b.mark()))) * b.mark()
			k, ok := known[key]
			if !ok {
				k.f, k.ok = b.fill(p, high)
				known[key] = k
			}
			fits[i] = k
			if !k.ok {
				p.Unfit = append(p.Unfit, i)
				continue
			}
			most = max(most, k.f.Pieces)
			p.Fills = append(p.Fills, Fill{k.f, i, i, 0, high})
		}
	}
	all := b.Stretches
	defer func() { b.Stretches = all }()
	for r := 1; r <= most; r++ {
		b.Stretches = nil
		for _, s := range all { // the bays that have this row, ripped alike
			for i := s.First; i <= s.Last; i++ {
				if !fits[i].ok || fits[i].f.Pieces < r {
					continue
				}
				if k := len(b.Stretches) - 1; k >= 0 && i > s.First && b.Stretches[k].Last == i-1 && ripped(fits[i].f, r) == ripped(fits[i-1].f, r) {
					b.Stretches[k].Last = i
					continue
				}
				b.Stretches = append(b.Stretches, Stretch{i, i})
			}
		}
		for _, s := range b.Stretches {
			one := b.Stretches
			b.Stretches = []Stretch{s}
			b.row(p, r, ripped(fits[s.First].f, r))
			b.Stretches = one
		}
	}
}

// ripped is what a piece of a fill is ripped to; 0 where it is whole.
func ripped(f parts.Fill, piece int) length.Length {
	if f.Ripped > 0 && piece == f.Pieces || f.Ripped == 2 && piece == 1 {
		return f.Rip
	}
	return 0
}

// along sets pieces side by side along the fence, or along a gate's leaf.
func along(b *Build, p *Part) {
	if p.Long == job.LeafHeight {
		b.leaves(p, func(g int, l *gates.GateLeaf) {
			f, ok := b.fill(p, l.Width)
			if !ok {
				p.Unfit = append(p.Unfit, -1)
				return
			}
			p.add(Piece{Bay: -1, To: -1, Gate: g, Count: f.Pieces - f.Ripped, Long: leafLong(p, l)})
			if f.Ripped > 0 {
				p.add(Piece{Bay: -1, To: -1, Gate: g, Count: f.Ripped, Long: leafLong(p, l), Wide: f.Rip})
			}
		})
		return
	}
	for _, s := range b.Stretches {
		if !p.PerBay {
			first, last := &b.Posts[s.First], &b.Posts[s.Last+1]
			b.side(p, s, first.Station-first.Width/2, last.Station+last.Width/2)
			continue
		}
		for i := s.First; i <= s.Last; i++ {
			first, last := &b.Posts[i], &b.Posts[i+1]
			b.side(p, Stretch{i, i}, first.Station+first.Width/2, last.Station-last.Width/2)
		}
	}
}

// side sets pieces from one station to another.
func (b *Build) side(p *Part, s Stretch, from, to length.Length) {
	f, ok := b.fill(p, to-from)
	if !ok {
		p.Unfit = append(p.Unfit, s.First)
		return
	}
	p.Fills = append(p.Fills, Fill{f, s.First, s.Last, from, to})
	bay := s.First
	for k, at := range f.At(p.Width, b.mark(), p.Ends) {
		wide := ripped(f, k+1)
		b.upright(p, &bay, s, from+at+(p.Width-max(0, p.Width-wide)*b2l(wide > 0))/2, wide, max(1, p.Layers))
	}
}

func b2l(yes bool) length.Length {
	if yes {
		return 1
	}
	return 0
}

// upright is a piece that stands at a station.
func (b *Build) upright(p *Part, bay *int, s Stretch, at, wide length.Length, count int) {
	for *bay < s.Last && at > b.Posts[*bay+1].Station {
		*bay++
	}
	long := b.high(*bay, at) + p.More
	p.add(Piece{Bay: *bay, To: *bay, Gate: -1, Count: count, Long: b.mark() * length.Length(math.Ceil(float64(long/b.mark())-1e-6)), Wide: wide})
}

// perGap stands at the gaps of other pieces: boards behind the gaps of boards, or
// spacers between rows.
func perGap(b *Build, p *Part) {
	for _, id := range p.Of {
		of := b.Of(id)
		if of == nil {
			continue
		}
		for _, f := range of.Fills {
			if of.By == job.ByRows {
				p.add(Piece{Bay: f.First, To: f.First, Gate: -1, Count: f.Gaps * p.each(), Long: p.More})
				continue
			}
			bay, at := f.First, f.At(of.Width, b.mark(), of.Ends)
			for k := range max(0, len(at)-1) {
				wide := of.Width
				if rip := ripped(f.Fill, k+1); rip > 0 {
					wide = rip
				}
				b.upright(p, &bay, Stretch{f.First, f.Last}, f.From+(at[k]+wide+at[k+1])/2, 0, p.each())
			}
		}
	}
}

func byRoll(b *Build, p *Part) {
	if len(p.Stock) == 0 {
		return
	}
	for range p.each() {
		for _, s := range b.Stretches {
			p.Rolled = append(p.Rolled, b.long(s)+p.More)
		}
	}
	p.Count, p.Joints = parts.Rolls(p.Rolled, slices.Max(p.Stock), p.Lap)
}

func spaced(b *Build, p *Part) {
	if p.Long == job.ByHeight {
		for i := range b.Posts {
			bay := min(i, len(b.Bays)-1)
			if b.Bays[bay].Gate != "" && i > 0 {
				bay = i - 1
			}
			if post := &b.Posts[i]; p.counts(post.Kind) && post.Shared == "" && b.Bays[bay].Gate == "" {
				p.Count += p.each() * parts.Spaced(b.high(bay, post.Station), p.Spacing, p.In)
			}
		}
		return
	}
	times := b.each(p.Of)
	for _, s := range b.Stretches {
		if p.Long == job.ByStretch {
			p.Count += p.each() * parts.Spaced(b.long(s), p.Spacing, p.In)
			continue
		}
		for i := s.First; i <= s.Last; i++ {
			p.Count += p.each() * times[i] * parts.Spaced(b.over(p, i, i), p.Spacing, p.In)
		}
	}
}

// perCrossing is where pieces meet those that they are fixed to.
func perCrossing(b *Build, p *Part) {
	posts := slices.Contains(p.Over, job.OverPosts)
	meets := make([]int, len(b.Bays)+1) // in all bays before one
	over := b.each(slices.DeleteFunc(slices.Clone(p.Over), func(id string) bool { return id == job.OverPosts }))
	if len(p.Over) == 1 && posts {
		clear(over)
	}
	for i, n := range over {
		meets[i+1] = meets[i] + n
	}
	for _, id := range p.Of {
		of := b.Of(id)
		if of == nil {
			continue
		}
		for _, q := range of.Pieces {
			if q.Bay < 0 {
				continue
			}
			n := meets[q.To+1] - meets[q.Bay]
			if posts {
				n += q.To - q.Bay + 2
			}
			p.Count += p.each() * q.Count * n
		}
	}
}

func perJoint(b *Build, p *Part) {
	for _, id := range p.Of {
		if of := b.Of(id); of != nil {
			p.Count += p.each() * of.Joints
		}
	}
}

func perPiece(b *Build, p *Part) {
	for _, id := range p.Of {
		if of := b.Of(id); of != nil {
			p.Count += p.each() * of.Count
		}
	}
}

// square is an area in square metres.
func square(a, c length.Length) float64 { return float64(a/length.Metre) * float64(c/length.Metre) }

// cutEnds is how many ends of a part's pieces are cut: one of each that is no whole
// length as it is sold, and the tongues that are trimmed.
func (b *Build) cutEnds(of *Part) int {
	n := 0
	for _, q := range of.Pieces {
		whole := q.Long == 0 || len(of.Stock) == 0 || slices.ContainsFunc(of.Stock, func(s length.Length) bool { return (s - q.Long).Abs() < b.mark()/2 })
		if !whole || q.Cut {
			n += q.Count
		}
		if q.Bay >= 0 && q.Bay == q.To && of.Long == job.AsPlanned {
			n += b.Bays[q.Bay].Trims * q.Count
		}
	}
	return n
}

func perCutEnd(b *Build, p *Part) {
	for _, id := range p.Of {
		if of := b.Of(id); of != nil {
			n := b.cutEnds(of)
			p.CutEnds += n
			p.Area += float64(n) * square(of.Width, max(of.Thick, length.Millimetre))
		}
	}
	p.coat()
}

// postFeet are what the feet of posts are called among what is coated.
const postFeet = "feet"

func byArea(b *Build, p *Part) {
	for _, id := range p.Of {
		switch of := b.Of(id); {
		case id == job.OverPosts || id == postFeet:
			for i := range b.Posts {
				post := &b.Posts[i]
				if post.Shared != "" || post.Stays != "" || !p.counts(post.Kind) {
					continue
				}
				round := 4 * post.Width
				if post.Round {
					round = post.Width * math.Pi
				}
				tall := post.AboveGrade
				if id == postFeet {
					tall = post.Foot
				}
				p.Area += square(round, tall)
			}
		case of != nil:
			for _, q := range of.Pieces {
				wide := of.Width
				if q.Wide > 0 {
					wide = q.Wide
				}
				p.Area += float64(q.Count) * square(2*(wide+of.Thick), q.Long)
			}
		}
	}
	p.coat()
}

func (p *Part) coat() {
	if p.Cover > 0 {
		p.Litres = p.Area * float64(max(1, p.Coats)) / p.Cover
	}
}
