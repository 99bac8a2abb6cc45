package exif

import (
	"encoding/binary"
	"hash/crc32"
	"math"

	"pinhole/core/stop"
)

// Tags that say how a picture was exposed, and their types (Exif 2.32, 4.6.2 and 4.6.5).
const (
	tagExif, tagShutter, tagAperture, tagISO = 0x8769, 0x829a, 0x829d, 0x8827
	typeShort, typeLong, typeRational        = 3, 4, 5

	entryBytes = 12
)

// Block returns EXIF that says an exposure and nothing else, as simulated cameras write it.
func Block(set stop.Setting) []byte {
	le := binary.LittleEndian
	entry := func(to []byte, tag, kind uint16, value uint32) []byte {
		to = le.AppendUint16(le.AppendUint16(to, tag), kind)
		return le.AppendUint32(le.AppendUint32(to, 1), value)
	}
	const first = 8                              // right after the head
	const second = first + 2 + entryBytes + 4    // the head's directory has one entry
	const values = second + 2 + 3*entryBytes + 4 // what is wider than four bytes
	out := []byte("II*\x00")
	out = le.AppendUint32(out, first)
	out = entry(le.AppendUint16(out, 1), tagExif, typeLong, second)
	out = le.AppendUint32(out, 0)
	out = entry(le.AppendUint16(out, 3), tagShutter, typeRational, values)
	out = entry(out, tagAperture, typeRational, values+8)
	out = entry(out, tagISO, typeShort, min(uint32(math.Round(float64(set.ISO))), math.MaxUint16))
	out = le.AppendUint32(out, 0)
	for _, v := range []float64{float64(set.Shutter), float64(set.Aperture)} {
		const parts = 1_000_000 // in millionths, as fine as the shortest shutter needs
		out = le.AppendUint32(le.AppendUint32(out, uint32(math.Round(v*parts))), parts)
	}
	return out
}

// IntoPNG returns a PNG with an exposure in it, as its eXIf chunk (PNG 3rd edition, 11.3.2.4),
// right after its head.
func IntoPNG(png []byte, set stop.Setting) []byte {
	const head = 8 + 4 + 4 + 13 + 4 // the signature and the chunk IHDR
	block := Block(set)
	chunk := binary.BigEndian.AppendUint32(nil, uint32(len(block)))
	chunk = append(append(chunk, "eXIf"...), block...)
	chunk = binary.BigEndian.AppendUint32(chunk, crc32.ChecksumIEEE(chunk[4:]))
	out := append([]byte{}, png[:head]...)
	return append(append(out, chunk...), png[head:]...)
}
