package request

import (
	"fmt"
	"maps"
	"reflect"
	"slices"
	"strconv"
	"strings"
	"sync"
	"time"
	"unicode"
	"unicode/utf8"
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

	// Read when they are first asked for, as types may hold themselves: the fields of a struct, and
	// what holds of each item of a list or a table; an enum or a bound on those is one on each of them.
	fields func() *fields
	each   func() *rule
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
		each:   sync.OnceValue(func() *rule { return ruleOf(t.Elem(), tag) }),
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

// takesItems reports whether a list may have so many.
func (r *rule) takesItems(n int) bool {
	return (!r.maxItems.isSaid || float64(n) <= r.maxItems.of) && (!r.minItems.isSaid || float64(n) >= r.minItems.of)
}

// longestText bounds a text whose field states no bound, in characters.
const longestText = 2000

// text returns what a text is allowed to be where it is not, "" where it is.
func (r *rule) text(text string) (allowed string) {
	if controls(text) {
		return "a text without control characters; lines end as usual"
	}
	if len(r.values) > 0 && !slices.Contains(r.values, text) {
		return oneOf(r.values)
	}
	most := longestText
	if r.maxLength.isSaid {
		most = int(r.maxLength.of)
	}
	if n := utf8.RuneCountInString(text); n > most {
		return fmt.Sprintf("at most %d characters, not %d", most, n)
	}
	if least := r.minLength; least.isSaid && float64(len(strings.TrimSpace(text))) < least.of {
		return "a text that is not blank"
	}
	return ""
}

// controls reports whether a text has characters that no keyboard writes, a carriage return
// by itself among them: files that are written of it would break at them.
func controls(text string) bool {
	for i, r := range text {
		switch {
		case r == '\n', r == '\t', r == '\r' && strings.HasPrefix(text[i+1:], "\n"):
		case unicode.IsControl(r), r == '\u2028', r == '\u2029', r == '\ufeff' && i > 0:
			return true
		}
	}
	return false
}

func oneOf(values []string) string { return "one of " + strings.Join(values, ", ") }

// Years of instants: the days beside any of them, and each in any zone, can be written too.
const firstYear, lastYear = 1900, 2200

func isInYears(t time.Time) bool {
	year := t.UTC().Year()
	return year >= firstYear && year <= lastYear
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
	hash       uint64
	index      []int // in its struct
	rule       *rule
	isOptional bool
}

func fieldsOf(t reflect.Type) *fields {
	byName := map[string]field{}
	known := map[string]bool{}
	for _, f := range reflect.VisibleFields(t) {
		if name, isOptional, ok := Field(f); ok {
			byName[name] = field{name, hashOf(name), f.Index, ruleOf(f.Type, f.Tag), isOptional}
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
