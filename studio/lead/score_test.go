package lead_test

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/core/pace"
	"vastlantern/core/plan"
	"vastlantern/studio/contract"
	"vastlantern/studio/desk/desktest"
)

func TestTheScoreBeginsWithTheRoundInProgress(t *testing.T) {
	d := desktest.New(t)
	score, err := d.Classes.Begin(t.Context(), contract.Lead{PlanID: d.AddPlan(desktest.Rounds).ID})
	require.NoError(t, err)
	assert.EqualValues(t, "setup", score.Phases[0].Stage)
	d.Pass(2 + 8 + 5)
	score, err = d.Classes.Score(t.Context(), score.ClassID)
	require.NoError(t, err)
	first := score.Phases[0]
	assert.EqualValues(t, []any{pace.Round, 2, int64(10_000)}, []any{first.Stage, first.Round, first.AtMS[0]})
	assert.Equal(t, 3, score.Passages[0].Rounds)
	assert.EqualValues(t, 30_000, score.EndMS)
	assert.Contains(t, first.Verbs, pace.Again)
	assert.NotContains(t, first.Verbs, "resume")
	assert.EqualValues(t, 58, score.Passages[0].Slower)
}

func TestWhatWaitsIsShownWithWhatFollows(t *testing.T) {
	d := desktest.New(t)
	score, err := d.Classes.Begin(
		t.Context(),
		contract.Lead{PlanID: d.AddPlan(`{"type": "talk", "seconds": 20, "wait": true},` + desktest.Rounds).ID},
	)
	require.NoError(t, err)
	require.NotNil(t, score.Wait)
	assert.EqualValues(t, -1, score.Phases[0].EndMS)
	assert.EqualValues(t, 20_000, score.Wait.PlannedEndMS)
	assert.EqualValues(t, 30_000, score.Wait.LengthMS)
	assert.EqualValues(t, 50_000, score.EndMS)
	assert.EqualValues(t, 20_000, score.Passages[1].StartMS)
	d.Pass(25)
	score, err = d.Classes.Score(t.Context(), score.ClassID)
	require.NoError(t, err)
	assert.EqualValues(t, 55_000, score.EndMS, "later than planned by now")
	assert.EqualValues(t, 25_000, d.Do(score.ClassID, "advance").Score.Phases[0].AtMS[0])
}

// A screen shows what the core computed, on both lanes; none makes up a cue.
func TestTheScoreCarriesWhatIsShownAndSaid(t *testing.T) {
	d := desktest.New(t)
	stored := d.AddPlan(
		`{"type": "practice", "practice": "nadi-shodhana", "counts": "4:4:4", "rounds": 3, "side": "left", "beside": "breathe",
		"lines": [{"text": "soft jaw", "round": 2, "who": "all", "say": true}, {"text": "mine", "round": 2}, {"text": "for me alone", "round": 3, "say": true}]}`,
	)
	score, err := d.Classes.Begin(t.Context(), contract.Lead{PlanID: stored.ID,
		Acknowledged: contract.StrongCautions(stored)})
	require.NoError(t, err)
	shown := func(cues []contract.Cue) (list []string) {
		for _, c := range cues {
			list = append(list, fmt.Sprint(c.AtMS, " ", c.Kind, " ", c.Text))
		}
		return list
	}
	main, beside := shown(score.Cues), shown(score.LaneCues)
	assert.Contains(t, main, "8000 now hold")
	assert.Contains(t, main, "28000 line soft jaw", "for everybody when the round begins")
	assert.Contains(t, main, "26000 line mine", "for the teacher 2 s before")
	assert.NotContains(t, strings.Join(beside, "\n"), "hold")
	assert.NotEmpty(t, score.Lane)
	assert.Equal(t, score.EndMS, score.Lane[len(score.Lane)-1].EndMS, "both lanes end together")
	assert.Equal(
		t,
		[]contract.Spoken{
			{AtMS: 0, Who: plan.ForAll, Text: "hand up, then close the right"},
			{AtMS: 28_000, Who: plan.ForAll, Text: "soft jaw"},
			{AtMS: 48_000, Who: plan.ForAll, Text: "one more, the last"},
			{AtMS: 52_000, Who: plan.ForTeacher, Text: "for me alone"},
		},
		score.Spoken,
		"the hand, the calls, and of the lines those that are to be said, when their place begins",
	)

	code, err := d.Audience.RoomCode(t.Context())
	require.NoError(t, err)
	room, err := d.Audience.Room(t.Context(), code)
	require.NoError(t, err)
	require.NotNil(t, room.Score)
	assert.Len(t, room.Score.Spoken, len(score.Spoken)-1, "no room's screen says what is for the teacher")
	d.Pass(40)
	after := d.Do(score.ClassID, "last-round").Score
	assert.Contains(t, shown(after.Cues), "40000 last one more, the last", "at once")
	score, err = d.Classes.Score(t.Context(), score.ClassID)
	require.NoError(t, err)
	assert.Equal(t, after.Cues, score.Cues, "the same for every screen")
	room, err = d.Audience.Room(t.Context(), code)
	require.NoError(t, err)
	require.NotNil(t, room.Score)
	for _, c := range room.Score.Cues {
		assert.NotEqual(t, "teacher", c.Who, "the room does not see what is for the teacher")
	}
	d.Reopen()
	again, err := d.Classes.Score(t.Context(), score.ClassID)
	require.NoError(t, err)
	assert.Equal(t, score.Cues, again.Cues, "and the same after the machine was started again")
}

// One voice for both lanes tells the others when a breath of theirs starts that is not everybody's.
func TestTheOthersAreTold(t *testing.T) {
	d := desktest.New(t)
	stored := d.AddPlan(
		`{"type": "practice", "practice": "counted-breath", "counts": "4:8:6", "rounds": 2, "lead_in": 0, "beside": ` +
			`"breathe"}`,
	)
	score, err := d.Classes.Begin(t.Context(), contract.Lead{PlanID: stored.ID,
		Acknowledged: contract.StrongCautions(stored)})
	require.NoError(t, err)
	assert.Equal(
		t,
		[]contract.Spoken{
			{AtMS: 8000, Who: plan.ForAll, Text: "others, inhale"},
			{AtMS: 26_000, Who: plan.ForAll, Text: "others, inhale"},
		},
		score.LaneSpoken,
		"the fresh inhale at the end of a long hold; inhale and exhale together are everybody's",
	)
	d.Do(score.ClassID, "end")
	alone := d.AddPlan(`{"type": "practice", "practice": "counted-breath", "counts": "4:8:6", "rounds": 2}`)
	score, err = d.Classes.Begin(t.Context(),
		contract.Lead{PlanID: alone.ID, Acknowledged: contract.StrongCautions(alone)})
	require.NoError(t, err)
	assert.Empty(t, score.LaneSpoken)
}

// The lanes of a passage are called by what is done in each, as they are in force.
func TestTheNamesOfTheLanes(t *testing.T) {
	d := desktest.New(t)
	p := d.AddPlan(
		desktest.Rounds + `, {"type": "practice", "practice": "counted-breath", "counts": "4:4:4", "rounds": 3, "beside": ` +
			`"breathe"}`,
	)
	score, err := d.Classes.Begin(t.Context(), contract.Lead{PlanID: p.ID, Acknowledged: contract.StrongCautions(p)})
	require.NoError(t, err)
	assert.Equal(t, contract.LaneNames{}, score.Passages[0].LaneNames)
	assert.Equal(
		t,
		contract.LaneNames{Main: "with the holds 4:4:4", Beside: "through the holds"},
		score.Passages[1].LaneNames,
	)
	beside := "1:1"
	d.Pass(4)
	done, err := d.Classes.Adjust(t.Context(), score.ClassID, contract.Adjust{Key: "lane", Do: "beside", To: beside})
	require.NoError(t, err)
	require.Empty(t, done.Answer.Refused)
	assert.Equal(t, contract.LaneNames{Main: "2:2", Beside: "shorter breath 1:1"}, done.Score.Passages[0].LaneNames)
	assert.Equal(
		t,
		done.Score.Passages[0].LaneNames,
		done.Score.ForTheRoom().Passages[0].LaneNames,
		"the room has them too",
	)
}
