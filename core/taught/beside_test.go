package taught_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/core/pace"
	"vastlantern/core/plan"
	"vastlantern/core/taught"
	"vastlantern/language"
)

// What was beside is told with when it was opened and closed, and with what was breathed in it.
func TestRecordTellsWhatStoodBeside(t *testing.T) {
	// Rounds of 32 s. From 32 s on the others breathe 4:4, four times a round; from 64 s nothing runs beside, and from
	// 96 s, at a hold of 4 counts, they breathe through it. The round from 96 s is the last.
	p := read(t, nadi("4:4:8", 4, `, "lead_in": 0`))
	r := taught.Of(p, []pace.Adjustment{
		{At: 31_500, Do: pace.ToBeside, Text: "4:4"},
		{At: 63_500, Do: pace.ToBeside, Text: "none"},
		{At: 95_500, Do: pace.ToBeside, Text: "breathe"},
	}, 3_600_000)
	for _, a := range r.Answers {
		require.Empty(t, a.Refused)
	}
	lanes := r.Passages[0].Lanes
	require.Len(t, lanes, 2)
	assert.Equal(
		t,
		[]any{"4:4", int64(32_000), int64(32_000), 4, 2, 2},
		[]any{
			lanes[0].Beside.String(),
			lanes[0].At,
			lanes[0].Length,
			lanes[0].Breaths,
			lanes[0].LeftInhales,
			lanes[0].RightInhales,
		},
	)
	assert.Equal(t, "7.5", lanes[0].PerMinute.String())
	assert.Equal(t, []any{"breathe", int64(96_000), 2}, []any{lanes[1].Beside.String(), lanes[1].At, lanes[1].Breaths})
	assert.Equal(t, plan.Beside{Breathe: true}, r.Passages[0].Beside, "in force at the end")
	assert.Equal(t, 8, r.Passages[0].LeftInhales+r.Passages[0].RightInhales, "the main lane is as it was")

	long := taught.Of(read(t, nadi("2:4:2", 3, `, "lead_in": 0, "beside": "breathe"`)), nil, 3_600_000)
	assert.Equal(t, 2*6, long.Passages[0].Lanes[0].Breaths, "a long hold ends with a fresh inhale")
	begun := taught.Of(
		read(t, nadi("4:4:8", 3, `, "lead_in": 0`)),
		[]pace.Adjustment{{At: 1_500, Do: pace.ToBeside, Text: "breathe"}},
		15_000,
	)
	assert.Zero(t, begun.Passages[0].Lanes[0].Breaths, "the inhale was the main lane's when it began")
	assert.Empty(t, taught.Of(read(t, nadi("4:4:8", 3, "")), nil, 3_600_000).Passages[0].Lanes)
}

// What those who breathed told speaks against a step up (handbook.md section 9): a quarter or more "too much"; and many
// on the gentler lane.
func TestWhatWasToldSpeaksAgainstAStep(t *testing.T) {
	for _, c := range []struct {
		name string
		told taught.Told
		why  string // empty: a step is taken
	}{
		{"nobody told anything", taught.Told{}, ""},
		{"a quarter too much", taught.Told{Easy: 3, Right: 3, TooMuch: 2},
			"but for 2 of the 8 who answered it was too much last time: the same again"},
		{"less than a quarter", taught.Told{Easy: 3, Right: 4, TooMuch: 2}, ""},
		{"a third beside, as phones told", taught.Told{Right: 9, Main: 6, Beside: 3},
			"but 3 of 9 took the gentler lane last time"},
		{"less than a third beside", taught.Told{Right: 9, Main: 7, Beside: 3}, ""},
		{"as the teacher counted, whatever the phones told", taught.Told{Main: 1, Beside: 4, Attended: 14, Gentler: 4}, ""},
		{"a third, as counted", taught.Told{Attended: 12, Gentler: 4}, "4 of 12 took the gentler lane"},
		{"too much at home", taught.Told{HomeTooMuch: true}, "but what was given for home was too much last time"},
		{"counted, but nobody knows of how many", taught.Told{Gentler: 4, Main: 8, Beside: 1}, ""},
	} {
		var h taught.History
		for i := range 3 {
			r := taught.Of(read(t, nadi("4:4", 3, "")), nil, 3_600_000)
			if i == 2 {
				r.Told = c.told
			}
			h.Add(r)
		}
		next, _ := h.Next("nadi-shodhana")
		advice := h.Advise(read(t, nadi("4:4", 4, "")))
		if c.why == "" {
			assert.Contains(t, language.English().Text(next.Why), "one step up", c.name)
			assert.Empty(t, advice, c.name)
			continue
		}
		assert.Contains(t, language.English().Text(next.Why), c.why, c.name)
		assert.Equal(t, 3, next.Rounds, c.name)
		require.Len(t, advice, 1, c.name)
		assert.Contains(t, language.English().Text(advice[0].Say), "takes a step up, and ", c.name)
	}
}

// The reason is remembered for as long as it holds a step back.
func TestARoomThatWasNotReadyWaits(t *testing.T) {
	var h taught.History
	tooMuch := taught.Of(read(t, nadi("4:4", 3, "")), nil, 3_600_000)
	tooMuch.Told = taught.Told{TooMuch: 1}
	fine := taught.Of(read(t, nadi("4:4", 3, "")), nil, 3_600_000)
	var whys []string
	for _, r := range []taught.Record{fine, fine, tooMuch, fine, fine, fine} {
		h.Add(r)
		next, _ := h.Next("nadi-shodhana")
		whys = append(whys, language.English().Text(next.Why))
	}
	assert.Contains(t, whys[2], "last time")
	assert.Contains(t, whys[3], "the time before last")
	assert.Contains(t, whys[4], "3 classes ago")
	assert.Contains(t, whys[5], "one step up")
}
