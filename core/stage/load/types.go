package load

import (
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/pour"
	"mallow/core/reason"
)

// Totals is what a run or a job takes. Everything is a sum of exact values;
// only what is bought whole is rounded, once.
type Totals struct {
	Posts      int         `json:"posts" jsonschema:"required" jsonschema_description:"To be set. A corner post is counted in the run that ends there."`
	Reused     int         `json:"reused" jsonschema:"required" jsonschema_description:"Old posts that stay and are built onto."`
	Pieces     int         `json:"pieces" jsonschema:"required" jsonschema_description:"Panels, rails, or bays of boards, whole and cut; of rails every one, in every row."`
	CutPieces  int         `json:"cutPieces" jsonschema:"required" jsonschema_description:"Of these, cut from a full one."`
	Elsewhere  int         `json:"elsewhere" jsonschema:"required" jsonschema_description:"Posts of the run that are counted in another run."`
	Kinds      []KindCount `json:"kinds" jsonschema:"required"`
	Stock      []Stock     `json:"stock" jsonschema:"required"`
	KindStock  []KindStock `json:"kindStock" jsonschema:"required" jsonschema_description:"Posts by kind and stock length."`
	StockShort int         `json:"stockShort" jsonschema:"required" jsonschema_description:"Posts for which no stock length is long enough."`
	Holes      []Holes     `json:"holes" jsonschema:"required"`
	Hours      Hours       `json:"hours" jsonschema:"required"`

	Concrete      length.Volume `json:"concrete" jsonschema:"required" jsonschema_description:"In the holes and the mowing curb."`
	CurbConcrete  length.Volume `json:"curbConcrete,omitempty" jsonschema_description:"Of it in the mowing curb."`
	CurbLength    length.Length `json:"curbLength,omitempty" jsonschema_description:"Of the mowing curb, along the ground."`
	ConcreteToBuy length.Volume `json:"concreteToBuy" jsonschema:"required" jsonschema_description:"With the waste that is given."`
	Waste         float64       `json:"waste" jsonschema:"required" jsonschema_description:"Share bought beyond what the holes take; -1 where it is not the same for all."`
	BagKinds      []BagCount    `json:"bagKinds" jsonschema:"required" jsonschema_description:"One for each kind of bag; empty when the bag is not in the catalogue."`
	Bags          int           `json:"bags" jsonschema:"required" jsonschema_description:"Of all kinds."`
	Truck         TruckLoad     `json:"truck" jsonschema:"required" jsonschema_description:"The same concrete from a truck."`
	Mix           pour.SiteMix  `json:"mix" jsonschema:"required" jsonschema_description:"The same concrete mixed on site."`

	Gravel      length.Volume `json:"gravel" jsonschema:"required" jsonschema_description:"Tamped, in the holes."`
	GravelLoose length.Volume `json:"gravelLoose" jsonschema:"required" jsonschema_description:"Loose, as bought."`
	GravelMass  length.Mass   `json:"gravelMass" jsonschema:"required"`
	GravelBags  Parcels       `json:"gravelBags" jsonschema:"required"`
	GravelBulk  Parcels       `json:"gravelBulk" jsonschema:"required"`
	Stone       length.Volume `json:"stone" jsonschema:"required" jsonschema_description:"Rocks, packing stone and rubble, in the holes."`
	StoneLoose  length.Volume `json:"stoneLoose" jsonschema:"required" jsonschema_description:"The same, loose, as bought."`
	StoneMass   length.Mass   `json:"stoneMass" jsonschema:"required"`

	Dug      length.Volume `json:"dug" jsonschema:"required" jsonschema_description:"The holes, as the soil lies."`
	SoilBack length.Volume `json:"soilBack" jsonschema:"required" jsonschema_description:"Of it put back over the concrete."`
	Spoil    length.Volume `json:"spoil" jsonschema:"required" jsonschema_description:"To carry away, loosened."`

	Cut          length.Volume `json:"cut" jsonschema:"required" jsonschema_description:"Soil to cut along the fence, as it lies."`
	Fill         length.Volume `json:"fill" jsonschema:"required" jsonschema_description:"Soil to fill along the fence, tamped."`
	InfillBoards int           `json:"infillBoards" jsonschema:"required" jsonschema_description:"Boards that close triangles under level panels."`
	GradePosts   int           `json:"gradePosts" jsonschema:"required" jsonschema_description:"Posts at which a leaning top changes slope, where that is counted."`
	Steps        int           `json:"steps" jsonschema:"required" jsonschema_description:"Posts at which the top steps."`

	Why *TotalsWhy `json:"why,omitempty"`
}

// section is what a piece is: section, material and size as bought.
type section struct {
	What     string // of what it is one
	Material string
	Length   length.Length // 0 for a post that is longer than any stock
	Width    length.Length // side or diameter of a post; height of a panel or board; 0 where it is not known
	Round    bool
	Hollow   bool
}

// TotalsWhy is where the totals are explained.
type TotalsWhy struct {
	Concrete reason.Ref `json:"concrete" jsonschema:"required"`
	Gravel   reason.Ref `json:"gravel" jsonschema:"required"`
	Hours    reason.Ref `json:"hours" jsonschema:"required"`
	Spoil    reason.Ref `json:"spoil" jsonschema:"required"`
}

// KindCount counts posts of one kind.
type KindCount struct {
	Kind  job.PostKind `json:"kind" jsonschema:"required,enum=end,enum=corner,enum=gate,enum=line"`
	Count int          `json:"count" jsonschema:"required"`
}

// BagCount counts bags of one kind, rounded up once for the whole.
type BagCount struct {
	Bag   string      `json:"bag" jsonschema:"required" jsonschema_description:"Its name."`
	Exact float64     `json:"exact" jsonschema:"required"`
	Count int         `json:"count" jsonschema:"required"`
	Mass  length.Mass `json:"mass" jsonschema:"required"`

	id string
}

// TruckLoad is concrete ordered from a truck, in whole steps.
type TruckLoad struct {
	Order length.Volume `json:"order" jsonschema:"required"`
	Short bool          `json:"short" jsonschema:"required" jsonschema_description:"So little that a charge for a short load is usual."`
	Under length.Volume `json:"under" jsonschema:"required" jsonschema_description:"Load under which that is so."`
}

// Parcels is gravel in bags of one kind, rounded up once.
type Parcels struct {
	Name  string  `json:"name" jsonschema:"required"`
	Exact float64 `json:"exact" jsonschema:"required"`
	Count int     `json:"count" jsonschema:"required"`
}

// Stock counts posts of one stock length.
type Stock struct {
	Length length.Length `json:"length" jsonschema:"required"`
	Count  int           `json:"count" jsonschema:"required"`
}

// KindStock counts posts of one kind and stock length.
type KindStock struct {
	Kind   job.PostKind  `json:"kind" jsonschema:"required,enum=end,enum=corner,enum=gate,enum=line"`
	Length length.Length `json:"length,omitempty" jsonschema_description:"Left out: longer than any stock."`
	Count  int           `json:"count" jsonschema:"required"`
}

// Holes counts holes of one size.
type Holes struct {
	Width   length.Length `json:"width" jsonschema:"required"`
	Depth   length.Length `json:"depth" jsonschema:"required"`
	Square  bool          `json:"square" jsonschema:"required"`
	Count   int           `json:"count" jsonschema:"required"`
	ByHand  float64       `json:"byHand" jsonschema:"required" jsonschema_description:"Hours of one person to dig them all by hand."`
	ByAuger float64       `json:"byAuger" jsonschema:"required" jsonschema_description:"Hours by auger, and by hand what an auger must not or cannot dig."`
}

// Hours is how long the digging takes.
type Hours struct {
	ByHand  float64 `json:"byHand" jsonschema:"required" jsonschema_description:"Hours of one person, all by hand."`
	ByAuger float64 `json:"byAuger" jsonschema:"required" jsonschema_description:"Hours by auger, with what has to be dug by hand."`
	Hand    int     `json:"hand" jsonschema:"required" jsonschema_description:"Holes that no auger may or can dig."`
}
