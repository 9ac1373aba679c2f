// Command torture tries to bring Mallow down and to make it lose what it said
// it had saved: it drives the real binary on this machine, bounded in time.
//
//	torture -binary bin/mallow -for 2m
//
// Every trial prints its figures. The exit code is 1 if anything was lost, went
// down, or was not said as it is.
package main

import (
	"context"
	"flag"
	"fmt"
	"math/rand/v2"
	"os"
	"os/signal"
	"path/filepath"
	"slices"
	"strings"
	"time"
)

// trial is one way to bring Mallow down.
type trial struct {
	name  string
	share float64 // of the time
	run   func(*rig) error
}

var trials = []trial{
	{"kills", 0.12, kills},
	{"stops", 0.08, stops},
	{"early stops", 0.04, earlyStops},
	{"odd ends", 0.01, oddEnds},
	{"writers", 0.08, writers},
	{"replica", 0.06, replicas},
	{"backups", 0.05, backups},
	{"two servers", 0.01, twoServers},
	{"newer data", 0.01, newerData},
	{"full disk", 0.03, fullDisk},
	{"read-only disk", 0.02, readOnlyDisk},
	{"damaged pages", 0.05, damagedPages},
	{"bombs", 0.03, bombs},
	{"clients that do not read", 0.05, slowClients},
	{"listeners", 0.04, listeners},
	{"many jobs", 0.05, manyJobs},
	{"the slowest document", 0.12, slowest},
	{"going back", 0.04, goingBack},
	{"killed upgrades", 0.04, killedUpgrades},
	{"bit flips", 0.02, bitFlips},
	{"files and boards", 0.08, filesAndBoards},
}

// rig is what a trial works with.
type rig struct {
	ctx    context.Context
	binary string
	dir    string // of its own
	length time.Duration
	rand   *rand.Rand
	said   []string
}

// say notes a figure.
func (r *rig) say(format string, a ...any) { r.said = append(r.said, fmt.Sprintf(format, a...)) }

// over tells whether the trial's time is up.
func (r *rig) until() time.Time { return time.Now().Add(r.length) }

// keepWorst is where the slowest document goes, to look at it.
var keepWorst string

// skipped is why a trial cannot be made here.
type skipped struct{ why string }

func (s skipped) Error() string { return s.why }

func main() {
	binary := flag.String("binary", "bin/mallow", "the program to try")
	length := flag.Duration("for", 2*time.Minute, "how long, all trials together")
	only := flag.String("only", "", "trials to run, by name, with commas; all where it is left out")
	seed := flag.Uint64("seed", uint64(time.Now().UnixNano()), "seed of what is random")
	flag.StringVar(&keepWorst, "keep", "", "file to write the slowest document into")
	flag.Parse()
	if flag.Arg(0) == "weigh" {
		if err := weigh(flag.Args()[1:]); err != nil {
			fmt.Fprintln(os.Stderr, "torture:", err)
			os.Exit(1)
		}
		return
	}
	if err := tortureAll(*binary, *length, *only, *seed); err != nil {
		fmt.Fprintln(os.Stderr, "torture:", err)
		os.Exit(1)
	}
}

func tortureAll(binary string, length time.Duration, only string, seed uint64) error {
	binary, err := filepath.Abs(binary)
	if err != nil {
		return err
	}
	ctx, stop := signal.NotifyContext(context.Background(), os.Interrupt)
	defer stop()
	fmt.Printf("seed %d, %v\n", seed, length)
	var names []string
	if only != "" {
		names = strings.Split(only, ",")
	}
	failed := 0
	for i, t := range trials {
		if names != nil && !slices.Contains(names, t.name) || ctx.Err() != nil {
			continue
		}
		share := time.Duration(float64(length) * t.share)
		if len(names) == 1 {
			share = length
		}
		if !tortureOne(ctx, t, binary, share, rand.New(rand.NewPCG(seed, uint64(i)))) {
			failed++
		}
	}
	if failed > 0 {
		return fmt.Errorf("%d trials failed", failed)
	}
	return ctx.Err()
}

func tortureOne(ctx context.Context, t trial, binary string, length time.Duration, random *rand.Rand) bool {
	dir, err := os.MkdirTemp("", "mallow-torture-")
	if err != nil {
		fmt.Printf("FAILED  %-26s %v\n", t.name, err)
		return false
	}
	defer os.RemoveAll(dir)
	r := &rig{ctx: ctx, binary: binary, dir: dir, length: length, rand: random}
	began := time.Now()
	err = t.run(r)
	word := "held"
	if s, ok := err.(skipped); ok {
		word, err = "skipped", nil
		r.say("%s", s.why)
	}
	if err != nil {
		word = "FAILED"
		r.say("%v", err)
	}
	fmt.Printf("%-8s%-26s %5.1f s  %s\n", word, t.name, time.Since(began).Seconds(), strings.Join(r.said, "; "))
	return err == nil
}
