package measure

import (
	"math"
	"slices"

	"gonum.org/v1/gonum/dsp/fourier"
	"gonum.org/v1/gonum/dsp/window"

	"pinhole/core/angle"
	"pinhole/core/motion"
	"pinhole/core/stop"
)

// How the spectrum is taken (Welch 1967) and what a peak is.
const (
	segmentS     = 4.0
	peaksFromHz  = 1.0
	peakTimes    = 6 // the median of what lies within an octave
	peakReach    = 2 // bins to either side that belong to it
	mostPeaks    = 12
	mostSpectrum = 4096 // values that are written
)

// Spectrum is power by frequency, the axes summed.
type Spectrum struct {
	StepHz     float64   `json:"stepHz"`
	DegS2PerHz []float64 `json:"degS2PerHz"`
	// Kept is as long as DegS2PerHz.
	Kept []float64 `json:"kept,omitempty" doc:"what a shutter leaves of a swing at each frequency, where a shutter was given"`
}

// keep fills in what a shutter leaves, by the rule for vibration.
func (s *Spectrum) keep(t stop.Shutter) {
	for i := range s.DegS2PerHz {
		s.Kept = append(s.Kept, motion.Vibration{Hz: float64(i) * s.StepHz}.Averaging(t))
	}
}

// Peak is a frequency that stands out.
type Peak struct {
	Hz           float64       `json:"hz"`
	DegS         angle.DegPerS `json:"degS" doc:"amplitude of the turning"`
	AmplitudeDeg angle.Deg     `json:"amplitudeDeg"`
	Of           PeakOf        `json:"of,omitempty" doc:"what turns at that frequency, where a motor's speed was given"`
	KeptShare    *float64      `json:"keptShare,omitempty" doc:"what the shutter leaves of it, where one was given"`
}

// spectrum fills in the spectrum and its peaks.
func (a *GyroAnswer) spectrum(e *evenLog) {
	n := min(len(e.axes[0]), int(math.Round(segmentS/e.step)))
	power, segments := welch(e, n)
	if segments == 0 {
		a.warn("spectrum", "No four seconds of it are whole: there is no spectrum.")
		return
	}
	stepHz := 1 / (float64(n) * e.step)
	a.Peaks = peaksOf(power, stepHz)
	if len(a.Peaks) > 0 {
		hz := a.Peaks[0].Hz
		a.PeakHz = &hz
	}
	// What is written is as fine as can be drawn.
	every := (len(power) + mostSpectrum - 1) / mostSpectrum
	s := &Spectrum{StepHz: stepHz * float64(every)}
	for i := 0; i < len(power); i += every {
		mean, _ := spread(power[i:min(i+every, len(power))])
		s.DegS2PerHz = append(s.DegS2PerHz, mean)
	}
	a.Spectrum = s
}

// welch returns the power by frequency, of segments of n samples that overlap by a half and
// lie in no gap.
func welch(e *evenLog, n int) (power []float64, segments int) {
	shape := make([]float64, n)
	for i := range shape {
		shape[i] = 1
	}
	window.Hann(shape)
	weight := 0.0
	for _, w := range shape {
		weight += w * w
	}
	power = make([]float64, n/2+1)
	fft := fourier.NewFFT(n)
	segment := make([]float64, n)
	var bins []complex128
	for from := 0; from+n <= len(e.axes[0]); from += max(1, n/2) {
		if slices.Contains(e.inGap[from:from+n], true) {
			continue
		}
		segments++
		for k := range e.axes {
			mean, _ := spread(e.axes[k][from : from+n])
			for i := range segment {
				segment[i] = (e.axes[k][from+i] - mean) * shape[i]
			}
			bins = fft.Coefficients(bins, segment)
			for i, c := range bins {
				power[i] += real(c)*real(c) + imag(c)*imag(c)
			}
		}
	}
	scale := 2 * e.step / (weight * float64(max(1, segments)))
	for i := range power {
		power[i] *= scale
	}
	power[0] /= 2
	if n%2 == 0 {
		power[n/2] /= 2
	}
	return power, segments
}

// peaksOf returns what stands out of a spectrum, strongest first.
func peaksOf(power []float64, stepHz float64) []Peak {
	peaks := []Peak{}
	for i := max(1, int(math.Ceil(peaksFromHz/stepHz))); i+1 < len(power); i++ {
		if power[i] < power[i-1] || power[i] <= power[i+1] {
			continue
		}
		octave := slices.Clone(power[max(1, int(float64(i)/math.Sqrt2)):min(len(power), int(float64(i)*math.Sqrt2)+1)])
		slices.Sort(octave)
		if power[i] < peakTimes*octave[len(octave)/2] {
			continue
		}
		// The top of the parabola through the logarithms of the highest and its neighbours.
		l, m, r := math.Log(power[i-1]+least), math.Log(power[i]+least), math.Log(power[i+1]+least)
		off := 0.0
		if d := l - 2*m + r; d < 0 {
			off = (l - r) / (2 * d)
		}
		sum := 0.0
		for j := max(0, i-peakReach); j <= min(len(power)-1, i+peakReach); j++ {
			sum += power[j] * stepHz
		}
		p := Peak{Hz: (float64(i) + off) * stepHz, DegS: angle.DegPerS(math.Sqrt(2 * sum))}
		p.AmplitudeDeg = angle.Deg(float64(p.DegS) / (2 * math.Pi * p.Hz))
		if last := len(peaks) - 1; last >= 0 && p.Hz-peaks[last].Hz < (peakReach+1)*stepHz {
			if p.DegS > peaks[last].DegS {
				peaks[last] = p
			}
			continue
		}
		peaks = append(peaks, p)
	}
	slices.SortStableFunc(peaks, func(a, b Peak) int {
		switch {
		case a.DegS > b.DegS:
			return -1
		case a.DegS < b.DegS:
			return 1
		}
		return 0
	})
	return peaks[:min(len(peaks), mostPeaks)]
}
