package main

import (
	"errors"
	"fmt"
	"io"
	"text/tabwriter"

	"github.com/spf13/cobra"

	"mallow/catalog"
	"mallow/core/document"
	"mallow/core/job"
	"mallow/core/plan"
	"mallow/core/report"
	"mallow/core/stage/pourday"
	"mallow/exchange"
)

func pourCommand() *cobra.Command {
	var out billAsked
	var weather, start string
	offset := 0.0
	c := &cobra.Command{
		Use: "pour FILE", Short: "Plan the day of the pour: loads, times, when posts may be loaded", Args: args(cobra.ExactArgs(1)),
		Long:    "Plan the day on which a job's concrete is poured: what to order, in which loads and when, each post with its time, and when what was poured may be loaded. FILE - is standard input. Weather is the job's own, or a file of hourly values with headings (time, temp, humidity, wind, sun, rain).",
		Example: "  mallow pour job.json\n  mallow pour --weather hours.csv --offset -5 --start 2027-05-03 job.json\n  mallow pour --json job.json | jq '.loads'",
		RunE: func(c *cobra.Command, given []string) error {
			if out.json && out.csv {
				return usageError{errors.New("--json and --csv do not go together")}
			}
			p, err := pourFile(given[0], c.InOrStdin(), weather, offset, start)
			if err != nil {
				return usageError{err}
			}
			d := p.Pour
			if done, err := out.print(c, d, report.Pour(p, d.Rows(p.Units))); done || err != nil {
				return err
			}
			t := &table{w: tabwriter.NewWriter(c.OutOrStdout(), 2, 4, 2, ' ', 0)}
			printPour(t, p, d)
			if t.err != nil {
				return t.err
			}
			return t.w.Flush()
		},
	}
	c.Flags().BoolVar(&out.json, "json", false, "print the day as JSON")
	c.Flags().BoolVar(&out.csv, "csv", false, "print its posts as comma-separated values")
	c.Flags().StringVar(&weather, "weather", "", "file of hourly weather, in place of the job's")
	c.Flags().Float64Var(&offset, "offset", 0, "hours that the site's clock is ahead of UTC, where the file does not say")
	c.Flags().StringVar(&start, "start", "", "day of the pour, year-month-day, in place of the job's")
	return c
}

// pourFile plans a job with the weather and the day that are given in place of its own.
func pourFile(name string, stdin io.Reader, weather string, offset float64, start string) (plan.Plan, error) {
	cat, err := catalog.Load()
	if err != nil {
		return plan.Plan{}, err
	}
	doc, err := readFile(name, stdin)
	if err != nil {
		return plan.Plan{}, err
	}
	var edits []job.Edit
	if start != "" {
		edits = append(edits, job.Set("/pour/date", start))
	}
	if weather != "" {
		text, err := readFile(weather, stdin)
		if err != nil {
			return plan.Plan{}, err
		}
		read, err := exchange.ReadWeather(exchange.WeatherRequest{Text: string(text), Offset: offset})
		if err != nil {
			return plan.Plan{}, fmt.Errorf("%s: %w", weather, err)
		}
		edits = append(edits, job.Set("/weather", job.Weather{Source: "a file", Hours: read.Hours}))
	}
	if _, _, err := document.Decode(doc, cat); err != nil {
		return plan.Plan{}, fmt.Errorf("%s: %w", name, err)
	}
	if doc, err = document.Apply(doc, edits); err != nil {
		return plan.Plan{}, err
	}
	j, _, err := document.Decode(doc, cat)
	if err != nil {
		return plan.Plan{}, err
	}
	return plan.Worded(nil, j, cat)
}

// printPour prints what to order, the loads, the posts, the waits and what is to be
// looked at.
func printPour(t *table, p plan.Plan, d *pourday.Day) {
	u := p.Units
	when := func(at string) string {
		if len(at) < 16 {
			return "not known"
		}
		return at[:10] + " " + at[11:16]
	}
	for _, a := range d.Asks {
		t.row("To enter: %s", a.Says.Print(u))
	}
	for _, f := range d.Finds {
		t.row("%s: %s", f.Severity, f.Says.Print(u))
	}
	if len(d.Posts) == 0 {
		t.row("No concrete: no run with a length is set in any.")
		return
	}
	t.row("%d posts, %.1f an hour with %d hands", len(d.Posts), d.PerHour, d.People)
	if d.Order.Volume > 0 {
		t.row("Order %s, slump %s to %s, stone to %s", u.Bulk(d.Order.Volume), u.Short(d.Order.Least), u.Short(d.Order.Most), u.Short(d.Order.Stone))
	}
	for _, b := range d.Order.Bags {
		t.row("Order %d × %s, %s, pallets %d, water to a bag %s", b.Count, b.Bag, u.Weight(b.Mass), b.Pallets, u.Water(b.Water))
	}
	if d.Order.Cement > 0 {
		t.row("Order %d bags of cement, sand %s, stone %s", d.Order.Cement, u.Bulk(d.Order.Sand), u.Bulk(d.Order.Gravel))
	}
	for i, l := range d.Loads {
		t.row("Load %d\tcomes %s\tlast of it in %s\tworked until %s\t%s\t%s", i+1, when(l.Comes), when(l.Done), when(l.Worked), u.Bulk(l.Order), l.Says(u))
	}
	runs := map[string]string{}
	for i := range p.Runs {
		runs[p.Runs[i].ID] = p.Runs[i].Name
	}
	for _, o := range d.Rows(u) {
		name := o.Post
		if len(p.Runs) > 1 {
			name = runs[o.Run] + " " + o.Post
		}
		t.row("%s\t%s\t%s", name, when(o.At), u.Small(o.Volume))
	}
	for i := range p.Runs {
		if c := p.Runs[i].Curb; c != nil {
			t.row("Forms for %s: %s of curb, %s by %s, boards %s, stakes %d; joints at most %s", p.Runs[i].Name, u.Tape(c.Length), u.Short(c.Width), u.Short(c.Depth), u.Tape(c.Forms), c.Stakes, u.Short(c.Most))
		}
	}
	for _, w := range d.Waits {
		t.row("%s\tfrom %s\tusual %g to %g h", w.Name, when(w.At), w.Usual[0], w.Usual[1])
	}
}
