package homework

import (
	"encoding/json"
	"strings"
	"time"
	"unicode/utf8"

	"vastlantern/core/breath"
	"vastlantern/core/fact"
	"vastlantern/core/plan"
	"vastlantern/core/plan/line"
)

// Step is a stretch of days on which the practice is the same.
type Step struct {
	// Says is what changes from the practice as it was given, as a teacher types it: "x3", "4:4:8", "7 min", "hold 4",
	// "30 strokes". It never adds to the step before.
	Says string `json:"says"`
	For  int    `json:"for"` // so many of Unit; 0, of the last step only, until the teacher says otherwise
	Unit Unit   `json:"unit"`
}

// Unit is what the length of a step is counted in.
type Unit string

// The units.
const (
	Day   Unit = "day"
	Week  Unit = "week"
	Month Unit = "month" // of the calendar, from a day to the same day of another month
)

// PackSteps returns the steps as they are stored, as JSON; empty if there are none.
func PackSteps(steps []Step) ([]byte, error) {
	if len(steps) == 0 {
		return nil, nil
	}
	return json.Marshal(steps)
}

// UnpackSteps returns the steps that PackSteps packed.
func UnpackSteps(packed []byte) (steps []Step, err error) {
	if len(packed) > 0 {
		err = json.Unmarshal(packed, &steps)
	}
	return steps, err
}

// maxFor is the most of each unit that a step lasts: about a year.
var maxFor = map[Unit]int{Day: MaxDays, Week: 52, Month: 12}

func (s *Step) check(number int, last bool) (wrong []fact.Fact) {
	if text := strings.TrimSpace(s.Says); text == "" || utf8.RuneCountInString(text) > maxSays {
		wrong = append(wrong, fact.New("home.step-says", "step", number, "most", maxSays))
	}
	most, known := maxFor[s.Unit]
	switch {
	case !known:
		wrong = append(wrong, fact.New("home.step-unit", "step", number, "given", s.Unit))
	case s.For < 0 || s.For > most, s.For == 0 && !last:
		wrong = append(wrong, fact.New("home.step-for", "step", number, "given", s.For, "most", most))
	}
	return wrong
}

// Stretch is the days of a step, counted from 1.
type Stretch struct {
	First int
	Last  int // 0 if it has no end
}

// Stretches returns the days of each step; of a task without steps those of the whole. A month ends on the day before
// the same day of the next month, or on its last day where that month is too short. Where it is not known which day is
// day 1, a month has 30 days.
func (t Task) Stretches() []Stretch {
	if len(t.Steps) == 0 {
		return []Stretch{{First: 1, Last: t.Days}}
	}
	begins, err := time.Parse(time.DateOnly, t.Begins)
	list := make([]Stretch, len(t.Steps))
	at := calendar{first: begins, known: err == nil}
	for i, s := range t.Steps {
		list[i].First = at.day + 1
		if s.For > 0 {
			at.pass(s)
			list[i].Last = at.day
		}
	}
	return list
}

// TotalDays returns how many days it lasts, 0 if it is left open.
func (t Task) TotalDays() int {
	stretches := t.Stretches()
	return stretches[len(stretches)-1].Last
}

// calendar counts days from the first one.
type calendar struct {
	first  time.Time // at midnight UTC: calendar days have no hours and no time zone
	known  bool
	day    int // that have passed
	anchor int // the day of the month on which months in a row begin, 0 if the step before has none
}

func (c *calendar) pass(s Step) {
	const usualMonth = 30
	if s.Unit != Month {
		c.anchor = 0
	}
	switch {
	case s.Unit == Day:
		c.day += s.For
	case s.Unit == Week:
		c.day += 7 * s.For
	case !c.known:
		c.day += usualMonth * s.For
	default:
		at := c.first.AddDate(0, 0, c.day)
		c.anchor = max(c.anchor, at.Day())
		c.day = int(monthsLater(at, s.For, c.anchor).Sub(c.first) / (24 * time.Hour))
	}
}

// monthsLater returns the day of the month so many months later, or the last day of that month where it has no such
// day.
func monthsLater(at time.Time, months, day int) time.Time {
	first := time.Date(at.Year(), at.Month()+time.Month(months), 1, 0, 0, 0, 0, time.UTC)
	last := first.AddDate(0, 1, -1)
	return first.AddDate(0, 0, min(day, last.Day())-1)
}

// Set makes the document of one passage that was given, whose plan is p, the plan of a step, from 0. Minutes that the
// step says are those of a day and are taken in pieces; rounds are those of a piece. What says neither fills the
// minutes of the task. An error names the step and what was not understood.
func (t Task) Set(doc plan.Document, p *plan.Plan, step int) (*plan.Plan, error) {
	in, says := &p.Passages[0], t.Steps[step].Says
	fail := func(why error) error {
		return fact.Wrap(why, "home.step-unreadable", "step", step+1, "says", says, "why", why)
	}
	// without an amount, to see what the step says of it
	next, err := line.Restate(doc.Passages()[0].WithoutAmount(), says, in.Practice)
	if err != nil {
		return nil, fail(err)
	}
	switch rounds, minutes := next.Amount(); {
	case minutes:
		total, err := plan.OneAt(in.PlanTempo, next, in.Practice)
		if err != nil {
			return nil, fail(err)
		}
		if breath.Int(MaxMinutes).Less(total.Minutes) {
			return nil, fail(fact.New("home.minutes", "given", total.Minutes, "least", 1, "most", MaxMinutes))
		}
		next.SetMinutes(total.Minutes.Div(breath.Int(int64(t.Pieces))))
	case !rounds:
		fill(next, in)
		if err := t.fit(next, in); err != nil {
			return nil, fail(err)
		}
	}
	doc.Replace(1, next)
	read, err := plan.Read(doc)
	if err != nil {
		return nil, fail(err)
	}
	return read, nil
}

// fill gives the fields some length, from which the one that fits is worked out.
func fill(fields plan.Fields, in *plan.Passage) {
	if in.Practice.FillsMinutes() {
		fields.SetMinutes(breath.Int(1))
		return
	}
	fields.SetRounds(1)
}
