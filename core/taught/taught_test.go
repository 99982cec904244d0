package taught_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/core/breath"
	"vastlantern/core/sheet"
	"vastlantern/core/taught"
)

func TestRecordOfALedClass(t *testing.T) {
	_, p, err := sheet.ReadPlan(strings.NewReader(`{"format": "vast-lantern-plan", "version": 1, "tempo": 60, "passages": [
		{"type": "talk", "seconds": 10, "wait": true},
		{"type": "practice", "practice": "nadi-shodhana", "counts": "2:4:2", "rounds": 3, "lead_in": 2},
		{"type": "practice", "practice": "counted-breath", "pace": "own", "minutes": 1},
		{"type": "free", "seconds": 30}]}`))
	require.NoError(t, err)
	script, err := sheet.ReadScript(strings.NewReader(`{"at_ms": 5000, "do": "release"}
		{"at_ms": 15000, "do": "advance"}
		{"at_ms": 22000, "do": "release"}
		{"at_ms": 33000, "do": "tempo", "to": 30}
		{"at_ms": 40000, "do": "again"}
		{"at_ms": 60000, "do": "note", "text": "settled"}
		{"at_ms": 80000, "do": "end"}`))
	require.NoError(t, err)

	r := taught.Of(p, script, 200_000)
	assert.EqualValues(t, 10_000+2_000+3*16_000+75_000+30_000, r.Planned)
	assert.EqualValues(t, 80_000, r.Taught)
	require.Len(t, r.Answers, 7)
	assert.NotEmpty(t, r.Answers[0].Refused, "refused ones are recorded too")

	assert.EqualValues(t, 15_000, r.Passages[0].Length)
	nadi := r.Passages[1]
	// Round 1 from 17 s: a hold released after 3 s of 4 makes it 15 s. Round 2 from 32 s: 2 s, then counts of 2 s; it is
	// abandoned at 40 s. A lead-in of 4 s, and from 44 s round 2 again, at counts of 2 s: 32 s; at 76 s round 3, abandoned
	// after 4 s.
	assert.Equal(t, 2, nadi.Rounds)
	assert.Equal(t, 2, nadi.Abandoned)
	assert.Equal(t, 3, nadi.PlannedRounds)
	assert.Equal(t, []int{2, 2}, []int{nadi.LeftInhales, nadi.RightInhales})
	assert.EqualValues(t, 8_000, nadi.LongestHold)
	assert.EqualValues(t, (3_000+4_000)+6_000+16_000, nadi.HeldFull, "abandoned holds were held too")
	assert.True(t, nadi.TempoStart.Equal(breath.Int(60)))
	assert.True(t, nadi.TempoEnd.Equal(breath.Int(30)))
	// 17 s at 60 and 42 s at 30.
	assert.InDelta(t, (17*60.0+42*30)/59, nadi.TempoMean.Float(), 1e-9)
	assert.InDelta(t, 4*60.0/(15+32), nadi.PerMinute.Float(), 1e-9)

	assert.Zero(t, r.Passages[2].Length, "not reached")
	assert.True(t, r.Passages[2].OwnPace)
	assert.EqualValues(t, 60_000, r.Passages[2].PlannedAt)
}

func TestRecordOfAClassThatWaits(t *testing.T) {
	_, p, err := sheet.ReadPlan(strings.NewReader(`{"format": "vast-lantern-plan", "version": 1, "passages": [{"type": "talk", "wait": true}]}`))
	require.NoError(t, err)
	r := taught.Of(p, nil, 90_000)
	assert.EqualValues(t, 90_000, r.Taught)
	assert.EqualValues(t, 90_000, r.Passages[0].Length)
}

func TestRecordInTheMiddleOfARound(t *testing.T) {
	_, p, err := sheet.ReadPlan(strings.NewReader(`{"format": "vast-lantern-plan", "version": 1, "tempo": 60, "passages": [
		{"type": "practice", "practice": "nadi-shodhana", "counts": "2:2", "rounds": 3, "lead_in": 2}]}`))
	require.NoError(t, err)
	for at, rounds := range map[int64]int{1_000: 0, 2_500: 0, 9_999: 0, 10_000: 1, 14_500: 1, 26_000: 3, 99_000: 3} {
		r := taught.Of(p, nil, at)
		assert.Equal(t, rounds, r.Passages[0].Rounds, "after %d ms", at)
		assert.Equal(t, min(at, 26_000), r.Taught)
	}
}
