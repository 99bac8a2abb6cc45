package lan

import (
	"crypto/x509"
	"net"
	"os"
	"path/filepath"
	"regexp"
	"testing"
	"time"
)

var now = time.Date(2031, 9, 19, 18, 0, 0, 0, time.UTC)

func authority(t *testing.T, folder string, at time.Time) *Authority {
	t.Helper()
	a, err := OpenAuthority(folder, at)
	if err != nil {
		t.Fatal(err)
	}
	return a
}

// verify says whether a telephone that trusts the authority takes a certificate for a
// host.
func verify(t *testing.T, a *Authority, addresses []net.IP, host string, at time.Time) error {
	t.Helper()
	made, err := a.Certificate(addresses, now)
	if err != nil {
		t.Fatal(err)
	}
	leaf, err := x509.ParseCertificate(made.Certificate[0])
	if err != nil {
		t.Fatal(err)
	}
	roots := x509.NewCertPool()
	roots.AppendCertsFromPEM(a.PEM())
	_, err = leaf.Verify(x509.VerifyOptions{Roots: roots, DNSName: host, CurrentTime: at})
	return err
}

func TestACertificateVouchesForPrivateAddressesAlone(t *testing.T) {
	a := authority(t, t.TempDir(), now)
	home, public := net.IPv4(192, 168, 1, 20).To4(), net.IPv4(203, 0, 113, 7).To4()
	if err := verify(t, a, []net.IP{home}, home.String(), now); err != nil {
		t.Errorf("at home: %v", err)
	}
	if verify(t, a, []net.IP{home}, "192.168.1.21", now) == nil {
		t.Error("a certificate serves another address")
	}
	if verify(t, a, []net.IP{public}, public.String(), now) == nil {
		t.Error("the authority vouches for a public address")
	}
	if verify(t, a, []net.IP{home}, home.String(), now.AddDate(1, 0, 0)) == nil {
		t.Error("a certificate has no end")
	}
}

func TestTheAuthorityIsKeptForItsUserAlone(t *testing.T) {
	folder := t.TempDir()
	first := authority(t, folder, now)
	if again := authority(t, folder, now.AddDate(1, 0, 0)); string(again.PEM()) != string(first.PEM()) {
		t.Error("a year later there is another authority: every telephone would have to trust it anew")
	}
	if later := authority(t, folder, now.AddDate(11, 0, 0)); string(later.PEM()) == string(first.PEM()) {
		t.Error("an authority that has expired is used on")
	}
	info, err := os.Stat(filepath.Join(folder, "lan-authority.pem"))
	if err != nil || info.Mode().Perm() != 0o600 {
		t.Errorf("its key is readable as %v, %v", info.Mode(), err)
	}
}

func TestPassphrases(t *testing.T) {
	made := map[string]bool{}
	for range 50 {
		p, err := NewPassphrase()
		if err != nil || !regexp.MustCompile(`^[a-z2-7]{4}-[a-z2-7]{4}-[a-z2-7]{4}$`).MatchString(p) || made[p] {
			t.Fatalf("%q, %v", p, err)
		}
		made[p] = true
	}
	hash, err := Hash("olive-grove-at-noon")
	if err != nil {
		t.Fatal(err)
	}
	for given, want := range map[string]bool{"olive-grove-at-noon": true, " Olive-Grove-At-Noon ": true, "olive-grove-at-nooN!": false, "": false} {
		if got, err := Matches(given, hash); err != nil || got != want {
			t.Errorf("%q matches: %v, %v", given, got, err)
		}
	}
}

func TestListeningIsWhereAPhoneGetsThrough(t *testing.T) {
	at, err := Listening(&net.TCPAddr{IP: net.IPv4(127, 0, 0, 1), Port: 1})
	if err != nil || len(at) != 1 || at[0].String() != "127.0.0.1" {
		t.Errorf("one address: %v, %v", at, err)
	}
	all, err := Listening(&net.TCPAddr{IP: net.IPv4zero, Port: 1})
	for _, ip := range all {
		if !ip.IsPrivate() {
			t.Errorf("a public address is given out: %v", ip)
		}
	}
	if len(all) == 0 && err == nil {
		t.Error("no address, and no error")
	}
}
