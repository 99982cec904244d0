package taught

import "vastlantern/core/fact"

// Told is what is known of those who breathed: sums, never who (handbook.md section 9). Attended and Gentler are as the
// teacher counted, and 0 if nobody did.
type Told struct {
	Easy, Right, TooMuch int  // what was answered on the phones afterwards
	Main, Beside         int  // of these, those who told which lane they took
	Attended             int  // how many there were
	Gentler              int  // how many took the gentler lane
	HomeTooMuch          bool // what was given to do at home was too much
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
