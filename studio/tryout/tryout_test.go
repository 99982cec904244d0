package tryout_test

import (
	"encoding/json"
	"fmt"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/core/pace"
	"vastlantern/core/rehearsal"
	"vastlantern/studio/contract"
	"vastlantern/studio/desk/desktest"
	"vastlantern/studio/tryout"
)

var start = time.Date(2026, 11, 30, 18, 0, 0, 0, time.UTC)

// page is a page to try the application with, at a moment.
type page struct {
	*testing.T
	*tryout.Tryout
	now time.Time
}

func open(t *testing.T) *page { return &page{t, tryout.New(), start} }

// ask returns the status of an answer, and reads its body.
func (p *page) ask(method, path string, body, out any) int {
	p.Helper()
	sent, err := json.Marshal(body)
	require.NoError(p, err)
	question, err := json.Marshal(tryout.Question{
		Method: method, Path: path, Body: sent, Language: "de", NowMS: float64(p.now.UnixMilli()),
	})
	require.NoError(p, err)
	var answer tryout.Answer
	require.NoError(p, json.Unmarshal(p.Answer(question), &answer))
	if out != nil {
		require.NoError(p, json.Unmarshal(answer.Body, out))
	}
	return answer.Status
}

func (p *page) pass(seconds int) { p.now = p.now.Add(time.Duration(seconds) * time.Second) }

type score struct {
	ClassID  int64            `json:"class_id"`
	Revision int              `json:"revision"`
	Over     bool             `json:"over"`
	Sample   bool             `json:"sample"`
	Answer   *contract.Answer `json:"answer"`
}

func TestASampleClassIsLed(t *testing.T) {
	p := open(t)
	var begun score
	require.Equal(t, 200, p.ask("POST", "/sample", nil, &begun))
	assert.True(t, begun.Sample)
	path := fmt.Sprintf("/classes/%d", begun.ClassID)
	p.pass(5)
	var adjusted struct {
		Answer contract.Answer `json:"answer"`
		Score  score           `json:"score"`
	}
	require.Equal(t, 200, p.ask("POST", path+"/adjustments", contract.Adjust{Key: "a", Do: "advance"}, &adjusted))
	assert.Nil(t, adjusted.Answer.Refused)
	assert.Equal(t, int64(5_000), adjusted.Answer.AtMS)
	var would []contract.Preview
	require.Equal(t, 200, p.ask("POST", path+"/would", []contract.Adjust{{Do: pace.ToPause}}, &would))
	assert.Len(t, would, 1)
	var running contract.Running
	require.Equal(t, 200, p.ask("GET", "/running", nil, &running))
	assert.Equal(t, begun.ClassID, running.ClassID)

	require.Equal(t, 200, p.ask("POST", path+"/adjustments", contract.Adjust{Key: "b", Do: pace.End}, &adjusted))
	assert.True(t, adjusted.Score.Over)
	assert.Equal(t, 404, p.ask("GET", "/classes/7/score", nil, nil))
	assert.Equal(t, 404, p.ask("GET", "/plans", nil, nil), "only the program does that")
	var again score
	require.Equal(t, 200, p.ask("POST", "/sample", nil, &again))
	assert.NotEqual(t, begun.ClassID, again.ClassID)
}

// rehearsing is what is compared of a rehearsal.
type rehearsing struct {
	ID     int64             `json:"id"`
	People json.RawMessage   `json:"people"`
	Task   contract.Scenario `json:"task"`
	Score  struct {
		Passages []contract.ScorePassage `json:"passages"`
		EndMS    int64                   `json:"end_ms"`
		Packed   json.RawMessage         `json:"packed_lists"`
	} `json:"score"`
}

// Every task has the room, the class and the review that the program has, press by press.
func TestARehearsalIsThatOfTheProgram(t *testing.T) {
	scenarios, err := rehearsal.Scenarios()
	require.NoError(t, err)
	for _, scenario := range scenarios {
		t.Run(scenario.Name, func(t *testing.T) {
			d, p := desktest.New(t), open(t)
			want := contract.Rehearse{Scenario: scenario.Name, Level: 1}
			theirs, err := d.Rehearse.Begin(t.Context(), want)
			require.NoError(t, err)
			var ours rehearsing
			require.Equal(t, 200, p.ask("POST", "/rehearsals", want, &ours))
			path := fmt.Sprintf("/rehearsals/%d", ours.ID)
			same := func(theirs contract.Rehearsing, ours rehearsing) {
				t.Helper()
				var told rehearsing
				text, err := json.Marshal(theirs)
				require.NoError(t, err)
				require.NoError(t, json.Unmarshal(text, &told))
				assert.JSONEq(t, string(told.People), string(ours.People))
				assert.Equal(t, told.Score.EndMS, ours.Score.EndMS)
				assert.JSONEq(t, string(told.Score.Packed), string(ours.Score.Packed))
			}
			same(theirs, ours)
			for i, do := range []pace.Verb{"pause", "resume", "last-round"} {
				at := float64(20_000 * (i + 1))
				press := contract.Adjust{Key: fmt.Sprint(i), Do: do, PressedMS: &at}
				adjusted, err := d.Rehearse.Adjust(t.Context(), theirs.ID, press)
				require.NoError(t, err)
				var now struct{ Now rehearsing }
				require.Equal(t, 200, p.ask("POST", path+"/adjustments", press, &now))
				same(adjusted.Now, now.Now)
			}
			end := contract.RehearsalMoment{AtMS: 90_000}
			review, err := d.Rehearse.End(t.Context(), theirs.ID, end)
			require.NoError(t, err)
			var back contract.RehearsalReview
			require.Equal(t, 200, p.ask("POST", path+"/end", end, &back))
			assert.Equal(t, review.Rehearsal.Digest, back.Rehearsal.Digest)
			assert.Equal(t, review.People, back.People)
			assert.Equal(t, 400, p.ask("POST", path+"/adjustments", contract.Adjust{Key: "late", Do: pace.ToPause}, nil))
			var all contract.Rehearsals
			require.Equal(t, 200, p.ask("GET", "/rehearsals", nil, &all))
			require.Len(t, all.Done, 1)
			assert.True(t, all.Done[0].Over)
			require.Equal(t, 200, p.ask("GET", path+"/review", nil, &back))
		})
	}
}

func TestTheSampleIsRehearsedFromAPassage(t *testing.T) {
	p := open(t)
	var all contract.Rehearsals
	require.Equal(t, 200, p.ask("GET", "/rehearsals", nil, &all))
	require.Len(t, all.Plans, 1)
	assert.Equal(t, "Gleichmäßiger Atem", all.Plans[0].Passages[1], "in the language of the screens")
	var whole, later rehearsing
	want := contract.Rehearse{PlanID: 1, Room: "newcomers", Passage: 1}
	require.Equal(t, 200, p.ask("POST", "/rehearsals", want, &whole))
	want.Passage = 3
	require.Equal(t, 200, p.ask("POST", "/rehearsals", want, &later))
	assert.Len(t, later.Score.Passages, len(whole.Score.Passages)-2)
	assert.Equal(t, 400, p.ask("POST", "/rehearsals", contract.Rehearse{PlanID: 1, Room: "nobody", Passage: 1}, nil))
}
