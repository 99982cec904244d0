package taught

import (
	"vastlantern/core/breath"
	"vastlantern/core/fact"
	"vastlantern/core/plan"
)

// Told is what is known of those who breathed: sums, never who (handbook.md section 9). Attended and Gentler are as the
// teacher counted, and 0 if nobody did.
type Told struct {
	Easy, Right, TooMuch int      // what was answered on the phones afterwards
	Main, Beside         int      // of these, those who told which lane they took
	Amounts              []Amount // of these, what those counted who breathed at own pace, the least first
	Attended             int      // how many there were
	Gentler              int      // how many took the gentler lane
	HomeTooMuch          bool     // what was given to do at home was too much
}

// Amount is a number of rounds or strokes, and how many people told it.
type Amount struct{ Number, People int }

// Counted returns how many told what they counted, and the least, the most and the median of it; the median of two
// numbers in the middle is halfway between. All are 0 if nobody told it.
func (t Told) Counted() (people, least, most int, median breath.Exact) {
	for _, a := range t.Amounts {
		people += a.People
	}
	if people == 0 {
		return 0, 0, 0, breath.Exact{}
	}
	at := func(place int) int { // the number in a place, from 0
		for _, a := range t.Amounts {
			if place -= a.People; place < 0 {
				return a.Number
			}
		}
		return 0
	}
	median = breath.Ratio(int64(at((people-1)/2)+at(people/2)), 2)
	return people, t.Amounts[0].Number, t.Amounts[len(t.Amounts)-1].Number, median
}

// CountedAlone returns what people can count at own pace in a class, "rounds" or "strokes": that of the first such
// passage; empty if there is none.
func CountedAlone(p *plan.Plan) string {
	for i := range p.Passages {
		switch one := &p.Passages[i]; {
		case one.Type != plan.Practice || !one.OwnPace:
		case one.CountsStrokes():
			return "strokes"
		case one.TakesCounts():
			return "rounds"
		}
	}
	return ""
}

// Answered returns how many told how it was.
func (t Told) Answered() int { return t.Easy + t.Right + t.TooMuch }

// Unready returns why a room is not ready for a step, as a clause; none if nothing speaks against one. A quarter or
// more for whom it was too much is the handbook's; a third or more on the gentler lane is common practice with no
// source.
func (t Told) Unready() fact.Fact {
	if of := t.Answered(); t.TooMuch > 0 && 4*t.TooMuch >= of {
		return fact.New("unrest.too-much", "some", t.TooMuch, "of", of)
	}
	if took, of := t.TookBeside(); took > 0 && 3*took >= of {
		return fact.New("unrest.lane", "some", took, "of", of)
	}
	if t.HomeTooMuch {
		return fact.New("unrest.home")
	}
	return fact.Fact{}
}

// TookBeside returns how many took the gentler lane, and of how many: as the teacher counted, else as the phones told.
// 0 of 0 if nobody knows.
func (t Told) TookBeside() (took, of int) {
	if t.Gentler > 0 && t.Attended >= t.Gentler {
		return t.Gentler, t.Attended
	}
	return t.Beside, t.Main + t.Beside
}
