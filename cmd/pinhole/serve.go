package main

import (
	"context"
	"crypto/tls"
	"errors"
	"fmt"
	"log/slog"
	"net"
	"net/http"
	"os"
	"path/filepath"
	"time"

	"github.com/adrg/xdg"
	"github.com/spf13/cobra"

	"pinhole/internal/demo"
	"pinhole/internal/lan"
	"pinhole/internal/service"
	"pinhole/internal/store"
	"pinhole/internal/web"
)

// Bounds on a client that is slow or silent.
const (
	readHeaderTimeout = 5 * time.Second
	readTimeout       = 30 * time.Second
	writeTimeout      = 60 * time.Second
	idleTimeout       = 2 * time.Minute
	shutdownTimeout   = 10 * time.Second
)

type serveOptions struct {
	listen, data, lanListen  string
	passphraseFile           string
	demo, lan, newPassphrase bool
	metrics                  bool
	log                      logging
}

func serveCommand() *cobra.Command {
	var o serveOptions
	cmd := &cobra.Command{
		Use:   "serve",
		Short: "Serve the application until interrupted",
		Args:  cobra.NoArgs,
		RunE: func(cmd *cobra.Command, _ []string) error {
			if err := configured(cmd); err != nil {
				return err
			}
			log, err := o.log.logger(cmd.ErrOrStderr())
			if err != nil {
				return err
			}
			return serve(cmd.Context(), o, log, func(format string, a ...any) {
				fmt.Fprintf(cmd.OutOrStdout(), format, a...)
			})
		},
	}
	cmd.Flags().StringVar(&o.listen, "listen", "127.0.0.1:8321", "address to listen on; port 0 picks a free one")
	dataFlags(cmd, &o)
	cmd.Flags().String(configFlag, "", "a file of settings (TOML, YAML or JSON) called as these flags are; PINHOLE_LISTEN and the like come before it, flags before both")
	cmd.Flags().BoolVar(&o.metrics, "metrics", false, "show counts and times of requests at /metrics, to this machine alone")
	o.log.flags(cmd)
	cmd.Flags().BoolVar(&o.lan, "lan", false, "serve other devices on the local network too, over HTTPS and behind a passphrase")
	cmd.Flags().StringVar(&o.lanListen, "lan-listen", ":8322", "with --lan, the address to listen on for them")
	cmd.Flags().BoolVar(&o.newPassphrase, "new-passphrase", false, "with --lan, make a new passphrase; every device has to give it again")
	cmd.Flags().StringVar(&o.passphraseFile, "passphrase-file", "", "with --lan, a file whose first line is a passphrase of your own, - to be asked for it; else PINHOLE_PASSPHRASE may hold one")
	return cmd
}

// dataFile returns where the data lies: as named, or where the platform keeps
// application data, the demo in a file of its own.
func (o serveOptions) dataFile() (string, error) {
	switch {
	case o.data != "":
		return o.data, nil
	case o.demo:
		return xdg.DataFile("pinhole/demo.db")
	}
	return xdg.DataFile("pinhole/pinhole.db")
}

func serve(ctx context.Context, o serveOptions, log *slog.Logger, say func(format string, a ...any)) (err error) {
	if !lan.IsOwn(o.listen) {
		return badUse{fmt.Errorf("--listen %s is open to others, without a passphrase: use an address of this machine for itself, such as 127.0.0.1:8321, and --lan for other devices", o.listen)}
	}
	path, err := o.dataFile()
	if err != nil {
		return fmt.Errorf("find a place for the data file: %w", err)
	}
	kept, err := store.Open(ctx, path, time.Now)
	if err != nil {
		return err
	}
	defer func() { err = errors.Join(err, kept.Close()) }()
	svc := &service.Service{Store: kept, Now: time.Now}
	if o.demo {
		if err := demo.Seed(ctx, svc); err != nil {
			return fmt.Errorf("fill the demo: %w", err)
		}
	}
	if err := svc.RecordEarlier(ctx); err != nil { // the next start tries again
		log.ErrorContext(ctx, "records of what was kept earlier", "error", err)
	}
	ctx, stop := context.WithCancel(ctx)
	defer stop()
	go kept.KeepHouse(ctx, func(err error) { log.ErrorContext(ctx, "house", "error", err) })
	config := web.Config{Service: svc, Log: log, Version: version, Demo: o.demo}
	var shared []site
	if o.lan {
		if shared, err = o.share(ctx, kept, config, filepath.Dir(path), say); err != nil {
			return err
		}
		config.Shared, config.Fingerprint = shared[0].addresses, shared[0].fingerprint
	}
	config.Metrics = o.metrics
	handler, err := web.New(config)
	if err != nil {
		return err
	}
	listener, err := listen(o.listen)
	if err != nil {
		return err
	}
	if err := kept.Announce("http://" + listener.Addr().String() + "/"); err != nil {
		return err
	}
	if kept.Damage() != "" {
		say("The data file is damaged and is served for reading alone: %s\nPut a backup in its place with: pinhole restore FILE\n", kept.Damage())
	}
	say("Pinhole %s\ndata   %s\nopen   http://%s/\n", version, path, listener.Addr())
	return run(ctx, append(shared, site{listener: listener, handler: handler}), log)
}

// site is a handler with where it listens.
type site struct {
	listener net.Listener
	handler  http.Handler
	// Of a site for other devices: how it speaks, where it is, and what its authority is
	// known by.
	tls         *tls.Config
	addresses   []string
	fingerprint string
}

// run serves until the context ends or a site fails, then lets running requests finish.
func run(ctx context.Context, sites []site, log *slog.Logger) error {
	failed := make(chan error, len(sites))
	var servers []*http.Server
	for _, s := range sites {
		srv := &http.Server{
			Handler: s.handler, ReadHeaderTimeout: readHeaderTimeout, ReadTimeout: readTimeout, WriteTimeout: writeTimeout,
			IdleTimeout: idleTimeout, ErrorLog: slog.NewLogLogger(log.Handler(), slog.LevelWarn),
		}
		servers = append(servers, srv)
		go func() {
			if s.tls == nil {
				failed <- srv.Serve(s.listener)
				return
			}
			srv.TLSConfig = s.tls
			failed <- srv.ServeTLS(s.listener, "", "")
		}()
		log.Info("serving", "address", s.listener.Addr().String(), "pid", os.Getpid())
	}
	var err error
	select {
	case cause := <-failed:
		err = fmt.Errorf("serve: %w", cause)
	case <-ctx.Done():
	}
	log.Info("shutting down")
	// The context has ended; what is running gets a time of its own.
	last, cancel := context.WithTimeout(context.WithoutCancel(ctx), shutdownTimeout)
	defer cancel()
	for _, srv := range servers {
		if cause := srv.Shutdown(last); cause != nil {
			err = errors.Join(err, fmt.Errorf("shut down: %w", cause))
		}
	}
	return err
}
