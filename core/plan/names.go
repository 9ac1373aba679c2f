package plan

import (
	"mallow/core/stage"
	"mallow/core/stage/dig"
	"mallow/core/stage/gates"
	"mallow/core/stage/load"
	"mallow/core/stage/setout"
	"mallow/core/stage/slope"
	"mallow/core/stage/space"
	"mallow/core/stage/walk"
)

// The parts of the plan document, each from the stage that computes it.
type (
	Line      = walk.Line
	Corner    = walk.Corner
	BookCheck = walk.BookCheck
	Clearance = walk.Clearance

	Segment  = space.Segment
	InTheWay = space.InTheWay
	NewGate  = space.NewGate

	Bay     = slope.Bay
	RailRow = slope.RailRow
	Piece   = slope.Piece

	Post   = dig.Post
	Card   = dig.Card
	WayOut = dig.WayOut

	Gate      = gates.Gate
	GateStep  = gates.GateStep
	GateCheck = gates.GateCheck
	GateLeaf  = gates.GateLeaf
	LeafBrace = gates.LeafBrace
	Adjusting = gates.Adjusting
	HangMark  = gates.HangMark

	RunString = setout.RunString
	SetOut    = setout.SetOut
	Mark      = setout.Mark
	TopPost   = setout.TopPost
	Pin       = setout.Pin
	TopLine   = setout.TopLine

	Totals = load.Totals
	Holes  = load.Holes
	Stock  = load.Stock

	RuleLevel = stage.RuleLevel
	Caution   = stage.Caution
	Figure    = stage.Figure
)
