package exchange

import (
	"bytes"
	"encoding/xml"
	"errors"
	"fmt"
	"io"
	"math"
	"strconv"
	"strings"

	"mallow/core/job"
	"mallow/core/length"
)

// gpxPoint is a GPX 1.0 or 1.1 point: wpt, rtept or trkpt.
type gpxPoint struct {
	Lat  string `xml:"lat,attr"`
	Lon  string `xml:"lon,attr"`
	Ele  string `xml:"ele,omitempty"`
	Name string `xml:"name,omitempty"`
	Type string `xml:"type,omitempty"`
}

// readGPX reads the points of the first kind that a file has: of its tracks,
// else of its routes, else its waypoints.
func (f *Found) readGPX(data []byte) error {
	dec := xml.NewDecoder(bytes.NewReader(data))
	kinds := map[string][]Point{}
	bad := map[string][]Bad{}
	rooted, segments := false, 0
	for {
		token, err := dec.Token()
		if errors.Is(err, io.EOF) {
			break
		}
		line, _ := dec.InputPos()
		if err != nil {
			return Refuse("The file is not sound GPX: line %d: %v.", line, trimXML(err))
		}
		start, ok := token.(xml.StartElement)
		if !ok {
			continue
		}
		name := start.Name.Local
		if !rooted && name != "gpx" {
			return Refuse("The file is XML, but not GPX: it begins with <%s>.", name)
		}
		rooted = true
		if name == "trkseg" {
			segments++
		}
		if name != "trkpt" && name != "rtept" && name != "wpt" {
			continue
		}
		var g gpxPoint
		if err := dec.DecodeElement(&g, &start); err != nil {
			return Refuse("The file is not sound GPX: line %d: %v.", line, trimXML(err))
		}
		p, why := g.point(line)
		if why != "" {
			bad[name] = append(bad[name], Bad{line, fmt.Sprintf("<%s lat=%q lon=%q>", name, clipCell(g.Lat), clipCell(g.Lon)), why})
			continue
		}
		if kinds[name] = append(kinds[name], p); len(kinds[name]) > MostPoints {
			return Refuse("The file has more than %d points. Thin the track out, or send it in parts.", MostPoints)
		}
	}
	if !rooted {
		return Refuse("The file is not GPX: it has no <gpx> in it.")
	}
	names := map[string]string{"trkpt": "points of a track", "rtept": "points of a route", "wpt": "waypoints"}
	for _, kind := range []string{"trkpt", "rtept", "wpt"} {
		if len(kinds[kind]) == 0 && len(bad[kind]) == 0 {
			continue
		}
		f.Shape, f.Points = Plan, kinds[kind]
		for _, b := range bad[kind] {
			f.bad(b.Row, b.Text, "%s", b.Why)
		}
		f.note("GPX: %d %s", len(f.Points), names[kind])
		if segments > 1 && kind == "trkpt" {
			f.note("The track's %d pieces are taken as one line", segments)
		}
		f.noteHeights()
		return nil
	}
	return Refuse("The GPX file has no track, route or waypoints in it.")
}

func trimXML(err error) string { return strings.TrimPrefix(err.Error(), "XML syntax error on ") }

// point reads a GPX point; why is not empty when it cannot be used.
func (g gpxPoint) point(line int) (p Point, why string) {
	p = Point{Row: line, Name: strings.TrimSpace(g.Name), Corner: strings.EqualFold(strings.TrimSpace(g.Type), "corner")}
	lat, err1 := strconv.ParseFloat(strings.TrimSpace(g.Lat), 64)
	lon, err2 := strconv.ParseFloat(strings.TrimSpace(g.Lon), 64)
	if err1 != nil || err2 != nil {
		return p, "its latitude or longitude is not a number"
	}
	if p.place, why = placeAt(lat, lon); why != "" {
		return p, why
	}
	if ele := strings.TrimSpace(g.Ele); ele != "" {
		m, err := strconv.ParseFloat(ele, 64)
		if err != nil {
			return p, fmt.Sprintf("elevation %q is not a number", clipCell(ele))
		}
		p.Height, why = heightAt(m)
	}
	return p, why
}

// placeAt checks a place on earth.
func placeAt(lat, lon float64) (job.Place, string) {
	if !(math.Abs(lat) <= 90) || !(math.Abs(lon) <= 180) {
		return job.Place{}, fmt.Sprintf("latitude %g or longitude %g is off the earth: 90 and 180 degrees are the most", lat, lon)
	}
	return job.Place{Latitude: lat, Longitude: lon}, ""
}

func heightAt(metres float64) (*length.Length, string) {
	if !(math.Abs(metres) <= 12000) {
		return nil, fmt.Sprintf("elevation %g m is off the earth", metres)
	}
	h := length.Length(metres) * length.Metre
	return &h, ""
}

func placeText(p job.Place) string { return fmt.Sprintf("%.6f, %.6f", p.Latitude, p.Longitude) }

// noteHeights says how many points have heights.
func (f *Found) noteHeights() {
	n := 0
	for _, p := range f.Points {
		if p.Height != nil {
			n++
		}
	}
	switch n {
	case 0:
		f.note("No elevations: the ground is left unmeasured")
	case len(f.Points):
		f.note("Elevations in metres at every point")
	default:
		f.note("Elevations in metres at %d of %d points", n, len(f.Points))
	}
}
