package calc

import (
	"reflect"
	"strings"
	"time"

	"pinhole/core/request"
)

// Shape returns the fields of request and answer in one line each, as in
// "{label} -> {kind, stops, …}": a question mark after what may be left out,
// brackets around a list, braces around an object.
func (o Operation) Shape() string {
	return shapeOf(o.Request, nil) + "\n-> " + shapeOf(o.Answer, nil)
}

// shapeOf writes a type's fields; inside are the types it stands in, so that one
// that holds itself ends.
func shapeOf(t reflect.Type, inside []reflect.Type) string {
	for t.Kind() == reflect.Pointer {
		t = t.Elem()
	}
	switch {
	case t == reflect.TypeFor[time.Time]():
		return ""
	case t.Kind() == reflect.Slice:
		return "[" + shapeOf(t.Elem(), inside) + "]"
	case t.Kind() == reflect.Map:
		return "{id: …}"
	case t.Kind() != reflect.Struct:
		return ""
	}
	for _, outer := range inside {
		if outer == t {
			return "{…}"
		}
	}
	var fields []string
	for _, f := range reflect.VisibleFields(t) {
		name, isOptional, ok := request.Field(f)
		if !ok {
			continue
		}
		if isOptional {
			name += "?"
		}
		if inner := shapeOf(f.Type, append(inside, t)); inner != "" {
			name += ":" + inner
		}
		fields = append(fields, name)
	}
	return "{" + strings.Join(fields, ", ") + "}"
}
