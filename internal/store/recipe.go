package store

import "cmp"

// Recipe is what to set on a camera beside shutter and ISO, in its owner's words.
type Recipe struct {
	WhiteBalance   string `json:"whiteBalance,omitempty" maxLength:"120" doc:"set with the glass on"`
	Profile        string `json:"profile,omitempty" maxLength:"120" doc:"picture profile or curve"`
	Sharpness      string `json:"sharpness,omitempty" maxLength:"120"`
	NoiseReduction string `json:"noiseReduction,omitempty" maxLength:"120"`
	Corrections    string `json:"corrections,omitempty" maxLength:"120" doc:"distortion, corners, horizon"`
	Transmission   string `json:"transmission,omitempty" maxLength:"120" doc:"as local law allows"`
	ISOLimits      string `json:"isoLimits,omitempty" maxLength:"120" doc:"on automatic"`
	Other          string `json:"other,omitempty" maxLength:"400"`
}

// Over returns the recipe with what it leaves out as another has it.
func (r *Recipe) Over(usual *Recipe) Recipe {
	return Recipe{
		WhiteBalance:   cmp.Or(r.WhiteBalance, usual.WhiteBalance),
		Profile:        cmp.Or(r.Profile, usual.Profile),
		Sharpness:      cmp.Or(r.Sharpness, usual.Sharpness),
		NoiseReduction: cmp.Or(r.NoiseReduction, usual.NoiseReduction),
		Corrections:    cmp.Or(r.Corrections, usual.Corrections),
		Transmission:   cmp.Or(r.Transmission, usual.Transmission),
		ISOLimits:      cmp.Or(r.ISOLimits, usual.ISOLimits),
		Other:          cmp.Or(r.Other, usual.Other),
	}
}

// Lines returns what is to be set, a line each, white balance first.
func (r *Recipe) Lines() []string {
	lines := []string{}
	for _, l := range []struct{ name, words string }{
		{"White balance", r.WhiteBalance}, {"Profile", r.Profile}, {"Sharpness", r.Sharpness}, {"Noise reduction", r.NoiseReduction},
		{"Corrections", r.Corrections}, {"Transmission", r.Transmission}, {"ISO limits", r.ISOLimits}, {"Also", r.Other},
	} {
		if l.words != "" {
			lines = append(lines, l.name+": "+l.words)
		}
	}
	return lines
}
