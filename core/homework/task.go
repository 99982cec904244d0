// Package homework holds home practice: what people practise between two classes, how much of it each day, and how it
// grows over days, weeks or months (handbook.md section 9).
package homework

import (
	"time"
	"unicode/utf8"

	"vastlantern/core/breath"
	"vastlantern/core/fact"
	"vastlantern/core/plan"
	"vastlantern/core/taught"
)

// Task is how much of a practice goes home, and how it is to be done there. What is practised is a plan of one passage.
type Task struct {
	Minutes  int     // a day
	Pieces   int     // in which they are taken
	Days     int     // 0 if they are left open; with steps these say how long
	When     string  // in the day; empty if it does not matter
	Evening  Evening // whether there is a second time in the evening
	Begins   string  // the calendar day that is day 1, as 2026-11-30; empty if it is not known
	Sentence string  // of the teacher's own
	Ask      string  // whom to ask, and how to reach them; empty if that is the teacher
	Steps    []Step  // how it grows; none if every day is alike
}

// Evening is how much is done again in the evening.
type Evening string

// What an evening can have.
const (
	NoEvening   Evening = ""
	SameEvening Evening = "same"
	HalfEvening Evening = "half" // of the rounds or minutes, rounded up to whole rounds
)

// Bounds of what goes home. The ceiling of thirty minutes is the handbook's, the others are ours.
const (
	MaxMinutes = 30
	MaxPieces  = 10
	MaxDays    = 90
	MaxSteps   = 20

	maxWhen     = 60
	maxSentence = 300
	maxAsk      = 120
	maxSays     = 200
)

// Check returns what is wrong with it; empty if nothing is. Whether a step can be read is told by Set.
func (t Task) Check() (wrong []fact.Fact) {
	for _, of := range []struct {
		message            string
		given, least, most int
	}{
		{"home.minutes", t.Minutes, 1, MaxMinutes}, {"home.pieces", t.Pieces, 1, MaxPieces},
		{"home.days", t.Days, 0, MaxDays}, {"home.steps", len(t.Steps), 0, MaxSteps},
	} {
		if of.given < of.least || of.given > of.most {
			wrong = append(wrong, fact.New(of.message, "given", of.given, "least", of.least, "most", of.most))
		}
	}
	for _, of := range []struct {
		message, given string
		most           int
	}{
		{"home.when-long", t.When, maxWhen}, {"home.sentence-long", t.Sentence, maxSentence},
		{"home.ask-long", t.Ask, maxAsk},
	} {
		if n := utf8.RuneCountInString(of.given); n > of.most {
			wrong = append(wrong, fact.New(of.message, "given", n, "most", of.most))
		}
	}
	if t.Evening != NoEvening && t.Evening != SameEvening && t.Evening != HalfEvening {
		wrong = append(wrong, fact.New("home.evening", "given", t.Evening))
	}
	if _, err := time.Parse(time.DateOnly, t.Begins); t.Begins != "" && err != nil {
		wrong = append(wrong, fact.New("home.begins", "given", t.Begins))
	}
	if len(t.Steps) > MaxSteps { // that is said above: each of too many is not looked at
		return wrong
	}
	for i := range t.Steps {
		wrong = append(wrong, t.Steps[i].check(i+1, i+1 == len(t.Steps))...)
	}
	return wrong
}

// Amount returns it as a teacher says it: "10 minutes a day, in 5 pieces, for 7 days, in the morning". What grows says
// in its steps how much.
func (t Task) Amount() fact.Fact {
	parts := []fact.Fact{fact.New("home.a-day", "minutes", t.Minutes)}
	if len(t.Steps) > 0 {
		parts = []fact.Fact{fact.New("home.grows", "steps", len(t.Steps))}
	}
	if t.Pieces > 1 {
		parts = append(parts, fact.New("home.in-pieces", "pieces", t.Pieces))
	}
	if days := t.TotalDays(); days > 0 {
		parts = append(parts, fact.New("home.for-days", "days", days))
	}
	if t.When != "" {
		parts = append(parts, fact.New("name", "name", t.When))
	}
	if t.Evening != NoEvening {
		parts = append(parts, fact.New("home.evening-"+string(t.Evening)))
	}
	return fact.New("home.amount", "parts", parts)
}

// Piece returns how long one piece is, in milliseconds.
func (t Task) Piece() breath.Exact { return breath.Ratio(int64(t.Minutes)*60_000, int64(t.Pieces)) }

// Rounds returns how many whole rounds of the passage come nearest to a piece, with the rests between them and with
// what is before and after; at least one.
func (t Task) Rounds(p *plan.Passage) int {
	between := p.BetweenSpan(p.Measure)
	each := p.RoundSpan(p.Measure).Add(between)
	if each.Sign() <= 0 {
		return 1
	}
	around := p.PlannedLength().Add(between).Sub(each.Times(p.TotalRounds(p.Measure)))
	return int(min(max(t.Piece().Add(between).Sub(around).Div(each).Round(), 1), plan.MaxRounds))
}

// Plan makes of the document, whose plan is p, a plan of the passage of the number alone, as one piece of it is
// practised at home: at these counts or strokes and this tempo, where they are given.
func (t Task) Plan(doc plan.Document, p *plan.Plan, number int, at taught.Next) error {
	in := &p.Passages[number-1]
	fields := doc.Passages()[number-1].Alone(in)
	one, err := plan.OneAt(in.PlanTempo, fields, in.Practice)
	if err != nil {
		return err
	}
	at.Rounds = one.TotalRounds(one.Measure)
	at.Apply(fields, &one)
	if err := t.fit(fields, in); err != nil {
		return err
	}
	doc.Only(fields, in.Name())
	return nil
}

// fit gives the fields of the passage as many rounds, or minutes, as fit a piece.
func (t Task) fit(fields plan.Fields, in *plan.Passage) error {
	one, err := plan.OneAt(in.PlanTempo, fields, in.Practice)
	if err != nil {
		return err
	}
	if one.Practice.FillsMinutes() {
		fields.SetMinutes(t.Piece().Div(breath.Int(60_000)))
	} else {
		fields.SetRounds(t.Rounds(&one))
	}
	return nil
}

// Usual returns what is proposed of a passage that lasts so long in class, in milliseconds: as much a day, in whole
// minutes, for a week.
func Usual(length int64) Task {
	const least, most = 3, 10 // the first months of handbook.md section 9
	return Task{Minutes: int(min(max((length+30_000)/60_000, least), most)), Pieces: 1, Days: 7}
}
