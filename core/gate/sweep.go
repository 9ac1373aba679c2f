package gate

import (
	"math"

	"mallow/core/job"
	"mallow/core/length"
)

// Leaf is one leaf as it swings: its pin, which way it closes along the run,
// and how far it reaches from the pin.
type Leaf struct {
	Post   job.End       // that it hangs on
	Pin    length.Length // station
	Ahead  bool          // closed, it lies toward the run's end
	Width  length.Length
	Heel   length.Length // from the pin to its near edge
	Bottom length.Length // height above the datum, closed
	Lift   length.Length // until it is square open
	Open   float64       // how far it opens, degrees
}

// Reach is how far its far edge is from the pin.
func (l Leaf) Reach() length.Length { return l.Heel + l.Width }

// At is the place under the leaf, so far from the pin, at an angle in degrees.
func (l Leaf) At(angle float64, out length.Length) (station, off length.Length) {
	return l.ray(angle).at(out)
}

// A ray is where a leaf stands at one angle: its places are asked for by the
// hundred, the angle's sine once.
type ray struct{ pin, cos, sin length.Length }

func (l Leaf) ray(angle float64) ray {
	sin, cos := math.Sincos(angle * math.Pi / 180)
	if !l.Ahead {
		cos = -cos
	}
	return ray{l.Pin, length.Length(cos), length.Length(sin)}
}

func (r ray) at(out length.Length) (station, off length.Length) {
	return r.pin + out*r.cos, out * r.sin
}

// Height of its bottom at an angle: a rising hinge lifts it evenly as it
// turns.
func (l Leaf) Height(angle float64) length.Length {
	return l.Bottom + l.Lift*length.Length(angle/90)
}

// Leaves are the leaves of a swing gate on a run.
func Leaves(run job.Run, g job.Gate, bottom length.Length) []Leaf {
	if g.Kind == job.SlideGate {
		return nil
	}
	first, second := run.GatePosts(g)
	half := run.PostOf(job.GatePost).Width/2 + g.Hardware.Hinge - g.Hardware.Pin
	widths := g.LeafWidths()
	onFirst, onSecond := g.Hung()
	var out []Leaf
	add := func(post job.End, pin length.Length) {
		out = append(out, Leaf{Post: post, Pin: pin, Ahead: post == job.FirstPost, Width: widths[len(out)],
			Heel: g.Hardware.Pin, Bottom: bottom, Lift: g.Lift, Open: g.OpensTo()})
	}
	if onFirst {
		add(job.FirstPost, first+half)
	}
	if onSecond {
		add(job.SecondPost, second-half)
	}
	return out
}

// Clearance is the least gap under a leaf on its way: at which angle, and how
// far from the pin.
type Clearance struct {
	Gap   length.Length
	Angle float64
	Out   length.Length
}

// sure is how far below the true least gap Sweep may answer at most.
const sure = 0.05 * length.Millimetre

// smallest is the size of a cell that is not cut again: finer than any ground
// is measured.
const smallest = 0.01 * length.Millimetre

// Sweep finds the least gap under a leaf over its whole swing.
//
// The swing is cut into cells of angle and distance, and a cell is cut again
// while the ground in the box round it may still be nearer the leaf than the
// nearest found: branch and bound, which no bump between samples escapes.
func Sweep(l Leaf, g Ground) Clearance {
	best := Clearance{Gap: length.Length(math.Inf(1))}
	try := func(angle float64, out length.Length) {
		at, off := l.At(angle, out)
		if gap := l.Height(angle) - g.Height(at, off); gap < best.Gap {
			best = Clearance{gap, angle, out}
		}
	}
	for _, p := range breaks(l, g) {
		try(p.angle, p.out)
	}
	stack := []cell{{0, min(90, l.Open), 0, l.Reach()}}
	if l.Open > 90 {
		stack = append(stack, cell{90, l.Open, 0, l.Reach()})
	}
	for len(stack) > 0 {
		c := stack[len(stack)-1]
		stack = stack[:len(stack)-1]
		from, to, near, far := c.box(l)
		if c.far-c.near < smallest && c.far*length.Length((c.to-c.from)*math.Pi/180) < smallest {
			continue
		}
		if l.Height(c.from)-g.Highest(from, to, near, far) >= best.Gap-sure {
			continue
		}
		angle, out := (c.from+c.to)/2, (c.near+c.far)/2
		// The longer side is halved: across the leaf's way, or along it.
		if float64(c.far-c.near) > float64(c.far)*(c.to-c.from)*math.Pi/180 {
			try(c.from, out)
			try(c.to, out)
			stack = append(stack, cell{c.from, c.to, c.near, out}, cell{c.from, c.to, out, c.far})
			continue
		}
		try(angle, c.near)
		try(angle, c.far)
		stack = append(stack, cell{c.from, angle, c.near, c.far}, cell{angle, c.to, c.near, c.far})
	}
	return best
}

// spot is a place under a leaf's way.
type spot struct {
	angle float64
	out   length.Length
}

// breaks are the places in the swing at which the ground breaks: where the
// lines meet along which it bends, and where they leave the swing. The nearest
// place is often one of them, and to know it early saves cutting cells.
func breaks(l Leaf, g Ground) []spot {
	reach := l.Reach()
	all := []spot{{0, reach}, {l.Open, reach}, {min(90, l.Open), reach}}
	stations := []length.Length{g.From, g.To, (g.From + g.To) / 2}
	g.Line.Each(l.Pin-reach, l.Pin+reach, func(at, _ length.Length) { stations = append(stations, at) })
	offs := []length.Length{0}
	for _, s := range g.Side {
		offs = append(offs, s.Off)
	}
	put := func(along, off length.Length) {
		angle := math.Atan2(float64(off), float64(along)) * 180 / math.Pi
		if out := length.Length(math.Hypot(float64(along), float64(off))); angle <= l.Open && out <= reach {
			all = append(all, spot{angle, out})
		}
	}
	for _, at := range stations {
		along := at - l.Pin
		if !l.Ahead {
			along = -along
		}
		for _, off := range offs {
			put(along, off)
		}
		if left := reach*reach - along*along; left > 0 {
			put(along, length.Length(math.Sqrt(float64(left)))*(1-1e-12))
		}
	}
	for _, off := range offs {
		if left := reach*reach - off*off; left > 0 {
			along := length.Length(math.Sqrt(float64(left))) * (1 - 1e-12)
			put(along, off)
			put(-along, off)
		}
	}
	return all
}

// cell is a part of the swing: between two angles and two distances.
type cell struct {
	from, to  float64
	near, far length.Length
}

// box are the stations and distances off the line that it lies between. No cell
// lies on both sides of square open, where the distance turns.
func (c cell) box(l Leaf) (from, to, near, far length.Length) {
	a, b := c.from*math.Pi/180, c.to*math.Pi/180
	low, high := math.Cos(b), math.Cos(a) // falling up to a straight angle
	left, right := min(c.near*length.Length(low), c.far*length.Length(low)), max(c.near*length.Length(high), c.far*length.Length(high))
	if !l.Ahead {
		left, right = -right, -left
	}
	sinA, sinB := math.Sin(a), math.Sin(b)
	return l.Pin + left, l.Pin + right, c.near * length.Length(max(0, min(sinA, sinB))), c.far * length.Length(max(sinA, sinB))
}

// Touch is the first angle at which the gap under a leaf is less than what is
// asked; ok is false where it never is. It looks each half degree.
func Touch(l Leaf, g Ground, least length.Length) (angle float64, ok bool) {
	short := func(angle float64) bool { return Under(l, g, angle).Gap < least-length.Tolerance }
	for a := 0.0; a <= l.Open; a += 0.5 {
		if !short(a) {
			continue
		}
		low, high := max(0, a-0.5), a
		for range 12 {
			if mid := (low + high) / 2; short(mid) {
				high = mid
			} else {
				low = mid
			}
		}
		return high, true
	}
	return 0, false
}

// along is how finely the ground along a leaf is looked at, beside its breaks.
const along = 48

// Under is the least gap under a leaf held at an angle.
func Under(l Leaf, g Ground, angle float64) Clearance {
	best := Clearance{Gap: length.Length(math.Inf(1)), Angle: angle}
	bottom, leaf := l.Height(angle), l.ray(angle)
	try := func(out length.Length) {
		at, off := leaf.at(out)
		if gap := bottom - g.Height(at, off); gap < best.Gap {
			best.Gap, best.Out = gap, out
		}
	}
	for k := range along + 1 {
		try(l.Reach() * length.Length(k) / along)
	}
	sin, cos := math.Sincos(angle * math.Pi / 180)
	if sin > 1e-9 {
		for _, s := range g.Side {
			if out := s.Off / length.Length(sin); out < l.Reach() {
				try(out)
			}
		}
	}
	if math.Abs(cos) > 1e-9 {
		tip, _ := l.At(angle, l.Reach())
		g.Line.Each(min(l.Pin, tip), max(l.Pin, tip), func(at, _ length.Length) {
			if out := (at - l.Pin).Abs() / length.Length(math.Abs(cos)); out < l.Reach() {
				try(out)
			}
		})
	}
	return best
}

// grid is how finely earth and lifts are counted over a swing.
const (
	gridAngles = 120
	gridOuts   = 60
)

// over visits the middles of a grid over the swing, with the area of ground
// that each stands for.
func over(l Leaf, visit func(angle float64, at, off length.Length, area float64)) {
	turn, step := l.Open/gridAngles, l.Reach()/gridOuts
	for i := range gridAngles {
		angle := (float64(i) + 0.5) * turn
		leaf := l.ray(angle)
		for k := range gridOuts {
			out := (length.Length(k) + 0.5) * step
			at, off := leaf.at(out)
			visit(angle, at, off, out.Metres()*step.Metres()*turn*math.Pi/180)
		}
	}
}

// Earth is the ground that stands higher than so much under a leaf's way.
func Earth(l Leaf, g Ground, least length.Length) length.Volume {
	var v float64
	over(l, func(angle float64, at, off length.Length, area float64) {
		if high := g.Height(at, off) - (l.Height(angle) - least); high > 0 {
			v += high.Metres() * area
		}
	})
	return length.Volume(v)
}

// Rising finds by how much rising hinges must lift a leaf, until it is square
// open, so that it clears the ground by least; ok is false where that is more
// than most.
func Rising(l Leaf, g Ground, least, most length.Length) (lift length.Length, ok bool) {
	l.Lift = 0
	over(l, func(angle float64, at, off length.Length, _ float64) {
		if short := g.Height(at, off) + least - l.Bottom; short > 0 {
			lift = max(lift, short*length.Length(90/angle))
		}
	})
	// The grid may just miss the worst place: go on until the sweep agrees.
	for lift <= most {
		l.Lift = lift
		c := Sweep(l, g)
		if c.Gap >= least-2*sure {
			return lift, true
		}
		if c.Angle < 1e-6 {
			return 0, false // it stands on it while it is closed
		}
		lift += max(sure, (least-c.Gap)*length.Length(90/c.Angle))
	}
	return 0, false
}
