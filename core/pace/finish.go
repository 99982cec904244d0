package pace

import (
	"vastlantern/core/breath"
	"vastlantern/core/plan"
)

// finishBy is the verb "finish-by": refits what is still to come so that the class ends by the deadline. While it
// would end later, one round is taken from the led passage that has kept the largest share of its planned rounds and
// can still lose one, the later passage where two are equal. It never adds rounds, and acts once.
func (m *machine) finishBy(a Adjustment) (Answer, error) {
	t, deadline := breath.Int(a.At), a.To
	if !t.Less(deadline) {
		return refuse("refused.deadline-past")
	}
	end := m.projectedEnd(t)
	answer := Answer{When: Never}
	for deadline.Less(end) {
		i := m.mostKept()
		if i < 0 {
			answer.Late = end.Sub(deadline).Round()
			break
		}
		end = end.Sub(m.saved(i, t))
		m.live[i].total--
		m.live[i].pinned = true
		answer.When = Now
		answer.Fewer++
	}
	if m.stage == Rest && m.inForce().total == m.round {
		m.endRest(t)
	}
	return answer, nil
}

// mostKept returns the passage to take a round from, or -1.
func (m *machine) mostKept() int {
	best, bestTotal, bestPlanned := -1, 0, 1
	for i := m.passage; i < len(m.live); i++ {
		p, total := &m.plan.Passages[i], m.live[i].total
		if !p.Led() || p.Keep || total <= m.leastRounds(i) {
			continue
		}
		planned := p.TotalRounds(p.Measure)
		if best < 0 || total*bestPlanned >= bestTotal*planned {
			best, bestTotal, bestPlanned = i, total, planned
		}
	}
	return best
}

// leastRounds returns the total that a passage cannot go below: one, or the round in progress (in a rest the one just
// finished), and all where the closing has begun.
func (m *machine) leastRounds(i int) int {
	switch {
	case i > m.passage:
		return 1
	case m.place()&atClosing != 0:
		return m.live[i].total
	}
	return m.round
}

// saved returns how much earlier the class ends with one round less in the passage, in milliseconds.
func (m *machine) saved(i int, t breath.Exact) breath.Exact {
	p := &m.plan.Passages[i]
	round := p.RoundSpan(m.live[i].Measure)
	if i == m.passage && m.stage == Rest && m.live[i].total == m.round+1 {
		lead := plan.Span(p.AfterRest(), p.TempoAround(m.live[i].Measure))
		return round.Add(lead).Add(m.rowEnd(t).Sub(t)) // the rest in progress ends at t
	}
	return round.Add(p.BetweenSpan(m.live[i].Measure))
}
