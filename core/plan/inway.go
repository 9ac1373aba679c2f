package plan

import (
	"fmt"

	"mallow/core/finding"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/reason"
	"mallow/core/spacing"
)

// InTheWay is something in the way of holes.
type InTheWay struct {
	ID       string         `json:"id" jsonschema:"required"`
	Kind     job.Obstacle   `json:"kind" jsonschema:"required,enum=service,enum=root,enum=rock,enum=drain,enum=footing,enum=old post,enum=no dig"`
	Name     string         `json:"name" jsonschema:"required" jsonschema_description:"What it is, in words."`
	Path     string         `json:"path" jsonschema:"required"`
	From     length.Length  `json:"from" jsonschema:"required"`
	To       length.Length  `json:"to" jsonschema:"required"`
	HandFrom length.Length  `json:"handFrom" jsonschema:"required" jsonschema_description:"Where digging by hand begins."`
	HandTo   length.Length  `json:"handTo" jsonschema:"required"`
	Depth    *length.Length `json:"depth,omitempty"`
	Colour   string         `json:"colour,omitempty" jsonschema_description:"Name of the colour of its marks in the interface; left out for what is no service."`
	Stays    bool           `json:"stays" jsonschema:"required"`
	Marked   bool           `json:"marked" jsonschema:"required"`
}

var obstacleNames = map[job.Obstacle]string{
	job.Service: "service", job.Root: "root", job.Rock: "rock", job.Drain: "drain", job.Footing: "old footing", job.OldPost: "existing post", job.NoDig: "no digging",
}

// obstacles places what is in the way and finds the holes that meet it. It is
// the hole that must miss a pipe, not the post's centre.
func (m *maker) obstacles() {
	for i, k := range m.run.KeepOuts {
		o := InTheWay{ID: k.ID, Kind: k.Kind, Name: k.Name, Path: fmt.Sprintf("%s/keepOuts/%d", m.path, i),
			From: k.From(), To: k.To(), HandFrom: k.From() - k.Hand, HandTo: k.To() + k.Hand, Depth: k.Depth, Stays: k.Stays, Marked: k.Marked}
		what := obstacleNames[k.Kind]
		if s, ok := m.cat.Service(k.Service); ok && k.Kind == job.Service {
			what, o.Colour = s.Name, s.Token
		}
		if o.Name == "" {
			o.Name = what
		}
		m.out.InTheWay = append(m.out.InTheWay, o)
		for p := range m.out.Posts {
			post := &m.out.Posts[p]
			switch {
			case hits(o, post.Station, post.HoleWidth) && !m.built(o, post.Station):
				post.InWay = append(post.InWay, o.ID)
			case k.Hand > 0 && post.Station+post.HoleWidth/2 > o.HandFrom && post.Station-post.HoleWidth/2 < o.HandTo:
				post.Hand = append(post.Hand, o.ID)
			}
		}
	}
}

// hits tells whether a hole runs into what is in the way.
func hits(o InTheWay, station, hole length.Length) bool {
	return station+hole/2 > o.From+length.Tolerance && station-hole/2 < o.To-length.Tolerance
}

// built tells whether a post that stays is the planned post itself.
func (m *maker) built(o InTheWay, station length.Length) bool {
	return o.Kind == job.OldPost && o.Stays && (station-(o.From+o.To)/2).Abs() <= m.run.Post.Width/4
}

// serious are the obstacles that are never dug into.
var serious = map[job.Obstacle]bool{job.Service: true, job.Drain: true, job.NoDig: true}

func (m *maker) judgeObstacles() {
	for _, o := range m.out.InTheWay {
		var hit, hand []string
		for i := range m.out.Posts {
			p := &m.out.Posts[i]
			if has(p.InWay, o.ID) {
				hit = append(hit, p.ID)
			}
			if has(p.Hand, o.ID) {
				hand = append(hand, p.ID)
			}
		}
		if len(hit) > 0 {
			f := finding.Finding{Rule: "in-the-way", Stage: finding.Space, Severity: finding.Check, Place: finding.Place{Post: hit[0]},
				Says:     reason.Say("The ", plural(len(hit), "hole", "holes"), " of ", names(hit), plural(len(hit), " runs", " run"), " into the ", o.Name, " at ", reason.Tape((o.From+o.To)/2), "."),
				Remedies: m.moreBays(o)}
			if serious[o.Kind] {
				f.Severity = finding.Cannot
			}
			m.find(f)
		}
		if len(hand) > 0 {
			m.find(finding.Finding{Rule: "hand-dig", Stage: finding.Dig, Severity: finding.Check, Place: finding.Place{Post: hand[0]},
				Says: reason.Say("Dig ", names(hand), " by hand: within ", o.From-o.HandFrom, " of the ", o.Name, " at ", reason.Tape((o.From+o.To)/2), ". No auger there.")})
		}
	}
}

func has(list []string, s string) bool {
	for _, x := range list {
		if x == s {
			return true
		}
	}
	return false
}

func names(posts []string) string {
	const most = 5
	out := ""
	for i, p := range posts {
		switch {
		case i == most:
			return fmt.Sprintf("%s and %d more", out, len(posts)-most)
		case i > 0 && i == len(posts)-1:
			out += " and "
		case i > 0:
			out += ", "
		}
		out += p
	}
	return out
}

// mostMore is how many more bays are tried before giving up.
const mostMore = 6

// moreBays looks for the least shortening of the most spacing with which no
// hole runs into anything, so that all bays stay equal.
func (m *maker) moreBays(o InTheWay) []finding.Remedy {
	segment := -1
	for i, s := range m.layout.Segments {
		if s.Gate == spacing.NoGate && o.From < s.To && o.To > s.From {
			segment = i
		}
	}
	if segment < 0 {
		return nil
	}
	s := m.layout.Segments[segment]
	for more := 1; more <= mostMore; more++ {
		run := m.run
		// Up to the next mark, so that the count of bays is what was tried.
		mark := m.job.Units.SmallestMark
		run.Spacing.Most = mark * length.Length(int((s.To-s.From)/length.Length(s.Bays+more)/mark)+1)
		if run.Spacing.Most >= m.run.Spacing.Most || run.Spacing.Most < 300 {
			continue
		}
		layout := spacing.Equal(run)
		if m.clear(layout) {
			extra := len(layout.Posts) - len(m.layout.Posts)
			return []finding.Remedy{{
				Says:  reason.Say("Bays of at most ", run.Spacing.Most, ": every hole misses, ", extra, plural(extra, " more post", " more posts")),
				Edits: []job.Edit{m.set("/spacing/most", run.Spacing.Most)},
			}}
		}
	}
	return nil
}

func (m *maker) clear(l spacing.Layout) bool {
	for _, p := range l.Posts {
		hole := m.holeWidth(p.Kind)
		for _, o := range m.out.InTheWay {
			if hits(o, p.Station, hole) && !m.built(o, p.Station) {
				return false
			}
		}
	}
	return true
}

// holeWidth is how wide the holes of a kind of post are on this run.
func (m *maker) holeWidth(kind job.PostKind) length.Length {
	if w, ok := m.widths[kind]; ok {
		return w.Width
	}
	return m.widths[job.LinePost].Width
}
