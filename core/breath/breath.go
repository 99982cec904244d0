// Package breath holds the vocabulary of breath work: exact time, counts, tempo, phases, and the ways the air goes.
package breath

import (
	"fmt"
	"slices"
	"strconv"
	"strings"

	"vastlantern/core/fact"
)

// Phase is one part of a breath, or one of the other things a row of a class can be (formats.md, cue sheet).
type Phase string

// The phases, in the words of the cue sheet.
const (
	Inhale Phase = "inhale" // puraka
	Hold   Phase = "hold"   // full retention, antara kumbhaka
	Exhale Phase = "exhale" // rechaka
	Empty  Phase = "empty"  // empty retention, bahya kumbhaka
	Still  Phase = "still"  // the natural pause, which is not a hold
	Stroke Phase = "stroke"
	Beat   Phase = "beat"
	Lead   Phase = "lead"
	Free   Phase = "free"
	Talk   Phase = "talk"
)

// The phases by what they are. A new phase is in Phases, and in each of the others that it belongs to.
var (
	// Phases are all of them.
	Phases = []Phase{Inhale, Hold, Exhale, Empty, Still, Stroke, Free, Beat, Lead, Talk}

	// OfABreath are the four parts of a breath in the order of counts: 4:16:8:4 is theirs, and a, b, c and d in a
	// figure. They are also what can be by hand (pacing.md section 7).
	OfABreath = []Phase{Inhale, Hold, Exhale, Empty}

	// OfAFigure are those that a figure is made of, and that a practice can give a word of its own.
	OfAFigure = []Phase{Inhale, Hold, Exhale, Empty, Stroke}

	// Moving are the breaths in and out.
	Moving = []Phase{Inhale, Exhale}
)

// Role returns which of the four counts of a breath are the phase's, from 0; -1 for a phase without any.
func (p Phase) Role() int { return slices.Index(OfABreath, p) }

// Held reports whether p is a retention, full or empty.
func (p Phase) Held() bool { return p == Hold || p == Empty }

// Moves reports whether it is a breath in or out.
func (p Phase) Moves() bool { return slices.Contains(Moving, p) }

// Begins reports whether a breath begins with it.
func (p Phase) Begins() bool { return p == Inhale }

// Led reports whether it is part of a figure or leads to one: everything but talks and free breathing.
func (p Phase) Led() bool { return p != Talk && p != Free }

// Counted reports whether its time is told in counts: natural pauses and what is not led have none.
func (p Phase) Counted() bool { return p.Led() && p != Still }

// Through is where the air goes: a nostril, both, or the mouth. Left and right are the breather's own.
type Through string

// The ways the air goes. Phases without moving air have none.
const (
	None  Through = ""
	Left  Through = "left"
	Right Through = "right"
	Both  Through = "both"
	Mouth Through = "mouth"
)

// Other returns the other nostril; ways that are no single nostril stay as they are.
func (t Through) Other() Through {
	switch t {
	case Left:
		return Right
	case Right:
		return Left
	}
	return t
}

// Airway says how a practice goes that uses both nostrils (pacing.md section 3).
type Airway string

// The airways.
const (
	ByNose     Airway = "nose"
	OutByMouth Airway = "out-mouth"
	InByMouth  Airway = "in-mouth"
	ByMouth    Airway = "mouth"
)

// Of returns the way of the phase; a stroke is an exhale.
func (a Airway) Of(p Phase) Through {
	switch {
	case p == Inhale:
		return a.In()
	case p.Held():
		return None
	}
	return a.Out()
}

// In returns the way of the inhale.
func (a Airway) In() Through {
	if a == ByMouth || a == InByMouth {
		return Mouth
	}
	return Both
}

// Out returns the way of the exhale.
func (a Airway) Out() Through {
	if a == ByNose || a == InByMouth {
		return Both
	}
	return Mouth
}

// Limits of a tempo in counts a minute, and of a rate in strokes a minute (pacing.md section 4).
const (
	SlowestTempo, FastestTempo = 20, 120
	SlowestRate, FastestRate   = 30, 140
)

// CountLength returns the length of one count in milliseconds, 60000/tempo exactly. The tempo is in counts a minute.
func CountLength(tempo Exact) Exact { return Int(60000).Div(tempo) }

// Counts are the counts of one breath: inhale, hold, exhale, empty hold.
type Counts struct{ Inhale, Hold, Exhale, Empty int }

// Limits of the counts of a breath (formats.md, field counts). An inhale or exhale has at least one.
const (
	MostCounts     = 60
	MostHoldCounts = 120
)

// ErrCounts reports how counts are written.
var ErrCounts = fact.New("counts.form")

// NewCounts takes two terms a:c, three a:b:c or four a:b:c:d, and checks their range.
func NewCounts(terms ...int) (Counts, error) {
	var c Counts
	switch len(terms) {
	case 2:
		c = Counts{Inhale: terms[0], Exhale: terms[1]}
	case 3:
		c = Counts{Inhale: terms[0], Hold: terms[1], Exhale: terms[2]}
	case 4:
		c = Counts{terms[0], terms[1], terms[2], terms[3]}
	default:
		return c, ErrCounts
	}
	moving := func(n int) bool { return n >= 1 && n <= MostCounts }
	held := func(n int) bool { return n >= 0 && n <= MostHoldCounts }
	if !moving(c.Inhale) || !moving(c.Exhale) || !held(c.Hold) || !held(c.Empty) {
		return Counts{}, ErrCounts
	}
	return c, nil
}

// ParseCounts reads "4:8", "4:4:8" or "4:4:8:2".
func ParseCounts(text string) (Counts, error) {
	var terms []int
	for term := range strings.SplitSeq(text, ":") {
		n, err := strconv.Atoi(term)
		if err != nil || len(term) > 3 || term[0] == '+' {
			return Counts{}, ErrCounts
		}
		terms = append(terms, n)
	}
	return NewCounts(terms...)
}

// Scaled returns the counts with another inhale and the same ratio, each term to the nearest whole count.
func (c Counts) Scaled(inhale int) Counts {
	times := func(n int) int { return (n*inhale + c.Inhale/2) / c.Inhale }
	return Counts{Inhale: inhale, Hold: times(c.Hold), Exhale: times(c.Exhale), Empty: times(c.Empty)}
}

// Flat returns the same inhale and exhale without holds.
func (c Counts) Flat() Counts { return Counts{Inhale: c.Inhale, Exhale: c.Exhale} }

// Holds reports whether there is a hold, full or empty.
func (c Counts) Holds() bool { return c.Hold > 0 || c.Empty > 0 }

// Four returns the counts in the order of OfABreath.
func (c Counts) Four() [4]int { return [4]int{c.Inhale, c.Hold, c.Exhale, c.Empty} }

// Total returns the number of counts in one breath.
func (c Counts) Total() int { return c.Inhale + c.Hold + c.Exhale + c.Empty }

// String writes the shortest form: 4:8, 4:4:8 or 4:4:8:2.
func (c Counts) String() string {
	switch {
	case c.Empty > 0:
		return fmt.Sprintf("%d:%d:%d:%d", c.Inhale, c.Hold, c.Exhale, c.Empty)
	case c.Hold > 0:
		return fmt.Sprintf("%d:%d:%d", c.Inhale, c.Hold, c.Exhale)
	}
	return fmt.Sprintf("%d:%d", c.Inhale, c.Exhale)
}
