// Package measure reads what a file says: frames, pairs of frames with and without a filter,
// exposure telemetry and gyro logs. Files come as bytes; nothing is read or written elsewhere.
//
// A file that cannot be read is an error, a *problem.Fault that names the option it was given
// as. A readable file that does not allow a measurement is an answer: its quantities are null
// and it says in refused why, and what to do.
//
// Definitions, limits and accuracy stand in docs/model.md, section Measuring.
package measure

// Refusal is why something could not be measured, and what to do about it.
type Refusal struct {
	Code string `json:"code"`
	Part string `json:"part" doc:"the option whose file it is about"`
	Text string `json:"text"`
}

// Caution is what to know about a figure that was measured all the same.
type Caution struct {
	Code string `json:"code"`
	Text string `json:"text"`
}

// Findings are what stands beside every measurement.
type Findings struct {
	Refused  []Refusal `json:"refused" doc:"why it is not measured; empty where it is"`
	Cautions []Caution `json:"cautions"`
}

func newFindings() Findings { return Findings{Refused: []Refusal{}, Cautions: []Caution{}} }

// refuse adds a refusal, once for each code and part.
func (f *Findings) refuse(code, part, text string) {
	for _, r := range f.Refused {
		if r.Code == code && r.Part == part {
			return
		}
	}
	f.Refused = append(f.Refused, Refusal{code, part, text})
}

// warn adds a caution, once for each code.
func (f *Findings) warn(code, text string) {
	for _, c := range f.Cautions {
		if c.Code == code {
			return
		}
	}
	f.Cautions = append(f.Cautions, Caution{code, text})
}

func (f *Findings) isRefused() bool { return len(f.Refused) > 0 }
