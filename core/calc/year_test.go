package calc

import (
	"fmt"
	"pinhole/core/assemble"
	"pinhole/core/day"
	"strings"
	"testing"
	"time"

	"pinhole/core/light"
	"pinhole/core/stop"
)

const aYear = `{"days":[%s],"latDeg":38.4,"lonDeg":-20.5,"sky":"clear","hours":[0,7.5,12.25],"evSet":7.64,"isoHeadroomStops":4,
	"stacks":[{"id":"none","name":"No glass","stops":0},{"id":"8","name":"ND8","stops":3},{"id":"128","name":"ND128","stops":7}]}`

// weeks are the weeks of a year on the made-up island, as local midnights.
func weeks() []time.Time {
	var all []time.Time
	for day := time.Date(2031, 1, 1, 0, 0, 0, 0, time.FixedZone("", -3600)); day.Year() == 2031; day = day.AddDate(0, 0, 7) {
		all = append(all, day)
	}
	return all
}

func TestAYearOfLight(t *testing.T) {
	var texts []string
	for _, day := range weeks() {
		texts = append(texts, `"`+day.Format(time.RFC3339)+`"`)
	}
	a := ask[day.YearAnswer](t, "year", fmt.Sprintf(aYear, strings.Join(texts, ",")))
	if len(a.Weeks) != 53 || a.Weeks[0].From != "2031-01-01" || len(a.Weeks[0].Cells) != 3 {
		t.Fatalf("%d weeks, the first %+v", len(a.Weeks), a.Weeks[0])
	}
	winter, summer := a.Weeks[0].Cells, a.Weeks[24].Cells
	if winter[1].EV100 >= summer[1].EV100 || winter[0].NeedStops > 0 || winter[0].Stack != "none" || winter[0].IsServed {
		t.Errorf("winter %+v, summer %+v", winter, summer)
	}
	if summer[2].Stack != "128" || !summer[2].IsServed {
		t.Errorf("a summer noon is served by %+v", summer[2])
	}
	served := 0
	for _, c := range a.Calls {
		served += c.Cells
	}
	if served == 0 || a.Calls[0].Name != "ND128" {
		t.Errorf("calls %+v", a.Calls)
	}
	op, _ := Named("year")
	if _, err := op.Run([]byte(fmt.Sprintf(aYear, `"1931-01-01T00:00:00Z"`))); err == nil || !strings.Contains(err.Error(), "days[0]") {
		t.Errorf("a year before the formulas hold gives %v", err)
	}
}

func BenchmarkYear(b *testing.B) {
	r := day.YearRequest{Days: weeks(), PlaceFields: assemble.PlaceFields{LatDeg: 38.4, LonDeg: -20.5}, Sky: light.ClearSky, EVSet: 7.6}
	for h := range 24 {
		r.Hours = append(r.Hours, float64(h))
	}
	for s := range 60 {
		r.Stacks = append(r.Stacks, day.OutingStack{Stack: day.Stack{ID: string(rune('a' + s)), Stops: stop.Stops(s) / 6}})
	}
	b.Run("year", func(b *testing.B) {
		b.ReportAllocs()
		for b.Loop() {
			if _, err := day.Year(b.Context(), r); err != nil {
				b.Fatal(err)
			}
		}
	})
	b.Run("baseline-without-glass", func(b *testing.B) {
		b.ReportAllocs()
		bare := r
		bare.Stacks = nil
		for b.Loop() {
			if _, err := day.Year(b.Context(), bare); err != nil {
				b.Fatal(err)
			}
		}
	})
}

// The best hour of the day is better than any other that is tried, and the headings a
// quarter turn from the sun are where the sky darkens most at that instant.
func TestTheBestOfAPolarisersDay(t *testing.T) {
	const request = `{"at":"2031-09-20T%s:00-01:00","latDeg":38.4,"lonDeg":-20.5,"cameraAltitudeDeg":0,"cameraAzimuthDeg":%v,"hfovDeg":60,"water":true}`
	day := ask[PolariserDayAnswer](t, "polariser-day", fmt.Sprintf(request, "09:00", 0))
	if day.BestAt == nil || day.Now.GlareLeft == nil {
		t.Fatalf("%+v", day)
	}
	for hour := range 11 {
		at := ask[PolariserDayAnswer](t, "polariser-day", fmt.Sprintf(request, fmt.Sprintf("%02d:00", hour+7), 0))
		if at.Now.Centre > day.BestCentre+1e-9 {
			t.Errorf("at %d:00 it does %v, at its best %v", hour+7, at.Now.Centre, day.BestCentre)
		}
	}
	best := ask[PolariserDayAnswer](t, "polariser-day", fmt.Sprintf(request, "09:00", float64(day.BestHeadingsDeg[0])))
	for heading := 0; heading < 360; heading += 15 {
		if other := ask[PolariserDayAnswer](t, "polariser-day", fmt.Sprintf(request, "09:00", heading)); other.Now.Centre > best.Now.Centre+1e-9 {
			t.Errorf("toward %d° it does %v, toward %v %v", heading, other.Now.Centre, day.BestHeadingsDeg[0], best.Now.Centre)
		}
	}
	if night := ask[PolariserDayAnswer](t, "polariser-day", `{"at":"2031-12-21T12:00:00Z","latDeg":85,"lonDeg":0,"cameraAltitudeDeg":0,"cameraAzimuthDeg":0,"hfovDeg":60}`); night.BestAt != nil {
		t.Errorf("in the polar night it does most at %v", night.BestAt)
	}
}
