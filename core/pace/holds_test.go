package pace_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/core/pace"
)

// brief writes the phases of rounds, opening and closing that were kept as "inhale2 hold6 exhale2 |", a bar after each
// round, with the seconds that each took. At 60 counts a minute a count is a second.
func brief(tl pace.Timeline) string {
	text := ""
	for i, row := range tl.Rows {
		if !row.Kept || row.Stage != pace.Round && row.Stage != pace.Opening && row.Stage != pace.Closing {
			continue
		}
		if row.Starts || i == 0 || row.Stage != tl.Rows[i-1].Stage {
			text += "| "
		}
		if i == 0 || !row.Follows(&tl.Rows[i-1]) {
			length := float64(0)
			for j := i; j < len(tl.Rows) && (j == i || tl.Rows[j].Follows(&tl.Rows[j-1])); j++ {
				length += float64(tl.Rows[j].Dur) / 1000
			}
			text += fmt.Sprintf("%s%v ", row.Phase, length)
		}
	}
	return text
}

// In the rules "ease now, build later" (pacing.md section 4): what counts, drop-holds and restore-holds do.
func TestHoldsAreEasedNowAndBuiltLater(t *testing.T) {
	breath := func(more string) string {
		return `{"type": "practice", "practice": "counted-breath", "counts": "2:6:2:2", "rounds": 2, "lead_in": 0` + more +
			`}`
	}
	for _, c := range []struct {
		name    string
		passage string
		script  []string
		want    string
		refused []string
	}{
		{"a hold in progress ends at its new length", breath(""), []string{`3500 counts "to": [2, 4, 2, 2]`},
			"| inhale2 hold4 exhale2 empty2 | inhale2 hold4 exhale2 empty2 ", nil},
		{"or with its row, if it has reached that", breath(""), []string{`6500 counts "to": [2, 4, 2, 2]`},
			"| inhale2 hold5 exhale2 empty2 | inhale2 hold4 exhale2 empty2 ", nil},
		{"old means as eased so far", breath(""), []string{`3500 counts "to": [2, 3, 2, 2]`,
			`3600 counts "to": [2, 5, 2, 2]`},
			"| inhale2 hold3 exhale2 empty2 | inhale2 hold5 exhale2 empty2 ", nil},
		{"a longer hold, inhale and exhale wait, and so do shorter inhale and exhale", breath(""),
			[]string{`500 counts "to": [1, 8, 4, 3]`},
			"| inhale2 hold6 exhale2 empty2 | inhale1 hold8 exhale4 empty3 ", nil},
		{"an empty hold that has not begun is left out", breath(""), []string{`3500 counts "to": [2, 6, 2, 0]`},
			"| inhale2 hold6 exhale2 | inhale2 hold6 exhale2 ", nil},
		{"the natural pause takes the place of a hold that has not begun", breath(`, "natural_pause": 1`),
			[]string{`500 counts "to": [2, 0, 2, 2]`},
			"| inhale2 still1 exhale2 empty2 | inhale2 still1 exhale2 empty2 ", nil},
		{"but not of one in progress", breath(`, "natural_pause": 1`), []string{`2500 counts "to": [2, 0, 2, 2]`},
			"| inhale2 hold1 exhale2 empty2 | inhale2 still1 exhale2 empty2 ", nil},
		{"a word's own beat is count 0", breath(`, "word": "before"`), []string{`3500 counts "to": [2, 0, 2, 0]`},
			"| inhale3 hold1 exhale3 | inhale3 exhale3 ", nil},
		{"out of range", breath(""), []string{`0 counts "to": [0, 4, 2, 2]`, `0 counts "to": [2, 121, 2, 2]`,
			`0 counts "to": [2, 4, 61, 2]`},
			"| inhale2 hold6 exhale2 empty2 | inhale2 hold6 exhale2 empty2 ", []string{"0 counts", "0 counts", "0 counts"}},
		{"three zones need three counts",
			`{"type": "practice", "practice": "three-part-breath", "counts": "3:3", "rounds": 1, "lead_in": 0}`,
			[]string{`0 counts "to": [2, 0, 3, 0]`, `0 counts "to": [3, 0, 2, 0]`}, "| inhale3 exhale3 ",
			[]string{"0 counts", "0 counts"}},
		{"not once the closing has begun, and not where nothing is counted",
			`{"type": "practice", "practice": "breath-of-joy", "tempo": 60, "rounds": 1, "lead_in": 0, "closing": ` +
				`[{"breaths": 1, "counts": "1:1"}]}`,
			[]string{`0 counts "to": [2, 0, 3, 0]`, `4500 counts "to": [2, 0, 2, 0]`}, "| inhale3 exhale1 | inhale1 exhale1 ",
			[]string{"0 counts", "4500 counts"}},

		{"drop-holds ends one in progress with its row, and leaves out the others", breath(""), []string{`4500 drop-holds`},
			"| inhale2 hold3 exhale2 | inhale2 exhale2 ", nil},
		{"it reaches the closing too", breath(`, "closing": [{"breaths": 1, "counts": "1:2:1"}]`), []string{`500 drop-holds`},
			"| inhale2 exhale2 | inhale2 exhale2 | inhale1 exhale1 ", nil},
		{"counts applies as given while holds are dropped", breath(""),
			[]string{`500 drop-holds`, `600 counts "to": [2, 4, 2, 0]`},
			"| inhale2 exhale2 | inhale2 hold4 exhale2 ", nil},
		{"restored: from the next round, in place of what was given since", breath(""),
			[]string{`500 drop-holds`, `600 counts "to": [2, 4, 2, 0]`, `700 restore-holds`},
			"| inhale2 exhale2 | inhale2 hold6 exhale2 empty2 ", nil},
		{"a second drop remembers what was given since", breath(""),
			[]string{`500 drop-holds`, `600 counts "to": [2, 4, 2, 0]`, `700 drop-holds`, `800 restore-holds`},
			"| inhale2 exhale2 | inhale2 hold4 exhale2 ", nil},
		{"a second drop with nothing to drop changes nothing", breath(""), []string{`500 drop-holds`, `700 drop-holds`,
			`800 restore-holds`},
			"| inhale2 exhale2 | inhale2 hold6 exhale2 empty2 ", nil},
		{"restored in time, the closing has its holds", breath(`, "closing": [{"breaths": 1, "counts": "1:2:1"}]`),
			[]string{`500 drop-holds`, `600 restore-holds`},
			"| inhale2 exhale2 | inhale2 hold6 exhale2 empty2 | inhale1 hold2 exhale1 ", nil},
		{"a closing that has begun stays without them, also when it starts over",
			`{"type": "practice", "practice": "counted-breath", "counts": "1:1", "rounds": 1, "lead_in": 1, "closing": ` +
				`[{"breaths": 1, "counts": "1:2:1:1"}]}`,
			[]string{`3500 drop-holds`, `3600 restore-holds`, `3700 pause`, `5000 resume`},
			"| inhale1 exhale1 | inhale0.7 | inhale1 exhale1 ", nil},
		{"an opening that has not begun has them again",
			`{"type": "practice", "practice": "counted-breath", "counts": "1:1", "rounds": 1, "lead_in": 2, "opening": ` +
				`[{"breaths": 1, "counts": "1:2:1"}]}`,
			[]string{`500 drop-holds`, `600 restore-holds`}, "| inhale1 hold2 exhale1 | inhale1 exhale1 ", nil},
		{"one that has begun does not", `{"type": "practice", "practice": "counted-breath", "counts": "1:1", "rounds": 1, "lead_in": 0,
			"opening": [{"breaths": 2, "counts": "1:2:1"}]}`, []string{`500 drop-holds`, `600 restore-holds`},
			"| inhale1 exhale1 inhale1 exhale1 | inhale1 exhale1 ", nil},
		{"nothing to restore where none are dropped", breath(""), []string{`500 restore-holds`, `600 drop-holds`,
			`700 restore-holds`, `800 restore-holds`},
			"| inhale2 exhale2 | inhale2 hold6 exhale2 empty2 ", []string{"500 restore-holds", "800 restore-holds"}},
		{"in both breaths of alternate nostril breath",
			`{"type": "practice", "practice": "nadi-shodhana", "counts": "1:4:1", "rounds": 1, "lead_in": 0}`,
			[]string{`500 counts "to": [1, 2, 1, 0]`},
			"| inhale1 hold2 exhale1 inhale1 hold2 exhale1 ", nil},
	} {
		tl, answers := pace.Replay(read(t, c.passage), script(t, c.script...))
		assert.Equal(t, c.want, brief(tl), c.name)
		assert.Equal(t, c.refused, refused(answers), c.name)
	}
}

// Rows that have begun keep their of; those that follow show the new length: 5 of 16, then 6 of 8.
func TestOfShowsTheNewLength(t *testing.T) {
	tl, _ := pace.Replay(
		read(t, `{"type": "practice", "practice": "counted-breath", "counts": "1:16:1", "rounds": 1, "lead_in": 0}`),
		script(t, `5500 counts "to": [1, 8, 1, 0]`),
	)
	require.Len(t, tl.Rows, 10)
	assert.Equal(t, []int{5, 16}, []int{tl.Rows[5].Count, tl.Rows[5].Of})
	assert.Equal(t, []int{6, 8}, []int{tl.Rows[6].Count, tl.Rows[6].Of})
}

func TestOpenHolds(t *testing.T) {
	open := `{"type": "practice", "practice": "open-holds", "rounds": 2, "lead_in": 0, "open_seconds": [3, 4, 3, 2]}`
	for _, c := range []struct {
		name    string
		script  []string
		want    string
		refused []string
	}{
		{"each phase lasts until advance; release ends a hold", []string{`5000 advance`, `6000 release`, `8000 release`,
			`8000 advance`, `9500 advance`, `10000 advance`, `11000 advance`, `12000 advance`, `13000 advance`},
			"| inhale5 hold1 exhale2 empty1.5 | inhale0.5 hold1 exhale1 empty1 ", []string{"8000 release"}},
		{"tempo changes nothing, but has its range", []string{`0 tempo "to": 19`, `0 tempo "to": 120`, `1000 end`}, "",
			[]string{"0 tempo"}},
		{"drop-holds ends an open hold at t; there are no more", []string{`3000 advance`, `4500 drop-holds`, `6000 advance`,
			`7000 advance`, `8000 advance`},
			"| inhale3 hold1.5 exhale1.5 | inhale1 exhale1 ", nil},
	} {
		tl, answers := pace.Replay(read(t, open), script(t, c.script...))
		assert.Equal(t, c.want, brief(tl), c.name)
		assert.Equal(t, c.refused, refused(answers), c.name)
	}
	stuck, _ := pace.Replay(read(t, open), script(t, `9000 note "text": "nobody goes on"`))
	assert.True(t, stuck.Open)
	assert.Len(t, stuck.Rows, 1, "what waits has no end until an adjustment ends it")
	assert.EqualValues(t, 2*12_000, pace.Sheet(read(t, open)).End, "in a plan's sheet it is as long as planned")
}
