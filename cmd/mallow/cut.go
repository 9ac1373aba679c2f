package main

import (
	"encoding/json"
	"errors"
	"fmt"
	"text/tabwriter"

	"github.com/spf13/cobra"

	"mallow/core/plan"
	"mallow/core/report"
	"mallow/exchange"
)

func cutCommand() *cobra.Command {
	var asJSON, asCSV bool
	var run string
	c := &cobra.Command{
		Use: "cut FILE", Short: "Print the lengths to buy, and what is cut from each", Args: args(cobra.ExactArgs(1)),
		Long:    "Print the cut list of a job, or of one run by itself: for each section the lengths to buy, each with its pieces (part, run, bay, row), what is left, the waste, and the least that any way of cutting could buy. FILE - is standard input.",
		Example: "  mallow cut job.json\n  mallow cut --run R2 job.json\n  mallow cut --json job.json | jq '.[].bars'",
		RunE: func(c *cobra.Command, given []string) error {
			if asJSON && asCSV {
				return usageError{errors.New("--json and --csv do not go together")}
			}
			p, _, err := planFile(given[0], c.InOrStdin())
			if err != nil {
				return usageError{err}
			}
			items := p.Items
			if run != "" {
				if items, err = itemsOf(p, run); err != nil {
					return err
				}
			}
			lists := p.CutLists(items)
			switch {
			case asJSON:
				enc := json.NewEncoder(c.OutOrStdout())
				enc.SetIndent("", "  ")
				return enc.Encode(lists)
			case asCSV:
				file, err := exchange.TableCSV(report.Cuts(p, lists))
				if err != nil {
					return err
				}
				_, err = c.OutOrStdout().Write(file.Data)
				return err
			}
			if len(lists) == 0 {
				_, err := fmt.Fprintln(c.OutOrStdout(), "Nothing to cut: no run with a fence type that is cut from lengths.")
				return err
			}
			t := &table{w: tabwriter.NewWriter(c.OutOrStdout(), 2, 4, 2, ' ', 0)}
			printCuts(t, p, lists)
			if t.err != nil {
				return t.err
			}
			return t.w.Flush()
		},
	}
	c.Flags().BoolVar(&asJSON, "json", false, "print the cut lists as JSON")
	c.Flags().BoolVar(&asCSV, "csv", false, "print comma-separated values")
	c.Flags().StringVar(&run, "run", "", "of one run only, by its id or name")
	return c
}

// printCuts prints every section with its lengths and their cuts.
func printCuts(t *table, p plan.Plan, lists []plan.CutList) {
	u := p.Units
	for _, l := range lists {
		t.row("%s: %s", l.What, l.Name.Print(u))
		t.row("  %s", l.Says.Print(u))
		for _, b := range l.Bars {
			from := ""
			if b.Offcut {
				from = " offcut"
			}
			for i, c := range b.Cuts {
				head := fmt.Sprintf("%d × %s%s", b.Count, u.Short(b.Length), from)
				if i > 0 {
					head = ""
				}
				left := ""
				if i == len(b.Cuts)-1 {
					left = "left " + u.Short(b.Left)
				}
				t.row("  %s\t%d × %s\t%s\t%s", head, c.Each, u.Short(c.Long), left, c.Where)
			}
		}
	}
}
