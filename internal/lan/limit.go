package lan

import (
	"net"
	"sync"
)

// Caps of connections: a browser opens six to a host; one device cannot take what others
// need, and all together cannot take the files that the desk needs to be answered.
const (
	PerAddress = 16
	InAll      = 96
)

// Limit returns a listener that closes connections beyond so many of one address and in all.
func Limit(l net.Listener, perAddress, inAll int) net.Listener {
	return &limited{Listener: l, perAddress: perAddress, inAll: inAll, of: map[string]int{}}
}

type limited struct {
	net.Listener
	perAddress, inAll int

	mu  sync.Mutex
	of  map[string]int
	all int
}

// Accept returns the next connection that is within the caps.
func (l *limited) Accept() (net.Conn, error) {
	for {
		c, err := l.Listener.Accept()
		if err != nil {
			return nil, err
		}
		if from := hostOf(c); l.take(from) {
			return &counted{Conn: c, leave: sync.OnceFunc(func() { l.leave(from) })}, nil
		}
		_ = c.Close() // it is one too many, and is told nothing
	}
}

func hostOf(c net.Conn) string {
	host, _, err := net.SplitHostPort(c.RemoteAddr().String())
	if err != nil {
		return c.RemoteAddr().String()
	}
	return host
}

func (l *limited) take(from string) bool {
	l.mu.Lock()
	defer l.mu.Unlock()
	if l.all == l.inAll || l.of[from] == l.perAddress {
		return false
	}
	l.all++
	l.of[from]++
	return true
}

func (l *limited) leave(from string) {
	l.mu.Lock()
	defer l.mu.Unlock()
	l.all--
	if l.of[from]--; l.of[from] == 0 {
		delete(l.of, from)
	}
}

// counted is a connection that gives its place back when it is closed.
type counted struct {
	net.Conn
	leave func()
}

func (c *counted) Close() error {
	defer c.leave()
	return c.Conn.Close()
}
