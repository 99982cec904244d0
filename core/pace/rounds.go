package pace

import (
	"fmt"
	"slices"

	"vastlantern/core/breath"
	"vastlantern/core/plan"
)

// setRounds is the verb "rounds": a new total at once, never less than the round in progress; in a rest that is
// the round just finished.
func (m *machine) setRounds(a Adjustment) (Answer, error) {
	total := m.live[m.passage].total
	to := total + a.By
	if !a.Relative {
		wanted, whole := a.To.Whole()
		if !whole {
			return Answer{}, refusal("rounds are whole")
		}
		to = wanted
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
	l := m.live[m.passage]
	follows := m.here().ByMinutes() && !l.pinned
	switch {
	case to > plan.MostRounds && to > l.total:
		return Answer{}, refusal(fmt.Sprintf("%d rounds is more than %d", to, plan.MostRounds))
	case to == l.total && !follows:
		return Answer{}, refusal(fmt.Sprintf("there are %d rounds already", to))
	}
	answer := Answer{Before: breath.Int(int64(l.total)), After: breath.Int(int64(to))}
	m.live = slices.Clone(m.live)
	m.live[m.passage].total, m.live[m.passage].pinned = to, true
	if m.stage == Rest && to == m.round {
		m.endRest(breath.Int(a.At))
	}
	return answer, nil
}

// endRest ends a rest after which no round is left, at t.
func (m *machine) endRest(t breath.Exact) {
	m.cut(t)
	m.begin(Closing)
	m.settle()
}
