package store

import (
	"crypto/rand"
	"database/sql"
	"encoding/hex"
	"time"

	"gorm.io/gorm"
)

type groupRow struct {
	ID         int64
	Name       string
	Level      string
	Size       int
	Weekday    int
	Weektime   string
	Under16    bool              `gorm:"column:under16"`
	Conditions map[string]int    `gorm:"serializer:json"`
	Schools    map[string]string `gorm:"serializer:json"`
	Notes      string
	Revision   int64
	UID        string
	UpdatedAt  time.Time `gorm:"autoUpdateTime:false"`
	DeletedAt  gorm.DeletedAt
}

func (r groupRow) number() int64 { return r.ID }

func (r groupRow) moments() []time.Time { return []time.Time{r.UpdatedAt, r.DeletedAt.Time} }

func (groupRow) TableName() string { return "groups" }

type planRow struct {
	ID        int64
	GroupID   sql.NullInt64
	Revision  int64
	Title     string
	StartsAt  sql.NullTime
	Document  string
	UpdatedAt time.Time `gorm:"autoUpdateTime:false"`
	UID       string
	DeletedAt gorm.DeletedAt
}

func (r planRow) number() int64 { return r.ID }

// moments leaves out when the class starts: it is in the document, where it can be mended.
func (r planRow) moments() []time.Time { return []time.Time{r.UpdatedAt, r.DeletedAt.Time} }

func (planRow) TableName() string { return "plans" }

type classRow struct {
	ID           int64
	PlanID       sql.NullInt64
	GroupID      sql.NullInt64
	StartedAt    time.Time
	EndedAt      sql.NullTime
	Document     string
	Acknowledged []string `gorm:"serializer:json"`
	UID          string
	DeletedAt    gorm.DeletedAt
}

func (r classRow) number() int64 { return r.ID }

func (r classRow) moments() []time.Time {
	return []time.Time{r.StartedAt, r.EndedAt.Time, r.DeletedAt.Time}
}

func (classRow) TableName() string { return "classes" }

type adjustmentRow struct {
	ClassID int64 `gorm:"primaryKey"`
	Number  int   `gorm:"primaryKey"`
	Key     string
	Body    string
	Origin  string
}

func (adjustmentRow) TableName() string { return "adjustments" }

type practiceRow struct {
	ID        string `gorm:"primaryKey"`
	Document  string
	Revision  int64
	UpdatedAt time.Time `gorm:"autoUpdateTime:false"`
}

func (practiceRow) TableName() string { return "practices" }

type settingRow struct {
	Name     string `gorm:"primaryKey"`
	Value    string
	Revision int64
}

func (settingRow) TableName() string { return "settings" }

func reference(id int64) sql.NullInt64 { return sql.NullInt64{Int64: id, Valid: id != 0} }

func moment(t time.Time) sql.NullTime { return sql.NullTime{Time: t.UTC(), Valid: !t.IsZero()} }

// timeOf returns the moment, zero if there is none.
func timeOf(t sql.NullTime) time.Time {
	if !t.Valid {
		return time.Time{}
	}
	return t.Time.UTC()
}

// named returns the uid, a new one if there is none yet.
func named(uid string) string {
	if uid != "" {
		return uid
	}
	var random [16]byte
	rand.Read(random[:]) // it never fails
	return hex.EncodeToString(random[:])
}

// unchanging is what saving a changed group or plan leaves as it is.
var unchanging = []string{"id", "uid", "deleted_at"}

func (r planRow) plan() Plan {
	return Plan{
		ID:        r.ID,
		GroupID:   r.GroupID.Int64,
		Revision:  r.Revision,
		Title:     r.Title,
		StartsAt:  timeOf(r.StartsAt),
		Document:  []byte(r.Document),
		UpdatedAt: r.UpdatedAt.UTC(), UID: r.UID, DeletedAt: timeOf(sql.NullTime(r.DeletedAt)),
	}
}

func (r classRow) class() Class {
	return Class{
		ID:           r.ID,
		PlanID:       r.PlanID.Int64,
		GroupID:      r.GroupID.Int64,
		StartedAt:    r.StartedAt,
		EndedAt:      timeOf(r.EndedAt),
		Document:     []byte(r.Document),
		Acknowledged: r.Acknowledged,
		UID:          r.UID, DeletedAt: timeOf(sql.NullTime(r.DeletedAt)),
	}
}

func (r groupRow) group() Group {
	return Group{
		ID: r.ID, Name: r.Name, Level: r.Level, Size: r.Size, Weekday: r.Weekday, Weektime: r.Weektime, Under16: r.Under16,
		Conditions: r.Conditions, Schools: r.Schools, Notes: r.Notes, Revision: r.Revision, UID: r.UID,
		UpdatedAt: r.UpdatedAt.UTC(), DeletedAt: timeOf(sql.NullTime(r.DeletedAt)),
	}
}

func toGroupRow(g Group) groupRow {
	if g.Conditions == nil { // a missing list is written as an empty one
		g.Conditions = map[string]int{}
	}
	if g.Schools == nil {
		g.Schools = map[string]string{}
	}
	return groupRow{
		ID: g.ID, Name: g.Name, Level: g.Level, Size: g.Size, Weekday: g.Weekday, Weektime: g.Weektime, Under16: g.Under16,
		Conditions: g.Conditions, Schools: g.Schools, Notes: g.Notes, Revision: g.Revision, UID: named(g.UID),
		UpdatedAt: g.UpdatedAt.UTC(), DeletedAt: gorm.DeletedAt(moment(g.DeletedAt)),
	}
}

// Groups returns all groups by name.
func (s *Store) Groups() ([]Group, error) { return s.groups(s.read.Order("name")) }

// EveryGroup returns all groups by name, those too that were deleted.
func (s *Store) EveryGroup() ([]Group, error) { return s.groups(s.read.Unscoped().Order("name")) }

func (s *Store) groups(query *gorm.DB) ([]Group, error) {
	rows, err := readable[groupRow](s, KindGroup, "id", query)
	list := make([]Group, len(rows))
	for i, r := range rows {
		list[i] = r.group()
	}
	return list, err
}

// AddGroup stores a new group as revision 1 and returns it with its id, and with a uid where it had none.
func (s *Store) AddGroup(g Group) (Group, error) {
	g.Revision = 1
	row := toGroupRow(g)
	err := s.db.Create(&row).Error
	return row.group(), plainly(err)
}

// SaveGroup stores the group in the place of its revision and returns it as the next one. ErrTaken says that somebody
// saved that revision before, ErrNotFound that the group is gone.
func (s *Store) SaveGroup(g Group) (Group, error) {
	row := toGroupRow(g)
	row.Revision++
	err := save(s.db.Model(&groupRow{}).Where("id = ?", g.ID), g.Revision, &row, unchanging...)
	return row.group(), err
}

// Practices returns the teacher's own practices by id, each as its file.
func (s *Store) Practices() ([]Practice, error) {
	var rows []practiceRow
	err := s.read.Order("id").Find(&rows).Error
	list := make([]Practice, len(rows))
	for i, r := range rows {
		list[i] = Practice{r.ID, []byte(r.Document), r.Revision, r.UpdatedAt.UTC()}
	}
	return list, plainly(err)
}

// SavePractice stores the practice in the place of its revision, a new one where that is 0, and returns it as the next
// one. ErrTaken says that there is another revision of it, ErrNotFound that it is gone.
func (s *Store) SavePractice(p Practice) (Practice, error) {
	row := practiceRow{p.ID, string(p.Document), p.Revision + 1, p.UpdatedAt.UTC()}
	if p.Revision++; p.Revision == 1 {
		return p, plainly(s.db.Create(&row).Error)
	}
	return p, save(s.db.Model(&practiceRow{}).Where("id = ?", p.ID), p.Revision-1, &row, "id")
}

// PutPractice stores the practice, in the place of any with the same id.
func (s *Store) PutPractice(p Practice) error {
	row := practiceRow{p.ID, string(p.Document), 1, p.UpdatedAt.UTC()}
	return s.inPlace("id", &row, "document", "updated_at")
}

// RemovePractice removes the practice, or says ErrNotFound. Plans and classes that use it carry their own copy.
func (s *Store) RemovePractice(id string) error {
	removed := s.db.Delete(&practiceRow{ID: id})
	if removed.Error == nil && removed.RowsAffected == 0 {
		return ErrNotFound
	}
	return plainly(removed.Error)
}

// Setting returns what was stored under the name as JSON, or ErrNotFound.
func (s *Store) Setting(name string) ([]byte, error) {
	value, _, err := s.SettingAt(name)
	return value, err
}

// SettingAt returns a Setting with its revision.
func (s *Store) SettingAt(name string) (value []byte, revision int64, err error) {
	var row settingRow
	err = s.read.First(&row, "name = ?", name).Error
	return []byte(row.Value), row.Revision, plainly(err)
}

// SaveSetting stores JSON under the name, in the place of what is there.
func (s *Store) SaveSetting(name string, value []byte) error {
	return s.inPlace("name", &settingRow{name, string(value), 1}, "value")
}

// ReplaceSetting stores JSON under the name in the place of one revision, 0 if there is none yet. ErrTaken says that
// somebody stored something there before.
func (s *Store) ReplaceSetting(name string, value []byte, revision int64) error {
	row := settingRow{name, string(value), revision + 1}
	if revision == 0 {
		return plainly(s.db.Create(&row).Error)
	}
	return save(s.db.Model(&settingRow{}).Where("name = ?", name), revision, &row, "name")
}

// Plans returns all plans, those with a time first in the order of their times.
func (s *Store) Plans() ([]Plan, error) {
	return s.plans(s.read.Order("starts_at IS NULL, starts_at, id"))
}

func (s *Store) plans(query *gorm.DB) ([]Plan, error) {
	rows, err := readable[planRow](s, KindPlan, "id", query)
	list := make([]Plan, len(rows))
	for i, r := range rows {
		list[i] = r.plan()
	}
	return list, err
}

// Plan returns one plan, or ErrNotFound.
func (s *Store) Plan(id int64) (Plan, error) {
	var row planRow
	err := s.read.First(&row, id).Error
	return row.plan(), found(s, KindPlan, id, row, err)
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
		Document:  string(p.Document),
		UpdatedAt: p.UpdatedAt.UTC(),
		UID:       named(p.UID),
		DeletedAt: gorm.DeletedAt(moment(p.DeletedAt)),
	}
}

// SavePlan stores the plan in the place of its revision and returns it as the next one. ErrTaken says that somebody
// saved that revision before, ErrNotFound that the plan is gone.
func (s *Store) SavePlan(p Plan) (Plan, error) {
	row := toRow(p)
	row.Revision++
	err := save(s.db.Model(&planRow{}).Where("id = ?", p.ID), p.Revision, &row, unchanging...)
	return row.plan(), err
}

// InProgress returns the class that has not come to its end, or ErrNotFound. It may have been deleted since.
func (s *Store) InProgress() (Class, error) {
	var row classRow
	err := s.read.Unscoped().Where("ended_at IS NULL").Order("id DESC").Take(&row).Error
	return row.class(), found(s, KindClass, row.ID, row, err)
}

// NewestClass returns the number of the class that was begun last, 0 if there is none. One that was begun apart may be
// stored after a later one.
func (s *Store) NewestClass() (id int64, err error) {
	err = s.read.Unscoped().Model(&classRow{}).Select("id").Order("started_at DESC, id DESC").Limit(1).Scan(&id).Error
	return id, plainly(err)
}

// BegunAfter reports whether any class was begun after that moment, also one that was deleted since.
func (s *Store) BegunAfter(moment time.Time) (bool, error) {
	var count int64
	err := s.read.Unscoped().Model(&classRow{}).Where("started_at > ?", moment.UTC()).Limit(1).Count(&count).Error
	return count > 0, plainly(err)
}

// EndClass notes when a class came to its end; with the zero time, that it has not.
func (s *Store) EndClass(id int64, at time.Time) error {
	return plainly(s.db.Unscoped().Model(&classRow{}).Where("id = ?", id).Update("ended_at", moment(at)).Error)
}

// EndEveryClass notes that no class is in progress any more: those that cannot be read, too.
func (s *Store) EndEveryClass(at time.Time) error {
	return plainly(s.db.Unscoped().Model(&classRow{}).Where("ended_at IS NULL").Update("ended_at", moment(at)).Error)
}

func (s *Store) classes(query *gorm.DB) ([]Class, error) {
	rows, err := readable[classRow](s, KindClass, "id", query)
	list := make([]Class, len(rows))
	for i, r := range rows {
		list[i] = r.class()
	}
	return list, err
}

// Class returns one class, or ErrNotFound.
func (s *Store) Class(id int64) (Class, error) {
	var row classRow
	err := s.read.First(&row, id).Error
	return row.class(), found(s, KindClass, id, row, err)
}

// ClassNamed returns the class of a uid, also one that was deleted, or ErrNotFound.
func (s *Store) ClassNamed(uid string) (Class, error) {
	var row classRow
	err := s.read.Unscoped().Where("uid = ?", uid).Take(&row).Error
	return row.class(), found(s, KindClass, row.ID, row, err)
}

// AddClass stores a new class and returns it with its id.
func (s *Store) AddClass(c Class) (Class, error) {
	row := classRow{
		PlanID:       reference(c.PlanID),
		GroupID:      reference(c.GroupID),
		StartedAt:    c.StartedAt.UTC(),
		EndedAt:      moment(c.EndedAt),
		Document:     string(c.Document),
		Acknowledged: append([]string{}, c.Acknowledged...), // a missing list is written as an empty one
		UID:          named(c.UID), DeletedAt: gorm.DeletedAt(moment(c.DeletedAt)),
	}
	err := s.db.Create(&row).Error
	return row.class(), plainly(err)
}

// BeginClass stores the class that is led from now on and ends every other. On a full disk the reserve is given up for
// it.
func (s *Store) BeginClass(c Class) (begun Class, err error) {
	err = s.despiteAFullDisk(func() error {
		return s.InTransaction(func(s *Store) error {
			if err := s.EndEveryClass(c.StartedAt); err != nil {
				return err
			}
			begun, err = s.AddClass(c)
			return err
		})
	})
	return begun, err
}

// Adjustments returns the adjustments of a class in the order they were made.
func (s *Store) Adjustments(class int64) ([]Adjustment, error) {
	var rows []adjustmentRow
	err := s.read.Where("class_id = ?", class).Order("number").Find(&rows).Error
	list := make([]Adjustment, len(rows))
	for i, r := range rows {
		list[i] = Adjustment{r.Number, r.Key, []byte(r.Body), r.Origin}
	}
	return list, plainly(err)
}
