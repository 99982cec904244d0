package pace

import "vastlantern/core/breath"

// advance is the verb "advance": it ends what is not counted, and what waits. In a pause it is "resume". An open phase
// of which nothing is done yet goes on: it was pressed for the one before.
func (m *machine) advance(a Adjustment) (Answer, error) {
	if m.stage == Pause {
		return m.endPause(a)
	}
	ph := &m.unit[m.phase]
	if at := breath.Int(a.At); ph.Waits && ph.Kind.Led() && !m.at().Less(at) {
		return refuse("refused.nothing-done")
	}
	m.skip(breath.Int(a.At))
	return Answer{}, nil
}

// toClosing is the verb "close": the closing starts at t, without a lead-in.
func (m *machine) toClosing(a Adjustment) (Answer, error) {
	m.abandon()
	m.cut(breath.Int(a.At))
	m.begin(Closing)
	m.settle()
	return Answer{}, nil
}

// toNext is the verb "next": the passage ends at t, after the last one the class.
func (m *machine) toNext(a Adjustment) (Answer, error) {
	m.abandon()
	m.cut(breath.Int(a.At))
	m.nextPassage()
	m.settle()
	return Answer{}, nil
}

// toEnd is the verb "end": the class ends at t.
func (m *machine) toEnd(a Adjustment) (Answer, error) {
	m.abandon()
	m.cut(breath.Int(a.At))
	m.over = true
	return Answer{}, nil
}
