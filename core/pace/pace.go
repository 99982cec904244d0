// Package pace computes the timeline of a class, every row of it, past and to come, from a plan and the adjustments so
// far. It has no clock and no storage; the same input gives the same rows (pacing.md section 2).
//
// A class is a state machine with one current row (machine.go); it moves on row by row in the order of a class
// (follow.go). An adjustment first moves the machine to the row in progress at its time, then changes the state.
// verbs.go has the table of where each adjustment is accepted; the rules are in tempo.go, minutes.go, rounds.go,
// holds.go, strokes.go, pause.go, lane.go, ends.go, finish.go and undo.go. What will happen is found by running a copy.
package pace

import (
	"slices"

	"vastlantern/core/breath"
	"vastlantern/core/plan"
	"vastlantern/core/practice"
)

// Class is a class that is being led: the plan, and the adjustments so far folded into it. Not safe for concurrent
// use; Copy is cheap.
type Class struct {
	now  machine
	done []taken // what undo can take back, the latest last

	timeline *Timeline // once it was asked for; never changed in place
	until    int64     // milliseconds; see Until. 0 if it runs to its end
}

// Begin returns a class at its start, with nothing adjusted.
func Begin(p *plan.Plan) *Class { return &Class{now: start(p, true)} }

// Copy returns the same class, which can be adjusted without changing this one.
func (c *Class) Copy() *Class {
	return &Class{now: c.now.copy(), done: slices.Clip(c.done), timeline: c.timeline, until: c.until}
}

// Until returns the same class with a timeline that stops early: after the stage that follows the one in progress at t,
// in milliseconds from the start of the class. Timeline.Then tells how the passages go on. It is for those who show the
// next minute at once and the whole class a moment later.
func (c *Class) Until(t int64) *Class {
	return &Class{now: c.now.copy(), done: slices.Clip(c.done), until: max(1, t)}
}

// Stops returns the moment that was given to Until, 0 for a class that runs to its end.
func (c *Class) Stops() int64 { return c.until }

// Next returns the same class for the one who goes on leading it: what is done is shared, so that hundreds of
// adjustments are not copied with each one more. This one must not be adjusted any more.
func (c *Class) Next() *Class {
	next := *c
	next.now.live = slices.Clone(c.now.live)
	return &next
}

// Sheet returns the timeline of the plan as written. What waits is taken at its planned length.
func Sheet(p *plan.Plan) Timeline {
	m := start(p, false)
	m.run()
	return m.timeline()
}

// OneRound returns a round of a passage, counted from 0, at the measure: from 0 and with nothing around it, also of one
// at own pace. Nothing can be adjusted in it.
func OneRound(p *plan.Plan, passage int, m plan.Measure) []Row {
	main, _ := oneRound(p, passage, m, plan.Beside{})
	return main
}

// OneLane returns the same round as it is breathed by those who take what runs beside it.
func OneLane(p *plan.Plan, passage int, m plan.Measure, b plan.Beside) []Row {
	_, lane := oneRound(p, passage, m, b)
	return lane
}

func oneRound(p *plan.Plan, passage int, m plan.Measure, b plan.Beside) (main, lane []Row) {
	alone, round := *p, p.Passages[passage]
	round.Measure, round.OwnPace, round.Rounds, round.CountIn, round.LeadIn = m, false, 1, 0, 0
	round.OpeningSteps, round.ExhaleFirst, round.ClosingSteps, round.Beside = nil, false, nil, b
	alone.Passages = []plan.Passage{round}
	main = Sheet(&alone).Rows
	lane = laneOf(main, &alone)
	inPlan := func(s *Shared) { s.Passage, s.Verbs = passage+1, 0 }
	changed(main, inPlan)
	changed(lane, inPlan)
	return main, lane
}

// Replay returns the timeline of what was taught, with the answer to each adjustment of the script.
func Replay(p *plan.Plan, script []Adjustment) (Timeline, []Answer) {
	class := Begin(p)
	answers := make([]Answer, len(script))
	for i, a := range script {
		answers[i] = class.Adjust(a)
	}
	return class.Timeline(), answers
}

// Timeline returns the class as it will run from here if nothing more is adjusted. It stops at the first row that waits
// for the teacher. Its rows are not to be changed: who asks again gets the same.
func (c *Class) Timeline() Timeline {
	if c.timeline == nil {
		m := c.now.copy()
		if c.until == 0 && (m.over || m.inForce().byHand == 0) { // else it stops early
			m.rows = slices.Grow(m.rows, max(0, m.plan.Rows()-len(m.rows)))
		}
		tl := m.timelineTo(c.until)
		tl.Rows = slices.Clip(tl.Rows)
		c.timeline = &tl
	}
	return *c.timeline
}

// Passage is what of one passage is in force.
type Passage struct {
	plan.Measure             // of the next round that starts; the tempo at once
	Total        int         // rounds, 0 if there are none
	Beside       plan.Beside // the gentler lane, from the next row on
	ByHand       plan.Hand   // the phases that wait for the teacher, from the next one on
}

// Passages returns what is in force in each passage of the plan.
func (c *Class) Passages() []Passage {
	all := make([]Passage, len(c.now.live))
	for i, l := range c.now.live {
		all[i] = Passage{l.Measure, l.total, l.beside, l.byHand}
	}
	return all
}

// Wait tells of the row that an open timeline stops at: where its planned end would be, and what follows it. The
// rows are timed from the moment the wait ends.
type Wait struct {
	PlannedEnd int64
	Then       Timeline
}

// Ahead returns what follows the row at which the timeline waits, as planned; nil if nothing waits.
func (c *Class) Ahead() *Wait {
	m := c.now.copy()
	m.run()
	if m.over {
		return nil
	}
	wait := &Wait{PlannedEnd: m.end().Round()}
	m.rows, m.first = nil, 0
	m.goOnAsPlanned()
	until := c.until
	if until > 0 {
		until = max(1, until-wait.PlannedEnd)
	}
	wait.Then = m.timelineTo(until)
	return wait
}

// Moment is where a class is, for those who propose what to do.
type Moment struct {
	Passage int // from 1; 0 once the class is over
	Stage   Stage
	Phase   breath.Phase
	Round   int
	Next    Passage       // what is in force from the next round on
	Counts  breath.Counts // of the round in progress, as eased so far
	Met     VerbSet
	// Ahead is what is left of the round in progress, from the phase in progress on; nothing elsewhere.
	Ahead []practice.Phase
}

func (*Class) inForceIn(m machine) Passage {
	l := m.inForce()
	return Passage{l.Measure, l.total, l.beside, l.byHand}
}

// At returns where the class is at t, in milliseconds.
func (c *Class) At(t int64) Moment {
	m := c.now.copyWithoutRows()
	m.runTo(t)
	if m.over {
		return Moment{}
	}
	moment := Moment{
		Passage: m.passage + 1, Stage: m.stage, Phase: m.unit[m.phase].Kind, Round: m.round, Next: c.inForceIn(m),
		Counts: m.inForce().Counts, Met: m.met(),
	}
	if m.stage == Round {
		moment.Counts, moment.Ahead = m.current.counts, slices.Clone(m.unit[m.phase:])
	}
	return moment
}
