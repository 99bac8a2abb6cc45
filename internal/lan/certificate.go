package lan

import (
	"crypto/ecdsa"
	"crypto/elliptic"
	"crypto/rand"
	"crypto/sha256"
	"crypto/tls"
	"crypto/x509"
	"crypto/x509/pkix"
	"encoding/hex"
	"encoding/pem"
	"errors"
	"fmt"
	"io/fs"
	"math/big"
	"net"
	"os"
	"path/filepath"
	"strings"
	"sync"
	"time"
)

// Lives of certificates. Browsers take none for longer than 398 days.
const (
	authorityYears = 10
	leafDays       = 90
)

// Authority signs the certificates of this machine on its local network. It can sign
// for private addresses alone, so that a telephone that trusts it is not put at risk
// elsewhere by a lost key.
type Authority struct {
	certificate *x509.Certificate
	key         *ecdsa.PrivateKey
}

// PEM returns the authority's certificate as a telephone installs it.
func (a *Authority) PEM() []byte {
	return pem.EncodeToMemory(&pem.Block{Type: "CERTIFICATE", Bytes: a.certificate.Raw})
}

// OpenAuthority returns the authority kept in a folder, a new one where there is none
// or where it has expired. Its key is readable by this user alone.
func OpenAuthority(folder string, now time.Time) (*Authority, error) {
	path := filepath.Join(folder, "lan-authority.pem")
	if info, err := os.Stat(path); err == nil && info.Mode().Perm()&0o077 != 0 {
		return nil, fmt.Errorf("%s may be read or written by others (%v): whoever did could pass for this machine; take it away, and a new one is made", path, info.Mode().Perm())
	}
	kept, err := os.ReadFile(path)
	if err == nil {
		if a, err := parseAuthority(kept); err == nil && now.Before(a.certificate.NotAfter) {
			return a, nil
		}
	} else if !errors.Is(err, fs.ErrNotExist) {
		return nil, fmt.Errorf("read the certificate authority: %w", err)
	}
	a, err := newAuthority(now)
	if err != nil {
		return nil, fmt.Errorf("make a certificate authority: %w", err)
	}
	key, err := x509.MarshalECPrivateKey(a.key)
	if err != nil {
		return nil, fmt.Errorf("write the certificate authority: %w", err)
	}
	text := append(a.PEM(), pem.EncodeToMemory(&pem.Block{Type: "EC PRIVATE KEY", Bytes: key})...)
	if err := os.WriteFile(path, text, 0o600); err != nil {
		return nil, fmt.Errorf("keep the certificate authority: %w", err)
	}
	return a, nil
}

// Fingerprint returns the SHA-256 of the authority's certificate in groups of four hexadecimal
// digits, for a person to compare on two screens.
func (a *Authority) Fingerprint() string {
	sum := sha256.Sum256(a.certificate.Raw)
	text := strings.ToUpper(hex.EncodeToString(sum[:]))
	var groups []string
	for i := 0; i < len(text); i += 4 {
		groups = append(groups, text[i:i+4])
	}
	return strings.Join(groups, " ")
}

// renewBefore is how long before its end a certificate is made anew.
const renewBefore = 30 * 24 * time.Hour

// Renewing returns what gives a server its certificate for addresses of this machine, made
// anew before the last one ends.
func (a *Authority) Renewing(addresses []net.IP, now func() time.Time) func(*tls.ClientHelloInfo) (*tls.Certificate, error) {
	var mu sync.Mutex
	var made *tls.Certificate
	var ends time.Time
	return func(*tls.ClientHelloInfo) (*tls.Certificate, error) {
		mu.Lock()
		defer mu.Unlock()
		if made != nil && now().Before(ends.Add(-renewBefore)) {
			return made, nil
		}
		fresh, err := a.Certificate(addresses, now())
		if err != nil {
			return nil, err
		}
		made, ends = &fresh, now().AddDate(0, 0, leafDays)
		return made, nil
	}
}

// TLS returns how a server speaks with devices around: TLS 1.2 with authenticated ciphers
// alone, and later, over HTTP/2 where they can.
func TLS(certificate func(*tls.ClientHelloInfo) (*tls.Certificate, error)) *tls.Config {
	return &tls.Config{
		GetCertificate: certificate, MinVersion: tls.VersionTLS12, NextProtos: []string{"h2", "http/1.1"},
		CipherSuites: []uint16{
			tls.TLS_ECDHE_ECDSA_WITH_AES_128_GCM_SHA256, tls.TLS_ECDHE_ECDSA_WITH_AES_256_GCM_SHA384, tls.TLS_ECDHE_ECDSA_WITH_CHACHA20_POLY1305_SHA256,
		},
	}
}

func parseAuthority(text []byte) (*Authority, error) {
	first, rest := pem.Decode(text)
	second, _ := pem.Decode(rest)
	if first == nil || second == nil {
		return nil, errors.New("lan: no certificate and key")
	}
	certificate, err := x509.ParseCertificate(first.Bytes)
	if err != nil {
		return nil, err
	}
	key, err := x509.ParseECPrivateKey(second.Bytes)
	return &Authority{certificate, key}, err
}

// private are the networks that the authority may sign for (RFC 1918, and this
// machine itself).
var private = []*net.IPNet{network("10.0.0.0/8"), network("172.16.0.0/12"), network("192.168.0.0/16"), network("127.0.0.0/8")}

func network(text string) *net.IPNet {
	_, n, err := net.ParseCIDR(text)
	if err != nil {
		panic(err) // a literal of ours
	}
	return n
}

func newAuthority(now time.Time) (*Authority, error) {
	key, err := ecdsa.GenerateKey(elliptic.P256(), rand.Reader)
	if err != nil {
		return nil, err
	}
	number, err := serial()
	if err != nil {
		return nil, err
	}
	plan := &x509.Certificate{
		SerialNumber: number, Subject: pkix.Name{CommonName: "Pinhole on this network"}, NotBefore: now.Add(-time.Hour), NotAfter: now.AddDate(authorityYears, 0, 0),
		IsCA: true, BasicConstraintsValid: true, MaxPathLenZero: true, KeyUsage: x509.KeyUsageCertSign,
		ExtKeyUsage:                 []x509.ExtKeyUsage{x509.ExtKeyUsageServerAuth},
		PermittedDNSDomainsCritical: true, PermittedIPRanges: private, ExcludedDNSDomains: []string{""},
		// Whatever is not of a domain that cannot be (RFC 2606) is not permitted.
		PermittedEmailAddresses: []string{"invalid"}, PermittedURIDomains: []string{"invalid"},
	}
	raw, err := x509.CreateCertificate(rand.Reader, plan, plan, &key.PublicKey, key)
	if err != nil {
		return nil, err
	}
	certificate, err := x509.ParseCertificate(raw)
	return &Authority{certificate, key}, err
}

func serial() (*big.Int, error) { return rand.Int(rand.Reader, new(big.Int).Lsh(big.NewInt(1), 120)) }

// Certificate signs a certificate for addresses of this machine.
func (a *Authority) Certificate(addresses []net.IP, now time.Time) (tls.Certificate, error) {
	key, err := ecdsa.GenerateKey(elliptic.P256(), rand.Reader)
	if err != nil {
		return tls.Certificate{}, fmt.Errorf("make a key: %w", err)
	}
	number, err := serial()
	if err != nil {
		return tls.Certificate{}, fmt.Errorf("make a serial number: %w", err)
	}
	plan := &x509.Certificate{
		SerialNumber: number, Subject: pkix.Name{CommonName: "Pinhole"}, IPAddresses: addresses, NotBefore: now.Add(-time.Hour), NotAfter: now.AddDate(0, 0, leafDays),
		KeyUsage: x509.KeyUsageDigitalSignature, ExtKeyUsage: []x509.ExtKeyUsage{x509.ExtKeyUsageServerAuth},
	}
	raw, err := x509.CreateCertificate(rand.Reader, plan, a.certificate, &key.PublicKey, a.key)
	if err != nil {
		return tls.Certificate{}, fmt.Errorf("sign a certificate: %w", err)
	}
	return tls.Certificate{Certificate: [][]byte{raw, a.certificate.Raw}, PrivateKey: key}, nil
}
