package practice

import (
	"vastlantern/core/breath"
	"vastlantern/core/fact"
)

// Amount is how much of a practice there is in one class: rounds, or minutes with the rests.
type Amount struct {
	Rounds  int `yaml:"rounds"`
	Minutes int `yaml:"minutes"`
}

// Bounds is how much of a practice is usual in one class, which is the most for beginners, and the most of all, for
// experienced groups (handbook.md section 4, common practice with no source). What is proposed stays within; a teacher
// may write more.
type Bounds struct {
	With  With   `yaml:"with"`
	Usual Amount `yaml:"usual"`
	Most  Amount `yaml:"most"`
}

// With is for which counts bounds hold.
type With string

// The counts that may have bounds of their own.
const (
	WithAny    With = ""
	WithHold   With = "hold"   // with a hold, full or empty
	WithSquare With = "square" // with a full and an empty hold
)

// AllBounds is the bounds of a practice: those for all counts before those for some.
type AllBounds []Bounds

// without is the bounds of a practice that gives none: those of an even breath.
var without = Bounds{Usual: Amount{Minutes: 3}, Most: Amount{Minutes: 10}}

// Of returns the bounds for these counts: the last that hold for them.
func (all AllBounds) Of(c breath.Counts) Bounds {
	bounds := without
	for _, one := range all {
		if one.With == WithAny || one.With == WithHold && c.Holds() || one.With == WithSquare && c.Hold > 0 && c.Empty > 0 {
			bounds = one
		}
	}
	return bounds
}

// For returns the most for a group of the level; for one that is not known it is the most of all.
func (b Bounds) For(level string) Amount {
	if level == Levels[0] {
		return b.Usual
	}
	return b.Most
}

func (b Bounds) check() error {
	switch b.With {
	case WithAny, WithHold, WithSquare:
	default:
		return fact.New("practice.with", "given", b.With)
	}
	for _, n := range []struct {
		field string
		given Amount
	}{{"usual", b.Usual}, {"most", b.Most}} {
		if (n.given.Rounds < 1) == (n.given.Minutes < 1) || n.given.Rounds > mostRounds || n.given.Minutes > mostMinutes {
			return fact.New(
				"practice.bounds",
				"field",
				n.field,
				"rounds",
				n.given.Rounds,
				"minutes",
				n.given.Minutes,
				"mostRounds",
				mostRounds,
				"mostMinutes",
				mostMinutes,
			)
		}
	}
	return nil
}
