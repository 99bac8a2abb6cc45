package web

import (
	"context"
	"errors"
	"log/slog"
	"net/http"
	"reflect"
	"slices"
	"sync"
	"time"

	"github.com/alexedwards/scs/v2"
	"github.com/danielgtaylor/huma/v2"
	"github.com/gin-gonic/gin"
	"golang.org/x/time/rate"

	"pinhole/core/problem"
	"pinhole/core/request"
	"pinhole/internal/lan"
	"pinhole/internal/store"
)

// Share is what another device needs to be let in, nil for a server of this machine
// alone, which lets everybody in who sits at it.
type Share struct {
	// PassphraseHash is what is kept of the passphrase.
	PassphraseHash string
	// Fingerprint is what the authority is known by.
	Fingerprint string
	// Authority is the certificate that a telephone installs, as PEM.
	Authority []byte
}

type (
	// Session says whether this device may ask for anything.
	Session struct {
		Needed bool `json:"needed" doc:"true where a passphrase is asked for"`
		Open   bool `json:"open" doc:"true where everything may be asked for"`
		// Fingerprint is said before anybody is let in, so that the two screens can be compared.
		Fingerprint string `json:"fingerprint,omitempty" doc:"SHA-256 of the certificate authority"`
	}
	// SessionRequest opens a session.
	SessionRequest struct {
		Passphrase string `json:"passphrase" minLength:"1" maxLength:"200"`
	}
)

// How long a device is let in, and how often one may try: a few times at once, then
// once in a while, however many devices try together.
const (
	sessionLife  = 30 * 24 * time.Hour
	triesAtOnce  = 5
	triesTogther = 20
	tryEvery     = 15 * time.Second
)

const letIn = "in"

// door lets devices in by a passphrase.
type door struct {
	share    *Share
	log      *slog.Logger
	devices  *store.Store
	sessions *scs.SessionManager
	tries    throttle
	// One passphrase is compared at a time: each comparison takes 64 MB.
	comparing sync.Mutex
}

func newDoor(share *Share, devices *store.Store, log *slog.Logger) *door {
	sessions := scs.New()
	sessions.Store = deviceSessions{devices}
	sessions.Lifetime = sessionLife
	sessions.Cookie.Name = "__Host-pinhole" // of this host alone, over HTTPS alone
	sessions.ErrorFunc = func(w http.ResponseWriter, r *http.Request, err error) {
		var f *failure
		if errors.As(fail(r.Context(), log, err), &f) {
			writeFailure(w, f)
		}
	}
	sessions.Cookie.HttpOnly, sessions.Cookie.Secure = true, true
	sessions.Cookie.SameSite = http.SameSiteStrictMode
	return &door{share: share, devices: devices, log: log, sessions: sessions, tries: throttle{of: map[string]*rate.Limiter{}, all: rate.NewLimiter(rate.Every(tryEvery/4), triesTogther)}}
}

// guard refuses the API to devices that were not let in. The page itself, which holds
// nothing, is for everybody, and so is the question whether one is in.
func (d *door) guard(c *gin.Context) {
	path := c.Request.URL.Path
	switch {
	case !isUnder(path, "/api"), path == "/api/session":
		return
	case d.sessions.GetBool(c.Request.Context(), letIn):
		if slices.ContainsFunc(ofTheDesk, func(folder string) bool { return isUnder(path, folder) }) {
			refuse(c, newFailure(http.StatusForbidden, "this is done at the machine that keeps the data"))
		}
		return
	}
	if askedBy(c.Request.Context()).isRevoked {
		// Its browser lets go of all that this site keeps there.
		c.Header("Clear-Site-Data", `"cache", "cookies", "storage"`)
		refuse(c, newFailure(http.StatusUnauthorized, shutOut))
		return
	}
	refuse(c, newFailure(http.StatusUnauthorized, "give the passphrase first"))
}

// ofTheDesk is what no other device may ask for, though it is let in: to take everything away,
// to replace or remove it for good, and to shut devices out.
var ofTheDesk = []string{"/api/backups", "/api/import/backup", "/api/archive", "/api/import/archive", "/api/bin", "/api/field-log", "/api/devices"}

// shutOut is what a device is told that was revoked; its page lets go of what it keeps.
const shutOut = "this device was shut out"

// open compares a passphrase and lets the device in.
func (d *door) open(ctx context.Context, passphrase string) error {
	from := askedBy(ctx).address
	isKnown, err := d.devices.HasBeenAt(ctx, from)
	if err != nil {
		return err
	}
	if !d.tries.allow(from, isKnown) {
		return newFailure(http.StatusTooManyRequests, "too many tries: wait a minute")
	}
	d.comparing.Lock()
	matches, err := lan.Matches(passphrase, d.share.PassphraseHash)
	d.comparing.Unlock()
	if err != nil {
		return err
	}
	if !matches {
		d.log.WarnContext(ctx, "a wrong passphrase", "from", from)
		return &problem.Fault{Field: "passphrase", Value: "", Allowed: "the passphrase that the server printed when it was started"}
	}
	d.tries.forget(from)
	if err := d.sessions.RenewToken(ctx); err != nil {
		return err
	}
	d.sessions.Put(ctx, letIn, true)
	return nil
}

// throttle limits tries, of each device and of all.
type throttle struct {
	mu  sync.Mutex
	of  map[string]*rate.Limiter
	all *rate.Limiter
}

// mostKnown is how many devices are told apart; beyond, all are forgotten, and what
// limits them together still does.
const mostKnown = 1000

// allow reports whether an address may try. One from which a device was let in before counts
// its own tries alone: others cannot use up its turn.
func (t *throttle) allow(from string, isKnown bool) bool {
	t.mu.Lock()
	defer t.mu.Unlock()
	if len(t.of) > mostKnown {
		clear(t.of)
	}
	if t.of[from] == nil {
		t.of[from] = rate.NewLimiter(rate.Every(tryEvery), triesAtOnce)
	}
	return t.of[from].Allow() && (isKnown || t.all.Allow())
}

func (t *throttle) forget(from string) {
	t.mu.Lock()
	defer t.mu.Unlock()
	delete(t.of, from)
}

// registerSession opens the door by which devices are let in.
func (s *server) registerSession() {
	op := func(id, method, summary string, errs ...int) huma.Operation {
		return huma.Operation{OperationID: id, Method: method, Path: "/api/session", Summary: summary, Tags: []string{"session"}, Errors: errs, SkipValidateBody: true}
	}
	state := func(ctx context.Context) *Session {
		if s.door == nil {
			return &Session{Open: true}
		}
		return &Session{Needed: true, Open: s.door.sessions.GetBool(ctx, letIn), Fingerprint: s.door.share.Fingerprint}
	}
	register(s, op("get-session", http.MethodGet, "Ask whether this device is let in"), func(ctx context.Context, _ *struct{}) (*Session, error) {
		return state(ctx), nil
	})
	open := op("open-session", http.MethodPost, "Be let in by a passphrase", http.StatusUnprocessableEntity, http.StatusTooManyRequests)
	register(s, open, func(ctx context.Context, in *RawJSON) (*Session, error) {
		r, err := request.Decode[SessionRequest](in.RawBody)
		if err == nil && s.door != nil {
			err = s.door.open(ctx, r.Passphrase)
		}
		if err != nil {
			return nil, err
		}
		return state(ctx), nil
	})
	s.describe(http.MethodPost, open.Path, reflect.TypeFor[SessionRequest](), nil)
	register(s, op("end-session", http.MethodDelete, "Leave"), func(ctx context.Context, _ *struct{}) (*Session, error) {
		if s.door != nil {
			if err := s.door.sessions.Destroy(ctx); err != nil {
				return nil, err
			}
		}
		return state(ctx), nil
	})
}
