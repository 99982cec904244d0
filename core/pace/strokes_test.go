package pace_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"

	"vastlantern/core/pace"
)

// strokes writes the strokes of a timeline as "1: 1-8/20 9-20/20", by round: runs without a break, their last of, and ~
// where the round was abandoned.
func strokes(tl pace.Timeline) string {
	text := ""
	for i := 0; i < len(tl.Rows); {
		row, j := tl.Rows[i], i+1
		for j < len(tl.Rows) && tl.Rows[j].Follows(&tl.Rows[j-1]) {
			j++
		}
		if row.Stage == pace.Round {
			if row.Starts || i == 0 {
				text += fmt.Sprintf("%d: ", row.Round)
			}
			text += fmt.Sprintf("%d-%d/%d ", row.Count, tl.Rows[j-1].Count, tl.Rows[j-1].Of)
			if !row.Kept {
				text += "~ "
			}
		}
		i = j
	}
	return text
}

func TestStrokes(t *testing.T) {
	// At 60 strokes a minute stroke n begins at n-1 seconds.
	two := `{"type": "practice", "practice": "kapalabhati", "strokes": 8, "rate": 60, "rounds": 2, "lead_in": 0, ` +
		`"rest_between": 10}`
	for _, c := range []struct {
		name    string
		passage string
		script  []string
		want    string
		end     int64
		refused []string
	}{
		{"as planned, with the rest between", two, nil, "1: 1-8/8 2: 1-8/8 ", 26_000, nil},
		{"a rate from the next stroke", two, []string{`500 tempo "to": 120`}, "1: 1-8/8 2: 1-8/8 ", 1000 + 3500 + 10_000 +
			4000, nil},
		{"the range of a rate", two, []string{`0 tempo "to": 29`, `0 tempo "to": 141`}, "1: 1-8/8 2: 1-8/8 ", 26_000,
			[]string{"0 tempo", "0 tempo"}},
		{"enough: ends with the stroke in progress and is kept", two, []string{`3500 enough`}, "1: 1-4/8 2: 1-8/8 ", 22_000,
			nil},
		{"at the start of a stroke that stroke is in progress", two, []string{`3000 enough`}, "1: 1-4/8 2: 1-8/8 ", 22_000,
			nil},
		{"only in a round", two, []string{`9000 enough`}, "1: 1-8/8 2: 1-8/8 ", 26_000, []string{"9000 enough"}},
		{"fewer strokes count at once", two, []string{`2500 strokes "to": 5`}, "1: 1-5/5 2: 1-5/5 ", 20_000, nil},
		{"already reached: with the stroke in progress", two, []string{`5500 strokes "to": 3`}, "1: 1-6/8 2: 1-3/3 ", 19_000,
			nil},
		{"more strokes wait for the next round", two, []string{`2500 strokes "to": 10`}, "1: 1-8/8 2: 1-10/10 ", 28_000, nil},
		{"1 to 500", two, []string{`0 strokes "to": 0`, `0 strokes "to": 501`}, "1: 1-8/8 2: 1-8/8 ", 26_000,
			[]string{"0 strokes", "0 strokes"}},
		{"a pause waits for the remaining strokes; the one that is cut is done", two, []string{`2500 pause`, `9000 resume`},
			"1: 1-3/8 4-8/8 2: 1-8/8 ", 2500 + 6500 + 5000 + 10_000 + 8000, nil},
		{"at the start of a stroke nothing of it is done", two, []string{`2000 pause`, `9000 resume`},
			"1: 1-2/8 3-8/8 2: 1-8/8 ", 9000 + 6000 + 18_000, nil},
		{"with none done all are left", two, []string{`0 pause`, `0 strokes "to": 9`, `5000 resume`}, "1: 1-8/8 2: 1-9/9 ",
			5000 + 8000 + 10_000 + 9000, nil},
		{"fewer in a pause", two, []string{`2500 pause`, `3000 strokes "to": 5`, `9000 resume`}, "1: 1-3/8 4-5/5 2: 1-5/5 ",
			9000 + 2000 + 15_000, nil},
		{"a number already passed leaves none, and the pause goes on", two, []string{`2500 pause`, `3000 strokes "to": 2`,
			`9000 resume`},
			"1: 1-3/8 2: 1-2/2 ", 9000 + 10_000 + 2000, nil},
		{"enough in a pause ends it at t", two, []string{`2500 pause`, `6000 enough`}, "1: 1-3/8 2: 1-8/8 ",
			6000 + 10_000 + 8000, nil},
		{"not if no stroke is done", two, []string{`0 pause`, `1000 enough`, `2000 resume`}, "1: 1-8/8 2: 1-8/8 ", 28_000,
			[]string{"1000 enough"}},
		{"again: the strokes before a pause are abandoned with the rest", two, []string{`2500 pause`, `9000 resume`,
			`10500 again`},
			"1: 1-3/8 ~ 4-5/8 ~ 1: 1-8/8 2: 1-8/8 ", 10_500 + 26_000, nil},
		{"close abandons a round that waits", two, []string{`2500 pause`, `9000 close`}, "1: 1-3/8 ~ ", 9000, nil},
		{"a round cannot be paused twice over: the lead-in leads to what is left",
			`{"type": "practice", "practice": "kapalabhati", "strokes": 8, "rate": 60, "rounds": 1, "lead_in": 1}`,
			[]string{`3500 pause`, `9000 resume`, `9500 pause`, `12000 resume`}, "1: 1-3/8 4-8/8 ", 12_000 + 1000 + 5000, nil},
	} {
		tl, answers := pace.Replay(read(t, c.passage), script(t, c.script...))
		assert.Equal(t, c.want, strokes(tl), c.name)
		assert.Equal(t, c.refused, refused(answers), c.name)
		assert.Equal(t, c.end, tl.End, c.name)
	}
}

// Panting-breath is one round of as many strokes as its minutes hold, and keeps the minutes when its rate changes.
func TestPantingKeepsItsMinutes(t *testing.T) {
	half := `{"type": "practice", "practice": "panting-breath", "rate": 60, "minutes": 0.5, "lead_in": 0}`
	for _, c := range []struct {
		name    string
		script  []string
		want    string
		refused []string
	}{
		{"as planned", nil, "1: 1-30/30 ", nil},
		{"ten begun in 10 s, then 40 of half a second", []string{`9500 tempo "to": 120`}, "1: 1-50/50 ", nil},
		{"slower", []string{`9500 tempo "to": 30`}, "1: 1-20/20 ", nil},
		{"a pause does not count", []string{`9500 pause`, `20000 resume`, `20000 tempo "to": 30`}, "1: 1-10/30 11-20/20 ",
			nil},
		{"fewer strokes end that", []string{`0 strokes "to": 25`, `9500 tempo "to": 120`}, "1: 1-25/25 ", nil},
		{"more are refused", []string{`0 strokes "to": 31`}, "1: 1-30/30 ", []string{"0 strokes"}},
		{"there is one round", []string{`0 rounds "by": 1`, `0 last-round`}, "1: 1-30/30 ",
			[]string{"0 rounds", "0 last-round"}},
		{"enough", []string{`4200 enough`}, "1: 1-5/30 ", nil},
	} {
		tl, answers := pace.Replay(read(t, half), script(t, c.script...))
		assert.Equal(t, c.want, strokes(tl), c.name)
		assert.Equal(t, c.refused, refused(answers), c.name)
	}
	tiny := read(t, `{"type": "practice", "practice": "panting-breath", "rate": 30, "minutes": 0.01}`)
	assert.Equal(t, "1: 1-1/1 ", strokes(pace.Sheet(tiny)), "at least one stroke")
}
