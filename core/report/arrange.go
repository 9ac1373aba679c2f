package report

import (
	"cmp"
	"reflect"
	"slices"
	"strings"
)

// Find keeps the rows in which some cell, as it is read, holds the text.
func (t Table) Find(text string) Table {
	text = strings.ToLower(strings.TrimSpace(text))
	if text == "" {
		return t
	}
	rows := t.Rows
	t.Rows = nil
	for _, r := range rows {
		for k, cell := range r.Cells {
			if strings.Contains(strings.ToLower(t.Said(t.Columns[k].Kind, cell)), text) {
				t.Rows = append(t.Rows, r)
				break
			}
		}
	}
	return t
}

// Sort puts the rows in the order of a column, rows that say nothing there at
// the end; false where there is no such column. Rows that are alike stay in the
// order of the line.
func (t Table) Sort(column string, down bool) (Table, bool) {
	k := t.Column(column)
	if k < 0 {
		return t, false
	}
	t.Rows = slices.Clone(t.Rows)
	slices.SortStableFunc(t.Rows, func(a, b Row) int {
		x, y := a.Cells[k], b.Cells[k]
		switch {
		case x == nil && y == nil:
			return 0
		case x == nil:
			return 1
		case y == nil:
			return -1
		}
		by := t.compare(t.Columns[k].Kind, x, y)
		if down {
			return -by
		}
		return by
	})
	return t, true
}

// compare compares two cells of a column: numbers by their size, all else as
// it is read, with the numbers in it by their size: P2 stands before P10.
func (t Table) compare(kind Kind, a, b any) int {
	x, y := reflect.ValueOf(a), reflect.ValueOf(b)
	switch {
	case x.CanFloat() && y.CanFloat():
		return cmp.Compare(x.Float(), y.Float())
	case x.CanInt() && y.CanInt():
		return cmp.Compare(x.Int(), y.Int())
	}
	return natural(t.Said(kind, a), t.Said(kind, b))
}

// natural compares texts, digits in a row as the number that they are.
func natural(a, b string) int {
	for a != "" && b != "" {
		m, n := digits(a), digits(b)
		if m == 0 || n == 0 {
			if by := cmp.Compare(a[0], b[0]); by != 0 {
				return by
			}
			a, b = a[1:], b[1:]
			continue
		}
		x, y := strings.TrimLeft(a[:m], "0"), strings.TrimLeft(b[:n], "0")
		if by := cmp.Or(cmp.Compare(len(x), len(y)), cmp.Compare(x, y)); by != 0 {
			return by
		}
		a, b = a[m:], b[n:]
	}
	return cmp.Compare(len(a), len(b))
}

// digits is how many digits a text begins with.
func digits(s string) int {
	n := strings.IndexFunc(s, func(r rune) bool { return r < '0' || r > '9' })
	if n < 0 {
		return len(s)
	}
	return n
}
