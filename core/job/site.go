package job

import "mallow/core/length"

// Site is what holds for the whole site.
type Site struct {
	FrostDepth *length.Length `json:"frostDepth,omitempty" jsonschema:"minimum=0,maximum=5000" jsonschema_description:"Depth the ground freezes to, by the local building office. Left out: not asked yet."`
	Wind       float64        `json:"wind,omitempty" jsonschema:"minimum=0,maximum=60" jsonschema_description:"Today's wind, metres per second; it pushes strings aside."`
	Place      *Place         `json:"place,omitempty" jsonschema_description:"Where on earth the map's zero lies, where it is known. Lines stand on the map by their x and y; with a bearing, north is up."`
	Before     Before         `json:"before"`
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
