package scene

import (
	"errors"
	"slices"

	"mallow/core/document"
	"mallow/core/length"
	"mallow/core/plan"
	"mallow/core/words"
)

// Kind is what a drawing shows.
type Kind string

// Kinds of drawings.
const (
	OfElevation Kind = "elevation"
	OfMap       Kind = "map"
	OfHole      Kind = "hole"
	OfFront     Kind = "front"
	OfAbove     Kind = "above"
	OfSide      Kind = "side"
	OfSwing     Kind = "swing"
	OfDrop      Kind = "drop"
	OfStick     Kind = "stick"
	OfAlong     Kind = "along"
	OfBay       Kind = "bay"
	OfStrips    Kind = "strips"
)

// Kinds are all of them.
var Kinds = []Kind{OfElevation, OfMap, OfHole, OfFront, OfAbove, OfSide, OfSwing, OfDrop, OfStick, OfAlong, OfBay, OfStrips}

// Stress is what a drawing of the fence stresses: a stage of the work, or a
// sheet of paper.
type Stress string

// What drawings stress.
const (
	Walking  Stress = "walk"
	Strings  Stress = "string"
	Spacing  Stress = "space"
	Grading  Stress = "grade"
	Gates    Stress = "gates"
	Digging  Stress = "dig"
	Pouring  Stress = "pour"
	Building Stress = "build"
	OnPaper  Stress = "paper"
	AsBuilt  Stress = "as built"
	Plainly  Stress = ""
	mostWide        = 100_000 // pixels of a frame
)

// View is which drawing of a plan, and the frame that it is put into.
type View struct {
	Of     Kind   `json:"of" jsonschema:"required,enum=elevation,enum=map,enum=hole,enum=front,enum=above,enum=side,enum=swing,enum=drop,enum=stick,enum=along,enum=bay,enum=strips"`
	Run    string `json:"run" jsonschema:"required"`
	Whole  bool   `json:"whole,omitempty" jsonschema_description:"From the side: the whole line that the run is on, corner after corner."`
	Stress Stress `json:"stress,omitempty" jsonschema:"enum=walk,enum=string,enum=space,enum=grade,enum=gates,enum=dig,enum=pour,enum=build,enum=paper,enum=as built" jsonschema_description:"What it stresses."`

	From *length.Length `json:"from,omitempty" jsonschema_description:"From the side: the stretch that is drawn, of which what is beyond is left out."`
	To   *length.Length `json:"to,omitempty"`

	Least *length.Length `json:"least,omitempty" jsonschema_description:"The corridor that the fence's bottom runs in."`
	Most  *length.Length `json:"most,omitempty"`

	Set []SetPost `json:"set,omitempty" jsonschema_description:"How far each post is at a time of the pour."`

	Card   int            `json:"card,omitempty" jsonschema_description:"The hole, by its place among the run's cards."`
	Wanted *length.Length `json:"wanted,omitempty" jsonschema_description:"The bottom that the rules ask for, of a hole that was stopped."`
	Bare   bool           `json:"bare,omitempty" jsonschema_description:"Nothing is said beside it."`

	Bay   string `json:"bay,omitempty" jsonschema_description:"The bay, by its id."`
	Apart bool   `json:"apart,omitempty" jsonschema_description:"A bay: what hangs on posts and rails is drawn above them."`

	Gate  string         `json:"gate,omitempty"`
	Hang  bool           `json:"hang,omitempty" jsonschema_description:"A gate's front shows what is needed to hang it; else the measures of its opening."`
	Leaf  string         `json:"leaf,omitempty" jsonschema_description:"The leaf, by the post that it hangs on."`
	Angle float64        `json:"angle,omitempty" jsonschema_description:"How far it is open, degrees: in is positive, out negative."`
	Road  *length.Length `json:"road,omitempty" jsonschema_description:"From the line to the kerb."`
	Room  *length.Length `json:"room,omitempty" jsonschema_description:"From the line to what ends the room inside."`

	FromEnd bool          `json:"fromEnd,omitempty" jsonschema_description:"Along the line: from its last post."`
	Closer  float64       `json:"closer,omitempty" jsonschema_description:"1 shows all of it."`
	Aside   length.Length `json:"aside,omitempty" jsonschema_description:"How far the eye stands beside the line."`
	Back    length.Length `json:"back,omitempty" jsonschema_description:"How far it stands back from the end post."`

	Frame Frame `json:"frame" jsonschema:"required"`
}

// SetPost is how far a post is at a time of the pour.
type SetPost struct {
	Run  string `json:"run" jsonschema:"required"`
	Post string `json:"post" jsonschema:"required"`
	In   bool   `json:"in" jsonschema:"required" jsonschema_description:"Its concrete is in."`
	Says string `json:"says" jsonschema:"required" jsonschema_description:"What stands under its hole."`
}

// Frame is the sheet that a drawing is put on, in pixels. On paper a pixel is
// what makes the type as large as it is to be.
type Frame struct {
	Width  float64 `json:"width" jsonschema:"required"`
	Height float64 `json:"height" jsonschema:"required"`
	X      *Axis   `json:"x,omitempty" jsonschema_description:"Where millimetres lie across; left out: as large as it fits."`
	Y      *Axis   `json:"y,omitempty" jsonschema_description:"Where heights lie."`
	Top    float64 `json:"top,omitempty" jsonschema_description:"Kept free over the drawing."`
	Bottom float64 `json:"bottom,omitempty"`

	Stretch float64 `json:"stretch,omitempty" jsonschema_description:"Most times that heights may be drawn larger than lengths; left out: 1."`
}

// Axis turns millimetres into pixels.
type Axis struct {
	Zero  float64 `json:"zero" jsonschema:"required" jsonschema_description:"Where the zero lies."`
	Scale float64 `json:"scale" jsonschema:"required" jsonschema_description:"Pixels of a millimetre."`
}

// Of draws a view of a plan. The error says what in the view there is not.
func Of(p plan.Plan, v View, t Type) (Drawing, error) {
	s, err := sceneOf(p, v)
	if err != nil {
		return Drawing{}, err
	}
	return Arrange(s, v.Frame, p.Units, t), nil
}

func sceneOf(p plan.Plan, v View) (Scene, error) {
	if !(v.Frame.Width > 0 && v.Frame.Height > 0 && v.Frame.Width <= mostWide && v.Frame.Height <= mostWide) {
		return Scene{}, document.Errors{{Field: "/frame", Given: document.Brief(number(v.Frame.Width) + " × " + number(v.Frame.Height)), Allowed: words.Plain("scene.allowed-frame", words.V{"most": number(mostWide)})}}
	}
	if err := v.bounds(); err != nil {
		return Scene{}, err
	}
	i := slices.IndexFunc(p.Runs, func(r plan.Run) bool { return r.ID == v.Run })
	if i < 0 {
		return Scene{}, document.Errors{{Field: "/run", Given: document.Brief(v.Run), Allowed: words.Plain("scene.allowed-run")}}
	}
	r := &p.Runs[i]
	var s Scene
	switch v.Of {
	case OfElevation:
		s = elevation(p, i, v)
	case OfMap:
		s = site(p, i, v)
	case OfAlong: // in its own order, from far to near
		return along(r, v), nil
	case OfStick:
		s = stick(r)
	case OfStrips:
		s = strips(p, r)
	case OfHole:
		if v.Card < 0 || v.Card >= len(r.Cards) {
			return s, document.Errors{{Field: "/card", Given: number(float64(v.Card)), Allowed: words.Plain("scene.allowed-hole")}}
		}
		s = hole(r, &r.Cards[v.Card], v)
	case OfBay:
		k := slices.IndexFunc(r.Bays, func(b bay) bool { return b.ID == v.Bay })
		if k < 0 || r.Bays[k].Gate != "" {
			return s, document.Errors{{Field: "/bay", Given: document.Brief(v.Bay), Allowed: words.Plain("scene.allowed-bay")}}
		}
		s = bayParts(r, k, v)
	case OfFront, OfAbove, OfSide, OfSwing, OfDrop:
		return ofGate(r, v)
	default:
		return s, document.Errors{{Field: "/of", Given: document.Brief(string(v.Of)), Allowed: kinds()}}
	}
	s.sorted()
	return s, nil
}

// farthest is how far off anything that is asked for may lie, millimetres:
// farther than any run is long.
const farthest = 1e9

// bounds checks the numbers of a view.
func (v View) bounds() error {
	type bound struct {
		field      string
		given      float64
		low, above float64
	}
	list := []bound{
		{"/angle", v.Angle, -360, 360}, {"/closer", v.Closer, 0, 1000}, {"/aside", float64(v.Aside), 0, farthest}, {"/back", float64(v.Back), 0, farthest},
		{"/frame/stretch", v.Frame.Stretch, 0, 1e6}, {"/frame/top", v.Frame.Top, 0, mostWide}, {"/frame/bottom", v.Frame.Bottom, 0, mostWide},
	}
	for field, at := range map[string]*length.Length{"/from": v.From, "/to": v.To, "/least": v.Least, "/most": v.Most, "/wanted": v.Wanted, "/road": v.Road, "/room": v.Room} {
		if at != nil {
			list = append(list, bound{field, float64(*at), -farthest, farthest})
		}
	}
	for field, a := range map[string]*Axis{"/frame/x": v.Frame.X, "/frame/y": v.Frame.Y} {
		if a != nil {
			list = append(list, bound{field + "/zero", a.Zero, -1e14, 1e14}, bound{field + "/scale", a.Scale, 1e-9, 1e4})
		}
	}
	for _, n := range list {
		if !(n.given >= n.low && n.given <= n.above) {
			return document.Errors{{Field: n.field, Given: document.Brief(number(n.given)), Allowed: words.Plain("scene.allowed-number", words.V{"low": number(n.low), "high": number(n.above)})}}
		}
	}
	return nil
}

func ofGate(r *plan.Run, v View) (s Scene, err error) {
	i := slices.IndexFunc(r.Gates, func(g gate) bool { return g.ID == v.Gate })
	if i < 0 {
		return s, document.Errors{{Field: "/gate", Given: document.Brief(v.Gate), Allowed: words.Plain("scene.allowed-gate")}}
	}
	g := &r.Gates[i]
	switch v.Of {
	case OfFront:
		s = front(r, g, v)
	case OfAbove:
		s = above(r, g, v)
	default:
		k := slices.IndexFunc(g.Leaves, func(l leaf) bool { return l.Post == v.Leaf })
		if k < 0 {
			return s, document.Errors{{Field: "/leaf", Given: document.Brief(v.Leaf), Allowed: words.Plain("scene.allowed-leaf")}}
		}
		l := &g.Leaves[k]
		switch {
		case v.Of == OfDrop && l.Adjust == nil:
			return s, document.Errors{{Field: "/leaf", Given: document.Brief(v.Leaf), Allowed: words.Plain("scene.allowed-dropped")}}
		case v.Of == OfDrop:
			s = dropped(l)
		case v.Of == OfSide:
			s = side(l, v.Angle)
		default:
			s = swing(g, l, v.Angle)
		}
	}
	s.sorted()
	return s, nil
}

// IsGone tells whether an error says that what a view shows is not there.
func IsGone(err error) bool {
	var fields document.Errors
	return errors.As(err, &fields) && len(fields) > 0 && slices.Contains([]string{"/run", "/card", "/gate", "/leaf"}, fields[0].Field)
}

// per is how many millimetres a pixel of the view is.
func (v View) per(fallback float64) float64 {
	if v.Frame.X != nil {
		return 1 / v.Frame.X.Scale
	}
	return fallback
}
