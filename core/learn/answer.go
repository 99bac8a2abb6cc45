package learn

import (
	"pinhole/core/light"
	"pinhole/core/stop"
)

// Answer is what a log teaches.
type Answer struct {
	Filters     []LearnedGlass  `json:"filters"`
	Instruments []LearnedReader `json:"instruments"`
	Places      []LearnedPlace  `json:"places" doc:"those that were read"`
	Skies       []LearnedSky    `json:"skies"`
	Strays      Strays          `json:"strays"`
	Unresolved  []Unresolved    `json:"unresolved" doc:"what cannot be told apart yet"`
	Doubtful    []Doubtful      `json:"doubtful"`
	Asks        []Told          `json:"asks"`
	Floors      []LearnedFloor  `json:"floors"`
	Taste       Taste           `json:"taste"`
	Calibration []Calibration   `json:"calibration"`
	Right       []Right         `json:"right"`
	Trend       []Trend         `json:"trend"`
}

// LearnedGlass is what is known of a filter.
type LearnedGlass struct {
	ID      string     `json:"id"`
	Stops   stop.Stops `json:"stops"`
	Spread  stop.Stops `json:"sdStops"`
	Records int        `json:"records"`
	Benches int        `json:"benches"`
}

// LearnedReader is what is known of an instrument.
type LearnedReader struct {
	ID      string     `json:"id"`
	Offset  stop.Stops `json:"offsetStops" doc:"how much more light it shows than there is"`
	Spread  stop.Stops `json:"sdStops"`
	Records int        `json:"records"`
}

// LearnedPlace is what is known of a place under a sky.
type LearnedPlace struct {
	Place  string     `json:"place"`
	Sky    light.Sky  `json:"sky"`
	Offset stop.Stops `json:"offsetStops" doc:"over the forecast"`
	Spread stop.Stops `json:"sdStops"`
	// DaySpread is that of a light there on a day that was not read.
	DaySpread stop.Stops `json:"daySdStops" doc:"of the light there on a day that was not read"`
	Days      int        `json:"days"`
}

// LearnedSky is how far the light strays under a sky, and for how long.
type LearnedSky struct {
	Sky    light.Sky  `json:"sky"`
	Spread stop.Stops `json:"spreadStops"`
	TauH   float64    `json:"tauH"`
	Days   int        `json:"days"`
}

// Strays is how many times further than assumed each kind strays.
type Strays struct {
	Filter     float64 `json:"filter"`
	Instrument float64 `json:"instrument"`
	Place      float64 `json:"place"`
}

// Need is what would settle what cannot be told apart.
type Need string

// What settles what.
const (
	NeedBare      Need = "bare"
	NeedAlone     Need = "alone"
	NeedElsewhere Need = "elsewhere"
)

// Values returns every Need there is.
func (Need) Values() []Need { return []Need{NeedBare, NeedAlone, NeedElsewhere} }

// Unresolved are two unknowns that were always seen together.
type Unresolved struct {
	A           string     `json:"a" doc:"filter n5, instrument cam or place quay clear"`
	B           string     `json:"b"`
	Correlation float64    `json:"correlation"`
	Together    stop.Stops `json:"togetherSdStops" doc:"± of their difference, or of their sum where the correlation is negative"`
	Need        Need       `json:"need" doc:"bare: one reading without glass; alone: one of the two by itself; elsewhere: this camera elsewhere, or another meter here"`
}

// Doubt is what is doubted.
type Doubt string

// What is doubted.
const (
	DoubtRecord Doubt = "record"
	DoubtDay    Doubt = "day"
	DoubtTrial  Doubt = "trial"
)

// Values returns every Doubt there is.
func (Doubt) Values() []Doubt { return []Doubt{DoubtRecord, DoubtDay, DoubtTrial} }

// Doubtful is a record or a day that does not go with the rest.
type Doubtful struct {
	Kind    Doubt       `json:"kind"`
	ID      string      `json:"id,omitempty"`
	Place   string      `json:"place,omitempty"`
	Sky     light.Sky   `json:"sky,omitempty"`
	Date    string      `json:"date,omitempty"`
	Left    *stop.Stops `json:"leftStops,omitempty" doc:"what no cause is known for"`
	Offset  *stop.Stops `json:"offsetStops,omitempty" doc:"of a day's light over what its place has"`
	Weight  *float64    `json:"weight,omitempty" doc:"of a record how much it counts, of a trial how likely it was"`
	Widened *stop.Stops `json:"widenedStops,omitempty" doc:"what was added to the day's ±"`
}

// Told answers an Ask.
type Told struct {
	ID         string      `json:"id"`
	EV         stop.EV     `json:"ev100"`
	Spread     stop.Stops  `json:"sdStops"`
	Seen       *stop.EV    `json:"seenEv100,omitempty" doc:"what the instrument will show"`
	SeenSpread *stop.Stops `json:"seenSdStops,omitempty"`
}

// LearnedFloor answers a FloorAsk.
type LearnedFloor struct {
	ID     string        `json:"id"`
	Floor  *stop.Shutter `json:"floorS" doc:"null where there is none"`
	Shift  *stop.Stops   `json:"shiftStops,omitempty" doc:"over the computed one"`
	Spread *stop.Stops   `json:"sdStops,omitempty"`
	Low    *stop.Shutter `json:"lowS,omitempty" doc:"of the 90 % band"`
	High   *stop.Shutter `json:"highS,omitempty"`
	Trials int           `json:"trials" doc:"of this camera, mode and activity"`
}

// Taste is what is taken for well exposed, and how takes are shot.
type Taste struct {
	Dark    TasteSide      `json:"dark"`
	Bright  TasteSide      `json:"bright"`
	Binned  map[string]int `json:"binned" doc:"how many for which reason"`
	Schools []School       `json:"schools"`
}

// TasteSide is one limit of the exposure.
type TasteSide struct {
	Limit      stop.Stops `json:"limitStops"`
	Spread     stop.Stops `json:"sdStops"`
	Against    int        `json:"against" doc:"takes that speak against the present limit: kept beyond it, or binned inside it"`
	Beyond     int        `json:"beyond" doc:"takes beyond the present limit"`
	KeptBeyond int        `json:"keptBeyond"`
	IsSuggest  bool       `json:"suggest"`
	// Offer is what to set where a limit is suggested.
	Offer *stop.Stops `json:"offerStops,omitempty" doc:"in tenths: the limit, no farther than a take that was kept"`
}

// School is how the takes of an activity are shot that are kept.
type School struct {
	Activity  string     `json:"activity"`
	School    string     `json:"school"`
	Used      int        `json:"used"`
	Of        int        `json:"of"`
	Band      [2]float64 `json:"band"`
	IsSuggest bool       `json:"suggest"`
}

// Calibration says whether the ± that were stated are true.
type Calibration struct {
	Kind   string     `json:"kind" enum:"light,seen,floor"`
	Inside int        `json:"inside" doc:"of the 90 % band as it was stated"`
	Of     int        `json:"of"`
	Share  float64    `json:"share"`
	Band   [2]float64 `json:"band"`
	IsTrue bool       `json:"isTrue" doc:"0.9 lies within the band of the share: they hold as promised"`
	Scale  float64    `json:"scale" doc:"what every ± of this kind is multiplied by"`
}

// Right is the glass that was right at a place, under a sky, for a look.
type Right struct {
	Place string       `json:"place"`
	Sky   string       `json:"sky" enum:",clear,partly,overcast"`
	Look  string       `json:"look"`
	Glass []RightGlass `json:"glass" doc:"the best first"`
}

// RightGlass is one stack there.
type RightGlass struct {
	Glass []string `json:"glass"`
	Used  int      `json:"used"`
	Good  int      `json:"good" doc:"how many of these takes were kept"`
	Share float64  `json:"share" doc:"(good + 1)/(used + 2)"`
}

// Verdict is where a trend goes.
type Verdict string

// Where a trend goes.
const (
	Better     Verdict = "better"
	Worse      Verdict = "worse"
	CannotTell Verdict = "cannot tell"
)

// Values returns every Verdict there is.
func (Verdict) Values() []Verdict { return []Verdict{Better, Worse, CannotTell} }

// Trend is how something goes over the shoots.
type Trend struct {
	What    string   `json:"what" enum:"firstRight,swaps,minutesLost"`
	Mean    float64  `json:"mean" doc:"a take"`
	Shoots  int      `json:"shoots"`
	Takes   int      `json:"takes"`
	Slope   *float64 `json:"slope" doc:"a shoot; null under four shoots"`
	SDSlope *float64 `json:"sdSlope"`
	Verdict Verdict  `json:"verdict"`
}
