// Package pourday plans the day on which concrete is poured: in which loads it comes
// and when, how long each can be worked in the day's weather, post by post what is done,
// and when what is poured may be loaded.
package pourday

import (
	"mallow/core/finding"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/materials"
	"mallow/core/reason"
)

// Day is the pour of a job. Times are RFC 3339, in the site's own clock.
type Day struct {
	Date     string     `json:"date,omitempty" jsonschema_description:"Left out: not set yet."`
	From     string     `json:"from,omitempty"`
	To       string     `json:"to,omitempty"`
	Lunch    string     `json:"lunch,omitempty"`
	LunchEnd string     `json:"lunchEnd,omitempty"`
	Sunrise  string     `json:"sunrise,omitempty" jsonschema_description:"Left out where the place on earth is not known."`
	Sunset   string     `json:"sunset,omitempty"`
	By       job.PourBy `json:"by" jsonschema:"required,enum=truck,enum=bags,enum=site"`
	Clock    DayClock   `json:"clock" jsonschema:"required" jsonschema_description:"As entered, or as usual."`
	Protect  float64    `json:"protect" jsonschema:"required" jsonschema_description:"Degrees Celsius under which concrete is protected."`
	People   int        `json:"people" jsonschema:"required"`

	Mixes   []DayMix          `json:"mixes" jsonschema:"required" jsonschema_description:"What is poured, by the mix."`
	Curve   []DayHour         `json:"curve" jsonschema:"required" jsonschema_description:"The day's weather and what it does to the mix, half hour by half hour; empty where the weather is not known."`
	Loads   []DayLoad         `json:"loads" jsonschema:"required" jsonschema_description:"Of the truck; empty where concrete is mixed on site."`
	Posts   []DayPost         `json:"posts" jsonschema:"required" jsonschema_description:"In the order in which they are set."`
	Curb    []DayCurb         `json:"curb" jsonschema:"required" jsonschema_description:"Mowing curb, bay by bay, each run's after its posts."`
	Minutes float64           `json:"minutes" jsonschema:"required" jsonschema_description:"That the crew takes for all of it."`
	Left    []string          `json:"left" jsonschema:"required" jsonschema_description:"Posts, and bays of curb, that are not set in the days that were looked at."`
	Days    int               `json:"days" jsonschema:"required" jsonschema_description:"On which concrete is poured."`
	Rates   []DayRate         `json:"rates" jsonschema:"required" jsonschema_description:"How fast each kind of work goes that there is on the day."`
	PerHour float64           `json:"perHour" jsonschema:"required" jsonschema_description:"Posts that the crew sets in an hour."`
	Bears   int               `json:"bears" jsonschema:"required" jsonschema_description:"Posts that one load bears on this day before it stiffens, at its best; 0 where it is not known."`
	Order   DayOrder          `json:"order" jsonschema:"required"`
	Waits   []DayWait         `json:"waits" jsonschema:"required" jsonschema_description:"When everything that was poured may be loaded."`
	Known   bool              `json:"known" jsonschema:"required" jsonschema_description:"The weather of the pour is known."`
	Asks    []DayAsk          `json:"asks" jsonschema:"required" jsonschema_description:"What is still to be entered."`
	Finds   []finding.Finding `json:"findings" jsonschema:"required"`

	mixOf map[string]materials.PourMix
}

// DayAsk is something that is still to be entered.
type DayAsk struct {
	Field string      `json:"field" jsonschema:"required" jsonschema_description:"JSON pointer of what to enter."`
	Says  reason.Text `json:"says" jsonschema:"required"`
}

// DayClock is when the crew pours, by the site's clock, and how far the plant is.
type DayClock struct {
	From    string  `json:"from" jsonschema:"required"`
	To      string  `json:"to" jsonschema:"required"`
	Lunch   string  `json:"lunch" jsonschema:"required"`
	Transit float64 `json:"transit" jsonschema:"required" jsonschema_description:"Minutes."`
}

// DayRate is how fast one kind of work goes.
type DayRate struct {
	Method  job.Method `json:"method,omitempty" jsonschema_description:"Way in which posts are set; left out for the mowing curb."`
	Name    string     `json:"name" jsonschema:"required"`
	Minutes float64    `json:"minutes" jsonschema:"required" jsonschema_description:"Of one person for a post, or for a meter of curb."`
	Usual   float64    `json:"usual" jsonschema:"required"`
	Own     bool       `json:"own,omitempty" jsonschema_description:"It is the crew's own."`
}

// DayMix is one kind of concrete and what is poured of it.
type DayMix struct {
	ID     string        `json:"id" jsonschema:"required"`
	Name   string        `json:"name" jsonschema:"required"`
	Says   string        `json:"says" jsonschema:"required"`
	Posts  int           `json:"posts" jsonschema:"required"`
	Volume length.Volume `json:"volume" jsonschema:"required" jsonschema_description:"In the holes."`
	Buy    length.Volume `json:"buy" jsonschema:"required" jsonschema_description:"With waste."`
	Source reason.Source `json:"source" jsonschema:"required"`
}

// DayHour is the weather at one time, and what it does to fresh concrete.
type DayHour struct {
	At       string   `json:"at" jsonschema:"required"`
	Temp     float64  `json:"temp" jsonschema:"required" jsonschema_description:"Degrees Celsius."`
	Works    float64  `json:"works" jsonschema:"required" jsonschema_description:"Minutes that what comes then can be worked."`
	Dries    *float64 `json:"dries,omitempty" jsonschema_description:"Evaporation, kilograms to the square metre and hour; left out where humidity or wind is not known."`
	Cracks   bool     `json:"cracks,omitempty" jsonschema_description:"It dries so fast that it cracks."`
	Wind     *float64 `json:"wind,omitempty" jsonschema_description:"Metres per second."`
	Humidity *float64 `json:"humidity,omitempty"`
	Rain     *float64 `json:"rain,omitempty" jsonschema_description:"Millimetres in the hour."`
	Light    bool     `json:"light" jsonschema:"required" jsonschema_description:"Between sunrise and sunset; true where the place is not known."`
}

// DayLoad is one load of the truck.
type DayLoad struct {
	Comes  string        `json:"comes" jsonschema:"required"`
	Done   string        `json:"done" jsonschema:"required" jsonschema_description:"When its last post is in."`
	Worked string        `json:"worked" jsonschema:"required" jsonschema_description:"Until when it could be worked."`
	Volume length.Volume `json:"volume" jsonschema:"required" jsonschema_description:"With waste."`
	Order  length.Volume `json:"order" jsonschema:"required" jsonschema_description:"Rounded up to what is ordered."`
	Short  bool          `json:"short,omitempty" jsonschema_description:"So little that a charge for a short load is usual."`
	Posts  []string      `json:"posts" jsonschema:"required"`
	Curb   []string      `json:"curb" jsonschema:"required" jsonschema_description:"Bays of mowing curb."`
	Temp   *float64      `json:"temp,omitempty" jsonschema_description:"Degrees Celsius when it comes."`
}

// DayPost is one post on the day.
type DayPost struct {
	Run    string        `json:"run" jsonschema:"required"`
	Post   string        `json:"post" jsonschema:"required"`
	Kind   job.PostKind  `json:"kind" jsonschema:"required"`
	Method job.Method    `json:"method" jsonschema:"required"`
	Mix    string        `json:"mix" jsonschema:"required"`
	Load   int           `json:"load" jsonschema:"required" jsonschema_description:"From 1; 0 where it is mixed on site."`
	At     string        `json:"at,omitempty" jsonschema_description:"When it is set; left out where it is not."`
	Done   string        `json:"done,omitempty"`
	Volume length.Volume `json:"volume" jsonschema:"required" jsonschema_description:"With waste."`
	Bags   float64       `json:"bags,omitempty" jsonschema_description:"Of its mix, as a decimal."`
	Water  length.Volume `json:"water,omitempty" jsonschema_description:"To mix, or to pour into the hole."`
	Fill   length.Length `json:"fill,omitempty" jsonschema_description:"Stabbed: how high the concrete stands over the hole's bottom before the post is pushed in."`
	Rises  length.Length `json:"rises,omitempty" jsonschema_description:"Stabbed: how much it rises when the post is in."`
	Back   string        `json:"back,omitempty" jsonschema_description:"Stabbed: when to come back for its height and plumb, before it stiffens."`
	Finish string        `json:"finish,omitempty" jsonschema_description:"When a finger no longer sinks in, about: trowel, or cover with soil."`
	Ready  []DayReady    `json:"ready" jsonschema:"required" jsonschema_description:"When it may be loaded, one for each wait."`

	IsCurb bool `json:"-"` // a bay of curb among the rows of a table

	speed float64
}

// DayCurb is the mowing curb of one bay on the day.
type DayCurb struct {
	Run    string        `json:"run" jsonschema:"required"`
	Bay    string        `json:"bay" jsonschema:"required"`
	Load   int           `json:"load" jsonschema:"required" jsonschema_description:"From 1; 0 where it is mixed on site."`
	At     string        `json:"at,omitempty" jsonschema_description:"When it is placed and screeded; left out where it is not."`
	Done   string        `json:"done,omitempty"`
	Length length.Length `json:"length" jsonschema:"required"`
	Volume length.Volume `json:"volume" jsonschema:"required" jsonschema_description:"With waste."`
	Bags   float64       `json:"bags,omitempty" jsonschema_description:"As a decimal."`
	Water  length.Volume `json:"water,omitempty" jsonschema_description:"To mix."`
	Finish string        `json:"finish,omitempty" jsonschema_description:"When a finger no longer sinks in, about: trowel, edge, cut the joints, broom."`
}

// DayReady is when a post may be loaded.
type DayReady struct {
	ID string `json:"id" jsonschema:"required"`
	At string `json:"at,omitempty" jsonschema_description:"Left out: beyond what is known of the weather."`
}

// DayWait is when all posts may be loaded.
type DayWait struct {
	ID    string     `json:"id" jsonschema:"required"`
	Name  string     `json:"name" jsonschema:"required"`
	Share float64    `json:"share" jsonschema:"required" jsonschema_description:"Of the strength of 28 days."`
	At    string     `json:"at,omitempty" jsonschema_description:"By the weather; left out where it is not known for so long."`
	Hours float64    `json:"hours,omitempty" jsonschema_description:"After the last post."`
	Usual [2]float64 `json:"usual" jsonschema:"required" jsonschema_description:"Hours that crews commonly wait in such weather, from and to."`
	Cool  bool       `json:"cool" jsonschema:"required" jsonschema_description:"The usual hours are those below 15 °C (60 °F)."`
}

// DayOrder is what is told to the plant or the merchant.
type DayOrder struct {
	Volume  length.Volume `json:"volume" jsonschema:"required" jsonschema_description:"Of all loads, as ordered."`
	Least   length.Length `json:"slumpLeast,omitempty"`
	Most    length.Length `json:"slumpMost,omitempty"`
	Stone   length.Length `json:"stone,omitempty" jsonschema_description:"Largest stone that goes between post and hole."`
	Bags    []BagOrder    `json:"bags" jsonschema:"required"`
	Cement  int           `json:"cement,omitempty" jsonschema_description:"Site mix: bags of cement."`
	Sand    length.Volume `json:"sand,omitempty"`
	Gravel  length.Volume `json:"gravel,omitempty"`
	PerHour float64       `json:"bagsPerHour,omitempty" jsonschema_description:"Bags that are mixed in an hour."`
}

// BagOrder is bags of one kind.
type BagOrder struct {
	Bag     string        `json:"bag" jsonschema:"required"`
	Count   int           `json:"count" jsonschema:"required"`
	Mass    length.Mass   `json:"mass" jsonschema:"required" jsonschema_description:"Of all of them."`
	Pallets int           `json:"pallets" jsonschema:"required"`
	Water   length.Volume `json:"water" jsonschema:"required" jsonschema_description:"To one bag."`
}
