package job

import (
	"slices"
	"strconv"
	"strings"

	"mallow/core/length"
)

// What is planned is what is meant to be; what was seen on site are facts
// beside it. A fact is never changed and never taken away: one that was wrong
// is struck out by a later one, which says so.

// Seen is a kind of fact.
type Seen string

// What is seen on site.
const (
	Landed     Seen = "landed"     // a post really stands at a station
	SeenRock   Seen = "rock"       // a hole was stopped by rock at a depth
	SeenWater  Seen = "water"      // by water
	SeenRoot   Seen = "root"       // by a root
	SeenPipe   Seen = "service"    // a service was met at a depth
	DepthDug   Seen = "depth"      // of a hole, as dug
	WidthDug   Seen = "width"      // of a hole, as dug
	OffPlumb   Seen = "plumb"      // a post leans by so much over its height
	OffLine    Seen = "line"       // a post stands beside the string by so much
	GravelUsed Seen = "gravel"     // in a hole, cubic metres
	BagsUsed   Seen = "bags"       // in a hole
	Sagged     Seen = "sag"        // a gate's tip has dropped
	TopMark    Seen = "top"        // a post's top stands so much over where it should
	OffAcross  Seen = "lean"       // a post leans across the fence, as plumb does along it
	CutTo      Seen = "cut"        // the rails of the bay after a post are cut to a length
	MarkStaked Seen = "staked"     // done marks
	MarkDug    Seen = "dug"        //
	MarkSet    Seen = "set"        //
	MarkPoured Seen = "poured"     //
	MarkBuilt  Seen = "built"      //
	Noted      Seen = "note"       // free words
	Decided    Seen = "decided"    // what is done about an earlier fact
	StruckOut  Seen = "struck out" // an earlier fact was wrong
)

// Measured is what a kind of fact measures.
type Measured string

// What facts measure.
const (
	MeasuresNothing Measured = ""
	MeasuresLength  Measured = "length" // millimetres
	MeasuresVolume  Measured = "volume" // cubic metres
	MeasuresCount   Measured = "count"
)

// Sight says what belongs to a kind of fact.
type Sight struct {
	What     Seen     `json:"what" jsonschema:"required"`
	Measures Measured `json:"measures,omitempty" jsonschema:"enum=length,enum=volume,enum=count"`
	Most     float64  `json:"most,omitempty" jsonschema_description:"The most that it can be; the least is 0, or as much below it where it can lie on either side."`
	Sides    bool     `json:"sides,omitempty" jsonschema_description:"It can be negative."`
	Handed   bool     `json:"handed,omitempty" jsonschema_description:"It lies on one of two hands as the line is walked: with a station, it changes hands when the run is turned round."`
	Placed   bool     `json:"placed,omitempty" jsonschema_description:"It has a station."`
	About    []string `json:"about" jsonschema:"required" jsonschema_description:"What it can be about: job, run, post, gate."`
}

var posts = []string{"post"} // and their holes

// Sights are the kinds of fact.
var Sights = []Sight{
	{What: Landed, Placed: true, About: posts},
	{What: SeenRock, Measures: MeasuresLength, Most: 5000, Placed: true, About: posts},
	{What: SeenWater, Measures: MeasuresLength, Most: 5000, Placed: true, About: posts},
	{What: SeenRoot, Measures: MeasuresLength, Most: 5000, Placed: true, About: posts},
	{What: SeenPipe, Measures: MeasuresLength, Most: 10000, Placed: true, About: []string{"post", "run"}},
	{What: DepthDug, Measures: MeasuresLength, Most: 5000, About: posts},
	{What: WidthDug, Measures: MeasuresLength, Most: 3000, About: posts},
	{What: OffPlumb, Measures: MeasuresLength, Most: 1000, Sides: true, Handed: true, About: posts},
	{What: OffAcross, Measures: MeasuresLength, Most: 1000, Sides: true, Handed: true, About: posts},
	{What: TopMark, Measures: MeasuresLength, Most: 1000, Sides: true, About: posts},
	{What: OffLine, Measures: MeasuresLength, Most: 2000, Sides: true, Handed: true, About: posts},
	{What: GravelUsed, Measures: MeasuresVolume, Most: 10, About: posts},
	{What: BagsUsed, Measures: MeasuresCount, Most: 1000, About: posts},
	{What: Sagged, Measures: MeasuresLength, Most: 600, About: []string{"gate"}},
	{What: CutTo, Measures: MeasuresLength, Most: 20000, About: posts},
	{What: MarkStaked, About: posts},
	{What: MarkDug, About: posts},
	{What: MarkSet, About: posts},
	{What: MarkPoured, About: posts},
	{What: MarkBuilt, About: []string{"post", "gate", "run"}},
	{What: Noted, About: []string{"job", "run", "post", "gate"}},
	{What: Decided, About: posts},
	{What: StruckOut, About: []string{"job", "run", "post", "gate"}},
}

// SightOf says what belongs to a kind of fact.
func SightOf(what Seen) (Sight, bool) {
	i := slices.IndexFunc(Sights, func(s Sight) bool { return s.What == what })
	if i < 0 {
		return Sight{}, false
	}
	return Sights[i], true
}

// Fact is what was seen on site.
type Fact struct {
	ID      string         `json:"id" jsonschema:"required,minLength=1,maxLength=40"`
	On      string         `json:"on" jsonschema:"required,minLength=3,maxLength=120" jsonschema_description:"What it is about: job, run/R1, post/R1.7 or gate/R1/G2, by ids."`
	What    Seen           `json:"what" jsonschema:"required,enum=landed,enum=rock,enum=water,enum=root,enum=service,enum=depth,enum=width,enum=plumb,enum=line,enum=lean,enum=top,enum=gravel,enum=bags,enum=sag,enum=cut,enum=staked,enum=dug,enum=set,enum=poured,enum=built,enum=note,enum=decided,enum=struck out"`
	At      *length.Length `json:"at,omitempty" jsonschema:"minimum=0,maximum=100000000" jsonschema_description:"Station on the run at which it was seen: where a post landed, where a hole was dug. It goes along when the run is split, joined or turned round."`
	Value   *float64       `json:"value,omitempty" jsonschema:"minimum=-100000,maximum=100000" jsonschema_description:"What was measured: millimetres, cubic metres, or a count."`
	Unit    string         `json:"unit,omitempty" jsonschema:"enum=mm,enum=cm,enum=m,enum=in,enum=ft,enum=ft-in,enum=L,enum=m3,enum=yd3,enum=bags" jsonschema_description:"What it was read in: it is said back so."`
	When    string         `json:"when,omitempty" jsonschema:"maxLength=40" jsonschema_description:"Date and time, RFC 3339; left out where it is not known."`
	Who     string         `json:"who,omitempty" jsonschema:"maxLength=80"`
	Note    string         `json:"note,omitempty" jsonschema:"maxLength=1000"`
	Answers string         `json:"answers,omitempty" jsonschema:"maxLength=40" jsonschema_description:"Decided: the earlier fact that something is done about."`
	Way     string         `json:"way,omitempty" jsonschema:"maxLength=40" jsonschema_description:"Decided: what is done, by its name in the advice."`
	Photo   string         `json:"photo,omitempty" jsonschema:"maxLength=40" jsonschema_description:"Note: the photograph that shows it, by its id among the job's."`
	Turned  bool           `json:"turned,omitempty" jsonschema_description:"The run was turned round since it was measured: left is right now, and on is back."`
	Strikes string         `json:"strikes,omitempty" jsonschema:"maxLength=40" jsonschema_description:"Struck out: the earlier fact that was wrong."`

	Void bool `json:"-"` // a later fact strikes it out
}

// About is what a fact is about: its kind, and the ids that lead to it.
func (f Fact) About() (kind string, ids []string) {
	all := Names("/" + f.On)
	return all[0], all[1:]
}

// OnPost is the post that it is about; "" where it is about something else.
// There are thousands of facts, most of them about posts.
func (f Fact) OnPost() string {
	id, ok := strings.CutPrefix(f.On, "post/")
	if !ok || strings.IndexByte(id, '/') >= 0 {
		return ""
	}
	if strings.IndexByte(id, '~') >= 0 {
		return unescaped(id)
	}
	return id
}

// SaysAs tells whether another fact says the same: where it lies on the run
// can have changed with the run.
func (f Fact) SaysAs(o Fact) bool {
	if (f.Value == nil) != (o.Value == nil) || f.Value != nil && *f.Value != *o.Value {
		return false
	}
	f.Value, o.Value, f.At, o.At, f.On, o.On, f.Void, o.Void, f.Turned, o.Turned = nil, nil, nil, nil, "", "", false, false, false, false
	return f == o
}

// Handed tells whether it lies on one of two hands as the line is walked: turned round,
// it lies on the other.
func (f Fact) Handed() bool {
	s, _ := SightOf(f.What)
	return s.Handed
}

// Measure is what was measured, by the hands of the line as it is walked now.
func (f Fact) Measure() *float64 {
	if f.Value == nil || !f.Turned || !f.Handed() {
		return f.Value
	}
	v := -*f.Value
	return &v
}

// On is how a fact names what it is about.
func On(kind string, ids ...string) string {
	return strings.TrimPrefix(At("", append([]string{kind}, ids...)...), "/")
}

// Laid is a post of the last layout, by which it keeps its name in the next.
type Laid struct {
	ID    string        `json:"id" jsonschema:"required,minLength=1,maxLength=60" jsonschema_description:"Unlike that of any other post of the job, now or before."`
	At    length.Length `json:"at" jsonschema:"required,minimum=0,maximum=100000000" jsonschema_description:"Station, to the millimetre."`
	By    string        `json:"by,omitempty" jsonschema:"maxLength=120" jsonschema_description:"What it stands by: start, end, gates/G1/first, gates/G1/second, fixedPosts/F1, heldBays/H1/first, heldBays/H1/second or keepOuts/K1. Left out: a line post."`
	Label string        `json:"label,omitempty" jsonschema:"maxLength=20" jsonschema_description:"What it is called for good since it was staked; else it is called by its place in order."`
}

// Settled is the job with its facts in their places: posts that landed are
// held where they stand, holes that were stopped are stopped, gates have
// dropped as they have.
func (j Job) Settled() Job {
	void := map[string]bool{}
	for _, f := range j.Observed {
		if f.What == StruckOut {
			void[f.Strikes] = true
		}
	}
	seen, gates, runOf := map[string][]Fact{}, map[string][]Fact{}, map[string]string{}
	firm := map[string]firmness{}
	unlaid := map[string]bool{}
	for _, l := range j.Lines {
		for _, r := range l.Runs {
			unlaid[r.ID] = len(r.Laid) == 0
			for _, p := range r.Laid {
				runOf[p.ID] = r.ID
			}
		}
	}
	for _, f := range j.Observed {
		// A run that was never laid out gives its posts their names in order.
		if id := f.OnPost(); id != "" && runOf[id] == "" {
			if dot := strings.LastIndexByte(id, '.'); dot > 0 && unlaid[id[:dot]] {
				runOf[id] = id[:dot]
			}
		}
	}
	for _, f := range j.Observed {
		f.Void = len(void) > 0 && void[f.ID]
		if post := f.OnPost(); post != "" {
			if !f.Void {
				firm[post] = firm[post].with(f.What)
			}
			if f.At != nil {
				seen[runOf[post]] = append(seen[runOf[post]], f)
			}
			continue
		}
		switch kind, ids := f.About(); {
		case kind == "gate" && len(ids) == 2:
			gates[f.On] = append(gates[f.On], f)
		case kind == "run" && len(ids) == 1 && f.At != nil:
			seen[ids[0]] = append(seen[ids[0]], f)
		}
	}
	j.Lines = slices.Clone(j.Lines)
	for l := range j.Lines {
		line := &j.Lines[l]
		line.Runs = slices.Clone(line.Runs)
		for r := range line.Runs {
			run := &line.Runs[r]
			run.Seen, run.Firm = seen[run.ID], run.firm(firm)
			if slices.ContainsFunc(run.Gates, func(g Gate) bool { return len(gates[On("gate", run.ID, g.ID)]) > 0 }) {
				run.Gates = slices.Clone(run.Gates)
				for i := range run.Gates {
					run.Gates[i].Seen = gates[On("gate", run.ID, run.Gates[i].ID)]
				}
			}
			*run = run.Settled()
		}
	}
	return j
}

// firmness is what keeps a post where it is.
type firmness struct{ dug, set, stopped, landed bool }

func (f firmness) with(what Seen) firmness {
	switch what {
	case MarkDug:
		f.dug = true
	case MarkSet, MarkPoured, MarkBuilt:
		f.set = true
	case SeenRock, SeenWater, SeenRoot:
		f.stopped = true
	case Landed:
		f.landed = true
	}
	return f
}

// firm are the stations of the run's posts that stay where they were last laid out:
// those that are set, and holes that are dug, but for holes that were stopped, which
// may have to be dug elsewhere. A post that was measured stands where it was measured.
func (r Run) firm(of map[string]firmness) (at []length.Length) {
	if len(of) == 0 {
		return nil
	}
	for _, p := range r.Laid {
		if f := of[p.ID]; !f.landed && (f.set || f.dug && !f.stopped) {
			at = append(at, p.At)
		}
	}
	slices.Sort(at)
	return at
}

// Planned is the run as it is meant, without what its facts have put on it.
func (r Run) Planned() Run {
	if slices.ContainsFunc(r.FixedPosts, func(f FixedPost) bool { return f.Fact != "" || f.Landed }) {
		var fixed []FixedPost // none, where facts are all there is
		for _, f := range r.FixedPosts {
			if f.Fact == "" {
				f.Landed = false
				fixed = append(fixed, f)
			}
		}
		r.FixedPosts = fixed
	}
	if slices.ContainsFunc(r.Overrides, func(o HoleOverride) bool { return o.Fact != "" || o.Hit != nil }) {
		var overrides []HoleOverride
		for _, o := range r.Overrides {
			if o.Fact == "" {
				o.Hit = nil
				overrides = append(overrides, o)
			}
		}
		r.Overrides = overrides
	}
	return r.asked()
}

// Settled is the run with its facts in their places, those that hold.
func (r Run) Settled() Run {
	r = r.Planned()
	landed, hits := map[string]Fact{}, map[string]Fact{} // the last of each post
	var order []string
	for _, f := range r.Seen {
		if f.Void {
			continue
		}
		_, again := landed[f.On]
		_, too := hits[f.On]
		switch f.What {
		case Landed:
			landed[f.On] = f
		case SeenRock, SeenWater, SeenRoot:
			hits[f.On] = f
		default:
			continue
		}
		if !again && !too {
			order = append(order, f.On)
		}
	}
	r.EndStands = slices.ContainsFunc(r.Laid, func(p Laid) bool {
		_, is := landed[On("post", p.ID)]
		return p.By == "end" && is
	})
	r.land(order, landed)
	r.stop(order, hits)
	r.sag()
	return r
}

// factID is the id of what a run has because of a fact about a post: the post's, whatever
// else was seen, so that nothing else is taken for it when another fact is struck out.
func factID(f Fact, taken map[string]bool) string {
	id := f.OnPost()
	id = id[max(0, len(id)-36):] // a long run's id is longer than an entry's may be
	for taken[id] || id == "" {
		id += "+"
	}
	return id
}

// HeldBy is what a held post of an id stands by.
func HeldBy(id string) string { return strings.TrimPrefix(At("", "fixedPosts", id), "/") }

var struckAs = map[Seen]Struck{SeenRock: HitRock, SeenWater: HitWater, SeenRoot: HitRoot}

// stop stops holes where they were stopped.
func (r *Run) stop(order []string, hits map[string]Fact) {
	if len(hits) == 0 {
		return
	}
	taken := map[string]bool{}
	for _, o := range r.Overrides {
		taken[o.ID] = true
	}
	own := len(r.Overrides)
	r.Overrides = slices.Clone(r.Overrides)
	for _, on := range order {
		f, ok := hits[on]
		if !ok || f.Value == nil {
			continue
		}
		hit := &Hit{What: struckAs[f.What], Depth: length.Length(*f.Value)}
		is := slices.IndexFunc(r.Overrides[:own], func(o HoleOverride) bool { return length.Same(o.At, *f.At) })
		if is >= 0 {
			hit.Settled, r.Overrides[is].Hit = r.Overrides[is].Settled, hit
			continue
		}
		r.Overrides = append(r.Overrides, HoleOverride{ID: factID(f, taken), At: *f.At, Hit: hit, Fact: f.ID})
	}
}

// sag lets each gate's tip drop as it was last measured.
func (r *Run) sag() {
	for i, g := range r.Gates {
		drop := length.Length(0)
		for _, f := range g.Seen {
			if f.What == Sagged && !f.Void && f.Value != nil {
				drop = length.Length(*f.Value)
			}
		}
		if g.Sag == drop {
			continue
		}
		r.Gates = slices.Clone(r.Gates)
		r.Gates[i].Sag = drop
	}
}

// WithFacts writes down as facts what a job that was made, not read, has in
// place of them: posts that landed, holes that were stopped, tips that dropped.
func (j Job) WithFacts() Job {
	j.Lines, j.Observed = slices.Clone(j.Lines), slices.Clone(j.Observed)
	taken, next := map[string]bool{}, 0
	for _, f := range j.Observed {
		taken[f.ID] = true
	}
	note := func(f Fact) {
		for next++; taken["f"+strconv.Itoa(next)]; next++ {
		}
		f.ID = "f" + strconv.Itoa(next)
		j.Observed = append(j.Observed, f)
	}
	for l := range j.Lines {
		j.Lines[l].Runs = slices.Clone(j.Lines[l].Runs)
		for r := range j.Lines[l].Runs {
			run := &j.Lines[l].Runs[r]
			known := map[length.Length]bool{}
			for _, f := range run.Seen {
				known[*f.At] = true
			}
			stand := func(at length.Length, by string) string {
				run.Named++
				id := run.ID + "." + strconv.Itoa(run.Named)
				run.Laid = append(slices.Clip(run.Laid), Laid{ID: id, At: at, By: by})
				return On("post", id)
			}
			for _, p := range run.FixedPosts {
				if at := p.At; p.Landed && !known[at] {
					note(Fact{On: stand(at, HeldBy(p.ID)), What: Landed, At: &at})
				}
			}
			run.Overrides = slices.Clone(run.Overrides)
			for i := range run.Overrides {
				o := &run.Overrides[i]
				if at := o.At; o.Hit != nil && !known[at] {
					depth := float64(o.Hit.Depth)
					o.Settled = o.Hit.Settled
					note(Fact{On: stand(at, ""), What: Seen(o.Hit.What), At: &at, Value: &depth})
				}
			}
			for _, g := range run.Gates {
				if drop := float64(g.Sag); drop != 0 && len(g.Seen) == 0 {
					note(Fact{On: On("gate", run.ID, g.ID), What: Sagged, Value: &drop})
				}
			}
		}
	}
	return j.Settled()
}
