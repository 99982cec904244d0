package pace

import "vastlantern/core/breath"

// Stretch is from when to when a passage goes, in milliseconds, counted as the rows before it are.
type Stretch struct {
	Passage  int // from 1
	From, To int64
}

// timelineTo returns the timeline to its end, or, after 0, with the stage in progress at a moment and the one after it,
// so that everything up to the moment is known whole and what follows it. A lead-in or an opening belongs to what it
// leads to.
func (m *machine) timelineTo(until int64) Timeline {
	if until == 0 {
		m.run()
		return m.timeline()
	}
	m.runTo(until)
	for ended := 0; !m.over && !m.waiting() && ended < 2; {
		passage, stage, round := m.passage, m.stage, m.round
		m.step()
		if stage != Setup && stage != Opening && (m.passage != passage || m.stage != stage || m.round != round) {
			ended++
		}
	}
	if m.over || m.waiting() {
		return m.timeline()
	}
	after := m.copyWithoutRows()
	return Timeline{Rows: m.rows, End: -1, Then: after.stretches()}
}

// stretches goes on to the end of the class and returns where its passages go on. What waits takes its planned length.
func (m *machine) stretches() []Stretch {
	var list []Stretch
	began := m.fromHere()
	shift := int64(0) // what is counted from where a wait was over, as rows after it are (Class.Ahead)
	now := func() int64 { return shift + began.Add(m.at()).Round() }
	for !m.over {
		if n := len(list); n == 0 || list[n-1].Passage != m.passage+1 {
			from := now()
			if n > 0 {
				list[n-1].To = from
			}
			list = append(list, Stretch{Passage: m.passage + 1, From: from})
		}
		if m.waiting() {
			shift += began.Add(m.end()).Round()
			began = breath.Exact{}
			m.goOnAsPlanned()
			continue
		}
		m.leap()
		m.step()
	}
	list[len(list)-1].To = now()
	return list
}

// fromHere counts times from where the row in progress began, and returns when that was: after many changes of tempo
// that is a fraction of many digits, what follows is not.
func (m *machine) fromHere() breath.Exact {
	began := m.at()
	m.since = m.since.Sub(began)
	m.stand(breath.Exact{}, m.end().Sub(began), breath.Exact{})
	return began
}

// goOnAsPlanned ends what waits at its planned end. That leaves no row, times are counted from there, and nothing waits
// any more.
func (m *machine) goOnAsPlanned() {
	m.led = false
	m.current.shown = m.stage == Round // a round that waits has begun
	m.since = m.since.Sub(m.end())     // what counts against the passage's minutes began so much before
	m.stand(breath.Exact{}, breath.Exact{}, breath.Exact{})
}
