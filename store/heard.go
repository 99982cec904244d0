package store

import (
	"gorm.io/gorm"
	"gorm.io/gorm/clause"
)

// Heard is something that a lead screen heard of the room in a class, in milliseconds from its start.
type Heard struct {
	Phase     string
	FromMS    int64
	ToMS      int64
	PerMinute float64 // of strokes; 0 for a chant or a hum
}

type heardRow struct {
	ID        int64
	ClassID   int64
	Phase     string
	FromMS    int64
	ToMS      int64
	PerMinute float64
}

func (heardRow) TableName() string { return "heard" }

// Heard returns what was heard in a class, in its order.
func (s *Store) Heard(class int64) ([]Heard, error) {
	var rows []heardRow
	err := s.read.Where("class_id = ?", class).Order("from_ms, phase").Find(&rows).Error
	list := make([]Heard, len(rows))
	for i, r := range rows {
		list[i] = Heard{r.Phase, r.FromMS, r.ToMS, r.PerMinute}
	}
	return list, plainly(err)
}

// AddHeard adds to what was heard in a class, and returns how much of it was new. What is of the same phase and begins
// at the same moment is there already. It returns ErrFull where there would be more than most.
func (s *Store) AddHeard(class int64, most int, list ...Heard) (added int, err error) {
	if len(list) == 0 {
		return 0, nil
	}
	err = s.transaction(func(db *gorm.DB) error {
		var there int64
		if err := db.Model(&heardRow{}).Where("class_id = ?", class).Count(&there).Error; err != nil {
			return err
		}
		if int(there)+len(list) > most {
			return ErrFull
		}
		rows := make([]heardRow, len(list))
		for i, h := range list {
			rows[i] = heardRow{ClassID: class, Phase: h.Phase, FromMS: h.FromMS, ToMS: h.ToMS, PerMinute: h.PerMinute}
		}
		created := db.Clauses(clause.OnConflict{DoNothing: true}).Create(&rows)
		added = int(created.RowsAffected)
		return created.Error
	})
	return added, err
}
