package files

import (
	"fmt"
	"io"
	"strings"
	"time"

	ics "github.com/arran4/golang-ical"

	"pinhole/internal/sheet"
)

// Plan is a plan as it is written to a file.
type Plan struct {
	Shoot string `json:"shoot"`
	Place string `json:"place,omitempty"`
	Zone  string `json:"zone"`
	Shots []Shot `json:"shots"`
	Swaps []Swap `json:"swaps"`
}

// Shot is one shot of a plan.
type Shot struct {
	ID      string    `json:"id"`
	Name    string    `json:"name"`
	Camera  string    `json:"camera"`
	From    time.Time `json:"from"`
	To      time.Time `json:"to"`
	Glass   string    `json:"glass"`
	Setting string    `json:"setting"`
	State   string    `json:"state"`
	Words   string    `json:"words"`
	Spare   string    `json:"spare,omitempty"`
}

// Swap is one change of glass.
type Swap struct {
	ID     string     `json:"id" doc:"the same for the same change of the same shot"`
	Camera string     `json:"camera"`
	At     time.Time  `json:"at"`
	From   string     `json:"from"`
	To     string     `json:"to"`
	Latest *time.Time `json:"latest,omitempty"`
	Why    string     `json:"why"`
}

// Minutes before a shot and a swap at which their alarms ring.
const (
	shotAlarmMin = 30
	swapAlarmMin = 10
)

// WriteCalendar writes a plan as iCalendar (RFC 5545): an event for each shot and each
// swap, with an alarm, in UTC so that every calendar shows them in its own zone. Ids
// are stable: importing again updates.
func WriteCalendar(w io.Writer, p Plan, now time.Time) error {
	c := ics.NewCalendarFor("Pinhole")
	c.SetMethod(ics.MethodPublish)
	c.SetXWRCalName(p.Shoot)
	add := func(id, title, description string, from, to time.Time, alarmMin int) {
		e := c.AddEvent(id + "@pinhole")
		e.SetDtStampTime(now)
		e.SetModifiedAt(now)
		e.SetSequence(int(now.Unix() / 60)) // a later writing is a newer version
		e.SetStartAt(from)
		e.SetEndAt(to)
		e.SetSummary(title)
		e.SetDescription(description)
		if p.Place != "" {
			e.SetLocation(p.Place)
		}
		alarm := e.AddAlarm()
		alarm.SetAction(ics.ActionDisplay)
		alarm.SetTrigger(fmt.Sprintf("-PT%dM", alarmMin))
		alarm.SetProperty(ics.ComponentPropertyDescription, title)
	}
	for _, s := range p.Shots {
		add(s.ID, s.Name+": "+s.Glass, strings.Join([]string{s.Camera, s.Setting, s.Words}, "\n"), s.From, s.To, shotAlarmMin)
	}
	for _, s := range p.Swaps {
		add(s.ID, fmt.Sprintf("Swap on %s: %s for %s", s.Camera, s.To, s.From), s.Why+"\nPower off or disarm first.", s.At.Add(-swapAlarmMin*time.Minute), s.At, swapAlarmMin)
	}
	if err := c.SerializeTo(w, ics.WithNewLineWindows); err != nil {
		return fmt.Errorf("write the calendar: %w", err)
	}
	return nil
}

// WritePlanCSV writes a plan as a table, shots and swaps in order of time. A cell that
// a spreadsheet would run is written behind an apostrophe.
func WritePlanCSV(w io.Writer, p Plan) error {
	rows := [][]string{{"what", "from", "to", "name", "camera", "glass", "setting", "state", "spare", "note"}}
	stamp := func(t time.Time) string { return t.Format(time.RFC3339) }
	s, x := 0, 0
	for s < len(p.Shots) || x < len(p.Swaps) {
		if x < len(p.Swaps) && (s == len(p.Shots) || !p.Swaps[x].At.After(p.Shots[s].From)) {
			swap := p.Swaps[x]
			latest := ""
			if swap.Latest != nil {
				latest = stamp(*swap.Latest)
			}
			rows = append(rows, []string{"swap", latest, stamp(swap.At), "", swap.Camera, swap.From + " → " + swap.To, "", "", "", swap.Why})
			x++
			continue
		}
		shot := p.Shots[s]
		rows = append(rows, []string{"shot", stamp(shot.From), stamp(shot.To), shot.Name, shot.Camera, shot.Glass, shot.Setting, shot.State, shot.Spare, shot.Words})
		s++
	}
	for _, row := range rows {
		for i, cell := range row {
			row[i] = sheet.Guarded(cell)
		}
	}
	if err := sheet.Write(w, rows); err != nil {
		return fmt.Errorf("write the plan: %w", err)
	}
	return nil
}
