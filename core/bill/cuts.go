package bill

import (
	"cmp"
	"math"
	"slices"

	"mallow/core/cutting"
	"mallow/core/job"
	"mallow/core/length"
)

// Want is pieces of one length that are cut from lengths as they are sold.
type Want struct {
	Part  string        `json:"part" jsonschema:"required" jsonschema_description:"What they are."`
	Run   string        `json:"run" jsonschema:"required"`
	From  string        `json:"from,omitempty" jsonschema_description:"Bay that they begin in; left out for parts of gates."`
	To    string        `json:"to,omitempty" jsonschema_description:"Bay that they end in, where that is another."`
	Gate  string        `json:"gate,omitempty"`
	Row   int           `json:"row,omitempty" jsonschema_description:"From the ground up, 1 first."`
	Long  length.Length `json:"long" jsonschema:"required"`
	Give  length.Length `json:"-"` // by how much they may be cut short
	Wide  length.Length `json:"wide,omitempty" jsonschema_description:"What they are ripped to."`
	Count int           `json:"count" jsonschema:"required"`
}

// Cuts is what is wanted of one section and material, and what it is cut from.
type Cuts struct {
	Width  length.Length   `json:"width" jsonschema:"required"`
	Thick  length.Length   `json:"thick" jsonschema:"required"`
	Stock  []length.Length `json:"stock" jsonschema:"required" jsonschema_description:"Lengths that it is sold in."`
	Joined bool            `json:"joined,omitempty" jsonschema_description:"Lengths are joined end to end, as rolls are."`
	Lap    length.Length   `json:"-"`
	Wants  []Want          `json:"wants" jsonschema:"required"`

	Bars   []Bar         `json:"bars" jsonschema:"required" jsonschema_description:"Bars with the same cuts once."`
	Bought length.Length `json:"bought" jsonschema:"required" jsonschema_description:"Of all bars together, offcuts not among them."`
	Used   length.Length `json:"used" jsonschema:"required" jsonschema_description:"Of all pieces together."`
	Kept   length.Length `json:"kept" jsonschema:"required" jsonschema_description:"Of offcuts that are worth keeping."`
	Waste  float64       `json:"waste" jsonschema:"required" jsonschema_description:"Share of what is cut up that is neither built in nor worth keeping: ends and kerf."`
	Bound  length.Length `json:"bound" jsonschema:"required" jsonschema_description:"No way to cut buys less than this in all."`
	Proved bool          `json:"proved" jsonschema:"required" jsonschema_description:"No way to cut buys less than this one."`
	Short  []Want        `json:"short,omitempty" jsonschema_description:"Pieces that no length that is sold gives."`
	Snug   length.Length `json:"snug,omitempty" jsonschema_description:"By how much pieces are cut short, since more come from a length so."`
}

// Bar is lengths that are cut alike.
type Bar struct {
	Length length.Length `json:"length" jsonschema:"required"`
	Count  int           `json:"count" jsonschema:"required"`
	Offcut bool          `json:"offcut,omitempty" jsonschema_description:"At hand from another job."`
	Cuts   []Cut         `json:"cuts" jsonschema:"required" jsonschema_description:"In the order of cutting, the longest first."`
	Left   length.Length `json:"left" jsonschema:"required" jsonschema_description:"Of each."`
	Keep   bool          `json:"keep,omitempty" jsonschema_description:"What is left is worth keeping."`
}

// Cut is pieces of one length from each of some bars.
type Cut struct {
	Long  length.Length `json:"long" jsonschema:"required"`
	Each  int           `json:"each" jsonschema:"required" jsonschema_description:"From one bar."`
	Wide  length.Length `json:"wide,omitempty" jsonschema_description:"What they are ripped to, where they all are."`
	Where string        `json:"where" jsonschema:"required" jsonschema_description:"The same in words: part, run, bays, rows."`
	Goes  []Want        `json:"goes" jsonschema:"required" jsonschema_description:"Where those of all the bars go."`
}

// wanted is what is wanted, without how it is cut.
func (c *Cuts) wanted() *Cuts {
	if c == nil {
		return nil
	}
	return &Cuts{Width: c.Width, Thick: c.Thick, Stock: c.Stock, Joined: c.Joined, Lap: c.Lap, Wants: slices.Clone(c.Wants)}
}

func (c *Cuts) add(o *Cuts) {
	if c != nil && o != nil {
		c.Wants = append(c.Wants, o.Wants...)
	}
}

// Sawn is how a job's lengths are cut.
type Sawn struct {
	Kerf, Trim, Keep, Mark length.Length
	Offcuts                []job.Offcut
}

// Solve finds what is bought and what is cut from it. Pieces that have room at
// their joints are cut a kerf short where more of them come from a length so.
func (c *Cuts) Solve(s Sawn) {
	kinds := c.kinds(s)
	stocks := []cutting.Stock{}
	for _, l := range c.Stock {
		stocks = append(stocks, cutting.Stock{Length: l, Cost: int64(math.Round(float64(l * 100)))})
	}
	bought := len(stocks)
	for _, o := range s.Offcuts {
		if near(max(o.Width, o.Thick), max(c.Width, c.Thick)) && near(min(o.Width, o.Thick), min(c.Width, c.Thick)) {
			stocks = append(stocks, cutting.Stock{Length: o.Length, Have: o.Count})
		}
	}
	saw := cutting.Saw{Kerf: s.Kerf, Trim: s.Trim, Mark: s.Mark}
	solve := func(short bool) cutting.Plan {
		pieces := make([]cutting.Piece, len(kinds))
		for i, k := range kinds {
			pieces[i] = cutting.Piece{Length: k.long, Count: k.count}
			if short {
				pieces[i].Length -= min(k.give, s.Kerf)
			}
		}
		return cutting.Solve(stocks, pieces, saw)
	}
	plan := solve(false)
	if slices.ContainsFunc(kinds, func(k kind) bool { return k.give > 0 }) && s.Kerf > 0 {
		if snug := solve(true); len(snug.TooLong) == len(plan.TooLong) && snug.Cost < plan.Cost {
			plan, c.Snug = snug, s.Kerf
		}
	}
	c.take(plan, kinds, stocks, bought, s)
}

func near(a, b length.Length) bool { return (a - b).Abs() < length.Millimetre/2 }

// kind is what is wanted of one length.
type kind struct {
	long, give, wide length.Length
	count            int // of lengths: rips of one are one
	rips             int // pieces that come side by side from one length
	wants            []Want
}

// kinds are the lengths that are wanted, the longest first. Pieces that are
// ripped come side by side from one length as far as its width goes.
func (c *Cuts) kinds(s Sawn) []kind {
	var out []kind
	for _, w := range c.Wants {
		k := slices.IndexFunc(out, func(k kind) bool { return same(k.long, w.Long, s.Mark) && k.give == w.Give && near(k.wide, w.Wide) })
		if k < 0 {
			k = len(out)
			out = append(out, kind{long: w.Long, give: w.Give, wide: w.Wide, rips: 1})
			if w.Wide > 0 {
				out[k].rips = max(1, int(float64((c.Width+s.Kerf)/(w.Wide+s.Kerf))+1e-9))
			}
		}
		out[k].long = max(out[k].long, w.Long)
		out[k].count += w.Count
		out[k].wants = append(out[k].wants, w)
	}
	for i := range out {
		out[i].count = (out[i].count + out[i].rips - 1) / out[i].rips
	}
	slices.SortStableFunc(out, func(a, b kind) int { return cmp.Or(cmp.Compare(b.long, a.long), cmp.Compare(b.wide, a.wide)) })
	return out
}

func same(a, b, mark length.Length) bool { return (a - b).Abs() < max(mark, length.Millimetre)/8 }

// take puts a plan into words of pieces and bays.
func (c *Cuts) take(plan cutting.Plan, kinds []kind, stocks []cutting.Stock, bought int, s Sawn) {
	c.Bars, c.Bought, c.Used, c.Kept, c.Short = []Bar{}, 0, 0, 0, nil
	c.Proved, c.Bound = plan.Proved, length.Length(plan.Bound/100)
	cut := length.Length(0)
	for _, b := range plan.Bars {
		stock := stocks[b.Stock]
		bar := Bar{Length: stock.Length, Count: b.Count, Offcut: b.Stock >= bought}
		if !bar.Offcut {
			c.Bought += stock.Length * length.Length(b.Count)
		}
		cut += stock.Length * length.Length(b.Count)
		short := c.snug(b, kinds, stock.Length-s.Trim, s.Kerf)
		if bar.Left = stock.Length - s.Trim; c.Snug == 0 {
			bar.Left = b.Left
		}
		for _, q := range b.Cuts {
			k := &kinds[q.Piece]
			long := k.long
			if short {
				long -= min(k.give, s.Kerf)
			}
			if c.Snug > 0 {
				bar.Left = max(0, bar.Left-(long+s.Kerf)*length.Length(q.Count))
			}
			bar.Cuts = append(bar.Cuts, Cut{Long: long, Each: q.Count, Wide: k.wide, Goes: k.next(q.Count * b.Count * k.rips)})
			for _, w := range bar.Cuts[len(bar.Cuts)-1].Goes {
				wide := length.Length(1)
				if w.Wide > 0 {
					wide = w.Wide / c.Width
				}
				c.Used += long * wide * length.Length(w.Count)
			}
		}
		if bar.Keep = bar.Left >= s.Keep && bar.Left > 0; bar.Keep {
			c.Kept += bar.Left * length.Length(b.Count)
		}
		c.Bars = append(c.Bars, bar)
	}
	if cut > 0 {
		c.Waste = max(0, float64((cut-c.Used-c.Kept)/cut))
	}
	for _, i := range plan.TooLong {
		c.Short = append(c.Short, kinds[i].wants...)
	}
	for _, q := range plan.Short {
		c.Short = append(c.Short, kinds[q.Piece].next(q.Count)...)
	}
}

// snug tells whether the pieces of a bar have to be cut short to come from it.
func (c *Cuts) snug(b cutting.Bar, kinds []kind, room, kerf length.Length) bool {
	if c.Snug == 0 {
		return false
	}
	sum := -kerf
	for _, q := range b.Cuts {
		sum += (kinds[q.Piece].long + kerf) * length.Length(q.Count)
	}
	return sum > room+length.Tolerance
}

// next gives out so many of its pieces, in the order in which they were asked for.
func (k *kind) next(n int) []Want {
	var out []Want
	for n > 0 && len(k.wants) > 0 {
		w := k.wants[0]
		if w.Count > n {
			k.wants[0].Count -= n
			w.Count = n
		} else {
			k.wants = k.wants[1:]
		}
		n -= w.Count
		out = append(out, w)
	}
	return out
}

// Lengths is how many of each length are bought, the longest first.
func (c *Cuts) Lengths() []Bar {
	var out []Bar
	for _, b := range c.Bars {
		if b.Offcut {
			continue
		}
		k := slices.IndexFunc(out, func(o Bar) bool { return o.Length == b.Length })
		if k < 0 {
			out = append(out, Bar{Length: b.Length, Count: b.Count})
			continue
		}
		out[k].Count += b.Count
	}
	slices.SortFunc(out, func(a, b Bar) int { return cmp.Compare(b.Length, a.Length) })
	return out
}
