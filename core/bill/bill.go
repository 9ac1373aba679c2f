// Package bill holds what a fence takes as one list of items: each with its
// exact quantity, how it is bought, and where its pieces go. Whoever shows a
// load, on screen, on paper or in a file, shows this list and nothing else, so
// that a new item appears everywhere at once.
package bill

import (
	"cmp"
	"slices"

	"mallow/core/finding"
	"mallow/core/length"
	"mallow/core/reason"
)

// Kind is what an item is.
type Kind string

// Kinds of item, in the order in which a bill is read.
const (
	Post     Kind = "post"
	Panel    Kind = "panel"
	Rail     Kind = "rail"
	Board    Kind = "board"
	Mesh     Kind = "mesh"
	Leaf     Kind = "gate leaf"
	Hardware Kind = "hardware"
	Fixing   Kind = "fixing"
	Finish   Kind = "finish"
	Concrete Kind = "concrete"
	Gravel   Kind = "gravel"
	Stone    Kind = "stone"
	Spoil    Kind = "spoil" // soil that is carried away, loose
	Soil     Kind = "soil"  // cut or filled along the fence
	Form     Kind = "form"  // boards and stakes that concrete is poured between
	Labour   Kind = "labour"
)

var kinds = []Kind{Post, Panel, Rail, Board, Mesh, Leaf, Hardware, Fixing, Finish, Concrete, Form, Gravel, Stone, Spoil, Soil, Labour}

// Small tells whether it is counted by the box and the handful.
func (k Kind) Small() bool { return k == Hardware || k == Fixing || k == Finish }

// Unit is what an item's exact quantity is counted in.
type Unit string

// Units of exact quantities.
const (
	Pieces      Unit = "pieces"
	CubicMetres Unit = "m3"
	Hours       Unit = "h"
	Metres      Unit = "m"
)

// Item is one thing that is bought, moved or done.
type Item struct {
	ID    string        `json:"id" jsonschema:"required" jsonschema_description:"Its name: the same in the bill of a run and of the job, and as long as its kind and size stay."`
	Kind  Kind          `json:"kind" jsonschema:"required,enum=post,enum=panel,enum=rail,enum=board,enum=mesh,enum=gate leaf,enum=hardware,enum=fixing,enum=finish,enum=concrete,enum=form,enum=gravel,enum=stone,enum=spoil,enum=soil,enum=labour"`
	Group string        `json:"group" jsonschema:"required" jsonschema_description:"Heading under which it is read."`
	Stage finding.Stage `json:"stage" jsonschema:"required,enum=walk,enum=string,enum=space,enum=grade,enum=gates,enum=dig,enum=pour,enum=build" jsonschema_description:"The stage of the work that needs it."`
	What  string        `json:"what" jsonschema:"required" jsonschema_description:"What it is called."`
	Name  reason.Text   `json:"name" jsonschema:"required" jsonschema_description:"Section, material and size."`

	Exact  float64       `json:"exact" jsonschema:"required" jsonschema_description:"How much, unrounded, in its unit."`
	Unit   Unit          `json:"unit" jsonschema:"required,enum=pieces,enum=m3,enum=h,enum=m"`
	Length length.Length `json:"length,omitempty" jsonschema_description:"Of one piece, as bought; left out where it is none, or longer than any stock."`
	Cut    int           `json:"cut,omitempty" jsonschema_description:"Pieces of it that are cut from a full one."`
	Waste  float64       `json:"waste,omitempty" jsonschema_description:"Share of it that is bought beyond what is built in; -1 where that is not the same everywhere."`
	Bought []Buy         `json:"bought" jsonschema:"required" jsonschema_description:"Ways to buy it, the usual one first; rounded up here and nowhere else."`

	Runs  []Share `json:"runs" jsonschema:"required" jsonschema_description:"What each run takes of it."`
	Goes  []Lot   `json:"goes,omitempty" jsonschema_description:"Where its pieces go."`
	Box   int     `json:"-"` // how many are in a box
	Cuts  *Cuts   `json:"-"` // what is cut from what, where it comes in lengths
	Why   string  `json:"why,omitempty" jsonschema_description:"Figure of the totals that explains it: concrete, gravel, hours or spoil."`
	Order Order   `json:"-"`
}

// Order is by what items of one kind are put in order.
type Order struct{ First, Second, Third float64 }

// Ways to buy an item.
const (
	ByPiece  = "pieces"
	ByHours  = "hours"
	Bags     = "bags"
	BulkBags = "bulk bags"
	Truck    = "truck"
	Mix      = "mix" // mixed on site from cement, sand and stone
	Loose    = "loose"
	Boxes    = "boxes"
	Rolls    = "rolls"
	Lengths  = "lengths" // bars of several stock lengths
	Tins     = "tins"
)

// Buy is one way to buy an item.
type Buy struct {
	By    string      `json:"by" jsonschema:"required" jsonschema_description:"pieces, hours, bags, bulk bags, truck, mix, loose, boxes, rolls, lengths or tins."`
	What  string      `json:"what" jsonschema:"required" jsonschema_description:"What it is called on its line: the item, or how else it is bought."`
	Count float64     `json:"count" jsonschema:"required" jsonschema_description:"How many are bought: whole pieces or bags, or cubic metres in the steps that a truck is ordered in."`
	Many  reason.Text `json:"many" jsonschema:"required" jsonschema_description:"The same in words."`
	Of    reason.Text `json:"of,omitempty" jsonschema_description:"Of what, with its weight."`
}

// Share is what one run takes of an item.
type Share struct {
	Run   string  `json:"run" jsonschema:"required"`
	Exact float64 `json:"exact" jsonschema:"required"`
}

// Lot is where pieces of an item go that are of one length.
type Lot struct {
	Run    string        `json:"run" jsonschema:"required"`
	At     []string      `json:"at" jsonschema:"required" jsonschema_description:"Posts, bays or gates."`
	Length length.Length `json:"length" jsonschema:"required" jsonschema_description:"As it is built in; 0 where that is not a length."`
	Cut    bool          `json:"cut,omitempty"`
}

// Sum adds up the bills of runs, item by item, exactly. What is bought of the
// sums is for the caller to round, once.
func Sum(bills ...[]Item) []Item {
	out := []Item{}
	at := map[string]int{}
	for _, items := range bills {
		for _, i := range items {
			k, known := at[i.ID]
			if !known {
				at[i.ID] = len(out)
				i.Runs, i.Goes, i.Bought = slices.Clone(i.Runs), slices.Clone(i.Goes), nil
				i.Cuts = i.Cuts.wanted()
				out = append(out, i)
				continue
			}
			sum := &out[k]
			sum.Exact += i.Exact
			sum.Cut += i.Cut
			sum.MixWaste(i.Waste)
			sum.Runs = append(sum.Runs, i.Runs...)
			sum.Goes = append(sum.Goes, i.Goes...)
			sum.Cuts.add(i.Cuts)
		}
	}
	Sort(out)
	return out
}

// MixWaste takes in what is bought with a waste of its own.
func (i *Item) MixWaste(waste float64) {
	if waste != i.Waste {
		i.Waste = -1
	}
}

// Sort puts items in the order in which a bill is read.
func Sort(items []Item) {
	slices.SortStableFunc(items, func(a, b Item) int {
		return cmp.Or(cmp.Compare(slices.Index(kinds, a.Kind), slices.Index(kinds, b.Kind)),
			cmp.Compare(a.Order.First, b.Order.First), cmp.Compare(a.Order.Second, b.Order.Second), cmp.Compare(a.Order.Third, b.Order.Third), cmp.Compare(a.ID, b.ID))
	})
}

// Row is a line of a bill as it is read: what, how many, of what.
type Row struct {
	*Item
	Buy
	Or bool // another way to buy the item of the row before
}

// Rows are the lines of a bill: one for each way to buy each item.
func Rows(items []Item) []Row {
	var out []Row
	for i := range items {
		for k, b := range items[i].Bought {
			out = append(out, Row{&items[i], b, k > 0})
		}
	}
	return out
}
