package store

import (
	"fmt"
	"reflect"
	"testing"
	"time"
)

// filler fills values so that no two numbers or texts of a thing are alike.
type filler struct {
	n   int
	ids map[string]string // by the name of the field that refers
}

func (f *filler) fill(v reflect.Value, name string) {
	f.n++
	switch {
	case v.Type() == reflect.TypeFor[time.Time]():
		v.Set(reflect.ValueOf(time.Date(2031, 9, 20, 8, 0, f.n, 0, time.UTC)))
	case v.Kind() == reflect.Struct:
		for i := range v.NumField() {
			if field := v.Type().Field(i); field.IsExported() && field.Tag.Get("json") != "-" {
				f.fill(v.Field(i), field.Name)
			}
		}
	case v.Kind() == reflect.Pointer:
		v.Set(reflect.New(v.Type().Elem()))
		f.fill(v.Elem(), name)
	case v.Kind() == reflect.Slice:
		v.Set(reflect.MakeSlice(v.Type(), 1, 1))
		f.fill(v.Index(0), name)
	case v.Kind() == reflect.Map:
		key, value := reflect.New(v.Type().Key()).Elem(), reflect.New(v.Type().Elem()).Elem()
		f.fill(key, name)
		f.fill(value, name)
		v.Set(reflect.MakeMap(v.Type()))
		v.SetMapIndex(key, value)
	case v.Kind() == reflect.String && f.ids[name] != "":
		v.SetString(f.ids[name])
	case v.Kind() == reflect.String:
		v.SetString(fmt.Sprintf("%s %d", name, f.n))
	case v.Kind() == reflect.Bool:
		v.SetBool(true)
	case v.CanFloat():
		v.SetFloat(float64(f.n) + 0.25)
	case v.CanInt():
		v.SetInt(int64(f.n))
	case v.Kind() == reflect.Interface:
		v.Set(reflect.ValueOf(fmt.Sprintf("%s %d", name, f.n)))
	}
}

// keepsEveryField stores a thing of which every field is filled and reads it back: a field
// without a column comes back empty. It returns the id it was stored under.
func keepsEveryField[T any](t *testing.T, c Collection[T], ids map[string]string) string {
	t.Helper()
	var v T
	f := filler{ids: ids}
	f.fill(reflect.ValueOf(&v).Elem(), "")
	*c.table.meta(&v) = Meta{}
	stored, err := c.Save(t.Context(), v)
	if err != nil {
		t.Fatalf("%s: %v", c.table.name, err)
	}
	read, err := c.Get(t.Context(), c.table.meta(&stored).ID)
	if err != nil {
		t.Fatalf("%s: %v", c.table.name, err)
	}
	compareFields(t, c.table.name, reflect.ValueOf(stored), reflect.ValueOf(read))
	return c.table.meta(&stored).ID
}

// compareFields names each field of a thing that came back as another.
func compareFields(t *testing.T, path string, want, got reflect.Value) {
	t.Helper()
	if want.Kind() == reflect.Struct && want.Type() != reflect.TypeFor[time.Time]() {
		for i := range want.NumField() {
			if field := want.Type().Field(i); field.IsExported() && field.Tag.Get("json") != "-" {
				compareFields(t, path+"."+field.Name, want.Field(i), got.Field(i))
			}
		}
		return
	}
	if at, ok := want.Interface().(time.Time); ok {
		if !at.Equal(got.Interface().(time.Time)) {
			t.Errorf("%s was stored as %v and read as %v", path, at, got.Interface())
		}
		return
	}
	if !reflect.DeepEqual(want.Interface(), got.Interface()) {
		t.Errorf("%s was stored as %v and read as %v", path, want.Interface(), got.Interface())
	}
}

// A field that is added to a thing and not to its table fails here.
func TestEveryFieldIsStored(t *testing.T) {
	s := open(t, newPath(t))
	ids := map[string]string{}
	ids["ShootID"] = keepsEveryField(t, s.Shoots(), ids)
	ids["CameraID"] = keepsEveryField(t, s.Cameras(), ids)
	ids["FilterID"] = keepsEveryField(t, s.Filters(), ids)
	ids["RigID"] = keepsEveryField(t, s.Rigs(), ids)
	ids["ShotID"] = keepsEveryField(t, s.Shots(), ids)
	keepsEveryField(t, s.LightReadings(), ids)
	keepsEveryField(t, Collection[Reading]{s, readings()}, ids)
	keepsEveryField(t, s.Trials(), ids)
}
