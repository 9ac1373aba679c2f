package walk

import (
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/reason"
	"mallow/core/stringline"
	"mallow/core/survey"
)

// Line is one fence line on the map.
type Line struct {
	ID      string        `json:"id" jsonschema:"required"`
	Name    string        `json:"name" jsonschema:"required"`
	Path    string        `json:"path" jsonschema:"required" jsonschema_description:"JSON pointer of the line in the job document."`
	Closed  bool          `json:"closed" jsonschema:"required"`
	Inside  job.Side      `json:"inside" jsonschema:"required,enum=left,enum=right" jsonschema_description:"Hand on which the ground lies that it fences in."`
	First   int           `json:"first" jsonschema:"required" jsonschema_description:"Place of its first run in the plan's list of runs; the others follow."`
	Runs    int           `json:"runs" jsonschema:"required"`
	Length  length.Length `json:"length" jsonschema:"required" jsonschema_description:"Of all its runs, level."`
	Corners []Corner      `json:"corners" jsonschema:"required" jsonschema_description:"In order, its two ends among them when it is open."`
	Closing *Closing      `json:"closing,omitempty" jsonschema_description:"How a closed line closes, once all its turns are known."`
	Loop    *HeightLoop   `json:"loop,omitempty" jsonschema_description:"How the heights of a closed line close."`
	Books   []BookCheck   `json:"books" jsonschema:"required" jsonschema_description:"What each page of rod readings comes to."`
}

// Corner is a place where two runs meet, or an end.
type Corner struct {
	Place    survey.Place `json:"place" jsonschema:"required"`
	Before   string       `json:"before,omitempty" jsonschema_description:"Run that ends here."`
	After    string       `json:"after,omitempty" jsonschema_description:"Run that starts here."`
	Path     string       `json:"path,omitempty" jsonschema_description:"JSON pointer of the corner's measures in the job document."`
	Post     string       `json:"post,omitempty" jsonschema_description:"The post that stands here, in the run that ends here or else in the one that starts."`
	Turn     *float64     `json:"turn,omitempty" jsonschema_description:"Degrees off the straight-on line, left positive; left out at an end, and while it is not known."`
	Interior *float64     `json:"interior,omitempty" jsonschema_description:"Degrees between the two runs."`
	Side     job.Side     `json:"side,omitempty" jsonschema:"enum=left,enum=right" jsonschema_description:"Way it turns; left out when straight."`
	Measured bool         `json:"measured" jsonschema:"required" jsonschema_description:"The turn was measured; else it follows from closing, or is still missing."`
	Square   *Squaring    `json:"square,omitempty"`
	Why      *reason.Ref  `json:"why,omitempty"`
}

// Squaring is how a corner is set by tape.
type Squaring struct {
	LegA     length.Length             `json:"legA" jsonschema:"required" jsonschema_description:"Along the run before."`
	LegB     length.Length             `json:"legB" jsonschema:"required" jsonschema_description:"Along the run after."`
	Diagonal length.Length             `json:"diagonal" jsonschema:"required"`
	Right    bool                      `json:"right" jsonschema:"required" jsonschema_description:"A right angle to the tape's mark."`
	Three    *stringline.ThreeFourFive `json:"three,omitempty" jsonschema_description:"Largest 3-4-5 that fits, at a right angle."`
	Whole    length.Length             `json:"whole" jsonschema:"required" jsonschema_description:"Diagonal across both whole runs, to check with."`
	Along    length.Length             `json:"along" jsonschema:"required" jsonschema_description:"By offset instead: from the corner along the run before, prolonged; negative is back along it."`
	Off      length.Length             `json:"off" jsonschema:"required" jsonschema_description:"From there square off, to the end of the second leg."`
	A        survey.Place              `json:"a" jsonschema:"required" jsonschema_description:"End of the first leg on the map."`
	B        survey.Place              `json:"b" jsonschema:"required"`
}

// Closing is a closed line's misclosure and its spreading.
type Closing struct {
	Perimeter length.Length `json:"perimeter" jsonschema:"required"`
	X         length.Length `json:"x" jsonschema:"required" jsonschema_description:"From the start to where the measures end, to the right."`
	Y         length.Length `json:"y" jsonschema:"required" jsonschema_description:"The same, up."`
	Miss      length.Length `json:"miss" jsonschema:"required"`
	Ratio     *float64      `json:"ratio,omitempty" jsonschema_description:"One part in so many; left out when nothing is missed."`
	AngleSum  *float64      `json:"angleSum,omitempty" jsonschema_description:"Degrees by which the turns miss closing, when all were measured."`
	Spread    bool          `json:"spread" jsonschema:"required"`
	Legs      []Balance     `json:"legs" jsonschema:"required"`
	Why       *reason.Ref   `json:"why,omitempty"`
}

// Balance is one run before and after the misclosure is spread.
type Balance struct {
	Run             string        `json:"run" jsonschema:"required"`
	Taped           length.Length `json:"taped" jsonschema:"required"`
	Balanced        length.Length `json:"balanced" jsonschema:"required"`
	Bearing         float64       `json:"bearing" jsonschema:"required" jsonschema_description:"Degrees clockwise from the map's up."`
	BalancedBearing float64       `json:"balancedBearing" jsonschema:"required"`
	EndBefore       survey.Place  `json:"endBefore" jsonschema:"required"`
	EndAfter        survey.Place  `json:"endAfter" jsonschema:"required"`
}

// HeightLoop is the height misclosure of a closed line.
type HeightLoop struct {
	Error     length.Length `json:"error" jsonschema:"required"`
	Allowance length.Length `json:"allowance" jsonschema:"required"`
}

// BookCheck is what a page of rod readings comes to.
type BookCheck struct {
	Book      string          `json:"book" jsonschema:"required"`
	Heights   []length.Length `json:"heights" jsonschema:"required" jsonschema_description:"Of each row's point, over the page's first."`
	Setups    []length.Length `json:"setups" jsonschema:"required" jsonschema_description:"Height of the line of sight at each set-up."`
	SumBack   length.Length   `json:"sumBack" jsonschema:"required"`
	SumFore   length.Length   `json:"sumFore" jsonschema:"required"`
	Closed    bool            `json:"closed" jsonschema:"required"`
	Error     length.Length   `json:"error" jsonschema:"required"`
	Allowance length.Length   `json:"allowance" jsonschema:"required"`
	Circuit   length.Length   `json:"circuit" jsonschema:"required"`
}
