package fit

import (
	"reflect"
	"testing"
	"time"
)

func day(n int) time.Time { return time.Date(2031, 9, n, 12, 0, 0, 0, time.UTC) }

func TestTrialsJoinBackToWhereTheFilterBecameAnother(t *testing.T) {
	yes, no, grams := true, false, 90.0
	seated := func(at int, wobbles *bool, grams *float64) PastTrial {
		return PastTrial{At: day(at), TrialFields: TrialFields{Seated: true, Wobbles: wobbles, PullOffG: grams}}
	}
	dropped := []Happening{{Dropped, day(4)}}
	tests := []struct {
		name    string
		trials  []PastTrial
		history []Happening
		want    *TrialFields
		stale   bool
	}{
		{"none", nil, nil, nil, false},
		{"the newer decides what both looked at", []PastTrial{seated(3, &no, nil), seated(1, &yes, &grams)}, nil, &TrialFields{Seated: true, Wobbles: &no, PullOffG: &grams}, false},
		{"dropped between", []PastTrial{seated(5, &no, nil), seated(3, &yes, &grams)}, dropped, &TrialFields{Seated: true, Wobbles: &no}, false},
		{"dropped after", []PastTrial{seated(3, &no, nil), seated(1, nil, &grams)}, dropped, nil, true},
		{"seats no longer", []PastTrial{{At: day(5)}, seated(3, &yes, &grams)}, nil, &TrialFields{}, false},
	}
	for _, test := range tests {
		got, stale := Join(test.trials, test.history)
		if !reflect.DeepEqual(got, test.want) || (stale != "") != test.stale {
			t.Errorf("%s: %+v, %q, want %+v", test.name, got, stale, test.want)
		}
	}
}

// A field that is added to a trial is one that an earlier trial can fill.
func TestEachFieldOfATrialIsFilled(t *testing.T) {
	earlier := TrialFields{Seated: true}
	fields := reflect.ValueOf(&earlier).Elem()
	for i := range fields.NumField() {
		if f := fields.Field(i); f.Kind() == reflect.Pointer {
			f.Set(reflect.New(f.Type().Elem()))
		}
	}
	got, _ := Join([]PastTrial{{At: day(2), TrialFields: TrialFields{Seated: true}}, {At: day(1), TrialFields: earlier}}, nil)
	if !reflect.DeepEqual(*got, earlier) {
		t.Errorf("%+v, want %+v", *got, earlier)
	}
}
