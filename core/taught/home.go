package taught

import (
	"cmp"
	"slices"
	"unicode/utf8"

	"vastlantern/core/breath"
	"vastlantern/core/fact"
	"vastlantern/core/plan"
)

// Home is how much of a practice goes home, and how it is to be done there (handbook.md section 9). What it is a plan
// of one passage tells.
type Home struct {
	Minutes  int    // a day
	Pieces   int    // in which they are taken
	Days     int    // 0 if they are left open
	When     string // in the day; empty if it does not matter
	Sentence string // of the teacher's own
}

// Bounds of what goes home. The ceiling of thirty minutes is the handbook's, the others are ours.
const (
	MostHomeMinutes = 30
	MostHomePieces  = 10
	MostHomeDays    = 90
	longestWhen     = 60
	longestSentence = 300
)

// Check returns what is wrong with it; empty if nothing is.
func (h Home) Check() (wrong []fact.Fact) {
	for _, of := range []struct {
		message            string
		given, least, most int
	}{
		{"home.minutes", h.Minutes, 1, MostHomeMinutes}, {"home.pieces", h.Pieces, 1, MostHomePieces},
		{"home.days", h.Days, 0, MostHomeDays},
	} {
		if of.given < of.least || of.given > of.most {
			wrong = append(wrong, fact.New(of.message, "given", of.given, "least", of.least, "most", of.most))
		}
	}
	for _, of := range []struct {
		message, given string
		most           int
	}{{"home.when-long", h.When, longestWhen}, {"home.sentence-long", h.Sentence, longestSentence}} {
		if n := utf8.RuneCountInString(of.given); n > of.most {
			wrong = append(wrong, fact.New(of.message, "given", n, "most", of.most))
		}
	}
	return wrong
}

// Amount returns it as a teacher says it: "10 minutes a day, in 5 pieces, for 7 days, in the morning".
func (h Home) Amount() fact.Fact {
	parts := []fact.Fact{fact.New("home.a-day", "minutes", h.Minutes)}
	if h.Pieces > 1 {
		parts = append(parts, fact.New("home.in-pieces", "pieces", h.Pieces))
	}
	if h.Days > 0 {
		parts = append(parts, fact.New("home.for-days", "days", h.Days))
	}
	if h.When != "" {
		parts = append(parts, fact.New("name", "name", h.When))
	}
	return fact.New("home.amount", "parts", parts)
}

// Piece returns how long one piece is, in milliseconds.
func (h Home) Piece() breath.Exact { return breath.Ratio(int64(h.Minutes)*60_000, int64(h.Pieces)) }

// Rounds returns how many whole rounds of the passage come nearest to a piece, with the rests between them and with
// what is before and after; at least one.
func (h Home) Rounds(p *plan.Passage) int {
	between := p.BetweenSpan(p.Measure)
	each := p.RoundSpan(p.Measure).Add(between)
	if each.Sign() <= 0 {
		return 1
	}
	around := p.PlannedLength().Add(between).Sub(each.Times(p.TotalRounds(p.Measure)))
	return int(min(max(h.Piece().Add(between).Sub(around).Div(each).Round(), 1), plan.MaxRounds))
}

// Plan makes of the document, whose plan is p, a plan of the passage of the number alone, as one piece of it is
// practised at home: at these counts or strokes and this tempo, where they are given.
func (h Home) Plan(doc plan.Document, p *plan.Plan, number int, at Next) error {
	in := &p.Passages[number-1]
	fields := doc.Passages()[number-1].Alone(in)
	one, err := plan.OneAt(in.PlanTempo, fields, in.Practice)
	if err != nil {
		return err
	}
	at.Rounds = one.TotalRounds(one.Measure)
	at.Apply(fields, &one)
	if one, err = plan.OneAt(in.PlanTempo, fields, in.Practice); err != nil {
		return err
	}
	if one.Practice.FillsMinutes() {
		fields.SetMinutes(h.Piece().Div(breath.Int(60_000)))
	} else {
		fields.SetRounds(h.Rounds(&one))
	}
	doc.Only(fields, in.Name())
	return nil
}

// UsualHome returns what is proposed of a passage that lasts so long in class, in milliseconds: as much a day, in whole
// minutes, for a week.
func UsualHome(length int64) Home {
	const least, most = 3, 10 // the first months of handbook.md section 9
	return Home{Minutes: int(min(max((length+30_000)/60_000, least), most)), Pieces: 1, Days: 7}
}

// CanGoHome returns the passages of a class that can go home, by their numbers, the one that was the point of the class
// first: the one that the plan says was; else, of the figure on which it stayed longest at a stretch, the longest
// passage, which is never a try-out; of several as long the one that asks for most, and rather the last. Practices that
// settle come last. lengths is how long each passage was led, in milliseconds.
func CanGoHome(p *plan.Plan, lengths []int64) []int {
	type figure struct{ practice, pattern string }
	type candidate struct {
		number   int
		point    bool
		settling bool
		length   int64
		stay     int64 // on its figure, with the passages before and after that have the same
		held     breath.Exact
	}
	of := func(i int) figure { return figure{p.Passages[i].Practice.ID, p.Passages[i].Pattern()} }
	var list []candidate
	for i := range p.Passages {
		one := &p.Passages[i]
		if one.Practice == nil || one.Trial || lengths[i] == 0 {
			continue
		}
		list = append(
			list,
			candidate{
				number: i + 1, point: one.Point, settling: one.Practice.Settling, length: lengths[i],
				held: one.Figures().LongestHold,
			},
		)
	}
	for from := 0; from < len(list); {
		to, stay := from, int64(0)
		for ; to < len(list) && of(list[to].number-1) == of(list[from].number-1); to++ {
			stay += list[to].length
		}
		for ; from < to; from++ {
			list[from].stay = stay
		}
	}
	slices.SortStableFunc(list, func(a, b candidate) int {
		return cmp.Or(
			later(b.point, a.point), later(a.settling, b.settling),
			-cmp.Compare(a.stay, b.stay), -cmp.Compare(a.length, b.length), -a.held.Cmp(b.held),
			-cmp.Compare(a.number, b.number),
		)
	})
	numbers := make([]int, len(list))
	for i, c := range list {
		numbers[i] = c.number
	}
	return numbers
}

// later puts what is so behind what is not.
func later(a, b bool) int {
	switch {
	case a == b:
		return 0
	case a:
		return 1
	}
	return -1
}
