package measure

import (
	"encoding/json"
	"fmt"
	"math"

	"pinhole/core/problem"
	"pinhole/core/stop"
)

// codes is how many values a channel has: codes of 8 bits stand at every 257th.
const codes = 1 << 16

// transfer turns the values of a channel into linear light. What a curve does not know is
// NaN.
type transfer struct {
	linear  *[codes]float32
	isCurve bool
}

// perCode is how many values make a code of 8 bits.
const perCode = 257

// srgb is the transfer that pictures have unless a curve says otherwise (IEC 61966-2-1).
var srgb = func() transfer {
	var table [codes]float32
	for v := range table {
		table[v] = float32(decoded(float64(v) / (codes - 1)))
	}
	return transfer{linear: &table}
}()

// decoded returns the linear light, 0 to 1, of an sRGB value of 0 to 1.
func decoded(v float64) float64 {
	if v <= 0.04045 {
		return v / 12.92
	}
	return math.Pow((v+0.055)/1.055, 2.4)
}

// Curve is a transfer that was found from a bracket: relative light by code of 8 bits.
type Curve struct {
	Stops    []*stop.Stops `json:"stops" minItems:"256" maxItems:"256" doc:"light in stops, relative; null outside"`
	FromCode int           `json:"fromCode" doc:"the first that is known"`
	ToCode   int           `json:"toCode" doc:"the last that is known"`
}

// curveFile is a curve as curve answers it, or alone.
type curveFile struct {
	Curve *Curve `json:"curve"`
}

// readCurve reads a curve from a file of its own or from an answer of curve.
func readCurve(file File) (transfer, error) {
	var curve Curve
	err := json.Unmarshal(file.Bytes, &curve)
	var answer curveFile
	if json.Unmarshal(file.Bytes, &answer) == nil && answer.Curve != nil {
		curve, err = *answer.Curve, nil
	}
	known := 0
	for _, s := range curve.Stops {
		if s != nil && s.Abs() < 100 {
			known++
		}
	}
	if err == nil && (len(curve.Stops) != 256 || known < 2) {
		err = fmt.Errorf("%d codes, %d of them known", len(curve.Stops), known)
	}
	if err != nil {
		return transfer{}, &problem.Fault{Field: "curve", Value: fmt.Sprintf("%s: %.120s", file.Name, err), Allowed: "the answer of curve: the stops of 256 codes, null where they are not known"}
	}
	return curve.transfer(), nil
}

// transfer returns the curve as a table, straight between two codes.
func (c *Curve) transfer() transfer {
	var table [codes]float32
	for v := range table {
		code := v / perCode
		part := float64(v%perCode) / perCode
		next := min(code+1, 255)
		if part == 0 {
			next = code
		}
		table[v] = float32(math.NaN())
		if c.Stops[code] == nil || c.Stops[next] == nil {
			continue
		}
		low, high := *c.Stops[code], *c.Stops[next]
		table[v] = float32((low + (high-low)*stop.Stops(part)).Factor())
	}
	return transfer{linear: &table, isCurve: true}
}
