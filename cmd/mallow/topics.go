package main

import (
	"fmt"
	"strings"

	"github.com/spf13/cobra"

	"mallow/core/report"
	"mallow/help"
	"mallow/paper"
)

// topics are what mallow help tells beside the commands.
func topics() []*cobra.Command {
	return []*cobra.Command{
		topic("stages", "The stages of the work, and what each is for", stages()),
		topic("terms", "What the words mean", terms()),
		topic("sheets", "Printed sheets: which there are, and who gets them", sheets()),
		topic("files", "Files that go in and out", kindsOfFile()),
		topic("results", "What a command prints, and its exit codes", results),
	}
}

func topic(name, short, long string) *cobra.Command {
	return &cobra.Command{Use: name, Short: short, Long: wrapped(long)}
}

func stages() string {
	var b strings.Builder
	for _, s := range help.Stages() {
		fmt.Fprintf(&b, "%s\n  %s\n\n", s.Name, s.About)
	}
	return b.String()
}

func terms() string {
	var b strings.Builder
	for _, t := range help.Terms() {
		fmt.Fprintf(&b, "%s\n  %s\n", t.Term, t.Means)
	}
	return b.String()
}

func sheets() string {
	var b strings.Builder
	b.WriteString("mallow export job.json --to sheets.pdf writes the crew's and the customer's sheets. --sheet takes one set or one kind:\n\n")
	for _, s := range paper.Sets {
		fmt.Fprintf(&b, "%s\n  everything for the %s: %s\n", s.ID, strings.ToLower(s.Name()), strings.Join(s.Kinds, ", "))
	}
	for _, k := range paper.Kinds {
		if paper.IsSet(k.ID) {
			continue
		}
		fmt.Fprintf(&b, "%s\n  %s\n", k.ID, k.Name())
	}
	b.WriteString("\nSheets that a server prints bear a code such as K7QF-S2 and a QR code, which open the job at that place. A file that this command writes is of no kept job and bears none.\n")
	return b.String()
}

func kindsOfFile() string {
	return "The ending of --to says which file is written.\n\n.pdf\n  printed sheets: see mallow help sheets\n.xlsx\n  all tables, a sheet each, numbers as numbers\n.csv\n  one table: " + strings.Join(report.Whole(), ", ") + "; ground of one run; or the line's points\n.dxf, .svg\n  the fence from the side, or the map with --view map\n.gpx, .geojson\n  positions, for a job whose place on earth is known\n.json\n  the job document itself, described in docs/job-document.md\n\nmallow import reads .csv, .gpx and .geojson points, and job documents.\n"
}

const results = `plan and load print to standard output in the job's units, or as JSON with --json. Messages go to standard error.

0
  it worked
1
  something broke: a disk, a port
2
  what was given is wrong; one line says which part, what was given and what is allowed

A job document that names the same thing twice, or a length out of reason, is refused with all that is wrong at once. Nothing is written then.
`

// wide is how long a line of help is.
const wide = 78

// wrapped breaks paragraphs to the width of a terminal; what is set in stays
// set in.
func wrapped(text string) string {
	var out []string
	for line := range strings.SplitSeq(strings.TrimRight(text, "\n"), "\n") {
		in := line[:len(line)-len(strings.TrimLeft(line, " "))]
		row := in
		for _, word := range strings.Fields(line) {
			if len(row) > len(in) && len(row)+1+len(word) > wide {
				out = append(out, row)
				row = in
			}
			if len(row) > len(in) {
				row += " "
			}
			row += word
		}
		out = append(out, strings.TrimRight(row, " "))
	}
	return strings.Join(out, "\n")
}
