package studio_test

import (
	"bytes"
	"encoding/json"
	"errors"
	"fmt"
	"path/filepath"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/core/pace"
	"vastlantern/store"
	"vastlantern/studio"
	"vastlantern/studio/contract"
)

// desk is a studio whose clock the test sets.
type desk struct {
	*studio.Studio
	store *store.Store
	t     *testing.T
	now   time.Time
	db    string
}

func newDesk(t *testing.T) *desk {
	d := &desk{t: t, now: time.Date(2026, 3, 2, 12, 0, 0, 0, time.UTC), db: filepath.Join(t.TempDir(), "x.db")}
	d.reopen()
	return d
}

// reopen is what a restart of the program does.
func (d *desk) reopen() {
	if d.store != nil {
		require.NoError(d.t, d.store.Close())
	}
	s, err := store.Open(d.db, "a test")
	require.NoError(d.t, err)
	d.store = s
	d.t.Cleanup(func() { s.Close() })
	d.Studio = studio.WithTime(s, func() time.Time { return d.now }, 1)
}

func (d *desk) pass(seconds float64) {
	d.now = d.now.Add(time.Duration(seconds * float64(time.Second)))
	require.NoError(d.t, d.Settle()) // as the program does every second
}

func (d *desk) addPlan(passages string) contract.Plan {
	p, err := d.AddPlan([]byte(`{"format": "vast-lantern-plan", "version": 1, "title": "Lunch", "tempo": 60, "slot_min": 2, "passages": [`+passages+`]}`), 0)
	require.NoError(d.t, err)
	return p
}

var sent int

func (d *desk) do(class int64, do string) contract.Adjusted {
	sent++
	a, err := d.Adjust(class, contract.Adjust{Key: fmt.Sprint(sent), Do: pace.Verb(do)})
	require.NoError(d.t, err)
	return a
}

const rounds = `{"type": "practice", "practice": "nadi-shodhana", "counts": "2:2", "rounds": 3, "lead_in": 2, "closing": [{"breaths": 1}]}`

func TestAClassGoesOnAfterARestart(t *testing.T) {
	d := newDesk(t)
	plan := d.addPlan(rounds)
	score, err := d.Lead(contract.Lead{PlanID: plan.ID})
	require.NoError(t, err)
	d.pass(3.2)
	slower := 30.0
	_, err = d.Adjust(score.ClassID, contract.Adjust{Key: "k", Do: "tempo", To: &slower})
	require.NoError(t, err)
	d.pass(1)
	before, err := d.Score(score.ClassID)
	require.NoError(t, err)
	d.reopen()
	after, err := d.Score(score.ClassID)
	require.NoError(t, err)
	assert.Equal(t, before, after)
	assert.EqualValues(t, "round", after.Strands[0].Stage)
	assert.Equal(t, []int64{2000, 3000}, after.Strands[0].AtMS)
	assert.Equal(t, []int64{4000, 6000}, after.Strands[1].AtMS, "slower from the next count")
	running, err := d.Running()
	require.NoError(t, err)
	assert.Equal(t, contract.Running{ClassID: score.ClassID, Title: "Lunch"}, running)
}

func TestTheScoreBeginsWithTheRoundInProgress(t *testing.T) {
	d := newDesk(t)
	score, err := d.Lead(contract.Lead{PlanID: d.addPlan(rounds).ID})
	require.NoError(t, err)
	assert.EqualValues(t, "setup", score.Strands[0].Stage)
	d.pass(2 + 8 + 5)
	score, err = d.Score(score.ClassID)
	require.NoError(t, err)
	first := score.Strands[0]
	assert.EqualValues(t, []any{pace.Round, 2, int64(10_000)}, []any{first.Stage, first.Round, first.AtMS[0]})
	assert.Equal(t, 3, score.Passages[0].Rounds)
	assert.EqualValues(t, 30_000, score.EndMS)
	assert.Contains(t, first.Verbs, pace.Again)
	assert.NotContains(t, first.Verbs, "resume")
	assert.EqualValues(t, 58, score.Passages[0].Slower)
}

func TestAnAdjustmentSentTwiceCountsOnce(t *testing.T) {
	d := newDesk(t)
	score, err := d.Lead(contract.Lead{PlanID: d.addPlan(rounds).ID})
	require.NoError(t, err)
	one := 1
	first, err := d.Adjust(score.ClassID, contract.Adjust{Key: "same", Do: "rounds", By: &one})
	require.NoError(t, err)
	d.pass(4)
	second, err := d.Adjust(score.ClassID, contract.Adjust{Key: "same", Do: "rounds", By: &one})
	require.NoError(t, err)
	assert.Equal(t, first.Answer, second.Answer)
	assert.Equal(t, 4, second.Score.Passages[0].Rounds)
	assert.Equal(t, 1, second.Score.Revision)
}

func TestARefusedAdjustmentIsAnsweredAndRecorded(t *testing.T) {
	d := newDesk(t)
	score, err := d.Lead(contract.Lead{PlanID: d.addPlan(rounds).ID})
	require.NoError(t, err)
	a := d.do(score.ClassID, "resume")
	assert.Equal(t, "not in a pause", a.Answer.Refused)
	record, err := d.Record(score.ClassID)
	require.NoError(t, err)
	assert.Equal(t, "not in a pause", record.Marks[0].Answer.Refused)
	assert.Equal(t, 1, record.Marks[0].Passage)
	_, err = d.Adjust(score.ClassID, contract.Adjust{Key: "z", Do: "fly"})
	assert.ErrorIs(t, err, studio.ErrInvalid)
}

func TestWhatWaitsIsShownWithWhatFollows(t *testing.T) {
	d := newDesk(t)
	score, err := d.Lead(contract.Lead{PlanID: d.addPlan(`{"type": "talk", "seconds": 20, "wait": true},` + rounds).ID})
	require.NoError(t, err)
	require.NotNil(t, score.Wait)
	assert.EqualValues(t, -1, score.Strands[0].EndMS)
	assert.EqualValues(t, 20_000, score.Wait.PlannedEndMS)
	assert.EqualValues(t, 30_000, score.Wait.LengthMS)
	assert.EqualValues(t, 50_000, score.EndMS)
	assert.EqualValues(t, 20_000, score.Passages[1].StartMS)
	d.pass(25)
	score, err = d.Score(score.ClassID)
	require.NoError(t, err)
	assert.EqualValues(t, 55_000, score.EndMS, "later than planned by now")
	assert.EqualValues(t, 25_000, d.do(score.ClassID, "advance").Score.Strands[0].AtMS[0])
}

func TestOnlyOneClassIsLedAtATime(t *testing.T) {
	d := newDesk(t)
	plan := d.addPlan(rounds)
	first, err := d.Lead(contract.Lead{PlanID: plan.ID})
	require.NoError(t, err)
	d.pass(5)
	_, err = d.Lead(contract.Lead{PlanID: plan.ID})
	var failure *studio.Failure
	require.ErrorAs(t, err, &failure)
	assert.Equal(t, first.ClassID, failure.Problem.ClassID)
	second, err := d.Lead(contract.Lead{PlanID: plan.ID, EndRunning: true})
	require.NoError(t, err)
	assert.NotEqual(t, first.ClassID, second.ClassID)
	record, err := d.Record(first.ClassID)
	require.NoError(t, err)
	assert.EqualValues(t, 5_000, record.TaughtMS)
	d.pass(31)
	_, err = d.Lead(contract.Lead{PlanID: plan.ID})
	assert.NoError(t, err, "the second has come to its end by itself")
}

func TestAPlanWithErrorsIsKeptButNotLed(t *testing.T) {
	d := newDesk(t)
	plan := d.addPlan(`{"type": "practice", "practice": "nadi-shodhana", "counts": "4:"}, {"type": "practice", "practice": "none", "minutes": 2}, 7`)
	require.Len(t, plan.Summary.Errors, 3)
	require.Len(t, plan.Summary.Passages, 3)
	_, err := d.Lead(contract.Lead{PlanID: plan.ID})
	assert.ErrorIs(t, err, studio.ErrInvalid)
	empty := d.addPlan("")
	_, err = d.Lead(contract.Lead{PlanID: empty.ID})
	assert.ErrorIs(t, err, studio.ErrInvalid)
	_, err = d.AddPlan([]byte("not a plan"), 0)
	assert.ErrorIs(t, err, studio.ErrInvalid)
	_, err = d.Lead(contract.Lead{PlanID: 99})
	assert.ErrorIs(t, err, studio.ErrNotFound)
}

func TestDraftsFollowEachChange(t *testing.T) {
	d := newDesk(t)
	plan := d.addPlan(rounds)
	short := "4:4:8 x6 @50"
	got, err := d.Draft(contract.Draft{Document: plan.Document, Passage: 1, Short: &short})
	require.NoError(t, err)
	p := got.Summary.Passages[0]
	assert.Equal(t, []any{"4:4:8", 6, int64(38_400), short}, []any{p.Counts, p.Rounds, p.RoundMS, p.Short})
	// Lead-in 4 counts less: 2 at 1.2 s, six rounds of 32, closing of one breath 4:8.
	assert.EqualValues(t, (2+6*32+12)*1200, p.LengthMS)
	assert.EqualValues(t, 120_000-got.Summary.LengthMS, got.Summary.SpareMS)

	wrong := "4:4:8 y6"
	got, err = d.Draft(contract.Draft{Document: plan.Document, Passage: 1, Short: &wrong})
	require.NoError(t, err)
	assert.Contains(t, got.Problem, "y6")
	assert.JSONEq(t, string(plan.Document), string(got.Document), "nothing is lost")

	add := "rest 2m"
	got, err = d.Draft(contract.Draft{Document: plan.Document, Short: &add})
	require.NoError(t, err)
	assert.Equal(t, "Rest", got.Summary.Passages[1].Name)
}

func TestTwoWindowsDoNotOverwriteEachOther(t *testing.T) {
	d := newDesk(t)
	plan := d.addPlan(rounds)
	_, err := d.SavePlan(plan.ID, contract.PlanSave{Revision: 1, Document: plan.Document})
	require.NoError(t, err)
	again, err := d.SavePlan(plan.ID, contract.PlanSave{Revision: 1, Document: plan.Document})
	require.NoError(t, err, "the same save, whose answer was lost")
	assert.EqualValues(t, 2, again.Revision)
	other := bytes.Replace(plan.Document, []byte(`"passages"`), []byte(`"title": "Theirs", "passages"`), 1)
	_, err = d.SavePlan(plan.ID, contract.PlanSave{Revision: 1, Document: other})
	assert.ErrorIs(t, err, studio.ErrConflict)
	_, err = d.SavePlan(77, contract.PlanSave{Revision: 1, Document: plan.Document})
	assert.ErrorIs(t, err, studio.ErrNotFound)
}

func TestTodayKnowsNextAndLast(t *testing.T) {
	d := newDesk(t)
	g, err := d.AddGroup("Lunch", "beginners", 12)
	require.NoError(t, err)
	at := func(hours int) contract.Plan {
		doc, err := json.Marshal(map[string]any{"format": "vast-lantern-plan", "version": 1, "title": fmt.Sprint(hours),
			"starts_at": d.now.Add(time.Duration(hours) * time.Hour).Format(time.RFC3339), "passages": []any{map[string]any{"type": "talk", "seconds": 60}}})
		require.NoError(t, err)
		p, err := d.AddPlan(doc, g.ID)
		require.NoError(t, err)
		return p
	}
	at(-2)
	past := at(-1)
	next := at(3)
	at(5)
	score, err := d.Lead(contract.Lead{PlanID: past.ID})
	require.NoError(t, err)
	d.pass(100)
	today := d.Today()
	require.Empty(t, today.Failed)
	assert.Equal(t, next.ID, today.Next.ID)
	assert.Len(t, today.Plans, 1)
	require.NotNil(t, today.Last)
	assert.Equal(t, score.ClassID, today.Last.Class.ID)
	running, err := d.Running()
	require.NoError(t, err)
	assert.Zero(t, running)
	_, err = d.Record(99)
	assert.True(t, errors.Is(err, studio.ErrNotFound))
}

func TestScreensAreToldOfChanges(t *testing.T) {
	d := newDesk(t)
	score, err := d.Lead(contract.Lead{PlanID: d.addPlan(rounds).ID})
	require.NoError(t, err)
	changed, stop := d.Watch(score.ClassID)
	d.do(score.ClassID, "pause")
	select {
	case <-changed:
	default:
		t.Fatal("nothing was told")
	}
	stop()
	d.do(score.ClassID, "resume")
	assert.Empty(t, changed)
}
