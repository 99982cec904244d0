package care

import (
	"vastlantern/core/plan"
	"vastlantern/core/practice"
)

// Aspect is what about a passage asks for care.
type Aspect string

// The aspects. Those of a practice stand in its catalogue file (field care); holds follow from the counts.
const (
	FullHold  Aspect = "full hold"
	EmptyHold Aspect = "empty hold"
	Strokes   Aspect = "strokes"
	Locks     Aspect = "locks"
	Joy       Aspect = "joy"
	OneSided  Aspect = "one-sided"
	Sun       Aspect = "sun"
	Moon      Aspect = "moon"
	Partner   Aspect = "partner"
	Narrowed  Aspect = "narrowed"
)

// Do is what a rule says.
type Do string

// What a teacher is told to do, the heaviest first.
const (
	LeaveOut  Do = "leave out"
	Gentle    Do = "gentle variant"
	Carefully Do = "carefully"
)

// aspect is what is told of an aspect.
type aspect struct {
	name    string // as the beginning of a sentence
	strong  bool   // to be read before the practice is led
	instead string // what people do meanwhile with whom it is left out
	late    string // why not late in the evening; empty where the hour does not matter
	leave   []Condition
	careful []Condition
	more    string // for everyone
}

// always are the conditions with which there are no holds and no strokes of any kind.
var always = []Condition{
	Pregnancy, HighBloodPressure, HeartDisease, Glaucoma, DetachedRetina, Epilepsy, RecentSurgery, LungDisease, Reflux, Asthma,
}

func and(list []Condition, more ...Condition) []Condition {
	return append(append([]Condition{}, list...), more...)
}

// aspects is the table of cautions, handed down in the trade (common practice, with no source). It is no medicine: what
// it leaves out, a doctor or another licensed professional may allow, and local rules may forbid more.
var aspects = map[Aspect]aspect{
	FullHold: {
		name: "Holding the breath", strong: true, leave: and(always, Newcomers),
		instead: "Breathe the same breath without the hold.",
	},
	EmptyHold: {
		name: "Holding with empty lungs", strong: true, leave: and(always, Newcomers, Panic, LowBloodPressure),
		instead: "Breathe the same breath without the hold.",
	},
	Strokes: {
		name: "Strokes and panting", strong: true, leave: and(always, Hernia, Ulcer, Nosebleed, Vertigo), careful: []Condition{Menstruation},
		late: "strokes wake", instead: "Belly breath in the meantime.",
	},
	Locks: {
		name: "Locks", strong: true, leave: []Condition{Pregnancy, Hernia, HighBloodPressure, HeartDisease, Glaucoma},
		instead: "Without the locks.",
	},
	Joy: {
		name: "Swinging and bending", strong: true, leave: []Condition{BackOrKnee, Vertigo, DetachedRetina, HighBloodPressure},
		instead: "Sit and breathe evenly in the meantime.",
	},
	OneSided: {name: "Breathing through one nostril", careful: []Condition{Cold}, instead: "Leave the hand down and follow in the mind."},
	Sun: {
		name: "Sun breath", strong: true, leave: []Condition{HighBloodPressure, Fever}, late: "it is taught as warming",
		instead: "Alternate nostril breath in the meantime.",
	},
	Moon: {
		name: "Moon breath", strong: true, leave: []Condition{LowBloodPressure, ChestCold},
		instead: "Alternate nostril breath in the meantime.",
	},
	Narrowed: {name: "Narrowing the nostrils", careful: []Condition{Cold}, instead: "Leave the hand down and breathe with both nostrils wide."},
	Partner:  {name: "Partner work", more: "Ask before touching. The wall is an equal choice."},
}

// Aspects is what about the passage asks for care: the practice's own, and holds where its counts have them, in its
// opening and closing too.
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

// OfPractice is what about the practice asks for care, whatever its counts.
func OfPractice(p *practice.Practice) []Aspect {
	var list []Aspect
	for _, name := range p.Care {
		list = append(list, Aspect(name))
	}
	return list
}

// Known tells whether there is such an aspect for the catalogue to name.
func Known(name string) bool { _, known := aspects[Aspect(name)]; return known }
