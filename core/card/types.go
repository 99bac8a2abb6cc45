package card

import (
	"pinhole/core/assemble"
	"pinhole/core/day"
	"time"

	"pinhole/core/fit"
	"pinhole/core/glass"
	"pinhole/core/stop"
)

// CardRequest asks what to set, check and do on the spot.
type CardRequest struct {
	Now     time.Time         `json:"now"`
	Name    string            `json:"name,omitempty" maxLength:"80" doc:"of the shoot"`
	Outing  day.OutingRequest `json:"outing" doc:"the day as it is planned"`
	Shots   []CardShot        `json:"shots" maxItems:"60"`
	Benches []CardBench       `json:"benches" maxItems:"120" doc:"each camera as it is held"`
	Glass   []CardGlass       `json:"glass" maxItems:"200"`
	Seats   []CardSeat        `json:"seats" maxItems:"400" doc:"what is known of stacks on their rigs"`
	Known   []CardKnown       `json:"known,omitempty" maxItems:"400" doc:"glass on rigs whose whole checklist was done before, and nothing changed since: its list is short"`
	Marks   []CardMark        `json:"marks" maxItems:"5000" doc:"what was ticked, taken back and overridden"`
}

// CardKnown is glass on a rig that is familiar.
type CardKnown struct {
	CameraID string `json:"cameraId" maxLength:"100"`
	RigID    string `json:"rigId,omitempty" maxLength:"100"`
	Stack    string `json:"stack" maxLength:"400"`
}

// CardShot is what is asked of a shot of the plan.
type CardShot struct {
	ID string `json:"id" minLength:"1" maxLength:"100"`
	assemble.Asked
}

// CardBench is a camera held as a rig, with its glass.
type CardBench struct {
	assemble.Held
	Camera       string        `json:"camera" maxLength:"80" doc:"what it is called"`
	Rig          fit.RigFields `json:"rig"`
	SealedPort   bool          `json:"sealedPort,omitempty"`
	WhiteBalance string        `json:"whiteBalance,omitempty" maxLength:"120"`
	Recipe       []string      `json:"recipe,omitempty" maxItems:"20" maxLength:"500" doc:"the rest of what to set, a line each"`
}

// CardGlass is what a filter is called and where it lies.
type CardGlass struct {
	ID    string `json:"id" minLength:"1" maxLength:"100"`
	Title string `json:"title" maxLength:"200"`
	Slot  string `json:"slot,omitempty" maxLength:"40"`
}

// CardSeat is what is known of a stack on its rig.
type CardSeat struct {
	Stack    string       `json:"stack" maxLength:"200" doc:"its id"`
	Standing fit.Standing `json:"standing"`
	Because  string       `json:"because,omitempty" maxLength:"500"`
	Mount    fit.Mount    `json:"mount,omitempty"`
	Hold     fit.Verdict  `json:"hold,omitempty"`
	Margin   float64      `json:"margin,omitempty" minimum:"0" maximum:"1000000" doc:"times it holds what pulls at it; 0 is not known"`
	NoFold   bool         `json:"noFold,omitempty" doc:"the camera does not fold with it on"`
}

// CardMark is something noted about a step of a turn.
type CardMark struct {
	Turn  string    `json:"turn" maxLength:"400"`
	Step  string    `json:"step" maxLength:"120"`
	Kind  MarkKind  `json:"kind"`
	At    time.Time `json:"at"`
	Words string    `json:"words,omitempty" maxLength:"500" doc:"an override's reason"`
}

// CardAnswer is the card, camera by camera.
type CardAnswer struct {
	Cameras []CardCamera `json:"cameras" doc:"in order of their first turn"`
	Text    string       `json:"text" doc:"the plan in plain words, for a message"`
}

// CardCamera is one camera through the day.
type CardCamera struct {
	CameraID string     `json:"cameraId"`
	Name     string     `json:"name"`
	Turns    []CardTurn `json:"turns" doc:"in order of time"`
	Current  int        `json:"current" doc:"the turn that is on, else the next, else the last"`
	Swap     *CardSwap  `json:"swap,omitempty" doc:"the next change of glass"`
}

// CardTurn is a shot, or one battery of it: what is on, what is set.
type CardTurn struct {
	ID      string         `json:"id" doc:"marks name it"`
	Shot    string         `json:"shot"`
	Name    string         `json:"name"`
	Pack    int            `json:"pack" doc:"which battery, from 1"`
	Packs   int            `json:"packs"`
	From    time.Time      `json:"from"`
	To      time.Time      `json:"to"`
	When    string         `json:"when" enum:"over,on,next,later"`
	In      string         `json:"in" doc:"how long until it begins, or ends where it is on"`
	Stack   string         `json:"stack"`
	Glass   string         `json:"glass" doc:"what is on the lens"`
	Filters []CardGlass    `json:"filters"`
	Stays   bool           `json:"stays" doc:"it is on already, from the turn before"`
	Set     CardSetting    `json:"set"`
	Light   CardLight      `json:"light"`
	Lights  []day.LightFor `json:"lights" doc:"every light that is known for the shot, the strongest evidence first; the first is what it is judged in"`
	State   glass.State    `json:"state"`
	Words   string         `json:"words"`
	Helps   []string       `json:"helps" doc:"what would serve it, where this glass does not"`
	Latest  *time.Time     `json:"latest" doc:"the last minute this glass serves; null where it never does"`
	// The glass for the pocket.
	Brighter  string      `json:"brighter,omitempty"`
	Darker    string      `json:"darker,omitempty"`
	Standing  *CardSeat   `json:"standing,omitempty" doc:"left out where nothing is known, or nothing is on"`
	Checks    []CardCheck `json:"checks"`
	Readiness Readiness   `json:"readiness"`
	Known     bool        `json:"known,omitempty" doc:"the checklist is the short one of familiar glass"`
	Stops     []string    `json:"stops" doc:"what stops the take"`
	Drills    []CardDrill `json:"drills"`
}

// CardSetting is what to set.
type CardSetting struct {
	ShutterS  stop.Shutter `json:"shutterS" doc:"the slowest, where it floats"`
	Shutter   string       `json:"shutter"`
	ISO       string       `json:"iso" doc:"one, or a band"`
	ISOLow    stop.ISO     `json:"isoLow" doc:"the one, or the lowest"`
	FPS       string       `json:"fps"`
	Angle     string       `json:"angle,omitempty"`
	Automatic bool         `json:"automatic" doc:"shutter and ISO are left to the camera"`
	Floats    bool         `json:"floats" doc:"ISO or shutter may move within limits"`
	Left      stop.Stops   `json:"leftStops" doc:"what is left over at the highest light"`
	Recipe    []string     `json:"recipe" doc:"the rest, a line each"`
	Words     string       `json:"words"`
	EVSet     stop.EV      `json:"evSet" doc:"the light it needs"`
	Stops     stop.Stops   `json:"stops" doc:"all the glass before it"`
	Loose     stop.Stops   `json:"looseStops"`
}

// CardLight is the light that is expected.
type CardLight struct {
	LowEV100  stop.EV   `json:"lowEv100"`
	HighEV100 stop.EV   `json:"highEv100"`
	At        time.Time `json:"at" doc:"now; where it is no daylight, the near end of the turn"`
	Expected  Expected  `json:"expected" doc:"at that instant"`
	// What would be read now, if the plan is right.
	Bias  stop.Stops `json:"biasStops" doc:"that the camera would show, locked at what is set, ISO at its lowest"`
	Auto  string     `json:"auto" doc:"the shutter that the automatic would choose at base ISO, behind this glass"`
	Meter string     `json:"meter" doc:"what a hand meter would show, set to this aperture and base ISO"`
	// What could be read instead, to be chosen from with a thumb.
	Biases []string `json:"biases" doc:"what the camera's bias may show, in thirds about what is expected"`
	Autos  []string `json:"autos" doc:"shutters of the automatic beside the expected one"`
}

// CardCheck is one step before the take.
type CardCheck struct {
	Step   string      `json:"step"`
	Words  string      `json:"words"`
	Hard   bool        `json:"hard" doc:"nothing begins without it"`
	Barred bool        `json:"barred" doc:"only a reason gets past it"`
	At     *time.Time  `json:"at" doc:"when it was ticked or overridden"`
	Reason string      `json:"reason,omitempty" doc:"of an override"`
	Again  []time.Time `json:"again" doc:"when it was ticked once more, as in another window"`
}

// CardDrill is what to do when something goes wrong.
type CardDrill struct {
	Name  string   `json:"name"`
	Title string   `json:"title"`
	Lines []string `json:"lines" doc:"five at most"`
}

// CardSwap is the next change of glass.
type CardSwap struct {
	day.Swap
	Due  time.Time `json:"due" doc:"the last minute, where the old glass fails within a take; else the start of the new one"`
	In   string    `json:"in" doc:"how long until it is due"`
	Turn string    `json:"turn" doc:"the id of the turn it is for"`
}
