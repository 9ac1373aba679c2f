// Package plan puts the rules together: a job in, a plan out.
//
// Make is pure: the interface, the command line, the tests and every export
// get the same plan from the same job and catalogue. Values in a plan are
// exact; they are rounded only when printed.
package plan

import (
	"mallow/core/finding"
	"mallow/core/grade"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/reason"
	"mallow/core/survey"
)

// Version is the version of the plan document.
const Version = 1

// Plan is everything that a job's measures and choices come to. Lengths are
// millimetres, volumes cubic metres, masses kilograms.
type Plan struct {
	Mallow   int               `json:"mallow" jsonschema:"required" jsonschema_description:"Version of the plan document."`
	Name     string            `json:"name" jsonschema:"required"`
	Units    length.Units      `json:"units" jsonschema:"required"`
	Lines    []Line            `json:"lines" jsonschema:"required" jsonschema_description:"The fence lines on the map."`
	Runs     []Run             `json:"runs" jsonschema:"required" jsonschema_description:"All lines' runs, line after line."`
	Before   Clearance         `json:"before" jsonschema:"required" jsonschema_description:"What must be settled before anything is dug."`
	Totals   Totals            `json:"totals" jsonschema:"required" jsonschema_description:"Totals of the job. Bags are rounded up once for the job."`
	Findings []finding.Finding `json:"findings" jsonschema:"required"`
	Cautions []Caution         `json:"cautions" jsonschema:"required"`
	Levels   RuleLevel         `json:"levels" jsonschema:"required" jsonschema_description:"The rules for holes as they come out for the whole job."`
	Rules    []reason.Step     `json:"rules" jsonschema:"required" jsonschema_description:"The rules that the reasons name, each once."`
	Reasons  []reason.Why      `json:"reasons" jsonschema:"required" jsonschema_description:"Explanations; the figures' why fields are places in this list."`
}

// Run is one planned run. Without a length it has no posts.
type Run struct {
	ID          string         `json:"id" jsonschema:"required"`
	Name        string         `json:"name" jsonschema:"required"`
	Path        string         `json:"path" jsonschema:"required" jsonschema_description:"JSON pointer of the run in the job document."`
	Line        string         `json:"line" jsonschema:"required" jsonschema_description:"Line that it is on."`
	Start       length.Length  `json:"start" jsonschema:"required" jsonschema_description:"Level distance along the line to its first post."`
	From        survey.Place   `json:"from" jsonschema:"required" jsonschema_description:"Its first post on the map."`
	To          survey.Place   `json:"to" jsonschema:"required" jsonschema_description:"Its last post on the map."`
	Bearing     float64        `json:"bearing" jsonschema:"required" jsonschema_description:"Degrees clockwise from the map's up."`
	Length      length.Length  `json:"length" jsonschema:"required" jsonschema_description:"Level, centre to centre of the end posts."`
	Correction  length.Length  `json:"correction,omitempty" jsonschema_description:"What reducing the slope tape to level took off."`
	Hollow      bool           `json:"hollow" jsonschema:"required" jsonschema_description:"Its posts are hollow: drawn as metal."`
	SlopeLength length.Length  `json:"slopeLength" jsonschema:"required" jsonschema_description:"The same along the ground."`
	Frost       *length.Length `json:"frost,omitempty" jsonschema_description:"Frost depth; left out when it is not known."`

	Solid          float64     `json:"solid" jsonschema:"required" jsonschema_description:"Share of the fence's face that is solid and catches wind."`
	FrostEstimated bool        `json:"frostEstimated,omitempty" jsonschema_description:"It is an estimate, not the local office's figure."`
	Cards          []Card      `json:"cards" jsonschema:"required" jsonschema_description:"Its holes, each kind once."`
	Levels         []RuleLevel `json:"levels" jsonschema:"required" jsonschema_description:"The rules for holes as they come out for the run, for each kind of post, and for the single posts that have their own."`

	Measured     bool                `json:"measured" jsonschema:"required" jsonschema_description:"Some height of it was measured; else its ground is taken as level, or as its neighbours have it."`
	Ground       []survey.Point      `json:"ground" jsonschema:"required"`
	Finished     []survey.Point      `json:"finished,omitempty" jsonschema_description:"The ground as it will be, once the plan's cuts and fills are made; left out where it stays as it is."`
	InTheWay     []InTheWay          `json:"inTheWay" jsonschema:"required"`
	String       *RunString          `json:"string,omitempty" jsonschema_description:"How its posts are lined up; left out without a length."`
	Reminders    []Caution           `json:"reminders" jsonschema:"required" jsonschema_description:"What to keep in mind where its posts are lined up and set."`
	Segments     []Segment           `json:"segments" jsonschema:"required"`
	Posts        []Post              `json:"posts" jsonschema:"required"`
	Bays         []Bay               `json:"bays" jsonschema:"required"`
	LooksRefused map[job.Look]string `json:"looksRefused" jsonschema:"required" jsonschema_description:"Looks that its panels cannot have, and why."`
	Way          job.Way             `json:"way" jsonschema:"required,enum=equal,enum=panels between,enum=panels on faces,enum=module,enum=stock rails,enum=overlapping rails"`
	Rails        []RailRow           `json:"rails" jsonschema:"required" jsonschema_description:"Where every rail is broken; empty where rails are not laid on stock lengths."`
	SetOut       *SetOut             `json:"setOut,omitempty" jsonschema_description:"How its posts are marked on the ground; left out without a length."`
	TopLine      *TopLine            `json:"topLine,omitempty" jsonschema_description:"How its tops are brought to height; left out without a length."`
	Gates        []Gate              `json:"gates" jsonschema:"required"`
	AddGate      []NewGate           `json:"addGate" jsonschema:"required" jsonschema_description:"Gates that can be put into it, and where each would go."`
	Totals       Totals              `json:"totals" jsonschema:"required" jsonschema_description:"Totals of the run. Bags are rounded up once for the run."`
}

// Segment is the stretch between two fixed posts, with equal bays.
type Segment struct {
	From length.Length `json:"from" jsonschema:"required"`
	To   length.Length `json:"to" jsonschema:"required"`
	Gate string        `json:"gate,omitempty"`
	Bays int           `json:"bays" jsonschema:"required"`
	Each length.Length `json:"each" jsonschema:"required" jsonschema_description:"The regular bay, centre to centre."`

	Odd    int           `json:"odd" jsonschema:"required" jsonschema_description:"Bays of another length."`
	Uneven length.Length `json:"uneven" jsonschema:"required" jsonschema_description:"By how much the oddest bay departs."`
	Shift  length.Length `json:"shift" jsonschema:"required" jsonschema_description:"How far the farthest post is off its regular place."`
	Why    reason.Ref    `json:"why" jsonschema:"required"`

	GivenUp []string `json:"givenUp,omitempty" jsonschema_description:"What is in the way that no layout could keep clear of: planned as if it were not there."`
}

// Post is one post with its hole.
type Post struct {
	ID       string        `json:"id" jsonschema:"required"`
	Kind     job.PostKind  `json:"kind" jsonschema:"required,enum=end,enum=corner,enum=gate,enum=line"`
	Gate     string        `json:"gate,omitempty"`
	Held     string        `json:"held,omitempty" jsonschema_description:"Held post of the run that it is."`
	Landed   bool          `json:"landed,omitempty" jsonschema_description:"It is set already, and stands there."`
	Grade    bool          `json:"grade,omitempty" jsonschema_description:"A grade post: the top changes slope here."`
	Hung     bool          `json:"hung,omitempty" jsonschema_description:"A gate leaf hangs on it."`
	Stays    string        `json:"stays,omitempty" jsonschema_description:"Old post that it is: no hole, no new post."`
	Driven   bool          `json:"driven,omitempty" jsonschema_description:"It is driven; a hole is only that of its collar."`
	Repoured string        `json:"repoured,omitempty" jsonschema_description:"Old footing that is dug out and poured anew with this hole."`
	Shift    length.Length `json:"shift,omitempty" jsonschema_description:"How far it stands off its regular place."`
	Shared   string        `json:"shared,omitempty" jsonschema_description:"Run that ends at this corner post: it is dug and counted there."`
	InWay    []string      `json:"inWay,omitempty" jsonschema_description:"What its hole runs into."`
	Hand     []string      `json:"hand,omitempty" jsonschema_description:"What it must be dug by hand for."`
	Width    length.Length `json:"width" jsonschema:"required" jsonschema_description:"Its own section: side, or diameter of a round post. An old post's where it was measured."`
	Round    bool          `json:"round,omitempty" jsonschema_description:"A round post."`
	Hollow   bool          `json:"hollow,omitempty" jsonschema_description:"A hollow post."`
	Station  length.Length `json:"station" jsonschema:"required" jsonschema_description:"Centre of the post, level from the run's start."`
	Slope    length.Length `json:"slopeTape" jsonschema:"required" jsonschema_description:"The same along the ground."`
	Ground   length.Length `json:"ground" jsonschema:"required" jsonschema_description:"Height of the ground above the datum."`
	Finished length.Length `json:"finished" jsonschema:"required" jsonschema_description:"Height of the ground as it will be, once the plan's cuts and fills are made."`
	Top      length.Length `json:"top" jsonschema:"required" jsonschema_description:"Height of the post's top above the datum."`
	Reveal   length.Length `json:"reveal" jsonschema:"required" jsonschema_description:"How much post shows above ground, at its middle."`

	RevealBefore length.Length `json:"revealBefore" jsonschema:"required" jsonschema_description:"The same at the face towards the run's start: a post stays plumb on a slope, so its faces differ."`
	RevealAfter  length.Length `json:"revealAfter" jsonschema:"required" jsonschema_description:"The same at its other face."`
	Mark         length.Length `json:"mark" jsonschema:"required" jsonschema_description:"Reference mark above ground, so far below the fence's top: everything on the post is measured from it."`
	Step         length.Length `json:"step" jsonschema:"required" jsonschema_description:"By how much the fence's top goes up here from the bay before to the one after; negative is down."`
	Overlap      length.Length `json:"overlap" jsonschema:"required" jsonschema_description:"Height over which the panels on both sides meet on the post."`
	Holes        []RailHole    `json:"holes,omitempty" jsonschema_description:"Holes or routs for the rails, the lowest first; left out where rails do not go into posts."`

	HoleWidth length.Length `json:"holeWidth" jsonschema:"required"`
	HoleDepth length.Length `json:"holeDepth" jsonschema:"required" jsonschema_description:"Depth to dig from today's ground, with the gravel."`
	Bottom    length.Length `json:"bottom" jsonschema:"required" jsonschema_description:"Depth of the concrete's bottom below today's ground; the gravel lies under it."`

	UnderFinished length.Length `json:"underFinished" jsonschema:"required" jsonschema_description:"The same below the ground as it will be: what the rules of depth ask for."`
	Heaves        bool          `json:"heaves" jsonschema:"required" jsonschema_description:"The bottom lies above the frost depth."`

	Foot     length.Length `json:"foot" jsonschema:"required" jsonschema_description:"Depth of the post's foot: its embedment."`
	Gravel   length.Length `json:"gravel" jsonschema:"required" jsonschema_description:"Gravel under the concrete."`
	Concrete length.Length `json:"concrete" jsonschema:"required" jsonschema_description:"Height of the concrete round the post; 0 where there is none."`

	Card    int       `json:"card" jsonschema:"required" jsonschema_description:"Place of its hole among the run's cards; -1 for an old post that stays."`
	Spot    string    `json:"spot,omitempty" jsonschema_description:"Single hole of the run whose rules it has."`
	Stopped *Stopped  `json:"stopped,omitempty" jsonschema_description:"Its hole was stopped short."`
	Wind    *PostWind `json:"wind,omitempty" jsonschema_description:"Left out for an old post that stays, and for a corner post that is dug in another run."`
	spot    int       // place of the spot in the run, or -1

	GravelVolume   length.Volume  `json:"gravelVolume" jsonschema:"required"`
	StoneVolume    length.Volume  `json:"stoneVolume" jsonschema:"required" jsonschema_description:"Rocks, stone and rubble."`
	ConcreteVolume length.Volume  `json:"concreteVolume" jsonschema:"required"`
	Bags           float64        `json:"bags" jsonschema:"required" jsonschema_description:"Bags to pour, as a decimal."`
	Needed         length.Length  `json:"needed" jsonschema:"required" jsonschema_description:"Length of post needed: reveal, embedment and trim."`
	Stock          *length.Length `json:"stock,omitempty" jsonschema_description:"Stock length to take; left out when none is long enough."`
	CutOff         *length.Length `json:"cutOff,omitempty" jsonschema_description:"To cut off: stock less reveal and embedment."`
	CutFirst       bool           `json:"cutFirst,omitempty" jsonschema_description:"It is cut before it is set, to needed."`
	Why            PostWhy        `json:"why" jsonschema:"required"`
}

// PostWhy is where a post's figures are explained.
type PostWhy struct {
	Station   reason.Ref `json:"station" jsonschema:"required"`
	Top       reason.Ref `json:"top" jsonschema:"required"`
	HoleWidth reason.Ref `json:"holeWidth" jsonschema:"required"`
	HoleDepth reason.Ref `json:"holeDepth" jsonschema:"required"`
	Concrete  reason.Ref `json:"concrete" jsonschema:"required"`
	Stock     reason.Ref `json:"stock" jsonschema:"required"`
}

// Bay is the space between two neighbouring posts.
type Bay struct {
	ID             string        `json:"id" jsonschema:"required"`
	Gate           string        `json:"gate,omitempty"`
	From           string        `json:"from" jsonschema:"required"`
	To             string        `json:"to" jsonschema:"required"`
	CentreToCentre length.Length `json:"centreToCentre" jsonschema:"required"`
	Clear          length.Length `json:"clear" jsonschema:"required" jsonschema_description:"Between the posts' faces."`
	Odd            bool          `json:"odd,omitempty" jsonschema_description:"Not the stretch's regular bay."`
	Held           string        `json:"held,omitempty" jsonschema_description:"Held bay of the run that it is."`
	Piece          length.Length `json:"piece,omitempty" jsonschema_description:"Length of the panel, board or rail in it, where one sets the bay."`
	PieceCut       bool          `json:"pieceCut,omitempty" jsonschema_description:"That piece is cut from a full one."`
	Lead           length.Length `json:"lead,omitempty" jsonschema_description:"Panels on faces: from the first post's middle to where the panel begins, at a corner."`
	Trail          length.Length `json:"trail,omitempty" jsonschema_description:"The same at the second post."`
	Trims          int           `json:"trims,omitempty" jsonschema_description:"Ends of an overlapping rail whose tongue is trimmed, at terminals."`
	BottomStart    length.Length `json:"bottomStart" jsonschema:"required" jsonschema_description:"Heights above the datum; for a gate, of the leaf's bottom."`
	BottomEnd      length.Length `json:"bottomEnd" jsonschema:"required"`
	TopStart       length.Length `json:"topStart" jsonschema:"required"`
	TopEnd         length.Length `json:"topEnd" jsonschema:"required"`
	Look           job.Look      `json:"look" jsonschema:"required,enum=level,enum=stepped,enum=raked,enum=rolling"`
	Lean           length.Length `json:"lean" jsonschema:"required" jsonschema_description:"How far the top rises over the bay, centre to centre; negative is falling."`
	Angle          float64       `json:"angle" jsonschema:"required" jsonschema_description:"The same as an angle, degrees."`
	Long           length.Length `json:"long" jsonschema:"required" jsonschema_description:"True length along the slope of the bay's top, face to face of its posts: what a rail between them is cut to."`
	FaceStart      length.Length `json:"faceStart" jsonschema:"required" jsonschema_description:"Gap under the fence at the face of its first post."`
	FaceEnd        length.Length `json:"faceEnd" jsonschema:"required" jsonschema_description:"The same at the face of its second post."`
	OnGround       length.Length `json:"onGround" jsonschema:"required" jsonschema_description:"Centre to centre along the ground, as a tape lies on the slope."`
	GapLeast       grade.Gap     `json:"gapLeast" jsonschema:"required"`
	GapMost        grade.Gap     `json:"gapMost" jsonschema:"required"`
	Cut            *grade.Earth  `json:"cut,omitempty" jsonschema_description:"Ground to cut so that the least gap holds; left out where it does."`
	Fill           *grade.Earth  `json:"fill,omitempty" jsonschema_description:"Ground to fill so that the most gap holds; left out where it does."`
	Boards         int           `json:"boards,omitempty" jsonschema_description:"Gravel boards that belong to the fence, one above the other at its foot."`
	Board          length.Length `json:"board,omitempty" jsonschema_description:"Height of one, and of an infill board."`
	Infill         *PanelInfill  `json:"infill,omitempty" jsonschema_description:"What closes the triangle under a level panel instead of earth."`
	Why            BayWhy        `json:"why" jsonschema:"required"`
}

// BayWhy is where a bay's figures are explained.
type BayWhy struct {
	Spacing reason.Ref `json:"spacing" jsonschema:"required"`
	Gap     reason.Ref `json:"gap" jsonschema:"required"`
	Lean    reason.Ref `json:"lean" jsonschema:"required"`
}

// Caution stands where work can hurt someone.
type Caution struct {
	Stage finding.Stage `json:"stage" jsonschema:"required,enum=walk,enum=string,enum=space,enum=grade,enum=gates,enum=dig,enum=pour"`
	Says  reason.Text   `json:"says" jsonschema:"required"`
}
