package space

import (
	"mallow/core/job"
	"mallow/core/stage"
	"mallow/core/words"
)

// obstacleNames are what things in the way are called that have no name.
var obstacleNames = map[job.Obstacle]string{
	job.Service: words.Plain("space.service"), job.Root: words.Plain("space.root"), job.Rock: words.Plain("space.rock"), job.Drain: words.Plain("space.drain"), job.Footing: words.Plain("space.old-footing"), job.OldPost: words.Plain("space.existing-post"), job.NoDig: words.Plain("space.no-digging"),
}

// serviceLine is a service that has no name, as it is spoken of.
func serviceLine(service string) string {
	return words.Plain("space.service-line", words.V{"service": stage.Lower(service)})
}
