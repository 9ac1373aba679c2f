package footing_test

import (
	"math"
	"testing"

	"mallow/core/footing"
	"mallow/core/job"
	"mallow/core/length"
)

const in = length.Inch

func ptr(l length.Length) *length.Length { return &l }

func question() footing.Question {
	return footing.Question{
		Kind: job.LinePost, AboveGrade: 72 * in, Frost: ptr(36 * in), Height: 72 * in, Gravel: 6 * in,
		Post: job.Post{Shape: job.SquarePost, Width: 3.5 * in},
		Hole: job.Hole{WidthFactor: 3, Augers: []length.Length{6 * in, 8 * in, 10 * in, 12 * in, 18 * in}, FrostMargin: 6 * in,
			Share: job.Quarter, Floor: 24 * in, GateExtraDepth: 6 * in, GateExtraWidth: 2 * in},
	}
}

func TestDepth(t *testing.T) {
	for _, c := range []struct {
		what       string
		change     func(*footing.Question)
		governs    footing.Rule
		foot, hole float64 // inches
	}{
		// 36 in frost + 6 in = 42 in governs over a third of the height above, 24 in (common practice).
		{"frost governs", func(*footing.Question) {}, footing.FrostRule, 42, 48},
		{"no frost known: share and floor tie at 24", func(q *footing.Question) { q.Frost = nil }, footing.ShareRule, 24, 30},
		{"a third of the whole is half of what shows", func(q *footing.Question) { q.Hole.Share, q.Frost = job.Third, nil }, footing.ShareRule, 36, 42},
		{"half of the whole is all that shows", func(q *footing.Question) { q.Hole.Share = job.Half }, footing.ShareRule, 72, 78},
		{"the floor", func(q *footing.Question) { q.Frost, q.Hole.Floor = ptr(0), 30*in }, footing.FloorRule, 30, 36},
		// Chain link, ASTM F567 from memory: 24 in + 3 in for each foot over 4 ft; 6 ft: 30 in.
		{"24 in + 3 in per foot over 4 ft", func(q *footing.Question) { q.Frost, q.Hole.FloorPerHeight = nil, 0.25 }, footing.FloorRule, 30, 36},
		{"gate posts deeper", func(q *footing.Question) { q.Kind = job.GatePost }, footing.FrostRule, 48, 54},
		{"rounded up to 5 in", func(q *footing.Question) { q.Hole.RoundDepthTo = 5 * in }, footing.FrostRule, 45, 51},
		{"not rounded when it is a multiple", func(q *footing.Question) { q.Hole.RoundDepthTo = in }, footing.FrostRule, 42, 48},
	} {
		q := question()
		c.change(&q)
		d := footing.FindDepth(q)
		if got := d.Asks[d.Governs].Rule; got != c.governs || math.Abs(d.Foot.Inches()-c.foot) > 1e-9 || math.Abs(d.Hole.Inches()-c.hole) > 1e-9 {
			t.Errorf("%s: %s governs, foot %.3f in, dig %.3f in; want %s, %v, %v", c.what, got, d.Foot.Inches(), d.Hole.Inches(), c.governs, c.foot, c.hole)
		}
	}
}

// A quarter of the whole post in the ground, checked by its definition and
// not by the rearranged formula.
func TestShareIsOfTheWholePost(t *testing.T) {
	for share, part := range map[job.Share]float64{job.Quarter: 4, job.Third: 3, job.Half: 2} {
		q := question()
		q.Frost, q.Hole.Floor, q.Hole.Share, q.AboveGrade = nil, 0, share, 1234.5
		foot := footing.FindDepth(q).Foot
		if whole := foot + q.AboveGrade; math.Abs(float64(whole)/part-float64(foot)) > 1e-9 {
			t.Errorf("%s: %v of %v in the ground", share, foot, whole)
		}
	}
}

func TestDepthByHandIsKeptBesideTheRules(t *testing.T) {
	q := question()
	q.Hole.Depth = ptr(30 * in)
	d := footing.FindDepth(q)
	if !d.ByHand || d.Foot != 30*in || d.Rounded != 42*in {
		t.Errorf("got %+v", d)
	}
	q = question()
	q.Frost, q.Hole.Share, q.Hole.Floor = nil, job.NoShare, 0
	if d := footing.FindDepth(q); d.Governs != -1 || d.Foot != 0 {
		t.Errorf("with no rule in force: %+v", d)
	}
}

func TestWidth(t *testing.T) {
	for _, c := range []struct {
		what   string
		change func(*footing.Question)
		inches float64
		auger  bool
	}{
		{"3 x 3 1/2 in is 10 1/2, the 12 in auger (common practice)", func(*footing.Question) {}, 12, true},
		{"chain link 4 x 2 3/8 in is 9 1/2 (ASTM F567, from memory)", func(q *footing.Question) {
			q.Post = job.Post{Shape: job.RoundPost, Width: 2.375 * in}
			q.Hole.WidthFactor = 4
		}, 10, true},
		{"a gate post's hole, 2 in wider: 12 1/2", func(q *footing.Question) { q.Kind = job.GatePost }, 18, true},
		{"exactly an auger", func(q *footing.Question) { q.Post.Width = 4 * in }, 12, true},
		{"wider than any auger: by spade", func(q *footing.Question) { q.Post.Width = 8 * in }, 24, false},
		{"a square post goes in by its corners", func(q *footing.Question) { q.Hole.WidthFactor, q.Hole.Augers = 1, []length.Length{3.5 * in, 5 * in} }, 5, true},
		{"by hand", func(q *footing.Question) { q.Hole.Width = ptr(11 * in) }, 11, false},
	} {
		q := question()
		c.change(&q)
		w := footing.FindWidth(q)
		if math.Abs(w.Width.Inches()-c.inches) > 1e-9 || w.Auger != c.auger {
			t.Errorf("%s: got %.3f in, auger %v", c.what, w.Width.Inches(), w.Auger)
		}
	}
}
