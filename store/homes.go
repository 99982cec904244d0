package store

import (
	"database/sql"
	"time"

	"gorm.io/gorm"
)

// Home is a practice that was given to do at home. Document is a plan file of one passage.
type Home struct {
	ID         int64
	UID        string // the same on every machine; given by the store where it is empty
	ClassID    int64  // 0 if it was given with a plan, before any class
	PlanID     int64  // 0 if the plan is gone
	GroupID    int64
	GivenAt    time.Time
	Document   []byte
	Minutes    int // a day
	Pieces     int
	Days       int    // 0 if they are left open
	When       string // in the day
	Evening    string // how much is done again in the evening; empty for none
	Begins     string // the calendar day that is day 1, as 2026-11-30; empty if it is not known
	Sentence   string
	Ask        string // whom to ask
	Steps      []byte // how it grows, as JSON; empty if every day is alike
	Answer     string // how it was; empty if that is not known
	AnsweredAt time.Time
	Revision   int64 // one more with each answer
}

type homeRow struct {
	ID         int64
	UID        string
	ClassID    sql.NullInt64
	PlanID     sql.NullInt64
	GroupID    sql.NullInt64
	GivenAt    time.Time
	Document   string
	Minutes    int
	Pieces     int
	Days       int
	DayPart    string
	Evening    string
	Begins     string
	Sentence   string
	Ask        string
	Steps      string
	Answer     string
	AnsweredAt sql.NullTime
	Revision   int64
}

func (r homeRow) number() int64 { return r.ID }

func (r homeRow) moments() []time.Time { return []time.Time{r.GivenAt, r.AnsweredAt.Time} }

func (homeRow) TableName() string { return "homes" }

func (r homeRow) home() Home {
	return Home{
		ID:         r.ID,
		UID:        r.UID,
		ClassID:    r.ClassID.Int64,
		PlanID:     r.PlanID.Int64,
		GroupID:    r.GroupID.Int64,
		GivenAt:    r.GivenAt.UTC(),
		Document:   []byte(r.Document),
		Minutes:    r.Minutes,
		Pieces:     r.Pieces,
		Days:       r.Days,
		When:       r.DayPart,
		Evening:    r.Evening,
		Begins:     r.Begins,
		Sentence:   r.Sentence,
		Ask:        r.Ask,
		Steps:      []byte(r.Steps),
		Answer:     r.Answer,
		AnsweredAt: timeOf(r.AnsweredAt),
		Revision:   r.Revision,
	}
}

// AddHome stores what was given and returns it with its id, and with a uid where it had none. ErrNotFound says that its
// class, plan or group is gone.
func (s *Store) AddHome(h Home) (Home, error) {
	row := homeRow{
		UID:        named(h.UID),
		ClassID:    reference(h.ClassID),
		PlanID:     reference(h.PlanID),
		GroupID:    reference(h.GroupID),
		GivenAt:    h.GivenAt.UTC(),
		Document:   string(h.Document),
		Minutes:    h.Minutes,
		Pieces:     h.Pieces,
		Days:       h.Days,
		DayPart:    h.When,
		Evening:    h.Evening,
		Begins:     h.Begins,
		Sentence:   h.Sentence,
		Ask:        h.Ask,
		Steps:      string(h.Steps),
		Answer:     h.Answer,
		AnsweredAt: moment(h.AnsweredAt),
		Revision:   1,
	}
	err := s.db.Create(&row).Error
	return row.home(), plainly(err)
}

// Home is one that was given, or ErrNotFound.
func (s *Store) Home(id int64) (Home, error) {
	var row homeRow
	err := s.read.Take(&row, id).Error
	return row.home(), plainly(err)
}

// HomeOf returns the one of the uid, or ErrNotFound.
func (s *Store) HomeOf(uid string) (Home, error) {
	var row homeRow
	err := s.read.Take(&row, "uid = ?", uid).Error
	return row.home(), plainly(err)
}

// AnswerHome notes how it was, in the place of the answer of one revision. ErrTaken says that somebody answered before,
// ErrNotFound that it is not there.
func (s *Store) AnswerHome(id, revision int64, answer string, at time.Time) error {
	row := homeRow{Answer: answer, AnsweredAt: moment(at), Revision: revision + 1}
	return saveSome(s.db.Model(&homeRow{}).Where("id = ?", id), revision, &row, "answer", "answered_at", "revision")
}

// TakeBackHome removes what was given by mistake, or says ErrNotFound.
func (s *Store) TakeBackHome(id int64) error {
	removed := s.db.Delete(&homeRow{}, id)
	if removed.Error == nil && removed.RowsAffected == 0 {
		return ErrNotFound
	}
	return plainly(removed.Error)
}

// there leaves out what was given in classes that were deleted.
func (s *Store) there() *gorm.DB {
	return s.read.Where("class_id IS NULL OR class_id NOT IN (SELECT id FROM classes WHERE deleted_at IS NOT NULL)").
		Order("given_at DESC, id DESC")
}

// HomesOfGroup returns what the group was given, the latest first, at most so many.
func (s *Store) HomesOfGroup(group int64, most int) ([]Home, error) {
	return s.homes(s.there().Where("group_id = ?", group).Limit(most))
}

// HomesOfClass returns what was given in the class, or with its plan before any class.
func (s *Store) HomesOfClass(class, plan int64) ([]Home, error) {
	return s.homes(s.there().Where("class_id = ? OR class_id IS NULL AND plan_id = ?", class, reference(plan)))
}

// HomesOfPlan returns what was given with the plan.
func (s *Store) HomesOfPlan(plan int64) ([]Home, error) {
	return s.homes(s.there().Where("plan_id = ?", plan))
}

// EveryHome returns all that was ever given, in the order in which it was.
func (s *Store) EveryHome() ([]Home, error) { return s.homes(s.read.Order("id")) }

func (s *Store) homes(query *gorm.DB) ([]Home, error) {
	rows, err := readable[homeRow](s, KindHome, "id", query)
	list := make([]Home, len(rows))
	for i, r := range rows {
		list[i] = r.home()
	}
	return list, err
}
