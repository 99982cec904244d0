package pace

import (
	"vastlantern/core/breath"
	"vastlantern/core/plan"
	"vastlantern/core/practice"
)

// follow is the order of a class: what comes after the stage that is done (pacing.md section 3).
func (m *machine) follow() {
	switch m.stage {
	case Setup:
		m.begin(m.leads)
	case Opening:
		m.begin(m.body())
	case Round:
		m.spend(m.current.before)
		if m.round >= m.inForce().total {
			m.begin(Closing)
			return
		}
		m.runsOn = m.here().RunsOn()
		m.begin(Rest)
	case Rest:
		m.afterRest()
		m.leads = Round
		m.enter(Setup, m.here().AfterRest())
	case Own:
		m.begin(Recall)
	case Recall:
		m.begin(Closing)
	case Pause:
		m.afterPause()
	default: // talk, free, closing
		m.nextPassage()
	}
}

// afterRest counts the rest that is over; the round to come is the next one.
func (m *machine) afterRest() {
	m.spend(breath.Exact{})
	m.round++
}

// spend counts the round or the rest that is over, and what it took before a pause, against the passage's minutes.
func (m *machine) spend(before breath.Exact) {
	if m.here().KeepsMinutes() { // elsewhere nobody asks, and exact sums are not free
		m.spent = m.spent.Add(before).Add(m.at().Sub(m.since))
	}
}

// body returns what is between opening and closing: rounds, or one stretch at own pace.
func (m *machine) body() Stage {
	if m.here().OwnPace {
		return Own
	}
	return Round
}

// begin starts a stage of the passage.
func (m *machine) begin(stage Stage) {
	p := m.here()
	if p.KeepsMinutes() {
		m.since = m.at()
	}
	switch stage {
	case Opening:
		m.holds.openingBegun = true
		m.holds.openingFlat = m.holds.openingFlat || m.holds.dropped
		m.enter(Opening, flat(p.Opening(), m.holds.openingFlat))
	case Round:
		m.beginRound()
	case Rest:
		rest := practice.Free(p.RestBetween)
		rest.Waits = p.RestWait
		m.enter(Rest, []practice.Phase{rest})
	case Own:
		m.enter(Own, []practice.Phase{practice.Free(p.OwnSpan())})
	case Recall:
		length := p.Recall
		if m.recall.Sign() > 0 {
			length = m.recall
		}
		m.enter(Recall, []practice.Phase{practice.Free(length)})
	case Closing:
		m.holds.closingBegun = true
		m.holds.closingFlat = m.holds.closingFlat || m.holds.dropped
		m.enter(Closing, flat(p.Closing(), m.holds.closingFlat))
	}
}

// beginRound starts the round to come, or goes on with one of strokes that waits.
func (m *machine) beginRound() {
	if !m.runsOn {
		m.lane = laneMark{anew: true, restart: true}
	}
	m.runsOn = false
	next := m.inForce().Measure
	if m.current.paused {
		next.Strokes = m.current.strokes
		m.enter(Round, m.roundAt(next))
		m.count = m.current.done + 1
		m.current.paused = false
		return
	}
	m.first = len(m.rows)
	m.current = round{counts: next.Counts, began: next.Counts, strokes: next.Strokes}
	m.enter(Round, m.roundAt(next))
	if m.begun < m.round {
		m.begun = m.round
		m.refitByHand()
	}
}

// afterPause goes on with what was paused: a lead-in leads to it, except for a stretch at own pace, which has the time
// that was left of it, and its recall, which starts over.
func (m *machine) afterPause() {
	switch m.leads {
	case Own:
		if m.ownLeft.Sign() > 0 {
			m.enter(Own, []practice.Phase{practice.Free(m.ownLeft)})
			return
		}
		m.leadIn() // paused before it began
	case Recall:
		m.begin(Recall)
	default:
		m.leadIn()
	}
}

// leadIn gives a lead-in, at the tempo then in force, to what a pause belonged to. The beat is not repeated.
func (m *machine) leadIn() { m.enter(Setup, m.here().Lead()) }

// nextPassage moves to the beginning of the next passage, or to the end of the class.
func (m *machine) nextPassage() {
	m.passage++
	if m.passage >= len(m.plan.Passages) {
		m.over = true
		return
	}
	p := m.here()
	m.round, m.begun, m.current = 1, 0, round{}
	m.spent, m.since, m.ownLeft, m.recall = breath.Exact{}, breath.Exact{}, breath.Exact{}, breath.Exact{}
	m.holds = holds{dropped: m.inForce().dropped, remembered: m.inForce().remembered}
	switch p.Type {
	case plan.Talk, plan.Free:
		stretch := practice.Stretch(breath.Phase(p.Type), p.Length)
		stretch.Waits = p.Wait
		m.enter(Stage(p.Type), []practice.Phase{stretch})
	default:
		m.leads = m.body()
		if len(p.Opening()) > 0 {
			m.leads = Opening
		}
		m.enter(Setup, append(p.Beat(), p.Lead()...))
	}
}
