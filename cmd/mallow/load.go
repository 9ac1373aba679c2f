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

// billAsked is how a command that prints a bill, or what follows from one, is asked.
type billAsked struct {
	json, csv bool
	run       string
}

func (a *billAsked) flags(c *cobra.Command, json string) {
	c.Flags().BoolVar(&a.json, "json", false, json)
	c.Flags().BoolVar(&a.csv, "csv", false, "print comma-separated values")
	c.Flags().StringVar(&a.run, "run", "", "of one run only, by its id or name")
}

// read plans a file, and gives the bill that is asked for.
func (a *billAsked) read(c *cobra.Command, file string) (plan.Plan, []bill.Item, error) {
	if a.json && a.csv {
		return plan.Plan{}, nil, usageError{errors.New("--json and --csv do not go together")}
	}
	p, _, err := planFile(file, c.InOrStdin())
	if err != nil {
		return p, nil, usageError{err}
	}
	if a.run == "" {
		return p, p.Items, nil
	}
	for _, r := range p.Runs {
		if r.ID == a.run || r.Name == a.run {
			return p, r.Items, nil
		}
	}
	return p, nil, usageError{fmt.Errorf("--run: given %q; allowed: the id or the name of a run of this job", a.run)}
}

// print writes what is asked for as JSON or as a table of values; false where it is
// to be read by people.
func (a *billAsked) print(c *cobra.Command, v any, t report.Table) (bool, error) {
	switch {
	case a.json:
		enc := json.NewEncoder(c.OutOrStdout())
		enc.SetIndent("", "  ")
		return true, enc.Encode(v)
	case a.csv:
		file, err := exchange.TableCSV(t)
		if err == nil {
			_, err = c.OutOrStdout().Write(file.Data)
		}
		return true, err
	}
	return false, nil
}

func loadCommand() *cobra.Command {
	var asked billAsked
	c := &cobra.Command{
		Use: "load FILE", Short: "Print what a job takes: posts, concrete, gravel, hours", Args: args(cobra.ExactArgs(1)),
		Long:    "Print the bill of a job, or of one run: every item with how much, how it is bought and of what. FILE - is standard input.",
		Example: "  mallow load job.json\n  mallow load --run R2 job.json\n  mallow load --json job.json | jq '.[] | {id, exact}'",
		RunE: func(c *cobra.Command, given []string) error {
			p, items, err := asked.read(c, given[0])
			if err != nil {
				return err
			}
			if items == nil {
				items = []bill.Item{}
			}
			if done, err := asked.print(c, items, report.Load(p, items)); done || err != nil {
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
	asked.flags(c, "print the items of the plan document")
	return c
}
