package fit

import (
	"fmt"
	"pinhole/core/motion"

	"pinhole/core/angle"
	"pinhole/core/problem"
	"pinhole/core/stop"
)

// RigFields is a camera as it is held, and how it is used; what is left out is not
// known, and what hangs on it is not judged.
type RigFields struct {
	Mount        Mount        `json:"mount,omitempty" doc:"how it takes a filter"`
	BarrelMm     []float64    `json:"barrelMm,omitempty" minItems:"2" maxItems:"2" minimum:"1" maximum:"500" doc:"barrel diameter, least and most measured, millimetres"`
	PupilDepthMm *float64     `json:"pupilDepthMm,omitempty" minimum:"0" maximum:"500" doc:"how far the entrance pupil lies behind the front of the barrel, millimetres"`
	FoldMm       *float64     `json:"foldMm,omitempty" minimum:"0" maximum:"500" doc:"room before the barrel when it folds, millimetres"`
	TiltUpDeg    *angle.Deg   `json:"tiltUpDeg,omitempty" minimum:"-90" maximum:"90" doc:"how far it tilts up without glass"`
	TiltDownDeg  *angle.Deg   `json:"tiltDownDeg,omitempty" minimum:"-90" maximum:"180" doc:"how far it tilts down without glass"`
	PayloadG     *float64     `json:"payloadG,omitempty" minimum:"0.1" maximum:"100000" doc:"the most its gimbal carries before the lens, grams"`
	FilterArmMm  *float64     `json:"filterArmMm,omitempty" minimum:"0" maximum:"1000" doc:"from the gimbal's axis to the filter, millimetres"`
	CounterArmMm *float64     `json:"counterArmMm,omitempty" minimum:"0.1" maximum:"1000" doc:"from the axis to where a counterweight goes, millimetres"`
	AccelG       *float64     `json:"accelG,omitempty" minimum:"0" maximum:"1000" doc:"peak acceleration in use, multiples of g"`
	SpeedMps     *float64     `json:"speedMps,omitempty" minimum:"0" maximum:"1000" doc:"fastest speed against the air in use, metres a second"`
	BareG        *float64     `json:"bareG,omitempty" minimum:"0.1" maximum:"1000000" doc:"all of it without glass: craft, battery, camera, grams"`
	Flown        motion.Flown `json:"flown,omitempty" doc:"a craft: whether it holds itself level when the sticks are let go"`
	LimitG       *float64     `json:"limitG,omitempty" minimum:"0.1" maximum:"1000000" doc:"the limit of its weight class as its owner states it, grams"`
}

// Body is what a filter is like to hold; what is left out is not known.
type Body struct {
	Mount       Mount     `json:"mount,omitempty" doc:"how it is held"`
	SeatMm      []float64 `json:"seatMm,omitempty" minItems:"2" maxItems:"2" minimum:"1" maximum:"500" doc:"diameter that goes on the barrel, least and most measured, millimetres"`
	OuterMm     *float64  `json:"outerMm,omitempty" minimum:"1" maximum:"500" doc:"outer diameter, millimetres"`
	ClearMm     *float64  `json:"clearMm,omitempty" minimum:"0.1" maximum:"500" doc:"clear diameter, millimetres"`
	ThicknessMm *float64  `json:"thicknessMm,omitempty" minimum:"0" maximum:"200" doc:"what it adds before the barrel, millimetres"`
}

// SeatedGlass is a filter on a rig.
type SeatedGlass struct {
	Body
	WeightG *float64 `json:"weightG,omitempty" minimum:"0" maximum:"10000" doc:"grams"`
}

// SeatRequest asks what is known of glass on a rig.
type SeatRequest struct {
	Rig         RigFields     `json:"rig"`
	InFlight    bool          `json:"inFlight,omitempty" doc:"the rig rides on a craft"`
	View        *View         `json:"view,omitempty"`
	Glass       []SeatedGlass `json:"glass" minItems:"1" maxItems:"4" doc:"the filter judged, and what is stacked on it"`
	Claimed     bool          `json:"claimed,omitempty" doc:"its owner says that it goes on"`
	Trial       *TrialFields  `json:"trial,omitempty" doc:"what the trials that still count found together"`
	Stale       string        `json:"stale,omitempty" maxLength:"200" doc:"why an older trial no longer does"`
	AlsoG       []float64     `json:"alsoG,omitempty" maxItems:"20" minimum:"0" maximum:"10000" doc:"other glass on the same craft, each in grams: it counts in the all-up mass"`
	ReferenceMm *float64      `json:"referenceMm,omitempty" minimum:"-5" maximum:"5" doc:"clearance of a filter known to hold well; classes count from there"`
}

// TrialFields is what a trial found. What is left out was not looked at.
type TrialFields struct {
	Seated      bool       `json:"seated" doc:"it goes on, straight and all the way"`
	Wobbles     *bool      `json:"wobbles,omitempty" doc:"it moves when it is shaken by hand"`
	PullOffG    *float64   `json:"pullOffG,omitempty" minimum:"0.1" maximum:"1000000" doc:"what a luggage scale shows when it comes off, grams"`
	TiltUpDeg   *angle.Deg `json:"tiltUpDeg,omitempty" minimum:"-90" maximum:"90" doc:"how far the gimbal still tilts up with it on"`
	TiltDownDeg *angle.Deg `json:"tiltDownDeg,omitempty" minimum:"-90" maximum:"180" doc:"how far it tilts down"`
	Folds       *bool      `json:"folds,omitempty" doc:"the camera folds away with it on"`
	SelfTest    *bool      `json:"selfTest,omitempty" doc:"the gimbal passes its self-test at power-on"`
	DarkCorners *bool      `json:"darkCorners,omitempty" doc:"corners are dark at the widest"`
	MarksLeft   *bool      `json:"marksLeft,omitempty" doc:"it left marks"`

	CornerStops   *stop.Stops `json:"cornerStops,omitempty" minimum:"0" maximum:"20" doc:"how much darker the corners come out, measured from frames"`
	SharpnessLost *float64    `json:"sharpnessLost,omitempty" minimum:"0" maximum:"100" doc:"sharpness lost, per cent, measured from frames"`
	Flare         *float64    `json:"flare,omitempty" minimum:"0" maximum:"3" doc:"0 none, 1 slight, 2 plain, 3 heavy; measured from frames"`
}

// SeatAnswer is what is known, part by part; a part left out could not be judged,
// and Open says what it waits for.
type SeatAnswer struct {
	Standing Standing       `json:"standing"`
	Because  []string       `json:"because" doc:"what decides first"`
	Open     []string       `json:"open" doc:"what is not known, and what would settle it"`
	Fit      *FitAnswer     `json:"fit,omitempty"`
	Hold     *HoldAnswer    `json:"hold,omitempty"`
	Corners  *CornersAnswer `json:"corners,omitempty" doc:"of the whole stack"`
	Balance  *BalanceAnswer `json:"balance,omitempty"`
	Mass     *MassAnswer    `json:"mass,omitempty" doc:"with the whole stack on, and all other glass on the craft"`
	NoFold   bool           `json:"noFold" doc:"the camera does not fold with it on"`
	Advice   []Advice       `json:"advice,omitempty" doc:"what can be done on the spot about a ring that may come off"`
}

// Seat answers seat: the fit, hold, corners, balance and mass of one filter on one
// rig, joined with what a trial found.
func Seat(r SeatRequest) (*SeatAnswer, error) {
	a := &SeatAnswer{Because: []string{}, Open: []string{}}
	e := Evidence{
		Claimed: r.Claimed, RigMount: r.Rig.Mount, FilterMount: r.Glass[0].Mount, Stale: r.Stale, InFlight: r.InFlight,
		Hold: Unknown, FoldMm: r.Rig.FoldMm,
	}
	if t := r.Trial; t != nil {
		e.Trial = &Trial{Seated: t.Seated, Wobbles: t.Wobbles, Folds: t.Folds, SelfTest: t.SelfTest, DarkCorners: t.DarkCorners, MarksOn: t.MarksLeft, Corner: t.CornerStops}
	}
	for _, part := range []func(*SeatRequest, *Evidence) error{a.clearance, a.hold, a.corners, a.balance, a.mass} {
		if err := part(&r, &e); err != nil {
			return nil, err
		}
	}
	var findings []Finding
	a.Standing, findings = e.Judge()
	a.NoFold = e.noFold()
	if a.Standing == GoesLoose || e.Hold == Tether || e.Hold == DoNotFly || a.Fit != nil && a.Fit.Worst != nil && (*a.Fit.Worst == Loose || *a.Fit.Worst == FallsOff) {
		a.Advice = Loosened(r.InFlight)
	}
	for i, f := range findings {
		if i == 0 || f.Standing != Tried { // "nothing against it" is no news beside what is
			a.Because = append(a.Because, f.Words)
		}
	}
	return a, nil
}

// clearance judges the diameters.
func (a *SeatAnswer) clearance(r *SeatRequest, e *Evidence) error {
	first := &r.Glass[0]
	mount := r.Rig.Mount
	if mount == "" {
		a.Open = append(a.Open, "how this rig takes a filter")
		return nil
	}
	if !mount.SeatsByClearance() {
		return nil
	}
	if r.Rig.BarrelMm == nil || first.SeatMm == nil {
		a.Open = append(a.Open, "clearance: measure "+missingOf("the rig's barrel", r.Rig.BarrelMm == nil, "the filter's seat", first.SeatMm == nil)+" with a caliper")
		return nil
	}
	if _, err := millimetres("rig.barrelMm", r.Rig.BarrelMm); err != nil {
		return err
	}
	if _, err := millimetres("glass[0].seatMm", first.SeatMm); err != nil {
		return err
	}
	asked := FitRequest{Mount: mount, BarrelMm: r.Rig.BarrelMm, FilterMm: first.SeatMm}
	if r.ReferenceMm != nil {
		asked.ReferenceMm = *r.ReferenceMm
	}
	var err error
	if a.Fit, err = Fit(asked); err != nil {
		return err
	}
	e.Rings = &Rings{
		Barrel: Range{Min: r.Rig.BarrelMm[0], Max: r.Rig.BarrelMm[1]}, Filter: Range{Min: first.SeatMm[0], Max: first.SeatMm[1]},
		GaugeMm: a.Fit.GaugeMm, ReferenceMm: asked.ReferenceMm,
	}
	return nil
}

// missingOf names those of two things that are missing.
func missingOf(a string, isA bool, b string, isB bool) string {
	switch {
	case isA && isB:
		return a + " and " + b
	case isA:
		return a
	}
	return b
}

// hold judges the pull-off that the trial measured against what pulls at the stack.
func (a *SeatAnswer) hold(r *SeatRequest, e *Evidence) error {
	rig, massG, isWeighed := &r.Rig, 0.0, true
	for _, g := range r.Glass {
		isWeighed = isWeighed && g.WeightG != nil
		if g.WeightG != nil {
			massG += *g.WeightG
		}
	}
	outer := r.Glass[0].OuterMm
	mount := rig.Mount
	if mount == "" {
		mount = r.Glass[0].Mount
	}
	if mount == "" || !isWeighed || outer == nil || rig.AccelG == nil || rig.SpeedMps == nil {
		if r.InFlight || rig.AccelG != nil {
			a.Open = append(a.Open, "hold: needs the mount, the filter's mass and outer diameter, and the rig's peak g and speed")
		}
		return nil
	}
	asked := HoldRequest{Mount: mount, InFlight: r.InFlight, MassG: massG, AccelG: *rig.AccelG, SpeedMps: *rig.SpeedMps, DiameterMm: *outer}
	if r.Trial != nil {
		asked.PullOffG = r.Trial.PullOffG
	}
	var err error
	if a.Hold, err = WillHold(asked); err != nil {
		return err
	}
	e.Hold = a.Hold.Verdict
	if e.Hold == Unknown {
		a.Open = append(a.Open, "hold: measure the pull-off with a luggage scale")
	}
	return nil
}

// corners judges the rings of the stack, each rim as far before the barrel as the
// layers up to it are thick.
func (a *SeatAnswer) corners(r *SeatRequest, e *Evidence) error {
	if t := r.Glass[0].ThicknessMm; t != nil {
		e.ThicknessMm = *t
	}
	if r.View == nil || r.Rig.PupilDepthMm == nil {
		a.Open = append(a.Open, "vignetting: need "+missingOf("the camera's focal length, view and frame size", r.View == nil, "how deep the rig's entrance pupil lies", r.Rig.PupilDepthMm == nil))
		return nil
	}
	asked := CornersRequest{Aperture: r.View.Aperture, FocalMm: r.View.FocalMm, HalfDiagonalDeg: r.View.HalfDiagonalDeg}
	z := *r.Rig.PupilDepthMm
	for _, g := range r.Glass {
		if g.ClearMm == nil || g.ThicknessMm == nil {
			a.Open = append(a.Open, "vignetting: measure the filter's clear diameter and thickness")
			return nil
		}
		z += *g.ThicknessMm
		asked.Rings = append(asked.Rings, RingFields{ClearMm: *g.ClearMm, ZMm: z})
	}
	var err error
	if a.Corners, err = DarkCorners(asked); err != nil {
		return err
	}
	if len(r.Glass) == 1 { // a stack's corners say nothing of how its first filter fits
		e.Corner, e.Black = a.Corners.LossStops, a.Corners.LossStops == nil
	}
	return nil
}

// balance finds the counterweight, and whether the gimbal carries the filter.
func (a *SeatAnswer) balance(r *SeatRequest, e *Evidence) error {
	weight := r.Glass[0].WeightG
	if r.Rig.PayloadG != nil && weight != nil {
		e.FilterG, e.PayloadG = *weight, *r.Rig.PayloadG
	}
	if weight == nil || r.Rig.FilterArmMm == nil || r.Rig.CounterArmMm == nil {
		return nil
	}
	var err error
	a.Balance, err = Balance(BalanceRequest{FilterG: *weight, FilterArmMm: *r.Rig.FilterArmMm, CounterArmMm: *r.Rig.CounterArmMm})
	return err
}

// mass adds the glass to the craft.
func (a *SeatAnswer) mass(r *SeatRequest, _ *Evidence) error {
	if r.Rig.BareG == nil || r.Rig.LimitG == nil {
		return nil
	}
	parts := append([]float64{*r.Rig.BareG}, r.AlsoG...)
	for _, g := range r.Glass {
		if g.WeightG == nil {
			a.Open = append(a.Open, "all-up mass: weigh the filter")
			return nil
		}
		parts = append(parts, *g.WeightG)
	}
	var err error
	a.Mass, err = AllUpMass(MassRequest{PartsG: parts, LimitG: *r.Rig.LimitG})
	return err
}

// CheckRig returns the fault of a rig that contradicts itself.
func CheckRig(r *RigFields) error {
	if r.BarrelMm != nil {
		if _, err := millimetres("barrelMm", r.BarrelMm); err != nil {
			return err
		}
	}
	if r.TiltUpDeg != nil && r.TiltDownDeg != nil && -*r.TiltDownDeg > *r.TiltUpDeg {
		return &problem.Fault{Field: "tiltDownDeg", Value: *r.TiltDownDeg, Allowed: "no further up than it tilts up: down is counted downwards"}
	}
	return nil
}

// CheckBody returns the fault of a filter whose sizes contradict each other.
func CheckBody(b *Body) error {
	if b.SeatMm != nil {
		if _, err := millimetres("seatMm", b.SeatMm); err != nil {
			return err
		}
		if b.OuterMm != nil && b.SeatMm[0] > *b.OuterMm {
			return &problem.Fault{Field: "seatMm", Value: b.SeatMm, Allowed: fmt.Sprintf("at most the outer diameter, %v mm", *b.OuterMm)}
		}
	}
	if b.ClearMm != nil && b.OuterMm != nil && *b.ClearMm > *b.OuterMm {
		return &problem.Fault{Field: "clearMm", Value: *b.ClearMm, Allowed: fmt.Sprintf("at most the outer diameter, %v mm", *b.OuterMm)}
	}
	return nil
}
