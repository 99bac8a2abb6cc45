package main

import (
	"context"
	"crypto/tls"
	"fmt"
	"net"
	"net/http"
	"os"
	"time"

	"pinhole/internal/lan"
	"pinhole/internal/store"
	"pinhole/internal/web"
)

// passphraseVariable is the environment variable that holds a passphrase of one's own:
// a flag would show it to everybody on this machine.
const passphraseVariable = "PINHOLE_PASSPHRASE"

// share makes ready to serve other devices on the local network, and says how they get
// there.
func (o serveOptions) share(ctx context.Context, kept *store.Store, config web.Config, folder string, say func(string, ...any)) (*site, error) {
	hash, err := o.passphrase(ctx, kept, say)
	if err != nil {
		return nil, err
	}
	plain, err := net.Listen("tcp", o.lanListen)
	if err != nil {
		return nil, fmt.Errorf("listen on %s (--lan-listen names another address): %w", o.lanListen, err)
	}
	addresses, err := lan.Listening(plain.Addr())
	if err != nil {
		return nil, fmt.Errorf("serve the local network: %w", err)
	}
	authority, err := lan.OpenAuthority(folder, time.Now())
	if err != nil {
		return nil, err
	}
	certificate, err := authority.Certificate(addresses, time.Now())
	if err != nil {
		return nil, err
	}
	config.Share = &web.Share{PassphraseHash: hash, Sessions: kept.Sessions(), Authority: authority.PEM()}
	_, port, err := net.SplitHostPort(plain.Addr().String())
	if err != nil {
		return nil, fmt.Errorf("read the port of %s: %w", plain.Addr(), err)
	}
	for _, a := range addresses {
		config.Hosts = append(config.Hosts, a.String())
		config.Shared = append(config.Shared, "https://"+net.JoinHostPort(a.String(), port)+"/")
	}
	handler, err := web.New(config)
	if err != nil {
		return nil, err
	}
	for _, address := range config.Shared {
		code, err := lan.QR(address)
		if err != nil {
			return nil, err
		}
		say("phone  %s\n%s\n", address, code)
	}
	say("The phone warns of a certificate that it does not know. To work offline there, install\n%sca.crt on it and trust it; it can vouch for private addresses alone.\n", config.Shared[0])
	secure := tls.NewListener(plain, &tls.Config{Certificates: []tls.Certificate{certificate}, MinVersion: tls.VersionTLS12, NextProtos: []string{"http/1.1"}})
	return &site{listener: secure, handler: http.Handler(handler), addresses: config.Shared}, nil
}

// passphrase returns the hash of the passphrase in force: one's own from the
// environment, a new one where that is wished or there is none, else that of before.
func (o serveOptions) passphrase(ctx context.Context, kept *store.Store, say func(string, ...any)) (hash string, err error) {
	passphrase := os.Getenv(passphraseVariable)
	switch {
	case passphrase != "" && len(passphrase) < lan.LeastPassphrase:
		return "", fmt.Errorf("%s has %d letters; a passphrase has %d at least", passphraseVariable, len(passphrase), lan.LeastPassphrase)
	case passphrase == "" && !o.newPassphrase:
		hash, err = kept.Setting(ctx, store.PassphraseHash)
		if err != nil {
			return "", err
		}
		if hash != "" {
			say("passphrase as before (--new-passphrase makes another)\n")
			return hash, nil
		}
	}
	if passphrase == "" {
		if passphrase, err = lan.NewPassphrase(); err != nil {
			return "", err
		}
		say("passphrase %s (kept as a hash: write it down)\n", passphrase)
	} else if hash, err = kept.Setting(ctx, store.PassphraseHash); err == nil && hash != "" {
		if same, err := lan.Matches(passphrase, hash); err == nil && same { // the sessions stay
			return hash, nil
		}
	}
	if hash, err = lan.Hash(passphrase); err != nil {
		return "", err
	}
	return hash, kept.SetPassphraseHash(ctx, hash)
}
