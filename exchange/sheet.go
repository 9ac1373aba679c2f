package exchange

import (
	"fmt"
	"strconv"

	"mallow/core/plan"
	"mallow/core/report"
)

// TableCSV writes a table as CSV: numbers in the unit that its head names.
func TableCSV(t report.Table) (Written, error) {
	t = t.Filed()
	rows := [][]string{t.Names()}
	for _, r := range t.Values() {
		row := make([]string, len(r))
		for i, v := range r {
			switch v := v.(type) {
			case nil:
			case float64:
				row[i] = strconv.FormatFloat(v, 'f', -1, 64)
			default:
				row[i] = fmt.Sprint(v)
			}
		}
		rows = append(rows, row)
	}
	return table(t.ID+".csv", rows, len(t.Rows) > 0)
}

func runName(r plan.Run) string {
	if r.Name != "" {
		return r.Name
	}
	return r.ID
}
