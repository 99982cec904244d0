package lead_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/core/pace"
	"vastlantern/studio"
	"vastlantern/studio/contract"
)

const strokes = `{"type": "practice", "practice": "kapalabhati", "rate": 60, "strokes": 200, "rounds": 2, "lead_in": 0}`

// One lead screen listens at a time: the one that began last. The room does not know of it.
func TestOneScreenListens(t *testing.T) {
	d, class := begun(t, strokes)
	listen := func(ear string, on bool) string {
		t.Helper()
		score, err := d.Classes.Listen(t.Context(), class, contract.Listens{Ear: ear, On: on})
		require.NoError(t, err)
		return score.Ear
	}
	assert.Equal(t, "tablet", listen("tablet", true))
	assert.Equal(t, "phone", listen("phone", true))
	assert.Equal(t, "phone", listen("tablet", false), "it had stopped already")
	score, err := d.Classes.Score(t.Context(), class)
	require.NoError(t, err)
	assert.Equal(t, "phone", score.Ear)
	assert.Zero(t, score.ForTheRoom().Ear)
	assert.Zero(t, score.ForTheRoom().Passages[0].Hears)
	assert.Empty(t, listen("phone", false))
	for _, wrong := range []string{"", string(make([]byte, 65))} {
		_, err := d.Classes.Listen(t.Context(), class, contract.Listens{Ear: wrong, On: true})
		assert.ErrorIs(t, err, studio.ErrInvalid)
	}
	d.Do(class, "end")
	d.Pass(1)
	_, err = d.Classes.Listen(t.Context(), class, contract.Listens{Ear: "tablet", On: true})
	assert.ErrorIs(t, err, studio.ErrConflict)
}

// The program and a screen's own copy propose the same, and nothing of what was heard before the last change.
func TestWhatIsProposedOfWhatIsHeard(t *testing.T) {
	d, class := begun(t, strokes)
	here := screenOf(t, d, class, "tablet")
	d.Pass(30)
	asked := func(heard contract.HeardStrokes) contract.FromHeard {
		t.Helper()
		proposed, err := d.Classes.HeardStrokes(t.Context(), class, heard)
		require.NoError(t, err)
		own, err := here.ProposeHeard(30_000, heard)
		require.NoError(t, err)
		assert.Equal(t, proposed, own)
		return proposed
	}
	heard := contract.HeardStrokes{PerMinute: 66.2, FromMS: 20_000}
	proposed := asked(heard)
	require.Len(t, proposed.Do, 1)
	assert.Equal(t, pace.ToTempo, proposed.Do[0].Do)
	assert.Equal(t, "heard-strokes", proposed.Do[0].Because)
	assert.Equal(t, "propose.heard-strokes", proposed.Say.ID)
	assert.Empty(t, asked(contract.HeardStrokes{PerMinute: 61, FromMS: 20_000}).Do)

	here.press(25_000, contract.Adjust{Do: pace.ToTempo, To: 55.0})
	here.send(false, "")
	assert.Empty(t, asked(heard).Do, "some of it was heard before the change")
	heard.FromMS = 26_000
	assert.Len(t, asked(heard).Do, 1)
	for _, rate := range []float64{0, -1, 2000} {
		_, err := d.Classes.HeardStrokes(t.Context(), class, contract.HeardStrokes{PerMinute: rate})
		assert.ErrorIs(t, err, studio.ErrInvalid)
	}
}
