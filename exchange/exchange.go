// Package exchange reads and writes fence lines in open formats: CSV, GPX and
// GeoJSON.
//
// Reading has two steps, so that what was understood can be shown before
// anything changes: Read turns a file into points, with the rows that it
// could not use; Found.Line and Found.Profile turn points into runs.
package exchange

import (
	"fmt"
	"path"
	"strings"

	"mallow/core/job"
	"mallow/core/length"
)

// Format is a file format.
type Format string

// The formats.
const (
	CSV     Format = "csv"
	GPX     Format = "gpx"
	GeoJSON Format = "geojson"
)

// Shape is what a file's points are.
type Shape string

// Shapes.
const (
	Profile Shape = "profile" // heights at stations along one run
	Plan    Shape = "plan"    // places on the map, with or without heights
)

// MostPoints bounds what one file may ask of the machine.
const MostPoints = 20000

// mostBad is how many unusable rows are listed one by one.
const mostBad = 200

// Point is one point of a file.
type Point struct {
	Row    int            `json:"row" jsonschema:"required" jsonschema_description:"Line of the file, from 1."`
	X      length.Length  `json:"x" jsonschema:"required" jsonschema_description:"On the map, east; of a profile, the station."`
	Y      length.Length  `json:"y" jsonschema:"required" jsonschema_description:"On the map, north."`
	Height *length.Length `json:"height,omitempty"`
	Corner bool           `json:"corner,omitempty" jsonschema_description:"The file says that it is a corner."`
	Name   string         `json:"name,omitempty"`

	place job.Place // geographic files, until they are projected
}

// Bad is a row that could not be used.
type Bad struct {
	Row  int    `json:"row" jsonschema:"required" jsonschema_description:"Line of the file, from 1."`
	Text string `json:"text" jsonschema:"required"`
	Why  string `json:"why" jsonschema:"required"`
}

// Found is what a file holds.
type Found struct {
	Format     Format     `json:"format" jsonschema:"required,enum=csv,enum=gpx,enum=geojson"`
	Shape      Shape      `json:"shape" jsonschema:"required,enum=profile,enum=plan"`
	Origin     *job.Place `json:"origin,omitempty" jsonschema_description:"Place that the map's zero is, of geographic points."`
	Understood []string   `json:"understood" jsonschema:"required" jsonschema_description:"How the file was read, for people."`
	Points     []Point    `json:"points" jsonschema:"required"`
	Bad        []Bad      `json:"bad" jsonschema:"required" jsonschema_description:"Rows that could not be used; the first 200."`
	BadCount   int        `json:"badCount" jsonschema:"required"`
}

// Options say how to read what a file leaves open.
type Options struct {
	Unit   Unit          // of a CSV's bare numbers; empty: what the columns say, or the system's
	System length.System // of the job
	Origin *job.Place    // where on earth the map's zero lies, if that is settled
}

// Unit is a unit of length in a CSV file.
type Unit string

// Units of a CSV file.
const (
	Metres      Unit = "m"
	Millimetres Unit = "mm"
	Feet        Unit = "ft"
	Inches      Unit = "in"
)

var unitLengths = map[Unit]length.Length{Metres: length.Metre, Millimetres: length.Millimetre, Feet: length.Foot, Inches: length.Inch}

var unitNames = map[Unit]string{Metres: "metres", Millimetres: "millimetres", Feet: "feet", Inches: "inches"}

// FileError says why a whole file cannot be used.
type FileError struct{ Why string }

func (e FileError) Error() string { return e.Why }

// Unusable tells whoever asked by a call.
func (e FileError) Unusable() string { return e.Why }

// Refuse is why a file cannot be used or made.
func Refuse(format string, parts ...any) error { return FileError{fmt.Sprintf(format, parts...)} }

// Read reads a file. Its format is told by its name's ending, or else by how
// it begins.
func Read(name string, data []byte, opt Options) (Found, error) {
	data = []byte(strings.TrimPrefix(string(data), "\ufeff"))
	if len(strings.TrimSpace(string(data))) == 0 {
		return Found{}, Refuse("The file is empty.")
	}
	f := Found{Format: formatOf(name, data), Understood: []string{}, Points: []Point{}, Bad: []Bad{}}
	var err error
	switch f.Format {
	case GPX:
		err = f.readGPX(data)
	case GeoJSON:
		err = f.readGeoJSON(data)
	default:
		err = f.readCSV(data, opt)
	}
	if err != nil {
		return Found{}, err
	}
	if len(f.Points) > MostPoints {
		return Found{}, Refuse("The file has %d points; at most %d are read. Thin the track out, or send it in parts.", len(f.Points), MostPoints)
	}
	if f.Format != CSV || f.Origin != nil {
		err = f.project(opt.Origin)
	}
	return f, err
}

func formatOf(name string, data []byte) Format {
	switch strings.ToLower(path.Ext(name)) {
	case ".csv", ".txt", ".tsv":
		return CSV
	case ".gpx":
		return GPX
	case ".geojson", ".json":
		return GeoJSON
	}
	switch strings.TrimSpace(string(data[:min(len(data), 512)]))[0] {
	case '<':
		return GPX
	case '{':
		return GeoJSON
	}
	return CSV
}

func (f *Found) note(format string, parts ...any) {
	f.Understood = append(f.Understood, fmt.Sprintf(format, parts...))
}

func (f *Found) bad(row int, text, format string, parts ...any) {
	f.BadCount++
	if len(f.Bad) >= mostBad {
		return
	}
	if r := []rune(text); len(r) > 80 {
		text = string(r[:80]) + "…"
	}
	f.Bad = append(f.Bad, Bad{row, text, fmt.Sprintf(format, parts...)})
}
