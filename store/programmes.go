package store

import (
	"database/sql"
	"time"

	"gorm.io/gorm"
)

// Programme is what a group follows over weeks.
type Programme struct {
	ID        int64
	UID       string // the same on every machine; given by the store where it is empty
	GroupID   int64  // 0 for none
	Programme []byte // JSON: its steps
	Base      []byte // the plan file of the class with which it was begun
	Revision  int64  // one more with each save
	UpdatedAt time.Time
	DeletedAt time.Time // zero if it is not
}

type programmeRow struct {
	ID        int64
	UID       string
	GroupID   sql.NullInt64
	Programme string
	Base      string
	Revision  int64
	UpdatedAt time.Time `gorm:"autoUpdateTime:false"`
	DeletedAt gorm.DeletedAt
}

func (r programmeRow) number() int64 { return r.ID }

func (r programmeRow) moments() []time.Time { return []time.Time{r.UpdatedAt, r.DeletedAt.Time} }

func (programmeRow) TableName() string { return "programmes" }

func (r programmeRow) programme() Programme {
	return Programme{
		ID: r.ID, UID: r.UID, GroupID: r.GroupID.Int64, Programme: []byte(r.Programme), Base: []byte(r.Base),
		Revision: r.Revision, UpdatedAt: r.UpdatedAt.UTC(), DeletedAt: timeOf(sql.NullTime(r.DeletedAt)),
	}
}

func toProgrammeRow(p Programme) programmeRow {
	return programmeRow{
		ID: p.ID, UID: named(p.UID), GroupID: reference(p.GroupID), Programme: string(p.Programme), Base: string(p.Base),
		Revision: p.Revision, UpdatedAt: p.UpdatedAt.UTC(),
		DeletedAt: gorm.DeletedAt(moment(p.DeletedAt)),
	}
}

// Programmes returns all programmes in the order in which they were begun.
func (s *Store) Programmes() ([]Programme, error) { return s.programmes(s.read.Order("id")) }

// EveryProgramme is Programmes with those that were deleted.
func (s *Store) EveryProgramme() ([]Programme, error) {
	return s.programmes(s.read.Unscoped().Order("id"))
}

func (s *Store) programmes(query *gorm.DB) ([]Programme, error) {
	rows, err := readable[programmeRow](s, KindProgramme, "id", query)
	list := make([]Programme, len(rows))
	for i, r := range rows {
		list[i] = r.programme()
	}
	return list, err
}

// Programme returns one programme, or ErrNotFound.
func (s *Store) Programme(id int64) (Programme, error) {
	var row programmeRow
	err := s.read.Take(&row, id).Error
	return row.programme(), found(s, KindProgramme, id, row, err)
}

// AddProgramme stores a new programme as revision 1 and returns it with its id.
func (s *Store) AddProgramme(p Programme) (Programme, error) {
	p.Revision = 1
	row := toProgrammeRow(p)
	err := s.db.Create(&row).Error
	return row.programme(), plainly(err)
}

// SaveProgramme stores the programme in the place of its revision. ErrTaken says that somebody saved that revision
// before, ErrNotFound that the programme is gone.
func (s *Store) SaveProgramme(p Programme) error {
	row := toProgrammeRow(p)
	row.Revision++
	return save(s.db.Model(&programmeRow{}).Where("id = ?", p.ID), p.Revision, &row, unchanging...)
}

// A plan or a class is of a programme by the mark in its document; of one from before there were programmes by its
// course.
const (
	// as its indexes
	programmeOf = "iif(json_valid(document), coalesce(json_extract(document, '$.programme.uid'), json_extract(document, " +
		"'$.course.name')), NULL)"
	classOf = "coalesce(json_extract(document, '$.programme.class'), json_extract(document, '$.course.class'))"
)

// PlansOfProgramme returns the plans of a programme in the order of their times.
func (s *Store) PlansOfProgramme(uid string) ([]Plan, error) {
	return s.plans(s.read.Where(programmeOf+" = ?", uid).Order("starts_at IS NULL, starts_at, id"))
}

// PlansInCourses returns the plans of courses, as they were made before there were programmes.
func (s *Store) PlansInCourses() ([]Plan, error) {
	return s.plans(s.read.Where("json_valid(document) AND json_extract(document, '$.course.name') <> ''").Order("id"))
}

// ProgrammeClass is a class that was led of a programme.
type ProgrammeClass struct {
	ID, PlanID int64
	Class      int // its number in the programme
	StartedAt  time.Time
	Over       bool
}

// ClassesOfProgramme returns the classes that were led of a programme, the oldest first.
func (s *Store) ClassesOfProgramme(uid string) ([]ProgrammeClass, error) {
	var rows []struct {
		ID, PlanID sql.NullInt64
		Class      int
		StartedAt  time.Time
		EndedAt    sql.NullTime
	}
	err := s.read.Model(&classRow{}).Select("id, plan_id, "+classOf+" AS class, started_at, ended_at").
		Where(programmeOf+" = ?", uid).Order("started_at, id").Scan(&rows).Error
	list := make([]ProgrammeClass, len(rows))
	for i, r := range rows {
		list[i] = ProgrammeClass{r.ID.Int64, r.PlanID.Int64, r.Class, r.StartedAt.UTC(), r.EndedAt.Valid}
	}
	return list, plainly(err)
}
