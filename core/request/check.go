package request

import (
	"encoding/json"
	"fmt"
	"maps"
	"math"
	"reflect"
	"slices"
	"strings"
	"time"

	"pinhole/core/problem"
)

// maxFaults bounds how many faults are listed; nobody mends more in one go.
const maxFaults = 20

// check compares a decoded JSON value with the type of target and its tags.
func check(target, raw any) []problem.Fault {
	c := checker{}
	c.value(nil, ruleOf(reflect.TypeOf(target).Elem(), ""), raw)
	return c.faults
}

// longestPath bounds how much of a path is said back: it holds names that were sent.
const longestPath = 200

// A place is where in a request a value stands: a name in an object, or an index in a list. It is
// written out for a fault alone.
type place struct {
	in    *place
	name  string
	index int // of an item, which has no name
}

func (p *place) String() string {
	switch {
	case p == nil:
		return ""
	case p.name == "":
		return fmt.Sprintf("%s[%d]", p.in, p.index)
	case p.in == nil:
		return p.name
	}
	return p.in.String() + "." + p.name
}

type checker struct{ faults []problem.Fault }

func (c *checker) fault(at *place, value any, allowed string) {
	if len(c.faults) < maxFaults {
		path := at.String()
		if path == "" {
			path = "the request"
		}
		if len(path) > longestPath {
			path = strings.ToValidUTF8(path[:longestPath], "") + "…"
		}
		c.faults = append(c.faults, problem.Fault{Field: path, Value: value, Allowed: allowed})
	}
}

var instant = reflect.TypeFor[time.Time]()

func (c *checker) value(at *place, r *rule, raw any) {
	switch {
	case r.t == instant:
		c.instant(at, raw)
	case r.t.Kind() == reflect.Struct:
		c.object(at, r, raw)
	case r.t.Kind() == reflect.Slice:
		c.list(at, r, raw)
	case r.t.Kind() == reflect.Map:
		c.table(at, r, raw)
	case r.t.Kind() == reflect.String:
		c.text(at, r, raw)
	case r.t.Kind() == reflect.Bool:
		if _, ok := raw.(bool); !ok {
			c.fault(at, raw, "true or false")
		}
	default:
		c.number(at, r, raw)
	}
}

func (c *checker) instant(at *place, raw any) {
	text, ok := raw.(string)
	moment, err := time.Parse(time.RFC3339, text)
	if !ok || err != nil {
		c.fault(at, raw, "an instant with its zone, as in 2031-09-20T07:30:00-01:00")
	} else if !isInYears(moment) {
		c.fault(at, raw, fmt.Sprintf("an instant from %d to %d", firstYear, lastYear))
	}
}

func (c *checker) object(at *place, r *rule, raw any) {
	fields := r.fields()
	given, ok := raw.(map[string]any)
	if !ok {
		c.fault(at, raw, "an object with the fields "+fields.names)
		return
	}
	for _, name := range fields.unknown(given) {
		c.fault(&place{in: at, name: name}, given[name], "no such field; the fields are "+fields.names)
	}
	for _, f := range fields.inOrder {
		if v := given[f.name]; v != nil {
			c.value(&place{in: at, name: f.name}, f.rule, v)
		} else if !f.isOptional {
			c.fault(&place{in: at, name: f.name}, nil, f.rule.allowed())
		}
	}
}

// Field returns the JSON name of a struct's field and whether it may be left out;
// ok is false for a field that JSON does not see.
func Field(f reflect.StructField) (name string, isOptional, ok bool) {
	name, options, _ := strings.Cut(f.Tag.Get("json"), ",")
	return name, strings.Contains(options, "omitempty") || strings.Contains(options, "omitzero"), name != "" && name != "-"
}

func (c *checker) list(at *place, r *rule, raw any) {
	items, ok := raw.([]any)
	if !ok {
		c.fault(at, raw, "a list")
		return
	}
	if most := r.maxItems; most.isSaid && float64(len(items)) > most.of {
		c.fault(at, fmt.Sprintf("%d items", len(items)), fmt.Sprintf("at most %.0f", most.of))
		return
	}
	if least := r.minItems; least.isSaid && float64(len(items)) < least.of {
		c.fault(at, fmt.Sprintf("%d items", len(items)), fmt.Sprintf("at least %.0f", least.of))
	}
	each := r.each()
	for i, item := range items {
		c.value(&place{in: at, index: i}, each, item)
	}
}

func (c *checker) table(at *place, r *rule, raw any) {
	given, ok := raw.(map[string]any)
	if !ok {
		c.fault(at, raw, "an object")
		return
	}
	each := r.each()
	for _, name := range slices.Sorted(maps.Keys(given)) {
		c.value(&place{in: at, name: name}, each, given[name])
	}
}

func (c *checker) text(at *place, r *rule, raw any) {
	text, ok := raw.(string)
	if !ok {
		c.fault(at, raw, "a text")
		return
	}
	if allowed := r.text(text); allowed != "" {
		c.fault(at, text, allowed)
	}
}

func (c *checker) number(at *place, r *rule, raw any) {
	n, ok := raw.(json.Number)
	if !ok {
		c.fault(at, raw, r.allowed())
		return
	}
	v, err := n.Float64()
	isWhole := r.t.Kind() != reflect.Float64
	if err != nil || isWhole && v != math.Trunc(v) || !r.holds(v) {
		c.fault(at, n, r.allowed())
	}
}
