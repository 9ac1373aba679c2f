package dig

import (
	"mallow/core/finding"
	"mallow/core/footing"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/reason"
	"mallow/core/stage/slope"
)

// Card is everything to dig and fill one hole, cut through its middle. Posts
// with the same hole share one. Depths are below ground.
type Card struct {
	Width         length.Length  `json:"width" jsonschema:"required"`
	Depth         length.Length  `json:"depth" jsonschema:"required" jsonschema_description:"To dig."`
	Bottom        length.Length  `json:"bottom" jsonschema:"required" jsonschema_description:"Of the concrete, or of what the post is packed in: what is held against the frost depth."`
	Foot          length.Length  `json:"foot" jsonschema:"required" jsonschema_description:"Of the post."`
	Lowered       length.Length  `json:"lowered,omitempty" jsonschema_description:"By how much the ground is cut here afterwards; negative: filled loose, which holds nothing. The other depths are below the ground that is dug."`
	Placed        length.Length  `json:"placed,omitempty" jsonschema_description:"By how much fill, placed and compacted, has raised the ground before it is dug: depths are below its top."`
	PlacedWide    length.Length  `json:"placedWide,omitempty" jsonschema_description:"How wide, level and across the line, placed fill must be for the hole to count on it. Without placed it is not."`
	UnderFinished length.Length  `json:"underFinished" jsonschema:"required" jsonschema_description:"The bottom below the ground as it will be."`
	Frost         *length.Length `json:"frost,omitempty" jsonschema_description:"Frost depth below today's ground: it follows the ground as it will be. Left out when it is not known or not counted."`
	Heaves        bool           `json:"heaves" jsonschema:"required" jsonschema_description:"The bottom lies above the frost depth."`
	Square        bool           `json:"square" jsonschema:"required" jsonschema_description:"Square from above, dug by spade."`
	Auger         bool           `json:"auger" jsonschema:"required" jsonschema_description:"The crew has an auger of its width."`
	Cuts          []footing.Cut  `json:"cuts" jsonschema:"required" jsonschema_description:"The hole's width from the ground down, straight in between."`
	Along         length.Length  `json:"along,omitempty" jsonschema_description:"Middle of the hole off that of the post, along the run."`
	Across        length.Length  `json:"across,omitempty" jsonschema_description:"The same across it, to the left."`
	Least         length.Length  `json:"least" jsonschema:"required" jsonschema_description:"Least room between post and hole."`

	Post   length.Length `json:"post" jsonschema:"required" jsonschema_description:"Width of the post."`
	Round  bool          `json:"round" jsonschema:"required" jsonschema_description:"A round post."`
	Hollow bool          `json:"hollow" jsonschema:"required"`
	Wall   length.Length `json:"wall" jsonschema:"required"`
	Holds  length.Length `json:"holds" jsonschema:"required" jsonschema_description:"Least width of a hole that the post goes into."`
	Core   length.Length `json:"core,omitempty" jsonschema_description:"Side of the steel core in a hollow post."`
	Pin    length.Length `json:"pin,omitempty" jsonschema_description:"Diameter of the pin in the rock under the foot."`
	Pinned length.Length `json:"pinned,omitempty" jsonschema_description:"How far the pin goes into the rock."`

	Method job.Method      `json:"method" jsonschema:"required,enum=braced,enum=fast,enum=dry packed,enum=stabbed,enum=rock,enum=driven,enum=slurry,enum=layered"`
	Layers []footing.Layer `json:"layers" jsonschema:"required" jsonschema_description:"From the bottom up."`

	Dug      length.Volume  `json:"dug" jsonschema:"required"`
	Gravel   length.Volume  `json:"gravel" jsonschema:"required"`
	Stone    length.Volume  `json:"stone" jsonschema:"required"`
	Concrete length.Volume  `json:"concrete" jsonschema:"required"`
	Soil     length.Volume  `json:"soil" jsonschema:"required" jsonschema_description:"Put back."`
	Spoil    length.Volume  `json:"spoil" jsonschema:"required" jsonschema_description:"To carry away, loosened."`
	Bag      string         `json:"bag" jsonschema:"required" jsonschema_description:"Name of the bag; empty when it is not in the catalogue."`
	Bags     float64        `json:"bags" jsonschema:"required"`
	FillTo   *length.Length `json:"fillTo,omitempty" jsonschema_description:"Stabbed posts: depth below ground up to which the hole is filled before the post goes in; the post then brings the mix to its level."`
	Steps    []reason.Text  `json:"steps,omitempty" jsonschema_description:"What to do, in order."`
}

// Stopped is a hole that rock or water stopped short of its depth.
type Stopped struct {
	What    job.Struck    `json:"what" jsonschema:"required,enum=rock,enum=water,enum=root"`
	Depth   length.Length `json:"depth" jsonschema:"required"`
	Wanted  length.Length `json:"wanted" jsonschema:"required" jsonschema_description:"Bottom that the rules ask for."`
	AsIs    float64       `json:"asIs" jsonschema:"required" jsonschema_description:"Gust at the limit as it is, metres per second."`
	Planned float64       `json:"planned" jsonschema:"required" jsonschema_description:"Gust at the limit had it reached that depth, metres per second."`
	Settled job.Settled   `json:"settled,omitempty" jsonschema:"enum=as is,enum=wider,enum=belled,enum=pinned"`
	Same    length.Length `json:"same" jsonschema:"required" jsonschema_description:"How wide the hole would have to be, no deeper, for the same gust; 0: no width that can be dug."`
	Ways    []WayOut      `json:"ways,omitempty" jsonschema_description:"What each way out gives, in the same measure; left out where only figures are asked for."`
}

// WayOut is one way out of a hole that is too shallow.
type WayOut struct {
	ID       string        `json:"id" jsonschema:"required" jsonschema_description:"Stable, for programs."`
	Name     reason.Text   `json:"name" jsonschema:"required"`
	Says     reason.Text   `json:"says" jsonschema:"required" jsonschema_description:"What it costs and what to mind."`
	Gust     float64       `json:"gust" jsonschema:"required" jsonschema_description:"At the limit, metres per second."`
	Frost    bool          `json:"frost" jsonschema:"required" jsonschema_description:"Its bottom is below the frost depth, or none is known."`
	Concrete length.Volume `json:"concrete" jsonschema:"required" jsonschema_description:"More than the hole takes as it is."`
	Edits    []job.Edit    `json:"edits" jsonschema:"required"`
	Cost     *finding.Cost `json:"cost,omitempty" jsonschema_description:"Where posts move: what that changes."`
}

// PostWind is the gust at which a footing reaches the published limit of a
// post in soil. It compares choices; it approves nothing.
type PostWind struct {
	Gust   float64     `json:"gust" jsonschema:"required" jsonschema_description:"Metres per second."`
	Wider  *WindTry    `json:"wider,omitempty" jsonschema_description:"With the next auger up."`
	Deeper *WindTry    `json:"deeper,omitempty" jsonschema_description:"With a hole one step deeper."`
	Leaf   *LeafPull   `json:"leaf,omitempty" jsonschema_description:"What a leaf that hangs on it does."`
	Why    *reason.Ref `json:"why,omitempty"`
}

// WindTry is the same footing in another size.
type WindTry struct {
	Size length.Length `json:"size" jsonschema:"required" jsonschema_description:"The hole's width, or depth to dig."`
	Gust float64       `json:"gust" jsonschema:"required"`
}

// LeafPull is what a gate leaf's weight does to the post that it hangs on.
type LeafPull struct {
	Mass      length.Mass   `json:"mass" jsonschema:"required"`
	Estimated bool          `json:"estimated" jsonschema:"required"`
	Width     length.Length `json:"width" jsonschema:"required"`
	Moment    float64       `json:"moment" jsonschema:"required" jsonschema_description:"Newton metres: its weight times half its width."`
	Closed    float64       `json:"closed" jsonschema:"required" jsonschema_description:"Gust with the leaf closed, metres per second: half the leaf's face pushes the post; its weight pulls along the fence."`
	Open      float64       `json:"open" jsonschema:"required" jsonschema_description:"Gust with the leaf open across the fence: its weight leans the post the way that the wind does."`
	Share     float64       `json:"share" jsonschema:"required" jsonschema_description:"Share of the footing's limit that the leaf's weight takes alone."`
}

// Post is one post with its hole.
type Post struct {
	slope.Post
	Hung           bool           `json:"hung,omitempty" jsonschema_description:"A gate leaf hangs on it."`
	Driven         bool           `json:"driven,omitempty" jsonschema_description:"It is driven; a hole is only that of its collar."`
	Repoured       string         `json:"repoured,omitempty" jsonschema_description:"Old footing that is dug out and poured again with this hole."`
	Shared         string         `json:"shared,omitempty" jsonschema_description:"Run that ends at this corner post: it is dug and counted there."`
	InWay          []string       `json:"inWay,omitempty" jsonschema_description:"What its hole runs into."`
	Hand           []string       `json:"hand,omitempty" jsonschema_description:"What it must be dug by hand for."`
	Finished       length.Length  `json:"finished" jsonschema:"required" jsonschema_description:"Height of the ground as it will be, once the plan's cuts and fills are made."`
	HoleWidth      length.Length  `json:"holeWidth" jsonschema:"required"`
	HoleDepth      length.Length  `json:"holeDepth" jsonschema:"required" jsonschema_description:"Depth to dig from the ground that is dug, with the gravel: today's, or the top of fill that was placed first."`
	Bottom         length.Length  `json:"bottom" jsonschema:"required" jsonschema_description:"Depth of the concrete's bottom below the ground that is dug; the gravel lies under it."`
	UnderFinished  length.Length  `json:"underFinished" jsonschema:"required" jsonschema_description:"The same below the ground as it will be: what the rules of depth ask for."`
	Heaves         bool           `json:"heaves" jsonschema:"required" jsonschema_description:"The bottom lies above the frost depth."`
	Foot           length.Length  `json:"foot" jsonschema:"required" jsonschema_description:"Depth of the post's foot: its embedment."`
	Gravel         length.Length  `json:"gravel" jsonschema:"required" jsonschema_description:"Gravel under the concrete."`
	Concrete       length.Length  `json:"concrete" jsonschema:"required" jsonschema_description:"Height of the concrete round the post; 0 where there is none."`
	Card           int            `json:"card" jsonschema:"required" jsonschema_description:"Place of its hole among the run's cards; -1 for an old post that stays."`
	Spot           string         `json:"spot,omitempty" jsonschema_description:"Single hole of the run whose rules it has."`
	Stopped        *Stopped       `json:"stopped,omitempty" jsonschema_description:"Its hole was stopped short."`
	Wind           *PostWind      `json:"wind,omitempty" jsonschema_description:"Left out for an old post that stays, and for a corner post that is dug in another run."`
	spot           int            // place of the spot in the run, or -1
	GravelVolume   length.Volume  `json:"gravelVolume" jsonschema:"required"`
	StoneVolume    length.Volume  `json:"stoneVolume" jsonschema:"required" jsonschema_description:"Rocks, stone and rubble."`
	ConcreteVolume length.Volume  `json:"concreteVolume" jsonschema:"required"`
	Bags           float64        `json:"bags" jsonschema:"required" jsonschema_description:"Bags to pour, as a decimal."`
	Needed         length.Length  `json:"needed" jsonschema:"required" jsonschema_description:"Length of post needed: reveal, embedment and trim."`
	Stock          *length.Length `json:"stock,omitempty" jsonschema_description:"Stock length to take; left out when none is long enough."`
	CutOff         *length.Length `json:"cutOff,omitempty" jsonschema_description:"To cut off: stock less reveal and embedment."`
	CutFirst       bool           `json:"cutFirst,omitempty" jsonschema_description:"It is cut before it is set, to needed."`
	Why            *PostWhy       `json:"why,omitempty"`
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
