package plan

import (
	"math"
	"strconv"

	"mallow/core/finding"
	"mallow/core/footing"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/reason"
)

// Near misses: where a small change would reach the next smaller stock length,
// auger, count of bays, count of cut panels or order of concrete, that is said,
// with what it takes and what it saves. Each change is tried before it is
// offered, and offered only if it saves what it was tried for.

// How near is near.
const (
	nearStock = 1 * length.Inch // of post, over a stock length
	nearBay   = 1 * length.Inch // of bay, over the most spacing
	nearAuger = 0.04            // of what is asked, over an auger
	nearPlay  = 4 * length.Millimetre
	nearBag   = 0.05 // of a bag, over whole bags
	nearWaste = 0.02 // of the concrete, that the waste may give
)

// small is a change that is tried.
type small struct {
	says   reason.Text
	change func(*job.Run)
	edits  []job.Edit
}

// nearly offers the changes that help, under what they are for; without any it
// says nothing.
func (m *maker) nearly(f finding.Finding, better func(now, then *maker) bool, tries ...small) {
	for _, s := range tries {
		f.Remedies = append(f.Remedies, m.offer(s.says, func(now, then *maker) bool {
			return then.trouble() <= now.trouble() && then.out.Totals.StockShort <= now.out.Totals.StockShort && better(now, then)
		}, s.change, s.edits...)...)
	}
	if len(f.Remedies) == 0 {
		return
	}
	f.Severity = finding.Note
	m.find(f)
}

func (m *maker) judgeNear() {
	if len(m.layout.Posts) > weighMost {
		return
	}
	m.nearStock()
	m.nearAuger()
	m.nearBays()
	m.nearPanels()
}

// stockLength is the length of all posts together, as bought.
func (t *Totals) stockLength() length.Length {
	sum := length.Length(0)
	for _, s := range t.Stock {
		sum += s.Length * length.Length(s.Count)
	}
	return sum
}

// up is a length rounded up to the tape's mark.
func (m *maker) up(l length.Length) length.Length {
	mark := m.job.Units.SmallestMark
	return mark * length.Length(math.Ceil(float64((l-length.Tolerance)/mark)))
}

// nearStock looks for posts that need the next stock length for less than an
// inch.
func (m *maker) nearStock() {
	type reach struct {
		count      int
		over, less length.Length // the most over, and how much shorter the stock is
		first      string
	}
	var all []reach
	var stocks []length.Length
	for i := range m.out.Posts {
		p := &m.out.Posts[i]
		if p.Stock == nil || p.Shared != "" {
			continue
		}
		shorter := length.Length(0)
		for _, l := range m.run.Post.Stock {
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
	r := m.runRules()
	for k, a := range all {
		by := m.up(a.over)
		post, fence := m.run.Post, m.run.Fence
		var tries []small
		if post.Cut != job.CutFirst && post.Trim >= by && m.can(job.CutPosts) {
			tries = append(tries, small{reason.Say("Trim ", by, " less, ", post.Trim-by), func(r *job.Run) { r.Post.Trim -= by }, []job.Edit{m.set("/post/trim", post.Trim-by)}})
		}
		if fence.GapLeast >= by {
			tries = append(tries, small{reason.Say("A gap ", by, " less, ", fence.GapLeast-by), func(r *job.Run) { r.Fence.GapLeast -= by; r.Fence.GapMost -= by },
				[]job.Edit{m.set("/fence/gapLeast", fence.GapLeast-by), m.set("/fence/gapMost", fence.GapMost-by)}})
		}
		if fence.Height-by >= 300 {
			tries = append(tries, small{reason.Say("A fence ", by, " lower, ", fence.Height-by), func(r *job.Run) { r.Fence.Height -= by }, []job.Edit{m.set("/fence/height", fence.Height-by)}})
		}
		if to := r.Hole.RoundDepthTo; to > m.job.Units.SmallestMark && r.From["hole/roundDepthTo"].Kind != job.KindLevel {
			none := length.Length(0)
			tries = append(tries, small{reason.Say("Depth not rounded up to ", to), func(r *job.Run) { r.Hole.RoundDepthTo = &none }, []job.Edit{m.set("/hole/roundDepthTo", none)}})
		}
		saves := a.less / 2 // of one post at least: what it is tried for
		m.nearly(finding.Finding{Rule: "near-stock", Stage: finding.Dig, Place: finding.Place{Post: a.first},
			Says: reason.Say(a.count, plural(a.count, " post needs ", " posts need "), stocks[k], " stock by ", a.over, " or less; a little less reaches ", stocks[k]-a.less, ", which is ", a.less, " a post.")},
			func(now, then *maker) bool {
				return then.out.Totals.stockLength() <= now.out.Totals.stockLength()-saves
			}, tries...)
	}
}

// nearAuger looks for holes that need the next auger for a few hundredths of
// the multiple of the post that they go by.
func (m *maker) nearAuger() {
	r := m.runRules()
	if r.From["hole/widthTolerance"].Kind == job.KindLevel {
		return
	}
	for i := range m.out.Posts {
		p := &m.out.Posts[i]
		if p.Card < 0 || p.Shared != "" || p.Driven {
			continue
		}
		w := m.ditches[p.Card].sized.width
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
		m.nearly(finding.Finding{Rule: "near-auger", Stage: finding.Dig, Place: finding.Place{Post: p.ID},
			Says: reason.Say(p.ID, " asks for a hole ", w.Wanted, " wide and gets the ", w.Width, " auger; the ", smaller, " one is ", over, " short of it.")},
			func(now, then *maker) bool { return then.out.Totals.Concrete < now.out.Totals.Concrete-1e-6 },
			small{reason.Say("Take the ", smaller, " auger"), func(r *job.Run) { r.Hole.WidthTolerance = &let }, []job.Edit{m.set("/hole/widthTolerance", let)}})
		return
	}
}

// nearBays looks for stretches of equal bays that take a post more for an inch.
func (m *maker) nearBays() {
	if _, piece := m.run.Spacing.ByPiece(); piece {
		return
	}
	for i, s := range m.layout.Segments {
		if s.Bays < 2 || s.Block != nil || s.Held >= 0 || s.Gate >= 0 {
			continue
		}
		long := length.Length(0)
		for k := range m.out.Bays {
			if m.layout.Bays[k].Segment == i {
				long += m.long(k, k+1)
			}
		}
		most := m.up(long / length.Length(s.Bays-1))
		if over := most - m.run.Spacing.Most; over <= 0 || over > nearBay+length.Tolerance || most > 10000 {
			continue
		}
		m.nearly(finding.Finding{Rule: "near-bay", Stage: finding.Space, Place: finding.Place{Bay: m.out.Bays[m.firstBay(i)].ID},
			Says: reason.Say("From ", reason.Tape(s.From), " to ", reason.Tape(s.To), " there is a post more since ", s.Bays-1, " bays would be ", most-m.run.Spacing.Most, " over ", m.run.Spacing.Most, ". See that rails and boards still reach.")},
			func(now, then *maker) bool { return then.out.Totals.Posts < now.out.Totals.Posts },
			small{reason.Say("Bays of up to ", most), func(r *job.Run) { r.Spacing.Most = most }, []job.Edit{m.set("/spacing/most", most)}})
		return
	}
}

// nearPanels looks for stretches where a little more or less play at each
// joint leaves no panel to cut.
func (m *maker) nearPanels() {
	sp := m.run.Spacing
	if sp.Way != job.PanelsBetween || sp.Odd == job.OddAll {
		return
	}
	regular := sp.Regular(m.run.Post.Width, m.run.Post.Width)
	for i, s := range m.layout.Segments {
		if s.Odd == 0 || s.Block != nil || s.Held >= 0 || s.Gate >= 0 {
			continue
		}
		n := math.Round(float64((s.To - s.From) / regular))
		if n < 1 {
			continue
		}
		by := ((s.To-s.From)/length.Length(n) - regular) / 2
		play := sp.Play + by
		if by.Abs() > nearPlay || play < 0 || play > 50 {
			continue
		}
		word, round := "more", length.Length(math.Ceil(float64(play*100)-1e-6)/100) // up, so that no sliver is left
		if by < 0 {
			word = "less"
		}
		m.nearly(finding.Finding{Rule: "near-panel", Stage: finding.Space, Place: finding.Place{Bay: m.out.Bays[m.firstBay(i)].ID},
			Says: reason.Say("From ", reason.Tape(s.From), " to ", reason.Tape(s.To), " whole panels would fit with ", by.Abs(), " ", word, " play at each joint.")},
			func(now, then *maker) bool { return then.out.Totals.CutPieces < now.out.Totals.CutPieces },
			small{reason.Say("Play of ", play, " at each joint"), func(r *job.Run) { r.Spacing.Play = round }, []job.Edit{m.set("/spacing/play", round)}})
		return
	}
}

// nearMix looks at what is ordered whole: a little less waste may save a step
// of the truck, or the last bag.
func nearMix(j job.Job, t Totals, runs []*maker) []finding.Finding {
	if t.Waste <= 0 || t.Concrete <= 0 || len(runs) == 0 {
		return nil
	}
	for _, m := range runs { // what is said nearer than the job would undo it
		if k := m.runRules().From["setting/waste"].Kind; k != job.UsualLevel && k != job.JobLevel {
			return nil
		}
	}
	var out []finding.Finding
	offer := func(rule string, share float64, says reason.Text, saves reason.Text) {
		waste := math.Floor((share-1e-9)*1e4) / 1e4
		if waste < 0 || t.Waste-waste > nearWaste {
			return
		}
		out = append(out, finding.Finding{Rule: rule, Stage: finding.Pour, Severity: finding.Note, Says: says,
			Remedies: []finding.Remedy{{Says: append(reason.Say(percent(waste), " waste instead of ", percent(t.Waste), ": "), saves...), Edits: []job.Edit{job.Set("/setting/waste", waste)}}}})
	}
	order := runs[0].cat.Supply.Truck.In(j.Units.System)
	if step := t.Truck.Order - order.Step; step > 0 {
		offer("near-truck", float64(step/t.Concrete)-1, reason.Say("The truck is ordered with ", reason.Bulk(t.Truck.Order), " for the last ", t.ConcreteToBuy-step, "."), reason.Say("saves ", reason.Bulk(order.Step)))
	}
	if len(t.BagKinds) == 1 {
		b := t.BagKinds[0]
		bag, ok := runs[0].cat.Bag(b.id)
		if whole := math.Floor(b.Exact); ok && whole > 0 && b.Exact-whole > 1e-6 && b.Exact-whole <= nearBag {
			offer("near-bag", whole*float64(bag.Yield)/float64(t.Concrete)-1, reason.Say("The last of ", b.Count, " bags is for a twentieth of a bag or less."), reason.Say("saves a bag"))
		}
	}
	return out
}

// percent says a share.
func percent(share float64) string {
	return strconv.FormatFloat(math.Round(share*1e4)/100, 'f', -1, 64) + " %"
}
