package lan

import (
	"net"
	"testing"
	"time"
)

// So many connections of one address are let in, and another when one of them ends.
func TestConnectionsAreCapped(t *testing.T) {
	plain, err := net.Listen("tcp", "127.0.0.1:0")
	if err != nil {
		t.Fatal(err)
	}
	l := Limit(plain, 2, 10)
	t.Cleanup(func() { _ = l.Close() })
	accepted := make(chan net.Conn, 10)
	go func() {
		for {
			c, err := l.Accept()
			if err != nil {
				return
			}
			accepted <- c
		}
	}()
	dial := func() net.Conn {
		t.Helper()
		c, err := net.Dial("tcp", plain.Addr().String())
		if err != nil {
			t.Fatal(err)
		}
		t.Cleanup(func() { _ = c.Close() })
		return c
	}
	isClosed := func(c net.Conn) bool {
		_ = c.SetReadDeadline(time.Now().Add(5 * time.Second))
		_, err := c.Read(make([]byte, 1))
		timeout, isTimeout := err.(net.Error)
		return err != nil && !(isTimeout && timeout.Timeout())
	}
	dial()
	dial()
	first := <-accepted
	<-accepted
	if !isClosed(dial()) {
		t.Error("a third is let in")
	}
	if err := first.Close(); err != nil {
		t.Fatal(err)
	}
	_ = first.Close() // a second closing gives no second place back
	dial()
	select {
	case <-accepted:
	case <-time.After(5 * time.Second):
		t.Error("the place of one that ended is not given to another")
	}
	if !isClosed(dial()) {
		t.Error("a place was given twice")
	}
}
