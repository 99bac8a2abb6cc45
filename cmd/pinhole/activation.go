package main

import (
	"fmt"
	"net"

	"github.com/coreos/go-systemd/v22/activation"

	"pinhole/internal/lan"
)

// listen opens the address, or takes the one socket that a service manager has opened: it has to
// be one of this machine for itself, too.
func listen(address string) (net.Listener, error) {
	given, err := activation.Listeners()
	if err != nil {
		return nil, fmt.Errorf("take the socket of the service manager: %w", err)
	}
	if len(given) == 0 {
		opened, err := net.Listen("tcp", address)
		if err != nil {
			return nil, fmt.Errorf("listen on %s (--listen names another address): %w", address, err)
		}
		return opened, nil
	}
	if len(given) > 1 || given[0] == nil {
		return nil, badUse{fmt.Errorf("the service manager gives %d sockets: one stream is taken", len(given))}
	}
	if own := given[0].Addr().String(); !lan.IsOwn(own) {
		return nil, badUse{fmt.Errorf("the service manager's socket %s is open to others, without a passphrase: use one of this machine for itself, such as 127.0.0.1:8321", own)}
	}
	return given[0], nil
}
