package stage

import (
	"reflect"
	"slices"
	"sync"

	"mallow/core/choice"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/reason"
	"mallow/core/words"
)

// kindEdits sets a rule for the run's posts of one kind.
func (m *Run) KindEdits(kind job.PostKind, field string, value any) []job.Edit {
	return []job.Edit{job.Set(job.At(m.Path, "kinds", string(kind))+"/"+field, value)}
}

// ruleEdit changes a rule where it was said, so that nothing nearer undoes it.
// What only the usual values or the job say is changed for the run.
func (m *Run) RuleEdit(r *job.Rules, field string, value any) job.Edit {
	tier, path := r.From[field], m.Path
	if tier.Kind == job.KindLevel || tier.Kind == job.PostLevel {
		path = tier.Path
	}
	return job.Set(path+"/"+field, value)
}

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

// kindNames are what kinds of post are called together.
var KindNames = map[job.PostKind]string{job.EndPost: words.Plain("stage.end-posts"), job.CornerPost: words.Plain("stage.corner-posts"), job.GatePost: words.Plain("stage.gate-posts"), job.LinePost: words.Plain("stage.line-posts")}

// saidBy is where a rule was said, in words. What a run says as its fence
// system does, the system says.
func (m *Run) saidBy(r *job.Rules, field string) string {
	switch tier := r.From[field]; tier.Kind {
	case job.JobLevel:
		return words.Plain("stage.the-whole-job")
	case job.RunLevel:
		if m.saidBySystem(field, r) {
			return words.Plain("stage.the-fence-system")
		}
		return words.Plain("stage.this-run")
	case job.KindLevel:
		for _, k := range m.Given.Kinds {
			if tier.Path == job.At(m.Path, "kinds", string(k.Kind)) {
				return KindNames[k.Kind]
			}
		}
		return words.Plain("stage.its-kind-of-post")
	case job.PostLevel:
		return words.Plain("stage.this-post")
	}
	return "usual"
}

func (m *Run) saidBySystem(field string, r *job.Rules) bool {
	if m.rules.system == nil {
		return false
	}
	if _, says := m.rules.system.From[field]; !says {
		return false
	}
	a, _ := m.rules.system.Value(field)
	b, _ := r.Value(field)
	return alikeValues(a, b)
}

// refused are the choices that the run's fence system rules out for posts of a
// kind, or for all of them where none is given: what judgeFilling would find.
func (m *Run) Refused(kind job.PostKind) map[string]map[string]string {
	methods, inside, driven := map[string]string{}, map[string]string{}, map[string]string{}
	if sys, ok := m.Cat.System(m.Spec.System, m.Job.Systems); ok {
		for _, f := range sys.Forbidden {
			methods[string(f.Method)] = f.Why
			if f.Method == job.Drive {
				driven[string(job.LineDriven)], driven[string(job.AllDriven)] = f.Why, f.Why
			}
		}
		if !sys.Can(job.DrivePosts) && len(driven) == 0 {
			why := words.Plain("stage.these-posts-break-or-split")
			driven[string(job.LineDriven)], driven[string(job.AllDriven)] = why, why
		}
		if _, said := methods[string(job.RockPacked)]; !said && slices.Contains(sys.InConcrete, kind) {
			methods[string(job.RockPacked)] = words.Plain("stage.these-posts-take-the-pull")
		}
		if sys.NeverFilled {
			inside[string(job.OpenInside)] = words.Plain("stage.this-post-is-never-filled")
			if kind != job.GatePost {
				inside[string(job.CoreInside)] = words.Plain("stage.only-gate-posts-take-a")
			}
		}
	}
	return map[string]map[string]string{"setting/method": methods, "setting/inside": inside, "hole/driven": driven}
}

// jobLevel is the rules as they come out for the whole job.
func JobLevel(j job.Job, usual job.Said) RuleLevel {
	r := j.JobRules(usual)
	l := RuleLevel{Level: job.JobLevel, Name: words.Plain("stage.whole-job"), Path: "", There: true, Values: r.Values(), From: map[string]string{}, Entered: r.Entered, Refused: map[string]map[string]string{}}
	for field, tier := range r.From {
		if _, ok := l.Values[field]; ok {
			l.From[field] = map[job.TierKind]string{job.UsualLevel: "usual", job.JobLevel: words.Plain("stage.the-whole-job")}[tier.Kind]
		}
	}
	return l
}

// rule is a rule as a setting: its value, where it was said, and the place
// where it is changed. What only the usual values or the job say is changed
// for the run.
func (m *Run) Rule(r *job.Rules, field string) reason.Setting {
	tier, path := r.From[field], m.Path
	if tier.Kind == job.KindLevel || tier.Kind == job.PostLevel {
		path = tier.Path
	}
	rule, _ := choice.RuleOf(field)
	s := reason.Setting{Path: path + "/" + field, Name: rule.Name, Kind: settingKinds[rule.Entry], From: m.saidBy(r, field)}
	for _, c := range choice.Fields[field] {
		s.Choices = append(s.Choices, c.Value)
	}
	s.Value, _ = r.Value(field)
	s.Usual, _ = m.rules.usual.Value(field)
	s.Changed = !alikeValues(s.Value, s.Usual)
	return s
}

var settingKinds = map[choice.RuleEntry]reason.SettingKind{
	choice.Length: reason.LengthSetting, choice.Ratio: reason.RatioSetting, choice.Percent: reason.PercentSetting, choice.PerHeight: reason.PerHeightSetting,
	choice.Switch: reason.SwitchSetting, choice.OneOf: reason.ChoiceSetting,
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
func (m *Run) AsEntered(r *job.Rules, field string, l length.Length) reason.Text {
	if sys, ok := r.Entered[field]; ok && sys != m.Job.Units.System {
		return words.Say("stage.in-both-systems", words.V{"value": reason.As{Length: l, System: sys}, "length": l})
	}
	return reason.Say(l)
}

// ruleBook is the rules for a run's posts. It is written once, and read by
// whoever asks about the run, also at the same time.
type ruleBook struct {
	usual, run *job.Rules
	system     *job.Rules // what the run's fence type says; nil without one
	kinds      map[job.PostKind]*job.Rules
	spots      *overrideRules
}

// overrideRules are the rules for single holes, found when they are asked for.
type overrideRules struct {
	sync.Mutex
	by map[overrideKey]*job.Rules
}

type overrideKey struct {
	kind job.PostKind
	spot int
}

// postKinds are the kinds of post.
var postKinds = []job.PostKind{job.LinePost, job.EndPost, job.CornerPost, job.GatePost}

// writeRules finds the rules in force on the run.
func (m *Run) writeRules() {
	run, usual := m.Job.RunRules(m.UsualRules, m.Given, m.Path), job.Rules{}.Over(m.UsualRules)
	m.rules = ruleBook{run: &run, usual: &usual, kinds: map[job.PostKind]*job.Rules{}, spots: &overrideRules{by: map[overrideKey]*job.Rules{}}}
	if sys, ok := m.Cat.System(m.Spec.System, m.Job.Systems); ok && m.Spec.System != "" {
		said := job.Rules{}.Over(job.Said{Hole: sys.Hole, Setting: sys.Setting})
		m.rules.system = &said
	}
	for _, kind := range postKinds {
		m.rules.kinds[kind] = &run
		if said, ok := m.Given.KindSaid(kind, m.Path); ok {
			own := run.Over(said)
			m.rules.kinds[kind] = &own
		}
	}
}

func (m *Run) RunRules() *job.Rules { return m.rules.run }

// kindRules are the rules for the run's posts of one kind.
func (m *Run) KindRules(kind job.PostKind) *job.Rules { return m.rules.kinds[kind] }

// overrideRules are the rules for a single hole.
func (m *Run) OverrideRules(kind job.PostKind, spot int) *job.Rules {
	m.rules.spots.Lock()
	defer m.rules.spots.Unlock()
	key := overrideKey{kind, spot}
	r := m.rules.spots.by[key]
	if r == nil {
		own := m.KindRules(kind).Over(m.Given.OverrideSaid(spot, m.Path))
		r = &own
		m.rules.spots.by[key] = r
	}
	return r
}

// levels are the rules of the run and of each kind of post, for whoever
// changes them.
func (m *Run) Levels() []RuleLevel {
	out := []RuleLevel{m.Level(job.RunLevel, m.Name(), m.Path, true, m.RunRules())}
	out[0].Refused = m.Refused("")
	for _, kind := range postKinds {
		_, there := m.Given.KindSaid(kind, m.Path)
		l := m.Level(job.KindLevel, KindNames[kind], job.At(m.Path, "kinds", string(kind)), there, m.KindRules(kind))
		l.Kind, l.Refused = kind, m.Refused(kind)
		out = append(out, l)
	}
	return out
}

// level is the rules as they come out at one level.
func (m *Run) Level(kind job.TierKind, name, path string, there bool, r *job.Rules) RuleLevel {
	l := RuleLevel{Level: kind, Name: name, Path: path, There: there, Values: r.Values(), From: map[string]string{}, Entered: r.Entered, Refused: map[string]map[string]string{}}
	for field := range l.Values {
		l.From[field] = m.saidBy(r, field)
	}
	return l
}
