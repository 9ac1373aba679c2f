package job

import "mallow/core/length"

// Tolerances are by how much a post may differ from the plan before something is to be
// done about it. Small errors are let go: the eye judges the line.
type Tolerances struct {
	Line  *length.Length `json:"line,omitempty" jsonschema:"minimum=0,maximum=300" jsonschema_description:"Off the string."`
	Bay   *length.Length `json:"bay,omitempty" jsonschema:"minimum=0,maximum=300" jsonschema_description:"A bay too long or too short, for a post that stands off its mark along the fence."`
	Plumb *length.Length `json:"plumb,omitempty" jsonschema:"minimum=0,maximum=300" jsonschema_description:"Out of plumb over the post's height, on either face."`
	Depth *length.Length `json:"depth,omitempty" jsonschema:"minimum=0,maximum=600" jsonschema_description:"A hole not deep enough, or deeper than planned."`
	Width *length.Length `json:"width,omitempty" jsonschema:"minimum=0,maximum=600" jsonschema_description:"A hole narrower or wider than planned."`
	Top   *length.Length `json:"top,omitempty" jsonschema:"minimum=0,maximum=300" jsonschema_description:"The top mark over or under where it should be."`
	Pack  *length.Length `json:"pack,omitempty" jsonschema:"minimum=0,maximum=150" jsonschema_description:"The most that is packed out."`
}

// Over is what holds where a nearer level says something.
func (t Tolerances) Over(near *Tolerances) Tolerances {
	if near == nil {
		return t
	}
	for _, f := range []struct{ far, near **length.Length }{
		{&t.Line, &near.Line}, {&t.Bay, &near.Bay}, {&t.Plumb, &near.Plumb}, {&t.Depth, &near.Depth}, {&t.Width, &near.Width}, {&t.Top, &near.Top}, {&t.Pack, &near.Pack},
	} {
		if *f.near != nil {
			*f.far = *f.near
		}
	}
	return t
}
