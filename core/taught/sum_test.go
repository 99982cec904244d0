package taught

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"pgregory.net/rapid"

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

// The sum of some classes and that of later ones come to the sum of all.
func TestSumsJoin(t *testing.T) {
	passage := rapid.Custom(func(t *rapid.T) Passage {
		return Passage{
			Type: rapid.SampledFrom([]plan.Type{plan.Talk, plan.Practice, plan.Free}).
				Draw(t, "type"),
			Practice: rapid.SampledFrom([]string{"", "sigh", "ujjayi"}).Draw(t, "practice"),
			Name: rapid.SampledFrom([]string{"Sighs", "Ocean breath"}).
				Draw(t, "name"),
			Length: rapid.Int64Range(0, 100_000).Draw(t, "length"),
			Rounds: rapid.IntRange(0, 20).
				Draw(t, "rounds"),
			OwnPace: rapid.Bool().Draw(t, "own pace"), Trial: rapid.Bool().Draw(t, "trial"),
		}
	})
	rapid.Check(t, func(t *rapid.T) {
		classes := rapid.SliceOfN(rapid.SliceOf(passage), 0, 6).Draw(t, "classes")
		var whole, joined Sum
		for _, passages := range classes {
			whole.Add(600_000, passages)
			var one Sum
			one.Add(600_000, passages)
			joined.Join(one)
		}
		assert.Equal(t, whole, joined)
	})
}

func TestTotalsLeaveOutWhatNobodyCounted(t *testing.T) {
	r := Record{Passages: []Passage{
		{
			Rounds:        6,
			PlannedRounds: 8,
			LongestHold:   8000,
			HeldFull:      48_000,
			HeldEmpty:     12_000,
			LeftInhales:   6,
			RightInhales:  5,
		},
		{Rounds: 3, PlannedRounds: 3, LongestHold: 4000, HeldFull: 12_000, LeftInhales: 1, RightInhales: 2},
		{Rounds: 9, PlannedRounds: 9, LongestHold: 16_000, HeldFull: 99_000, Trial: true},
		{Rounds: 5, PlannedRounds: 5, LongestHold: 20_000, OwnPace: true},
	}}
	assert.Equal(
		t,
		Totals{
			PlannedRounds: 11,
			Rounds:        9,
			LongestHold:   8000,
			HeldFull:      60_000,
			HeldEmpty:     12_000,
			LeftInhales:   7,
			RightInhales:  7,
		},
		r.Totals(),
	)
}
