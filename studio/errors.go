package studio

import (
	"errors"
	"fmt"
	"strings"

	"vastlantern/core/plan"
	"vastlantern/store"
	"vastlantern/studio/contract"
)

// Errors that screens tell apart; what they wrap says the rest.
var (
	ErrNotFound = errors.New("not found")
	ErrInvalid  = errors.New("invalid")
	ErrConflict = errors.New("conflict")
	ErrDamaged  = errors.New("damaged")
)

// Failure is an error with what a person should be told.
type Failure struct {
	Kind    error // one of the above
	Problem contract.Problem
}

func (f *Failure) Error() string { return f.Problem.Say }

// Unwrap makes errors.Is find the kind.
func (f *Failure) Unwrap() error { return f.Kind }

// Fail is a Failure of a kind in words.
func Fail(kind error, format string, args ...any) *Failure {
	return &Failure{kind, contract.Problem{Say: fmt.Sprintf(format, args...)}}
}

// FailInPlan is a Failure of a plan that is not right, with each of its errors.
func FailInPlan(wrong error, say string) *Failure {
	return &Failure{ErrInvalid, contract.Problem{Say: say, Fields: contract.FieldErrorsOf(wrong)}}
}

// FailRunning says that something cannot be done while that class is being led.
func FailRunning(running *Class, format string) *Failure {
	return &Failure{ErrConflict, contract.Problem{Say: fmt.Sprintf(format, running.Plan.Title), ClassID: running.Stored.ID}}
}

// Missing turns the store's ErrNotFound into a failure that says what is not there.
func Missing(err error, what string, id int64) error {
	if errors.Is(err, store.ErrNotFound) {
		return Fail(ErrNotFound, "There is no %s %d. It may have been removed.", what, id)
	}
	return err
}

// Replaced turns the store's answers to a save into failures: that another screen saved first, or that it is gone.
func Replaced(err error, what string, id int64) error {
	if errors.Is(err, store.ErrTaken) {
		return FailChanged("this " + what)
	}
	return Missing(err, what, id)
}

// FailChanged says that another screen saved first.
func FailChanged(what string) *Failure {
	say := "Not saved: another screen changed " + what + " meanwhile. Nothing was overwritten. Compare the two versions, then save again."
	return &Failure{ErrConflict, contract.Problem{Say: say, Changed: true}}
}

// FileProblem is what to tell a person of an error of the data file or the disk; empty where it is none.
func FileProblem(err error) string {
	var fileError *store.FileError
	if !errors.As(err, &fileError) {
		return ""
	}
	return strings.ToUpper(fileError.Say[:1]) + fileError.Say[1:] + "."
}

// unreadable says that what is stored makes no plan or class.
type unreadable struct{ err error }

func (u *unreadable) Error() string { return u.err.Error() }

func (u *unreadable) Unwrap() error { return u.err }

// Unreadable is an error that OrDamaged takes for a damaged entry; nil for nil.
func Unreadable(err error) error {
	if err == nil {
		return nil
	}
	return &unreadable{err}
}

// OrDamaged notes an entry that cannot be read, and says so in words for a person; other errors stay as they are.
func (s *Studio) OrDamaged(err error, kind store.Kind, id int64) error {
	var ofTheStore *store.UnreadableError
	var ofTheEntry *unreadable
	if !errors.As(err, &ofTheStore) && !errors.As(err, &ofTheEntry) {
		return err
	}
	s.NoteDamage(kind, id, err)
	return Fail(ErrDamaged, "The entry of this %s in the data file is damaged (%v). It is left out of everything else, and nothing was changed in it. A backup may have it whole: lantern restore.", kind, err)
}

// NoteDamage notes an entry of the data file that cannot be read; Today and an export name it.
func (s *Studio) NoteDamage(kind store.Kind, id int64, err error) {
	s.Store.NoteDamage(store.Damaged{Kind: kind, ID: id, Why: err.Error()})
}

// IsInPlan tells whether an error is of the fields of a plan.
func IsInPlan(err error) bool {
	var errs plan.Errors
	return errors.As(err, &errs)
}
