package load

import (
	"mallow/core/length"
	"mallow/core/materials"
	"mallow/core/reason"
	"mallow/core/stage"
)

// explain says why a run's totals are what they are.
func (m *Load) Explain(f stage.Figure) (reason.Why, bool) {
	if f.Of != "totals" {
		return m.Gates.Explain(f)
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

// words tells a part's section, material and length.
func (p LoadPart) Words() reason.Text {
	switch p.What {
	case "line posts", "terminal posts":
		shape := "square"
		if p.Round {
			shape = "round"
		}
		if p.Hollow {
			shape += " hollow"
		}
		t := reason.Say(p.Width, " "+shape+" "+p.Material+", ")
		if p.Length == 0 {
			return append(t, reason.Say("longer than any stock: order them")...)
		}
		return append(t, reason.Say(p.Length, " long")...)
	case "panels", "gravel boards":
		t := reason.Say(p.Width, " high")
		if p.Length > 0 {
			t = append(reason.Say(p.Length, " × "), t...)
		}
		return t
	}
	return reason.Say(p.Length, " long")
}

func (m *Load) whyBags(t Totals) reason.Why {
	r := m.RunRules()
	w := reason.Why{Figure: "Concrete for the run",
		Sentence: reason.Say(t.Posts, stage.Plural(t.Posts, " hole takes ", " holes take "), t.Concrete, " (", reason.Bulk(t.Concrete), ")")}
	if m.BagKnown && len(t.BagKinds) > 0 {
		w.Sentence = append(w.Sentence, reason.Say(": ", t.BagKinds[0].Exact, " bags, so ", t.Bags, ".")...)
		w.Steps = append(w.Steps,
			reason.Step{Rule: "Rounded up once", Governs: true, Source: stage.Geometry,
				Says: reason.Say("The sum is of exact volumes; bags are rounded up for the run, not for each post.")},
			m.BagStep(r, m.Bag))
	}
	w.Steps = append(w.Steps, reason.Step{Rule: "Waste", Source: stage.Practice, Says: reason.Say("Bought beyond the sum, as a fraction: ", r.Setting.Waste),
		Settings: []reason.Setting{m.Rule(r, "setting/waste", "Waste", reason.RatioSetting)}})
	w.Steps = append(w.Steps, otherConcrete(t, m.Cat)...)
	return w

}

// otherConcrete is the same concrete from a truck, and mixed on site.
func otherConcrete(t Totals, cat materials.Catalog) []reason.Step {
	truck := reason.Say("Ordered in steps: ", reason.Bulk(t.Truck.Order), ".")
	if t.Truck.Short {
		truck = append(truck, reason.Say(" Under ", reason.Bulk(t.Truck.Under), " a charge for a short load is usual.")...)
	}
	mix := cat.Supply.Mix
	return []reason.Step{
		{Rule: "By truck", Source: cat.Supply.Truck.Source, Says: truck},
		{Rule: "Mixed on site", Source: mix.Source, Says: reason.Say(mix.Cement, " cement, ", mix.Sand, " sand, ", mix.Stone, " stone: ", t.Mix.Bags, " × ", t.Mix.Bag, " of cement, ", reason.Bulk(t.Mix.Sand), " of sand, ", reason.Bulk(t.Mix.Stone), " of stone, ", t.Mix.Water, " of water.")},
	}
}

func (m *Load) whyGravel(t Totals) reason.Why {
	g := m.Cat.Gravel
	return reason.Why{Figure: "Gravel for the run",
		Sentence: reason.Say(t.Gravel, " tamped in the holes + ", 100*g.Tamping, " % = ", reason.Bulk(t.GravelLoose), " loose."),
		Steps: []reason.Step{
			{Rule: "Tamping", Governs: true, Source: g.Source, Says: reason.Say("Gravel loses about a tenth when it is tamped.")},
			{Rule: "Gravel under the post", Source: stage.Practice, Says: reason.Say(m.RunRules().Setting.Gravel, " in each hole."),
				Settings: []reason.Setting{m.Rule(m.RunRules(), "setting/gravel", "Gravel", reason.LengthSetting)}},
		}}

}

func (m *Load) whyHours(t Totals) reason.Why {
	rate, source := m.Crew(), m.Cat.Supply.Crew.Source
	if m.Job.Site.Crew != nil {
		source = stage.Yours
	}
	w := reason.Why{Figure: "Hours to dig", Sentence: reason.Say(t.Dug, " of soil: ", t.Hours.ByHand, " h by hand for one person, ", t.Hours.ByAuger, " h with the auger.")}
	w.Steps = []reason.Step{
		{Rule: "By hand", Source: source, Governs: true, Says: reason.Say(length.Volume(rate.Hand), " an hour in easy soil.")},
		{Rule: "By auger", Source: source, Says: reason.Say(rate.Auger, " of hole an hour, and ", rate.Setup, " minutes to set up at each.")},
		{Rule: "Soil", Source: m.Soil.Source, Says: reason.Say(m.Soil.Name, ": ", m.Soil.Digging, " times as long as easy soil.")},
	}
	if t.Hours.Hand > 0 {
		w.Steps = append(w.Steps, reason.Step{Rule: "No auger there", Source: stage.Practice, Says: reason.Say(t.Hours.Hand, stage.Plural(t.Hours.Hand, " hole is", " holes are"), " dug by hand anyway: near a mark, square, or wider than any auger.")})
	}
	return w

}

func (m *Load) whySpoil(t Totals) reason.Why {
	return reason.Why{Figure: "Soil to carry away",
		Sentence: reason.Say(t.Dug, " dug, less ", t.SoilBack, " put back, loosened by ", 100*m.Soil.Bulking, " % = ", reason.Bulk(t.Spoil), "."),
		Steps:    []reason.Step{{Rule: "Loosening", Governs: true, Source: m.Soil.Source, Says: m.SoilSays()}}}

}

func whyJobConcrete(runs []*Load, t Totals) reason.Why {
	w := reason.Why{Figure: "Concrete for the job",
		Sentence: reason.Say(t.Posts, " holes on ", len(runs), " runs take ", t.ConcreteToBuy, " (", reason.Bulk(t.ConcreteToBuy), ").")}
	w.Steps = append(w.Steps, otherConcrete(t, runs[0].Cat)...)
	w.Steps = append(w.Steps, reason.Step{Rule: "Rounded up once", Governs: true, Source: stage.Geometry,
		Says: reason.Say("The runs' exact volumes are added; bags of a kind are rounded up once for the job.")})
	if t.Elsewhere > 0 {
		w.Steps = append(w.Steps, reason.Step{Rule: "Corner posts once", Source: stage.Practice,
			Says: reason.Say(t.Elsewhere, stage.Plural(t.Elsewhere, " corner post belongs", " corner posts belong"), " to two runs and is dug once: counted in the run that ends there.")})
	}
	for _, m := range runs {
		w.Steps = append(w.Steps, reason.Step{Rule: m.Name(), Source: stage.Yours,
			Says: reason.Say(m.Totals.Posts, stage.Plural(m.Totals.Posts, " hole", " holes"), ", ", m.Totals.ConcreteToBuy)})
	}
	return w
}

func whyJobGravel(runs []*Load, t Totals) reason.Why {
	w := reason.Why{Figure: "Gravel for the job", Sentence: reason.Say(t.Gravel, " tamped in the holes = ", reason.Bulk(t.GravelLoose), " loose.")}
	for _, m := range runs {
		w.Steps = append(w.Steps, reason.Step{Rule: m.Name(), Source: stage.Yours, Says: reason.Say(m.Totals.Gravel, " tamped")})
	}
	return w
}

func whyJobHours(runs []*Load, t Totals) reason.Why {
	w := reason.Why{Figure: "Hours to dig, whole job", Sentence: reason.Say(t.Dug, " of soil: ", t.Hours.ByHand, " h by hand for one person, ", t.Hours.ByAuger, " h with the auger.")}
	for _, m := range runs {
		w.Steps = append(w.Steps, reason.Step{Rule: m.Name(), Source: stage.Yours, Says: reason.Say(m.Totals.Hours.ByHand, " h by hand, ", m.Totals.Hours.ByAuger, " h with the auger")})
	}
	return w
}

func whyJobSpoil(runs []*Load, t Totals) reason.Why {
	w := reason.Why{Figure: "Soil to carry away, whole job", Sentence: reason.Say(t.Dug, " dug, less ", t.SoilBack, " put back, loosened = ", reason.Bulk(t.Spoil), ".")}
	for _, m := range runs {
		w.Steps = append(w.Steps, reason.Step{Rule: m.Name(), Source: m.Soil.Source, Says: reason.Say(reason.Bulk(m.Totals.Spoil), " of ", stage.Lower(m.Soil.Name))})
	}
	return w
}
