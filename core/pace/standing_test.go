package pace_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"vastlantern/core/breath"
	"vastlantern/core/pace"
)

// What was refused, taken back or only noted is no change that stands.
func TestWhichAdjustmentsStand(t *testing.T) {
	p := read(t, `{"type": "practice", "practice": "counted-breath", "counts": "4:4:4", "rounds": 9, "lead_in": 0}`)
	class := pace.Begin(p)
	var answers []pace.Answer
	for _, a := range []pace.Adjustment{
		{At: 100, Do: pace.ToTempo, To: breath.Int(50)}, {At: 200, Do: pace.Release}, {At: 300, Do: pace.Note, Text: "quiet"},
		{At: 400, Do: pace.DropHolds}, {At: 500, Do: pace.Undo}, {At: 600, Do: pace.Undo}, {At: 700, Do: pace.Undo},
		{At: 800, Do: pace.LastRound},
	} {
		answers = append(answers, class.Adjust(a))
	}
	var stand []pace.Verb
	for _, a := range pace.Standing(answers) {
		stand = append(stand, a.Do)
	}
	assert.Equal(t, []pace.Verb{pace.Note, pace.LastRound}, stand)
}

// What asks less of the room; fewer strokes do, at whatever rate.
func TestWhatEases(t *testing.T) {
	counted := `{"type": "practice", "practice": "counted-breath", "counts": "4:4:4", "rounds": 9, "lead_in": 0}`
	strokes := `{"type": "practice", "practice": "kapalabhati", "strokes": 30, "rounds": 3, "lead_in": 0}`
	for _, c := range []struct {
		name, passage string
		do            pace.Adjustment
		want          pace.Ease
	}{
		{"holds dropped", counted, pace.Adjustment{Do: pace.DropHolds}, pace.Eases},
		{"a shorter exhale", counted, pace.Adjustment{Do: pace.ToCounts, Counts: [4]int{4, 4, 3, 0}}, pace.Eases},
		{"a longer exhale", counted, pace.Adjustment{Do: pace.ToCounts, Counts: [4]int{4, 4, 5, 0}}, pace.EasesNothing},
		{"slower", counted, pace.Adjustment{Do: pace.ToTempo, To: breath.Int(50)}, pace.MayEase},
		{"the same tempo", counted, pace.Adjustment{Do: pace.ToTempo, To: breath.Int(60)}, pace.EasesNothing},
		{"natural breath", counted, pace.Adjustment{Do: pace.ToPause}, pace.MayEase},
		{"refused", counted, pace.Adjustment{Do: pace.Enough}, pace.EasesNothing},
		{"a round less", counted, pace.Adjustment{Do: pace.Rounds, Relative: true, By: -1}, pace.EasesNothing},
		{"fewer strokes", strokes, pace.Adjustment{Do: pace.ToStrokes, To: breath.Int(20)}, pace.Eases},
		{"more strokes", strokes, pace.Adjustment{Do: pace.ToStrokes, To: breath.Int(40)}, pace.EasesNothing},
		{"enough", strokes, pace.Adjustment{Do: pace.Enough}, pace.Eases},
	} {
		c.do.At = 1500
		answer := pace.Begin(read(t, c.passage)).Adjust(c.do)
		assert.Equal(t, c.want, answer.Eases(), c.name)
	}
}
