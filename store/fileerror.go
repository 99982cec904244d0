package store

import (
	"context"
	"errors"
	"fmt"

	"vastlantern/core/fact"

	driver "modernc.org/sqlite"
)

// Primary result codes of SQLite (https://www.sqlite.org/rescode.html).
const (
	damagedFile = 11 // SQLITE_CORRUPT
	fullDisk    = 13 // SQLITE_FULL
	interrupt   = 9  // SQLITE_INTERRUPT
	cannotOpen  = 14 // SQLITE_CANTOPEN
)

// fileErrors is the messages of what can be wrong with the file and the disk, by SQLite's primary result codes.
var fileErrors = map[int]string{
	5: "store.locked", 8: "store.read-only", 10: "store.disk", damagedFile: "store.damaged", fullDisk: "store.full",
	cannotOpen: "store.cannot-open",
	26:         "store.not-data",
}

// cannotOpenFile says that the data file cannot be opened.
func cannotOpenFile(err error) *FileError { return &FileError{fact.New(fileErrors[cannotOpen]), err} }

// FileError is an error of the file or the disk, which a person can do something about.
type FileError struct {
	Say fact.Fact // what is wrong and what to do
	err error
}

func (t *FileError) Error() string { return fmt.Sprintf("%s (%v)", t.Say, t.err) }

// Tell returns what is wrong and what to do.
func (t *FileError) Tell() fact.Fact { return t.Say }

// Unwrap is the driver's error.
func (t *FileError) Unwrap() error { return t.err }

// translateError makes a FileError of an error of the file or the disk.
func translateError(err error) error {
	var known *FileError
	var e *driver.Error
	if !errors.As(err, &known) && errors.As(err, &e) {
		if say := fileErrors[e.Code()&0xff]; say != "" {
			return &FileError{fact.New(say), err}
		}
	}
	return err
}

// interrupted tells that a question was given up: its time had run out, or nobody waits for it.
func interrupted(err error) bool {
	var e *driver.Error
	return errors.Is(err, context.DeadlineExceeded) || errors.Is(err, context.Canceled) ||
		errors.As(err, &e) && e.Code()&0xff == interrupt
}
