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
