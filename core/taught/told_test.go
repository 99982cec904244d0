package taught_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"vastlantern/core/breath"
	"vastlantern/core/taught"
)

func TestWhatWasCountedAtOwnPace(t *testing.T) {
	people, _, _, _ := taught.Told{}.Counted()
	assert.Zero(t, people, "nobody told it")
	for _, c := range []struct {
		amounts             []taught.Amount
		people, least, most int
		median              breath.Exact
	}{
		{[]taught.Amount{{Number: 7, People: 1}}, 1, 7, 7, breath.Int(7)},
		{[]taught.Amount{{Number: 60, People: 1}, {Number: 110, People: 1}, {Number: 180, People: 1}}, 3, 60, 180,
			breath.Int(110)},
		{[]taught.Amount{{Number: 60, People: 3}, {Number: 110, People: 2}}, 5, 60, 110, breath.Int(60)},
		{[]taught.Amount{{Number: 60, People: 2}, {Number: 65, People: 2}}, 4, 60, 65, breath.Ratio(125, 2)},
	} {
		people, least, most, median := taught.Told{Amounts: c.amounts}.Counted()
		assert.Equal(t, []any{c.people, c.least, c.most, c.median}, []any{people, least, most, median})
	}
}
