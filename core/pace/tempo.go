package pace

import (
	"fmt"
	"slices"

	"vastlantern/core/breath"
	"vastlantern/core/plan"
	"vastlantern/core/practice"
)

// setTempo is the verb "tempo": from the next row on, but a hold in progress is never made longer, so a tempo
// slower than the hold runs waits for its end.
func (m *machine) setTempo(a Adjustment) (Answer, error) {
	if a.To.Less(breath.Int(breath.SlowestTempo)) || breath.Int(breath.FastestTempo).Less(a.To) {
		return Answer{}, refusal(fmt.Sprintf("%s counts a minute is outside %d to %d", a.To, breath.SlowestTempo, breath.FastestTempo))
	}
	before := m.live[m.passage].tempo
	answer := Answer{When: NextCount, Before: before, After: a.To}
	if a.To.Equal(before) {
		answer.When = Never
		return answer, nil
	}
	if m.unit[m.phase].Kind.Held() {
		if a.To.Less(m.hold) {
			answer.When = AfterHold
		} else {
			m.hold = a.To
		}
	}
	m.live = slices.Clone(m.live)
	m.live[m.passage].tempo = a.To
	m.refit(breath.Int(a.At))
	if a.Carry {
		m.carry(a.To.Div(before))
	}
	return answer, nil
}

// carry scales the tempo of the later counted passages, those at own pace too, and keeps it within the range. A
// passage planned in minutes gets the rounds that then fit.
func (m *machine) carry(by breath.Exact) {
	for i := m.passage + 1; i < len(m.live); i++ {
		p := &m.plan.Passages[i]
		if p.Type != plan.Practice || p.Practice.Kind != practice.Counted {
			continue
		}
		tempo := breath.Max(breath.Int(breath.SlowestTempo), breath.Min(breath.Int(breath.FastestTempo), m.live[i].tempo.Mul(by)))
		changed := !tempo.Equal(m.live[i].tempo)
		m.live[i].tempo = tempo
		if changed && p.ByMinutes() && !m.live[i].pinned {
			m.live[i].total = p.TotalRounds(tempo)
		}
	}
}

// refit keeps the minutes of a passage that was planned in them, when a value changes: its total becomes the
// rounds kept, the one in progress, and the most further whole rounds that still end within the minutes (pacing.md
// section 4). Counted is what kept rounds and rests really took, the round or rest in progress as it will now run,
// and further ones as planned; not pauses, lead-ins and abandoned rounds.
func (m *machine) refit(t breath.Exact) {
	p, l := m.here(), &m.live[m.passage]
	if !p.ByMinutes() || l.pinned || m.place()&atClosing != 0 {
		return
	}
	minutes := p.Minutes.Times(60_000)
	round := plan.Span(p.Round(p.Counts), l.tempo)
	switch m.stage {
	case Round:
		used := m.spent.Add(m.unitEnd().Sub(m.since))
		l.total = m.round + further(minutes.Sub(used), round.Add(p.RestBetween))
	case Rest:
		end := m.end
		if m.waiting() {
			end = m.waitEnd(t)
		}
		// The first further round needs no further rest: the one in progress stands before it.
		left := minutes.Sub(m.spent).Sub(end.Sub(m.since)).Add(p.RestBetween)
		l.total = m.round + further(left, round.Add(p.RestBetween))
		if l.total == m.round {
			m.endRest(t)
		}
	default: // setup, opening, pause: the round to come is the one in progress
		used := m.spent.Add(round)
		l.total = m.round + further(minutes.Sub(used), round.Add(p.RestBetween))
	}
}

func further(left, each breath.Exact) int {
	if left.Sign() <= 0 {
		return 0
	}
	return int(left.Div(each).Floor())
}

// release is the verb "release": a hold ends at once, its word's beat too.
func (m *machine) release(a Adjustment) (Answer, error) {
	m.skip(breath.Int(a.At))
	return Answer{}, nil
}

// skip ends the phase in progress at t and stands in the one after it.
func (m *machine) skip(t breath.Exact) {
	m.cut(t)
	m.toPhase(m.phase + 1)
	m.settle()
}
