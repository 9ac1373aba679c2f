package main

import (
	"encoding/json"
	"errors"
	"fmt"
	"text/tabwriter"

	"github.com/spf13/cobra"

	"mallow/core/bill"
	"mallow/core/plan"
	"mallow/core/report"
	"mallow/exchange"
)

// itemsOf is the bill of a run, by its id or name.
func itemsOf(p plan.Plan, run string) ([]bill.Item, error) {
	for _, r := range p.Runs {
		if r.ID == run || r.Name == run {
			return r.Items, nil
		}
	}
	return nil, usageError{fmt.Errorf("--run: given %q; allowed: the id or the name of a run of this job", run)}
}

func loadCommand() *cobra.Command {
	var asJSON, asCSV bool
	var run string
	c := &cobra.Command{
		Use: "load FILE", Short: "Print what a job takes: posts, concrete, gravel, hours", Args: args(cobra.ExactArgs(1)),
		Long:    "Print the bill of a job, or of one run: every item with how much, how it is bought and of what. FILE - is standard input.",
		Example: "  mallow load job.json\n  mallow load --run R2 job.json\n  mallow load --json job.json | jq '.[] | {id, exact}'",
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
			if items == nil {
				items = []bill.Item{}
			}
			switch {
			case asJSON:
				enc := json.NewEncoder(c.OutOrStdout())
				enc.SetIndent("", "  ")
				return enc.Encode(items)
			case asCSV:
				file, err := exchange.TableCSV(report.Load(p, items))
				if err != nil {
					return err
				}
				_, err = c.OutOrStdout().Write(file.Data)
				return err
			}
			if len(items) == 0 {
				_, err := fmt.Fprintln(c.OutOrStdout(), "Nothing yet: no run has a length.")
				return err
			}
			t := &table{w: tabwriter.NewWriter(c.OutOrStdout(), 2, 4, 2, ' ', 0)}
			printBill(t, report.Load(p, items))
			if t.err != nil {
				return t.err
			}
			return t.w.Flush()
		},
	}
	c.Flags().BoolVar(&asJSON, "json", false, "print the items of the plan document")
	c.Flags().BoolVar(&asCSV, "csv", false, "print comma-separated values")
	c.Flags().StringVar(&run, "run", "", "of one run only, by its id or name")
	return c
}
