package main

import (
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"path/filepath"
	"strings"
	"time"

	"github.com/spf13/cobra"

	"mallow/catalog"
	"mallow/core/document"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/plan"
	"mallow/core/report"
	"mallow/exchange"
	"mallow/files"
	"mallow/paper"
)

// formats are the files that an ending asks for.
var formats = map[string]string{".pdf": "pdf", ".xlsx": "xlsx", ".dxf": "dxf", ".svg": "svg", ".gpx": "gpx", ".geojson": "geojson", ".csv": "csv", ".json": "json"}

func exportCommand() *cobra.Command {
	var to []string
	var format, sheet, run, size, view, table, posts string
	var line int
	c := &cobra.Command{
		Use: "export FILE", Short: "Write a job as sheets, tables, drawings or positions", Args: args(cobra.ExactArgs(1)),
		Long: "Write a job document as other files; the ending says which: .pdf (sheets), .xlsx, .csv (tables), .dxf, .svg (drawings), .gpx, .geojson (positions), .json (the document). --to can stand many times; --to - with --format writes to standard output. FILE - is standard input.",
		Example: "  mallow export job.json --to all.pdf --to tables.xlsx --to map.dxf --view map\n" +
			"  mallow export job.json --to stakeout.pdf --sheet stakeout --run R1 --paper a4\n" +
			"  mallow export job.json --to - --format csv --table holes --run R1",
		RunE: func(c *cobra.Command, given []string) error {
			if len(to) == 0 {
				return usageError{errors.New("--to is missing: the file to write, such as --to sheets.pdf")}
			}
			paperSize, err := paper.SizeOf(size)
			if err != nil {
				return usageError{err}
			}
			src, err := source(given[0], c.InOrStdin())
			if err != nil {
				return usageError{err}
			}
			want := files.Want{Want: exchange.Want{Run: run, Line: line - 1, View: view}, Sheet: sheet, Size: paperSize}
			for _, name := range to {
				if err := exportOne(c, src, want, name, format, table, posts); err != nil {
					return err
				}
			}
			return nil
		},
	}
	f := c.Flags()
	f.StringArrayVar(&to, "to", nil, "file to write; - is standard output")
	f.StringVar(&format, "format", "", "format, where the ending does not say it")
	f.StringVar(&sheet, "sheet", "", "PDF: "+strings.Join(paper.IDs(), ", ")+"; the crew's and the customer's sheets where it is left out")
	f.StringVar(&run, "run", "", "id of the run; all where it is left out")
	f.IntVar(&line, "line", 1, "line, counted from 1")
	f.StringVar(&size, "paper", "letter", "letter or a4")
	f.StringVar(&view, "view", "elevation", "drawings: elevation or map")
	f.StringVar(&table, "table", "", "CSV: ground of one run; or "+strings.Join(report.Whole(), ", ")+", of all runs where none is named; the line's points where it is left out")
	f.StringVar(&posts, "points", "line", "GPX: line, a track; or posts, waypoints")
	return c
}

func exportOne(c *cobra.Command, src files.Source, want files.Want, name, format, table, points string) error {
	want.What = format
	if want.What == "" {
		ending := strings.ToLower(filepath.Ext(name))
		if want.What = formats[ending]; want.What == "" {
			return usageError{fmt.Errorf("%s: the ending %q is no format; there are .pdf, .xlsx, .csv, .dxf, .svg, .gpx, .geojson and .json, or --format says it", name, ending)}
		}
	}
	switch {
	case want.What == "csv" && table != "":
		want.What = table
	case want.What == "gpx" && points == "posts":
		want.What = "waypoints"
	}
	told := files.Until(c.Context(), nil)
	file, err := src.Export(want, told)
	var refused exchange.FileError
	switch {
	case errors.As(err, &refused):
		return usageError{err}
	case err != nil:
		return err
	case name == "-":
		_, err = c.OutOrStdout().Write(file.Data)
		return err
	}
	if err := writeFile(name, file.Data); err != nil {
		return usageError{err}
	}
	fmt.Fprintf(c.ErrOrStderr(), "mallow: wrote %s, %d bytes\n", name, len(file.Data))
	return nil
}

// source reads and plans a job document.
func source(name string, stdin io.Reader) (files.Source, error) {
	cat, err := catalog.Load()
	if err != nil {
		return files.Source{}, err
	}
	date := time.Now()
	doc, err := readFile(name, stdin)
	if err != nil {
		return files.Source{}, err
	}
	o, err := document.Open(doc, cat)
	if err != nil {
		return files.Source{}, err
	}
	p, err := plan.Worded(nil, o.Job, cat)
	return files.Of(o, p, 0, date), err
}

func importCommand() *cobra.Command {
	var to, name, system string
	var off float64
	c := &cobra.Command{
		Use: "import FILE", Short: "Make a job document of points, or check one that was exported", Args: args(cobra.ExactArgs(1)),
		Long:    "Read a line from CSV, GPX or GeoJSON and write a new job document with it; or read a job document, check it and write it as it is. FILE - is standard input.",
		Example: "  mallow import walked.gpx --to job.json\n  mallow import - --system metric < points.csv",
		RunE: func(c *cobra.Command, given []string) error {
			raw, err := readFile(given[0], c.InOrStdin())
			if err != nil {
				return usageError{err}
			}
			doc, left, err := imported(given[0], raw, name, length.System(system), length.Length(off))
			if err != nil {
				return usageError{err}
			}
			for _, l := range left {
				c.PrintErrln("mallow: version 1 said", l)
			}
			if to == "" || to == "-" {
				_, err = c.OutOrStdout().Write(doc)
				return err
			}
			if err := writeFile(to, doc); err != nil {
				return usageError{err}
			}
			return nil
		},
	}
	f := c.Flags()
	f.StringVar(&to, "to", "-", "file to write; - is standard output")
	f.StringVar(&name, "name", "", "name of the job; the file's where it is left out")
	f.StringVar(&system, "system", "imperial", "units of the new job: imperial or metric")
	f.Float64Var(&off, "off", 150, "how far off a straight run a point may lie, millimetres; more makes a corner")
	return c
}

// imported is the job document that a file makes.
func imported(file string, raw []byte, name string, sys length.System, off length.Length) (doc []byte, left []string, err error) {
	cat, err := catalog.Load()
	if err != nil {
		return nil, nil, err
	}
	if strings.EqualFold(filepath.Ext(file), ".json") || file == "-" && strings.Contains(string(raw), `"mallow"`) {
		o, err := document.Open(raw, cat)
		return o.Doc, o.Left, err
	}
	if sys != length.Imperial && sys != length.Metric {
		return nil, nil, fmt.Errorf("--system %q: imperial or metric", sys)
	}
	if name == "" {
		name = strings.TrimSuffix(filepath.Base(file), filepath.Ext(file))
	}
	j := document.New(name, sys, cat)
	found, err := exchange.Read(file, raw, exchange.Options{System: sys})
	if err != nil {
		return nil, nil, err
	}
	n := 0
	built, err := found.Line(exchange.Build{Off: off, Like: j.Lines[0].Runs[0], ID: func() string { n++; return fmt.Sprintf("R%d", n) }})
	if err != nil {
		return nil, nil, err
	}
	line := built.Line
	line.ID, line.Name = "L1", name
	j.Lines, j.Site.Place = []job.Line{line}, found.Origin
	doc, err = marshal(j)
	if err != nil {
		return nil, nil, err
	}
	_, _, err = document.Decode(doc, cat)
	return doc, nil, err
}

func marshal(j job.Job) ([]byte, error) {
	doc, err := json.MarshalIndent(j, "", "  ")
	return append(doc, '\n'), err
}
