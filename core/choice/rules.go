package choice

import (
	"mallow/core/words"
)

// RuleEntry is how a rule is entered.
type RuleEntry string

// Ways to enter a rule.
const (
	Length    RuleEntry = "length"
	Ratio     RuleEntry = "ratio"
	Percent   RuleEntry = "percent"
	PerHeight RuleEntry = "per height" // a length for each length of height
	Switch    RuleEntry = "switch"
	OneOf     RuleEntry = "choice"
)

// RulePart is where a rule belongs.
type RulePart string

// Parts of the rules for holes.
const (
	Depth   RulePart = "depth" // of these the greatest counts
	Added   RulePart = "added" // to the depth
	Width   RulePart = "width" // and shape
	Filling RulePart = "filling"
	Closing RulePart = "top"   // of the concrete
	Hinges  RulePart = "hinge" // of gates
)

// RulePosts are the posts that a rule is for.
type RulePosts string

// Posts of a rule.
const (
	AllPosts  RulePosts = "" // whatever their kind
	GatePosts RulePosts = "gate"
	EndPosts  RulePosts = "end" // and corner posts
)

// Rule is one rule for holes and what goes into them.
type Rule struct {
	Field  string     `json:"field" jsonschema:"required" jsonschema_description:"Its place in what a level says, such as hole/floor."`
	Name   string     `json:"name" jsonschema:"required"`
	Entry  RuleEntry  `json:"entry" jsonschema:"required,enum=length,enum=ratio,enum=percent,enum=per height,enum=switch,enum=choice"`
	Part   RulePart   `json:"part" jsonschema:"required,enum=depth,enum=added,enum=width,enum=filling,enum=top,enum=hinge"`
	Posts  RulePosts  `json:"posts,omitempty" jsonschema:"enum=gate,enum=end" jsonschema_description:"Posts that it is for; left out: all."`
	ByHand bool       `json:"byHand,omitempty" jsonschema_description:"Stays empty while the rules decide."`
	Whole  bool       `json:"whole,omitempty" jsonschema_description:"Said for a run or the whole job, not for single posts."`
	Where  *Condition `json:"where,omitempty" jsonschema_description:"It only matters while another rule is so."`
}

// Condition is a rule with the values at which something matters.
type Condition struct {
	Field string   `json:"field" jsonschema:"required"`
	Is    []string `json:"is,omitempty" jsonschema_description:"Any of these choices; left out: more than nothing."`
	Not   []string `json:"not,omitempty" jsonschema_description:"None of these choices."`
}

func is(field string, choices ...string) *Condition  { return &Condition{Field: field, Is: choices} }
func not(field string, choices ...string) *Condition { return &Condition{Field: field, Not: choices} }

// Rules are all rules that have a name, in the order in which they are shown.
// Augers, bags and waste have benches of their own.
var Rules = []Rule{
	{Field: "hole/frostMargin", Name: words.Plain("choice.rule-frost-margin"), Entry: Length, Part: Depth},
	{Field: "hole/skipFrost", Name: words.Plain("choice.rule-skip-frost"), Entry: Switch, Part: Depth},
	{Field: "hole/share", Name: words.Plain("choice.rule-share"), Entry: OneOf, Part: Depth},
	{Field: "hole/floor", Name: words.Plain("choice.rule-floor"), Entry: Length, Part: Depth},
	{Field: "hole/floorPerHeight", Name: words.Plain("choice.rule-floor-per-height"), Entry: PerHeight, Part: Depth},
	{Field: "hole/skipFloor", Name: words.Plain("choice.rule-skip-floor"), Entry: Switch, Part: Depth},

	{Field: "hole/gateExtraDepth", Name: words.Plain("choice.rule-gate-extra-depth"), Entry: Length, Part: Added, Posts: GatePosts},
	{Field: "hole/endExtraDepth", Name: words.Plain("choice.rule-end-extra-depth"), Entry: Length, Part: Added, Posts: EndPosts},
	{Field: "hole/roundDepthTo", Name: words.Plain("choice.rule-round-depth"), Entry: Length, Part: Added},
	{Field: "setting/gravel", Name: words.Plain("choice.rule-gravel"), Entry: Length, Part: Added},
	{Field: "setting/stand", Name: words.Plain("choice.rule-stand"), Entry: Length, Part: Added},
	{Field: "hole/depth", Name: words.Plain("choice.rule-depth"), Entry: Length, Part: Added, ByHand: true},

	{Field: "hole/widthFactor", Name: words.Plain("choice.rule-width-factor"), Entry: Ratio, Part: Width},
	{Field: "hole/wideFactor", Name: words.Plain("choice.rule-wide-factor"), Entry: Ratio, Part: Width},
	{Field: "hole/commonWidth", Name: words.Plain("choice.rule-common-width"), Entry: Length, Part: Width},
	{Field: "hole/widthTolerance", Name: words.Plain("choice.rule-width-tolerance"), Entry: Percent, Part: Width},
	{Field: "hole/skipFactor", Name: words.Plain("choice.rule-skip-factor"), Entry: Switch, Part: Width},
	{Field: "hole/gateExtraWidth", Name: words.Plain("choice.rule-gate-extra-width"), Entry: Length, Part: Width, Posts: GatePosts},
	{Field: "hole/endExtraWidth", Name: words.Plain("choice.rule-end-extra-width"), Entry: Length, Part: Width, Posts: EndPosts},
	{Field: "hole/width", Name: words.Plain("choice.rule-width"), Entry: Length, Part: Width, ByHand: true},
	{Field: "hole/shape", Name: words.Plain("choice.rule-shape"), Entry: OneOf, Part: Width},
	{Field: "hole/spade", Name: words.Plain("choice.rule-spade"), Entry: Length, Part: Width, Where: is("hole/shape", "square")},
	{Field: "hole/anyWidth", Name: words.Plain("choice.rule-any-width"), Entry: Switch, Part: Width, Where: not("hole/shape", "square")},
	{Field: "hole/bell", Name: words.Plain("choice.rule-bell"), Entry: Length, Part: Width},
	{Field: "hole/bellHeight", Name: words.Plain("choice.rule-bell-height"), Entry: Length, Part: Width, Where: is("hole/bell")},
	{Field: "hole/taper", Name: words.Plain("choice.rule-taper"), Entry: Length, Part: Width},
	{Field: "hole/along", Name: words.Plain("choice.rule-along"), Entry: Length, Part: Width},
	{Field: "hole/across", Name: words.Plain("choice.rule-across"), Entry: Length, Part: Width},
	{Field: "setting/restrained", Name: words.Plain("choice.rule-restrained"), Entry: Switch, Part: Width},
	{Field: "hole/driven", Name: words.Plain("choice.rule-driven"), Entry: OneOf, Part: Width, Whole: true},
	{Field: "hole/collar", Name: words.Plain("choice.rule-collar"), Entry: Length, Part: Width, Whole: true, Where: not("hole/driven", "none")},

	{Field: "setting/method", Name: words.Plain("choice.rule-method"), Entry: OneOf, Part: Filling},
	{Field: "setting/rocksTo", Name: words.Plain("choice.rule-rocks-to"), Entry: Length, Part: Filling, Where: is("setting/method", "slurry")},
	{Field: "setting/rubble", Name: words.Plain("choice.rule-rubble"), Entry: Percent, Part: Filling, Where: not("setting/method", "rock")},
	{Field: "setting/inside", Name: words.Plain("choice.rule-inside"), Entry: OneOf, Part: Filling},
	{Field: "setting/fillTo", Name: words.Plain("choice.rule-fill-to"), Entry: Length, Part: Filling, ByHand: true, Where: not("setting/inside", "closed")},
	{Field: "setting/core", Name: words.Plain("choice.rule-core"), Entry: Length, Part: Filling, Where: is("setting/inside", "core")},
	{Field: "setting/coreWall", Name: words.Plain("choice.rule-core-wall"), Entry: Length, Part: Filling, Where: is("setting/inside", "core")},

	{Field: "setting/top", Name: words.Plain("choice.rule-top"), Entry: OneOf, Part: Closing, Where: not("setting/method", "rock")},
	{Field: "setting/crown", Name: words.Plain("choice.rule-crown"), Entry: Length, Part: Closing, Where: is("setting/top", "crown")},
	{Field: "setting/cover", Name: words.Plain("choice.rule-cover"), Entry: Length, Part: Closing, Where: is("setting/top", "cover")},
	{Field: "setting/mound", Name: words.Plain("choice.rule-mound"), Entry: Length, Part: Closing, Where: is("setting/top", "cover")},
	{Field: "setting/bag", Name: words.Plain("choice.rule-bag"), Entry: OneOf, Part: Closing, Where: not("setting/method", "rock")},
	{Field: "setting/waste", Name: words.Plain("choice.rule-waste"), Entry: Percent, Part: Closing, Where: not("setting/method", "rock")},

	{Field: "hole/hingeExtraDepth", Name: words.Plain("choice.rule-hinge-extra-depth"), Entry: Length, Part: Hinges},
	{Field: "hole/hingeExtraWidth", Name: words.Plain("choice.rule-hinge-extra-width"), Entry: Length, Part: Hinges},
}

// RuleOf finds a rule by its field.
func RuleOf(field string) (Rule, bool) {
	for i := range Rules {
		if Rules[i].Field == field {
			return Rules[i], true
		}
	}
	return Rule{}, false
}
