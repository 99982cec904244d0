package cue_test

import (
	"fmt"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"vastlantern/core/breath"
	"vastlantern/core/cue"
	"vastlantern/core/pace"
	"vastlantern/core/plan"
	"vastlantern/core/sheet"
	"vastlantern/language"
)

// read returns a plan at 60 counts a minute, where a count is a second.
func read(t require.TestingT, passages ...string) *plan.Plan {
	_, p, err := sheet.ReadPlan(
		strings.NewReader(
			`{"format": "vast-lantern-plan", "version": 1, "tempo": 60, "passages": [` + strings.Join(passages, ",") + `]}`,
		),
	)
	require.NoError(t, err)
	return p
}

// script reads adjustments, one a line without the braces: `5000 pause` or `5000 tempo "to": 50`.
func script(t require.TestingT, lines ...string) []pace.Adjustment {
	var list []pace.Adjustment
	for _, line := range lines {
		at, rest, _ := strings.Cut(line, " ")
		do, more, _ := strings.Cut(rest, " ")
		if more != "" {
			more = ", " + more
		}
		a, err := sheet.ReadAdjustment([]byte(fmt.Sprintf(`{"at_ms": %s, "do": %q%s}`, at, do, more)))
		require.NoError(t, err)
		list = append(list, a)
	}
	return list
}

// short writes the cues of some kinds, a line each: "at-until kind: text", with the times in seconds.
func short(cues []cue.Cue, kinds ...cue.Kind) []string {
	list := []string{}
	for _, c := range cues {
		if !slices.Contains(kinds, c.Kind) {
			continue
		}
		until := "open"
		if c.Until != cue.Open {
			until = fmt.Sprint(float64(c.Until) / 1000)
		}
		list = append(list, fmt.Sprintf("%v-%s %s: %s", float64(c.At)/1000, until, c.Kind, c.Text))
	}
	return list
}

func counted(counts string, rounds int, more string) string {
	return fmt.Sprintf(
		`{"type": "practice", "practice": "counted-breath", "counts": %q, "rounds": %d, "lead_in": 0%s}`,
		counts,
		rounds,
		more,
	)
}

func nadi(counts string, rounds int, more string) string {
	return fmt.Sprintf(
		`{"type": "practice", "practice": "nadi-shodhana", "counts": %q, "rounds": %d%s}`,
		counts,
		rounds,
		more,
	)
}

const (
	talk = `{"type": "talk", "title": "Seat", "seconds": 10}`
	rest = `{"type": "free", "title": "Rest", "seconds": 60}`
)

// What is done now and next, in words, as cues.md section 2 has it.
func TestNowAndNext(t *testing.T) {
	for _, c := range []struct {
		name     string
		passages []string
		want     []string
	}{
		{"a side, a hold, and what a round is made of", []string{nadi("1:1:2", 1, `, "lead_in": 0`)}, []string{
			"0-1 now: inhale left", "0-1 next: hold, 1", "1-2 now: hold", "1-2 next: exhale right, 2", "2-4 now: exhale right",
			"2-4 next: inhale right, 1",
			"4-5 now: inhale right", "4-5 next: hold, 1", "5-6 now: hold", "5-6 next: exhale left, 2", "6-8 now: exhale left",
			"6-8 next: the end of the class"}},
		{"zones, each a run of its own",
			[]string{`{"type": "practice", "practice": "three-part-breath", "counts": "3:3", "rounds": 1, "lead_in": 0}`},
			[]string{
				"0-1 now: inhale, belly", "0-1 next: inhale, ribs, 1", "1-2 now: inhale, ribs", "1-2 next: inhale, chest, 1",
				"2-3 now: inhale, chest", "2-3 next: exhale, chest, 1",
				"3-4 now: exhale, chest", "3-4 next: exhale, ribs, 1", "4-5 now: exhale, ribs", "4-5 next: exhale, belly, 1",
				"5-6 now: exhale, belly", "5-6 next: the end of the class"}},
		{"a width, the mouth, attention, and om that is chanted",
			[]string{`{"type": "practice", "practice": "digital-control", "counts": "1:1", "rounds": 1, "lead_in": 0, ` +
				`"aperture": {"inhale": "narrow"}}`,
				`{"type": "practice", "practice": "sigh", "counts": "1:1", "rounds": 1, "lead_in": 0}`,
				`{"type": "practice", "practice": "belly-breath", "counts": "1:1", "rounds": 1, "lead_in": 0, ` +
					`"attention": "sides"}`,
				`{"type": "practice", "practice": "om-chant", "counts": "1:1", "rounds": 1, "lead_in": 0}`}, []string{
				"0-1 now: inhale, narrow", "0-1 next: exhale, wide, 1", "1-2 now: exhale, wide", "1-2 next: Sighing out: inhale, 1",
				"2-3 now: inhale", "2-3 next: exhale through the mouth, 1", "3-4 now: exhale through the mouth",
				"3-4 next: Belly breath: inhale, into the sides, 1",
				"4-5 now: inhale, into the sides", "4-5 next: exhale, 1", "5-6 now: exhale", "5-6 next: Chanting Om: inhale, 1",
				"6-7 now: inhale", "6-7 next: chant om, 1", "7-8 now: chant om", "7-8 next: the end of the class"}},
		{"a natural pause is passed over", []string{counted("1:1", 1, `, "natural_pause": 1`)}, []string{
			"0-1 now: inhale", "0-1 next: exhale, 1", "1-2 now: be still", "1-2 next: exhale, 1", "2-3 now: exhale",
			"2-3 next: the end of the class",
			"3-4 now: be still", "3-4 next: the end of the class"}},
		{"across passages: its name and its first breath, past beat, lead-in and free steps",
			[]string{talk, nadi("1:1", 1, `, "count_in": 2, "opening": [{"seconds": 5, "text": "hand up"}]`), rest}, []string{
				"0-10 now: Seat", "0-10 next: Alternate nostril breath: inhale left, 1", "10-12 now: the tempo",
				"10-12 next: breathe out, 4",
				"12-16 now: breathe out", "12-16 next: hand up, 0:05", "16-21 now: hand up", "16-21 next: inhale left, 1",
				"21-22 now: inhale left", "21-22 next: exhale right, 1", "22-23 now: exhale right", "22-23 next: inhale right, 1",
				"23-24 now: inhale right", "23-24 next: exhale left, 1", "24-25 now: exhale left", "24-25 next: Rest, 1:00",
				"25-85 now: natural breath", "25-85 next: the end of the class"}},
		{"strokes are one, and so is a rest",
			[]string{`{"type": "practice", "practice": "kapalabhati", "strokes": 3, "rounds": 2, "lead_in": 0}`}, []string{
				"0-3 now: out", "0-3 next: rest, natural breath, 0:30", "3-33 now: rest, natural breath", "3-33 next: out, 3",
				"33-36 now: out", "33-36 next: the end of the class"}},
	} {
		assert.Equal(t, c.want, short(cue.Sheet(read(t, c.passages...), cue.Main), cue.Now, cue.Next), c.name)
	}
}

// What an adjustment changes ends, and what follows then begins; what waits names what comes when the teacher goes on.
func TestNextFollowsAdjustments(t *testing.T) {
	p := read(t, counted("4:8:4", 2, ""))
	assert.Equal(t, []string{"0-1.5 next: hold, 8", "1.5-4 next: hold, 6", "4-10 next: exhale, 4"},
		short(cue.Replay(p, script(t, `1500 counts "to": [4, 6, 4, 0]`), cue.Main), cue.Next)[:3])
	assert.Equal(
		t,
		[]string{"0-1 now: inhale", "1-open now: natural breath"},
		short(cue.Replay(p, script(t, `1000 pause`), cue.Main), cue.Now),
	)
	assert.Equal(
		t,
		[]string{"0-1 next: hold, 8", "1-open next: inhale, 4"},
		short(cue.Replay(p, script(t, `1000 pause`), cue.Main), cue.Next),
	)
	waits := read(t, `{"type": "talk", "title": "Seat", "seconds": 10, "wait": true}`, counted("4:4", 1, ""))
	assert.Equal(t, []string{"0-open next: Counted breath: inhale, 4"}, short(cue.Replay(waits, nil, cue.Main), cue.Next))
	assert.Equal(
		t,
		[]string{"0-25 next: Counted breath: inhale, 4", "25-29 next: exhale, 4", "29-33 next: the end of the class"},
		short(cue.Replay(waits, script(t, `25000 advance`), cue.Main), cue.Next),
	)
}

func TestTheHand(t *testing.T) {
	for _, c := range []struct {
		name     string
		passages []string
		script   []string
		want     []string
	}{
		{"up in the lead-in, down for six seconds", []string{talk, nadi("1:1", 1, ""), rest}, []string{},
			[]string{"10-14 hand: hand up, then close the right", "18-24 hand: hand down"}},
		{"up in the last six seconds of what stands before", []string{talk, nadi("1:1", 1, `, "side": "right", "lead_in": 0`),
			rest}, nil, []string{"4-10 hand: hand up, then close the left", "14-20 hand: hand down"}},
		{"one stretch after the other: neither down nor up", []string{nadi("1:1", 1, `, "lead_in": 0`),
			nadi("1:1", 1, `, "lead_in": 0`)}, nil, []string{}},
		{"a lead-in that follows at once: only up", []string{nadi("1:1", 1, `, "lead_in": 0`), nadi("1:1", 1, "")}, nil,
			[]string{"4-8 hand: hand up, then close the right"}},
		{"down and up again in a rest", []string{nadi("1:1", 2, `, "lead_in": 0, "rest_between": 20`)}, nil,
			[]string{"4-10 hand: hand down", "18-24 hand: hand up, then close the right"}},
		{"down ends where up begins", []string{nadi("1:1", 2, `, "lead_in": 0, "rest_between": 8`)}, nil,
			[]string{"4-6 hand: hand down", "6-12 hand: hand up, then close the right"}},
		{"a breath through both ends it",
			[]string{nadi("1:1", 1, `, "lead_in": 0, "closing": [{"breaths": 2, "counts": "4:4"}]`)}, nil,
			[]string{"4-10 hand: hand down"}},
		{"what waits does not raise it", []string{`{"type": "talk", "seconds": 10, "wait": true}`,
			nadi("1:1", 1, `, "lead_in": 0`)}, []string{}, []string{}},
		{"at own pace: the pattern, and where to end",
			[]string{`{"type": "practice", "practice": "nadi-shodhana", "pace": "own", "minutes": 1}`}, nil, []string{
				"0-6 hand: hand up, then close the right", "6-60 hand: in left, out right; in right, out left",
				"60-76 hand: finish the round, exhale left, hand down"}},
		{"own pace after a talk: up before it, and not down before", []string{nadi("1:1", 1, `, "lead_in": 0`), talk,
			`{"type": "practice", "practice": "surya-bhedana", "pace": "own", "minutes": 1, "recall": 0}`}, nil, []string{
			"4-8 hand: hand down", "8-14 hand: hand up, then close the left", "14-74 hand: in right, out left"}},
		{"after what waits, own pace begins with the hand", []string{`{"type": "talk", "seconds": 10, "wait": true}`,
			`{"type": "practice", "practice": "surya-bhedana", "pace": "own", "minutes": 1, "recall": 0}`},
			[]string{"9000 advance"}, []string{
				"9-15 hand: hand up, then close the left", "15-69 hand: in right, out left"}},
		{"narrowed nostrils", []string{talk,
			`{"type": "practice", "practice": "digital-control", "counts": "2:2", "rounds": 2, "lead_in": 4, "aperture": ` +
				`{"exhale": "narrow"}}`, rest}, nil, []string{
			"10-14 hand: hand up, both sides narrow", "22-28 hand: hand down"}},
		{"wide ones need no hand", []string{talk,
			`{"type": "practice", "practice": "digital-control", "counts": "2:2", "rounds": 2}`, rest}, nil, []string{}},
		{"up for all of an open phase before it",
			[]string{nadi("4:4", 1, `, "lead_in": 0, "by_hand": "all", "opening": [{"breaths": 1}]`)},
			[]string{"4000 advance", "15000 advance", "20000 advance"}, []string{
				"4-15 hand: hand up, then close the right"}},
		{"a pause lowers it, the lead-in raises it", []string{nadi("2:2", 1, `, "lead_in": 4`)},
			[]string{"5000 pause", "20000 resume"}, []string{
				"0-4 hand: hand up, then close the right", "5-11 hand: hand down", "20-24 hand: hand up, then close the right"}},
		{"no hand where both nostrils breathe", []string{counted("2:2", 1, ""), rest}, nil, []string{}},
	} {
		p := read(t, c.passages...)
		cues := cue.Sheet(p, cue.Main)
		if c.script != nil {
			cues = cue.Replay(p, script(t, c.script...), cue.Main)
		}
		assert.Equal(t, c.want, short(cues, cue.Hand), c.name)
	}
}

func TestCalls(t *testing.T) {
	const last, half = ": one more, the last", ": half way"
	for _, c := range []struct {
		name    string
		passage string
		script  []string
		want    []string
	}{
		{"with the last word of the round before that has two seconds, to the end of the first of the last",
			counted("2:4", 3, ""), nil, []string{"8-14 last" + last}},
		{"not with one that is shorter", counted("4:1", 3, ""), nil, []string{"5-14 last" + last}},
		{"no more than six seconds before", counted("9:9", 2, ""), nil, []string{"12-24 last" + last}},
		{"the round itself where nothing is long enough", counted("1:1", 3, ""), nil, []string{"2-5 last" + last}},
		{"with the rest before it, however long", counted("2:4", 2, `, "rest_between": 20`), nil,
			[]string{"6-28 last" + last}},
		{"one round is no last one", counted("2:4", 1, ""), nil, []string{}},
		{"a round that is made the last one: at once, for six seconds", counted("4:6", 5, ""), []string{"12000 last-round"},
			[]string{"12-18 last" + last}},
		{"no longer than the passage", counted("4:6", 5, ""), []string{"12000 last-round", "14000 next"},
			[]string{"12-14 last" + last}},
		{"and not any more", counted("4:6", 2, ""), []string{`7000 rounds "by": 1`},
			[]string{"4-7 last" + last, "14-24 last" + last}},
		{"taken away in time", counted("4:6", 3, ""), []string{`2000 rounds "to": 2`}, []string{"4-14 last" + last}},
		{"a pause makes no round the last", counted("4:6", 6, ""), []string{"21000 pause"}, []string{}},
		{"nor does the end", counted("4:6", 6, ""), []string{"21000 end"}, []string{}},
		{"nor a rest that waits, before it is the last's", counted("4:6", 3, `, "rest_wait": true`),
			[]string{"15000 advance"}, []string{"25-open last" + last}},
		{"half of six rounds that take three minutes", counted("15:15", 6, ""), nil,
			[]string{"90-96 half" + half, "144-156 last" + last}},
		{"not of five", counted("20:20", 5, ""), nil, []string{"154-166 last" + last}},
		{"a minute and half a minute before the end of what is planned in minutes", strings.Replace(counted("5:5", 9, ""),
			`"rounds": 9`, `"minutes": 3`, 1), nil,
			[]string{"90-95 half" + half, "120-126 minute: one minute left", "150-156 half-minute: thirty seconds left",
				"165-175 last" + last}},
		{"at own pace, and once", `{"type": "practice", "practice": "ujjayi", "pace": "own", "minutes": 3}`,
			[]string{"125000 pause", "225000 resume"},
			[]string{"120-126 minute: one minute left", "250-256 half-minute: thirty seconds left"}},
	} {
		cues := cue.Replay(read(t, c.passage, rest), script(t, c.script...), cue.Main)
		assert.Equal(t, c.want, short(cues, cue.Last, cue.Half, cue.Minute, cue.HalfMinute), c.name)
	}
}

func TestPrompts(t *testing.T) {
	every := short(cue.Sheet(read(t, counted("4:4", 8, "")), cue.Main), cue.Prompt)
	require.Len(t, every, 2, "with the last breath of each third round")
	assert.Contains(t, every[0], "20-24 prompt: ")
	assert.Contains(t, every[1], "44-48 prompt: ")
	assert.Len(
		t,
		short(cue.Sheet(read(t, counted("4:4", 7, "")), cue.Main), cue.Prompt),
		1,
		"with the sixth of seven the last one is called",
	)
	assert.Len(
		t,
		short(cue.Sheet(read(t, counted("4:4", 6, "")), cue.Main), cue.Prompt),
		1,
		"nothing follows the sixth of six",
	)
	texts := func(fields string) (list []string) {
		p := read(t, `{"type": "practice", "practice": `+fields+`, "rounds": 5, "lead_in": 0, "rest_between": 10}`)
		for _, c := range cue.Sheet(p, cue.Main) {
			if c.Kind == cue.Prompt {
				list = append(list, c.Text)
			}
		}
		return list
	}
	moves := "The breath moves the hand, not the hand the breath."
	assert.Equal(
		t,
		[]string{"The hand on the chest may sleep.", moves, "Let the belly go on the exhale."},
		texts(`"belly-breath", "attention": "front"`),
	)
	assert.Equal(
		t,
		[]string{moves, "Into the low back.", moves},
		texts(`"belly-breath", "attention": "back"`),
		"and over again",
	)
	assert.Equal(
		t,
		[]string{"The ribs open to the sides.", "Soft jaw, long neck.", "The ribs open to the sides."},
		texts(`"three-part-breath", "zone": "ribs"`),
	)
	assert.NotContains(t, texts(`"digital-control"`), "Narrow, not closed.")
	assert.Contains(
		t,
		texts(`"digital-control", "aperture": {"inhale": "wide", "exhale": "narrow"}`),
		"Narrow, not closed.",
	)
	withRests := short(cue.Sheet(read(t, counted("4:4", 3, `, "rest_between": 20`)), cue.Main), cue.Prompt)
	require.Len(t, withRests, 1, "the second rest has the call of the last round")
	assert.Contains(t, withRests[0], "8-28 prompt: ")
	lines := `, "rest_between": 20, "lines": [{"text": "mine", "stage": "rest", "round": 1}]`
	assert.Empty(t, short(cue.Sheet(read(t, counted("4:4", 3, lines)), cue.Main), cue.Prompt), "left out, not put off")
}

// The teacher's own words at their places (cues.md section 3).
func TestLines(t *testing.T) {
	zones := `{"type": "practice", "practice": "three-part-breath", "counts": "6:6", "rounds": 1, "tempo": 60, ` +
		`"lead_in": 0}`
	lines := func(passage, line string) string {
		return strings.TrimSuffix(passage, "}") + `, "lines": [` + line + `]}`
	}
	for _, c := range []struct {
		name    string
		passage string
		line    string
		script  []string
		want    []string
	}{
		{"every round is one place after the other: one cue", counted("2:2", 3, ""), `{"text": "x"}`, nil,
			[]string{"0-12 line: x"}},
		{"a round, two seconds ahead", counted("2:2", 3, ""), `{"text": "x", "round": 2}`, nil, []string{"2-8 line: x"}},
		{"some rounds, not ahead", counted("2:2", 4, ""), `{"text": "x", "round": [2, 3], "ahead": 0}`, nil,
			[]string{"4-12 line: x"}},
		{"each exhale", counted("4:4", 2, ""), `{"text": "x", "phase": "exhale"}`, nil,
			[]string{"2-8 line: x", "10-16 line: x"}},
		{"the second breath", nadi("2:2", 2, `, "lead_in": 0`), `{"text": "x", "breath": 2, "ahead": 0}`, nil,
			[]string{"4-8 line: x", "12-16 line: x"}},
		{"a rest, by the round before it", counted("2:2", 3, `, "rest_between": 10`),
			`{"text": "x", "stage": "rest", "round": 2, "ahead": 0}`, nil, []string{"18-28 line: x"}},
		{"the lead-in; not before the class", counted("2:2", 1, `, "count_in": 3`), `{"text": "x", "stage": "setup"}`, nil,
			[]string{"0-3 line: x"}},
		{"at a second of the rounds", counted("2:2", 9, ""), `{"text": "x", "second": 10}`, nil, []string{"8-18 line: x"}},
		{"a second that is not reached", counted("2:2", 2, ""), `{"text": "x", "second": 8}`, nil, []string{}},
		{"until the passage's end", counted("2:2", 4, ""), `{"text": "x", "second": 12, "ahead": 0}`, nil,
			[]string{"12-16 line: x"}},
		{"a round that is left out gives none", counted("4:4", 3, ""), `{"text": "x", "round": 3}`,
			[]string{"12000 last-round"}, []string{}},
		{"its coming changes once it has begun: it ends at once", counted("4:4", 3, ""),
			`{"text": "x", "round": 3, "ahead": 10}`, []string{"12000 last-round"}, []string{"6-12 line: x"}},
		{"a round that starts over is a place again", counted("4:4", 1, ""), `{"text": "x", "phase": "inhale", "ahead": 0}`,
			[]string{"2000 again"}, []string{"0-6 line: x"}},
		{"of a talk", talk, `{"text": "x", "second": 4}`, nil, []string{"2-10 line: x"}},
		{"for the room when it holds", counted("2:2", 3, ""), `{"text": "x", "round": 2, "who": "room"}`, nil,
			[]string{"4-8 line: x"}},
		{"the last round", counted("2:2", 3, ""), `{"text": "x", "round": "last"}`, nil, []string{"6-12 line: x"}},
		{"the last round, which another becomes", counted("2:2", 3, ""), `{"text": "x", "round": "last"}`,
			[]string{"5000 last-round"}, []string{"5-8 line: x"}},
		{"the rest before the last", counted("2:2", 3, `, "rest_between": 10`),
			`{"text": "x", "stage": "rest", "round": "last", "ahead": 0}`, nil, []string{"18-28 line: x"}},
		{"no rest before the only round", counted("2:2", 1, `, "rest_between": 10`),
			`{"text": "x", "stage": "rest", "round": "last"}`, nil, []string{}},
		{"by the left", nadi("2:3", 1, `, "lead_in": 0`), `{"text": "x", "through": "left", "ahead": 0}`, nil,
			[]string{"0-2 line: x", "7-10 line: x"}},
		{"in by the left", nadi("2:3", 1, `, "lead_in": 0`),
			`{"text": "x", "phase": "exhale", "through": "left", "ahead": 0}`, nil, []string{"7-10 line: x"}},
		{"a zone", zones, `{"text": "x", "part": "ribs", "ahead": 0}`, nil, []string{"3-5 line: x", "7-9 line: x"}},
		{"a zone of the exhale", zones, `{"text": "x", "part": "ribs", "phase": "exhale", "ahead": 0}`, nil,
			[]string{"7-9 line: x"}},
		{"again and again", counted("2:2", 10, ""), `{"text": "x", "second": 5, "every": 15}`, nil,
			[]string{"3-13 line: x", "18-28 line: x", "33-40 line: x"}},
		{"until its stage ends", counted("2:2", 5, `, "closing": [{"seconds": 30}]`),
			`{"text": "x", "second": 5, "every": 15, "ahead": 0}`, nil, []string{"5-13 line: x"}},
		{"while the teacher is waited for", counted("2:2", 2, `, "rest_between": 10, "rest_wait": true`),
			`{"text": "x", "round": 2}`, nil, []string{"4-18 line: x"}},
		{"while the teacher is waited for, longer than planned", counted("2:2", 2, `, "rest_between": 10, "rest_wait": true`),
			`{"text": "x", "round": 2}`, []string{"30000 advance"}, []string{"4-34 line: x"}},
	} {
		p := read(t, lines(c.passage, c.line), rest)
		cues := cue.Sheet(p, cue.Main)
		if c.script != nil {
			cues = cue.Replay(p, script(t, c.script...), cue.Main)
		}
		assert.Equal(t, c.want, short(cues, cue.Line), c.name)
	}
	p := read(
		t,
		lines(counted("2:2", 2, ""), `{"text": "a", "round": 3}, {"text": "b", "phase": "hold"}, {"text": "c"}`),
		talk,
	)
	advice := cue.Advise(p)
	require.Len(t, advice, 2, "the third has its place")
	assert.Equal(
		t,
		[][2]any{{1, `The line “a” fits nowhere in this passage.`}, {1, `The line “b” fits nowhere in this passage.`}},
		[][2]any{
			{advice[0].Passage, language.English().Text(advice[0].Say)},
			{advice[1].Passage, language.English().Text(advice[1].Say)},
		},
	)
	older := read(
		t,
		counted(
			"2:2",
			2,
			`, "rest_between": 10, "prompts": [{"round": 2, "text": "a"}, {"rest": 1, "text": "b"}, {"second": 5, "text": "c"}]`,
		),
	)
	assert.Equal(
		t,
		[]string{"2-14 line: b", "3-13 line: c", "12-18 line: a"},
		short(cue.Sheet(older, cue.Main), cue.Line),
		"prompts are the older form",
	)
}

func TestTheLaneBeside(t *testing.T) {
	p := read(t, counted("4:8:4", 1, `, "beside": "breathe"`))
	assert.Equal(
		t,
		[]string{"0-4 now: inhale", "4-8 now: natural breath", "8-12 now: inhale", "12-16 now: exhale"},
		short(cue.Sheet(p, cue.Beside), cue.Now),
	)
	assert.Equal(
		t,
		[]string{
			"0-4 next: natural breath, 0:04",
			"4-8 next: inhale, 4",
			"8-12 next: exhale, 4",
			"12-16 next: the end of the class",
		},
		short(cue.Sheet(p, cue.Beside), cue.Next),
	)
}

// Past cues never change, except for their end where an adjustment ended them early.
func TestThePastOfCuesStays(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		n := func(low, high int) int { return rapid.IntRange(low, high).Draw(t, "n") }
		p := read(
			t,
			talk,
			nadi(
				fmt.Sprintf("%d:%d:%d", n(1, 5), n(0, 6), n(1, 6)),
				n(1, 8),
				fmt.Sprintf(
					`, "rest_between": %d, "rest_lead_in": %d, "lines": [{"text": "x", "phase": "exhale", "round": 2}, {"text": `+
						`"y", "second": %d}]`,
					n(0, 12),
					n(0, 3),
					n(0, 40),
				)+rapid.SampledFrom([]string{"", `, "by_hand": "all"`, `, "by_hand": ["exhale"]`}).Draw(t, "hand"),
			),
			fmt.Sprintf(
				`{"type": "practice", "practice": "kapalabhati", "strokes": %d, "rounds": 3, "rest_wait": %t}`,
				n(1, 20),
				n(0, 1) == 1,
			),
			`{"type": "practice", "practice": "chandra-bhedana", "pace": "own", "minutes": 1.5}`,
			rest,
		)
		lane := cue.Lane(n(0, 1) == 1)
		class, at := cue.Begin(p, lane), 0
		var made []pace.Adjustment
		for range n(0, 15) {
			at += rapid.SampledFrom([]int{0, 1, 700, 3000, 12_345, 30_000}).Draw(t, "gap")
			do := rapid.SampledFrom([]string{"pause", "resume", "advance", "again", "last-round", `rounds "by": 1`,
				`rounds "by": -1`, "drop-holds", "advance", "advance", `by-hand "to": "all"`, `by-hand "to": ["hold"]`,
				`by-hand "to": "none"`, `recall "rounds": 2`, "close", "next", "undo",
				fmt.Sprintf(`tempo "to": %d`, n(40, 90)),
				fmt.Sprintf(`counts "to": [%d, %d, %d, 0]`, n(1, 5), n(0, 5), n(1, 6)), `beside "to": "breathe"`}).
				Draw(t, "do")
			before := class.Cues()
			class.Adjust(script(t, fmt.Sprintf("%d %s", at, do))[0])
			after := class.Cues()
			for _, c := range before {
				if c.At >= int64(at) {
					continue
				}
				over := c.Until != cue.Open && c.Until <= int64(at)
				assert.True(t, slices.ContainsFunc(after, func(d cue.Cue) bool {
					if over {
						return d == c
					}
					return d.At == c.At && d.Kind == c.Kind && d.Text == c.Text && d.Who == c.Who &&
						(d.Until == cue.Open || d.Until >= int64(at))
				}), "%v is gone after %s at %d", c, do, at)
			}
			made = append(made, script(t, fmt.Sprintf("%d %s", at, do))[0])
			if timeline, _ := pace.Replay(p, made); !timeline.Open {
				promised(t, p, timeline, after, int64(at))
			}
			for i, c := range after {
				assert.True(t, c.Until == cue.Open || c.Until > c.At, "%v has no length", c)
				if i > 0 {
					assert.LessOrEqual(t, after[i-1].At, c.At)
				}
			}
		}
	})
}

// promised holds what is to come from a moment on against the rows that are to come: no last call before a round that
// is not the last, no side of the hand but that of the breath, no line outside its place.
func promised(t *rapid.T, p *plan.Plan, timeline pace.Timeline, cues []cue.Cue, from int64) {
	for _, c := range cues {
		if c.At < from {
			continue
		}
		var starts int        // of kept rounds from the call on
		var next *pace.Row    // through one nostril, from the end of the cue on
		var within, ends bool // of an exhale of round 2
		own := false          // the breath of one side that follows is at own pace
		for i := range timeline.Rows {
			row := &timeline.Rows[i]
			if row.Passage == c.Passage && row.Stage == pace.Round && row.Starts && row.Kept && row.At > c.At {
				starts++
			}
			if next == nil && row.End() > c.At && (row.Through == breath.Left || row.Through == breath.Right) {
				next = row
			}
			own = own || row.Stage == pace.Own && row.At <= c.Until && row.End() >= c.Until
			if row.Round == 2 && row.Stage == pace.Round && row.Phase == breath.Exhale {
				within = within || row.At-2000 <= c.At && c.At < row.End()
				ends = ends || c.Until == row.End()
			}
		}
		switch {
		case c.Kind == cue.Last:
			assert.LessOrEqual(t, starts, 1, "%v comes before the last round", c)
		case c.Kind == cue.Hand && strings.HasPrefix(c.Text, "hand up"):
			if own { // in left, out right
				assert.Equal(t, "hand up, then close the right", c.Text)
				continue
			}
			require.NotNil(t, next, "%v is before no breath of one side", c)
			assert.Equal(t, "hand up, then close the "+string(next.Through.Other()), c.Text)
		case c.Kind == cue.Line && c.Text == "x":
			assert.True(t, within && ends, "%v is outside its place", c)
		}
	}
}

// fingersOf returns what the fingers do in each phase of a plan, in the breather's own left and right.
func fingersOf(p *plan.Plan) []string {
	var list []string
	var fingers cue.Fingers
	rows := pace.Sheet(p).Rows
	for i := range rows {
		fingers = cue.FingersIn(&rows[i], fingers, p)
		if i == 0 || !rows[i].Follows(&rows[i-1]) {
			list = append(list, fmt.Sprintf("%s %s: %s", rows[i].Phase, rows[i].Through, fingers))
		}
	}
	return list
}

// Air goes through the side that is not closed; in a hold between one-sided breaths both are closed (common practice).
func TestFingersCloseTheOtherSide(t *testing.T) {
	assert.Equal(t, []string{
		"lead both: ", "inhale left: right", "hold : both", "exhale right: left", "inhale right: left", "hold : both",
		"exhale left: right",
	}, fingersOf(read(t, `{"type": "practice", "practice": "nadi-shodhana", "counts": "2:2:2", "rounds": 1}`)))
	assert.Equal(
		t,
		[]string{"inhale right: left", "still : left", "exhale right: left", "still : left"},
		fingersOf(
			read(
				t,
				`{"type": "practice", "practice": "single-nostril", "side": "right", "counts": "2:2", "rounds": 1, "lead_in": 0, `+
					`"natural_pause": 1}`,
			),
		),
	)
	assert.Equal(
		t,
		[]string{"inhale both: narrow", "exhale both: "},
		fingersOf(
			read(
				t,
				`{"type": "practice", "practice": "digital-control", "counts": "2:2", "rounds": 1, "lead_in": 0, "aperture": `+
					`{"inhale": "narrow", "exhale": "wide"}}`,
			),
		),
	)
	assert.Equal(
		t,
		[]string{"inhale both: ", "hold : "},
		fingersOf(read(t, counted("2:2:2", 1, "")))[:2],
		"no hand is needed",
	)
}

// The hand's cue reports which side it comes to close, and when it comes down, for a drawing of it.
func TestTheHandsCueTellsTheFingers(t *testing.T) {
	p := read(
		t,
		`{"type": "practice", "practice": "nadi-shodhana", "counts": "4:4", "rounds": 1, "side": "right"}`,
		`{"type": "free", "seconds": 60}`,
	)
	var fingers []cue.Fingers
	for _, c := range cue.Sheet(p, cue.Main) {
		if c.Kind == cue.Hand {
			fingers = append(fingers, c.Fingers)
		}
	}
	assert.Equal(t, []cue.Fingers{cue.CloseLeft, cue.Lower}, fingers)
}

// At own pace the pattern is in one line: the sides where the hand is at the nose, else the counts.
func TestPatternAtOwnPace(t *testing.T) {
	for passage, want := range map[string]string{
		`"practice": "nadi-shodhana", "counts": "4:4:8"`:                    "in left, out right; in right, out left",
		`"practice": "surya-bhedana"`:                                       "in right, out left",
		`"practice": "counted-breath", "counts": "4:4:4:4"`:                 "inhale 4, hold 4, exhale 4, empty 4",
		`"practice": "counted-breath", "counts": "4:0:6", "word": "before"`: "inhale 4, exhale 6",
		`"practice": "sigh", "counts": "3:6"`:                               "inhale 3, exhale through the mouth 6",
	} {
		p := read(t, fmt.Sprintf(`{"type": "practice", "pace": "own", "minutes": 2, %s}`, passage))
		round := pace.OneRound(p, 0, p.Passages[0].Measure)
		assert.Equal(t, want, cue.Pattern(&p.Passages[0], round, p), passage)
	}
}
