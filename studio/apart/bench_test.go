package apart_test

import (
	"encoding/json"
	"fmt"
	"testing"

	"github.com/stretchr/testify/require"

	"vastlantern/studio/apart"
	"vastlantern/studio/contract"
)

// An hour of rounds, which is as long as a class of one practice gets.
const hour = `{"format": "vast-lantern-plan", "version": 1, "tempo": 60, "passages": [
	{"type": "practice", "practice": "nadi-shodhana", "counts": "4:4:8", "rounds": 110}]}`

// What a lead screen does for one press before it can draw: the answer to a key of the teacher's.
func BenchmarkAPressOfAnHour(b *testing.B) {
	var w apart.Worker
	answer := func(q contract.CoreQuestion) {
		text, err := json.Marshal(q)
		require.NoError(b, err)
		require.Contains(b, string(w.Answer(text)), `"wrong":null`)
	}
	answer(contract.CoreQuestion{Ask: contract.AskOpen, Kit: &contract.Kit{ClassID: 1, Document: hour}})
	pressed := 0
	for b.Loop() {
		pressed++
		answer(contract.CoreQuestion{
			Ask: contract.AskPress, AtMS: int64(pressed) * 100,
			Presses: []contract.Adjust{{Key: fmt.Sprint(pressed), Do: "tempo", To: 60 + float64(pressed%20)/10}},
		})
	}
}
