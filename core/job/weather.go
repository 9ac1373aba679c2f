package job

// Weather is what is known of the weather at the site: hours as a weather office or a
// file has them, or days as someone typed them in.
type Weather struct {
	Source  string        `json:"source,omitempty" jsonschema:"maxLength=200" jsonschema_description:"Where it is from: an office's station, a file, or empty for typed in."`
	Fetched string        `json:"fetched,omitempty" jsonschema:"maxLength=40" jsonschema_description:"When the office was asked, RFC 3339."`
	Hours   []WeatherHour `json:"hours,omitempty" jsonschema:"maxItems=2000" jsonschema_description:"In order of time."`
	Days    []WeatherDay  `json:"days,omitempty" jsonschema:"maxItems=90" jsonschema_description:"Typed in: they count where no hours are known."`
	Offset  *float64      `json:"offset,omitempty" jsonschema:"minimum=-14,maximum=14" jsonschema_description:"Typed days: how many hours the clock is ahead of UTC. Left out: as the hours say it, or 0."`
}

// WeatherHour is the weather at one hour.
type WeatherHour struct {
	At       string   `json:"at" jsonschema:"required,minLength=16,maxLength=40" jsonschema_description:"RFC 3339 with the site's own offset, so that a change of the clocks is in it: 2027-05-03T07:00:00-05:00."`
	Temp     float64  `json:"temp" jsonschema:"required,minimum=-60,maximum=60" jsonschema_description:"Degrees Celsius, in the shade."`
	Humidity *float64 `json:"humidity,omitempty" jsonschema:"minimum=0,maximum=1" jsonschema_description:"Relative, as a share. Left out: not known."`
	Wind     *float64 `json:"wind,omitempty" jsonschema:"minimum=0,maximum=80" jsonschema_description:"Metres per second. Left out: not known."`
	Sun      *float64 `json:"sun,omitempty" jsonschema:"minimum=0,maximum=1" jsonschema_description:"Share of full sun: 0 clouded or night. Left out: not known."`
	Rain     *float64 `json:"rain,omitempty" jsonschema:"minimum=0,maximum=300" jsonschema_description:"Millimetres in the hour after it. Left out: not known."`
}

// WeatherDay is the weather of one day, typed in.
type WeatherDay struct {
	Date     string   `json:"date" jsonschema:"required,minLength=10,maxLength=10" jsonschema_description:"Year-month-day."`
	Morning  float64  `json:"morning" jsonschema:"required,minimum=-60,maximum=60" jsonschema_description:"Degrees Celsius at 7."`
	Noon     float64  `json:"noon" jsonschema:"required,minimum=-60,maximum=60" jsonschema_description:"At 14, when it is warmest."`
	Night    float64  `json:"night" jsonschema:"required,minimum=-60,maximum=60" jsonschema_description:"At 4 in the night after it, when it is coldest."`
	Humidity *float64 `json:"humidity,omitempty" jsonschema:"minimum=0,maximum=1"`
	Wind     *float64 `json:"wind,omitempty" jsonschema:"minimum=0,maximum=80"`
	Sun      *float64 `json:"sun,omitempty" jsonschema:"minimum=0,maximum=1"`
	Rain     *float64 `json:"rain,omitempty" jsonschema:"minimum=0,maximum=500" jsonschema_description:"Millimetres in the whole day."`
}
