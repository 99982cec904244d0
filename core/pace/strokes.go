package pace

import (
	"vastlantern/core/breath"
	"vastlantern/core/plan"
)

// setStrokes is the verb "strokes": the number from the next round that starts or starts over. Fewer also counts for
// the round in progress, which ends at the new number, or with the stroke in progress if that is reached.
func (m *machine) setStrokes(a Adjustment) (Answer, error) {
	l := m.inForce()
	n, whole := a.To.Whole()
	switch fills := m.here().Practice.FillsMinutes(); {
	case !whole || n < 1 || n > plan.MaxStrokes:
		return refuse("refused.strokes-outside", "given", a.To, "most", plan.MaxStrokes)
	case fills && n > l.Strokes:
		return refuse("refused.strokes-over-minutes", "given", n, "most", l.Strokes)
	case fills:
		l.pinned = true
	}
	answer := Answer{When: NextRound}
	if l.Strokes == n {
		answer.When = Never
	}
	l.Strokes = n
	if m.inRound() && n < m.current.strokes && !m.afterStrokes() {
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

// afterStrokes reports whether the breath after the strokes of a round is in progress.
func (m *machine) afterStrokes() bool {
	return m.stage == Round && m.here().CountsStrokes() && m.unit[m.phase].Kind != breath.Stroke
}

func strokesBegun(m *machine) string {
	switch {
	case !m.here().CountsStrokes():
		return "refused.practice-without-strokes"
	case m.afterStrokes():
		return "refused.strokes-done"
	case m.stage == Pause && (!m.current.paused || m.current.done == 0):
		return "refused.no-stroke-done"
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
