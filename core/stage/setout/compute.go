package setout

import (
	"math"

	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/materials"
	"mallow/core/spacing"
	"mallow/core/stage"
	"mallow/core/stage/build"
	"mallow/core/stage/dig"
	"mallow/core/stage/walk"
	"mallow/core/stringline"
	"mallow/core/survey"
)

// setoutRun is a run as it is marked and lined up on site: strings, stakes and
// tops.
type Marking struct {
	*dig.Holes
	stage.MapPlace
	Strings *RunString
	Marks   *SetOut
	Tops    *TopLine

	parts *build.Build
}

// newSetout plans how a run is marked, where it lies on the map.
func Compute(m *build.Build, at stage.MapPlace) *Marking {
	s := &Marking{Holes: m.Holes, MapPlace: at, parts: m}
	if m.Laid() {
		s.lineUp()
		s.setOut()
		s.topLine()
	}
	return s
}

// cord is the run's string, the usual one where the catalogue has none of its
// name.
func (m *Marking) cord() (stringline.Cord, materials.String, bool) {
	kind, ok := m.Cat.String(m.Spec.String.Kind)
	if !ok {
		kind, _ = m.Cat.String(m.Usual.String.Kind)
	}
	return stringline.Cord{Weight: kind.Weight, Diameter: kind.Diameter, Pull: m.Spec.String.Pull}, kind, ok
}

// setOut lists the run's marks.
func (m *Marking) setOut() {
	out := &SetOut{Tape: walk.TapeReach, Check: m.Ground.Length, Offset: m.Strings.ToCentre, Pins: []Pin{}, Marks: make([]Mark, 0, len(m.Posts)), Sticks: m.sticks()}
	if m.Strings.Sight {
		out.Offset = 0
	}
	// A slope tape is the longer one: it runs out first.
	whole := m.Profile.Along(m.Ground.Length)
	for i := range m.Posts {
		p := &m.Posts[i]
		for {
			from, along := length.Length(0), length.Length(0)
			if n := len(out.Pins); n > 0 {
				from, along = out.Pins[n-1].At, out.Pins[n-1].Slope
			}
			if p.Slope-along <= walk.TapeReach+length.Tolerance {
				k := Mark{Post: p.Label, Level: p.Station, Slope: p.Slope, Pin: len(out.Pins), Past: p.Station - from, PastSlope: p.Slope - along,
					Back: m.Ground.Length - p.Station, BackSlope: whole - p.Slope}
				if i > 0 {
					k.Bay, k.Clear = m.Bays[i-1].CentreToCentre, m.Bays[i-1].Clear
				}
				out.Marks = append(out.Marks, k)
				break
			}
			out.Pins = append(out.Pins, m.nextPin(i, from, along))
		}
	}
	m.Marks = out
}

// nextPin is where the tape is bumped: at the last post that it reaches, or,
// where no post is within reach, at its end.
func (m *Marking) nextPin(i int, from, along length.Length) Pin {
	if before := m.Posts[i-1]; before.Slope > along+length.Tolerance {
		return Pin{At: before.Station, Slope: before.Slope, Post: before.Label}
	}
	// Level distance at which the ground has run one tape's length.
	lo, hi := from, m.Posts[i].Station
	for hi-lo > length.Tolerance {
		if mid := (lo + hi) / 2; m.Profile.Along(mid)-along < walk.TapeReach {
			lo = mid
		} else {
			hi = mid
		}
	}
	return Pin{At: lo, Slope: m.Profile.Along(lo)}
}

// sticks are the clear openings that occur, each once, the commonest first;
// along the slope where the pieces lie so.
func (m *Marking) sticks() []Stick {
	out := []Stick{}
	seen := map[int64]int{}
	mark := float64(m.Job.Units.SmallestMark)
	for i, b := range m.Layout.Bays {
		if b.Gate != spacing.NoGate {
			continue
		}
		bay := &m.Bays[i]
		long := bay.Clear
		if _, piece := m.Spec.Spacing.ByPiece(); piece && m.Spec.Leans() { // held along the slope, as the piece lies
			long *= length.Length(math.Hypot(1, float64(bay.Lean/bay.CentreToCentre)))
		}
		key := int64(math.Round(float64(long) / mark))
		if k, ok := seen[key]; ok {
			out[k].Bays++
			continue
		}
		seen[key] = len(out)
		out = append(out, Stick{Length: long, Bays: 1, First: bay.Label})
	}
	for i := 1; i < len(out); i++ { // few, and equal counts keep their order
		for j := i; j > 0 && out[j].Bays > out[j-1].Bays; j-- {
			out[j], out[j-1] = out[j-1], out[j]
		}
	}
	return out
}

const (
	sagAllowed   = 3 * length.Millimetre  // 1/8 in, which the eye lets go along a top line (common practice)
	sagSpoken    = 10 * length.Millimetre // 3/8 in, from which a sag is worth a word: under it a prop or two is habit
	sagMuch      = 20 * length.Millimetre // 3/4 in, from which the middle posts would visibly be set low
	driftAllowed = 6 * length.Millimetre  // 1/4 in out of line (common practice)
	propEvery    = 4                      // posts over which a height string is trusted without a prop (common practice: 3 or 4)
	leastClear   = 25 * length.Millimetre
)

// lineUp finds where the strings run, how they sag, and where they drift.
func (m *Marking) lineUp() {
	s := m.Spec.String
	cord, kind, _ := m.cord()
	run, n := m.Ground.Length, len(m.Posts)
	last := m.Posts[n-1]
	wind := m.Job.Site.Wind
	out := &RunString{
		Position: s.Position, Face: s.Face, Ends: s.Ends, Kind: kind.Name, Pull: s.Pull, Beyond: s.Beyond, Mark: s.Mark,
		Span: run + 2*s.Beyond, LowStart: m.Profile.Height(0) + s.Low, LowEnd: m.Profile.Height(run) + s.Low,
		HighStart: m.Top.Tops[0] - s.Mark, HighEnd: m.Top.Tops[n-1] - s.Mark, Props: s.Props, SagAllowed: sagAllowed, DriftAllowed: driftAllowed,
		Order: []string{}, Target: last.Label,
	}
	out.ToFace, out.ToCentre = stringline.Constant(s, m.Spec.Post)
	out.Sag, out.SagPropped = cord.MidSag(run), cord.MidSag(run/length.Length(s.Props+1))
	out.PropsFor = max(cord.Props(run, sagAllowed), (n-2)/propEvery)
	out.Drift = cord.MidDrift(wind, out.Span)
	if wind > 0 {
		from := cord.LongestDrift(wind, driftAllowed)
		out.SightFrom = &from
	}
	out.Sight = s.Position == job.BySight
	hung := func(at length.Length) length.Length {
		if out.Sight {
			return 0 // a line of sight does not sag
		}
		return cord.Hung(run, s.Props, at)
	}
	for i := range m.Posts {
		p := &m.Posts[i]
		part := p.Station / run
		high := out.HighStart + (out.HighEnd-out.HighStart)*part - hung(p.Station)
		out.Posts = append(out.Posts, StringPost{
			Post: p.Label, Low: m.low(out, cord, p.Station) - p.Ground, Sag: hung(p.Station),
			Drift: cord.Drift(wind, out.Span, p.Station+s.Beyond), High: high - p.Ground, Mark: m.Top.Tops[i] - s.Mark - high,
		})
	}
	out.hang(hung, run)
	out.Order = m.order()
	out.From, out.To = m.ties(out)
	m.Strings = out
}

// low is the height of the sagging alignment string over a station.
func (m *Marking) low(s *RunString, cord stringline.Cord, at length.Length) length.Length {
	part := (at + s.Beyond) / s.Span
	return s.LowStart + (s.LowEnd-s.LowStart)*part - cord.Sag(s.Span, at+s.Beyond)
}

// order is the order of setting: the two ends first, then gate posts, then
// the rest from the start, so that the eye always has set posts near it and
// the far target before it.
func (m *Marking) order() []string {
	n := len(m.Posts)
	out := []string{m.Posts[0].Label, m.Posts[n-1].Label}
	for _, gates := range []bool{true, false} {
		for i := 1; i < n-1; i++ {
			if (m.Posts[i].Kind == job.GatePost) == gates {
				out = append(out, m.Posts[i].Label)
			}
		}
	}
	return out
}

// hangPieces is how finely the curve of a hanging string is given.
const hangPieces = 8

// hang gives the height string's curve, prop to prop.
func (s *RunString) hang(hung func(length.Length) length.Length, run length.Length) {
	n := (s.Props + 1) * hangPieces
	for i := 0; i <= n; i++ {
		at := run * length.Length(i) / length.Length(n)
		s.Hang = append(s.Hang, Hang{at, s.HighStart + (s.HighEnd-s.HighStart)*at/run, hung(at)})
	}
}

// ties are the places on the map where the alignment string is tied: beyond
// the end posts, and off their centres to the side of the lined faces.
func (m *Marking) ties(s *RunString) (from, to survey.Place) {
	a, b := m.From, m.To
	ux, uy := length.Length(1), length.Length(0)
	if far := a.To(b); far > length.Tolerance { // a spread misclosure could leave nothing of a run
		ux, uy = (b.X-a.X)/far, (b.Y-a.Y)/far
	}
	off := s.ToCentre * length.Length(s.Face.Sign())
	if s.Position == job.BySight {
		off = 0
	}
	from = survey.Place{X: a.X - ux*s.Beyond - uy*off, Y: a.Y - uy*s.Beyond + ux*off}
	to = survey.Place{X: b.X + ux*s.Beyond - uy*off, Y: b.Y + uy*s.Beyond + ux*off}
	return from, to
}

// The laser's plane lies clear of grass and tripod legs, at a height that is
// easily marked, and where that can be had it crosses every post (common
// practice: 150 to 900 mm over the highest ground).
const (
	laserLeast = 150 * length.Millimetre
	laserMost  = 900 * length.Millimetre
	underTop   = 50 * length.Millimetre // room for a mark under the cut
)

func (m *Marking) topLine() {
	s := m.Spec.String
	t := &TopLine{By: m.Spec.Grade.By, Mark: s.Mark, Eye: m.Spec.Grade.Eye(m.Job.Units), Pieces: []TopPiece{}, Rails: m.Spec.RailHeights(), Stick: m.stick()}
	if t.By == "" {
		t.By = job.ByString
	}
	cord, _, _ := m.cord()
	posts := m.Posts
	high := 0
	ground, lowest := length.Length(math.Inf(-1)), length.Length(math.Inf(1))
	for i := range posts {
		ground, lowest = max(ground, posts[i].Ground), min(lowest, posts[i].Top)
		if posts[i].Top > posts[high].Top+length.Tolerance {
			high = i
		}
	}
	// A round height, so that it is set once and kept in mind.
	t.Laser = m.Job.Units.Round(max(ground+laserLeast, min(ground+laserMost, lowest-underTop)))
	t.High = posts[high].Label
	for i := range posts {
		t.Posts = append(t.Posts, TopPost{Post: posts[i].Label, Laser: posts[i].Top - t.Laser, Drop: posts[high].Top - posts[i].Top})
	}
	for a := 0; a < len(posts)-1; {
		b := a + 1
		for b < len(posts)-1 && !m.tiedAt(b) {
			b++
		}
		t.pull(m, cord, a, b)
		a = b
	}
	t.Limit = m.topLimit()
	m.Tops = t
}

// tiedAt tells whether a string over the tops is tied at a post: an end, a
// gate, or where the top changes slope.
func (m *Marking) tiedAt(i int) bool {
	p := m.Posts[i]
	return p.Kind != job.LinePost || p.Grade || m.heightTurns(i)
}

// heightTurns tells whether the fence's height is another one on either side of a
// post: the string on the lower side is tied below the post's top.
func (m *Marking) heightTurns(i int) bool {
	return i > 0 && i < len(m.Layout.Bays) && !length.Same(m.HighAt(i-1), m.HighAt(i))
}

// pull stretches a string over the tops from one post to another.
func (t *TopLine) pull(m *Marking, cord stringline.Cord, a, b int) {
	from, to := m.Posts[a], m.Posts[b]
	// A corner post may stand higher for the other run: the string is tied to
	// it at this run's top.
	first, last := m.Top.Tops[a], m.Top.Tops[b]
	if m.heightTurns(a) {
		first += m.Top.Bays[a].TopStart - m.Top.FenceTop(a)
	}
	if m.heightTurns(b) {
		last += m.Top.Bays[b-1].TopEnd - m.Top.FenceTop(b)
	}
	level := to.Station - from.Station
	straight := func(at length.Length) length.Length {
		return first + (last-first)*(at-from.Station)/level
	}
	props := 0
	if b > a+1 {
		props = max(cord.Props(level, sagAllowed), (b-a-1)/propEvery)
	}
	piece := TopPiece{From: from.Label, To: to.Label, Rise: last - first, Sag: cord.MidSag(level), Props: []Prop{},
		Length: length.Length(math.Hypot(float64(level), float64(last-first)))}
	for k := range props {
		at := from.Station + level*length.Length(k+1)/length.Length(props+1)
		piece.Props = append(piece.Props, Prop{at, straight(at) - m.Profile.Height(at)})
	}
	t.Pieces = append(t.Pieces, piece)
	for i := a + 1; i < b; i++ {
		p := m.Posts[i]
		line := straight(p.Station)
		t.Posts[i].Sight = p.Top - line
		t.Posts[i].String = p.Top - line + cord.Hung(level, props, p.Station-from.Station)
	}
}

// topLimit finds the post that keeps a level fence from being higher: the one
// whose longest stock ends first.
func (m *Marking) topLimit() *TopLimit {
	longest := length.Length(0)
	for _, l := range m.Spec.Post.Stock {
		longest = max(longest, l)
	}
	var out *TopLimit
	for i := range m.Posts {
		p := &m.Posts[i]
		if p.Stays != "" || !m.levelAt(i) {
			continue
		}
		if spare := longest - p.Needed; out == nil || spare < out.Spare-length.Tolerance {
			out = &TopLimit{p.Label, spare, longest}
		}
	}
	return out
}

// levelAt tells whether a post carries a bay of level look.
func (m *Marking) levelAt(i int) bool {
	return i > 0 && m.Bays[i-1].Look == job.Level || i < len(m.Bays) && m.Bays[i].Look == job.Level
}

// longest is the longest string; −1 without any.
func (t *TopLine) longest() int {
	k := -1
	for i, p := range t.Pieces {
		if k < 0 || p.Length > t.Pieces[k].Length {
			k = i
		}
	}
	return k
}
