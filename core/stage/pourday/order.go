package pourday

import (
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/materials"
	"mallow/core/pour"
	"mallow/core/stage/load"
)

// order is what is told to the plant or the merchant.
func (w *planner) order(runs []*load.Load) {
	o, cat := &w.out.Order, w.cat.Pouring
	kinds := map[string]*BagOrder{}
	exact := map[string]float64{}
	var names []string
	site := length.Volume(0)
	bags := func(bag materials.Bag, v length.Volume, method job.Method) {
		if kinds[bag.ID] == nil {
			kinds[bag.ID] = &BagOrder{Bag: bag.Name, Mass: bag.Mass, Water: w.water(method, bag.Mass)}
			names = append(names, bag.ID)
		}
		exact[bag.ID] += pour.Bags(v, bag.Yield)
	}
	for _, m := range runs {
		if c := m.Curb; c != nil {
			switch by := w.cat.MixFor(job.Braced, w.pour.By).By; {
			case by == job.BySiteMix:
				site += c.Buy
			case by == job.ByBags && c.Bag.Yield > 0:
				bags(c.Bag, c.Buy, job.Braced)
			case by == job.ByTruck:
				o.slump(cat.Slump[job.Braced])
			}
		}
		for i := range m.Posts {
			p := &m.Posts[i]
			d := pouredIn(m, p)
			if d == nil {
				continue
			}
			method := d.Sized.Rules.Setting.Method
			if s, ok := cat.Slump[method]; ok && w.pour.By == job.ByTruck {
				o.slump(s)
			}
			// The stone is a third of the clear way from post to hole at most (common practice).
			if room := (p.HoleWidth - p.Width) / 2 / 3; room > 0 && (o.Stone == 0 || room < o.Stone) {
				o.Stone = room
			}
			switch by := w.cat.MixFor(method, w.pour.By).By; {
			case by == job.ByTruck:
			case by == job.BySiteMix:
				site += d.Buy
			case d.Bag.Yield > 0:
				bags(d.Bag, d.Buy, method)
			}
		}
	}
	for _, id := range names {
		b := kinds[id]
		b.Count = pour.Whole(exact[id])
		o.PerHour = 60 / (cat.Mixing * float64(b.Mass) / 25)
		b.Mass *= length.Mass(b.Count)
		b.Pallets = pour.Whole(float64(b.Mass / cat.Pallet))
		o.Bags = append(o.Bags, *b)
	}
	o.Stone = roundStone(o.Stone)
	if site > 0 {
		m := pour.MixOnSite(site, w.cat.Supply.Mix, w.job.Units.System)
		o.Cement, o.Sand, o.Gravel = pour.Whole(m.Bags), m.Sand, m.Stone
	}
}

// slump takes in how wet concrete is wanted somewhere.
func (o *DayOrder) slump(s materials.Slump) {
	if o.Least == 0 || s.Least < o.Least {
		o.Least = s.Least
	}
	o.Most = max(o.Most, s.Most)
}

// stones are the sizes that concrete is ordered with.
var stones = []length.Length{9.525, 12.7, 19.05, 25.4}

func roundStone(l length.Length) length.Length {
	best := stones[0]
	for _, s := range stones {
		if s <= l {
			best = s
		}
	}
	return best
}
