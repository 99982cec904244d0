package store

import (
	"gorm.io/gorm"
	"gorm.io/gorm/clause"
)

// save stores a row in the place of the revision that it was made from, except for some columns. The row carries the
// next revision. ErrTaken says that another save came first, ErrNotFound that the row is gone.
func save(find *gorm.DB, revision int64, row any, but ...string) error {
	find = find.Session(&gorm.Session{}) // it is asked twice
	return saved(find, find.Where("revision = ?", revision).Select("*").Omit(but...).Updates(row))
}

// saveSome is save of some columns only.
func saveSome(find *gorm.DB, revision int64, row any, columns ...string) error {
	find = find.Session(&gorm.Session{})
	return saved(find, find.Where("revision = ?", revision).Select(columns).Updates(row))
}

func saved(find, saved *gorm.DB) error {
	if saved.Error != nil || saved.RowsAffected > 0 {
		return plainly(saved.Error)
	}
	var there int64
	switch err := find.Count(&there).Error; {
	case err != nil:
		return plainly(err)
	case there == 0:
		return ErrNotFound
	}
	return ErrTaken
}

// put stores a row in the place of the one with its uid, deleted or not, as the next revision of that.
func (s *Store) put(model any, uid string, row any) error {
	return s.transaction(func(db *gorm.DB) error {
		put := db.Unscoped().Model(model).Where("uid = ?", uid).Select("*").Omit("id", "uid", "revision").Updates(row)
		if put.Error == nil && put.RowsAffected == 0 {
			return ErrNotFound
		}
		if put.Error != nil {
			return put.Error
		}
		return db.Unscoped().Model(model).Where("uid = ?", uid).Update("revision", nextRevision).Error
	})
}

var nextRevision = gorm.Expr("revision + 1")

// inPlace stores a row, also where there is one with its key, as the next revision of that.
func (s *Store) inPlace(key string, row any, columns ...string) error {
	change := clause.AssignmentColumns(columns)
	change = append(change, clause.Assignment{Column: clause.Column{Name: "revision"}, Value: nextRevision})
	return plainly(
		s.db.Clauses(clause.OnConflict{Columns: []clause.Column{{Name: key}}, DoUpdates: change}).Create(row).Error,
	)
}
