package service

import (
	"context"
	"errors"
	"fmt"
	"math"
	"slices"

	"pinhole/core/assemble"
	"pinhole/core/calc"
	"pinhole/core/problem"
	"pinhole/internal/store"
)

// CheckPack returns the fault of a pack whose labels say no strength, or that goes on a camera
// that is not there.
func (svc *Service) CheckPack(ctx context.Context, p store.Pack) error {
	if _, err := kitOf(&p); err != nil {
		return err
	}
	for i, id := range p.Cameras {
		if _, err := svc.Store.Cameras().Get(ctx, id); err != nil {
			return &problem.Fault{Field: fmt.Sprintf("cameras[%d]", i), Value: id, Allowed: "the id of a camera"}
		}
	}
	return nil
}

// kitOf returns the filters of a pack as choosing counts them.
func kitOf(p *store.Pack) ([]assemble.KitFilter, error) {
	var kit []assemble.KitFilter
	for i, label := range p.Labels {
		at := fmt.Sprintf("labels[%d]", i)
		shown, err := Show(store.Filter{Meta: store.Meta{ID: fmt.Sprintf("%s/%d", p.ID, i)}, FilterFields: store.FilterFields{Label: label}})
		if err != nil {
			return nil, named(at, label, err)
		}
		if shown.Counts == nil {
			return nil, &problem.Fault{Field: at, Value: label, Allowed: "a label that can be read in one way. " + shown.Open}
		}
		kit = append(kit, *shown.Counts)
	}
	return kit, nil
}

// considered returns the packs that would go on a camera, as coverage weighs them.
func (svc *Service) considered(ctx context.Context, cameraID string) ([]calc.ConsideredPack, error) {
	packs, err := svc.Store.Packs().List(ctx)
	if err != nil {
		return nil, err
	}
	var asked []calc.ConsideredPack
	for _, p := range packs {
		if !slices.Contains(p.Cameras, cameraID) {
			continue
		}
		kit, err := kitOf(&p)
		if err != nil {
			return nil, fmt.Errorf("pack %s as stored: %w", p.ID, err)
		}
		asked = append(asked, calc.ConsideredPack{ID: p.ID, Name: p.Name, Price: p.Price, Kit: kit})
	}
	return asked, nil
}

// BuyRequest names a pack that was bought, in the version that is meant.
type BuyRequest struct {
	PackID  string `json:"packId" minLength:"1" maxLength:"60"`
	Version int64  `json:"version" minimum:"1"`
}

// Bought is the glass that a pack became.
type Bought struct {
	Filters []string `json:"filters" doc:"ids of what is in the kit now"`
}

// Buy moves a pack into the kit as a set of its name, its price in equal shares.
func (svc *Service) Buy(ctx context.Context, r BuyRequest) (*Bought, error) {
	p, err := svc.Store.Packs().Get(ctx, r.PackID)
	if err != nil {
		return nil, err
	}
	var filters []store.Filter
	out := &Bought{Filters: []string{}}
	for i, label := range p.Labels {
		f := store.Filter{Meta: store.Meta{ID: newID()}, FilterFields: store.FilterFields{Label: label, Cameras: p.Cameras, Set: p.Name, Price: shareOf(p.Price, len(p.Labels), i), History: []store.Happening{{At: svc.Now(), What: "bought"}}}}
		filters, out.Filters = append(filters, f), append(out.Filters, f.ID)
	}
	if err := svc.Store.Buy(ctx, p.ID, r.Version, filters); err != nil {
		if errors.Is(err, store.ErrConflict) && p.DeletedAt != nil {
			return nil, fmt.Errorf("pack %s, which was bought or deleted: %w", p.ID, store.ErrNotFound)
		}
		return nil, err
	}
	return out, nil
}

// shareOf returns the i-th of n shares of a price in hundredths, which add up to it.
func shareOf(price *float64, n, i int) *float64 {
	if price == nil {
		return nil
	}
	upTo := func(i int) float64 { return math.Round(*price * 100 * float64(i) / float64(n)) }
	share := (upTo(i+1) - upTo(i)) / 100
	return &share
}
