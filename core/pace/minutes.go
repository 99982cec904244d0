package pace

import (
	"vastlantern/core/breath"
	"vastlantern/core/plan"
)

// refit keeps the minutes of a passage that was planned in them, when a value changes at t: its total becomes the
// rounds kept, the one in progress, and the most further whole rounds that still end within the minutes (pacing.md
// section 4). Counted is what kept rounds and rests really took, the round or rest in progress as it will now run,
// and further ones as planned; not pauses, lead-ins and abandoned rounds. The row in progress is taken to end at
// rowEnd.
func (m *machine) refit(t, rowEnd breath.Exact) {
	p, l := m.here(), m.inForce()
	if !p.ByMinutes() || l.pinned || m.place()&atClosing != 0 {
		return
	}
	left := p.Millis().Sub(m.spent)
	round := p.RoundSpan(l.Measure)
	each := round.Add(p.RestBetween)
	switch {
	case m.stage == Round:
		left = left.Sub(m.current.before).Sub(m.unitEnd(rowEnd).Sub(m.since))
	case m.stage == Rest:
		// The first further round needs no further rest: the one in progress is before it.
		left = left.Sub(rowEnd.Sub(m.since)).Add(p.RestBetween)
	case m.current.paused:
		strokesLeft := max(0, m.current.strokes-m.current.done)
		left = left.Sub(m.current.before).Sub(breath.CountLength(l.Tempo).Times(strokesLeft))
		for _, ph := range p.Round(l.Measure)[1:] {
			left = left.Sub(ph.Span(p.TempoIn(&ph, l.Measure)))
		}
	default: // setup, opening, pause: the round to come is the one in progress
		left = left.Sub(round)
	}
	l.total = m.round + further(left, each)
	if m.stage == Rest && l.total == m.round {
		m.endRest(t)
	}
}

func further(left, each breath.Exact) int {
	if left.Sign() <= 0 {
		return 0
	}
	return int(left.Div(each).Floor())
}

// change gives the rounds to come another measure, and keeps the minutes if that, or how the round in progress is
// breathed, is a change of value. The row in progress is taken to end at rowEnd.
func (m *machine) change(t, rowEnd breath.Exact, do func(*plan.Measure)) (next, current bool) {
	before, eased := m.inForce().Counts, m.current.counts
	do(&m.inForce().Measure)
	next, current = m.inForce().Counts != before, m.current.counts != eased
	if next || current {
		m.refit(t, rowEnd)
	}
	return next, current
}
