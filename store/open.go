package store

import (
	"context"
	"database/sql"
	"errors"
	"fmt"
	"io/fs"
	"net/url"
	"os"
	"path/filepath"
	"time"

	"vastlantern/core/fact"

	"github.com/libtnb/sqlite"
	"github.com/pressly/goose/v3"
	"gorm.io/gorm"
	"gorm.io/gorm/logger"
)

// Opened is what was found and done when the file was opened.
type Opened struct {
	Made   bool   // there was no file of the name: a new one was made
	Copied string // the copy that was made before the file was brought to a new form; empty if none was needed
	// it looks like a copy of a file in use, without what was in its journal: the last classes may be missing
	Incomplete bool
}

// openName is the setting that is there while the file is open: in a copy it says that the file was in use.
const openName = "open"

// How long a write waits for another program that holds the file, in milliseconds. A class that is led waits for it.
const busyMS = 2000

// Open opens the file to read and write, creates it if there is none, and brings it to the present form, of which it
// first makes a copy. It refuses a file that another program has open with an InUseError that names it; who is how this
// program is named to others.
func Open(path, who string) (*Store, error) {
	path, err := canonical(path)
	if err != nil {
		return nil, err
	}
	if err := os.MkdirAll(filepath.Dir(path), 0o700); err != nil {
		return nil, fmt.Errorf("the folder of the data file cannot be made: %w", err)
	}
	held, err := takeLock(path, who)
	if err != nil {
		return nil, err
	}
	s, err := openLocked(path, held)
	if err != nil {
		return nil, errors.Join(err, held.release())
	}
	s.lock = held
	return s, nil
}

// openLocked opens the file for who holds its lock.
func openLocked(path string, held *lock) (*Store, error) {
	removeRests(path)
	made := false
	if !exists(path) {
		if size(path+"-wal") > 0 {
			return nil, fmt.Errorf(
				"%s is missing, but its journal %s-wal is there: bring the file back beside it, or restore a backup with lantern "+
					"restore",
				path,
				path,
			)
		}
		if err := create(path); err != nil {
			return nil, err
		}
		made = true
	}
	h, err := examine(path)
	if err != nil {
		return nil, err
	}
	onlyForTheOwner(path)
	if err := held.hold(path); err != nil {
		return nil, err
	}
	journal := exists(path + "-wal")
	s, err := connect(path)
	if err != nil {
		return nil, err
	}
	if err := s.ready(); err != nil {
		return nil, errors.Join(fmt.Errorf("%s: %w", path, err), s.disconnect())
	}
	s.opened.Made = made
	_, err = s.Setting(openName)
	s.opened.Incomplete = err == nil && h.writeAhead && !journal
	if err := s.markOpen(); err != nil {
		return nil, errors.Join(fmt.Errorf("%s: %w", path, err), s.disconnect())
	}
	// After all changes of form: an earlier connection would not know the new columns.
	reading, err := connectToRead(path)
	if err != nil {
		return nil, errors.Join(err, s.disconnect())
	}
	s.read = reading
	return s, nil
}

// OpenToRead opens a file that is there, also while another program writes to it. Nothing is changed, and a file of an
// older form is refused.
func OpenToRead(path string) (*Store, error) {
	path, err := canonical(path)
	if err != nil {
		return nil, err
	}
	if _, err := examine(path); err != nil {
		return nil, err
	}
	db, err := connectToRead(path)
	if err != nil {
		return nil, err
	}
	s := &Store{db: db, read: db, path: path, damage: &damage{met: map[entry]fact.Fact{}}, settled: &settled{}}
	if err := ours(s.read); err != nil {
		return nil, errors.Join(fmt.Errorf("%s: %w", path, translateError(err)), s.disconnect())
	}
	return s, nil
}

// leftovers are files that a killed program can leave beside a data file.
var leftovers = []string{".new", ".restoring"}

func removeRests(path string) {
	copies, _ := filepath.Glob(path + ".before-*.part") // a name that is no pattern has none
	for _, part := range copies {
		os.Remove(part)
	}
	for _, rest := range leftovers {
		for _, journal := range []string{"", "-wal", "-shm", "-journal"} {
			os.Remove(path + rest + journal)
		}
	}
}

// create makes a new file beside and renames it, so that there never is half of one.
func create(path string) error {
	beside := path + ".new"
	if err := touch(beside); err != nil {
		return cannotOpenFile(err)
	}
	defer removeRests(path)
	s, err := connect(beside)
	if err != nil {
		return err
	}
	if err := errors.Join(s.migrate(), s.mark(), s.disconnect()); err != nil {
		return fmt.Errorf("%s: %w", path, translateError(err))
	}
	return putInPlace(beside, path)
}

// touch makes an empty file that only its owner reads.
func touch(path string) error {
	file, err := os.OpenFile(path, os.O_CREATE|os.O_EXCL|os.O_WRONLY, 0o600)
	if err != nil {
		return err
	}
	return file.Close()
}

// onlyForTheOwner takes back what earlier versions let others read. Where the system or the disk has no such rights,
// the file is kept as it is.
func onlyForTheOwner(path string) {
	for _, file := range []string{path, path + "-wal", path + "-shm"} {
		_ = os.Chmod(file, 0o600)
	}
}

// connect opens the file, which is there, with one connection for everything. SQLite has one writer, and the busy
// timeout does not help a read that becomes a write.
func connect(path string) (*Store, error) {
	db, err := pool(dsn(path, "immediate"), 1)
	s := &Store{db: db, read: db, path: path, damage: &damage{met: map[entry]fact.Fact{}}, settled: &settled{}}
	if err == nil {
		err = s.settled.watch(db)
	}
	return s, err
}

// connectToRead opens the file with connections that only read.
func connectToRead(path string) (*gorm.DB, error) {
	return pool(dsn(path, "deferred")+"&_pragma=query_only(1)", readers)
}

// readers is how many questions are answered at once.
const readers = 4

func pool(dsn string, most int) (*gorm.DB, error) {
	db, err := gorm.Open(sqlite.Open(dsn), &gorm.Config{
		TranslateError: true,
		Logger:         logger.Discard, // what fails is returned, and told where it matters
		// What is one statement is whole without. Where the disk is full SQLite rolls back by itself, and GORM would hide
		// that error behind the one that there is nothing to roll back.
		SkipDefaultTransaction: true,
		// A transaction within another fails with it. GORM would open a savepoint for each and release none: with thousands
		// of them SQLite asks all for every page that it writes.
		DisableNestedTransaction: true,
	})
	if err != nil {
		return nil, translateError(err)
	}
	pool, err := db.DB()
	if err != nil {
		return nil, err
	}
	pool.SetMaxOpenConns(most)
	return db, nil
}

// dsn has FULL synchronization: in WAL mode NORMAL may lose what was acknowledged last when the power goes. A file that
// is not there is not made.
func dsn(path, lock string) string {
	options := fmt.Sprintf(
		"mode=rw&_journal_mode=WAL&_busy_timeout=%d&_foreign_keys=1&_synchronous=FULL&_time_format=sqlite&_txlock=%s",
		busyMS,
		lock,
	)
	return "file:" + (&url.URL{Path: path}).EscapedPath() + "?" + options
}

// ready checks the file and brings it to the present form, with a copy of it as it was.
func (s *Store) ready() error {
	if err := s.check("quick_check"); err != nil {
		return &FileError{fact.New(fileErrors[damagedFile]), err}
	}
	if err := ours(s.db); err != nil {
		return translateError(err)
	}
	behind, err := s.behind()
	if err != nil {
		return translateError(err)
	}
	if behind {
		copied := Beside(s.path, "update-", time.Now())
		if err := s.Backup(copied); err != nil {
			return fmt.Errorf("it is of an older form, and no copy could be made of it before it is changed: %w", err)
		}
		s.opened.Copied = copied
		if err := s.migrate(); err != nil {
			return fmt.Errorf("it cannot be brought to the present form, and is as it was: %w", translateError(err))
		}
	}
	return s.mark()
}

// behind reports whether there are migrations to make.
func (s *Store) behind() (bool, error) {
	p, err := s.provider()
	if err != nil {
		return false, err
	}
	return p.HasPending(context.Background())
}

func (s *Store) migrate() error {
	p, err := s.provider()
	if err != nil {
		return err
	}
	_, err = p.Up(context.Background())
	return err
}

func (s *Store) provider() (*goose.Provider, error) {
	pool, err := s.db.DB()
	if err != nil {
		return nil, err
	}
	return provider(pool)
}

// mark writes into the header whose file it is and of which form. SQLite keeps both for this.
func (s *Store) mark() error {
	newest, err := newestForm()
	if err != nil {
		return err
	}
	for pragma, value := range map[string]uint32{"application_id": applicationID, "user_version": newest} {
		var now uint32
		if err := s.db.Raw("PRAGMA " + pragma).Scan(&now).Error; err != nil {
			return translateError(err)
		}
		if now == value {
			continue
		}
		if err := s.db.Exec(fmt.Sprintf("PRAGMA %s = %d", pragma, value)).Error; err != nil {
			return translateError(err)
		}
	}
	return nil
}

// markOpen notes in the file itself, not only in its journal, that it is in use. A disk that is full keeps nobody out.
func (s *Store) markOpen() error {
	err := s.SaveSetting(openName, []byte("true"))
	if err == nil {
		err = s.db.Exec("PRAGMA wal_checkpoint(TRUNCATE)").Error
	}
	var fileError *FileError
	if errors.As(plainly(err), &fileError) {
		return nil
	}
	return err
}

func provider(pool *sql.DB) (*goose.Provider, error) {
	files, err := fs.Sub(migrations, "migrations")
	if err != nil {
		return nil, err
	}
	return goose.NewProvider(goose.DialectSQLite3, pool, files)
}

// Opened returns what was found and done when the file was opened.
func (s *Store) Opened() Opened { return s.opened }

// Path returns the file, by its one name.
func (s *Store) Path() string { return s.path }

// ServedAt adds to what others are notified of who holds the file at which address it is served.
func (s *Store) ServedAt(address string) { s.lock.write(s.lock.who + servedAt + address) }

// Close closes the file, notes in it that it is whole, and lets others have it.
func (s *Store) Close() error {
	if s.lock == nil {
		return s.disconnect()
	}
	// Where the disk is full the mark stays: the journal stays too, then, and is read at the next start.
	_ = s.db.Delete(&settingRow{}, "name = ?", openName).Error
	err := s.disconnect()
	os.Remove(s.reservePath())
	return errors.Join(err, s.lock.release())
}

// disconnect closes the connections, the writing one last: it moves the journal into the file.
func (s *Store) disconnect() error {
	err := closePool(s.read)
	if s.db != s.read {
		err = errors.Join(err, closePool(s.db))
	}
	return err
}

func closePool(db *gorm.DB) error {
	pool, err := db.DB()
	if err != nil {
		return err
	}
	return pool.Close()
}
