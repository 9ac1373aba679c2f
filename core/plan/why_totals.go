package plan

import (
	"mallow/core/length"
	"mallow/core/materials"
	"mallow/core/reason"
)

func (m *maker) whyBags(t Totals) reason.Ref {
	return m.few.Put("bags", func() reason.Why {
		r := m.runRules()
		w := reason.Why{Figure: "Concrete for the run",
			Sentence: reason.Say(t.Posts, plural(t.Posts, " hole takes ", " holes take "), t.Concrete, " (", reason.Bulk(t.Concrete), ")")}
		if m.bagKnown && len(t.BagKinds) > 0 {
			w.Sentence = append(w.Sentence, reason.Say(": ", t.BagKinds[0].Exact, " bags, so ", t.Bags, ".")...)
			w.Steps = append(w.Steps,
				reason.Step{Rule: "Rounded up once", Governs: true, Source: geometry,
					Says: reason.Say("The sum is of exact volumes; bags are rounded up for the run, not for each post.")},
				m.bagStep(r, m.bag))
		}
		w.Steps = append(w.Steps, reason.Step{Rule: "Waste", Source: practice, Says: reason.Say("Bought beyond the sum, as a fraction: ", r.Setting.Waste),
			Settings: []reason.Setting{m.rule(r, "setting/waste", "Waste", reason.RatioSetting)}})
		w.Steps = append(w.Steps, otherConcrete(t, m.cat)...)
		return w
	})
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

func (m *maker) whyGravel(t Totals) reason.Ref {
	return m.few.Put("gravel", func() reason.Why {
		g := m.cat.Gravel
		return reason.Why{Figure: "Gravel for the run",
			Sentence: reason.Say(t.Gravel, " tamped in the holes + ", 100*g.Tamping, " % = ", reason.Bulk(t.GravelLoose), " loose."),
			Steps: []reason.Step{
				{Rule: "Tamping", Governs: true, Source: g.Source, Says: reason.Say("Gravel loses about a tenth when it is tamped.")},
				{Rule: "Gravel under the post", Source: practice, Says: reason.Say(m.runRules().Setting.Gravel, " in each hole."),
					Settings: []reason.Setting{m.rule(m.runRules(), "setting/gravel", "Gravel", reason.LengthSetting)}},
			}}
	})
}

func (m *maker) whyHours(t Totals) reason.Ref {
	return m.few.Put("hours", func() reason.Why {
		rate, source := m.crew(), m.cat.Supply.Crew.Source
		if m.job.Site.Crew != nil {
			source = yours
		}
		w := reason.Why{Figure: "Hours to dig", Sentence: reason.Say(t.Dug, " of soil: ", t.Hours.ByHand, " h by hand for one person, ", t.Hours.ByAuger, " h with the auger.")}
		w.Steps = []reason.Step{
			{Rule: "By hand", Source: source, Governs: true, Says: reason.Say(length.Volume(rate.Hand), " an hour in easy soil.")},
			{Rule: "By auger", Source: source, Says: reason.Say(rate.Auger, " of hole an hour, and ", rate.Setup, " minutes to set up at each.")},
			{Rule: "Soil", Source: m.soil.Source, Says: reason.Say(m.soil.Name, ": ", m.soil.Digging, " times as long as easy soil.")},
		}
		if t.Hours.Hand > 0 {
			w.Steps = append(w.Steps, reason.Step{Rule: "No auger there", Source: practice, Says: reason.Say(t.Hours.Hand, plural(t.Hours.Hand, " hole is", " holes are"), " dug by hand anyway: near a mark, square, or wider than any auger.")})
		}
		return w
	})
}

func (m *maker) whySpoil(t Totals) reason.Ref {
	return m.few.Put("spoil", func() reason.Why {
		return reason.Why{Figure: "Soil to carry away",
			Sentence: reason.Say(t.Dug, " dug, less ", t.SoilBack, " put back, loosened by ", 100*m.soil.Bulking, " % = ", reason.Bulk(t.Spoil), "."),
			Steps:    []reason.Step{{Rule: "Loosening", Governs: true, Source: m.soil.Source, Says: m.soilSays()}}}
	})
}

func whyJobConcrete(runs []*maker, t Totals) reason.Why {
	w := reason.Why{Figure: "Concrete for the job",
		Sentence: reason.Say(t.Posts, " holes on ", len(runs), " runs take ", t.ConcreteToBuy, " (", reason.Bulk(t.ConcreteToBuy), ").")}
	w.Steps = append(w.Steps, otherConcrete(t, runs[0].cat)...)
	w.Steps = append(w.Steps, reason.Step{Rule: "Rounded up once", Governs: true, Source: geometry,
		Says: reason.Say("The runs' exact volumes are added; bags of a kind are rounded up once for the job.")})
	if t.Elsewhere > 0 {
		w.Steps = append(w.Steps, reason.Step{Rule: "Corner posts once", Source: practice,
			Says: reason.Say(t.Elsewhere, plural(t.Elsewhere, " corner post belongs", " corner posts belong"), " to two runs and is dug once: counted in the run that ends there.")})
	}
	for _, m := range runs {
		w.Steps = append(w.Steps, reason.Step{Rule: m.name(), Source: yours,
			Says: reason.Say(m.out.Totals.Posts, plural(m.out.Totals.Posts, " hole", " holes"), ", ", m.out.Totals.ConcreteToBuy)})
	}
	return w
}

func whyJobGravel(runs []*maker, t Totals) reason.Why {
	w := reason.Why{Figure: "Gravel for the job", Sentence: reason.Say(t.Gravel, " tamped in the holes = ", reason.Bulk(t.GravelLoose), " loose.")}
	for _, m := range runs {
		w.Steps = append(w.Steps, reason.Step{Rule: m.name(), Source: yours, Says: reason.Say(m.out.Totals.Gravel, " tamped")})
	}
	return w
}

func whyJobHours(runs []*maker, t Totals) reason.Why {
	w := reason.Why{Figure: "Hours to dig, whole job", Sentence: reason.Say(t.Dug, " of soil: ", t.Hours.ByHand, " h by hand for one person, ", t.Hours.ByAuger, " h with the auger.")}
	for _, m := range runs {
		w.Steps = append(w.Steps, reason.Step{Rule: m.name(), Source: yours, Says: reason.Say(m.out.Totals.Hours.ByHand, " h by hand, ", m.out.Totals.Hours.ByAuger, " h with the auger")})
	}
	return w
}

func whyJobSpoil(runs []*maker, t Totals) reason.Why {
	w := reason.Why{Figure: "Soil to carry away, whole job", Sentence: reason.Say(t.Dug, " dug, less ", t.SoilBack, " put back, loosened = ", reason.Bulk(t.Spoil), ".")}
	for _, m := range runs {
		w.Steps = append(w.Steps, reason.Step{Rule: m.name(), Source: m.soil.Source, Says: reason.Say(reason.Bulk(m.out.Totals.Spoil), " of ", lower(m.soil.Name))})
	}
	return w
}
