package reshape_test

import "testing"

// sized is how often a slow property is tried: in full, or the fewer times of
// the everyday run (go test -short).
func sized(full, short int) int {
	if testing.Short() {
		return short
	}
	return full
}
