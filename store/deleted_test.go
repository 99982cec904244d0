package store

import (
	"path/filepath"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

var monday = time.Date(2026, 3, 2, 18, 30, 0, 0, time.UTC)

// taughtGroup returns a group with a plan and a class, in which something was pressed and remarked.
func taughtGroup(t *testing.T, s *Store) (group, plan, class int64) {
	t.Helper()
	g, err := s.AddGroup(Group{Name: "Evening", Notes: "by the window", Conditions: map[string]int{"asthma": 1}})
	require.NoError(t, err)
	p, err := s.AddPlan(Plan{GroupID: g.ID, Title: "Monday", Document: []byte(`{}`), UpdatedAt: monday})
	require.NoError(t, err)
	c, err := s.AddClass(Class{PlanID: p.ID, GroupID: g.ID, StartedAt: monday, Document: []byte(`{"title": "Monday"}`)})
	require.NoError(t, err)
	require.NoError(t, s.AddAdjustments(c.ID, Adjustment{1, "k", []byte(`{}`), ""}))
	require.NoError(t, s.AddRemark(c.ID, Remark{At: monday, Kind: "note", Text: "quiet"}))
	require.NoError(t, s.SaveDigest(Digest{ClassID: c.ID, Over: true, Title: "Monday", Headlines: []string{}}))
	return g.ID, p.ID, c.ID
}

// there returns how many groups, plans and classes are shown; a class in a list counts as one that is found by its
// number.
func there(t *testing.T, s *Store) [3]int {
	t.Helper()
	groups, err := s.Groups()
	require.NoError(t, err)
	plans, err := s.Plans()
	require.NoError(t, err)
	found, err := s.Find(t.Context(), Search{Most: 10})
	require.NoError(t, err)
	classes, err := s.classes(s.read)
	require.NoError(t, err)
	assert.Len(t, found, len(classes))
	return [3]int{len(groups), len(plans), len(classes)}
}

func TestWhatWasDeletedCanBeBroughtBack(t *testing.T) {
	s := open(t, filepath.Join(t.TempDir(), "x.db"))
	group, plan, class := taughtGroup(t, s)
	goes, err := s.Going(Thing{KindGroup, group})
	require.NoError(t, err)
	assert.Equal(t, Going{Plans: 1, Classes: 1, Adjustments: 1, Remarks: 1}, goes)
	goes, err = s.Going(Thing{KindClass, class})
	require.NoError(t, err)
	assert.Equal(t, Going{Classes: 1, Adjustments: 1, Remarks: 1}, goes)
	_, err = s.Going(Thing{KindPlan, 99})
	assert.ErrorIs(t, err, ErrNotFound)

	later := func(minutes int) time.Time { return monday.Add(time.Duration(minutes) * time.Minute) }
	for _, one := range []struct {
		thing   Thing
		classes bool
		left    [3]int
	}{
		{Thing{KindGroup, group}, false, [3]int{0, 0, 1}},
		{Thing{KindGroup, group}, true, [3]int{0, 0, 0}},
		{Thing{KindPlan, plan}, false, [3]int{1, 0, 1}},
		{Thing{KindClass, class}, false, [3]int{1, 1, 0}},
	} {
		require.NoError(t, s.Delete(one.thing, one.classes, later(1)))
		assert.Equal(t, one.left, there(t, s), one.thing)
		assert.ErrorIs(t, s.Delete(one.thing, one.classes, later(2)), ErrNotFound, "it is gone already")
		list, err := s.Deleted()
		require.NoError(t, err)
		require.Len(t, list, 1, "what went with it is not told by itself")
		assert.Equal(t, one.thing, list[0].Thing)
		require.NoError(t, s.BringBack(one.thing, monday))
		assert.Equal(t, [3]int{1, 1, 1}, there(t, s), one.thing)
		assert.ErrorIs(t, s.BringBack(one.thing, monday), ErrNotFound)
	}

	require.NoError(t, s.Delete(Thing{KindPlan, plan}, false, later(1)))
	require.NoError(t, s.Delete(Thing{KindGroup, group}, true, later(2)))
	require.NoError(t, s.BringBack(Thing{KindGroup, group}, monday))
	assert.Equal(t, [3]int{1, 0, 1}, there(t, s), "what was deleted before does not come back with the group")
	require.NoError(t, s.Delete(Thing{KindGroup, group}, false, later(3)))
	require.NoError(t, s.BringBack(Thing{KindPlan, plan}, monday))
	back, err := s.Plan(plan)
	require.NoError(t, err)
	assert.Zero(t, back.GroupID, "its group is gone")
}

func TestWhatWasDeletedLongAgoIsGone(t *testing.T) {
	s := open(t, filepath.Join(t.TempDir(), "x.db"))
	group, _, class := taughtGroup(t, s)
	require.NoError(t, s.Delete(Thing{KindGroup, group}, false, monday))
	require.NoError(t, s.Purge(monday))
	require.NoError(t, s.BringBack(Thing{KindGroup, group}, monday), "not yet")
	require.NoError(t, s.Delete(Thing{KindGroup, group}, false, monday))
	require.NoError(t, s.Purge(monday.Add(time.Second)))
	kept, err := s.Class(class)
	require.NoError(t, err)
	assert.Zero(t, kept.PlanID)
	names, err := s.EveryGroup()
	require.NoError(t, err)
	require.Len(t, names, 1, "its name stays with its classes")
	assert.Empty(t, names[0].Notes)
	assert.Empty(t, names[0].Conditions)

	require.NoError(t, s.Delete(Thing{KindClass, class}, false, monday))
	require.NoError(t, s.Purge(monday.Add(time.Second)))
	counts, err := s.Count()
	require.NoError(t, err)
	assert.Equal(t, Counts{}, counts)
	require.NoError(t, s.check("integrity_check"))
}
