package pace

import (
	"vastlantern/core/breath"
	"vastlantern/core/plan"
	"vastlantern/core/practice"
)

// release is the verb "release": a hold ends at once, its word's beat too.
func (m *machine) release(a Adjustment) (Answer, error) {
	m.skip(breath.Int(a.At))
	return Answer{}, nil
}

// setCounts is the verb "counts": ease now, build later. In the round in progress each hold becomes the shorter of
// old and new; all else starts with the next round that starts or starts over.
func (m *machine) setCounts(a Adjustment) (Answer, error) {
	counts, err := breath.NewCounts(a.Counts[:]...)
	if err != nil {
		return refuse("refused.counts-outside", "given", a.Counts)
	}
	if least := m.here().LeastCounts(); min(counts.Inhale, counts.Exhale) < least {
		if m.here().SharesZones() {
			return refuse("refused.zones-need-counts", "least", least)
		}
		return refuse("refused.steps-need-counts", "least", least)
	}
	at := breath.Int(a.At)
	full, empty := min(m.current.counts.Hold, counts.Hold), min(m.current.counts.Empty, counts.Empty)
	endsNow := m.stage == Round && m.openHold() && m.heldFor(full, empty) == 0
	rowEnd := m.rowEnd(at)
	if endsNow {
		rowEnd = at
	}
	next, now := m.change(at, rowEnd, func(measure *plan.Measure) {
		measure.Counts = counts
		m.ease(full, empty)
	})
	if endsNow {
		m.skip(at)
	}
	switch {
	case now:
		return Answer{}, nil
	case next:
		return Answer{When: NextRound}, nil
	}
	return Answer{When: Never}, nil
}

// openHold reports whether a hold that lasts until the teacher goes on is in progress.
func (m *machine) openHold() bool {
	ph := &m.unit[m.phase]
	return ph.Waits && ph.Kind.Held()
}

// heldFor returns which of the two lengths the hold in progress has.
func (m *machine) heldFor(full, empty int) int {
	if m.unit[m.phase].Kind == breath.Empty {
		return empty
	}
	return full
}

// dropHolds is the verb "drop-holds": no holds in the rest of the passage, opening and closing included. One in
// progress ends with its row, an open one at t. What they were for the next round is remembered. Carried, later
// passages begin without holds too.
func (m *machine) dropHolds(a Adjustment) (Answer, error) {
	answer := Answer{}
	if a.Carry {
		answer.Carried = m.dropLater()
	}
	h := &m.holds
	if next := m.inForce().Counts; !h.dropped || next.Holds() {
		h.remembered = next
	}
	h.dropped = true
	h.openingFlat = h.openingFlat || h.openingBegun
	h.closingFlat = h.closingFlat || h.closingBegun
	if m.stage == Opening || m.stage == Closing {
		m.flatten()
	}
	at := breath.Int(a.At)
	endsNow := m.openHold()
	rowEnd := m.rowEnd(at)
	if endsNow {
		rowEnd = at
	}
	m.change(at, rowEnd, func(measure *plan.Measure) {
		measure.Counts = measure.Counts.Flat()
		m.ease(0, 0)
	})
	if endsNow {
		m.skip(at)
	}
	return answer, nil
}

// dropLater has later practice passages begin without holds, and returns how many.
func (m *machine) dropLater() (passages int) {
	for i := m.passage + 1; i < len(m.live); i++ {
		if l := &m.live[i]; m.plan.Passages[i].Type == plan.Practice && !l.dropped {
			l.dropped, l.remembered = true, l.Counts
			m.setLater(i, l.Counts.Flat())
			passages++
		}
	}
	return passages
}

// restoreLater gives later passages their holds back, and returns how many.
func (m *machine) restoreLater() (passages int) {
	for i := m.passage + 1; i < len(m.live); i++ {
		if l := &m.live[i]; l.dropped {
			l.dropped = false
			m.setLater(i, l.remembered)
			passages++
		}
	}
	return passages
}

// setLater gives a later passage other counts. One that is planned in minutes gets the rounds that then fit.
func (m *machine) setLater(i int, counts breath.Counts) {
	p, l := &m.plan.Passages[i], &m.live[i]
	l.Counts = counts
	if p.Led() && !l.pinned && p.ByMinutes() {
		l.total = p.TotalRounds(l.Measure)
	}
}

// droppedLater reports whether a later passage would begin without holds.
func (m *machine) droppedLater() bool {
	for i := m.passage + 1; i < len(m.live); i++ {
		if m.live[i].dropped {
			return true
		}
	}
	return false
}

// restoreHolds is the verb "restore-holds": from the next round, and in a closing that has not begun, the remembered
// holds are back in place of whatever holds then are. Carried, later passages have theirs back too.
func (m *machine) restoreHolds(a Adjustment) (Answer, error) {
	answer := Answer{When: NextRound}
	switch {
	case a.Carry:
		answer.Carried = m.restoreLater()
	case !m.holds.dropped:
		return refuse("refused.no-holds-dropped")
	}
	if !m.holds.dropped {
		return answer, nil
	}
	m.holds.dropped = false
	at := breath.Int(a.At)
	m.change(at, m.rowEnd(at), func(measure *plan.Measure) {
		measure.Counts.Hold, measure.Counts.Empty = m.holds.remembered.Hold, m.holds.remembered.Empty
	})
	return answer, nil
}

// ease shortens the holds of the round in progress. One in progress ends at its new length, or with its row if it
// has reached that; where one that has not begun becomes 0, the natural pause takes its place.
func (m *machine) ease(full, empty int) {
	if m.stage != Round {
		return
	}
	m.current.counts.Hold, m.current.counts.Empty = full, empty
	here := &m.unit[m.phase]
	fresh := m.here().RoundSince(plan.Measure{Counts: m.current.counts, Strokes: m.current.strokes}, m.current.began)
	unit, reached := m.unit[:m.phase+1:m.phase+1], 0
	for _, ph := range fresh {
		switch {
		case ph.Place == here.Place:
			reached = ph.Counts
		case ph.Place > here.Place:
			unit = append(unit, ph)
		}
	}
	m.unit = unit
	if here := &m.unit[m.phase]; here.Kind.Held() && !here.Timed {
		m.recount(max(reached, m.count))
	}
}

// flatten takes the holds out of the rest of an opening or a closing; one that is counted and in progress ends with its
// row.
func (m *machine) flatten() {
	if m.unit[m.phase].Kind.Held() && !m.openHold() {
		m.recount(m.count)
	}
	rest := flat(m.unit[m.phase+1:], true)
	m.unit = append(m.unit[:m.phase+1:m.phase+1], rest...)
}

// flat returns the phases without holds, if that is wanted.
func flat(phases []practice.Phase, wanted bool) []practice.Phase {
	if !wanted {
		return phases
	}
	var moving []practice.Phase
	for _, ph := range phases {
		if !ph.Kind.Held() {
			moving = append(moving, ph)
		}
	}
	return moving
}
