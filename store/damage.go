package store

import (
	"cmp"
	"errors"
	"slices"
	"sync"
	"time"

	"gorm.io/gorm"

	"vastlantern/core/fact"
	"vastlantern/core/plan"
)

// Kinds of damaged entries besides those that can be deleted.
const (
	KindPractice Kind = "practice"
	KindSetting  Kind = "setting"
	KindHome     Kind = "home"
	KindAnswers  Kind = "answers" // to a class, by its number
)

// Damaged is an entry of the data file that cannot be read. It is left out of everything, and everything else works.
type Damaged struct {
	Kind Kind
	ID   int64  // 0 for a practice or a setting
	Name string // of a practice or a setting
	Why  fact.Fact
}

// entry is the entry that is damaged.
type entry struct {
	kind Kind
	id   int64
	name string
}

// damage is the damaged entries that were met since the file was opened.
type damage struct {
	mutex sync.Mutex
	met   map[entry]fact.Fact
}

func (d *damage) note(of Damaged) {
	d.mutex.Lock()
	defer d.mutex.Unlock()
	d.met[entry{of.Kind, of.ID, of.Name}] = of.Why
}

// NoteDamage records an entry that cannot be read.
func (s *Store) NoteDamage(of Damaged) { s.damage.note(of) }

// Damage returns the damaged entries that were met so far, by kind and number.
func (s *Store) Damage() []Damaged {
	s.damage.mutex.Lock()
	defer s.damage.mutex.Unlock()
	list := make([]Damaged, 0, len(s.damage.met))
	for of, why := range s.damage.met {
		list = append(list, Damaged{of.kind, of.id, of.name, why})
	}
	slices.SortFunc(list, func(a, b Damaged) int {
		return cmp.Or(cmp.Compare(a.Kind, b.Kind), cmp.Compare(a.ID, b.ID), cmp.Compare(a.Name, b.Name))
	})
	return list
}

// readable finds the rows of the query, whose number is in the column. Where they cannot be read together, they are
// read one by one: what cannot be read is noted and left out.
func readable[Row row](s *Store, kind Kind, column string, query *gorm.DB) ([]Row, error) {
	query = query.Session(&gorm.Session{})
	var rows []Row
	err := query.Find(&rows).Error
	if err == nil {
		return slices.DeleteFunc(rows, func(row Row) bool {
			wrong := outside(row)
			if wrong != nil {
				s.damage.note(Damaged{Kind: kind, ID: row.number(), Why: fact.Of(wrong)})
			}
			return wrong != nil
		}), nil
	}
	if isFileError(err) {
		return nil, plainly(err)
	}
	var ids []int64
	if err := query.Model(new(Row)).Select(column).Find(&ids).Error; err != nil {
		return nil, plainly(err)
	}
	rows = nil
	for _, id := range ids {
		var one Row
		err := query.Where(column+" = ?", id).Take(&one).Error
		switch {
		case err == nil && outside(one) == nil:
			rows = append(rows, one)
		case err == nil:
			s.damage.note(Damaged{Kind: kind, ID: id, Why: fact.Of(outside(one))})
		case isFileError(err):
			return nil, plainly(err)
		default:
			s.damage.note(Damaged{Kind: kind, ID: id, Why: fact.Of(err)})
		}
	}
	return rows, nil
}

// row is a table row with times.
type row interface {
	number() int64
	moments() []time.Time
}

// outside reports why a row cannot be written again: one of its times is outside the calendar.
func outside(of row) error {
	for _, at := range of.moments() {
		if !at.IsZero() && !plan.InCalendar(at) {
			return fact.New("entry.time", "given", at.UTC().Format(time.RFC3339), "allowed", fact.New("allowed.calendar"))
		}
	}
	return nil
}

// found is the row as it was taken from the table, or that it cannot be read.
func found[Row row](s *Store, kind Kind, id int64, of Row, err error) error {
	if err == nil {
		err = outside(of)
	}
	return s.unreadable(kind, id, err)
}

// isFileError tells an error of the file or the disk, or of a question that was given up, from one of a single row.
func isFileError(err error) bool {
	_, known := translateError(err).(*FileError)
	return known || interrupted(err)
}

// unreadable is an error of one row: what cannot be read is noted, and told as damaged.
func (s *Store) unreadable(kind Kind, id int64, err error) error {
	err = plainly(err)
	if err == nil || errors.Is(err, ErrNotFound) || isFileError(err) {
		return err
	}
	s.damage.note(Damaged{Kind: kind, ID: id, Why: fact.Of(err)})
	return &UnreadableError{err}
}

// UnreadableError means that one entry of the data file is damaged.
type UnreadableError struct{ err error }

func (e *UnreadableError) Error() string { return e.err.Error() }

// Unwrap is what is wrong with it.
func (e *UnreadableError) Unwrap() error { return e.err }
