package studio

import (
	"bytes"
	"errors"
	"fmt"
	"slices"
	"sync"
	"time"

	"vastlantern/core/sheet"
	"vastlantern/store"
	"vastlantern/studio/contract"
)

// live is the class in progress as it is held in memory: its plan, its start and everything that was pressed, also what
// could not be stored yet. It is replaced whole, never changed, so that whoever reads it needs no lock. Only this program
// writes to the data file, so that it holds.
type live struct {
	stored   store.Class
	rows     []store.Adjustment
	unstored int    // how many of the last rows are not in the data file
	why      string // why they are not
	end      bool   // whether its end is still to be stored
}

// liveClass is the class in progress, loaded from the data file the first time it is asked for.
type liveClass struct {
	mutex  sync.Mutex
	loaded bool
	class  *live
}

// current is the class in progress, or nil. One that cannot be read is none: it is told of as damaged.
func (s *Studio) current() (*live, error) {
	s.live.mutex.Lock()
	defer s.live.mutex.Unlock()
	if s.live.loaded {
		return s.live.class, nil
	}
	class, err := s.loadLive()
	if err != nil {
		return nil, err
	}
	s.live.class, s.live.loaded = class, true
	return class, nil
}

func (s *Studio) loadLive() (*live, error) {
	stored, err := s.store.InProgress()
	var unreadable *store.UnreadableError
	switch {
	case errors.Is(err, store.ErrNotFound), errors.As(err, &unreadable):
		return nil, nil
	case err != nil:
		return nil, err
	case !stored.DeletedAt.IsZero():
		return nil, nil
	}
	rows, err := s.store.Adjustments(stored.ID)
	if err != nil {
		return nil, err
	}
	if _, err := fold(stored, rows); err != nil {
		s.noteDamage(store.KindClass, stored.ID, err)
		return nil, nil
	}
	return &live{stored: stored, rows: rows}, nil
}

// setLive replaces the class in progress. Whoever calls it holds s.leading.
func (s *Studio) setLive(class *live) {
	s.live.mutex.Lock()
	defer s.live.mutex.Unlock()
	s.live.class, s.live.loaded = class, true
}

// open folds a class. A class is its plan, its start and its adjustments: after a crash, in a second window and in the
// record this gives the same.
func (s *Studio) open(id int64) (*led, error) {
	current, err := s.current()
	if err == nil && current != nil && current.stored.ID == id {
		return current.fold()
	}
	stored, err := s.store.Class(id)
	if err != nil {
		return nil, s.orDamaged(missing(err, "class", id), store.KindClass, id)
	}
	return s.fold(stored)
}

// fold folds a stored class with its adjustments.
func (s *Studio) fold(stored store.Class) (*led, error) {
	rows, err := s.store.Adjustments(stored.ID)
	if err != nil {
		return nil, err
	}
	l, err := fold(stored, rows)
	return l, s.orDamaged(err, store.KindClass, stored.ID)
}

func (l *live) fold() (*led, error) {
	folded, err := fold(l.stored, l.rows)
	if err == nil {
		folded.unstored, folded.why = l.unstored, l.why
	}
	return folded, err
}

func fold(stored store.Class, rows []store.Adjustment) (*led, error) {
	_, p, err := sheet.ReadPlan(bytes.NewReader(stored.Document))
	if err != nil {
		return nil, &unreadable{fmt.Errorf("its plan cannot be read: %w", err)}
	}
	l := begin(stored, p)
	for _, a := range rows {
		adjustment, err := sheet.ReadAdjustment(a.Body)
		if err != nil {
			return nil, &unreadable{fmt.Errorf("its adjustment %d cannot be read: %w", a.Number, err)}
		}
		l.add(sent{a.Key, because(a.Body), a.Origin}, adjustment)
	}
	return l, nil
}

// unreadable says that what is stored makes no class.
type unreadable struct{ err error }

func (u *unreadable) Error() string { return u.err.Error() }

// orDamaged notes an entry that cannot be read, and says so in words for a person; other errors stay as they are.
func (s *Studio) orDamaged(err error, kind store.Kind, id int64) error {
	var ofTheStore *store.UnreadableError
	var ofTheClass *unreadable
	if !errors.As(err, &ofTheStore) && !errors.As(err, &ofTheClass) {
		return err
	}
	s.noteDamage(kind, id, err)
	return fail(ErrDamaged, "The entry of this %s in the data file is damaged (%v). It is left out of everything else, and nothing was changed in it. A backup may have it whole: lantern restore.", kind, err)
}

func (s *Studio) noteDamage(kind store.Kind, id int64, err error) {
	s.store.NoteDamage(store.Damaged{Kind: kind, ID: id, Why: err.Error()})
}

// keep adds rows to the class in progress and stores them, or keeps them in memory where that is not possible just now.
// Whoever calls it holds s.leading.
func (s *Studio) keep(class *live, rows ...store.Adjustment) (*live, error) {
	next := *class
	next.rows = append(slices.Clip(class.rows), rows...)
	switch {
	case class.unstored > 0: // in their order
		next.unstored += len(rows)
	default:
		err := s.store.AddAdjustments(class.stored.ID, rows...)
		switch {
		case Trouble(err) != "":
			next.unstored, next.why = len(rows), Trouble(err)
		case errors.Is(err, store.ErrTaken):
			return class, fail(ErrConflict, "Another adjustment came first. Press again.")
		case err != nil:
			return class, err
		}
	}
	s.setLive(&next)
	return &next, nil
}

// storeHeld stores what could not be stored before: adjustments, and the end of a class. What cannot be stored yet stays
// in memory, without an error.
func (s *Studio) storeHeld() error {
	s.storing.Lock()
	defer s.storing.Unlock()
	class, err := s.current()
	if err != nil || class == nil || class.unstored == 0 && !class.end {
		return err
	}
	held := class.rows[len(class.rows)-class.unstored:]
	err = s.store.AddAdjustments(class.stored.ID, held...) // presses need not wait for it
	if errors.Is(err, store.ErrTaken) {
		held, err = s.alreadyStored(class)
	}
	if err == nil && class.end {
		err = s.store.EndClass(class.stored.ID, class.stored.EndedAt)
	}
	s.leading.Lock()
	defer s.leading.Unlock()
	now, currentErr := s.current()
	if currentErr != nil || now == nil || now.stored.ID != class.stored.ID {
		return currentErr
	}
	next := *now
	switch {
	case Trouble(err) != "":
		if next.why == Trouble(err) {
			return nil
		}
		next.why = Trouble(err)
		s.setLive(&next)
		s.notify(next.stored.ID)
		return nil
	case err != nil:
		return err
	}
	if next.unstored -= len(held); next.unstored == 0 {
		next.why = ""
		next.end = next.end && !class.end
	}
	s.setLive(&next)
	if next.unstored == 0 && !next.stored.EndedAt.IsZero() && !next.end {
		s.setLive(nil)
		s.digestOne(next.stored)
	}
	s.notify(next.stored.ID)
	return nil
}

// alreadyStored is the held rows that are in the data file after all: a write can reach the disk although its answer was
// an error.
func (s *Studio) alreadyStored(class *live) ([]store.Adjustment, error) {
	there, err := s.store.Adjustments(class.stored.ID)
	if err != nil {
		return nil, err
	}
	first := len(class.rows) - class.unstored
	if len(there) < first || len(there) > len(class.rows) {
		return nil, fmt.Errorf("class %d has %d adjustments in the data file, and %d here", class.stored.ID, len(there), len(class.rows))
	}
	return class.rows[first:len(there)], nil
}

// finish ends the class in progress at that time of it, and returns the moment. Whoever calls it holds s.leading.
func (s *Studio) finish(class *live, at int64) time.Time {
	next := *class
	next.stored.EndedAt = next.stored.StartedAt.Add(time.Duration(at) * time.Millisecond)
	next.end = true
	if next.unstored == 0 && s.store.EndClass(next.stored.ID, next.stored.EndedAt) == nil {
		s.setLive(nil)
		s.digestOne(next.stored)
	} else {
		s.setLive(&next) // until it can be stored
	}
	s.set() // nothing runs that a corrected clock could move
	return next.stored.EndedAt
}

// reopen takes back that a class was noted as over. Whoever calls it holds s.leading.
func (s *Studio) reopen(stored store.Class) error {
	if err := s.store.EndClass(stored.ID, time.Time{}); err != nil {
		return err
	}
	rows, err := s.store.Adjustments(stored.ID)
	if err == nil {
		s.setLive(&live{stored: stored, rows: rows})
	}
	return err
}

// Settle does what is due when a class has come to its end by itself: it is noted as over and worked out for the lists.
func (s *Studio) Settle() error {
	if err := s.storeHeld(); err != nil {
		return err
	}
	s.leading.Lock()
	defer s.leading.Unlock()
	class, err := s.current()
	if err != nil || class == nil || !class.stored.EndedAt.IsZero() {
		return err
	}
	l, err := class.fold()
	if err != nil || l.running(s.now()) {
		return err
	}
	s.finish(class, l.class.Timeline().End)
	s.notify(class.stored.ID)
	return nil
}

// notStored tells what was pressed in the class and is not in the data file yet.
func (l *led) notStored() *contract.Unstored {
	if l.unstored == 0 {
		return nil
	}
	u := &contract.Unstored{Why: l.why, Presses: []contract.UnstoredPress{}}
	for i := len(l.answers) - l.unstored; i < len(l.answers); i++ {
		u.Presses = append(u.Presses, contract.UnstoredPress{Number: i + 1, AtMS: l.answers[i].At, Do: l.answers[i].Do})
	}
	return u
}
