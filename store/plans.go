package store

import (
	"time"

	"gorm.io/gorm"

	"vastlantern/core/fold"
)

// PlansFrom returns the plans that start at that time or later, in the order of their times, at most so many.
func (s *Store) PlansFrom(at time.Time, most int) ([]Plan, error) {
	return s.plans(s.starting(at).Order("starts_at, id").Limit(most))
}

// CountPlansFrom returns how many there are.
func (s *Store) CountPlansFrom(at time.Time) (n int64, err error) {
	err = s.starting(at).Model(&planRow{}).Count(&n).Error
	return n, plainly(err)
}

func (s *Store) starting(at time.Time) *gorm.DB { return s.read.Where("starts_at >= ?", moment(at)) }

// PlansWithoutTime returns the plans without a time, those changed last first, at most so many.
func (s *Store) PlansWithoutTime(most int) ([]Plan, error) {
	return s.plans(s.read.Where("starts_at IS NULL").Order("updated_at DESC, id DESC").Limit(most))
}

// CountPlansWithoutTime returns how many there are.
func (s *Store) CountPlansWithoutTime() (n int64, err error) {
	err = s.read.Model(&planRow{}).Where("starts_at IS NULL").Count(&n).Error
	return n, plainly(err)
}

// NewestPlans returns the plans that were changed last, the latest first, at most so many.
func (s *Store) NewestPlans(most int) ([]Plan, error) {
	return s.plans(s.read.Order("updated_at DESC, id DESC").Limit(most))
}

// PlansTitled returns the plans that have all of the words in their titles, those changed last first, and whether there
// are more.
func (s *Store) PlansTitled(words []string, skip, most int) (list []Plan, more bool, err error) {
	query := s.read.Order("updated_at DESC, id DESC").Offset(skip).Limit(most + 1)
	for _, word := range words {
		query = query.Where("instr(fold(title), ?) > 0", fold.Text(word))
	}
	list, err = s.plans(query)
	if more = len(list) > most; more {
		list = list[:most]
	}
	return list, more, err
}
