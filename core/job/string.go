package job

import "mallow/core/length"

// StringPosition is a way to keep posts in line.
type StringPosition string

// Methods of the line of sight.
const (
	OnFace   StringPosition = "face"      // the string touches the posts' faces
	JustOff  StringPosition = "off"       // a string held slightly off the faces, so that no post pushes it
	StandOff StringPosition = "stand-off" // a string far enough off to stay up through digging
	BySight  StringPosition = "sight"     // no string: two set posts and a far target
)

// Ends is what a string is tied to.
type Ends string

// What a string is tied to.
const (
	Boards Ends = "boards" // batter boards, nicked where the string lies
	Stakes Ends = "stakes"
)

// String is how a run is lined and levelled.
type String struct {
	Position StringPosition `json:"position" jsonschema:"enum=face,enum=off,enum=stand-off,enum=sight"`
	Off      *length.Length `json:"off,omitempty" jsonschema:"minimum=0,maximum=3000" jsonschema_description:"From the string to the posts' faces. Left out: the school's own."`
	Face     Side           `json:"face" jsonschema:"enum=left,enum=right" jsonschema_description:"Which faces of the posts are lined, walking from the run's start: their straightest, turned outward."`
	Low      length.Length  `json:"low" jsonschema:"minimum=0,maximum=2000" jsonschema_description:"Alignment string above ground at its ends. Usual: 12 in or 300 mm."`
	Mark     length.Length  `json:"mark" jsonschema:"minimum=0,maximum=3000" jsonschema_description:"Height string, or sight mark, below the tops."`
	Ends     Ends           `json:"ends" jsonschema:"enum=boards,enum=stakes"`
	Beyond   length.Length  `json:"beyond" jsonschema:"minimum=0,maximum=10000" jsonschema_description:"Boards or stakes stand this far beyond the end posts."`
	Kind     string         `json:"kind" jsonschema:"minLength=1,maxLength=40" jsonschema_description:"Kind of string, by its name in the catalogue."`
	Pull     float64        `json:"pull" jsonschema:"minimum=1,maximum=500" jsonschema_description:"Pull on the string, newtons."`
	Props    int            `json:"props,omitempty" jsonschema:"minimum=0,maximum=200" jsonschema_description:"Props under the height string, evenly spaced."`
}

// Offset is how far the string stands off the posts' faces.
func (s String) Offset() length.Length {
	switch {
	case s.Off != nil:
		return *s.Off
	case s.Position == JustOff:
		return 6 * length.Millimetre // 1/4 in: common practice, 6 to 25 mm
	case s.Position == StandOff:
		return 300 * length.Millimetre // 1 ft: common practice
	}
	return 0
}
