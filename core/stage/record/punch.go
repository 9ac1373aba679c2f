package record

import (
	"cmp"
	"slices"
	"strings"
	"time"

	"mallow/core/finding"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/reason"
	"mallow/core/words"
)

// Punch is one thing that is to be done before the crew leaves for good.
type Punch struct {
	Run   string      `json:"run" jsonschema:"required"`
	Post  string      `json:"post,omitempty" jsonschema_description:"Its id."`
	Label string      `json:"label,omitempty" jsonschema_description:"Of the post, or name of the gate."`
	Says  reason.Text `json:"says" jsonschema:"required"`
}

// WayName is what people call a way that was decided on.
func WayName(way string) string {
	first, _, _ := strings.Cut(way, " ")
	for _, id := range []string{way, first} {
		if id = "choice.todo-" + words.Key(id); words.Has(id) {
			return words.Plain(id)
		}
	}
	return way
}

// GateAt is a gate of a job.
type GateAt struct{ Run, ID, Name string }

// nothingToDo are decisions after which nothing is left to do.
var nothingToDo = []string{"leave", "take", "on-mark", "tamp"}

// Punches lists what is open: what nothing is decided about, what was decided and is to
// be done, posts and gates that are not built.
func (r *Log) Punches(gates []GateAt) {
	r.Punch = []Punch{}
	for i := range r.Posts {
		o := &r.Posts[i]
		for _, d := range o.Deviations {
			switch {
			case d.State == Open:
				r.Punch = append(r.Punch, Punch{o.Run, o.ID, o.Label, d.Says})
			case d.State == Decided && o.Stage < Built && !slices.Contains(nothingToDo, d.Way):
				r.Punch = append(r.Punch, Punch{o.Run, o.ID, o.Label, append(slices.Clone(d.Says), words.Say("record.punch-decided", words.V{"way": WayName(d.Way)})...)})
			}
		}
	}
	for _, run := range r.runIDs {
		var first, last string
		n := 0
		for i := range r.Posts {
			if o := &r.Posts[i]; o.Run == run && o.Stage < Built {
				if n++; n == 1 {
					first = o.Label
				}
				last = o.Label
			}
		}
		if n > 0 {
			r.Punch = append(r.Punch, Punch{Run: run, Says: words.Say("record.punch-posts", words.V{"count": n, "first": first, "last": last})})
		}
	}
	for _, g := range gates {
		if !r.gates[g.Run+"/"+g.ID] {
			r.Punch = append(r.Punch, Punch{Run: g.Run, Label: g.Name, Says: words.Say("record.punch-gate", words.V{"gate": g.Name})})
		}
	}
}

// Reminder is a day on which to come back.
type Reminder struct {
	ID   string      `json:"id" jsonschema:"required" jsonschema_description:"Stable, for programs: gates or spring."`
	Date string      `json:"date" jsonschema:"required" jsonschema_description:"Year-month-day."`
	Says reason.Text `json:"says" jsonschema:"required"`
}

// settles is after how many days gates are looked at again (common practice: in the
// first week hinges and posts settle).
const settles = 7

// Remind finds when to come back after the last day of the work: to the gates after a
// week, and in the first spring, when frost has lifted what it can. South of the equator
// that is in October.
func (r *Log) Remind(last string, gates int, south bool) {
	r.Later = []Reminder{}
	day, err := time.Parse(time.DateOnly, last)
	if err != nil {
		return
	}
	if gates > 0 {
		r.Later = append(r.Later, Reminder{"gates", day.AddDate(0, 0, settles).Format(time.DateOnly), words.Say("record.later-gates")})
	}
	month := time.April
	if south {
		month = time.October
	}
	spring := time.Date(day.Year(), month, 1, 0, 0, 0, 0, time.UTC)
	if !spring.After(day) {
		spring = spring.AddDate(1, 0, 0)
	}
	r.Later = append(r.Later, Reminder{"spring", spring.Format(time.DateOnly), words.Say("record.later-spring")})
}

// RailBay is a bay with the length that its rails must have.
type RailBay struct {
	Run, Post string // that it follows, by its id
	Label     string
	Needs     length.Length
	Count     int // rails
}

// CutRail is rails that were cut for a bay, held against what the bay needs now.
type CutRail struct {
	Fact  string        `json:"fact" jsonschema:"required"`
	Run   string        `json:"run" jsonschema:"required"`
	Bay   string        `json:"bay" jsonschema:"required" jsonschema_description:"Label of the bay that they were cut for."`
	Long  length.Length `json:"long" jsonschema:"required" jsonschema_description:"As cut."`
	Needs length.Length `json:"needs" jsonschema:"required" jsonschema_description:"What the bay needs now."`
	Fits  bool          `json:"fits" jsonschema:"required"`
	Trim  length.Length `json:"trim" jsonschema:"required" jsonschema_description:"To cut off, where they fit."`
	Use   string        `json:"use,omitempty" jsonschema_description:"Bay in which rails that no longer fit can be used, by its label; left out where there is none."`
	Off   length.Length `json:"off" jsonschema:"required" jsonschema_description:"To cut off there."`
}

// Fit holds rails that were cut against the bays as they are now. What is too short for
// its own bay goes where the least is cut off, the longest first, so that no rail takes a
// bay that only a longer one could fill as well.
func (r *Log) Fit(bays []RailBay) {
	may := func(run string) length.Length { return *r.may[run].Bay }
	r.Cut = []CutRail{}
	taken := map[int]bool{}
	var out []int
	at := map[string]int{}
	for i, b := range bays {
		at[b.Post] = i
	}
	for _, f := range r.cuts {
		b, known := at[f.OnPost()]
		if !known || f.Value == nil {
			continue
		}
		c := CutRail{Fact: f.ID, Run: bays[b].Run, Bay: bays[b].Label, Long: length.Length(*f.Value), Needs: bays[b].Needs}
		taken[b] = true // rails are there for it, or are cut again
		if short := c.Needs - c.Long; short <= may(c.Run)+length.Tolerance {
			c.Fits, c.Trim = true, max(0, -short)
		} else {
			out = append(out, len(r.Cut))
			taken[b] = false
		}
		r.Cut = append(r.Cut, c)
	}
	slices.SortStableFunc(out, func(a, b int) int { return cmp.Compare(r.Cut[b].Long, r.Cut[a].Long) })
	for _, k := range out {
		c, best := &r.Cut[k], -1
		for i, b := range bays {
			if !taken[i] && b.Needs <= c.Long+may(b.Run)+length.Tolerance && (best < 0 || b.Needs > bays[best].Needs) {
				best = i
			}
		}
		says := words.Say("record.cut-lost", words.V{"bay": c.Bay, "long": c.Long, "needs": c.Needs})
		if best >= 0 {
			taken[best] = true
			c.Use, c.Off = bays[best].Label, max(0, c.Long-bays[best].Needs)
			says = words.Say("record.cut-elsewhere", words.V{"bay": c.Bay, "long": c.Long, "needs": c.Needs, "use": c.Use, "off": c.Off})
		}
		r.find(codeCut, finding.Place{Run: c.Run, Bay: c.Bay}, says)
	}
}

// last is the day on which the last was built, where all is.
func (r *Log) Last() string {
	if len(r.Posts) == 0 || r.Built < len(r.Posts) || len(r.Days) == 0 {
		return ""
	}
	last := ""
	for _, d := range r.Days {
		for _, o := range d.Done {
			if o.What == job.MarkBuilt {
				last = d.Date
			}
		}
	}
	return last
}
