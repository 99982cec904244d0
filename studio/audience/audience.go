// Package audience serves the people in the room, on their phones and on the large screen: the code that joins a class,
// and the class in progress.
package audience

import (
	"context"
	"crypto/rand"
	"errors"
	"strings"
	"sync"
	"sync/atomic"

	"vastlantern/store"
	"vastlantern/studio"
	"vastlantern/studio/contract"
)

// Audience is the room.
type Audience struct {
	studio  *studio.Studio
	classes Classes
	plans   Plans
	library Library

	phones  phones
	counted ballots
	checked ballots
	opening sync.Mutex // of check-ins

	making sync.Mutex             // of the code
	code   atomic.Pointer[string] // once it is known
}

// Classes is what the audience asks of the class that is led.
type Classes interface {
	// RunningScoreIn is its score with the words of a language, nil if none is led; an empty language is that of the
	// class.
	RunningScoreIn(ctx context.Context, language string) (*contract.Score, error)
	// Open is a class with everything that was pressed.
	Open(ctx context.Context, id int64) (*studio.Class, error)
	// Running is which class that is.
	Running(context.Context) (contract.Running, error)
}

// Plans is what the audience asks of the room where plans are made.
type Plans interface {
	// Upcoming is the next class that is planned for a time, nil if there is none.
	Upcoming(context.Context) (*contract.Upcoming, error)
}

// Library is what the audience asks of what the teacher has chosen.
type Library interface {
	InForce(context.Context) (contract.Choices, error)
}

// New returns the room of a studio.
func New(s *studio.Studio, c Classes, p Plans, l Library) *Audience {
	a := &Audience{studio: s, classes: c, plans: p, library: l}
	s.OnClass(a.classChanged)
	return a
}

const roomCodeName = "room code"

// letters of a room's code: none that can be taken for another when it is read from a distance.
const letters = "ABCDEFGHJKLMNPRSTUVWXYZ"

const codeLength = 5

// RoomCode returns the short code that joins this teacher's room. It stays the same, so that an address that was shared
// once is good for every class.
func (a *Audience) RoomCode(ctx context.Context) (string, error) {
	a.making.Lock()
	defer a.making.Unlock()
	code, err := a.knownCode(ctx)
	if err != nil || code != "" {
		return code, err
	}
	random := make([]byte, codeLength)
	rand.Read(random) // never fails
	for i, b := range random {
		random[i] = letters[int(b)%len(letters)]
	}
	if err := a.studio.Store.With(ctx).SaveSetting(roomCodeName, random); err != nil {
		return "", err
	}
	return a.knownCode(ctx)
}

// knownCode returns the room's code, empty if there is none yet. It never changes, so that it is read once: screens
// join also while the data file cannot be read.
func (a *Audience) knownCode(ctx context.Context) (string, error) {
	if code := a.code.Load(); code != nil {
		return *code, nil
	}
	value, err := a.studio.Store.With(ctx).Setting(roomCodeName)
	if errors.Is(err, store.ErrNotFound) {
		return "", nil
	}
	if err != nil {
		return "", err
	}
	code := string(value)
	a.code.Store(&code)
	return code, nil
}

// IsRoom reports whether the code is the room's.
func (a *Audience) IsRoom(ctx context.Context, code string) (bool, error) {
	known, err := a.knownCode(ctx)
	return known != "" && strings.EqualFold(known, code), err
}

// Room returns what a room screen shows: the class that is led, without what is only for the teacher, or nothing yet.
func (a *Audience) Room(ctx context.Context, code string) (contract.Room, error) {
	return a.RoomIn(ctx, code, "")
}

// RoomIn is Room for a screen that chose a language: what the class says is said in it. An empty language is that of
// the
// class.
func (a *Audience) RoomIn(ctx context.Context, code, language string) (contract.Room, error) {
	is, err := a.IsRoom(ctx, code)
	if err != nil {
		return contract.Room{}, err
	}
	if !is {
		return contract.Room{}, noRoom(code)
	}
	score, err := a.classes.RunningScoreIn(ctx, language)
	if err != nil {
		return contract.Room{}, err
	}
	if score == nil {
		return a.waiting(ctx)
	}
	public := score.ForTheRoom()
	asked, err := a.checkIn(ctx, score, nil)
	if !studio.FileProblem(err).None() { // the class goes on without
		err = nil
	}
	return contract.Room{Score: &public, CheckIn: asked}, err
}

func noRoom(code string) error {
	return studio.Fail(studio.ErrNotFound, "missing.room-code", "code", code)
}

// waiting returns what the room shows while none is led: what comes, when, and what to bring. Where the data file
// cannot be read at the moment, it waits with nothing to tell.
func (a *Audience) waiting(ctx context.Context) (contract.Room, error) {
	room, err := a.quiet(ctx)
	if !studio.FileProblem(err).None() {
		return contract.Room{}, nil
	}
	return room, err
}

func (a *Audience) quiet(ctx context.Context) (contract.Room, error) {
	next, err := a.plans.Upcoming(ctx)
	if err != nil {
		return contract.Room{}, err
	}
	chosen, err := a.library.InForce(ctx)
	if err != nil {
		return contract.Room{}, err
	}
	asked, err := a.asked(ctx)
	if err != nil {
		return contract.Room{}, err
	}
	checked, err := a.checkIn(ctx, nil, next)
	return contract.Room{Next: next, Bring: chosen.Bring, Asked: asked, CheckIn: checked}, err
}
