package measure

import (
	"fmt"

	"pinhole/core/problem"
)

// readPair reads one frame without the filter and one with it, of one size.
func readPair(in Input) (without, with *picture, err error) {
	if without, err = readPicture("without", in.file("without")); err != nil {
		return nil, nil, err
	}
	if with, err = readPicture("with", in.file("with")); err != nil {
		return nil, nil, err
	}
	if without.width != with.width || without.height != with.height {
		return nil, nil, &problem.Fault{Field: "with", Value: fmt.Sprintf("%d × %d pixels", with.width, with.height), Allowed: fmt.Sprintf("the size of the frame without, %d × %d", without.width, without.height)}
	}
	if in.has("curve") {
		curve, err := readCurve(in.file("curve"))
		if err != nil {
			return nil, nil, err
		}
		without.light, with.light = curve, curve
	}
	return without, with, nil
}

// clipped returns the shares of an area's pixels that are blown and crushed.
func (p *picture) clipped(a area, of func(x, y int) bool) (blown, crushed float64) {
	n := 0.0
	for y := a.y0; y < a.y1; y++ {
		for x := a.x0; x < a.x1; x++ {
			if of != nil && !of(x, y) {
				continue
			}
			n++
			v := p.at(x, y)
			if isBlown(v) {
				blown++
			}
			if isCrushed(v) {
				crushed++
			}
		}
	}
	return blown / max(n, 1), crushed / max(n, 1)
}
