// Package help says what Mallow's words mean and what each stage of the work is
// for. The screen, the command line and the documents read it here.
package help

import (
	_ "embed"
	"encoding/json"
	"fmt"
	"strings"
	"sync"
)

// Term is a word that Mallow uses, and what it means.
type Term struct {
	Term  string `json:"term" jsonschema:"required"`
	Means string `json:"means" jsonschema:"required"`
}

// Stage is a stage of the work, and what it is for.
type Stage struct {
	ID    string `json:"id" jsonschema:"required"`
	Name  string `json:"name" jsonschema:"required"`
	About string `json:"about" jsonschema:"required"`
}

var (
	//go:embed terms.json
	terms []byte
	//go:embed stages.json
	stages []byte
)

// Terms are the words, in the order in which a newcomer meets them.
var Terms = sync.OnceValue(func() (out []Term) { return read(terms, out) })

// Stages are the stages, in their order.
var Stages = sync.OnceValue(func() (out []Stage) { return read(stages, out) })

func read[T any](raw []byte, into []T) []T {
	if err := json.Unmarshal(raw, &into); err != nil {
		panic("help: " + err.Error()) // the file is built in and tested
	}
	return into
}

// Markdown is docs/terms.md.
func Markdown() string {
	var b strings.Builder
	b.WriteString("# Terms\n\nEvery word that Mallow uses for something on site, on screen, on paper, in tables and at the command line. One word for one thing. Spelled as in feet jobs; metric jobs are spelled as in Britain. Written by `make generate` from `help/terms.json`, which the app and `mallow help terms` show too.\n\n| term | what it means |\n|---|---|\n")
	for _, t := range Terms() {
		fmt.Fprintf(&b, "| **%s** | %s |\n", t.Term, t.Means)
	}
	return b.String()
}
