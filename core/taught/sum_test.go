package taught

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"vastlantern/core/plan"
)

func TestSum(t *testing.T) {
	var sum Sum
	sum.Add(300_000, []Passage{
		{Type: plan.Talk, Length: 60_000},
		{Type: plan.Practice, Practice: "ujjayi", Name: "Ocean breath", Length: 90_000, Rounds: 9},
		{Type: plan.Free, Length: 30_000},
		{Type: plan.Practice, Practice: "ujjayi", Name: "Ocean breath", Length: 60_000, OwnPace: true},
		{Type: plan.Practice, Practice: "sigh", Name: "Sighing out", Length: 60_000, Rounds: 4, Trial: true},
		{Type: plan.Practice, Practice: "om-chant", Name: "Om", Length: 0}, // not reached
	})
	sum.Add(100_000, []Passage{{Type: plan.Practice, Practice: "sigh", Name: "Sighs", Length: 100_000, Rounds: 7}})
	sum.Sort()
	assert.Equal(t, Sum{
		Classes: 2, Taught: 400_000, Talks: 60_000, Free: 30_000,
		Practices: []PracticeSum{
			{Practice: "sigh", Name: "Sighs", Classes: 2, Rounds: 7, Led: 100_000, Trial: 60_000},
			{Practice: "ujjayi", Name: "Ocean breath", Classes: 1, Rounds: 9, Led: 90_000, OwnPace: 60_000},
		},
	}, sum)
}

func TestTotalsLeaveOutWhatNobodyCounted(t *testing.T) {
	r := Record{Passages: []Passage{
		{Rounds: 6, PlannedRounds: 8, LongestHold: 8000, HeldFull: 48_000, HeldEmpty: 12_000, LeftInhales: 6, RightInhales: 5},
		{Rounds: 3, PlannedRounds: 3, LongestHold: 4000, HeldFull: 12_000, LeftInhales: 1, RightInhales: 2},
		{Rounds: 9, PlannedRounds: 9, LongestHold: 16_000, HeldFull: 99_000, Trial: true},
		{Rounds: 5, PlannedRounds: 5, LongestHold: 20_000, OwnPace: true},
	}}
	assert.Equal(t, Totals{PlannedRounds: 11, Rounds: 9, LongestHold: 8000, HeldFull: 60_000, HeldEmpty: 12_000, LeftInhales: 7, RightInhales: 7}, r.Totals())
}
