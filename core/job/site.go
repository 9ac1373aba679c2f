package job

import "mallow/core/length"

// Site is what holds for the whole site.
type Site struct {
	Customer string `json:"customer,omitempty" jsonschema:"maxLength=200" jsonschema_description:"Whose fence it is, in free words."`
	Address  string `json:"address,omitempty" jsonschema:"maxLength=400" jsonschema_description:"Where the work is, in free words."`

	FrostDepth *length.Length `json:"frostDepth,omitempty" jsonschema:"minimum=0,maximum=5000" jsonschema_description:"Depth the ground freezes to, by the local building office. Left out: not asked yet."`
	Frost      *Frost         `json:"frost,omitempty" jsonschema_description:"What a frost depth is estimated from while the local office's is not known."`
	Soil       string         `json:"soil,omitempty" jsonschema:"maxLength=40" jsonschema_description:"Soil of the site, by its name in the catalogue. Left out: not known."`
	Exposure   Exposure       `json:"exposure,omitempty" jsonschema:"enum=B,enum=C,enum=D" jsonschema_description:"How open the land is to wind: B among houses and trees, C open, D by open water. Left out: C."`
	Movement   bool           `json:"movement,omitempty" jsonschema_description:"Half an inch of movement at the ground does no harm, which doubles the soil's bearing in the published formula. Left out: it may not move; new jobs have it, as most fences are designed."`
	CodeWind   *float64       `json:"codeWind,omitempty" jsonschema:"minimum=10,maximum=120" jsonschema_description:"Wind that the local code asks a fence to be built for, metres per second. Left out: not asked yet."`
	Crew       *Crew          `json:"crew,omitempty" jsonschema_description:"How fast the crew digs. Left out: usual rates."`
	Wind       float64        `json:"wind,omitempty" jsonschema:"minimum=0,maximum=60" jsonschema_description:"Today's wind, metres per second, 0 or at least 0.1; it pushes strings aside."`
	Place      *Place         `json:"place,omitempty" jsonschema_description:"Where on earth the map's zero lies, where it is known. Lines stand on the map by their x and y; with a bearing, north is up."`
	Before     Before         `json:"before"`
}

// Exposure is how open the land is to wind.
type Exposure string

// Exposures.
const (
	Sheltered Exposure = "B" // houses, woods
	OpenLand  Exposure = "C" // fields, scattered trees
	OpenWater Exposure = "D" // flat ground by open water
)

// Exposed is the exposure, or the usual one.
func (s Site) Exposed() Exposure {
	if s.Exposure == "" {
		return OpenLand
	}
	return s.Exposure
}

// Frost is what a frost depth is estimated from.
type Frost struct {
	Index        float64  `json:"index" jsonschema:"required,minimum=0,maximum=5000" jsonschema_description:"Freezing index of the air: degree-days Celsius below freezing in a cold winter."`
	Moisture     *float64 `json:"moisture,omitempty" jsonschema:"minimum=1,maximum=60" jsonschema_description:"Water in the soil, per cent of its dry weight. Left out: the soil's usual."`
	Density      *float64 `json:"density,omitempty" jsonschema:"minimum=800,maximum=2500" jsonschema_description:"Dry density of the soil, kilograms per cubic metre. Left out: the soil's usual."`
	Conductivity *float64 `json:"conductivity,omitempty" jsonschema:"minimum=0.2,maximum=5" jsonschema_description:"Watts per metre and kelvin. Left out: the soil's usual."`
	Surface      *float64 `json:"surface,omitempty" jsonschema:"minimum=0.1,maximum=1.2" jsonschema_description:"Surface freezing index over that of the air: 0.5 under turf and snow, 0.7 bare, 0.9 under paving. Left out: 0.7."`
	Lambda       *float64 `json:"lambda,omitempty" jsonschema:"minimum=0.3,maximum=1" jsonschema_description:"Correction for the soil's heat above freezing; 1 errs on the deep side. Left out: 1."`
}

// Crew is how fast the crew digs.
type Crew struct {
	Hand  float64        `json:"hand,omitempty" jsonschema:"minimum=0.001,maximum=5" jsonschema_description:"Cubic metres that one person digs by hand in an hour."`
	Auger *length.Length `json:"auger,omitempty" jsonschema:"minimum=100,maximum=100000" jsonschema_description:"Depth that the auger drills in an hour."`
	Setup *float64       `json:"setup,omitempty" jsonschema:"minimum=0,maximum=120" jsonschema_description:"Minutes to set the auger up at each hole."`
}

// Before is what is settled before anything is dug.
type Before struct {
	Ticket    *Ticket        `json:"ticket,omitempty" jsonschema_description:"What the locating office was asked, and answered."`
	Services  bool           `json:"services,omitempty" jsonschema_description:"Public services are located and marked."`
	Private   bool           `json:"private,omitempty" jsonschema_description:"The owner's own lines (irrigation, septic, gas to a patio) are found, or there are none."`
	Boundary  bool           `json:"boundary,omitempty" jsonschema_description:"The boundary is proved: pegs found, or a surveyor's line."`
	Permit    Permit         `json:"permit,omitempty" jsonschema:"enum=unknown,enum=not needed,enum=applied,enum=granted" jsonschema_description:"Left out: unknown."`
	Code      bool           `json:"code,omitempty" jsonschema_description:"The local code's figures are read: height, frost, pool rules."`
	MaxHeight *length.Length `json:"maxHeight,omitempty" jsonschema:"minimum=300,maximum=10000" jsonschema_description:"Greatest fence height that the local code allows here."`
	Neighbour bool           `json:"neighbour,omitempty" jsonschema_description:"Which face looks to the neighbour is settled."`
}

// Permit is how far the building permit is.
type Permit string

// States of the permit. The empty one is unknown too.
const (
	PermitUnknown   Permit = "unknown"
	PermitNotNeeded Permit = "not needed"
	PermitApplied   Permit = "applied"
	PermitGranted   Permit = "granted"
)

// Ticket is one request to the locating office.
type Ticket struct {
	Number string `json:"number" jsonschema:"required,minLength=1,maxLength=60"`
	Asked  string `json:"asked" jsonschema:"required,minLength=10,maxLength=10" jsonschema_description:"Date of the request, year-month-day."`
	Clear  string `json:"clear" jsonschema:"required,minLength=10,maxLength=10" jsonschema_description:"First day on which the marks must be down."`
	Marked bool   `json:"marked,omitempty" jsonschema_description:"The office has been, and its marks are in the job."`
}
