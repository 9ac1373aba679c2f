package job

import "mallow/core/words"

// Offer is what the customer is told beside what the plan knows: printed on
// the customer's sheet and nowhere else.
type Offer struct {
	Start    string `json:"start,omitempty" jsonschema:"maxLength=10" jsonschema_description:"Day on which work begins: year-month-day."`
	End      string `json:"end,omitempty" jsonschema:"maxLength=10" jsonschema_description:"Day on which it is done, not before the first."`
	OldFence Scope  `json:"oldFence,omitempty" jsonschema:"enum=yes,enum=no" jsonschema_description:"The old fence is taken down and hauled off. Left out, as of the others: not said."`
	Clearing Scope  `json:"clearing,omitempty" jsonschema:"enum=yes,enum=no" jsonschema_description:"Brush and roots along the line are cleared."`
	Soil     Scope  `json:"soil,omitempty" jsonschema:"enum=yes,enum=no" jsonschema_description:"Soil from the holes is hauled off."`
	Permit   Scope  `json:"permit,omitempty" jsonschema:"enum=yes,enum=no" jsonschema_description:"The permit and its fee."`
	Survey   Scope  `json:"survey,omitempty" jsonschema:"enum=yes,enum=no" jsonschema_description:"A surveyor finds the property line."`
	Finish   Scope  `json:"finish,omitempty" jsonschema:"enum=yes,enum=no" jsonschema_description:"Stain or paint."`
	Lawn     Scope  `json:"lawn,omitempty" jsonschema:"enum=yes,enum=no" jsonschema_description:"Lawn and beds are made good."`
	Rock     Scope  `json:"rock,omitempty" jsonschema:"enum=yes,enum=no" jsonschema_description:"Rock and old footings found in holes are broken out."`
	Also     string `json:"also,omitempty" jsonschema:"maxLength=1000" jsonschema_description:"What else is included, in free words."`
	Not      string `json:"not,omitempty" jsonschema:"maxLength=1000" jsonschema_description:"What else is not included, in free words."`
}

// Scope is whether something is in the offer.
type Scope string

// Scopes. The empty one: the customer is told nothing of it.
const (
	Included    Scope = "yes"
	NotIncluded Scope = "no"
)

// ScopeItem is one of the things that customers ask about.
type ScopeItem struct {
	ID    string // its field
	Scope Scope
}

// Scopes are the things that customers ask about, in the order in which they
// are told.
func (o Offer) Scopes() []ScopeItem {
	return []ScopeItem{
		{"oldFence", o.OldFence}, {"clearing", o.Clearing}, {"soil", o.Soil}, {"rock", o.Rock},
		{"permit", o.Permit}, {"survey", o.Survey}, {"finish", o.Finish}, {"lawn", o.Lawn},
	}
}

// Name is what customers call it.
func (s ScopeItem) Name() string { return words.Plain("offer.scope-" + words.Key(s.ID)) }
