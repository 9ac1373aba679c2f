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
	"mallow/core/words"
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
		m.Find(finding.Finding{Rule: codeUncutDeep, Stage: finding.Dig, Severity: finding.Note, Place: finding.Place{Post: p.Label},
			Says: words.Say("dig.uncut-deep", words.V{"count": count, "post": p.Label, "longer": m.Designs[p.Card].Sized.longer})})
	}
	if long >= 0 {
		p := &m.Posts[long]
		m.Find(finding.Finding{Rule: codeUncutLong, Stage: finding.Dig, Severity: finding.Cannot, Place: finding.Place{Post: p.Label},
			Says: words.Say("dig.uncut-long", words.V{"post": p.Label, "stock": *p.Stock, "cutOff": *p.CutOff, "wanted": *p.Stock - *p.CutOff})})
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
			Place: finding.Place{Bay: m.BayLabel(first), Post: a.Label},
			Says:  words.Say("dig.short-bay", words.V{"from": a.Label, "to": b.Label, "span": span})}
		if span < (a.HoleWidth+b.HoleWidth)/2 {
			f.Rule, f.Severity = codeHolesMeet, finding.Cannot
			f.Says = words.Say("dig.and-stand-apart-their-holes", words.V{"from": a.Label, "to": b.Label, "span": span, "fromHole": a.HoleWidth, "toHole": b.HoleWidth})
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
	f := finding.Finding{Rule: codeStock, Stage: finding.Dig, Severity: finding.Cannot, Place: finding.Place{Post: longest.Label},
		Says: words.Say("dig.stock", words.V{"count": count, "longest": longest.Label, "needed": longest.Needed, "over": over, "top": top})}
	unit := length.Foot
	if m.Job.Units.System == length.Metric {
		unit = 300
	}
	next := unit * length.Length(int((longest.Needed-length.Tolerance)/unit)+1)
	m.Find(f, func(a *stage.Advising) (out []finding.Remedy) {
		if next <= 12000 {
			out = append(out, finding.Remedy{Says: words.Say("dig.order-posts", words.V{"next": next}),
				Edits: []job.Edit{m.Set("/post/stock", append(append([]length.Length(nil), m.Spec.Post.Stock...), next))}})
		}
		if lowered := m.Job.Units.Round(m.Spec.Fence.Height - over - m.Job.Units.SmallestMark); lowered >= 300 && m.RunRules().Hole.Share == job.NoShare {
			out = append(out, finding.Remedy{Says: words.Say("dig.a-fence-high", words.V{"lowered": lowered}), Edits: []job.Edit{m.Set("/fence/height", lowered)}})
		}
		if m.Spec.Grade.Look == job.Level {
			out = append(out, finding.Remedy{Says: words.Say("dig.step-it"), Edits: []job.Edit{m.Set("/grade/look", job.Stepped)}})
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
				hit = append(hit, p.Label)
				if fixed < 0 {
					fixed = i
				}
			case p.HoleWidth > 0 && space.IsFooting(m.Spec.KeepOuts[k]) && !m.Spec.KeepOuts[k].Repour && space.Hits(o, at, wide+2*soil-2*m.Job.Units.SmallestMark):
				near = append(near, p.Label)
			}
			if stage.Has(p.Hand, o.ID) {
				hand = append(hand, p.Label)
			}
		}
		if len(hit) > 0 && !m.IsBlocked(k) {
			f := finding.Finding{Rule: codeInTheWay, Stage: finding.Space, Severity: finding.Check, Place: finding.Place{Post: hit[0]},
				Says: words.Say("dig.in-the-way", words.V{"count": len(hit), "posts": stage.Names(hit), "thing": o.Said, "at": (o.From + o.To) / 2})}
			if serious[o.Kind] {
				f.Severity = finding.Cannot
			}
			m.Find(f, func(a *stage.Advising) []finding.Remedy { return m.clearOf(a, o, fixed) })
		}
		if len(near) > 0 && !m.IsBlocked(k) {
			m.Find(finding.Finding{Rule: codeLooseSoil, Stage: finding.Space, Severity: finding.Check, Place: finding.Place{Post: near[0]},
				Says: words.Say("dig.loose-soil", words.V{"count": len(near), "posts": stage.Names(near), "soil": soil, "thing": o.Said, "at": (o.From + o.To) / 2})}, func(a *stage.Advising) []finding.Remedy { return m.Repour(a, []int{k}) })
		}
		if len(hand) > 0 {
			m.Find(finding.Finding{Rule: codeHandDig, Stage: finding.Dig, Severity: finding.Check, Place: finding.Place{Post: hand[0]},
				Says: words.Say("dig.hand-dig", words.V{"posts": stage.Names(hand), "within": o.From - o.HandFrom, "thing": o.Said, "at": (o.From + o.To) / 2})})
		}
	}
}

func (m *check) holes() {
	if m.noAuger >= 0 {
		p := &m.Posts[m.noAuger]
		r := m.Designs[p.Card].Sized.Rules
		augers := append(slices.Clone(r.Hole.Augers), p.HoleWidth)
		m.Find(finding.Finding{Rule: codeNoAuger, Stage: finding.Dig, Severity: finding.Note, Place: finding.Place{Post: p.Label},
			Says: words.Say("dig.no-auger", words.V{"holeWidth": p.HoleWidth, "post": p.Label})}, func(a *stage.Advising) []finding.Remedy {
			return []finding.Remedy{{Says: words.Say("dig.add-a-auger", words.V{"holeWidth": p.HoleWidth}),
				Edits: []job.Edit{m.RuleEdit(r, "hole/augers", augers)}}}
		})
	}
	if m.tooShallow >= 0 {
		p := &m.Posts[m.tooShallow]
		r := m.Designs[p.Card].Sized.Rules
		m.Find(finding.Finding{Rule: codeShallow, Stage: finding.Dig, Severity: finding.Check, Place: finding.Place{Post: p.Label},
			Says: words.Say("dig.shallow", words.V{"foot": p.Foot, "post": p.Label})}, func(a *stage.Advising) []finding.Remedy {
			return []finding.Remedy{{Says: words.Say("dig.go-by-the-rules"), Edits: []job.Edit{m.RuleEdit(r, "hole/depth", length.Length(0))}}}
		})
	}
	if m.dry >= 0 {
		p := &m.Posts[m.dry]
		r := m.Designs[p.Card].Sized.Rules
		usual := *m.UsualRules.Setting.Cover
		m.Find(finding.Finding{Rule: codeNoConcrete, Stage: finding.Pour, Severity: finding.Cannot, Place: finding.Place{Post: p.Label},
			Says: words.Say("dig.no-concrete", words.V{"cover": r.Setting.Cover, "post": p.Label})}, func(a *stage.Advising) []finding.Remedy {
			if usual >= r.Setting.Cover {
				return []finding.Remedy{{Says: words.Say("dig.no-soil-over-the-concrete"), Edits: []job.Edit{m.RuleEdit(r, "setting/cover", length.Length(0))}}}
			}
			return []finding.Remedy{{Says: words.Say("dig.cover", words.V{"usual": usual}), Edits: []job.Edit{m.RuleEdit(r, "setting/cover", usual)}}}
		})
	}
	m.room()
	m.taper()
	m.uncut()
}

// LeastRoom is the least concrete that should stand round a post: 2 in or
// 50 mm (common practice).
const LeastRoom = 50 * length.Millimetre

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
			m.Find(finding.Finding{Rule: codePostOffHole, Stage: finding.Dig, Severity: finding.Cannot, Place: finding.Place{Post: p.Label},
				Says: words.Say("dig.post-off-hole", words.V{"post": p.Label})}, func(a *stage.Advising) []finding.Remedy {
				return []finding.Remedy{{Says: words.Say("dig.centre-it"), Edits: []job.Edit{m.RuleEdit(r, "hole/along", length.Length(0)), m.RuleEdit(r, "hole/across", length.Length(0))}}}
			})
			return
		case c.Least < LeastRoom-length.Tolerance && (c.Along != 0 || c.Across != 0) && c.Concrete > 0:
			m.Find(finding.Finding{Rule: codeThinCover, Stage: finding.Dig, Severity: finding.Note, Place: finding.Place{Post: p.Label},
				Says: words.Say("dig.thin-cover", words.V{"least": c.Least, "post": p.Label, "leastRoom": LeastRoom})})
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
			m.Find(finding.Finding{Rule: codeTaperHeave, Stage: finding.Dig, Severity: finding.Note, Place: finding.Place{Post: p.Label},
				Says: words.Say("dig.taper-heave", words.V{"post": p.Label})})
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
		place := finding.Place{Post: p.Label}
		if p.Driven {
			m.driven(p, once)
		}
		if !known {
			continue
		}
		if k := slices.IndexFunc(sys.Forbidden, func(f job.Forbidden) bool { return f.Method == method }); k >= 0 {
			once("method "+string(method), finding.Finding{Rule: codeForbiddenSetting, Stage: finding.Pour, Place: place,
				Says: words.Say("dig.forbidden-setting", words.V{"name": sys.Name, "done": method.Told().Done, "why": sys.Forbidden[k].Why})}, func(a *stage.Advising) []finding.Remedy { return m.allowedWays(sys, r, p.Kind) })
		}
		if slices.Contains(sys.InConcrete, p.Kind) && (method == job.RockPacked || method == job.Drive) {
			once("concrete "+string(p.Kind), finding.Finding{Rule: codeMustBeConcrete, Stage: finding.Pour, Place: place,
				Says: words.Say("dig.must-be-concrete", words.V{"name": sys.Name, "kind": stage.KindNames[p.Kind], "post": p.Label, "done": method.Told().Done})}, func(a *stage.Advising) []finding.Remedy { return m.allowedWays(sys, r, p.Kind) })
		}
		if k := slices.IndexFunc(sys.Mind, func(f job.Forbidden) bool { return f.Method == method }); k >= 0 && !said["mind "+string(method)] {
			said["mind "+string(method)] = true
			m.Find(finding.Finding{Rule: codeMindSetting, Stage: finding.Pour, Severity: finding.Note, Place: place,
				Says: words.Say("dig.mind-setting", words.V{"name": sys.Name, "done": method.Told().Done, "why": sys.Mind[k].Why})})
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
	f := finding.Finding{Rule: codeNeverFilled, Stage: finding.Pour, Place: finding.Place{Post: p.Label}}
	switch {
	case set.Inside == job.OpenInside && m.Cards[p.Card].Concrete > 0:
		f.Says = words.Say("dig.a-post-is-never-filled", words.V{"name": sys.Name, "post": p.Label})
		ways = []finding.Remedy{{Says: words.Say("dig.close-the-foot"), Edits: []job.Edit{m.RuleEdit(r, "setting/inside", job.ClosedInside)}}}
		if p.Kind == job.GatePost {
			core := m.Job.Units.Round((m.Spec.PostOf(p.Kind).Width - 2*m.Spec.PostOf(p.Kind).Wall) * 0.6)
			ways = append(ways, finding.Remedy{Says: words.Say("dig.a-steel-core", words.V{"core": core}), Edits: []job.Edit{m.RuleEdit(r, "setting/inside", job.CoreInside), m.RuleEdit(r, "setting/core", core)}})
		}
	case set.Inside == job.CoreInside && p.Kind != job.GatePost:
		f.Says = words.Say("dig.only-gate-posts-take-a", words.V{"name": sys.Name, "post": p.Label})
		ways = []finding.Remedy{{Says: words.Say("dig.close-the-foot"), Edits: []job.Edit{m.RuleEdit(r, "setting/inside", job.ClosedInside)}}}
	case set.Inside == job.CoreInside && set.FillTo != nil && *set.FillTo > length.Tolerance:
		f.Says = words.Say("dig.concrete-round-the-core-goes", words.V{"name": sys.Name, "fillTo": *set.FillTo})
		ways = []finding.Remedy{{Says: words.Say("dig.up-to-the-ground"), Edits: []job.Edit{m.RuleEdit(r, "setting/fillTo", length.Length(0))}}}
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
		f := finding.Finding{Rule: codeDrivenInFill, Stage: finding.Dig, Place: finding.Place{Post: p.Label},
			Says: words.Say("dig.driven-in-fill", words.V{"post": p.Label, "at": k.At})}
		r := m.Designs[p.Card].Sized.Rules
		once(fmt.Sprint("driven ", i), f, stage.OneWay(words.Say("dig.set-the-posts-in-concrete"), m.RuleEdit(r, "hole/driven", job.NoneDriven)))
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
		f := finding.Finding{Rule: codeStopped, Stage: finding.Dig, Severity: finding.Check, Place: finding.Place{Post: p.Label},
			Says: words.Say("dig.stopped", words.V{"post": p.Label, "struck": stage.StruckNames[s.What], "depth": s.Depth, "wanted": s.Wanted, "asIs": reason.Speed(s.AsIs), "planned": reason.Speed(s.Planned)})}
		if asked := m.Job.Site.CodeWind; asked != nil {
			f.Says = append(f.Says, words.Say("dig.the-local-code-asks", words.V{"asked": reason.Speed(*asked)})...)
		} else {
			f.Says = append(f.Says, words.Say("dig.what-is-asked-here-the")...)
		}
		m.Find(f, func(a *stage.Advising) (out []finding.Remedy) {
			for _, w := range m.WaysOut(a, i) {
				says := append(slices.Clone(w.Name), words.Say("dig.way-bears-gust", words.V{"gust": reason.Speed(w.Gust)})...)
				out = append(out, finding.Remedy{Says: says, Edits: w.Edits, Cost: w.Cost})
			}
			return out
		})
	}
	for _, s := range m.Given.Overrides {
		if used[s.ID] {
			continue
		}
		f := finding.Finding{Rule: codeOverrideLeft, Stage: finding.Dig, Severity: finding.Note}
		if s.Hit != nil {
			f.Says = words.Say("dig.the-hole-at-stopped-by", words.V{"at": s.At, "struck": stage.StruckNames[s.Hit.What]})
		} else {
			f.Says = words.Say("dig.rules-were-made-for-a", words.V{"at": s.At})
		}
		if s.Fact != "" { // what was dug there stays so: it is filled in again, and no more to be done
			m.Find(f)
			continue
		}
		m.Find(f, stage.OneWay(words.Say("dig.forget-it"), m.Set(job.At("/overrides", s.ID), nil)))
	}
}

// How near is near.
const (
	nearStock = 1 * length.Inch // of post, over a stock length
	nearAuger = 0.04            // of what is asked, over an auger
)

// nearStock looks for posts that need the next stock length for less than an
// inch.
func (m *check) nearStock() {
	for _, a := range m.shortOf() {
		saves := (a.stock - a.shorter) / 2 // of one post at least: what it is tried for
		m.Nearly(finding.Finding{Rule: codeNearStock, Stage: finding.Dig, Place: finding.Place{Post: a.first},
			Says: words.Say("dig.near-stock", words.V{"count": a.count, "stock": a.stock, "over": a.over, "shorter": a.shorter, "less": a.stock - a.shorter})},
			func(now, then *stage.Outcome) bool {
				return then.Stock <= now.Stock-saves
			}, m.shortened(m.Up(a.over))...)
	}
}

// reach is posts that come from one stock and nearly from the next shorter.
type reach struct {
	stock, shorter length.Length
	count          int
	over           length.Length // the most
	first          string
}

// shortOf lists them, stock by stock.
func (m *check) shortOf() []reach {
	var all []reach
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
		k := slices.IndexFunc(all, func(r reach) bool { return length.Same(r.stock, *p.Stock) })
		if k < 0 {
			k = len(all)
			all = append(all, reach{stock: *p.Stock, shorter: shorter, first: p.Label})
		}
		all[k].count++
		all[k].over = max(all[k].over, over)
	}
	return all
}

// shortened are the ways to make posts so much shorter.
func (m *check) shortened(by length.Length) []stage.Change {
	post, fence, r := m.Spec.Post, m.Spec.Fence, m.RunRules()
	var tries []stage.Change
	if post.Cut != job.CutFirst && post.Trim >= by && m.Can(job.CutPosts) {
		tries = append(tries, stage.Change{Says: words.Say("dig.trim-less", words.V{"by": by, "trim": post.Trim - by}), Edits: []job.Edit{m.Set("/post/trim", post.Trim-by)}})
	}
	if fence.GapLeast >= by {
		tries = append(tries, stage.Change{Says: words.Say("dig.a-gap-less", words.V{"by": by, "gapLeast": fence.GapLeast - by}), Edits: []job.Edit{m.Set("/fence/gapLeast", fence.GapLeast-by), m.Set("/fence/gapMost", fence.GapMost-by)}})
	}
	if fence.Height-by >= 300 {
		tries = append(tries, stage.Change{Says: words.Say("dig.a-fence-lower", words.V{"by": by, "height": fence.Height - by}), Edits: []job.Edit{m.Set("/fence/height", fence.Height-by)}})
	}
	if to := r.Hole.RoundDepthTo; to > m.Job.Units.SmallestMark && r.From["hole/roundDepthTo"].Kind != job.KindLevel {
		none := length.Length(0)
		tries = append(tries, stage.Change{Says: words.Say("dig.depth-not-rounded-up-to", words.V{"to": to}), Edits: []job.Edit{m.Set("/hole/roundDepthTo", none)}})
	}
	return tries
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
		m.Nearly(finding.Finding{Rule: codeNearAuger, Stage: finding.Dig, Place: finding.Place{Post: p.Label},
			Says: words.Say("dig.near-auger", words.V{"post": p.Label, "wanted": w.Wanted, "width": w.Width, "smaller": smaller, "over": over})},
			func(now, then *stage.Outcome) bool { return then.Concrete < now.Concrete-1e-6 },
			stage.Change{Says: words.Say("dig.take-the-auger", words.V{"smaller": smaller}), Edits: []job.Edit{m.Set("/hole/widthTolerance", let)}})
		return
	}
}
