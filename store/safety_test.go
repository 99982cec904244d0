package store

import (
	"database/sql"
	"fmt"
	"os"
	"path/filepath"
	"runtime"
	"strings"
	"testing"
	"time"

	"vastlantern/language"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Whoever comes second is refused and told who holds the file, by whatever name it is called.
func TestOneProgramHasTheFile(t *testing.T) {
	folder := t.TempDir()
	path, link := filepath.Join(folder, "x.db"), filepath.Join(folder, "link.db")
	require.NoError(t, os.Symlink(path, link))
	s, err := Open(path, "lantern serve")
	require.NoError(t, err)
	s.ServedAt("http://127.0.0.1:7777")
	for _, name := range []string{path, link} {
		_, err = Open(name, "lantern passcode")
		var inUse *InUseError
		require.ErrorAs(t, err, &inUse, name)
		assert.Regexp(t, `in use by lantern serve \(process \d+, since .*\), at http://127.0.0.1:7777`, err.Error())
	}
	reading, err := OpenToRead(link)
	require.NoError(t, err, "to read it is open to all")
	_, err = reading.AddGroup(Group{Name: "Evening"})
	assert.Error(t, err, "and only to read")
	require.NoError(t, reading.Close())
	require.NoError(t, s.Close())
	s, err = Open(link, "lantern passcode")
	require.NoError(t, err, "free again")
	require.NoError(t, s.Close())
}

// A hard link has a lock file of its own, and a lock file can be removed: the data file itself is locked, too.
func TestOneProgramHasTheFileUnderAllOfItsNames(t *testing.T) {
	if runtime.GOOS != "linux" {
		t.Skip("elsewhere the lock file has to do")
	}
	for says, again := range map[string]func(path string) (name string){
		"a hard link": func(path string) string {
			other := path + ".other"
			require.NoError(t, os.Link(path, other))
			return other
		},
		"the lock file was removed": func(path string) string {
			require.NoError(t, os.Remove(lockFor(path)))
			return path
		},
	} {
		t.Run(says, func(t *testing.T) {
			path := filepath.Join(t.TempDir(), "x.db")
			s := open(t, path) // a new file
			name := again(path)
			var inUse *InUseError
			_, err := Open(name, "lantern serve")
			require.ErrorAs(t, err, &inUse)
			_, err = Restore(path, name, now, true)
			require.ErrorAs(t, err, &inUse, "nothing is put in its place either")
			_, err = s.AddGroup(Group{Name: "Evening"})
			require.NoError(t, err)
			require.NoError(t, s.Close())
			s, err = Open(name, "lantern serve")
			require.NoError(t, err, "free again")
			_, err = Open(name+".new folder/x.db", "lantern serve")
			require.NoError(t, err)
			_, err = Open(name, "lantern serve")
			require.ErrorAs(t, err, &inUse)
			require.NoError(t, s.Close())
		})
	}
}

// A data file that was copied from a disk that cannot be written is opened and replaced all the same.
func TestAFileThatCannotBeWrittenIsMadeWritable(t *testing.T) {
	if os.Geteuid() == 0 {
		t.Skip("root writes everywhere")
	}
	path := filepath.Join(t.TempDir(), "x.db")
	require.NoError(t, open(t, path).Close())
	require.NoError(t, os.Chmod(path, 0o400))
	s, err := Open(path, "lantern serve")
	require.NoError(t, err)
	require.NoError(t, s.Close())
}

func TestOnlyItsOwnerReadsIt(t *testing.T) {
	path := filepath.Join(t.TempDir(), "new", "x.db")
	s := open(t, path)
	assert.True(t, s.Opened().Made)
	_, err := s.AddGroup(Group{Name: "Evening"})
	require.NoError(t, err)
	backup := filepath.Join(t.TempDir(), "backup.db")
	require.NoError(t, s.Backup(backup))
	s.KeepReserve()
	for _, file := range []string{path, path + "-wal", path + "-shm", path + ".lock", path + ".reserve", backup} {
		info, err := os.Stat(file)
		require.NoError(t, err)
		assert.Equal(t, "-rw-------", info.Mode().String(), file)
	}
	require.NoError(t, s.Close())
	require.NoError(t, os.Chmod(path, 0o644)) // as an earlier version left it
	s = open(t, path)
	assert.False(t, s.Opened().Made)
	info, err := os.Stat(path)
	require.NoError(t, err)
	assert.Equal(t, "-rw-------", info.Mode().String())
}

// What is no whole data file of ours is refused at the start and by restore, which both say what it is, and change
// nothing.
func TestFilesThatAreNotOursOrNotWhole(t *testing.T) {
	folder := t.TempDir()
	good := filepath.Join(folder, "good.db")
	s := open(t, good)
	for range 50 {
		_, err := s.AddGroup(Group{Name: "a group", Notes: strings.Repeat("x", 500)})
		require.NoError(t, err)
	}
	require.NoError(t, s.Close())
	whole, err := os.ReadFile(good)
	require.NoError(t, err)
	other := filepath.Join(folder, "other.db")
	pool, err := sql.Open("sqlite", other)
	require.NoError(t, err)
	_, err = pool.Exec("CREATE TABLE letters (text)")
	require.NoError(t, err)
	require.NoError(t, pool.Close())
	foreign, err := os.ReadFile(other)
	require.NoError(t, err)
	marked := append([]byte{}, foreign...)
	marked[68] = 7
	newer := append([]byte{}, whole...)
	newer[60+3] = 99
	damaged := append([]byte{}, whole...)
	copy(damaged[len(damaged)/2:], strings.Repeat("damage! ", 1000))

	for name, c := range map[string]struct {
		content []byte
		says    string
	}{
		"empty":            {nil, "is empty, as after a copy that was interrupted"},
		"a letter":         {[]byte("Dear all"), "is no data file of this application"},
		"a few bytes":      {whole[:50], "ends in the middle"},
		"half of it":       {whole[:len(whole)/2], "ends in the middle"},
		"another program":  {foreign, "has not the tables of a data file of this application"},
		"marked as its":    {marked, "belongs to another program"},
		"a newer form":     {newer, "is of form 99, and this version of lantern knows forms up to 21"},
		"damaged in pages": {damaged, "damaged"},
	} {
		path := filepath.Join(folder, "tried.db")
		require.NoError(t, os.WriteFile(path, c.content, 0o600), name)
		_, err := Open(path, "a test")
		assert.Contains(t, language.English().Error(err), c.says, name)
		after, err := os.ReadFile(path)
		require.NoError(t, err)
		assert.Equal(t, len(c.content), len(after), name)
		_, err = Restore(path, good, time.Now(), true)
		assert.Contains(t, language.English().Error(err), c.says, name)
		after, err = os.ReadFile(good)
		require.NoError(t, err)
		assert.Equal(t, whole, after, name)
	}
	list, err := os.ReadDir(folder)
	require.NoError(t, err)
	for _, file := range list {
		assert.NotContains(t, file.Name(), ".restoring")
		assert.NotContains(t, file.Name(), ".before-")
	}
	require.NoError(t, os.Remove(good))
	require.NoError(t, os.WriteFile(good+"-wal", []byte("a journal"), 0o600))
	_, err = Open(good, "a test")
	assert.Contains(t, language.English().Error(err), "is missing, but its journal")
}

// A plain copy of a file in use lacks what was in its journal.
func TestACopyWithoutItsJournal(t *testing.T) {
	folder := t.TempDir()
	path, plain, target := filepath.Join(folder, "x.db"), filepath.Join(folder, "copy.db"), filepath.Join(folder, "y.db")
	s := open(t, path)
	_, err := s.AddClass(Class{StartedAt: now, Document: []byte("{}")})
	require.NoError(t, err)
	require.NoError(t, copyFile(path, plain))
	_, err = Restore(plain, target, now, false)
	var incomplete *IncompleteError
	require.ErrorAs(t, err, &incomplete)
	assert.EqualValues(t, 0, incomplete.Counts.Classes, "the class stood in the journal")
	assert.NoFileExists(t, target)
	_, err = Restore(plain, target, now, true)
	require.NoError(t, err, "who says so has it")
	assert.False(t, open(t, target).Opened().Incomplete, "it was said once")

	started, err := Open(plain, "a test")
	require.NoError(t, err)
	assert.True(t, started.Opened().Incomplete, "named as the data file it is told too")
	require.NoError(t, started.Close())

	beside := filepath.Join(folder, "both.db")
	require.NoError(t, copyFile(path, beside))
	require.NoError(t, copyFile(path+"-wal", beside+"-wal"))
	third := filepath.Join(folder, "z.db")
	_, err = Restore(beside, third, now, false)
	require.NoError(t, err)
	counts, err := open(t, third).Count()
	require.NoError(t, err)
	assert.EqualValues(t, 1, counts.Classes, "with its journal it is whole")

	require.NoError(t, s.Close())
	require.NoError(t, os.Remove(plain))
	require.NoError(t, copyFile(path, plain))
	_, err = Restore(plain, filepath.Join(folder, "w.db"), now, false)
	require.NoError(t, err, "and so is a copy of a file that was closed")
}

func TestABackupThatFailedDoesNotBlockItsName(t *testing.T) {
	folder := t.TempDir()
	s := open(t, filepath.Join(folder, "x.db"))
	backup := filepath.Join(folder, "backup.db")
	require.NoError(t, os.WriteFile(backup+".part", []byte("the beginning of a backup"), 0o600))
	require.NoError(t, s.Backup(backup))
	assert.NoFileExists(t, backup+".part")
	assert.Error(t, s.Backup(filepath.Join(folder, "nowhere", "backup.db")))
	_, err := Restore(backup, filepath.Join(folder, "y.db"), now, false)
	require.NoError(t, err)
}

// A file that was not closed keeps all that was acknowledged when another one takes its place.
func TestWhatIsReplacedIsKeptWhole(t *testing.T) {
	folder := t.TempDir()
	path, backup := filepath.Join(folder, "x.db"), filepath.Join(folder, "backup.db")
	s := open(t, path)
	require.NoError(t, s.Backup(backup))
	_, err := s.AddClass(Class{StartedAt: now, Document: []byte("{}")})
	require.NoError(t, err)
	crashed := filepath.Join(folder, "crashed.db") // as the program leaves it when it is killed
	require.NoError(t, copyFile(path, crashed))
	require.NoError(t, copyFile(path+"-wal", crashed+"-wal"))
	kept, err := Restore(backup, crashed, now, false)
	require.NoError(t, err)
	assert.NoFileExists(t, crashed+"-wal", "the old journal is not the new file's")
	for file, classes := range map[string]int64{kept: 1, crashed: 0} {
		counts, err := open(t, file).Count()
		require.NoError(t, err)
		assert.EqualValues(t, classes, counts.Classes, file)
	}
}

// One entry that cannot be read is left out and named; all others are there.
func TestADamagedEntryIsLeftOut(t *testing.T) {
	for name, c := range map[string]struct {
		breaks  string
		damaged Thing
	}{
		"a group's conditions": {"UPDATE groups SET conditions = '{' WHERE id = 2", Thing{KindGroup, 2}},
		"a plan's start":       {"UPDATE plans SET starts_at = 'soon' WHERE id = 2", Thing{KindPlan, 2}},
		"a class's start":      {"UPDATE classes SET started_at = 'then' WHERE id = 2", Thing{KindClass, 2}},
		"a digest's headlines": {"UPDATE digests SET headlines = '[' WHERE class_id = 2", Thing{KindClass, 2}},
		"a class no JSON": {"UPDATE classes SET document = 'x', deleted_at = '2026-03-02 18:30:00' WHERE id = 2",
			Thing{}},
		"a digest that says so": {"UPDATE digests SET damaged = 'no JSON' WHERE class_id = 2", Thing{}},
	} {
		s := open(t, filepath.Join(t.TempDir(), "x.db"))
		for i := range 3 {
			g, err := s.AddGroup(Group{Name: fmt.Sprint("group ", i)})
			require.NoError(t, err)
			p, err := s.AddPlan(Plan{GroupID: g.ID, Title: "a plan", StartsAt: now, Document: []byte("{}")})
			require.NoError(t, err)
			class, err := s.AddClass(
				Class{
					PlanID:    p.ID,
					GroupID:   g.ID,
					StartedAt: now,
					EndedAt:   now.Add(time.Hour),
					Document:  []byte(`{"title": "a class"}`),
				},
			)
			require.NoError(t, err)
			require.NoError(t, s.SaveDigest(Digest{ClassID: class.ID, Over: true, Title: "a class"}))
		}
		require.NoError(t, s.db.Exec(c.breaks).Error, name)
		left := func(kind Kind) int {
			if c.damaged.Kind == kind {
				return 2
			}
			return 3
		}
		groups, err := s.Groups()
		require.NoError(t, err, name)
		assert.Len(t, groups, left(KindGroup), name)
		plans, err := s.EveryPlan()
		require.NoError(t, err, name)
		assert.Len(t, plans, left(KindPlan), name)
		found, err := s.Find(t.Context(), Search{Most: 10})
		require.NoError(t, err, name)
		if strings.HasPrefix(name, "a digest that says so") || strings.HasPrefix(name, "a class no JSON") {
			assert.Len(t, found, 2, name)
		} else {
			assert.Len(t, found, left(KindClass), name)
		}
		_, err = s.Deleted()
		require.NoError(t, err, name)
		if c.damaged.ID > 0 {
			require.Len(t, s.Damage(), 1, name)
			assert.Equal(t, c.damaged, Thing{s.Damage()[0].Kind, s.Damage()[0].ID}, name)
		}
		require.NoError(t, s.db.Exec("UPDATE classes SET acknowledged = 'yes' WHERE id = 3").Error)
		_, err = s.Class(3)
		var unreadable *UnreadableError
		assert.ErrorAs(t, err, &unreadable, name)
		going, err := s.Going(Thing{KindGroup, 2})
		require.NoError(t, err, name)
		assert.EqualValues(t, 1, going.Plans, name)
		require.NoError(t, s.Delete(Thing{KindGroup, 2}, true, now), name)
		require.NoError(t, s.Close())
	}
}

// With the file held by another program reading goes on, and a write is told in plain words.
func TestReadersWaitForNobody(t *testing.T) {
	s := open(t, filepath.Join(t.TempDir(), "x.db"))
	_, err := s.AddGroup(Group{Name: "Evening"})
	require.NoError(t, err)
	other, err := sql.Open("sqlite", dsn(s.path, "immediate"))
	require.NoError(t, err)
	defer other.Close()
	lock, err := other.Begin()
	require.NoError(t, err)
	_, err = s.AddGroup(Group{Name: "Morning"})
	assert.Contains(t, language.English().Error(err), "locked by another program")
	groups, err := s.Groups()
	require.NoError(t, err)
	assert.Len(t, groups, 1)
	require.NoError(t, lock.Rollback())
}

// On a full disk the reserve is given up for what is pressed in a class.
func TestTheReserveIsGivenUpForAClass(t *testing.T) {
	s := open(t, filepath.Join(t.TempDir(), "x.db"))
	class, err := s.AddClass(Class{StartedAt: now, Document: []byte("{}")})
	require.NoError(t, err)
	s.KeepReserve()
	assert.EqualValues(t, reserveSize, size(s.reservePath()))
	require.NoError(
		t,
		s.db.Exec("PRAGMA max_page_count = 1").Error,
	) // the present size: as a disk that has no room for more
	number, tries := 0, 0
	for ; tries < 2 && number < 1000; number++ {
		tries = 0
		require.NoError(t, s.despiteAFullDisk(func() error {
			if tries++; tries == 2 {
				assert.NoFileExists(t, s.reservePath())
				require.NoError(t, s.db.Exec("PRAGMA max_page_count = 4294967294").Error) // as the disk has room again
			}
			row := adjustmentRow{ClassID: class.ID, Number: number, Key: fmt.Sprint(number), Body: strings.Repeat("x", 5000)}
			return plainly(s.db.Create(&row).Error)
		}))
	}
	assert.Equal(t, 2, tries, "the disk was full once")
	list, err := s.Adjustments(class.ID)
	require.NoError(t, err)
	assert.Len(t, list, number)
}
