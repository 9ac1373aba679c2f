package exchange

import (
	"errors"
	"fmt"
	"slices"
	"strconv"

	"mallow/core/calls"
	"mallow/core/document"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/plan"
	"mallow/core/survey"
)

// Calls are the files that can be asked for by a call, where the core runs: a
// file's points taken into a job, and a job written as a file.
func Calls() map[string]calls.Answer {
	return map[string]calls.Answer{"import": calls.Asked(taken), "export": calls.Asked(exported), "weather": calls.Asked(weatherTaken)}
}

// ImportRequest is a file to be looked at.
type ImportRequest struct {
	Doc     calls.Document `json:"doc" jsonschema:"required"`
	Name    string         `json:"name" jsonschema:"required"`
	Text    string         `json:"text" jsonschema:"required"`
	Line    string         `json:"line" jsonschema:"required" jsonschema_description:"Line, by its id, whose fence the new runs are built like, and which is replaced if asked."`
	Replace bool           `json:"replace" jsonschema:"required"`
	Run     string         `json:"run,omitempty" jsonschema_description:"Run that heights at stations belong to."`
	Unit    Unit           `json:"unit,omitempty" jsonschema:"enum=m,enum=mm,enum=ft,enum=in"`
	Off     length.Length  `json:"off" jsonschema:"required" jsonschema_description:"How far off a straight run points may lie."`
	Thin    length.Length  `json:"thin" jsonschema:"required" jsonschema_description:"Ground points that matter less are left out."`
}

// ImportPreview is what was understood, and what it would make.
type ImportPreview struct {
	Found
	Count   int               `json:"count" jsonschema:"required" jsonschema_description:"Points that can be used; the list of points holds the first dozen."`
	Notes   []string          `json:"notes,omitempty"`
	Places  []survey.Place    `json:"places" jsonschema:"required" jsonschema_description:"Corners of the line it makes."`
	Lengths []length.Length   `json:"lengths,omitempty" jsonschema_description:"Of its runs."`
	Closed  bool              `json:"closed" jsonschema:"required"`
	Ground  []job.GroundPoint `json:"ground" jsonschema:"required" jsonschema_description:"Of a profile."`
	Kept    int               `json:"kept" jsonschema:"required" jsonschema_description:"Ground points."`
	Problem string            `json:"problem,omitempty" jsonschema_description:"Why it cannot be taken in as it is."`
	What    string            `json:"what" jsonschema:"required"`
	Doc     calls.Document    `json:"doc,omitempty" jsonschema_description:"The job with it taken in; left out when it cannot be."`
}

// ExportRequest asks for a file of a document.
type ExportRequest struct {
	Doc      calls.Document `json:"doc" jsonschema:"required"`
	What     string         `json:"what" jsonschema:"required" jsonschema_description:"dxf, svg, gpx, waypoints, geojson, csv, json, ground of one run, or a table."`
	Run      string         `json:"run,omitempty"`
	Line     int            `json:"line" jsonschema:"required,minimum=0"`
	View     string         `json:"view,omitempty" jsonschema:"enum=elevation,enum=map,enum=asbuilt,enum=strips"`
	Revision int            `json:"revision" jsonschema:"required,minimum=0" jsonschema_description:"For the file's name; 0 where the document is not kept as it is."`
}

// Exported is a file.
type Exported struct {
	Name string `json:"name" jsonschema:"required"`
	Type string `json:"type" jsonschema:"required"`
	Text string `json:"text" jsonschema:"required"`
}

func exported(c *calls.Core, stop func() error, req ExportRequest) (any, error) {
	o, err := document.Open(req.Doc, c.Catalog)
	if err != nil {
		return nil, err
	}
	p, err := plan.Worded(stop, o.Job, c.Catalog)
	if err != nil {
		return nil, err
	}
	file, err := Source{o.Job, p, o.Doc, req.Revision}.Export(Want{req.What, req.Run, req.Line, req.View}, stop)
	return Exported{file.Name, file.Type, string(file.Data)}, err
}

// taken reads a file and shows what it would make of the job. Nothing is kept;
// whoever asked saves the document if it is taken.
func taken(c *calls.Core, _ func() error, req ImportRequest) (any, error) {
	j, _, err := document.Decode(req.Doc, c.Catalog)
	if err != nil {
		return nil, err
	}
	found, err := Read(req.Name, []byte(req.Text), Options{Unit: req.Unit, System: j.Units.System, Origin: j.Site.Place})
	if err != nil {
		return nil, err
	}
	out := ImportPreview{Found: found, Places: []survey.Place{}, Ground: []job.GroundPoint{}}
	if req.Off <= 0 {
		req.Off = 150
	}
	if err := build(j, req, &out); err != nil {
		var file FileError
		if !errors.As(err, &file) {
			return nil, err
		}
		out.Problem = file.Why
	}
	if out.Problem == "" {
		if _, _, err := document.Decode(out.Doc, c.Catalog); err != nil {
			out.Problem, out.Doc = err.Error(), nil
		}
	}
	// The points are many and are drawn, not listed: the places suffice.
	out.Points, out.Count = out.Points[:min(len(out.Points), 12)], len(found.Points)
	return out, nil
}

// build makes the changed document of what was found.
func build(j job.Job, req ImportRequest, out *ImportPreview) error {
	if out.Shape == Profile {
		return buildGround(j, req, out)
	}
	at := slices.IndexFunc(j.Lines, func(l job.Line) bool { return l.ID == req.Line })
	if at < 0 {
		return FileError{Why: fmt.Sprintf("There is no line %q; the job has %d.", req.Line, len(j.Lines))}
	}
	taken := map[string]bool{}
	for l, line := range j.Lines {
		for _, r := range line.Runs {
			taken[r.ID] = taken[r.ID] || !(req.Replace && l == at)
		}
	}
	n := 0
	built, err := out.Line(Build{Off: req.Off, Thin: req.Thin, Like: j.Lines[at].Runs[0], ID: func() string {
		for n++; taken["R"+strconv.Itoa(n)]; n++ {
		}
		return "R" + strconv.Itoa(n)
	}})
	if err != nil {
		return err
	}
	lines := append([]job.Line(nil), j.Lines...)
	line := built.Line
	if req.Replace {
		old := lines[at]
		line.ID, line.Name = old.ID, old.Name
		lines[at] = line
		out.What = "Line read from " + req.Name
	} else {
		line.ID, line.Name = freshLine(lines), req.Name
		if r := []rune(line.Name); len(r) > 100 {
			line.Name = string(r[:100])
		}
		lines = append(lines, line)
		out.What = "A line added from " + req.Name
	}
	out.Notes = built.Notes
	for _, r := range line.Runs {
		out.Lengths = append(out.Lengths, *r.Length)
	}
	out.Closed, out.Kept = line.Closed, built.Kept
	for _, i := range built.Corners {
		out.Places = append(out.Places, survey.Place{X: out.Points[i].X, Y: out.Points[i].Y})
	}
	if out.Doc, err = document.ReplaceLines(req.Doc, lines, nil); err != nil || out.Origin == nil || j.Site.Place != nil {
		return err
	}
	out.Notes = append(out.Notes, "The map's zero is put at the first point")
	out.Doc, err = document.Apply(out.Doc, []job.Edit{job.Set("/site/place", *out.Origin)})
	return err
}

func freshLine(lines []job.Line) string {
	for n := 1; ; n++ {
		id, taken := "L"+strconv.Itoa(n), false
		for _, l := range lines {
			taken = taken || l.ID == id
		}
		if !taken {
			return id
		}
	}
}

func buildGround(j job.Job, req ImportRequest, out *ImportPreview) error {
	for _, line := range j.Lines {
		for _, run := range line.Runs {
			if run.ID != req.Run {
				continue
			}
			last := out.Points[max(0, len(out.Points)-1)].X
			edits := []job.Edit{}
			span := run.Length
			if span == nil {
				if last < 300 {
					return FileError{Why: "The run has no length yet, and the file's last station is too short to be it."}
				}
				span = &last
				edits = append(edits, job.Set(job.At("/lines", line.ID, "runs", run.ID, "length"), last))
				out.Notes = append(out.Notes, "The run had no length: the last station is taken, "+j.Units.Tape(last))
			}
			ground, notes, err := out.Found.Ground(*span)
			if err != nil {
				return err
			}
			out.Notes, out.Ground, out.Kept = append(out.Notes, notes...), ground, len(ground)
			out.What = "Ground read from " + req.Name
			out.Doc, err = document.Apply(req.Doc, append(edits, job.Set(job.At("/lines", line.ID, "runs", run.ID, "ground"), ground)))
			return err
		}
	}
	return FileError{Why: "Pick the run whose ground this is."}
}
