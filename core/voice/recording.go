package voice

import (
	"math"

	"vastlantern/core/fact"
)

// What a recording may be.
const (
	LowestRate  = 8_000 // samples a second
	HighestRate = 96_000
	Longest     = 12.0  // seconds, before it is trimmed
	Target      = -16.0 // LUFS of every word: common practice for speech among tones, with no source
	peakCeiling = -1.0  // dB of full scale of its highest sample: the ceiling of EBU R 128
	mostGain    = 40.0  // dB: what is softer was not spoken into the microphone
)

// Why a recording cannot be used.
var (
	ErrRate   = fact.New("recording.rate", "least", LowestRate, "most", HighestRate)
	ErrLong   = fact.New("recording.long", "most", Longest)
	ErrSilent = fact.New("recording.silent")
)

// Recording is a word as it is kept: trimmed, and as loud as every other.
type Recording struct {
	Samples []float64 // one channel, -1 to 1
	Rate    int       // a second
	Was     float64   // LUFS of the spoken part before
	Gain    float64   // dB that brought it to Target, less where its peak left no room
	Clipped bool      // the microphone was too loud: it may sound harsh
}

// Seconds returns how long it lasts.
func (r Recording) Seconds() float64 { return float64(len(r.Samples)) / float64(r.Rate) }

const (
	window   = 0.01 // s over which a level is measured
	fallsOff = 35.0 // dB below the loudest window: from there on it is spoken
	ahead    = 0.02 // s kept before, so that no first consonant is cut
	after    = 0.08 // s kept after: words die away
	edge     = 0.005
	nearFull = 0.999
	softest  = -60.0 // dB of full scale: a window must be louder to be a voice
)

// Ready trims a recording of one channel to what is spoken and brings it to Target. It is ErrRate, ErrLong or ErrSilent
// where that cannot be done.
func Ready(samples []float64, rate int) (Recording, error) {
	switch {
	case rate < LowestRate || rate > HighestRate:
		return Recording{}, ErrRate
	case float64(len(samples)) > Longest*float64(rate):
		return Recording{}, ErrLong
	}
	from, to := spoken(samples, rate)
	if from >= to {
		return Recording{}, ErrSilent
	}
	r := Recording{Samples: make([]float64, to-from), Rate: rate, Was: Loudness(samples[from:to], rate)}
	if math.IsInf(r.Was, -1) || Target-r.Was > mostGain {
		return Recording{}, ErrSilent
	}
	peak := 0.0
	for _, s := range samples[from:to] {
		peak = max(peak, math.Abs(s))
	}
	r.Clipped = peak >= nearFull
	r.Gain = min(Target-r.Was, peakCeiling-decibel(peak))
	factor := math.Pow(10, r.Gain/20)
	faded := edge * float64(rate)
	for i := range r.Samples {
		near := min(float64(i), float64(len(r.Samples)-1-i)) / faded
		r.Samples[i] = samples[from+i] * factor * min(near, 1) // no click at either end
	}
	return r, nil
}

// spoken returns from where to where somebody speaks; nothing where nobody does.
func spoken(samples []float64, rate int) (from, to int) {
	size := max(int(window*float64(rate)), 1)
	levels := make([]float64, 0, len(samples)/size)
	loudest := math.Inf(-1)
	for i := 0; i+size <= len(samples); i += size {
		sum := 0.0
		for _, s := range samples[i : i+size] {
			sum += s * s
		}
		level := decibel(math.Sqrt(sum / float64(size)))
		levels = append(levels, level)
		loudest = max(loudest, level)
	}
	gate := max(loudest-fallsOff, softest)
	first, last := -1, -1
	for i, level := range levels {
		if level > gate {
			if first < 0 {
				first = i
			}
			last = i
		}
	}
	if first < 0 {
		return 0, 0
	}
	from = max(0, first*size-int(ahead*float64(rate)))
	return from, min(len(samples), (last+1)*size+int(after*float64(rate)))
}

func decibel(amplitude float64) float64 { return 20 * math.Log10(amplitude) }
