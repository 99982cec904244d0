package taught_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/core/breath"
	"vastlantern/core/pace"
	"vastlantern/core/plan"
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

// Strokes and open phases are told as they were done, round by round; how a passage was breathed and said, with it; and
// each adjustment where it was met.
func TestRecordTellsWhatWasDone(t *testing.T) {
	strokes := `{"type": "practice", "practice": "kapalabhati", "strokes": 20, "rate": 60, "rounds": 3, "rest_between": ` +
		`10, "lead_in": 0, "opening": [], "closing": [], "airway": "mouth", "voice": "words"}`
	p := read(t, strokes, `{"type": "practice", "practice": "open-holds", "minutes": 3, "lead_in": 0, "closing": []}`)
	r := taught.Of(p, []pace.Adjustment{
		{At: 9_500, Do: pace.Enough},              // in the tenth stroke of round 1
		{At: 25_000, Do: pace.ToPause},            // after five of round 2
		{At: 30_000, Do: pace.Resume},             // the other fifteen, to 45 s
		{At: 58_000, Do: pace.Note, Text: "even"}, // in round 3, of 55 to 75 s
		{At: 62_000, Do: pace.ToStrokes, To: breath.Int(12)},
		{At: 70_000, Do: pace.Advance}, // 67 to 70 s
		{At: 82_000, Do: pace.Advance}, {At: 88_000, Do: pace.Advance}, {At: 90_000, Do: pace.Advance},
		{At: 95_000, Do: pace.End},
	}, 200_000)
	for _, a := range r.Answers {
		require.Empty(t, a.Refused, a.Do)
	}
	kapalabhati, open := r.Passages[0], r.Passages[1]
	assert.Equal(t, []taught.LedRound{{Strokes: 10}, {Strokes: 20}, {Strokes: 12}}, kapalabhati.Done)
	assert.Equal(t, []any{breath.ByMouth, plan.Words}, []any{kapalabhati.Airway, kapalabhati.Voice})
	assert.Empty(
		t,
		kapalabhati.Zone+kapalabhati.Attention+kapalabhati.Aperture.Inhale,
		"what the practice has no choice of",
	)
	assert.Equal(
		t,
		[]taught.LedRound{{Lasted: [4]int64{3_000, 12_000, 6_000, 2_000}}},
		open.Done,
		"the round that was broken off is none",
	)
	note := r.Answers[3]
	assert.Equal(t, []any{pace.Round, 3}, []any{note.Stage, note.Round})
	assert.Equal(t, []any{pace.Pause, 0}, []any{r.Answers[2].Stage, r.Answers[2].Round})

	sides := taught.Of(
		read(t, nadi("2:2", 3, `, "lead_in": 0`)),
		[]pace.Adjustment{{At: 13_000, Do: pace.ToTempo, To: breath.Int(50)}},
		200_000,
	)
	assert.Equal(t, []int{2, 2}, []int{sides.Answers[0].Round, sides.Answers[0].Breath}, "round 2, second breath")
	assert.Empty(t, sides.Passages[0].Done, "what is counted is told by its counts")
}

func TestRecordOfAClassThatWaits(t *testing.T) {
	_, p, err := sheet.ReadPlan(
		strings.NewReader(`{"format": "vast-lantern-plan", "version": 1, "passages": [{"type": "talk", "wait": true}]}`),
	)
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
