package lead_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/core/pace"
	"vastlantern/studio/contract"
	"vastlantern/studio/desk/desktest"
)

func TestTheScoreBeginsWithTheRoundInProgress(t *testing.T) {
	d := desktest.New(t)
	score, err := d.Classes.Begin(contract.Lead{PlanID: d.AddPlan(desktest.Rounds).ID})
	require.NoError(t, err)
	assert.EqualValues(t, "setup", score.Phases[0].Stage)
	d.Pass(2 + 8 + 5)
	score, err = d.Classes.Score(score.ClassID)
	require.NoError(t, err)
	first := score.Phases[0]
	assert.EqualValues(t, []any{pace.Round, 2, int64(10_000)}, []any{first.Stage, first.Round, first.AtMS[0]})
	assert.Equal(t, 3, score.Passages[0].Rounds)
	assert.EqualValues(t, 30_000, score.EndMS)
	assert.Contains(t, first.Verbs, pace.Again)
	assert.NotContains(t, first.Verbs, "resume")
	assert.EqualValues(t, 58, score.Passages[0].Slower)
}

func TestWhatWaitsIsShownWithWhatFollows(t *testing.T) {
	d := desktest.New(t)
	score, err := d.Classes.Begin(contract.Lead{PlanID: d.AddPlan(`{"type": "talk", "seconds": 20, "wait": true},` + desktest.Rounds).ID})
	require.NoError(t, err)
	require.NotNil(t, score.Wait)
	assert.EqualValues(t, -1, score.Phases[0].EndMS)
	assert.EqualValues(t, 20_000, score.Wait.PlannedEndMS)
	assert.EqualValues(t, 30_000, score.Wait.LengthMS)
	assert.EqualValues(t, 50_000, score.EndMS)
	assert.EqualValues(t, 20_000, score.Passages[1].StartMS)
	d.Pass(25)
	score, err = d.Classes.Score(score.ClassID)
	require.NoError(t, err)
	assert.EqualValues(t, 55_000, score.EndMS, "later than planned by now")
	assert.EqualValues(t, 25_000, d.Do(score.ClassID, "advance").Score.Phases[0].AtMS[0])
}
