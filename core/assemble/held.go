package assemble

// Held is a camera as it is held, with the glass that goes on it.
type Held struct {
	CameraID string         `json:"cameraId" minLength:"1" maxLength:"100"`
	RigID    string         `json:"rigId,omitempty" maxLength:"100"`
	Optics   Camera         `json:"optics"`
	Profile  *CameraProfile `json:"profile,omitempty"`
	Rates    []string       `json:"rates,omitempty" maxItems:"40" maxLength:"12" doc:"frame rates the camera offers, as written"`
	Kit      []KitFilter    `json:"kit" maxItems:"200"`
}

// Shot returns the shot that is asked of the camera: its look, what moves and shines in
// it, and the choices it is made by. Its light is given elsewhere.
func (h *Held) Shot(look ShotLook, scene ShotScene, choices Choices) *ShotRequest {
	return &ShotRequest{Camera: h.Optics, Kit: h.Kit, Profile: h.Profile, Rates: h.Rates, Look: look, Scene: scene, Choices: choices}
}
