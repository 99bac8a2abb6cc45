package web

import (
	"reflect"

	"github.com/danielgtaylor/huma/v2"

	"pinhole/core/request"
)

// listValues puts what a type lists of itself into the schemas of the fields that hold it,
// for the document and for what is checked by it: huma reads the tags of fields alone.
func listValues(schemas huma.Registry) {
	for name, schema := range schemas.Map() {
		t := schemas.TypeFromRef("#/components/schemas/" + name)
		for t != nil && t.Kind() == reflect.Pointer {
			t = t.Elem()
		}
		if t == nil || t.Kind() != reflect.Struct {
			continue
		}
		for _, f := range reflect.VisibleFields(t) {
			field, _, ok := request.Field(f)
			if property := schema.Properties[field]; ok && property != nil {
				listed(property, f.Type, f.Tag)
			}
		}
	}
}

// listed lists the values of a field's type, of each item where it is a list or a table.
func listed(s *huma.Schema, t reflect.Type, tag reflect.StructTag) {
	switch t.Kind() {
	case reflect.Pointer:
		listed(s, t.Elem(), tag)
	case reflect.Slice:
		if s.Items != nil {
			listed(s.Items, t.Elem(), tag)
		}
	case reflect.Map:
		if of, ok := s.AdditionalProperties.(*huma.Schema); ok {
			listed(of, t.Elem(), tag)
		}
	case reflect.String:
		values := request.ValuesOf(t, tag)
		if s.Enum != nil || len(values) == 0 {
			return
		}
		for _, v := range values {
			s.Enum = append(s.Enum, v)
		}
		s.PrecomputeMessages()
	}
}
