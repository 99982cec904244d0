package store

import (
	"bytes"
	"encoding/binary"
	"errors"
	"fmt"
	"io"
	"os"

	"gorm.io/gorm"
)

// ErrDamaged says that a file is no data file of ours, or not whole.
var ErrDamaged = errors.New("the file is damaged, or no data file")

// applicationID marks a SQLite file as ours: "VLNT", at offset 68 of the header
// (https://www.sqlite.org/fileformat.html, section 1.3, from which all offsets here are).
const applicationID = 0x564C4E54

// header is what the first bytes of a SQLite file say of it.
type header struct {
	whole       bool // the file is as long as its header says
	writeAhead  bool // it was written with a WAL beside it
	form        uint32
	application uint32
}

// readHeader reads the header, or says in plain words what the file is instead. The error wraps ErrDamaged.
func readHeader(path string) (header, error) {
	info, err := os.Stat(path)
	switch { // before it is opened: a pipe would wait for somebody to write to it
	case err != nil:
		return header{}, err
	case info.IsDir():
		return header{}, fmt.Errorf("%s is a folder: %w", path, ErrDamaged)
	case !info.Mode().IsRegular():
		return header{}, fmt.Errorf("%s is no file but a pipe, a socket or a device: %w", path, ErrDamaged)
	}
	file, err := os.Open(path)
	if err != nil {
		return header{}, err
	}
	defer file.Close()
	var b [100]byte
	n, err := io.ReadFull(file, b[:])
	switch {
	case n == 0 && errors.Is(err, io.EOF):
		return header{}, fmt.Errorf(
			"%s is empty, as after a copy that was interrupted (%w). Remove it to begin anew, or restore a backup with "+
				"lantern restore",
			path,
			ErrDamaged,
		)
	case !bytes.HasPrefix(b[:n], []byte("SQLite format 3\x00")):
		return header{}, fmt.Errorf(
			"%s is no data file of this application: name another one with --data, or restore a backup with "+
				"lantern restore (%w)",
			path,
			ErrDamaged,
		)
	case err != nil:
		return header{}, fmt.Errorf(
			"%s ends in the middle, as after a copy that was interrupted: restore a backup with lantern restore (%w)",
			path,
			ErrDamaged,
		)
	}
	page := int64(binary.BigEndian.Uint16(b[16:]))
	if page == 1 {
		page = 65536
	}
	h := header{
		writeAhead: b[18] == 2, form: binary.BigEndian.Uint32(b[60:]), application: binary.BigEndian.Uint32(b[68:]),
		whole: info.Size() >= page*int64(binary.BigEndian.Uint32(b[28:])),
	}
	return h, nil
}

// examine refuses a file that must not be opened: foreign, of a newer form, or cut short. A journal that is still
// beside it may hold the missing end.
func examine(path string) (header, error) {
	h, err := readHeader(path)
	if err != nil {
		return h, err
	}
	newest, err := newestForm()
	switch {
	case err != nil:
		return h, err
	case h.application != 0 && h.application != applicationID:
		return h, fmt.Errorf("%s belongs to another program: name another file with --data (%w)", path, ErrDamaged)
	case h.form > newest:
		return h, fmt.Errorf(
			"%s is of form %d, and this version of lantern knows forms up to %d: use the newer version that wrote it",
			path,
			h.form,
			newest,
		)
	case !h.whole && size(path+"-wal") == 0:
		return h, fmt.Errorf(
			"%s ends in the middle, as after a copy that was interrupted: restore a backup with lantern restore (%w)",
			path,
			ErrDamaged,
		)
	}
	return h, nil
}

// newestForm returns the number of the last migration.
func newestForm() (uint32, error) {
	files, err := migrations.ReadDir("migrations")
	return uint32(len(files)), err
}

// ours reports whether the tables are those of a data file of this application. Files of before there was an
// application id are known by them.
func ours(db *gorm.DB) error {
	var found int64
	err := db.Raw("SELECT count(*) FROM sqlite_master WHERE type = 'table' AND name IN ('goose_db_version', 'classes', " +
		"'adjustments')").
		Scan(&found).
		Error
	if err == nil && found < 3 {
		err = fmt.Errorf(
			"it has not the tables of a data file of this application: name another one with --data (%w)",
			ErrDamaged,
		)
	}
	return err
}

// size returns the size of a file, 0 if it is not there.
func size(path string) int64 {
	info, err := os.Stat(path)
	if err != nil {
		return 0
	}
	return info.Size()
}

func isFile(path string) bool {
	info, err := os.Stat(path)
	return err == nil && info.Mode().IsRegular()
}

func exists(path string) bool {
	_, err := os.Stat(path)
	return err == nil
}
