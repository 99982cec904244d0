package pace

import (
	"vastlantern/core/breath"
	"vastlantern/core/plan"
	"vastlantern/core/practice"
)

// setStrokes is the verb "strokes": the number from the next round that starts or starts over. Fewer also counts for
// the round in progress, which ends at the new number, or with the stroke in progress if that is reached.
func (m *machine) setStrokes(a Adjustment) (Answer, error) {
	l := m.inForce()
	n, whole := a.To.Whole()
	switch fills := m.here().Practice.FillsMinutes(); {
	case !whole || n < 1 || n > plan.MostStrokes:
		return refuse("%s strokes is outside 1 to %d", a.To, plan.MostStrokes)
	case fills && n > l.Strokes:
		return refuse("%d is more strokes than the %d that fill the minutes", n, l.Strokes)
	case fills:
		l.pinned = true
	}
	answer := Answer{When: NextRound}
	if l.Strokes == n {
		answer.When = Never
	}
	l.Strokes = n
	if m.inRound() && n < m.current.strokes {
		m.setCurrentStrokes(n)
		answer.When = Now
	}
	return answer, nil
}

// setCurrentStrokes gives the round in progress another number of strokes; it has at least the one in progress.
func (m *machine) setCurrentStrokes(n int) {
	if !m.inRound() {
		return
	}
	m.current.strokes = n
	if m.stage == Round {
		m.recount(max(n, m.count))
	}
}

func strokesBegun(m *machine) refusal {
	switch {
	case !m.here().Is(practice.Strokes):
		return "there are no strokes in this practice"
	case m.stage == Pause && (!m.current.paused || m.current.done == 0):
		return "no stroke of this round is done"
	}
	return ""
}

// enough is the verb "enough": a round of strokes ends with the stroke in progress and is kept with those done; in
// its pause it ends at t.
func (m *machine) enough(a Adjustment) (Answer, error) {
	if m.here().Practice.FillsMinutes() {
		m.inForce().pinned = true
	}
	if m.stage == Round {
		m.setCurrentStrokes(m.count)
		return Answer{When: NextCount}, nil
	}
	m.cut(breath.Int(a.At))
	m.stage, m.since, m.current.paused = Round, m.at(), false
	m.follow()
	m.settle()
	return Answer{}, nil
}
