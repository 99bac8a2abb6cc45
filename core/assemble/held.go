package assemble

// Held is a camera as it is held, with the glass that goes on it.
type Held struct {
	CameraID string         `json:"cameraId" minLength:"1" maxLength:"100"`
	RigID    string         `json:"rigId,omitempty" maxLength:"100"`
	Optics   Camera         `json:"optics"`
	Profile  *CameraProfile `json:"profile,omitempty"`
	Rates    []string       `json:"rates,omitempty" maxItems:"40" maxLength:"12" doc:"frame rates the camera offers, as written"`
	Craft    *Craft         `json:"craft,omitempty" doc:"what carries it, and how that usually moves"`
	Kit      []KitFilter    `json:"kit" maxItems:"200"`
}

// Shot returns the shot that is asked of the camera. Its light is given elsewhere.
func (h *Held) Shot(asked Asked) *ShotRequest {
	return &ShotRequest{Camera: h.Optics, Kit: h.Kit, Profile: h.Profile, Rates: h.Rates, Craft: h.Craft, Look: asked.Look, Scene: asked.Scene, Choices: asked.Choices}
}
