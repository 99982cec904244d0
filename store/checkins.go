package store

import (
	"database/sql"
	"fmt"
	"maps"
	"slices"
	"strconv"
	"strings"
	"time"

	"gorm.io/gorm"
)

// CheckIn is the sums of what a room answered before and after a class. Who answered, from where or when is not stored.
type CheckIn struct {
	ID                    int64
	ClassID               int64 // 0 before the class begins
	PlanID                int64
	OpenedAt              time.Time
	Question              string
	Before, After         map[string]int // by the answer, how many gave it
	MostBefore, MostAfter int            // no more are taken
}

// People returns how many gave an answer.
func People(sums map[string]int) (people int) {
	for _, n := range sums {
		people += n
	}
	return people
}

type checkInRow struct {
	ID         int64
	ClassID    sql.NullInt64
	PlanID     sql.NullInt64
	OpenedAt   time.Time
	Question   string
	Before     string
	After      string
	MostBefore int
	MostAfter  int
}

func (checkInRow) TableName() string { return "check_ins" }

func (r checkInRow) checkIn() CheckIn {
	return CheckIn{
		ID: r.ID, ClassID: r.ClassID.Int64, PlanID: r.PlanID.Int64, OpenedAt: r.OpenedAt.UTC(), Question: r.Question,
		Before: sumsOf(r.Before), After: sumsOf(r.After), MostBefore: r.MostBefore, MostAfter: r.MostAfter,
	}
}

func toCheckInRow(c CheckIn) checkInRow {
	return checkInRow{
		ID: c.ID, ClassID: reference(c.ClassID), PlanID: reference(c.PlanID), OpenedAt: c.OpenedAt.UTC(),
		Question: c.Question, Before: sumsText(c.Before), After: sumsText(c.After), MostBefore: c.MostBefore,
		MostAfter: c.MostAfter,
	}
}

func sumsText(sums map[string]int) string {
	var list []string
	for _, answer := range slices.Sorted(maps.Keys(sums)) {
		list = append(list, fmt.Sprintf("%s:%d", answer, sums[answer]))
	}
	return strings.Join(list, " ")
}

// sumsOf reads sums as they are stored; what cannot be read is left out.
func sumsOf(text string) map[string]int {
	sums := map[string]int{}
	for one := range strings.FieldsSeq(text) {
		answer, people, _ := strings.Cut(one, ":")
		if n, err := strconv.Atoi(people); err == nil && n > 0 {
			sums[answer] += n
		}
	}
	return sums
}

// PutCheckIn stores a check-in, and returns it with its id. One with an id takes the place of what is stored.
func (s *Store) PutCheckIn(c CheckIn) (CheckIn, error) {
	row := toCheckInRow(c)
	err := s.db.Save(&row).Error
	return row.checkIn(), plainly(err)
}

// CheckInOfClass returns the check-in of a class, or ErrNotFound.
func (s *Store) CheckInOfClass(class int64) (CheckIn, error) {
	return s.checkIn(s.read.Where("class_id = ?", class))
}

// CheckInOfPlan returns what is asked for a plan whose class has not begun, of those that were opened then or later, or
// ErrNotFound.
func (s *Store) CheckInOfPlan(plan int64, from time.Time) (CheckIn, error) {
	return s.checkIn(s.read.Where("plan_id = ? AND class_id IS NULL AND opened_at >= ?", plan,
		from.UTC()).Order("id DESC"))
}

// CheckInsOfGroup returns the check-ins of the classes of a group that are there and began then or later, by their
// class.
func (s *Store) CheckInsOfGroup(group int64, from time.Time) (map[int64]CheckIn, error) {
	var rows []checkInRow
	err := s.read.Where(
		"class_id IN (SELECT id FROM classes WHERE group_id = ? AND started_at >= ? AND deleted_at IS NULL)", group,
		from.UTC(),
	).Find(&rows).Error
	all := map[int64]CheckIn{}
	for _, r := range rows {
		all[r.ClassID.Int64] = r.checkIn()
	}
	return all, plainly(err)
}

func (s *Store) checkIn(query *gorm.DB) (CheckIn, error) {
	var row checkInRow
	err := query.Take(&row).Error
	return row.checkIn(), plainly(err)
}

// AddToCheckIn counts one answer, before or after, or returns ErrFull where as many have answered as screens were
// there.
func (s *Store) AddToCheckIn(id int64, after bool, answer string, screens int) error {
	return plainly(s.db.Transaction(func(db *gorm.DB) error {
		var row checkInRow
		if err := db.Take(&row, id).Error; err != nil {
			return err
		}
		c := row.checkIn()
		sums, most := c.Before, &c.MostBefore
		if after {
			sums, most = c.After, &c.MostAfter
		}
		*most = max(*most, screens)
		if People(sums) >= *most {
			return ErrFull
		}
		sums[answer]++
		row = toCheckInRow(c)
		return db.Save(&row).Error
	}))
}
