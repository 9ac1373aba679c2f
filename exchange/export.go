package exchange

import (
	"encoding/xml"
	"errors"
	"fmt"
	"slices"
	"strings"
	"unicode"

	"mallow/core/job"
	"mallow/core/plan"
	"mallow/core/report"
	"mallow/core/scene"
	"mallow/core/stage"
)

// Want is one file that is wanted of a job.
type Want struct {
	What string // dxf, svg, gpx, waypoints, geojson, csv, json, ground of one run, or a table of report
	Run  string // id of the run; "" is all of them, or the first where there can be one only
	Line int    // place of the line among the job's
	View string // dxf, svg: map or elevation
}

// Table writes one of the tables: of one run, or of all of them where none is
// named.
func (s Source) table(w Want, run int) (Written, error) {
	t, ok := report.All(s.Plan, w.What)
	if w.Run != "" {
		t, ok = report.Of(s.Plan, w.What, run)
	}
	if !ok {
		return Written{}, Refuse("There is no table of %q.", w.What)
	}
	out, err := TableCSV(t)
	if err == nil {
		out.Name = s.Name(w, t.Name, "csv")
	}
	return out, err
}

// Source is a job with its plan and its document as it is kept.
type Source struct {
	Job      job.Job
	Plan     plan.Plan
	Doc      []byte
	Revision int // of the document; 0 where there is none
}

// Export writes one file, unless stop, which may be nil, says to give up.
func (s Source) Export(w Want, stop func() error) (Written, error) {
	if w.What == "json" { // the document is there whether it can be planned or not
		return Written{s.Name(w, "job", "json"), "application/json", s.Doc}, nil
	}
	run, err := s.At(w)
	if err != nil {
		return Written{}, err
	}
	var out Written
	if slices.Contains(report.Whole(), w.What) {
		return s.table(w, run)
	}
	switch w.What {
	case "ground":
		if out, err = RunCSV(s.Plan, run); err == nil {
			out.Name = s.Name(w, strings.TrimSuffix(out.Name, ".csv"), "csv")
		}
		return out, err
	case "dxf", "svg":
		return s.drawn(w, run, stop)
	case "csv":
		out, err = LineCSV(s.Plan, w.Line)
	case "gpx":
		out, err = LineGPX(s.Plan, s.Job, w.Line)
	case "waypoints":
		out, err = s.waypoints()
	case "geojson":
		if w.View == "asbuilt" {
			if out, err = AsBuiltGeoJSON(s.Plan, s.Job, w.Line); err == nil {
				out.Name = s.Name(w, "as built", "geojson")
			}
			return out, err
		}
		out, err = LineGeoJSON(s.Plan, s.Job, w.Line)
	default:
		return Written{}, Refuse("%q is no export; there are pdf, xlsx, dxf, svg, json, csv, gpx, waypoints, geojson, ground, and the tables %s.", w.What, strings.Join(report.Whole(), ", "))
	}
	if err == nil {
		what := map[string]string{"csv": "line", "gpx": "line", "waypoints": "posts", "geojson": "line"}[w.What]
		ending := w.What
		if ending == "waypoints" {
			ending = "gpx"
		}
		out.Name = s.Name(w, what, ending)
	}
	return out, err
}

// At is the place of the wanted run among the plan's, or of the first where
// none is named.
func (s Source) At(w Want) (int, error) {
	if w.Line < 0 || w.Line >= len(s.Plan.Lines) {
		return 0, Refuse("There is no line %d; the job has %d.", w.Line+1, len(s.Plan.Lines))
	}
	if w.Run == "" {
		return 0, nil
	}
	if i := slices.IndexFunc(s.Plan.Runs, func(r plan.Run) bool { return r.ID == w.Run }); i >= 0 {
		return i, nil
	}
	return 0, Refuse("There is no run %q in this job.", w.Run)
}

func (s Source) drawn(w Want, run int, stop func() error) (Written, error) {
	view := w.View
	if view == "" {
		view = "elevation"
	}
	v := scene.View{Run: s.Plan.Runs[run].ID, Stress: scene.OnPaper}
	switch view {
	case "map":
		v.Of = scene.OfMap
	case "asbuilt":
		v.Of, v.Stress = scene.OfMap, scene.AsBuilt
	case "strips":
		v.Of = scene.OfStrips
		if w.Run == "" {
			w.Run = v.Run
		}
	case "elevation":
		v.Of = scene.OfElevation
		if w.Run == "" {
			w.Run = v.Run
		}
	default:
		return Written{}, Refuse("%q is no view; there are elevation, map, asbuilt and strips.", view)
	}
	var pic scene.Drawing
	var err error
	watch := stage.NewWatch(stop)
	if stopped := stage.Until(func() { pic, err = scene.FullSize(s.Plan, v, scene.Type(scene.Screen).Asking(watch.Look)) }); stopped != nil || err != nil {
		return Written{}, errors.Join(stopped, err)
	}
	if pic.Empty() {
		return Written{}, Refuse("Nothing is measured yet that could be drawn.")
	}
	if view == "map" || view == "asbuilt" {
		w.Run = ""
	}
	name := s.Name(w, view, w.What)
	if w.What == "dxf" {
		return DXF(name, pic, s.Plan.Units), nil
	}
	return SVG(name, pic, s.Plan.Units), nil
}

// Name is a file's name: job, run, what it is, and revision.
func (s Source) Name(w Want, what, ending string) string {
	parts := []string{clean(s.Plan.Name)}
	for _, r := range s.Plan.Runs {
		if r.ID == w.Run {
			parts = append(parts, clean(runName(r)))
		}
	}
	parts = append(parts, clean(what))
	if s.Revision > 0 {
		parts = append(parts, fmt.Sprintf("r%d", s.Revision))
	}
	return strings.Join(parts, " - ") + "." + ending
}

// clean keeps letters and digits of any script, and what no file system
// minds.
func clean(s string) string {
	out := strings.Map(func(r rune) rune {
		switch {
		case unicode.IsLetter(r), unicode.IsDigit(r), unicode.IsMark(r), r == ' ', r == '-', r == '_', r == '.', r == ',', r == '(', r == ')':
			return r
		case unicode.IsSpace(r):
			return ' '
		}
		return '-'
	}, s)
	out = strings.Trim(strings.Join(strings.Fields(out), " "), ". -")
	if runes := []rune(out); len(runes) > 80 {
		out = string(runes[:80])
	}
	if out == "" {
		return "job"
	}
	return out
}

type waypointFile struct {
	XMLName xml.Name   `xml:"gpx"`
	Version string     `xml:"version,attr"`
	Creator string     `xml:"creator,attr"`
	Space   string     `xml:"xmlns,attr"`
	Points  []gpxPoint `xml:"wpt"`
}

// waypoints writes every post as a GPX waypoint, where the lines have a place
// on earth.
func (s Source) waypoints() (Written, error) {
	f := waypointFile{Version: "1.1", Creator: "Mallow", Space: "http://www.topografix.com/GPX/1/1"}
	for l, line := range s.Plan.Lines {
		_, placed, err := onEarth(s.Plan, s.Job, l)
		if err != nil {
			return Written{}, err
		}
		for _, r := range s.Plan.Runs[line.First : line.First+line.Runs] {
			for i := range r.Posts {
				p := &r.Posts[i]
				if p.Shared != "" {
					continue
				}
				at := placed(r.From.Towards(r.To, float64(p.Station/r.Length)))
				f.Points = append(f.Points, gpxPoint{Lat: degrees(at.Latitude), Lon: degrees(at.Longitude), Name: runName(r) + " " + p.Label, Type: string(p.Kind) + " post"})
			}
		}
	}
	data, err := xml.MarshalIndent(f, "", " ")
	return Written{"posts.gpx", "application/gpx+xml", append([]byte(xml.Header), append(data, '\n')...)}, err
}
