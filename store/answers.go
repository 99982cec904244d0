package store

import (
	"errors"
	"fmt"
	"maps"
	"slices"
	"strconv"
	"strings"

	"gorm.io/gorm"
	"gorm.io/gorm/clause"
)

// Answers holds the sums of what people answered after a class. Who answered, from where or when is not stored.
type Answers struct {
	Most                 int // no more are taken
	Easy, Right, TooMuch int
	Main, Beside         int // of these, those who told which lane they took
	// Amounts are the rounds or strokes that people counted at own pace: by the number, how many told it.
	Amounts map[int]int
}

// Given returns the number of answers.
func (a Answers) Given() int { return a.Easy + a.Right + a.TooMuch }

// add returns the sums with one more answer.
func (a Answers) add(more Answers) Answers {
	return Answers{
		a.Most,
		a.Easy + more.Easy,
		a.Right + more.Right,
		a.TooMuch + more.TooMuch,
		a.Main + more.Main,
		a.Beside + more.Beside,
		addAmounts(a.Amounts, more.Amounts),
	}
}

func addAmounts(a, b map[int]int) map[int]int {
	sum := maps.Clone(a)
	for amount, people := range b {
		if sum == nil {
			sum = map[int]int{}
		}
		sum[amount] += people
	}
	return sum
}

// amountsText writes amounts as they are stored: "60:2 110:1".
func amountsText(amounts map[int]int) string {
	var list []string
	for _, amount := range slices.Sorted(maps.Keys(amounts)) {
		list = append(list, fmt.Sprintf("%d:%d", amount, amounts[amount]))
	}
	return strings.Join(list, " ")
}

// amountsOf reads amounts as they are stored; what cannot be read is left out.
func amountsOf(text string) map[int]int {
	var amounts map[int]int
	for one := range strings.FieldsSeq(text) {
		number, people, _ := strings.Cut(one, ":")
		amount, err := strconv.Atoi(number)
		n, errPeople := strconv.Atoi(people)
		if err != nil || errPeople != nil || n < 1 {
			continue
		}
		if amounts == nil {
			amounts = map[int]int{}
		}
		amounts[amount] += n
	}
	return amounts
}

// ErrFull means that no more answers are accepted.
var ErrFull = errors.New("no more answers are taken")

type answersRow struct {
	ClassID int64 `gorm:"primaryKey"`
	Most    int
	Easy    int
	Right   int
	TooMuch int
	Main    int
	Beside  int
	Amounts string
}

func (answersRow) TableName() string { return "answers" }

// Ask takes answers after a class from now on, at most so many. Where that is so already nothing changes.
func (s *Store) Ask(class int64, most int) error {
	return plainly(s.db.Clauses(clause.OnConflict{DoNothing: true}).Create(&answersRow{ClassID: class, Most: most}).Error)
}

// Answers returns the sums of a class, or ErrNotFound where nobody was asked. Sums that cannot be read are noted, and
// then nobody was asked: they are no reason to do without the class.
func (s *Store) Answers(class int64) (Answers, error) {
	var row answersRow
	err := s.unreadable(KindAnswers, class, s.read.Take(&row, class).Error)
	var damaged *UnreadableError
	if errors.As(err, &damaged) {
		err = ErrNotFound
	}
	return Answers{
		row.Most, row.Easy, row.Right, row.TooMuch, row.Main, row.Beside, amountsOf(row.Amounts),
	}, err
}

// AddAnswer adds one answer to the sums of a class, or returns ErrNotFound where nobody was asked, and ErrFull.
func (s *Store) AddAnswer(class int64, one Answers) error {
	return s.changing(class, func(db *gorm.DB) error {
		st := &Store{db: db, read: db, damage: s.damage, settled: s.settled}
		there, err := st.Answers(class)
		switch {
		case err != nil:
			return err
		case there.Given() >= there.Most:
			return ErrFull
		}
		return st.PutAnswers(class, there.add(one))
	})
}

// PutAnswers stores the sums of a class, as from another machine.
func (s *Store) PutAnswers(class int64, a Answers) error {
	row := answersRow{class, a.Most, a.Easy, a.Right, a.TooMuch, a.Main, a.Beside, amountsText(a.Amounts)}
	return plainly(s.db.Save(&row).Error)
}
