package job

// Days is how the work is laid out in days. What is left out is as usual.
type Days struct {
	Start     string     `json:"start,omitempty" jsonschema:"maxLength=10" jsonschema_description:"First day on which the crew can come, year-month-day. Left out: not set yet."`
	People    int        `json:"people,omitempty" jsonschema:"minimum=0,maximum=20" jsonschema_description:"Hands of the crew. Usual: 3."`
	From      string     `json:"from,omitempty" jsonschema:"maxLength=5" jsonschema_description:"When it leaves, by the site's clock. Usual: 07:00."`
	To        string     `json:"to,omitempty" jsonschema:"maxLength=5" jsonschema_description:"When it is back. Usual: 16:00."`
	Travel    *float64   `json:"travel,omitempty" jsonschema:"minimum=0,maximum=240" jsonschema_description:"Minutes to the site, and as long back. Usual: 30."`
	Rest      []string   `json:"rest,omitempty" jsonschema:"maxItems=200" jsonschema_description:"Days on which nobody works, year-month-day, beside Sundays."`
	Crew      string     `json:"crew,omitempty" jsonschema:"maxLength=80" jsonschema_description:"Whose days these are: jobs of one crew are held against each other on the board."`
	Taken     []string   `json:"taken,omitempty" jsonschema:"maxItems=200" jsonschema_description:"Days on which the crew is on another job, year-month-day."`
	Saturdays bool       `json:"saturdays,omitempty" jsonschema_description:"Saturdays are working days."`
	ByHand    bool       `json:"byHand,omitempty" jsonschema_description:"Holes are dug by hand; left out: by machine, where it may and can."`
	Inspected bool       `json:"inspected,omitempty" jsonschema_description:"An inspector sees the holes before anything is poured."`
	Moves     []TaskMove `json:"moves,omitempty" jsonschema:"maxItems=60" jsonschema_description:"Tasks that begin on a day that was chosen; the rest follows."`
	Rates     []TaskRate `json:"rates,omitempty" jsonschema:"maxItems=60" jsonschema_description:"The crew's own rates, where they are not the usual ones."`
}

// TaskMove is a task that begins on a day that was chosen.
type TaskMove struct {
	Task string `json:"task" jsonschema:"required,minLength=1,maxLength=40"`
	Date string `json:"date" jsonschema:"required,minLength=10,maxLength=10"`
}

// TaskRate is how long one person takes for one of what a task counts.
type TaskRate struct {
	Task    string  `json:"task" jsonschema:"required,minLength=1,maxLength=40"`
	Minutes float64 `json:"minutes" jsonschema:"required,minimum=0.01,maximum=6000"`
}
