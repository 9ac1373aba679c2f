package paper_test

import (
	"bytes"
	"errors"
	"fmt"
	"strings"
	"testing"
	"time"

	"mallow/catalog"
	"mallow/core/job"
	"mallow/core/plan"
	"mallow/demo/demotest"
	"mallow/paper"
)

func stamp(p plan.Plan) paper.Stamp {
	return paper.Stamp{Job: p.Name, Revision: 7, Date: time.Date(2026, 11, 25, 8, 0, 0, 0, time.UTC), Cleared: p.Before.Ready, ID: "k7qfabcdefgh", Base: "http://192.168.1.20:8484"}
}

// Nothing runs off a page, on either paper, and every page says which job,
// sheet, revision, date and page it is, and that nothing may be dug yet.
func TestPagesHoldTheirWords(t *testing.T) {
	for n := range 2 {
		j, p := demotest.Job(t, n)
		for _, size := range []paper.Size{paper.Letter, paper.A4} {
			d := paper.Lay(p.Name, paper.Write(j, p, "", ""), size, stamp(p))
			for i, page := range d.Pages {
				all := ""
				for _, w := range page.Words {
					all += w.Text + "\n"
					if w.X < 9 || w.X+w.Width > size.Width-9 || w.Y < 9 || w.Y > size.Height-9 {
						t.Errorf("%s, page %d: %q runs off, from %.1f to %.1f, at %.1f", size.Name, i+1, w.Text, w.X, w.X+w.Width, w.Y)
					}
				}
				for _, line := range page.Lines {
					for _, q := range line.Points {
						if q[0] < 6 || q[0] > size.Width-6 || q[1] < 9 || q[1] > size.Height-9 {
							t.Fatalf("%s, page %d: a line runs off to %v", size.Name, i+1, q)
						}
					}
				}
				for _, want := range []string{p.Name, "revision 7, 25 November 2026", fmt.Sprintf("page %d of %d", i+1, len(d.Pages))} {
					if !strings.Contains(all, want) {
						t.Errorf("%s, page %d does not say %q", size.Name, i+1, want)
					}
				}
				if strings.Contains(all, "NOT CLEARED TO DIG") == (p.Before.Ready || strings.Contains(all, "Your fence\n")) {
					t.Errorf("%s, page %d: cleared %v, and says otherwise", size.Name, i+1, p.Before.Ready)
				}
			}
		}
	}
}

// words are all words of a kind of sheet.
func words(j job.Job, p plan.Plan, kind, run string) string {
	var b strings.Builder
	for _, page := range paper.Lay(p.Name, paper.Write(j, p, kind, run), paper.Letter, stamp(p)).Pages {
		for _, w := range page.Words {
			b.WriteString(w.Text + "\n")
		}
	}
	return b.String()
}

// What the crew reads is what was planned: every post's running distance, hole
// and mark, every gate's measures, every load.
func TestSheetsSayThePlan(t *testing.T) {
	for n := range 2 {
		j, p := demotest.Job(t, n)
		u := p.Units
		for _, r := range p.Runs {
			stake, holes, gates := words(j, p, "stakeout", r.ID), words(j, p, "holes", r.ID), words(j, p, "gate", r.ID)
			for i, q := range r.Posts {
				want := []string{u.Tape(r.SetOut.Marks[i].Level), u.Tape(r.SetOut.Marks[i].Slope), u.Short(q.Mark), u.Short(q.AboveGrade)}
				if q.CutOff != nil && *q.CutOff >= u.SmallestMark/2 && !q.CutFirst {
					want = append(want, u.Short(*q.CutOff))
				}
				if q.Stays == "" {
					want = append(want, u.Short(q.HoleWidth)+" × "+u.Short(q.HoleDepth))
				}
				if m := r.String.Posts[i].Mark; m.Abs() >= u.SmallestMark/2 {
					want = append(want, map[bool]string{true: "↑ ", false: "↓ "}[m > 0]+u.Short(m.Abs()))
				}
				for _, want := range want {
					if !strings.Contains(stake, want+"\n") {
						t.Errorf("%s %s: %q is not on the stake-out", r.Name, q.Label, want)
					}
				}
				if q.Shared == "" && !strings.Contains(holes, u.Short(q.HoleWidth)+" × "+u.Short(q.HoleDepth)) {
					t.Errorf("%s %s: its hole has no card", r.Name, q.Label)
				}
			}
			for _, g := range r.Gates {
				for _, want := range []string{u.Short(g.Opening), u.Short(g.Clear), u.Short(g.Leaves[0].Hinges[0].Above), "Bottom hinge, pin up"} {
					if !strings.Contains(gates, want+"\n") {
						t.Errorf("%s: %q is not on its card", g.Name, want)
					}
				}
			}
		}
		load := words(j, p, "load", "")
		for _, b := range p.Totals.BagKinds {
			if !strings.Contains(load, fmt.Sprintf("%d bags\n", b.Count)) {
				t.Errorf("%d bags are not on the load list", b.Count)
			}
		}
		// Each caution stands once in the crew's set, and none is left out.
		crew := strings.ReplaceAll(words(j, p, "crew", "")+words(j, p, "builders", ""), "\n", " ")
		for _, c := range p.Cautions {
			said := strings.Fields(c.Says.Print(u))
			if n := strings.Count(crew, strings.Join(said[:min(4, len(said))], " ")); n == 0 {
				t.Errorf("the crew is not told %q", c.Says.Print(u))
			}
		}
	}
}

// long is a job of some two thousand posts in twenty runs.
func long(t testing.TB) (job.Job, plan.Plan) {
	t.Helper()
	j, _ := demotest.Job(t, 0)
	line := j.Lines[0]
	first := line.Runs[0]
	first.Gates, line.Runs, line.Books, line.Closed = nil, nil, nil, false
	for i := range 20 {
		run := first
		run.ID, run.Name = fmt.Sprintf("R%d", i+1), fmt.Sprintf("Field %d", i+1)
		span := *first.Length * 6
		run.Length, run.Ground, run.Corner = &span, first.Ground, nil
		line.Runs = append(line.Runs, run)
	}
	j.Lines = []job.Line{line}
	cat, err := catalog.Load()
	if err != nil {
		t.Fatal(err)
	}
	return j, plan.Make(j, cat)
}

// A set of two thousand posts says how far it is, page by page, and can be
// given up on the way.
func TestPrintingIsToldAndStopped(t *testing.T) {
	j, p := long(t)
	if p.Totals.Posts < 1900 {
		t.Fatalf("only %d posts", p.Totals.Posts)
	}
	d := paper.Lay(p.Name, paper.Write(j, p, "stakeout", ""), paper.Letter, stamp(p))
	last := 0
	data, err := d.PDF(func(done, of int) error {
		if done != last+1 || of != len(d.Pages) {
			t.Fatalf("told %d of %d after %d", done, of, last)
		}
		last = done
		return nil
	})
	if err != nil || last != len(d.Pages) || !bytes.HasPrefix(data, []byte("%PDF-")) {
		t.Errorf("%d of %d pages, %v", last, len(d.Pages), err)
	}
	stopped := errors.New("stopped")
	calls := 0
	if _, err := d.PDF(func(int, int) error { calls++; return stopped }); !errors.Is(err, stopped) || calls != 1 {
		t.Errorf("stopped after %d pages: %v", calls, err)
	}
	again, err := d.PDF(nil)
	if err != nil || !bytes.Equal(again, data) {
		t.Errorf("the same sheets make another file: %v, %d and %d bytes", err, len(again), len(data))
	}
}

func BenchmarkWholeSetOf2000Posts(b *testing.B) {
	j, p := long(b)
	b.ReportAllocs()
	for b.Loop() {
		if _, err := paper.Lay(p.Name, paper.Write(j, p, "", ""), paper.Letter, stamp(p)).PDF(nil); err != nil {
			b.Fatal(err)
		}
	}
}

// Emoji, glued emoji, a script that the fonts lack and control characters:
// nothing falls over, each sign is one substitute, and the page says what that
// stands for. What the fonts have prints as itself.
func TestWhatNoFontHasIsSubstituted(t *testing.T) {
	for name, want := range map[string]string{
		"Weißdorn Łąka Ωμέγα Забор": "Weißdorn Łąka Ωμέγα Забор",
		"🦊 Fox":                     "□ Fox",
		"👨‍👩‍👧 yard":                "□ yard",
		"👍🏽":                        "□",
		"❤\ufe0f":                   "□",
		"牧場":                        "□□",
		"a\tb\u202ec":               "a bc",
		"\U0010ffff\u2028x":         "□ x",
	} {
		j, p := demotest.Job(t, 0)
		p.Name, p.Runs[0].Name, p.Runs[0].Gates[0].Name = name, name, name
		s := stamp(p)
		s.Job = name
		d := paper.Lay(name, paper.Write(j, p, "", ""), paper.Letter, s)
		if got := d.Pages[0].Words; !hasWord(got, want) {
			t.Errorf("%q: no word %q on the first page", name, want)
		}
		if said := hasWord(d.Pages[0].Words, "□ stands for characters that the printing font lacks."); said != strings.ContainsRune(want, '□') {
			t.Errorf("%q: the substitute is stated: %v", name, said)
		}
		if raw, err := d.PDF(nil); err != nil || len(raw) < 10000 {
			t.Errorf("%q: %d bytes, %v", name, len(raw), err)
		}
		if svg := d.SVG(0); bytes.ContainsRune(svg, '🦊') {
			t.Errorf("%q: the preview differs from the print", name)
		}
	}
}

func hasWord(words []paper.Word, text string) bool {
	for _, w := range words {
		if w.Text == text {
			return true
		}
	}
	return false
}
