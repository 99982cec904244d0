// Package studio holds what the rooms of the application share: the data file, the clock, the errors shown to people,
// and who is notified of changes. Each job has its own room below this folder; package desk puts them together.
package studio

import (
	"context"
	"sync"
	"sync/atomic"
	"time"

	"vastlantern/store"
	"vastlantern/studio/contract"
)

// Studio is what the rooms share.
type Studio struct {
	Store *store.Store

	now   func() time.Time
	rate  float64
	clock *Clock // nil if the time is a function's

	watching sync.Mutex
	watchers map[int64]map[chan struct{}]bool // by class
	changes  atomic.Int64
	onClass  []func(context.Context, store.Class)
}

// New returns a studio on the store and the clock.
func New(s *store.Store, c *Clock) *Studio {
	studio := WithTime(s, c.Now, c.Rate())
	studio.clock = c
	studio.changes.Store(c.Now().UnixMilli()) // more than before a restart: screens compare it (contract.Score)
	return studio
}

// WithTime returns a studio whose clock is the function, as for demo data that was taught weeks ago.
func WithTime(s *store.Store, now func() time.Time, rate float64) *Studio {
	return &Studio{Store: s, now: now, rate: rate, watchers: map[int64]map[chan struct{}]bool{}}
}

// Late is how long after its planned start a class still counts as the next one: teachers begin late.
const Late = 30 * time.Minute

// Now returns the time on the application's clock.
func (s *Studio) Now() time.Time { return s.now() }

// Rate returns how many seconds of the application's clock pass in a real one.
func (s *Studio) Rate() float64 { return s.rate }

// ClockAnswer returns one half of a clock exchange; received is when the question came.
func (s *Studio) ClockAnswer(received time.Time) contract.Clock {
	return contract.Clock{ReceivedMS: contract.Millis(received), SentMS: contract.Millis(s.now()), Rate: s.rate}
}

// SetClock takes the time of day anew, which may have been corrected. For moments in which no class runs.
func (s *Studio) SetClock() {
	if s.clock != nil {
		s.clock.Set()
	}
}

// MarkClock returns what the clock shows, for the next start; false if the time is a function's.
func (s *Studio) MarkClock() (Mark, bool) {
	if s.clock == nil {
		return Mark{}, false
	}
	return s.clock.Mark(), true
}

// ResumeClock goes on from the mark, as Clock.Resume does.
func (s *Studio) ResumeClock(m Mark) {
	if s.clock != nil {
		s.clock.Resume(m)
	}
}

const (
	everyClass   = 0  // what to watch for a change of any class, and for one that begins
	everySession = -1 // what to watch for a device that is signed out
)

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

// WatchRoom is Watch for whatever class is led.
func (s *Studio) WatchRoom() (changed <-chan struct{}, stop func()) { return s.Watch(everyClass) }

// WatchSessions is Watch for devices that are signed out.
func (s *Studio) WatchSessions() (ended <-chan struct{}, stop func()) { return s.Watch(everySession) }

// Changes counts what was changed in any class: while it is the same, nothing has changed.
func (s *Studio) Changes() int64 { return s.changes.Load() }

// NoteChange counts a change without waking up anybody: who asks next gets what is new.
func (s *Studio) NoteChange() { s.changes.Add(1) }

// Notify counts a change of a class and wakes up the screens that watch it.
func (s *Studio) Notify(class int64) {
	s.NoteChange()
	s.Wake(class)
}

// Wake wakes up the screens that watch a class, after a change that was counted.
func (s *Studio) Wake(class int64) { s.wake(class, everyClass) }

// NotifyAll says that something has changed in what was taught, whichever class it is.
func (s *Studio) NotifyAll() { s.Notify(everyClass) }

// NotifySessions says that a device was signed out.
func (s *Studio) NotifySessions() { s.wake(everySession) }

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

// Today returns the calendar day of the teacher, who is where the program runs, as 2026-11-30.
func (s *Studio) Today() string { return s.Now().In(time.Local).Format(time.DateOnly) }

// OnClass has the function called whenever what is stored of a class has changed except for one more adjustment: it
// began, it ended, something was added to its record. To be called before anything is served.
func (s *Studio) OnClass(changed func(context.Context, store.Class)) {
	s.onClass = append(s.onClass, changed)
}

// ClassChanged calls them.
func (s *Studio) ClassChanged(ctx context.Context, class store.Class) {
	for _, changed := range s.onClass {
		changed(ctx, class)
	}
}
