package measure

import (
	"bytes"
	"cmp"
	"errors"
	"fmt"

	"pinhole/core/assemble"
	"pinhole/core/problem"
	"pinhole/core/request"
	"pinhole/core/take"
)

// MaxTakeBytes is the most of an uncompressed clip that is read.
const MaxTakeBytes = 1 << 30

// measureTake answers take.
func measureTake(in Input) (*TakeAnswer, error) {
	known, err := request.Decode[take.Request]([]byte(cmp.Or(in.text("request"), "{}")))
	if err != nil {
		return nil, err
	}
	file := in.file("file")
	clip, err := take.ReadY4M(bytes.NewReader(file.Bytes))
	if err != nil {
		return nil, &problem.Fault{Field: "file", Value: fmt.Sprintf("%s: %v", file.Name, err), Allowed: fmt.Sprintf("YUV4MPEG2 of 8 bits, %d to %d whole frames", take.FewestFrames, take.MostFrames)}
	}
	var shot *assemble.ShotRequest
	if in.has("shot") {
		asked, err := request.Decode[assemble.ShotRequest](in.file("shot").Bytes)
		if err != nil {
			return nil, err
		}
		shot = &asked
	}
	said, err := take.Measure(clip, known)
	if err != nil {
		return nil, err
	}
	a := &TakeAnswer{Answer: *said}
	if shot == nil {
		return a, nil
	}
	a.Beside, err = besides(shot, known, said)
	var fault *problem.Fault
	if errors.As(err, &fault) {
		return nil, problem.At("shot", err)
	}
	return a, err
}
