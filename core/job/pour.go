package job

import "mallow/core/length"

// PourBy is how concrete comes.
type PourBy string

// Ways in which concrete comes.
const (
	ByTruck   PourBy = "truck"
	ByBags    PourBy = "bags"
	BySiteMix PourBy = "site"
)

// Pour is the day on which concrete is poured. What is left out is as usual.
type Pour struct {
	Date     string         `json:"date,omitempty" jsonschema:"maxLength=10" jsonschema_description:"Year-month-day. Left out: not set yet."`
	From     string         `json:"from,omitempty" jsonschema:"maxLength=5" jsonschema_description:"When the crew is ready to pour, by the site's clock: 07:30. Usual: 07:30."`
	To       string         `json:"to,omitempty" jsonschema:"maxLength=5" jsonschema_description:"When the last post is to be in. Usual: 16:00."`
	Lunch    string         `json:"lunch,omitempty" jsonschema:"maxLength=5" jsonschema_description:"When the crew stops for lunch. Usual: 12:00."`
	LunchFor *float64       `json:"lunchFor,omitempty" jsonschema:"minimum=0,maximum=180" jsonschema_description:"Minutes. Usual: 30."`
	By       PourBy         `json:"by,omitempty" jsonschema:"enum=truck,enum=bags,enum=site" jsonschema_description:"How concrete comes. Left out: by truck where posts are stabbed, else in bags."`
	People   int            `json:"people,omitempty" jsonschema:"minimum=0,maximum=20" jsonschema_description:"Hands on the pour. Usual: 3."`
	Rates    []PourRate     `json:"rates,omitempty" jsonschema:"maxItems=20" jsonschema_description:"The crew's own rates, where they are not the usual ones."`
	Curb     *float64       `json:"curb,omitempty" jsonschema:"minimum=0.1,maximum=600" jsonschema_description:"The crew's own minutes of one person to place and screed a meter of mowing curb. Left out: as usual."`
	Carries  *length.Volume `json:"carries,omitempty" jsonschema:"minimum=0.1,maximum=20" jsonschema_description:"Most that a truck brings, cubic metres. Usual: 10 yd³ or 7.5 m³."`
	Transit  *float64       `json:"transit,omitempty" jsonschema:"minimum=0,maximum=120" jsonschema_description:"Minutes from the plant to the site. Usual: 30."`
	DryBed   bool           `json:"dryBed,omitempty" jsonschema_description:"The holes are dry, and are not wetted before the pour."`
	Covered  bool           `json:"covered,omitempty" jsonschema_description:"Footings are covered with blankets or straw for the nights after."`
	Warm     bool           `json:"warm,omitempty" jsonschema_description:"The mix is ordered warm, with hot water."`
}

// PourRate is how many minutes of one person a post takes, set in one way.
type PourRate struct {
	Method Method  `json:"method" jsonschema:"required,enum=braced,enum=fast,enum=dry packed,enum=stabbed,enum=rock,enum=driven,enum=slurry,enum=layered"`
	Place  float64 `json:"place" jsonschema:"required,minimum=0.5,maximum=600" jsonschema_description:"Minutes of one person to fill the hole and bring the post to its place."`
}
