package lead_test

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	_ "modernc.org/sqlite" // another program at the data file

	"vastlantern/language"
	"vastlantern/studio"
	"vastlantern/studio/contract"
	"vastlantern/studio/desk/desktest"
)

func TestAClassIsBentAndEndedWhileNothingCanBeStored(t *testing.T) {
	d := desktest.New(t)
	class := d.Start(d.AddPlan(`{"type": "practice", "practice": "nadi-shodhana", "counts": "2:2", "rounds": 30}`))
	d.Do(class, "pause")
	var late contract.Score
	d.Locked(func() {
		done := d.Do(class, "resume")
		require.NotNil(t, done.Score.Unstored)
		assert.Contains(t, desktest.Words(done.Score.Unstored.Why), "locked by another program")
		assert.Equal(t, []contract.UnstoredPress{{Number: 2, AtMS: 0, Do: "resume"}}, done.Score.Unstored.Presses)
		d.Time = d.Time.Add(20 * time.Second)
		done = d.Do(class, "last-round")
		assert.Empty(t, done.Answer.Refused)
		assert.Len(t, done.Score.Unstored.Presses, 2)
		require.NoError(t, d.Classes.Settle(t.Context()), "it is tried again without an error")
		done = d.Do(class, "end")
		assert.True(t, done.Score.Over)
		assert.Len(t, done.Score.Unstored.Presses, 3)
		late = done.Score
		running, err := d.Classes.Running(t.Context())
		require.NoError(t, err)
		assert.Zero(t, running)
		_, err = d.Classes.Begin(t.Context(), contract.Lead{PlanID: 1})
		assert.NotEmpty(t, studio.FileProblem(err), "the next class waits until it can be stored")
	})
	d.Pass(1)
	score, err := d.Classes.Score(t.Context(), class)
	require.NoError(t, err)
	assert.Nil(t, score.Unstored)
	assert.Equal(t, late.Revision, score.Revision)
	assert.Greater(t, score.Edition, late.Edition, "an answer that comes late does not bring back what is stored by now")
	before, err := d.Records.Record(t.Context(), class)
	require.NoError(t, err)
	d.Reopen()
	after, err := d.Records.Record(t.Context(), class)
	require.NoError(t, err)
	assert.Equal(t, before, after, "all of it is in the file")
	assert.Len(t, after.Marks, 4)
	assert.False(t, after.Class.Running)
}

func TestAClassOfTheFutureHidesNothing(t *testing.T) {
	d := desktest.New(t)
	plan := d.AddPlan(`{"type": "talk", "wait": true}`)
	d.Time = d.Time.AddDate(1, 0, 0)
	future := d.Start(plan)
	d.Pass(60)
	d.Do(future, "end")
	d.Time = d.Time.AddDate(-1, 0, 0)
	class := d.Start(plan)
	d.Pass(5)
	for range 2 {
		running, err := d.Classes.Running(t.Context())
		require.NoError(t, err)
		assert.Equal(t, class, running.ClassID)
		code, err := d.Audience.RoomCode(t.Context())
		require.NoError(t, err)
		room, err := d.Audience.Room(t.Context(), code)
		require.NoError(t, err)
		require.NotNil(t, room.Score)
		assert.Equal(t, class, room.Score.ClassID)
		_, err = d.Transfer.Delete(t.Context(), "class", class, false)
		assert.ErrorIs(t, err, studio.ErrConflict)
		d.Reopen()
	}
	record, err := d.Records.Record(t.Context(), future)
	require.NoError(t, err)
	assert.EqualValues(t, 60_000, record.TaughtMS)
}

func TestAPressThatComesTooLate(t *testing.T) {
	d := desktest.New(t)
	class := d.Start(d.AddPlan(`{"type": "practice", "practice": "nadi-shodhana", "counts": "2:2", "rounds": 30}`))
	d.Pass(20)
	ago := func(seconds float64) *float64 {
		ms := float64(d.Time.UnixMilli()) - seconds*1000
		return &ms
	}
	late := contract.Adjust{Key: "late", Do: "pause", PressedMS: ago(5.2)}
	_, err := d.Classes.Adjust(t.Context(), class, late)
	assert.ErrorIs(t, err, studio.ErrConflict)
	assert.Contains(t, language.English().Error(err), "Too late: this was pressed 5 seconds ago. Nothing was changed")
	done, err := d.Classes.Adjust(t.Context(), class, contract.Adjust{Key: "soon", Do: "pause", PressedMS: ago(4.8)})
	require.NoError(t, err)
	assert.EqualValues(t, 20_000, done.Answer.AtMS, "it acts when it arrives")
	d.Pass(30)
	again, err := d.Classes.Adjust(t.Context(), class, contract.Adjust{Key: "soon", Do: "pause", PressedMS: ago(34.8)})
	require.NoError(t, err)
	assert.Equal(t, done.Answer, again.Answer, "what was answered once is answered again, however late")

	words, seen := "hands tire", "restless"
	note, err := d.Classes.Adjust(t.Context(), class, contract.Adjust{Key: "note", Do: "note", Text: &words,
		PressedMS: ago(20)})
	require.NoError(t, err)
	assert.EqualValues(t, 30_000, note.Answer.AtMS, "the moment of the press")
	early, err := d.Classes.Saw(t.Context(), class, contract.Saw{Key: "seen", See: seen, PressedMS: ago(45)})
	require.NoError(t, err)
	assert.EqualValues(t, 30_000, early.Score.Answer.AtMS, "but times never fall")
	d.Pass(1)
	_, err = d.Classes.Adjust(t.Context(), class, contract.Adjust{Key: "ahead", Do: "note", Text: &words,
		PressedMS: ago(-10)})
	require.NoError(t, err)
}

func TestAClassThatIsOverTakesNoMorePresses(t *testing.T) {
	d := desktest.New(t)
	class := d.Start(d.AddPlan(desktest.Rounds))
	d.Pass(10)
	d.Do(class, "end")
	pressed := float64(d.Time.UnixMilli()) - 3000
	d.Pass(5)
	words := "one more would have been good"
	for _, want := range []contract.Adjust{{Key: "a", Do: "pause"}, {Key: "b", Do: "note", Text: &words}} {
		_, err := d.Classes.Adjust(t.Context(), class, want)
		assert.ErrorIs(t, err, studio.ErrConflict, want.Do)
		assert.Contains(t, language.English().Error(err), "This class is over", want.Do)
	}
	_, err := d.Classes.Adjust(t.Context(), class, contract.Adjust{Key: "c", Do: "note", Text: &words,
		PressedMS: &pressed})
	require.NoError(t, err, "a note that was pressed before and arrives after")
	record, err := d.Records.Record(t.Context(), class)
	require.NoError(t, err)
	assert.Len(t, record.Marks, 2)
	found, err := d.Records.Find(t.Context(), contract.Search{Words: "one more"})
	require.NoError(t, err)
	assert.Len(t, found.Classes, 1, "and is found")
}

func TestALateNoteOfAClassThatRanOut(t *testing.T) {
	d := desktest.New(t)
	class := d.Start(d.AddPlan(desktest.Rounds))
	pressed := float64(d.Time.UnixMilli()) + 12_000
	d.Pass(600)
	words := "hands tire"
	done, err := d.Classes.Adjust(t.Context(), class, contract.Adjust{Key: "late", Do: "note", Text: &words,
		PressedMS: &pressed})
	require.NoError(t, err)
	assert.EqualValues(t, 12_000, done.Answer.AtMS)
	assert.Empty(t, done.Answer.Refused)
}

func TestADamagedClassInProgress(t *testing.T) {
	d := desktest.New(t)
	plan := d.AddPlan(`{"type": "talk", "wait": true}`)
	damaged := d.Start(plan)
	d.Exec("UPDATE classes SET document = 'x' WHERE id = ?", damaged)
	d.Reopen()
	running, err := d.Classes.Running(t.Context())
	require.NoError(t, err)
	assert.Zero(t, running)
	class := d.Start(plan)
	d.Reopen()
	running, err = d.Classes.Running(t.Context())
	require.NoError(t, err)
	assert.Equal(t, class, running.ClassID)
}
