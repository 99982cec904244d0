package lead_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/studio"
	"vastlantern/studio/contract"
	"vastlantern/studio/desk/desktest"
)

func TestWhatAdjustmentsWouldDo(t *testing.T) {
	d := desktest.New(t)
	score, err := d.Classes.Begin(t.Context(), contract.Lead{PlanID: d.AddPlan(desktest.Rounds).ID})
	require.NoError(t, err)
	d.Pass(3)
	one, slower := 1, 30.0
	wants := []contract.Adjust{{Do: "rounds", By: &one}, {Do: "last-round"}, {Do: "release"}, {Do: "tempo", To: &slower}}
	would, err := d.Classes.Would(t.Context(), score.ClassID, wants)
	require.NoError(t, err)
	require.Len(t, would, 4)
	assert.EqualValues(t, 8000, would[0].ChangeMS, "a round more")
	assert.EqualValues(t, -16000, would[1].ChangeMS, "two rounds less")
	assert.NotEmpty(t, would[2].Answer.Refused)
	assert.Zero(t, would[2].ChangeMS)
	assert.EqualValues(t, "next-count", would[3].Answer.When)
	for i, want := range wants {
		want.Key = string(rune('a' + i))
		before, err := d.Classes.Score(t.Context(), score.ClassID)
		require.NoError(t, err)
		assert.Equal(t, i, before.Revision, "nothing was changed by asking")
		fresh, err := d.Classes.Would(t.Context(), score.ClassID, []contract.Adjust{want})
		require.NoError(t, err)
		done, err := d.Classes.Adjust(t.Context(), score.ClassID, want)
		require.NoError(t, err)
		assert.Equal(t, fresh[0].ChangeMS, done.Score.EndMS-before.EndMS, want.Do)
		assert.Equal(t, fresh[0].Answer.Refused, done.Answer.Refused, want.Do)
	}
	_, err = d.Classes.Would(t.Context(), score.ClassID, []contract.Adjust{{Do: "fly"}})
	assert.ErrorIs(t, err, studio.ErrInvalid)
	_, err = d.Classes.Would(t.Context(), score.ClassID, make([]contract.Adjust, 41))
	assert.ErrorIs(t, err, studio.ErrInvalid)
	_, err = d.Classes.Would(t.Context(), 99, nil)
	assert.ErrorIs(t, err, studio.ErrNotFound)
}
