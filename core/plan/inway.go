package plan

import (
	"fmt"
	"slices"
	"sort"
	"strings"

	"mallow/core/finding"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/reason"
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
	Repour   bool           `json:"repour" jsonschema:"required" jsonschema_description:"Old footing that is dug out and poured anew."`
	Marked   bool           `json:"marked" jsonschema:"required"`

	said string // what it is called in a sentence, after "the"
}

var obstacleNames = map[job.Obstacle]string{
	job.Service: "service", job.Root: "root", job.Rock: "rock", job.Drain: "drain", job.Footing: "old footing", job.OldPost: "existing post", job.NoDig: "no digging",
}

// obstacles places what is in the way and finds the holes that meet it. It is
// the hole that must miss a pipe, not the post's centre.
func (m *maker) obstacles() {
	for i := range m.out.Posts {
		at, wide := m.dugAt(&m.out.Posts[i])
		m.widest = max(m.widest, wide+2*(at-m.out.Posts[i].Station).Abs())
	}
	for i, k := range m.run.KeepOuts {
		o := InTheWay{ID: k.ID, Kind: k.Kind, Name: k.Name, Path: fmt.Sprintf("%s/keepOuts/%d", m.path, i),
			From: k.From(), To: k.To(), HandFrom: k.From() - k.Hand, HandTo: k.To() + k.Hand, Depth: k.Depth, Stays: k.Stays, Repour: k.Repour, Marked: k.Marked}
		what := obstacleNames[k.Kind]
		if s, ok := m.cat.Service(k.Service); ok && k.Kind == job.Service {
			what, o.Colour = s.Name, s.Token
		}
		o.said = o.Name
		if o.Name == "" {
			o.Name, o.said = what, what
			if k.Kind == job.Service {
				o.said = strings.ToLower(what[:1]) + what[1:] + " line"
			}
		}
		m.out.InTheWay = append(m.out.InTheWay, o)
		first, last := m.near(o.HandFrom, o.HandTo, m.widest)
		for p := first; p < last; p++ {
			post := &m.out.Posts[p]
			if post.Stays != "" || k.Repour && isFooting(k) {
				continue
			}
			at, hole := m.dugAt(post)
			switch {
			case hits(o, at, hole):
				post.InWay = append(post.InWay, o.ID)
			case k.Hand > 0 && at+hole/2 > o.HandFrom && at-hole/2 < o.HandTo:
				post.Hand = append(post.Hand, o.ID)
			}
		}
	}
}

// dugAt is where the ground is opened for a post along the run, and how wide
// at the widest: its hole may lie off its middle, and be tapered or belled.
func (m *maker) dugAt(p *Post) (middle, width length.Length) {
	middle, width = p.Station, m.run.PostOf(p.Kind).Width
	if p.Card < 0 {
		return middle, max(width, p.HoleWidth)
	}
	c := &m.out.Cards[p.Card]
	for _, cut := range c.Cuts {
		width = max(width, cut.Width)
	}
	return middle + c.Along, width
}

// near returns the posts that stand between two stations, or up to reach past
// them: from the first to before the last.
func (m *maker) near(from, to, reach length.Length) (first, last int) {
	posts := m.out.Posts
	first = sort.Search(len(posts), func(i int) bool { return posts[i].Station >= from-reach })
	last = sort.Search(len(posts), func(i int) bool { return posts[i].Station > to+reach })
	return first, max(first, last)
}

// hits tells whether a hole runs into what is in the way.
func hits(o InTheWay, station, hole length.Length) bool {
	return station+hole/2 > o.From+length.Tolerance && station-hole/2 < o.To-length.Tolerance
}

// serious are the obstacles that are never dug into.
var serious = map[job.Obstacle]bool{job.Service: true, job.Drain: true, job.NoDig: true}

func (m *maker) judgeObstacles() {
	for k, o := range m.out.InTheWay {
		var hit, hand, near []string
		fixed, soil := -1, m.beside(k)
		first, last := m.near(o.HandFrom, o.HandTo, m.widest+soil)
		for i := first; i < last; i++ {
			p := &m.out.Posts[i]
			at, wide := m.dugAt(p)
			switch {
			case has(p.InWay, o.ID):
				hit = append(hit, p.ID)
				if fixed < 0 {
					fixed = i
				}
			case p.HoleWidth > 0 && isFooting(m.run.KeepOuts[k]) && !m.run.KeepOuts[k].Repour && hits(o, at, wide+2*soil-2*m.job.Units.SmallestMark):
				near = append(near, p.ID)
			}
			if has(p.Hand, o.ID) {
				hand = append(hand, p.ID)
			}
		}
		if len(hit) > 0 && !m.isBlocked(k) {
			f := finding.Finding{Rule: "in-the-way", Stage: finding.Space, Severity: finding.Check, Place: finding.Place{Post: hit[0]},
				Says:     reason.Say("The ", plural(len(hit), "hole", "holes"), " of ", names(hit), plural(len(hit), " runs", " run"), " into the ", o.said, " at ", reason.Tape((o.From+o.To)/2), "."),
				Remedies: m.clearOf(o, fixed)}
			if serious[o.Kind] {
				f.Severity = finding.Cannot
			}
			m.find(f)
		}
		if len(near) > 0 && !m.isBlocked(k) {
			m.find(finding.Finding{Rule: "loose-soil", Stage: finding.Space, Severity: finding.Check, Place: finding.Place{Post: near[0]},
				Says:     reason.Say("The ", plural(len(near), "hole", "holes"), " of ", names(near), plural(len(near), " leaves", " leave"), " less than ", soil, " of firm soil beside the ", o.said, " at ", reason.Tape((o.From+o.To)/2), "."),
				Remedies: m.repour([]int{k})})
		}
		if len(hand) > 0 {
			m.find(finding.Finding{Rule: "hand-dig", Stage: finding.Dig, Severity: finding.Check, Place: finding.Place{Post: hand[0]},
				Says: reason.Say("Dig ", names(hand), " by hand: within ", o.From-o.HandFrom, " of the ", o.said, " at ", reason.Tape((o.From+o.To)/2), ". No auger there.")})
		}
	}
}

// isBlocked tells whether a keep-out is one of those that a stretch could not
// honour, which is said there.
func (m *maker) isBlocked(k int) bool {
	for _, s := range m.layout.Segments {
		if s.Block != nil && slices.Contains(s.Block.Of, k) {
			return true
		}
	}
	return false
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
