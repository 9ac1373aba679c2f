package pourday

import (
	"slices"
	"time"

	"mallow/core/curing"
	"mallow/core/finding"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/pour"
	"mallow/core/reason"
	"mallow/core/words"
)

// What a pour day finds, by its code.
const (
	codeCold    = "pour-cold"
	codeDark    = "pour-dark"
	codeDays    = "pour-days"
	codeDrying  = "pour-drying"
	codeFrost   = "pour-frost"
	codeFroze   = "pour-frost-after"
	codeLeft    = "pour-left"
	codeRain    = "pour-rain"
	codeShort   = "pour-short"
	codeSplit   = "pour-split"
	codeTooSlow = "pour-too-slow"
)

// Findings are what a pour day finds: what each means, how bad it can be, and from what
// on it is said.
var Findings = []finding.Kind{
	{Rule: codeCold, Costs: finding.Rework, Stage: finding.Pour, Severities: []finding.Severity{finding.Check}, Means: "It is colder than 40 °F within two days after the pour.", Threshold: "curing.Cold"},
	{Rule: codeDark, Costs: finding.Harm, Stage: finding.Pour, Severities: []finding.Severity{finding.Check}, Means: "Posts are set before sunrise or after sunset.", Threshold: "weather.Daylight"},
	{Rule: codeDays, Costs: finding.Time, Stage: finding.Pour, Severities: []finding.Severity{finding.Check}, Means: "The pour takes more than one day."},
	{Rule: codeDrying, Costs: finding.Rework, Stage: finding.Pour, Severities: []finding.Severity{finding.Check}, Means: "Surfaces dry so fast that they crack.", Threshold: "curing.DryingFast"},
	{Rule: codeFrost, Costs: finding.Rework, Stage: finding.Pour, Severities: []finding.Severity{finding.Cannot}, Means: "It freezes while concrete is to be poured.", Threshold: "curing.Freezing"},
	{Rule: codeFroze, Costs: finding.Rework, Stage: finding.Pour, Severities: []finding.Severity{finding.Check}, Means: "It freezes before the concrete bears it.", Threshold: "curing.FrostProof"},
	{Rule: codeLeft, Costs: finding.Rework, Stage: finding.Pour, Severities: []finding.Severity{finding.Cannot}, Means: "Some posts cannot be set in the days that were looked at."},
	{Rule: codeRain, Costs: finding.Rework, Stage: finding.Pour, Severities: []finding.Severity{finding.Check}, Means: "It rains hard on fresh concrete.", Threshold: "hardRain"},
	{Rule: codeShort, Costs: finding.Purchase, Stage: finding.Pour, Severities: []finding.Severity{finding.Note}, Means: "A load is so small that a charge is usual.", Threshold: "supply.truck.short"},
	{Rule: codeSplit, Costs: finding.Time, Stage: finding.Pour, Severities: []finding.Severity{finding.Note}, Means: "What one truck could bring comes in more loads, or it would stiffen."},
	{Rule: codeTooSlow, Costs: finding.Rework, Stage: finding.Pour, Severities: []finding.Severity{finding.Cannot}, Means: "One post takes longer than its mix can be worked."},
}

// hardRain is the rain that washes cement out of a fresh surface: 2.5 mm in an hour
// (weather services call that moderate).
const hardRain = 2.5

// protection is for how long cold is looked for after a pour (ACI 306: two to three
// days).
const protection = 48 * time.Hour

func (w *planner) ask(field, id string) {
	w.out.Asks = append(w.out.Asks, DayAsk{field, words.Say(id)})
}

func (w *planner) find(code string, severity finding.Severity, says reason.Text, ways ...finding.Remedy) {
	w.out.Finds = append(w.out.Finds, finding.Finding{ID: code, Rule: code, Severity: severity, Stage: finding.Pour, Says: says, Remedies: ways})
}

// check says what is to be said of the day, the gravest first.
func (w *planner) check() {
	d := w.out
	d.Finds = []finding.Finding{}
	if len(d.Posts) == 0 {
		return
	}
	w.unplaced()
	w.cold()
	w.surface()
	w.dark()
	w.loads()
	slices.SortStableFunc(d.Finds, func(a, b finding.Finding) int {
		return finding.Order(a.Severity, b.Severity, costOf(a.Rule), costOf(b.Rule))
	})
}

// Unfit tells whether what is poured on the day would have to be done again, and why:
// frost, then or after; rain on it; posts that are not set.
func (d *Day) Unfit() (why reason.Text, unfit bool) {
	for _, f := range d.Finds {
		if slices.Contains([]string{codeFrost, codeFroze, codeRain, codeTooSlow, codeLeft}, f.Rule) {
			return f.Says, true
		}
	}
	return nil, false
}

func costOf(code string) finding.Stake {
	k := slices.IndexFunc(Findings, func(f finding.Kind) bool { return f.Rule == code })
	return Findings[k].Costs
}

// unplaced says which posts cannot be set, and why.
func (w *planner) unplaced() {
	d := w.out
	if first, _ := w.poured(); len(d.Left) == 0 && w.clock(first)[:10] != d.Date && w.frozen() {
		w.freezes() // it waits for a warmer day, which is not the day that was asked for
		return
	}
	if d.Days > 1 {
		w.find(codeDays, finding.Check, words.Say("pour.takes-days", words.V{"days": d.Days, "perHour": round(d.PerHour)}), w.ways(codeDays, w.hands())...)
	}
	if len(d.Left) == 0 {
		return
	}
	unset := slices.IndexFunc(w.pieces, func(p piece) bool { return p.at.IsZero() })
	first := &w.pieces[unset]
	at := w.start.Add(minutes(minutesOf(w.pour.From)))
	mix := d.mixOf[first.mix]
	if w.frozen() {
		w.freezes()
		return
	}
	if works := w.mayPour(mix, at); first.place > works {
		w.find(codeTooSlow, finding.Cannot, words.Say("pour.too-slow", words.V{"post": w.name(unset), "takes": round(first.place), "works": round(works)}), w.ways(codeTooSlow, append(w.hands(), w.otherDays()...))...)
		return
	}
	w.find(codeLeft, finding.Cannot, words.Say("pour.left", words.V{"count": len(d.Left), "first": d.Left[0], "days": mostDays}), w.ways(codeLeft, w.hands())...)
}

// freezes says that nothing can be poured on the day.
func (w *planner) freezes() {
	at, _ := w.sky.At(w.start.Add(minutes(minutesOf(w.pour.From))))
	w.find(codeFrost, finding.Cannot, words.Say("pour.freezes", words.V{"date": w.out.Date, "temp": reason.Degrees(at.Temp)}), w.ways(codeFrost, w.otherDays())...)
}

// frozen tells whether nothing of the first day is above freezing.
func (w *planner) frozen() bool {
	for _, s := range w.spans(0) {
		for at := s.from; at.Before(s.to); at = at.Add(curveEvery) {
			if c, ok := w.sky.At(at); !ok || c.Temp > curing.Freezing {
				return false
			}
		}
	}
	return true
}

// cold looks at the nights after.
func (w *planner) cold() {
	first, last := w.poured()
	if first.IsZero() {
		return
	}
	colder := 0.0
	if w.pour.Covered {
		colder = blankets
	}
	low, lowAt, freezes := 99.0, time.Time{}, time.Time{}
	for at := first; !at.After(last.Add(protection)); at = at.Add(30 * time.Minute) {
		c, ok := w.sky.At(at)
		if !ok {
			continue
		}
		if c.Temp+colder < low {
			low, lowAt = c.Temp+colder, at
		}
		if freezes.IsZero() && at.After(last) && c.Temp+colder <= curing.Freezing && !w.proof(at) {
			freezes = at
		}
	}
	v := words.V{"temp": reason.Degrees(low), "date": w.clock(lowAt)[:10], "clock": w.clock(lowAt)[11:16]}
	switch {
	case !freezes.IsZero():
		v["date"], v["clock"] = w.clock(freezes)[:10], w.clock(freezes)[11:16]
		w.find(codeFroze, finding.Check, words.Say("pour.freezes-after", v), w.ways(codeFroze, append(w.protect(), w.otherDays()...))...)
	case low < curing.Cold:
		w.find(codeCold, finding.Check, words.Say("pour.cold-after", words.V{"temp": reason.Degrees(low), "date": v["date"], "clock": v["clock"], "least": reason.Degrees(curing.Cold)}), w.ways(codeCold, append(w.protect(), w.otherDays()...))...)
	}
}

// proof tells whether all that was poured bears a frost by a time.
func (w *planner) proof(at time.Time) bool {
	for i := range w.pieces {
		p := &w.pieces[i]
		if p.at.IsZero() {
			continue
		}
		a, okA := w.mature.at(p.done)
		b, okB := w.mature.at(at)
		if !okA || !okB || curing.Share(curing.EquivalentDays((b-a)*w.out.mixOf[p.mix].Speed)) < curing.FrostProof {
			return false
		}
	}
	return true
}

// poured is when the first piece is begun and the last one done.
func (w *planner) poured() (first, last time.Time) {
	for i := range w.pieces {
		p := &w.pieces[i]
		if p.at.IsZero() {
			continue
		}
		if first.IsZero() || p.at.Before(first) {
			first = p.at
		}
		if p.done.After(last) {
			last = p.done
		}
	}
	return first, last
}

// surface looks at drying and rain while posts are set.
func (w *planner) surface() {
	worst, rain := 0.0, 0.0
	var when, wet string
	for i := range w.pieces {
		at := w.pieces[i].at
		if at.IsZero() {
			continue
		}
		c, ok := w.sky.At(at)
		if !ok {
			continue
		}
		if e := dries(c); e != nil && *e > worst {
			worst, when = *e, w.clock(at)[11:16]
		}
		if c.Rain != nil && *c.Rain > rain {
			rain, wet = *c.Rain, w.clock(at)[11:16]
		}
	}
	if worst >= curing.DryingFast {
		w.find(codeDrying, finding.Check, words.Say("pour.dries-fast", words.V{"rate": reason.Drying(worst), "clock": when, "most": reason.Drying(curing.DryingFast)}), w.ways(codeDrying, append(w.earlier(), w.otherDays()...))...)
	}
	if rain >= hardRain {
		w.find(codeRain, finding.Check, words.Say("pour.rains", words.V{"clock": wet, "rain": length.Length(rain)}), w.ways(codeRain, w.otherDays())...)
	}
}

// dark says which posts are set without daylight.
func (w *planner) dark() {
	n, first := 0, ""
	for i := range w.pieces {
		p := &w.pieces[i]
		if p.at.IsZero() || w.light(p.at) && w.light(p.done) {
			continue
		}
		if n++; first == "" {
			first = w.name(i)
		}
	}
	if n > 0 {
		w.find(codeDark, finding.Check, words.Say("pour.dark", words.V{"count": n, "first": first, "rise": clockOf(w.out.Sunrise), "set": clockOf(w.out.Sunset)}), w.ways(codeDark, append(w.hands(), w.earlier()...))...)
	}
}

func clockOf(at string) string {
	if len(at) < 16 {
		return ""
	}
	return at[11:16]
}

// loads says why there are more loads than trucks that the volume needs, and which are
// short.
func (w *planner) loads() {
	d := w.out
	if len(d.Loads) == 0 {
		return
	}
	all, short := length.Volume(0), 0
	for _, l := range d.Loads {
		all += l.Volume
		if l.Short {
			short++
		}
	}
	if need := int(float64(all/pour.MostOrdered(*w.pour.Carries, w.cat.Supply.Truck.In(w.job.Units.System)))) + 1; len(d.Loads) > need && d.Days <= 1 {
		says := words.Say("pour.split", words.V{"loads": len(d.Loads), "bears": d.Bears, "posts": len(d.Posts)})
		if len(d.Curb) > 0 {
			says = words.Say("pour.split-curb", words.V{"loads": len(d.Loads)})
		}
		w.find(codeSplit, finding.Note, says, w.ways(codeSplit, append(w.hands(), w.earlier()...))...)
	}
	if short > 0 {
		under := w.cat.Supply.Truck.In(w.job.Units.System).Short
		w.find(codeShort, finding.Note, words.Say("pour.short", words.V{"count": short, "under": under}), w.ways(codeShort, []tried{{words.Say("pour.in-bags"), func(p *job.Pour) { p.By = job.ByBags }, "by", job.ByBags}})...)
	}
}

// tried is a way out that is tried before it is offered.
type tried struct {
	says   reason.Text
	change func(*job.Pour)
	field  string
	value  any
}

// mostWays is how many ways out of one finding are offered.
const mostWays = 3

// mostTried is the longest pour, in posts, on which ways out are tried: each is a whole
// day planned again.
const mostTried = 300

// ways tries what may help: it is offered where the finding is gone by it, and nothing
// graver comes in its place.
func (w *planner) ways(code string, all []tried) []finding.Remedy {
	if w.trial || len(w.out.Posts) > mostTried {
		return nil
	}
	var out []finding.Remedy
	for _, t := range all {
		j := w.job
		t.change(&j.Pour)
		then := compute(j, w.cat, w.runs, true)
		if found(then, code) || len(then.Left) > len(w.out.Left) || graver(then.Finds, w.out.Finds) {
			continue
		}
		out = append(out, finding.Remedy{Says: t.says, Edits: []job.Edit{job.Set("/pour/"+t.field, t.value)}})
		if len(out) == mostWays {
			break
		}
	}
	return out
}

func found(d *Day, code string) bool {
	return slices.ContainsFunc(d.Finds, func(f finding.Finding) bool { return f.Rule == code })
}

// graver tells whether something that cannot be done is found now and was not before.
func graver(now, was []finding.Finding) bool {
	return slices.ContainsFunc(now, func(f finding.Finding) bool {
		return f.Severity == finding.Cannot && !slices.ContainsFunc(was, func(o finding.Finding) bool { return o.Rule == f.Rule })
	})
}

// hands are one to three more people.
func (w *planner) hands() []tried {
	var out []tried
	for more := 1; more <= 3; more++ {
		n := w.pour.People + more
		out = append(out, tried{words.Say("pour.more-hands", words.V{"people": n}), func(p *job.Pour) { p.People = n }, "people", n})
	}
	return out
}

// earlier are earlier beginnings, in the cool.
func (w *planner) earlier() []tried {
	var out []tried
	for _, from := range []string{"07:00", "06:30", "06:00", "05:30"} {
		if from < w.pour.From {
			out = append(out, tried{words.Say("pour.begin-at", words.V{"clock": from}), func(p *job.Pour) { p.From = from }, "from", from})
		}
	}
	return out
}

// protect is what keeps footings warm.
func (w *planner) protect() []tried {
	var out []tried
	if !w.pour.Covered {
		out = append(out, tried{words.Say("pour.cover"), func(p *job.Pour) { p.Covered = true }, "covered", true})
	}
	return out
}

// otherDays are the working days after this one of which the weather is known.
func (w *planner) otherDays() []tried {
	var out []tried
	for day := 1; day <= 10; day++ {
		date := w.date(day)
		at, err := w.sky.Clock(date, minutesOf(w.pour.From))
		if err != nil {
			break
		}
		if _, ok := w.sky.At(at); !ok {
			continue
		}
		out = append(out, tried{words.Say("pour.on-another-day", words.V{"date": date}), func(p *job.Pour) { p.Date = date }, "date", date})
	}
	return out
}

func round(v float64) float64 { return float64(int(v*10+0.5)) / 10 }
