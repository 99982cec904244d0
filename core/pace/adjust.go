package pace

import (
	"reflect"

	"vastlantern/core/breath"
	"vastlantern/core/fact"
)

// Adjustment is one live adjustment. At is in whole milliseconds from the start of the class.
type Adjustment struct {
	At int64
	Do Verb
	// tempo: counts or strokes a minute; rounds, strokes: the new number; finish-by: the deadline, milliseconds
	To       breath.Exact
	Counts   [4]int // counts: inhale, hold, exhale, empty hold
	Relative bool   // rounds: By is given and not To
	By       int    // rounds: this many more or less
	// Carry scales later counted passages too (tempo), acts on later passages too (drop-holds, restore-holds), or keeps
	// a note for next time.
	Carry  bool
	Text   string   // note; beside: breathe, a:c or none; by-hand: all or none
	Phases []string // by-hand: the phases, where they are listed
	See    string   // signal
}

// When tells from when on an accepted adjustment acts.
type When string

// The moments from which adjustments act.
const (
	Now       When = "now"
	NextCount When = "next-count"
	AfterHold When = "after-hold"
	NextPhase When = "next-phase"
	NextRound When = "next-round"
	Never     When = "never"
)

// Answer is what became of an adjustment. Refused is the reason why it was not accepted.
type Answer struct {
	Adjustment
	Refused  fact.Fact
	Passage  int // the one it was met in, from 1; 0 after the end of the class
	Stage    Stage
	Round    int // in progress, or just over in a rest; 0 outside rounds
	Breath   int // in progress, from 1; 0 if none is counted
	When     When
	Before   Passage // what was in force in that passage
	After    Passage
	Undone   Verb  // undo: what was taken back
	Late     int64 // finish-by: how far the class will end after the deadline all the same, milliseconds
	Fewer    int   // finish-by: rounds that it took, in all passages
	Carried  int   // later passages that it changed too
	Breathed int   // by-hand: the tempo that was breathed, counts a minute; 0 if that is not known
}

// Adjust folds one adjustment into the class. Adjustments come in the order of their times. A refused one changes
// nothing.
func (c *Class) Adjust(a Adjustment) Answer {
	c.timeline = nil
	c.now.runTo(a.At) // what comes by itself is not the adjustment's doing
	answer := Answer{Adjustment: a}
	if !c.now.over {
		answer.Passage, answer.Stage = c.now.passage+1, c.now.stage
		if answer.Stage == Round || answer.Stage == Rest {
			answer.Round = c.now.round
		}
		answer.Breath = c.now.unit[c.now.phase].Breath
		answer.Before = c.inForce(answer.Passage)
	}
	done, err := c.apply(a)
	if err != nil {
		answer.Refused = fact.Of(err)
		return answer
	}
	answer.When, answer.Undone, answer.Late = done.When, done.Undone, done.Late
	answer.Fewer, answer.Carried, answer.Breathed = done.Fewer, done.Carried, done.Breathed
	if answer.When == "" {
		answer.When = Now
	}
	if answer.Passage > 0 {
		answer.After = c.inForce(answer.Passage)
	}
	return answer
}

func (c *Class) inForce(passage int) Passage {
	l := c.now.live[passage-1]
	return Passage{l.Measure, l.total, l.beside, l.byHand}
}

func (c *Class) apply(a Adjustment) (Answer, error) {
	if why := c.now.against(a.Do); !why.None() {
		return Answer{}, why
	}
	if a.Do == Undo {
		answer, err := c.undo(a)
		c.now.meetAnew()
		return answer, err
	}
	before := c.now.bookmark()
	answer, err := ruleOf(a.Do).do(&c.now, a)
	if err != nil {
		return answer, err
	}
	if !c.now.over {
		c.now.meetAnew() // holds may be dropped now, strokes begun
	}
	if !a.Do.Remarks() {
		c.done = append(c.done, taken{a.Do, before})
	}
	return answer, nil
}

// remark records something and changes nothing.
func (m *machine) remark(Adjustment) (Answer, error) { return Answer{When: Never}, nil }

// Same reports whether two adjustments are the same.
func (a Adjustment) Same(other Adjustment) bool {
	return reflect.DeepEqual(a, other)
}
