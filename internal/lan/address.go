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

// ErrPublic is returned for an address that others than those around could reach.
var ErrPublic = errors.New("only private addresses and this machine's own are served: name one of those, or a port alone for all of them")

// Listen listens for the people around: at the address named, or where only a port is, at
// each private address of this machine and at no other.
func Listen(address string) (all []net.Listener, err error) {
	host, port, err := net.SplitHostPort(address)
	if err != nil {
		return nil, fmt.Errorf("listen on %s: %w", address, err)
	}
	ips := []net.IP{net.ParseIP(host)}
	switch {
	case host == "" || ips[0] != nil && ips[0].IsUnspecified():
		if ips, err = Addresses(); err != nil {
			return nil, err
		}
	case ips[0] == nil || !ips[0].IsPrivate() && !ips[0].IsLoopback():
		return nil, fmt.Errorf("listen on %s: %w", address, ErrPublic)
	}
	for _, ip := range ips {
		l, err := net.Listen("tcp", net.JoinHostPort(ip.String(), port))
		if err != nil {
			for _, opened := range all {
				err = errors.Join(err, opened.Close())
			}
			return nil, fmt.Errorf("listen on %s: %w", net.JoinHostPort(ip.String(), port), err)
		}
		_, port, err = net.SplitHostPort(l.Addr().String()) // of port 0, one for all
		if err != nil {
			return nil, errors.Join(err, l.Close())
		}
		all = append(all, l)
	}
	return all, nil
}

// IsOwn reports whether an address to listen on is this machine's for itself alone.
func IsOwn(address string) bool {
	host, _, err := net.SplitHostPort(address)
	ip := net.ParseIP(host)
	return err == nil && (host == "localhost" || ip != nil && ip.IsLoopback())
}
