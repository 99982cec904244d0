package lead_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/core/fact"
	"vastlantern/studio"
	"vastlantern/studio/contract"
	"vastlantern/studio/desk/desktest"
)

func lost(t *testing.T) (*desktest.Desk, int64) {
	d := desktest.New(t)
	score, err := d.Classes.Begin(t.Context(), contract.Lead{PlanID: d.AddPlan(desktest.Rounds).ID})
	require.NoError(t, err)
	d.Pass(600)
	return d, score.ClassID
}

func TestAfterAGapTheRoundIsTakenAgain(t *testing.T) {
	d, class := lost(t)
	gap, err := d.Classes.Gap(t.Context(), class, 12_000)
	require.NoError(t, err)
	assert.Equal(
		t,
		contract.Gap{
			Away:  fact.New("gap.round", "name", "Alternate nostril breath", "round", 2),
			Now:   fact.New("gap.after-end"),
			Again: true,
		},
		gap,
	)

	done, err := d.Classes.TakeAgain(t.Context(), class, contract.TakeAgain{Key: "k", FromMS: 12_000})
	require.NoError(t, err)
	assert.EqualValues(t, "resume", done.Answer.Do)
	assert.Empty(t, done.Answer.Refused)
	assert.Equal(t, 2, done.Score.Revision)
	first := done.Score.Phases[0]
	assert.EqualValues(t, "setup", first.Stage, "the lead-in")
	assert.Equal(t, []int64{600_000, 601_000}, first.AtMS)
	assert.Equal(t, 2, done.Score.Phases[1].Round, "the same round")

	again, err := d.Classes.TakeAgain(t.Context(), class, contract.TakeAgain{Key: "k", FromMS: 12_000})
	require.NoError(t, err)
	assert.Equal(t, done.Answer, again.Answer, "sent twice, done once")
	record, err := d.Records.Record(t.Context(), class)
	require.NoError(t, err)
	assert.Len(t, record.Marks, 2)
	assert.Equal(t, 1, record.Passages[0].Abandoned)
}

func TestWhatCannotBeTakenAgain(t *testing.T) {
	d, class := lost(t)
	_, err := d.Classes.TakeAgain(t.Context(), class, contract.TakeAgain{Key: "k", FromMS: 700_000})
	assert.ErrorIs(t, err, studio.ErrConflict, "it is not that late yet")
	_, err = d.Classes.Gap(t.Context(), 99, 0)
	assert.ErrorIs(t, err, studio.ErrNotFound)
	_, err = d.Classes.TakeAgain(t.Context(), 99, contract.TakeAgain{Key: "k"})
	assert.ErrorIs(t, err, studio.ErrNotFound)

	score, err := d.Classes.Begin(
		t.Context(),
		contract.Lead{PlanID: d.AddPlan(`{"type": "talk", "title": "Hello", "seconds": 60},` + desktest.Rounds).ID},
	)
	require.NoError(t, err)
	_, err = d.Classes.TakeAgain(t.Context(), class, contract.TakeAgain{Key: "k", FromMS: 12_000})
	assert.ErrorIs(t, err, studio.ErrConflict, "another class runs")
	d.Pass(75)
	gap, err := d.Classes.Gap(t.Context(), score.ClassID, 30_000)
	require.NoError(t, err)
	assert.Equal(
		t,
		contract.Gap{
			Away: fact.New("name", "name", "Hello"),
			Now:  fact.New("gap.round", "name", "Alternate nostril breath", "round", 2),
		},
		gap,
		"in a talk nothing is counted",
	)
	d.Do(score.ClassID, "pause")
	d.Pass(1)
	_, err = d.Classes.TakeAgain(t.Context(), score.ClassID, contract.TakeAgain{Key: "k", FromMS: 63_000})
	assert.ErrorIs(t, err, studio.ErrConflict, "it was adjusted since")
}
