package plan

import (
	"fmt"
	"reflect"
	"slices"

	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/reason"
)

// RuleLevel is the rules for holes as they come out at one level: the whole
// job, a run, its posts of one kind, or a single post.
type RuleLevel struct {
	Level   job.TierKind                 `json:"level" jsonschema:"required,enum=job,enum=run,enum=kind,enum=post"`
	Name    string                       `json:"name" jsonschema:"required"`
	Kind    job.PostKind                 `json:"kind,omitempty" jsonschema:"enum=end,enum=corner,enum=gate,enum=line"`
	Post    string                       `json:"post,omitempty" jsonschema_description:"The post that a single hole's rules are for."`
	Path    string                       `json:"path" jsonschema:"required" jsonschema_description:"JSON pointer of what holds this level's own rules in the job document."`
	There   bool                         `json:"there" jsonschema:"required" jsonschema_description:"The document has it; else it is made with its first rule."`
	Values  map[string]any               `json:"values" jsonschema:"required" jsonschema_description:"The value in force for each field, such as hole/floor."`
	From    map[string]string            `json:"from" jsonschema:"required" jsonschema_description:"Where each was said."`
	Refused map[string]map[string]string `json:"refused" jsonschema:"required" jsonschema_description:"Choices that the run's fence system rules out here, by field and value, and why."`
	Entered map[string]length.System     `json:"entered" jsonschema:"required" jsonschema_description:"Fields that were entered in the units of a system."`
}

// ruleBook finds the rules for a run's posts, each once.
type ruleBook struct {
	usual, system, run *job.Rules

	kinds map[job.PostKind]*job.Rules
	spots map[[2]any]*job.Rules // by kind and spot
}

func (m *maker) runRules() *job.Rules {
	if m.rules.run == nil {
		r := m.job.RunRules(m.usualRules, m.given, m.path)
		m.rules.run = &r
	}
	return m.rules.run
}

// kindRules are the rules for the run's posts of one kind.
func (m *maker) kindRules(kind job.PostKind) *job.Rules {
	if r := m.rules.kinds[kind]; r != nil {
		return r
	}
	r := m.runRules()
	if said, ok := m.given.KindSaid(kind, m.path); ok {
		own := r.Over(said)
		r = &own
	}
	if m.rules.kinds == nil {
		m.rules.kinds = map[job.PostKind]*job.Rules{}
	}
	m.rules.kinds[kind] = r
	return r
}

// spotRules are the rules for a single hole.
func (m *maker) spotRules(kind job.PostKind, spot int) *job.Rules {
	key := [2]any{kind, spot}
	if r := m.rules.spots[key]; r != nil {
		return r
	}
	r := m.kindRules(kind).Over(m.given.SpotSaid(spot, m.path))
	if m.rules.spots == nil {
		m.rules.spots = map[[2]any]*job.Rules{}
	}
	m.rules.spots[key] = &r
	return &r
}

// kindNames are what kinds of post are called together.
var kindNames = map[job.PostKind]string{job.EndPost: "end posts", job.CornerPost: "corner posts", job.GatePost: "gate posts", job.LinePost: "line posts"}

// saidBy is where a rule was said, in words. What a run says as its fence
// system does, the system says.
func (m *maker) saidBy(r *job.Rules, field string) string {
	switch tier := r.From[field]; tier.Kind {
	case job.JobLevel:
		return "the whole job"
	case job.RunLevel:
		if m.saidBySystem(field, r) {
			return "the fence system"
		}
		return "this run"
	case job.KindLevel:
		for i, k := range m.given.Kinds {
			if tier.Path == fmt.Sprintf("%s/kinds/%d", m.path, i) {
				return kindNames[k.Kind]
			}
		}
		return "its kind of post"
	case job.PostLevel:
		return "this post"
	}
	return "usual"
}

func (m *maker) saidBySystem(field string, r *job.Rules) bool {
	if m.run.System == "" {
		return false
	}
	sys, ok := m.cat.System(m.run.System, m.job.Systems)
	if !ok {
		return false
	}
	if m.rules.system == nil {
		said := job.Rules{}.Over(job.Said{Hole: sys.Hole, Setting: sys.Setting})
		m.rules.system = &said
	}
	if _, says := m.rules.system.From[field]; !says {
		return false
	}
	a, _ := m.rules.system.Value(field)
	b, _ := r.Value(field)
	return alikeValues(a, b)
}

// levels are the rules at every level of the run, for whoever changes them.
func (m *maker) levels() []RuleLevel {
	level := func(kind job.TierKind, name, path string, there bool, r *job.Rules) RuleLevel {
		l := RuleLevel{Level: kind, Name: name, Path: path, There: there, Values: r.Values(), From: map[string]string{}, Entered: r.Entered, Refused: map[string]map[string]string{}}
		for field := range l.Values {
			l.From[field] = m.saidBy(r, field)
		}
		return l
	}
	out := []RuleLevel{level(job.RunLevel, m.name(), m.path, true, m.runRules())}
	out[0].Refused = m.refused("")
	for _, kind := range []job.PostKind{job.LinePost, job.EndPost, job.CornerPost, job.GatePost} {
		path, there := fmt.Sprintf("%s/kinds/%d", m.path, len(m.given.Kinds)), false
		if said, ok := m.given.KindSaid(kind, m.path); ok {
			path, there = said.Path, true
		}
		l := level(job.KindLevel, kindNames[kind], path, there, m.kindRules(kind))
		l.Kind, l.Refused = kind, m.refused(kind)
		out = append(out, l)
	}
	for i := range m.out.Posts {
		p := &m.out.Posts[i]
		if p.spot < 0 || p.Shared != "" {
			continue
		}
		l := level(job.PostLevel, p.ID, fmt.Sprintf("%s/spots/%d", m.path, p.spot), true, m.spotRules(p.Kind, p.spot))
		l.Post, l.Refused = p.ID, m.refused(p.Kind)
		out = append(out, l)
	}
	return out
}

// refused are the choices that the run's fence system rules out for posts of a
// kind, or for all of them where none is given: what judgeFilling would find.
func (m *maker) refused(kind job.PostKind) map[string]map[string]string {
	methods, inside, driven := map[string]string{}, map[string]string{}, map[string]string{}
	if sys, ok := m.cat.System(m.run.System, m.job.Systems); ok {
		for _, f := range sys.Forbidden {
			methods[string(f.Method)] = f.Why
			if f.Method == job.Drive {
				driven[string(job.LineDriven)], driven[string(job.AllDriven)] = f.Why, f.Why
			}
		}
		if !sys.Can(job.DrivePosts) && len(driven) == 0 {
			why := "these posts break or split under a driver."
			driven[string(job.LineDriven)], driven[string(job.AllDriven)] = why, why
		}
		if _, said := methods[string(job.RockPacked)]; !said && slices.Contains(sys.InConcrete, kind) {
			methods[string(job.RockPacked)] = "these posts take the pull and stand in concrete."
		}
		if sys.NeverFilled {
			inside[string(job.OpenInside)] = "this post is never filled: water freezes in it and bursts it."
			if kind != job.GatePost {
				inside[string(job.CoreInside)] = "only gate posts take a core."
			}
		}
	}
	return map[string]map[string]string{"setting/method": methods, "setting/inside": inside, "hole/driven": driven}
}

// jobLevel is the rules as they come out for the whole job.
func jobLevel(j job.Job, usual job.Said) RuleLevel {
	r := j.JobRules(usual)
	l := RuleLevel{Level: job.JobLevel, Name: "Whole job", Path: "", There: true, Values: r.Values(), From: map[string]string{}, Entered: r.Entered, Refused: map[string]map[string]string{}}
	for field, tier := range r.From {
		if _, ok := l.Values[field]; ok {
			l.From[field] = map[job.TierKind]string{job.UsualLevel: "usual", job.JobLevel: "the whole job"}[tier.Kind]
		}
	}
	return l
}

// rule is a rule as a setting: its value, where it was said, and the place
// where it is changed. What only the usual values or the job say is changed
// for the run.
func (m *maker) rule(r *job.Rules, field, name string, kind reason.SettingKind, choices ...string) reason.Setting {
	tier, path := r.From[field], m.path
	if tier.Kind == job.KindLevel || tier.Kind == job.PostLevel {
		path = tier.Path
	}
	s := reason.Setting{Path: path + "/" + field, Name: name, Kind: kind, From: m.saidBy(r, field), Choices: choices}
	if m.rules.usual == nil {
		usual := job.Rules{}.Over(m.usualRules)
		m.rules.usual = &usual
	}
	s.Value, _ = r.Value(field)
	s.Usual, _ = m.rules.usual.Value(field)
	s.Changed = !alikeValues(s.Value, s.Usual)
	return s
}

func alikeValues(a, b any) bool {
	x, ok := a.(length.Length)
	y, fine := b.(length.Length)
	if ok && fine {
		return length.Same(x, y)
	}
	return reflect.DeepEqual(a, b)
}

// asEntered says a length in the units in which its rule was entered, and in
// the job's where they differ.
func (m *maker) asEntered(r *job.Rules, field string, l length.Length) reason.Text {
	if sys, ok := r.Entered[field]; ok && sys != m.job.Units.System {
		return reason.Say(reason.As{Length: l, System: sys}, " (", l, ")")
	}
	return reason.Say(l)
}
