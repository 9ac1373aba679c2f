package job

import "mallow/core/length"

// Curb is a mowing curb: a strip of concrete along a run, poured round its posts, that
// grass is mown up to. What is left out is as usual.
type Curb struct {
	Width  length.Length  `json:"width,omitempty" jsonschema:"minimum=100,maximum=1500" jsonschema_description:"Usual: 12 in or 300 mm."`
	Depth  length.Length  `json:"depth,omitempty" jsonschema:"minimum=50,maximum=600" jsonschema_description:"From its top to its bottom. Usual: 4 in or 100 mm."`
	Above  length.Length  `json:"above,omitempty" jsonschema:"minimum=0,maximum=300" jsonschema_description:"How far its top stands over the ground. Usual: 0, so that wheels run on it."`
	Off    length.Length  `json:"off,omitempty" jsonschema:"minimum=-600,maximum=600" jsonschema_description:"Its middle beside the line of posts: to the left, walking on; negative is to the right."`
	Past   *length.Length `json:"past,omitempty" jsonschema:"minimum=0,maximum=2000" jsonschema_description:"How far it goes on past the middle of an end post. Usual: half its width."`
	Joints length.Length  `json:"joints,omitempty" jsonschema:"minimum=300,maximum=10000" jsonschema_description:"Most from joint to joint; there is one at every post. Usual: 24 times its depth."`
	Gates  CurbAtGates    `json:"gates,omitempty" jsonschema:"enum=through,enum=stops" jsonschema_description:"What it does at a gate. Usual: through."`
}

// CurbAtGates is what a mowing curb does at a gate.
type CurbAtGates string

// What a mowing curb does at a gate.
const (
	CurbThrough CurbAtGates = "through" // no weeds under the leaf; wheels cross it
	CurbStops   CurbAtGates = "stops"   // it ends past each gate post
)

// jointEvery is how many times its depth a slab goes without a joint (common practice:
// 24 to 30 times).
const jointEvery = 24

// Filled is the curb with what it leaves out filled in.
func (c Curb) Filled(u length.Units) Curb {
	c.Width, c.Depth = or(c.Width, u, 12*length.Inch, 300), or(c.Depth, u, 4*length.Inch, 100)
	c.Joints = or(c.Joints, u, jointEvery*c.Depth, jointEvery*c.Depth)
	if c.Past == nil {
		half := c.Width / 2
		c.Past = &half
	}
	if c.Gates == "" {
		c.Gates = CurbThrough
	}
	return c
}
