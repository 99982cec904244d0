package transfer_test

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/core/fact"
	"vastlantern/language"
	"vastlantern/studio"
	"vastlantern/studio/contract"
	"vastlantern/studio/desk/desktest"
)

func TestWhatGoesWithADeletionIsSaid(t *testing.T) {
	d := desktest.New(t)
	group, class := d.TaughtOnce()
	says, err := d.Transfer.Deletion(t.Context(), "group", group.ID)
	require.NoError(t, err)
	assert.Equal(
		t,
		contract.Deletion{
			Goes:    fact.New("goes.plans", "plans", 1).Pointer(),
			Classes: fact.New("goes.classes", "classes", 1).Pointer(),
			Days:    30,
		},
		says,
	)
	says, err = d.Transfer.Deletion(t.Context(), "class", class)
	require.NoError(t, err)
	assert.Equal(t, "1 adjustment and 1 remark", desktest.Words(says.Goes))
	for _, unknown := range []struct {
		kind string
		id   int64
	}{{"group", 9}, {"class", 9}, {"teacher", 1}} {
		_, err = d.Transfer.Deletion(t.Context(), unknown.kind, unknown.id)
		assert.ErrorIs(t, err, studio.ErrNotFound, unknown.kind)
		_, err = d.Transfer.Delete(t.Context(), unknown.kind, unknown.id, false)
		assert.ErrorIs(t, err, studio.ErrNotFound, unknown.kind)
		_, err = d.Transfer.BringBack(t.Context(), unknown.kind, unknown.id)
		assert.ErrorIs(t, err, studio.ErrNotFound, unknown.kind)
	}
}

func TestADeletedGroupStaysWithItsClassesAndComesBack(t *testing.T) {
	d := desktest.New(t)
	group, class := d.TaughtOnce()
	past, err := d.Records.GroupCourse(t.Context(), group.ID)
	require.NoError(t, err)
	assert.Equal(t, 1, past.Classes)
	list, err := d.Transfer.Delete(t.Context(), "group", group.ID, false)
	require.NoError(t, err)
	require.Len(t, list.Deleted, 1)
	assert.Equal(t, "Lunch", list.Deleted[0].Name)
	assert.InDelta(t, 30*24*time.Hour.Milliseconds(), list.Deleted[0].UntilMS-float64(d.Now().UnixMilli()), 1)
	record, err := d.Records.Record(t.Context(), class)
	require.NoError(t, err)
	assert.Equal(t, "Lunch (deleted)", record.Class.Group.Name)
	assert.Zero(t, record.PlanID, "the plan went with the group")
	_, err = d.Records.GroupCourse(t.Context(), group.ID)
	assert.ErrorIs(t, err, studio.ErrNotFound)

	d.Pass(29 * 24 * 3600)
	list, err = d.Transfer.BringBack(t.Context(), "group", group.ID)
	require.NoError(t, err)
	assert.Empty(t, list.Deleted)
	record, err = d.Records.Record(t.Context(), class)
	require.NoError(t, err)
	assert.Equal(t, "Lunch", record.Class.Group.Name)
	assert.NotZero(t, record.PlanID)

	_, err = d.Transfer.Delete(t.Context(), "class", class, false)
	require.NoError(t, err)
	past, err = d.Records.GroupCourse(t.Context(), group.ID)
	require.NoError(t, err)
	assert.Zero(t, past.Classes, "what it was taught is another now")
	d.Pass(31 * 24 * 3600)
	list, err = d.Transfer.Deleted(t.Context())
	require.NoError(t, err)
	assert.Empty(t, list.Deleted)
	_, err = d.Transfer.BringBack(t.Context(), "class", class)
	assert.ErrorIs(t, err, studio.ErrNotFound, "for good")
}

func TestAClassThatIsBeingLedIsNotDeleted(t *testing.T) {
	d := desktest.New(t)
	group, err := d.Library.AddGroup(t.Context(), "Lunch", "beginners", 12)
	require.NoError(t, err)
	plan := d.AddPlan(desktest.Rounds)
	plan, err = d.Plans.Save(
		t.Context(),
		plan.ID,
		contract.PlanSave{Revision: plan.Revision, Document: plan.Document, GroupID: group.ID},
	)
	require.NoError(t, err)
	class := d.Start(plan)
	for kind, id := range map[string]int64{"class": class, "group": group.ID} {
		_, err := d.Transfer.Delete(t.Context(), kind, id, true)
		assert.ErrorIs(t, err, studio.ErrConflict, kind)
		assert.Contains(t, language.English().Error(err), "end it first")
	}
	_, err = d.Transfer.Delete(t.Context(), "plan", plan.ID, false)
	require.NoError(t, err, "the class has its own copy")
	d.Do(class, "pause")
}
