package plan

import (
	"mallow/core/bill"
	"mallow/core/finding"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/reason"
	"mallow/core/stage"
	"mallow/core/stage/build"
	"mallow/core/stage/curbing"
	"mallow/core/stage/days"
	"mallow/core/stage/dig"
	"mallow/core/stage/gates"
	"mallow/core/stage/load"
	"mallow/core/stage/pourday"
	"mallow/core/stage/record"
	"mallow/core/stage/setout"
	"mallow/core/stage/slope"
	"mallow/core/stage/space"
	"mallow/core/stage/walk"
	"mallow/core/survey"
)

// Version is the version of the plan document.
const Version = 1

// Plan is everything that a job's measures and choices come to. Lengths are
// millimetres, volumes cubic metres, masses kilograms.
type Plan struct {
	Mallow   int               `json:"mallow" jsonschema:"required" jsonschema_description:"Version of the plan document."`
	Name     string            `json:"name" jsonschema:"required"`
	Units    length.Units      `json:"units" jsonschema:"required"`
	Lines    []walk.Line       `json:"lines" jsonschema:"required" jsonschema_description:"The fence lines on the map."`
	Runs     []Run             `json:"runs" jsonschema:"required" jsonschema_description:"All lines' runs, line after line."`
	Before   walk.Clearance    `json:"before" jsonschema:"required" jsonschema_description:"What must be settled before anything is dug."`
	Totals   load.Totals       `json:"totals" jsonschema:"required" jsonschema_description:"Totals of the job. Bags are rounded up once for the job."`
	Items    []bill.Item       `json:"items,omitempty" jsonschema_description:"The bill of the job, rounded up once; left out where only figures are asked for."`
	Pour     *pourday.Day      `json:"-"` // the day of the pour, where the plan is said
	Schedule *days.Schedule    `json:"-"` // the days of the work, likewise
	Log      *record.Log       `json:"-"` // what was done and found, likewise
	Findings []finding.Finding `json:"findings" jsonschema:"required"`
	Cautions []stage.Caution   `json:"cautions,omitempty" jsonschema_description:"What can hurt someone; left out where only figures are asked for."`
	Levels   *stage.RuleLevel  `json:"levels,omitempty" jsonschema_description:"The rules for holes as they come out for the whole job; left out likewise."`
	Rules    []reason.Step     `json:"rules,omitempty" jsonschema_description:"The rules that the reasons name, each once; left out likewise."`
	Reasons  []reason.Why      `json:"reasons,omitempty" jsonschema_description:"Explanations; the figures' why fields are places in this list; left out likewise."`
}

// Run is one planned run. Without a length it has no posts.
type Run struct {
	ID          string         `json:"id" jsonschema:"required"`
	Name        string         `json:"name" jsonschema:"required"`
	Path        string         `json:"path" jsonschema:"required" jsonschema_description:"JSON pointer of the run in the job document."`
	Line        string         `json:"line" jsonschema:"required" jsonschema_description:"Line that it is on."`
	Start       length.Length  `json:"start" jsonschema:"required" jsonschema_description:"Level distance along the line to its first post."`
	From        survey.Place   `json:"from" jsonschema:"required" jsonschema_description:"Its first post on the map."`
	To          survey.Place   `json:"to" jsonschema:"required" jsonschema_description:"Its last post on the map."`
	Bearing     float64        `json:"bearing" jsonschema:"required" jsonschema_description:"Degrees clockwise from the map's up."`
	Length      length.Length  `json:"length" jsonschema:"required" jsonschema_description:"Level, centre to centre of the end posts."`
	Correction  length.Length  `json:"correction,omitempty" jsonschema_description:"What reducing the slope tape to level took off."`
	Hollow      bool           `json:"hollow" jsonschema:"required" jsonschema_description:"Its posts are hollow: drawn as metal."`
	Type        string         `json:"type,omitempty" jsonschema_description:"Name of its fence type."`
	Face        job.Face       `json:"face,omitempty" jsonschema:"enum=boards,enum=slats,enum=pickets,enum=bars,enum=mesh,enum=sheet,enum=open" jsonschema_description:"What its bays look like, by its fence type."`
	SlopeLength length.Length  `json:"slopeLength" jsonschema:"required" jsonschema_description:"The same along the ground."`
	Frost       *length.Length `json:"frost,omitempty" jsonschema_description:"Frost depth; left out when it is not known."`

	Solid          float64           `json:"solid" jsonschema:"required" jsonschema_description:"Share of the fence's face that is solid and catches wind."`
	FrostEstimated bool              `json:"frostEstimated,omitempty" jsonschema_description:"It is an estimate, not the local office's figure."`
	Cards          []dig.Card        `json:"cards" jsonschema:"required" jsonschema_description:"Its holes, each kind once."`
	Levels         []stage.RuleLevel `json:"levels,omitempty" jsonschema_description:"The rules for holes as they come out for the run, for each kind of post, and for the single posts that have their own."`

	Measured     bool                `json:"measured" jsonschema:"required" jsonschema_description:"Some height of it was measured; else its ground is taken as level, or as its neighbours have it."`
	Ground       []survey.Point      `json:"ground" jsonschema:"required"`
	Finished     []survey.Point      `json:"finished,omitempty" jsonschema_description:"The ground as it will be, once the plan's cuts and fills are made; left out where it stays as it is."`
	InTheWay     []space.InTheWay    `json:"inTheWay" jsonschema:"required"`
	String       *setout.RunString   `json:"string,omitempty" jsonschema_description:"How its posts are lined up; left out without a length."`
	Reminders    []stage.Caution     `json:"reminders,omitempty" jsonschema_description:"What to keep in mind where its posts are lined up and set."`
	Segments     []space.Segment     `json:"segments" jsonschema:"required"`
	Posts        []dig.Post          `json:"posts" jsonschema:"required"`
	Bays         []slope.Bay         `json:"bays" jsonschema:"required"`
	LooksRefused map[job.Look]string `json:"looksRefused" jsonschema:"required" jsonschema_description:"Looks that its panels cannot have, and why."`
	Way          job.Way             `json:"way" jsonschema:"required,enum=equal,enum=panels between,enum=panels on faces,enum=module,enum=stock rails,enum=overlapping rails"`
	Rails        []slope.RailRow     `json:"rails" jsonschema:"required" jsonschema_description:"Where every rail is broken; empty where rails are not laid on stock lengths."`
	SetOut       *setout.SetOut      `json:"setOut,omitempty" jsonschema_description:"How its posts are marked on the ground; left out without a length."`
	TopLine      *setout.TopLine     `json:"topLine,omitempty" jsonschema_description:"How its tops are brought to height; left out without a length."`
	Gates        []gates.Gate        `json:"gates" jsonschema:"required"`
	AddGate      []space.NewGate     `json:"addGate,omitempty" jsonschema_description:"Gates that can be put into it, and where each would go."`
	Totals       load.Totals         `json:"totals" jsonschema:"required" jsonschema_description:"Totals of the run. Bags are rounded up once for the run."`
	Items        []bill.Item         `json:"items,omitempty" jsonschema_description:"The bill of the run by itself; left out where only figures are asked for."`
	Curb         *curbing.CurbPlan   `json:"curb,omitempty" jsonschema_description:"Mowing curb; left out where there is none."`
	Built        *build.Build        `json:"-"` // what stands above ground
	Parts        map[string]any      `json:"parts,omitempty" jsonschema_description:"Of the stages that stand on the finished run, by their names."`
}

// Beside is a place on the map: a station of the run, and so many millimetres to the left
// of its line.
func (r *Run) Beside(at length.Length, left float64) survey.Place {
	if r.Length <= 0 {
		return r.From
	}
	ux, uy := float64((r.To.X-r.From.X)/r.Length), float64((r.To.Y-r.From.Y)/r.Length)
	return survey.Place{X: r.From.X + length.Length(ux*float64(at)-uy*left), Y: r.From.Y + length.Length(uy*float64(at)+ux*left)}
}
