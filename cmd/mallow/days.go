package main

import (
	"errors"
	"text/tabwriter"
	"time"

	"github.com/spf13/cobra"

	"mallow/catalog"
	"mallow/core/document"
	"mallow/core/job"
	"mallow/core/plan"
	"mallow/core/report"
	"mallow/core/stage/days"
	"mallow/files"
)

func daysCommand() *cobra.Command {
	var start string
	var out billAsked
	var ics bool
	c := &cobra.Command{
		Use: "days FILE", Short: "Lay the work out in days: tasks, load and who comes", Args: args(cobra.ExactArgs(1)),
		Long:    "Lay a job's work out in days for one crew: the earliest finish, then the fewest trips, then the most even days. FILE - is standard input.",
		Example: "  mallow days --start 2027-05-03 job.json\n  mallow days --ics job.json > job.ics\n  mallow days --json job.json | jq '.days[].date'",
		RunE: func(c *cobra.Command, given []string) error {
			if out.json && ics || out.csv && ics || out.json && out.csv {
				return usageError{errors.New("of --json, --csv and --ics only one can be given")}
			}
			cat, err := catalog.Load()
			if err != nil {
				return err
			}
			doc, err := readFile(given[0], c.InOrStdin())
			if err != nil {
				return usageError{err}
			}
			if start != "" {
				if doc, err = document.Apply(doc, []job.Edit{job.Set("/days/start", start)}); err != nil {
					return usageError{err}
				}
			}
			j, _, err := document.Decode(doc, cat)
			if err != nil {
				return usageError{err}
			}
			p, err := plan.Worded(nil, j, cat)
			if err != nil {
				return err
			}
			s := p.Schedule
			if done, err := out.print(c, s, report.Days(p, s)); done || err != nil {
				return err
			}
			if ics {
				_, err := c.OutOrStdout().Write(files.Calendar(j.Name, "job", s, p.Log.Later, j.Units, time.Now()))
				return err
			}
			t := &table{w: tabwriter.NewWriter(c.OutOrStdout(), 2, 4, 2, ' ', 0)}
			printDays(t, p, s)
			if t.err != nil {
				return t.err
			}
			return t.w.Flush()
		},
	}
	c.Flags().StringVar(&start, "start", "", "first day on which the crew can come, year-month-day, in place of the job's")
	c.Flags().BoolVar(&out.json, "json", false, "print the days as JSON")
	c.Flags().BoolVar(&out.csv, "csv", false, "print their tasks as comma-separated values")
	c.Flags().BoolVar(&ics, "ics", false, "print them as an iCalendar file")
	return c
}

// printDays prints what is to be looked at, then day by day.
func printDays(t *table, p plan.Plan, s *days.Schedule) {
	u := p.Units
	for _, a := range s.Asks {
		t.row("To enter: %s", a.Says.Print(u))
	}
	for _, f := range s.Finds {
		t.row("%s: %s", f.Severity, f.Says.Print(u))
	}
	if len(s.Days) == 0 {
		for _, k := range s.Tasks {
			t.row("%s\t%.1f h", k.Name, k.Hours)
		}
		return
	}
	t.row("%d days on site, the last on %s; %.1f hours with %d hands", s.Trips, s.Finish, s.Hours, s.People)
	for _, d := range s.Days {
		t.row("%s\t%s to %s\t%.1f h", d.Date, d.From, d.To, d.Hours)
		for _, k := range d.Parts {
			more := ""
			if k.More {
				more = ", goes on"
			}
			t.row("  %s\t%s to %s%s", k.Name, k.From, k.To, more)
		}
		for _, who := range d.Who {
			t.row("  comes: %s", who)
		}
		for _, l := range d.Load {
			t.row("  load: %s\t%s", l.What, l.Many.Print(u))
		}
	}
	for _, w := range s.Waits {
		t.row("%s\tfrom %s", w.For, w.Until)
	}
	for _, o := range s.Sooner {
		t.row("Sooner: %s\tends %s, %d days earlier, %+.1f hours of one person", o.Says.Print(u), o.Finish, o.Days, o.Hours)
	}
}
