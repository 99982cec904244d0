package pace

import (
	"vastlantern/core/breath"
)

// Adjustment is one live adjustment. At is in whole milliseconds from the start of the class.
type Adjustment struct {
	At       int64
	Do       Verb
	To       breath.Exact // tempo: counts or strokes a minute; rounds, strokes: the new number; finish-by: the deadline, milliseconds
	Counts   [4]int       // counts: inhale, hold, exhale, empty hold
	Relative bool         // rounds: By is given and not To
	By       int          // rounds: this many more or less
	Carry    bool         // tempo: scale later counted passages too
	Text     string       // note; beside: breathe, a:c or none
	See      string       // signal
}

// When tells from when on an accepted adjustment acts.
type When string

// The moments from which adjustments act.
const (
	Now       When = "now"
	NextCount When = "next count"
	AfterHold When = "after this hold"
	NextRound When = "next round"
	Never     When = "no change"
)

// Answer is what became of an adjustment. Refused is empty where it was accepted; otherwise it is the reason, in
// words for the teacher.
type Answer struct {
	Adjustment
	Refused string
	Passage int // the one it was met in, from 1; 0 after the end of the class
	Stage   Stage
	Round   int // in progress, or just over in a rest; 0 outside rounds
	Breath  int // in progress, from 1; 0 where none is counted
	When    When
	Before  Passage // what was in force in that passage
	After   Passage
	Undone  Verb  // undo: what was taken back
	Late    int64 // finish-by: how far the class will end after the deadline all the same, milliseconds
	Fewer   int   // finish-by: rounds that it took, in all passages
	Carried int   // tempo: later passages whose tempo it changed too
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
		answer.Refused = err.Error()
		return answer
	}
	answer.When, answer.Undone, answer.Late, answer.Fewer, answer.Carried = done.When, done.Undone, done.Late, done.Fewer, done.Carried
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
	return Passage{l.Measure, l.total, l.beside}
}

func (c *Class) apply(a Adjustment) (Answer, error) {
	if why := c.now.against(a.Do); why != "" {
		return Answer{}, why
	}
	if a.Do == Undo {
		answer, err := c.undo(a)
		c.now.row.Verbs = c.now.met()
		return answer, err
	}
	before := c.now.bookmark()
	answer, err := verbs[a.Do].do(&c.now, a)
	if err != nil {
		return answer, err
	}
	if !c.now.over {
		c.now.row.Verbs = c.now.met() // holds may be dropped now, strokes begun
	}
	if a.Do != Note && a.Do != Signal {
		c.done = append(c.done, taken{a.Do, before})
	}
	return answer, nil
}

// remark records something and changes nothing.
func (m *machine) remark(Adjustment) (Answer, error) { return Answer{When: Never}, nil }
