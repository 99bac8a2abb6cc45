package day

import (
	"pinhole/core/assemble"
	"time"

	"pinhole/core/angle"
	"pinhole/core/glass"
	"pinhole/core/light"
	"pinhole/core/stop"
)

// OutingRequest asks for the light of a day, or of a few, and which glass goes on
// which camera when.
type OutingRequest struct {
	Place     *assemble.PlaceFields  `json:"place,omitempty" doc:"left out, only shots whose light was read are planned"`
	Sky       light.Sky              `json:"sky"`
	Turns     []assemble.SkyTurn     `json:"turns,omitempty" maxItems:"100" doc:"changes of the sky, in order of time"`
	Surface   stop.Stops             `json:"surfaceStops,omitempty" minimum:"-5" maximum:"5" doc:"of the place in general"`
	Anchor    *assemble.LightReading `json:"anchor,omitempty" doc:"a reading on the spot that moves the curve"`
	Known     []SkyKnown             `json:"known,omitempty" maxItems:"3" doc:"what a log knows of the light at the place"`
	From      time.Time              `json:"from" doc:"where the curve begins"`
	To        time.Time              `json:"to"`
	StepS     float64                `json:"stepS" minimum:"60" maximum:"86400" doc:"seconds from point to point of the curve"`
	Shots     []OutingShot           `json:"shots" maxItems:"60"`
	Held      []assemble.Held        `json:"held,omitempty" maxItems:"120" doc:"each camera as it is held: with it a shot that says its look is judged whole"`
	Stacks    []OutingStack          `json:"stacks" maxItems:"5000" doc:"glass by name; what the kit of a shot that is judged whole makes is added"`
	Titles    map[string]string      `json:"titles,omitempty" doc:"what filters are called, by their ids"`
	Start     map[string]string      `json:"start,omitempty" doc:"what cameras carry at first: the id of a stack by the id of its camera"`
	Tolerance *assemble.Tolerance    `json:"tolerance,omitempty"`
	SwapCost  *float64               `json:"swapCost,omitempty" minimum:"0" maximum:"1000"`
	Before    map[string]string      `json:"before,omitempty" doc:"the plan as it was made: stacks by the ids of their shots"`
}

// SkyKnown is what a log knows of the light at a place under a sky.
type SkyKnown struct {
	Sky    light.Sky  `json:"sky"`
	Offset stop.Stops `json:"offsetStops" minimum:"-10" maximum:"10" doc:"over the forecast"`
	Spread stop.Stops `json:"spreadStops" minimum:"0" maximum:"10" doc:"how far a day may still be off"`
	Days   int        `json:"days,omitempty" minimum:"0" maximum:"100000" doc:"that it rests on"`
	// Moments are of a day that was read.
	Moments []KnownMoment `json:"moments,omitempty" maxItems:"500" doc:"where the day itself was read, in order of time"`
}

// KnownMoment is what a log knows of the light at one instant.
type KnownMoment struct {
	At     time.Time  `json:"at"`
	Offset stop.Stops `json:"offsetStops" minimum:"-20" maximum:"20"`
	Spread stop.Stops `json:"spreadStops" minimum:"0" maximum:"10"`
}

// OutingShot is a shot with a time.
type OutingShot struct {
	ID       string               `json:"id" minLength:"1" maxLength:"100"`
	Name     string               `json:"name" maxLength:"80"`
	CameraID string               `json:"cameraId" minLength:"1" maxLength:"100"`
	RigID    string               `json:"rigId,omitempty" maxLength:"100" doc:"how the camera is held: only stacks for that are put on"`
	From     time.Time            `json:"from"`
	Minutes  int                  `json:"minutes" minimum:"1" maximum:"1440"`
	PackMin  float64              `json:"packMin,omitempty" minimum:"0" maximum:"1440" doc:"how long a battery lasts: glass is changed with it; 0 is all of the shot"`
	EVSet    stop.EV              `json:"evSet" minimum:"-20" maximum:"40" doc:"the light its setting needs"`
	ShutterS stop.Shutter         `json:"shutterS,omitempty" minimum:"0.0000001" maximum:"86400"`
	FPS      float64              `json:"fps,omitempty" minimum:"0" maximum:"10000"`
	Offset   stop.Stops           `json:"offsetStops,omitempty" minimum:"-5" maximum:"5"`
	Headroom stop.Stops           `json:"isoHeadroomStops,omitempty" minimum:"0" maximum:"20"`
	Plane    light.Plane          `json:"plane,omitempty" doc:"which way the subject faces; left out, its light is what was read"`
	Heading  *angle.Deg           `json:"headingDeg,omitempty" minimum:"-360" maximum:"360" doc:"of the camera, which an upright subject faces"`
	Surface  *stop.Stops          `json:"surfaceStops,omitempty" minimum:"-5" maximum:"5"`
	Band     *assemble.Tolerance  `json:"tolerance,omitempty" doc:"that of the day by default"`
	Layers   int                  `json:"maxLayers,omitempty" minimum:"1" maximum:"4" doc:"most loose layers; as many as the stacks have by default"`
	Required []string             `json:"required,omitempty" maxItems:"4" doc:"glass asked for, for its effect: only stacks with just that are put on"`
	Look     *assemble.ShotLook   `json:"look,omitempty" doc:"with it and its camera held, the shot is judged whole"`
	Scene    assemble.ShotScene   `json:"scene,omitzero"`
	Choices  *assemble.Choices    `json:"choices,omitempty" doc:"of a shot that is judged whole, in place of tolerance, maxLayers, required and offsetStops"`
	Placed   *[]string            `json:"placed,omitempty" maxItems:"4" doc:"ids of the glass put on by hand, of a shot that is judged whole: it is planned with that"`
	Readings []TakenReading       `json:"readings,omitempty" maxItems:"50" doc:"light that was read on the spot for this shot"`
	Read     *assemble.SceneLight `json:"read,omitempty" doc:"its light as it was typed: an expectation where daylight is computed for it, else what it is planned by"`
}

// TakenReading is a reading that was taken of a shot's subject.
type TakenReading struct {
	At    time.Time `json:"at"`
	EV100 stop.EV   `json:"ev100" minimum:"-20" maximum:"40"`
}

// OutingStack is glass as it may be on a camera as it is held.
type OutingStack struct {
	Stack
	RigID   string   `json:"rigId,omitempty" maxLength:"100" doc:"how the camera is held that it goes on"`
	Layers  int      `json:"layers,omitempty" minimum:"0" maximum:"8" doc:"how many filters are in it"`
	Filters []string `json:"filters,omitempty" maxItems:"8" doc:"ids of its loose filters, the one on the camera first"`
	Effects []string `json:"effects,omitempty" maxItems:"4" doc:"what in it is there for its effect"`
}

// OutingAnswer is the light and the plan.
type OutingAnswer struct {
	Curve   []CurvePoint      `json:"curve"`
	Days    []SunDay          `json:"days" doc:"one for each local day that the span touches"`
	Shots   []OutingPlan      `json:"shots" doc:"in order of start; left out are shots whose light is not known"`
	Swaps   []Swap            `json:"swaps"`
	Names   map[string]string `json:"names" doc:"what the glass of the plan is called, by the id of its stack"`
	Unknown []string          `json:"unknown" doc:"ids of shots whose light is not known"`
	Changes []string          `json:"changes" doc:"what is other than in the plan as it was made"`
	Offset  stop.Stops        `json:"offsetStops" doc:"anchor less model"`
	Cost    float64           `json:"cost"`
}

// CurvePoint is the light of the place at an instant.
type CurvePoint struct {
	Time        time.Time  `json:"time"`
	EV100       stop.EV    `json:"ev100"`
	SpreadStops stop.Stops `json:"spreadStops"`
	AltitudeDeg angle.Deg  `json:"altitudeDeg"`
	AzimuthDeg  angle.Deg  `json:"azimuthDeg"`
	Sky         light.Sky  `json:"sky"`
}

// SunDay is what the sun does on one day; null where it does not.
type SunDay struct {
	Noon    time.Time  `json:"noon"`
	Sunrise *time.Time `json:"sunrise"`
	Sunset  *time.Time `json:"sunset"`
	Golden  DawnDusk   `json:"golden" doc:"ends in the morning, begins in the evening: sun at 6 degrees"`
	Blue    DawnDusk   `json:"blue" doc:"ends in the morning, begins in the evening: sun at -4 degrees"`
	Civil   DawnDusk   `json:"civil" doc:"sun at -6 degrees"`
	// Polar says on which side of the horizon the sun stays, where it does.
	Polar light.Polar `json:"polar,omitempty"`
}

// OutingPlan is one shot of the plan.
type OutingPlan struct {
	ID         string       `json:"id"`
	Lights     []LightFor   `json:"lights" doc:"every light that is known for it, the strongest evidence first; the first is what it is judged in"`
	Packs      []OutingPack `json:"packs" doc:"one for each battery"`
	LowEV100   stop.EV      `json:"lowEv100"`
	HighEV100  stop.EV      `json:"highEv100"`
	Spread     stop.Stops   `json:"spreadStops"`
	WorstStops stop.Stops   `json:"worstStops" doc:"the largest excess beyond band and ISO, positive brighter; 0 is served throughout"`
	State      glass.State  `json:"state" doc:"of the whole shot: the worst of its batteries"`
	Words      string       `json:"words"`
	Placed     bool         `json:"placed,omitempty" doc:"its glass was put on by hand"`
	Remedies   []string     `json:"remedies" doc:"what would serve it, where nothing does"`
	SunInFrame *SunView     `json:"sun,omitempty" doc:"where the sun stands for the camera, where its heading is known"`
}

// SunView is where the sun stands as the camera sees it.
type SunView struct {
	AltitudeDeg angle.Deg `json:"altitudeDeg" doc:"midway through the shot"`
	OffAxisDeg  angle.Deg `json:"offAxisDeg" doc:"to the right of where the camera looks, negative to the left, 180 behind"`
	Words       string    `json:"words"`
}

// OutingPack is one battery of a shot.
type OutingPack struct {
	From         time.Time   `json:"from"`
	To           time.Time   `json:"to"`
	Stack        string      `json:"stack"`
	SettingStops stop.Stops  `json:"settingStops" doc:"what the glass takes, turned where it turns"`
	LowEV100     stop.EV     `json:"lowEv100"`
	HighEV100    stop.EV     `json:"highEv100"`
	LastMinute   *time.Time  `json:"lastMinute" doc:"the last minute this glass serves; null where it never does"`
	State        glass.State `json:"state" doc:"of all demands, with this glass in the light of this battery"`
	Words        string      `json:"words"`
	Brighter     string      `json:"brighter,omitempty" doc:"the stack to have in the pocket for brighter light"`
	Darker       string      `json:"darker,omitempty"`
}

// DawnDusk is when the sun rises and sinks through one altitude.
type DawnDusk struct {
	Dawn *time.Time `json:"dawn"`
	Dusk *time.Time `json:"dusk"`
}
