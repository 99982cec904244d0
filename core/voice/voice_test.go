package voice

import (
	"fmt"
	"math"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"vastlantern/core/words"
)

func ExamplePieces() {
	recorded := map[string]bool{"hand up": true, "then": true, "close the left": true, "close": true}
	fmt.Printf("%q\n", Pieces("hand up, then close the left", func(plain string) bool { return recorded[plain] }))
	fmt.Println(Pieces("hand down", func(plain string) bool { return recorded[plain] }))
	// Output:
	// ["hand up" "then" "close the left"]
	// []
}

// The coefficients that ITU-R BS.1770-5 gives for 48 kHz, tables 1 and 2 (the values from memory).
func TestTheFiltersAreThoseOfTheStandard(t *testing.T) {
	const close = 1e-6
	shelf, pass := headShelf(48_000), highPass(48_000)
	for _, pair := range [][2]float64{
		{1.53512485958697, shelf.b0}, {-2.69169618940638, shelf.b1}, {1.19839281085285, shelf.b2},
		{-1.69065929318241, shelf.a1}, {0.73248077421585, shelf.a2},
		{1, pass.b0}, {-2, pass.b1}, {1, pass.b2}, {-1.99004745483398, pass.a1}, {0.99007225036621, pass.a2},
	} {
		assert.InDelta(t, pair[0], pair[1], close)
	}
}

// part is so many seconds of a sine of 1 kHz, in dB of full scale.
type part struct{ level, seconds float64 }

func sine(rate int, parts ...part) (samples []float64) {
	for _, p := range parts {
		for range int(p.seconds * float64(rate)) {
			at := float64(len(samples)) / float64(rate)
			samples = append(samples, math.Pow(10, p.level/20)*math.Sin(2*math.Pi*1000*at))
		}
	}
	return samples
}

// The signals of EBU Tech 3341 (version 4, table 1, cases 1 to 5; from memory) are the same on two channels; one of
// them alone is 3.01 LU less. They are to be met within 0.1 LU.
func TestLoudnessOfTheStandardsSignals(t *testing.T) {
	const one, within = 3.01, 0.1
	for _, rate := range []int{24_000, 48_000} {
		for name, signal := range map[string]struct {
			want  float64
			parts []part
		}{
			"1": {-23, []part{{-23, 20}}},
			"2": {-33, []part{{-33, 20}}},
			"3": {-23, []part{{-36, 10}, {-23, 60}, {-36, 10}}},
			"4": {-23, []part{{-72, 10}, {-36, 10}, {-23, 60}, {-36, 10}, {-72, 10}}},
			"5": {-23, []part{{-26, 20}, {-20, 20.1}, {-26, 20}}},
		} {
			if rate == 48_000 && name != "3" { // the gates are the same, and one is enough to see it
				continue
			}
			assert.InDelta(t, signal.want-one, Loudness(sine(rate, signal.parts...), rate), within, "case %s at %d", name, rate)
		}
	}
	// The reference of BS.1770-5: 997 Hz at full scale on one channel is -3.01 LKFS; 1 kHz is the same within its
	// tolerance.
	assert.InDelta(t, -one, Loudness(sine(48_000, part{0, 5}), 48_000), within)
	assert.InDelta(t, -one, Loudness(sine(48_000, part{0, 0.2}), 48_000), within, "shorter than a block")
	assert.True(t, math.IsInf(Loudness(nil, 48_000), -1))
	assert.True(t, math.IsInf(Loudness(make([]float64, 48_000), 48_000), -1))
}

// Whatever was recorded, the word begins soon after the file does, and is as loud as every other.
func TestReadyTrimsAndBringsToOneLoudness(t *testing.T) {
	const rate = 24_000
	for _, level := range []float64{-30, -18, -3} {
		r, err := Ready(sine(rate, part{-90, 0.8}, part{level, 0.6}, part{-90, 1.1}), rate)
		require.NoError(t, err)
		assert.InDelta(t, ahead+0.6+after, r.Seconds(), 0.02)
		assert.InDelta(t, Target, Loudness(r.Samples[int(ahead*rate):len(r.Samples)-int(after*rate)], rate), 1)
		assert.InDelta(t, level-3.01, r.Was, 1)
		assert.False(t, r.Clipped)
		assert.Zero(t, r.Samples[0])
	}
	loud := sine(rate, part{-90, 0.2}, part{6, 0.5}, part{-90, 0.2})
	for i, s := range loud {
		loud[i] = max(-1, min(1, s))
	}
	r, err := Ready(loud, rate)
	require.NoError(t, err)
	assert.True(t, r.Clipped)

	// A click with a soft word after it: what is loudest is kept below full scale.
	click := append(sine(rate, part{0, 0.005}), sine(rate, part{-40, 1})...)
	r, err = Ready(click, rate)
	require.NoError(t, err)
	for _, s := range r.Samples {
		require.LessOrEqual(t, math.Abs(s), math.Pow(10, peakCeiling/20)+1e-9)
	}
}

func TestWhatCannotBeMadeReady(t *testing.T) {
	const rate = 24_000
	for _, wrong := range []struct {
		samples []float64
		rate    int
		want    error
	}{
		{nil, rate, ErrSilent},
		{make([]float64, rate), rate, ErrSilent},
		{sine(rate, part{-70, 1}), rate, ErrSilent},
		{make([]float64, 13*rate), rate, ErrLong},
		{make([]float64, 10), 4000, ErrRate},
		{make([]float64, 10), 200_000, ErrRate},
	} {
		_, err := Ready(wrong.samples, wrong.rate)
		assert.ErrorIs(t, err, wrong.want)
	}
}

func TestTheListIsWhatTheTableSays(t *testing.T) {
	for tag, w := range words.Languages {
		list := List(w, []string{"Moon breath"}, []string{"Fill from below", w.Text("hold") + ", " + w.Text("left")})
		of := map[string]Kind{}
		for _, word := range list {
			assert.NotContains(t, of, Plain(word.Text), "%s: a word stands once", tag)
			of[Plain(word.Text)] = word.Kind
		}
		assert.Equal(t, Breath, of[Plain(w.Text("inhale"))])
		assert.Equal(t, Numbers, of[w.Number(16)])
		assert.Equal(t, Practices, of["moon breath"])
		assert.Equal(t, Own, of["fill from below"])
		assert.NotContains(t, of, Plain(w.Text("hold")+" "+w.Text("left")), "%s: what its pieces say already", tag)
		assert.NotContains(t, of, Plain(w.Text(words.EndOfClass)), "%s: it is shown, never said", tag)
		// Each key of the table is recorded or is never said.
		shownOnly := map[string]bool{
			"still":          true,
			"beat":           true,
			"lead":           true,
			"talk":           true,
			words.EndOfClass: true,
			words.WithHolds:  true,
			words.Through:    true,
			words.Shorter:    true,
		}
		for _, key := range words.Keys() {
			assert.Equal(t, !shownOnly[key], of[Plain(w.Text(key))] != "" || w.Text(key) == w.Text("exhale"), "%s: %s", tag, key)
		}
	}
}

// Pieces, said one after the other, are the text.
func TestPiecesAreTheText(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		word := rapid.SampledFrom([]string{"in", "out", "left", "right", "hold"})
		text := strings.Join(
			rapid.SliceOfN(word, 1, 8).Draw(t, "text"),
			rapid.SampledFrom([]string{" ", ", ", " – "}).Draw(t, "between"),
		)
		phrases := map[string]bool{}
		for _, phrase := range rapid.SliceOfN(rapid.SliceOfN(word, 1, 3), 0, 8).Draw(t, "recorded") {
			phrases[strings.Join(phrase, " ")] = true
		}
		pieces := Pieces(text, func(plain string) bool { return phrases[plain] })
		if pieces == nil {
			return
		}
		assert.Equal(t, Plain(text), strings.Join(pieces, " "))
		for _, piece := range pieces {
			assert.True(t, phrases[piece])
		}
	})
}
