package take

import (
	"bufio"
	"bytes"
	"errors"
	"fmt"
	"io"
	"strconv"
	"strings"
)

// Limits of what is read.
const (
	FewestFrames = 8
	MostFrames   = 1200
	mostWidthPx  = 8192
	headerBytes  = 512
)

// Clip is luma, frame by frame, row by row, a byte a pixel.
type Clip struct {
	Width, Height int
	// Frames hold codes from 0 to 255; of a limited range black is 16 and white 235.
	Frames    [][]byte
	IsLimited bool
	// FPS is what the file says, 0 for nothing.
	FPS float64
}

// errY4M is what is wrong with a file that is none.
var errY4M = errors.New("it is no YUV4MPEG2 of 8 bits")

// ReadY4M reads the luma of YUV4MPEG2 as converters write it: 4:2:0, 4:2:2, 4:4:4 or mono,
// 8 bits.
func ReadY4M(file io.Reader) (*Clip, error) {
	in := bufio.NewReaderSize(file, 1<<16)
	header, err := line(in)
	if err != nil {
		return nil, errY4M
	}
	clip, chroma, err := readHeader(header)
	if err != nil {
		return nil, err
	}
	luma := clip.Width * clip.Height
	for {
		mark, err := line(in)
		if errors.Is(err, io.EOF) && mark == "" {
			break
		}
		if err != nil || mark != "FRAME" && !strings.HasPrefix(mark, "FRAME ") {
			return nil, fmt.Errorf("frame %d is torn", len(clip.Frames))
		}
		if len(clip.Frames) == MostFrames {
			return nil, fmt.Errorf("it has more than %d frames", MostFrames)
		}
		frame := make([]byte, luma)
		if _, err := io.ReadFull(in, frame); err != nil {
			return nil, fmt.Errorf("frame %d is cut short", len(clip.Frames))
		}
		if _, err := in.Discard(chroma); err != nil {
			return nil, fmt.Errorf("the colour of frame %d is cut short", len(clip.Frames))
		}
		clip.Frames = append(clip.Frames, frame)
	}
	if len(clip.Frames) < FewestFrames {
		return nil, fmt.Errorf("it has %d frames, fewer than %d", len(clip.Frames), FewestFrames)
	}
	return clip, nil
}

// line returns what stands before the end of a line that is not too long.
func line(in *bufio.Reader) (string, error) {
	var out bytes.Buffer
	for out.Len() < headerBytes {
		b, err := in.ReadByte()
		if err != nil {
			return out.String(), err
		}
		if b == '\n' {
			return out.String(), nil
		}
		out.WriteByte(b)
	}
	return "", errY4M
}

// readHeader reads the first line, and how many bytes of colour follow the luma of a frame.
func readHeader(text string) (clip *Clip, chroma int, err error) {
	parts := strings.Fields(text)
	if len(parts) == 0 || parts[0] != "YUV4MPEG2" {
		return nil, 0, errY4M
	}
	clip = &Clip{IsLimited: true}
	sampling := "420"
	for _, p := range parts[1:] {
		switch value := p[1:]; p[0] {
		case 'W':
			clip.Width, err = strconv.Atoi(value)
		case 'H':
			clip.Height, err = strconv.Atoi(value)
		case 'F':
			clip.FPS, err = ratio(value)
		case 'C':
			sampling = value
		case 'X':
			if strings.EqualFold(value, "COLORRANGE=FULL") {
				clip.IsLimited = false
			}
		}
		if err != nil {
			return nil, 0, fmt.Errorf("its header says %q", p)
		}
	}
	if clip.Width < 2*blockPx || clip.Height < blockPx || clip.Width > mostWidthPx || clip.Height > mostWidthPx {
		return nil, 0, fmt.Errorf("it is %d × %d pixels: %d × %d to %d are read", clip.Width, clip.Height, 2*blockPx, blockPx, mostWidthPx)
	}
	half := func(n int) int { return (n + 1) / 2 }
	switch sampling {
	case "mono":
	case "420", "420jpeg", "420mpeg2", "420paldv":
		chroma = 2 * half(clip.Width) * half(clip.Height)
	case "422":
		chroma = 2 * half(clip.Width) * clip.Height
	case "444":
		chroma = 2 * clip.Width * clip.Height
	default:
		return nil, 0, fmt.Errorf("its frames are %q: convert it to 4:2:0 of 8 bits, -pix_fmt yuv420p", sampling)
	}
	return clip, chroma, nil
}

// ratio reads a frame rate such as 30000:1001; 0:0 says nothing.
func ratio(text string) (float64, error) {
	top, bottom, ok := strings.Cut(text, ":")
	a, errA := strconv.ParseFloat(top, 64)
	b, errB := strconv.ParseFloat(bottom, 64)
	if !ok || errA != nil || errB != nil || a < 0 || b < 0 {
		return 0, errY4M
	}
	if a == 0 || b == 0 {
		return 0, nil
	}
	return a / b, nil
}
