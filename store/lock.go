package store

import (
	"cmp"
	"errors"
	"fmt"
	"io/fs"
	"os"
	"path/filepath"
	"strings"
	"time"

	"github.com/gofrs/flock"
)

// InUseError says that another program holds the data file.
type InUseError struct {
	Path   string
	Holder string // who holds it, as that program wrote it down; empty if it could not be read
}

func (e *InUseError) Error() string {
	holder := e.Holder
	if holder == "" {
		holder = "another program"
	}
	return fmt.Sprintf("%s is in use by %s: end that program first", e.Path, holder)
}

const servedAt = ", at "

// Address returns where the holder serves the application, empty if it does not, or not yet.
func (e *InUseError) Address() string {
	_, address, _ := strings.Cut(e.Holder, servedAt)
	return address
}

// Holder returns who holds the data file at the moment, as far as it can be read.
func Holder(path string) *InUseError { return &InUseError{path, holder(path)} }

// lock is the right to write to one data file. The operating system gives it back when the process ends, however it
// ends.
type lock struct {
	file *flock.Flock
	who  string
	data *os.File // the data file itself, which can have other names and another lock file; nil while there is none
}

// holderAt is where in the lock file its holder stands: the first byte is what some systems lock, and then nobody else
// can read it.
const holderAt = 1

// lockFor returns the lock file of a data file.
func lockFor(path string) string { return path + ".lock" }

// takeLock takes the right to write to the data file, or returns an InUseError that says who has it.
func takeLock(path, who string) (*lock, error) {
	file := flock.New(lockFor(path), flock.SetPermissions(0o600))
	taken, err := file.TryLock()
	if err != nil {
		return nil, fmt.Errorf("%s: %w", path, cannotOpenFile(err))
	}
	if !taken {
		return nil, &InUseError{path, holder(path)}
	}
	l := &lock{
		file: file,
		who:  fmt.Sprintf("%s (process %d, since %s)", who, os.Getpid(), time.Now().Format("2006-01-02 15:04:05")),
	}
	if err := l.hold(path); err != nil {
		return nil, errors.Join(err, l.file.Unlock())
	}
	l.write(l.who)
	return l, nil
}

// hold locks the data file itself, where it is there: by a hard link, or after the lock file was removed, a second
// program would come to it past the lock file.
func (l *lock) hold(path string) error {
	if !locksInodes || l.data != nil || !isFile(path) {
		return nil
	}
	data, err := os.OpenFile(path, os.O_RDWR, 0)
	if errors.Is(err, fs.ErrPermission) {
		return nil // a file that cannot be written is made writable, or replaced, by who holds the lock file
	}
	if err != nil {
		return fmt.Errorf("%s: %w", path, cannotOpenFile(err))
	}
	taken, err := lockInode(data)
	if err == nil && !taken {
		err = &InUseError{path, cmp.Or(holder(path), "another program, perhaps under another name")}
	}
	if err != nil {
		return errors.Join(err, data.Close())
	}
	l.data = data
	return nil
}

// letGo gives the data file itself up. Until SQLite has closed it it must not be closed here: on POSIX systems that
// would give up SQLite's own locks (https://www.sqlite.org/howtocorrupt.html, section 2.2).
func (l *lock) letGo() error {
	if l.data == nil {
		return nil
	}
	data := l.data
	l.data = nil
	return data.Close()
}

// write notes who holds the lock. A disk that is full must not keep anybody from leading: then the note is missing.
func (l *lock) write(who string) {
	file, err := os.OpenFile(l.file.Path(), os.O_WRONLY, 0o600)
	if err != nil {
		return
	}
	defer file.Close()
	if n, err := file.WriteAt([]byte(who+"\n"), holderAt); err == nil {
		_ = file.Truncate(int64(holderAt + n)) // what was written there before may have been longer
	}
}

func (l *lock) release() error {
	l.write("")
	return errors.Join(l.letGo(), l.file.Unlock())
}

// holder returns who holds the lock, as far as it can be read.
func holder(path string) string {
	file, err := os.Open(lockFor(path))
	if err != nil {
		return ""
	}
	defer file.Close()
	var text [400]byte
	n, _ := file.ReadAt(text[:], holderAt) // less than all of it is no error here
	return strings.TrimSpace(strings.ToValidUTF8(string(text[:n]), "?"))
}

// canonical returns the one name of a data file, whatever links lead to it: two names must not have two locks.
func canonical(path string) (string, error) {
	path, err := filepath.Abs(path)
	if err != nil {
		return "", err
	}
	if resolved, err := filepath.EvalSymlinks(path); err == nil {
		return resolved, nil
	}
	// A new file: its folder may be a link all the same, where it is there already.
	if folder, err := filepath.EvalSymlinks(filepath.Dir(path)); err == nil {
		return filepath.Join(folder, filepath.Base(path)), nil
	}
	return path, nil
}
