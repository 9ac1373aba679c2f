package job

import "mallow/core/length"

// Line is one fence line, a chain of runs from corner to corner.
type Line struct {
	ID      string        `json:"id" jsonschema:"required,minLength=1,maxLength=40"`
	Name    string        `json:"name,omitempty" jsonschema:"maxLength=120"`
	Closed  bool          `json:"closed,omitempty" jsonschema_description:"The last run ends where the first starts."`
	Balance bool          `json:"balance,omitempty" jsonschema_description:"Spread a closed line's misclosure over its corners by the compass (Bowditch) rule."`
	Bearing *float64      `json:"bearing,omitempty" jsonschema:"minimum=0,maximum=360" jsonschema_description:"Bearing of the first run, degrees clockwise from north. Left out: north is not known."`
	Inside  Side          `json:"inside,omitempty" jsonschema:"enum=left,enum=right" jsonschema_description:"Hand on which the ground lies that the line fences in: gates swing in to it. Left out: the inner hand of a closed line, left of an open one."`
	X       length.Length `json:"x,omitempty" jsonschema:"minimum=-10000000,maximum=10000000" jsonschema_description:"Where the line's first post stands on the site's map, to the right of the map's zero (east of it, where north is known)."`
	Y       length.Length `json:"y,omitempty" jsonschema:"minimum=-10000000,maximum=10000000" jsonschema_description:"The same, up (north)."`
	Runs    []Run         `json:"runs" jsonschema:"required,minItems=1,maxItems=500" jsonschema_description:"Straight stretches, in order. A run starts at the post where the one before it ends."`
	Books   []Book        `json:"books,omitempty" jsonschema:"maxItems=500" jsonschema_description:"Pages of the field book: heights as they were written down."`
}

// Place is a place on earth, WGS 84.
type Place struct {
	Latitude  float64 `json:"latitude" jsonschema:"required,minimum=-90,maximum=90" jsonschema_description:"Degrees, north positive."`
	Longitude float64 `json:"longitude" jsonschema:"required,minimum=-180,maximum=180" jsonschema_description:"Degrees, east positive."`
}

// Side is a hand of the line, walking it from its first run to its last.
type Side string

// The two hands.
const (
	Left  Side = "left"
	Right Side = "right"
)

// Sign is 1 for left, which is counter-clockwise on the map, and -1 for right.
func (s Side) Sign() float64 {
	if s == Right {
		return -1
	}
	return 1
}

// Other is the other hand.
func (s Side) Other() Side {
	if s == Right {
		return Left
	}
	return Right
}

// CornerBy tells how a corner was measured.
type CornerBy string

// Ways to measure a corner.
const (
	ByDeflection CornerBy = "deflection" // the turn off the straight-on line; 0 is straight on
	ByInterior   CornerBy = "interior"   // the angle between the two runs; 180 is straight on
	ByOffset     CornerBy = "offset"     // along the old line from the corner, then square off to the new one
	ByDiagonal   CornerBy = "diagonal"   // three sides of a triangle
)

// Corner is how a line turns from one run to the next, as it was measured.
type Corner struct {
	By       CornerBy       `json:"by" jsonschema:"required,enum=deflection,enum=interior,enum=offset,enum=diagonal"`
	Side     Side           `json:"side" jsonschema:"required,enum=left,enum=right" jsonschema_description:"Which way the line turns, walking on."`
	Angle    float64        `json:"angle,omitempty" jsonschema:"minimum=0,maximum=180" jsonschema_description:"Degrees. Deflection: off the straight-on line. Interior: between the two runs."`
	Along    length.Length  `json:"along,omitempty" jsonschema:"minimum=-1000000,maximum=1000000" jsonschema_description:"Offset: from the corner along the old line prolonged; negative back along it, for a turn of more than a right angle."`
	Off      length.Length  `json:"off,omitempty" jsonschema:"minimum=0,maximum=1000000" jsonschema_description:"Offset: from there square off to the new line."`
	Back     *length.Length `json:"back,omitempty" jsonschema:"minimum=100,maximum=100000000" jsonschema_description:"Diagonal: leg taped from the corner back along the run before. Left out: that whole run."`
	Forth    *length.Length `json:"forth,omitempty" jsonschema:"minimum=100,maximum=100000000" jsonschema_description:"Diagonal: leg taped along this run. Left out: the whole run."`
	Diagonal length.Length  `json:"diagonal,omitempty" jsonschema:"minimum=0,maximum=100000000" jsonschema_description:"Diagonal: straight from the end of one leg to that of the other."`
}

// BookKind is a way of writing heights down.
type BookKind string

// Ways of writing heights down. A run's own ground list is the fourth:
// heights at stations.
const (
	Drops BookKind = "drops" // down to the ground from a level string
	Rises BookKind = "rises" // rise or fall from point to point
	Rod   BookKind = "rod"   // level and rod, with set-ups and turning points
)

// Allowance is how large a closing error of levels may be.
type Allowance string

// Methods of the closing error.
const (
	PerSetup   Allowance = "set-ups"     // 3 mm (1/8 in) times the root of the set-ups
	ThirdOrder Allowance = "third order" // 12 mm times the root of the kilometres
)

// Book is one page of the field book.
type Book struct {
	ID     string         `json:"id" jsonschema:"required,minLength=1,maxLength=40"`
	Kind   BookKind       `json:"kind" jsonschema:"required,enum=drops,enum=rises,enum=rod"`
	Name   string         `json:"name,omitempty" jsonschema:"maxLength=120"`
	Run    string         `json:"run,omitempty" jsonschema:"maxLength=40" jsonschema_description:"Run that a page of drops or rises is of. Pages of rod readings name it in each row."`
	Start  *length.Length `json:"start,omitempty" jsonschema:"minimum=-1000000,maximum=1000000" jsonschema_description:"Rod: known height of the first point. Left out: taken from what is known there already, or 0."`
	Close  *length.Length `json:"close,omitempty" jsonschema:"minimum=-1000000,maximum=1000000" jsonschema_description:"Rod: known height of the last point. Left out, and the last point is the first one again: its height."`
	Allow  Allowance      `json:"allow,omitempty" jsonschema:"enum=set-ups,enum=third order" jsonschema_description:"Rod: how large the closing error may be. Usual: set-ups."`
	Spread bool           `json:"spread,omitempty" jsonschema_description:"Rod: spread the closing error evenly over the set-ups."`
	Tilt   float64        `json:"tilt,omitempty" jsonschema:"minimum=-5,maximum=5" jsonschema_description:"Rod: how far the level's line of sight climbs, millimetres for each metre, by the two-peg test. Readings with a sight distance are corrected by it."`
	Rows   []Reading      `json:"rows,omitempty" jsonschema:"maxItems=20000"`
}

// Reading is one row of a page.
type Reading struct {
	ID        string         `json:"id,omitempty" jsonschema:"minLength=1,maxLength=40" jsonschema_description:"Unlike that of any other row of the page. Left out: given when the job is saved."`
	Run       string         `json:"run,omitempty" jsonschema:"maxLength=40" jsonschema_description:"Rod: run that the point is on. Left out: a mark beside the line."`
	At        length.Length  `json:"at,omitempty" jsonschema:"minimum=0,maximum=100000000" jsonschema_description:"Station on the run, as taped."`
	Mark      string         `json:"mark,omitempty" jsonschema:"maxLength=80" jsonschema_description:"Rod: what a point beside the line is, such as a door sill."`
	Drop      length.Length  `json:"drop,omitempty" jsonschema:"minimum=-20000,maximum=20000" jsonschema_description:"Drops: from the string down to the ground."`
	Rise      length.Length  `json:"rise,omitempty" jsonschema:"minimum=-100000,maximum=100000" jsonschema_description:"Rises: from the point before up to this one; a fall is negative. Not used in the first row."`
	Back      *length.Length `json:"back,omitempty" jsonschema:"minimum=-20000,maximum=20000" jsonschema_description:"Rod: first reading of a set-up, on a point whose height is known by now."`
	Side      *length.Length `json:"side,omitempty" jsonschema:"minimum=-20000,maximum=20000" jsonschema_description:"Rod: reading in between."`
	Fore      *length.Length `json:"fore,omitempty" jsonschema:"minimum=-20000,maximum=20000" jsonschema_description:"Rod: last reading of a set-up, on the point that the next one starts from."`
	BackSight length.Length  `json:"backSight,omitempty" jsonschema:"minimum=0,maximum=1000000" jsonschema_description:"Rod: distance from the level to the rod at the back reading, where the rod tells it."`
	Sight     length.Length  `json:"sight,omitempty" jsonschema:"minimum=0,maximum=1000000" jsonschema_description:"Rod: the same at the side or fore reading."`
	Sure      bool           `json:"sure,omitempty" jsonschema_description:"Measured twice: no slip, though its neighbours differ."`
}

// Legs are the sides of a corner's measured triangle, where they are known.
func (c Corner) Legs(before, after Run) (back, forth length.Length, ok bool) {
	if c.Back == nil && before.Length == nil || c.Forth == nil && after.Length == nil {
		return 0, 0, false
	}
	if back = 0; c.Back != nil {
		back = *c.Back
	} else {
		back = *before.Length
	}
	if c.Forth != nil {
		return back, *c.Forth, true
	}
	return back, *after.Length, true
}
