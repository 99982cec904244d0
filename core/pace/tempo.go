package pace

import (
	"vastlantern/core/breath"
	"vastlantern/core/plan"
)

// setTempo is the verb "tempo": from the next row on, but a hold in progress is never made longer, so a tempo
// slower than the hold runs waits for its end. It is the rate of strokes, and the tempo of the rounds in practices of
// fixed counts; open phases have none.
func (m *machine) setTempo(a Adjustment) (Answer, error) {
	p, l := m.here(), m.inForce()
	slowest, fastest, outside := breath.SlowestTempo, breath.FastestTempo, "refused.tempo-outside"
	if p.CountsStrokes() {
		slowest, fastest, outside = breath.SlowestRate, breath.FastestRate, "refused.rate-outside"
	}
	if a.To.Less(breath.Int(int64(slowest))) || breath.Int(int64(fastest)).Less(a.To) {
		return refuse(outside, "given", a.To, "least", slowest, "most", fastest)
	}
	before := l.Tempo
	if a.To.Equal(before) || p.HasOpenPhases() {
		return Answer{When: Never}, nil
	}
	answer := Answer{When: NextCount}
	if m.unit[m.phase].Kind.Held() && m.runsAtRoundTempo() {
		if a.To.Less(m.hold) {
			answer.When = AfterHold
		} else {
			m.hold = a.To
		}
	}
	l.Tempo = a.To
	if a.Carry && p.TakesCounts() {
		answer.Carried = m.carry(a.To.Div(before))
	}
	m.refitStrokes()
	at := breath.Int(a.At)
	m.refit(at, m.rowEnd(at)) // last: it may end a rest, and with it the passage
	return answer, nil
}

// runsAtRoundTempo reports whether the stage in progress follows the tempo of the rounds.
func (m *machine) runsAtRoundTempo() bool {
	return m.stage == Round && !m.afterStrokes() || m.here().TakesCounts()
}

// carry scales the tempo of the later counted passages, those at own pace too, and keeps it within the range. A
// passage planned in minutes gets the rounds that then fit. It returns how many passages have another tempo for it.
func (m *machine) carry(by breath.Exact) int {
	passages := 0
	for i := m.passage + 1; i < len(m.live); i++ {
		p, l := &m.plan.Passages[i], &m.live[i]
		if !p.TakesCounts() {
			continue
		}
		tempo := within(l.Tempo.Mul(by), breath.SlowestTempo, breath.FastestTempo)
		changed := !tempo.Equal(l.Tempo)
		l.Tempo = tempo
		if changed {
			passages++
		}
		if changed && p.Led() && !l.pinned && p.ByMinutes() {
			l.total = p.TotalRounds(l.Measure)
		}
	}
	return passages
}

func within(x breath.Exact, low, high int64) breath.Exact {
	return breath.Max(breath.Int(low), breath.Min(breath.Int(high), x))
}

// refitStrokes keeps the minutes of a practice whose one round fills them, when its rate changes: its strokes become
// those begun, at the length they had or have, and the most further ones at the new rate that end within the minutes.
// A pause does not count.
func (m *machine) refitStrokes() {
	p, l := m.here(), m.inForce()
	if !p.Practice.FillsMinutes() || l.pinned || m.place()&(atClosing|atOwnPace) != 0 {
		return
	}
	begun, took := 0, breath.Exact{}
	switch {
	case m.stage == Round:
		begun, took = m.count, m.current.before.Add(m.end().Sub(m.since))
	case m.current.paused:
		begun, took = m.current.done, m.current.before
	}
	l.Strokes = max(1, begun+plan.StrokesWithin(p.Millis().Sub(took), l.Tempo))
	m.setCurrentStrokes(l.Strokes)
}
