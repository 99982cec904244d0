// Package pace is the conductor: a plan and the adjustments made so far give the timeline of a class, every row of
// it, past and to come. It knows no clock and no storage; the same input gives the same rows (pacing.md section 2).
//
// A class is a machine that stands in one row (fold.go) and moves on row by row. An adjustment first moves the
// machine to the row that it meets, then changes what the machine stands in (verbs.go says where each is met; the
// rules of each are in tempo.go, rounds.go, pause.go and ends.go). What will happen is found by running a copy.
package pace

import (
	"vastlantern/core/breath"
	"vastlantern/core/plan"
)

// Stage is what a row belongs to (formats.md, cue sheet).
type Stage string

// The stages of a class.
const (
	Talk    Stage = "talk"
	Free    Stage = "free"
	Setup   Stage = "setup"
	Opening Stage = "opening"
	Round   Stage = "round"
	Rest    Stage = "rest"
	Pause   Stage = "pause"
	Own     Stage = "own"
	Recall  Stage = "recall"
	Closing Stage = "closing"
)

// Row is one row of a cue sheet: one count, or one stretch that is not counted. Times are whole milliseconds from
// the start of the class.
type Row struct {
	At       int64
	Dur      int64 // -1 where the end is not known
	Passage  int   // from 1
	Practice string
	Stage    Stage
	Round    int // 0 outside rounds
	Breath   int
	Phase    breath.Phase
	Through  breath.Through
	Count    int // 0 for a beat that a word has of its own
	Of       int
	Part     string
	Say      string
	Kept     bool // false in a round that was abandoned

	// Not in the cue sheet:
	Tempo  breath.Exact // counts a minute that the row runs at; 0 where it is not counted
	Starts bool         // the first row of a round, also of one that starts over
	Verbs  VerbSet      // the adjustments that are met here
}

// End is where the row ends, -1 where that is not known.
func (r Row) End() int64 {
	if r.Dur < 0 {
		return -1
	}
	return r.At + r.Dur
}

// Timeline is the rows of a class. Open says that the last row waits for the teacher and has no end yet; otherwise
// End is the end of the class in milliseconds.
type Timeline struct {
	Rows []Row
	End  int64
	Open bool
}

// Class is a class that is being led: the plan, and the adjustments so far folded into it.
type Class struct{ now machine }

// Begin is a class at its start, with nothing adjusted.
func Begin(p *plan.Plan) *Class { return &Class{start(p, true)} }

// Sheet is the timeline of the plan as written. What waits is taken at its planned length.
func Sheet(p *plan.Plan) Timeline {
	m := start(p, false)
	m.run()
	return m.timeline()
}

// Replay is the timeline of what was taught, with the answer to each adjustment of the script.
func Replay(p *plan.Plan, script []Adjustment) (Timeline, []Answer) {
	class := Begin(p)
	answers := make([]Answer, len(script))
	for i, a := range script {
		answers[i] = class.Adjust(a)
	}
	return class.Timeline(), answers
}

// Adjust folds one adjustment into the class. Adjustments come in the order of their times. A refused one changes
// nothing.
func (c *Class) Adjust(a Adjustment) Answer {
	answer, next := c.now.adjusted(a)
	c.now = next
	return answer
}

// Timeline is the class as it will run from here if nothing more is adjusted. It stops at the first row that waits
// for the teacher.
func (c *Class) Timeline() Timeline {
	m := c.now.copy()
	m.run()
	return m.timeline()
}

// Passage is what of one passage is in force.
type Passage struct {
	Tempo breath.Exact // counts a minute
	Total int          // rounds, 0 where there are none
}

// Passages is what is in force in each passage of the plan.
func (c *Class) Passages() []Passage {
	all := make([]Passage, len(c.now.live))
	for i, l := range c.now.live {
		all[i] = Passage{l.tempo, l.total}
	}
	return all
}

// Wait tells of the row that an open timeline stops at: where its planned end would be, and what follows it. The
// rows are timed from the moment the wait ends.
type Wait struct {
	PlannedEnd int64
	Then       Timeline
}

// Ahead is what follows the row at which the timeline waits, as planned; nil where nothing waits.
func (c *Class) Ahead() *Wait {
	m := c.now.copy()
	m.run()
	if m.over {
		return nil
	}
	wait := &Wait{PlannedEnd: m.end.Round()}
	m.led, m.rows = false, nil
	m.end, m.at = breath.Exact{}, breath.Exact{}
	m.run()
	wait.Then = m.timeline()
	return wait
}

// EndAt is when the class would end if nothing more were adjusted after t, in milliseconds: what waits is taken to
// end at its planned time, or at t if that is past, and a pause at t.
func (c *Class) EndAt(t int64) int64 {
	m := c.now.copy()
	m.rows = nil
	m.runTo(breath.Int(t))
	return m.projected(breath.Int(t)).at.Round()
}
