// Command wasm times the core where it is to run one day without a signal: in
// a browser. Built as WebAssembly and run by Node in scripts/bench.sh, it
// computes a job from nothing again and again.
package main

import (
	"errors"
	"fmt"
	"os"
	"slices"
	"time"

	"mallow/catalog"
	"mallow/core/document"
	"mallow/core/plan"
)

const times = 60

func main() {
	if err := run(); err != nil {
		fmt.Fprintln(os.Stderr, "wasm:", err)
		os.Exit(1)
	}
}

func run() error {
	cat, err := catalog.Load()
	if err != nil {
		return err
	}
	if len(os.Args) != 2 {
		return errors.New("which job is to be computed? Give the file of its document")
	}
	doc, err := os.ReadFile(os.Args[1])
	if err != nil {
		return err
	}
	j, _, err := document.Decode(doc, cat)
	if err != nil {
		return err
	}
	var took []time.Duration
	for range times {
		began := time.Now()
		r, err := plan.Compute(nil, j, cat, nil)
		if err != nil {
			return err
		}
		took = append(took, time.Since(began))
		if r.Posts() == 0 {
			return fmt.Errorf("the demo's first job has no posts")
		}
	}
	slices.Sort(took)
	fmt.Printf("computed as WebAssembly, demo job 1: median %v, p99 %v of %d\n", took[times/2], took[times*99/100], times)
	return nil
}
