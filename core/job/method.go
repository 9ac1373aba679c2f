package job

import "mallow/core/words"

// Method is a way to set a post.
type Method string

// Ways to set a post.
const (
	Braced     Method = "braced"
	FastDry    Method = "fast"
	DryPacked  Method = "dry packed"
	Stabbed    Method = "stabbed"
	RockPacked Method = "rock"
	Drive      Method = "driven"
	Slurry     Method = "slurry"
	Layered    Method = "layered"
)

// SettingMethod is all that is told of a way to set a post: one row for each,
// which the interface, the reasons and the order of work read.
type SettingMethod struct {
	Method Method
	Name   string // as a choice
	Done   string // as what was done: set ...
	Costs  string // what it gives and costs
	Starts string // what to do first at the hole
	Waits  string // how long a post is left before a leaf hangs on it: common practice
}

// SettingMethods are all ways to set a post.
var SettingMethods = []SettingMethod{
	{
		Method: Braced, Name: words.Plain("job.braced-name"), Done: words.Plain("job.braced-done"),
		Costs:  words.Plain("job.braced-costs"),
		Starts: words.Plain("job.braced-starts"),
		Waits:  words.Plain("job.braced-waits"),
	},
	{
		Method: FastDry, Name: words.Plain("job.fast-dry-name"), Done: words.Plain("job.fast-dry-done"),
		Costs:  words.Plain("job.fast-dry-costs"),
		Starts: words.Plain("job.fast-dry-starts"),
		Waits:  words.Plain("job.fast-dry-waits"),
	},
	{
		Method: DryPacked, Name: words.Plain("job.dry-packed-name"), Done: words.Plain("job.dry-packed-done"),
		Costs:  words.Plain("job.dry-packed-costs"),
		Starts: words.Plain("job.dry-packed-starts"),
		Waits:  words.Plain("job.dry-packed-waits"),
	},
	{
		Method: Stabbed, Name: words.Plain("job.stabbed-name"), Done: words.Plain("job.stabbed-done"),
		Costs:  words.Plain("job.stabbed-costs"),
		Starts: words.Plain("job.stabbed-starts"),
		Waits:  words.Plain("job.stabbed-waits"),
	},
	{
		Method: RockPacked, Name: words.Plain("job.rock-packed-name"), Done: words.Plain("job.rock-packed-done"),
		Costs:  words.Plain("job.rock-packed-costs"),
		Starts: words.Plain("job.rock-packed-starts"),
		Waits:  words.Plain("job.rock-packed-waits"),
	},
	{
		Method: Drive, Name: words.Plain("job.drive-name"), Done: words.Plain("job.drive-done"),
		Starts: words.Plain("job.drive-starts"),
		Waits:  words.Plain("job.drive-waits"),
	},
	{
		Method: Slurry, Name: words.Plain("job.slurry-name"), Done: words.Plain("job.slurry-done"),
		Costs:  words.Plain("job.slurry-costs"),
		Starts: words.Plain("job.slurry-starts"),
		Waits:  words.Plain("job.slurry-waits"),
	},
	{
		Method: Layered, Name: words.Plain("job.layered-name"), Done: words.Plain("job.layered-done"),
		Costs:  words.Plain("job.layered-costs"),
		Starts: words.Plain("job.layered-starts"),
		Waits:  words.Plain("job.layered-waits"),
	},
}

// Methods are all of them, by name.
var Methods = methodsWhere(func(SettingMethod) bool { return true })

// HoleMethods are those that set a post in a hole.
var HoleMethods = methodsWhere(func(s SettingMethod) bool { return s.Method != Drive })

func methodsWhere(ok func(SettingMethod) bool) []Method {
	var out []Method
	for _, s := range SettingMethods {
		if ok(s) {
			out = append(out, s.Method)
		}
	}
	return out
}

// Told is what is told of a method; nothing of one that is not known.
func (m Method) Told() SettingMethod {
	for _, s := range SettingMethods {
		if s.Method == m {
			return s
		}
	}
	return SettingMethod{Method: m}
}
