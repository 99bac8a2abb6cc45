package service

import (
	"encoding/json"
	"fmt"
	"strings"
	"testing"
	"time"

	"pinhole/core/calc"
	"pinhole/core/card"
	"pinhole/internal/store"
)

// More glass than can be weighed: what is typed is stored all the same, and says why it has
// no answer.
func TestAKitOfAnySizeKeepsItsShots(t *testing.T) {
	h := hold(t)
	for n := range 210 {
		keep[store.Filter](t)(h.Store.Filters().Save(t.Context(), store.Filter{FilterFields: store.FilterFields{Label: "ND8", Name: fmt.Sprint(n), Cameras: []string{h.cameraID}}}))
	}
	shot := gearShot(t, h)
	saved := keep[store.Shot](t)(h.SaveShot(t.Context(), shot))
	if !strings.Contains(saved.Answer.Unanswered, "more than 5000 stacks") || len(saved.Answer.Given.Chosen.Filters) > 0 || saved.Answer.Given.Shutter.Text == "" {
		t.Errorf("it is answered with %+v", saved.Answer)
	}
	for _, c := range keep[[]calc.AskCamera](t)(h.Askable(t.Context())) {
		body, err := json.Marshal(calc.AskRequest{Line: "EV 14 > 25", Cameras: []calc.AskCamera{c}})
		if err != nil {
			t.Fatal(err)
		}
		if op, _ := calc.Named("ask"); op.Name != "ask" {
			t.Fatal("no ask")
		} else if _, err := op.Run(body); err != nil {
			t.Errorf("a line beside %s is refused: %v", c.Name, err)
		}
	}
	saved.Name = "still typed"
	if again := keep[store.Shot](t)(h.SaveShot(t.Context(), saved)); again.Name != "still typed" {
		t.Errorf("a change is stored as %+v", again)
	}
}

// A long field log does not keep a card from its shoot.
func TestALongLogStillMakesACard(t *testing.T) {
	at := time.Date(2031, 9, 20, 8, 0, 0, 0, time.UTC)
	var log []store.FieldEntry
	for n := range 20_000 {
		kind := "tick"
		if n%2 == 1 {
			kind = "untick"
		}
		log = append(log, store.FieldEntry{FieldEntryFields: store.FieldEntryFields{Kind: kind, At: at.Add(time.Duration(n) * time.Second), Turn: fmt.Sprint("turn ", n%700), Step: fmt.Sprint("step ", n%3)}})
	}
	marks := marksOf(log)
	if len(marks) > marksOfCard {
		t.Fatalf("a card is given %d marks", len(marks))
	}
	last := map[string]card.CardMark{}
	for _, m := range marks {
		last[m.Turn+m.Step] = m
	}
	for _, e := range log[len(log)-2100:] { // the last of every step
		if got := last[e.Turn+e.Step]; got.At.Before(e.At) {
			t.Fatalf("of %s, %s the last mark is of %v, want %v", e.Turn, e.Step, got.At, e.At)
		}
	}
}
