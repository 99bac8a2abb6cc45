package request

import "testing"

// The fast way reads what is right, whatever its texts hold, and leaves the rest to be named.
func TestFastReadingSeesEveryFieldOnce(t *testing.T) {
	for body, isRead := range map[string]bool{
		`{"a":1,"b":{"c":[{"d":2},{"d":3}]}}`:   true,
		` {"a":"x:y","b:c":"\"d\":\\","e":""} `: true,
		`[]`:                                    true,
		`{"a":1,"a":1}`:                         false,
		`{"a":1,"\u0061":2}`:                    false, // the same name, written in two ways
		`{"a":{"b":1,"c":":","b":2}}`:           false,
		`{"a":1} {"b":2}`:                       false,
		`{"a":`:                                 false,
		``:                                      false,
	} {
		if _, ok := readFast([]byte(body)); ok != isRead {
			t.Errorf("%s is read the fast way: %v, want %v", body, ok, isRead)
		}
	}
}
