package exchange

import (
	"fmt"
	"math"
	"strconv"
	"strings"

	"github.com/xuri/excelize/v2"

	"mallow/core/bill"
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

func columnsIn(u length.Units) columnsOf {
	if u.System == length.Imperial {
		return columnsOf{units: u, unit: "ft", per: length.Foot}
	}
	return columnsOf{units: u, unit: "m", per: length.Metre}
}

// Topics are the tables of a plan.
func Topics(p plan.Plan) []Topic {
	w := columnsIn(p.Units)
	return []Topic{w.posts(p), w.bays(p), w.holes(p), w.gates(p), w.materials(p)}
}

// TopicCSV writes one of the tables, of all runs, as CSV.
func TopicCSV(p plan.Plan, name string) (Written, error) {
	for _, t := range Topics(p) {
		if !strings.EqualFold(t.Name, name) {
			continue
		}
		return t.csv()
	}
	return Written{}, refuse("There is no table of %q.", name)
}

// BillCSV writes a bill as CSV.
func BillCSV(items []bill.Item, u length.Units) (Written, error) {
	return columnsIn(u).bill(nil, "", items).csv()
}

func (t Topic) csv() (Written, error) {
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
			rows = append(rows, []any{runName(r), q.Label, string(q.Kind), w.l(q.Station), w.l(q.Slope), w.l(q.Ground), w.l(q.Top), w.l(q.AboveGrade), w.l(q.Foot), w.l(q.Mark), stock, w.l(at.X), w.l(at.Y)})
		}
	}
	return Topic{Name: "Posts", Head: []string{"Run", "Post", "Kind", w.in("Level from start"), w.in("Slope tape"), w.in("Ground"), w.in("Top"), w.in("Above ground"), w.in("In ground"), w.in("Reference mark above ground"), w.in("Stock"), w.in("Map x"), w.in("Map y")}, Rows: rows}
}

func (w columnsOf) bays(p plan.Plan) Topic {
	var rows [][]any
	for _, r := range p.Runs {
		for _, b := range r.Bays {
			rows = append(rows, []any{runName(r), b.Label, b.From, b.To, b.Gate, w.l(b.CentreToCentre), w.l(b.Clear), string(b.Look), w.l(b.Lean), w.l(b.Long), w.l(b.GapLeast.Gap), w.l(b.GapMost.Gap)})
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
			rows = append(rows, []any{runName(r), q.Label, string(c.Method), w.l(q.HoleWidth), w.l(q.HoleDepth), w.l(q.Bottom), w.l(q.Foot), v(c.Dug), v(c.Gravel), v(c.Stone), v(c.Concrete), v(c.Spoil), c.Bag, c.Bags})
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

// materials is the bill of each run and of the job.
func (w columnsOf) materials(p plan.Plan) Topic {
	var t Topic
	for _, r := range p.Runs {
		t = w.bill(t.Rows, runName(r), r.Items)
	}
	if len(p.Runs) > 1 {
		t = w.bill(t.Rows, "Whole job", p.Items)
	}
	return t
}

// bill adds a bill to the rows of a table, each way to buy an item in a row of
// its own: the exact number with its unit, and how it is said.
func (w columnsOf) bill(rows [][]any, run string, items []bill.Item) Topic {
	bulk, per := w.volume(length.CubicYard, "yd³", 1, "m³")
	for _, r := range bill.Rows(items) {
		exact, unit, count := r.Item.Exact, string(r.Item.Unit), r.Count
		if r.Item.Unit == bill.CubicMetres {
			exact, unit = exact/per, bulk
		}
		if r.By == bill.Truck || r.By == bill.Loose {
			count /= per
		}
		var cut, long any
		said := ""
		if r.Item.Cut > 0 && !r.Or {
			cut = r.Item.Cut
		}
		if r.Item.Length > 0 {
			long, said = w.l(r.Item.Length), w.units.Short(r.Item.Length)
		}
		rows = append(rows, []any{run, string(r.Item.Kind), r.Buy.What, exact, unit, r.By, count, r.Many.Print(w.units), long, said, r.Of.Print(w.units), cut, where(r)})
	}
	return Topic{Name: "Materials", Head: []string{"Run", "Kind", "What", "How much, exact", "Unit", "Bought by", "To buy", "To buy, as said", w.in("Length"), "Length, as said", "Of what", "Of them cut", "Where"}, Rows: rows}
}

// where is where an item's pieces go.
func where(r bill.Row) string {
	var all []string
	if r.Or {
		return ""
	}
	for _, g := range r.Item.Goes {
		all = append(all, g.At...)
	}
	return strings.Join(all, " ")
}
