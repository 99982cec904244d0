package store

import (
	"path/filepath"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func open(t *testing.T, path string) *Store {
	t.Helper()
	s, err := Open(path)
	require.NoError(t, err)
	t.Cleanup(func() { s.Close() })
	return s
}

func TestWhatIsStoredIsThereAfterReopening(t *testing.T) {
	path := filepath.Join(t.TempDir(), "a name with % and ?.db")
	s := open(t, path)
	g, err := s.AddGroup(Group{Name: "Lunch", Level: "beginners", Size: 12})
	require.NoError(t, err)
	at := time.Date(2026, 3, 2, 18, 30, 0, 123e6, time.FixedZone("", 3600))
	p, err := s.AddPlan(Plan{GroupID: g.ID, Title: "Monday", StartsAt: at, Document: []byte(`{}`), UpdatedAt: at})
	require.NoError(t, err)
	c, err := s.AddClass(Class{PlanID: p.ID, GroupID: g.ID, StartedAt: at, Document: []byte(`{}`)})
	require.NoError(t, err)
	require.NoError(t, s.AddAdjustment(c.ID, Adjustment{1, "k1", []byte(`{"do": "pause"}`)}))
	require.NoError(t, s.Close())

	s = open(t, path)
	again, err := s.Class(c.ID)
	require.NoError(t, err)
	assert.Equal(t, at.UTC(), again.StartedAt.UTC(), "to the millisecond")
	list, err := s.Adjustments(c.ID)
	require.NoError(t, err)
	assert.Equal(t, []Adjustment{{1, "k1", []byte(`{"do": "pause"}`)}}, list)
	plans, err := s.Plans()
	require.NoError(t, err)
	assert.Equal(t, at.UTC(), plans[0].StartsAt.UTC())
}

func TestTheFileIsKeptSafely(t *testing.T) {
	s := open(t, filepath.Join(t.TempDir(), "x.db"))
	for pragma, want := range map[string]string{"journal_mode": "wal", "foreign_keys": "1", "busy_timeout": "5000", "synchronous": "1"} {
		var got string
		require.NoError(t, s.db.Raw("PRAGMA "+pragma).Scan(&got).Error)
		assert.Equal(t, want, got, pragma)
	}
}

func TestAPlanThatSomebodyElseSavedIsNotOverwritten(t *testing.T) {
	s := open(t, filepath.Join(t.TempDir(), "x.db"))
	first, err := s.AddPlan(Plan{Title: "a", Document: []byte(`{}`)})
	require.NoError(t, err)
	first.Title = "b"
	second, err := s.SavePlan(first)
	require.NoError(t, err)
	assert.EqualValues(t, 2, second.Revision)
	_, err = s.SavePlan(first)
	assert.ErrorIs(t, err, ErrTaken)
	_, err = s.SavePlan(Plan{ID: 99, Revision: 1})
	assert.ErrorIs(t, err, ErrNotFound)
	now, err := s.Plan(first.ID)
	require.NoError(t, err)
	assert.Equal(t, "b", now.Title)
}

func TestAnAdjustmentIsKeptOnce(t *testing.T) {
	s := open(t, filepath.Join(t.TempDir(), "x.db"))
	c, err := s.AddClass(Class{Document: []byte(`{}`), StartedAt: time.Now()})
	require.NoError(t, err)
	require.NoError(t, s.AddAdjustment(c.ID, Adjustment{Number: 1, Key: "k"}))
	assert.ErrorIs(t, s.AddAdjustment(c.ID, Adjustment{Number: 2, Key: "k"}), ErrTaken)
	assert.ErrorIs(t, s.AddAdjustment(c.ID, Adjustment{Number: 1, Key: "other"}), ErrTaken)
	assert.ErrorIs(t, s.AddAdjustment(99, Adjustment{Number: 1, Key: "k"}), ErrNotFound, "no such class")
}

func TestATransactionIsWholeOrNotAtAll(t *testing.T) {
	s := open(t, filepath.Join(t.TempDir(), "x.db"))
	err := s.InTransaction(func(s *Store) error {
		_, err := s.AddGroup(Group{Name: "gone"})
		require.NoError(t, err)
		return ErrTaken
	})
	assert.ErrorIs(t, err, ErrTaken)
	groups, err := s.Groups()
	require.NoError(t, err)
	assert.Empty(t, groups)
}
