package breath

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"pgregory.net/rapid"
)

// A pulse shows its counts where exact arithmetic says, wherever it begins and however long its counts are.
func TestAPulseIsExact(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		var from Exact
		for range rapid.IntRange(0, 60).Draw(t, "changes of tempo") { // until the fraction no longer fits into two words
			tempo := Ratio(rapid.Int64Range(2000, 12_000).Draw(t, "tempo"), 100)
			from = from.Add(CountLength(tempo).Times(rapid.IntRange(1, 20).Draw(t, "counts")))
		}
		step := CountLength(Ratio(rapid.Int64Range(2000, 12_000).Draw(t, "tempo"), 100))
		pulse := NewPulse(from, step)
		n := rapid.IntRange(0, 20_000).Draw(t, "n")
		exact := from.Add(step.Times(n))
		assert.True(t, pulse.At(n).Equal(exact))
		assert.Equal(t, exact.Round(), pulse.Round(n))
		for near := exact.Round() - 1; near <= exact.Round()+1; near++ {
			assert.Equal(t, !Int(near).Less(exact), pulse.Reached(near, n), "%d against %s", near, exact)
		}
	})
	still := NewPulse(Ratio(1, 2), Exact{})
	assert.True(t, still.Still())
	assert.EqualValues(t, 1, still.Round(5), "half up")
}
