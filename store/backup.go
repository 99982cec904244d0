package store

import (
	"errors"
	"fmt"
	"io"
	"os"
	"path/filepath"
	"time"
)

// ErrDamaged says that a file is no data file of ours, or not whole.
var ErrDamaged = errors.New("the file is damaged, or no data file")

// ErrInUse says that the data file is open in another process, or that such a process ended without closing it.
var ErrInUse = errors.New("the data file is in use")

// Backup writes a consistent copy to a file that is not there yet, also while classes are led (SQLite's VACUUM INTO).
func (s *Store) Backup(path string) error {
	if _, err := os.Stat(path); err == nil {
		return fmt.Errorf("%s is there already: name another file", path)
	}
	return s.db.Exec("VACUUM INTO ?", path).Error
}

// Counts is how much there is in a store.
type Counts struct{ Groups, Plans, Classes, Adjustments int64 }

// Count tells how much there is.
func (s *Store) Count() (c Counts, err error) {
	for _, one := range []struct {
		model any
		n     *int64
	}{{&groupRow{}, &c.Groups}, {&planRow{}, &c.Plans}, {&classRow{}, &c.Classes}, {&adjustmentRow{}, &c.Adjustments}} {
		if err := s.db.Model(one.model).Count(one.n).Error; err != nil {
			return c, err
		}
	}
	return c, nil
}

// check tells whether all pages of the file are whole and all that is referred to is there.
func (s *Store) check() error {
	var says string
	if err := s.db.Raw("PRAGMA integrity_check").Row().Scan(&says); err != nil || says != "ok" {
		return fmt.Errorf("%w: %s", ErrDamaged, says)
	}
	var broken int64
	if err := s.db.Raw("SELECT count(*) FROM pragma_foreign_key_check").Scan(&broken).Error; err != nil || broken > 0 {
		return fmt.Errorf("%w: %d references lead nowhere", ErrDamaged, broken)
	}
	return nil
}

// NotInUse returns ErrInUse where another process has the data file open.
func NotInUse(path string) error {
	if info, err := os.Stat(path + "-wal"); err == nil && info.Size() > 0 {
		return ErrInUse
	}
	return nil
}

// Restore puts a backup into the place of the data file, once it was checked and brought to the present form. What was
// there is kept beside it, under the name that is returned; empty where nothing was.
func Restore(backup, path string, now time.Time) (kept string, err error) {
	if err := NotInUse(path); err != nil {
		return "", err
	}
	fresh := path + ".restoring"
	defer os.Remove(fresh)
	if err := copyFile(backup, fresh); err != nil {
		return "", err
	}
	s, err := Open(fresh)
	if err != nil {
		return "", fmt.Errorf("%w: %v", ErrDamaged, err)
	}
	err = s.check()
	if closed := s.Close(); err == nil {
		err = closed
	}
	if err != nil {
		return "", err
	}
	if _, err := os.Stat(path); err == nil {
		kept = path + ".before-" + now.Format("2006-01-02-150405")
		if err := os.Rename(path, kept); err != nil {
			return "", err
		}
	}
	return kept, os.Rename(fresh, path)
}

func copyFile(from, to string) error {
	in, err := os.Open(from)
	if err != nil {
		return err
	}
	defer in.Close()
	if err := os.MkdirAll(filepath.Dir(to), 0o700); err != nil {
		return err
	}
	out, err := os.OpenFile(to, os.O_CREATE|os.O_TRUNC|os.O_WRONLY, 0o600)
	if err != nil {
		return err
	}
	if _, err := io.Copy(out, in); err != nil {
		out.Close()
		return err
	}
	if err := out.Sync(); err != nil {
		out.Close()
		return err
	}
	return out.Close()
}
