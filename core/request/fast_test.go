package request

import (
	"encoding/json"
	"fmt"
	"maps"
	"math/rand/v2"
	"reflect"
	"slices"
	"strings"
	"testing"
	"time"
)

// everyKind has a member of each kind, some of which must be given.
type everyKind struct {
	Name    string     `json:"name" minLength:"1" maxLength:"8"`
	Kind    string     `json:"kind,omitempty" enum:"nd,variable"`
	Stops   float64    `json:"stops" minimum:"0" maximum:"20"`
	Layers  int        `json:"layers,omitempty" minimum:"1"`
	IsOn    *bool      `json:"isOn,omitempty"`
	At      time.Time  `json:"at,omitzero"`
	Inner   *everyKind `json:"inner,omitempty"`
	Choices struct {
		Most float64 `json:"most,omitempty" exclusiveMinimum:"0"`
	} `json:"choices"`
	Kit    []everyKind        `json:"kit,omitempty" maxItems:"3"`
	Rates  []float64          `json:"rates,omitempty" minItems:"1" minimum:"1"`
	ByName map[string]float64 `json:"byName,omitempty" maximum:"9"`
}

const right = `{"name":"a:\"b","stops":0,"kind":"nd","layers":2,"isOn":false,"at":"2031-09-20T07:30:00-01:00","choices":{},
	"inner":{"name":"c","stops":3.5,"choices":{"most":2}},"kit":[{"name":"d","stops":1,"choices":{}},{"name":"e","stops":0,"choices":{}}],
	"rates":[25,50],"byName":{"x":1,"y:":2}}`

// What the fast way reads is what the slow way reads and finds nothing wrong with.
func TestTheFastWayReadsAsTheSlowWay(t *testing.T) {
	random := rand.New(rand.NewPCG(1, 2))
	var whole any
	if err := json.Unmarshal([]byte(right), &whole); err != nil {
		t.Fatal(err)
	}
	read := 0
	for range 20_000 {
		body := []byte(spoilt(random, whole))
		var fast, slow everyKind
		if !decodeFast(body, &fast) {
			continue
		}
		read++
		raw, err := readValue(body)
		if err != nil {
			t.Fatalf("%s: %v", body, err)
		}
		if faults := check(&slow, raw); len(faults) > 0 {
			t.Fatalf("%s: %v", body, faults)
		}
		if err := json.Unmarshal(body, &slow); err != nil || !reflect.DeepEqual(fast, slow) {
			t.Fatalf("%s: %+v, %+v, %v", body, fast, slow, err)
		}
	}
	if read < 1000 {
		t.Errorf("only %d of the requests were read the fast way", read)
	}
}

// spoilt writes a value with something wrong now and then.
func spoilt(random *rand.Rand, v any) string {
	if random.IntN(40) == 0 {
		others := []string{"null", "0", "-1", "99", "1e999", `""`, `"far too long a text"`, "true", "[]", "{}", "[null]", `"2031-09-20T07:30:00Z"`, `"\u0007"`}
		return others[random.IntN(len(others))]
	}
	switch v := v.(type) {
	case map[string]any:
		var members []string
		for _, name := range slices.Sorted(maps.Keys(v)) {
			member := fmt.Sprintf("%q:%s", name, spoilt(random, v[name]))
			switch random.IntN(80) {
			case 0:
				continue
			case 1:
				member += "," + member
			case 2:
				member = strings.ToUpper(member)
			case 3:
				member = `"\u006` + member[1:]
			case 4:
				member += `,"stops":0`
			}
			members = append(members, member)
		}
		return "{" + strings.Join(members, ", ") + "}"
	case []any:
		var items []string
		for _, item := range v {
			items = append(items, spoilt(random, item))
		}
		return "[" + strings.Join(items, ",") + "]"
	}
	text, _ := json.Marshal(v)
	return string(text)
}

// Requests as the page sends them are read the fast way; what a value does not tell is not.
func TestWhatIsReadTheFastWay(t *testing.T) {
	kit := func(first, second string) string {
		return `{"name":"a","stops":1,"choices":{},"kit":[` + first + "," + second + "]}"
	}
	for body, isRead := range map[string]bool{
		right:                                 true,
		`{"name":"a","stops":0,"choices":{}}`: true,
		`{"name":"a","stops":0,"choices":{},"layers":0}`:                                             false, // given, or left out?
		`{"name":"a","stops":0,"choices":{},"NAME":"b"}`:                                             false,
		`{"NAME":"a","stops":0,"choices":{}}`:                                                        false,
		`{"name":"a","stops":0,"stops":0,"choices":{}}`:                                              false,
		`{"name":"a","choices":{}}`:                                                                  false,
		`{"name":"a","stops":0,"choices":{"stops":0}}`:                                               false,
		kit(`{"name":"b","stops":0,"choices":{}}`, `{"name":"c","stops":0,"choices":{}}`):            true,
		kit(`{"name":"b","stops":0,"stops":0,"choices":{}}`, `{"name":"c","choices":{}}`):            false,
		kit(`{"name":"b","choices":{},"inner":{"name":"c","stops":0,"stops":0,"choices":{}}}`, `{}`): false,
		`{"name":"a","stops":0,"choices":{}} {}`:                                                     false,
		`[]`:                                                                                         false,
		``:                                                                                           false,
	} {
		var into everyKind
		if ok := decodeFast([]byte(body), &into); ok != isRead {
			t.Errorf("%s is read the fast way: %v, want %v", body, ok, isRead)
		}
	}
}
