// Command generate writes what is derived from the Go types: the JSON Schemas
// in docs/, the schema that the front end's types are made from, and the
// printed lengths that the front end's tape notation is checked against.
// With -check it writes nothing and fails when a file has drifted.
package main

import (
	"bytes"
	"encoding/json"
	"flag"
	"fmt"
	"os"
	"reflect"

	"github.com/invopop/jsonschema"

	"mallow/core/bill"
	"mallow/core/calls"
	"mallow/core/footing"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/materials"
	"mallow/core/plan"
	"mallow/core/reason"
	"mallow/core/scene"
	"mallow/core/stage/days"
	"mallow/core/stage/pourday"
	"mallow/core/stage/record"
	"mallow/core/stringline"
	"mallow/core/survey"
	"mallow/core/words"
	"mallow/exchange"
	"mallow/help"
	"mallow/server"
)

// api gathers every type that crosses between server and front end.
type api struct {
	Job           job.Job              `json:"job"`
	Plan          plan.Plan            `json:"plan"`
	JobState      server.JobState      `json:"jobState"`
	JobList       server.JobList       `json:"jobList"`
	History       server.History       `json:"history"`
	CreateRequest server.CreateRequest `json:"createRequest"`
	Fences        server.Fences        `json:"fences"`
	Examples      server.Examples      `json:"examples"`
	SaveRequest   server.SaveRequest   `json:"saveRequest"`
	ReplanRequest calls.ReplanRequest  `json:"replanRequest"`
	Replanned     calls.Replanned      `json:"replanned"`
	DrawRequest   calls.DrawRequest    `json:"drawRequest"`
	Drawn         calls.Drawn          `json:"drawn"`
	TapeRequest   calls.TapeRequest    `json:"tapeRequest"`
	TableRequest  calls.TableRequest   `json:"tableRequest"`
	TableRows     calls.TableRows      `json:"tableRows"`
	EditRequest   server.EditRequest   `json:"editRequest"`
	Saved         server.Saved         `json:"saved"`
	Head          server.Head          `json:"head"`
	MoveRequest   server.MoveRequest   `json:"moveRequest"`
	Reading       calls.Reading        `json:"reading"`
	Problem       server.Problem       `json:"problem"`
	Catalogue     server.Catalogue     `json:"catalogue"`
	Edit          job.Edit             `json:"edit"`

	ReshapeRequest calls.ReshapeRequest   `json:"reshapeRequest"`
	Changed        calls.Changed          `json:"changed"`
	SquareRequest  calls.SquareRequest    `json:"squareRequest"`
	Squared        calls.Squared          `json:"squared"`
	PegRequest     calls.PegRequest       `json:"pegRequest"`
	PegTest        survey.PegTest         `json:"pegTest"`
	WalkRequest    server.WalkRequest     `json:"walkRequest"`
	WalkReading    server.WalkReading     `json:"walkReading"`
	PegReading     server.PegReading      `json:"pegReading"`
	OfficeRequest  server.OfficeRequest   `json:"officeRequest"`
	ImportRequest  exchange.ImportRequest `json:"importRequest"`
	ImportPreview  exchange.ImportPreview `json:"importPreview"`
	ExportRequest  exchange.ExportRequest `json:"exportRequest"`
	Exported       exchange.Exported      `json:"exported"`

	Told           plan.Told               `json:"told"`
	Bill           plan.Bill               `json:"bill"`
	BuildRequest   calls.BuildRequest      `json:"buildRequest"`
	Built          plan.Built              `json:"built"`
	SkyRequest     server.SkyRequest       `json:"skyRequest"`
	BoardLine      server.BoardLine        `json:"boardLine"`
	End            server.End              `json:"end"`
	WeatherRequest exchange.WeatherRequest `json:"weatherRequest"`
	WeatherRead    exchange.WeatherRead    `json:"weatherRead"`
	Schedule       days.Schedule           `json:"schedule"`
	PourDay        pourday.Day             `json:"pourDay"`
	Log            record.Log              `json:"log"`
	Usual          record.Usual            `json:"usual"`
	KeptPhotos     server.KeptPhotos       `json:"keptPhotos"`
	GaugeRequest   server.GaugeRequest     `json:"gaugeRequest"`
	Gauged         server.Gauged           `json:"gauged"`
	AmendRequest   calls.AmendRequest      `json:"amendRequest"`
	Amended        calls.Amended           `json:"amended"`
	Compared       calls.Compared          `json:"compared"`
	ExplainRequest calls.ExplainRequest    `json:"explainRequest"`
	Explained      calls.Explained         `json:"explained"`
	AdviseRequest  calls.AdviseRequest     `json:"adviseRequest"`
	Advised        plan.Advised            `json:"advised"`
	WaysRequest    calls.WaysRequest       `json:"waysRequest"`
	Ways           calls.Ways              `json:"ways"`

	AlternativesRequest calls.AlternativesRequest `json:"alternativesRequest"`
	Alternatives        calls.Alternatives        `json:"alternatives"`
	Looks               calls.Looks               `json:"looks"`
	Pages               server.Pages              `json:"pages"`
	Places              server.Places             `json:"places"`
	Help                server.Help               `json:"help"`
	Printing            server.Printing           `json:"printing"`
	Event               server.Event              `json:"event"`
	Keeping             server.Keeping            `json:"keeping"`
	BackupRequest       server.BackupRequest      `json:"backupRequest"`
	TidyingRequest      server.TidyingRequest     `json:"tidyingRequest"`
	PinRequest          server.PinRequest         `json:"pinRequest"`
}

func main() {
	check := flag.Bool("check", false, "fail when a file has drifted instead of writing it")
	flag.Parse()
	stale := false
	sources, err := rules()
	if err != nil {
		fmt.Fprintln(os.Stderr, "generate:", err)
		os.Exit(1)
	}
	for path, content := range map[string]any{
		"docs/job.schema.json":          schema(job.Job{}, "Mallow job document", true),
		"docs/plan.schema.json":         schema(plan.Plan{}, "Mallow plan document", false),
		"docs/systems.schema.json":      schema([]materials.System{}, "Mallow fence systems", false),
		"web/src/gen/api.schema.json":   schema(api{}, "Mallow API", false),
		"web/src/gen/tape.vectors.json": vectors(),
		"web/src/gen/spelling.json":     words.British,
		"docs/terms.md":                 help.Markdown(),
		"docs/rules.md":                 sources,
	} {
		drifted, err := put(path, content, *check)
		if err != nil {
			fmt.Fprintln(os.Stderr, "generate:", err)
			os.Exit(1)
		}
		stale = stale || drifted
	}
	if stale {
		fmt.Fprintln(os.Stderr, "generate: run make generate and commit what it writes")
		os.Exit(1)
	}
}

func put(path string, content any, check bool) (drifted bool, err error) {
	var b bytes.Buffer
	if text, ok := content.(string); ok {
		return same(path, []byte(text), check)
	}
	enc := json.NewEncoder(&b)
	enc.SetEscapeHTML(false)
	enc.SetIndent("", "  ")
	if err := enc.Encode(content); err != nil {
		return false, err
	}
	return same(path, b.Bytes(), check)
}

func same(path string, content []byte, check bool) (drifted bool, err error) {
	if !check {
		return false, os.WriteFile(path, content, 0o644)
	}
	have, err := os.ReadFile(path)
	if err != nil {
		return false, err
	}
	if !bytes.Equal(have, content) {
		fmt.Fprintln(os.Stderr, "generate:", path, "is not what the Go types say")
		return true, nil
	}
	return false, nil
}

func schema(of any, title string, open bool) *jsonschema.Schema {
	r := jsonschema.Reflector{
		AllowAdditionalProperties:  open, // a job's unknown fields are kept
		RequiredFromJSONSchemaTags: true,
		Mapper:                     mapped,
		Anonymous:                  true,
		Namer:                      named,
	}
	s := r.Reflect(of)
	s.Title = title
	return s
}

// named keeps apart types of different packages that have one name: what was
// measured and what is planned.
func named(t reflect.Type) string {
	switch t {
	case reflect.TypeFor[plan.Run](), reflect.TypeFor[plan.Post](), reflect.TypeFor[plan.Gate](), reflect.TypeFor[plan.Bay](), reflect.TypeFor[plan.Line](), reflect.TypeFor[plan.Corner]():
		return "Planned" + t.Name()
	case reflect.TypeFor[scene.Shape](), reflect.TypeFor[scene.Layer](), reflect.TypeFor[scene.Mark](), reflect.TypeFor[scene.Point]():
		return "Drawn" + t.Name()
	case reflect.TypeFor[plan.Card]():
		return "HoleCard"
	case reflect.TypeFor[footing.Layer]():
		return "HoleLayer"
	case reflect.TypeFor[footing.Cut]():
		return "HoleCut"
	case reflect.TypeFor[plan.Holes]():
		return "HoleCount"
	case reflect.TypeFor[job.Frost]():
		return "FrostEstimate"
	case reflect.TypeFor[reason.Setting]():
		return "RuleSetting"
	case reflect.TypeFor[job.Reading]():
		return "BookRow"
	case reflect.TypeFor[job.String]():
		return "StringChoice"
	case reflect.TypeFor[materials.Hardware]():
		return "HardwareSet"
	case reflect.TypeFor[materials.Make]():
		return "LeafMake"
	case reflect.TypeFor[materials.System]():
		return "CatalogueSystem"
	case reflect.TypeFor[job.System]():
		return "FenceSystem"
	case reflect.TypeFor[job.Part]():
		return "FencePart"
	case reflect.TypeFor[bill.Cut]():
		return "BarCut"
	case reflect.TypeFor[plan.Piece]():
		return "RailPiece"
	case reflect.TypeFor[plan.Mark]():
		return "SetOutMark"
	case reflect.TypeFor[plan.Pin]():
		return "TapePin"
	case reflect.TypeFor[materials.String]():
		return "StringKind"
	case reflect.TypeFor[stringline.Check]():
		return "SquareCheck"
	case reflect.TypeFor[job.Place]():
		return "EarthPlace"
	case reflect.TypeFor[exchange.Point]():
		return "FilePoint"
	case reflect.TypeFor[exchange.Bad]():
		return "BadRow"
	case reflect.TypeFor[survey.Place]():
		return "MapPlace"
	case reflect.TypeFor[survey.Point]():
		return "PlannedGround"
	}
	return t.Name()
}

// mapped gives types their schema where Go's own kind says too little.
func mapped(t reflect.Type) *jsonschema.Schema {
	switch t {
	case reflect.TypeFor[length.Length](), reflect.TypeFor[length.Volume](), reflect.TypeFor[length.Mass]():
		return &jsonschema.Schema{Type: "number"}
	case reflect.TypeFor[map[string]any]():
		return &jsonschema.Schema{Type: "object", AdditionalProperties: jsonschema.TrueSchema}
	case reflect.TypeFor[server.Document]():
		return &jsonschema.Schema{Ref: "#/$defs/Job"}
	}
	// A pointer without omitempty is null when there is no value.
	if t.Kind() == reflect.Pointer && t.Elem() == reflect.TypeFor[length.Length]() {
		return &jsonschema.Schema{Type: "number"}
	}
	return nil
}

// vectors are lengths with how the core prints them.
func vectors() any {
	type vector struct {
		System length.System `json:"system"`
		Mark   float64       `json:"mark"`
		Length float64       `json:"length"`
		Short  string        `json:"short"`
		Tape   string        `json:"tape"`
	}
	out := []vector{}
	for _, sys := range []length.System{length.Imperial, length.Metric} {
		for _, mark := range length.Marks(sys) {
			u := length.Units{System: sys, SmallestMark: mark}
			for _, l := range []float64{0, 0.5, 0.79375, 1.5875, -1.5875, 12.7, 38.1, 50.8, 304.8, -304.8, 914.4, 1517.65, 1523.9, 1524, 2355.6, 2438.4, 2603.5, 9999.4, 9999.5, 11347, 40081.2, -68.58, 12345.678} {
				out = append(out, vector{sys, float64(mark), l, u.Short(length.Length(l)), u.Tape(length.Length(l))})
			}
		}
	}
	return out
}
