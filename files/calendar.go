package files

import (
	"fmt"
	"strings"
	"time"

	ics "github.com/arran4/golang-ical"

	"mallow/core/length"
	"mallow/core/stage/days"
	"mallow/core/stage/record"
)

// Calendar is a job's days on site, and those on which to come back, as an iCalendar file (RFC 5545): one entry for each
// day, by the clock of wherever it is read, with its tasks, load and checks. The same
// job and day have the same name, so that a calendar takes a moved day for what it is.
func Calendar(job, id string, s *days.Schedule, later []record.Reminder, u length.Units, now time.Time) []byte {
	return CrewCalendar(job, []CalendarJob{{job, id, s, later, u}}, now)
}

// CalendarJob is one job in a calendar.
type CalendarJob struct {
	Name, ID string
	Schedule *days.Schedule
	Later    []record.Reminder // when to come back
	Units    length.Units
}

// CrewCalendar is the days of several jobs in one calendar.
func CrewCalendar(name string, jobs []CalendarJob, now time.Time) []byte {
	cal := ics.NewCalendarFor("Mallow")
	cal.SetMethod(ics.MethodPublish)
	cal.SetName(oneLine(name))
	for _, j := range jobs {
		j.put(cal, now)
	}
	return []byte(cal.Serialize(ics.WithNewLine("\r\n")))
}

func (j CalendarJob) put(cal *ics.Calendar, now time.Time) {
	for _, l := range j.Later {
		day, err := time.Parse(time.DateOnly, l.Date)
		if err != nil {
			continue
		}
		e := cal.AddEvent(fmt.Sprintf("%s-later-%s@mallow", j.ID, l.ID))
		e.SetDtStampTime(now)
		e.SetAllDayStartAt(day)
		e.SetAllDayEndAt(day.AddDate(0, 0, 1))
		e.SetSummary(oneLine(j.Name + ": " + l.Says.Print(j.Units)))
	}
	if j.Schedule == nil {
		return
	}
	for n, d := range j.Schedule.Days {
		e := cal.AddEvent(fmt.Sprintf("%s-day-%d@mallow", j.ID, n+1))
		e.SetDtStampTime(now)
		e.SetProperty(ics.ComponentPropertyDtStart, stamp(d.Date, d.From))
		e.SetProperty(ics.ComponentPropertyDtEnd, stamp(d.Date, d.To))
		var names, says []string
		for _, p := range d.Parts {
			if len(names) == 0 || names[len(names)-1] != p.Name {
				names = append(names, p.Name)
			}
			says = append(says, fmt.Sprintf("%s to %s: %s", p.From, p.To, p.Name))
		}
		e.SetSummary(oneLine(j.Name + ": " + strings.Join(names, ", ")))
		for _, who := range d.Who {
			says = append(says, "Comes: "+who)
		}
		for _, l := range d.Load {
			says = append(says, fmt.Sprintf("Load: %s, %s", l.What, l.Many.Print(j.Units)))
		}
		for _, c := range d.Checks {
			says = append(says, "Before leaving: "+c)
		}
		for i := range says {
			says[i] = oneLine(says[i])
		}
		e.SetDescription(strings.Join(says, "\n"))
	}
}

// oneLine is a text without what ends a line: a bare CR ends one for some readers of
// calendars, and what follows would be an entry of its own.
func oneLine(s string) string {
	return strings.Map(func(r rune) rune {
		if r < ' ' || r == 0x7f {
			return ' '
		}
		return r
	}, s)
}

// stamp is a time without a zone: the clock on site.
func stamp(date, clock string) string {
	return strings.ReplaceAll(date, "-", "") + "T" + strings.ReplaceAll(clock, ":", "") + "00"
}
