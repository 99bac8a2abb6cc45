package motion

import (
	"errors"
	"fmt"
	"regexp"
	"strconv"
	"strings"
)

// FrameSize is a size of picture that a camera records, in pixels, both at least 1.
type FrameSize struct{ WidthPx, HeightPx int }

var frameSize = regexp.MustCompile(`^(\d{1,6})\s*[x×*:]\s*(\d{1,6})$`)

var errFrameSize = errors.New("width x height in pixels, as in 3840x2160")

// ParseFrameSize reads a written size: 3840x2160.
func ParseFrameSize(text string) (FrameSize, error) {
	parts := frameSize.FindStringSubmatch(strings.ToLower(strings.TrimSpace(text)))
	if parts == nil {
		return FrameSize{}, errFrameSize
	}
	w, _ := strconv.Atoi(parts[1]) // digits alone, six at most
	h, _ := strconv.Atoi(parts[2])
	if w == 0 || h == 0 {
		return FrameSize{}, errFrameSize
	}
	return FrameSize{w, h}, nil
}

// Aspect returns height over width.
func (s FrameSize) Aspect() float64 { return float64(s.HeightPx) / float64(s.WidthPx) }

func (s FrameSize) String() string { return fmt.Sprintf("%dx%d", s.WidthPx, s.HeightPx) }
