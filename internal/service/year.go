package service

import (
	"context"
	"pinhole/core/day"
	"pinhole/core/glass"
	"slices"
	"time"

	"pinhole/core/problem"
)

// YearOf is a place through a year, at the hours at which a shoot's camera shoots.
type YearOf struct {
	Camera string         `json:"camera"`
	Hours  []string       `json:"hours" doc:"of the local clock, as in 07:30"`
	Answer day.YearAnswer `json:"answer"`
	Stacks []YearStack    `json:"stacks"`
}

// YearStack is glass as it is called and how dark it is.
type YearStack struct {
	ID    string  `json:"id"`
	Name  string  `json:"name"`
	Stops float64 `json:"stops"`
}

// hourGrid is how finely the hours are told apart, and mostHours how many are shown.
const (
	hourGrid  = 30 * time.Minute
	mostHours = 12
)

// Year returns the year at the place of a shoot, for one of its cameras: the hours of
// its shots, and noon, with the setting of the first of them.
func (svc *Service) Year(ctx context.Context, shootID, cameraID string) (*YearOf, error) {
	shoot, err := svc.Day(ctx, shootID)
	if err != nil {
		return nil, err
	}
	if shoot.Request.Place == nil {
		return nil, &problem.Fault{Field: "shoot", Value: shootID, Allowed: "a shoot whose place is known"}
	}
	var shots []day.OutingShot
	for _, s := range shoot.Request.Shots {
		if cameraID == "" {
			cameraID = s.CameraID
		}
		if s.CameraID == cameraID {
			shots = append(shots, s)
		}
	}
	if len(shots) == 0 {
		return nil, &problem.Fault{Field: "camera", Value: cameraID, Allowed: "a camera with a shot that has a time"}
	}
	first := shots[0]
	r := day.YearRequest{PlaceFields: *shoot.Request.Place, Sky: shoot.Request.Sky, Surface: shoot.Request.Surface, EVSet: first.EVSet, Stacks: []day.OutingStack{},
		Look: first.Look, Scene: first.Scene, Choices: *first.Choices}
	for i := range shoot.Request.Held {
		if h := &shoot.Request.Held[i]; h.CameraID == cameraID && h.RigID == first.RigID {
			r.Held = h
		}
	}
	for _, s := range shoot.Request.Stacks {
		if s.CameraID == cameraID && s.RigID == first.RigID && glass.SameIDs(s.Effects, first.Choices.Required) {
			r.Stacks = append(r.Stacks, s)
		}
	}
	hours := []float64{12}
	for _, s := range shots {
		from := s.From.Round(hourGrid)
		hours = append(hours, float64(from.Hour())+float64(from.Minute())/60)
	}
	slices.Sort(hours)
	r.Hours = slices.Compact(hours)
	r.Hours = r.Hours[:min(len(r.Hours), mostHours)]
	from := shoot.Request.From
	for at := time.Date(from.Year(), 1, 1, 0, 0, 0, 0, from.Location()); at.Year() == from.Year(); at = at.AddDate(0, 0, 7) {
		r.Days = append(r.Days, at)
	}
	a, err := day.Year(ctx, r)
	if err != nil {
		return nil, err
	}
	out := &YearOf{Camera: shoot.Cameras[cameraID], Answer: *a, Hours: []string{}, Stacks: []YearStack{}}
	for _, h := range r.Hours {
		out.Hours = append(out.Hours, time.Time{}.Add(time.Duration(h*float64(time.Hour))).Format("15:04"))
	}
	for _, s := range r.Stacks {
		out.Stacks = append(out.Stacks, YearStack{s.ID, s.Name, float64(s.Stops)})
	}
	return out, nil
}
