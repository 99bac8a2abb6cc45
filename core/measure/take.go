package measure

import (
	"bytes"
	"cmp"
	"encoding/json"
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
	shot, err := shotOf(in)
	if err != nil {
		return nil, err
	}
	said, err := take.Measure(clip, known)
	if err != nil {
		return nil, err
	}
	return besideShot(said, known, shot)
}

// shotOf reads the shot that a clip is a take of, nil where none is given.
func shotOf(in Input) (*assemble.ShotRequest, error) {
	if !in.has("shot") {
		return nil, nil
	}
	asked, err := request.Decode[assemble.ShotRequest](in.file("shot").Bytes)
	return &asked, err
}

// besideShot lays what was meant beside what a clip says.
func besideShot(said *take.Answer, known take.Request, shot *assemble.ShotRequest) (*TakeAnswer, error) {
	a := &TakeAnswer{Answer: *said}
	if shot == nil {
		return a, nil
	}
	var err error
	a.Beside, err = besides(shot, known, said)
	var fault *problem.Fault
	if errors.As(err, &fault) {
		return nil, problem.At("shot", err)
	}
	return a, err
}

// takeParts are windows of one clip.
type takeParts struct {
	Parts []take.Part `json:"parts"`
}

const mostParts = 1000

// joinTakes answers takes: windows of one clip that were measured each by itself.
func joinTakes(in Input) (*TakeAnswer, error) {
	known, err := request.Decode[take.Request]([]byte(cmp.Or(in.text("request"), "{}")))
	if err != nil {
		return nil, err
	}
	// These are answers, which say of what cannot be told that it is null: no request may.
	var asked takeParts
	if err := json.Unmarshal(in.file("file").Bytes, &asked); err != nil || len(asked.Parts) == 0 || len(asked.Parts) > mostParts {
		return nil, &problem.Fault{Field: "file", Value: in.file("file").Name, Allowed: fmt.Sprintf("JSON with parts, 1 to %d answers of take", mostParts)}
	}
	for i := range asked.Parts {
		p := &asked.Parts[i].Answer
		if n := p.Frames; n < 1 || len(p.Exposure.MeanStops) != n || len(p.Exposure.GainStops) != n {
			return nil, &problem.Fault{Field: fmt.Sprintf("parts[%d].answer.frames", i), Value: n, Allowed: "as many as exposure.meanStops and gainStops have"}
		}
	}
	shot, err := shotOf(in)
	if err != nil {
		return nil, err
	}
	return besideShot(take.Join(asked.Parts), known, shot)
}
