package space

import (
	"math"
	"reflect"
	"slices"
	"sort"

	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/spacing"
	"mallow/core/stage"
	"mallow/core/stage/walk"
)

// spaceRun is a run with its posts where they stand.
type Spacing struct {
	*stage.Run
	Layout  spacing.Layout
	ids     []string // of the posts, once they are listed
	labels  []string
	ends    [2]job.PostKind // what its first and last post are, by the run alone
	endHung bool            // a leaf of the run after it hangs on its last post

	Segments []Segment
	Posts    []Post
	Bays     []Bay
	InTheWay []InTheWay
}

// newSpace finds where a run's posts stand, by what is known of the run alone:
// its corner posts are settled with the runs on either side.
func Compute(m *stage.Run) *Spacing {
	s := &Spacing{Run: m}
	if m.Laid() {
		s.Layout = spacing.Lay(m.Spec, s.Site(m.Spec))
		s.ends = [2]job.PostKind{s.Layout.Posts[0].Kind, s.Layout.Posts[len(s.Layout.Posts)-1].Kind}
	}
	return s
}

// cornered is the run with its first and last post of the kinds that the line
// makes of them.
func (m *Spacing) cornered(first, last job.PostKind, hung bool) *Spacing {
	if !m.Laid() {
		return m
	}
	n := len(m.Layout.Posts)
	if m.Layout.Posts[0].Kind == first && m.Layout.Posts[n-1].Kind == last && m.endHung == hung {
		return m
	}
	out := *m
	out.endHung = hung
	out.Layout.Posts = slices.Clone(m.Layout.Posts)
	out.Layout.Posts[0].Kind, out.Layout.Posts[n-1].Kind = first, last
	return &out
}

// sameCorners tells whether the run's corner posts are settled alike.
func (m *Spacing) SameCorners(o *Spacing) bool {
	if !m.Laid() || !o.Laid() {
		return m.Laid() == o.Laid()
	}
	a, b := m.Layout.Posts, o.Layout.Posts
	return m.endHung == o.endHung && a[0].Kind == b[0].Kind && a[len(a)-1].Kind == b[len(b)-1].Kind
}

// place lists the posts and bays of the layout that is found.
func (m *Spacing) List() {
	m.Segments = make([]Segment, 0, len(m.Layout.Segments))
	for _, s := range m.Layout.Segments {
		out := Segment{From: s.From, To: s.To, Gate: m.GateID(s.Gate), Bays: s.Bays, Each: s.Regular, Odd: s.Odd, Uneven: s.Uneven, Shift: s.Shift}
		if s.Block != nil {
			for _, k := range s.Block.Of {
				out.GivenUp = append(out.GivenUp, m.Spec.KeepOuts[k].ID)
			}
		}
		m.Segments = append(m.Segments, out)
	}
	m.names()
	m.Posts = make([]Post, len(m.Layout.Posts))
	for i, at := range m.Layout.Posts {
		m.Posts[i] = m.post(i, at)
	}
	m.Bays = make([]Bay, len(m.Layout.Bays))
	for i, b := range m.Layout.Bays {
		from, to := &m.Posts[b.First], &m.Posts[b.First+1]
		m.Bays[i] = Bay{
			ID: "b" + to.ID, Label: m.BayLabel(i), Gate: m.GateID(b.Gate), From: from.Label, To: to.Label,
			CentreToCentre: to.Station - from.Station,
			Clear:          to.Station - from.Station - (m.Spec.PostOf(from.Kind).Width+m.Spec.PostOf(to.Kind).Width)/2,
			Odd:            b.Odd, Piece: b.Piece, PieceCut: b.Cut, Trims: b.Trims, Lead: b.Lead, Trail: b.Trail,
		}
		if b.Held != spacing.Nothing {
			m.Bays[i].Held = m.Spec.HeldBays[b.Held].ID
		}
	}
	m.obstacles()
}

// post is where one post stands, with its own section: that of its kind, or of
// the old post that it is.
func (m *Spacing) post(i int, at spacing.Post) Post {
	own := m.Spec.PostOf(at.Kind)
	p := Post{
		ID: m.ids[i], Label: m.PostLabel(i), By: m.standsBy(i), Kind: at.Kind, Gate: m.GateID(at.Gate), Station: at.Station, Slope: m.Profile.Along(at.Station), Ground: m.Profile.Height(at.Station), Shift: at.Shift, Off: at.Off,
		Width: own.Width, Round: own.Shape == job.RoundPost, Hollow: own.Hollow,
	}
	if at.Held != spacing.Nothing {
		held := m.Spec.FixedPosts[at.Held]
		p.Held, p.Landed = held.ID, held.Landed
	}
	if at.Off != 0 { // a gate's or a held bay's post is held by that
		p.Landed = true
	}
	if at.Stays != spacing.Nothing {
		p.Stays = m.Spec.KeepOuts[at.Stays].ID
		if wide := m.Spec.KeepOuts[at.Stays].Width; wide >= 20 && wide <= widestPost {
			p.Width = wide
		}
	}
	return p
}

// obstacles names what is in the way.
func (m *Spacing) obstacles() {
	m.InTheWay = make([]InTheWay, 0, len(m.Spec.KeepOuts))
	for _, k := range m.Spec.KeepOuts {
		o := InTheWay{ID: k.ID, Kind: k.Kind, Name: k.Name, Path: job.At(m.Path, "keepOuts", k.ID),
			From: k.From(), To: k.To(), HandFrom: k.From() - k.Hand, HandTo: k.To() + k.Hand, Depth: k.Depth, Stays: k.Stays, Repour: k.Repour, Marked: k.Marked}
		what := obstacleNames[k.Kind]
		if s, ok := m.Cat.Service(k.Service); ok && k.Kind == job.Service {
			what, o.Colour = s.Name, s.Token
		}
		o.Said = o.Name
		if o.Name == "" {
			o.Name, o.Said = what, what
			if k.Kind == job.Service {
				o.Said = serviceLine(what)
			}
		}
		m.InTheWay = append(m.InTheWay, o)
	}
}

// hung tells whether a leaf hangs on a post.
func (m *Spacing) Hung(post int) bool {
	for side, bay := range [...]int{post - 1, post} {
		if bay < 0 || bay >= len(m.Layout.Bays) || m.Layout.Bays[bay].Gate == spacing.NoGate {
			continue
		}
		first, second := m.Spec.Gates[m.Layout.Bays[bay].Gate].Hung()
		if side == 0 && second || side == 1 && first {
			return true
		}
	}
	return m.endHung && post == len(m.Layout.Posts)-1
}

func (m *Spacing) FirstPost(segment int) int {
	for _, b := range m.Layout.Bays {
		if b.Segment == segment {
			return b.First
		}
	}
	return 0
}

func IsFooting(k job.KeepOut) bool {
	return k.Kind == job.Footing || k.Kind == job.OldPost && !k.Stays
}

// hits tells whether a hole runs into what is in the way.
func Hits(o InTheWay, station, hole length.Length) bool {
	return station+hole/2 > o.From+length.Tolerance && station-hole/2 < o.To-length.Tolerance
}

// isBlocked tells whether a keep-out is one of those that a stretch could not
// honour, which is said there.
func (m *Spacing) IsBlocked(k int) bool {
	for _, s := range m.Layout.Segments {
		if s.Block != nil && slices.Contains(s.Block.Of, k) {
			return true
		}
	}
	return false
}

// firstBay is the first bay of a segment.
func (m *Spacing) FirstBay(segment int) int {
	return slices.IndexFunc(m.Layout.Bays, func(b spacing.Bay) bool { return b.Segment == segment })
}

// beside is how far a hole must keep from a thing in the way.
func (m *Spacing) Beside(k int) length.Length {
	o := m.Spec.KeepOuts[k]
	switch {
	case IsFooting(o):
		return spacing.Soil(m.Spec.Spacing)
	case o.Kind == job.Service && !m.Spec.Spacing.HandDig:
		return o.Hand
	}
	return 0
}

// groundLeans is how pieces would lean that lay on the ground itself: where a
// leaning run's spacing begins, before its top line is known.
func (m *Spacing) groundLeans(run job.Run) []spacing.Lean {
	var out []spacing.Lean
	var from, low length.Length
	m.Profile.Each(0, m.Ground.Length, func(at, high length.Length) {
		if at > from && run.Grade.LookAt((from+at)/2).Leans() {
			out = append(out, spacing.Lean{From: from, To: at, Slope: Leanable((high - low) / (at - from))})
		}
		from, low = at, high
	})
	return out
}

// steepestLean is the steepest that pieces are spaced along: 2 up for 1 along,
// where nobody stands any more. What is steeper has no posts on which leaning
// pieces fit, and judgeLeans says so; a blunder of a height does not ask for
// millions of posts.
const SteepestLean = 2

func Leanable(slope length.Length) float64 {
	return math.Max(-SteepestLean, math.Min(SteepestLean, float64(slope)))
}

// span are the stations of a bay's two posts.
func (m *Spacing) Span(bay int) (from, to length.Length) {
	first := m.Layout.Bays[bay].First
	return m.Layout.Posts[first].Station, m.Layout.Posts[first+1].Station
}

// misfit is by how much a piece may be too short for its bay before it is
// said: half a mark of the tape, and what its play takes up.
func (m *Spacing) Misfit() length.Length {
	return max(length.Tolerance, m.Job.Units.SmallestMark/2) + 2*m.Spec.Spacing.Play
}

// site is what the spacing must know beside the run.
func (m *Spacing) Site(run job.Run) spacing.Site {
	s := spacing.Site{Mark: m.Job.Units.SmallestMark, Bay: *m.Tolerances.Bay, Pack: *m.Tolerances.Pack, Hole: m.Opened, Start: m.Turned[0], End: m.Turned[1]}
	if _, piece := run.Spacing.ByPiece(); piece && run.Leans() {
		s.Leans = m.groundLeans(run)
	}
	return s
}

// widestPost is the widest that an old post is taken to be; what is wider is
// its footing, or a stretch.
const widestPost = 400 * length.Millimetre

// Alike tells whether two runs carry the same fence. Then a straight joint
// between them is no more than a place where the tape was put down again, and
// at a corner their tops meet.
func Alike(a, b job.Run) bool {
	same := reflect.DeepEqual
	return same(a.Fence, b.Fence) && same(a.Post, b.Post) && same(a.Grade.Settings(), b.Grade.Settings()) && same(a.Hole, b.Hole) && same(a.Setting, b.Setting) && same(a.Kinds, b.Kinds)
}

func (m *Spacing) Odd() int {
	n := 0
	for _, s := range m.Layout.Segments {
		n += s.Odd
	}
	return n
}

// near returns the posts that stand between two stations, or up to reach past
// them: from the first to before the last.
func (m *Spacing) Near(from, to, reach length.Length) (first, last int) {
	posts := m.Posts
	first = sort.Search(len(posts), func(i int) bool { return posts[i].Station >= from-reach })
	last = sort.Search(len(posts), func(i int) bool { return posts[i].Station > to+reach })
	return first, max(first, last)
}

// Corner posts belong to the line: corners settles what kind of post each is
// where two runs meet, a gate's if either run hangs one on it. Alike tells
// whether a run and the one after it carry the same fence.
func Corners(w *walk.Walk, runs []*Spacing, alike func(r, after int) bool) (out []*Spacing, joints []Joint) {
	n := len(runs)
	joints = make([]Joint, n)
	out = make([]*Spacing, n)
	type ends struct {
		first, last job.PostKind
		hung        bool
	}
	kinds := make([]ends, n)
	for r, m := range runs {
		if m.Laid() {
			kinds[r] = ends{first: m.ends[0], last: m.ends[1]}
		}
	}
	for r, m := range runs {
		after := (r + 1) % n
		if after == 0 && !w.Line.Closed || !m.Laid() || !runs[after].Laid() || n == 1 {
			continue
		}
		j, next := &joints[r], runs[after]
		j.Meets = true
		a, b := &kinds[r].last, &kinds[after].first
		switch {
		case m.ends[1] == job.GatePost || next.ends[0] == job.GatePost:
			*a, *b = job.GatePost, job.GatePost
		case math.Abs(w.TurnAt(r).Degrees) >= walk.Straight:
			*a, *b = job.CornerPost, job.CornerPost
		case alike(r, after):
			// One straight fence that is only taped in two pieces.
			*a, *b, j.Plain = job.LinePost, job.LinePost, true
		}
		j.Flows = j.Plain || alike(r, after)
		kinds[r].hung = next.startHung()
	}
	for r, m := range runs {
		out[r] = m.cornered(kinds[r].first, kinds[r].last, kinds[r].hung)
	}
	return out, joints
}

// joint is how a run meets the one after it.
type Joint struct {
	Meets bool // they share a corner post
	Plain bool // straight on, with the same fence on both sides
	Flows bool // they carry the same fence
}

// startHung tells whether a leaf hangs on the run's first post.
func (m *Spacing) startHung() bool {
	if m.Layout.Bays[0].Gate == spacing.NoGate {
		return false
	}
	first, _ := m.Spec.Gates[m.Layout.Bays[0].Gate].Hung()
	return first
}
