package plan

import (
	"fmt"
	"math"
	"slices"

	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/reason"
	"mallow/core/stringline"
)

// TopLine is how a run's tops are brought to height on site, in the four ways
// in use, and the story stick that carries every mark.
type TopLine struct {
	By     job.TopsBy      `json:"by" jsonschema:"required,enum=string,enum=laser,enum=drops,enum=sight" jsonschema_description:"The way that the run is set by."`
	Mark   length.Length   `json:"mark" jsonschema:"required" jsonschema_description:"Reference mark below the fence's top, the same on every post."`
	Laser  length.Length   `json:"laser" jsonschema:"required" jsonschema_description:"Height of the laser's level plane above the datum."`
	High   string          `json:"high" jsonschema:"required" jsonschema_description:"Post with the highest top: the level string is tied there, at its top."`
	Eye    length.Length   `json:"eye" jsonschema:"required" jsonschema_description:"Height of the eyes."`
	Pieces []TopPiece      `json:"pieces" jsonschema:"required" jsonschema_description:"Strings to pull: from each end, gate and grade post to the next."`
	Posts  []TopPost       `json:"posts" jsonschema:"required"`
	Rails  []length.Length `json:"rails" jsonschema:"required" jsonschema_description:"Middles of the rails above the fence's bottom, the lowest first."`
	Stick  []StickMark     `json:"stick" jsonschema:"required" jsonschema_description:"The story stick, from the top down."`
	Limit  *TopLimit       `json:"limit,omitempty" jsonschema_description:"What limits a level fence's height; left out where no post does."`
	Steps  []reason.Text   `json:"steps" jsonschema:"required" jsonschema_description:"What to do on site, in order."`
	Why    reason.Ref      `json:"why" jsonschema:"required"`
}

// TopPiece is one string over the tops.
type TopPiece struct {
	From   string        `json:"from" jsonschema:"required"`
	To     string        `json:"to" jsonschema:"required"`
	Length length.Length `json:"length" jsonschema:"required" jsonschema_description:"Along the string."`
	Rise   length.Length `json:"rise" jsonschema:"required" jsonschema_description:"From its first top to its last; negative is falling."`
	Sag    length.Length `json:"sag" jsonschema:"required" jsonschema_description:"At its middle, without props."`
	Props  []Prop        `json:"props" jsonschema:"required" jsonschema_description:"That keep the sag within what is let go."`
}

// Prop holds a string up between its ends.
type Prop struct {
	At     length.Length `json:"at" jsonschema:"required" jsonschema_description:"Station."`
	Height length.Length `json:"height" jsonschema:"required" jsonschema_description:"Of its head above the ground there."`
}

// TopPost is one post's top, by each of the ways.
type TopPost struct {
	Post   string        `json:"post" jsonschema:"required"`
	Laser  length.Length `json:"laser" jsonschema:"required" jsonschema_description:"From the laser's mark up to the cut; negative is down."`
	Drop   length.Length `json:"drop" jsonschema:"required" jsonschema_description:"From the level string down to the top."`
	String length.Length `json:"string" jsonschema:"required" jsonschema_description:"The top over the string of its piece, as it hangs on its props; negative is under it."`
	Sight  length.Length `json:"sight" jsonschema:"required" jsonschema_description:"How far the top lies over the line of sight between the tops of its piece's ends; negative: drop it by so much."`
}

// StickMark is one mark of the story stick.
type StickMark struct {
	Name string        `json:"name" jsonschema:"required"`
	Kind string        `json:"kind" jsonschema:"required,enum=cut,enum=top,enum=mark,enum=rail,enum=hole,enum=bracket,enum=bottom,enum=ground"`
	Up   length.Length `json:"up" jsonschema:"required" jsonschema_description:"From the reference mark up; negative is down."`
	To   length.Length `json:"to" jsonschema:"required" jsonschema_description:"Lower edge of what has a height; else the same."`
}

// TopLimit is the post that a level fence cannot rise past.
type TopLimit struct {
	Post  string        `json:"post" jsonschema:"required"`
	Spare length.Length `json:"spare" jsonschema:"required" jsonschema_description:"How much higher the fence could be before its longest stock is too short; negative: it is too short by so much."`
	Stock length.Length `json:"stock" jsonschema:"required"`
}

// The laser's plane lies clear of grass and tripod legs, at a height that is
// easily marked, and where that can be had it crosses every post (common
// practice: 150 to 900 mm over the highest ground).
const (
	laserLeast = 150 * length.Millimetre
	laserMost  = 900 * length.Millimetre
	underTop   = 50 * length.Millimetre // room for a mark under the cut
)

func (m *maker) topLine() {
	s := m.run.String
	t := &TopLine{By: m.run.Grade.By, Mark: s.Mark, Eye: m.run.Grade.Eye(m.job.Units), Pieces: []TopPiece{}, Rails: m.run.RailHeights(), Stick: m.stick()}
	if t.By == "" {
		t.By = job.ByString
	}
	kind, ok := m.cat.String(s.Kind)
	if !ok {
		kind, _ = m.cat.String(m.usual.String.Kind)
	}
	cord := stringline.Cord{Weight: kind.Weight, Diameter: kind.Diameter, Pull: s.Pull}
	posts := m.out.Posts
	high := 0
	ground, lowest := length.Length(math.Inf(-1)), length.Length(math.Inf(1))
	for i := range posts {
		ground, lowest = max(ground, posts[i].Ground), min(lowest, posts[i].Top)
		if posts[i].Top > posts[high].Top+length.Tolerance {
			high = i
		}
	}
	// A round height, so that it is set once and kept in mind.
	t.Laser = m.job.Units.Round(max(ground+laserLeast, min(ground+laserMost, lowest-underTop)))
	t.High = posts[high].ID
	for i := range posts {
		t.Posts = append(t.Posts, TopPost{Post: posts[i].ID, Laser: posts[i].Top - t.Laser, Drop: posts[high].Top - posts[i].Top})
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
	t.Steps = m.topSteps(t)
	t.Why = m.whyTopLine(t, cord, kind)
	m.out.TopLine = t
}

// tiedAt tells whether a string over the tops is tied at a post: an end, a
// gate, or where the top changes slope.
func (m *maker) tiedAt(i int) bool {
	p := m.out.Posts[i]
	return p.Kind != job.LinePost || p.Grade
}

// pull stretches a string over the tops from one post to another.
func (t *TopLine) pull(m *maker, cord stringline.Cord, a, b int) {
	from, to := m.out.Posts[a], m.out.Posts[b]
	// A corner post may stand higher for the other run: the string is tied to
	// it at this run's top.
	first, last := m.line.Tops[a], m.line.Tops[b]
	level := to.Station - from.Station
	straight := func(at length.Length) length.Length {
		return first + (last-first)*(at-from.Station)/level
	}
	props := 0
	if b > a+1 {
		props = max(cord.Props(level, sagAllowed), (b-a-1)/propEvery)
	}
	piece := TopPiece{From: from.ID, To: to.ID, Rise: last - first, Sag: cord.MidSag(level), Props: []Prop{},
		Length: length.Length(math.Hypot(float64(level), float64(last-first)))}
	for k := range props {
		at := from.Station + level*length.Length(k+1)/length.Length(props+1)
		piece.Props = append(piece.Props, Prop{at, straight(at) - m.profile.Height(at)})
	}
	t.Pieces = append(t.Pieces, piece)
	for i := a + 1; i < b; i++ {
		p := m.out.Posts[i]
		line := straight(p.Station)
		t.Posts[i].Sight = p.Top - line
		t.Posts[i].String = p.Top - line + cord.Hung(level, props, p.Station-from.Station)
	}
}

// topLimit finds the post that keeps a level fence from being higher: the one
// whose longest stock ends first.
func (m *maker) topLimit() *TopLimit {
	longest := length.Length(0)
	for _, l := range m.run.Post.Stock {
		longest = max(longest, l)
	}
	var out *TopLimit
	for i := range m.out.Posts {
		p := &m.out.Posts[i]
		if p.Stays != "" || !m.levelAt(i) {
			continue
		}
		if spare := longest - p.Needed; out == nil || spare < out.Spare-length.Tolerance {
			out = &TopLimit{p.ID, spare, longest}
		}
	}
	return out
}

// levelAt tells whether a post carries a bay of level look.
func (m *maker) levelAt(i int) bool {
	return i > 0 && m.out.Bays[i-1].Look == job.Level || i < len(m.out.Bays) && m.out.Bays[i].Look == job.Level
}

// stick lists every mark that is the same on all posts.
func (m *maker) stick() []StickMark {
	f, mark := m.run.Fence, m.run.String.Mark
	out := []StickMark{}
	add := func(name, kind string, up, to length.Length) { out = append(out, StickMark{name, kind, up, to}) }
	cut, both := "Post cut", "Post cut, fence top"
	if !m.can(job.CutPosts) {
		cut, both = "Post top", "Post top, fence top"
	}
	line, terminal := m.run.PostOf(job.LinePost).Above, m.run.PostOf(job.EndPost).Above
	if !length.Same(line, terminal) {
		add("Terminal post top", "cut", mark+terminal, mark+terminal)
		cut = "Line post top"
	}
	if line != 0 {
		if line > 0 {
			add(cut, "cut", mark+line, mark+line)
		}
		add("Fence top", "top", mark, mark)
		if line < 0 {
			add(cut, "cut", mark+line, mark+line)
		}
	} else {
		add(both, "cut", mark, mark)
	}
	rails := m.run.RailHeights()
	kind, what := m.railKind()
	wide := f.Rail(m.job.Units)
	placed := mark <= 0
	for i := len(rails) - 1; i >= 0; i-- {
		middle := mark - f.Height + rails[i]
		if !placed && middle+wide/2 < 0 {
			add("Reference mark", "mark", 0, 0)
			placed = true
		}
		name := what
		switch {
		case len(rails) == 1:
		case i == len(rails)-1:
			name = "Top " + what
		case i == 0:
			name = "Bottom " + what
		default:
			name = "Middle " + what
		}
		add(name, kind, middle+wide/2, middle-wide/2)
	}
	if !placed {
		add("Reference mark", "mark", 0, 0)
	}
	add("Fence bottom", "bottom", mark-f.Height, mark-f.Height)
	add("Ground, least and most gap", "ground", mark-f.Height-f.GapLeast, mark-f.Height-f.GapMost)
	return out
}

// railKind is how rails are held by the posts.
func (m *maker) railKind() (kind, name string) {
	switch {
	case m.run.Spacing.Way == job.OverlapRails && m.can(job.MorticePosts):
		return "hole", "rail hole"
	case m.run.Spacing.Way == job.PanelsBetween && m.run.Spacing.Slot > 0:
		return "hole", "rout"
	case m.run.Post.Hollow || m.run.Spacing.Way == job.PanelsBetween:
		return "bracket", "bracket"
	}
	return "rail", "rail"
}

// topSteps says how the tops are set, for the chosen school.
func (m *maker) topSteps(t *TopLine) []reason.Text {
	say := func(parts ...any) reason.Text { return reason.Say(parts...) }
	first, last := m.out.Posts[0], m.out.Posts[len(m.out.Posts)-1]
	var out []reason.Text
	switch t.By {
	case job.ByLaser:
		out = append(out,
			say("Set the laser where it sees every post, its plane ", t.Laser, " above the datum: ", t.Laser-first.Ground, " above the ground at ", first.ID, "."),
			say("Mark every post at the plane, then measure from that mark: the list gives up or down to the cut, post by post."),
			say("Check the last post against the first before cutting: the two marks must still agree."))
		if over := m.overTops(t.Laser); len(over) > 0 {
			out = slices.Insert(out, 2, say("The plane passes over the tops at ", ids(over), ": there, hold the rod on the post and cut where the plane lies over it by what the list says; or set the laser lower and carry its height over."))
		}
	case job.ByDrops:
		out = append(out,
			say("Tie a string at the top of ", t.High, ", the highest, and level it with a line level or a water level; bump it down where it gets too high to reach."),
			say("At every post measure down from the level string by its drop, and mark."),
			say("A level string over a long run sags: prop it every 3 or 4 posts, or carry the level on post by post."))
	case job.ByEye:
		out = append(out,
			say("Set ", m.tied(), " to their heights first, the eyes level with their marks, ", t.Mark, " below the tops."),
			say("From one, sight over the next set post: have each post between dropped or lifted by what the list says, working away from you."),
			say("Look along again from the other end before the concrete takes hold: the eye sees a bump of 3 mm (1/8 in) that a tape does not."))
	default:
		out = append(out, say("Set ", m.tied(), " first, to their heights above ground. They carry the string."))
		out = append(out, say("Drive a dead-man post or stake ", m.run.String.Beyond, " beyond ", first.ID, " and ", last.ID, " and tie off there, over their tops, so that the pull does not lean the set posts."))
		if k := t.longest(); k >= 0 {
			p := t.Pieces[k]
			if len(p.Props) > 0 {
				mid := p.Props[len(p.Props)/2]
				says := say("Pull tight. From ", p.From, " to ", p.To, " it would sag ", p.Sag, ": ")
				if n := len(p.Props); n == 1 {
					says = append(says, say("set a prop in the middle, its head ")...)
				} else {
					says = append(says, say("set ", n, " props, evenly; the head of the middle one ")...)
				}
				out = append(out, append(says, say(mid.Height, " above the ground at ", reason.Tape(mid.At), ".")...))
			} else {
				out = append(out, say("Pull tight. At its longest, ", p.From, " to ", p.To, ", the string sags ", p.Sag, "; that is let go."))
			}
		}
		if m.run.Grade.Look == job.Stepped && m.run.Grade.Steps == job.EvenSteps {
			out = append(out, say("Lift each post until its top touches the string, and hold it there. Equal bays then drop equally."))
		} else {
			out = append(out, say("Bring each top to the string, or off it by what the list says."))
		}
	}
	return out
}

// overTops lists the posts that a level plane passes over.
func (m *maker) overTops(plane length.Length) []string {
	var out []string
	for i := range m.out.Posts {
		if m.out.Posts[i].Top < plane {
			out = append(out, m.out.Posts[i].ID)
		}
	}
	return out
}

// mostNamed is how many posts are named one by one.
const mostNamed = 6

// tied names the posts that are set first.
func (m *maker) tied() string {
	first := []string{m.out.Posts[0].ID}
	n := len(m.out.Posts)
	for i := 1; i < n; i++ {
		if i == n-1 || m.tiedAt(i) {
			first = append(first, m.out.Posts[i].ID)
		}
	}
	if len(first) > mostNamed {
		return "the end, gate and grade posts"
	}
	return ids(first)
}

// ids names posts: P1, P2 and P3; of many the first, the last and how many.
func ids(all []string) string {
	if n := len(all); n > mostNamed {
		return fmt.Sprintf("%d posts, %s to %s among them", n, all[0], all[n-1])
	}
	out := all[0]
	for i, id := range all[1:] {
		if i == len(all)-2 {
			out += " and " + id
		} else {
			out += ", " + id
		}
	}
	return out
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
