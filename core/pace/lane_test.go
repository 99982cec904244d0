package pace_test

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"

	"vastlantern/core/breath"
	"vastlantern/core/pace"
)

// inShort writes the lane of the rounds, one letter and count a row: i1 o2 for inhale and exhale, with l, r or nothing
// for the side; . for free.
func inShort(tl pace.Timeline) string {
	var words []string
	for _, row := range tl.Rows {
		if row.Stage != pace.Round {
			continue
		}
		side := map[breath.Through]string{breath.Left: "l", breath.Right: "r"}[row.Through]
		switch row.Phase {
		case breath.Free:
			words = append(words, ".")
		case breath.Inhale:
			words = append(words, fmt.Sprintf("i%d%s", row.Count, side))
		case breath.Exhale:
			words = append(words, fmt.Sprintf("o%d%s", row.Count, side))
		default:
			words = append(words, string(row.Phase))
		}
	}
	return strings.Join(words, " ")
}

// The lane as pacing.md section 6 has it. At 60 counts a minute a count is a second.
func TestWhatStandsBeside(t *testing.T) {
	counted := func(counts string, rounds int, more string) string {
		return fmt.Sprintf(
			`{"type": "practice", "practice": "counted-breath", "counts": %q, "rounds": %d, "lead_in": 0%s}`,
			counts,
			rounds,
			more,
		)
	}
	for _, c := range []struct {
		name    string
		passage string
		script  []string
		want    string
	}{
		{"nothing: the same", counted("2:2:2", 1, ""), nil, "i1 i2 hold hold o1 o2"},
		{"breathe: through a short hold freely", counted("2:3:2:1", 1, `, "beside": "breathe"`), nil, "i1 i2 . . . o1 o2 ."},
		{"breathe: a long hold ends with a fresh inhale", counted("2:5:2", 1, `, "beside": "breathe"`), nil,
			"i1 i2 . . . i1 i2 o1 o2"},
		{"breathe: with the word on a beat of its own", counted("2:4:2", 1, `, "beside": "breathe", "word": "before"`), nil,
			"i0 i1 i2 . . . i1 i2 o0 o1 o2"},
		{"a shorter breath, and what is left over", counted("4:4:8", 1, `, "beside": "3:4"`), nil,
			"i1 i2 i3 o1 o2 o3 o4 i1 i2 i3 o1 o2 o3 o4 . ."},
		{"each round anew", counted("2:3", 2, `, "beside": "1:1"`), nil, "i1 o1 i1 o1 . i1 o1 i1 o1 ."},
		{"alternate sides go in pairs", `{"type": "practice", "practice": "nadi-shodhana", "counts": "2:1:2", "rounds": 1, ` +
			`"lead_in": 0, "beside": "1:1"}`, nil,
			"i1l o1r i1r o1l i1l o1r i1r o1l . ."},
		{"two breaths start together or none",
			`{"type": "practice", "practice": "nadi-shodhana", "counts": "2:3", "rounds": 1, "side": "right", "lead_in": 0, ` +
				`"beside": "2:2"}`, nil,
			"i1r i2r o1l o2l i1l i2l o1r o2r . ."},
		{"one side", `{"type": "practice", "practice": "single-nostril", "counts": "2:2", "side": "right", "rounds": 1, ` +
			`"lead_in": 0, "beside": "1:1"}`, nil, "i1r o1r i1r o1r"},
		{"both nostrils in sun breath", `{"type": "practice", "practice": "surya-bhedana", "counts": "2:2", "rounds": 1, ` +
			`"lead_in": 0, "beside": "2:2"}`, nil, "i1 i2 o1 o2"},
		{"strokes are its counts", `{"type": "practice", "practice": "kapalabhati", "strokes": 7, "rounds": 1, "lead_in": ` +
			`0, "beside": "2:1"}`, nil, "i1 i2 o1 i1 i2 o1 ."},
		{"without rests it runs on from round to round",
			`{"type": "practice", "practice": "breath-of-joy", "rounds": 3, "lead_in": 0, "beside": "2:3"}`, nil,
			"i1 i2 o1 o2 o3 i1 i2 o1 o2 o3 . ."},
		{"with rests it does not", `{"type": "practice", "practice": "breath-of-joy", "rounds": 2, "lead_in": 0, ` +
			`"rest_between": 1, "beside": "1:2"}`, nil, "i1 o1 o2 . i1 o1 o2 ."},
		{"opened while it is led: from the next row on", counted("2:4:2", 1, ""), []string{`2500 beside "to": "breathe"`},
			"i1 i2 hold . i1 i2 o1 o2"},
		{"a breath that was begun falls away, and the next row asks anew", counted("8:8", 1, `, "beside": "3:3"`),
			[]string{`1500 beside "to": "2:2"`},
			"i1 i2 i1 i2 o1 o2 i1 i2 o1 o2 i1 i2 o1 o2 . ."},
		{"closed", counted("2:4:2", 1, `, "beside": "breathe"`), []string{`2500 beside "to": "none"`},
			"i1 i2 . hold hold hold o1 o2"},
		{"where the hold is eased, what no longer fits falls away", counted("2:8:2", 1, `, "beside": "4:4"`),
			[]string{`4500 drop-holds`}, "i1 i2 i3 i4 o1 . ."},
		{"again: from the start of the round", counted("4:4", 1, `, "beside": "3:3"`), []string{`2500 again`},
			"i1 i2 i3 i1 i2 i3 o1 o2 o3 . ."},
		{"exactly at the start of a row it meets that row", counted("2:4:2", 1, ""), []string{`2000 beside "to": "breathe"`},
			"i1 i2 hold . i1 i2 o1 o2"},
	} {
		p := read(t, c.passage)
		tl, answers := pace.Replay(p, script(t, c.script...))
		assert.Empty(t, refused(answers), c.name)
		assert.Equal(t, c.want, inShort(tl.Lane(p)), c.name)
	}
}

func TestWhatCannotStandBeside(t *testing.T) {
	counted := `{"type": "practice", "practice": "counted-breath", "counts": "2:2", "rounds": 4, "lead_in": 0, ` +
		`"closing": [{"breaths": 1}]}`
	for _, c := range []struct {
		name    string
		passage string
		script  []string
		want    []string
	}{
		{"any other text, and what does not fit", counted, []string{`500 beside "to": "fast"`, `500 beside "to": "2:3"`,
			`500 beside "to": "1:0:1"`, `500 beside "to": "2:2"`, `600 beside "to": "2:2"`},
			[]string{"500 beside", "500 beside", "500 beside"}},
		{"a talk", talk, []string{`500 beside "to": "breathe"`}, []string{"500 beside"}},
		{"a natural pause", `{"type": "practice", "practice": "counted-breath", "natural_pause": 1, "rounds": 4}`,
			[]string{`500 beside "to": "1:1"`, `500 beside "to": "breathe"`}, []string{"500 beside"}},
		{"open phases", `{"type": "practice", "practice": "open-holds"}`, []string{`500 beside "to": "1:1"`,
			`500 beside "to": "breathe"`}, []string{"500 beside"}},
		{"the rounds that are left", `{"type": "practice", "practice": "breath-of-joy", "rounds": 3, "tempo": 60, ` +
			`"lead_in": 0}`, []string{`4500 beside "to": "4:4"`, `8500 beside "to": "2:3"`, `8600 beside "to": "2:2"`},
			[]string{"8500 beside"}},
		{"in the closing it may still be closed", counted, []string{`16500 beside "to": "breathe"`,
			`16600 beside "to": "none"`}, nil},
	} {
		_, answers := pace.Replay(read(t, c.passage), script(t, c.script...))
		assert.Equal(t, c.want, refused(answers), c.name)
	}
}

// The lane too stays as it was: what has been breathed beside is not taken back.
func TestUndoOfWhatStandsBeside(t *testing.T) {
	held := `{"type": "practice", "practice": "counted-breath", "counts": "2:6:2", "rounds": 2, "lead_in": 4}`
	_, answers := pace.Replay(
		read(t, held),
		script(
			t,
			`500 beside "to": "breathe"`,
			`3500 undo`,
			`3600 beside "to": "breathe"`,
			`5000 undo`,
			`5500 beside "to": "breathe"`,
			`8500 undo`,
		),
	)
	assert.Equal(
		t,
		[]string{"8500 undo"},
		refused(answers),
		"in the lead-in and the inhale both lanes are the same; in the hold they are not",
	)
}
