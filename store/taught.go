package store

import (
	"context"
	"database/sql"
	"strings"
	"time"

	"vastlantern/core/fact"

	"gorm.io/gorm"
	"gorm.io/gorm/clause"

	"vastlantern/core/fold"
)

// Remark is something that was added to a record afterwards.
type Remark struct {
	ID   int64
	At   time.Time
	Kind string
	Text string
}

// Digest is what lists and searches need of a class.
type Digest struct {
	ClassID   int64
	Over      bool // the class has come to its end, so that the digest holds
	Title     string
	LengthMS  int64
	Headlines []string // its practices in a few words
	Practices []string // their ids
	Eased     bool     // something was made easier for the room
	Words     string   // what is searched
	Record    []byte   // JSON: the passages as they were taught
	Told      []byte   // JSON: what those who breathed told
	Sum       []byte   // JSON: what it adds to sums
	Damaged   string   // why the class cannot be read, as fact.Text; it is left out of lists then
}

// Listed is a class in a list, without its document.
type Listed struct {
	Class
	Digest Digest
}

// Search is what classes are asked for; what is zero is not asked.
type Search struct {
	Group    int64
	Practice string
	From, To time.Time // of the start
	Eased    *bool
	Words    []string // each somewhere in the titles, notes and remarks
	Over     bool     // only those that have come to their end
	Records  bool     // with the passages as they were taught, which are long
	Sums     bool     // with what they add to sums
	Skip     int
	Most     int
}

type remarkRow struct {
	ID      int64
	ClassID int64
	At      time.Time
	Kind    string
	Text    string
}

func (remarkRow) TableName() string { return "remarks" }

type digestRow struct {
	ClassID   int64 `gorm:"primaryKey"`
	Over      bool
	Title     string
	LengthMS  int64
	Headlines []string `gorm:"serializer:json"`
	Practices string
	Eased     bool
	Words     string
	Record    string
	Told      string
	Sum       string
	Damaged   string
}

func (digestRow) TableName() string { return "digests" }

// listedRow is a row of classes with its digest.
type listedRow struct {
	ID        int64
	PlanID    sql.NullInt64
	GroupID   sql.NullInt64
	StartedAt time.Time
	Over      bool
	Title     string
	LengthMS  int64
	Headlines []string `gorm:"serializer:json"`
	Practices string
	Eased     bool
	Words     string
	Record    string
	Told      string
	Sum       string
}

func (r listedRow) number() int64 { return r.ID }

func (r listedRow) moments() []time.Time { return []time.Time{r.StartedAt} }

func (listedRow) TableName() string { return "classes" }

// Remarks returns what was added to the record of a class, in order.
func (s *Store) Remarks(class int64) ([]Remark, error) {
	var rows []remarkRow
	err := s.read.Where("class_id = ?", class).Order("id").Find(&rows).Error
	list := make([]Remark, len(rows))
	for i, r := range rows {
		list[i] = Remark{r.ID, r.At.UTC(), r.Kind, r.Text}
	}
	return list, plainly(err)
}

// NewestRemarks returns the text of the newest remark of a kind, by class, of the classes that began in that time: an
// empty one where it was taken back.
func (s *Store) NewestRemarks(kind string, from, to time.Time) (map[int64]string, error) {
	var rows []remarkRow
	err := s.read.Where("kind = ? AND class_id IN (SELECT id FROM classes WHERE started_at >= ? AND started_at < ? AND "+
		"deleted_at IS NULL)", kind, from.UTC(), to.UTC()).
		Order("id").
		Find(&rows).
		Error
	newest := map[int64]string{}
	for _, r := range rows {
		newest[r.ClassID] = r.Text
	}
	return newest, plainly(err)
}

// AddRemark adds to the record of a class, or returns ErrNotFound.
func (s *Store) AddRemark(class int64, r Remark) error {
	return s.changing(class, func(db *gorm.DB) error {
		return db.Create(&remarkRow{ClassID: class, At: r.At.UTC(), Kind: r.Kind, Text: r.Text}).Error
	})
}

// ReplaceRemark adds what takes the place of the newest remark of its kind, whose id is newest, or 0 if there is none.
// ErrTaken says that there is a newer one.
func (s *Store) ReplaceRemark(class int64, r Remark, newest int64) error {
	return s.changing(class, func(db *gorm.DB) error {
		var id int64
		found := db.Model(&remarkRow{}).
			Where("class_id = ? AND kind = ?", class, r.Kind).
			Select("coalesce(max(id), 0)").
			Scan(&id)
		switch {
		case found.Error != nil:
			return found.Error
		case id > newest:
			return ErrTaken
		}
		return db.Create(&remarkRow{ClassID: class, At: r.At.UTC(), Kind: r.Kind, Text: r.Text}).Error
	})
}

// changing changes something of a class, whose digest is to be made anew.
func (s *Store) changing(class int64, change func(*gorm.DB) error) error {
	return plainly(s.db.Transaction(func(db *gorm.DB) error {
		if err := db.Model(&digestRow{}).Where("class_id = ?", class).Update("over", false).Error; err != nil {
			return err
		}
		return change(db)
	}))
}

// SaveDigest keeps what was worked out of a class.
func (s *Store) SaveDigest(d Digest) error {
	headlines := append([]string{}, d.Headlines...) // a missing list is written as an empty one
	row := digestRow{
		d.ClassID,
		d.Over,
		d.Title,
		d.LengthMS,
		headlines,
		" " + strings.Join(d.Practices, " ") + " ",
		d.Eased,
		strings.ToLower(d.Words),
		string(d.Record),
		string(d.Told),
		string(d.Sum),
		d.Damaged,
	}
	return plainly(s.db.Clauses(clause.OnConflict{UpdateAll: true}).Create(&row).Error)
}

// Undigested returns the numbers of the classes that have come to their end and whose digest is missing or of before,
// at most so many; those too that cannot be read, whose digest says so.
func (s *Store) Undigested(most int) (ids []int64, err error) {
	err = s.read.Model(&classRow{}).
		Where("ended_at IS NOT NULL AND id NOT IN (SELECT class_id FROM digests WHERE over = 1)").
		Order("started_at DESC, id DESC").
		Limit(most).
		Pluck("id", &ids).
		Error
	return ids, plainly(err)
}

// WithoutDigest returns how many classes are not in lists yet.
func (s *Store) WithoutDigest() (n int64, err error) {
	// There is no digest without its class: two counts need not look for each of thousands.
	err = s.read.Raw("SELECT (SELECT count(*) FROM classes) - (SELECT count(*) FROM digests)").Scan(&n).Error
	return n, plainly(err)
}

// DamagedClasses returns the classes that cannot be read, as their digests say.
func (s *Store) DamagedClasses() ([]Damaged, error) {
	var rows []digestRow
	err := s.read.Where("damaged <> ''").Order("class_id").Find(&rows).Error
	list := make([]Damaged, len(rows))
	for i, r := range rows {
		list[i] = Damaged{Kind: KindClass, ID: r.ClassID, Why: fact.FromText(r.Damaged)}
	}
	return list, plainly(err)
}

// Find returns the classes that are asked for, the newest first. Classes without a digest and damaged ones are not
// found. A search that takes longer than the context allows is given up.
func (s *Store) Find(ctx context.Context, search Search) ([]Listed, error) {
	columns := "classes.id, classes.plan_id, classes.group_id, classes.started_at, over, title, length_ms, headlines, " +
		"practices, eased"
	if search.Records {
		columns += ", record, told"
	}
	if search.Sums {
		columns += ", sum"
	}
	query := s.read.WithContext(ctx).Table("classes").Select(columns).
		Joins("JOIN digests ON digests.class_id = classes.id").
		Where("classes.deleted_at IS NULL AND digests.damaged = ''").Order("classes.started_at DESC, classes.id DESC")
	if search.Group != 0 {
		query = query.Where("classes.group_id = ?", search.Group)
	}
	if search.Practice != "" {
		query = query.Where("instr(digests.practices, ?) > 0", " "+search.Practice+" ")
	}
	if search.Over {
		query = query.Where("+digests.over = 1") // not by its index, which is that of nearly all: by the time
	}
	if !search.From.IsZero() {
		query = query.Where("classes.started_at >= ?", search.From.UTC())
	}
	if !search.To.IsZero() {
		query = query.Where("classes.started_at < ?", search.To.UTC())
	}
	if search.Eased != nil {
		query = query.Where("digests.eased = ?", *search.Eased)
	}
	for _, word := range search.Words {
		query = query.Where("instr(digests.words, ?) > 0", fold.Text(word))
	}
	rows, err := readable[listedRow](s, KindClass, "classes.id", query.Offset(search.Skip).Limit(search.Most))
	list := make([]Listed, len(rows))
	for i, r := range rows {
		list[i] = Listed{
			Class{ID: r.ID, PlanID: r.PlanID.Int64, GroupID: r.GroupID.Int64, StartedAt: r.StartedAt},
			Digest{
				r.ID,
				r.Over,
				r.Title,
				r.LengthMS,
				r.Headlines,
				strings.Fields(r.Practices),
				r.Eased,
				r.Words,
				[]byte(r.Record),
				[]byte(r.Told),
				[]byte(r.Sum),
				"",
			},
		}
	}
	return list, plainly(err)
}
