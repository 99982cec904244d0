package taught_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"vastlantern/core/breath"
	"vastlantern/core/pace"
	"vastlantern/core/taught"
)

func TestSignsAreSetBesideTheHoldsBeforeThem(t *testing.T) {
	p := read(t, `{"type": "practice", "practice": "open-holds", "minutes": 9, "lead_in": 0}`)
	var script []pace.Adjustment
	at := int64(0)
	on := func(ms int64) { at += ms; script = append(script, pace.Adjustment{At: at, Do: pace.Advance}) }
	see := func(sign string) { script = append(script, pace.Adjustment{At: at + 2000, Do: pace.Signal, See: sign}) }
	round := func(hold, empty int64) { on(5000); on(hold); on(7000); on(empty) }
	round(10_000, 5000)
	round(12_400, 6000)
	see("gasp") // at the inhale after an empty hold of 6 s
	round(13_900, 8000)
	see("gasp")
	see("gasp") // once more at the same moment counts once
	on(5000)
	on(14_000)
	see("rushed")
	r := taught.Of(p, script, at+3000)
	assert.Equal(t, []taught.SeenAfter{
		{Passage: 1, Phase: breath.Empty, Sign: "gasp", Seen: 2, Holds: 2, Over: 6000},
		{Passage: 1, Phase: breath.Hold, Sign: "rushed", Seen: 1, Holds: 1, Over: 14_000},
	}, r.SeenAfter)
}

func TestSignsLongAfterAHoldBelongToNone(t *testing.T) {
	p := read(t, `{"type": "practice", "practice": "open-holds", "minutes": 9, "lead_in": 0}, {"type": "talk"}`)
	r := taught.Of(p, []pace.Adjustment{
		{At: 5000, Do: pace.Advance}, {At: 12_000, Do: pace.Advance}, {At: 28_000, Do: pace.Signal, See: "gasp"},
	}, 30_000)
	assert.Empty(t, r.SeenAfter)
	counted := read(t, `{"type": "practice", "practice": "counted-breath", "counts": "4:4:4", "rounds": 9, "lead_in": 0}`)
	r = taught.Of(counted, []pace.Adjustment{{At: 9000, Do: pace.Signal, See: "gasp"}}, 30_000)
	assert.Empty(t, r.SeenAfter, "a counted hold is as long as it was planned")
}
