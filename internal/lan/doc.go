// Package lan is what it takes to serve a telephone on the local network: this
// machine's addresses there, a certificate for them, a passphrase, and a code to be
// photographed.
package lan
