package studio

import (
	"encoding/binary"
	"math"
	"runtime"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/core/voice"
)

// tone returns a recording of a tenth of a second as a file.
func tone(t *testing.T) []byte {
	t.Helper()
	r := voice.Recording{Rate: 24_000, Samples: make([]float64, 2400)}
	for i := range r.Samples {
		r.Samples[i] = 0.5 * math.Sin(float64(i)/10)
	}
	file, err := WriteWave(r)
	require.NoError(t, err)
	return file
}

// chunk returns a chunk that claims to hold so much.
func chunk(id string, claims uint32, content string) []byte {
	return append(binary.LittleEndian.AppendUint32([]byte(id), claims), content...)
}

func TestReadWave(t *testing.T) {
	samples, rate, err := ReadWave(tone(t))
	require.NoError(t, err)
	assert.Equal(t, 24_000, rate)
	require.Len(t, samples, 2400)
	assert.InDelta(t, 0.5*math.Sin(1), samples[10], 0.0001)

	// What other programs put beside the samples is passed over.
	file := tone(t)
	named := append(append([]byte{}, file[:12]...), chunk("LIST", 5, "INFOx\x00")...)
	again, _, err := ReadWave(append(named, file[12:]...))
	require.NoError(t, err)
	assert.Equal(t, samples, again)
}

// A chunk that claims 4 GB is refused, and nothing is allocated for it.
func TestAWaveThatClaimsTooMuch(t *testing.T) {
	file := tone(t)
	for _, id := range []string{"LIST", "smpl", "cue ", "data", "fmt ", "junk"} {
		for _, hostile := range [][]byte{
			append(append(append([]byte{}, file[:12]...), chunk(id, math.MaxUint32, "")...), file[12:]...),
			append(append([]byte{}, file...), chunk(id, math.MaxUint32-7, "adtl")...),
			append(append([]byte{}, file...), chunk(id, 5, "adtl")...),
		} {
			var before, after runtime.MemStats
			runtime.ReadMemStats(&before)
			_, _, err := ReadWave(hostile)
			runtime.ReadMemStats(&after)
			require.ErrorIs(t, err, errNoWave, id)
			assert.Less(t, after.TotalAlloc-before.TotalAlloc, uint64(1<<20), id)
		}
	}
}

func TestOnlyPlainSamplesAreRead(t *testing.T) {
	for name, change := range map[string]func(file []byte){
		"compressed":        func(file []byte) { file[20] = 2 },
		"no channel":        func(file []byte) { file[22] = 0 },
		"three channels":    func(file []byte) { file[22] = 3 },
		"a rate of 1":       func(file []byte) { binary.LittleEndian.PutUint32(file[24:], 1) },
		"a rate of 4 GHz":   func(file []byte) { binary.LittleEndian.PutUint32(file[24:], math.MaxUint32) },
		"a sample of 0 bit": func(file []byte) { file[34] = 0 },
		"half a frame":      func(file []byte) { file[32] = 1 },
		"another form":      func(file []byte) { file[8] = 'w' },
	} {
		file := tone(t)
		change(file)
		_, _, err := ReadWave(file)
		assert.ErrorIs(t, err, errNoWave, name)
	}
	for _, short := range []int{0, 11, 19, 36, 44} {
		_, _, err := ReadWave(tone(t)[:short])
		assert.ErrorIs(t, err, errNoWave, "%d bytes", short)
	}
	long := voice.Recording{Rate: 8000, Samples: make([]float64, 8000*61)}
	file, err := WriteWave(long)
	require.NoError(t, err)
	_, _, err = ReadWave(file)
	assert.ErrorIs(t, err, errNoWave, "over a minute")
}

func FuzzReadWave(f *testing.F) {
	f.Add([]byte("RIFF\x00\x00\x00\x00WAVEfmt \x10\x00\x00\x00"))
	f.Fuzz(func(t *testing.T, file []byte) {
		if samples, rate, err := ReadWave(file); err == nil &&
			(len(samples) > len(file) || rate < minRate || rate > maxRate) {
			t.Fatalf("%d samples at %d from %d bytes", len(samples), rate, len(file))
		}
	})
}
