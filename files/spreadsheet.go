package files

import (
	"fmt"
	"mallow/core/plan"
	"mallow/core/report"
	"mallow/exchange"
	"slices"

	"github.com/xuri/excelize/v2"
)

// Spreadsheet writes the plan as a workbook: a sheet for each topic, numbers
// as numbers with their unit in the head, and totals as formulas. Told hears of each
// sheet, and of every so many rows, and stops the writing with an error.
func Spreadsheet(name string, p plan.Plan, told func(done, of int) error) (exchange.Written, error) {
	w := workbook{file: excelize.NewFile()}
	defer func() { _ = w.file.Close() }() // what it put aside on the disk goes with it
	all := report.Whole()
	for i, id := range all {
		w.told = func() error {
			if told == nil {
				return nil
			}
			return told(i, len(all))
		}
		if w.err = w.told(); w.err != nil {
			break
		}
		t, _ := report.All(p, id)
		if slices.Contains([]string{"curb", "record", "asbuilt"}, id) && len(t.Rows) == 0 { // most have none
			continue
		}
		w.sheet(t.Filed())
	}
	if w.err != nil {
		return exchange.Written{}, w.err
	}
	b, err := w.file.WriteToBuffer()
	if err != nil {
		return exchange.Written{}, err
	}
	return exchange.Written{Name: name, Type: "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet", Data: b.Bytes()}, nil
}

type workbook struct {
	file *excelize.File
	told func() error
	any  bool // it has a sheet of ours
	err  error
}

// newSheet begins a sheet. The one that a new workbook has becomes the first of ours: to
// take it out, all the others would be read back.
func (w *workbook) newSheet(name string) error {
	if !w.any {
		w.any = true
		return w.file.SetSheetName(w.file.GetSheetName(0), name)
	}
	_, err := w.file.NewSheet(name)
	return err
}

// rowsBetween is after how many rows whoever waits is asked whether to go on.
const rowsBetween = 500

// sheet writes a table, with the totals under it.
func (w *workbook) sheet(t report.Table) {
	name, head, rows, sums := t.Name, t.Titles(), t.Values(), t.Sums()
	if w.err != nil {
		return
	}
	if w.err = w.newSheet(name); w.err != nil {
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
				row[k] = exchange.Guarded(s)
			}
		}
		if i%rowsBetween == rowsBetween-1 && w.err == nil {
			w.err = w.told()
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
