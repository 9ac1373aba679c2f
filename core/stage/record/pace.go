package record

import (
	"cmp"
	"math"
	"slices"
	"strconv"
	"time"

	"mallow/core/finding"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/materials"
	"mallow/core/words"
)

// Pace is how fast one kind of work goes, by when its posts were written down.
type Pace struct {
	What    job.Seen `json:"what" jsonschema:"required,enum=dug,enum=set,enum=poured"`
	Posts   int      `json:"posts" jsonschema:"required" jsonschema_description:"That it rests on."`
	Minutes float64  `json:"minutes" jsonschema:"required" jsonschema_description:"Of the whole crew, for one."`
	Planned float64  `json:"planned" jsonschema:"required" jsonschema_description:"The same, as planned for those posts."`
	Left    int      `json:"left" jsonschema:"required" jsonschema_description:"Posts that are not so far yet."`
	Hours   float64  `json:"hours" jsonschema:"required" jsonschema_description:"Of the whole crew, that they take: as planned for them, times what those before took over their plan."`
	Sure    bool     `json:"sure" jsonschema:"required" jsonschema_description:"Enough were timed to go by."`
}

// rest is how long nothing may be written down for the time to count as work: after
// that the crew ate, drove or stopped (common practice: no hole takes two hours).
const rest = 2 * time.Hour

// told is by how much a pace departs from its plan before it is said.
const told = 1.25

// Crew is what is known of how the crew was to work.
type Crew struct {
	People  int
	ByHand  bool
	Brace   float64 // minutes of the crew to set one post
	PerHour float64 // posts that it pours in an hour; 0: not known
	Bears   int     // posts that a truck's load bears before it stiffens; 0: not known
}

// Go adds how fast the work goes, against how fast it was to go.
func (r *Log) Go(c Crew, planned func(post string) float64) {
	for _, p := range []struct {
		what  job.Seen
		stage Stage
		each  func(post string) float64
	}{
		{job.MarkDug, Dug, planned},
		{job.MarkSet, Set, func(string) float64 { return c.Brace }},
		{job.MarkPoured, Poured, func(string) float64 {
			if c.PerHour <= 0 {
				return 0
			}
			return 60 / c.PerHour
		}},
	} {
		if pace, ok := r.pace(p.what, p.stage, p.each); ok {
			r.Paces = append(r.Paces, pace)
		}
	}
	for _, p := range r.Paces {
		if !p.Sure || p.Planned <= 0 || p.Left == 0 || p.Minutes <= told*p.Planned {
			continue
		}
		r.find(codePace, finding.Place{}, words.Say("record.pace-"+string(p.What), words.V{"minutes": whole(p.Minutes), "plan": whole(p.Planned), "left": p.Left, "hours": strconv.FormatFloat(oneDecimal(p.Hours), 'f', -1, 64)}))
	}
	if i := slices.IndexFunc(r.Paces, func(p Pace) bool { return p.What == job.MarkPoured && p.Sure }); i >= 0 && c.Bears > 0 {
		if at := r.Paces[i].Minutes; at > told*60/c.PerHour && r.Paces[i].Left > 0 {
			bears := max(1, int(float64(c.Bears)*60/c.PerHour/at))
			r.find(codeTruck, finding.Place{}, words.Say("record.truck", words.V{"bears": bears, "planned": c.Bears, "minutes": whole(at)}))
		}
	}
}

func whole(v float64) float64 { return math.Round(v) }

// entry is posts that were written down together.
type entry struct {
	at    time.Time
	posts []string
}

// pace times one kind of work. The time from one entry to the next went into the posts
// of the next; the first of each stretch of work tells nothing.
func (r *Log) pace(what job.Seen, so Stage, planned func(post string) float64) (Pace, bool) {
	p := Pace{What: what}
	stands := map[string]bool{}
	for i := range r.Posts {
		stands[r.Posts[i].ID] = true
	}
	var all []entry
	for _, e := range r.marks[what] {
		if stands[e.posts[0]] { // posts that are no longer planned say nothing of what is left
			all = append(all, e)
		}
	}
	slices.SortStableFunc(all, func(a, b entry) int { return a.at.Compare(b.at) })
	var joined []entry
	for _, e := range all {
		if n := len(joined); n > 0 && e.at.Sub(joined[n-1].at) < time.Minute {
			joined[n-1].posts = append(joined[n-1].posts, e.posts...)
			continue
		}
		joined = append(joined, e)
	}
	took := 0.0
	for k := 1; k < len(joined); k++ {
		t := joined[k].at.Sub(joined[k-1].at)
		if t > rest*time.Duration(len(joined[k].posts)) || joined[k].at.YearDay() != joined[k-1].at.YearDay() {
			continue
		}
		took += t.Minutes()
		for _, id := range joined[k].posts {
			p.Posts++
			p.Planned += planned(id)
		}
	}
	if p.Posts == 0 {
		return p, false
	}
	more := 1.0
	if p.Planned > 0 {
		more = took / p.Planned
	}
	p.Minutes, p.Planned, p.Sure = took/float64(p.Posts), p.Planned/float64(p.Posts), p.Posts >= enough
	for i := range r.Posts {
		if o := &r.Posts[i]; o.Stage < so {
			p.Left++
			if each := planned(o.ID); each > 0 {
				p.Hours += each * more / 60
			} else {
				p.Hours += p.Minutes / 60
			}
		}
	}
	return p, true
}

// Late says where the pace so far takes more days than are planned after the last on
// which something was written down; hours is the longest of them on site.
func (r *Log) Late(dates []string, hours float64) {
	if len(r.Days) == 0 || len(dates) == 0 || hours <= 0 {
		return
	}
	last := r.Days[len(r.Days)-1].Date
	left := 0
	for _, d := range dates {
		if d > last {
			left++
		}
	}
	need, sure := 0.0, false
	for _, p := range r.Paces {
		need += p.Hours
		sure = sure || p.Sure
	}
	if days := need / hours; sure && days > float64(left)+0.5 {
		r.find(codeLate, finding.Place{}, words.Say("record.late", words.V{"hours": strconv.FormatFloat(oneDecimal(need), 'f', -1, 64), "needed": int(math.Ceil(days)), "left": left}))
	}
}

// Usual is what a job's record says of how its crew works, against what was planned.
type Usual struct {
	Dig   Learned `json:"dig" jsonschema:"required" jsonschema_description:"Minutes to dig over those planned."`
	Set   Learned `json:"set" jsonschema:"required" jsonschema_description:"Minutes of one person to set and brace a post."`
	Bags  Learned `json:"bags" jsonschema:"required" jsonschema_description:"Bags over those computed, waste not counted."`
	Jobs  int     `json:"jobs" jsonschema:"required"`
	Waste float64 `json:"waste" jsonschema:"required" jsonschema_description:"Share of concrete beyond what is computed, as it comes of the bags: within what a job takes."`

	Crew *job.Crew `json:"crew,omitempty" jsonschema_description:"How fast the crew digs, as it comes of the digging: within what a job takes. Left out while nothing was timed."`
}

// Learned is one figure, and how many posts it rests on.
type Learned struct {
	Value float64 `json:"value" jsonschema:"required"`
	Posts int     `json:"posts" jsonschema:"required"`
}

func (l *Learned) add(value float64, posts int) {
	if n := l.Posts + posts; posts > 0 {
		l.Value, l.Posts = (l.Value*float64(l.Posts)+value*float64(posts))/float64(n), n
	}
}

// Finished tells whether all posts of a job are built, or at least poured: then what it
// took is known.
func (r *Log) Finished() bool { return len(r.Posts) > 0 && r.Poured == len(r.Posts) }

// Learn adds what a finished job says to what others did; people is its crew, and waste
// what it bought beyond what was computed.
func (u *Usual) Learn(r *Log, people int, waste float64) {
	u.Jobs++
	for _, p := range r.Paces {
		switch {
		case p.What == job.MarkDug && p.Planned > 0:
			u.Dig.add(p.Minutes/p.Planned, p.Posts)
		case p.What == job.MarkSet:
			u.Set.add(p.Minutes*float64(people), p.Posts)
		}
	}
	if b := r.Bags; b != nil && b.Planned > 0 {
		u.Bags.add(b.Used/b.Planned*(1+waste), b.Holes)
	}
	if u.Bags.Posts > 0 {
		u.Waste = max(0, u.Bags.Value-1)
	}
}

// Join adds what other jobs taught.
func (u *Usual) Join(o Usual) {
	u.Jobs += o.Jobs
	u.Dig.add(o.Dig.Value, o.Dig.Posts)
	u.Set.add(o.Set.Value, o.Set.Posts)
	u.Bags.add(o.Bags.Value, o.Bags.Posts)
	if u.Bags.Posts > 0 {
		u.Waste = max(0, u.Bags.Value-1)
	}
}

// Limits of what a job takes (core/job: Crew, HoleRules.Waste).
const (
	leastHand, mostHand = 0.001, 5.0
	leastAuger          = 100 * length.Millimetre
	mostAuger           = 100 * length.Metre
	mostSetup           = 120.0
	mostWaste           = 0.5
)

// Offer finds what a job can take of what was learned, from the usual rates of digging.
func (u *Usual) Offer(usual materials.CrewRate) {
	u.Waste = min(u.Waste, mostWaste)
	if u.Dig.Posts == 0 || u.Dig.Value <= 0 {
		return
	}
	auger, setup := min(max(usual.Auger/length.Length(u.Dig.Value), leastAuger), mostAuger), min(usual.Setup*u.Dig.Value, mostSetup)
	u.Crew = &job.Crew{Hand: min(max(usual.Hand/u.Dig.Value, leastHand), mostHand), Auger: &auger, Setup: &setup}
}

// Worst is what differs most of its kind, let go or not.
type Worst struct {
	Deviation
	Run   string `json:"run" jsonschema:"required"`
	Post  string `json:"post" jsonschema:"required" jsonschema_description:"Its id."`
	Label string `json:"label" jsonschema:"required"`
}

// worst finds the post that differs most by each kind of measure.
func (w *recorder) worst() {
	at := map[job.Seen]int{}
	for i := range w.out.Posts {
		o := &w.out.Posts[i]
		for _, d := range o.Deviations {
			if d.State == Spaced {
				continue
			}
			k, known := at[d.What]
			if !known {
				at[d.What] = len(w.out.Worst)
				w.out.Worst = append(w.out.Worst, Worst{d, o.Run, o.ID, o.Label})
			} else if d.By.Abs() > w.out.Worst[k].By.Abs() {
				w.out.Worst[k] = Worst{d, o.Run, o.ID, o.Label}
			}
		}
	}
	share := func(v Worst) float64 { return float64(v.By.Abs()) / math.Max(1, float64(v.Allowed)) }
	slices.SortStableFunc(w.out.Worst, func(a, b Worst) int { return cmp.Compare(share(b), share(a)) })
}
