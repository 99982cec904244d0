package studio_test

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/studio"
	"vastlantern/studio/contract"
)

// taughtOnce is a group with a class that was led and ended, and had a remark.
func (d *desk) taughtOnce() (group contract.Group, class int64) {
	group, err := d.AddGroup("Lunch", "beginners", 12)
	require.NoError(d.t, err)
	plan := d.addPlan(rounds)
	plan, err = d.SavePlan(plan.ID, contract.PlanSave{Revision: plan.Revision, Document: plan.Document, GroupID: group.ID})
	require.NoError(d.t, err)
	class = d.start(plan)
	d.pass(20)
	d.do(class, "end")
	_, err = d.AddRemark(class, contract.Remark{Kind: "people", Text: "11"})
	require.NoError(d.t, err)
	return group, class
}

func (d *desk) start(plan contract.Plan) int64 {
	score, err := d.Lead(contract.Lead{PlanID: plan.ID})
	require.NoError(d.t, err)
	return score.ClassID
}

func TestWhatGoesWithADeletionIsSaid(t *testing.T) {
	d := newDesk(t)
	group, class := d.taughtOnce()
	says, err := d.Deletion("group", group.ID)
	require.NoError(t, err)
	assert.Equal(t, contract.Deletion{Goes: "1 plan", Classes: "1 taught class", Days: 30}, says)
	says, err = d.Deletion("class", class)
	require.NoError(t, err)
	assert.Equal(t, "1 adjustment and 1 remark", says.Goes)
	for _, unknown := range []struct {
		kind string
		id   int64
	}{{"group", 9}, {"class", 9}, {"teacher", 1}} {
		_, err = d.Deletion(unknown.kind, unknown.id)
		assert.ErrorIs(t, err, studio.ErrNotFound, unknown.kind)
		_, err = d.Delete(unknown.kind, unknown.id, false)
		assert.ErrorIs(t, err, studio.ErrNotFound, unknown.kind)
		_, err = d.BringBack(unknown.kind, unknown.id)
		assert.ErrorIs(t, err, studio.ErrNotFound, unknown.kind)
	}
}

func TestADeletedGroupStaysWithItsClassesAndComesBack(t *testing.T) {
	d := newDesk(t)
	group, class := d.taughtOnce()
	past, err := d.GroupCourse(group.ID)
	require.NoError(t, err)
	assert.Equal(t, 1, past.Classes)
	list, err := d.Delete("group", group.ID, false)
	require.NoError(t, err)
	require.Len(t, list.Deleted, 1)
	assert.Equal(t, "Lunch", list.Deleted[0].Name)
	assert.InDelta(t, 30*24*time.Hour.Milliseconds(), list.Deleted[0].UntilMS-float64(d.Now().UnixMilli()), 1)
	record, err := d.Record(class)
	require.NoError(t, err)
	assert.Equal(t, "Lunch (deleted)", record.Class.Group.Name)
	assert.Zero(t, record.PlanID, "the plan went with the group")
	_, err = d.GroupCourse(group.ID)
	assert.ErrorIs(t, err, studio.ErrNotFound)

	d.pass(29 * 24 * 3600)
	list, err = d.BringBack("group", group.ID)
	require.NoError(t, err)
	assert.Empty(t, list.Deleted)
	record, err = d.Record(class)
	require.NoError(t, err)
	assert.Equal(t, "Lunch", record.Class.Group.Name)
	assert.NotZero(t, record.PlanID)

	_, err = d.Delete("class", class, false)
	require.NoError(t, err)
	past, err = d.GroupCourse(group.ID)
	require.NoError(t, err)
	assert.Zero(t, past.Classes, "what it was taught is another now")
	d.pass(31 * 24 * 3600)
	list, err = d.Deleted()
	require.NoError(t, err)
	assert.Empty(t, list.Deleted)
	_, err = d.BringBack("class", class)
	assert.ErrorIs(t, err, studio.ErrNotFound, "for good")
}

func TestAClassThatIsBeingLedIsNotDeleted(t *testing.T) {
	d := newDesk(t)
	group, err := d.AddGroup("Lunch", "beginners", 12)
	require.NoError(t, err)
	plan := d.addPlan(rounds)
	plan, err = d.SavePlan(plan.ID, contract.PlanSave{Revision: plan.Revision, Document: plan.Document, GroupID: group.ID})
	require.NoError(t, err)
	class := d.start(plan)
	for kind, id := range map[string]int64{"class": class, "group": group.ID} {
		_, err := d.Delete(kind, id, true)
		assert.ErrorIs(t, err, studio.ErrConflict, kind)
		assert.ErrorContains(t, err, "end it first")
	}
	_, err = d.Delete("plan", plan.ID, false)
	require.NoError(t, err, "the class has its own copy")
	d.do(class, "pause")
}
