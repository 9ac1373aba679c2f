package plan_test

import (
	"encoding/json"
	"fmt"
	"math"
	"math/rand/v2"
	"testing"

	"mallow/core/document"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/plan"
)

// holesOf is what is dug and filled at every post, without who said so.
func holesOf(t *testing.T, p plan.Plan) string {
	t.Helper()
	type hole struct {
		Station, Width, Depth, Bottom, Foot      float64
		Concrete, Stone, Gravel, Soil, Spoil, At float64
		Gust                                     float64
	}
	var out []hole
	for _, run := range p.Runs {
		for _, post := range run.Posts {
			c := run.Cards[post.Card]
			h := hole{Station: float64(post.Station), Width: float64(post.HoleWidth), Depth: float64(post.HoleDepth), Bottom: float64(post.Bottom), Foot: float64(post.Foot),
				Concrete: float64(c.Concrete), Stone: float64(c.Stone), Gravel: float64(c.Gravel), Soil: float64(c.Soil), Spoil: float64(c.Spoil), At: float64(c.Along)}
			if post.Wind != nil {
				h.Gust = post.Wind.Gust
			}
			out = append(out, h)
		}
	}
	raw, err := json.Marshal(out)
	if err != nil {
		t.Fatal(err)
	}
	return string(raw)
}

// It does not matter at which level a rule is said, when nothing nearer says
// another: for the whole job, the run, all four kinds of post, or every post by
// itself, the holes are the same.
func TestLevelsAgree(t *testing.T) {
	t.Parallel()
	rng := rand.New(rand.NewPCG(68, 1))
	cat := shipped(t)
	for n := range sized(150, 35) {
		base := random(t, rng)
		base.Hole, base.Setting = job.HoleRules{}, job.SettingRules{}
		run := &base.Lines[0].Runs[0]
		run.Hole, run.Setting = job.HoleRules{}, job.SettingRules{}
		h := job.HoleRules{
			WidthFactor: ptr(1 + 4*rng.Float64()), Floor: ptr(length.Length(rng.IntN(1500))), FrostMargin: ptr(length.Length(rng.IntN(300))), Share: ptr([]job.Share{job.NoShare, job.Quarter, job.Half}[rng.IntN(3)]),
			Shape: ptr([]job.HoleShape{job.RoundHole, job.SquareHole}[rng.IntN(2)]), Bell: ptr(length.Length(rng.IntN(600))), RoundDepthTo: ptr(length.Length(rng.IntN(60))), Along: ptr(length.Length(rng.IntN(80) - 40)),
		}
		s := job.SettingRules{
			Method: ptr([]job.Method{job.Braced, job.RockPacked, job.Slurry, job.Layered}[rng.IntN(4)]), Gravel: ptr(length.Length(rng.IntN(250))), Cover: ptr(length.Length(rng.IntN(200))),
			Top: ptr([]job.Top{job.CoverTop, job.CrownTop}[rng.IntN(2)]), Rubble: ptr(0.3 * rng.Float64()), Stand: ptr(length.Length(rng.IntN(200) - 100)),
		}
		said := map[string]func(j *job.Job){
			"job": func(j *job.Job) { j.Hole, j.Setting = h, s },
			"run": func(j *job.Job) { j.Lines[0].Runs[0].Hole, j.Lines[0].Runs[0].Setting = h, s },
			"kinds": func(j *job.Job) {
				for _, kind := range []job.PostKind{job.EndPost, job.CornerPost, job.GatePost, job.LinePost} {
					j.Lines[0].Runs[0].Kinds = append(j.Lines[0].Runs[0].Kinds, job.KindRules{Kind: kind, Hole: h, Setting: s})
				}
			},
			"posts": func(j *job.Job) {
				for i, post := range plan.Make(*j, cat).Runs[0].Posts {
					j.Lines[0].Runs[0].Overrides = append(j.Lines[0].Runs[0].Overrides, job.HoleOverride{ID: fmt.Sprint("S", i), At: post.Station, Hole: h, Setting: s})
				}
			},
		}
		want := ""
		for _, level := range []string{"job", "run", "kinds", "posts"} {
			j := base
			j.Lines = []job.Line{base.Lines[0]}
			j.Lines[0].Runs = []job.Run{base.Lines[0].Runs[0]}
			said[level](&j)
			if errs := document.Check(j); len(errs) > 0 {
				t.Fatalf("job %d, %s: %v", n, level, errs)
			}
			got := holesOf(t, plan.Make(j, cat))
			if want == "" {
				want = got
			}
			if got != want {
				t.Fatalf("job %d, said for the %s:\n%s\nfor the job:\n%s", n, level, got, want)
			}
		}
	}
}

// The job's totals are the sum of its runs', whatever their rules, soils and
// bags; what is bought whole is rounded up once, and never costs more.
func TestJobTotalsAreTheSumOfRuns(t *testing.T) {
	t.Parallel()
	rng := rand.New(rand.NewPCG(69, 1))
	cat := shipped(t)
	saved := 0
	for n := range sized(80, 16) {
		j := anyHoles(t, rng)
		for r := range 1 + rng.IntN(3) {
			more := anyHoles(t, rng).Lines[0].Runs[0]
			more.ID, more.Corner = fmt.Sprint("M", r), &job.Corner{By: job.ByDeflection, Side: job.Left, Angle: 10 + 60*rng.Float64()}
			more.Soil = []string{"", "sand", "gravel", "rock"}[rng.IntN(4)]
			more.Setting.Bag = ptr([]string{"60lb", "80lb", "20kg"}[rng.IntN(3)])
			j.Lines[0].Runs = append(j.Lines[0].Runs, more)
		}
		p := plan.Make(j, cat)
		var sum plan.Totals
		exact, bags := map[string]float64{}, 0
		for _, run := range p.Runs {
			o := run.Totals
			sum.Posts, sum.Concrete, sum.ConcreteToBuy, sum.Gravel, sum.Stone = sum.Posts+o.Posts, sum.Concrete+o.Concrete, sum.ConcreteToBuy+o.ConcreteToBuy, sum.Gravel+o.Gravel, sum.Stone+o.Stone
			sum.Dug, sum.SoilBack, sum.Spoil = sum.Dug+o.Dug, sum.SoilBack+o.SoilBack, sum.Spoil+o.Spoil
			sum.Hours.ByHand, sum.Hours.ByAuger, sum.Hours.Hand = sum.Hours.ByHand+o.Hours.ByHand, sum.Hours.ByAuger+o.Hours.ByAuger, sum.Hours.Hand+o.Hours.Hand
			bags += o.Bags
			for _, b := range o.BagKinds {
				exact[b.Bag] += b.Exact
			}
		}
		got := p.Totals
		for what, pair := range map[string][2]float64{
			"posts": {float64(got.Posts), float64(sum.Posts)}, "concrete": {float64(got.Concrete), float64(sum.Concrete)}, "to buy": {float64(got.ConcreteToBuy), float64(sum.ConcreteToBuy)},
			"gravel": {float64(got.Gravel), float64(sum.Gravel)}, "stone": {float64(got.Stone), float64(sum.Stone)}, "dug": {float64(got.Dug), float64(sum.Dug)}, "spoil": {float64(got.Spoil), float64(sum.Spoil)},
			"soil back": {float64(got.SoilBack), float64(sum.SoilBack)}, "hours": {got.Hours.ByHand, sum.Hours.ByHand}, "auger": {got.Hours.ByAuger, sum.Hours.ByAuger}, "by hand": {float64(got.Hours.Hand), float64(sum.Hours.Hand)},
		} {
			if math.Abs(pair[0]-pair[1]) > 1e-9*(1+math.Abs(pair[1])) {
				t.Fatalf("job %d: %s %v, its runs %v", n, what, pair[0], pair[1])
			}
		}
		for _, b := range got.BagKinds {
			if math.Abs(b.Exact-exact[b.Bag]) > 1e-9*(1+b.Exact) || b.Count != int(math.Ceil(b.Exact-1e-6)) {
				t.Fatalf("job %d: %+v, its runs take %v", n, b, exact[b.Bag])
			}
		}
		if got.Bags > bags {
			t.Fatalf("job %d: %d bags for the job, %d for its runs", n, got.Bags, bags)
		}
		saved += bags - got.Bags
		kinds, stock, holes := 0, 0, 0
		for _, k := range got.Kinds {
			kinds += k.Count
		}
		for _, k := range got.KindStock {
			stock += k.Count
		}
		for _, h := range got.Holes {
			holes += h.Count
		}
		if kinds != got.Posts || stock != got.Posts || holes > got.Posts {
			t.Fatalf("job %d: %d posts by kind, %d by kind and stock, %d holes of %d", n, kinds, stock, holes, got.Posts)
		}
	}
	if saved == 0 {
		t.Error("rounding once never saved a bag")
	}
}

// The more open the land, the sooner a gust of the same speed tips a post: B
// after C after D. Firmer soil bears more, and unknown soil is the weakest.
func TestExposureAndSoil(t *testing.T) {
	j := demoJob(t, 0)
	gust := func(e job.Exposure, soil string) float64 {
		j.Site.Exposure, j.Site.Soil = e, soil
		return plan.Make(j, shipped(t)).Runs[0].Posts[3].Wind.Gust
	}
	if b, c, d := gust("B", "sand"), gust("C", "sand"), gust("D", "sand"); b <= c || c <= d || gust("", "sand") != c {
		t.Errorf("B %v, C %v, D %v", b, c, d)
	}
	last := 0.0
	for _, soil := range []string{"clay", "sand", "gravel", "soft-rock", "rock"} {
		g := gust("C", soil)
		if g <= last {
			t.Errorf("%s bears %v, no more than the weaker one", soil, g)
		}
		last = g
	}
	if unknown := gust("C", ""); unknown != gust("C", "clay") {
		t.Error("soil that is not known is not taken as the weakest")
	}
}

// The choices that are refused in the lists are those that are found fault
// with once they are taken: every system, kind of post and way of setting.
func TestRefusedIsWhatIsFound(t *testing.T) {
	cat := shipped(t)
	refused := 0
	for _, s := range cat.Systems {
		for _, kind := range []job.PostKind{job.EndPost, job.GatePost, job.LinePost} {
			for _, method := range job.Methods {
				if method == job.Drive {
					continue // driven is a rule of its own
				}
				j := outfitted(t, s.ID, 60*length.Foot)
				run := &j.Lines[0].Runs[0]
				run.Hole.Driven = ptr(job.NoneDriven)
				run.Gates = []job.Gate{{ID: "G1", At: 30 * length.Foot, Opening: 1000, Gap: 100}}
				run.Kinds = []job.KindRules{{Kind: kind, Setting: job.SettingRules{Method: &method}}}
				p := plan.Make(j, cat)
				var level plan.RuleLevel
				for _, l := range p.Runs[0].Levels {
					if l.Kind == kind {
						level = l
					}
				}
				_, says := level.Refused["setting/method"][string(method)]
				found := false
				for _, f := range p.Findings {
					if f.Rule == "forbidden-setting" || f.Rule == "must-be-concrete" {
						for _, post := range p.Runs[0].Posts {
							found = found || post.Label == f.Place.Post && post.Kind == kind
						}
					}
				}
				if found != says {
					t.Errorf("%s, %s posts set %s: refused %v, found %v", s.ID, kind, method, says, found)
				}
				if says {
					refused++
				}
			}
		}
	}
	if refused < 50 {
		t.Errorf("only %d choices are refused", refused)
	}
}
