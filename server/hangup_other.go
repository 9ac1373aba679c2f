//go:build !unix

package server

import "net"

// peeker cannot look here: the budget alone ends what nobody waits for.
func peeker(net.Conn) func() bool { return nil }
