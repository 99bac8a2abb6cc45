// Package line reads and writes a shot as a sentence: the one grammar in which everything
// that can be said of a shot is typed, pasted, read aloud, stored and shown.
//
//	gimbal f2 iso50-800 · f2 1/1250 iso50 · 25 fps 180° · walking, subject 1.4 m/s at 3 m · 4 8 16 32 CPL
//
// Parts come in any order, set apart by ·, a line's end or >, after which the look stands.
// Read gives the parts with where they stand, what could not be read and what it might be;
// Sentence.String writes the same shot in the one canonical way, which reads back the same.
package line
