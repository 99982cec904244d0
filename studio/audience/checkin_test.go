package audience_test

import (
	"encoding/json"
	"fmt"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/core/plan"
	"vastlantern/studio"
	"vastlantern/studio/contract"
	"vastlantern/studio/desk/desktest"
)

const talkFirst = `{"type": "talk", "seconds": 60}, {"type": "practice", "practice": "nadi-shodhana", "counts": ` +
	`"4:4:8", ` +
	`"rounds": 2, "lead_in": 0}`

// asking returns a plan of a group that begins in so long and asks the room.
func asking(t *testing.T, d *desktest.Desk, question plan.CheckIn, in time.Duration) contract.Plan {
	t.Helper()
	g, err := d.Library.SaveGroup(t.Context(), contract.Group{Name: "Monday", Weekday: -1})
	require.NoError(t, err)
	p := d.AddPlan(talkFirst)
	document := map[string]any{}
	text, err := json.Marshal(p.Document)
	require.NoError(t, err)
	require.NoError(t, json.Unmarshal(text, &document))
	document["check_in"] = question
	document["starts_at"] = d.Time.Add(in).Format(time.RFC3339)
	text, err = json.Marshal(document)
	require.NoError(t, err)
	p, err = d.Plans.Save(t.Context(), p.ID, contract.PlanSave{Revision: p.Revision, Document: text, GroupID: g.ID})
	require.NoError(t, err)
	return p
}

type voter struct {
	*testing.T
	d    *desktest.Desk
	code string
	n    int
}

func (v *voter) asked() *contract.CheckInAsked {
	v.Helper()
	room, err := v.d.Audience.Room(v.Context(), v.code)
	require.NoError(v, err)
	return room.CheckIn
}

// says answers what is asked, from so many phones.
func (v *voter) says(answers ...string) (counted int) {
	v.Helper()
	asked := v.asked()
	require.NotNil(v, asked)
	for _, answer := range answers {
		v.n++
		done, err := v.d.Audience.CheckIn(v.Context(), v.code, contract.CheckInAnswer{
			ID: asked.ID, After: asked.After, Answer: answer, Ballot: fmt.Sprintf("%16d", v.n),
		})
		require.NoError(v, err)
		if done.Counted {
			counted++
		}
	}
	return counted
}

// The room is asked while it waits and until the first practice begins, and again after the class; the sums stand in
// the
// record, in the course of the group, in files, and move to another machine.
func TestTheRoomIsAskedBeforeAndAfter(t *testing.T) {
	d, code := room(t, false)
	v := &voter{T: t, d: d, code: code}
	p := asking(t, d, plan.CheckCalm, 2*time.Hour)
	assert.Nil(t, v.asked(), "too early")
	d.Pass(3600 + 1800)
	for range 4 {
		defer d.Audience.Join(t.Context())()
	}
	asked := v.asked()
	require.NotNil(t, asked)
	assert.Equal(t, []any{false, plan.CheckCalm, []string{"1", "2", "3", "4", "5"}},
		[]any{asked.After, asked.Question, asked.Answers})
	assert.Equal(t, 2, v.says("2", "1"))
	d.Pass(1800)
	score, err := d.Classes.Begin(t.Context(), contract.Lead{PlanID: p.ID, Acknowledged: contract.StrongCautions(p)})
	require.NoError(t, err)
	d.Pass(30)
	again := v.asked()
	require.NotNil(t, again, "in the opening talk")
	assert.Equal(t, asked.ID, again.ID, "who has answered is not asked again")
	assert.Equal(t, score.StartedMS+60_000, again.UntilMS)
	assert.Equal(t, 2, v.says("3", "3", "5"), "there are four phones")
	d.Pass(31)
	assert.Nil(t, v.asked(), "the first practice has begun")
	_, err = d.Audience.CheckIn(t.Context(), code, contract.CheckInAnswer{ID: asked.ID, Answer: "3",
		Ballot: "0123456789abcdef"})
	assert.ErrorIs(t, err, studio.ErrConflict)
	d.Pass(64)
	after := v.asked()
	require.NotNil(t, after)
	assert.True(t, after.After)
	assert.Equal(t, 2, v.says("4", "5"))

	record, err := d.Records.Record(t.Context(), score.ClassID)
	require.NoError(t, err)
	require.NotNil(t, record.CheckIn)
	assert.Equal(t, contract.CheckInPeople{Before: 4, After: 2}, record.CheckIn.People)
	assert.Equal(t, 2.25, record.CheckIn.MeanBefore, "(1 + 2 + 3 + 3) / 4")
	assert.Equal(t, contract.CheckInSum{Answer: "3", People: 2}, record.CheckIn.Before[2])
	assert.Empty(t, record.CheckIn.After, "two would tell who said what")
	assert.Zero(t, record.CheckIn.MeanAfter)
	assert.Equal(t, 1, v.says("4"))
	course, err := d.Records.GroupCourse(t.Context(), record.Class.Group.ID)
	require.NoError(t, err)
	require.Len(t, course.CheckIns, 1)
	assert.InDelta(t, 13.0/3, course.CheckIns[0].MeanAfter, 1e-9, "(4 + 5 + 4) / 3")
	assert.Equal(t, []string{"Alternate nostril breath 4:4:8 ×2"}, course.CheckIns[0].Breathed)
	table, err := d.Records.RecordTable(t.Context(), score.ClassID)
	require.NoError(t, err)
	assert.Contains(t, string(table.Data), "calm,1:1 2:1 3:2 4:0 5:0,1:0 2:0 3:0 4:2 5:1")

	young := desktest.New(t)
	young.Import(d.Export())
	assert.Equal(t, d.Export(), young.Export())
	d.Pass(1801)
	assert.Nil(t, v.asked(), "after half an hour nobody is asked")
}

func TestWhatIsNoAnswerToACheckIn(t *testing.T) {
	d, code := room(t, false)
	v := &voter{T: t, d: d, code: code}
	asking(t, d, plan.CheckSide, 30*time.Minute)
	defer d.Audience.Join(t.Context())()
	asked := v.asked()
	require.NotNil(t, asked)
	for name, c := range map[string]struct {
		answer contract.CheckInAnswer
		err    error
	}{
		"no such answer": {contract.CheckInAnswer{ID: asked.ID, Answer: "3", Ballot: "0123456789abcdef"},
			studio.ErrInvalid},
		"no ballot":        {contract.CheckInAnswer{ID: asked.ID, Answer: "left"}, studio.ErrInvalid},
		"after, too early": {contract.CheckInAnswer{ID: asked.ID, After: true, Answer: "left"}, studio.ErrConflict},
		"another":          {contract.CheckInAnswer{ID: asked.ID + 1, Answer: "left"}, studio.ErrConflict},
	} {
		_, err := d.Audience.CheckIn(t.Context(), code, c.answer)
		assert.ErrorIs(t, err, c.err, name)
	}
	_, err := d.Audience.CheckIn(t.Context(), "NOBODY", contract.CheckInAnswer{})
	assert.ErrorIs(t, err, studio.ErrNotFound)
	one := contract.CheckInAnswer{ID: asked.ID, Answer: "left", Ballot: "0123456789abcdef"}
	for range 2 { // the second time, as where the receipt was lost
		done, err := d.Audience.CheckIn(t.Context(), code, one)
		require.NoError(t, err)
		assert.True(t, done.Counted)
	}
	assert.Zero(t, v.says("left"), "there is one phone, and its answer counted once")
}

// What was answered before a class that did not take place belongs to no other.
func TestAClassThatDidNotTakePlace(t *testing.T) {
	d, code := room(t, false)
	v := &voter{T: t, d: d, code: code}
	p := asking(t, d, plan.CheckSide, 30*time.Minute)
	defer d.Audience.Join(t.Context())()
	assert.Equal(t, 1, v.says("left"))
	d.Pass(24 * 3600)
	score, err := d.Classes.Begin(t.Context(), contract.Lead{PlanID: p.ID, Acknowledged: contract.StrongCautions(p)})
	require.NoError(t, err)
	assert.Equal(t, 1, v.says("right"))
	record, err := d.Records.Record(t.Context(), score.ClassID)
	require.NoError(t, err)
	assert.Equal(t, 1, record.CheckIn.People.Before)

	plain, err := d.Library.SaveGroup(t.Context(), contract.Group{Name: "Tuesday", Weekday: -1})
	require.NoError(t, err)
	course, err := d.Records.GroupCourse(t.Context(), plain.ID)
	require.NoError(t, err)
	assert.Empty(t, course.CheckIns)
}
