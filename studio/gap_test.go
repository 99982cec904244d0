package studio_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/studio"
	"vastlantern/studio/contract"
)

// lost is a class of rounds of 8 s after a lead-in of 2 s, which was out of sight from 12 s on (round 2) to 10 min.
func lost(t *testing.T) (*desk, int64) {
	d := newDesk(t)
	score, err := d.Lead(contract.Lead{PlanID: d.addPlan(rounds).ID})
	require.NoError(t, err)
	d.pass(600)
	return d, score.ClassID
}

func TestAfterAGapTheRoundIsTakenAgain(t *testing.T) {
	d, class := lost(t)
	gap, err := d.Gap(class, 12_000)
	require.NoError(t, err)
	assert.Equal(t, contract.Gap{Away: "Alternate nostril breath, round 2", Now: "after the end of the class", Again: true}, gap)

	done, err := d.TakeAgain(class, contract.TakeAgain{Key: "k", FromMS: 12_000})
	require.NoError(t, err)
	assert.EqualValues(t, "resume", done.Answer.Do)
	assert.Empty(t, done.Answer.Refused)
	assert.Equal(t, 2, done.Score.Revision)
	first := done.Score.Strands[0]
	assert.EqualValues(t, "setup", first.Stage, "the lead-in")
	assert.Equal(t, []int64{600_000, 601_000}, first.AtMS)
	assert.Equal(t, 2, done.Score.Strands[1].Round, "the same round")

	again, err := d.TakeAgain(class, contract.TakeAgain{Key: "k", FromMS: 12_000})
	require.NoError(t, err)
	assert.Equal(t, done.Answer, again.Answer, "sent twice, done once")
	record, err := d.Record(class)
	require.NoError(t, err)
	assert.Len(t, record.Marks, 2)
	assert.Equal(t, 1, record.Passages[0].Abandoned)
}

func TestWhatCannotBeTakenAgain(t *testing.T) {
	d, class := lost(t)
	_, err := d.TakeAgain(class, contract.TakeAgain{Key: "k", FromMS: 700_000})
	assert.ErrorIs(t, err, studio.ErrConflict, "it is not that late yet")
	_, err = d.Gap(99, 0)
	assert.ErrorIs(t, err, studio.ErrNotFound)
	_, err = d.TakeAgain(99, contract.TakeAgain{Key: "k"})
	assert.ErrorIs(t, err, studio.ErrNotFound)

	score, err := d.Lead(contract.Lead{PlanID: d.addPlan(`{"type": "talk", "title": "Hello", "seconds": 60},` + rounds).ID})
	require.NoError(t, err)
	_, err = d.TakeAgain(class, contract.TakeAgain{Key: "k", FromMS: 12_000})
	assert.ErrorIs(t, err, studio.ErrConflict, "another class runs")
	d.pass(75)
	gap, err := d.Gap(score.ClassID, 30_000)
	require.NoError(t, err)
	assert.Equal(t, contract.Gap{Away: "Hello", Now: "Alternate nostril breath, round 2"}, gap, "in a talk nothing is counted")
	d.do(score.ClassID, "pause")
	d.pass(1)
	_, err = d.TakeAgain(score.ClassID, contract.TakeAgain{Key: "k", FromMS: 63_000})
	assert.ErrorIs(t, err, studio.ErrConflict, "it was adjusted since")
}

func TestWhatAdjustmentsWouldDo(t *testing.T) {
	d := newDesk(t)
	score, err := d.Lead(contract.Lead{PlanID: d.addPlan(rounds).ID})
	require.NoError(t, err)
	d.pass(3)
	one, slower := 1, 30.0
	wants := []contract.Adjust{{Do: "rounds", By: &one}, {Do: "last-round"}, {Do: "release"}, {Do: "tempo", To: &slower}}
	would, err := d.Would(score.ClassID, wants)
	require.NoError(t, err)
	require.Len(t, would, 4)
	assert.EqualValues(t, 8000, would[0].ChangeMS, "a round more")
	assert.EqualValues(t, -16000, would[1].ChangeMS, "two rounds less")
	assert.NotEmpty(t, would[2].Answer.Refused)
	assert.Zero(t, would[2].ChangeMS)
	assert.EqualValues(t, "next count", would[3].Answer.When)
	for i, want := range wants {
		want.Key = string(rune('a' + i))
		before, err := d.Score(score.ClassID)
		require.NoError(t, err)
		assert.Equal(t, i, before.Revision, "nothing was changed by asking")
		fresh, err := d.Would(score.ClassID, []contract.Adjust{want})
		require.NoError(t, err)
		done, err := d.Adjust(score.ClassID, want)
		require.NoError(t, err)
		assert.Equal(t, fresh[0].ChangeMS, done.Score.EndMS-before.EndMS, want.Do)
		assert.Equal(t, fresh[0].Answer.Refused, done.Answer.Refused, want.Do)
	}
	_, err = d.Would(score.ClassID, []contract.Adjust{{Do: "fly"}})
	assert.ErrorIs(t, err, studio.ErrInvalid)
	_, err = d.Would(score.ClassID, make([]contract.Adjust, 41))
	assert.ErrorIs(t, err, studio.ErrInvalid)
	_, err = d.Would(99, nil)
	assert.ErrorIs(t, err, studio.ErrNotFound)
}
