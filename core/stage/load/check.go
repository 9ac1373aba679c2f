package load

import (
	"math"

	"mallow/core/finding"
	"mallow/core/job"
	"mallow/core/reason"
	"mallow/core/stage"
	"mallow/core/words"
)

// nearMix looks at what is ordered whole: a little less waste may save a step
// of the truck, or the last bag.
func NearMix(j job.Job, t Totals, runs []*Load) []stage.Found {
	if t.Waste <= 0 || t.Concrete <= 0 || len(runs) == 0 {
		return nil
	}
	for _, m := range runs { // what is said nearer than the job would undo it
		if k := m.RunRules().From["setting/waste"].Kind; k != job.UsualLevel && k != job.JobLevel {
			return nil
		}
	}
	var out []stage.Found
	offer := func(rule string, share float64, says reason.Text, saves reason.Text) {
		waste := math.Floor((share-1e-9)*1e4) / 1e4
		if waste < 0 || t.Waste-waste > nearWaste {
			return
		}
		out = append(out, stage.Found{Finding: finding.Finding{Rule: rule, Stage: finding.Pour, Severity: finding.Note, Says: says},
			Ways: stage.OneWay(append(words.Say("load.waste-instead-of", words.V{"waste": waste, "usual": t.Waste}), saves...), job.Set("/setting/waste", waste))})
	}
	order := runs[0].Cat.Supply.Truck.In(j.Units.System)
	if step := t.Truck.Order - order.Step; step > 0 {
		offer(codeNearTruck, float64(step/t.Concrete)-1, words.Say("load.the-truck-is-ordered-with", words.V{"order": t.Truck.Order, "concreteToBuy": t.ConcreteToBuy - step}), words.Say("load.saves", words.V{"step": order.Step}))
	}
	if len(t.BagKinds) == 1 {
		b := t.BagKinds[0]
		bag, ok := runs[0].Cat.Bag(b.id)
		if whole := math.Floor(b.Exact); ok && whole > 0 && b.Exact-whole > 1e-6 && b.Exact-whole <= nearBag {
			offer(codeNearBag, whole*float64(bag.Yield)/float64(t.Concrete)-1, words.Say("load.the-last-of-bags-is", words.V{"count": b.Count}), words.Say("load.saves-a-bag"))
		}
	}
	return out
}

// How near is near.
const (
	nearBag   = 0.05 // of a bag, over whole bags
	nearWaste = 0.02 // of the concrete, that the waste may give
)
