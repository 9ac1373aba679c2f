package exchange

import (
	"bytes"
	"encoding/json"
	"fmt"
	"strings"
)

// The coordinates are read with encoding/json rather than through a geometry
// library: those drop the third number of a position, which is its elevation.
type geoObject struct {
	Type        string          `json:"type"`
	Features    []geoObject     `json:"features"`
	Geometry    *geoObject      `json:"geometry"`
	Geometries  []geoObject     `json:"geometries"`
	Coordinates json.RawMessage `json:"coordinates"`
	Properties  *geoProperties  `json:"properties"`
}

type geoProperties struct {
	Name    any   `json:"name"`
	Point   any   `json:"point"`
	Corners []int `json:"corners"`
}

// readGeoJSON reads the first line or ring of a file (RFC 7946), or, when it
// has only points, all of them in order.
func (f *Found) readGeoJSON(data []byte) error {
	var root geoObject
	if err := json.Unmarshal(data, &root); err != nil {
		return Refuse("The file is not sound GeoJSON: %v.", err)
	}
	f.Shape = Plan
	var points []Point
	lines := 0
	err := root.each(0, nil, func(g geoObject, of *geoProperties) error {
		switch g.Type {
		case "LineString", "Polygon":
			lines++
			if lines > 1 {
				return nil
			}
			raw := g.Coordinates
			if g.Type == "Polygon" {
				var rings []json.RawMessage
				if err := json.Unmarshal(raw, &rings); err != nil || len(rings) == 0 {
					return Refuse("A polygon's coordinates are not a list of rings.")
				}
				raw = rings[0]
			}
			var list []json.RawMessage
			if err := json.Unmarshal(raw, &list); err != nil {
				return Refuse("The line's coordinates are not a list of positions.")
			}
			f.positions(list, data, of)
		case "Point":
			p, why := position(g.Coordinates)
			row := lineOf(data, g.Coordinates)
			if why != "" {
				f.bad(row, string(g.Coordinates), "%s", why)
				return nil
			}
			p.Row = row
			if of != nil {
				p.Name, _ = of.Name.(string)
				kind, _ := of.Point.(string)
				p.Corner = strings.EqualFold(kind, "corner")
			}
			points = append(points, p)
		case "MultiLineString", "MultiPolygon", "MultiPoint":
			return Refuse("The file holds a %s; Mallow reads a LineString, a Polygon or Points.", g.Type)
		}
		return nil
	})
	if err != nil {
		return err
	}
	if lines == 0 {
		f.Points = points
		f.note("GeoJSON: %d points, taken in their order as one line", len(points))
	} else {
		f.note("GeoJSON: a line of %d positions", len(f.Points))
		if lines > 1 {
			f.note("The file has %d lines; the first is read", lines)
		}
	}
	if len(f.Points) == 0 && f.BadCount == 0 {
		return Refuse("The GeoJSON has no line and no points in it.")
	}
	f.noteHeights()
	return nil
}

func (f *Found) positions(list []json.RawMessage, data []byte, of *geoProperties) {
	corners := map[int]bool{}
	if of != nil {
		for _, c := range of.Corners {
			corners[c] = true
		}
	}
	at := 0 // the positions follow each other, so each is looked for after the last
	row := 1
	for i, raw := range list {
		if k := bytes.Index(data[at:], raw); k >= 0 {
			row += bytes.Count(data[at:at+k], []byte("\n"))
			at += k
		}
		p, why := position(raw)
		if why != "" {
			f.bad(row, string(raw), "%s", why)
			continue
		}
		p.Row, p.Corner = row, corners[i]
		f.Points = append(f.Points, p)
	}
}

// lineOf is the line of the file on which a piece of it stands.
func lineOf(data []byte, piece []byte) int {
	k := bytes.Index(data, piece)
	if k < 0 || len(piece) == 0 {
		return 1
	}
	return 1 + bytes.Count(data[:k], []byte("\n"))
}

func position(raw json.RawMessage) (Point, string) {
	var n []float64
	if err := json.Unmarshal(raw, &n); err != nil || len(n) < 2 {
		return Point{}, "not a position: longitude, latitude and perhaps elevation, as numbers"
	}
	p := Point{}
	var why string
	if p.place, why = placeAt(n[1], n[0]); why != "" {
		return p, why
	}
	if len(n) > 2 {
		p.Height, why = heightAt(n[2])
	}
	return p, why
}

const deepestGeo = 16

// each visits every geometry of a file.
func (g geoObject) each(depth int, of *geoProperties, visit func(geoObject, *geoProperties) error) error {
	if depth > deepestGeo {
		return Refuse("The GeoJSON is nested more than %d deep.", deepestGeo)
	}
	if g.Properties != nil {
		of = g.Properties
	}
	switch g.Type {
	case "FeatureCollection", "Feature", "GeometryCollection":
	case "":
		return Refuse("The file is JSON, but not GeoJSON: an object without a type.")
	case "Point", "LineString", "Polygon", "MultiPoint", "MultiLineString", "MultiPolygon":
		return visit(g, of)
	default:
		return Refuse("The file is JSON, but not GeoJSON: %s is no type that it has.", clipCell(fmt.Sprintf("%q", g.Type)))
	}
	below := append(g.Features[:len(g.Features):len(g.Features)], g.Geometries...)
	if g.Geometry != nil {
		below = append(below, *g.Geometry)
	}
	for _, b := range below {
		if err := b.each(depth+1, of, visit); err != nil {
			return err
		}
	}
	return nil
}
