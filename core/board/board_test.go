package board_test

import (
	"errors"
	"fmt"
	"math/rand/v2"
	"slices"
	"testing"
	"time"

	"mallow/core/board"
	"mallow/core/stage/days"
)

// worked is a job of so many days, worked on one after another from its start on, but
// for days that are taken.
func worked(id, crew, start string, n int, taken ...string) board.Job {
	return board.Job{ID: id, Name: "Job " + id, Crew: crew, Start: start, Taken: taken, Plan: func(off []string) (*days.Schedule, error) {
		s := &days.Schedule{Start: start}
		at, _ := time.Parse(time.DateOnly, start)
		for ; len(s.Days) < n; at = at.AddDate(0, 0, 1) {
			date := at.Format(time.DateOnly)
			if !slices.Contains(off, date) {
				s.Days = append(s.Days, days.OnDay{Date: date, Parts: []days.AgendaPart{{Name: "Dig"}, {Name: "Dig"}}})
				s.Finish = date
			}
		}
		return s, nil
	}}
}

func lay(t *testing.T, jobs ...board.Job) []board.CrewDays {
	t.Helper()
	out, err := board.Lay(jobs, func(int) {})
	if err != nil {
		t.Fatal(err)
	}
	return out
}

// By hand: A is worked on from 3 to 5 May, B would be from 4 to 6: it clashes on the 4th
// and 5th, and kept clear ends on the 8th. C is another crew's.
func TestOneCrewInTwoPlaces(t *testing.T) {
	crews := lay(t, worked("B", "Reed", "2027-05-04", 3), worked("A", "Reed", "2027-05-03", 3), worked("C", "Sedge", "2027-05-04", 2))
	if len(crews) != 2 || crews[0].Name != "Reed" || len(crews[0].Jobs) != 2 || len(crews[1].Jobs[0].Clash) != 0 {
		t.Fatalf("%+v", crews)
	}
	a, b := crews[0].Jobs[0], crews[0].Jobs[1]
	if a.ID != "A" || a.Clear != nil || len(a.Clash) != 0 || len(a.Days[0].Tasks) != 1 {
		t.Errorf("the first gives way: %+v", a)
	}
	if !slices.Equal(b.Clash, []board.BoardHit{{Date: "2027-05-04", Other: "Job A"}, {Date: "2027-05-05", Other: "Job A"}}) {
		t.Errorf("clashes %+v", b.Clash)
	}
	if b.Clear == nil || b.Clear.Finish != "2027-05-08" || !slices.Equal(b.Clear.Taken, []string{"2027-05-04", "2027-05-05"}) {
		t.Errorf("%+v", b.Clear)
	}
}

// A job that keeps clear of days that are free by now is told that it could end sooner;
// one that keeps clear as it should is left alone.
func TestDaysThatAreFreeAgain(t *testing.T) {
	one := lay(t, worked("A", "", "2027-05-03", 2, "2027-05-03"))[0].Jobs[0]
	if one.Clear == nil || one.Clear.Finish != "2027-05-04" || len(one.Clear.Taken) != 0 {
		t.Errorf("%+v", one.Clear)
	}
	two := lay(t, worked("A", "", "2027-05-03", 2), worked("B", "", "2027-05-03", 2, "2027-05-03", "2027-05-04"))[0].Jobs[1]
	if two.Clear != nil || len(two.Clash) != 0 || two.Finish != "2027-05-06" {
		t.Errorf("%+v", two)
	}
}

// 2,000 random boards: once every job keeps clear as told, no crew is in two places, and
// the board has nothing more to say.
func TestTakenBoardsHaveNoClash(t *testing.T) {
	rng := rand.New(rand.NewPCG(22, 6))
	for n := range 2000 {
		var jobs []board.Job
		for k := range 2 + rng.IntN(5) {
			var taken []string
			for range rng.IntN(3) {
				taken = append(taken, fmt.Sprintf("2027-05-%02d", 1+rng.IntN(20)))
			}
			jobs = append(jobs, worked(fmt.Sprint(k), []string{"", "Reed"}[rng.IntN(2)], fmt.Sprintf("2027-05-%02d", 1+rng.IntN(12)), 1+rng.IntN(5), taken...))
		}
		for _, c := range lay(t, jobs...) {
			for _, o := range c.Jobs {
				if o.Clear == nil {
					continue
				}
				k := slices.IndexFunc(jobs, func(j board.Job) bool { return j.ID == o.ID })
				jobs[k].Taken = o.Clear.Taken
			}
		}
		for _, c := range lay(t, jobs...) {
			at := map[string]string{}
			for _, o := range c.Jobs {
				if len(o.Clash) > 0 || o.Clear != nil {
					t.Fatalf("board %d: %s still clashes: %+v", n, o.ID, o)
				}
				for _, d := range o.Days {
					if at[d.Date] != "" {
						t.Fatalf("board %d: on %s and %s on %s", n, at[d.Date], o.ID, d.Date)
					}
					at[d.Date] = o.ID
				}
			}
		}
	}
}

// A job that cannot be planned stops the board with its reason.
func TestBoardSaysWhatStopsIt(t *testing.T) {
	j := worked("A", "", "2027-05-03", 1)
	stop := errors.New("no")
	j.Plan = func([]string) (*days.Schedule, error) { return nil, stop }
	if _, err := board.Lay([]board.Job{j}, func(int) {}); !errors.Is(err, stop) {
		t.Errorf("%v", err)
	}
}
