package web

import (
	"context"
	"errors"
	"net/http"
	"reflect"

	"github.com/danielgtaylor/huma/v2"

	"pinhole/core/request"
	"pinhole/internal/service"
	"pinhole/internal/store"
)

// resource is one kind of stored thing T over HTTP, written as its fields F and
// shown as V.
type resource[T, F, V any] struct {
	name, plural string
	get          func(ctx context.Context, id string) (T, error)
	list         func(ctx context.Context, p store.Page) (part []T, next string, err error)
	// save stores a new thing, whose Meta is empty, or a change to the version
	// that its Meta names.
	save    func(ctx context.Context, v T) (T, error)
	remove  func(ctx context.Context, id string, version int64) (T, error)
	restore func(ctx context.Context, id string, version int64) (T, error)
	join    func(store.Meta, F) T
	show    func(T) (V, error)
}

type (
	// Names are exported because huma fills no fields of unexported structs.
	ByID struct {
		ID string `path:"id" maxLength:"60"`
	}
	ByVersion struct {
		ByID
		Version int64 `query:"version" required:"true" minimum:"1" doc:"the version that the change was made on"`
	}
	CreateInput struct {
		Key string `header:"Idempotency-Key" pattern:"^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$" doc:"a UUID that the client made, and becomes the id: what was interrupted can be sent again, and is stored once"`
		RawJSON
	}
	ChangeInput struct {
		ByVersion
		RawJSON
	}
	listing[V any] struct {
		Items []V `json:"items"`
	}
	// Part is where in a list to begin, and how much of it is wanted.
	Part struct {
		After string `query:"after" maxLength:"60" doc:"the next of the part before; left out, the list from its start"`
		Limit int    `query:"limit" minimum:"1" maximum:"500" default:"200"`
	}
	part[V any] struct {
		Items []V    `json:"items"`
		Next  string `json:"next,omitempty" doc:"after which the next part begins; left out where there is none"`
	}
)

func (p Part) page() store.Page { return store.Page{After: p.After, Limit: p.Limit} }

// registerStored opens the doors to what is stored, shots apart.
func (s *server) registerStored() {
	kept := s.service
	if kept == nil {
		kept = &service.Service{Store: &store.Store{}} // for describing the API only
	}
	s.registerKit(kept)
	s.registerDay(kept)
	s.registerCard(kept)
	s.registerBackups(kept)
	s.registerArchive(kept)
	s.registerHealth(kept)
	s.registerDevices(kept.Store)
	s.registerBin(kept.Store)
	s.registerLearned(kept)
	cameras, filters, shoots := kept.Store.Cameras(), kept.Store.Filters(), kept.Store.Shoots()
	addResource(s, resource[store.Camera, store.CameraFields, store.Camera]{
		name: "camera", plural: "cameras", get: cameras.Get, list: cameras.Page, remove: cameras.Delete, restore: cameras.Restore,
		save: kept.SaveCamera,
		join: func(m store.Meta, f store.CameraFields) store.Camera { return store.Camera{Meta: m, CameraFields: f} },
		show: asIs[store.Camera],
	})
	addResource(s, resource[store.Filter, store.FilterFields, service.ShownFilter]{
		name: "filter", plural: "filters", get: filters.Get, list: filters.Page, remove: filters.Delete, restore: filters.Restore,
		save: checked(filters, func(_ context.Context, f store.Filter) error { return kept.CheckFilter(f) }),
		join: func(m store.Meta, f store.FilterFields) store.Filter { return store.Filter{Meta: m, FilterFields: f} },
		show: kept.ShowTaught,
	})
	rigs := kept.Store.Rigs()
	addResource(s, resource[store.Rig, store.RigFields, store.Rig]{
		name: "rig", plural: "rigs", get: rigs.Get, list: kept.Rigs, remove: rigs.Delete, restore: rigs.Restore,
		save: checked(rigs, func(_ context.Context, r store.Rig) error { return kept.CheckRig(r) }),
		join: func(m store.Meta, f store.RigFields) store.Rig { return store.Rig{Meta: m, RigFields: f} },
		show: asIs[store.Rig],
	})
	packs := kept.Store.Packs()
	addResource(s, resource[store.Pack, store.PackFields, store.Pack]{
		name: "pack", plural: "packs", get: packs.Get, list: packs.Page, remove: packs.Delete, restore: packs.Restore,
		save: checked(packs, kept.CheckPack),
		join: func(m store.Meta, f store.PackFields) store.Pack { return store.Pack{Meta: m, PackFields: f} },
		show: asIs[store.Pack],
	})
	trials := kept.Store.Trials()
	addResource(s, resource[store.Trial, store.TrialFields, store.Trial]{
		name: "trial", plural: "trials", get: trials.Get, list: trials.Page, remove: trials.Delete, restore: trials.Restore,
		save: checked(trials, func(context.Context, store.Trial) error { return nil }),
		join: func(m store.Meta, f store.TrialFields) store.Trial { return store.Trial{Meta: m, TrialFields: f} },
		show: asIs[store.Trial],
	})
	addResource(s, resource[store.Shoot, store.ShootFields, store.Shoot]{
		name: "shoot", plural: "shoots", get: shoots.Get, list: shoots.Page, remove: shoots.Delete, restore: shoots.Restore,
		save: checked(shoots, func(_ context.Context, s store.Shoot) error { return kept.CheckShoot(s) }),
		join: func(m store.Meta, f store.ShootFields) store.Shoot { return store.Shoot{Meta: m, ShootFields: f} },
		show: asIs[store.Shoot],
	})
}

func asIs[T any](v T) (T, error) { return v, nil }

// checked returns a save that stores only what passes the check.
func checked[T any](c store.Collection[T], check func(context.Context, T) error) func(context.Context, T) (T, error) {
	return func(ctx context.Context, v T) (T, error) {
		if err := check(ctx, v); err != nil {
			return v, err
		}
		return c.Save(ctx, v)
	}
}

// addResource registers the six operations on one kind of thing.
func addResource[T, F, V any](s *server, r resource[T, F, V]) {
	op := func(id, method, path, summary string, errs ...int) huma.Operation {
		return huma.Operation{OperationID: id + "-" + r.name, Method: method, Path: "/api/" + r.plural + path, Summary: summary + " a " + r.name,
			Tags: []string{r.plural}, Errors: errs, SkipValidateBody: true}
	}
	shown := func(ctx context.Context, v T, err error) (*V, error) {
		if err != nil {
			return nil, s.failStored(ctx, err, func() (any, error) { return nil, nil })
		}
		out, err := r.show(v)
		return &out, err
	}
	// A conflict shows what is stored, so that nobody has to guess what they lost to.
	changed := func(ctx context.Context, id string, v T, err error) (*V, error) {
		if err == nil {
			return shown(ctx, v, nil)
		}
		return nil, s.failStored(ctx, err, func() (any, error) {
			now, err := r.get(ctx, id)
			if err != nil {
				return nil, err
			}
			return r.show(now)
		})
	}

	list := op("list", http.MethodGet, "", "List", http.StatusNotFound)
	list.OperationID, list.Summary = "list-"+r.plural, "List the "+r.plural
	register(s, list, func(ctx context.Context, in *Part) (*part[V], error) {
		some, next, err := r.list(ctx, in.page())
		if err != nil {
			return nil, err
		}
		out := part[V]{Items: make([]V, len(some)), Next: next}
		for i, v := range some {
			if out.Items[i], err = r.show(v); err != nil {
				return nil, err
			}
		}
		return &out, nil
	})
	create := op("create", http.MethodPost, "", "Add", http.StatusUnprocessableEntity)
	create.DefaultStatus = http.StatusCreated
	register(s, create, func(ctx context.Context, in *CreateInput) (*V, error) {
		fields, err := request.Decode[F](in.RawBody)
		if err != nil {
			return nil, err
		}
		v, err := r.save(ctx, r.join(store.Meta{ID: in.Key}, fields))
		return shown(ctx, v, err)
	})
	s.describe(http.MethodPost, create.Path, reflect.TypeFor[F](), nil)
	get := op("get", http.MethodGet, "/{id}", "Get", http.StatusNotFound)
	register(s, get, func(ctx context.Context, in *ByID) (*V, error) {
		v, err := r.get(ctx, in.ID)
		return shown(ctx, v, err)
	})
	update := op("update", http.MethodPut, "/{id}", "Change", http.StatusNotFound, http.StatusConflict, http.StatusUnprocessableEntity)
	register(s, update, func(ctx context.Context, in *ChangeInput) (*V, error) {
		fields, err := request.Decode[F](in.RawBody)
		if err != nil {
			return nil, err
		}
		v, err := r.save(ctx, r.join(store.Meta{ID: in.ID, Version: in.Version}, fields))
		return changed(ctx, in.ID, v, err)
	})
	s.describe(http.MethodPut, update.Path, reflect.TypeFor[F](), nil)
	remove := op("delete", http.MethodDelete, "/{id}", "Delete", http.StatusNotFound, http.StatusConflict)
	register(s, remove, func(ctx context.Context, in *ByVersion) (*V, error) {
		v, err := r.remove(ctx, in.ID, in.Version)
		return changed(ctx, in.ID, v, err)
	})
	restore := op("restore", http.MethodPost, "/{id}/restore", "Take back the deletion of", http.StatusNotFound, http.StatusConflict)
	register(s, restore, func(ctx context.Context, in *ByVersion) (*V, error) {
		v, err := r.restore(ctx, in.ID, in.Version)
		return changed(ctx, in.ID, v, err)
	})
}

// failStored is fail, with the stored state in the answer to a conflict.
func (s *server) failStored(ctx context.Context, err error, current func() (any, error)) error {
	out := fail(ctx, s.log, err)
	var f *failure
	if errors.Is(err, store.ErrConflict) && errors.As(out, &f) {
		now, err := current()
		if err != nil {
			return fail(ctx, s.log, err)
		}
		f.Current = now
	}
	return out
}
