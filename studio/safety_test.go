package studio_test

import (
	"bytes"
	"database/sql"
	"encoding/json"
	"fmt"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	_ "modernc.org/sqlite" // another program at the data file

	"vastlantern/core/pace"
	"vastlantern/studio"
	"vastlantern/studio/contract"
)

// other is a connection of another program to the data file of the desk.
func (d *desk) other() *sql.DB {
	db, err := sql.Open("sqlite", "file:"+d.db+"?_txlock=immediate")
	require.NoError(d.t, err)
	d.t.Cleanup(func() { db.Close() })
	return db
}

func (d *desk) exec(statement string, args ...any) {
	_, err := d.other().Exec(statement, args...)
	require.NoError(d.t, err, statement)
}

// locked does something while another program holds the data file.
func (d *desk) locked(do func()) {
	tx, err := d.other().Begin()
	require.NoError(d.t, err)
	do()
	require.NoError(d.t, tx.Rollback())
}

// Today is put together of what can be read, and says of each other part why it is missing.
func TestAPartOfTodayFailsByItself(t *testing.T) {
	d := newDesk(t)
	g, err := d.AddGroup("Lunch", "beginners", 12)
	require.NoError(t, err)
	taught := d.start(d.addPlan(rounds))
	d.pass(600)
	next := fmt.Sprintf(`{"format": "vast-lantern-plan", "version": 1, "title": "Next", "starts_at": %q, "passages": [], "slot_min": "60 min"}`, d.now.Add(time.Hour).Format(time.RFC3339))
	half, err := d.AddPlan([]byte(next), g.ID)
	require.NoError(t, err)
	none, err := d.AddPlan([]byte(next), 0)
	require.NoError(t, err)
	today := d.Today()
	assert.Empty(t, today.Failed, "a plan that is half written is shown as it is")
	require.NotNil(t, today.Next)
	assert.True(t, today.Next.Wrong)
	assert.Len(t, today.Taught, 1)

	d.exec("UPDATE plans SET document = '{' WHERE id IN (?, ?)", half.ID, none.ID)
	today = d.Today()
	require.Len(t, today.Failed, 1)
	assert.Equal(t, "advice", today.Failed[0].Part)
	assert.Len(t, today.Taught, 1)
	require.Len(t, today.Damaged, 1)
	assert.Equal(t, fmt.Sprintf("plan %d", half.ID), today.Damaged[0].Name)
	_, err = d.Plan(half.ID)
	assert.ErrorIs(t, err, studio.ErrDamaged)

	running := d.start(d.addPlan(rounds))
	d.exec("DROP TABLE digests")
	today = d.Today()
	assert.NotEmpty(t, today.Failed)
	for _, failed := range today.Failed {
		assert.Contains(t, []string{"taught", "advice"}, failed.Part)
	}
	assert.NotNil(t, today.Next)
	back, err := d.Running()
	require.NoError(t, err)
	assert.Equal(t, running, back.ClassID, "the way back asks for nothing of all that")
	assert.NotEqual(t, taught, running)
}

// Looking writes nothing: with the file held by another program everything that was there is shown.
func TestReadingWritesNothing(t *testing.T) {
	d := newDesk(t)
	g, err := d.AddGroup("Lunch", "beginners", 12)
	require.NoError(t, err)
	plan := d.addPlan(rounds)
	class := d.start(plan)
	d.pass(600)
	_, err = d.RoomCode()
	require.NoError(t, err)
	d.locked(func() {
		today := d.Today()
		assert.Empty(t, today.Failed)
		assert.Len(t, today.Taught, 1)
		for name, err := range map[string]error{
			"record": second(d.Record(class)), "course": second(d.GroupCourse(g.ID)), "summary": second(d.Summary(0)), "list": second(d.Find(contract.Search{Words: "lunch"})),
			"plan": second(d.Plan(plan.ID)), "deleted": second(d.Deleted()), "settings": second(d.Settings()), "practices": second(d.Practices(g.ID)), "export": d.Export(&bytes.Buffer{}),
		} {
			assert.NoError(t, err, name)
		}
	})
}

func second[T any](_ T, err error) error { return err }

// A class that is led goes on while the data file cannot be written. What is not stored is said, and stored later.
func TestAClassIsBentAndEndedWhileNothingCanBeStored(t *testing.T) {
	d := newDesk(t)
	class := d.start(d.addPlan(`{"type": "practice", "practice": "nadi-shodhana", "counts": "2:2", "rounds": 30}`))
	d.do(class, "pause")
	d.locked(func() {
		done := d.do(class, "resume")
		require.NotNil(t, done.Score.Unstored)
		assert.Contains(t, done.Score.Unstored.Why, "locked by another program")
		assert.Equal(t, []contract.UnstoredPress{{Number: 2, AtMS: 0, Do: "resume"}}, done.Score.Unstored.Presses)
		d.now = d.now.Add(20 * time.Second)
		done = d.do(class, "last-round")
		assert.Empty(t, done.Answer.Refused)
		assert.Len(t, done.Score.Unstored.Presses, 2)
		require.NoError(t, d.Settle(), "it is tried again without an error")
		done = d.do(class, "end")
		assert.True(t, done.Score.Over)
		assert.Len(t, done.Score.Unstored.Presses, 3)
		running, err := d.Running()
		require.NoError(t, err)
		assert.Zero(t, running)
		_, err = d.Lead(contract.Lead{PlanID: 1})
		assert.NotEmpty(t, studio.Trouble(err), "the next class waits until it can be stored")
	})
	d.pass(1)
	score, err := d.Score(class)
	require.NoError(t, err)
	assert.Nil(t, score.Unstored)
	before, err := d.Record(class)
	require.NoError(t, err)
	d.reopen()
	after, err := d.Record(class)
	require.NoError(t, err)
	assert.Equal(t, before, after, "all of it is in the file")
	assert.Len(t, after.Marks, 4)
	assert.False(t, after.Class.Running)
}

// The class that is led is known by its number: one that began in the future, as the clock had it, does not hide it.
func TestAClassOfTheFutureHidesNothing(t *testing.T) {
	d := newDesk(t)
	plan := d.addPlan(`{"type": "talk", "wait": true}`)
	d.now = d.now.AddDate(1, 0, 0)
	future := d.start(plan)
	d.pass(60)
	d.do(future, "end")
	d.now = d.now.AddDate(-1, 0, 0)
	class := d.start(plan)
	d.pass(5)
	for range 2 {
		running, err := d.Running()
		require.NoError(t, err)
		assert.Equal(t, class, running.ClassID)
		code, err := d.RoomCode()
		require.NoError(t, err)
		room, err := d.Room(code)
		require.NoError(t, err)
		require.NotNil(t, room.Score)
		assert.Equal(t, class, room.Score.ClassID)
		_, err = d.Delete("class", class, false)
		assert.ErrorIs(t, err, studio.ErrConflict)
		d.reopen()
	}
	record, err := d.Record(future)
	require.NoError(t, err)
	assert.EqualValues(t, 60_000, record.TaughtMS)
}

// A press that comes long after it was meant does nothing; a note has the moment at which it was pressed.
func TestAPressThatComesTooLate(t *testing.T) {
	d := newDesk(t)
	class := d.start(d.addPlan(`{"type": "practice", "practice": "nadi-shodhana", "counts": "2:2", "rounds": 30}`))
	d.pass(20)
	ago := func(seconds float64) *float64 {
		ms := float64(d.now.UnixMilli()) - seconds*1000
		return &ms
	}
	late := contract.Adjust{Key: "late", Do: "pause", PressedMS: ago(5.2)}
	_, err := d.Adjust(class, late)
	assert.ErrorIs(t, err, studio.ErrConflict)
	assert.ErrorContains(t, err, "Too late: this was pressed 5 seconds ago. Nothing was changed")
	done, err := d.Adjust(class, contract.Adjust{Key: "soon", Do: "pause", PressedMS: ago(4.8)})
	require.NoError(t, err)
	assert.EqualValues(t, 20_000, done.Answer.AtMS, "it acts when it arrives")
	d.pass(30)
	again, err := d.Adjust(class, contract.Adjust{Key: "soon", Do: "pause", PressedMS: ago(34.8)})
	require.NoError(t, err)
	assert.Equal(t, done.Answer, again.Answer, "what was answered once is answered again, however late")

	words, seen := "hands tire", "restless"
	note, err := d.Adjust(class, contract.Adjust{Key: "note", Do: "note", Text: &words, PressedMS: ago(20)})
	require.NoError(t, err)
	assert.EqualValues(t, 30_000, note.Answer.AtMS, "the moment of the press")
	early, err := d.Saw(class, contract.Saw{Key: "seen", See: seen, PressedMS: ago(45)})
	require.NoError(t, err)
	assert.EqualValues(t, 30_000, early.Score.Answer.AtMS, "but times never fall")
	d.pass(1)
	_, err = d.Adjust(class, contract.Adjust{Key: "ahead", Do: "note", Text: &words, PressedMS: ago(-10)})
	require.NoError(t, err)
}

func TestAClassThatIsOverTakesNoMorePresses(t *testing.T) {
	d := newDesk(t)
	class := d.start(d.addPlan(rounds))
	d.pass(10)
	d.do(class, "end")
	pressed := float64(d.now.UnixMilli()) - 3000
	d.pass(5)
	words := "one more would have been good"
	for _, want := range []contract.Adjust{{Key: "a", Do: "pause"}, {Key: "b", Do: "note", Text: &words}} {
		_, err := d.Adjust(class, want)
		assert.ErrorIs(t, err, studio.ErrConflict, want.Do)
		assert.ErrorContains(t, err, "This class is over", want.Do)
	}
	_, err := d.Adjust(class, contract.Adjust{Key: "c", Do: "note", Text: &words, PressedMS: &pressed})
	require.NoError(t, err, "a note that was pressed before and arrives after")
	record, err := d.Record(class)
	require.NoError(t, err)
	assert.Len(t, record.Marks, 2)
	found, err := d.Find(contract.Search{Words: "one more"})
	require.NoError(t, err)
	assert.Len(t, found.Classes, 1, "and is found")
}

// A note that was pressed in a class that has since come to its end by itself has its own moment.
func TestALateNoteOfAClassThatRanOut(t *testing.T) {
	d := newDesk(t)
	class := d.start(d.addPlan(rounds))
	pressed := float64(d.now.UnixMilli()) + 12_000
	d.pass(600)
	words := "hands tire"
	done, err := d.Adjust(class, contract.Adjust{Key: "late", Do: "note", Text: &words, PressedMS: &pressed})
	require.NoError(t, err)
	assert.EqualValues(t, 12_000, done.Answer.AtMS)
	assert.Empty(t, done.Answer.Refused)
}

// What is stored can be read again: what would not be is refused, and what was there stays.
func TestWhatIsStoredCanBeRead(t *testing.T) {
	d := newDesk(t)
	plan := d.addPlan(rounds)
	save := func(document string) error {
		_, err := d.SavePlan(plan.ID, contract.PlanSave{Revision: plan.Revision, Document: json.RawMessage(document)})
		return err
	}
	list := strings.Repeat("0,", 300_000) // 600 kB, and with its line ends over 1 MiB
	assert.ErrorContains(t, save(`{"format": "vast-lantern-plan", "version": 1, "passages": [], "x": [`+list+`0]}`), "would not be read again")
	assert.ErrorIs(t, save(`{"format": "vast-lantern-plan", "version": 1, "passages": [], "x": `+strings.Repeat("[", 9900)+strings.Repeat("]", 9900)+`}`), studio.ErrInvalid)
	assert.ErrorIs(t, save(`{"format": "vast-lantern-plan", "version": 1, "passages": [], "title": "`+strings.Repeat("x", 301)+`"}`), studio.ErrInvalid)

	class := d.start(plan)
	long, words := strings.Repeat("x", 3000), "hands tire"
	for name, want := range map[string]contract.Adjust{
		"a key": {Key: long, Do: "pause"}, "a verb": {Key: "k", Do: pace.Verb(long)}, "a note": {Key: "k", Do: "note", Text: &long}, "what was seen": {Key: "k", Do: "note", Text: &words, Because: long},
	} {
		_, err := d.Adjust(class, want)
		assert.ErrorIs(t, err, studio.ErrInvalid, name)
	}
	again, err := d.Plan(plan.ID)
	require.NoError(t, err)
	assert.Equal(t, plan.Document, again.Document)
}

// A class, a plan and a practice that cannot be read are left out and named, in the export too; all else goes on.
func TestDamagedEntriesAreLeftOutAndNamed(t *testing.T) {
	d := newDesk(t)
	g, err := d.AddGroup("Lunch", "beginners", 12)
	require.NoError(t, err)
	plan := d.addPlan(rounds)
	damaged := d.start(plan)
	d.pass(600)
	whole := d.start(plan)
	d.pass(600)
	d.exec("UPDATE classes SET document = '{\"format\"' WHERE id = ?", damaged)
	d.exec("DELETE FROM digests")
	d.exec("UPDATE settings SET value = 'x' WHERE name = 'teacher'")
	d.exec("INSERT INTO settings VALUES ('teacher', '{\"language\": 7}') ON CONFLICT DO NOTHING")
	d.exec("INSERT INTO practices VALUES ('own-x', 'id: [', '2026-03-02 12:00:00')")
	d.reopen()
	require.NoError(t, d.Prepare(t.Context()))
	found, err := d.Find(contract.Search{})
	require.NoError(t, err)
	require.Len(t, found.Classes, 1)
	assert.Equal(t, whole, found.Classes[0].ID)
	assert.Zero(t, found.Left)
	_, err = d.Record(damaged)
	assert.ErrorIs(t, err, studio.ErrDamaged)
	assert.ErrorContains(t, err, "lantern restore")
	sum, err := d.Summary(0)
	require.NoError(t, err)
	assert.Equal(t, 1, sum.Classes)
	_, err = d.RecordsFile(contract.Search{})
	require.NoError(t, err)
	_, err = d.Practices(g.ID)
	require.NoError(t, err)
	d.start(plan)
	var names []string
	for _, entry := range d.Today().Damaged {
		names = append(names, entry.Name)
	}
	assert.Equal(t, []string{fmt.Sprintf("class %d", damaged), "setting teacher"}, names)

	var file bytes.Buffer
	require.NoError(t, d.Export(&file))
	fitsSchema(t, "export.schema.json", file.Bytes())
	var export contract.Export
	require.NoError(t, json.Unmarshal(file.Bytes(), &export))
	assert.Len(t, export.Classes, 2)
	assert.Len(t, export.Damaged, 3)
	assert.Equal(t, "own-x", export.Damaged[1].Name)
	other := machine(t, false)
	other.bring(file.String())
	here, err := other.Find(contract.Search{})
	require.NoError(t, err)
	assert.Len(t, here.Classes, 2)
	_, err = d.Delete("class", damaged, false)
	require.NoError(t, err)
	_, err = d.Deleted()
	require.NoError(t, err)
}

// A class in progress that cannot be read keeps no other from being led.
func TestADamagedClassInProgress(t *testing.T) {
	d := newDesk(t)
	plan := d.addPlan(`{"type": "talk", "wait": true}`)
	damaged := d.start(plan)
	d.exec("UPDATE classes SET document = 'x' WHERE id = ?", damaged)
	d.reopen()
	running, err := d.Running()
	require.NoError(t, err)
	assert.Zero(t, running)
	class := d.start(plan)
	d.reopen()
	running, err = d.Running()
	require.NoError(t, err)
	assert.Equal(t, class, running.ClassID)
}
