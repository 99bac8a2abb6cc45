package service

import (
	"bytes"
	"context"
	"encoding/json"
	"fmt"

	"pinhole/core/assemble"
	"pinhole/core/calc"
	"pinhole/internal/store"
)

// Shot returns a shot with what it is told now.
func (svc *Service) Shot(ctx context.Context, id string) (store.Shot, error) {
	s, err := svc.Store.Shots().Get(ctx, id)
	if err != nil {
		return s, err
	}
	all := []store.Shot{s}
	err = svc.tell(ctx, all)
	return all[0], err
}

// ShotPage returns a part of all shots, each with what it is told now, and the id after which the
// next part begins.
func (svc *Service) ShotPage(ctx context.Context, p store.Page) (part []store.Shot, next string, err error) {
	if part, next, err = svc.Store.Shots().Page(ctx, p); err != nil {
		return nil, "", err
	}
	return part, next, svc.tell(ctx, part)
}

// tell gives shots the answers that they are told now: a filter may have been measured since one
// was stored, a camera changed, or the log may teach something else.
func (svc *Service) tell(ctx context.Context, shots []store.Shot) error {
	if len(shots) == 0 {
		return nil
	}
	shelf, err := svc.shelf(ctx)
	if err != nil {
		return err
	}
	benches := map[[2]string]*toldBench{}
	for i := range shots {
		on := [2]string{shots[i].CameraID, shots[i].RigID}
		if benches[on] == nil {
			b, err := svc.benchFrom(ctx, shelf, shots[i].CameraID, shots[i].RigID)
			if err != nil && ctx.Err() != nil {
				return err
			}
			// A camera that cannot be read has no bench, and hides no shot.
			benches[on] = &toldBench{Bench: b}
		}
		svc.tellOn(benches[on], &shots[i])
	}
	return nil
}

// toldBench is a bench on which shots are told, with its gear as it is compared.
type toldBench struct {
	*Bench
	gear []byte
}

// tellOn answers a shot anew where its gear or the rules are other than they were. What cannot be
// answered now keeps what it was told.
func (svc *Service) tellOn(b *toldBench, s *store.Shot) {
	if b.Bench == nil {
		return
	}
	if b.gear == nil {
		b.gear = gearOf(b.held().Shot(assemble.Asked{}))
	}
	if s.Answer.Model == calc.ModelVersion && bytes.Equal(b.gear, gearOf(&s.Answer.Request)) {
		return
	}
	if answer, err := svc.answerOn(b.Bench, s.ShotFields); err == nil {
		s.Answer = answer
	}
}

// gearOf writes the gear that a shot is answered with, so that the same reads the same.
func gearOf(r *assemble.ShotRequest) []byte {
	only := assemble.ShotRequest{Camera: r.Camera, Kit: r.Kit, Profile: r.Profile, Rates: r.Rates, Craft: r.Craft}
	if len(only.Kit) == 0 {
		only.Kit = nil
	}
	text, err := json.Marshal(only)
	if err != nil {
		panic(fmt.Sprintf("service: gear that cannot be written: %v", err)) // it was read from the store
	}
	return text
}
