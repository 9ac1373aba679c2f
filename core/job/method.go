package job

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
		Method: Braced, Name: "braced, then filled", Done: "braced and filled",
		Costs:  "Braced, then filled with mixed concrete: sure and strong; two braces and a day or two for each post. Bare timber in concrete rots sooner, some say never.",
		Starts: "Stand the post, brace two neighbouring faces, check both for plumb.",
		Waits:  "a day above 60 °F (15 °C), two below",
	},
	{
		Method: FastDry, Name: "fast-setting, poured dry", Done: "with fast-setting mix poured dry",
		Costs:  "Fast-setting mix poured dry and watered: minutes, no mixing; dearer, and only as good as the water reaches.",
		Starts: "Stand the post plumb. Water first or after, as the bag says; pour the mix dry and prod it.",
		Waits:  "the hours that its bag says, four at least",
	},
	{
		Method: DryPacked, Name: "dry-packed", Done: "dry-packed",
		Costs:  "Mix tamped dry in layers: usable at once, can be bumped up or down; slow, and dumped loose it is weak.",
		Starts: "Stand the post plumb. The mix goes in dry, in layers of a hand's width, each tamped hard all round.",
		Waits:  "a day: the mix is still drawing water",
	},
	{
		Method: Stabbed, Name: "stabbed into wet concrete", Done: "stabbed into wet concrete",
		Costs:  "Holes filled from a truck, posts pushed in: many in an hour, no bracing; the mix waits for nobody.",
		Starts: "Fill the hole first, then push the post down into it and set it plumb before the mix stiffens.",
		Waits:  "two days",
	},
	{
		Method: RockPacked, Name: "packed in stone", Done: "packed in rock or gravel",
		Costs:  "Stone wedged and tamped in graded layers: no waiting, drains, can be dug out again; settles and is topped up.",
		Starts: "Stand the post plumb and wedge its foot.",
		Waits:  "not at all: but it settles, and is tamped again after the first rain",
	},
	{
		Method: Drive, Name: "driven", Done: "driven",
		Starts: "Wet the soil round the head, then pour.",
		Waits:  "not at all",
	},
	{
		Method: Slurry, Name: "rocks first, slurry over", Done: "with rocks first and slurry",
		Costs:  "Rocks first, runny mix over them, then the normal mix: saves mix in deep holes; rocks to find and carry.",
		Starts: "Stand the post plumb and brace it.",
		Waits:  "two days",
	},
	{
		Method: Layered, Name: "layered round a sleeve", Done: "layered round a sleeve",
		Costs:  "Mix low to lock the foot, gravel to drain, the rest on top: light screens beside paving.",
		Starts: "Stand the sleeved post plumb.",
		Waits:  "two days",
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
