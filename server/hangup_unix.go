//go:build unix

package server

import (
	"net"
	"syscall"
)

// peeker looks whether the other end has closed its connection, without taking
// anything that it sent. Nil where that cannot be known.
func peeker(conn net.Conn) func() bool {
	c, ok := conn.(syscall.Conn)
	if !ok {
		return nil
	}
	raw, err := c.SyscallConn()
	if err != nil {
		return nil
	}
	return func() (gone bool) {
		var one [1]byte
		err := raw.Control(func(fd uintptr) {
			n, _, err := syscall.Recvfrom(int(fd), one[:], syscall.MSG_PEEK|syscall.MSG_DONTWAIT)
			gone = n == 0 && err == nil || err == syscall.ECONNRESET
		})
		return gone || err != nil
	}
}
