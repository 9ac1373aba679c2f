package exchange

import (
	"bytes"
	"encoding/csv"
	"errors"
	"fmt"
	"io"
	"math"
	"slices"
	"strconv"
	"strings"

	"mallow/core/job"
	"mallow/core/length"
)

// role is what a column holds.
type role string

const (
	stationRole role = "station"
	xRole       role = "x"
	yRole       role = "y"
	zRole       role = "height"
	latRole     role = "latitude"
	lonRole     role = "longitude"
	nameRole    role = "name"
	pointRole   role = "corner"
)

var columnRoles = map[string]role{
	"station": stationRole, "chainage": stationRole, "distance": stationRole, "at": stationRole, "sta": stationRole, "along": stationRole,
	"x": xRole, "e": xRole, "east": xRole, "easting": xRole,
	"y": yRole, "n": yRole, "north": yRole, "northing": yRole,
	"z": zRole, "height": zRole, "elevation": zRole, "elev": zRole, "ele": zRole, "level": zRole, "h": zRole,
	"lat": latRole, "latitude": latRole, "lon": lonRole, "long": lonRole, "lng": lonRole, "longitude": lonRole,
	"name": nameRole, "id": nameRole, "label": nameRole, "point": pointRole, "corner": pointRole, "kind": pointRole,
}

// sheet is a CSV file's columns.
type sheet struct {
	roles map[role]int
	units map[role]Unit
	unit  Unit
	comma bool // numbers are written with a decimal comma
}

func (f *Found) readCSV(data []byte, opt Options) error {
	delimiter := delimiterOf(data)
	r := csv.NewReader(bytes.NewReader(data))
	r.Comma, r.FieldsPerRecord, r.TrimLeadingSpace, r.LazyQuotes, r.ReuseRecord = delimiter, -1, delimiter != '\t', true, true
	var s *sheet
	seen := 0
	for {
		record, err := r.Read()
		if errors.Is(err, io.EOF) {
			break
		}
		var parse *csv.ParseError
		if errors.As(err, &parse) {
			f.bad(parse.StartLine, "", "not a row of a CSV file: %v", parse.Err)
			continue
		}
		if err != nil {
			return Refuse("The file cannot be read: %v.", err)
		}
		row, _ := r.FieldPos(0)
		if blank(record) {
			continue
		}
		if seen++; seen > MostPoints+mostBad+1 {
			return Refuse("The file has more than %d rows; at most %d points are read.", MostPoints+mostBad, MostPoints)
		}
		if s == nil {
			var header bool
			if s, header, err = f.columns(record, delimiter, opt); err != nil {
				return err
			}
			if header {
				continue
			}
		}
		f.row(s, row, record)
	}
	if s == nil || len(f.Points) == 0 && f.BadCount == 0 {
		return Refuse("The file has no rows of numbers.")
	}
	if f.Shape == Profile {
		f.order()
	}
	return nil
}

func blank(record []string) bool {
	for _, cell := range record {
		if strings.TrimSpace(cell) != "" {
			return false
		}
	}
	return true
}

// delimiterOf is the sign that the first lines have most of. A comma between
// digits of a file with semicolons is a decimal comma.
func delimiterOf(data []byte) rune {
	head := data[:min(len(data), 2000)]
	best, most := ',', 0
	for _, d := range []rune{';', '\t', ','} {
		if n := bytes.Count(head, []byte(string(d))); n > most && (d != ',' || most == 0) {
			best, most = d, n
		}
	}
	return best
}

// columns tells what the columns are, from a header or from how many there are.
func (f *Found) columns(record []string, delimiter rune, opt Options) (*sheet, bool, error) {
	s := &sheet{roles: map[role]int{}, units: map[role]Unit{}, unit: opt.Unit, comma: delimiter == ';'}
	for i, cell := range record {
		name, unit := headerCell(cell)
		if r, ok := columnRoles[name]; ok {
			if _, twice := s.roles[r]; twice {
				return nil, false, Refuse("Two columns are both a %s: %q is the second. Take one of them out.", r, strings.TrimSpace(cell))
			}
			s.roles[r], s.units[r] = i, unit
		}
	}
	header := len(s.roles) > 0
	if !header {
		// The first row may be words that Mallow does not know.
		if _, err := s.number(record[0], Metres); err != nil && len(record) > 1 {
			if _, err := s.number(record[1], Metres); err != nil {
				return nil, false, Refuse("The columns %s are not known. Name them station and height, or x, y and z, or latitude, longitude and elevation.", quoted(record))
			}
		}
		switch {
		case len(record) == 2:
			s.roles[stationRole], s.roles[zRole] = 0, 1
		case len(record) == 3:
			s.roles[xRole], s.roles[yRole], s.roles[zRole] = 0, 1, 2
		case len(record) > 3:
			return nil, false, Refuse("The rows have %d columns and no header. Name them in the first row: x, y and height, or station and height, or latitude, longitude and elevation.", len(record))
		default:
			return nil, false, Refuse("A row has one column; station and height, or x, y and z are needed. Columns are parted by commas, semicolons or tabs.")
		}
	}
	if s.unit == "" {
		if s.unit = Metres; opt.System == length.Imperial {
			s.unit = Feet
		}
	}
	return s, header, f.shape(s, header)
}

func quoted(record []string) string {
	var out []string
	for i, c := range record {
		if i == 6 {
			out = append(out, "…")
			break
		}
		out = append(out, strconv.Quote(strings.TrimSpace(c)))
	}
	return strings.Join(out, ", ")
}

// headerCell splits a name such as "height (ft)" or "x_m" from its unit.
func headerCell(cell string) (string, Unit) {
	words := strings.FieldsFunc(strings.ToLower(cell), func(r rune) bool { return strings.ContainsRune(" _()[],.:/-\t", r) })
	if len(words) == 0 {
		return "", ""
	}
	unit := Unit("")
	if len(words) > 1 {
		switch words[len(words)-1] {
		case "m", "metre", "metres", "meter", "meters":
			unit = Metres
		case "mm":
			unit = Millimetres
		case "ft", "feet", "foot":
			unit = Feet
		case "in", "inch", "inches":
			unit = Inches
		}
	}
	return words[0], unit
}

// shape decides what the columns make, and says so.
func (f *Found) shape(s *sheet, header bool) error {
	has := func(roles ...role) bool {
		for _, r := range roles {
			if _, ok := s.roles[r]; !ok {
				return false
			}
		}
		return true
	}
	by := "by their names"
	if !header {
		by = "by their number, for there is no header"
	}
	switch {
	case has(latRole, lonRole):
		f.Shape, f.Origin = Plan, &job.Place{}
		f.note("Columns %s: latitude and longitude in degrees", by)
	case has(xRole, yRole):
		f.Shape = Plan
		f.note("Columns %s: x (east) and y (north) in %s", by, unitNames[s.of(xRole)])
	case has(stationRole, zRole):
		f.Shape = Profile
		f.note("Columns %s: station in %s", by, unitNames[s.of(stationRole)])
	default:
		var have []string
		for r := range s.roles {
			have = append(have, string(r))
		}
		slices.Sort(have)
		return Refuse("The file has %s only. Needed are station and height, or x, y and z, or latitude and longitude.", strings.Join(have, ", "))
	}
	if has(zRole) {
		f.note("Heights in %s", unitNames[s.of(zRole)])
	} else {
		f.note("No heights: the ground stays as it is known")
	}
	return nil
}

func (s *sheet) of(r role) Unit {
	if u := s.units[r]; u != "" {
		return u
	}
	return s.unit
}

// largest is the largest coordinate that is read: national grids have numbers
// of ten million metres.
const largest = length.Length(2e10)

// row reads one row into a point, or says why it cannot.
func (f *Found) row(s *sheet, row int, record []string) {
	text := strings.Join(record, ", ")
	fail := func(format string, parts ...any) { f.bad(row, text, format, parts...) }
	cell := func(r role) (string, bool) {
		i, ok := s.roles[r]
		if !ok || i >= len(record) || strings.TrimSpace(record[i]) == "" {
			return "", false
		}
		return strings.TrimSpace(record[i]), true
	}
	read := func(r role) (length.Length, bool) {
		c, ok := cell(r)
		if !ok {
			fail("no %s", r)
			return 0, false
		}
		v, err := s.number(c, s.of(r))
		if err != nil {
			fail("%s %q is not a number", r, clipCell(c))
			return 0, false
		}
		if v.Abs() > largest {
			fail("%s %s is too large", r, clipCell(c))
			return 0, false
		}
		return v, true
	}
	p := Point{Row: row}
	ok := true
	switch {
	case f.Origin != nil:
		p.place.Latitude, ok = f.degrees(fail, cell, latRole, 90)
		if ok {
			p.place.Longitude, ok = f.degrees(fail, cell, lonRole, 180)
		}
	case f.Shape == Profile:
		if p.X, ok = read(stationRole); ok && p.X < 0 {
			fail("a station before the run's start")
			ok = false
		}
	default:
		if p.X, ok = read(xRole); ok {
			p.Y, ok = read(yRole)
		}
	}
	if !ok {
		return
	}
	if _, there := s.roles[zRole]; there {
		if _, filled := cell(zRole); filled || f.Shape == Profile {
			h, ok := read(zRole)
			if !ok {
				return
			}
			p.Height = &h
		}
	}
	p.Name, _ = cell(nameRole)
	kind, _ := cell(pointRole)
	p.Corner = strings.EqualFold(kind, "corner") || strings.EqualFold(kind, "yes")
	f.Points = append(f.Points, p)
}

func clipCell(c string) string {
	if r := []rune(c); len(r) > 24 {
		return string(r[:24]) + "…"
	}
	return c
}

func (f *Found) degrees(fail func(string, ...any), cell func(role) (string, bool), r role, most float64) (float64, bool) {
	c, ok := cell(r)
	if !ok {
		fail("no %s", r)
		return 0, false
	}
	v, err := strconv.ParseFloat(strings.Replace(c, ",", ".", 1), 64)
	if err != nil || math.IsNaN(v) {
		fail("%s %q is not a number of degrees", r, clipCell(c))
		return 0, false
	}
	if math.Abs(v) > most {
		fail("%s %g is past %g degrees", r, v, most)
		return 0, false
	}
	return v, true
}

// number reads a cell: a bare number in the column's unit, or a length in
// tape notation with its own.
func (s *sheet) number(cell string, unit Unit) (length.Length, error) {
	cell = strings.TrimSpace(cell)
	plain := cell
	if s.comma {
		plain = strings.Replace(plain, ",", ".", 1)
	}
	if v, err := strconv.ParseFloat(plain, 64); err == nil {
		if math.IsNaN(v) || math.IsInf(v, 0) {
			return 0, fmt.Errorf("not a finite number")
		}
		return length.Length(v) * unitLengths[unit], nil
	}
	sys := length.Metric
	if unit == Feet || unit == Inches {
		sys = length.Imperial
	}
	return length.Parse(cell, sys)
}

// order puts a profile's points in order of station; of two at one station
// the first stands.
func (f *Found) order() {
	slices.SortStableFunc(f.Points, func(a, b Point) int {
		switch {
		case a.X < b.X:
			return -1
		case a.X > b.X:
			return 1
		}
		return 0
	})
	kept := f.Points[:0]
	for _, p := range f.Points {
		if n := len(kept); n > 0 && p.X-kept[n-1].X <= length.Tolerance {
			f.bad(p.Row, "", "its station is that of line %d, which is kept", kept[n-1].Row)
			continue
		}
		kept = append(kept, p)
	}
	f.Points = kept
}
