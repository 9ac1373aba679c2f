package standin

import (
	"fmt"
	"hash/fnv"
	"time"

	"github.com/rickar/cal/v2"

	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/materials"
)

// Office is a simulated locating office: it takes a request, waits some
// working days, and marks the public services that cross the line.
type Office struct {
	Wait     int // working days
	Services []materials.Service
}

// workdays counts Monday to Friday. Public holidays differ from place to
// place; a real office counts its own.
var workdays = cal.NewBusinessCalendar()

// Ask files a request on a day.
func (o Office) Ask(j job.Job, day time.Time) job.Ticket {
	h := fnv.New32a()
	_, _ = h.Write([]byte(j.Name + day.Format(time.DateOnly)))
	return job.Ticket{
		Number: fmt.Sprintf("%s-%05d", day.Format("060102"), h.Sum32()%100000),
		Asked:  day.Format(time.DateOnly), Clear: workdays.WorkdaysFrom(day, o.Wait).Format(time.DateOnly),
	}
}

// WaitError says that the marks are not down yet.
type WaitError struct {
	Clear string
	Days  int
}

func (e WaitError) Error() string {
	return fmt.Sprintf("The office has not been yet. The marks must be down by %s, %d working days from then.", e.Clear, e.Days)
}

// Visit marks the services on the lines once the wait is over. What was
// marked before stays.
func (o Office) Visit(j job.Job, t job.Ticket, day time.Time) ([]job.Line, int, error) {
	clear, err := time.Parse(time.DateOnly, t.Clear)
	if err != nil {
		return nil, 0, err
	}
	if day.Before(clear) {
		return nil, 0, WaitError{t.Clear, max(1, workdays.WorkdaysInRange(day, clear)-1)}
	}
	marked := 0
	lines := append([]job.Line(nil), j.Lines...)
	for l := range lines {
		lines[l].Runs = append([]job.Run(nil), lines[l].Runs...)
		for r := range lines[l].Runs {
			run := &lines[l].Runs[r]
			mark, ok := o.mark(j.Name, *run)
			if !ok || has(run.KeepOuts, mark) {
				continue
			}
			run.KeepOuts = append(append([]job.KeepOut(nil), run.KeepOuts...), mark)
			marked++
		}
	}
	return lines, marked, nil
}

// mark is the public service that crosses a run, if one does: every third run
// of the made-up world has none.
func (o Office) mark(site string, run job.Run) (job.KeepOut, bool) {
	var public []materials.Service
	for _, s := range o.Services {
		if s.Office {
			public = append(public, s)
		}
	}
	if run.Length == nil || len(public) == 0 {
		return job.KeepOut{}, false
	}
	h := fnv.New32a()
	_, _ = h.Write([]byte(site + "/" + run.ID))
	n := h.Sum32()
	if n%3 == 0 {
		return job.KeepOut{}, false
	}
	s := public[int(n/3)%len(public)]
	part := 0.15 + 0.7*float64(n%997)/997
	at := length.Length(int(*run.Length*length.Length(part)/length.Inch)) * length.Inch
	return job.KeepOut{ID: "M-" + run.ID, Kind: job.Service, Service: s.ID, At: at, Hand: s.Hand, Marked: true}, true
}

// has tells whether a mark stands on the run already: the office's own, or
// the same service within its tolerance.
func has(all []job.KeepOut, mark job.KeepOut) bool {
	for _, k := range all {
		if k.ID == mark.ID || k.Kind == job.Service && k.Service == mark.Service && (k.At-mark.At).Abs() <= mark.Hand {
			return true
		}
	}
	return false
}
