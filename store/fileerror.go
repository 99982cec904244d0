package store

import (
	"context"
	"errors"
	"fmt"

	driver "modernc.org/sqlite"
)

// Primary result codes of SQLite (https://www.sqlite.org/rescode.html).
const (
	damagedFile = 11 // SQLITE_CORRUPT
	fullDisk    = 13 // SQLITE_FULL
	interrupt   = 9  // SQLITE_INTERRUPT
)

// fileErrors is what can be wrong with the file and the disk, in plain words, by SQLite's primary result codes.
var fileErrors = map[int]string{
	5:           "the data file is locked by another program: end that program, or wait until it is done",
	8:           "the data file, or its folder, may only be read: allow writing to both",
	10:          "the disk could not be read or written: look whether it is there and whole",
	damagedFile: "the data file is damaged: restore a backup with lantern restore",
	fullDisk:    "the disk is full: make room on it, nothing that was acknowledged is lost",
	14:          "the data file cannot be opened: look whether its folder is there and may be written to",
	26:          "the file is no data file of this application, or it is damaged: name another one with --data, or restore a backup with lantern restore",
}

// FileError is an error of the file or the disk, which a person can do something about.
type FileError struct {
	Say string // what is wrong and what to do
	err error
}

func (t *FileError) Error() string { return fmt.Sprintf("%s (%v)", t.Say, t.err) }

// Unwrap is the driver's error.
func (t *FileError) Unwrap() error { return t.err }

// inPlainWords puts an error of the file or the disk into plain words.
func inPlainWords(err error) error {
	var known *FileError
	var e *driver.Error
	if !errors.As(err, &known) && errors.As(err, &e) {
		if say := fileErrors[e.Code()&0xff]; say != "" {
			return &FileError{say, err}
		}
	}
	return err
}

// interrupted tells that a question was given up because its time had run out.
func interrupted(err error) bool {
	var e *driver.Error
	return errors.Is(err, context.DeadlineExceeded) || errors.As(err, &e) && e.Code()&0xff == interrupt
}
