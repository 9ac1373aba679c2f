package footing_test

import (
	"math"
	"testing"

	"mallow/core/footing"
	"mallow/core/job"
	"mallow/core/length"
)

// Worked by hand: what a post stands on, beside or in counts where it should.

// 1200 mm show, a third stands in the ground: 600 mm of post, and the foot
// stands 50 mm over the concrete's bottom, which lies at 650.
func TestShareIsOfThePostNotOfTheConcrete(t *testing.T) {
	q := question()
	q.Frost, q.Hole.Floor, q.Hole.Share, q.AboveGrade, q.Stand = nil, 0, job.Third, 1200, 50
	if d := footing.FindDepth(q); !length.Same(d.Foot, 600) || !length.Same(d.Bottom, 650) {
		t.Errorf("foot at %v, bottom at %v; want 600 and 650", d.Foot, d.Bottom)
	}
}

// Rock at 45 in under concrete that ends at 42: three inches of gravel go in.
func TestGravelAsFarAsTheRock(t *testing.T) {
	q := question()
	q.Hit = ptr(45 * in)
	if d := footing.FindDepth(q); d.Stopped || !length.Same(d.Bottom, 42*in) || !length.Same(d.Gravel, 3*in) || !length.Same(d.Hole, 45*in) {
		t.Errorf("got %+v", d)
	}
	q.Hit = ptr(40 * in)
	if d := footing.FindDepth(q); !d.Stopped || !length.Same(d.Bottom, 40*in) || d.Gravel != 0 {
		t.Errorf("stopped short: %+v", d)
	}
}

func TestWidthByHandWorked(t *testing.T) {
	for _, c := range []struct {
		what   string
		change func(*footing.Question)
		inches float64
	}{
		// Twice 4 in off and the 4.95 in across the corners: 12.95, past the 12 in auger.
		{"a hole 4 in beside its post still holds it", func(q *footing.Question) { q.Hole.Along = 4 * in }, 18},
		{"what crews dig is for that post: nothing is added", func(q *footing.Question) { q.Kind, q.Hole.CommonWidth = job.GatePost, 8*in }, 8},
		// 1.45 x 3 1/2 = 5.08, less a tenth 4.57, but the corners need 4.95.
		{"a narrower auger must still let the post in", func(q *footing.Question) {
			q.Hole.WidthFactor, q.Hole.WidthTolerance, q.Hole.Augers = 1.45, 0.1, []length.Length{4.75 * in, 6 * in}
		}, 6},
	} {
		q := question()
		c.change(&q)
		if w := footing.FindWidth(q); math.Abs(w.Width.Inches()-c.inches) > 1e-9 {
			t.Errorf("%s: %.3f in, want %v", c.what, w.Width.Inches(), c.inches)
		}
	}
}

// A hollow post 100 mm across with walls of 5: 90 x 90 mm inside, which is
// 8.1 ml for each millimetre of height.
func TestInsideAPostOnGroundThatIsCut(t *testing.T) {
	post := job.Post{Shape: job.SquarePost, Width: 100, Hollow: true, Wall: 5}
	d := footing.Depth{Bottom: 1000, Foot: 960, Hole: 1100, Gravel: 100}
	shape := footing.ShapeOf(300, d.Bottom, d.Hole, job.Hole{})
	inside := func(s job.Setting, lowered length.Length) (from, to, millilitres float64) {
		t.Helper()
		for _, l := range footing.Fill(shape, d, post, s, 0.4, lowered).Layers {
			if l.Kind == footing.InsideLayer {
				return float64(l.From), float64(l.To), float64(l.Volume) * 1e6
			}
		}
		return 0, 0, 0
	}
	// Filled to 50 above ground that is cut by 80: from 30 below today's down to the foot.
	if from, to, v := inside(job.Setting{Inside: job.OpenInside, FillTo: ptr(50)}, 80); from != 30 || to != 960 || math.Abs(v-930*8.1) > 0.01 {
		t.Errorf("from %v to %v, %.2f ml; want 30 to 960, %.2f", from, to, v, 930*8.1)
	}
	// Left open it fills to the concrete's top, 75 of soil below the cut.
	if from, to, v := inside(job.Setting{Inside: job.OpenInside, Cover: 75}, 80); from != 155 || to != 960 || math.Abs(v-805*8.1) > 0.01 {
		t.Errorf("from %v to %v, %.2f ml; want 155 to 960, %.2f", from, to, v, 805*8.1)
	}
}

// A crown stands on the ground as it will be: where that is cut by 80 mm, the
// concrete below it is 80 mm lower.
func TestCrownOnGroundThatIsCut(t *testing.T) {
	d := footing.Depth{Bottom: 1000, Foot: 1000, Hole: 1000}
	f := footing.Fill(footing.ShapeOf(300, d.Bottom, d.Hole, job.Hole{}), d, job.Post{Shape: job.SquarePost, Width: 100}, job.Setting{Top: job.CrownTop, Crown: 40}, 0.4, 80)
	if !length.Same(f.ConcreteHeight, 920) {
		t.Errorf("%v of concrete, want 920", f.ConcreteHeight)
	}
	for _, l := range f.Layers {
		if l.Kind == footing.CrownLayer && (!length.Same(l.From, 40) || !length.Same(l.To, 80)) {
			t.Errorf("the crown lies from %v to %v", l.From, l.To)
		}
	}
}
