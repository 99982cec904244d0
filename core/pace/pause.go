package pace

import (
	"vastlantern/core/breath"
	"vastlantern/core/plan"
	"vastlantern/core/practice"
)

// pause is the verb "pause": everybody breathes freely until the class is resumed. A round in progress is abandoned,
// but one of strokes waits for its remaining ones. A rest is ended and nothing is abandoned there.
func (m *machine) pause(a Adjustment) (Answer, error) {
	at := breath.Int(a.At)
	switch {
	case m.stage == Round && m.here().CountsStrokes():
		m.current.paused, m.current.done = true, m.count
		switch {
		case m.afterStrokes(): // the breath after them starts over
			m.current.done = m.current.strokes
		case !m.at().Less(at): // nothing of the stroke in progress is done
			m.current.done--
		}
		if m.here().KeepsMinutes() {
			m.current.before = m.current.before.Add(at.Sub(m.since))
		}
	case m.stage == Round:
		m.abandon()
	}
	if m.stage == Own {
		m.ownLeft = m.end().Sub(at)
	}
	m.cut(at)
	switch m.stage {
	case Rest:
		m.afterRest()
		m.leads = Round
	case Setup: // what the setup led to
	default:
		m.leads = m.stage
	}
	free := practice.Free(breath.Exact{})
	free.Waits = true
	m.enter(Pause, []practice.Phase{free})
	m.settle()
	return Answer{}, nil
}

// endPause is the verb "resume".
func (m *machine) endPause(a Adjustment) (Answer, error) {
	m.skip(breath.Int(a.At))
	return Answer{}, nil
}

// again is the verb "again": the count was lost, the round is abandoned and starts over after a new lead-in. Where one
// round fills the minutes it has the strokes that they hold, unless their number was set.
func (m *machine) again(a Adjustment) (Answer, error) {
	m.abandon()
	m.cut(breath.Int(a.At))
	if p, l := m.here(), m.inForce(); p.Practice.FillsMinutes() && !l.pinned {
		l.Strokes = max(1, plan.StrokesWithin(p.Millis(), l.Tempo))
	}
	m.leads = Round
	m.leadIn()
	m.settle()
	return Answer{}, nil
}

// mostRecalled is the most rounds that people are called back with.
const mostRecalled = 20

// callBack is the verb "recall": a stretch at own pace ends, and people are called back with so many rounds still to
// breathe, as they would be led at the counts and tempo in force.
func (m *machine) callBack(a Adjustment) (Answer, error) {
	rounds, whole := a.To.Whole()
	if !whole || rounds < 1 || rounds > mostRecalled {
		return refuse("refused.recall-outside", "given", a.To, "most", mostRecalled)
	}
	m.recall = m.here().RoundSpan(m.inForce().Measure).Times(rounds)
	m.cut(breath.Int(a.At))
	m.begin(Recall)
	m.settle()
	return Answer{}, nil
}
