package store

import (
	"database/sql"
	"time"

	"gorm.io/gorm"
)

// Rehearsal is a plan that was led with a simulated room.
type Rehearsal struct {
	ID        int64
	UID       string // the same on every machine; given by the store where it is empty
	StartedAt time.Time
	UpdatedAt time.Time
	EndedAt   time.Time // zero while it goes on
	DeletedAt time.Time // zero if it is not
	Document  []byte    // the plan file that is led
	Setting   []byte    // JSON: the room, the seed, the task and its level
	Script    []byte    // JSON: what was pressed, and when
	AtMS      int64     // how far it came, milliseconds from its start
	Looks     int       // how often the covered count was looked at
	Digest    []byte    // JSON: what came of it; empty while it goes on
}

type rehearsalRow struct {
	ID        int64
	UID       string
	StartedAt time.Time
	UpdatedAt time.Time `gorm:"autoUpdateTime:false"`
	EndedAt   sql.NullTime
	DeletedAt gorm.DeletedAt
	Document  string
	Setting   string
	Script    string
	AtMS      int64 `gorm:"column:at_ms"`
	Looks     int
	Digest    string
}

func (r rehearsalRow) number() int64 { return r.ID }

func (r rehearsalRow) moments() []time.Time {
	return []time.Time{r.StartedAt, r.UpdatedAt, r.EndedAt.Time, r.DeletedAt.Time}
}

func (rehearsalRow) TableName() string { return "rehearsals" }

func (r rehearsalRow) rehearsal() Rehearsal {
	return Rehearsal{
		ID:        r.ID,
		UID:       r.UID,
		StartedAt: r.StartedAt.UTC(),
		UpdatedAt: r.UpdatedAt.UTC(),
		EndedAt:   timeOf(r.EndedAt),
		DeletedAt: timeOf(sql.NullTime(r.DeletedAt)),
		Document:  []byte(r.Document),
		Setting:   []byte(r.Setting),
		Script:    []byte(r.Script),
		AtMS:      r.AtMS,
		Looks:     r.Looks,
		Digest:    []byte(r.Digest),
	}
}

func toRehearsalRow(r Rehearsal) rehearsalRow {
	return rehearsalRow{
		ID:        r.ID,
		UID:       named(r.UID),
		StartedAt: r.StartedAt.UTC(),
		UpdatedAt: r.UpdatedAt.UTC(),
		EndedAt:   moment(r.EndedAt),
		DeletedAt: gorm.DeletedAt(moment(r.DeletedAt)),
		Document:  string(r.Document),
		Setting:   string(r.Setting),
		Script:    string(r.Script),
		AtMS:      r.AtMS,
		Looks:     r.Looks,
		Digest:    string(r.Digest),
	}
}

// Rehearsals returns all rehearsals, the latest first.
func (s *Store) Rehearsals() ([]Rehearsal, error) {
	return s.rehearsals(s.read.Order("started_at DESC, id DESC"))
}

// EveryRehearsal returns all rehearsals with those that were deleted, the oldest first.
func (s *Store) EveryRehearsal() ([]Rehearsal, error) {
	return s.rehearsals(s.read.Unscoped().Order("id"))
}

func (s *Store) rehearsals(query *gorm.DB) ([]Rehearsal, error) {
	rows, err := readable[rehearsalRow](s, KindRehearsal, "id", query)
	list := make([]Rehearsal, len(rows))
	for i, r := range rows {
		list[i] = r.rehearsal()
	}
	return list, err
}

// Rehearsal returns one rehearsal, or ErrNotFound.
func (s *Store) Rehearsal(id int64) (Rehearsal, error) {
	var row rehearsalRow
	err := s.read.Take(&row, id).Error
	return row.rehearsal(), found(s, KindRehearsal, id, row, err)
}

// AddRehearsal stores a new rehearsal and returns it with its id.
func (s *Store) AddRehearsal(r Rehearsal) (Rehearsal, error) {
	row := toRehearsalRow(r)
	err := s.db.Create(&row).Error
	return row.rehearsal(), plainly(err)
}

// SaveRehearsal stores a rehearsal in its place, deleted or not, or says ErrNotFound. Its uid stays.
func (s *Store) SaveRehearsal(r Rehearsal) error {
	row := toRehearsalRow(r)
	saved := s.db.Unscoped().Model(&rehearsalRow{}).Where("id = ?", r.ID).Select("*").Omit("id", "uid").Updates(&row)
	if saved.Error == nil && saved.RowsAffected == 0 {
		return ErrNotFound
	}
	return plainly(saved.Error)
}
