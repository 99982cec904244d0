// Package studio is what the application does with the core: it prepares plans, leads classes and shows the
// record. It owns the wall clock, and tells screens when something has changed.
package studio

import (
	"errors"
	"fmt"
	"strings"
	"sync"
	"sync/atomic"
	"time"

	"vastlantern/core/plan"
	"vastlantern/store"
	"vastlantern/studio/contract"
)

// Studio is the application without its screens.
type Studio struct {
	store *store.Store
	now   func() time.Time
	rate  float64
	clock *Clock // nil where the time is a function's
	set   func() // takes the time of day anew

	digesting   sync.Mutex
	storing     sync.Mutex // of what could not be stored before
	remembering sync.Mutex
	pasts       pasts

	live    liveClass
	leading sync.Mutex // one adjustment after the other, so that each is answered on the class it meets

	watching sync.Mutex
	watchers map[int64]map[chan struct{}]bool // by class
	changes  atomic.Int64
	public   atomic.Pointer[published]
	seen     atomic.Pointer[present]
	code     atomic.Pointer[string] // of the room, once it is known
}

// New is a studio on the store and the clock.
func New(s *store.Store, c *Clock) *Studio {
	studio := WithTime(s, c.Now, c.Rate())
	studio.clock, studio.set = c, c.Set
	return studio
}

// WithTime is a studio whose clock is the function, as for demo data that was taught weeks ago.
func WithTime(s *store.Store, now func() time.Time, rate float64) *Studio {
	return &Studio{store: s, now: now, rate: rate, set: func() {}, watchers: map[int64]map[chan struct{}]bool{}}
}

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

func fail(kind error, format string, args ...any) *Failure {
	return &Failure{kind, contract.Problem{Say: fmt.Sprintf(format, args...)}}
}

// Trouble is what to tell a person of an error of the data file or the disk; empty where it is none.
func Trouble(err error) string {
	var trouble *store.Trouble
	if !errors.As(err, &trouble) {
		return ""
	}
	return strings.ToUpper(trouble.Say[:1]) + trouble.Say[1:] + "."
}

// missing turns the store's ErrNotFound into a failure that says what is not there.
func missing(err error, what string, id int64) error {
	if errors.Is(err, store.ErrNotFound) {
		return fail(ErrNotFound, "There is no %s %d. It may have been removed.", what, id)
	}
	return err
}

// Clock is one half of a clock exchange; received is when the question came.
func (s *Studio) Clock(received time.Time) contract.Clock {
	return contract.Clock{ReceivedMS: millis(received), SentMS: millis(s.now()), Rate: s.rate}
}

// Now is the time on the application's clock.
func (s *Studio) Now() time.Time { return s.now() }

// WatchRoom is Watch for whatever class is led.
func (s *Studio) WatchRoom() (changed <-chan struct{}, stop func()) { return s.Watch(everyClass) }

// Watch returns a channel that gets a signal whenever the class changes, and how to stop watching.
func (s *Studio) Watch(class int64) (changed <-chan struct{}, stop func()) {
	s.watching.Lock()
	defer s.watching.Unlock()
	signal := make(chan struct{}, 1) // one is enough: who wakes up reads the newest state
	if s.watchers[class] == nil {
		s.watchers[class] = map[chan struct{}]bool{}
	}
	s.watchers[class][signal] = true
	return signal, func() {
		s.watching.Lock()
		defer s.watching.Unlock()
		delete(s.watchers[class], signal)
		if len(s.watchers[class]) == 0 {
			delete(s.watchers, class)
		}
	}
}

// Changes counts what Watch tells of any class: while it is the same, nothing has changed.
func (s *Studio) Changes() int64 { return s.changes.Load() }

// notify wakes the screens of a class up. Who leads holds s.leading, so that screens learn of changes one after the other.
func (s *Studio) notify(class int64) {
	s.changes.Add(1)
	s.wake(class, everyClass)
}

func (s *Studio) wake(all ...int64) {
	s.watching.Lock()
	defer s.watching.Unlock()
	for _, watched := range all {
		for signal := range s.watchers[watched] {
			select {
			case signal <- struct{}{}:
			default:
			}
		}
	}
}

func fieldErrors(err error) []contract.FieldError {
	var errs plan.Errors
	fields := []contract.FieldError{}
	if errors.As(err, &errs) {
		for _, e := range errs {
			fields = append(fields, contract.FieldError{Passage: e.Passage, Field: e.Field, Given: e.Given, Allowed: e.Allowed, Text: e.Error()})
		}
	}
	return fields
}
