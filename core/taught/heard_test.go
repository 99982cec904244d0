package taught_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"vastlantern/core/breath"
	"vastlantern/core/pace"
	"vastlantern/core/plan"
	"vastlantern/core/taught"
)

// heardIn sets what was heard beside a class that was led as it is adjusted.
func heardIn(p *plan.Plan, heard []taught.Heard, script ...pace.Adjustment) []taught.HeardPhase {
	class := pace.Begin(p)
	for _, a := range script {
		class.Adjust(a)
	}
	return taught.HeardOf(p, class.Timeline().Rows, heard)
}

func strokesHeard(from, to int64, perMinute float64) taught.Heard {
	return taught.Heard{
		Phase: breath.Stroke, From: from, To: to, PerMinute: breath.Ratio(int64(perMinute*10), 10),
	}
}

// Strokes stand beside the round in whose time they were heard: the median of what was told of it, beside the plan's
// rate and the mean of the beat that was led.
func TestStrokesBesideTheirRounds(t *testing.T) {
	p := read(t, `{"type": "practice", "practice": "kapalabhati", "rate": 60, "strokes": 30, "rounds": 3, `+
		`"rest_between": 20, "lead_in": 0}`)
	list := heardIn(p, []taught.Heard{
		strokesHeard(1_000, 9_000, 66), strokesHeard(6_000, 16_000, 64.5), strokesHeard(12_000, 22_000, 65),
		strokesHeard(24_000, 32_000, 90), // in the rest: not a round's
		strokesHeard(44_000, 52_000, 61), strokesHeard(46_000, 56_000, 62),
		{Phase: breath.Exhale, From: 1_000, To: 5_000}, // strokes are not hummed
	}, pace.Adjustment{At: 15_000, Do: pace.ToTempo, To: breath.Int(120)})
	if !assert.Len(t, list, 2, "of the third round nothing was heard") {
		return
	}
	first, second := list[0], list[1]
	assert.Equal(t, []int{1, 1}, []int{first.Passage, first.Round})
	assert.Equal(t, "60 78.261 65", rates(first), "16 strokes at 60 and 14 at 120: 30 in 23 s")
	assert.Equal(t, 2, second.Round)
	assert.Equal(t, "60 120 61.5", rates(second))
}

func rates(h taught.HeardPhase) string {
	return h.Strokes.Planned.String() + " " + h.Strokes.Led.String() + " " + h.Strokes.Heard.String()
}

// A hum stands beside the exhale in which most of it was, the longest of several, beside the planned and the led
// length.
func TestHumsBesideTheirRounds(t *testing.T) {
	p := read(t, `{"type": "practice", "practice": "bhramari", "counts": "4:8", "rounds": 3, "lead_in": 0, `+
		`"by_hand": ["exhale"]}`)
	hum := func(from, to int64) taught.Heard { return taught.Heard{Phase: breath.Exhale, From: from, To: to} }
	list := heardIn(p, []taught.Heard{
		hum(4_200, 9_700),                        // the first, of 6 s
		hum(13_500, 15_500), hum(16_000, 20_000), // broken in the second, which begins at 14 s
		hum(40_000, 41_000), // after the class
	}, pace.Adjustment{At: 10_000, Do: pace.Advance}, pace.Adjustment{At: 21_000, Do: pace.Advance},
		pace.Adjustment{At: 30_000, Do: pace.Advance})
	lasted := [][4]int64{}
	for _, h := range list {
		lasted = append(lasted, [4]int64{int64(h.Round), h.Lasted.Planned, h.Lasted.Led, h.Lasted.Heard})
	}
	assert.Equal(t, [][4]int64{{1, 8_000, 6_000, 5_500}, {2, 8_000, 7_000, 4_000}}, lasted)
}

// What was heard in a round that is abandoned, or where nothing can be told by ear, is nobody's.
func TestNothingToHear(t *testing.T) {
	own := read(t, `{"type": "practice", "practice": "kapalabhati", "pace": "own", "minutes": 1, "lead_in": 0}`)
	assert.Empty(t, heardIn(own, []taught.Heard{strokesHeard(1_000, 9_000, 66)}))
	counted := read(t, `{"type": "practice", "practice": "counted-breath", "counts": "4:4", "lead_in": 0}`)
	assert.Empty(t, heardIn(counted, []taught.Heard{{Phase: breath.Exhale, From: 4_000, To: 8_000}}))
	hum := read(t, `{"type": "practice", "practice": "bhramari", "counts": "4:8", "rounds": 3, "lead_in": 0}`)
	again := pace.Adjustment{At: 11_000, Do: pace.Again}
	assert.Empty(t, heardIn(hum, []taught.Heard{{Phase: breath.Exhale, From: 5_000, To: 10_000}}, again))
}
