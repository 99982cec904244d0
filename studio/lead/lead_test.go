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
	after.Edition = before.Edition
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

func TestCardsAreTurnedOnEveryLeadScreen(t *testing.T) {
	d := desktest.New(t)
	class := d.Start(d.AddPlan(`{"type": "talk", "wait": true, "script": "one\n---\ntwo"},` + desktest.Rounds))
	changed, stop := d.Watch(class)
	defer stop()
	before, err := d.Classes.Score(t.Context(), class)
	require.NoError(t, err)
	assert.Equal(t, []string{"one", "two"}, before.Passages[0].Cards)
	assert.Empty(t, before.Passages[1].Cards)
	assert.Zero(t, before.CardUp)
	assert.Empty(t, before.ForTheRoom().Passages[0].Cards, "the words are the teacher's")

	up := contract.CardUp{Passage: 1, Card: 1}
	after, err := d.Classes.TurnCard(t.Context(), class, up)
	require.NoError(t, err)
	assert.Equal(t, up, after.CardUp)
	<-changed
	there, err := d.Classes.Score(t.Context(), class)
	require.NoError(t, err)
	assert.Equal(t, up, there.CardUp)
	assert.Equal(t, before.Revision, there.Revision, "nothing of the class has changed")
	assert.Zero(t, there.ForTheRoom().CardUp)

	defer func() { // last: a class that is over has no card up
		d.Do(class, "end")
		_, err := d.Classes.TurnCard(t.Context(), class, up)
		require.ErrorIs(t, err, studio.ErrConflict)
	}()
	for _, none := range []contract.CardUp{{Passage: 1, Card: 2}, {Passage: 1, Card: -1}, {Passage: 2}, {Passage: 9}} {
		_, err := d.Classes.TurnCard(t.Context(), class, none)
		require.ErrorIs(t, err, studio.ErrInvalid)
	}
}
