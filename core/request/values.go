package request

import (
	"reflect"
	"strings"
)

// ValuesOf returns what a text may be: what the enum tag of its field names, else what its
// type lists of itself with a method Values, nil for any text. A tag narrows a type where a
// field takes only some of its values.
func ValuesOf(t reflect.Type, tag reflect.StructTag) []string {
	if enum := tag.Get("enum"); enum != "" {
		return strings.Split(enum, ",")
	}
	method, ok := t.MethodByName("Values")
	if !ok || t.Kind() != reflect.String {
		return nil
	}
	list := method.Func.Call([]reflect.Value{reflect.Zero(t)})[0]
	values := make([]string, list.Len())
	for i := range values {
		values[i] = list.Index(i).String()
	}
	return values
}
