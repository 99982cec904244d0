package care

import (
	"vastlantern/core/fact"
	"vastlantern/core/plan"
	"vastlantern/core/practice"
)

// Aspect is what about a passage asks for care.
type Aspect string

// The aspects. Those of a practice stand in its catalogue file (field care); holds follow from the counts.
const (
	FullHold  Aspect = "full-hold"
	EmptyHold Aspect = "empty-hold"
	Strokes   Aspect = "strokes"
	Locks     Aspect = "locks"
	Joy       Aspect = "joy"
	OneSided  Aspect = "one-sided"
	Sun       Aspect = "sun"
	Moon      Aspect = "moon"
	Partner   Aspect = "partner"
	Narrowed  Aspect = "narrowed"
	Cooling   Aspect = "cooling"
	Humming   Aspect = "humming"
	Moving    Aspect = "moving"
)

// Do is what a rule says.
type Do string

// What a teacher is told to do, the heaviest first.
const (
	LeaveOut  Do = "leave-out"
	Gentle    Do = "gentle-variant"
	Carefully Do = "carefully"
)

// aspect describes an aspect. Its name, and what people do meanwhile with whom it is left out, are
// messages by its id.
type aspect struct {
	strong  bool // to be read before the practice is led
	late    bool // not late in the evening
	more    bool // there is something to say to everyone
	leave   []Condition
	careful []Condition
}

// Name returns the aspect as the beginning of a sentence.
func (a Aspect) Name() fact.Fact { return fact.New("aspect." + string(a)) }

func (a Aspect) late() fact.Fact { return fact.New("late." + string(a)) }
func (a Aspect) more() fact.Fact { return fact.New("more." + string(a)) }

func (a Aspect) instead() fact.Fact {
	if aspects[a].more {
		return fact.Fact{}
	}
	return fact.New("instead." + string(a))
}

// always are the conditions with which there are no holds and no strokes of any kind.
var always = []Condition{
	Pregnancy, HighBloodPressure, HeartDisease, Glaucoma, DetachedRetina, Epilepsy, RecentSurgery, LungDisease, Reflux,
	Asthma,
}

func and(list []Condition, more ...Condition) []Condition {
	return append(append([]Condition{}, list...), more...)
}

// aspects is the table of cautions, handed down in the trade (common practice, with no source). It is no medicine: what
// it leaves out, a doctor or another licensed professional may allow, and local rules may forbid more.
var aspects = map[Aspect]aspect{
	FullHold:  {strong: true, leave: and(always, Newcomers)},
	EmptyHold: {strong: true, leave: and(always, Newcomers, Panic, LowBloodPressure)},
	Strokes: {
		strong: true, leave: and(always, Hernia, Ulcer, Nosebleed, Vertigo), careful: []Condition{Menstruation}, late: true,
	},
	Locks:    {strong: true, leave: and(always, Newcomers, Hernia)},
	Joy:      {strong: true, leave: []Condition{BackOrKnee, Vertigo, DetachedRetina, HighBloodPressure}},
	OneSided: {careful: []Condition{Cold}},
	Sun:      {strong: true, leave: []Condition{HighBloodPressure, Fever}, late: true},
	Moon:     {strong: true, leave: []Condition{LowBloodPressure, ChestCold}},
	Narrowed: {careful: []Condition{Cold}},
	Partner:  {more: true},
	Cooling:  {leave: []Condition{LowBloodPressure, ChestCold}, careful: []Condition{Cold, Asthma}},
	Humming:  {more: true},
	Moving: {careful: []Condition{
		BackOrKnee, Vertigo, HighBloodPressure, Glaucoma, DetachedRetina, Pregnancy, RecentSurgery,
	}},
}

// Aspects returns what about the passage asks for care: the practice's own, and holds where its counts have them, in
// its opening and closing too.
func Aspects(p *plan.Passage) []Aspect {
	if p.Practice == nil {
		return nil
	}
	full, empty := p.Measure.Counts.Hold > 0, p.Measure.Counts.Empty > 0
	for _, steps := range [][]plan.Step{p.OpeningSteps, p.ClosingSteps} {
		for _, step := range steps {
			full, empty = full || step.Counts.Hold > 0, empty || step.Counts.Empty > 0
		}
	}
	var list []Aspect
	if full {
		list = append(list, FullHold)
	}
	if empty {
		list = append(list, EmptyHold)
	}
	return append(list, OfPractice(p.Practice)...)
}

// OfPractice returns what about the practice asks for care, whatever its counts.
func OfPractice(p *practice.Practice) []Aspect {
	var list []Aspect
	for _, name := range p.Care {
		list = append(list, Aspect(name))
	}
	return list
}

// Known reports whether there is such an aspect for the catalogue to name.
func Known(name string) bool { _, known := aspects[Aspect(name)]; return known }
