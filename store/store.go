// Package store keeps plans, groups and classes in one SQLite file. Its models never leave it.
package store

import (
	"context"
	"embed"
	"errors"
	"time"

	"gorm.io/gorm"
)

// Store is one open SQLite file. Who opened it to write holds its lock.
type Store struct {
	db     *gorm.DB // the one connection that writes
	read   *gorm.DB // those that read, which nobody who writes keeps waiting
	path   string
	lock   *lock // nil if it was opened only to read
	damage *damage
	opened Opened

	settled *settled
}

// ErrNotFound says that there is no such plan, group or class.
var ErrNotFound = errors.New("not found")

// ErrTaken says that something of that key is there already.
var ErrTaken = errors.New("taken")

//go:embed migrations/*.sql
var migrations embed.FS

// plainly turns GORM's errors into the store's own.
func plainly(err error) error {
	switch {
	case errors.Is(err, gorm.ErrRecordNotFound), errors.Is(err, gorm.ErrForeignKeyViolated):
		return ErrNotFound
	case errors.Is(err, gorm.ErrDuplicatedKey):
		return ErrTaken
	}
	return translateError(err)
}

// With returns the store for the work of a context. What only reads stops when the context ends. What writes is
// finished: a phone that goes away in the middle of a press must not take it back.
func (s *Store) With(ctx context.Context) *Store {
	with := *s
	with.db = s.db.WithContext(context.WithoutCancel(ctx))
	with.read = s.read.WithContext(ctx)
	return &with
}

// InTransaction runs the work whole or not at all.
func (s *Store) InTransaction(work func(*Store) error) error {
	return s.transaction(func(tx *gorm.DB) error {
		return work(&Store{db: tx, read: tx, path: s.path, damage: s.damage, settled: s.settled})
	})
}

// Group is a group of people that is taught.
type Group struct {
	ID         int64
	Name       string
	Level      string
	Size       int               // usual number of people, 0 if not known
	Weekday    int               // of its weekly class, 0 is Sunday; -1 if there is none
	Weektime   string            // of its weekly class, as 18:30
	Under16    bool              // there are people under 16
	Conditions map[string]int    // how many people have each condition, never who
	Schools    map[string]string // where the group differs from the teacher's own school
	Notes      string
	Revision   int64  // one more with each save
	UID        string // the same on every machine; given by the store where it is empty
	UpdatedAt  time.Time
	DeletedAt  time.Time // zero if it is not deleted
}

// Practice is a teacher's own practice, as its file.
type Practice struct {
	ID        string
	Document  []byte
	Revision  int64 // one more with each save; 0 for a new one
	UpdatedAt time.Time
}

// Plan is a stored class plan. Document is the plan file as it was written.
type Plan struct {
	ID        int64
	GroupID   int64 // 0 if none
	Revision  int64 // one more with each save
	Title     string
	StartsAt  time.Time // zero if none
	Document  []byte
	UpdatedAt time.Time
	UID       string // as a group's
	DeletedAt time.Time
}

// Class is a class that was or is being led.
type Class struct {
	ID           int64
	PlanID       int64 // 0 if the plan is gone
	GroupID      int64
	StartedAt    time.Time
	EndedAt      time.Time // zero while it is in progress
	Document     []byte    // the plan as it was led
	Acknowledged []string  // the cautions that were read before
	UID          string    // as a group's
	DeletedAt    time.Time
}

// Adjustment is one adjustment of a class, accepted or refused. Key is the sender's own name for it, so that the
// same one sent twice is kept once.
type Adjustment struct {
	Number int // from 1
	Key    string
	Body   []byte // a line of an adjustment script
	Origin string // the device; empty if nobody had to sign in
}

// Session is a device that was signed in. TokenHash is of what the device keeps, which is stored nowhere else.
type Session struct {
	TokenHash string
	Device    string
	ExpiresAt time.Time
}
