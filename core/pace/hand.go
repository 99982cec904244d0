package pace

import (
	"slices"

	"vastlantern/core/breath"
	"vastlantern/core/plan"
	"vastlantern/core/practice"
)

// setByHand is the verb "by-hand": which phases wait for the teacher, from the next phase on (pacing.md section 7).
func (m *machine) setByHand(a Adjustment) (Answer, error) {
	hand, ok := plan.HandOf(a.Phases)
	switch a.Text {
	case "none":
		hand, ok = 0, true
	case "all":
		hand, ok = plan.AllByHand, true
	}
	l := m.inForce()
	switch {
	case !ok:
		return refuse("refused.by-hand-unknown")
	case hand == l.byHand:
		return Answer{When: Never}, nil
	case hand != 0 && l.beside.Shorter():
		return refuse("refused.by-hand-with-lane", "lane", l.beside)
	}
	answer := Answer{When: NextPhase}
	if hand == 0 {
		answer.Breathed, _ = m.breathed()
	}
	l.byHand = hand
	return answer, nil
}

// opens reports whether the phase is by hand, now that it starts.
func (m *machine) opens(ph *practice.Phase) bool {
	return !ph.Timed && (m.stage == Opening || m.stage == Round || m.stage == Closing) && m.inForce().byHand.Has(ph.Kind)
}

// changeWaits reports whether a change of sides that starts waits for the teacher: where any phase is by hand, people
// take their time for it (docs/rules/figures.md, section 3).
func (m *machine) changeWaits(ph *practice.Phase) bool {
	return m.stage == Round && ph.Kind == breath.Free && !ph.Waits && m.inForce().byHand != 0
}

func (m *machine) waitForChange() {
	m.unit = slices.Clone(m.unit)
	m.unit[m.phase].Waits = true
}

// open makes the phase that starts one that lasts until the teacher goes on.
func (m *machine) open() {
	m.unit = append([]practice.Phase(nil), m.unit...)
	ph := &m.unit[m.phase]
	*ph = ph.ByHand(m.runsAt(ph), !m.here().SharesZones())
	m.count = ph.First()
}

// refitByHand keeps the minutes of a passage whose round begins with a phase by hand: the breath of the rounds before
// decides how many more there are. A round that was announced as the last stays the last.
func (m *machine) refitByHand() {
	p, l := m.here(), m.inForce()
	if !p.ByMinutes() || l.pinned || l.byHand == 0 || m.round >= l.total {
		return
	}
	byHand := false
	for _, ph := range m.unit {
		byHand = byHand || l.byHand.Has(ph.Kind)
	}
	if byHand {
		round := p.RoundSpan(l.Measure)
		l.total = m.round + further(p.Millis().Sub(m.spent).Sub(round), round.Add(p.RestBetween))
		m.current.becameLast = l.total == m.round
	}
}

// handRounds is over how many rounds the tempo of the hand is measured.
const handRounds = 3

// HandTempo returns the tempo at which the teacher has breathed by hand in the passage in progress, in counts a minute
// (pacing.md section 7); 0 until three rounds of it were kept, and if nothing is by hand any more.
func (c *Class) HandTempo() int {
	m := &c.now
	if m.over || m.inForce().byHand == 0 {
		return 0
	}
	if tempo, rounds := m.breathed(); rounds == handRounds {
		return tempo
	}
	return 0
}

// breathed returns the tempo at which inhales and exhales by hand were breathed in the last kept rounds that have one,
// in counts a minute, and how many rounds these are; 0 if no kept round has one.
func (m *machine) breathed() (tempo, rounds int) {
	counts, took, number := 0, int64(0), 0
	for i := len(m.rows) - 1; i >= 0 && m.rows[i].Passage == m.passage+1; i-- {
		row := &m.rows[i]
		if row.Stage != Round || !row.Kept || row.Planned == 0 || !row.Phase.Moves() || m.inRound() && row.Round == m.round {
			continue
		}
		if row.Round != number {
			if rounds == handRounds {
				break
			}
			rounds, number = rounds+1, row.Round
		}
		counts += row.Planned + row.PlannedBeat
		took += row.Dur
	}
	if took == 0 {
		return 0, rounds
	}
	exact := breath.Int(60_000).Times(counts).Div(breath.Int(took)).Round()
	return int(min(max(exact, breath.SlowestTempo), breath.FastestTempo)), rounds
}
