// Package report sets what is planned in tables: one row for each post, bay,
// hole, leaf or item, one typed column for each thing that is said of it. A
// sheet, a spreadsheet, a file, the command line and the screen show these
// tables and nothing else, so that a new column is written once.
package report

import (
	"math"
	"slices"
	"strconv"

	"mallow/core/length"
	"mallow/core/reason"
	"mallow/core/words"
)

// Kind is what the values of a column are.
type Kind string

// Kinds of values, with the Go type that a cell of them holds.
const (
	Text    Kind = "text"    // string
	Words   Kind = "words"   // reason.Text
	Count   Kind = "count"   // int
	Number  Kind = "number"  // float64
	Flag    Kind = "flag"    // bool
	Tape    Kind = "tape"    // length.Length, read along a tape
	Short   Kind = "short"   // length.Length, of a part
	Rise    Kind = "rise"    // length.Length, up or down
	Soil    Kind = "soil"    // length.Length, cut or filled
	Small   Kind = "small"   // length.Volume, of a hole
	Mass    Kind = "mass"    // length.Mass
	Moment  Kind = "moment"  // float64, newton metres
	Force   Kind = "force"   // float64, newtons
	Wind    Kind = "wind"    // float64, metres per second
	Degrees Kind = "degrees" // float64
)

// Column is one thing that is said of every row.
type Column struct {
	ID   string `json:"id" jsonschema:"required" jsonschema_description:"What files call it, with the unit behind it."`
	Name string `json:"name" jsonschema:"required" jsonschema_description:"What people call it."`
	Kind Kind   `json:"kind" jsonschema:"required,enum=text,enum=words,enum=count,enum=number,enum=flag,enum=tape,enum=short,enum=rise,enum=soil,enum=small,enum=mass,enum=moment,enum=force,enum=wind,enum=degrees"`
	Why  string `json:"why,omitempty" jsonschema_description:"Figure of the row's post or bay that explains it."`
	Main bool   `json:"main,omitempty" jsonschema_description:"What the table is read for."`

	shown shown
	sum   bool
}

// shown is who is shown a column.
type shown int

const (
	everywhere shown = iota
	inFiles          // not to be read from a page
	onPages          // said in words; files have its parts
)

// Row is one row, and what it is of.
type Row struct {
	Run   string `json:"run"`
	Post  string `json:"post,omitempty" jsonschema_description:"Id of the post that it is of."`
	Bay   string `json:"bay,omitempty" jsonschema_description:"Id of the bay that it is of."`
	Cells []any  `json:"-"` // nil where there is nothing to say
}

// Table is a table of a plan.
type Table struct {
	ID      string
	Name    string
	Units   length.Units
	Columns []Column
	Rows    []Row
}

// column is a column with where its values come from.
type column[T any] struct {
	Column
	of func(T) any
}

// col makes a column; its name is in the catalogue of words, and is put in with
// the units.
func col[T any](id string, kind Kind, of func(T) any, marks ...func(*Column)) column[T] {
	c := column[T]{Column{ID: id, Kind: kind}, of}
	for _, mark := range marks {
		mark(&c.Column)
	}
	return c
}

func file(c *Column)  { c.shown = inFiles }
func page(c *Column)  { c.shown = onPages }
func main(c *Column)  { c.Main = true }
func total(c *Column) { c.sum = true }

// why names the figure that explains the values.
func why(figure string) func(*Column) { return func(c *Column) { c.Why = figure } }

// filled is a table of rows.
func filled[T any](id string, u length.Units, columns []column[T], of []T, row func(T) Row) Table {
	t := Table{ID: id, Name: words.In(u.System, "report.table-"+id), Units: u}
	for _, c := range columns {
		c.Name = words.In(u.System, "report.head-"+words.Key(c.ID))
		t.Columns = append(t.Columns, c.Column)
	}
	for _, v := range of {
		r := row(v)
		r.Cells = make([]any, len(columns))
		for i, c := range columns {
			r.Cells[i] = c.of(v)
		}
		t.Rows = append(t.Rows, r)
	}
	return t
}

// After puts the rows of another table of the same kind under a table's own.
func (t Table) After(o Table) Table {
	if len(t.Columns) == 0 {
		return o
	}
	t.Rows = append(t.Rows, o.Rows...)
	return t
}

// Read is the table as it is read from a page: without what is for files, and
// without columns that say nothing in any of its rows. Soil is said as it is dug.
func (t Table) Read() Table {
	out := t.keep(func(c Column) bool { return c.shown != inFiles }, true)
	for i, c := range out.Columns {
		for _, row := range out.Rows {
			if l, ok := row.Cells[i].(length.Length); ok && c.Kind == Soil {
				row.Cells[i] = t.Units.Dug(l)
			}
		}
	}
	return out
}

// Filed is the table as it is written to files.
func (t Table) Filed() Table {
	return t.keep(func(c Column) bool { return c.shown != onPages }, false)
}

// Only is the table with some of its columns, in their order.
func (t Table) Only(ids ...string) Table {
	out := t
	out.Columns, out.Rows = nil, make([]Row, len(t.Rows))
	copy(out.Rows, t.Rows)
	for i := range out.Rows {
		out.Rows[i].Cells = nil
	}
	for _, id := range ids {
		k := t.Column(id)
		if k < 0 {
			continue // it says nothing here
		}
		out.Columns = append(out.Columns, t.Columns[k])
		for i, r := range t.Rows {
			out.Rows[i].Cells = append(out.Rows[i].Cells, r.Cells[k])
		}
	}
	return out
}

// Without is the table without some of its columns: a page has less room than
// a screen.
func (t Table) Without(ids ...string) Table {
	return t.keep(func(c Column) bool { return !slices.Contains(ids, c.ID) }, false)
}

// Column is the place of a column; −1 where it is not there.
func (t Table) Column(id string) int {
	for i, c := range t.Columns {
		if c.ID == id {
			return i
		}
	}
	return -1
}

func (t Table) keep(column func(Column) bool, said bool) Table {
	var ids []string
	for k, c := range t.Columns {
		says := !said
		for _, r := range t.Rows {
			says = says || t.Said(c.Kind, r.Cells[k]) != ""
		}
		if column(c) && says {
			ids = append(ids, c.ID)
		}
	}
	return t.Only(ids...)
}

// Heads are the names of the columns, as people call them.
func (t Table) Heads() []string {
	out := make([]string, len(t.Columns))
	for i, c := range t.Columns {
		out[i] = c.Name
	}
	return out
}

// Lines are the rows in words, as they are read.
func (t Table) Lines() [][]string {
	out := make([][]string, len(t.Rows))
	for i, r := range t.Rows {
		for k, cell := range r.Cells {
			out[i] = append(out[i], t.Said(t.Columns[k].Kind, cell))
		}
	}
	return out
}

// Said is a value in words and in the job's units; nothing where there is none.
func (t Table) Said(kind Kind, cell any) string {
	u := t.Units
	switch v := cell.(type) {
	case string:
		return v
	case reason.Text:
		return v.Print(u)
	case int:
		return strconv.Itoa(v)
	case bool:
		if v {
			return words.Plain("report.yes")
		}
	case length.Volume:
		return u.Small(v)
	case length.Mass:
		return u.Weight(v)
	case length.Length:
		return t.length(kind, v)
	case float64:
		switch kind {
		case Moment:
			return u.Torque(v)
		case Force:
			return u.Force(v)
		case Wind:
			return u.Wind(v)
		case Degrees:
			return strconv.FormatFloat(v, 'f', 1, 64) + "°"
		}
		return strconv.FormatFloat(v, 'f', 2, 64)
	}
	return ""
}

func (t Table) length(kind Kind, v length.Length) string {
	switch {
	case kind == Tape:
		return t.Units.Tape(v)
	case kind != Rise:
		return t.Units.Short(v)
	case v.Abs() < t.Units.SmallestMark/2:
		return "" // no tape tells it from level
	case v > 0:
		return words.Say("report.up", words.V{"rise": v}).Print(t.Units)
	}
	return words.Say("report.down", words.V{"rise": -v}).Print(t.Units)
}

// unit is what a kind of value is written in, and how many of the core's own
// units that is.
func (t Table) unit(kind Kind) (file, read string, per float64) {
	imperial := t.Units.System == length.Imperial
	pick := func(ft, ftRead string, ftPer float64, m, mRead string, mPer float64) (string, string, float64) {
		if imperial {
			return ft, ftRead, ftPer
		}
		return m, mRead, mPer
	}
	const pound = 4.4482216152605 // of force, newtons
	switch kind {
	case Tape, Short, Rise, Soil:
		return pick("ft", "ft", float64(length.Foot), "m", "m", float64(length.Metre))
	case Small:
		return pick("ft3", "ft³", float64(length.CubicFoot), "L", "L", 0.001)
	case Mass:
		return pick("lb", "lb", float64(length.Pound), "kg", "kg", 1)
	case Moment:
		return pick("lbft", "lb·ft", pound*0.3048, "Nm", "N·m", 1)
	case Force:
		return pick("lb", "lb", pound, "N", "N", 1)
	case Wind:
		return pick("mph", "mph", 1609.344/3600, "km_h", "km/h", 1/3.6)
	case Degrees:
		return "degrees", "°", 1
	}
	return "", "", 1
}

// Names are what files call the columns, with their units: level_ft.
func (t Table) Names() []string {
	out := make([]string, len(t.Columns))
	for i, c := range t.Columns {
		out[i] = c.ID
		if unit, _, _ := t.unit(c.Kind); unit != "" {
			out[i] += "_" + unit
		}
	}
	return out
}

// Titles are what people call the columns, with their units: Level, ft.
func (t Table) Titles() []string {
	out := make([]string, len(t.Columns))
	for i, c := range t.Columns {
		out[i] = c.Name
		if _, unit, _ := t.unit(c.Kind); unit != "" {
			out[i] += ", " + unit
		}
	}
	return out
}

// Values are the rows as files have them: numbers in the unit that the head
// names, text, true or false, nil where there is nothing.
func (t Table) Values() [][]any {
	out := make([][]any, len(t.Rows))
	for i, r := range t.Rows {
		for k, cell := range r.Cells {
			out[i] = append(out[i], t.value(t.Columns[k].Kind, cell))
		}
	}
	return out
}

func (t Table) value(kind Kind, cell any) any {
	_, _, per := t.unit(kind)
	in := func(v float64) any { return math.Round(v/per*1e9) / 1e9 }
	switch v := cell.(type) {
	case length.Length:
		return in(float64(v))
	case length.Volume:
		return in(float64(v))
	case length.Mass:
		return in(float64(v))
	case float64:
		return in(v)
	case reason.Text:
		return v.Print(t.Units)
	}
	return cell
}

// Sums are the columns that are totalled.
func (t Table) Sums() []int {
	var out []int
	for i, c := range t.Columns {
		if c.sum {
			out = append(out, i)
		}
	}
	return out
}

// Shown are the cells of a row as a screen has them: lengths as millimetres,
// which it prints as its tape does, all else in words; nil where there is
// nothing.
func (t Table) Shown(row int) []any {
	out := make([]any, len(t.Columns))
	for k, cell := range t.Rows[row].Cells {
		l, isLength := cell.(length.Length)
		switch kind := t.Columns[k].Kind; {
		case isLength && kind == Rise && l.Abs() < t.Units.SmallestMark/2:
		case isLength:
			out[k] = l
		default:
			if said := t.Said(kind, cell); said != "" {
				out[k] = said
			}
		}
	}
	return out
}
