package pace

import (
	"vastlantern/core/breath"
	"vastlantern/core/practice"
)

// pause is the verb "pause": everybody breathes freely until the class is resumed. A round in progress is
// abandoned; a rest is ended and nothing is abandoned there.
func (m *machine) pause(a Adjustment) (Answer, error) {
	m.abandon()
	m.cut(breath.Int(a.At))
	switch m.stage {
	case Rest:
		m.spent = m.spent.Add(m.at.Sub(m.since))
		m.round++
		m.leads = Round
	case Setup: // what the setup led to
	default:
		m.leads = m.stage
	}
	free := practice.Stretch(breath.Free, breath.Exact{})
	free.Waits = true
	m.enter(Pause, []practice.Phase{free})
	m.settle()
	return Answer{}, nil
}

// endPause is the verb "resume".
func (m *machine) endPause(a Adjustment) (Answer, error) {
	m.cut(breath.Int(a.At))
	m.resume()
	m.settle()
	return Answer{}, nil
}

// resume gives a new lead-in, at the tempo then in force, and what the pause belonged to starts over. The beat is
// not repeated.
func (m *machine) resume() { m.enter(Setup, m.here().Lead()) }

// again is the verb "again": the count was lost, the round is abandoned and starts over after a new lead-in.
func (m *machine) again(a Adjustment) (Answer, error) {
	m.abandon()
	m.cut(breath.Int(a.At))
	m.leads = Round
	m.resume()
	m.settle()
	return Answer{}, nil
}
