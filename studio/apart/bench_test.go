package apart_test

import (
	"bytes"
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

// What a lead screen does for one press: before it can draw, and for the whole class, which follows where the program
// does not tell it.
func BenchmarkAPressOfAnHour(b *testing.B) {
	for _, whole := range []bool{false, true} {
		b.Run(map[bool]string{false: "drawn", true: "whole"}[whole], func(b *testing.B) {
			var w apart.Worker
			answer := func(q contract.CoreQuestion) {
				text, err := json.Marshal(q)
				require.NoError(b, err)
				require.True(b, bytes.HasSuffix(w.Answer(text), []byte(`"wrong":null}`)))
			}
			answer(contract.CoreQuestion{Ask: contract.AskOpen, Kit: &contract.Kit{ClassID: 1, Document: hour}})
			pressed := 0
			for b.Loop() {
				pressed++
				answer(contract.CoreQuestion{
					Ask: contract.AskPress, AtMS: int64(pressed) * 100,
					Presses: []contract.Adjust{{Key: fmt.Sprint(pressed), Do: "tempo", To: 60 + float64(pressed%20)/10}},
				})
				if !whole {
					b.StopTimer()
				}
				answer(contract.CoreQuestion{Ask: contract.AskScore, AtMS: int64(pressed) * 100})
				if !whole {
					b.StartTimer()
				}
			}
		})
	}
}
