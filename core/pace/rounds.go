package pace

import (
	"vastlantern/core/breath"
	"vastlantern/core/plan"
)

// setRounds is the verb "rounds": a new total at once, never less than the round in progress; in a rest that is
// the round just finished.
func (m *machine) setRounds(a Adjustment) (Answer, error) {
	to := m.inForce().total + a.By
	if !a.Relative {
		whole, ok := a.To.Whole()
		if !ok {
			return refuse("refused.rounds-whole")
		}
		to = whole
	}
	return m.setTotal(a, max(to, m.round))
}

// lastRound is the verb "last-round": the round in progress is the last, in a rest the round to come.
func (m *machine) lastRound(a Adjustment) (Answer, error) {
	if m.stage == Rest {
		return m.setTotal(a, m.round+1)
	}
	return m.setTotal(a, m.round)
}

func (m *machine) setTotal(a Adjustment, to int) (Answer, error) {
	l := m.inForce()
	follows := m.here().ByMinutes() && !l.pinned
	switch {
	case to > plan.MaxRounds && to > l.total:
		return refuse("refused.too-many-rounds", "given", to, "most", plan.MaxRounds)
	case to == l.total && !follows:
		return refuse("refused.rounds-already", "rounds", to)
	}
	l.total, l.pinned = to, true
	if m.stage == Rest && to == m.round {
		m.endRest(breath.Int(a.At))
	}
	return Answer{}, nil
}

// endRest ends a rest after which no round is left, at t.
func (m *machine) endRest(t breath.Exact) {
	m.cut(t)
	m.begin(Closing)
	m.settle()
}
