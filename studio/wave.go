package studio

import (
	"bytes"
	"crypto/sha256"
	"encoding/binary"
	"encoding/hex"
	"errors"
	"io"
	"math"

	"github.com/go-audio/audio"
	"github.com/go-audio/wav"

	"vastlantern/core/fact"
	"vastlantern/core/voice"
)

var errNoWave = fact.New("recording.not-wav")

const (
	pcm        = 1 // the format of whole samples
	minRate    = 8_000
	maxRate    = 192_000
	maxSeconds = 60
)

// ReadWave returns the samples of a RIFF WAVE file, from -1 to 1, its channels mixed, and how many there are a second.
func ReadWave(file []byte) (samples []float64, rate int, err error) {
	plain, err := plainWave(file)
	if err != nil {
		return nil, 0, err
	}
	in := wav.NewDecoder(bytes.NewReader(plain))
	if !in.IsValidFile() {
		return nil, 0, errNoWave
	}
	buffer, err := in.FullPCMBuffer()
	if err != nil {
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

// plainWave returns the file with its format and its samples only. The library allocates what a chunk claims to hold
// before it reads it, so every size is held against the file first, and chunks that are not needed, as LIST, smpl and
// cue, do not reach it (Microsoft and IBM, Multimedia Programming Interface and Data Specifications 1.0, 1991).
func plainWave(file []byte) ([]byte, error) {
	const header, chunkHeader, formatSize = 12, 8, 16
	if len(file) < header || string(file[:4]) != "RIFF" || string(file[8:12]) != "WAVE" {
		return nil, errNoWave
	}
	var format, data []byte
	for rest := file[header:]; len(rest) >= chunkHeader; {
		id, size := string(rest[:4]), uint64(binary.LittleEndian.Uint32(rest[4:]))
		rest = rest[chunkHeader:]
		if size > uint64(len(rest)) {
			return nil, errNoWave
		}
		switch {
		case id == "fmt " && format == nil && size >= formatSize:
			format = rest[:formatSize]
		case id == "data" && data == nil:
			data = rest[:size]
		}
		rest = rest[min(size+size%2, uint64(len(rest))):] // chunks begin at even places
	}
	if format == nil || data == nil || !isPlain(format, len(data)) {
		return nil, errNoWave
	}
	var plain bytes.Buffer
	chunk := func(id string, content []byte) {
		plain.WriteString(id)
		_ = binary.Write(&plain, binary.LittleEndian, uint32(len(content))) // a buffer takes everything
		plain.Write(content)
	}
	plain.WriteString("RIFF")
	_ = binary.Write(&plain, binary.LittleEndian, uint32(4+2*chunkHeader+formatSize+len(data)))
	plain.WriteString("WAVE")
	chunk("fmt ", format)
	chunk("data", data)
	return plain.Bytes(), nil
}

// isPlain reports whether a format is one that is read, for so many bytes of samples.
func isPlain(format []byte, length int) bool {
	field := func(at int) int { return int(binary.LittleEndian.Uint16(format[at:])) }
	channels, rate, bits := field(2), int(binary.LittleEndian.Uint32(format[4:])), field(14)
	switch {
	case field(0) != pcm,
		channels < 1,
		channels > 2,
		rate < minRate,
		rate > maxRate,
		bits != 8 && bits != 16 && bits != 24 && bits != 32:
		return false
	}
	frame := channels * bits / 8
	return field(12) == frame && length%frame == 0 && length <= maxSeconds*rate*frame
}

const bits = 16 // of what is kept

// WriteWave returns a recording as it is kept.
func WriteWave(r voice.Recording) ([]byte, error) {
	data := make([]int, len(r.Samples))
	for i, s := range r.Samples {
		data[i] = int(math.Round(max(-1, min(1, s)) * (1<<(bits-1) - 1)))
	}
	var file seekable
	out := wav.NewEncoder(&file, r.Rate, bits, 1, pcm)
	err := out.Write(
		&audio.IntBuffer{Format: &audio.Format{NumChannels: 1, SampleRate: r.Rate}, Data: data, SourceBitDepth: bits},
	)
	return file.data, errors.Join(err, out.Close())
}

// SumOf returns what a sound is asked for by.
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
