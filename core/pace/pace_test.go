package pace_test

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/core/pace"
	"vastlantern/core/plan"
	"vastlantern/core/sheet"
)

// read returns a plan at 60 counts a minute, where a count is a second.
func read(t require.TestingT, passages ...string) *plan.Plan {
	text := fmt.Sprintf(
		`{"format": "vast-lantern-plan", "version": 1, "tempo": 60, "passages": [%s]}`,
		strings.Join(passages, ","),
	)
	_, p, err := sheet.ReadPlan(strings.NewReader(text))
	require.NoError(t, err)
	return p
}

// script reads adjustments, one a line without the braces: `5000 pause` or `5000 tempo "to": 50`.
func script(t require.TestingT, lines ...string) []pace.Adjustment {
	var text strings.Builder
	for _, line := range lines {
		at, rest, _ := strings.Cut(line, " ")
		do, more, _ := strings.Cut(rest, " ")
		if more != "" {
			more = ", " + more
		}
		fmt.Fprintf(&text, `{"at_ms": %s, "do": %q%s}`+"\n", at, do, more)
	}
	s, err := sheet.ReadScript(strings.NewReader(text.String()))
	require.NoError(t, err)
	return s
}

// inLines writes rows so that a table can be read: consecutive rows of one phase in one line, as
// "at stage.round.breath phase through first-last/of dur". A tilde marks a round that was abandoned.
func inLines(tl pace.Timeline) []string {
	var lines []string
	for i := 0; i < len(tl.Rows); {
		first := tl.Rows[i]
		j := i + 1
		for j < len(tl.Rows) && tl.Rows[j].Phase == first.Phase && tl.Rows[j].Count == tl.Rows[j-1].Count+1 &&
			tl.Rows[j].Stage == first.Stage && tl.Rows[j].Passage == first.Passage {
			j++
		}
		last := tl.Rows[j-1]
		dur := "open"
		if last.Dur >= 0 {
			dur = fmt.Sprint(last.End() - first.At)
		}
		line := fmt.Sprintf("%d %d:%s", first.At, first.Passage, first.Stage)
		if first.Round > 0 || first.Breath > 0 {
			line += fmt.Sprintf(" %d.%d", first.Round, first.Breath)
		}
		line += fmt.Sprintf(" %s", first.Phase)
		if first.Through != "" {
			line += " " + string(first.Through)
		}
		line += fmt.Sprintf(" %d-%d/%d %s", first.Count, last.Count, last.Of, dur)
		if !first.Kept {
			line += " ~"
		}
		lines = append(lines, line)
		i = j
	}
	return lines
}

func refused(answers []pace.Answer) []string {
	var list []string
	for _, a := range answers {
		if !a.Refused.None() {
			list = append(list, fmt.Sprintf("%d %s", a.At, a.Do))
		}
	}
	return list
}

const (
	even  = `{"type": "practice", "practice": "counted-breath", "counts": "2:2", "rounds": 2, "lead_in": 1}`
	rests = `{"type": "practice", "practice": "counted-breath", "counts": "2:2", "rounds": 2, "lead_in": 0, ` +
		`"rest_between": 10}`
	held = `{"type": "practice", "practice": "counted-breath", "counts": "2:6:2", "rounds": 1, "lead_in": 0}`
	talk = `{"type": "talk", "seconds": 5}`
)

func TestSheet(t *testing.T) {
	for _, c := range []struct {
		name     string
		passages []string
		want     []string
	}{
		{"lead-in, then rounds", []string{even}, []string{
			"0 1:setup lead both 1-1/1 1000",
			"1000 1:round 1.1 inhale both 1-2/2 2000", "3000 1:round 1.1 exhale both 1-2/2 2000",
			"5000 1:round 2.1 inhale both 1-2/2 2000", "7000 1:round 2.1 exhale both 1-2/2 2000",
		}},
		{"a wait is taken at its planned length", []string{`{"type": "talk", "seconds": 5, "wait": true}`,
			`{"type": "free", "breaths": 2}`}, []string{
			"0 1:talk talk 1-1/1 5000", "5000 2:free free 1-1/1 12000",
		}},
		{"beat, opening, the extra exhale, closing, all in order",
			[]string{`{"type": "practice", "practice": "nadi-shodhana", "counts": "1:1:2", "rounds": 1, "side": "right", "entry": "exhale",
				"count_in": 2, "lead_in": 1, "opening": [{"breaths": 1}, {"seconds": 3}], "closing": [{"breaths": 1, "counts": "1:1:1:1"}]}`},
			[]string{
				"0 1:setup beat 1-2/2 2000", "2000 1:setup lead both 1-1/1 1000",
				"3000 1:opening 0.1 inhale both 1-1/1 1000", "4000 1:opening 0.1 exhale both 1-2/2 2000",
				"6000 1:opening free 1-1/1 3000",
				"9000 1:opening 0.2 inhale both 1-1/1 1000", "10000 1:opening 0.2 exhale right 1-2/2 2000",
				"12000 1:round 1.1 inhale right 1-1/1 1000", "13000 1:round 1.1 hold 1-1/1 1000",
				"14000 1:round 1.1 exhale left 1-2/2 2000",
				"16000 1:round 1.2 inhale left 1-1/1 1000", "17000 1:round 1.2 hold 1-1/1 1000",
				"18000 1:round 1.2 exhale right 1-2/2 2000",
				"20000 1:closing 0.1 inhale both 1-1/1 1000", "21000 1:closing 0.1 hold 1-1/1 1000",
				"22000 1:closing 0.1 exhale both 1-1/1 1000", "23000 1:closing 0.1 empty 1-1/1 1000",
			}},
		{"the word on a beat of its own, and a natural pause",
			[]string{`{"type": "practice", "practice": "counted-breath", "counts": "1:1:2", "rounds": 1, "lead_in": 0, ` +
				`"word": "before", "natural_pause": 0.5}`},
			[]string{
				"0 1:round 1.1 inhale both 0-1/1 2000", "2000 1:round 1.1 hold 0-1/1 2000",
				"4000 1:round 1.1 exhale both 0-2/2 3000",
				"7000 1:round 1.1 still 1-1/1 500",
			}},
		{"own pace", []string{`{"type": "practice", "practice": "sigh", "pace": "own", "minutes": 1, "closing": ` +
			`[{"breaths": 1, "counts": "1:1"}]}`},
			[]string{
				"0 1:own free 1-1/1 60000", "60000 1:recall free 1-1/1 15000",
				"75000 1:closing 0.1 inhale both 1-1/1 1000", "76000 1:closing 0.1 exhale both 1-1/1 1000",
			}},
		{"a rest that waits and has no planned length is no row of the plan's sheet",
			[]string{`{"type": "practice", "practice": "counted-breath", "counts": "1:1", "rounds": 2, "lead_in": 0, ` +
				`"rest_wait": true}`},
			[]string{
				"0 1:round 1.1 inhale both 1-1/1 1000", "1000 1:round 1.1 exhale both 1-1/1 1000",
				"2000 1:round 2.1 inhale both 1-1/1 1000", "3000 1:round 2.1 exhale both 1-1/1 1000",
			}},
		{"nothing", nil, nil},
	} {
		assert.Equal(t, c.want, inLines(pace.Sheet(read(t, c.passages...))), c.name)
	}
}

// The text's own example: at 53 a minute the second row starts at 1132.075..., so t = 1132 still meets the first.
func TestAnAdjustmentIsComparedWithExactPositions(t *testing.T) {
	p := read(
		t,
		`{"type": "practice", "practice": "counted-breath", "counts": "4:4", "rounds": 1, "lead_in": 0, "tempo": 53}`,
	)
	tl, _ := pace.Replay(p, script(t, `1132 tempo "to": 60`))
	assert.EqualValues(t, 1132, tl.Rows[1].At)
	assert.EqualValues(t, 1000, tl.Rows[1].Dur, "the second row is the next one")
	tl, _ = pace.Replay(p, script(t, `1133 tempo "to": 60`))
	assert.EqualValues(t, 1132, tl.Rows[1].Dur, "at 1133 the second row is in progress, and keeps its length")
}

func TestAdjustments(t *testing.T) {
	rest := func(lines ...string) []string { return lines }
	for _, c := range []struct {
		name     string
		passages []string
		script   []string
		want     []string
		refused  []string
	}{
		{"tempo: from the next row on, for the rest of the passage", []string{even, even}, []string{`1500 tempo "to": 30`},
			rest(
				"0 1:setup lead both 1-1/1 1000", "1000 1:round 1.1 inhale both 1-2/2 3000",
				"4000 1:round 1.1 exhale both 1-2/2 4000",
				"8000 1:round 2.1 inhale both 1-2/2 4000", "12000 1:round 2.1 exhale both 1-2/2 4000",
				"16000 2:setup lead both 1-1/1 1000", "17000 2:round 1.1 inhale both 1-2/2 2000",
				"19000 2:round 1.1 exhale both 1-2/2 2000",
				"21000 2:round 2.1 inhale both 1-2/2 2000", "23000 2:round 2.1 exhale both 1-2/2 2000"), nil},
		{"tempo: slower in a hold waits for its end", []string{held}, []string{`2500 tempo "to": 30`}, rest(
			"0 1:round 1.1 inhale both 1-2/2 2000", "2000 1:round 1.1 hold 1-6/6 6000",
			"8000 1:round 1.1 exhale both 1-2/2 4000"), nil},
		{"tempo: quicker in a hold acts on its next row", []string{held}, []string{`2500 tempo "to": 120`}, rest(
			"0 1:round 1.1 inhale both 1-2/2 2000", "2000 1:round 1.1 hold 1-6/6 3500",
			"5500 1:round 1.1 exhale both 1-2/2 1000"), nil},
		{"tempo: a hold made quicker is not made longer again", []string{held}, []string{`2500 tempo "to": 120`,
			`3100 tempo "to": 60`}, rest(
			"0 1:round 1.1 inhale both 1-2/2 2000", "2000 1:round 1.1 hold 1-6/6 3500",
			"5500 1:round 1.1 exhale both 1-2/2 2000"), nil},
		{"tempo: out of range, and where nothing is counted", []string{talk, held},
			[]string{`10 tempo "to": 50`, `5010 tempo "to": 19.9`, `5010 tempo "to": 121`}, rest(
				"0 1:talk talk 1-1/1 5000", "5000 2:round 1.1 inhale both 1-2/2 2000", "7000 2:round 1.1 hold 1-6/6 6000",
				"13000 2:round 1.1 exhale both 1-2/2 2000"), rest("10 tempo", "5010 tempo", "5010 tempo")},
		{"tempo carried: later counted passages are scaled by to over the tempo replaced, within the range",
			[]string{held, `{"type": "practice", "practice": "counted-breath", "counts": "1:1", "rounds": 1, "lead_in": 0, ` +
				`"tempo": 50}`, `{"type": "practice", "practice": "counted-breath", "counts": "1:1", "rounds": 1, "lead_in": 0, ` +
				`"tempo": 100}`},
			[]string{`8000 tempo "to": 90, "carry": true`}, rest(
				"0 1:round 1.1 inhale both 1-2/2 2000", "2000 1:round 1.1 hold 1-6/6 6000",
				"8000 1:round 1.1 exhale both 1-2/2 1667",
				"9667 2:round 1.1 inhale both 1-1/1 800", "10467 2:round 1.1 exhale both 1-1/1 800",
				"11267 3:round 1.1 inhale both 1-1/1 500", "11767 3:round 1.1 exhale both 1-1/1 500"), nil},
		{"release: the next phase starts at t", []string{held}, []string{`1999 release`, `3250 release`}, rest(
			"0 1:round 1.1 inhale both 1-2/2 2000", "2000 1:round 1.1 hold 1-2/6 1250",
			"3250 1:round 1.1 exhale both 1-2/2 2000"), rest("1999 release")},
		{"release: exactly at its start leaves no hold", []string{held}, []string{`2000 release`}, rest(
			"0 1:round 1.1 inhale both 1-2/2 2000", "2000 1:round 1.1 exhale both 1-2/2 2000"), nil},
		{"release: in the word's own beat, in a closing",
			[]string{`{"type": "practice", "practice": "counted-breath", "counts": "1:1", "rounds": 1, "lead_in": 0, "word": ` +
				`"before", "closing": [{"breaths": 1, "counts": "1:4:1"}]}`},
			[]string{`6400 release`}, rest(
				"0 1:round 1.1 inhale both 0-1/1 2000", "2000 1:round 1.1 exhale both 0-1/1 2000",
				"4000 1:closing 0.1 inhale both 0-1/1 2000", "6000 1:closing 0.1 hold 0-0/4 400",
				"6400 1:closing 0.1 exhale both 0-1/1 2000"), nil},
		{"rounds: never less than the one in progress; no change is refused", []string{even},
			[]string{`5500 rounds "to": 1`, `5600 rounds "by": 1`, `5700 rounds "by": -3`}, rest(
				"0 1:setup lead both 1-1/1 1000", "1000 1:round 1.1 inhale both 1-2/2 2000",
				"3000 1:round 1.1 exhale both 1-2/2 2000",
				"5000 1:round 2.1 inhale both 1-2/2 2000", "7000 1:round 2.1 exhale both 1-2/2 2000"), rest("5500 rounds")},
		{"rounds: one that is no longer the last gets its rest", []string{rests}, []string{`15000 rounds "by": 1`}, rest(
			"0 1:round 1.1 inhale both 1-2/2 2000", "2000 1:round 1.1 exhale both 1-2/2 2000", "4000 1:rest free 1-1/1 10000",
			"14000 1:round 2.1 inhale both 1-2/2 2000", "16000 1:round 2.1 exhale both 1-2/2 2000",
			"18000 1:rest free 1-1/1 10000",
			"28000 1:round 3.1 inhale both 1-2/2 2000", "30000 1:round 3.1 exhale both 1-2/2 2000"), nil},
		{"rounds: in a rest the round in progress is the one just finished, and the rest ends at t", []string{rests},
			[]string{`5000 rounds "by": -1`}, rest(
				"0 1:round 1.1 inhale both 1-2/2 2000", "2000 1:round 1.1 exhale both 1-2/2 2000", "4000 1:rest free 1-1/1 1000"),
			nil},
		{"last-round: in a rest it is the round to come", []string{rests}, []string{`100 rounds "to": 5`, `5000 last-round`,
			`5001 last-round`}, rest(
			"0 1:round 1.1 inhale both 1-2/2 2000", "2000 1:round 1.1 exhale both 1-2/2 2000", "4000 1:rest free 1-1/1 10000",
			"14000 1:round 2.1 inhale both 1-2/2 2000", "16000 1:round 2.1 exhale both 1-2/2 2000"), rest("5001 last-round")},
		{"again: the round is abandoned and starts over after a new lead-in", []string{even}, []string{`2500 again`}, rest(
			"0 1:setup lead both 1-1/1 1000", "1000 1:round 1.1 inhale both 1-2/2 1500 ~", "2500 1:setup lead both 1-1/1 1000",
			"3500 1:round 1.1 inhale both 1-2/2 2000", "5500 1:round 1.1 exhale both 1-2/2 2000",
			"7500 1:round 2.1 inhale both 1-2/2 2000", "9500 1:round 2.1 exhale both 1-2/2 2000"), nil},
		{"again: only in a round", []string{rests}, []string{`5000 again`}, rest(
			"0 1:round 1.1 inhale both 1-2/2 2000", "2000 1:round 1.1 exhale both 1-2/2 2000", "4000 1:rest free 1-1/1 10000",
			"14000 1:round 2.1 inhale both 1-2/2 2000", "16000 1:round 2.1 exhale both 1-2/2 2000"), rest("5000 again")},
		{"pause and resume: the same round after a lead-in at the tempo then in force", []string{even},
			[]string{`6000 pause`, `7000 pause`, `8000 tempo "to": 30`, `9000 resume`, `9100 resume`}, rest(
				"0 1:setup lead both 1-1/1 1000", "1000 1:round 1.1 inhale both 1-2/2 2000",
				"3000 1:round 1.1 exhale both 1-2/2 2000",
				"5000 1:round 2.1 inhale both 1-1/2 1000 ~", "6000 1:pause free 1-1/1 3000", "9000 1:setup lead both 1-1/1 2000",
				"11000 1:round 2.1 inhale both 1-2/2 4000", "15000 1:round 2.1 exhale both 1-2/2 4000"),
			rest("7000 pause", "9100 resume")},
		{"pause in a setup: one lead-in, no second beat",
			[]string{`{"type": "practice", "practice": "counted-breath", "counts": "1:1", "rounds": 1, "count_in": 4, ` +
				`"lead_in": 2}`},
			[]string{`1500 pause`, `3000 advance`}, rest(
				"0 1:setup beat 1-2/4 1500", "1500 1:pause free 1-1/1 1500", "3000 1:setup lead both 1-2/2 2000",
				"5000 1:round 1.1 inhale both 1-1/1 1000", "6000 1:round 1.1 exhale both 1-1/1 1000"), nil},
		{"pause in a rest: the next round follows; in a closing: the closing starts over",
			[]string{`{"type": "practice", "practice": "counted-breath", "counts": "1:1", "rounds": 2, "lead_in": 1, ` +
				`"rest_between": 5, "closing": [{"breaths": 1}]}`},
			[]string{`4000 pause`, `6000 resume`, `9500 pause`, `9600 rounds "by": 1`, `10000 resume`}, rest(
				"0 1:setup lead both 1-1/1 1000", "1000 1:round 1.1 inhale both 1-1/1 1000",
				"2000 1:round 1.1 exhale both 1-1/1 1000",
				"3000 1:rest free 1-1/1 1000", "4000 1:pause free 1-1/1 2000", "6000 1:setup lead both 1-1/1 1000",
				"7000 1:round 2.1 inhale both 1-1/1 1000", "8000 1:round 2.1 exhale both 1-1/1 1000",
				"9000 1:closing 0.1 inhale both 1-1/1 500", "9500 1:pause free 1-1/1 500", "10000 1:setup lead both 1-1/1 1000",
				"11000 1:closing 0.1 inhale both 1-1/1 1000", "12000 1:closing 0.1 exhale both 1-1/1 1000"), rest("9600 rounds")},
		{"a pause that nobody ends: the sheet stops there", []string{even}, []string{`500 pause`}, rest(
			"0 1:setup lead both 1-1/1 500", "500 1:pause free 1-1/1 open"), nil},
		{"advance: what waits, own pace, recall, a free step", []string{`{"type": "talk", "seconds": 5, "wait": true}`,
			`{"type": "practice", "practice": "sigh", "pace": "own", "minutes": 1, "closing": [{"seconds": 20}, {"breaths": ` +
				`1, "counts": "1:1"}]}`},
			[]string{`9000 advance`, `10000 advance`, `11000 advance`, `12000 advance`, `12500 advance`}, rest(
				"0 1:talk talk 1-1/1 9000", "9000 2:own free 1-1/1 1000", "10000 2:recall free 1-1/1 1000",
				"11000 2:closing free 1-1/1 1000",
				"12000 2:closing 0.1 inhale both 1-1/1 1000", "13000 2:closing 0.1 exhale both 1-1/1 1000"), rest("12500 advance")},
		{"a rest that waits is there when it is led",
			[]string{`{"type": "practice", "practice": "counted-breath", "counts": "1:1", "rounds": 2, "lead_in": 0, ` +
				`"rest_wait": true}`},
			[]string{`7000 advance`}, rest(
				"0 1:round 1.1 inhale both 1-1/1 1000", "1000 1:round 1.1 exhale both 1-1/1 1000", "2000 1:rest free 1-1/1 5000",
				"7000 1:round 2.1 inhale both 1-1/1 1000", "8000 1:round 2.1 exhale both 1-1/1 1000"), nil},
		{"close: without a lead-in, the round abandoned",
			[]string{`{"type": "practice", "practice": "counted-breath", "counts": "1:1", "rounds": 9, "lead_in": 0, ` +
				`"closing": [{"breaths": 1}]}`},
			[]string{`2500 close`, `2600 close`}, rest(
				"0 1:round 1.1 inhale both 1-1/1 1000", "1000 1:round 1.1 exhale both 1-1/1 1000",
				"2000 1:round 2.1 inhale both 1-1/1 500 ~",
				"2500 1:closing 0.1 inhale both 1-1/1 1000", "3500 1:closing 0.1 exhale both 1-1/1 1000"), rest("2600 close")},
		{"next, and end; nothing but notes after the end", []string{even, talk}, []string{`1500 next`, `3000 end`,
			`3000 pause`, `4000 note "text": "x"`, `5000 end`}, rest(
			"0 1:setup lead both 1-1/1 1000", "1000 1:round 1.1 inhale both 1-1/2 500 ~", "1500 2:talk talk 1-1/1 1500"),
			rest("3000 pause", "5000 end")},
		{"the end of the class itself is after it", []string{talk}, []string{`5000 next`}, rest("0 1:talk talk 1-1/1 5000"),
			rest("5000 next")},
		{"ended at 0: no row", []string{talk}, []string{`0 end`}, nil, nil},
		{"own pace refuses what has no count",
			[]string{`{"type": "practice", "practice": "sigh", "pace": "own", "minutes": 1, "lead_in": 2}`},
			[]string{`500 tempo "to": 50`, `500 rounds "by": 1`, `3000 last-round`, `3000 release`,
				`3000 beside "to": "breathe"`}, rest(
				"0 1:setup lead both 1-2/2 2000", "2000 1:own free 1-1/1 60000", "62000 1:recall free 1-1/1 15000"),
			rest("500 tempo", "500 rounds", "3000 last-round", "3000 release", "3000 beside")},
		{"own pace is paused: the time that was left follows without a lead-in; a recall starts over",
			[]string{`{"type": "practice", "practice": "sigh", "pace": "own", "minutes": 1, "lead_in": 2, "recall": 10}`},
			[]string{`12000 pause`, `20000 tempo "to": 50`, `30000 resume`, `40000 pause`, `41000 advance`, `85000 pause`,
				`86000 resume`}, rest(
				"0 1:setup lead both 1-2/2 2000", "2000 1:own free 1-1/1 10000", "12000 1:pause free 1-1/1 18000",
				"30000 1:own free 1-1/1 10000",
				"40000 1:pause free 1-1/1 1000", "41000 1:own free 1-1/1 40000", "81000 1:recall free 1-1/1 4000",
				"85000 1:pause free 1-1/1 1000",
				"86000 1:recall free 1-1/1 10000"), rest("20000 tempo")},
		{"a lead-in after each rest belongs to the round to come; after a pause in the rest the ordinary one stands there",
			[]string{`{"type": "practice", "practice": "counted-breath", "counts": "1:1", "rounds": 3, "lead_in": 1, ` +
				`"rest_between": 5, "rest_lead_in": 2}`},
			[]string{`4000 advance`, `11000 pause`, `12000 resume`}, rest(
				"0 1:setup lead both 1-1/1 1000", "1000 1:round 1.1 inhale both 1-1/1 1000",
				"2000 1:round 1.1 exhale both 1-1/1 1000",
				"3000 1:rest free 1-1/1 1000", "4000 1:setup lead both 1-2/2 2000", "6000 1:round 2.1 inhale both 1-1/1 1000",
				"7000 1:round 2.1 exhale both 1-1/1 1000", "8000 1:rest free 1-1/1 3000", "11000 1:pause free 1-1/1 1000",
				"12000 1:setup lead both 1-1/1 1000", "13000 1:round 3.1 inhale both 1-1/1 1000",
				"14000 1:round 3.1 exhale both 1-1/1 1000"), nil},
		{"a last round that is taken away in the lead-in after a rest stays",
			[]string{`{"type": "practice", "practice": "counted-breath", "counts": "1:1", "rounds": 3, "lead_in": 0, ` +
				`"rest_between": 5, "rest_lead_in": 2}`},
			[]string{`7500 rounds "to": 1`}, rest(
				"0 1:round 1.1 inhale both 1-1/1 1000", "1000 1:round 1.1 exhale both 1-1/1 1000", "2000 1:rest free 1-1/1 5000",
				"7000 1:setup lead both 1-2/2 2000", "9000 1:round 2.1 inhale both 1-1/1 1000",
				"10000 1:round 2.1 exhale both 1-1/1 1000"), nil},
		{"several at the same time apply in their order", []string{even}, []string{`2000 pause`, `2000 resume`, `2000 pause`},
			rest(
				"0 1:setup lead both 1-1/1 1000", "1000 1:round 1.1 inhale both 1-1/2 1000 ~", "2000 1:pause free 1-1/1 open"),
			nil},
	} {
		tl, answers := pace.Replay(read(t, c.passages...), script(t, c.script...))
		assert.Equal(t, c.want, inLines(tl), c.name)
		assert.Equal(t, c.refused, refused(answers), c.name)
	}
}

// A passage planned in minutes keeps its minutes: rounds of 4 s in one minute are 15.
func TestMinutesAreKept(t *testing.T) {
	minute := `{"type": "practice", "practice": "counted-breath", "counts": "2:2", "minutes": 1, "lead_in": 0}`
	spaced := `{"type": "practice", "practice": "counted-breath", "counts": "2:2", "minutes": 1, "lead_in": 0, ` +
		`"rest_between": 4}`
	for _, c := range []struct {
		name    string
		passage string
		script  []string
		rounds  int
		end     int64
	}{
		{"as planned", minute, nil, 15, 60_000},
		{"slower: five kept in 20 s, then five of 8 s", minute, []string{`19000 tempo "to": 30`}, 10, 60_000},
		{"the round in progress counts as it will run: 1 s + 3 x 2 s", minute, []string{`20500 tempo "to": 30`}, 10, 59_000},
		{"quicker: more", minute, []string{`19000 tempo "to": 120`}, 25, 60_000},
		{"the value in force changes nothing", minute, []string{`19000 tempo "to": 60`}, 15, 60_000},
		{"an accepted rounds pins the total", minute, []string{`1000 rounds "to": 15`, `19000 tempo "to": 30`}, 15, 100_000},
		{"a pause is not counted", minute, []string{`4000 pause`, `100000 resume`, `100000 tempo "to": 30`}, 8, 155_000},
		{"rests count", spaced, nil, 8, 60_000},
		{"the lead-in after a rest does not", strings.Replace(spaced, `"rest_between"`, `"rest_lead_in": 3, "rest_between"`,
			1), nil, 8, 81_000},
		{"in a rest", spaced, []string{`5000 tempo "to": 30`}, 5, 52_000},
		{"in a rest, nothing more fits: it ends at t", spaced, []string{`52500 tempo "to": 20`}, 7, 52_500},
	} {
		tl, answers := pace.Replay(read(t, c.passage), script(t, c.script...))
		require.Empty(t, refused(answers), c.name)
		rounds := 0
		for _, row := range tl.Rows {
			rounds = max(rounds, row.Round)
		}
		assert.Equal(t, c.rounds, rounds, c.name)
		assert.Equal(t, c.end, tl.End, c.name)
	}
}

func TestSay(t *testing.T) {
	say := func(passage string) []string {
		var all []string
		for _, row := range pace.Sheet(read(t, passage)).Rows {
			all = append(all, row.Say)
		}
		return all
	}
	base := `{"type": "practice", "practice": "nadi-shodhana", "rounds": 1, "lead_in": 0, "counts": "2:3:2"`
	assert.Equal(
		t,
		[]string{
			"inhale left",
			"two",
			"hold",
			"two",
			"three",
			"exhale right",
			"two",
			"inhale right",
			"two",
			"hold",
			"two",
			"three",
			"exhale left",
			"two",
		},
		say(base+`}`),
	)
	assert.Equal(t, []string{"exhale right", "one"}, say(base + `, "voice": "updown"}`)[5:7])
	assert.Equal(
		t,
		[]string{"sa", "na", "sa", "na", "sa"},
		say(base + `, "voice": "syllables", "syllables": ["sa", "na"]}`)[:5],
		"the first count too",
	)
	assert.Equal(
		t,
		[]string{"inhale left", "", "hold", "two", "three", "exhale right", ""},
		say(base + `, "voice": "holds"}`)[:7],
	)
	assert.Equal(t, []string{"inhale left", "one", "two", "hold", "one"}, say(base + `, "word": "before"}`)[:5])
	assert.Equal(t, strings.Repeat(",", 13), strings.Join(say(base+`, "voice": "silent"}`), ","))
	assert.Equal(t, []string{"inhale, belly", "ribs", "chest", "exhale, chest", "ribs", "belly"},
		say(`{"type": "practice", "practice": "three-part-breath", "rounds": 1, "lead_in": 0, "counts": "3:3"}`))
	assert.Equal(
		t,
		[]string{"inhale, forward", "to the side", "up", "exhale through the mouth"},
		say(`{"type": "practice", "practice": "breath-of-joy", "rounds": 1, "lead_in": 0}`),
	)
	assert.Equal(
		t,
		"out,,,,,,,,,ten,,",
		strings.Join(say(`{"type": "practice", "practice": "kapalabhati", "strokes": 12, "rounds": 1, "lead_in": 0}`), ","),
	)
	assert.Equal(
		t,
		[]string{"exhale", "two", "three", "four"},
		say(`{"type": "practice", "practice": "nadi-shodhana", "rounds": 1}`)[:4],
		"what the hand does is a cue",
	)
	assert.Equal(
		t,
		[]string{"exhale", "two", "three", "four"},
		say(`{"type": "practice", "practice": "ujjayi", "rounds": 1}`)[:4],
	)
	assert.Equal(
		t,
		[]string{"at your own pace", "finish the round"},
		say(`{"type": "practice", "practice": "nadi-shodhana", "side": "right", "pace": "own"}`),
	)
	faded := say(
		`{"type": "practice", "practice": "counted-breath", "rounds": 3, "lead_in": 0, "counts": "2:2", "fade": ` +
			`{"words_after": 1, "silent_after": 2}}`,
	)
	assert.Equal(t, []string{"inhale", "two", "exhale", "two", "inhale", "", "exhale", "", "", "", "", ""}, faded)
}
