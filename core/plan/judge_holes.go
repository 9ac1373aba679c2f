package plan

import (
	"fmt"
	"slices"

	"mallow/core/finding"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/reason"
)

// ruleEdit changes a rule where it was said, so that nothing nearer undoes it.
// What only the usual values or the job say is changed for the run.
func (m *maker) ruleEdit(r *job.Rules, field string, value any) job.Edit {
	tier, path := r.From[field], m.path
	if tier.Kind == job.KindLevel || tier.Kind == job.PostLevel {
		path = tier.Path
	}
	return job.Set(path+"/"+field, value)
}

func (m *maker) judgeHoles() {
	if m.noAuger >= 0 {
		p := &m.out.Posts[m.noAuger]
		r := m.ditches[p.Card].sized.rules
		augers := append(slices.Clone(r.Hole.Augers), p.HoleWidth)
		m.find(finding.Finding{Rule: "no-auger", Stage: finding.Dig, Severity: finding.Note, Place: finding.Place{Post: p.ID},
			Says: reason.Say("No auger in the list is ", p.HoleWidth, " wide: ", p.ID, " is dug by spade."),
			Remedies: []finding.Remedy{{Says: reason.Say("Add a ", p.HoleWidth, " auger"),
				Edits: []job.Edit{m.ruleEdit(r, "hole/augers", augers)}}}})
	}
	if m.shallow >= 0 {
		p := &m.out.Posts[m.shallow]
		r := m.ditches[p.Card].sized.rules
		m.find(finding.Finding{Rule: "shallow", Stage: finding.Dig, Severity: finding.Check, Place: finding.Place{Post: p.ID},
			Says:     reason.Say("The depth set by hand, ", p.Foot, ", is less than the rules ask for at ", p.ID, ". Frost can lift it."),
			Remedies: []finding.Remedy{{Says: reason.Say("Go by the rules"), Edits: []job.Edit{m.ruleEdit(r, "hole/depth", length.Length(0))}}}})
	}
	if m.dry >= 0 {
		p := &m.out.Posts[m.dry]
		r := m.ditches[p.Card].sized.rules
		usual := *m.usualRules.Setting.Cover
		m.find(finding.Finding{Rule: "no-concrete", Stage: finding.Pour, Severity: finding.Cannot, Place: finding.Place{Post: p.ID},
			Says:     reason.Say("The soil cover, ", r.Setting.Cover, ", reaches the foot of ", p.ID, ": no concrete is left."),
			Remedies: []finding.Remedy{{Says: reason.Say("Cover ", usual), Edits: []job.Edit{m.ruleEdit(r, "setting/cover", usual)}}}})
	}
	m.judgeRoom()
	m.judgeTaper()
	m.judgeUncut()
}

// leastRoom is the least concrete that should stand round a post: 2 in or
// 50 mm (common practice).
const leastRoom = 50 * length.Millimetre

// judgeRoom looks for holes that do not go round their post.
func (m *maker) judgeRoom() {
	for i := range m.out.Posts {
		p := &m.out.Posts[i]
		if p.Card < 0 || p.Shared != "" || p.Driven {
			continue
		}
		c, r := &m.out.Cards[p.Card], m.ditches[p.Card].sized.rules
		switch {
		case c.Least < -length.Tolerance:
			m.find(finding.Finding{Rule: "post-off-hole", Stage: finding.Dig, Severity: finding.Cannot, Place: finding.Place{Post: p.ID},
				Says:     reason.Say("The hole of ", p.ID, " lies so far off its post that the post is not in it."),
				Remedies: []finding.Remedy{{Says: reason.Say("Centre it"), Edits: []job.Edit{m.ruleEdit(r, "hole/along", length.Length(0)), m.ruleEdit(r, "hole/across", length.Length(0))}}}})
			return
		case c.Least < leastRoom-length.Tolerance && (c.Along != 0 || c.Across != 0) && c.Concrete > 0:
			m.find(finding.Finding{Rule: "thin-cover", Stage: finding.Dig, Severity: finding.Note, Place: finding.Place{Post: p.ID},
				Says: reason.Say("At the near side only ", c.Least, " of concrete stand between ", p.ID, " and the soil; ", leastRoom, " is usual.")})
			return
		}
	}
}

// judgeTaper warns of a footing that is wider at the top: frost grips it.
func (m *maker) judgeTaper() {
	frost, _ := m.frost()
	if frost == nil || *frost <= 0 {
		return
	}
	for i := range m.out.Posts {
		p := &m.out.Posts[i]
		if p.Card < 0 || p.Shared != "" || p.Driven || m.out.Cards[p.Card].Concrete == 0 {
			continue
		}
		if r := m.ditches[p.Card].sized.rules; r.Hole.Taper > 0 && r.Hole.Bell <= p.HoleWidth {
			m.find(finding.Finding{Rule: "taper-heave", Stage: finding.Dig, Severity: finding.Note, Place: finding.Place{Post: p.ID},
				Says: reason.Say("Holes from ", p.ID, " on are wider at the top: freezing soil grips such a footing and lifts it. Pare the sides, or sleeve the top of the concrete.")})
			return
		}
	}
}

// judgeFilling refuses what must not go together: a way of setting that the
// fence system rules out, posts that must stand in concrete, hollow posts that
// are never filled, driven posts in soil that was dug.
func (m *maker) judgeFilling() {
	sys, known := m.cat.System(m.run.System, m.job.Systems)
	said := map[string]bool{}
	once := func(key string, f finding.Finding) {
		if !said[key] {
			said[key] = true
			f.Severity = finding.Cannot
			m.find(f)
		}
	}
	for i := range m.out.Posts {
		p := &m.out.Posts[i]
		if p.Card < 0 || p.Shared != "" {
			continue
		}
		r, method := m.ditches[p.Card].sized.rules, m.out.Cards[p.Card].Method
		place := finding.Place{Post: p.ID}
		if p.Driven {
			m.judgeDriven(p, once)
		}
		if !known {
			continue
		}
		if k := slices.IndexFunc(sys.Forbidden, func(f job.Forbidden) bool { return f.Method == method }); k >= 0 {
			once("method "+string(method), finding.Finding{Rule: "forbidden-setting", Stage: finding.Pour, Place: place,
				Says:     reason.Say(sys.Name, ": not ", methodNames[method], ". ", sys.Forbidden[k].Why),
				Remedies: m.allowedWays(sys, r, p.Kind)})
		}
		if slices.Contains(sys.InConcrete, p.Kind) && (method == job.RockPacked || method == job.Drive) {
			once("concrete "+string(p.Kind), finding.Finding{Rule: "must-be-concrete", Stage: finding.Pour, Place: place,
				Says:     reason.Say(sys.Name, ": ", kindNames[p.Kind], " take the pull and stand in concrete; ", p.ID, " is ", methodNames[method], "."),
				Remedies: m.allowedWays(sys, r, p.Kind)})
		}
		if k := slices.IndexFunc(sys.Mind, func(f job.Forbidden) bool { return f.Method == method }); k >= 0 && !said["mind "+string(method)] {
			said["mind "+string(method)] = true
			m.find(finding.Finding{Rule: "mind-setting", Stage: finding.Pour, Severity: finding.Note, Place: place,
				Says: reason.Say(sys.Name, ", ", methodNames[method], ": ", sys.Mind[k].Why)})
		}
		m.judgeInside(p, r, sys, once)
	}
}

// allowedWays offers the system's own ways to set posts that stand in
// concrete or stone.
func (m *maker) allowedWays(sys job.System, r *job.Rules, kind job.PostKind) []finding.Remedy {
	var out []finding.Remedy
	for _, way := range sys.Allowed {
		if way == job.Drive || way == job.RockPacked && slices.Contains(sys.InConcrete, kind) {
			continue
		}
		edits := []job.Edit{m.ruleEdit(r, "setting/method", way)}
		if r.Hole.DrivenAt(kind) {
			edits = append(edits, m.ruleEdit(r, "hole/driven", job.NoneDriven))
		}
		out = append(out, finding.Remedy{Says: reason.Say("Set them ", methodNames[way]), Edits: edits})
	}
	return out
}

// judgeInside holds hollow posts against a system that never fills them.
func (m *maker) judgeInside(p *Post, r *job.Rules, sys job.System, once func(string, finding.Finding)) {
	set := r.Setting
	if !sys.NeverFilled || !m.run.PostOf(p.Kind).Hollow {
		return
	}
	f := finding.Finding{Rule: "never-filled", Stage: finding.Pour, Place: finding.Place{Post: p.ID}}
	switch {
	case set.Inside == job.OpenInside && m.out.Cards[p.Card].Concrete > 0:
		f.Says = reason.Say(sys.Name, ": a post is never filled with concrete, or water freezes in it and bursts it. ", p.ID, " would fill as it is set.")
		f.Remedies = []finding.Remedy{{Says: reason.Say("Close the foot"), Edits: []job.Edit{m.ruleEdit(r, "setting/inside", job.ClosedInside)}}}
		if p.Kind == job.GatePost {
			core := m.job.Units.Round((m.run.PostOf(p.Kind).Width - 2*m.run.PostOf(p.Kind).Wall) * 0.6)
			f.Remedies = append(f.Remedies, finding.Remedy{Says: reason.Say("A steel core, ", core), Edits: []job.Edit{m.ruleEdit(r, "setting/inside", job.CoreInside), m.ruleEdit(r, "setting/core", core)}})
		}
	case set.Inside == job.CoreInside && p.Kind != job.GatePost:
		f.Says = reason.Say(sys.Name, ": only gate posts take a steel core and concrete; ", p.ID, " is none.")
		f.Remedies = []finding.Remedy{{Says: reason.Say("Close the foot"), Edits: []job.Edit{m.ruleEdit(r, "setting/inside", job.ClosedInside)}}}
	case set.Inside == job.CoreInside && set.FillTo != nil && *set.FillTo > length.Tolerance:
		f.Says = reason.Say(sys.Name, ": concrete round the core goes up to the ground only, not ", *set.FillTo, " above it.")
		f.Remedies = []finding.Remedy{{Says: reason.Say("Up to the ground"), Edits: []job.Edit{m.ruleEdit(r, "setting/fillTo", length.Length(0))}}}
	default:
		return
	}
	once(fmt.Sprint("inside ", set.Inside, p.Kind), f)
}

// judgeDriven refuses a driven post in soil that an old footing left loose.
func (m *maker) judgeDriven(p *Post, once func(string, finding.Finding)) {
	for i, k := range m.run.KeepOuts {
		if !isFooting(k) || p.Station < k.From()-disturbed || p.Station > k.To()+disturbed {
			continue
		}
		f := finding.Finding{Rule: "driven-in-fill", Stage: finding.Dig, Place: finding.Place{Post: p.ID},
			Says: reason.Say(p.ID, " would be driven into soil that the old footing at ", reason.Tape(k.At), " left loose: it does not hold a driven post.")}
		r := m.ditches[p.Card].sized.rules
		f.Remedies = []finding.Remedy{{Says: reason.Say("Set the posts in concrete"), Edits: []job.Edit{m.ruleEdit(r, "hole/driven", job.NoneDriven)}}}
		once(fmt.Sprint("driven ", i), f)
	}
}

// disturbed is how far beside an old footing its pulling leaves the soil
// loose (common practice).
const disturbed = 100 * length.Millimetre
