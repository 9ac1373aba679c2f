package reason

import (
	"mallow/core/length"
)

// SourceKind tells how well founded a rule is.
type SourceKind string

// Kinds of source.
const (
	Published SourceKind = "published"
	Practice  SourceKind = "common practice"
	Memory    SourceKind = "from memory" // published, but quoted from memory
	Geometry  SourceKind = "geometry"    // follows from measures alone
	Yours     SourceKind = "yours"       // entered by the user
)

// Source names where a rule comes from.
type Source struct {
	Kind SourceKind `json:"kind" jsonschema:"required,enum=published,enum=common practice,enum=from memory,enum=geometry,enum=yours"`
	Name string     `json:"name,omitempty"`
}

// SettingKind tells how a setting is entered.
type SettingKind string

// Kinds of setting.
const (
	LengthSetting SettingKind = "length"
	RatioSetting  SettingKind = "ratio"
	ChoiceSetting SettingKind = "choice"
	SwitchSetting SettingKind = "switch" // true or false

	PercentSetting   SettingKind = "percent"    // a share, entered as a percentage
	PerHeightSetting SettingKind = "per height" // a length for each length of height
)

// Setting is a value of the job that a rule used and the user can change.
type Setting struct {
	Path    string      `json:"path" jsonschema:"required" jsonschema_description:"JSON pointer into the job document."`
	Name    string      `json:"name" jsonschema:"required"`
	Kind    SettingKind `json:"kind" jsonschema:"required,enum=length,enum=ratio,enum=percent,enum=per height,enum=choice,enum=switch"`
	Value   any         `json:"value,omitempty" jsonschema:"oneof_type=number;string;boolean" jsonschema_description:"Value in use; millimetres for lengths; left out when not set."`
	Usual   any         `json:"usual,omitempty" jsonschema:"oneof_type=number;string;boolean" jsonschema_description:"Usual value of the catalogue; left out when there is none."`
	Changed bool        `json:"changed" jsonschema:"required" jsonschema_description:"The job's value differs from the usual one."`
	Choices []string    `json:"choices,omitempty"`
	From    string      `json:"from,omitempty" jsonschema_description:"Where it was said: the nearest of post, kind of post, run, fence system, job, or the usual value."`
}

// Step is one rule: what it asked, on what ground, and whether it governs.
type Step struct {
	Rule     string    `json:"rule" jsonschema:"required" jsonschema_description:"Name of the rule."`
	Says     Text      `json:"says" jsonschema:"required" jsonschema_description:"The rule with its inputs and its value."`
	Governs  bool      `json:"governs" jsonschema:"required"`
	Source   Source    `json:"source" jsonschema:"required"`
	Settings []Setting `json:"settings,omitempty"`
}

// Why is the explanation of one figure.
type Why struct {
	Figure   string `json:"figure" jsonschema:"required"`
	Sentence Text   `json:"sentence" jsonschema:"required" jsonschema_description:"The explanation in one sentence."`
	// Steps are the rules. Posts share them, so a document writes each once,
	// in a list of its own, and Rules are the places in it (see Fold).
	Steps []Step `json:"-"`
	Rules []int  `json:"rules" jsonschema:"required" jsonschema_description:"The rules that spoke: places in the plan's list of rules."`
	// Asked stands apart from the steps, which posts share: it differs from
	// post to post.
	Asked   []length.Length `json:"asked,omitempty" jsonschema_description:"What the first steps asked for, in their order, where rules compete."`
	Caution string          `json:"caution,omitempty"`
}

// Ref is the place of a Why in a Book.
type Ref int

// Book keeps explanations.
type Book struct {
	whys []Why
}

// Whys returns all explanations; a Ref is an index into them.
func (b *Book) Whys() []Why { return b.whys }

// Index finds explanations of one kind in a book, so that figures with the
// same explanation share it. A key holds everything that its explanation is
// written from.
type Index[K comparable] struct {
	book *Book
	seen map[K]Ref
}

// Fold lists every step of the book once, and points the explanations at it.
func (b *Book) Fold() []Step {
	all := []Step{}
	seen := map[*Step][]int{} // by a shared list's first step
	for i := range b.whys {
		w := &b.whys[i]
		if len(w.Steps) == 0 {
			w.Rules = []int{}
			continue
		}
		rules, ok := seen[&w.Steps[0]]
		if !ok {
			for range w.Steps {
				rules = append(rules, len(all)+len(rules))
			}
			all = append(all, w.Steps...)
			seen[&w.Steps[0]] = rules
		}
		w.Rules = rules
	}
	return all
}

// NewIndex returns an empty index into the book.
func NewIndex[K comparable](b *Book) Index[K] { return Index[K]{b, map[K]Ref{}} }

// Put returns the place of the explanation with the given key, writing it the
// first time the key is seen.
func (x Index[K]) Put(key K, write func() Why) Ref {
	if ref, ok := x.seen[key]; ok {
		return ref
	}
	ref := Ref(len(x.book.whys))
	x.book.whys = append(x.book.whys, write())
	x.seen[key] = ref
	return ref
}
