package exchange

import (
	"fmt"
	"math"
	"strconv"
	"strings"

	"github.com/xuri/excelize/v2"

	"mallow/core/length"
	"mallow/core/plan"
)

// Topic is one table of a plan: numbers in the unit that its head names.
type Topic struct {
	Name string
	Head []string
	Rows [][]any
	Sums []int // columns that are totalled
}

// Topics are the tables of a plan.
func Topics(p plan.Plan) []Topic {
	w := columnsOf{units: p.Units, unit: "m", per: length.Metre}
	if p.Units.System == length.Imperial {
		w.unit, w.per = "ft", length.Foot
	}
	return []Topic{w.posts(p), w.bays(p), w.holes(p), w.gates(p), w.materials(p)}
}

// TopicCSV writes one of the tables, of all runs, as CSV.
func TopicCSV(p plan.Plan, name string) (Written, error) {
	for _, t := range Topics(p) {
		if !strings.EqualFold(t.Name, name) {
			continue
		}
		rows := [][]string{t.Head}
		for _, r := range t.Rows {
			row := make([]string, len(r))
			for i, v := range r {
				switch v := v.(type) {
				case string:
					row[i] = v
				case float64:
					row[i] = strconv.FormatFloat(v, 'f', -1, 64)
				case nil:
				default:
					row[i] = fmt.Sprint(v)
				}
			}
			rows = append(rows, row)
		}
		return table(strings.ToLower(t.Name)+".csv", rows, len(t.Rows) > 0)
	}
	return Written{}, refuse("There is no table of %q.", name)
}

// Spreadsheet writes the plan as a workbook: a sheet for each topic, numbers
// as numbers with their unit in the head, and totals as formulas.
func Spreadsheet(name string, p plan.Plan) (Written, error) {
	w := workbook{file: excelize.NewFile()}
	defer func() { _ = w.file.Close() }() // nothing is on disk
	for _, t := range Topics(p) {
		w.sheet(t)
	}
	if w.err != nil {
		return Written{}, w.err
	}
	if err := w.file.DeleteSheet("Sheet1"); err != nil {
		return Written{}, err
	}
	b, err := w.file.WriteToBuffer()
	if err != nil {
		return Written{}, err
	}
	return Written{name, "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet", b.Bytes()}, nil
}

type workbook struct {
	file *excelize.File
	err  error
}

// columnsOf prints values in a job's units.
type columnsOf struct {
	units length.Units
	unit  string
	per   length.Length
}

func (w columnsOf) in(name string) string     { return name + ", " + w.unit }
func (w columnsOf) l(v length.Length) float64 { return math.Round(float64(v/w.per)*1e9) / 1e9 }
func (w columnsOf) small() (string, float64)  { return w.volume(length.CubicFoot, "ft³", 0.001, "L") }

func (w columnsOf) volume(imperial length.Volume, ft string, metric length.Volume, m string) (string, float64) {
	if w.units.System == length.Imperial {
		return ft, float64(imperial)
	}
	return m, float64(metric)
}

func (w columnsOf) mass() (string, float64) {
	if w.units.System == length.Imperial {
		return "lb", float64(length.Pound)
	}
	return "kg", 1
}

// sheet writes a topic, with the totals under it.
func (w *workbook) sheet(t Topic) {
	name, head, rows, sums := t.Name, t.Head, t.Rows, t.Sums
	if w.err != nil {
		return
	}
	if _, w.err = w.file.NewSheet(name); w.err != nil {
		return
	}
	stream, err := w.file.NewStreamWriter(name)
	if err != nil {
		w.err = err
		return
	}
	bold, err := w.file.NewStyle(&excelize.Style{Font: &excelize.Font{Bold: true}, Alignment: &excelize.Alignment{WrapText: true, Vertical: "top"}})
	if err != nil {
		w.err = err
		return
	}
	put := func(row int, values []any) {
		if w.err == nil {
			w.err = stream.SetRow(fmt.Sprintf("A%d", row), values)
		}
	}
	w.err = stream.SetColWidth(1, len(head), 14)
	if w.err == nil {
		w.err = stream.SetPanes(&excelize.Panes{Freeze: true, YSplit: 1, TopLeftCell: "A2", ActivePane: "bottomLeft"})
	}
	title := make([]any, len(head))
	for i, h := range head {
		title[i] = excelize.Cell{StyleID: bold, Value: h}
	}
	put(1, title)
	for i, row := range rows {
		for k, v := range row {
			if s, ok := v.(string); ok {
				row[k] = guarded(s)
			}
		}
		put(i+2, row)
	}
	if len(sums) > 0 && len(rows) > 0 {
		total := make([]any, len(head))
		total[0] = excelize.Cell{StyleID: bold, Value: "Total"}
		for _, k := range sums {
			column, err := excelize.ColumnNumberToName(k + 1)
			if err != nil {
				w.err = err
				return
			}
			total[k] = excelize.Cell{StyleID: bold, Formula: fmt.Sprintf("SUM(%s2:%s%d)", column, column, len(rows)+1), Value: sum(rows, k)}
		}
		put(len(rows)+2, total)
	}
	if w.err == nil {
		w.err = stream.Flush()
	}
}

// sum is what a total comes to, for readers that reckon no formulas.
func sum(rows [][]any, column int) float64 {
	total := 0.0
	for _, row := range rows {
		switch v := row[column].(type) {
		case float64:
			total += v
		case int:
			total += float64(v)
		}
	}
	return total
}

func runName(r plan.Run) string {
	if r.Name != "" {
		return r.Name
	}
	return r.ID
}

func (w columnsOf) posts(p plan.Plan) Topic {
	var rows [][]any
	for _, r := range p.Runs {
		for i := range r.Posts {
			q := &r.Posts[i]
			var stock any
			if q.Stock != nil {
				stock = w.l(*q.Stock)
			}
			at := r.From.Towards(r.To, float64(q.Station/max(1, r.Length)))
			rows = append(rows, []any{runName(r), q.ID, string(q.Kind), w.l(q.Station), w.l(q.Slope), w.l(q.Ground), w.l(q.Top), w.l(q.AboveGrade), w.l(q.Foot), w.l(q.Mark), stock, w.l(at.X), w.l(at.Y)})
		}
	}
	return Topic{Name: "Posts", Head: []string{"Run", "Post", "Kind", w.in("Level from start"), w.in("Slope tape"), w.in("Ground"), w.in("Top"), w.in("Above ground"), w.in("In ground"), w.in("Reference mark above ground"), w.in("Stock"), w.in("Map x"), w.in("Map y")}, Rows: rows}
}

func (w columnsOf) bays(p plan.Plan) Topic {
	var rows [][]any
	for _, r := range p.Runs {
		for _, b := range r.Bays {
			rows = append(rows, []any{runName(r), b.ID, b.From, b.To, b.Gate, w.l(b.CentreToCentre), w.l(b.Clear), string(b.Look), w.l(b.Lean), w.l(b.Long), w.l(b.GapLeast.Gap), w.l(b.GapMost.Gap)})
		}
	}
	return Topic{Name: "Bays", Head: []string{"Run", "Bay", "From", "To", "Gate", w.in("Centre to centre"), w.in("Between faces"), "Look", w.in("Lean"), w.in("Rail on the slope"), w.in("Gap, least"), w.in("Gap, most")}, Rows: rows, Sums: []int{5}}
}

func (w columnsOf) holes(p plan.Plan) Topic {
	small, per := w.small()
	var rows [][]any
	for _, r := range p.Runs {
		for i := range r.Posts {
			q := &r.Posts[i]
			if q.Card < 0 || q.Shared != "" {
				continue
			}
			c := r.Cards[q.Card]
			v := func(x length.Volume) float64 { return float64(x) / per }
			rows = append(rows, []any{runName(r), q.ID, string(c.Method), w.l(q.HoleWidth), w.l(q.HoleDepth), w.l(q.Bottom), w.l(q.Foot), v(c.Dug), v(c.Gravel), v(c.Stone), v(c.Concrete), v(c.Spoil), c.Bag, c.Bags})
		}
	}
	return Topic{Name: "Holes", Head: []string{"Run", "Post", "Set", w.in("Width"), w.in("Dig"), w.in("Concrete's bottom"), w.in("Foot"), "Dug, " + small, "Gravel, " + small, "Stone, " + small, "Concrete, " + small, "Away, loose, " + small, "Bag", "Bags"}, Rows: rows, Sums: []int{7, 8, 9, 10, 11, 13}}
}

func (w columnsOf) gates(p plan.Plan) Topic {
	unit, per := w.mass()
	var rows [][]any
	for _, r := range p.Runs {
		for _, g := range r.Gates {
			for _, l := range g.Leaves {
				gap := length.Length(0)
				for i, s := range l.Sides {
					if i == 0 || s.Gap < gap {
						gap = s.Gap
					}
				}
				rows = append(rows, []any{runName(r), g.ID, g.Name, w.l(g.At), w.l(g.Opening), w.l(g.Clear), w.l(g.Centre), l.Post, string(g.Swing), w.l(l.Width), w.l(l.Height), float64(l.Mass) / per, w.l(gap)})
			}
		}
	}
	return Topic{Name: "Gates", Head: []string{"Run", "Gate", "Name", w.in("Middle"), w.in("Inside"), w.in("Clear"), w.in("Centre to centre"), "Hangs on", "Swings", w.in("Leaf, wide"), w.in("Leaf, high"), "Leaf, " + unit, w.in("Least gap on the way")}, Rows: rows, Sums: []int{11}}
}

// materials lists what is loaded and moved, each with its exact number, the
// unit of that, and how it is said.
func (w columnsOf) materials(p plan.Plan) Topic {
	bulk, per := w.volume(length.CubicYard, "yd³", 1, "m³")
	var rows [][]any
	for _, r := range p.Runs {
		t := r.Totals
		for _, part := range t.Parts {
			var long any
			said := ""
			if part.Length > 0 {
				long, said = w.l(part.Length), w.units.Short(part.Length)
			}
			rows = append(rows, []any{runName(r), part.What, part.Count, "pieces", fmt.Sprintf("%d %s", part.Count, part.Named()), long, said, part.Says.Print(w.units), part.Cut})
		}
		for _, b := range t.BagKinds {
			rows = append(rows, []any{runName(r), "concrete, bags", b.Exact, "bags", fmt.Sprintf("%d × %s", b.Count, b.Bag), nil, "", b.Bag, nil})
		}
		for _, v := range []struct {
			what string
			v    length.Volume
			of   string
		}{
			{"concrete in place", t.Concrete, ""}, {"concrete to buy", t.ConcreteToBuy, strings.TrimSpace(t.WithWaste())}, {"gravel, loose", t.GravelLoose, ""}, {"stone, loose", t.StoneLoose, ""},
			{"dug", t.Dug, ""}, {"away, loose", t.Spoil, ""}, {"cut along the fence", t.Cut, ""}, {"fill along the fence", t.Fill, ""},
		} {
			if v.v > 0 {
				rows = append(rows, []any{runName(r), v.what, float64(v.v) / per, bulk, w.units.Bulk(v.v), nil, "", v.of, nil})
			}
		}
	}
	return Topic{Name: "Materials", Head: []string{"Run", "What", "How many, exact", "Unit", "As said", w.in("Length"), "Length, as said", "Of what", "Of them cut"}, Rows: rows}
}
