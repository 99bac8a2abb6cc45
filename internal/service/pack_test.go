package service

import (
	"errors"
	"slices"
	"testing"

	"pinhole/core/problem"
	"pinhole/internal/store"
)

func price(v float64) *float64 { return &v }

// A pack that is considered is compared, and is no glass at hand until it is bought.
func TestPackIsNoGlassAtHandUntilItIsBought(t *testing.T) {
	svc := newService(t)
	camera := gear(t, svc, "ND8").CameraID
	p, err := svc.Store.Packs().Save(t.Context(), store.Pack{PackFields: store.PackFields{Name: "terrace three", Labels: []string{"ND4", "ND16", "ND64"}, Price: price(100), Cameras: []string{camera}}})
	if err != nil {
		t.Fatal(err)
	}
	before, err := svc.Coverage(t.Context(), camera, "", "")
	if err != nil {
		t.Fatal(err)
	}
	if len(before.Packs) != 1 || before.Packs[0].ID != p.ID || before.Packs[0].Cells == 0 {
		t.Fatalf("it is compared as %+v", before.Packs)
	}
	count := func() int {
		b, err := svc.Bench(t.Context(), camera, "")
		if err != nil {
			t.Fatal(err)
		}
		return len(b.Kit)
	}
	if n := count(); n != 1 {
		t.Errorf("%d filters at hand, want the one that is owned", n)
	}
	bought, err := svc.Buy(t.Context(), BuyRequest{p.ID, p.Version})
	if err != nil || len(bought.Filters) != 3 || count() != 4 {
		t.Fatalf("bought %+v, %v, with %d at hand", bought, err, count())
	}
	sum := 0.0
	for _, id := range bought.Filters {
		f, err := svc.Store.Filters().Get(t.Context(), id)
		if err != nil || f.Set != "terrace three" || !slices.Equal(f.Cameras, []string{camera}) {
			t.Errorf("it came as %+v, %v", f.FilterFields, err)
		}
		sum += *f.Price
	}
	if sum != 100 {
		t.Errorf("the shares of its price add up to %v", sum)
	}
	if _, err := svc.Buy(t.Context(), BuyRequest{p.ID, p.Version}); !errors.Is(err, store.ErrNotFound) || count() != 4 {
		t.Errorf("bought a second time: %v, %d at hand", err, count())
	}
	after, err := svc.Coverage(t.Context(), camera, "", "")
	if err != nil || len(after.Packs) != 0 {
		t.Errorf("it is still considered: %+v, %v", after.Packs, err)
	}
}

func TestPackThatCannotBeReadIsRefused(t *testing.T) {
	svc := newService(t)
	camera := gear(t, svc).CameraID
	for field, p := range map[string]store.PackFields{
		"labels[1]":  {Name: "x", Labels: []string{"ND8", "no label"}, Cameras: []string{camera}},
		"labels[0]":  {Name: "x", Labels: []string{"ND 2.0"}, Cameras: []string{camera}},
		"cameras[0]": {Name: "x", Labels: []string{"ND8"}, Cameras: []string{"nobody's"}},
	} {
		var fault *problem.Fault
		if err := svc.CheckPack(t.Context(), store.Pack{PackFields: p}); !errors.As(err, &fault) || fault.Field != field {
			t.Errorf("%+v is refused with %v, want %s named", p, err, field)
		}
	}
}
