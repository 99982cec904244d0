package store

import (
	"database/sql"
	"errors"
	"fmt"
	"io"
	"os"
	"path/filepath"
	"time"
)

// Backup writes a consistent copy to a file that is not there yet, also while classes are led (SQLite's VACUUM INTO).
// It is written beside and renamed: a file of the name is a whole one.
func (s *Store) Backup(path string) error {
	if exists(path) {
		return fmt.Errorf("%s is there already: name another file", path)
	}
	beside := path + ".part"
	os.Remove(beside) // of a backup that was interrupted
	if err := touch(beside); err != nil {
		return cannotOpenFile(err)
	}
	defer os.Remove(beside)
	db, err := pool(dsn(s.path, "deferred"), 1) // a connection of its own, so that nobody who writes waits for it
	if err != nil {
		return err
	}
	if err := errors.Join(db.Exec("VACUUM INTO ?", beside).Error, closePool(db)); err != nil {
		return translateError(err)
	}
	return putInPlace(beside, path)
}

// putInPlace renames a complete file, so that a crash leaves either it or the file before it.
func putInPlace(beside, path string) error {
	file, err := os.OpenFile(beside, os.O_RDWR, 0)
	if err != nil {
		return err
	}
	if err := errors.Join(file.Sync(), file.Close(), os.Rename(beside, path)); err != nil {
		return err
	}
	// The new name is on the disk when its folder is. Not every system can do that, and none loses the file by it.
	if folder, err := os.Open(filepath.Dir(path)); err == nil {
		_ = folder.Sync()
		folder.Close()
	}
	return nil
}

// Counts holds the number of rows of each kind.
type Counts struct{ Groups, Plans, Classes, Adjustments int64 }

// Count counts the rows of each kind.
func (s *Store) Count() (c Counts, err error) {
	for _, one := range []struct {
		model any
		n     *int64
	}{{&groupRow{}, &c.Groups}, {&planRow{}, &c.Plans}, {&classRow{}, &c.Classes}, {&adjustmentRow{}, &c.Adjustments}} {
		if err := s.read.Unscoped().Model(one.model).Count(one.n).Error; err != nil {
			return c, plainly(err)
		}
	}
	return c, nil
}

// check reports whether the pages of the file are whole. How is quick_check, or integrity_check, which is slower and
// also looks whether indexes and tables agree and whether all that is referred to is there.
func (s *Store) check(how string) error {
	var says string
	if err := s.db.Raw("PRAGMA " + how).Row().Scan(&says); err != nil || says != "ok" {
		return fmt.Errorf("%w: %s", ErrDamaged, says)
	}
	if how != "integrity_check" {
		return nil
	}
	var broken int64
	if err := s.db.Raw("SELECT count(*) FROM pragma_foreign_key_check").Scan(&broken).Error; err != nil || broken > 0 {
		return fmt.Errorf("%w: %d references lead nowhere", ErrDamaged, broken)
	}
	return nil
}

// IncompleteError says that a backup looks like a copy of a file in use, made without its journal: what was stored last
// may be missing in it.
type IncompleteError struct {
	Counts Counts
	Newest time.Time // the start of its newest class, zero if it has none
}

func (e *IncompleteError) Error() string {
	return "it may be incomplete: it looks like a plain copy of a data file in use, without the journal (-wal) that " +
		"stood beside it"
}

// Restore puts a backup into the place of the data file, once it was checked and brought to the present form. What was
// there is kept beside it, under the name that is returned; empty if nothing was. Whenever it is interrupted, the old
// file or the new one is in its place. A backup that may be incomplete is refused with an IncompleteError unless that
// is allowed.
func Restore(backup, path string, now time.Time, incompleteToo bool) (kept string, err error) {
	path, err = canonical(path)
	if err != nil {
		return "", err
	}
	if backup, err = filepath.EvalSymlinks(backup); err != nil {
		return "", err
	}
	if err := os.MkdirAll(filepath.Dir(path), 0o700); err != nil {
		return "", err
	}
	held, err := takeLock(path, "lantern restore")
	if err != nil {
		return "", err
	}
	defer func() { err = errors.Join(err, held.release()) }()
	removeRests(path)
	defer removeRests(path)
	fresh := path + ".restoring"
	if err := prepareBackup(backup, fresh, incompleteToo); err != nil {
		return "", err
	}
	if exists(path) {
		kept = Beside(path, "", now)
		if err := keepBeside(path, kept); err != nil {
			return "", err
		}
	}
	if err := held.letGo(); err != nil { // some systems put nothing in the place of a file that is open
		return kept, err
	}
	return kept, putInPlace(fresh, path)
}

// prepareBackup copies a backup to fresh, checks it and brings it to the present form.
func prepareBackup(backup, fresh string, incompleteToo bool) error {
	h, err := examine(backup)
	if err != nil {
		return err
	}
	if err := copyFile(backup, fresh); err != nil {
		return err
	}
	journal := size(backup+"-wal") > 0
	if journal { // a copy of a file in use that has its journal beside it is whole with it
		if err := copyFile(backup+"-wal", fresh+"-wal"); err != nil {
			return err
		}
	}
	s, err := connect(fresh)
	if err != nil {
		return err
	}
	if err := s.check("integrity_check"); err != nil {
		return errors.Join(err, s.disconnect())
	}
	if err := errors.Join(ours(s.db), s.asWritten()); err != nil {
		return errors.Join(err, s.disconnect())
	}
	if h.writeAhead && !journal && !incompleteToo {
		_, inUse := s.Setting(openName)
		if h.application == 0 || inUse == nil { // an earlier version did not note whether it had closed the file
			return errors.Join(s.incomplete(), s.disconnect())
		}
	}
	err = errors.Join(
		s.migrate(),
		s.mark(),
		s.db.Exec("DELETE FROM settings WHERE name = ?", openName).Error,
		s.disconnect(),
	)
	return translateError(err)
}

// asWritten reports whether the file is as this application writes it: it has no triggers or views, which would act on
// what is stored later, and no migrations that this version does not know.
func (s *Store) asWritten() error {
	var acting int64
	actors := s.db.Raw("SELECT count(*) FROM sqlite_master WHERE type IN ('trigger', 'view')")
	if err := actors.Scan(&acting).Error; err != nil {
		return err
	}
	if acting > 0 {
		return fmt.Errorf(
			"it has triggers or views, which this application never makes: another program has changed it (%w)",
			ErrDamaged,
		)
	}
	var form uint32
	if err := s.db.Raw("SELECT max(version_id) FROM goose_db_version").Scan(&form).Error; err != nil {
		return err
	}
	newest, err := newestForm()
	if err == nil && form > newest {
		err = fmt.Errorf(
			"it is of form %d, and this version of lantern knows forms up to %d: use the newer version that wrote it",
			form,
			newest,
		)
	}
	return err
}

// incomplete is what is to be known of a backup that may be.
func (s *Store) incomplete() error {
	counts, err := s.Count()
	if err != nil {
		return err
	}
	var newest sql.NullString
	if err := s.read.Raw("SELECT max(started_at) FROM classes").Scan(&newest).Error; err != nil {
		return plainly(err)
	}
	e := &IncompleteError{Counts: counts}
	for _, form := range []string{"2006-01-02 15:04:05.999999999-07:00", "2006-01-02 15:04:05.999999999"} {
		if at, err := time.Parse(form, newest.String); err == nil {
			e.Newest = at
		}
	}
	return e
}

// Beside returns a name beside the data file for what is kept of it before something else takes its place. It says when
// that was, with a word before it such as "update-" where there is one, and is the name of no file yet.
func Beside(path, word string, now time.Time) string {
	first := path + ".before-" + word + now.Format("2006-01-02-150405")
	name := first
	for n := 2; exists(name) || exists(name+"-wal") || exists(name+".part"); n++ {
		name = fmt.Sprintf("%s-%d", first, n)
	}
	return name
}

// keepBeside gives the data file a second name, with nothing left in its journal. A file that is damaged keeps its
// journal beside it under the second name.
func keepBeside(path, kept string) error {
	if s, err := connect(path); err == nil {
		err = s.db.Exec("PRAGMA wal_checkpoint(TRUNCATE)").Error
		if err == nil {
			err = s.db.Delete(&settingRow{}, "name = ?", openName).Error
		}
		_ = errors.Join(err, s.disconnect()) // what could not be moved is kept beside
	}
	if size(path+"-wal") > 0 {
		if err := copyFile(path+"-wal", kept+"-wal"); err != nil {
			return err
		}
	}
	if os.Link(path, kept) != nil { // not every disk has links
		if err := copyFile(path, kept); err != nil {
			return err
		}
	}
	// A journal of the old file beside the new one would be read as the new one's.
	for _, journal := range []string{"-wal", "-shm"} {
		if err := os.Remove(path + journal); err != nil && !errors.Is(err, os.ErrNotExist) {
			return err
		}
	}
	return nil
}

// copyFile copies a file to one that only its owner reads, down to the disk.
func copyFile(from, to string) error {
	in, err := os.Open(from)
	if err != nil {
		return err
	}
	defer in.Close()
	out, err := os.OpenFile(to, os.O_CREATE|os.O_TRUNC|os.O_WRONLY, 0o600)
	if err != nil {
		return err
	}
	_, err = io.Copy(out, in)
	return errors.Join(err, out.Sync(), out.Close())
}
