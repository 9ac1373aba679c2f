package job

import (
	"maps"
	"math"
	"reflect"
	"strings"

	"mallow/core/length"
)

// TierKind is where a rule was said.
type TierKind string

// The levels, from far to near. The nearest that says something wins.
const (
	UsualLevel TierKind = "usual" // the catalogue's usual value
	JobLevel   TierKind = "job"
	RunLevel   TierKind = "run"
	KindLevel  TierKind = "kind"
	PostLevel  TierKind = "post"
)

// Tier is one place at which rules are said.
type Tier struct {
	Kind TierKind
	Path string // JSON pointer of what holds its hole and setting; "" is the job
}

// Said is what one level says.
type Said struct {
	Tier
	Hole    HoleRules
	Setting SettingRules
}

// Rules are the rules for one hole, complete, with where each was said.
type Rules struct {
	Hole    Hole
	Setting Setting
	From    map[string]Tier          // by field, such as hole/floor
	Entered map[string]length.System // fields that are said in the units of a system
}

// ruleField is one rule: where it is said, and where it comes out.
type ruleField struct {
	name       string // such as hole/floor
	json       string // the same without its list
	said, into int    // places in HoleRules and Hole, or in SettingRules and Setting
}

// ruleFields pair the fields of what is said with those of the same name in
// what comes out, once.
var holeFields, settingFields = pair("hole/", HoleRules{}, Hole{}), pair("setting/", SettingRules{}, Setting{})

func pair(prefix string, said, into any) []ruleField {
	var out []ruleField
	from, to := reflect.TypeOf(said), reflect.TypeOf(into)
	for i := range from.NumField() {
		f, ok := to.FieldByName(from.Field(i).Name)
		if !ok {
			continue
		}
		name, _, _ := strings.Cut(from.Field(i).Tag.Get("json"), ",")
		out = append(out, ruleField{prefix + name, name, i, f.Index[0]})
	}
	return out
}

// Over lays what a nearer level says over the rules and returns the result.
func (r Rules) Over(s Said) Rules {
	r.From, r.Entered = maps.Clone(r.From), maps.Clone(r.Entered)
	if r.From == nil {
		r.From = map[string]Tier{}
	}
	if r.Entered == nil {
		r.Entered = map[string]length.System{}
	}
	r.lay(holeFields, reflect.ValueOf(&r.Hole).Elem(), reflect.ValueOf(&s.Hole).Elem(), s.Hole.Entered, s.Tier)
	r.lay(settingFields, reflect.ValueOf(&r.Setting).Elem(), reflect.ValueOf(&s.Setting).Elem(), s.Setting.Entered, s.Tier)
	return r
}

// lay copies the fields that are said into the fields of the same name.
func (r Rules) lay(fields []ruleField, into, said reflect.Value, entered map[string]length.System, tier Tier) {
	for _, f := range fields {
		from, to := said.Field(f.said), into.Field(f.into)
		if from.IsNil() {
			continue
		}
		r.From[f.name] = tier
		delete(r.Entered, f.name)
		if sys, ok := entered[f.json]; ok {
			r.Entered[f.name] = sys
		}
		switch {
		case from.Kind() == reflect.Slice:
			to.Set(from)
		case to.Kind() == reflect.Pointer: // set by hand; 0 takes that back
			to.SetZero()
			if level := f.json == "fillTo"; level || from.Elem().Float() != 0 {
				to.Set(from)
			}
		default:
			to.Set(from.Elem())
		}
	}
}

// Value is what comes out for a field, such as hole/floor; false where nothing
// is set by hand.
func (r *Rules) Value(field string) (any, bool) {
	fields, values := holeFields, reflect.ValueOf(&r.Hole).Elem()
	if strings.HasPrefix(field, "setting/") {
		fields, values = settingFields, reflect.ValueOf(&r.Setting).Elem()
	}
	for _, f := range fields {
		if f.name == field {
			return bare(values.Field(f.into))
		}
	}
	return nil, false
}

// Values are all that come out, by field.
func (r *Rules) Values() map[string]any {
	out := make(map[string]any, len(holeFields)+len(settingFields))
	for _, list := range []struct {
		fields []ruleField
		values reflect.Value
	}{{holeFields, reflect.ValueOf(&r.Hole).Elem()}, {settingFields, reflect.ValueOf(&r.Setting).Elem()}} {
		for _, f := range list.fields {
			if v, ok := bare(list.values.Field(f.into)); ok {
				out[f.name] = v
			}
		}
	}
	return out
}

func bare(v reflect.Value) (any, bool) {
	if v.Kind() != reflect.Pointer {
		return v.Interface(), true
	}
	if v.IsNil() {
		return nil, false
	}
	return v.Elem().Interface(), true
}

// RunRules are the rules that hold for all of a run's posts, given the usual
// ones and where the run stands in the document.
func (j Job) RunRules(usual Said, run Run, path string) Rules {
	return j.JobRules(usual).Over(Said{Tier{RunLevel, path}, run.Hole, run.Setting})
}

// JobRules are the rules that hold for the whole job.
func (j Job) JobRules(usual Said) Rules {
	return Rules{}.Over(usual).Over(Said{Tier{JobLevel, ""}, j.Hole, j.Setting})
}

// KindSaid is what a run says of its posts of one kind.
func (r Run) KindSaid(kind PostKind, path string) (Said, bool) {
	for _, k := range r.Kinds {
		if k.Kind == kind {
			return Said{Tier{KindLevel, At(path, "kinds", string(k.Kind))}, k.Hole, k.Setting}, true
		}
	}
	return Said{}, false
}

// OverrideSaid is what a run says of a single hole.
func (r Run) OverrideSaid(spot int, path string) Said {
	s := r.Overrides[spot]
	return Said{Tier{PostLevel, At(path, "overrides", s.ID)}, s.Hole, s.Setting}
}

// OverrideAt finds the spot that belongs to the post at a station: one that is
// nearer to it than half the way to its neighbours, which are so far away.
// It returns -1 when there is none.
func (r Run) OverrideAt(station, before, after length.Length) int {
	best, near := -1, length.Length(math.Inf(1))
	for i, s := range r.Overrides {
		off := s.At - station
		if off > after/2+length.Tolerance || -off > before/2+length.Tolerance {
			continue
		}
		if off.Abs() < near {
			best, near = i, off.Abs()
		}
	}
	return best
}

// wide is the post width from which the factor for wide posts holds.
const wide = 4 * length.Inch

// Factor is the multiple of the post's width that a hole has.
func (h Hole) Factor(post length.Length) float64 {
	if h.WideFactor > 0 && post > wide+length.Tolerance {
		return h.WideFactor
	}
	return h.WidthFactor
}
