package store

import "gorm.io/gorm"

// EveryPlan returns all plans in the order in which they were made, those too that were deleted.
func (s *Store) EveryPlan() ([]Plan, error) { return s.plans(s.read.Unscoped().Order("id")) }

// EveryClass returns all classes in the order in which they were made, those too that were deleted.
func (s *Store) EveryClass() ([]Class, error) { return s.classes(s.read.Unscoped().Order("id")) }

// PutGroup stores a group in the place of the one with its uid, whether that is deleted or not.
func (s *Store) PutGroup(g Group) error {
	row := toGroupRow(g)
	return s.put(&groupRow{}, g.UID, &row)
}

// PutPlan stores a plan in the place of the one with its uid, whether that is deleted or not.
func (s *Store) PutPlan(p Plan) error {
	row := toRow(p)
	return s.put(&planRow{}, p.UID, &row)
}

// PutProgramme stores a programme in the place of the one with its uid, whether that is deleted or not.
func (s *Store) PutProgramme(p Programme) error {
	row := toProgrammeRow(p)
	return s.put(&programmeRow{}, p.UID, &row)
}

// ClassOf returns the number of the class with the uid, whether it is deleted or not, or ErrNotFound.
func (s *Store) ClassOf(uid string) (int64, error) {
	var row classRow
	err := s.read.Unscoped().Select("id").First(&row, "uid = ?", uid).Error
	return row.ID, plainly(err)
}

// AddAdjustments stores the next adjustments of a class, all of them in one write, for which the reserve on the disk is
// given up where it must be. ErrTaken says that a number or key is there already.
func (s *Store) AddAdjustments(class int64, list ...Adjustment) error {
	if len(list) == 0 {
		return nil
	}
	return s.despiteAFullDisk(func() error {
		return s.changing(class, func(db *gorm.DB) error { return addAdjustments(db, class, list) })
	})
}

// ReplaceAdjustments stores adjustments of a class in the place of those from a number on, all of them in one write.
func (s *Store) ReplaceAdjustments(class int64, from int, list ...Adjustment) error {
	return s.despiteAFullDisk(func() error {
		return s.changing(class, func(db *gorm.DB) error {
			err := db.Where("class_id = ? AND number >= ?", class, from).Delete(&adjustmentRow{}).Error
			if err != nil || len(list) == 0 {
				return err
			}
			return addAdjustments(db, class, list)
		})
	})
}

func addAdjustments(db *gorm.DB, class int64, list []Adjustment) error {
	rows := make([]adjustmentRow, len(list))
	for i, a := range list {
		rows[i] = adjustmentRow{class, a.Number, a.Key, string(a.Body), a.Origin}
	}
	const atOnce = 100 // a longer statement takes longer to be read than to be done
	return db.CreateInBatches(rows, atOnce).Error
}
