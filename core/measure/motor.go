package measure

import (
	"math"

	"pinhole/core/motion"
)

// PeakOf is what of a motor swings at a peak.
type PeakOf string

// What turns.
const (
	OfMotor       PeakOf = "motor"        // its rotation: something is out of balance
	OfMotorDouble PeakOf = "motor twice"  // twice its rotation: bent, or loose
	OfBlades      PeakOf = "blades"       // blades that pass
	OfBladesTwice PeakOf = "blades twice" // twice that
)

// Values returns every PeakOf there is.
func (PeakOf) Values() []PeakOf { return []PeakOf{OfMotor, OfMotorDouble, OfBlades, OfBladesTwice} }

// motor is a motor whose speed is known; the zero value is none.
type motor struct {
	rpm    float64
	blades int
}

// readMotor reads the options of a motor.
func readMotor(in Input) (m motor, err error) {
	if m.rpm, err = in.number("motor-rpm", 1, 1e6); err != nil {
		return m, err
	}
	blades, err := in.number("blades", 1, 20)
	m.blades = max(1, int(math.Round(blades)))
	return m, err
}

// named returns what of the motor swings at a frequency, "" for nothing: the nearest within what
// its speed wanders.
func (m motor) named(hz float64) (of PeakOf) {
	if m.rpm == 0 {
		return ""
	}
	turning, passing := motion.FromMotor(m.rpm, 1), motion.FromMotor(m.rpm, m.blades)
	nearest := math.Log1p(motion.MotorWanders)
	for _, c := range []struct {
		hz float64
		of PeakOf
	}{{turning, OfMotor}, {passing, OfBlades}, {2 * turning, OfMotorDouble}, {2 * passing, OfBladesTwice}} {
		if m.blades == 1 && (c.of == OfBlades || c.of == OfBladesTwice) {
			continue // one blade says no more than the rotation
		}
		if off := math.Abs(math.Log(hz / c.hz)); off < nearest {
			nearest, of = off, c.of
		}
	}
	return of
}
