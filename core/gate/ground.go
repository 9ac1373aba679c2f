// Package gate finds what a gate's leaves need: how they clear the ground and
// whatever stands in their way over their whole swing, what they pull with,
// and how they are hung and adjusted.
package gate

import (
	"slices"

	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/survey"
)

// Ground is the ground that a leaf swings over, on one side of the line. A
// place on it has a station on the run and a distance off the line.
type Ground struct {
	Line     survey.Profile    // heights on the line
	From, To length.Length     // stations of the two posts' faces
	Crown    length.Length     // of a drive between them, highest in the middle
	Side     []job.GroundLevel // heights over the line's, in order of distance
}

// Height is the height of the ground at a place. Beyond what was measured it
// goes on as it rises, and stays level where it falls: what is not known errs
// on the high side.
func (g Ground) Height(at, off length.Length) length.Length {
	return g.Line.Height(at) + g.crown(at) + g.beside(at, off)
}

// crown is an arch between the posts' faces, parabolic as roads are laid.
func (g Ground) crown(at length.Length) length.Length {
	if g.Crown == 0 || at <= g.From || at >= g.To {
		return 0
	}
	part := 2*(at-g.From)/(g.To-g.From) - 1
	return g.Crown * (1 - part*part)
}

// beside is the height over the line's ground, off the line.
func (g Ground) beside(at, off length.Length) length.Length {
	if len(g.Side) == 0 || off <= 0 {
		return 0
	}
	part := min(1, max(0, (at-g.From)/(g.To-g.From)))
	height := func(l job.GroundLevel) length.Length {
		first, second := l.Ends()
		return first + (second-first)*part
	}
	var before, low length.Length // distance and height of the level before
	for _, l := range g.Side {
		high := height(l)
		if off <= l.Off {
			return low + (high-low)*(off-before)/(l.Off-before)
		}
		before, low = l.Off, high
	}
	// Past the last one, as it rose from the one before.
	start, startHigh := length.Length(0), length.Length(0)
	if n := len(g.Side); n > 1 {
		start, startHigh = g.Side[n-2].Off, height(g.Side[n-2])
	}
	return low + max(0, low-startHigh)*(off-before)/(before-start)
}

// Highest is no lower than the ground anywhere between two stations and two
// distances, and is exact for each of its parts: line, crown and side.
func (g Ground) Highest(from, to, near, far length.Length) length.Length {
	_, line := g.Line.Span(from, to)
	middle := (g.From + g.To) / 2
	crown := g.crown(min(to, max(from, middle)))
	beside := g.beside(from, far)
	// Between two levels the ground is ruled straight both ways, so that its
	// highest place is one of the corners.
	offs := []length.Length{near, far}
	for _, l := range g.Side {
		if l.Off > near && l.Off < far {
			offs = append(offs, l.Off)
		}
	}
	for _, at := range [...]length.Length{from, to, min(to, max(from, g.From)), min(to, max(from, g.To))} {
		for _, off := range offs {
			beside = max(beside, g.beside(at, off))
		}
	}
	return line + crown + beside
}

// Across is the highest ground across the opening, from face to face of its
// posts: that is all that a closed leaf hangs over.
func Across(line survey.Profile, run job.Run, g job.Gate) length.Length {
	first, second := run.GatePosts(g)
	half := run.PostOf(job.GatePost).Width / 2
	ground := Ground{Line: line, From: first + half, To: second - half, Crown: g.Crown}
	if g.Crown == 0 {
		_, top := line.Span(ground.From, ground.To)
		return top
	}
	// Straight ground under an arch: highest at a break of the ground, or
	// where the arch falls as fast as the ground rises.
	best := ground.Height(ground.From, 0)
	before, high := ground.From, line.Height(ground.From)
	line.Each(ground.From, ground.To, func(at, height length.Length) {
		best = max(best, height+ground.crown(at))
		if at > before {
			slope := (height - high) / (at - before)
			span := ground.To - ground.From
			peak := (ground.From+ground.To)/2 + slope*span*span/(8*g.Crown)
			if peak > before && peak < at {
				best = max(best, ground.Height(peak, 0))
			}
		}
		before, high = at, height
	})
	return best
}

// OnSide is the ground on one side of a gate.
func OnSide(line survey.Profile, run job.Run, g job.Gate, side job.Swing) Ground {
	first, second := run.GatePosts(g)
	half := run.PostOf(job.GatePost).Width / 2
	out := Ground{Line: line, From: first + half, To: second - half, Crown: g.Crown, Side: g.In}
	if side == job.SwingOut {
		out.Side = g.Out
	}
	out.Side = slices.Clip(out.Side)
	return out
}
