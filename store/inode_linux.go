package store

import (
	"errors"
	"io"
	"os"

	"golang.org/x/sys/unix"
)

const locksInodes = true

// lockedByte is far beyond the bytes that SQLite locks (https://www.sqlite.org/lockingv3.html: those at 1 GiB).
const lockedByte = 1 << 62

// lockInode locks a file under all of its names. A lock of an open file description, unlike one of a process, is not
// given up when the process closes the file elsewhere. Where the disk has no such locks there is none, and no error.
func lockInode(file *os.File) (taken bool, err error) {
	lock := unix.Flock_t{Type: unix.F_WRLCK, Whence: io.SeekStart, Start: lockedByte, Len: 1}
	err = unix.FcntlFlock(file.Fd(), unix.F_OFD_SETLK, &lock)
	switch {
	case errors.Is(err, unix.EAGAIN), errors.Is(err, unix.EACCES):
		return false, nil
	case errors.Is(err, unix.EINVAL),
		errors.Is(err, unix.ENOTSUP),
		errors.Is(err, unix.ENOLCK),
		errors.Is(err, unix.EOVERFLOW):
		return true, nil
	}
	return err == nil, err
}
