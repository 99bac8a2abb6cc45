package measure

import (
	"bytes"
	"cmp"
	"fmt"

	"pinhole/core/problem"
	"pinhole/core/request"
	"pinhole/core/take"
)

// MaxTakeBytes is the most of an uncompressed clip that is read.
const MaxTakeBytes = 1 << 30

// measureTake answers take.
func measureTake(in Input) (*take.Answer, error) {
	asked, err := request.Decode[take.Request]([]byte(cmp.Or(in.text("request"), "{}")))
	if err != nil {
		return nil, err
	}
	file := in.file("file")
	clip, err := take.ReadY4M(bytes.NewReader(file.Bytes))
	if err != nil {
		return nil, &problem.Fault{Field: "file", Value: fmt.Sprintf("%s: %v", file.Name, err), Allowed: fmt.Sprintf("YUV4MPEG2 of 8 bits, %d to %d whole frames", take.FewestFrames, take.MostFrames)}
	}
	return take.Measure(clip, asked)
}
