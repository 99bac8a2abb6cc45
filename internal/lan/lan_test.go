package lan

import (
	"crypto/tls"
	"crypto/x509"
	"errors"
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

// Ciphers that are broken, or older than TLS 1.2, are not spoken; what browsers speak is.
func TestOnlySoundCiphersAreSpoken(t *testing.T) {
	made, err := authority(t, t.TempDir(), now).Certificate([]net.IP{net.IPv4(127, 0, 0, 1)}, now)
	if err != nil {
		t.Fatal(err)
	}
	config := TLS(func(*tls.ClientHelloInfo) (*tls.Certificate, error) { return &made, nil })
	for _, test := range []struct {
		name   string
		client *tls.Config
		isTold bool
	}{
		{"TLS 1.1", &tls.Config{MinVersion: tls.VersionTLS10, MaxVersion: tls.VersionTLS11}, false},
		{"TLS 1.2 with CBC", &tls.Config{MaxVersion: tls.VersionTLS12, CipherSuites: []uint16{tls.TLS_ECDHE_ECDSA_WITH_AES_128_CBC_SHA, tls.TLS_ECDHE_ECDSA_WITH_AES_128_CBC_SHA256, tls.TLS_ECDHE_ECDSA_WITH_AES_256_CBC_SHA}}, false},
		{"TLS 1.2 with RC4", &tls.Config{MaxVersion: tls.VersionTLS12, CipherSuites: []uint16{tls.TLS_ECDHE_ECDSA_WITH_RC4_128_SHA}}, false},
		{"TLS 1.2 with GCM", &tls.Config{MaxVersion: tls.VersionTLS12, NextProtos: []string{"h2"}}, true},
		{"TLS 1.3", &tls.Config{MinVersion: tls.VersionTLS13, NextProtos: []string{"h2"}}, true},
	} {
		here, there := net.Pipe()
		test.client.InsecureSkipVerify = true // what is spoken is looked at, not to whom
		client, server := tls.Client(here, test.client), tls.Server(there, config)
		go func() {
			_ = server.Handshake()
			_ = there.Close()
		}()
		err := client.Handshake()
		if (err == nil) != test.isTold {
			t.Errorf("%s: %v", test.name, err)
		}
		if err == nil && client.ConnectionState().NegotiatedProtocol != "h2" {
			t.Errorf("%s does not speak HTTP/2", test.name)
		}
		_ = here.Close()
	}
}

func TestPassphrasesOfOnesOwn(t *testing.T) {
	for text, isTaken := range map[string]bool{
		"olive-grove": true, "  olive-grove ": true, "öliväßgrövé": true, "olive": false, "   olive    ": false, "éééééééé": false,
		"Password123": false, " qwertyuiop": false, "aaaaaaaaaaaaaaaa": false, "": false,
	} {
		if err := CheckPassphrase(text); (err == nil) != isTaken {
			t.Errorf("%q: %v", text, err)
		}
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

// Nobody but the people around gets through: one address, or all private ones, and no other.
func TestListeningIsForThePeopleAround(t *testing.T) {
	for _, open := range []string{"203.0.113.7:0", "example.test:0", "8322"} {
		if all, err := Listen(open); err == nil {
			t.Errorf("%s is listened on: %v", open, all)
		}
	}
	for _, address := range []string{"127.0.0.1:0", ":0", "0.0.0.0:0"} {
		all, err := Listen(address)
		if err != nil && !errors.Is(err, ErrNoNetwork) {
			t.Errorf("%s: %v", address, err)
		}
		for _, l := range all {
			if ip := l.Addr().(*net.TCPAddr).IP; !ip.IsPrivate() && !ip.IsLoopback() {
				t.Errorf("%s is listened on at %v", address, ip)
			}
			if err := l.Close(); err != nil {
				t.Error(err)
			}
		}
	}
	for address, want := range map[string]bool{"127.0.0.1:8321": true, "localhost:0": true, "[::1]:80": true, ":8321": false, "0.0.0.0:8321": false, "192.168.1.2:80": false, "here:80": false} {
		if IsOwn(address) != want {
			t.Errorf("%s is this machine's own: %v", address, !want)
		}
	}
}

// A certificate is made anew while the server runs, a month before the last one ends.
func TestCertificatesRenewWhileRunning(t *testing.T) {
	at := now
	get := authority(t, t.TempDir(), now).Renewing([]net.IP{net.IPv4(192, 168, 1, 20).To4()}, func() time.Time { return at })
	serial := func() string {
		t.Helper()
		c, err := get(nil)
		if err != nil {
			t.Fatal(err)
		}
		leaf, err := x509.ParseCertificate(c.Certificate[0])
		if err != nil || !at.Before(leaf.NotAfter.Add(-20*24*time.Hour)) {
			t.Fatalf("at %v it ends at %v, %v", at, leaf.NotAfter, err)
		}
		return leaf.SerialNumber.String()
	}
	first := serial()
	at = now.AddDate(0, 0, 50)
	if serial() != first {
		t.Error("it is made anew for every connection")
	}
	at = now.AddDate(0, 0, 70)
	if serial() == first {
		t.Error("it is used to its end")
	}
}

func TestAnAuthorityThatOthersCanReadIsRefused(t *testing.T) {
	folder := t.TempDir()
	first := authority(t, folder, now)
	if len(first.Fingerprint()) != 79 || first.Fingerprint() != authority(t, folder, now).Fingerprint() {
		t.Errorf("it is known by %q", first.Fingerprint())
	}
	if usage := first.certificate.ExtKeyUsage; len(usage) != 1 || usage[0] != x509.ExtKeyUsageServerAuth || len(first.certificate.PermittedEmailAddresses) != 1 || len(first.certificate.PermittedURIDomains) != 1 {
		t.Errorf("it may vouch for more than servers: %v", usage)
	}
	if err := os.Chmod(filepath.Join(folder, "lan-authority.pem"), 0o620); err != nil {
		t.Fatal(err)
	}
	if _, err := OpenAuthority(folder, now); err == nil {
		t.Error("a key that others can write is used")
	}
}
