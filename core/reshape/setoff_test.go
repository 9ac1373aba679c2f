package reshape

import (
	"math"
	"testing"

	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/survey"
)

func boxOf(closed bool, turn float64, side job.Side, sides ...length.Length) job.Job {
	l := job.Line{ID: "L1", Closed: closed}
	for i, s := range sides {
		r := job.Run{ID: "R" + string(rune('1'+i)), Length: ptr(s)}
		if i > 0 || closed {
			r.Corner = &job.Corner{By: job.ByDeflection, Side: side, Angle: turn}
		}
		l.Runs = append(l.Runs, r)
	}
	return job.Job{Units: length.Usual(length.Metric), Lines: []job.Line{l}}
}

func lengthsOf(l job.Line) (out []float64) {
	for _, r := range l.Runs {
		out = append(out, float64(*r.Length))
	}
	return out
}

// By hand: round a patio of 4 × 3 m, walked with it on the right, a fence 450 mm off
// to the left is 4.9 × 3.9 m; an L of 4 and 3 m that turns left is 450 mm shorter on
// both sides to the left, and longer to the right.
func TestSetOffByHand(t *testing.T) {
	check := func(what string, j job.Job, by length.Length, want ...float64) {
		t.Helper()
		l, err := SetOff(j, 0, by)
		if err != nil {
			t.Fatal(err)
		}
		for i, got := range lengthsOf(l) {
			if math.Abs(got-want[i]) > 0.01 {
				t.Errorf("%s: side %d is %.2f, by hand %.2f", what, i+1, got, want[i])
			}
		}
	}
	check("a closed patio", boxOf(true, 90, job.Right, 4000, 3000, 4000, 3000), 450, 4900, 3900, 4900, 3900)
	check("inside it", boxOf(true, 90, job.Right, 4000, 3000, 4000, 3000), -450, 3100, 2100, 3100, 2100)
	check("an L to its inner side", boxOf(false, 90, job.Left, 4000, 3000), 450, 3550, 2550)
	check("an L to its outer side", boxOf(false, 90, job.Left, 4000, 3000), -450, 4450, 3450)
	check("a straight line", boxOf(false, 0, job.Left, 4000), 450, 4000)
}

// Every run lies as far off as was asked: measured on the map, from the new line to
// the old one. Set off and back again is the old line.
func TestSetOffIsParallel(t *testing.T) {
	for _, turn := range []float64{-140, -90, -30, 0, 20, 45, 120} {
		side, angle := job.Left, turn
		if turn < 0 {
			side, angle = job.Right, -turn
		}
		j := boxOf(false, angle, side, 30000, 40000, 35000)
		was := j.Lines[0]
		l, err := SetOff(j, 0, 900)
		if err != nil {
			t.Fatal(err)
		}
		old, now := laidOut(was), laidOut(l)
		for r := range was.Runs {
			a, b := old[r], old[r+1]
			d := float64(a.To(b))
			for _, p := range []survey.Place{now[r], now[r+1]} {
				off := (float64(b.X-a.X)*float64(p.Y-a.Y) - float64(b.Y-a.Y)*float64(p.X-a.X)) / d
				if math.Abs(off-900) > 0.1 {
					t.Errorf("turn %v, run %d: %.2f off", turn, r+1, off)
				}
			}
		}
		back := j
		back.Lines = []job.Line{l}
		l, err = SetOff(back, 0, -900)
		if err != nil {
			t.Fatal(err)
		}
		for i, got := range lengthsOf(l) {
			if math.Abs(got-lengthsOf(was)[i]) > 0.1 {
				t.Errorf("turn %v: side %d is %.2f after there and back", turn, i+1, got)
			}
		}
	}
}

func laidOut(l job.Line) []survey.Place { return survey.Lay(l, levels(survey.Reduce(l, ""))).Raw }

// What cannot be is refused: a side that would vanish, a turn right back.
func TestSetOffIsRefused(t *testing.T) {
	if _, err := SetOff(boxOf(true, 90, job.Right, 4000, 3000, 4000, 3000), 0, -1500); err == nil {
		t.Error("a side of nothing")
	}
	if _, err := SetOff(boxOf(false, 170, job.Right, 4000, 3000), 0, 100); err == nil {
		t.Error("a line that turns right back")
	}
}
