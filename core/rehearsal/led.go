package rehearsal

import (
	"slices"

	"vastlantern/core/pace"
	"vastlantern/core/plan"
)

// Led is a plan that is led with a simulated room, so far. All that is known of it follows from these.
type Led struct {
	Plan      *plan.Plan
	Script    []pace.Adjustment
	People    []Person
	Seed      int64
	Latecomer int64 // when the last of the people comes in, in milliseconds from the start; 0 if all are there
	Now       int64 // how far the class is, milliseconds
}

// Courses returns how the class goes for each of the people, as it will if nothing more is pressed.
func (l *Led) Courses() []Course {
	timeline, answers := pace.Replay(l.Plan, l.Script)
	return l.follow(Of(timeline, l.Plan, l.happens(answers)), true)
}

func (l *Led) happens(answers []pace.Answer) Happens {
	happens := Happens{Latecomer: l.Latecomer, Now: l.Now}
	for _, a := range answers {
		if a.Refused.None() && a.Do == pace.Signal && (a.See == Late || a.See == Restless) {
			happens.Prompts = append(happens.Prompts, a.At)
		}
	}
	return happens
}

func (l *Led) follow(class *Class, watched bool) []Course {
	courses := make([]Course, len(l.People))
	for who := range l.People {
		courses[who] = class.Follow(&l.People[who], who, l.Seed, watched, who == len(l.People)-1)
	}
	return courses
}

// without returns how the class would have gone without one of the adjustments, by its place in the script.
func (l *Led) without(i int) []Course {
	timeline, answers := pace.Replay(l.Plan, slices.Delete(slices.Clone(l.Script), i, i+1))
	return l.follow(Of(timeline, l.Plan, l.happens(answers)), false)
}
