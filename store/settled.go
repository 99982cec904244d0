package store

import (
	"slices"
	"sync/atomic"

	"gorm.io/gorm"
)

// settled counts the changes of what a class is led with besides its plan. Only this program writes to the file, so the
// count is kept in memory.
type settled struct{ changes atomic.Int64 }

// Settled counts the changes of groups, settings and voices, whoever makes them: while it is the same, what was read of
// them after it was asked for is as it was.
func (s *Store) Settled() int64 { return s.settled.changes.Load() }

// watch counts what single statements change. Those of a transaction count once more when it is whole (transaction):
// before, readers still see the old.
func (s *settled) watch(db *gorm.DB) error {
	note := func(db *gorm.DB) {
		if _, passing := db.Get(passingMark); passing {
			return
		}
		if slices.Contains([]string{"groups", "settings", "voices", "recordings", ""}, db.Statement.Table) { // "" of raw SQL
			s.changes.Add(1)
		}
	}
	all := db.Callback()
	for _, err := range []error{
		all.Create().After("*").Register("settled", note), all.Update().After("*").Register("settled", note),
		all.Delete().After("*").Register("settled", note), all.Raw().After("*").Register("settled", note),
	} {
		if err != nil {
			return err
		}
	}
	return nil
}

// passingMark marks a statement that changes nothing that a class is led with.
const passingMark = "passing"

// SavePassing is SaveSetting for what is noted every few seconds and no choice of anybody's: Settled does not count it.
func (s *Store) SavePassing(name string, value []byte) error {
	passing := *s
	passing.db = s.db.Set(passingMark, true)
	return passing.SaveSetting(name, value)
}

// transaction makes a change whole or not at all.
func (s *Store) transaction(change func(*gorm.DB) error) error {
	defer s.settled.changes.Add(1)
	return plainly(s.db.Transaction(change))
}
