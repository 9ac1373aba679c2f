package server

import (
	"time"

	"mallow/core/begin"
	"mallow/core/choice"
	"mallow/core/document"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/materials"
	"mallow/core/plan"
	"mallow/core/survey"
	"mallow/help"
	"mallow/store"
)

// JobState is a job as it stands.
type JobState struct {
	ID         string                `json:"id" jsonschema:"required"`
	Revision   int                   `json:"revision" jsonschema:"required"`
	Generation string                `json:"generation" jsonschema:"required" jsonschema_description:"Which database the revision is of: another one after each restore of a backup."`
	Doc        Document              `json:"doc" jsonschema:"required"`
	What       string                `json:"what" jsonschema:"required" jsonschema_description:"What this revision changed."`
	SavedAt    time.Time             `json:"savedAt" jsonschema:"required"`
	CanUndo    bool                  `json:"canUndo" jsonschema:"required"`
	CanRedo    bool                  `json:"canRedo" jsonschema:"required"`
	Name       string                `json:"name" jsonschema:"required"`
	Left       []string              `json:"left,omitempty" jsonschema_description:"What the document said when it was of an older version that this one cannot say, one sentence each."`
	Problem    string                `json:"problem,omitempty" jsonschema_description:"Why the document cannot be planned: it opens to be read, put back or taken out only."`
	Wrong      []document.FieldError `json:"wrong,omitempty" jsonschema_description:"The same, field by field."`
	Unknown    []string              `json:"unknown" jsonschema:"required" jsonschema_description:"Fields of the document that are kept but not used."`
	Merged     bool                  `json:"merged,omitempty" jsonschema_description:"What was saved was laid over another window's change: the document has both."`
}

// Facts are what a list shows of a job's plan. They are kept with the revision
// when it is saved.
type Facts struct {
	Problem  string          `json:"problem,omitempty" jsonschema_description:"Why the job cannot be read or planned, if it cannot."`
	Units    length.Units    `json:"units" jsonschema:"required"`
	Outline  plan.Silhouette `json:"outline" jsonschema:"required"`
	Posts    int             `json:"posts" jsonschema:"required"`
	Bags     int             `json:"bags" jsonschema:"required"`
	Missing  int             `json:"missing" jsonschema:"required" jsonschema_description:"Measures still to be entered."`
	Problems int             `json:"problems" jsonschema:"required" jsonschema_description:"Findings that cannot be built or want a look."`
}

// JobSummary is a job in the list.
type JobSummary struct {
	ID      string     `json:"id" jsonschema:"required"`
	Name    string     `json:"name" jsonschema:"required"`
	SavedAt time.Time  `json:"savedAt" jsonschema:"required"`
	Deleted bool       `json:"deleted" jsonschema:"required"`
	GoneAt  *time.Time `json:"goneAt,omitempty" jsonschema_description:"When a deleted job may go from the bin for good."`
	Pending bool       `json:"pending" jsonschema:"required" jsonschema_description:"What follows is not worked out yet; an event tells when it is."`
	Facts
}

// JobList is a page of the list of jobs, the latest saved first.
type JobList struct {
	Jobs   []JobSummary `json:"jobs" jsonschema:"required"`
	Count  int          `json:"count" jsonschema:"required" jsonschema_description:"Jobs that fit, on all pages."`
	Binned int          `json:"binned" jsonschema:"required" jsonschema_description:"Jobs in the bin."`
}

// RevisionSummary is one line of a job's history.
type RevisionSummary struct {
	Number  int       `json:"number" jsonschema:"required"`
	Parent  int       `json:"parent" jsonschema:"required" jsonschema_description:"0 for the first."`
	What    string    `json:"what" jsonschema:"required"`
	SavedAt time.Time `json:"savedAt" jsonschema:"required"`
	Current bool      `json:"current" jsonschema:"required"`
	Pinned  bool      `json:"pinned" jsonschema:"required" jsonschema_description:"Kept however old it gets."`
}

// PinRequest keeps a revision, or lets it go by its age again.
type PinRequest struct {
	Revision int  `json:"revision" jsonschema:"required"`
	Pinned   bool `json:"pinned" jsonschema:"required"`
}

// Keeping is how the jobs are kept.
type Keeping struct {
	Folder    string        `json:"folder" jsonschema:"required" jsonschema_description:"Data folder."`
	Bytes     int64         `json:"bytes" jsonschema:"required" jsonschema_description:"Size of the database."`
	Jobs      int           `json:"jobs" jsonschema:"required"`
	Revisions int           `json:"revisions" jsonschema:"required"`
	Trouble   string        `json:"trouble,omitempty" jsonschema_description:"What is the matter with the database, and what to do."`
	Backups   []KeptBackup  `json:"backups" jsonschema:"required" jsonschema_description:"In the data folder, the newest first."`
	Replica   *ReplicaState `json:"replica,omitempty" jsonschema_description:"The second copy of the jobs, where there is one."`
	Trial     *TrialState   `json:"trial,omitempty" jsonschema_description:"The last time that the newest backup was put back for a trial; left out before the first."`
	Throwaway bool          `json:"throwaway" jsonschema:"required" jsonschema_description:"A demo: gone when it stops."`
	Tidying   TidyingState  `json:"tidying" jsonschema:"required"`
}

// ReplicaState is how the second copy of the jobs is, as it was seen within the last
// few seconds.
type ReplicaState struct {
	At     string     `json:"at" jsonschema:"required"`
	Wrong  string     `json:"wrong,omitempty" jsonschema_description:"Why it takes nothing, and what to do."`
	Since  *time.Time `json:"since,omitempty" jsonschema_description:"Since when it is as it is."`
	Held   *time.Time `json:"held,omitempty" jsonschema_description:"When it last had all that was saved."`
	Behind bool       `json:"behind" jsonschema:"required" jsonschema_description:"Something that was saved is not there yet."`
}

// TrialState is a backup that was put back for a trial.
type TrialState struct {
	At     time.Time  `json:"at" jsonschema:"required"`
	Name   string     `json:"name" jsonschema:"required"`
	Jobs   int        `json:"jobs" jsonschema:"required"`
	Failed string     `json:"failed,omitempty"`
	Held   *time.Time `json:"held,omitempty" jsonschema_description:"When one was last put back well."`
}

// KeptBackup is one backup in the data folder.
type KeptBackup struct {
	Name  string    `json:"name" jsonschema:"required"`
	Why   string    `json:"why" jsonschema:"required"`
	At    time.Time `json:"at" jsonschema:"required"`
	Bytes int64     `json:"bytes" jsonschema:"required"`
}

// TidyingState is what goes by age next.
type TidyingState struct {
	On        bool       `json:"on" jsonschema:"required"`
	Due       *time.Time `json:"due,omitempty" jsonschema_description:"When it may go; left out before it is announced."`
	Revisions int        `json:"revisions" jsonschema:"required"`
	Jobs      int        `json:"jobs" jsonschema:"required" jsonschema_description:"From the bin."`
}

// TidyingRequest switches the tidying.
type TidyingRequest struct {
	On bool `json:"on" jsonschema:"required"`
}

// BackupRequest names a backup in the data folder.
type BackupRequest struct {
	Name string `json:"name" jsonschema:"required"`
}

// History is a page of a job's revisions, the newest first.
type History struct {
	Revisions []RevisionSummary `json:"revisions" jsonschema:"required"`
	More      bool              `json:"more" jsonschema:"required" jsonschema_description:"There are older ones: ask for those before the last of these."`
}

// CreateRequest makes a new job: from a document, or an empty one.
type CreateRequest struct {
	Name   string        `json:"name,omitempty"`
	System length.System `json:"system,omitempty" jsonschema:"enum=imperial,enum=metric"`
	Doc    Document      `json:"doc,omitempty"`
	What   string        `json:"what,omitempty"`

	Example int            `json:"example,omitempty" jsonschema_description:"A job that is there to try, counted from 1."`
	Answers *begin.Answers `json:"answers,omitempty" jsonschema_description:"What a customer says on the phone: the job is made of it."`
}

// Examples are jobs that are there to try.
type Examples struct {
	Names []string `json:"names" jsonschema:"required"`
}

// Fences are the fence types in one system of units, each with a small drawing.
type Fences struct {
	Fences  []begin.FenceType `json:"fences" jsonschema:"required"`
	Assumed length.Length     `json:"assumed" jsonschema:"required" jsonschema_description:"How long a run of no type is taken to be that nobody measured."`
}

// SaveRequest saves a document on top of the revision it was made from.
type SaveRequest struct {
	Base       int      `json:"base" jsonschema:"required"`
	Generation string   `json:"generation,omitempty" jsonschema_description:"Of the base revision. Where it is left out, the number alone says which is meant."`
	From       Document `json:"from,omitempty" jsonschema_description:"The document that the change was made to, where that is not the base revision's."`
	Doc        Document `json:"doc" jsonschema:"required"`
	What       string   `json:"what" jsonschema:"required"`
}

// EditRequest saves edits, by id, of the revision that they were made to.
type EditRequest struct {
	Base       int        `json:"base" jsonschema:"required"`
	Generation string     `json:"generation,omitempty" jsonschema_description:"Of the base revision."`
	Edits      []job.Edit `json:"edits" jsonschema:"required,maxItems=1000"`
	What       string     `json:"what" jsonschema:"required"`
}

// Saved is what came of edits: the revision, and what was edited besides.
type Saved struct {
	Revision   int        `json:"revision" jsonschema:"required"`
	Generation string     `json:"generation" jsonschema:"required"`
	SavedAt    time.Time  `json:"savedAt" jsonschema:"required"`
	CanUndo    bool       `json:"canUndo" jsonschema:"required"`
	CanRedo    bool       `json:"canRedo" jsonschema:"required"`
	Unknown    []string   `json:"unknown" jsonschema:"required"`
	Made       []job.Edit `json:"made" jsonschema:"required" jsonschema_description:"Edits that the server made on top: the names of posts."`
	State      *JobState  `json:"state,omitempty" jsonschema_description:"The whole job, where another window's change was saved first and this one was laid over it."`
}

// Head is which revision of a job is current.
type Head struct {
	Revision   int    `json:"revision" jsonschema:"required"`
	Generation string `json:"generation" jsonschema:"required"`
}

func (r SaveRequest) base() store.Base { return store.Base{Number: r.Base, Generation: r.Generation} }
func (r EditRequest) base() store.Base { return store.Base{Number: r.Base, Generation: r.Generation} }
func (r MoveRequest) base() store.Base { return store.Base{Number: r.Base, Generation: r.Generation} }

// MoveRequest goes to another revision from the one that the window shows.
type MoveRequest struct {
	Base       int    `json:"base" jsonschema:"required"`
	Generation string `json:"generation,omitempty" jsonschema_description:"Of the base revision."`
	Revision   int    `json:"revision,omitempty"`
}

// Problem is an error as the API reports it (RFC 9457).
type Problem struct {
	Title   string                `json:"title" jsonschema:"required"`
	Status  int                   `json:"status" jsonschema:"required"`
	Detail  string                `json:"detail" jsonschema:"required"`
	Fields  []document.FieldError `json:"fields,omitempty"`
	Ways    []document.Mend       `json:"ways,omitempty" jsonschema_description:"Ways out: edits on top of the change that was refused."`
	Clashes []document.Clash      `json:"clashes,omitempty" jsonschema_description:"Fields that another window changed to another value."`
	Merged  Document              `json:"merged,omitempty" jsonschema_description:"Both windows' changes, with theirs where they clash."`
	Current *JobState             `json:"current,omitempty" jsonschema_description:"The job as it stands, when a change was made against an older revision."`
}

// MethodChoice is a way to set a post, as it is chosen.
type MethodChoice struct {
	ID    job.Method `json:"id" jsonschema:"required"`
	Name  string     `json:"name" jsonschema:"required"`
	Done  string     `json:"done" jsonschema:"required" jsonschema_description:"As what was done: set ..."`
	Costs string     `json:"costs" jsonschema:"required" jsonschema_description:"What it gives and costs."`
	Hole  bool       `json:"hole" jsonschema:"required" jsonschema_description:"It sets a post in a hole."`
}

// Catalogue is what the interface offers for choosing.
type Catalogue struct {
	Bags     []materials.Bag      `json:"bags" jsonschema:"required"`
	Posts    []materials.PostSize `json:"posts" jsonschema:"required"`
	Runs     map[string]job.Run   `json:"runs" jsonschema:"required" jsonschema_description:"The usual run of each system, with every choice and measure that a document leaves out as the rules take it."`
	Gates    map[string]job.Gate  `json:"gates" jsonschema:"required" jsonschema_description:"The usual gate of each system."`
	Site     job.Site             `json:"site" jsonschema:"required" jsonschema_description:"What a document's site leaves out."`
	Book     job.Book             `json:"book" jsonschema:"required" jsonschema_description:"What a page of the field book leaves out."`
	Strings  []materials.String   `json:"strings" jsonschema:"required"`
	Services []materials.Service  `json:"services" jsonschema:"required"`
	Methods  []MethodChoice       `json:"methods" jsonschema:"required" jsonschema_description:"Ways to set a post."`

	Ways    map[string]map[string]job.Spacing `json:"ways" jsonschema:"required" jsonschema_description:"For each system and each way of spacing that goes by a piece: the piece that is usual, with its joints."`
	Choices map[string][]choice.Choice        `json:"choices" jsonschema:"required" jsonschema_description:"What fields are chosen from, by their place in a run, the site, a page of the field book or the rules for holes: spacing/way, site/exposure, books/allow, hole/share."`
	Sights  []job.Sight                       `json:"sights" jsonschema:"required" jsonschema_description:"Kinds of fact that are seen on site, and what belongs to each."`
	Rules   []choice.Rule                     `json:"rules" jsonschema:"required" jsonschema_description:"The rules for holes, in the order in which they are shown."`

	Systems    []materials.System        `json:"systems" jsonschema:"required" jsonschema_description:"Fence systems of both unit systems."`
	Soils      []materials.Soil          `json:"soils" jsonschema:"required"`
	Supply     materials.Supply          `json:"supply" jsonschema:"required"`
	Hardware   []materials.Hardware      `json:"hardware" jsonschema:"required" jsonschema_description:"Hinges and latches, of both unit systems."`
	Makes      []materials.Make          `json:"makes" jsonschema:"required" jsonschema_description:"Ways that gate leaves are made."`
	Sheets     []SheetKind               `json:"sheets" jsonschema:"required" jsonschema_description:"Sheets that can be printed, in their order."`
	Sets       []SheetSet                `json:"sets" jsonschema:"required" jsonschema_description:"Whom sheets go to."`
	Offers     []choice.Choice           `json:"offers" jsonschema:"required" jsonschema_description:"What customers ask about: fields of the job's offer, each included, not included or not said."`
	Marks      map[string][]float64      `json:"marks" jsonschema:"required" jsonschema_description:"The smallest marks of each system's tapes, in millimetres."`
	Tolerances map[string]job.Tolerances `json:"tolerances" jsonschema:"required" jsonschema_description:"By how much posts may usually differ from the plan, by unit system."`
	Todo       []choice.Choice           `json:"todo" jsonschema:"required" jsonschema_description:"What can be decided about something that differs, by short names."`
}

// Pages is how many pages a sheet has, and how large they are in millimetres.
type Pages struct {
	Count  int     `json:"count" jsonschema:"required"`
	Width  float64 `json:"width" jsonschema:"required"`
	Height float64 `json:"height" jsonschema:"required"`
}

// Printing is how far a print is, and in the end where to fetch it.
type Printing struct {
	Done  int    `json:"done,omitempty"`
	Of    int    `json:"of,omitempty"`
	Ready string `json:"ready,omitempty" jsonschema_description:"Token to fetch the file with."`
	Name  string `json:"name,omitempty"`

	Waiting bool `json:"waiting,omitempty" jsonschema_description:"Another file is being written first."`
}

// SheetKind is a kind of sheet that can be printed.
type SheetKind struct {
	ID    string `json:"id" jsonschema:"required"`
	Name  string `json:"name" jsonschema:"required"`
	Stage string `json:"stage" jsonschema:"required"`
	Of    string `json:"of" jsonschema:"required,enum=job,enum=run,enum=gate"`
}

// SheetSet is the sheets that go to one person.
type SheetSet struct {
	ID    string   `json:"id" jsonschema:"required"`
	Name  string   `json:"name" jsonschema:"required"`
	Says  string   `json:"says" jsonschema:"required" jsonschema_description:"What is in it, in words."`
	Kinds []string `json:"kinds" jsonschema:"required"`
}

// Help is what the stages are for and what the words mean.
type Help struct {
	Stages []help.Stage `json:"stages" jsonschema:"required"`
	Terms  []help.Term  `json:"terms" jsonschema:"required"`
}

// Places are what a sheet's code can mean: more than one where the ids of jobs
// begin alike.
type Places struct {
	Found []Found `json:"found" jsonschema:"required"`
}

// Found is a place in a job that a sheet's code means.
type Found struct {
	Name string `json:"name" jsonschema:"required" jsonschema_description:"Of the job."`
	Path string `json:"path" jsonschema:"required" jsonschema_description:"Address on this server."`
}

// Edits are what made a revision of the one before it.
type Edits struct {
	Known bool       `json:"known" jsonschema:"required" jsonschema_description:"Of the first revision, and of old ones, it is not known."`
	Edits []job.Edit `json:"edits" jsonschema:"required"`
}

// WalkRequest sends the simulated level along a line.
type WalkRequest struct {
	Doc   Document      `json:"doc" jsonschema:"required"`
	Line  string        `json:"line" jsonschema:"required" jsonschema_description:"The line, by its id."`
	Every length.Length `json:"every" jsonschema:"required" jsonschema_description:"From reading to reading."`
}

// WalkReading is one reading of a walk, sent as it is taken.
type WalkReading struct {
	Stop    survey.Stop   `json:"stop" jsonschema:"required"`
	Reading length.Length `json:"reading" jsonschema:"required"`
	Sight   length.Length `json:"sight" jsonschema:"required"`
	Number  int           `json:"number" jsonschema:"required"`
	Of      int           `json:"of" jsonschema:"required"`
	Row     int           `json:"row" jsonschema:"required" jsonschema_description:"Row of the field book's page that it stands in, from 0."`
	Entry   job.Reading   `json:"entry" jsonschema:"required" jsonschema_description:"That row, with this reading in it."`
}

// PegReading is one of the four readings of a two-peg test.
type PegReading struct {
	Name    string        `json:"name" jsonschema:"required,enum=midA,enum=midB,enum=endA,enum=endB"`
	Reading length.Length `json:"reading" jsonschema:"required"`
	Sight   length.Length `json:"sight" jsonschema:"required"`
}

// SkyRequest asks the simulated weather office for the days about the pour.
type SkyRequest struct {
	Doc  Document `json:"doc" jsonschema:"required"`
	Zone string   `json:"zone" jsonschema:"required,maxLength=80" jsonschema_description:"Time zone of the site, by its name in the zone database."`
	Day  string   `json:"day" jsonschema:"required" jsonschema_description:"Today, year-month-day: from then on where the pour has no day yet."`
}

// OfficeRequest goes to the simulated locating office.
type OfficeRequest struct {
	Doc Document `json:"doc" jsonschema:"required"`
	Day string   `json:"day" jsonschema:"required" jsonschema_description:"Today, year-month-day."`
}
