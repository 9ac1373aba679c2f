package report_test

import (
	"slices"
	"testing"

	"mallow/core/length"
	"mallow/core/report"
)

func labels(t report.Table) (out []string) {
	for _, r := range t.Rows {
		out = append(out, r.Cells[0].(string))
	}
	return out
}

func TestRowsAreSortedAndFound(t *testing.T) {
	var table report.Table
	table.Units = length.Usual(length.Imperial)
	table.Columns = []report.Column{{ID: "post", Kind: report.Text}, {ID: "deep", Kind: report.Short}, {ID: "count", Kind: report.Count}}
	table.Rows = []report.Row{
		{Cells: []any{"P10", 42 * length.Inch, 3}}, {Cells: []any{"P2", nil, 10}}, {Cells: []any{"P1", 48 * length.Inch, 10}},
		{Cells: []any{"P2a", 42 * length.Inch, 1}}, {Cells: []any{"P02", 9 * length.Inch, 2}},
	}
	for _, c := range []struct {
		column string
		down   bool
		want   []string
	}{
		{"post", false, []string{"P1", "P2", "P02", "P2a", "P10"}},
		{"post", true, []string{"P10", "P2a", "P2", "P02", "P1"}},
		{"deep", false, []string{"P02", "P10", "P2a", "P1", "P2"}}, // alike: as they stood; nothing said: last
		{"deep", true, []string{"P1", "P10", "P2a", "P02", "P2"}},
		{"count", false, []string{"P2a", "P02", "P10", "P2", "P1"}},
	} {
		got, ok := table.Sort(c.column, c.down)
		if !ok || !slices.Equal(labels(got), c.want) {
			t.Errorf("by %s, down %v: %v, want %v", c.column, c.down, labels(got), c.want)
		}
	}
	if labels(table)[0] != "P10" {
		t.Error("sorting changed the table itself")
	}
	if _, ok := table.Sort("mood", false); ok {
		t.Error("there is no column of moods")
	}
	for text, want := range map[string][]string{"p2": {"P2", "P2a"}, `42"`: {"P10", "P2a"}, " P10 ": {"P10"}, "moss": nil, "": labels(table)} {
		if got := labels(table.Find(text)); !slices.Equal(got, want) {
			t.Errorf("%q is in %v, want %v", text, got, want)
		}
	}
}
