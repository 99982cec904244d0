// Package programme is what a group follows over weeks or months (handbook.md section 9): step after step, when to go on, and what
// happens after a class that was missed or eased. Like a class it is computed: where a group is follows from what it was taught.
package programme

import (
	"fmt"
	"slices"
	"strings"
	"unicode/utf8"
)

// By is how to go on from step to step.
type By string

// The ways to go on.
const (
	Date By = "date" // after so many classes
	Led  By = "led"  // when it was led as planned so many times in a row
)

// Then is what happens after a class that was missed or eased.
type Then string

// What can happen.
const (
	Wait Then = "wait" // the step lasts a class longer; times in a row begin again
	Back Then = "back" // one step back
	On   Then = "on"   // it goes on as if it had been led; only of a class that was missed
)

// Programme is what a group follows. It is stored as JSON.
type Programme struct {
	Name    string `json:"name"`
	Passage int    `json:"passage"` // of the class, from 1, which the steps change
	Steps   []Step `json:"steps"`
	By      By     `json:"by"`
	Times   int    `json:"times"` // in a row that a step is led as planned before the next, of Led
	Days    int    `json:"days"`  // between two classes
	Missed  Then   `json:"missed"`
	Eased   Then   `json:"eased"`
	Ceiling int    `json:"ceiling"` // minutes that the passage never exceeds, 0 for none
}

// Step is what one step asks for.
type Step struct {
	Says    string `json:"says"`    // of the passage, as it is typed: "4:4:8 x6", "30 strokes", "belly breath 5 min"
	Classes int    `json:"classes"` // that it lasts, of Date
}

// Bounds of a programme.
const (
	MostSteps   = 60
	MostClasses = 60 // of a step
	MostDays    = 60
	MostTimes   = 9
	MostMinutes = 60 // of the ceiling
	longestName = 100
	longestStep = 200
)

// Check is what is wrong with a programme, in words: what, where, and what is allowed. Whether a step can be read is seen when its
// class is made.
func (p *Programme) Check() (wrong []string) {
	say := func(format string, args ...any) { wrong = append(wrong, fmt.Sprintf(format, args...)) }
	within := func(what string, n, least, most int) {
		if n < least || n > most {
			say("%s: given %d, allowed %d to %d.", what, n, least, most)
		}
	}
	if n := utf8.RuneCountInString(strings.TrimSpace(p.Name)); n == 0 || n > longestName {
		say("The name has %d characters; 1 to %d are allowed.", n, longestName)
	}
	within("Steps", len(p.Steps), 1, MostSteps)
	within("Days between two classes", p.Days, 1, MostDays)
	within("The ceiling in minutes", p.Ceiling, 0, MostMinutes)
	if !slices.Contains([]By{Date, Led}, p.By) {
		say("It goes on by date or led, not by %q.", p.By)
	}
	if p.By == Led {
		within("Times as planned", p.Times, 1, MostTimes)
	}
	if !slices.Contains([]Then{Wait, Back, On}, p.Missed) {
		say("After a missed class it waits, goes back, or on; not %q.", p.Missed)
	}
	if !slices.Contains([]Then{Wait, Back}, p.Eased) {
		say("After an eased class it waits or goes back; not %q.", p.Eased)
	}
	for i, step := range p.Steps {
		if text := strings.TrimSpace(step.Says); text == "" || utf8.RuneCountInString(text) > longestStep {
			say("Step %d says nothing, or more than %d characters.", i+1, longestStep)
		}
		if p.By == Date {
			within(fmt.Sprintf("Classes of step %d", i+1), step.Classes, 1, MostClasses)
		}
	}
	return wrong
}

// Outcome is how a class of a programme went.
type Outcome string

// The outcomes.
const (
	Planned Outcome = "planned"
	Eased   Outcome = "eased"    // made easier, or led in fewer rounds
	TooMuch Outcome = "too much" // led as planned, but the room was not ready for more
	Missed  Outcome = "missed"
)

// Class is a class of the programme that is over, or whose day has passed.
type Class struct {
	Outcome Outcome
	Why     string // of TooMuch: what those who breathed said, as a clause
}

// Place is where a group stands.
type Place struct {
	Step  int    // from 0, that of the next class
	Times int    // so often it was led as planned in a row, or of Date, so many classes of it were held
	Over  bool   // the last step is done; what comes stays on it
	Why   string // in one sentence
}

// Follow is at which step each of the classes stood, in the order of their times, and where the group stands after them.
func (p *Programme) Follow(classes []Class) (steps []int, at Place) {
	at.Why = "It begins."
	for _, class := range classes {
		steps = append(steps, at.Step)
		at = p.after(at, class)
	}
	return steps, at
}

// after is where a group stands after one more class.
func (p *Programme) after(at Place, class Class) Place {
	then, because := Wait, ""
	switch class.Outcome {
	case Planned:
		return p.led(at)
	case TooMuch: // it is no fault of the step that it was led as planned
		because = strings.ToUpper(class.Why[:1]) + class.Why[1:]
	case Eased:
		then, because = p.Eased, "The last class was eased"
	case Missed:
		then, because = p.Missed, "The last class was missed"
	}
	switch {
	case then == On:
		next := p.led(at)
		next.Why = because + ", and it goes on by date. " + next.Why
		return next
	case then == Back && at.Step > 0:
		return Place{Step: at.Step - 1, Why: fmt.Sprintf("%s: back to step %d.", because, at.Step)}
	}
	at.Over = false
	if p.By == Led {
		at.Times = 0
	}
	at.Why = fmt.Sprintf("%s: it waits at step %d.", because, at.Step+1)
	return at
}

// led is where a group stands after a class that was led as planned.
func (p *Programme) led(at Place) Place {
	if at.Over {
		return at
	}
	at.Times++
	needed := p.Times
	if p.By == Date {
		needed = p.Steps[at.Step].Classes
	}
	switch {
	case at.Times < needed && p.By == Led:
		at.Why = fmt.Sprintf("Led as planned %s; %d in a row, and it goes on.", times(at.Times), needed)
	case at.Times < needed:
		at.Why = fmt.Sprintf("Class %d of %d of step %d.", at.Times+1, needed, at.Step+1)
	case at.Step+1 == len(p.Steps):
		at.Over, at.Why = true, "The last step is done: it stays there."
	default:
		at = Place{Step: at.Step + 1, Why: fmt.Sprintf("Step %d is done: on to step %d.", at.Step+1, at.Step+2)}
	}
	return at
}

func times(n int) string {
	switch n {
	case 1:
		return "once"
	case 2:
		return "twice"
	}
	return fmt.Sprintf("%d times", n)
}

// Coming is the steps of the next so many classes if each is led as planned. Once the last step is done there are none.
func (p *Programme) Coming(at Place, most int) (steps []int) {
	for len(steps) < most && !at.Over {
		steps = append(steps, at.Step)
		at = p.led(at)
	}
	return steps
}
