package setout

import (
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/reason"
	"mallow/core/survey"
)

// SetOut is how a run's posts are marked on the ground.
type SetOut struct {
	Tape   length.Length `json:"tape" jsonschema:"required" jsonschema_description:"Length of the tape that is reckoned with."`
	Offset length.Length `json:"offset" jsonschema:"required" jsonschema_description:"From the string to each post's middle."`
	Check  length.Length `json:"check" jsonschema:"required" jsonschema_description:"From the first post to the last, level: the list is right when it ends here."`
	Pins   []Pin         `json:"pins" jsonschema:"required" jsonschema_description:"Pins driven where the tape ends, from which it is pulled on."`
	Marks  []Mark        `json:"marks" jsonschema:"required" jsonschema_description:"In taping order."`
	Sticks []Stick       `json:"sticks" jsonschema:"required" jsonschema_description:"Spacer sticks that set posts without a tape, the most used first."`
}

// Pin is a place where the tape is put down again.
type Pin struct {
	At    length.Length `json:"at" jsonschema:"required" jsonschema_description:"Level, from the first post."`
	Slope length.Length `json:"slope" jsonschema:"required" jsonschema_description:"The same along the ground."`
	Post  string        `json:"post,omitempty" jsonschema_description:"The post that stands there, where one does."`
}

// Mark is one post's mark. All distances run from one end: chained from post
// to post, the errors of every reading would add up.
type Mark struct {
	Post      string        `json:"post" jsonschema:"required"`
	Level     length.Length `json:"level" jsonschema:"required" jsonschema_description:"From the first post, tape held level."`
	Slope     length.Length `json:"slope" jsonschema:"required" jsonschema_description:"From the first post, tape on the ground."`
	Pin       int           `json:"pin,omitempty" jsonschema_description:"Pin that it is read from, 1 first; 0: the first post."`
	Past      length.Length `json:"past" jsonschema:"required" jsonschema_description:"What the level tape reads from that pin."`
	PastSlope length.Length `json:"pastSlope" jsonschema:"required" jsonschema_description:"The same along the ground."`
	Back      length.Length `json:"back" jsonschema:"required" jsonschema_description:"Check measure: from the far end, level."`
	BackSlope length.Length `json:"backSlope" jsonschema:"required"`
	Bay       length.Length `json:"bay" jsonschema:"required" jsonschema_description:"From the post before, centre to centre; 0 at the first."`
	Clear     length.Length `json:"clear" jsonschema:"required" jsonschema_description:"From the post before, face to face."`
}

// Stick is a spacer stick: as long as the clear opening between two posts.
type Stick struct {
	Length length.Length `json:"length" jsonschema:"required"`
	Bays   int           `json:"bays" jsonschema:"required" jsonschema_description:"How many bays it sets."`
	First  string        `json:"first" jsonschema:"required" jsonschema_description:"First bay that it sets."`
}

// RunString is how a run's posts are brought into line and to height.
type RunString struct {
	Position job.StringPosition `json:"position" jsonschema:"required,enum=face,enum=off,enum=stand-off,enum=sight"`
	Face     job.Side           `json:"face" jsonschema:"required,enum=left,enum=right"`
	Ends     job.Ends           `json:"ends" jsonschema:"required,enum=boards,enum=stakes"`
	Kind     string             `json:"kind" jsonschema:"required" jsonschema_description:"Name of the string."`
	Pull     float64            `json:"pull" jsonschema:"required" jsonschema_description:"Newtons."`
	ToFace   length.Length      `json:"toFace" jsonschema:"required" jsonschema_description:"From the string to the near face of every post: the one constant to hold."`
	ToCentre length.Length      `json:"toCentre" jsonschema:"required"`
	Beyond   length.Length      `json:"beyond" jsonschema:"required"`
	Span     length.Length      `json:"span" jsonschema:"required" jsonschema_description:"Of the alignment string, tie to tie."`
	From     survey.Place       `json:"from" jsonschema:"required" jsonschema_description:"Tie at the run's start, on the map."`
	To       survey.Place       `json:"to" jsonschema:"required" jsonschema_description:"Tie at its end."`
	LowStart length.Length      `json:"lowStart" jsonschema:"required" jsonschema_description:"Height of the alignment string's tie above the datum."`
	LowEnd   length.Length      `json:"lowEnd" jsonschema:"required"`
	Mark     length.Length      `json:"mark" jsonschema:"required" jsonschema_description:"Height string below the tops."`

	HighStart  length.Length `json:"highStart" jsonschema:"required" jsonschema_description:"Height of the height string at the first post, above the datum."`
	HighEnd    length.Length `json:"highEnd" jsonschema:"required"`
	Sag        length.Length `json:"sag" jsonschema:"required" jsonschema_description:"Of the height string at mid-span, without props."`
	Props      int           `json:"props" jsonschema:"required"`
	SagPropped length.Length `json:"sagPropped" jsonschema:"required" jsonschema_description:"Most sag with the props that are set."`
	PropsFor   int           `json:"propsFor" jsonschema:"required" jsonschema_description:"Props that keep the sag within what is let go."`
	SagAllowed length.Length `json:"sagAllowed" jsonschema:"required"`

	Drift        length.Length  `json:"drift" jsonschema:"required" jsonschema_description:"Of the alignment string at mid-span, in today's wind."`
	DriftAllowed length.Length  `json:"driftAllowed" jsonschema:"required"`
	SightFrom    *length.Length `json:"sightFrom,omitempty" jsonschema_description:"Longest span that holds its line in today's wind; sight along the posts on a longer one. Left out without wind."`
	Sight        bool           `json:"sight" jsonschema:"required" jsonschema_description:"Line the posts up by eye."`

	Hang   []Hang        `json:"hang" jsonschema:"required" jsonschema_description:"The hanging height string from end to end, prop to prop."`
	Posts  []StringPost  `json:"posts" jsonschema:"required"`
	Order  []string      `json:"order" jsonschema:"required" jsonschema_description:"Posts in the order of setting."`
	Target string        `json:"target" jsonschema:"required" jsonschema_description:"Far post that is sighted at."`
	Why    *RunStringWhy `json:"why,omitempty"`
}

// Hang is the height string at one place.
type Hang struct {
	At     length.Length `json:"at" jsonschema:"required"`
	Height length.Length `json:"height" jsonschema:"required" jsonschema_description:"Pulled straight, from prop to prop, above the datum."`
	Sag    length.Length `json:"sag" jsonschema:"required" jsonschema_description:"How far it hangs under that."`
}

// StringPost is what the strings do at one post.
type StringPost struct {
	Post  string        `json:"post" jsonschema:"required"`
	Low   length.Length `json:"low" jsonschema:"required" jsonschema_description:"Alignment string above ground here, sagging."`
	Sag   length.Length `json:"sag" jsonschema:"required" jsonschema_description:"Of the height string here, on its props."`
	Drift length.Length `json:"drift" jsonschema:"required" jsonschema_description:"Of the alignment string here."`
	High  length.Length `json:"high" jsonschema:"required" jsonschema_description:"Height string above ground here, sagging, or the line of sight."`
	Mark  length.Length `json:"mark" jsonschema:"required" jsonschema_description:"The post's mark over that; negative is under it."`
}

// RunStringWhy is where the strings' figures are explained.
type RunStringWhy struct {
	Constant reason.Ref `json:"constant" jsonschema:"required"`
	Sag      reason.Ref `json:"sag" jsonschema:"required"`
	Drift    reason.Ref `json:"drift" jsonschema:"required"`
}

// TopLine is how a run's tops are brought to height on site, in the four ways
// in use, and the story stick that carries every mark.
type TopLine struct {
	By     job.TopsBy      `json:"by" jsonschema:"required,enum=string,enum=laser,enum=drops,enum=sight" jsonschema_description:"The way that the run is set by."`
	Mark   length.Length   `json:"mark" jsonschema:"required" jsonschema_description:"Reference mark below the fence's top, the same on every post."`
	Laser  length.Length   `json:"laser" jsonschema:"required" jsonschema_description:"Height of the laser's level plane above the datum."`
	High   string          `json:"high" jsonschema:"required" jsonschema_description:"Post with the highest top: the level string is tied there, at its top."`
	Eye    length.Length   `json:"eye" jsonschema:"required" jsonschema_description:"Height of the eyes."`
	Pieces []TopPiece      `json:"pieces" jsonschema:"required" jsonschema_description:"Strings to pull: from each end, gate and grade post to the next."`
	Posts  []TopPost       `json:"posts" jsonschema:"required"`
	Rails  []length.Length `json:"rails" jsonschema:"required" jsonschema_description:"Middles of the rails above the fence's bottom, the lowest first."`
	Stick  []StickMark     `json:"stick" jsonschema:"required" jsonschema_description:"The story stick, from the top down."`
	Limit  *TopLimit       `json:"limit,omitempty" jsonschema_description:"What limits a level fence's height; left out where no post does."`
	Steps  []reason.Text   `json:"steps,omitempty" jsonschema_description:"What to do on site, in order."`
	Why    *reason.Ref     `json:"why,omitempty"`
}

// TopPiece is one string over the tops.
type TopPiece struct {
	From   string        `json:"from" jsonschema:"required"`
	To     string        `json:"to" jsonschema:"required"`
	Length length.Length `json:"length" jsonschema:"required" jsonschema_description:"Along the string."`
	Rise   length.Length `json:"rise" jsonschema:"required" jsonschema_description:"From its first top to its last; negative is falling."`
	Sag    length.Length `json:"sag" jsonschema:"required" jsonschema_description:"At its middle, without props."`
	Props  []Prop        `json:"props" jsonschema:"required" jsonschema_description:"That keep the sag within what is let go."`
}

// Prop holds a string up between its ends.
type Prop struct {
	At     length.Length `json:"at" jsonschema:"required" jsonschema_description:"Station."`
	Height length.Length `json:"height" jsonschema:"required" jsonschema_description:"Of its head above the ground there."`
}

// TopPost is one post's top, by each of the ways.
type TopPost struct {
	Post   string        `json:"post" jsonschema:"required"`
	Laser  length.Length `json:"laser" jsonschema:"required" jsonschema_description:"From the laser's mark up to the cut; negative is down."`
	Drop   length.Length `json:"drop" jsonschema:"required" jsonschema_description:"From the level string down to the top."`
	String length.Length `json:"string" jsonschema:"required" jsonschema_description:"The top over the string of its piece, as it hangs on its props; negative is under it."`
	Sight  length.Length `json:"sight" jsonschema:"required" jsonschema_description:"How far the top lies over the line of sight between the tops of its piece's ends; negative: drop it by so much."`
}

// StickMark is one mark of the story stick.
type StickMark struct {
	Name string        `json:"name" jsonschema:"required"`
	Kind string        `json:"kind" jsonschema:"required,enum=cut,enum=top,enum=mark,enum=rail,enum=hole,enum=bracket,enum=board,enum=bottom,enum=ground"`
	Up   length.Length `json:"up" jsonschema:"required" jsonschema_description:"From the reference mark up; negative is down."`
	To   length.Length `json:"to" jsonschema:"required" jsonschema_description:"Lower edge of what has a height; else the same."`
}

// TopLimit is the post that a level fence cannot rise past.
type TopLimit struct {
	Post  string        `json:"post" jsonschema:"required"`
	Spare length.Length `json:"spare" jsonschema:"required" jsonschema_description:"How much higher the fence could be before its longest stock is too short; negative: it is too short by so much."`
	Stock length.Length `json:"stock" jsonschema:"required"`
}
