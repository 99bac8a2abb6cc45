package request

import (
	"encoding/json"
	"fmt"
	"maps"
	"math"
	"reflect"
	"slices"
	"strconv"
	"strings"
	"time"
	"unicode"
	"unicode/utf8"

	"pinhole/core/problem"
)

// maxFaults bounds how many faults are listed; nobody mends more in one go.
const maxFaults = 20

// check compares a decoded JSON value with the type of target and its tags.
func check(target, raw any) []problem.Fault {
	c := checker{}
	c.value("", reflect.TypeOf(target).Elem(), "", raw)
	return c.faults
}

// longestPath bounds how much of a path is said back: it holds names that were sent.
const longestPath = 200

type checker struct{ faults []problem.Fault }

func (c *checker) fault(path string, value any, allowed string) {
	if len(c.faults) < maxFaults {
		if path == "" {
			path = "the request"
		}
		if len(path) > longestPath {
			path = strings.ToValidUTF8(path[:longestPath], "") + "…"
		}
		c.faults = append(c.faults, problem.Fault{Field: path, Value: value, Allowed: allowed})
	}
}

// Years of instants: the days beside any of them, and each in any zone, can be written too.
const firstYear, lastYear = 1900, 2200

var instant = reflect.TypeFor[time.Time]()

func (c *checker) value(path string, t reflect.Type, tag reflect.StructTag, raw any) {
	for t.Kind() == reflect.Pointer {
		t = t.Elem()
	}
	switch {
	case t == instant:
		text, ok := raw.(string)
		at, err := time.Parse(time.RFC3339, text)
		if !ok || err != nil {
			c.fault(path, raw, "an instant with its zone, as in 2031-09-20T07:30:00-01:00")
		} else if year := at.UTC().Year(); year < firstYear || year > lastYear {
			c.fault(path, raw, fmt.Sprintf("an instant from %d to %d", firstYear, lastYear))
		}
	case t.Kind() == reflect.Struct:
		c.object(path, t, raw)
	case t.Kind() == reflect.Slice:
		c.list(path, t, tag, raw)
	case t.Kind() == reflect.Map:
		c.table(path, t, tag, raw)
	case t.Kind() == reflect.String:
		c.text(path, t, tag, raw)
	case t.Kind() == reflect.Bool:
		if _, ok := raw.(bool); !ok {
			c.fault(path, raw, "true or false")
		}
	default:
		c.number(path, t, tag, raw)
	}
}

func (c *checker) object(path string, t reflect.Type, raw any) {
	given, ok := raw.(map[string]any)
	if !ok {
		c.fault(path, raw, "an object with the fields "+strings.Join(slices.Sorted(maps.Keys(fieldsOf(t))), ", "))
		return
	}
	fields := fieldsOf(t)
	for _, name := range slices.Sorted(maps.Keys(given)) {
		if _, known := fields[name]; !known {
			c.fault(join(path, name), given[name], "no such field; the fields are "+strings.Join(slices.Sorted(maps.Keys(fields)), ", "))
		}
	}
	for _, name := range slices.Sorted(maps.Keys(fields)) {
		f := fields[name]
		if v := given[name]; v != nil {
			c.value(join(path, name), f.Type, f.Tag, v)
		} else if _, isOptional, _ := Field(f); !isOptional {
			c.fault(join(path, name), nil, allowedBy(f.Type, f.Tag))
		}
	}
}

func join(path, name string) string {
	if path == "" {
		return name
	}
	return path + "." + name
}

// fieldsOf returns the JSON fields of a struct type, those of embedded structs
// included.
func fieldsOf(t reflect.Type) map[string]reflect.StructField {
	fields := map[string]reflect.StructField{}
	for _, f := range reflect.VisibleFields(t) {
		if name, _, ok := Field(f); ok {
			fields[name] = f
		}
	}
	return fields
}

// Field returns the JSON name of a struct's field and whether it may be left out;
// ok is false for a field that JSON does not see.
func Field(f reflect.StructField) (name string, isOptional, ok bool) {
	name, options, _ := strings.Cut(f.Tag.Get("json"), ",")
	return name, strings.Contains(options, "omitempty") || strings.Contains(options, "omitzero"), name != "" && name != "-"
}

func (c *checker) list(path string, t reflect.Type, tag reflect.StructTag, raw any) {
	items, ok := raw.([]any)
	if !ok {
		c.fault(path, raw, "a list")
		return
	}
	if most, ok := tagInt(tag, "maxItems"); ok && len(items) > most {
		c.fault(path, fmt.Sprintf("%d items", len(items)), fmt.Sprintf("at most %d", most))
		return
	}
	if least, ok := tagInt(tag, "minItems"); ok && len(items) < least {
		c.fault(path, fmt.Sprintf("%d items", len(items)), fmt.Sprintf("at least %d", least))
	}
	// An enum or a bound on a list is one on each of its items.
	for i, item := range items {
		c.value(fmt.Sprintf("%s[%d]", path, i), t.Elem(), tag, item)
	}
}

func (c *checker) table(path string, t reflect.Type, tag reflect.StructTag, raw any) {
	given, ok := raw.(map[string]any)
	if !ok {
		c.fault(path, raw, "an object")
		return
	}
	for _, name := range slices.Sorted(maps.Keys(given)) {
		c.value(join(path, name), t.Elem(), tag, given[name])
	}
}

// longestText bounds a text whose field states no bound, in characters.
const longestText = 2000

func (c *checker) text(path string, t reflect.Type, tag reflect.StructTag, raw any) {
	text, ok := raw.(string)
	if !ok {
		c.fault(path, raw, "a text")
		return
	}
	if controls(text) {
		c.fault(path, text, "a text without control characters; lines end as usual")
		return
	}
	if values := ValuesOf(t, tag); len(values) > 0 && !slices.Contains(values, text) {
		c.fault(path, text, oneOf(values))
		return
	}
	most, ok := tagInt(tag, "maxLength")
	if !ok {
		most = longestText
	}
	if n := utf8.RuneCountInString(text); n > most {
		c.fault(path, text, fmt.Sprintf("at most %d characters, not %d", most, n))
	}
	if least, ok := tagInt(tag, "minLength"); ok && len(strings.TrimSpace(text)) < least {
		c.fault(path, text, "a text that is not blank")
	}
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

func (c *checker) number(path string, t reflect.Type, tag reflect.StructTag, raw any) {
	n, ok := raw.(json.Number)
	if !ok {
		c.fault(path, raw, allowedBy(t, tag))
		return
	}
	v, err := n.Float64()
	whole := t.Kind() != reflect.Float64
	if err != nil || whole && v != math.Trunc(v) || !withinTags(v, tag) {
		c.fault(path, n, allowedBy(t, tag))
	}
}

func withinTags(v float64, tag reflect.StructTag) bool {
	if least, ok := tagFloat(tag, "minimum"); ok && v < least {
		return false
	}
	if above, ok := tagFloat(tag, "exclusiveMinimum"); ok && v <= above {
		return false
	}
	if most, ok := tagFloat(tag, "maximum"); ok && v > most {
		return false
	}
	return true
}

// allowedBy says in words what a field takes.
func allowedBy(t reflect.Type, tag reflect.StructTag) string {
	for t.Kind() == reflect.Pointer {
		t = t.Elem()
	}
	text := "a value"
	switch t.Kind() {
	case reflect.Float64:
		text = "a number" + rangeWords(tag)
	case reflect.Int, reflect.Int64:
		text = "a whole number" + rangeWords(tag)
	case reflect.String:
		text = "a text"
		if values := ValuesOf(t, tag); len(values) > 0 {
			text = oneOf(values)
		}
	case reflect.Slice:
		text = "a list"
	case reflect.Struct:
		text = "an object"
	}
	if doc := tag.Get("doc"); doc != "" {
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

func tagInt(tag reflect.StructTag, key string) (int, bool) {
	v, err := strconv.Atoi(tag.Get(key))
	return v, err == nil
}

func tagFloat(tag reflect.StructTag, key string) (float64, bool) {
	v, err := strconv.ParseFloat(tag.Get(key), 64)
	return v, err == nil
}
