// Package programme computes what a group follows over weeks or months (handbook.md section 9): its steps, when to move
// on, and what happens after a missed or eased class. Where a group is follows from what it was taught.
package programme

import (
	"encoding/json"
	"slices"
	"strings"
	"unicode/utf8"

	"vastlantern/core/fact"
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
	// Gap is after how many days without a class it repeats: so many steps back as Repeat says. 0 for never.
	Gap    int `json:"gap"`
	Repeat int `json:"repeat"`
}

// Step is what one step asks for.
type Step struct {
	// Says is what changes in the passage, as it is typed: "4:4:8 x6", "30 strokes", "belly breath 5 min"; of a whole plan
	// its name.
	Says    string `json:"says"`
	Classes int    `json:"classes"` // that it lasts, of Date
	Rest    int    `json:"rest"`    // days after its last class, besides those between two classes
	// Plan is the plan file of a whole class, in the place of the one that the programme was begun with; empty where only
	// the passage changes.
	Plan json.RawMessage `json:"plan,omitempty" jsonschema:"type=object"`
}

// Whole reports whether the step is a class of its own.
func (s *Step) Whole() bool { return len(s.Plan) > 0 }

// HasWhole reports whether a step is a class of its own. Then how a class went is told by all of it.
func (p *Programme) HasWhole() bool {
	return slices.ContainsFunc(p.Steps, func(s Step) bool { return s.Whole() })
}

// Bounds of a programme.
const (
	MostSteps   = 60
	MostClasses = 60 // of a step
	MostDays    = 60
	MostTimes   = 9
	MostMinutes = 60 // of the ceiling
	MostRest    = 60 // days
	MostGap     = 365
	longestName = 100
	longestStep = 200
)

// Check returns what is wrong with a programme: what, where, and what is allowed. Whether a step can be read is seen
// when its class is made.
func (p *Programme) Check() (wrong []fact.Fact) {
	say := func(id string, args ...any) { wrong = append(wrong, fact.New(id, args...)) }
	within := func(id string, n, least, most int, args ...any) {
		if n < least || n > most {
			say(id, append(args, "given", n, "least", least, "most", most)...)
		}
	}
	if n := utf8.RuneCountInString(strings.TrimSpace(p.Name)); n == 0 || n > longestName {
		say("programme.name-length", "given", n, "most", longestName)
	}
	within("programme.steps", len(p.Steps), 1, MostSteps)
	within("programme.days", p.Days, 1, MostDays)
	within("programme.ceiling", p.Ceiling, 0, MostMinutes)
	within("programme.gap", p.Gap, 0, MostGap)
	if p.Gap > 0 {
		within("programme.repeat", p.Repeat, 1, MostSteps)
	}
	if !slices.Contains([]By{Date, Led}, p.By) {
		say("programme.by", "given", p.By)
	}
	if p.By == Led {
		within("programme.times", p.Times, 1, MostTimes)
	}
	if !slices.Contains([]Then{Wait, Back, On}, p.Missed) {
		say("programme.missed", "given", p.Missed)
	}
	if !slices.Contains([]Then{Wait, Back}, p.Eased) {
		say("programme.eased", "given", p.Eased)
	}
	if len(p.Steps) > MostSteps { // that is said above: each of too many is not looked at
		return wrong
	}
	for i, step := range p.Steps {
		if text := strings.TrimSpace(step.Says); text == "" || utf8.RuneCountInString(text) > longestStep {
			say("programme.step-text", "step", i+1, "most", longestStep)
		}
		if p.By == Date {
			within("programme.classes", step.Classes, 1, MostClasses, "step", i+1)
		}
		within("programme.rest", step.Rest, 0, MostRest, "step", i+1)
	}
	return wrong
}

// Outcome is how a class of a programme went.
type Outcome string

// The outcomes.
const (
	Planned Outcome = "planned"
	Eased   Outcome = "eased"    // made easier, or led in fewer rounds
	TooMuch Outcome = "too-much" // led as planned, but the room was not ready for more
	Missed  Outcome = "missed"
)

// Class is a class of the programme that is over, or whose day has passed.
type Class struct {
	Outcome Outcome
	Why     fact.Fact // of TooMuch: what those who breathed said, as a clause
	Day     int       // of the calendar, counted from any day
}

// Place is where a group is.
type Place struct {
	Step  int  // from 0, that of the next class
	Times int  // so often it was led as planned in a row, or of Date, so many classes of it were held
	Over  bool // the last step is done; what comes stays on it
	Why   fact.Fact
}

// Follow returns at which step each of the classes stood, in the order of their times, and where the group is after
// them. next is the day of the class that comes, 0 where it is not known: after a gap it repeats.
func (p *Programme) Follow(classes []Class, next int) (steps []int, at Place) {
	at.Why = fact.New("standing.begins")
	var since gap
	for _, class := range classes {
		at = since.before(p, at, class.Day)
		steps = append(steps, at.Step)
		at = p.after(at, class)
		if class.Outcome != Missed {
			since = gap{held: true, day: class.Day}
		}
	}
	if next > 0 {
		at = since.before(p, at, next)
	}
	return steps, at
}

// gap is the time since the last class that was held.
type gap struct {
	held     bool // there was one
	day      int
	repeated bool // this gap was met already
}

// before returns where a group is at a class on the day: some steps back after a gap, once.
func (g *gap) before(p *Programme, at Place, day int) Place {
	if p.Gap == 0 || !g.held || g.repeated || at.Over || day-g.day < p.Gap {
		return at
	}
	g.repeated = true
	step := max(0, at.Step-p.Repeat)
	return Place{Step: step, Why: fact.New("standing.gap", "days", day-g.day, "step", step+1)}
}

// Between returns how many days there are from a class of a step to the next class, which is of a step too, both from
// 0.
func (p *Programme) Between(step, next int) int {
	if step == next {
		return p.Days
	}
	return p.Days + p.Steps[step].Rest
}

// after returns where a group is after one more class.
func (p *Programme) after(at Place, class Class) Place {
	then, because := Wait, fact.Fact{}
	switch class.Outcome {
	case Planned:
		return p.led(at)
	case TooMuch: // it is no fault of the step that it was led as planned
		because = fact.New("because.room", "unrest", class.Why)
	case Eased:
		then, because = p.Eased, fact.New("because.eased")
	case Missed:
		then, because = p.Missed, fact.New("because.missed")
	}
	switch {
	case then == On:
		next := p.led(at)
		next.Why = fact.New("standing.on-by-date", "because", because, "next", next.Why)
		return next
	case then == Back && at.Step > 0:
		return Place{Step: at.Step - 1, Why: fact.New("standing.back", "because", because, "step", at.Step)}
	}
	at.Over = false
	if p.By == Led {
		at.Times = 0
	}
	at.Why = fact.New("standing.waits", "because", because, "step", at.Step+1)
	return at
}

// led returns where a group is after a class that was led as planned.
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
		at.Why = fact.New("standing.led", "times", at.Times, "needed", needed)
	case at.Times < needed:
		at.Why = fact.New("standing.class", "class", at.Times+1, "of", needed, "step", at.Step+1)
	case at.Step+1 == len(p.Steps):
		at.Over, at.Why = true, fact.New("standing.last-done")
	default:
		at = Place{Step: at.Step + 1, Why: fact.New("standing.step-done", "step", at.Step+1, "next", at.Step+2)}
	}
	return at
}

// Coming returns the steps of the next so many classes if each is led as planned. Once the last step is done there are
// none.
func (p *Programme) Coming(at Place, most int) (steps []int) {
	for len(steps) < most && !at.Over {
		steps = append(steps, at.Step)
		at = p.led(at)
	}
	return steps
}
