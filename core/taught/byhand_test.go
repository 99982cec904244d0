package taught_test

import (
	"encoding/json"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/core/breath"
	"vastlantern/core/pace"
	"vastlantern/core/plan"
	"vastlantern/core/taught"
)

// A class by hand is told breath by breath, the phases that were counted too, with the tempo of the hand over the whole
// passage. What is planned next as it was taught has that tempo.
func TestRecordOfAClassByHand(t *testing.T) {
	const passage = `{"type": "practice", "practice": "counted-breath", "counts": "4:6", "rounds": 4, "lead_in": 0, ` +
		`"by_hand": "all"}`
	p := read(t, passage)
	r := taught.Of(p, []pace.Adjustment{
		{At: 5_000, Do: pace.Advance},  // inhale 5 s
		{At: 12_000, Do: pace.Advance}, // exhale 7 s
		{At: 16_000, Do: pace.Advance},
		{At: 22_000, Do: pace.Advance},
		{At: 22_500, Do: pace.ToHand, Text: "none"}, // from the exhale on
		{At: 25_000, Do: pace.Advance},              // inhale 3 s, and the exhale is counted, 6 s
		{At: 34_000, Do: pace.End},                  // in the fourth round, which is not kept
	}, 200_000)
	for _, a := range r.Answers {
		require.True(t, a.Refused.None(), a.Do)
	}
	led := r.Passages[0]
	require.Len(t, led.Breaths, 3)
	assert.Equal(t, [4]int64{5_000, 0, 7_000, 0}, led.Breaths[0].Lasted)
	assert.Equal(t, [4]int64{3_000, 0, 6_000, 0}, led.Breaths[2].Lasted)
	assert.Equal(t, []int64{0, 12_000, 22_000}, []int64{led.Breaths[0].At, led.Breaths[1].At, led.Breaths[2].At})
	assert.Equal(t, [4]int64{4_000, 0, 6_333, 0}, led.MeanBreath())
	assert.Equal(t, 58, led.HandTempo(), "24 counts in 25 s; the counted exhale is no part of it")

	doc := plan.NewDocument()
	require.NoError(t, json.Unmarshal([]byte(`{"format": "vast-lantern-plan", "version": 1, "passages": [`+passage+`]}`),
		&doc))
	r.Plan(doc, p)
	next, err := plan.Read(doc)
	require.NoError(t, err)
	assert.True(t, next.Passages[0].Measure.Tempo.Equal(breath.Int(58)))
	assert.Equal(t, plan.AllByHand, next.Passages[0].ByHand)
}

// A class by the beat has no breaths by hand, and neither has a round that was broken off.
func TestWhatIsNotByHand(t *testing.T) {
	p := read(t, `{"type": "practice", "practice": "counted-breath", "counts": "4:6", "rounds": 2, "lead_in": 0}`)
	led := taught.Of(p, nil, 200_000).Passages[0]
	assert.Empty(t, led.Breaths)
	assert.Zero(t, led.HandTempo())
	assert.Equal(t, [4]int64{}, led.MeanBreath())

	p = read(t, `{"type": "practice", "practice": "counted-breath", "counts": "4:6", "rounds": 2, "lead_in": 0, `+
		`"by_hand": ["hold"]}`)
	assert.Empty(t, taught.Of(p, nil, 200_000).Passages[0].Breaths, "there is no hold to lead")
	p = read(t, `{"type": "practice", "practice": "counted-breath", "counts": "4:6", "rounds": 2, "lead_in": 0, `+
		`"by_hand": "all"}`)
	led = taught.Of(p, []pace.Adjustment{{At: 5_000, Do: pace.Advance}, {At: 9_000, Do: pace.End}}, 200_000).Passages[0]
	assert.Empty(t, led.Breaths)
	assert.Zero(t, led.HandTempo())
}
