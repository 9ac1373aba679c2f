package plan_test

import (
	"math/rand/v2"
	"testing"
)

// sized is how often a slow property is tried: in full, or the fewer times of
// the everyday run (go test -short).
func sized(full, short int) int {
	if testing.Short() {
		return short
	}
	return full
}

func newRand(a, b uint64) *rand.Rand { return rand.New(rand.NewPCG(a, b)) }
