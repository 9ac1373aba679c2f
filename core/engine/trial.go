package engine

import (
	"mallow/core/job"
	"mallow/core/stage"
	"mallow/core/stage/build"
	"mallow/core/stage/curbing"
	"mallow/core/stage/dig"
	"mallow/core/stage/gates"
	"mallow/core/stage/load"
	"mallow/core/stage/slope"
	"mallow/core/stage/space"
)

// trier plans a run as it would be, by itself.
type trier struct {
	of   *load.Load
	look func()
	asIs *stage.Outcome
}

func (t *trier) Now() *stage.Outcome {
	if t.asIs == nil {
		t.asIs = t.Then(t.of.Given)
	}
	return t.asIs
}

func (t *trier) Then(run job.Run) *stage.Outcome { return OutcomeOf(t.alone(run)) }

// alone plans a run without its neighbours, as far as its totals.
func (t *trier) alone(run job.Run) *load.Load {
	line := slope.Unsolved(space.Compute(stage.NewRun(t.of.Job, run, t.of.Cat, t.of.Path, t.of.Lie)))
	if line.Laid() {
		(&slope.Group{Runs: []*slope.Line{line}}).Grade(t.look)
		line.List()
	}
	d := dig.Compute(slope.Compute(line, nil), nil, t.look)
	d.Obstacles()
	return added(d, [2]curbing.End{})
}

// added is what a run takes whose gates and parts nobody asks for.
func added(d *dig.Holes, ends [2]curbing.End) *load.Load {
	b := &build.Build{Gates: &gates.Gates{Holes: d}}
	return load.Compute(b, curbing.Compute(b, ends))
}

// outcomeOf is what a trial comes to.
func OutcomeOf(l *load.Load) *stage.Outcome {
	t := &l.Totals
	return &stage.Outcome{
		Posts: t.Posts, Trouble: l.Trouble(), Odd: l.Odd(), CutPieces: t.CutPieces, StockShort: t.StockShort, Weak: len(l.Weak),
		Stock: t.StockLength(), Concrete: t.Concrete, Buy: t.ConcreteToBuy, Bags: t.Bags,
		Weakest: func() float64 {
			l.Wind()
			least := -1.0
			for i := range l.Posts {
				if p := &l.Posts[i]; p.Wind != nil && p.Kind == job.LinePost && (least < 0 || p.Wind.Gust < least) {
					least = p.Wind.Gust
				}
			}
			return least
		},
	}
}
