package store

import (
	"database/sql"
	"time"

	"gorm.io/gorm"
)

type groupRow struct {
	ID    int64
	Name  string
	Level string
	Size  int
}

func (groupRow) TableName() string { return "groups" }

type planRow struct {
	ID        int64
	GroupID   sql.NullInt64
	Revision  int64
	Title     string
	StartsAt  sql.NullTime
	Document  string
	UpdatedAt time.Time `gorm:"autoUpdateTime:false"`
}

func (planRow) TableName() string { return "plans" }

type classRow struct {
	ID        int64
	PlanID    sql.NullInt64
	GroupID   sql.NullInt64
	StartedAt time.Time
	Document  string
}

func (classRow) TableName() string { return "classes" }

type adjustmentRow struct {
	ClassID int64 `gorm:"primaryKey"`
	Number  int   `gorm:"primaryKey"`
	Key     string
	Body    string
}

func (adjustmentRow) TableName() string { return "adjustments" }

func reference(id int64) sql.NullInt64 { return sql.NullInt64{Int64: id, Valid: id != 0} }

func moment(t time.Time) sql.NullTime { return sql.NullTime{Time: t.UTC(), Valid: !t.IsZero()} }

func (r planRow) plan() Plan {
	p := Plan{ID: r.ID, GroupID: r.GroupID.Int64, Revision: r.Revision, Title: r.Title, Document: []byte(r.Document), UpdatedAt: r.UpdatedAt}
	if r.StartsAt.Valid {
		p.StartsAt = r.StartsAt.Time
	}
	return p
}

func (r classRow) class() Class {
	return Class{ID: r.ID, PlanID: r.PlanID.Int64, GroupID: r.GroupID.Int64, StartedAt: r.StartedAt, Document: []byte(r.Document)}
}

// Groups is all groups by name.
func (s *Store) Groups() ([]Group, error) {
	var rows []groupRow
	err := s.db.Order("name").Find(&rows).Error
	groups := make([]Group, len(rows))
	for i, r := range rows {
		groups[i] = Group(r)
	}
	return groups, plainly(err)
}

// AddGroup stores a new group and returns it with its id.
func (s *Store) AddGroup(g Group) (Group, error) {
	row := groupRow(g)
	err := s.db.Create(&row).Error
	return Group(row), plainly(err)
}

// Plans is all plans, those with a time first in the order of their times.
func (s *Store) Plans() ([]Plan, error) {
	var rows []planRow
	err := s.db.Order("starts_at IS NULL, starts_at, id").Find(&rows).Error
	plans := make([]Plan, len(rows))
	for i, r := range rows {
		plans[i] = r.plan()
	}
	return plans, plainly(err)
}

// Plan is one plan, or ErrNotFound.
func (s *Store) Plan(id int64) (Plan, error) {
	var row planRow
	err := s.db.First(&row, id).Error
	return row.plan(), plainly(err)
}

// AddPlan stores a new plan as revision 1 and returns it with its id.
func (s *Store) AddPlan(p Plan) (Plan, error) {
	p.Revision = 1
	row := toRow(p)
	err := s.db.Create(&row).Error
	return row.plan(), plainly(err)
}

func toRow(p Plan) planRow {
	return planRow{
		ID: p.ID, GroupID: reference(p.GroupID), Revision: p.Revision, Title: p.Title, StartsAt: moment(p.StartsAt),
		Document: string(p.Document), UpdatedAt: p.UpdatedAt.UTC(),
	}
}

// SavePlan stores the plan in the place of its revision and returns it as the next one. ErrTaken says that somebody
// saved that revision before, ErrNotFound that the plan is gone.
func (s *Store) SavePlan(p Plan) (Plan, error) {
	row := toRow(p)
	row.Revision++
	saved := s.db.Model(&planRow{}).Where("id = ? AND revision = ?", p.ID, p.Revision).Select("*").Omit("id").Updates(&row)
	if saved.Error != nil {
		return Plan{}, plainly(saved.Error)
	}
	if saved.RowsAffected == 0 {
		if _, err := s.Plan(p.ID); err != nil {
			return Plan{}, err
		}
		return Plan{}, ErrTaken
	}
	return row.plan(), nil
}

// Classes is the newest classes first, at most the given number.
func (s *Store) Classes(most int) ([]Class, error) {
	var rows []classRow
	err := s.db.Order("started_at DESC, id DESC").Limit(most).Find(&rows).Error
	classes := make([]Class, len(rows))
	for i, r := range rows {
		classes[i] = r.class()
	}
	return classes, plainly(err)
}

// Class is one class, or ErrNotFound.
func (s *Store) Class(id int64) (Class, error) {
	var row classRow
	err := s.db.First(&row, id).Error
	return row.class(), plainly(err)
}

// AddClass stores a new class and returns it with its id.
func (s *Store) AddClass(c Class) (Class, error) {
	row := classRow{PlanID: reference(c.PlanID), GroupID: reference(c.GroupID), StartedAt: c.StartedAt.UTC(), Document: string(c.Document)}
	err := s.db.Create(&row).Error
	return row.class(), plainly(err)
}

// Adjustments is the adjustments of a class in the order they were made.
func (s *Store) Adjustments(class int64) ([]Adjustment, error) {
	var rows []adjustmentRow
	err := s.db.Where("class_id = ?", class).Order("number").Find(&rows).Error
	list := make([]Adjustment, len(rows))
	for i, r := range rows {
		list[i] = Adjustment{r.Number, r.Key, []byte(r.Body)}
	}
	return list, plainly(err)
}

// AddAdjustment stores the next adjustment of a class. ErrTaken says that its number or key is there already.
func (s *Store) AddAdjustment(class int64, a Adjustment) error {
	row := adjustmentRow{class, a.Number, a.Key, string(a.Body)}
	return plainly(s.db.Session(&gorm.Session{SkipDefaultTransaction: true}).Create(&row).Error)
}
