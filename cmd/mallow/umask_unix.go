//go:build unix

package main

import "syscall"

// ownersAlone has new files of this process be for its user alone, those of
// libraries too.
func ownersAlone() { syscall.Umask(0o077) }
