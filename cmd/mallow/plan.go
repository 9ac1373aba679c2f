package main

import (
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"math"
	"strings"
	"text/tabwriter"

	"github.com/spf13/cobra"

	"mallow/catalog"
	"mallow/core/document"
	"mallow/core/plan"
	"mallow/core/report"
)

func planCommand() *cobra.Command {
	var asJSON, asTable bool
	c := &cobra.Command{
		Use: "plan FILE", Short: "Plan a job document and print the plan", Args: args(cobra.ExactArgs(1)),
		Long:    "Plan a job document and print the plan. FILE - is standard input.",
		Example: "  mallow plan job.json\n  mallow plan --json job.json | jq .totals",
		RunE: func(c *cobra.Command, given []string) error {
			if asJSON && asTable {
				return usageError{errors.New("--json and --table do not go together")}
			}
			p, unknown, err := planFile(given[0], c.InOrStdin())
			if err != nil {
				return usageError{err}
			}
			for _, field := range unknown {
				fmt.Fprintf(c.ErrOrStderr(), "mallow: note: %s is not a field that Mallow knows; it was not used\n", field)
			}
			if asJSON {
				enc := json.NewEncoder(c.OutOrStdout())
				enc.SetIndent("", "  ")
				return enc.Encode(p)
			}
			return printTable(c.OutOrStdout(), p)
		},
	}
	c.Flags().BoolVar(&asJSON, "json", false, "print the plan document")
	c.Flags().BoolVar(&asTable, "table", false, "print tables (the usual)")
	return c
}

func planFile(name string, stdin io.Reader) (plan.Plan, []string, error) {
	cat, err := catalog.Load()
	if err != nil {
		return plan.Plan{}, nil, err
	}
	doc, err := readFile(name, stdin)
	if err != nil {
		return plan.Plan{}, nil, err
	}
	j, unknown, err := document.Decode(doc, cat)
	if err != nil {
		return plan.Plan{}, nil, fmt.Errorf("%s: %w", name, err)
	}
	return plan.Make(j, cat), unknown, nil
}

// table prints with aligned columns and keeps the first error.
type table struct {
	w   *tabwriter.Writer
	err error
}

func (t *table) row(format string, values ...any) {
	if t.err == nil {
		_, t.err = fmt.Fprintf(t.w, format+"\n", values...)
	}
}

func printTable(out io.Writer, p plan.Plan) error {
	t := &table{w: tabwriter.NewWriter(out, 0, 0, 2, ' ', 0)}
	u := p.Units
	t.row("%s", p.Name)
	if !p.Before.Ready {
		t.row("NOT CLEARED TO DIG. Still open:")
		for _, c := range p.Before.Checks {
			if !c.Done {
				t.row("  %s: %s", c.Name, c.Says.Print(u))
			}
		}
	}
	for _, l := range p.Lines {
		printCorners(t, p, l)
	}
	for i, r := range p.Runs {
		t.row("\n%s: %s level, %s along the ground", r.Name, u.Tape(r.Length), u.Tape(r.SlopeLength))
		for _, id := range report.IDs() {
			if rows, ok := report.Of(p, id, i); ok && id != "load" && (id != "curb" || len(rows.Rows) > 0) { // which stands at the end
				printReport(t, rows)
			}
		}
		printSpacing(t, p, r)
		printTopLine(t, p, r)
		printGates(t, p, r)
	}
	printTotals(t, p)
	for i, f := range p.Findings {
		if i == 0 {
			t.row("\nTo look at")
		}
		t.row("  %s: %s", f.Severity, f.Says.Print(u))
		for _, way := range f.Remedies {
			t.row("    - %s%s", way.Says.Print(u), costs(way.Cost))
		}
	}
	for i, caution := range p.Cautions {
		if i == 0 {
			t.row("\nCautions")
		}
		t.row("  %s: %s", caution.Stage, caution.Says.Print(u))
	}
	if t.err != nil {
		return t.err
	}
	return t.w.Flush()
}

func printCorners(t *table, p plan.Plan, l plan.Line) {
	u := p.Units
	if c := l.Closing; c != nil {
		t.row("\n%s misses closing by %s round %s", l.Name, u.Short(c.Miss), u.Tape(c.Perimeter))
	}
	first := true
	for _, c := range l.Corners {
		if c.Square == nil {
			continue
		}
		if first {
			t.row("\nCorner\tTurns\tLeg\tLeg\tDiagonal")
			first = false
		}
		side := string(c.Side)
		if side == "" {
			side = "straight on"
		}
		t.row("%s to %s\t%.2f° %s\t%s\t%s\t%s", c.Before, c.After, math.Abs(*c.Turn), side, u.Tape(c.Square.LegA), u.Tape(c.Square.LegB), u.Tape(c.Square.Diagonal))
	}
}

// printReport prints a table under its name.
func printReport(t *table, r report.Table) {
	if r = r.Read(); len(r.Rows) == 0 {
		return
	}
	t.row("\n%s", strings.Join(r.Heads(), "\t"))
	for _, line := range r.Lines() {
		t.row("%s", strings.Join(line, "\t"))
	}
}

func printTotals(t *table, p plan.Plan) {
	t.row("\nThe load")
	printBill(t, report.Load(p, p.Items))
	if n := p.Totals.Elsewhere; n > 0 {
		t.row("  \t%d\tcorner posts counted once, in the run that ends there", n)
	}
	if n := p.Totals.Reused; n > 0 {
		t.row("  \t%d\told %s built onto", n, plural(n, "post"))
	}
	if len(p.Runs) > 1 {
		for _, r := range p.Runs {
			t.row("\n%s alone", r.Name)
			printBill(t, report.Load(p, r.Items))
		}
	}
}

func printBill(t *table, r report.Table) {
	for _, line := range r.Read().Lines() {
		t.row("  %s", strings.Join(line, "\t"))
	}
}
