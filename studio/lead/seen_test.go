package lead_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/studio"
	"vastlantern/studio/contract"
	"vastlantern/studio/desk/desktest"
)

func TestWhatWasSeenIsProposedTakenAndRecorded(t *testing.T) {
	d := desktest.New(t)
	plan := d.AddPlan(
		`{"type": "practice", "practice": "counted-breath", "counts": "4:8:8", "rounds": 4, "lead_in": 0}, {"type": "talk"}`,
	)
	score, err := d.Classes.Begin(t.Context(), contract.Lead{PlanID: plan.ID, Acknowledged: contract.StrongCautions(plan)})
	require.NoError(t, err)
	d.Pass(5)
	p, err := d.Classes.Saw(t.Context(), score.ClassID, contract.Saw{Key: "s1", See: "rushed"})
	require.NoError(t, err)
	assert.Equal(t, "hold 8 to 6, from this breath", desktest.Words(p.Say))
	require.Len(t, p.Do, 1)
	assert.Equal(t, []any{4., 6., 8., 0.}, p.Do[0].To)
	p.Do[0].Key = "t1"
	taken, err := d.Classes.Adjust(t.Context(), score.ClassID, p.Do[0])
	require.NoError(t, err)
	require.Empty(t, taken.Answer.Refused)
	assert.Equal(t, []string{"4:8:8", "4:6:8"}, []string{taken.Answer.Before.Counts, taken.Answer.After.Counts})
	assert.Len(t, taken.Score.Phases[1].AtMS, 6, "the hold in progress")

	d.Pass(15)
	d.Reopen() // a restart forgets nothing of it
	p, err = d.Classes.Saw(t.Context(), score.ClassID, contract.Saw{Key: "s2", See: "rushed"})
	require.NoError(t, err)
	assert.EqualValues(t, "drop-holds", p.Do[0].Do, "seen again")
	record, err := d.Records.Record(t.Context(), score.ClassID)
	require.NoError(t, err)
	assert.Equal(t, "rushed", record.Marks[0].Answer.See)
	assert.Equal(t, "rushed", record.Marks[1].Answer.Because)
	_, err = d.Classes.Saw(t.Context(), score.ClassID, contract.Saw{Key: "s3", See: "fire"})
	assert.ErrorIs(t, err, studio.ErrInvalid)
	assert.Len(t, d.Classes.Signals(), 15)
}

func TestTapsOfTheRoom(t *testing.T) {
	d := desktest.New(t)
	plan := d.AddPlan(
		`{"type": "practice", "practice": "counted-breath", "counts": "4:6", "rounds": 4, "lead_in": 0}, {"type": "talk"}`,
	)
	score, err := d.Classes.Begin(t.Context(), contract.Lead{PlanID: plan.ID})
	require.NoError(t, err)
	tapped, err := d.Classes.Tapped(t.Context(), score.ClassID, contract.Taps{AtMS: []int64{0, 1200, 2400}})
	require.NoError(t, err)
	assert.Equal(t, contract.Tapped{IntervalMS: 1200, Used: 2, Tempo: 50}, tapped)
	tapped, err = d.Classes.Tapped(t.Context(), score.ClassID, contract.Taps{AtMS: []int64{0, 12_000}, Breaths: true})
	require.NoError(t, err)
	assert.EqualValues(t, 50, tapped.Tempo, "ten counts in twelve seconds")
	_, err = d.Classes.Tapped(t.Context(), score.ClassID, contract.Taps{AtMS: []int64{5}})
	assert.ErrorIs(t, err, studio.ErrInvalid)
	_, err = d.Classes.Tapped(t.Context(), score.ClassID, contract.Taps{AtMS: make([]int64, 501)})
	assert.ErrorIs(t, err, studio.ErrInvalid)
	d.Pass(45)
	tapped, err = d.Classes.Tapped(t.Context(), score.ClassID, contract.Taps{AtMS: []int64{0, 1200}})
	require.NoError(t, err)
	assert.Zero(t, tapped.Tempo, fmt.Sprint("nothing is counted in a talk: ", tapped))
}
