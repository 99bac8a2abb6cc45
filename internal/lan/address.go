package lan

import (
	"errors"
	"fmt"
	"net"
)

// ErrNoNetwork is returned where this machine has no address that a telephone beside
// it could reach.
var ErrNoNetwork = errors.New("this machine has no address on a local network")

// Addresses returns this machine's private IPv4 addresses. Public ones are left out:
// what is served is for the people around, not for the world.
func Addresses() ([]net.IP, error) {
	all, err := net.InterfaceAddrs()
	if err != nil {
		return nil, fmt.Errorf("read this machine's addresses: %w", err)
	}
	var private []net.IP
	for _, a := range all {
		if n, ok := a.(*net.IPNet); ok && n.IP.To4() != nil && n.IP.IsPrivate() {
			private = append(private, n.IP.To4())
		}
	}
	if len(private) == 0 {
		return nil, ErrNoNetwork
	}
	return private, nil
}

// Listening returns the addresses at which a listener is reached: its own, or where
// it listens on all, this machine's private ones.
func Listening(at net.Addr) ([]net.IP, error) {
	if tcp, ok := at.(*net.TCPAddr); ok && !tcp.IP.IsUnspecified() {
		return []net.IP{tcp.IP}, nil
	}
	return Addresses()
}
