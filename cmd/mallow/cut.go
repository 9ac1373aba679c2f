package main

import (
	"fmt"
	"text/tabwriter"

	"github.com/spf13/cobra"

	"mallow/core/plan"
	"mallow/core/report"
)

func cutCommand() *cobra.Command {
	var asked billAsked
	c := &cobra.Command{
		Use: "cut FILE", Short: "Print the lengths to buy, and what is cut from each", Args: args(cobra.ExactArgs(1)),
		Long:    "Print the cut list of a job, or of one run by itself: for each section the lengths to buy, each with its pieces (part, run, bay, row), what is left, the waste, and the least that any way of cutting could buy. FILE - is standard input.",
		Example: "  mallow cut job.json\n  mallow cut --run R2 job.json\n  mallow cut --json job.json | jq '.[].bars'",
		RunE: func(c *cobra.Command, given []string) error {
			p, items, err := asked.read(c, given[0])
			if err != nil {
				return err
			}
			lists := p.CutLists(items)
			if done, err := asked.print(c, lists, report.Cuts(p, lists)); done || err != nil {
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
	asked.flags(c, "print the cut lists as JSON")
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
