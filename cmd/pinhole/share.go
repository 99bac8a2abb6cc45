package main

import (
	"bufio"
	"context"
	"errors"
	"fmt"
	"io"
	"net"
	"os"
	"strings"
	"time"

	"golang.org/x/term"

	"pinhole/internal/lan"
	"pinhole/internal/store"
	"pinhole/internal/web"
)

// passphraseVariable is the environment variable that holds a passphrase of one's own, where
// no file does: a flag would show it to everybody on this machine.
const passphraseVariable = "PINHOLE_PASSPHRASE"

// ownPassphrase returns a passphrase of one's own: from the file that is named, - for what is
// typed or piped in, else from the environment; "" for none.
func (o serveOptions) ownPassphrase() (text string, err error) {
	switch o.passphraseFile {
	case "":
		text = os.Getenv(passphraseVariable)
	case "-":
		fmt.Fprint(os.Stderr, "Passphrase: ")
		if term.IsTerminal(int(os.Stdin.Fd())) {
			var typed []byte
			typed, err = term.ReadPassword(int(os.Stdin.Fd()))
			text = string(typed)
			fmt.Fprintln(os.Stderr)
			break
		}
		text, err = bufio.NewReader(os.Stdin).ReadString('\n')
		if errors.Is(err, io.EOF) {
			err = nil
		}
	default:
		var kept []byte
		kept, err = os.ReadFile(o.passphraseFile)
		text, _, _ = strings.Cut(string(kept), "\n")
	}
	if err != nil {
		return "", badUse{fmt.Errorf("read the passphrase: %w", err)}
	}
	if text = strings.TrimSpace(text); text == "" && o.passphraseFile == "" {
		return "", nil
	}
	if err := lan.CheckPassphrase(text); err != nil {
		return "", badUse{err}
	}
	return text, nil
}

// share makes ready to serve other devices on the local network, and says how they get
// there.
func (o serveOptions) share(ctx context.Context, kept *store.Store, config web.Config, folder string, say func(string, ...any)) (all []site, err error) {
	hash, err := o.passphrase(ctx, kept, say)
	if err != nil {
		return nil, err
	}
	listeners, err := lan.Listen(o.lanListen)
	if err != nil {
		return nil, fmt.Errorf("serve the local network (--lan-listen names another address): %w", err)
	}
	defer func() {
		for _, l := range listeners {
			if err != nil {
				err = errors.Join(err, l.Close())
			}
		}
	}()
	authority, err := lan.OpenAuthority(folder, time.Now())
	if err != nil {
		return nil, err
	}
	var addresses []net.IP
	for _, l := range listeners {
		at, ok := l.Addr().(*net.TCPAddr)
		if !ok {
			return nil, fmt.Errorf("%v is no address of a network", l.Addr())
		}
		addresses = append(addresses, at.IP)
		config.Hosts = append(config.Hosts, at.IP.String())
		config.Shared = append(config.Shared, "https://"+at.String()+"/")
	}
	config.Share = &web.Share{PassphraseHash: hash, Authority: authority.PEM(), Fingerprint: authority.Fingerprint()}
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
	say("The phone warns of a certificate that it does not know. To work offline there, install\n%sca.crt on it and trust it, if its fingerprint (SHA-256) is\n%s\n", config.Shared[0], authority.Fingerprint())
	secure := lan.TLS(authority.Renewing(addresses, time.Now))
	for _, l := range listeners {
		all = append(all, site{listener: lan.Limit(l, lan.PerAddress, lan.InAll), handler: handler, tls: secure, addresses: config.Shared, fingerprint: authority.Fingerprint()})
	}
	return all, nil
}

// passphrase returns the hash of the passphrase in force: one's own from the
// environment, a new one where that is wished or there is none, else that of before.
func (o serveOptions) passphrase(ctx context.Context, kept *store.Store, say func(string, ...any)) (hash string, err error) {
	passphrase, err := o.ownPassphrase()
	if err != nil {
		return "", err
	}
	if passphrase == "" && !o.newPassphrase {
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
