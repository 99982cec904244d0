package store

import (
	"cmp"
	"database/sql/driver"
	"fmt"
	"time"

	"vastlantern/core/fact"

	"gorm.io/gorm"
)

// Kind is a kind of what can be deleted.
type Kind string

// What can be deleted.
const (
	KindGroup Kind = "group"
	KindPlan  Kind = "plan"
	KindClass Kind = "class"
	KindVoice Kind = "voice"

	KindProgramme Kind = "programme"
	KindRehearsal Kind = "rehearsal"
)

// Thing is one group, plan, class, voice, programme or rehearsal.
type Thing struct {
	Kind Kind
	ID   int64
}

func (t Thing) row() any {
	switch t.Kind {
	case KindGroup:
		return &groupRow{}
	case KindPlan:
		return &planRow{}
	case KindVoice:
		return &voiceRow{}
	case KindProgramme:
		return &programmeRow{}
	case KindRehearsal:
		return &rehearsalRow{}
	}
	return &classRow{}
}

// Going is what a deletion includes: the plans and classes of a group, what was pressed and remarked in classes, and
// the recordings of a voice.
type Going struct{ Plans, Classes, Adjustments, Remarks, Recordings int64 }

// Deleted is something that was deleted by itself and can still be restored.
type Deleted struct {
	Thing
	Name      string
	At        time.Time
	StartedAt time.Time // of a class or a rehearsal
}

// goes returns the classes that go with a thing: itself, or those of a group.
func (s *Store) goes(t Thing) *gorm.DB {
	switch t.Kind {
	case KindGroup:
		return s.read.Model(&classRow{}).Select("id").Where("group_id = ?", t.ID)
	case KindClass:
		return s.read.Model(&classRow{}).Select("id").Where("id = ?", t.ID)
	}
	return s.read.Model(&classRow{}).Select("id").Where("FALSE")
}

// Going returns what deleting a thing includes, with a group's classes. The error is ErrNotFound.
func (s *Store) Going(t Thing) (g Going, err error) {
	if err := s.read.Select("id").First(t.row(), t.ID).Error; err != nil {
		return g, plainly(err)
	}
	for _, count := range []struct {
		of *gorm.DB
		n  *int64
	}{
		{s.read.Model(&planRow{}).Where("? AND group_id = ?", t.Kind == KindGroup, t.ID), &g.Plans},
		{s.goes(t), &g.Classes},
		{s.read.Model(&adjustmentRow{}).Where("class_id IN (?)", s.goes(t)), &g.Adjustments},
		{s.read.Model(&remarkRow{}).Where("class_id IN (?)", s.goes(t)), &g.Remarks},
		{s.read.Model(&recordingRow{}).Where("? AND voice_id = ?", t.Kind == KindVoice, t.ID).Distinct("plain"),
			&g.Recordings},
	} {
		if err := count.of.Count(count.n).Error; err != nil {
			return g, plainly(err)
		}
	}
	return g, nil
}

// Delete puts a thing away: a group with its plans, and with its classes where they are to go too. Nothing is lost
// before Purge. ErrNotFound says that it is not there.
func (s *Store) Delete(t Thing, classes bool, at time.Time) error {
	return s.transaction(func(db *gorm.DB) error {
		at := moment(at)
		put := db.Model(t.row()).Where("id = ?", t.ID).Update("deleted_at", at)
		if put.Error != nil || put.RowsAffected == 0 {
			return orNotFound(put)
		}
		if t.Kind != KindGroup {
			return nil
		}
		if err := db.Model(&planRow{}).Where("group_id = ?", t.ID).Update("deleted_at", at).Error; err != nil || !classes {
			return err
		}
		return db.Model(&classRow{}).Where("group_id = ?", t.ID).Update("deleted_at", at).Error
	})
}

func orNotFound(done *gorm.DB) error {
	if done.Error == nil {
		return gorm.ErrRecordNotFound
	}
	return done.Error
}

// BringBack restores what was deleted, and what was deleted with it. A plan or class whose group was deleted later
// comes back with no group. ErrNotFound says that it is no longer there.
func (s *Store) BringBack(t Thing, now time.Time) error {
	return s.transaction(func(db *gorm.DB) error {
		db = db.Unscoped().Session(&gorm.Session{})
		if t.Kind == KindGroup {
			for _, row := range []any{&planRow{}, &classRow{}} {
				went := db.Model(row).
					Where("group_id = ? AND deleted_at = (SELECT deleted_at FROM groups WHERE id = ?)", t.ID, t.ID)
				if err := went.Update("deleted_at", nil).Error; err != nil {
					return err
				}
			}
		}
		back := db.Model(t.row()).Where("id = ? AND deleted_at IS NOT NULL", t.ID).Update("deleted_at", nil)
		if back.Error != nil || back.RowsAffected == 0 {
			return orNotFound(back)
		}
		if t.Kind == KindClass {
			return nil
		}
		// Where another machine still has it deleted, this is the younger form.
		if err := db.Model(t.row()).Where("id = ?", t.ID).Update("updated_at", moment(now)).Error; err != nil ||
			t.Kind != KindPlan {
			return err
		}
		return db.Model(&planRow{}).
			Where("id = ? AND group_id IN (SELECT id FROM groups WHERE deleted_at IS NOT NULL)", t.ID).
			Update("group_id", nil).
			Error
	})
}

// lenient is a time of a row, or why it cannot be read: one damaged row does not keep the others from being read.
type lenient struct {
	time.Time
	why string
}

// Scan takes a value of the data file.
func (l *lenient) Scan(value any) error {
	switch value := value.(type) {
	case nil:
	case time.Time:
		l.Time = value.UTC()
	default:
		l.why = fmt.Sprintf("%q is not a time", value)
	}
	return nil
}

// Value is here because GORM asks for it of every type that scans; it is only read.
func (l lenient) Value() (driver.Value, error) { return l.Time, nil }

// Deleted returns what can be brought back, the latest first; not what went with something else. What cannot be read is
// noted and left out.
func (s *Store) Deleted() ([]Deleted, error) {
	var rows []struct {
		Kind      Kind
		ID        int64
		Name      string
		DeletedAt lenient
		StartedAt lenient
	}
	err := s.read.Raw(`
		SELECT 'class' AS kind, id, iif(json_valid(document), coalesce(json_extract(document, '$.title'), ''), '') AS name, deleted_at, started_at FROM classes WHERE deleted_at IS NOT NULL
			AND NOT EXISTS (SELECT 1 FROM groups WHERE groups.id = classes.group_id AND groups.deleted_at = classes.deleted_at)
		UNION ALL SELECT 'plan', id, title, deleted_at, NULL FROM plans WHERE deleted_at IS NOT NULL
			AND NOT EXISTS (SELECT 1 FROM groups WHERE groups.id = plans.group_id AND groups.deleted_at = plans.deleted_at)
		UNION ALL SELECT 'group', id, name, deleted_at, NULL FROM groups WHERE deleted_at IS NOT NULL
		UNION ALL SELECT 'voice', id, name, deleted_at, NULL FROM voices WHERE deleted_at IS NOT NULL
		UNION ALL SELECT 'programme', id, iif(json_valid(programme), coalesce(json_extract(programme, '$.name'), ''), ''), deleted_at, NULL FROM programmes WHERE deleted_at IS NOT NULL
		UNION ALL SELECT 'rehearsal', id, iif(json_valid(document), coalesce(json_extract(document, '$.title'), ''), ''), deleted_at, started_at FROM rehearsals WHERE deleted_at IS NOT NULL
		ORDER BY deleted_at DESC, id DESC`).Scan(&rows).Error
	var list []Deleted
	for _, r := range rows {
		if why := cmp.Or(r.DeletedAt.why, r.StartedAt.why); why != "" {
			s.damage.note(Damaged{Kind: r.Kind, ID: r.ID, Why: fact.New(fact.Plain, "text", why)})
			continue
		}
		list = append(list, Deleted{Thing{r.Kind, r.ID}, r.Name, r.DeletedAt.Time, r.StartedAt.Time})
	}
	return list, plainly(err)
}

// gone is what was deleted before a moment. SQLite would take a number, or an empty text, for an earlier one.
const gone = "typeof(deleted_at) = 'text' AND deleted_at GLOB '[12][0-9][0-9][0-9]-*' AND deleted_at < ?"

// Purge removes for good what was deleted before the moment; what has no readable moment stays. Of a group whose
// classes stay, its name stays with them.
func (s *Store) Purge(before time.Time) error {
	return s.transaction(func(db *gorm.DB) error {
		before := moment(before)
		for _, statement := range []string{
			"DELETE FROM adjustments WHERE class_id IN (SELECT id FROM classes WHERE " + gone + ")",
			"DELETE FROM remarks WHERE class_id IN (SELECT id FROM classes WHERE " + gone + ")",
			"DELETE FROM answers WHERE class_id IN (SELECT id FROM classes WHERE " + gone + ")",
			"DELETE FROM heard WHERE class_id IN (SELECT id FROM classes WHERE " + gone + ")",
			"DELETE FROM check_ins WHERE class_id IN (SELECT id FROM classes WHERE " + gone + ")",
			"DELETE FROM digests WHERE class_id IN (SELECT id FROM classes WHERE " + gone + ")",
			"DELETE FROM homes WHERE class_id IN (SELECT id FROM classes WHERE " + gone + ")",
			"DELETE FROM classes WHERE " + gone,
			"DELETE FROM homes WHERE class_id IS NULL AND plan_id IN (SELECT id FROM plans WHERE " + gone + ")",
			"UPDATE homes SET plan_id = NULL WHERE plan_id IN (SELECT id FROM plans WHERE " + gone + ")",
			"DELETE FROM check_ins WHERE class_id IS NULL AND plan_id IN (SELECT id FROM plans WHERE " + gone + ")",
			"UPDATE check_ins SET plan_id = NULL WHERE plan_id IN (SELECT id FROM plans WHERE " + gone + ")",
			"UPDATE classes SET plan_id = NULL WHERE plan_id IN (SELECT id FROM plans WHERE " + gone + ")",
			"DELETE FROM plans WHERE " + gone,
			"DELETE FROM recordings WHERE voice_id IN (SELECT id FROM voices WHERE " + gone + ")",
			"DELETE FROM voices WHERE " + gone,
			"DELETE FROM programmes WHERE " + gone,
			"DELETE FROM rehearsals WHERE " + gone,
			"DELETE FROM programmes WHERE group_id IN (SELECT id FROM groups WHERE " + gone + ")",
			"DELETE FROM groups WHERE " + gone + " AND id NOT IN (SELECT group_id FROM plans WHERE group_id IS NOT NULL UNION " +
				"SELECT group_id FROM classes WHERE group_id IS NOT NULL UNION SELECT group_id FROM homes WHERE group_id IS NOT " +
				"NULL)",
			"UPDATE groups SET conditions = '{}', schools = '{}', notes = '', under16 = 0 WHERE " + gone,
		} {
			if err := db.Exec(statement, before).Error; err != nil {
				return err
			}
		}
		return nil
	})
}

// RemovePlanAndClasses removes a plan and the classes that were led from it, for good and at once.
func (s *Store) RemovePlanAndClasses(plan int64) error {
	return s.transaction(func(db *gorm.DB) error {
		for _, statement := range []string{
			"DELETE FROM adjustments WHERE class_id IN (SELECT id FROM classes WHERE plan_id = ?)",
			"DELETE FROM remarks WHERE class_id IN (SELECT id FROM classes WHERE plan_id = ?)",
			"DELETE FROM answers WHERE class_id IN (SELECT id FROM classes WHERE plan_id = ?)",
			"DELETE FROM heard WHERE class_id IN (SELECT id FROM classes WHERE plan_id = ?)",
			"DELETE FROM check_ins WHERE class_id IN (SELECT id FROM classes WHERE plan_id = ?)",
			"DELETE FROM check_ins WHERE plan_id = ?",
			"DELETE FROM digests WHERE class_id IN (SELECT id FROM classes WHERE plan_id = ?)",
			"DELETE FROM homes WHERE class_id IN (SELECT id FROM classes WHERE plan_id = ?)",
			"DELETE FROM homes WHERE plan_id = ?",
			"DELETE FROM classes WHERE plan_id = ?",
			"DELETE FROM plans WHERE id = ?",
		} {
			if err := db.Exec(statement, plan).Error; err != nil {
				return err
			}
		}
		return nil
	})
}
