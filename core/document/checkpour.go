package document

import (
	"strconv"
	"time"

	"mallow/core/job"
	"mallow/core/words"
)

// checkPour refuses a pour day whose times are none, or in the wrong order, and weather
// at times that are none.
func checkPour(j job.Job) Errors {
	var e Errors
	p := j.Pour
	refuse := func(field, given, id string, v ...words.V) {
		e = append(e, FieldError{field, strconv.Quote(given), words.Plain(id, v...)})
	}
	if p.Date != "" {
		if _, err := time.Parse(time.DateOnly, p.Date); err != nil {
			refuse("/pour/date", p.Date, "document.a-date-year-month-day")
		}
	}
	clocks := map[string]string{"from": p.From, "to": p.To, "lunch": p.Lunch}
	right := true
	for _, field := range []string{"from", "to", "lunch"} {
		if clocks[field] == "" {
			continue
		}
		if _, err := time.Parse("15:04", clocks[field]); err != nil || len(clocks[field]) != 5 {
			refuse("/pour/"+field, clocks[field], "document.a-clock-time")
			right = false
		}
	}
	if right && p.From != "" && p.To != "" && p.To <= p.From {
		refuse("/pour/to", p.To, "document.after-the-start", words.V{"from": p.From})
	}
	seen := map[job.Method]bool{}
	for _, r := range p.Rates {
		if seen[r.Method] {
			refuse("/pour/rates", string(r.Method), "document.each-method-once")
		}
		seen[r.Method] = true
	}
	for i, h := range j.Weather.Hours {
		if _, err := time.Parse(time.RFC3339, h.At); err != nil {
			refuse("/weather/hours/"+strconv.Itoa(i)+"/at", h.At, "document.a-time-with-offset")
			break
		}
	}
	days := map[string]bool{}
	for i, d := range j.Weather.Days {
		field := "/weather/days/" + strconv.Itoa(i) + "/date"
		if _, err := time.Parse(time.DateOnly, d.Date); err != nil {
			refuse(field, d.Date, "document.a-date-year-month-day")
		} else if days[d.Date] {
			refuse(field, d.Date, "document.each-day-once")
		}
		days[d.Date] = true
	}
	return append(e, checkDays(j.Days)...)
}

// checkDays refuses days of the work that are none, and tasks that are moved twice.
func checkDays(d job.Days) Errors {
	var e Errors
	date := func(field, given string) {
		if _, err := time.Parse(time.DateOnly, given); err != nil && given != "" {
			e = append(e, FieldError{field, strconv.Quote(given), words.Plain("document.a-date-year-month-day")})
		}
	}
	date("/days/start", d.Start)
	for i, r := range d.Rest {
		date("/days/rest/"+strconv.Itoa(i), r)
	}
	seen := map[string]bool{}
	for i, m := range d.Moves {
		date("/days/moves/"+strconv.Itoa(i)+"/date", m.Date)
		if seen[m.Task] {
			e = append(e, FieldError{"/days/moves", strconv.Quote(m.Task), words.Plain("document.each-task-once")})
		}
		seen[m.Task] = true
	}
	for field, clock := range map[string]string{"from": d.From, "to": d.To} {
		if clock == "" {
			continue
		}
		if _, err := time.Parse("15:04", clock); err != nil || len(clock) != 5 {
			e = append(e, FieldError{"/days/" + field, strconv.Quote(clock), words.Plain("document.a-clock-time")})
		}
	}
	if len(e) == 0 && d.From != "" && d.To != "" && d.To <= d.From {
		e = append(e, FieldError{"/days/to", strconv.Quote(d.To), words.Plain("document.after-the-start", words.V{"from": d.From})})
	}
	return e
}
