package main

import (
	"cmp"
	"encoding/json"
	"errors"
	"fmt"
	"path/filepath"
	"text/tabwriter"
	"time"

	"github.com/spf13/cobra"

	"mallow/catalog"
	"mallow/core/board"
	"mallow/core/document"
	"mallow/core/length"
	"mallow/core/plan"
	"mallow/core/stage/days"
	"mallow/files"
)

func boardCommand() *cobra.Command {
	var asJSON, ics bool
	c := &cobra.Command{
		Use: "board FILE...", Short: "Hold the days of several jobs against each other", Args: args(cobra.MinimumNArgs(1)),
		Long:    "Hold the days of several jobs against each other, crew by crew, so that no crew is in two places. The job that starts first goes first. Jobs without a first day are left out.",
		Example: "  mallow board lane.json yard.json\n  mallow board --ics *.json > crew.ics",
		RunE: func(c *cobra.Command, given []string) error {
			if asJSON && ics {
				return usageError{errors.New("--json and --ics do not go together")}
			}
			cat, err := catalog.Load()
			if err != nil {
				return err
			}
			var jobs []board.Job
			units := map[string]length.Units{}
			for _, file := range given {
				doc, err := readFile(file, c.InOrStdin())
				if err != nil {
					return usageError{err}
				}
				j, _, err := document.Decode(doc, cat)
				if err != nil {
					return usageError{fmt.Errorf("%s: %w", file, err)}
				}
				if j.Days.Start == "" {
					fmt.Fprintf(c.ErrOrStderr(), "mallow: note: %s has no first day; it is not on the board\n", file)
					continue
				}
				r, err := plan.Compute(nil, j, cat, nil)
				if err != nil {
					return err
				}
				id := filepath.Base(file)
				units[id] = j.Units
				jobs = append(jobs, board.Job{ID: id, Name: cmp.Or(j.Name, id), Crew: j.Days.Crew, Start: j.Days.Start, Taken: j.Days.Taken,
					Plan: func(taken []string) (*days.Schedule, error) { return r.Elsewhere(taken), nil }})
			}
			crews, err := board.Lay(jobs, func(int) {})
			if err != nil {
				return err
			}
			if asJSON {
				enc := json.NewEncoder(c.OutOrStdout())
				enc.SetIndent("", "  ")
				return enc.Encode(crews)
			}
			if ics {
				var all []files.CalendarJob
				for _, k := range crews {
					for i := range k.Jobs {
						all = append(all, files.CalendarJob{Name: k.Jobs[i].Name, ID: k.Jobs[i].ID, Schedule: k.Jobs[i].Schedule(), Units: units[k.Jobs[i].ID]})
					}
				}
				_, err := c.OutOrStdout().Write(files.CrewCalendar("Board", all, time.Now()))
				return err
			}
			t := &table{w: tabwriter.NewWriter(c.OutOrStdout(), 2, 4, 2, ' ', 0)}
			printBoard(t, crews)
			if t.err != nil {
				return t.err
			}
			return t.w.Flush()
		},
	}
	c.Flags().BoolVar(&asJSON, "json", false, "print the board as JSON")
	c.Flags().BoolVar(&ics, "ics", false, "print all days as one iCalendar file")
	return c
}

// printBoard prints each crew's jobs, the days on which it would be in two places, and
// what keeps it from that.
func printBoard(t *table, crews []board.CrewDays) {
	for _, k := range crews {
		t.row("%s", cmp.Or(k.Name, "Crew without a name"))
		for _, o := range k.Jobs {
			t.row("  %s\tends %s", o.Name, cmp.Or(o.Finish, "not: some tasks have no place"))
			for _, d := range o.Days {
				t.row("    %s\t%s to %s", d.Date, d.From, d.To)
			}
			for _, h := range o.Clash {
				t.row("    in two places on %s: also %s", h.Date, h.Other)
			}
			if o.Clear != nil {
				t.row("    kept clear it ends %s", cmp.Or(o.Clear.Finish, "not: some tasks have no place"))
			}
		}
	}
}
