package exchange

import (
	"bytes"
	"encoding/csv"
	"encoding/json"
	"encoding/xml"
	"fmt"
	"strconv"
	"strings"

	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/plan"
	"mallow/core/survey"
)

// Written is a file that was made.
type Written struct {
	Name string
	Type string // media type
	Data []byte
}

// along is one ground point of a line, on the map.
type along struct {
	run     string
	station length.Length
	at      survey.Place
	height  *length.Length // nil where the ground was not measured
	corner  bool
}

// walk lists a planned line's corners and ground points from one end to the
// other; a corner that two runs share stands once, as the start of the second.
func walk(p plan.Plan, line int) []along {
	l := p.Lines[line]
	runs := p.Runs[l.First : l.First+l.Runs]
	var out []along
	for r, run := range runs {
		for i, g := range run.Ground {
			end := i == len(run.Ground)-1
			if end && r < len(runs)-1 {
				continue
			}
			part := 0.0
			if run.Length > 0 {
				part = float64(g.At / run.Length)
			}
			a := along{run: run.ID, station: g.At, at: run.From.Towards(run.To, part), corner: i == 0 || end}
			if h := g.Height; run.Measured {
				a.height = &h
			}
			out = append(out, a)
		}
	}
	return out
}

// LineCSV writes a line's corners and ground points as x, y and height, in
// metres or feet.
func LineCSV(p plan.Plan, line int) (Written, error) {
	unit, per := Metres, length.Metre
	if p.Units.System == length.Imperial {
		unit, per = Feet, length.Foot
	}
	number := func(l length.Length) string { return strconv.FormatFloat(float64(l/per), 'f', 7, 64) }
	rows := [][]string{{"x_" + string(unit), "y_" + string(unit), "height_" + string(unit), "run", "station_" + string(unit), "point"}}
	for _, a := range walk(p, line) {
		height, point := "", "ground"
		if a.height != nil {
			height = number(*a.height)
		}
		if a.corner {
			point = "corner"
		}
		rows = append(rows, []string{number(a.at.X), number(a.at.Y), height, a.run, number(a.station), point})
	}
	return table("line.csv", rows, len(rows) > 2)
}

// RunCSV writes a run's ground as station and height.
func RunCSV(p plan.Plan, run int) (Written, error) {
	unit, per := Metres, length.Metre
	if p.Units.System == length.Imperial {
		unit, per = Feet, length.Foot
	}
	rows := [][]string{{"station_" + string(unit), "height_" + string(unit)}}
	for _, g := range p.Runs[run].Ground {
		rows = append(rows, []string{strconv.FormatFloat(float64(g.At/per), 'f', 7, 64), strconv.FormatFloat(float64(g.Height/per), 'f', 7, 64)})
	}
	return table("ground.csv", rows, len(rows) > 1)
}

// Guarded keeps a cell from being taken for a formula by a spreadsheet. Plain
// numbers stay numbers, whatever their sign.
func Guarded(cell string) string {
	if cell == "" || !strings.ContainsRune("=+-@\t\r\n", rune(cell[0])) {
		return cell
	}
	if _, err := strconv.ParseFloat(cell, 64); err == nil && cell[0] == '-' && cell[len(cell)-1] <= '9' {
		return cell
	}
	return "'" + cell
}

// table writes every CSV file.
func table(name string, rows [][]string, any bool) (Written, error) {
	if !any {
		return Written{}, Refuse("Nothing is measured yet that could be written.")
	}
	var b bytes.Buffer
	safe := make([][]string, len(rows))
	for i, row := range rows {
		safe[i] = make([]string, len(row))
		for k, cell := range row {
			safe[i][k] = Guarded(cell)
		}
	}
	if err := csv.NewWriter(&b).WriteAll(safe); err != nil {
		return Written{}, err
	}
	return Written{name, "text/csv; charset=utf-8", b.Bytes()}, nil
}

// onEarth gives a line's points their places on earth.
func onEarth(p plan.Plan, j job.Job, line int) ([]along, func(survey.Place) job.Place, error) {
	if j.Site.Place == nil || j.Lines[line].Bearing == nil {
		return nil, nil, Refuse("Where the line lies on earth is not known. Enter the place of the map's zero and the bearing of the line's first run, or write CSV.")
	}
	points := walk(p, line)
	if len(points) < 2 {
		return nil, nil, Refuse("Nothing is measured yet that could be written.")
	}
	frame := around(*j.Site.Place)
	return points, func(at survey.Place) job.Place { return frame.place(at.X.Metres(), at.Y.Metres()) }, nil
}

const degreeDigits = 11 // a thousandth of a millimetre

type gpxFile struct {
	XMLName xml.Name `xml:"gpx"`
	Version string   `xml:"version,attr"`
	Creator string   `xml:"creator,attr"`
	Space   string   `xml:"xmlns,attr"`
	Track   gpxTrack `xml:"trk"`
}

type gpxTrack struct {
	Name   string     `xml:"name"`
	Points []gpxPoint `xml:"trkseg>trkpt"`
}

// LineGPX writes a line as a GPX 1.1 track.
func LineGPX(p plan.Plan, j job.Job, line int) (Written, error) {
	points, placed, err := onEarth(p, j, line)
	if err != nil {
		return Written{}, err
	}
	f := gpxFile{Version: "1.1", Creator: "Mallow", Space: "http://www.topografix.com/GPX/1/1", Track: gpxTrack{Name: lineName(p, line)}}
	for _, a := range points {
		at := placed(a.at)
		g := gpxPoint{Lat: degrees(at.Latitude), Lon: degrees(at.Longitude)}
		if a.height != nil {
			g.Ele = strconv.FormatFloat(a.height.Metres(), 'f', 6, 64)
		}
		if a.corner {
			g.Type = "corner"
		}
		f.Track.Points = append(f.Track.Points, g)
	}
	data, err := xml.MarshalIndent(f, "", " ")
	return Written{"line.gpx", "application/gpx+xml", append([]byte(xml.Header), append(data, '\n')...)}, err
}

func degrees(d float64) string { return strconv.FormatFloat(d, 'f', degreeDigits, 64) }

func lineName(p plan.Plan, line int) string {
	if n := p.Lines[line].Name; n != "" {
		return p.Name + ", " + n
	}
	return p.Name
}

// LineGeoJSON writes a line, and its posts as points, as GeoJSON (RFC 7946).
func LineGeoJSON(p plan.Plan, j job.Job, line int) (Written, error) {
	points, placed, err := onEarth(p, j, line)
	if err != nil {
		return Written{}, err
	}
	coordinate := func(at job.Place, height *length.Length) []json.Number {
		out := []json.Number{json.Number(degrees(at.Longitude)), json.Number(degrees(at.Latitude))}
		if height != nil {
			out = append(out, json.Number(strconv.FormatFloat(height.Metres(), 'f', 6, 64)))
		}
		return out
	}
	type object map[string]any
	var positions [][]json.Number
	corners := []int{}
	for i, a := range points {
		positions = append(positions, coordinate(placed(a.at), a.height))
		if a.corner {
			corners = append(corners, i)
		}
	}
	features := []object{{"type": "Feature", "properties": object{"name": lineName(p, line), "corners": corners},
		"geometry": object{"type": "LineString", "coordinates": positions}}}
	for _, run := range p.Runs[p.Lines[line].First : p.Lines[line].First+p.Lines[line].Runs] {
		for i := range run.Posts {
			post := &run.Posts[i]
			if post.Shared != "" {
				continue
			}
			where := placed(run.From.Towards(run.To, float64(post.Station/run.Length)))
			features = append(features, object{"type": "Feature",
				"properties": object{"name": fmt.Sprintf("%s %s", run.ID, post.Label), "point": "post", "kind": post.Kind},
				"geometry":   object{"type": "Point", "coordinates": coordinate(where, nil)}})
		}
	}
	data, err := json.MarshalIndent(object{"type": "FeatureCollection", "features": features}, "", " ")
	return Written{"line.geojson", "application/geo+json", append(data, '\n')}, err
}
