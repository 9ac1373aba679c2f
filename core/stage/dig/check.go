package dig

import (
	"fmt"
	"math"
	"slices"

	"mallow/core/finding"
	"mallow/core/footing"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/reason"
	"mallow/core/spacing"
	"mallow/core/stage"
	"mallow/core/stage/space"
)

// digCheck looks at a run's holes and what they are filled with.
type check struct {
	*Holes
	*stage.Checking
}

// check says what is to be said of the run's holes.
func (m *Holes) Check(c *stage.Checking) {
	w := check{m, c}
	w.shortBays()
	w.holes()
	w.stock()
	w.obstacles()
	w.stopped()
	w.filling()
	w.nearStock()
	w.nearAuger()
}

// muchDeeper is how much deeper than asked a post that is not cut may stand
// before it is spoken of: a foot.
const muchDeeper = 300 * length.Millimetre

// uncut speaks of posts that cannot be cut and whose stock is too long.
func (m *check) uncut() {
	if m.Can(job.CutPosts) {
		return
	}
	deep, long := -1, -1
	count := 0
	for i := range m.Posts {
		p := &m.Posts[i]
		if p.Card < 0 || p.Shared != "" {
			continue
		}
		s := &m.Designs[p.Card].Sized
		if s.longer >= muchDeeper-length.Tolerance {
			if count++; deep < 0 || s.longer > m.Designs[m.Posts[deep].Card].Sized.longer {
				deep = i
			}
		}
		if p.CutOff != nil && *p.CutOff > m.Job.Units.SmallestMark && (long < 0 || *p.CutOff > *m.Posts[long].CutOff) {
			long = i
		}
	}
	if deep >= 0 {
		p := &m.Posts[deep]
		m.Find(finding.Finding{Rule: codeUncutDeep, Stage: finding.Dig, Severity: finding.Note, Place: finding.Place{Post: p.ID},
			Says: reason.Say("These posts are not cut to height: ", count, stage.Plural(count, " stands", " stand"), " a foot (300 mm) or more deeper than the rules ask, ", p.ID, " the most, by ", m.Designs[p.Card].Sized.longer, ". Another stock length or even steps would save digging.")})
	}
	if long >= 0 {
		p := &m.Posts[long]
		m.Find(finding.Finding{Rule: codeUncutLong, Stage: finding.Dig, Severity: finding.Cannot, Place: finding.Place{Post: p.ID},
			Says: reason.Say("These posts are not cut to height, and ", p.ID, ", ", *p.Stock, " long, is ", *p.CutOff, " too long for its hole: order one of ", *p.Stock-*p.CutOff, ", or dig deeper.")})
	}
}

// shortBays looks for posts so near a gate post that their holes
// meet, and for slivers of bay beside a gate.
func (m *check) shortBays() {
	for i, s := range m.Layout.Segments {
		span := s.To - s.From
		if s.Gate != spacing.NoGate || s.Held != spacing.Nothing || len(m.Layout.Segments) == 1 || span >= m.Spec.Spacing.Most/3 {
			continue
		}
		first := m.FirstPost(i)
		a, b := m.Posts[first], m.Posts[first+1]
		f := finding.Finding{Rule: codeShortBay, Stage: finding.Space, Severity: finding.Check,
			Place: finding.Place{Bay: stage.BayID(first), Post: a.ID},
			Says:  reason.Say("The bay between ", a.ID, " and ", b.ID, " is only ", span, ".")}
		if span < (a.HoleWidth+b.HoleWidth)/2 {
			f.Rule, f.Severity = codeHolesMeet, finding.Cannot
			f.Says = reason.Say(a.ID, " and ", b.ID, " stand ", span, " apart: their holes, ", a.HoleWidth, " and ", b.HoleWidth, " wide, run into each other.")
		}
		m.Find(f, func(a *stage.Advising) []finding.Remedy { return m.MoveGates(a, i, span) })
	}
}

func (m *check) stock() {
	var longest *Post
	count := 0
	for i := range m.Posts {
		p := &m.Posts[i]
		if p.Stock == nil {
			count++
			if longest == nil || p.Needed > longest.Needed {
				longest = p
			}
		}
	}
	if longest == nil {
		return
	}
	top := length.Length(0)
	for _, l := range m.Spec.Post.Stock {
		top = max(top, l)
	}
	over := longest.Needed - top
	f := finding.Finding{Rule: codeStock, Stage: finding.Dig, Severity: finding.Cannot, Place: finding.Place{Post: longest.ID},
		Says: reason.Say(count, stage.Plural(count, " post is", " posts are"), " longer than any stock; ", longest.ID, " the most: it needs ", longest.Needed, ", ", over, " over the longest, ", top, ".")}
	unit := length.Foot
	if m.Job.Units.System == length.Metric {
		unit = 300
	}
	next := unit * length.Length(int((longest.Needed-length.Tolerance)/unit)+1)
	m.Find(f, func(a *stage.Advising) (out []finding.Remedy) {
		if next <= 12000 {
			out = append(out, finding.Remedy{Says: reason.Say("Order ", next, " posts"),
				Edits: []job.Edit{m.Set("/post/stock", append(append([]length.Length(nil), m.Spec.Post.Stock...), next))}})
		}
		if lowered := m.Job.Units.Round(m.Spec.Fence.Height - over - m.Job.Units.SmallestMark); lowered >= 300 && m.RunRules().Hole.Share == job.NoShare {
			out = append(out, finding.Remedy{Says: reason.Say("A fence ", lowered, " high"), Edits: []job.Edit{m.Set("/fence/height", lowered)}})
		}
		if m.Spec.Grade.Look == job.Level {
			out = append(out, finding.Remedy{Says: reason.Say("Step it"), Edits: []job.Edit{m.Set("/grade/look", job.Stepped)}})
		}
		return out
	})
}

func (m *check) obstacles() {
	for k, o := range m.InTheWay {
		var hit, hand, near []string
		fixed, soil := -1, m.Beside(k)
		first, last := m.Near(o.HandFrom, o.HandTo, m.widest+soil)
		for i := first; i < last; i++ {
			p := &m.Posts[i]
			at, wide := m.dugAt(p)
			switch {
			case stage.Has(p.InWay, o.ID):
				hit = append(hit, p.ID)
				if fixed < 0 {
					fixed = i
				}
			case p.HoleWidth > 0 && space.IsFooting(m.Spec.KeepOuts[k]) && !m.Spec.KeepOuts[k].Repour && space.Hits(o, at, wide+2*soil-2*m.Job.Units.SmallestMark):
				near = append(near, p.ID)
			}
			if stage.Has(p.Hand, o.ID) {
				hand = append(hand, p.ID)
			}
		}
		if len(hit) > 0 && !m.IsBlocked(k) {
			f := finding.Finding{Rule: codeInTheWay, Stage: finding.Space, Severity: finding.Check, Place: finding.Place{Post: hit[0]},
				Says: reason.Say("The ", stage.Plural(len(hit), "hole", "holes"), " of ", stage.Names(hit), stage.Plural(len(hit), " runs", " run"), " into the ", o.Said, " at ", reason.Tape((o.From+o.To)/2), ".")}
			if serious[o.Kind] {
				f.Severity = finding.Cannot
			}
			m.Find(f, func(a *stage.Advising) []finding.Remedy { return m.clearOf(a, o, fixed) })
		}
		if len(near) > 0 && !m.IsBlocked(k) {
			m.Find(finding.Finding{Rule: codeLooseSoil, Stage: finding.Space, Severity: finding.Check, Place: finding.Place{Post: near[0]},
				Says: reason.Say("The ", stage.Plural(len(near), "hole", "holes"), " of ", stage.Names(near), stage.Plural(len(near), " leaves", " leave"), " less than ", soil, " of firm soil beside the ", o.Said, " at ", reason.Tape((o.From+o.To)/2), ".")}, func(a *stage.Advising) []finding.Remedy { return m.Repour(a, []int{k}) })
		}
		if len(hand) > 0 {
			m.Find(finding.Finding{Rule: codeHandDig, Stage: finding.Dig, Severity: finding.Check, Place: finding.Place{Post: hand[0]},
				Says: reason.Say("Dig ", stage.Names(hand), " by hand: within ", o.From-o.HandFrom, " of the ", o.Said, " at ", reason.Tape((o.From+o.To)/2), ". No auger there.")})
		}
	}
}

func (m *check) holes() {
	if m.noAuger >= 0 {
		p := &m.Posts[m.noAuger]
		r := m.Designs[p.Card].Sized.Rules
		augers := append(slices.Clone(r.Hole.Augers), p.HoleWidth)
		m.Find(finding.Finding{Rule: codeNoAuger, Stage: finding.Dig, Severity: finding.Note, Place: finding.Place{Post: p.ID},
			Says: reason.Say("No auger in the list is ", p.HoleWidth, " wide: ", p.ID, " is dug by spade.")}, func(a *stage.Advising) []finding.Remedy {
			return []finding.Remedy{{Says: reason.Say("Add a ", p.HoleWidth, " auger"),
				Edits: []job.Edit{m.RuleEdit(r, "hole/augers", augers)}}}
		})
	}
	if m.tooShallow >= 0 {
		p := &m.Posts[m.tooShallow]
		r := m.Designs[p.Card].Sized.Rules
		m.Find(finding.Finding{Rule: codeShallow, Stage: finding.Dig, Severity: finding.Check, Place: finding.Place{Post: p.ID},
			Says: reason.Say("The depth set by hand, ", p.Foot, ", is less than the rules ask for at ", p.ID, ". Frost can lift it.")}, func(a *stage.Advising) []finding.Remedy {
			return []finding.Remedy{{Says: reason.Say("Go by the rules"), Edits: []job.Edit{m.RuleEdit(r, "hole/depth", length.Length(0))}}}
		})
	}
	if m.dry >= 0 {
		p := &m.Posts[m.dry]
		r := m.Designs[p.Card].Sized.Rules
		usual := *m.UsualRules.Setting.Cover
		m.Find(finding.Finding{Rule: codeNoConcrete, Stage: finding.Pour, Severity: finding.Cannot, Place: finding.Place{Post: p.ID},
			Says: reason.Say("The soil cover, ", r.Setting.Cover, ", reaches the foot of ", p.ID, ": no concrete is left.")}, func(a *stage.Advising) []finding.Remedy {
			if usual >= r.Setting.Cover {
				return []finding.Remedy{{Says: reason.Say("No soil over the concrete"), Edits: []job.Edit{m.RuleEdit(r, "setting/cover", length.Length(0))}}}
			}
			return []finding.Remedy{{Says: reason.Say("Cover ", usual), Edits: []job.Edit{m.RuleEdit(r, "setting/cover", usual)}}}
		})
	}
	m.room()
	m.taper()
	m.uncut()
}

// leastRoom is the least concrete that should stand round a post: 2 in or
// 50 mm (common practice).
const leastRoom = 50 * length.Millimetre

// room looks for holes that do not go round their post.
func (m *check) room() {
	for i := range m.Posts {
		p := &m.Posts[i]
		if p.Card < 0 || p.Shared != "" || p.Driven {
			continue
		}
		c, r := &m.Cards[p.Card], m.Designs[p.Card].Sized.Rules
		switch {
		case c.Least < -length.Tolerance:
			m.Find(finding.Finding{Rule: codePostOffHole, Stage: finding.Dig, Severity: finding.Cannot, Place: finding.Place{Post: p.ID},
				Says: reason.Say("The hole of ", p.ID, " lies so far off its post that the post is not in it.")}, func(a *stage.Advising) []finding.Remedy {
				return []finding.Remedy{{Says: reason.Say("Centre it"), Edits: []job.Edit{m.RuleEdit(r, "hole/along", length.Length(0)), m.RuleEdit(r, "hole/across", length.Length(0))}}}
			})
			return
		case c.Least < leastRoom-length.Tolerance && (c.Along != 0 || c.Across != 0) && c.Concrete > 0:
			m.Find(finding.Finding{Rule: codeThinCover, Stage: finding.Dig, Severity: finding.Note, Place: finding.Place{Post: p.ID},
				Says: reason.Say("At the near side only ", c.Least, " of concrete stand between ", p.ID, " and the soil; ", leastRoom, " is usual.")})
			return
		}
	}
}

// taper warns of a footing that is wider at the top: frost grips it.
func (m *check) taper() {
	frost, _ := m.Frost()
	if frost == nil || *frost <= 0 {
		return
	}
	for i := range m.Posts {
		p := &m.Posts[i]
		if p.Card < 0 || p.Shared != "" || p.Driven || m.Cards[p.Card].Concrete == 0 {
			continue
		}
		if r := m.Designs[p.Card].Sized.Rules; r.Hole.Taper > 0 && r.Hole.Bell <= p.HoleWidth {
			m.Find(finding.Finding{Rule: codeTaperHeave, Stage: finding.Dig, Severity: finding.Note, Place: finding.Place{Post: p.ID},
				Says: reason.Say("Holes from ", p.ID, " on are wider at the top: freezing soil grips such a footing and lifts it. Pare the sides, or sleeve the top of the concrete.")})
			return
		}
	}
}

// filling refuses what must not go together: a way of setting that the
// fence system rules out, posts that must stand in concrete, hollow posts that
// are never filled, driven posts in soil that was dug.
func (m *check) filling() {
	sys, known := m.Cat.System(m.Spec.System, m.Job.Systems)
	said := map[string]bool{}
	once := func(key string, f finding.Finding, ways ...func(*stage.Advising) []finding.Remedy) {
		if !said[key] {
			said[key] = true
			f.Severity = finding.Cannot
			m.Find(f, ways...)
		}
	}
	for i := range m.Posts {
		p := &m.Posts[i]
		if p.Card < 0 || p.Shared != "" {
			continue
		}
		r, method := m.Designs[p.Card].Sized.Rules, m.Cards[p.Card].Method
		place := finding.Place{Post: p.ID}
		if p.Driven {
			m.driven(p, once)
		}
		if !known {
			continue
		}
		if k := slices.IndexFunc(sys.Forbidden, func(f job.Forbidden) bool { return f.Method == method }); k >= 0 {
			once("method "+string(method), finding.Finding{Rule: codeForbiddenSetting, Stage: finding.Pour, Place: place,
				Says: reason.Say(sys.Name, ": not ", method.Told().Done, ". ", sys.Forbidden[k].Why)}, func(a *stage.Advising) []finding.Remedy { return m.allowedWays(sys, r, p.Kind) })
		}
		if slices.Contains(sys.InConcrete, p.Kind) && (method == job.RockPacked || method == job.Drive) {
			once("concrete "+string(p.Kind), finding.Finding{Rule: codeMustBeConcrete, Stage: finding.Pour, Place: place,
				Says: reason.Say(sys.Name, ": ", stage.KindNames[p.Kind], " take the pull and stand in concrete; ", p.ID, " is ", method.Told().Done, ".")}, func(a *stage.Advising) []finding.Remedy { return m.allowedWays(sys, r, p.Kind) })
		}
		if k := slices.IndexFunc(sys.Mind, func(f job.Forbidden) bool { return f.Method == method }); k >= 0 && !said["mind "+string(method)] {
			said["mind "+string(method)] = true
			m.Find(finding.Finding{Rule: codeMindSetting, Stage: finding.Pour, Severity: finding.Note, Place: place,
				Says: reason.Say(sys.Name, ", ", method.Told().Done, ": ", sys.Mind[k].Why)})
		}
		m.inside(p, r, sys, once)
	}
}

// inside holds hollow posts against a system that never fills them.
func (m *check) inside(p *Post, r *job.Rules, sys job.System, once func(string, finding.Finding, ...func(*stage.Advising) []finding.Remedy)) {
	set := r.Setting
	if !sys.NeverFilled || !m.Spec.PostOf(p.Kind).Hollow {
		return
	}
	var ways []finding.Remedy
	f := finding.Finding{Rule: codeNeverFilled, Stage: finding.Pour, Place: finding.Place{Post: p.ID}}
	switch {
	case set.Inside == job.OpenInside && m.Cards[p.Card].Concrete > 0:
		f.Says = reason.Say(sys.Name, ": a post is never filled with concrete, or water freezes in it and bursts it. ", p.ID, " would fill as it is set.")
		ways = []finding.Remedy{{Says: reason.Say("Close the foot"), Edits: []job.Edit{m.RuleEdit(r, "setting/inside", job.ClosedInside)}}}
		if p.Kind == job.GatePost {
			core := m.Job.Units.Round((m.Spec.PostOf(p.Kind).Width - 2*m.Spec.PostOf(p.Kind).Wall) * 0.6)
			ways = append(ways, finding.Remedy{Says: reason.Say("A steel core, ", core), Edits: []job.Edit{m.RuleEdit(r, "setting/inside", job.CoreInside), m.RuleEdit(r, "setting/core", core)}})
		}
	case set.Inside == job.CoreInside && p.Kind != job.GatePost:
		f.Says = reason.Say(sys.Name, ": only gate posts take a steel core and concrete; ", p.ID, " is none.")
		ways = []finding.Remedy{{Says: reason.Say("Close the foot"), Edits: []job.Edit{m.RuleEdit(r, "setting/inside", job.ClosedInside)}}}
	case set.Inside == job.CoreInside && set.FillTo != nil && *set.FillTo > length.Tolerance:
		f.Says = reason.Say(sys.Name, ": concrete round the core goes up to the ground only, not ", *set.FillTo, " above it.")
		ways = []finding.Remedy{{Says: reason.Say("Up to the ground"), Edits: []job.Edit{m.RuleEdit(r, "setting/fillTo", length.Length(0))}}}
	default:
		return
	}
	once(fmt.Sprint("inside ", set.Inside, p.Kind), f, func(*stage.Advising) []finding.Remedy { return ways })
}

// driven refuses a driven post in soil that an old footing left loose.
func (m *check) driven(p *Post, once func(string, finding.Finding, ...func(*stage.Advising) []finding.Remedy)) {
	for i, k := range m.Spec.KeepOuts {
		if !space.IsFooting(k) || p.Station < k.From()-disturbed || p.Station > k.To()+disturbed {
			continue
		}
		f := finding.Finding{Rule: codeDrivenInFill, Stage: finding.Dig, Place: finding.Place{Post: p.ID},
			Says: reason.Say(p.ID, " would be driven into soil that the old footing at ", reason.Tape(k.At), " left loose: it does not hold a driven post.")}
		r := m.Designs[p.Card].Sized.Rules
		once(fmt.Sprint("driven ", i), f, stage.OneWay(reason.Say("Set the posts in concrete"), m.RuleEdit(r, "hole/driven", job.NoneDriven)))
	}
}

// disturbed is how far beside an old footing its pulling leaves the soil
// loose (common practice).
const disturbed = 100 * length.Millimetre

// stopped asks what is to be done where a hole was stopped, and names the
// single holes' rules that have no post any more.
func (m *check) stopped() {
	used := map[string]bool{}
	for i := range m.Posts {
		p := &m.Posts[i]
		if p.Spot != "" && p.Shared == "" {
			used[p.Spot] = true
		}
		if p.Stopped == nil || p.Stopped.Settled != "" {
			continue
		}
		s := p.Stopped
		f := finding.Finding{Rule: codeStopped, Stage: finding.Dig, Severity: finding.Check, Place: finding.Place{Post: p.ID},
			Says: reason.Say(p.ID, " is stopped by ", stage.StruckNames[s.What], " at ", s.Depth, "; the rules ask for ", s.Wanted, ". To compare: as it is it bears a gust of ", reason.Speed(s.AsIs), ", at full depth ", reason.Speed(s.Planned), "; ")}
		if asked := m.Job.Site.CodeWind; asked != nil {
			f.Says = append(f.Says, reason.Say("the local code asks ", reason.Speed(*asked), ".")...)
		} else {
			f.Says = append(f.Says, reason.Say("what is asked here, the building office says.")...)
		}
		m.Find(f, func(a *stage.Advising) (out []finding.Remedy) {
			for _, w := range m.WaysOut(a, i) {
				says := append(slices.Clone(w.Name), reason.Say(": ", reason.Speed(w.Gust))...)
				out = append(out, finding.Remedy{Says: says, Edits: w.Edits, Cost: w.Cost})
			}
			return out
		})
	}
	for i, s := range m.Given.Spots {
		if used[s.ID] {
			continue
		}
		f := finding.Finding{Rule: codeSpotLeft, Stage: finding.Dig, Severity: finding.Note}
		if s.Hit != nil {
			f.Says = reason.Say("The hole at ", reason.Tape(s.At), ", stopped by ", stage.StruckNames[s.Hit.What], ", is no post's any more. Fill and tamp it.")
		} else {
			f.Says = reason.Say("Rules were made for a single post at ", reason.Tape(s.At), ", where none stands any more.")
		}
		m.Find(f, func(a *stage.Advising) []finding.Remedy {
			if a.Watch.Told >= stage.MostTold {
				return nil // each way tells the whole list
			}
			return []finding.Remedy{{Says: reason.Say("Forget it"), Edits: []job.Edit{m.Set("/spots", without(m.Given.Spots, i))}}}
		})
	}
}

func without(list []job.Spot, i int) []job.Spot { return slices.Delete(slices.Clone(list), i, i+1) }

// How near is near.
const (
	nearStock = 1 * length.Inch // of post, over a stock length
	nearAuger = 0.04            // of what is asked, over an auger
)

// nearStock looks for posts that need the next stock length for less than an
// inch.
func (m *check) nearStock() {
	type reach struct {
		count      int
		over, less length.Length // the most over, and how much shorter the stock is
		first      string
	}
	var all []reach
	var stocks []length.Length
	for i := range m.Posts {
		p := &m.Posts[i]
		if p.Stock == nil || p.Shared != "" {
			continue
		}
		shorter := length.Length(0)
		for _, l := range m.Spec.Post.Stock {
			if l < *p.Stock-length.Tolerance {
				shorter = max(shorter, l)
			}
		}
		over := p.Needed - shorter
		if shorter == 0 || over > nearStock+length.Tolerance {
			continue
		}
		k := -1
		for n := range stocks {
			if length.Same(stocks[n], *p.Stock) {
				k = n
			}
		}
		if k < 0 {
			k = len(all)
			stocks, all = append(stocks, *p.Stock), append(all, reach{first: p.ID, less: *p.Stock - shorter})
		}
		all[k].count++
		all[k].over = max(all[k].over, over)
	}
	r := m.RunRules()
	for k, a := range all {
		by := m.Up(a.over)
		post, fence := m.Spec.Post, m.Spec.Fence
		var tries []stage.Change
		if post.Cut != job.CutFirst && post.Trim >= by && m.Can(job.CutPosts) {
			tries = append(tries, stage.Change{Says: reason.Say("Trim ", by, " less, ", post.Trim-by), Edits: []job.Edit{m.Set("/post/trim", post.Trim-by)}})
		}
		if fence.GapLeast >= by {
			tries = append(tries, stage.Change{Says: reason.Say("A gap ", by, " less, ", fence.GapLeast-by), Edits: []job.Edit{m.Set("/fence/gapLeast", fence.GapLeast-by), m.Set("/fence/gapMost", fence.GapMost-by)}})
		}
		if fence.Height-by >= 300 {
			tries = append(tries, stage.Change{Says: reason.Say("A fence ", by, " lower, ", fence.Height-by), Edits: []job.Edit{m.Set("/fence/height", fence.Height-by)}})
		}
		if to := r.Hole.RoundDepthTo; to > m.Job.Units.SmallestMark && r.From["hole/roundDepthTo"].Kind != job.KindLevel {
			none := length.Length(0)
			tries = append(tries, stage.Change{Says: reason.Say("Depth not rounded up to ", to), Edits: []job.Edit{m.Set("/hole/roundDepthTo", none)}})
		}
		saves := a.less / 2 // of one post at least: what it is tried for
		m.Nearly(finding.Finding{Rule: codeNearStock, Stage: finding.Dig, Place: finding.Place{Post: a.first},
			Says: reason.Say(a.count, stage.Plural(a.count, " post needs ", " posts need "), stocks[k], " stock by ", a.over, " or less; a little less reaches ", stocks[k]-a.less, ", which is ", a.less, " a post.")},
			func(now, then *stage.Outcome) bool {
				return then.Stock <= now.Stock-saves
			}, tries...)
	}
}

// nearAuger looks for holes that need the next auger for a few hundredths of
// the multiple of the post that they go by.
func (m *check) nearAuger() {
	r := m.RunRules()
	if r.From["hole/widthTolerance"].Kind == job.KindLevel {
		return
	}
	for i := range m.Posts {
		p := &m.Posts[i]
		if p.Card < 0 || p.Shared != "" || p.Driven {
			continue
		}
		w := m.Designs[p.Card].Sized.Width
		if !w.Auger || w.ByHand || len(w.Asks) == 0 || w.Asks[w.Governs].Rule != footing.FactorRule {
			continue
		}
		smaller := length.Length(0)
		for _, a := range r.Hole.Augers {
			if a < w.Width-length.Tolerance {
				smaller = max(smaller, a)
			}
		}
		over := w.Wanted - smaller
		if smaller == 0 || over <= 0 || float64(over/w.Wanted) > nearAuger {
			continue
		}
		let := math.Ceil(float64(over/w.Wanted)*1000) / 1000
		m.Nearly(finding.Finding{Rule: codeNearAuger, Stage: finding.Dig, Place: finding.Place{Post: p.ID},
			Says: reason.Say(p.ID, " asks for a hole ", w.Wanted, " wide and gets the ", w.Width, " auger; the ", smaller, " one is ", over, " short of it.")},
			func(now, then *stage.Outcome) bool { return then.Concrete < now.Concrete-1e-6 },
			stage.Change{Says: reason.Say("Take the ", smaller, " auger"), Edits: []job.Edit{m.Set("/hole/widthTolerance", let)}})
		return
	}
}
