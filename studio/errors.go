package studio

import (
	"errors"

	"vastlantern/core/fact"
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

func (f *Failure) Error() string { return f.Problem.Say.Error() }

// Tell returns what a person should be told.
func (f *Failure) Tell() fact.Fact { return f.Problem.Say }

// Unwrap makes errors.Is find the kind.
func (f *Failure) Unwrap() error { return f.Kind }

// Fail returns a Failure of a kind; its message has the arguments, as fact.New takes them.
func Fail(kind error, id string, args ...any) *Failure { return FailWith(kind, fact.New(id, args...)) }

// FailWith returns a Failure that tells a fact.
func FailWith(kind error, say fact.Fact) *Failure {
	return &Failure{kind, contract.Problem{Say: say}}
}

// FailAll returns a Failure of several things that are wrong.
func FailAll(wrong []fact.Fact) *Failure { return Fail(ErrInvalid, "several", "list", wrong) }

// FailInPlan returns a Failure of a plan that is not right, with each of its errors.
func FailInPlan(wrong error, id string) *Failure {
	return &Failure{ErrInvalid, contract.Problem{Say: fact.New(id), Fields: contract.FieldErrorsOf(wrong)}}
}

// FailRunning says that something cannot be done while that class is being led.
func FailRunning(running *Class, id string) *Failure {
	return &Failure{
		ErrConflict,
		contract.Problem{Say: fact.New(id, "title", running.Plan.Title), ClassID: running.Stored.ID},
	}
}

// Thing returns what a kind of entry is called, by the message "thing.<kind>".
func Thing(kind store.Kind) fact.Fact { return fact.New("thing." + string(kind)) }

// Missing turns the store's ErrNotFound into a failure that says what is not there.
func Missing(err error, kind store.Kind, id int64) error { return missing(err, Thing(kind), id) }

// MissingDeleted is Missing of something that was deleted.
func MissingDeleted(err error, kind store.Kind, id int64) error {
	return missing(err, fact.New("thing.deleted", "thing", Thing(kind)), id)
}

func missing(err error, what fact.Fact, id int64) error {
	if errors.Is(err, store.ErrNotFound) {
		return Fail(ErrNotFound, "missing", "what", what, "id", id)
	}
	return err
}

// Replaced turns the store's answers to a save into failures: that another screen saved first, or that it is gone.
func Replaced(err error, kind store.Kind, id int64) error {
	if errors.Is(err, store.ErrTaken) {
		return FailChanged(string(kind))
	}
	return Missing(err, kind, id)
}

// FailChanged says that another screen saved first; the message "changed.<what>" names what.
func FailChanged(what string) *Failure {
	return ChangedMeanwhile(fact.New("changed", "what", fact.New("changed."+what)))
}

// ChangedMeanwhile is FailChanged with a fact of its own.
func ChangedMeanwhile(say fact.Fact) *Failure {
	return &Failure{ErrConflict, contract.Problem{Say: say, Changed: true}}
}

// FileProblem returns what to tell a person of an error of the data file or the disk; none if it is none.
func FileProblem(err error) fact.Fact {
	var fileError *store.FileError
	if !errors.As(err, &fileError) {
		return fact.Fact{}
	}
	return fileError.Say
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

// OrDamaged notes an entry that cannot be read, and says so; other errors stay as they are.
func (s *Studio) OrDamaged(err error, kind store.Kind, id int64) error {
	var ofTheStore *store.UnreadableError
	var ofTheEntry *unreadable
	if !errors.As(err, &ofTheStore) && !errors.As(err, &ofTheEntry) {
		return err
	}
	s.NoteDamage(kind, id, err)
	return Fail(ErrDamaged, "damaged", "thing", Thing(kind), "why", err)
}

// NoteDamage notes an entry of the data file that cannot be read; Today and an export name it.
func (s *Studio) NoteDamage(kind store.Kind, id int64, err error) {
	s.Store.NoteDamage(store.Damaged{Kind: kind, ID: id, Why: fact.Of(err)})
}

// IsInPlan reports whether an error is of the fields of a plan.
func IsInPlan(err error) bool {
	var errs plan.Errors
	return errors.As(err, &errs)
}
