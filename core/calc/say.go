package calc

import (
	"cmp"

	"pinhole/core/assemble"
	"pinhole/core/line"
)

// SayRequest is a shot that is to be written as a line.
type SayRequest struct {
	Camera string            `json:"camera,omitempty" maxLength:"100" doc:"its name"`
	Titles map[string]string `json:"titles,omitempty" doc:"what its filters are called, by id"`
	assemble.Asked
	Light assemble.ShotLight `json:"light"`
}

// SayAnswer is the line, and its parts where they stand in it.
type SayAnswer struct {
	Line  string      `json:"line" doc:"ask, with this shot's other wishes as last, reads it back"`
	Parts []line.Part `json:"parts"`
}

// Say answers say. What a line has no words for is left out.
func Say(r SayRequest) (*SayAnswer, error) {
	text := line.Say(r.Camera, r.Asked, r.Light, func(id string) string { return cmp.Or(r.Titles[id], id) }).String()
	s := line.Read(text, r.Camera)
	return &SayAnswer{Line: text, Parts: s.Parts}, nil
}
