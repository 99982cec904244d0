package voice

import "math"

// Levels are in dB: relative to full scale, or LUFS, which is K-weighted (ITU-R BS.1770-5).
const (
	silence      = -70.0 // LUFS: blocks below do not count (the absolute gate of BS.1770-5, annex 1)
	relativeGate = 10.0  // LU below the mean of what passed the absolute gate
	blockSeconds = 0.4
	blockStep    = 0.1
	offset       = -0.691 // dB: the K-weighting of a sine of 997 Hz, taken back
)

// Loudness returns the integrated loudness of one channel in LUFS, as ITU-R BS.1770-5 (annex 1) and EBU R 128 measure
// it: silence is -Inf. What is shorter than one block of 400 ms, as many words are, is measured as one block of its own
// length.
func Loudness(samples []float64, rate int) float64 {
	weighted := kWeighted(samples, rate)
	size, step := int(blockSeconds*float64(rate)), int(blockStep*float64(rate))
	if len(weighted) < size {
		size = len(weighted)
	}
	if size == 0 {
		return math.Inf(-1)
	}
	var blocks []float64 // mean squares
	for from := 0; from+size <= len(weighted); from += step {
		sum := 0.0
		for _, s := range weighted[from : from+size] {
			sum += s * s
		}
		blocks = append(blocks, sum/float64(size))
	}
	loud := above(blocks, silence)
	return lufs(mean(above(loud, lufs(mean(loud))-relativeGate)))
}

func lufs(meanSquare float64) float64 { return offset + 10*math.Log10(meanSquare) }

func above(blocks []float64, gate float64) (list []float64) {
	for _, b := range blocks {
		if lufs(b) > gate {
			list = append(list, b)
		}
	}
	return list
}

func mean(list []float64) float64 {
	if len(list) == 0 {
		return 0
	}
	sum := 0.0
	for _, one := range list {
		sum += one
	}
	return sum / float64(len(list))
}

// biquad is a filter of the second order, normalised to a0 = 1.
type biquad struct{ b0, b1, b2, a1, a2 float64 }

func (f biquad) over(samples []float64) []float64 {
	out := make([]float64, len(samples))
	var x1, x2, y1, y2 float64
	for i, x := range samples {
		y := f.b0*x + f.b1*x1 + f.b2*x2 - f.a1*y1 - f.a2*y2
		out[i] = y
		x1, x2, y1, y2 = x, x1, y, y1
	}
	return out
}

// kWeighted returns the two stages of the K-weighting: a shelf for what a head does to a sound, and a high pass.
func kWeighted(samples []float64, rate int) []float64 {
	return highPass(rate).over(headShelf(rate).over(samples))
}

// The standard gives the coefficients at 48 kHz only. These are the analogue filters from which they come, so that
// other rates have theirs; a test holds them against the table of the standard.

func headShelf(rate int) biquad {
	const frequency, gain, quality, bend = 1681.974450955533, 3.999843853973347, 0.7071752369554196, 0.4996667741545416
	k := math.Tan(math.Pi * frequency / float64(rate))
	high := math.Pow(10, gain/20)
	mid := math.Pow(high, bend)
	a0 := 1 + k/quality + k*k
	return biquad{
		b0: (high + mid*k/quality + k*k) / a0, b1: 2 * (k*k - high) / a0, b2: (high - mid*k/quality + k*k) / a0,
		a1: 2 * (k*k - 1) / a0, a2: (1 - k/quality + k*k) / a0,
	}
}

func highPass(rate int) biquad {
	const frequency, quality = 38.13547087602444, 0.5003270373238773
	k := math.Tan(math.Pi * frequency / float64(rate))
	a0 := 1 + k/quality + k*k
	return biquad{b0: 1, b1: -2, b2: 1, a1: 2 * (k*k - 1) / a0, a2: (1 - k/quality + k*k) / a0}
}
