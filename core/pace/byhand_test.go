package pace_test

import (
	"fmt"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"vastlantern/core/fact"
	"vastlantern/core/pace"
)

func byHand(practice, counts, more string) string {
	return fmt.Sprintf(`{"type": "practice", "practice": %q, "counts": %q, "lead_in": 0%s}`, practice, counts, more)
}

// phases returns rows in short: when, how long, which phase, of how many counts, and what is said.
func phases(rows []pace.Row) []string {
	var list []string
	for _, r := range rows {
		list = append(list, fmt.Sprintf("%d+%d %s %d/%d %s", r.At, r.Dur, r.Phase, r.Count, r.Of, r.Say))
	}
	return list
}

// A phase by hand is one row of its planned length, and lasts until the teacher goes on (pacing.md section 7).
func TestPhasesByHand(t *testing.T) {
	for _, c := range []struct {
		name    string
		passage string
		script  []string
		want    []string
	}{
		{"as written: one row of the planned length", byHand("counted-breath", "4:2:3", `, "rounds": 1, "by_hand": "all"`),
			nil,
			[]string{"0+4000 inhale 1/1 inhale", "4000+2000 hold 1/1 hold", "6000+3000 exhale 1/1 exhale"}},
		{"the beat of the word belongs to it", byHand("counted-breath", "4:2:3",
			`, "rounds": 1, "by_hand": ["exhale"], "word": "before"`), []string{"20000 advance"},
			[]string{"0+1000 inhale 0/4 inhale", "1000+1000 inhale 1/4 one", "2000+1000 inhale 2/4 two",
				"3000+1000 inhale 3/4 three", "4000+1000 inhale 4/4 four",
				"5000+1000 hold 0/2 hold", "6000+1000 hold 1/2 one", "7000+1000 hold 2/2 two", "8000+12000 exhale 1/1 exhale"}},
		{"holds are counted, breath is by hand", byHand("counted-breath", "4:2:3",
			`, "rounds": 1, "by_hand": ["inhale", "exhale"]`), []string{"5500 advance", "9000 advance"},
			[]string{"0+5500 inhale 1/1 inhale", "5500+1000 hold 1/2 hold", "6500+1000 hold 2/2 two",
				"7500+1500 exhale 1/1 exhale"}},
		{"opening and closing too", byHand("counted-breath", "2:2",
			`, "rounds": 1, "by_hand": ["inhale"], "opening": [{"breaths": 1}], "closing": [{"breaths": 1}]`),
			[]string{"3000 advance", "8000 advance", "11000 advance"},
			[]string{"0+3000 inhale 1/1 inhale", "3000+1000 exhale 1/2 exhale", "4000+1000 exhale 2/2 two",
				"5000+3000 inhale 1/1 inhale", "8000+1000 exhale 1/2 exhale",
				"9000+1000 exhale 2/2 two", "10000+1000 inhale 1/1 inhale", "11000+1000 exhale 1/2 exhale",
				"12000+1000 exhale 2/2 two"}},
		{"the word whatever the voice",
			byHand("counted-breath", "2:2", `, "rounds": 1, "by_hand": ["inhale"], "voice": "syllables", "syllables": ["sa"]`),
			[]string{"3000 advance"},
			[]string{"0+3000 inhale 1/1 inhale", "3000+1000 exhale 1/2 sa", "4000+1000 exhale 2/2 sa"}},
		{"but where the voice is silent",
			byHand("counted-breath", "2:2", `, "rounds": 1, "by_hand": "all", "voice": "silent"`),
			[]string{"3000 advance", "4000 advance"},
			[]string{"0+3000 inhale 1/1 ", "3000+1000 exhale 1/1 "}},
		{"no part where three zones share the counts", byHand("three-part-breath", "6:6", `, "rounds": 1, "by_hand": "all"`),
			nil,
			[]string{"0+6000 inhale 1/1 inhale", "6000+6000 exhale 1/1 exhale"}},
		{"natural pauses stay", byHand("counted-breath", "2:2", `, "rounds": 1, "by_hand": "all", "natural_pause": 0.5`),
			[]string{"3000 advance", "6000 advance"},
			[]string{"0+3000 inhale 1/1 inhale", "3000+500 still 1/1 ", "3500+2500 exhale 1/1 exhale", "6000+500 still 1/1 "}},
		{"a hold by hand is released at once", byHand("counted-breath", "2:5:2", `, "rounds": 1, "by_hand": ["hold"]`),
			[]string{"2000 release"},
			[]string{"0+1000 inhale 1/2 inhale", "1000+1000 inhale 2/2 two", "2000+1000 exhale 1/2 exhale",
				"3000+1000 exhale 2/2 two"}},
		{"no holds ends an open hold", byHand("counted-breath", "2:5:2", `, "rounds": 1, "by_hand": ["hold"]`),
			[]string{"2500 drop-holds"},
			[]string{"0+1000 inhale 1/2 inhale", "1000+1000 inhale 2/2 two", "2000+500 hold 1/1 hold",
				"2500+1000 exhale 1/2 exhale", "3500+1000 exhale 2/2 two"}},
		{"in an opening too", byHand("counted-breath", "2:2",
			`, "rounds": 1, "by_hand": ["hold"], "opening": [{"breaths": 1, "counts": "2:4:2"}]`), []string{"2500 drop-holds"},
			[]string{"0+1000 inhale 1/2 inhale", "1000+1000 inhale 2/2 two", "2000+500 hold 1/1 hold",
				"2500+1000 exhale 1/2 exhale", "3500+1000 exhale 2/2 two",
				"4500+1000 inhale 1/2 inhale", "5500+1000 inhale 2/2 two", "6500+1000 exhale 1/2 exhale",
				"7500+1000 exhale 2/2 two"}},
		{"counts that make it 0 end it", byHand("counted-breath", "1:5:1", `, "rounds": 1, "by_hand": ["hold"]`),
			[]string{`1500 counts "to": [1, 0, 1, 0]`},
			[]string{"0+1000 inhale 1/1 inhale", "1000+500 hold 1/1 hold", "1500+1000 exhale 1/1 exhale"}},
		{"other counts leave it alone", byHand("counted-breath", "1:5:1", `, "rounds": 1, "by_hand": ["hold"]`),
			[]string{`1500 counts "to": [1, 2, 1, 0]`, "9000 advance"},
			[]string{"0+1000 inhale 1/1 inhale", "1000+8000 hold 1/1 hold", "9000+1000 exhale 1/1 exhale"}},
		{"live, from the next phase on", byHand("counted-breath", "2:2", `, "rounds": 1`), []string{`500 by-hand "to": "all"`,
			"7000 advance"},
			[]string{"0+1000 inhale 1/2 inhale", "1000+1000 inhale 2/2 two", "2000+5000 exhale 1/1 exhale"}},
		{"and counted again from the next", byHand("counted-breath", "2:2", `, "rounds": 1, "by_hand": "all"`),
			[]string{`500 by-hand "to": "none"`, "3000 advance"},
			[]string{"0+3000 inhale 1/1 inhale", "3000+1000 exhale 1/2 exhale", "4000+1000 exhale 2/2 two"}},
	} {
		p := read(t, c.passage)
		rows := pace.Sheet(p).Rows
		if c.script != nil {
			tl, answers := pace.Replay(p, script(t, c.script...))
			assert.Empty(t, refused(answers), c.name)
			rows = tl.Rows
		}
		assert.Equal(t, c.want, phases(rows), c.name)
	}
}

// What is refused, and what is accepted and changes nothing.
func TestByHandAdjusted(t *testing.T) {
	plain := byHand("counted-breath", "2:2:2", `, "rounds": 3`)
	for _, c := range []struct {
		passage string
		script  []string
		last    string // why the last is refused; empty if it is accepted
	}{
		{plain, []string{`500 by-hand "to": []`}, "refused.by-hand-unknown"},
		{plain, []string{`500 by-hand "to": ["inhale", "sigh"]`}, "refused.by-hand-unknown"},
		{plain, []string{`500 by-hand "to": "most"`}, "refused.by-hand-unknown"},
		{plain, []string{`500 by-hand "to": ["inhale", "inhale"]`}, ""},
		{plain, []string{`500 by-hand "to": "none"`}, ""},
		{plain, []string{`500 beside "to": "1:1"`, `600 by-hand "to": "all"`}, "refused.by-hand-with-lane"},
		{plain, []string{`500 beside "to": "1:1"`, `600 by-hand "to": "none"`}, ""},
		{plain, []string{`500 by-hand "to": "all"`, `600 beside "to": "1:1"`}, "refused.lane-by-hand"},
		{plain, []string{`500 by-hand "to": "all"`, `600 beside "to": "breathe"`}, ""},
		{`{"type": "practice", "practice": "kapalabhati", "lead_in": 0}`, []string{`500 by-hand "to": "all"`},
			"refused.practice-not-counted"},
		{`{"type": "practice", "practice": "nadi-shodhana", "pace": "own", "lead_in": 4}`,
			[]string{`500 by-hand "to": "all"`}, "refused.own-pace"},
		{talk, []string{`500 by-hand "to": "all"`}, "refused.nothing-counted"},
		{byHand("counted-breath", "2:2", `, "rounds": 2, "by_hand": "all"`), []string{"0 advance"}, "refused.nothing-done"},
		{byHand("counted-breath", "2:2", `, "rounds": 2, "by_hand": "all"`), []string{"1 advance", "1 advance"},
			"refused.nothing-done"},
		{byHand("counted-breath", "2:2", `, "rounds": 2, "by_hand": "all"`), []string{"500 tempo \"to\": 40", "700 undo"},
			""},
		{byHand("counted-breath", "2:2:2", `, "rounds": 2`), []string{`500 recall "rounds": 2`}, "refused.no-own-pace"},
	} {
		_, answers := pace.Replay(read(t, c.passage, talk), script(t, c.script...))
		last := answers[len(answers)-1]
		assert.Equal(t, c.last, last.Refused.ID, "%v", c.script)
		assert.NotContains(t, slices.Collect(func(yield func(string) bool) {
			for _, a := range answers[:len(answers)-1] {
				yield(a.Refused.ID)
			}
		}), "refused.class-over", "%v", c.script)
	}
}

// The rounds of a passage in minutes follow the hand: a slower one leaves fewer, and the last one that was announced
// stays the last.
func TestMinutesByHand(t *testing.T) {
	p := read(t, byHand("counted-breath", "5:5", `, "minutes": 1, "by_hand": "all"`)) // six rounds of ten seconds
	total := func(lines ...string) int {
		class := pace.Begin(p)
		for _, a := range script(t, lines...) {
			require.Empty(t, class.Adjust(a).Refused)
		}
		return class.Passages()[0].Total
	}
	assert.Equal(t, 6, total())
	assert.Equal(t, 6, total("4000 advance", "10000 advance"), "as planned")
	assert.Equal(t, 5, total("9000 advance", "18000 advance"), "18 s are gone, and four of ten still fit")
	assert.Equal(
		t,
		9,
		total(
			"1000 advance",
			"2000 advance",
			"3000 advance",
			"4000 advance",
			"5000 advance",
			"6000 advance",
			"7000 advance",
			"8000 advance",
		),
		"a quick hand has time for more",
	)
	assert.Equal(t, 6, total("9000 advance", `10000 rounds "to": 6`, "18000 advance"), "the teacher's number stays")
	short := read(t, byHand("counted-breath", "5:5", `, "minutes": 0.5, "by_hand": "all"`)) // three rounds
	class := pace.Begin(short)
	for _, a := range script(t, "1000 advance", "2000 advance", "3000 advance", "25000 advance") {
		require.Empty(t, class.Adjust(a).Refused)
	}
	assert.Equal(t, 2+1, class.Passages()[0].Total, "the third was the last before it started, and stays the last")
}

// A round that was the last when it began is the last until it ends, at whatever speed the hand goes.
func TestTheLastRoundByHandStaysTheLast(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		n := func(low, high int) int { return rapid.IntRange(low, high).Draw(t, "n") }
		class := pace.Begin(read(t, byHand(
			rapid.SampledFrom([]string{"counted-breath", "nadi-shodhana"}).Draw(t, "practice"),
			fmt.Sprintf("%d:%d:%d", n(1, 5), n(0, 4), n(1, 5)),
			fmt.Sprintf(`, "minutes": 0.%d, "rest_between": %d, "by_hand": %s`, n(2, 9), n(0, 1)*n(0, 5),
				rapid.SampledFrom([]string{`"all"`, `["inhale"]`, `["exhale", "inhale"]`}).Draw(t, "hand")),
		)))
		at, total := int64(0), 0
		for range 60 {
			at += int64(n(1, 5) * 300)
			answer := class.Adjust(pace.Adjustment{At: at, Do: pace.Advance})
			if answer.Stage != pace.Round {
				continue
			}
			if answer.Round == total {
				assert.Equal(t, total, answer.Before.Total, "round %d began as the last", total)
			}
			total = answer.Before.Total
		}
	})
}

// The tempo of the hand is that of the last three kept rounds (pacing.md section 7).
func TestTheTempoOfTheHand(t *testing.T) {
	p := read(t, byHand("nadi-shodhana", "4:4", `, "rounds": 9, "by_hand": ["exhale"]`))
	_, answers := pace.Replay(p, script(t, "10000 advance", "20000 advance", `21000 by-hand "to": "none"`))
	assert.Equal(t, 40, answers[2].Breathed, "two exhales of four counts took six seconds each")
	assert.Equal(t, fact.New("did.by-hand-off-at", "from", fact.New("from.next-phase"), "tempo", 40), answers[2].Did())
	_, answers = pace.Replay(p, script(t, "10000 advance", `11000 by-hand "to": "none"`))
	assert.Zero(t, answers[1].Breathed, "no round is kept yet")
	slow := read(t, byHand("counted-breath", "1:1", `, "rounds": 9, "by_hand": "all"`))
	_, answers = pace.Replay(slow, script(t, "100000 advance", "200000 advance", `200500 by-hand "to": "none"`))
	assert.Equal(t, 20, answers[2].Breathed, "within the range of a tempo")
}

// It is offered from the third kept round on, while something is by hand.
func TestTheTempoOfTheHandIsOffered(t *testing.T) {
	class := pace.Begin(read(t, byHand("counted-breath", "4:4", `, "rounds": 9, "by_hand": "all"`)))
	press := func(text string) {
		t.Helper()
		for _, a := range script(t, text) {
			require.True(t, class.Adjust(a).Refused.None(), text)
		}
	}
	for at := 6_000; at <= 30_000; at += 6_000 { // phases of six seconds: two and a half rounds
		press(fmt.Sprintf("%d advance", at))
		assert.Zero(t, class.HandTempo(), at)
	}
	press("36000 advance")
	assert.Equal(t, 40, class.HandTempo(), "24 counts in 36 s")
	press("38000 advance")
	press("40000 advance")
	assert.Equal(t, 51, class.HandTempo(), "of the last three rounds: 24 counts in 28 s")
	press(`41000 by-hand "to": "none"`)
	assert.Zero(t, class.HandTempo())
}

// Own pace in rounds, and being called back (pacing.md section 8).
func TestOwnPaceInRounds(t *testing.T) {
	own := func(more string) string {
		return `{"type": "practice", "practice": "nadi-shodhana", "counts": "4:4:8", "pace": "own"` + more + `}`
	}
	for _, c := range []struct {
		passage string
		script  []string
		want    []string
	}{
		{own(`, "rounds": 3`), nil, []string{"own 0+96000", "recall 96000+32000"}},
		{own(`, "rounds": 3, "recall": 0, "word": "before", "natural_pause": 0.5`), nil, []string{"own 0+117000"}},
		{own(`, "minutes": 1`), []string{`30000 recall "rounds": 2`}, []string{"own 0+30000", "recall 30000+64000"}},
		{own(`, "minutes": 1`), []string{`20000 counts "to": [2, 0, 2, 0]`, `30000 recall "rounds": 2`},
			[]string{"own 0+30000", "recall 30000+16000"}},
		{own(`, "minutes": 1`), []string{`30000 recall "rounds": 1`, "40000 pause", "50000 resume"},
			[]string{"own 0+30000", "recall 30000+10000", "pause 40000+10000", "recall 50000+32000"}},
		{`{"type": "practice", "practice": "kapalabhati", "pace": "own", "minutes": 1}`, nil,
			[]string{"own 0+60000", "recall 60000+15000"}},
	} {
		p := read(t, c.passage)
		tl := pace.Sheet(p)
		if c.script != nil {
			var answers []pace.Answer
			tl, answers = pace.Replay(p, script(t, c.script...))
			assert.Empty(t, refused(answers), "%v", c.script)
		}
		var got []string
		for _, r := range tl.Rows {
			got = append(got, fmt.Sprintf("%s %d+%d", r.Stage, r.At, r.Dur))
		}
		assert.Equal(t, c.want, got, "%s %v", c.passage, c.script)
	}
	_, answers := pace.Replay(read(t, own(`, "minutes": 1`)), script(t, `30000 recall "rounds": 21`))
	assert.Equal(t, "refused.recall-outside", answers[0].Refused.ID)
}

// Holds are dropped and given back for the rest of the class (pacing.md section 8).
func TestHoldsOfLaterPassages(t *testing.T) {
	held := byHand("counted-breath", "1:2:1", `, "rounds": 1`)
	p := read(t, held, held, held)
	count := func(lines ...string) (holds int) {
		tl, answers := pace.Replay(p, script(t, lines...))
		assert.Empty(t, refused(answers), "%v", lines)
		for _, r := range tl.Rows {
			if r.Phase.Held() {
				holds++
			}
		}
		return holds
	}
	assert.Equal(t, 6, count())
	assert.Equal(t, 4, count("0 drop-holds"), "this practice")
	assert.Equal(t, 0, count(`0 drop-holds "carry": true`), "the rest of the class")
	assert.Equal(
		t,
		2,
		count(`0 drop-holds "carry": true`, `3500 restore-holds "carry": true`),
		"from the passage after this one",
	)
	assert.Equal(
		t,
		0,
		count(`0 drop-holds "carry": true`, `100 restore-holds`),
		"only this passage, whose round has begun",
	)
	_, answers := pace.Replay(
		p,
		script(
			t,
			`0 drop-holds "carry": true`,
			`100 restore-holds`,
			`200 restore-holds`,
			`300 restore-holds "carry": true`,
			`400 restore-holds "carry": true`,
		),
	)
	assert.Equal(t, []string{"200 restore-holds", "400 restore-holds"}, refused(answers))
	minutes := read(t, held, byHand("counted-breath", "1:2:1", `, "minutes": 0.2`))
	class := pace.Begin(minutes)
	assert.Equal(t, 3, class.Passages()[1].Total)
	class.Adjust(script(t, `0 drop-holds "carry": true`)[0])
	assert.Equal(t, 6, class.Passages()[1].Total, "at once")
}

func TestBeatsInGroupsAndSyllablesInHolds(t *testing.T) {
	say := func(passage string) (said []string) {
		for _, r := range pace.Sheet(read(t, passage)).Rows {
			said = append(said, r.Say)
		}
		return said
	}
	assert.Equal(
		t,
		[]string{"one", "two", "three", "one", "two", "inhale", "exhale"},
		say(byHand("counted-breath", "1:1", `, "rounds": 1, "count_in": 5, "count_in_by": 3`)),
	)
	assert.Equal(
		t,
		[]string{"inhale", "", "sa", "ta", "exhale", "", "inhale", "two", "exhale"},
		say(
			byHand(
				"counted-breath",
				"2:2:2",
				`, "rounds": 1, "voice": "hold-syllables", "syllables": ["sa", "ta"], "closing": [{"breaths": 1, "counts": "2:1"}]`,
			),
		),
	)
	assert.Equal(
		t,
		[]string{"inhale", "", "hold", "sa", "ta", "exhale", ""},
		say(
			byHand(
				"counted-breath",
				"1:2:1",
				`, "rounds": 1, "voice": "hold-syllables", "syllables": ["sa", "ta"], "word": "before"`,
			),
		),
	)
}
