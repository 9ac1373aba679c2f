//go:build unix

package main

import "golang.org/x/sys/unix"

// freeSpace is how much room is left on a folder's disk for its user.
func freeSpace(dir string) (uint64, bool) {
	var s unix.Statfs_t
	if unix.Statfs(dir, &s) != nil {
		return 0, false
	}
	return s.Bavail * uint64(s.Bsize), true
}
