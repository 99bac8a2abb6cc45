package lan

import (
	"crypto/rand"
	_ "embed" // for the commonest passphrases
	"encoding/base32"
	"errors"
	"fmt"
	"slices"
	"strings"
	"unicode/utf8"

	"github.com/alexedwards/argon2id"
	"github.com/skip2/go-qrcode"
)

// NewPassphrase returns a passphrase of 60 random bits that can be read out and typed
// on a telephone: three groups of four letters and digits.
func NewPassphrase() (string, error) {
	raw := make([]byte, 8)
	if _, err := rand.Read(raw); err != nil {
		return "", fmt.Errorf("make a passphrase: %w", err)
	}
	text := strings.ToLower(base32.StdEncoding.EncodeToString(raw))
	return text[:4] + "-" + text[4:8] + "-" + text[8:12], nil
}

// leastPassphrase is how many characters a passphrase has at least, white space around it
// aside.
const leastPassphrase = 10

// commonest are passphrases that are tried first by whoever tries, as long as one has to be.
//
//go:embed commonest.txt
var commonest string

// CheckPassphrase returns why a passphrase of somebody's own is not taken, nil where it is.
func CheckPassphrase(passphrase string) error {
	text := plain(passphrase)
	if n := utf8.RuneCountInString(text); n < leastPassphrase {
		return fmt.Errorf("a passphrase has %d characters at least, and this has %d", leastPassphrase, n)
	}
	if slices.Contains(strings.Fields(commonest), text) || len(strings.Trim(text, text[:1])) == 0 {
		return errors.New("this passphrase is one that is guessed first: three or four words are better")
	}
	return nil
}

// Hash returns what is kept of a passphrase (argon2id).
func Hash(passphrase string) (string, error) {
	hash, err := argon2id.CreateHash(plain(passphrase), argon2id.DefaultParams)
	if err != nil {
		return "", fmt.Errorf("hash the passphrase: %w", err)
	}
	return hash, nil
}

// Matches reports whether a passphrase is the one that was hashed.
func Matches(passphrase, hash string) (bool, error) {
	ok, err := argon2id.ComparePasswordAndHash(plain(passphrase), hash)
	if err != nil {
		return false, fmt.Errorf("compare the passphrase: %w", err)
	}
	return ok, nil
}

// plain is a passphrase however a telephone's keyboard writes it.
func plain(passphrase string) string { return strings.ToLower(strings.TrimSpace(passphrase)) }

// QR returns a text as a code to be photographed off a terminal.
func QR(text string) (string, error) {
	code, err := qrcode.New(text, qrcode.Medium)
	if err != nil {
		return "", fmt.Errorf("write a code: %w", err)
	}
	return code.ToSmallString(false), nil
}
