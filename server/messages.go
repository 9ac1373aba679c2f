package server

import (
	"encoding/json"
	"time"

	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/materials"
	"mallow/core/plan"
)

// Document is a job document, byte for byte as it is kept.
type Document = json.RawMessage

// JobState is a job as it stands.
type JobState struct {
	ID       string    `json:"id" jsonschema:"required"`
	Revision int       `json:"revision" jsonschema:"required"`
	Doc      Document  `json:"doc" jsonschema:"required"`
	What     string    `json:"what" jsonschema:"required" jsonschema_description:"What this revision changed."`
	SavedAt  time.Time `json:"savedAt" jsonschema:"required"`
	CanUndo  bool      `json:"canUndo" jsonschema:"required"`
	CanRedo  bool      `json:"canRedo" jsonschema:"required"`
	Unknown  []string  `json:"unknown" jsonschema:"required" jsonschema_description:"Fields of the document that are kept but not used."`
}

// JobSummary is a job in the list.
type JobSummary struct {
	ID       string          `json:"id" jsonschema:"required"`
	Name     string          `json:"name" jsonschema:"required"`
	SavedAt  time.Time       `json:"savedAt" jsonschema:"required"`
	Deleted  bool            `json:"deleted" jsonschema:"required"`
	Problem  string          `json:"problem,omitempty" jsonschema_description:"Why the job cannot be read, if it cannot."`
	Units    length.Units    `json:"units" jsonschema:"required"`
	Outline  plan.Silhouette `json:"outline" jsonschema:"required"`
	Posts    int             `json:"posts" jsonschema:"required"`
	Bags     int             `json:"bags" jsonschema:"required"`
	BagName  string          `json:"bagName" jsonschema:"required"`
	Missing  int             `json:"missing" jsonschema:"required" jsonschema_description:"Measures still to be entered."`
	Problems int             `json:"problems" jsonschema:"required" jsonschema_description:"Findings that cannot be built or want a look."`
}

// JobList is every job, the latest saved first.
type JobList struct {
	Jobs []JobSummary `json:"jobs" jsonschema:"required"`
}

// RevisionSummary is one line of a job's history.
type RevisionSummary struct {
	Number  int       `json:"number" jsonschema:"required"`
	Parent  int       `json:"parent" jsonschema:"required" jsonschema_description:"0 for the first."`
	What    string    `json:"what" jsonschema:"required"`
	SavedAt time.Time `json:"savedAt" jsonschema:"required"`
	Current bool      `json:"current" jsonschema:"required"`
}

// History is a job's revisions, the newest first.
type History struct {
	Revisions []RevisionSummary `json:"revisions" jsonschema:"required"`
}

// CreateRequest makes a new job: from a document, or an empty one.
type CreateRequest struct {
	Name   string        `json:"name,omitempty"`
	System length.System `json:"system,omitempty" jsonschema:"enum=imperial,enum=metric"`
	Doc    Document      `json:"doc,omitempty"`
	What   string        `json:"what,omitempty"`
}

// SaveRequest saves a document on top of the revision it was made from.
type SaveRequest struct {
	Base int      `json:"base" jsonschema:"required"`
	Doc  Document `json:"doc" jsonschema:"required"`
	What string   `json:"what" jsonschema:"required"`
}

// MoveRequest goes to another revision from the one that the window shows.
type MoveRequest struct {
	Base     int `json:"base" jsonschema:"required"`
	Revision int `json:"revision,omitempty"`
}

// Reading is how a tape entry was read.
type Reading struct {
	OK     bool           `json:"ok" jsonschema:"required"`
	Length length.Length  `json:"length" jsonschema:"required"`
	Bare   bool           `json:"bare" jsonschema:"required" jsonschema_description:"A number without a unit."`
	Others []OtherReading `json:"others" jsonschema:"required" jsonschema_description:"What a number without a unit could also mean."`
	Part   string         `json:"part,omitempty" jsonschema_description:"The part that was not understood."`
	Why    string         `json:"why,omitempty" jsonschema_description:"Why it was not understood."`
}

// OtherReading is another meaning of a bare number.
type OtherReading struct {
	Text   string        `json:"text" jsonschema:"required"`
	Length length.Length `json:"length" jsonschema:"required"`
}

// Problem is an error as the API reports it (RFC 9457).
type Problem struct {
	Title   string           `json:"title" jsonschema:"required"`
	Status  int              `json:"status" jsonschema:"required"`
	Detail  string           `json:"detail" jsonschema:"required"`
	Fields  []job.FieldError `json:"fields,omitempty"`
	Current *JobState        `json:"current,omitempty" jsonschema_description:"The job as it stands, when a change was made against an older revision."`
}

// Catalogue is what the interface offers for choosing.
type Catalogue struct {
	Bags  []materials.Bag      `json:"bags" jsonschema:"required"`
	Posts []materials.PostSize `json:"posts" jsonschema:"required"`
	Runs  map[string]job.Run   `json:"runs" jsonschema:"required" jsonschema_description:"The usual run of each system: what a document leaves out."`
	Gates map[string]job.Gate  `json:"gates" jsonschema:"required" jsonschema_description:"The usual gate of each system."`
	Marks map[string][]float64 `json:"marks" jsonschema:"required" jsonschema_description:"The smallest marks of each system's tapes, in millimetres."`
}
