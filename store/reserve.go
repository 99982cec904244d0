package store

import (
	"crypto/rand"
	"errors"
	"os"

	driver "modernc.org/sqlite"
)

// reserveSize is what is kept on the disk for a class that is led while the disk gets full: some hundreds of
// adjustments, each of which writes a few pages of 4 KiB.
const reserveSize = 4 << 20

func (s *Store) reservePath() string { return s.path + ".reserve" }

// KeepReserve keeps a little room on the disk, to be given up when the disk is full. If there is none to be had, there
// is no reserve, which is no error.
func (s *Store) KeepReserve() {
	if size(s.reservePath()) == reserveSize {
		return
	}
	filling := make([]byte, reserveSize)
	rand.Read(filling) // never fails; what is random takes its room on every disk
	if os.WriteFile(s.reservePath(), filling, 0o600) != nil {
		os.Remove(s.reservePath())
	}
}

// despiteAFullDisk does the work, and once more with the reserve given up where the disk was full.
func (s *Store) despiteAFullDisk(work func() error) error {
	err := work()
	var e *driver.Error
	if errors.As(err, &e) && e.Code()&0xff == fullDisk && os.Remove(s.reservePath()) == nil {
		return work()
	}
	return err
}
