package line

import (
	"fmt"
	"reflect"
	"strings"
	"testing"
	"unicode/utf8"
)

// partsOf writes the parts of a line as kind:text, and what could not be read as ?text.
func partsOf(s *Sentence) string {
	var all []string
	for _, p := range s.Parts {
		all = append(all, fmt.Sprintf("%s:%s", p.Kind, p.Text))
	}
	for _, u := range s.Unread {
		all = append(all, "?"+u.Text)
	}
	return strings.Join(all, " | ")
}

func TestLinesAreRead(t *testing.T) {
	for line, want := range map[string]string{
		"gimbal f2 iso50-800 · f2 1/1250 iso50 · 25 fps 180° · walking, subject 1.4 m/s at 3 m · 4 8 16 32 CPL": "camera:gimbal | camera:f2 | camera:iso50-800 | light:f2 1/1250 iso50 | look:25 fps | look:180° | motion:walking | motion:subject 1.4 m/s at 3 m | kit:ND4 | kit:ND8 | kit:ND16 | kit:ND32 | kit:CPL",
		"sunny, sun behind me > 60fps":                             "light:clear sky | light:sun behind me | look:60 fps",
		"1/240 behind ND8 > 30fps":                                 "light:auto 1/240 behind ND8 | look:30 fps",
		"helmet, auto 1/2000 > 30":                                 "motion:helmet | light:auto 1/2000 | look:30 fps",
		"overcast, shade > 24 · 2 layers":                          "light:overcast | light:open shade | look:24 fps | layers:2 layers",
		"90000 lux > 25 fps · indoors 50 Hz":                       "light:90000 lux | look:25 fps | lamps:50 Hz lights",
		"EV 11.5 to 14.9 > 60 on 30":                               "light:EV 11.5 to 14.9 | look:60 fps on 30",
		"f2.8 1/1600 iso100 > 30":                                  "light:f2.8 1/1600 iso100 | look:30 fps",
		"f2,8 1/1600 iso100 > 29,97 · 4, 8, 16":                    "light:f2.8 1/1600 iso100 | look:29.97 fps | kit:ND4 | kit:ND8 | kit:ND16",
		"f/2.8 1/1600 ISO 100 > 30p 1/100":                         "light:f2.8 1/1600 iso100 | look:30 fps | look:1/100",
		"1/250 to 1/2000 > 25":                                     "light:auto 1/250 to 1/2000 | look:25 fps",
		"1/240 with ND8 on → 30 · with CPL":                        "light:auto 1/240 behind ND8 | look:30 fps | effect:with CPL",
		"EV 14 > 25 · shake 55 °/s":                                "light:EV 14 | look:25 fps | motion:shake 55°/s",
		"EV 14 > 400 degrees 25":                                   "light:EV 14 | look:25 fps | ?400 degrees",
		"EV 999 > 25 · 8":                                          "look:25 fps | kit:ND8 | ?EV 999",
		"EV 1-999 > 25":                                            "light:EV 1 | look:25 fps",
		"ev 11-14 > 25":                                            "light:EV 11 to 14 | look:25 fps",
		"bias +0.7 behind ND16 > 50":                               "light:bias +0.7 behind ND16 | look:50 fps",
		"6.4 klx > still 2s":                                       "light:6.4 klx | look:still | look:2s",
		"EV 15 · time-lapse every 4 s 180°":                        "light:EV 15 | look:time-lapse every 4 s | look:180°",
		"drone · EV 14 > 60 slowed to 25 · with CPL · 8 16":        "camera:drone | light:EV 14 | look:60 fps slowed to 25 | effect:with CPL | kit:ND8 | kit:ND16",
		"EV 14 > 25 · handlebar 30 km/h at 1.5 m · darker":         "light:EV 14 | look:25 fps | motion:handlebar | motion:subject 30 km/h at 1.5 m | taste:darker",
		"EV 14 > 25 · 12 mph at 20 ft, pan 20°/s":                  "light:EV 14 | look:25 fps | motion:subject 12 mph at 20 ft | motion:turning 20°/s",
		"hazy sun, snow, low sun > 50 90° · aim -0.3, image first": "light:hazy sun | light:snow | light:low sun | look:50 fps | look:90° | taste:aim -0.3 | taste:image first",
		"4 8 16 32/PL CPL VND 2-5":                                 "kit:ND4 | kit:ND8 | kit:ND16 | kit:ND32/PL | kit:CPL | kit:VND 2-5 stop",
		"ND64 6 stop ND8 6 stop 16":                                "kit:ND64 | kit:ND8 | kit:ND64 | kit:ND16",
		"VND ND2-ND32 soft GND8":                                   "kit:VND 1-5 stop | kit:GND8",
		"ND1000 4 stop ND 1.2 mist 1/4 UV":                         "kit:ND1000 | kit:ND16 | kit:ND 1.2 | kit:mist 1/4 | kit:UV",
		"overcats > 25":                                            "look:25 fps | ?overcats",
		"EV 12 · EV 13 > 25":                                       "light:EV 12 | look:25 fps | ?EV 13",
		"Row walker (pocket gimbal) EV 12 > 25":                    "camera:Row walker (pocket gimbal) | light:EV 12 | look:25 fps",
		"bias +1 behind 8 > 30 · 16":                               "light:bias +1 behind ND8 | look:30 fps | kit:ND16",
		"EV 12 > 25 · no filters":                                  "light:EV 12 | look:25 fps | kit:no filter",
		"overcast, without ND > 25 · 8":                            "light:overcast | kit:no filter | look:25 fps | ?8",
		"EV 12 > 25 · 8 no filter":                                 "light:EV 12 | look:25 fps | kit:ND8 | ?no filter",
		"EV 12, no filter > 25":                                    "light:EV 12 | kit:no filter | look:25 fps",
		"auto 1/240 iso100 25 fps no filter":                       "light:auto 1/240 iso100 | look:25 fps | kit:no filter",
		"bias +0.7 no filter > 25":                                 "light:bias +0.7 | look:25 fps | ?no filter",
		"1/240 iso100 no filter > 25 · 8":                          "light:auto 1/240 iso100 | look:25 fps | kit:ND8 | ?no filter",
		"row walker EV 12 > 25":                                    "camera:Row walker (pocket gimbal) | light:EV 12 | look:25 fps",
		// A rate that has its unit leaves other numbers to what they are.
		"iso 100 to 800, EV 10, 25 fps":           "camera:iso100-800 | light:EV 10 | look:25 fps",
		"snow, sun, 120 fps, 4 8 16":              "light:snow | light:clear sky | look:120 fps | kit:ND4 | kit:ND8 | kit:ND16",
		"ND 8 16 32 64, sunny, 30 fps":            "kit:ND8 | kit:ND16 | kit:ND32 | kit:ND64 | light:clear sky | look:30 fps",
		"0.9 1.2, sunny, 25fps":                   "kit:0.9 | kit:1.2 | light:clear sky | look:25 fps",
		"sunny 25 fps 180":                        "light:clear sky | look:25 fps | ?180",
		"115° fisheye, EV 12, 25 fps":             "light:EV 12 | look:25 fps | ?115° fisheye",
		"fov 115, EV 12 > 25":                     "light:EV 12 | look:25 fps | ?fov 115",
		"drone 30 m away, EV 12, 60 fps":          "camera:drone | light:EV 12 | look:60 fps | ?30 m",
		"sunny beach 4k60 180 degree shutter":     "light:clear sky | light:pale stone | look:60 fps | look:180°",
		"1080p 60fps EV 12":                       "look:60 fps | light:EV 12",
		"1080p60 on 30 EV 12":                     "look:60 fps on 30 | light:EV 12",
		"EV 12 60 on 30fps":                       "light:EV 12 | look:60 fps on 30",
		"sunny, 25":                               "light:clear sky | look:25 fps",
		"sunny, 64":                               "light:clear sky | kit:ND64",
		"25":                                      "kit:ND25",
		"f/2.8 1/1600 ISO 100, 30 fps, ND8 ND16":  "light:f2.8 1/1600 iso100 | look:30 fps | kit:ND8 | kit:ND16",
		"f2 1/50 iso100, 25 fps":                  "camera:f2 | look:1/50 | camera:iso100 | look:25 fps",
		"f 2.8 1/1000s ISO100 > 50fps 1/100":      "light:f2.8 1/1000 iso100 | look:50 fps | look:1/100",
		"2.8 1/1600 100 > 30":                     "light:f2.8 1/1600 iso100 | look:30 fps",
		"f2.8, 1/1600, iso 100, want 1/60":        "light:f2.8 1/1600 iso100 | look:1/60",
		"shutter speed 1/50 sunny":                "look:1/50 | light:clear sky",
		"auto shutter 1/2000 > 30":                "light:auto 1/2000 | look:30 fps",
		"meter says EV 12..14 > 25":               "light:EV 12 to 14 | look:25 fps",
		"1/250 to 1/2000, 25 fps":                 "light:auto 1/250 to 1/2000 | look:25 fps",
		"20000 to 90000 lux, 25 fps":              "light:20000 lux to 90000 lux | look:25 fps",
		"ND16 on, bias +1.3, 1/50 iso100 f2 > 25": "light:bias +1.3 f2 1/50 iso100 behind ND16 | look:25 fps",
		"1/500 ND8 on > 24 · 16":                  "light:auto 1/500 behind ND8 | look:24 fps | kit:ND16",
		"max iso 400, EV 5 > 25":                  "camera:iso up to 400 | light:EV 5 | look:25 fps",
		"EV 12 > 25 · expose -0.3, nothing on":    "light:EV 12 | look:25 fps | taste:aim -0.3 | kit:no filter",
		"night, 60Hz lamps, 30fps · night filter": "lamps:60 Hz lights | look:30 fps | kit:night filter | ?night",
		// What a setting is follows from what else is said.
		"sunny, 1/50":                                "light:clear sky | look:1/50",
		"sunny, 1/2000":                              "light:auto 1/2000 | ?sunny",
		"24 fps; 1/48; EV 12":                        "look:24 fps | look:1/48 | light:EV 12",
		"f1.8 1/50 iso100 in the sun?":               "camera:f1.8 | look:1/50 | camera:iso100 | light:clear sky",
		"iso: 100, shutter: 1/1600, f: 2.8, fps: 30": "light:f2.8 1/1600 iso100 | look:30 fps",
		"ev=13 fps=25":                               "light:EV 13 | look:25 fps",
		"long exposure 2 s, overcast":                "look:still | look:2s | light:overcast",
		"time lapse 1 frame every 3 seconds, EV 12":  "look:time-lapse every 3 s | light:EV 12",
		"timelapse 10 s every 12 s, EV 3":            "look:10s | look:time-lapse every 12 s | light:EV 3",
		"overcast 24p 180 shutter":                   "light:overcast | look:24 fps | look:180°",
		"EV 12 > 25 · ND 2-32 VND, bike, handlebar":  "light:EV 12 | look:25 fps | kit:VND 1-5 stop | motion:handlebar",
		"EV 12 > 25 · ND4/8/16 32/PL":                "light:EV 12 | look:25 fps | kit:ND4 | kit:ND8 | kit:ND16 | kit:ND32/PL",
		"f2,8, EV 14,3, iso 12,800, 23,976 fps":      "camera:f2.8 | light:EV 14.3 | camera:iso12800 | look:23.976 fps",
		"EV 12, 25 fps, ND8,16 ND0,9":                "light:EV 12 | look:25 fps | kit:ND8 | kit:ND16 | kit:ND0.9",
		"sunny 1/240 > 30 · 4/8/16":                  "light:auto 1/240 | look:30 fps | kit:ND4 | kit:ND8 | kit:ND16 | ?sunny",
		"golden hour, chest mount, 25p 10 stop ND":   "light:low sun | motion:handlebar | look:25 fps | kit:10 stop",
		"EV 12, snow > 25":                           "light:EV 12 | look:25 fps | ?snow",
		"":                                           "",
		" · > ,, · ":                                 "",
	} {
		if got := partsOf(Read(line, "Row walker (pocket gimbal)")); got != want {
			t.Errorf("%q\n is %s\nnot %s", line, got, want)
		}
	}
}

// Where parts stand is where they were typed, in characters.
// A camera is called by its name, or by a beginning of it that is no other's and says nothing else.
func TestCamerasAreCalledByTheirNames(t *testing.T) {
	names := []string{"Pond drone (camera drone)", "Pond drone two", "Lark (air unit)", "Sunny drone (spare)", "EV 14 box", "Row walker left front", "Row walker left back", "Row walker"}
	for line, want := range map[string]string{
		"pond drone (camera drone) EV 12": "camera:Pond drone (camera drone) | light:EV 12",
		"pond drone two EV 12":            "camera:Pond drone two | light:EV 12",
		"pond drone EV 12":                "camera:drone | light:EV 12 | ?pond", // either
		"lark EV 12":                      "camera:Lark (air unit) | light:EV 12",
		"sunny drone":                     "light:clear sky | camera:drone",
		"EV 14 > 25":                      "light:EV 14 | look:25 fps",
		"row walker EV 12":                "camera:Row walker | light:EV 12",
		"row walker left front EV 12":     "camera:Row walker left front | light:EV 12",
	} {
		if got := partsOf(Read(line, names...)); got != want {
			t.Errorf("%q is %s\nnot %s", line, got, want)
		}
	}
}

func TestPartsStandWhereTheyWereTyped(t *testing.T) {
	const line = "sunny · naïve · f2,8 > 25 fps 180°"
	runes := []rune(line)
	s := Read(line)
	for _, want := range []string{"sunny", "f2,8", "25 fps", "180°"} {
		found := false
		for _, p := range s.Parts {
			found = found || string(runes[p.Start:p.End]) == want
		}
		if !found {
			t.Errorf("%q is none of the parts %+v", want, s.Parts)
		}
	}
	if len(s.Unread) != 1 || s.Unread[0].Text != "naïve" || string(runes[s.Unread[0].Start:s.Unread[0].End]) != "naïve" {
		t.Errorf("not read: %+v", s.Unread)
	}
}

func TestWhatIsNotReadIsGuessed(t *testing.T) {
	for text, want := range map[string]string{"overcats": "overcast", "halmet": "helmet", "25x fps": "", "gimbel": "gimbal", "77 > 1": "", "row walkr": "Row walker"} {
		for _, u := range Read(text, "Row walker").Unread {
			if want != "" && (len(u.CouldBe) == 0 || u.CouldBe[0] != want) {
				t.Errorf("%q could be %v, not %s", text, u.CouldBe, want)
			}
		}
	}
}

// Of a range the brighter end is the high one, whichever is named first.
func TestRangesKnowTheirBrighterEnd(t *testing.T) {
	for line, high := range map[string]string{
		"EV 11.5 to 14.9": "EV 14.9", "EV 14.9 to 11.5": "EV 14.9", "20000 to 90000 lux": "90000 lux", "f2 1/100 iso50 to f2 1/800 iso50": "f2 1/800 iso50",
	} {
		if s := Read(line); s.Light == nil || s.Light.Low == nil || s.Light.At.Text != high {
			t.Errorf("%q is %+v, and not highest at %s", line, s.Light, high)
		}
	}
	if s := Read("auto 1/250 to 1/2000"); s.Light.At.Shutter != "1/2000" || s.Light.Low.Shutter != "1/250" {
		t.Errorf("the automatic's range is %+v to %+v", s.Light.At, s.Light.Low)
	}
}

// meaning is a sentence but for where its parts stand.
func meaning(s *Sentence) Sentence {
	m := *s
	m.Parts, m.Unread = nil, nil
	return m
}

// The canonical line reads back as the same sentence, and is written the same again.
func FuzzReadingBack(f *testing.F) {
	for _, line := range []string{
		"gimbal f2 iso50-800 · f2 1/1250 iso50 · 25 fps 180° · walking, subject 1.4 m/s at 3 m · 4 8 16 32 CPL",
		"sunny, sun behind me > 60fps", "1/240 behind ND8 > 30fps", "helmet, auto 1/2000 > 30", "overcast, shade > 24 · 2 layers",
		"90000 lux > 25 fps · indoors 50 Hz", "EV 11.5 to 14.9 > 60 on 30", "bias +0.7 at 1/50 iso100 behind ND16 > still 2\"",
		"EV 15 · time-lapse every 4 s 180°", "hazy, snow, low sun > 50 90° · aim -0.3, image first", "VND 2-5 GND8 mist 1/4 UV night filter 4.5 stop",
		"auto 1/2000 to 1/250 > 25", "EV -2 to 3 > 25", "f2 60 iso50 > 1/1000 p", "100 lux to 20 klx", "EV11-14>25 on 50",
	} {
		f.Add(line)
	}
	f.Fuzz(func(t *testing.T, line string) {
		s := Read(line)
		text := s.String()
		again := Read(text)
		if len(again.Unread) > 0 && utf8.RuneCountInString(text) <= MaxRunes {
			t.Fatalf("%q is written as %q, of which %+v is not read", line, text, again.Unread)
		}
		if back := again.String(); back != text && utf8.RuneCountInString(text) <= MaxRunes {
			t.Fatalf("%q is written as %q, and that as %q", line, text, back)
		}
		if a, b := meaning(s), meaning(again); !reflect.DeepEqual(a, b) && utf8.RuneCountInString(text) <= MaxRunes {
			t.Fatalf("%q is written as %q, and means\n%+v not\n%+v", line, text, b, a)
		}
		runes := []rune(line)
		for _, p := range s.Parts {
			if p.Start < 0 || p.End <= p.Start || p.End > len(runes) {
				t.Fatalf("%q: %+v stands nowhere", line, p)
			}
		}
	})
}
