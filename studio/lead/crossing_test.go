package lead_test

import (
	"encoding/json"
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"vastlantern/core/pace"
	"vastlantern/studio/contract"
	"vastlantern/studio/desk/desktest"
)

var passages = []string{
	`{"type": "talk", "title": "Sit", "seconds": 11}`,
	`{"type": "talk", "seconds": 7, "wait": true}`,
	`{"type": "free", "breaths": 2}`,
	`{"type": "practice", "practice": "nadi-shodhana", "counts": "4:4:8", "rounds": 3, "beside": "breathe", "lines": ` +
		`[{"text": "soft", "round": 2, "say": true}]}`,
	`{"type": "practice", "practice": "counted-breath", "counts": "4:0:6", "rounds": 4, "tempo": 53.7, "beside": "2:3"}`,
	`{"type": "practice", "practice": "kapalabhati", "strokes": 12, "rounds": 3, "rest_between": 9}`,
	`{"type": "practice", "practice": "three-part-breath", "counts": "6:6", "rounds": 2, "count_in": 3}`,
	`{"type": "practice", "practice": "nadi-shodhana", "counts": "3:0:6", "minutes": 2, "pace": "own"}`,
}

// plain returns the unpacked form of a score.
func plain(t require.TestingT, s contract.Score) string {
	type bare contract.Score
	text, err := json.Marshal(bare(s))
	require.NoError(t, err)
	return string(text)
}

// Whatever is led and pressed, a score is the same after it has crossed the wire, for the teacher and for the room; and
// the class that is held in memory, to which each adjustment is added as it comes, is the one that a restart reads from
// the data file, adjustment after adjustment from the beginning.
func TestAScoreCrossesTheWireAndARestart(t *testing.T) {
	d := desktest.New(t)
	code, err := d.Audience.RoomCode(t.Context())
	require.NoError(t, err)
	pressed := 0
	rapid.Check(t, func(r *rapid.T) {
		led := rapid.SliceOfN(rapid.SampledFrom(passages), 1, 4).Draw(r, "passages")
		p := d.AddPlan(strings.Join(led, ", "))
		score, err := d.Classes.Begin(t.Context(), contract.Lead{PlanID: p.ID, EndRunning: true,
			Acknowledged: contract.StrongCautions(p)})
		require.NoError(r, err)
		id := score.ClassID
		for range rapid.IntRange(0, 12).Draw(r, "presses") {
			d.Pass(rapid.Float64Range(0, 20).Draw(r, "seconds"))
			pressed++
			want := contract.Adjust{Key: fmt.Sprint("crossing ", pressed), Do: pace.Verb(rapid.SampledFrom([]string{
				"tempo", "rounds", "pause", "resume", "again", "drop-holds", "restore-holds", "undo", "last-round", "enough",
				"release", "next", "advance", "note", "beside",
			}).Draw(r, "do"))}
			switch want.Do {
			case "tempo":
				to := rapid.Float64Range(40, 90).Draw(r, "to")
				want.To = to
			case "rounds":
				by := rapid.IntRange(-1, 2).Draw(r, "by")
				want.By = &by
			case "note":
				want.Text = new(string)
			case "beside":
				to := rapid.SampledFrom([]string{"none", "breathe", "2:2"}).Draw(r, "beside")
				want.To = to
			}
			_, err := d.Classes.Adjust(t.Context(), id, want)
			if err != nil && strings.Contains(err.Error(), "lead.over") {
				break
			}
			require.NoError(r, err)
			score, err := d.Classes.Score(t.Context(), id)
			require.NoError(r, err)
			room, err := d.Audience.Room(t.Context(), code)
			require.NoError(r, err)
			crosses(r, score)
			if room.Score != nil {
				crosses(r, *room.Score)
			}
			if rapid.IntRange(0, 3).Draw(r, "restart") == 0 {
				d.Reopen()
				again, err := d.Classes.Score(t.Context(), id)
				require.NoError(r, err)
				again.Edition = score.Edition
				assert.Equal(r, plain(r, score), plain(r, again))
			}
		}
	})
}

func crosses(r *rapid.T, score contract.Score) {
	sent, err := json.Marshal(score)
	require.NoError(r, err)
	quick, err := json.Marshal(score.Sent())
	require.NoError(r, err)
	assert.Equal(r, string(sent), string(quick))
	var back contract.Score
	require.NoError(r, json.Unmarshal(sent, &back))
	assert.Equal(r, plain(r, score), plain(r, back))
}

// What was not packed by a score is refused, and not read as something else.
func TestListsThatDoNotBelongTogetherAreRefused(t *testing.T) {
	for _, packed := range []string{
		`{"moments": [1], "times": [0], "looks": [], "phases": {"looks": [0], "rounds": [0], "breaths": [0]}}`,
		`{"moments": [1, 1], "times": [0], "looks": [{"says": ["1"]}], "phases": {"looks": [-1], "rounds": [0], "breaths": ` +
			`[0]}}`,
		`{"moments": [1], "times": [0], "looks": [{"says": ["1"]}], "phases": {"looks": [0], "rounds": [0], "breaths": [0]}}`,
		`{"moments": [1, 1], "times": [0], "looks": [{"says": ["1"]}], "phases": {"looks": [0], "rounds": [], "breaths": ` +
			`[0]}}`,
		`{"moments": [1, 1], "times": [-1], "cues": [{}], "main_cues": [0]}`,
		`{"moments": [1, 1], "times": [0, 1], "cues": [{}], "main_cues": [1]}`,
		`{"moments": [1], "times": [], "says": [{}], "spoken": [0]}`,
	} {
		var score contract.Score
		assert.Error(t, json.Unmarshal([]byte(`{"packed_lists": `+packed+`}`), &score), packed)
	}
	var score contract.Score
	assert.NoError(
		t,
		json.Unmarshal(
			[]byte(`{"packed_lists": {"moments": [1, 1], "times": [0, 1], "cues": [{}], "main_cues": [0]}}`),
			&score,
		),
	)
	assert.Equal(t, []contract.Cue{{AtMS: 1, UntilMS: 2}}, score.Cues)
}
