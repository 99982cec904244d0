package studio

import (
	"bytes"
	"crypto/sha256"
	"encoding/hex"
	"errors"
	"io"
	"math"

	"github.com/go-audio/audio"
	"github.com/go-audio/wav"

	"vastlantern/core/voice"
)

var errNoWave = errors.New("this is no RIFF WAVE of whole samples, 8 to 32 bits, one or two channels")

const pcm = 1 // the format of whole samples

// ReadWave is the samples of a RIFF WAVE file, from -1 to 1, its channels mixed, and how many there are a second.
func ReadWave(file []byte) (samples []float64, rate int, err error) {
	in := wav.NewDecoder(bytes.NewReader(file))
	if !in.IsValidFile() || in.WavAudioFormat != pcm || in.NumChans < 1 || in.NumChans > 2 {
		return nil, 0, errNoWave
	}
	buffer, err := in.FullPCMBuffer()
	if err != nil || buffer.SourceBitDepth < 8 || buffer.SourceBitDepth > 32 {
		return nil, 0, errNoWave
	}
	channels, full := int(in.NumChans), math.Pow(2, float64(buffer.SourceBitDepth-1))
	middle := 0.0
	if buffer.SourceBitDepth == 8 { // those have no sign
		middle = full
	}
	samples = make([]float64, len(buffer.Data)/channels)
	for i := range samples {
		for c := range channels {
			samples[i] += (float64(buffer.Data[i*channels+c]) - middle) / full / float64(channels)
		}
	}
	return samples, int(in.SampleRate), nil
}

const bits = 16 // of what is kept

// WriteWave is a recording as it is kept.
func WriteWave(r voice.Recording) ([]byte, error) {
	data := make([]int, len(r.Samples))
	for i, s := range r.Samples {
		data[i] = int(math.Round(max(-1, min(1, s)) * (1<<(bits-1) - 1)))
	}
	var file seekable
	out := wav.NewEncoder(&file, r.Rate, bits, 1, pcm)
	err := out.Write(&audio.IntBuffer{Format: &audio.Format{NumChannels: 1, SampleRate: r.Rate}, Data: data, SourceBitDepth: bits})
	return file.data, errors.Join(err, out.Close())
}

// SumOf is what a sound is asked for by.
func SumOf(sound []byte) string {
	sum := sha256.Sum256(sound)
	return hex.EncodeToString(sum[:16]) // long enough that nobody guesses it, short enough for every message
}

// seekable is a file in memory: the encoder goes back to write how long it became.
type seekable struct {
	data []byte
	at   int
}

func (s *seekable) Write(part []byte) (int, error) {
	if need := s.at + len(part); need > len(s.data) {
		s.data = append(s.data, make([]byte, need-len(s.data))...)
	}
	copy(s.data[s.at:], part)
	s.at += len(part)
	return len(part), nil
}

func (s *seekable) Seek(offset int64, whence int) (int64, error) {
	switch whence {
	case io.SeekStart:
		s.at = int(offset)
	case io.SeekCurrent:
		s.at += int(offset)
	case io.SeekEnd:
		s.at = len(s.data) + int(offset)
	}
	return int64(s.at), nil
}
