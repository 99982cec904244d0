package lead_test

import (
	"encoding/json"
	"flag"
	"os"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/studio/contract"
	"vastlantern/studio/desk/desktest"
)

var update = flag.Bool("update", false, "write the files that hold the screens to what the program sends")

// codecCases is read by ui/src/wire/score.test.ts too: what is sent of each score, and its lists as they are meant.
const codecCases = "../../ui/score.cases.json"

// lists holds the packed lists of a score.
type lists struct {
	Phases     []contract.ScorePhase `json:"phases"`
	Lane       []contract.ScorePhase `json:"lane"`
	Cues       []contract.Cue        `json:"cues"`
	LaneCues   []contract.Cue        `json:"lane_cues"`
	Spoken     []contract.Spoken     `json:"spoken"`
	LaneSpoken []contract.Spoken     `json:"lane_spoken"`
	Wait       *contract.Wait        `json:"wait"`
}

// The screens unpack the same bytes that are sent here, to the same lists.
func TestTheCasesOfTheScreensAreNotStale(t *testing.T) {
	type packedCase struct {
		Name  string          `json:"name"`
		Sent  json.RawMessage `json:"sent"`
		Lists lists           `json:"lists"`
	}
	var cases []packedCase
	for _, one := range []struct {
		name, passages string
		presses        []contract.Adjust
	}{
		{name: "rounds with a rest and a lane", passages: `{"type": "practice", "practice": "nadi-shodhana", "counts": "4:8:4",
			"rounds": 2, "lead_in": 2, "rest_between": 5, "beside": "breathe", "closing": [{"seconds": 5, "text": "hand down"}]}`},
		{name: "by hand, waiting", passages: `{"type": "practice", "practice": "counted-breath", "counts": "2:3",
			"rounds": 2, "lead_in": 0, "by_hand": "all"}`, presses: []contract.Adjust{{Do: "advance"}}},
		{name: "strokes, cut short", passages: `{"type": "practice", "practice": "kapalabhati", "strokes": 5, "rate": 60,
			"rounds": 2, "lead_in": 0, "rest_between": 4}`, presses: []contract.Adjust{{Do: "pause"}}},
		{name: "own pace, and a talk that waits", passages: `{"type": "practice", "practice": "counted-breath", "counts": "3:3",
			"pace": "own", "minutes": 1}, {"type": "talk", "seconds": 10, "wait": true}, {"type": "free", "breaths": 2}`},
	} {
		d := desktest.New(t)
		stored := d.AddPlan(one.passages)
		score, err := d.Classes.Begin(t.Context(), contract.Lead{PlanID: stored.ID,
			Acknowledged: contract.StrongCautions(stored)})
		require.NoError(t, err, one.name)
		for i, press := range one.presses {
			d.Pass(1.5)
			press.Key = string(rune('a' + i))
			done, err := d.Classes.Adjust(t.Context(), score.ClassID, press)
			require.NoError(t, err, one.name)
			require.Nil(t, done.Answer.Refused, one.name)
			score = done.Score
		}
		sent, err := json.Marshal(score.Sent())
		require.NoError(t, err)
		cases = append(cases, packedCase{one.name, sent, lists{
			score.Phases, score.Lane, score.Cues, score.LaneCues, score.Spoken, score.LaneSpoken, score.Wait,
		}})
	}
	text, err := json.MarshalIndent(cases, "", " ")
	require.NoError(t, err)
	text = append(text, '\n')
	if *update {
		require.NoError(t, os.WriteFile(codecCases, text, 0o600))
	}
	stored, err := os.ReadFile(codecCases)
	require.NoError(t, err)
	assert.Equal(t, string(text), string(stored), "run: go test ./studio/lead -run Stale -update")
}
