package assemble

import (
	"pinhole/core/angle"
	"pinhole/core/motion"
	"pinhole/core/problem"
)

// LensFields is a picture's width and what it shows.
type LensFields struct {
	WidthPx    float64           `json:"widthPx" minimum:"1" maximum:"100000" doc:"width of the output frame in pixels"`
	HFOVDeg    angle.Deg         `json:"hfovDeg" minimum:"0.01" maximum:"360" doc:"horizontal field of view in degrees; below 180 for a rectilinear lens"`
	Projection motion.Projection `json:"projection" doc:"equidistant is a fisheye"`
}

// AsRecorded returns the lens as it draws on the usual frame of a camera, the first of the
// sizes that it records; as it stands where none can be read.
func (f LensFields) AsRecorded(sizes []string) LensFields {
	if len(sizes) == 0 {
		return f
	}
	if size, err := motion.ParseFrameSize(sizes[0]); err == nil {
		f.WidthPx = float64(size.WidthPx)
	}
	return f
}

// Lens returns the lens; path is where the fields stand, as in "blur.".
func (f *LensFields) Lens(path string) (motion.Lens, error) {
	if f.Projection == motion.Rectilinear && f.HFOVDeg > widestFlat {
		return motion.Lens{}, &problem.Fault{Field: path + "hfovDeg", Value: f.HFOVDeg, Allowed: "at most 179 degrees for a rectilinear lens: its picture of a half circle would be infinitely wide"}
	}
	return motion.Lens{WidthPx: f.WidthPx, HFOV: f.HFOVDeg, Projection: f.Projection}, nil
}

// widestFlat is the widest rectilinear view that is accepted.
const widestFlat = angle.Deg(179)

// MovementFields is how the scene moves past the camera.
type MovementFields struct {
	SpeedMps   *float64       `json:"speedMps,omitempty" minimum:"0" maximum:"1000" doc:"speed of subject against camera in metres a second; needs distanceM"`
	DistanceM  *float64       `json:"distanceM,omitempty" minimum:"0.001" maximum:"1000000" doc:"how far away the subject is, in metres"`
	OffAxisDeg *angle.Deg     `json:"offAxisDeg,omitempty" minimum:"0" maximum:"180" doc:"flying towards it: how far off the axis it lies; 90, passing sideways, by default"`
	TurnDegS   *angle.DegPerS `json:"turnDegS,omitempty" minimum:"-100000" maximum:"100000" doc:"how fast the camera turns, degrees a second"`
}

// sideways is the angle off the axis of what passes sideways.
const sideways = angle.Deg(90)

// Movement returns the movement; path is where the fields stand, as in "blur.".
func (f *MovementFields) Movement(path string) (motion.Movement, error) {
	m := motion.Movement{OffAxis: sideways}
	switch {
	case f.SpeedMps == nil && f.DistanceM == nil && f.TurnDegS == nil:
		return m, &problem.Fault{Field: path + "speedMps", Allowed: "a speed with distanceM, or turnDegS; 0 for a subject that stands still"}
	case f.SpeedMps != nil && f.DistanceM == nil && *f.SpeedMps > 0:
		return m, &problem.Fault{Field: path + "distanceM", Allowed: "the distance in metres that goes with speedMps"}
	case f.SpeedMps == nil && f.DistanceM != nil:
		return m, &problem.Fault{Field: path + "speedMps", Allowed: "the speed that goes with distanceM; 0 for a subject that stands still"}
	}
	if f.SpeedMps != nil {
		m.SpeedMps = *f.SpeedMps
	}
	if f.DistanceM != nil {
		m.DistanceM = *f.DistanceM
	}
	if f.OffAxisDeg != nil {
		m.OffAxis = *f.OffAxisDeg
	}
	if f.TurnDegS != nil {
		m.Turn = *f.TurnDegS
	}
	return m, nil
}

// ShakeFields is how a body shakes the camera, and what hides it.
type ShakeFields struct {
	Kind           motion.Stabiliser `json:"kind" doc:"post: later, from a log of the gyro"`
	ShakeDegS      angle.DegPerS     `json:"shakeDegS" minimum:"0" maximum:"100000" doc:"90th percentile of angular speed, degrees a second"`
	PassShare      *float64          `json:"passShare,omitempty" minimum:"0" maximum:"1" doc:"share of the shake a gimbal lets through; 0.08 by default"`
	ToleranceShare *float64          `json:"toleranceShare,omitempty" minimum:"0.000001" maximum:"1" doc:"blur that is hidden, as a share of the width; 0.002 by default"`
}

func (f *ShakeFields) Shake() motion.Shake {
	s := motion.Shake{Stabiliser: f.Kind, Rate: f.ShakeDegS, Passes: motion.GimbalPasses, Tolerance: motion.GhostTolerance}
	if f.PassShare != nil {
		s.Passes = *f.PassShare
	}
	if f.ToleranceShare != nil {
		s.Tolerance = *f.ToleranceShare
	}
	return s
}

// VibrationFields is a swing of the camera; hz or rpm, not both.
type VibrationFields struct {
	Hz           *float64  `json:"hz,omitempty" minimum:"0.001" maximum:"100000" doc:"frequency as measured"`
	RPM          *float64  `json:"rpm,omitempty" minimum:"0.1" maximum:"1000000" doc:"turns of a motor a minute; its speed wanders by 10 %"`
	Blades       *int      `json:"blades,omitempty" minimum:"1" maximum:"20" doc:"with rpm: blades that pass; 1, the rotation itself, by default"`
	AmplitudeDeg angle.Deg `json:"amplitudeDeg" minimum:"0" maximum:"90" doc:"how far it swings to either side, degrees"`
	ReadoutS     float64   `json:"readoutS" minimum:"0" maximum:"1" doc:"time the sensor takes to read a frame, seconds"`
}

func (f *VibrationFields) Vibration(path string) (motion.Vibration, error) {
	v := motion.Vibration{Peak: f.AmplitudeDeg, ReadoutS: f.ReadoutS}
	switch {
	case f.Hz == nil && f.RPM == nil:
		return v, &problem.Fault{Field: path + "hz", Allowed: "a frequency in hertz, or rpm"}
	case f.Hz != nil && f.RPM != nil:
		return v, &problem.Fault{Field: path + "hz", Value: *f.Hz, Allowed: "either hz or rpm, not both"}
	case f.Hz != nil && f.Blades != nil:
		return v, &problem.Fault{Field: path + "blades", Value: *f.Blades, Allowed: "nothing beside hz: blades multiply rpm"}
	case f.Hz != nil:
		v.Hz = *f.Hz
	default:
		blades := 1
		if f.Blades != nil {
			blades = *f.Blades
		}
		v.Hz, v.Wanders = motion.FromMotor(*f.RPM, blades), motion.MotorWanders
	}
	return v, nil
}

// LampFields is light that pulses; mainsHz or pulseHz, not both.
type LampFields struct {
	MainsHz *float64 `json:"mainsHz,omitempty" minimum:"1" maximum:"1000" doc:"frequency of the mains; lamps pulse twice as often"`
	PulseHz *float64 `json:"pulseHz,omitempty" minimum:"1" maximum:"1000000" doc:"what the driver of an LED does"`
	Depth   *float64 `json:"depth,omitempty" minimum:"0" maximum:"1" doc:"how much of the light pulses; 1 by default"`
}

func (f *LampFields) Lamp(path string) (motion.Lamp, error) {
	var lamp motion.Lamp
	switch {
	case f.MainsHz != nil && f.PulseHz != nil:
		return lamp, &problem.Fault{Field: path + "mainsHz", Value: *f.MainsHz, Allowed: "either mainsHz or pulseHz, not both"}
	case f.MainsHz != nil:
		lamp = motion.OnMains(*f.MainsHz)
	case f.PulseHz != nil:
		lamp = motion.Lamp{PulseHz: *f.PulseHz, Depth: 1}
	default:
		return lamp, &problem.Fault{Field: path + "mainsHz", Allowed: "the frequency of the mains, or pulseHz"}
	}
	if f.Depth != nil {
		lamp.Depth = *f.Depth
	}
	return lamp, nil
}

// UptiltRequest asks for the camera tilt at another speed.
type UptiltRequest struct {
	TiltDeg  angle.Deg `json:"tiltDeg" minimum:"0" maximum:"89" doc:"the tilt that was right at atMps, degrees"`
	AtMps    float64   `json:"atMps" minimum:"0.01" maximum:"1000" doc:"metres a second"`
	SpeedMps float64   `json:"speedMps" minimum:"0" maximum:"1000" doc:"metres a second"`
}
