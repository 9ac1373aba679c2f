package document

import (
	"strconv"
	"time"

	"mallow/core/job"
	"mallow/core/words"
)

// checkPour refuses a pour day whose times are none, or in the wrong order, and a way of
// setting with two rates.
func checkPour(p job.Pour) Errors {
	e := checkClocks("/pour", p.From, p.To)
	if p.Date != "" {
		e = append(e, checkDate("/pour/date", p.Date)...)
	}
	e = append(e, checkClock("/pour/lunch", p.Lunch)...)
	seen := map[job.Method]bool{}
	for _, r := range p.Rates {
		if seen[r.Method] {
			e = append(e, FieldError{"/pour/rates", strconv.Quote(string(r.Method)), words.Plain("document.each-method-once")})
		}
		seen[r.Method] = true
	}
	return e
}

// checkClock refuses what is no time of day; it may be left out.
func checkClock(field, clock string) Errors {
	if _, err := time.Parse("15:04", clock); clock != "" && (err != nil || len(clock) != 5) {
		return Errors{{field, strconv.Quote(clock), words.Plain("document.a-clock-time")}}
	}
	return nil
}

// checkClocks refuses a beginning and an end that are none, or in the wrong order.
func checkClocks(at, from, to string) Errors {
	e := append(checkClock(at+"/from", from), checkClock(at+"/to", to)...)
	if len(e) == 0 && from != "" && to != "" && to <= from {
		e = append(e, FieldError{at + "/to", strconv.Quote(to), words.Plain("document.after-the-start", words.V{"from": from})})
	}
	return e
}

// checkWeather refuses weather at times that are none, and days that are typed twice.
func checkWeather(w job.Weather) Errors {
	var e Errors
	for i, h := range w.Hours {
		if _, err := time.Parse(time.RFC3339, h.At); err != nil { // one is enough to say what is wrong with a file
			e = append(e, FieldError{"/weather/hours/" + strconv.Itoa(i) + "/at", strconv.Quote(h.At), words.Plain("document.a-time-with-offset")})
			break
		}
	}
	days := map[string]bool{}
	for i, d := range w.Days {
		field := "/weather/days/" + strconv.Itoa(i) + "/date"
		e = append(e, checkDate(field, d.Date)...)
		if days[d.Date] {
			e = append(e, FieldError{field, strconv.Quote(d.Date), words.Plain("document.each-day-once")})
		}
		days[d.Date] = true
	}
	return e
}

// checkDays refuses days of the work that are none, and tasks that are moved twice.
func checkDays(d job.Days) Errors {
	e := checkClocks("/days", d.From, d.To)
	if d.Start != "" {
		e = append(e, checkDate("/days/start", d.Start)...)
	}
	for i, r := range d.Rest {
		e = append(e, checkDate("/days/rest/"+strconv.Itoa(i), r)...)
	}
	for i, r := range d.Taken {
		e = append(e, checkDate("/days/taken/"+strconv.Itoa(i), r)...)
	}
	seen := map[string]bool{}
	for i, m := range d.Moves {
		e = append(e, checkDate("/days/moves/"+strconv.Itoa(i)+"/date", m.Date)...)
		if seen[m.Task] {
			e = append(e, FieldError{"/days/moves", strconv.Quote(m.Task), words.Plain("document.each-task-once")})
		}
		seen[m.Task] = true
	}
	return e
}
