package main

import (
	"errors"
	"fmt"
	"io"
	"slices"
	"strconv"
	"strings"
	"text/tabwriter"
	"time"

	"github.com/spf13/cobra"

	"mallow/catalog"
	"mallow/core/document"
	"mallow/core/finding"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/materials"
	"mallow/core/plan"
	"mallow/core/reason"
	"mallow/core/report"
	"mallow/core/stage/amend"
	"mallow/core/stage/record"
)

func logCommand() *cobra.Command {
	var out billAsked
	var on, who string
	var set []string
	c := &cobra.Command{
		Use: "log FILE", Short: "Write down what was seen on site, and print the record", Args: args(cobra.ExactArgs(1)),
		Long:    "Print what was done and found on site against the plan: how far each post is, what differs, how far the bags last. With --on and --set, first write facts about a post into FILE, and print what to do. FILE - is standard input; then the changed document goes to standard output.",
		Example: "  mallow log job.json\n  mallow log job.json --on P7 --set landed=48'1\" --set rock=22\"\n  mallow log job.json --on 'Lane P3' --set dug --set bags=2.5 --by Ash",
		RunE: func(c *cobra.Command, given []string) error {
			if out.json && out.csv {
				return usageError{errors.New("--json and --csv do not go together")}
			}
			if (on == "") != (len(set) == 0) {
				return usageError{errors.New("--on and --set go together")}
			}
			cat, err := catalog.Load()
			if err != nil {
				return err
			}
			raw, err := readFile(given[0], c.InOrStdin())
			if err != nil {
				return usageError{err}
			}
			l, err := openLog(raw, cat)
			if err != nil {
				return usageError{fmt.Errorf("%s: %w", given[0], err)}
			}
			if on != "" {
				if err := l.write(on, set, who, time.Now(), cat); err != nil {
					return usageError{err}
				}
				if given[0] == "-" {
					_, err := c.OutOrStdout().Write(l.open.Doc)
					return err
				}
				if err := writeFile(given[0], l.open.Doc); err != nil {
					return err
				}
				return l.advise(c.OutOrStdout())
			}
			r, p := l.result.Forecast(), l.result.Figures()
			if done, err := out.print(c, r, report.Record(p, r)); done || err != nil {
				return err
			}
			t := &table{w: tabwriter.NewWriter(c.OutOrStdout(), 2, 4, 2, ' ', 0)}
			printRecord(t, p, r)
			if t.err != nil {
				return t.err
			}
			return t.w.Flush()
		},
	}
	c.Flags().BoolVar(&out.json, "json", false, "print the record as JSON")
	c.Flags().BoolVar(&out.csv, "csv", false, "print its posts as comma-separated values")
	c.Flags().StringVar(&on, "on", "", "post that was seen: P7, or its run's name and P7")
	c.Flags().StringArrayVar(&set, "set", nil, "what was seen: staked, dug, set, poured, built; or landed, rock, water, root, service, depth, width, plumb, line, gravel, bags, note with =VALUE; can stand many times")
	c.Flags().StringVar(&who, "by", "", "who saw it")
	return c
}

// openedLog is a document that facts are written into.
type openedLog struct {
	open   document.Opened
	result *plan.Result
	post   *postSeen
}

// postSeen is the post that facts are about.
type postSeen struct {
	id, label, run string
	station        length.Length
}

// openLog reads a document, and gives its posts the names by which facts go.
func openLog(raw []byte, cat materials.Catalog) (*openedLog, error) {
	o, err := document.Open(raw, cat)
	if err != nil {
		return nil, err
	}
	r, err := plan.Compute(nil, o.Job, cat, nil)
	if err != nil {
		return nil, err
	}
	if _, err := o.Lay(r.Laid()); err != nil {
		return nil, err
	}
	if r, err = plan.Compute(nil, o.Job, cat, nil); err != nil {
		return nil, err
	}
	return &openedLog{open: o, result: r}, nil
}

// find is the post of a label, with its run's name where several have it.
func (l *openedLog) find(on string) (*postSeen, error) {
	var all []postSeen
	var names []string
	for _, run := range l.result.Figures().Runs {
		for i := range run.Posts {
			p := &run.Posts[i]
			full := strings.TrimSpace(run.Name + " " + p.Label)
			if p.Shared != "" || p.Label != on && !strings.EqualFold(full, on) {
				continue
			}
			all, names = append(all, postSeen{p.ID, p.Label, run.ID, p.Station}), append(names, full)
		}
	}
	switch len(all) {
	case 0:
		return nil, fmt.Errorf("--on: given %q; allowed: a post of the plan, such as P7, or its run's name and P7", on)
	case 1:
		return &all[0], nil
	}
	return nil, fmt.Errorf("--on: given %q; allowed: one of %s", on, strings.Join(names, ", "))
}

// write writes facts about a post into the document.
func (l *openedLog) write(on string, set []string, who string, now time.Time, cat materials.Catalog) error {
	post, err := l.find(on)
	if err != nil {
		return err
	}
	doc := l.open.Doc
	facts := len(l.open.Job.Observed)
	for _, s := range set {
		f, err := factOf(s, post, l.open.Job.Units)
		if err != nil {
			return err
		}
		for facts++; slices.ContainsFunc(l.open.Job.Observed, func(o job.Fact) bool { return o.ID == "f"+strconv.Itoa(facts) }); facts++ {
		}
		f.ID, f.When, f.Who = "f"+strconv.Itoa(facts), now.UTC().Format(time.RFC3339), who
		if doc, err = document.Apply(doc, []job.Edit{job.Set(job.At("/observed", f.ID), f)}); err != nil {
			return err
		}
	}
	then, err := openLog(doc, cat)
	if err != nil {
		return err
	}
	*l = *then
	l.post = post
	return nil
}

// factOf reads one fact, such as rock=22".
func factOf(s string, post *postSeen, u length.Units) (job.Fact, error) {
	what, value, has := strings.Cut(s, "=")
	sight, ok := job.SightOf(job.Seen(what))
	if !ok || sight.What == job.StruckOut || !slices.Contains(sight.About, "post") {
		var names []string
		for _, k := range job.Sights {
			if slices.Contains(k.About, "post") && k.What != job.StruckOut {
				names = append(names, string(k.What))
			}
		}
		return job.Fact{}, fmt.Errorf("--set: given %q; allowed: %s", s, strings.Join(names, ", "))
	}
	f := job.Fact{On: job.On("post", post.id), What: sight.What}
	station := post.station
	if sight.Placed || f.Handed() { // it goes along when the run is turned round
		f.At = &station
	}
	measured := sight.Measures != job.MeasuresNothing || sight.What == job.Landed || sight.What == job.Noted
	if measured != has {
		return f, fmt.Errorf("--set: given %q; allowed: %s", s, map[bool]string{true: what + "=VALUE", false: what + " alone"}[measured])
	}
	number := func(scale float64, unit string) error {
		v, err := strconv.ParseFloat(value, 64)
		if err != nil {
			return fmt.Errorf("--set: given %q; allowed: %s=, and a number", s, what)
		}
		v *= scale
		f.Value, f.Unit = &v, unit
		return nil
	}
	switch {
	case sight.What == job.Noted:
		f.Note = value
	case sight.What == job.Landed || sight.Measures == job.MeasuresLength:
		as := length.Section
		if sight.What == job.Landed { // a station is a distance: feet or metres where it is bare
			as = length.Distance
		}
		read, err := length.ReadAs(value, u.System, as)
		if err != nil {
			return f, fmt.Errorf("--set %s: %w", s, err)
		}
		mm := read.Length
		if sight.What == job.Landed {
			f.At = &mm
			break
		}
		v := float64(mm)
		f.Value, f.Unit = &v, map[length.System]string{length.Imperial: "in", length.Metric: "mm"}[u.System]
	case sight.Measures == job.MeasuresVolume: // litres
		return f, number(0.001, "L")
	case sight.Measures == job.MeasuresCount:
		return f, number(1, "bags")
	}
	return f, nil
}

// advise prints what is found at the post that was written about, with the ways out.
func (l *openedLog) advise(out io.Writer) error {
	t := &table{w: tabwriter.NewWriter(out, 2, 4, 2, ' ', 0)}
	u := l.open.Job.Units
	t.row("%s: written down", l.post.label)
	about := func(p finding.Place) bool { return p.Run == l.post.run && (p.Post == l.post.label || p.Post == "") }
	for _, f := range l.result.Forecast().Finds {
		if f.Rule != record.Off && (f.Place.Post == "" || about(f.Place)) {
			t.row("%s: %s", f.Severity, f.Says.Print(u))
		}
	}
	all, err := l.result.Amend(nil, l.post.id)
	for _, a := range all {
		t.row("%s", a.Says.Print(u))
		for _, way := range a.Ways {
			t.row("  or: %s%s%s", stopped(way.Name.Print(u)), said(way.Says, u), takes(way, u))
		}
	}
	if err = errors.Join(err, t.err); err != nil {
		return err
	}
	return t.w.Flush()
}

// stopped ends a sentence that is a button's name elsewhere.
func stopped(s string) string { return strings.TrimSuffix(s, ".") + "." }

func said(says reason.Text, u length.Units) string {
	if len(says) == 0 {
		return ""
	}
	return " " + says.Print(u)
}

// takes is what a way costs: minutes of one person, and what it changes in the load.
func takes(w amend.Way, u length.Units) string {
	out := ""
	if w.Minutes >= 1 {
		out = fmt.Sprintf(" About %.0f min.", w.Minutes)
	}
	if c := w.Cost; c != nil {
		for _, of := range []struct {
			n    int
			what string
		}{{c.Bags, "bag"}, {c.Posts, "post"}, {c.CutPieces, "cut piece"}} {
			if of.n != 0 {
				out += fmt.Sprintf(" %+d %s.", of.n, plural(of.n, of.what))
			}
		}
	}
	return out
}

// printRecord prints how far the work is, what was found, and post by post what was
// written down.
func printRecord(t *table, p plan.Plan, r *record.Log) {
	t.row("%d posts: %d staked, %d dug, %d set, %d poured, %d built", len(r.Posts), r.Staked, r.Dug, r.Set, r.Poured, r.Built)
	for _, o := range r.Posts {
		if o.ID == r.Next {
			t.row("Next: %s", o.Label)
		}
	}
	if b := r.Bags; b != nil {
		t.row("Bags: %.1f used in %d %s where %.1f were planned; %d bought, %.1f expected in all", b.Used, b.Holes, plural(b.Holes, "hole"), b.Planned, b.Bought, b.Expect)
	}
	for _, c := range r.Paces {
		t.row("%s: %.0f min each over %d %s, %.0f planned; %d to go, about %.1f h", c.What, c.Minutes, c.Posts, plural(c.Posts, "post"), c.Planned, c.Left, c.Hours)
	}
	for _, f := range r.Finds {
		t.row("%s: %s", f.Severity, f.Says.Print(p.Units))
	}
	for _, w := range r.Worst {
		t.row("worst %s: %s", w.What, w.Says.Print(p.Units))
	}
	for _, l := range r.Later {
		t.row("come back %s: %s", l.Date, l.Says.Print(p.Units))
	}
	printReport(t, report.Record(p, r))
}
