package store

import (
	"fmt"
	"os"
	"path/filepath"
	"sync"
	"testing"
	"time"

	"vastlantern/language"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestBackupWhileAClassIsLed(t *testing.T) {
	folder := t.TempDir()
	path, backup := filepath.Join(folder, "x.db"), filepath.Join(folder, "backup.db")
	s := open(t, path)
	c, err := s.AddClass(Class{StartedAt: time.Now(), Document: []byte(`{}`)})
	require.NoError(t, err)
	add := func(from, to int) {
		for i := from; i <= to; i++ {
			require.NoError(t, s.AddAdjustments(c.ID, Adjustment{i, fmt.Sprint(i), []byte(`{"do": "note"}`), ""}))
		}
	}
	add(1, 50)
	other, err := OpenToRead(path) // as the command is another process
	require.NoError(t, err)
	var led sync.WaitGroup
	led.Go(func() { add(51, 200) })
	require.NoError(t, other.Backup(backup))
	led.Wait()
	assert.Contains(t, language.English().Error(other.Backup(backup)), "is there already")
	require.NoError(t, other.Close())

	_, err = Restore(backup, path, time.Now(), false)
	var inUse *InUseError
	require.ErrorAs(t, err, &inUse, "not under the feet of a running program")
	assert.Regexp(t, `in use by a test \(process \d+, since`, inUse.Error())
	elsewhere := filepath.Join(folder, "new", "y.db")
	kept, err := Restore(backup, elsewhere, time.Now(), false)
	require.NoError(t, err)
	assert.Empty(t, kept)
	restored := open(t, elsewhere)
	list, err := restored.Adjustments(c.ID)
	require.NoError(t, err)
	assert.GreaterOrEqual(t, len(list), 50, "all that was acknowledged before")
	for i, a := range list {
		assert.Equal(t, i+1, a.Number, "with no gap")
	}
	require.NoError(t, restored.Close())

	kept, err = Restore(backup, elsewhere, time.Date(2026, 3, 2, 18, 30, 0, 0, time.UTC), false)
	require.NoError(t, err)
	assert.Equal(t, elsewhere+".before-2026-03-02-183000", kept)
	assert.FileExists(t, kept)
	counts, err := open(t, elsewhere).Count()
	require.NoError(t, err)
	assert.EqualValues(t, 1, counts.Classes)
	assert.EqualValues(t, len(list), counts.Adjustments)
}

// Whatever is restored within one second, what was there is kept each time: the first file too.
func TestWhatIsKeptBesideOverwritesNothing(t *testing.T) {
	folder := t.TempDir()
	path, at := filepath.Join(folder, "x.db"), time.Date(2026, 3, 2, 18, 30, 0, 0, time.UTC)
	withGroups := func(name string, groups int) string {
		file := filepath.Join(folder, name)
		s := open(t, file)
		for range groups {
			_, err := s.AddGroup(Group{Name: "Monday"})
			require.NoError(t, err)
		}
		require.NoError(t, s.Close())
		return file
	}
	withGroups("x.db", 1)
	for i := range 3 {
		_, err := Restore(withGroups(fmt.Sprintf("%d.db", i), 2+i), path, at, false)
		require.NoError(t, err)
	}
	for name, groups := range map[string]int64{"x.db.before-2026-03-02-183000": 1, "x.db.before-2026-03-02-183000-2": 2,
		"x.db.before-2026-03-02-183000-3": 3, "x.db": 4} {
		counts, err := open(t, filepath.Join(folder, name)).Count()
		require.NoError(t, err)
		assert.Equal(t, groups, counts.Groups, name)
	}
}

// A backup that another program has changed, or a newer version wrote, is refused.
func TestARestoreTakesOnlyWhatIsOurs(t *testing.T) {
	folder := t.TempDir()
	path := filepath.Join(folder, "x.db")
	for name, c := range map[string]struct{ change, says string }{
		"trigger": {"CREATE TRIGGER more AFTER INSERT ON classes BEGIN DELETE FROM adjustments; END", "triggers or views"},
		"view":    {"CREATE VIEW more AS SELECT * FROM classes", "triggers or views"},
		"future":  {"INSERT INTO goose_db_version (version_id, is_applied) VALUES (999, 1)", "form 999"},
	} {
		backup := filepath.Join(folder, name+".db")
		s := open(t, backup)
		require.NoError(t, s.db.Exec(c.change).Error)
		require.NoError(t, s.Close())
		_, err := Restore(backup, path, time.Now(), false)
		assert.Contains(t, language.English().Error(err), c.says, name)
		assert.NoFileExists(t, path, name)
	}
}

func TestADamagedBackupReplacesNothing(t *testing.T) {
	folder := t.TempDir()
	path := filepath.Join(folder, "x.db")
	s := open(t, path)
	for range 50 {
		_, err := s.AddGroup(
			Group{Name: "a group with a long name, so that there are some pages", Notes: string(make([]byte, 500))},
		)
		require.NoError(t, err)
	}
	backup := filepath.Join(folder, "backup.db")
	require.NoError(t, s.Backup(backup))
	require.NoError(t, s.Close())
	whole, err := os.ReadFile(backup)
	require.NoError(t, err)
	for name, text := range map[string][]byte{
		"no database": []byte("this is a letter, and no data file"),
		"cut short":   whole[:len(whole)/2],
	} {
		broken := filepath.Join(folder, "broken.db")
		require.NoError(t, os.WriteFile(broken, text, 0o600))
		_, err := Restore(broken, path, time.Now(), false)
		assert.ErrorIs(t, err, ErrDamaged, name)
	}
	_, err = Restore(filepath.Join(folder, "nowhere.db"), path, time.Now(), false)
	assert.ErrorIs(t, err, os.ErrNotExist)
	groups, err := open(t, path).Groups()
	require.NoError(t, err)
	assert.Len(t, groups, 50, "what was there is there")
}
