package request

import (
	"maps"
	"reflect"
	"slices"
	"strconv"
	"strings"
	"sync"
)

// A rule is what a type and the tags of its field ask of a value. Reading tags takes longer than
// following them, so each rule is made once.
type rule struct {
	t   reflect.Type // never a pointer
	tag reflect.StructTag

	values                             []string // a text is one of them, where there are any
	minimum, exclusiveMinimum, maximum bound
	minItems, maxItems                 bound
	minLength, maxLength               bound

	fields func() *fields // of a struct, read when one is first checked: types may hold themselves
}

// A bound is a number that a tag may state.
type bound struct {
	of     float64
	isSaid bool
}

type ruleKey struct {
	t   reflect.Type
	tag reflect.StructTag
}

var rules sync.Map // of *rule by ruleKey

func ruleOf(t reflect.Type, tag reflect.StructTag) *rule {
	key := ruleKey{t, tag}
	if known, ok := rules.Load(key); ok {
		return known.(*rule)
	}
	for t.Kind() == reflect.Pointer {
		t = t.Elem()
	}
	stated := func(name string) bound {
		v, err := strconv.ParseFloat(tag.Get(name), 64)
		return bound{v, err == nil}
	}
	r := &rule{
		t: t, tag: tag,
		minimum: stated("minimum"), exclusiveMinimum: stated("exclusiveMinimum"), maximum: stated("maximum"),
		minItems: stated("minItems"), maxItems: stated("maxItems"),
		minLength: stated("minLength"), maxLength: stated("maxLength"),
		fields: sync.OnceValue(func() *fields { return fieldsOf(t) }),
	}
	if t.Kind() == reflect.String {
		r.values = ValuesOf(t, tag)
	}
	rules.Store(key, r)
	return r
}

func (r *rule) holds(v float64) bool {
	switch {
	case r.minimum.isSaid && v < r.minimum.of:
		return false
	case r.exclusiveMinimum.isSaid && v <= r.exclusiveMinimum.of:
		return false
	}
	return !r.maximum.isSaid || v <= r.maximum.of
}

// allowed says in words what a field takes.
func (r *rule) allowed() string {
	text := "a value"
	switch r.t.Kind() {
	case reflect.Float64:
		text = "a number" + rangeWords(r.tag)
	case reflect.Int, reflect.Int64:
		text = "a whole number" + rangeWords(r.tag)
	case reflect.String:
		text = "a text"
		if len(r.values) > 0 {
			text = oneOf(r.values)
		}
	case reflect.Slice:
		text = "a list"
	case reflect.Struct:
		text = "an object"
	}
	if doc := r.tag.Get("doc"); doc != "" {
		text += " (" + doc + ")"
	}
	return text
}

func rangeWords(tag reflect.StructTag) string {
	least, most, above := tag.Get("minimum"), tag.Get("maximum"), tag.Get("exclusiveMinimum")
	switch {
	case above != "" && most != "":
		return " above " + above + " and up to " + most
	case least != "" && most != "":
		return " from " + least + " to " + most
	case least != "":
		return " from " + least
	}
	return ""
}

// fields are the JSON fields of a struct type, those of embedded structs included.
type fields struct {
	inOrder []field // of their names
	known   map[string]bool
	names   string
}

type field struct {
	name       string
	rule       *rule
	isOptional bool
}

func fieldsOf(t reflect.Type) *fields {
	byName := map[string]field{}
	known := map[string]bool{}
	for _, f := range reflect.VisibleFields(t) {
		if name, isOptional, ok := Field(f); ok {
			byName[name] = field{name, ruleOf(f.Type, f.Tag), isOptional}
			known[name] = true
		}
	}
	names := slices.Sorted(maps.Keys(known))
	all := &fields{known: known, names: strings.Join(names, ", ")}
	for _, name := range names {
		all.inOrder = append(all.inOrder, byName[name])
	}
	return all
}

// unknown returns the names that are given and are none of the fields, in order.
func (f *fields) unknown(given map[string]any) []string {
	var names []string
	for name := range given {
		if !f.known[name] {
			names = append(names, name)
		}
	}
	slices.Sort(names)
	return names
}
