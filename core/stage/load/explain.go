package load

import (
	"mallow/core/length"
	"mallow/core/materials"
	"mallow/core/reason"
	"mallow/core/stage"
	"mallow/core/words"
)

// explain says why a run's totals are what they are.
func (m *Load) Explain(f stage.Figure) (reason.Why, bool) {
	if f.Of != "totals" {
		return m.Build.Explain(f)
	}
	switch f.What {
	case "concrete":
		return m.whyBags(m.Totals), true
	case "gravel":
		return m.whyGravel(m.Totals), true
	case "hours":
		return m.whyHours(m.Totals), true
	case "spoil":
		return m.whySpoil(m.Totals), true
	}
	return reason.Why{}, false
}

// explainJob says why the totals of all runs are what they are.
func ExplainJob(runs []*Load, t Totals, f stage.Figure) (reason.Why, bool) {
	switch {
	case f.Of != "totals" || f.Run != "" || len(runs) == 0:
	case len(runs) == 1:
		return runs[0].Explain(f)
	case f.What == "concrete":
		return whyJobConcrete(runs, t), true
	case f.What == "gravel":
		return whyJobGravel(runs, t), true
	case f.What == "hours":
		return whyJobHours(runs, t), true
	case f.What == "spoil":
		return whyJobSpoil(runs, t), true
	}
	return reason.Why{}, false
}

// says tells a piece's section, material and length.
func (p section) says() reason.Text {
	switch p.What {
	case "line posts", "terminal posts":
		shape := "square"
		if p.Round {
			shape = "round"
		}
		if p.Hollow {
			shape += " hollow"
		}
		t := words.Say("load.post-section", words.V{"width": p.Width, "shape": shape, "material": p.Material})
		if p.Length == 0 {
			return append(t, words.Say("load.longer-than-any-stock-order")...)
		}
		return append(t, words.Say("load.long", words.V{"length": p.Length})...)
	case "panels", "gravel boards":
		t := words.Say("load.high", words.V{"width": p.Width})
		if p.Length > 0 {
			t = append(words.Say("load.length-by", words.V{"length": p.Length}), t...)
		}
		return t
	}
	return words.Say("load.long", words.V{"length": p.Length})
}

func (m *Load) whyBags(t Totals) reason.Why {
	r := m.RunRules()
	w := reason.Why{Figure: words.Plain("load.concrete-for-the-run"),
		Sentence: words.Say("load.holes-take", words.V{"posts": t.Posts, "small": t.Concrete - t.CurbConcrete, "bulk": t.Concrete - t.CurbConcrete})}
	if m.BagKnown && len(t.BagKinds) > 0 {
		w.Sentence = append(w.Sentence, words.Say("load.bags-so", words.V{"exact": t.BagKinds[0].Exact, "bags": t.Bags})...)
		w.Steps = append(w.Steps,
			reason.Step{Rule: words.Plain("load.rounded-up-once"), Governs: true, Source: stage.Geometry,
				Says: words.Say("load.the-sum-is-of-exact")},
			m.BagStep(r, m.Bag))
	}
	w.Steps = append(w.Steps, reason.Step{Rule: words.Plain("load.waste"), Source: stage.Practice, Says: words.Say("load.bought-beyond-the-sum-as", words.V{"waste": r.Setting.Waste}),
		Settings: []reason.Setting{m.Rule(r, "setting/waste")}})
	w.Steps = append(append(w.Steps, curbStep(t, m.Job.Units.System)...), otherConcrete(t, m.Cat)...)
	return w
}

// curbStep is what the mowing curb takes of the concrete, where there is one.
func curbStep(t Totals, sys length.System) []reason.Step {
	if t.CurbConcrete <= 0 {
		return nil
	}
	return []reason.Step{{Rule: words.In(sys, "load.curb"), Source: stage.Geometry, Says: words.Say("load.curb-takes", words.V{"length": t.CurbLength, "volume": t.CurbConcrete})}}
}

// otherConcrete is the same concrete from a truck, and mixed on site.
func otherConcrete(t Totals, cat materials.Catalog) []reason.Step {
	truck := words.Say("load.ordered-in-steps", words.V{"order": t.Truck.Order})
	if t.Truck.Short {
		truck = append(truck, words.Say("load.under-a-charge-for-a", words.V{"under": t.Truck.Under})...)
	}
	mix := cat.Supply.Mix
	return []reason.Step{
		{Rule: words.Plain("load.by-truck"), Source: cat.Supply.Truck.Source, Says: truck},
		{Rule: words.Plain("load.mixed-on-site"), Source: mix.Source, Says: words.Say("load.cement-sand-stone-of-cement", words.V{"cementParts": mix.Cement, "sandParts": mix.Sand, "stoneParts": mix.Stone, "bags": t.Mix.Bags, "bag": t.Mix.Bag, "sand": t.Mix.Sand, "stone": t.Mix.Stone, "water": t.Mix.Water})},
	}
}

func (m *Load) whyGravel(t Totals) reason.Why {
	g := m.Cat.Gravel
	return reason.Why{Figure: words.Plain("load.gravel-for-the-run"),
		Sentence: words.Say("load.tamped-in-the-holes-loose", words.V{"gravel": t.Gravel, "tamping": 100 * g.Tamping, "gravelLoose": t.GravelLoose}),
		Steps: []reason.Step{
			{Rule: words.Plain("load.tamping"), Governs: true, Source: g.Source, Says: words.Say("load.gravel-loses-about-a-tenth")},
			{Rule: words.Plain("load.gravel-under-the-post"), Source: stage.Practice, Says: words.Say("load.in-each-hole", words.V{"gravel": m.RunRules().Setting.Gravel}),
				Settings: []reason.Setting{m.Rule(m.RunRules(), "setting/gravel")}},
		}}

}

func (m *Load) whyHours(t Totals) reason.Why {
	rate, source := m.Crew(), m.Cat.Supply.Crew.Source
	if m.Job.Site.Crew != nil {
		source = stage.Yours
	}
	w := reason.Why{Figure: words.Plain("load.hours-to-dig"), Sentence: words.Say("load.of-soil-h-by-hand", words.V{"dug": t.Dug, "byHand": t.Hours.ByHand, "byAuger": t.Hours.ByAuger})}
	w.Steps = []reason.Step{
		{Rule: words.Plain("load.by-hand"), Source: source, Governs: true, Says: words.Say("load.an-hour-in-easy-soil", words.V{"volume": length.Volume(rate.Hand)})},
		{Rule: words.Plain("load.by-auger"), Source: source, Says: words.Say("load.of-hole-an-hour-and", words.V{"auger": rate.Auger, "setup": rate.Setup})},
		{Rule: words.Plain("load.soil"), Source: m.Soil.Source, Says: words.Say("load.times-as-long-as-easy", words.V{"name": m.Soil.Name, "digging": m.Soil.Digging})},
	}
	if t.Hours.Hand > 0 {
		w.Steps = append(w.Steps, reason.Step{Rule: words.Plain("load.no-auger-there"), Source: stage.Practice, Says: words.Say("load.dug-by-hand-anyway-near", words.V{"hand": t.Hours.Hand})})
	}
	return w

}

func (m *Load) whySpoil(t Totals) reason.Why {
	return reason.Why{Figure: words.Plain("load.soil-to-carry-away"),
		Sentence: words.Say("load.dug-less-put-back-loosened", words.V{"dug": t.Dug, "soilBack": t.SoilBack, "bulking": 100 * m.Soil.Bulking, "spoil": t.Spoil}),
		Steps:    []reason.Step{{Rule: words.Plain("load.loosening"), Governs: true, Source: m.Soil.Source, Says: m.SoilSays()}}}

}

func whyJobConcrete(runs []*Load, t Totals) reason.Why {
	w := reason.Why{Figure: words.Plain("load.concrete-for-the-job"),
		Sentence: words.Say("load.holes-on-runs-take", words.V{"posts": t.Posts, "count": len(runs), "small": t.ConcreteToBuy, "bulk": t.ConcreteToBuy})}
	w.Steps = append(w.Steps, curbStep(t, runs[0].Job.Units.System)...)
	w.Steps = append(w.Steps, otherConcrete(t, runs[0].Cat)...)
	w.Steps = append(w.Steps, reason.Step{Rule: words.Plain("load.rounded-up-once"), Governs: true, Source: stage.Geometry,
		Says: words.Say("load.the-runs-exact-volumes-are")})
	if t.Elsewhere > 0 {
		w.Steps = append(w.Steps, reason.Step{Rule: words.Plain("load.corner-posts-once"), Source: stage.Practice,
			Says: words.Say("load.to-two-runs-and-is", words.V{"elsewhere": t.Elsewhere})})
	}
	for _, m := range runs {
		w.Steps = append(w.Steps, reason.Step{Rule: m.Name(), Source: stage.Yours,
			Says: words.Say("load.holes-in-all", words.V{"posts": m.Totals.Posts, "concreteToBuy": m.Totals.ConcreteToBuy})})
	}
	return w
}

func whyJobGravel(runs []*Load, t Totals) reason.Why {
	w := reason.Why{Figure: words.Plain("load.gravel-for-the-job"), Sentence: words.Say("load.tamped-in-the-holes-loose-2", words.V{"gravel": t.Gravel, "gravelLoose": t.GravelLoose})}
	for _, m := range runs {
		w.Steps = append(w.Steps, reason.Step{Rule: m.Name(), Source: stage.Yours, Says: words.Say("load.tamped", words.V{"gravel": m.Totals.Gravel})})
	}
	return w
}

func whyJobHours(runs []*Load, t Totals) reason.Why {
	w := reason.Why{Figure: words.Plain("load.hours-to-dig-whole-job"), Sentence: words.Say("load.of-soil-h-by-hand", words.V{"dug": t.Dug, "byHand": t.Hours.ByHand, "byAuger": t.Hours.ByAuger})}
	for _, m := range runs {
		w.Steps = append(w.Steps, reason.Step{Rule: m.Name(), Source: stage.Yours, Says: words.Say("load.h-by-hand-h-with", words.V{"byHand": m.Totals.Hours.ByHand, "byAuger": m.Totals.Hours.ByAuger})})
	}
	return w
}

func whyJobSpoil(runs []*Load, t Totals) reason.Why {
	w := reason.Why{Figure: words.Plain("load.soil-to-carry-away-whole"), Sentence: words.Say("load.dug-less-put-back-loosened-2", words.V{"dug": t.Dug, "soilBack": t.SoilBack, "spoil": t.Spoil})}
	for _, m := range runs {
		w.Steps = append(w.Steps, reason.Step{Rule: m.Name(), Source: m.Soil.Source, Says: words.Say("load.of", words.V{"spoil": m.Totals.Spoil, "name": stage.Lower(m.Soil.Name)})})
	}
	return w
}
