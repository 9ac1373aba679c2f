//go:build !unix

package main

// ownersAlone: there is no such mask here.
func ownersAlone() {}
