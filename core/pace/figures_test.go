package pace_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"vastlantern/core/breath"
	"vastlantern/core/pace"
)

func figure(practice, more string) string {
	return fmt.Sprintf(`{"type": "practice", "practice": %q, "tempo": 60, "rounds": 1, "lead_in": 0%s}`, practice, more)
}

// runs returns the phases of rows in short: how long, which one and its part.
func runs(rows []pace.Row) []string {
	var list []string
	var last pace.Row
	for _, r := range rows {
		if n := len(list); n > 0 && r.Count > last.Count && r.Phase == last.Phase && r.Stage == last.Stage {
			var length int64
			var name string
			_, _ = fmt.Sscanf(list[n-1], "%d %s", &length, &name)
			list[n-1] = fmt.Sprint(length+r.Dur, list[n-1][len(fmt.Sprint(length)):])
		} else {
			text := fmt.Sprintf("%d %s", r.Dur, r.Phase)
			if r.Part != "" {
				text += " " + r.Part
			}
			list = append(list, text)
		}
		last = r
	}
	return list
}

func led(t *testing.T, passage string, script_ ...string) []string {
	t.Helper()
	p := read(t, passage)
	tl, answers := pace.Replay(p, script(t, script_...))
	for _, a := range answers {
		require.Empty(t, a.Refused, a.Do)
	}
	return runs(tl.Rows)
}

// Phases in steps (docs/rules/figures.md section 1).
func TestPhasesInSteps(t *testing.T) {
	for _, c := range []struct {
		name, counts string
		script, want []string
	}{
		{"on the inhale", "6:2:6", nil,
			[]string{"2000 inhale", "2000 hold", "2000 inhale", "2000 hold", "2000 inhale", "6000 exhale"}},
		{"what is left over goes to the first steps", "8:1:4", nil,
			[]string{"3000 inhale", "1000 hold", "3000 inhale", "1000 hold", "2000 inhale", "4000 exhale"}},
		{"on the exhale", "5:0:6:2", nil,
			[]string{"5000 inhale", "2000 exhale", "2000 empty", "2000 exhale", "2000 empty", "2000 exhale"}},
		{"on both", "3:1:3:1", nil, []string{
			"1000 inhale", "1000 hold", "1000 inhale", "1000 hold", "1000 inhale",
			"1000 exhale", "1000 empty", "1000 exhale", "1000 empty", "1000 exhale",
		}},
		{"stops that are dropped leave the steps", "6:2:6", []string{"2500 drop-holds"},
			[]string{"2000 inhale", "1000 hold", "2000 inhale", "2000 inhale", "6000 exhale"}},
		{"a stop is released", "6:4:6", []string{"2500 release"},
			[]string{"2000 inhale", "500 hold", "2000 inhale", "4000 hold", "2000 inhale", "6000 exhale"}},
		{"eased stops", "6:4:6", []string{`500 counts "to": [6, 1, 6, 0]`},
			[]string{"2000 inhale", "1000 hold", "2000 inhale", "1000 hold", "2000 inhale", "6000 exhale"}},
	} {
		assert.Equal(t, c.want, led(t, figure("viloma", fmt.Sprintf(`, "counts": %q`, c.counts)), c.script...), c.name)
	}
	rows := pace.Sheet(read(t, figure("viloma", `, "counts": "6:2:6", "natural_pause": 1`))).Rows
	assert.Equal(t, []string{
		"2000 inhale", "2000 hold", "2000 inhale", "2000 hold", "2000 inhale", "1000 still", "6000 exhale", "1000 still",
	}, runs(rows), "the natural pause is after the last step")
	for _, r := range rows {
		assert.Equal(t, 1, r.Breath, "it is one breath")
	}
	_, answers := pace.Replay(read(t, figure("viloma", "")), script(t, `500 counts "to": [2, 1, 6, 0]`))
	assert.Equal(t, "refused.steps-need-counts", answers[0].Refused.ID)
	assert.Equal(t, []string{"3000 inhale", "1000 inhale", "1000 still", "7000 exhale", "1000 still"},
		led(t, figure("double-inhale", `, "natural_pause": 1`)), "two inhales are one breath")
}

// Whatever is pressed, an inhale and an exhale in steps have the counts that they were given.
func TestStepsKeepTheirCounts(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		n := func(low, high int) int { return rapid.IntRange(low, high).Draw(t, "n") }
		inhale, exhale := n(3, 9), n(3, 9)
		p := read(t, figure("viloma", fmt.Sprintf(`, "counts": "%d:%d:%d:%d"`, inhale, n(0, 3), exhale, n(0, 3))))
		class := pace.Begin(p)
		at := int64(0)
		for range n(0, 8) {
			at += int64(n(0, 3000))
			do := rapid.SampledFrom([]string{"drop-holds", "restore-holds", "release", `beside "to": "breathe"`, "undo"}).Draw(t,
				"do")
			class.Adjust(script(t, fmt.Sprintf("%d %s", at, do))[0])
		}
		counted := map[breath.Phase]int{}
		for _, row := range class.Timeline().Rows {
			counted[row.Phase]++
		}
		assert.Equal(t, inhale, counted[breath.Inhale])
		assert.Equal(t, exhale, counted[breath.Exhale])
	})
}

// A breath after the strokes (docs/rules/figures.md section 2).
func TestABreathAfterStrokes(t *testing.T) {
	bellows := func(more string) string {
		return fmt.Sprintf(`{"type": "practice", "practice": "bhastrika", "strokes": 3, "rate": 120, "rounds": 1, `+
			`"lead_in": 0%s}`, more)
	}
	for _, c := range []struct {
		name, more   string
		script, want []string
	}{
		{"strokes at their rate, the breath at the plan's tempo", "", nil,
			[]string{"1500 stroke", "4000 inhale", "6000 hold", "6000 exhale"}},
		{"without it", `, "after": "none"`, nil, []string{"1500 stroke"}},
		{"the hold is released", "", []string{"6500 release"},
			[]string{"1500 stroke", "4000 inhale", "1000 hold", "6000 exhale"}},
		{"no holds", "", []string{"100 drop-holds"}, []string{"1500 stroke", "4000 inhale", "6000 exhale"}},
		{"enough ends the strokes", "", []string{"600 enough"},
			[]string{"1000 stroke", "4000 inhale", "6000 hold", "6000 exhale"}},
		{"the rate is that of the next strokes", `, "after": "1:0:1"`, []string{`600 tempo "to": 60`},
			[]string{"2000 stroke", "1000 inhale", "1000 exhale"}},
		{"a rate in the hold does not touch it", "", []string{`7000 tempo "to": 60`},
			[]string{"1500 stroke", "4000 inhale", "6000 hold", "6000 exhale"}},
		{"fewer strokes in the breath are for the next round", "", []string{`2000 strokes "to": 1`},
			[]string{"1500 stroke", "4000 inhale", "6000 hold", "6000 exhale"}},
	} {
		assert.Equal(t, c.want, led(t, bellows(c.more), c.script...), c.name)
	}
	assert.Equal(t,
		[]string{"2000 lead", "1500 stroke", "500 inhale", "1000 free", "2000 lead", "1000 inhale", "1000 exhale"},
		led(t, `{"type": "practice", "practice": "bhastrika", "strokes": 3, "rate": 120, "rounds": 1, "after": "1:0:1", `+
			`"lead_in": 2}`,
			"4000 pause", "5000 resume"),
		"a pause leaves the strokes done")
	for press, why := range map[string]string{
		"2000 enough":                    "refused.strokes-done",
		`2000 counts "to": [4, 4, 4, 0]`: "refused.practice-not-counted",
	} {
		_, answers := pace.Replay(read(t, bellows("")), script(t, press))
		assert.Equal(t, why, answers[0].Refused.ID)
	}
	minutes := read(t, `{"type": "practice", "practice": "bhastrika", "strokes": 10, "rate": 60, "minutes": 1, `+
		`"rest_between": 0}`)
	assert.Equal(t, 2, minutes.Passages[0].TotalRounds(minutes.Passages[0].Measure), "the breath belongs to the minutes")
}

// Movement on the breath (docs/rules/figures.md section 3).
func TestMovementOnTheBreath(t *testing.T) {
	rows := pace.Sheet(read(t, figure("half-salutation", `, "counts": "1:1"`))).Rows
	assert.Equal(t, []string{
		"1000 inhale arms up", "1000 exhale fold forward", "1000 inhale half up, long back", "1000 exhale fold",
		"1000 inhale arms up", "1000 exhale hands to the heart",
	}, runs(rows))
	assert.Equal(t, "inhale, arms up", rows[0].Say)
	assert.Equal(t, []int{1, 1, 2, 2, 3, 3}, []int{rows[0].Breath, rows[1].Breath, rows[2].Breath, rows[3].Breath,
		rows[4].Breath, rows[5].Breath})

	rows = pace.Sheet(read(t, figure("sun-salutation", `, "counts": "1:1", "sides": "left-right"`))).Rows
	require.Len(t, rows, 24, "once on each side")
	assert.Equal(t, []string{"left foot back, look up", "right foot back, look up"}, []string{rows[2].Part, rows[14].Part})

	posture := figure("posture", `, "counts": "2:2", "breaths": 2`)
	assert.Equal(t, []string{
		"2000 inhale right side", "2000 exhale right side", "2000 inhale right side", "2000 exhale right side",
		"6000 free",
		"2000 inhale left side", "2000 exhale left side", "2000 inhale left side", "2000 exhale left side",
	}, led(t, posture))
	assert.Equal(t, []string{"2000 inhale", "2000 exhale"},
		led(t, figure("posture", `, "counts": "2:2", "breaths": 1, "sides": "none"`)))
	changed := led(t, posture, "8500 advance")
	assert.Equal(t, "500 free", changed[4], "the teacher goes on before its time")
	tl, _ := pace.Replay(read(t, figure("posture", `, "counts": "2:2", "breaths": 1, "by_hand": ["exhale"]`)),
		script(t, "3000 advance", "20000 advance"))
	assert.Equal(t, []string{"2000 inhale right side", "1000 exhale right side", "17000 free", "2000 inhale left side"},
		runs(tl.Rows)[:4], "by hand the change waits")
	for _, r := range pace.Sheet(read(t, posture)).Rows {
		if r.Phase == breath.Free {
			assert.Equal(t, "change sides", r.Say)
		}
	}
}
