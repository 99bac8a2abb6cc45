package measure

import (
	"pinhole/core/angle"
	"pinhole/core/stop"
)

// Mode is what moved something.
type Mode string

// The modes.
const (
	ModeLocked    Mode = "locked"
	ModeStepped   Mode = "stepped"
	ModeAutomatic Mode = "automatic"
)

// Values returns every Mode there is.
func (Mode) Values() []Mode { return []Mode{ModeLocked, ModeStepped, ModeAutomatic} }

// TelemetryAnswer is how a clip was exposed, as its log says.
type TelemetryAnswer struct {
	Findings
	Format      string         `json:"format"`
	Rows        int            `json:"rows"`
	Used        int            `json:"used"`
	Skipped     int            `json:"skipped" doc:"rows without a time or a shutter"`
	FromS       float64        `json:"fromS"`
	ToS         float64        `json:"toS"`
	RateHz      float64        `json:"rateHz"`
	Gaps        int            `json:"gaps"`
	FPS         *float64       `json:"fps,omitempty"`
	TargetS     *stop.Shutter  `json:"targetS,omitempty"`
	WithinS     []stop.Shutter `json:"withinS,omitempty" doc:"the shortest and the longest shutter that counts as the target"`
	WithinShare *float64       `json:"withinShare" doc:"of the time within half a stop of the target; null without a target"`
	Shutter     *ShutterLog    `json:"shutter"`
	ISO         *ISOLog        `json:"iso"`
	Excursions  []Excursion    `json:"excursions"`
	Limit       *LimitHit      `json:"limit"`
	Means       []string       `json:"means" doc:"locked, shutter-automatic, iso-automatic, changed-by-hand, shutter-limit"`
	Samples     []LogSample    `json:"samples"`
	SpanStops   *stop.Stops    `json:"spanStops" doc:"from the 5th to the 95th percentile of the light"`
	Reading     *LogReading    `json:"reading,omitempty" doc:"the same as a reading of the day"`
	EV100       *Percentiles   `json:"ev100,omitempty" doc:"of the scene; left out where no aperture is known"`
	Bounds      *LogBounds     `json:"bounds,omitempty"`
	AltitudeM   *AltitudeRange `json:"altitudeM,omitempty"`
}

// ShutterLog is what the shutter did.
type ShutterLog struct {
	Mode     Mode         `json:"mode"`
	Changes  int          `json:"changes"`
	FastestS stop.Shutter `json:"fastestS"`
	SlowestS stop.Shutter `json:"slowestS"`
	MedianS  stop.Shutter `json:"medianS"`
}

// ISOLog is what ISO did.
type ISOLog struct {
	Mode    Mode     `json:"mode"`
	Changes int      `json:"changes"`
	Low     stop.ISO `json:"low"`
	High    stop.ISO `json:"high"`
	Median  stop.ISO `json:"median"`
}

// Excursion is a stretch away from the target, or over base ISO.
type Excursion struct {
	Kind     string        `json:"kind" doc:"shutter or iso"`
	FromS    float64       `json:"fromS"`
	ToS      float64       `json:"toS"`
	Stops    stop.Stops    `json:"stops" doc:"the furthest: of the shutter's time against the target, of ISO over base"`
	ShutterS *stop.Shutter `json:"shutterS,omitempty"`
	ISO      *stop.ISO     `json:"iso,omitempty"`
}

// LimitHit is an end of the shutter's range that the automatic ran into.
type LimitHit struct {
	Kind     string       `json:"kind" doc:"slowest or fastest"`
	ShutterS stop.Shutter `json:"shutterS"`
	Share    float64      `json:"share" doc:"of the time"`
}

// LogSample is one sample, to draw.
type LogSample struct {
	T        float64      `json:"t"`
	ShutterS stop.Shutter `json:"shutterS"`
	ISO      *stop.ISO    `json:"iso,omitempty"`
	EV       *stop.EV     `json:"ev,omitempty"`
}

// LogReading is the light of a log as a reading of the day.
type LogReading struct {
	EV100       stop.EV    `json:"ev100"`
	SpreadStops stop.Stops `json:"spreadStops"`
}

// Percentiles are of the light.
type Percentiles struct {
	P5  stop.EV `json:"p5"`
	P50 stop.EV `json:"p50"`
	P95 stop.EV `json:"p95"`
}

// LogBounds is the box around where a log was.
type LogBounds struct {
	South angle.Deg `json:"south"`
	North angle.Deg `json:"north"`
	West  angle.Deg `json:"west"`
	East  angle.Deg `json:"east"`
}

// AltitudeRange is how high a log was, in metres.
type AltitudeRange struct {
	Low  float64 `json:"low"`
	High float64 `json:"high"`
}
