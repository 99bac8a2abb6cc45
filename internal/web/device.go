package web

import (
	"context"
	"net"
	"net/http"
	"time"

	"pinhole/internal/store"
)

// asker is who asks: the address of the connection, whatever headers say, and what its
// browser calls itself.
type asker struct {
	address, agent string
	isRevoked      bool // found out when its session is looked for
}

type askerKey struct{}

// longestAgent bounds what is kept of a browser's name.
const longestAgent = 200

// knowAsker notes who asks, for the sessions and for the log.
func knowAsker(next http.Handler) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		address, _, err := net.SplitHostPort(r.RemoteAddr)
		if err != nil {
			address = r.RemoteAddr
		}
		agent := r.UserAgent()
		who := &asker{address: address, agent: agent[:min(len(agent), longestAgent)]}
		next.ServeHTTP(w, r.WithContext(context.WithValue(r.Context(), askerKey{}, who)))
	})
}

func askedBy(ctx context.Context) *asker {
	if who, ok := ctx.Value(askerKey{}).(*asker); ok {
		return who
	}
	return &asker{}
}

func (a *asker) device() store.Device { return store.Device{Agent: a.agent, Address: a.address} }

// deviceSessions keeps the sessions of devices where they can be listed and revoked.
type deviceSessions struct{ *store.Store }

func (d deviceSessions) FindCtx(ctx context.Context, token string) ([]byte, bool, error) {
	who := askedBy(ctx)
	data, isThere, isRevoked, err := d.SessionOf(ctx, token, who.device())
	who.isRevoked = isRevoked
	return data, isThere, err
}

func (d deviceSessions) CommitCtx(ctx context.Context, token string, data []byte, expires time.Time) error {
	return d.KeepSession(ctx, token, data, time.Until(expires), askedBy(ctx).device())
}

func (d deviceSessions) DeleteCtx(ctx context.Context, token string) error {
	return d.EndSession(ctx, token)
}

// The session library asks for these of every store, and calls those above where they are.
func (d deviceSessions) Find(token string) ([]byte, bool, error) {
	return d.FindCtx(context.Background(), token)
}

func (d deviceSessions) Commit(token string, data []byte, expires time.Time) error {
	return d.CommitCtx(context.Background(), token, data, expires)
}

func (d deviceSessions) Delete(token string) error { return d.DeleteCtx(context.Background(), token) }

// registerDevices opens the doors to the list of devices that are in.
func (s *server) registerDevices(kept *store.Store) {
	listed := func(ctx context.Context, _ *struct{}) (*listing[store.Device], error) {
		all, err := kept.Devices(ctx)
		return &listing[store.Device]{all}, err
	}
	addGot(s, "/api/devices", "list-devices", "List the devices that are let in", "devices", listed)
	addPosted(s, "/api/devices/keep", "keep-on-devices", "Say for how many days devices keep what they were shown", "devices", func(ctx context.Context, r KeepRule) (*KeepRule, error) {
		return &r, kept.SetKeepDays(ctx, r.Days)
	})
	addAsked(s, http.MethodDelete, "/api/devices/{name}", "revoke-device", "Shut a device out", "devices", func(ctx context.Context, in *RevokeInput) (*listing[store.Device], error) {
		if err := kept.RevokeDevice(ctx, in.Name); err != nil {
			return nil, err
		}
		return listed(ctx, nil)
	})
}

// KeepRule says how long devices keep what they were shown.
type KeepRule struct {
	Days int `json:"days" minimum:"1" maximum:"20"`
}

// RevokeInput names a device.
type RevokeInput struct {
	Name string `path:"name" maxLength:"64"`
}
