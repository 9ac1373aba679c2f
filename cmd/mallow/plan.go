package main

import (
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"math"
	"text/tabwriter"

	"github.com/spf13/cobra"

	"mallow/catalog"
	"mallow/core/document"
	"mallow/core/length"
	"mallow/core/plan"
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
	for _, r := range p.Runs {
		t.row("\n%s: %s level, %s along the ground", r.Name, u.Tape(r.Length), u.Tape(r.SlopeLength))
		printPosts(t, p, r)
		printBays(t, p, r)
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

func printPosts(t *table, p plan.Plan, r plan.Run) {
	u := p.Units
	t.row("\nPost\tKind\tStation\tSlope tape\tGround\tTop\tReveal\tHole\tDeep\tConcrete\tBags\tPost from\tCut off")
	for _, post := range r.Posts {
		stock, off := "none", "-"
		if post.Stock != nil {
			stock, off = u.Short(*post.Stock), u.Short(*post.CutOff)
		}
		t.row("%s\t%s\t%s\t%s\t%s\t%s\t%s\t%s\t%s\t%s\t%.2f\t%s\t%s", post.ID, post.Kind, u.Tape(post.Station), u.Tape(post.Slope),
			u.Short(post.Ground), u.Short(post.Top), u.Short(post.AboveGrade), u.Short(post.HoleWidth), u.Short(post.HoleDepth),
			u.Small(post.ConcreteVolume), post.Bags, stock, off)
	}
}

func printBays(t *table, p plan.Plan, r plan.Run) {
	u := p.Units
	t.row("\nBay\tFrom\tTo\tCentres\tClear\tGap least\tat\tGap most\tat\tCut\tFill")
	for _, b := range r.Bays {
		cut, fill := "-", "-"
		if b.Cut != nil {
			cut = u.Short(b.Cut.Depth)
		}
		if b.Fill != nil {
			fill = u.Short(b.Fill.Depth)
		}
		t.row("%s\t%s\t%s\t%s\t%s\t%s\t%s\t%s\t%s\t%s\t%s", b.ID, b.From, b.To, u.Short(b.CentreToCentre), u.Short(b.Clear),
			u.Short(b.GapLeast.Gap), u.Tape(b.GapLeast.At), u.Short(b.GapMost.Gap), u.Tape(b.GapMost.At), cut, fill)
	}
}

func printTotals(t *table, p plan.Plan) {
	u, total := p.Units, p.Totals
	t.row("\nThe load")
	printLoad(t, u, total)
	if len(p.Runs) > 1 {
		for _, r := range p.Runs {
			t.row("\n%s alone", r.Name)
			printLoad(t, u, r.Totals)
		}
	}
}

func printLoad(t *table, u length.Units, total plan.Totals) {
	t.row("  Posts\t%d", total.Posts)
	if total.Elsewhere > 0 {
		t.row("  \tcorner posts counted once, in the run that ends there")
	}
	if total.Reused > 0 {
		t.row("  \t%d old %s built onto", total.Reused, plural(total.Reused, "post"))
	}
	for _, p := range total.Parts {
		cut := ""
		if p.Cut > 0 {
			cut = fmt.Sprintf(", %d cut", p.Cut)
		}
		t.row("  \t%d %s, %s%s", p.Count, p.Named(), p.Says.Print(u), cut)
	}
	for _, h := range total.Holes {
		t.row("  Holes\t%d of %s x %s, %.1f h by hand, %.1f h by auger", h.Count, u.Short(h.Width), u.Short(h.Depth), h.ByHand, h.ByAuger)
	}
	if total.InfillBoards > 0 {
		t.row("  Infill\t%d %s under panels", total.InfillBoards, plural(total.InfillBoards, "board"))
	}
	if total.Cut > 0 || total.Fill > 0 {
		t.row("  Soil\t%s to cut, %s to fill", u.Bulk(total.Cut), u.Bulk(total.Fill))
	}
	t.row("  Concrete\t%s = %.3f yd³ = %.3f m³%s", u.Small(total.ConcreteToBuy), total.ConcreteToBuy.CubicYards(), float64(total.ConcreteToBuy), total.WithWaste())
	for _, b := range total.BagKinds {
		t.row("  Bags\t%d x %s (%.2f)", b.Count, b.Bag, b.Exact)
	}
	if total.Concrete > 0 {
		short := ""
		if total.Truck.Short {
			short = ", a short load"
		}
		t.row("  or truck\t%s%s", u.Bulk(total.Truck.Order), short)
		t.row("  or mix\t%.1f x %s of cement, %s sand, %s stone, %s water", total.Mix.Bags, total.Mix.Bag, u.Bulk(total.Mix.Sand), u.Bulk(total.Mix.Stone), u.Small(total.Mix.Water))
	}
	t.row("  Gravel\t%s loose, %s: %d x %s, or %d x %s", u.Bulk(total.GravelLoose), u.Weight(total.GravelMass), total.GravelBags.Count, total.GravelBags.Name, total.GravelBulk.Count, total.GravelBulk.Name)
	if total.Stone > 0 {
		t.row("  Stone\t%s loose, %s", u.Bulk(total.StoneLoose), u.Weight(total.StoneMass))
	}
	t.row("  Spoil\t%s loose to carry away", u.Bulk(total.Spoil))
}
