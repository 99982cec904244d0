package lead_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/studio"
	"vastlantern/studio/contract"
	"vastlantern/studio/desk/desktest"
)

func TestAnAdjustmentHasItsOrigin(t *testing.T) {
	d := desktest.New(t)
	score, err := d.Classes.Begin(t.Context(), contract.Lead{PlanID: d.AddPlan(desktest.Rounds).ID})
	require.NoError(t, err)
	_, err = d.Classes.Adjust(t.Context(), score.ClassID, contract.Adjust{Key: "k", Do: "pause", Origin: "phone"})
	require.NoError(t, err)
	_, err = d.Classes.Saw(t.Context(), score.ClassID, contract.Saw{Key: "l", See: "rushed", Origin: "tablet"})
	require.NoError(t, err)
	record, err := d.Records.Record(t.Context(), score.ClassID)
	require.NoError(t, err)
	assert.Equal(t, "phone", record.Marks[0].Answer.Origin)
	assert.Equal(t, "tablet", record.Marks[1].Answer.Origin)
}

func TestAClassGoesOnAfterARestart(t *testing.T) {
	d := desktest.New(t)
	plan := d.AddPlan(desktest.Rounds)
	score, err := d.Classes.Begin(t.Context(), contract.Lead{PlanID: plan.ID})
	require.NoError(t, err)
	d.Pass(3.2)
	slower := 30.0
	_, err = d.Classes.Adjust(t.Context(), score.ClassID, contract.Adjust{Key: "k", Do: "tempo", To: &slower})
	require.NoError(t, err)
	d.Pass(1)
	before, err := d.Classes.Score(t.Context(), score.ClassID)
	require.NoError(t, err)
	d.Reopen()
	after, err := d.Classes.Score(t.Context(), score.ClassID)
	require.NoError(t, err)
	assert.Equal(t, before, after)
	assert.EqualValues(t, "round", after.Phases[0].Stage)
	assert.Equal(t, []int64{2000, 3000}, after.Phases[0].AtMS)
	assert.Equal(t, []int64{4000, 6000}, after.Phases[1].AtMS, "slower from the next count")
	running, err := d.Classes.Running(t.Context())
	require.NoError(t, err)
	assert.Equal(t, contract.Running{ClassID: score.ClassID, Title: "Lunch"}, running)
}

func TestAnAdjustmentSentTwiceCountsOnce(t *testing.T) {
	d := desktest.New(t)
	score, err := d.Classes.Begin(t.Context(), contract.Lead{PlanID: d.AddPlan(desktest.Rounds).ID})
	require.NoError(t, err)
	one := 1
	first, err := d.Classes.Adjust(t.Context(), score.ClassID, contract.Adjust{Key: "same", Do: "rounds", By: &one})
	require.NoError(t, err)
	d.Pass(4)
	second, err := d.Classes.Adjust(t.Context(), score.ClassID, contract.Adjust{Key: "same", Do: "rounds", By: &one})
	require.NoError(t, err)
	assert.Equal(t, first.Answer, second.Answer)
	assert.Equal(t, 4, second.Score.Passages[0].Rounds)
	assert.Equal(t, 1, second.Score.Revision)
}

func TestARefusedAdjustmentIsAnsweredAndRecorded(t *testing.T) {
	d := desktest.New(t)
	score, err := d.Classes.Begin(t.Context(), contract.Lead{PlanID: d.AddPlan(desktest.Rounds).ID})
	require.NoError(t, err)
	a := d.Do(score.ClassID, "resume")
	assert.Equal(t, "not in a pause", desktest.Words(a.Answer.Refused))
	record, err := d.Records.Record(t.Context(), score.ClassID)
	require.NoError(t, err)
	assert.Equal(t, "not in a pause", desktest.Words(record.Marks[0].Answer.Refused))
	assert.Equal(t, 1, record.Marks[0].Passage)
	_, err = d.Classes.Adjust(t.Context(), score.ClassID, contract.Adjust{Key: "z", Do: "fly"})
	assert.ErrorIs(t, err, studio.ErrInvalid)
}

func TestOnlyOneClassIsLedAtATime(t *testing.T) {
	d := desktest.New(t)
	plan := d.AddPlan(desktest.Rounds)
	first, err := d.Classes.Begin(t.Context(), contract.Lead{PlanID: plan.ID})
	require.NoError(t, err)
	d.Pass(5)
	_, err = d.Classes.Begin(t.Context(), contract.Lead{PlanID: plan.ID})
	var failure *studio.Failure
	require.ErrorAs(t, err, &failure)
	assert.Equal(t, first.ClassID, failure.Problem.ClassID)
	second, err := d.Classes.Begin(t.Context(), contract.Lead{PlanID: plan.ID, EndRunning: true})
	require.NoError(t, err)
	assert.NotEqual(t, first.ClassID, second.ClassID)
	record, err := d.Records.Record(t.Context(), first.ClassID)
	require.NoError(t, err)
	assert.EqualValues(t, 5_000, record.TaughtMS)
	d.Pass(31)
	_, err = d.Classes.Begin(t.Context(), contract.Lead{PlanID: plan.ID})
	assert.NoError(t, err, "the second has come to its end by itself")
}

func TestScreensAreToldOfChanges(t *testing.T) {
	d := desktest.New(t)
	score, err := d.Classes.Begin(t.Context(), contract.Lead{PlanID: d.AddPlan(desktest.Rounds).ID})
	require.NoError(t, err)
	changed, stop := d.Watch(score.ClassID)
	d.Do(score.ClassID, "pause")
	select {
	case <-changed:
	default:
		t.Fatal("nothing was told")
	}
	stop()
	d.Do(score.ClassID, "resume")
	assert.Empty(t, changed)
}
