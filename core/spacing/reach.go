package spacing

// farthest returns the number of bays with which the end comes into reach when
// each bay goes as far as it can. No layout has fewer: a bay that stops short
// never gets farther. Without a way, it is how few would fill the stretch.
func (p problem) farthest() int {
	n := 0
	for at := int64(0); ; n++ {
		if at+p.most >= p.long {
			return n + 1
		}
		i, in := p.open.find(at + p.most)
		next := at + p.most
		if !in {
			if i == 0 || p.open[i-1].to <= at {
				return int(max(1, (p.long+p.most-1)/p.most))
			}
			next = p.open[i-1].to
		}
		at = next
	}
}

// reach returns the fewest bays, each between least and most, that lead from
// one end to the other over open places; false where no number of bays does.
//
// It walks the set of places that k bays can end at, for k from 1. Every set
// is a list of stretches, so nothing is sampled.
func (p problem) reach() (int, bool) {
	at, r, inside := spans{{0, 0}}, &room{}, span{0, p.long}
	for n := 1; n <= p.bays() && len(at) > 0; n++ {
		next := at.moved(p.least, p.most, inside, r).and(p.open, r)
		if next.equal(at) {
			return 0, false
		}
		at = next
		if _, in := at.find(p.long); in {
			return n, true
		}
	}
	return 0, false
}

// reachable is every place that some number of bays leads to. A reachable
// stretch as long as the least bay grows, bay by bay, to the end of the open
// one that it lies in, so that it need not be followed bay by bay.
func (p problem) reachable() spans {
	r, inside := &room{}, span{0, p.long}
	seen := spans{{0, 0}}
	for {
		last := &seen[len(seen)-1]
		if i, in := p.open.find(last.to); in && last.to-last.from >= p.least {
			last.to = p.open[i].to
		}
		first, _ := seen.find(last.to - p.most) // what lies farther back leads no farther
		next := seen.or(seen[first:].moved(p.least, p.most, inside, r).and(p.open, r), r)
		if next.equal(seen) {
			return seen
		}
		seen = next
	}
}

// possible tells whether some number of bays leads to the end.
func (p problem) possible() bool {
	_, in := p.reachable().find(p.long)
	return in
}

// stuck returns the farthest place that posts can get to from the start, and
// the first open place after it that is out of their reach.
func (p problem) stuck() (at, next int64) {
	seen := p.reachable()
	at = seen[len(seen)-1].to
	i, _ := p.open.find(at)
	for ; i < len(p.open); i++ {
		if from := p.open[i].from; from > at+p.most {
			return at, from
		}
	}
	return at, p.long
}
