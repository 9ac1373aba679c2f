package bill_test

import (
	"testing"

	"mallow/core/bill"
	"mallow/core/job"
	"mallow/core/length"
)

const ft = length.Foot

func lumber(wants ...bill.Want) *bill.Cuts {
	return &bill.Cuts{Width: 88.9, Thick: 38.1, Stock: []length.Length{8 * ft, 12 * ft}, Wants: wants}
}

var saw = bill.Sawn{Kerf: length.Inch / 8, Keep: 2 * ft, Mark: length.Inch / 16}

// Common practice: two six-foot rails from a twelve beat two eights. They share the
// kerf, since rails have that much room at a post; where they have not, two eights
// it is.
func TestTwoSixFootRailsFromATwelve(t *testing.T) {
	c := lumber(bill.Want{Part: "Rail", Long: 6 * ft, Give: length.Inch / 8, Count: 2})
	c.Solve(saw)
	if got := c.Lengths(); len(got) != 1 || got[0].Length != 12*ft || got[0].Count != 1 || c.Snug == 0 {
		t.Errorf("bought %+v, cut %v short", got, c.Snug)
	}
	c = lumber(bill.Want{Part: "Stile", Long: 6 * ft, Count: 2})
	c.Solve(saw)
	if got := c.Lengths(); len(got) != 1 || got[0].Length != 8*ft || got[0].Count != 2 || c.Snug != 0 {
		t.Errorf("without room: bought %+v, cut %v short", got, c.Snug)
	}
}

// An offcut of the same section is used before anything is bought; one of another
// section is not, whichever way round its sides are written.
func TestOffcutsGoFirst(t *testing.T) {
	s := saw
	s.Offcuts = []job.Offcut{{ID: "O1", Width: 38.1, Thick: 88.9, Length: 74 * length.Inch, Count: 1}, {ID: "O2", Width: 139.7, Thick: 38.1, Length: 8 * ft, Count: 5}}
	c := lumber(bill.Want{Part: "Rail", Run: "R1", From: "B1", Long: 6 * ft, Count: 2})
	c.Solve(s)
	used := 0
	for _, b := range c.Bars {
		if b.Offcut {
			used += b.Count
		}
	}
	if got := c.Lengths(); used != 1 || len(got) != 1 || got[0].Count != 1 || got[0].Length != 8*ft || c.Bought != 8*ft {
		t.Errorf("%d offcuts used, bought %+v: %v", used, got, c.Bought)
	}
}

// Boards of 5 1/2 in ripped to 2 1/2 come two from one, by the width: five take three
// boards of their length. What is left of 2 ft is worth keeping; of less it is waste.
func TestRippedBoards(t *testing.T) {
	c := &bill.Cuts{Width: 139.7, Thick: 19.05, Stock: []length.Length{6 * ft}, Wants: []bill.Want{{Part: "Board", Long: 6 * ft, Wide: 63.5, Count: 5}}}
	c.Solve(saw)
	if c.Bought != 18*ft || len(c.Bars) != 1 || c.Bars[0].Count != 3 || c.Bars[0].Cuts[0].Goes[0].Count != 5 {
		t.Errorf("%+v", c.Bars)
	}
	c = lumber(bill.Want{Part: "Rail", Long: 6*ft - saw.Kerf, Count: 1})
	c.Solve(saw)
	if c.Kept != 2*ft || c.Waste > 0.01 {
		t.Errorf("kept %v, waste %g: by hand 2 ft, and a kerf", c.Kept, c.Waste)
	}
}

// A piece that no length gives is told, and the rest is cut.
func TestTooLongIsTold(t *testing.T) {
	c := lumber(bill.Want{Part: "Rail", Long: 13 * ft, Count: 2}, bill.Want{Part: "Rail", Long: 4 * ft, Count: 3})
	c.Solve(saw)
	if len(c.Short) != 1 || c.Short[0].Count != 2 || c.Bought == 0 {
		t.Errorf("short %+v, bought %v", c.Short, c.Bought)
	}
}
