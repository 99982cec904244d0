package plan

import (
	"vastlantern/core/breath"
	"vastlantern/core/practice"
)

// Beat returns the count-in, while breathing goes on as it likes: no phases where it has no counts.
func (p *Passage) Beat() []practice.Phase { return counted(breath.Beat, breath.None, p.CountIn) }

// Lead returns the lead-in: lungs emptied, hand raised.
func (p *Passage) Lead() []practice.Phase { return counted(breath.Lead, breath.Both, p.LeadIn) }

// HasRests reports whether there is a rest between two rounds, also one of no planned length that waits.
func (p *Passage) HasRests() bool { return p.RestBetween.Sign() > 0 || p.RestWait }

// AfterRest returns the lead-in between a rest and the next round; no phases if there are no rests.
func (p *Passage) AfterRest() []practice.Phase {
	if !p.HasRests() {
		return nil
	}
	return counted(breath.Lead, breath.Both, p.RestLeadIn)
}

// BetweenSpan returns the planned length of what is between two rounds, in milliseconds: the rest, and the lead-in to
// the next round at the tempo of the measure.
func (p *Passage) BetweenSpan(m Measure) breath.Exact {
	return p.RestBetween.Add(Span(p.AfterRest(), p.TempoAround(m)))
}

func counted(kind breath.Phase, through breath.Through, counts int) []practice.Phase {
	if counts == 0 {
		return nil
	}
	return []practice.Phase{{Kind: kind, Through: through, Counts: counts}}
}

// Opening returns the opening's steps, and the breath that entry "exhale" adds: in by both, out by the starting side.
func (p *Passage) Opening() []practice.Phase {
	phases := p.steps(p.OpeningSteps)
	if !p.ExhaleFirst {
		return phases
	}
	number := 1
	for _, step := range p.OpeningSteps {
		number += step.Breaths
	}
	return append(
		phases,
		practice.Phase{
			Kind:    breath.Inhale,
			Through: breath.Both,
			Breath:  number,
			Counts:  p.Measure.Counts.Inhale,
			Word:    p.WordBefore,
		},
		practice.Phase{
			Kind:    breath.Exhale,
			Through: p.Side,
			Breath:  number,
			Counts:  p.Measure.Counts.Exhale,
			Word:    p.WordBefore,
		},
	)
}

// Closing returns the closing's steps.
func (p *Passage) Closing() []practice.Phase { return p.steps(p.ClosingSteps) }

func (p *Passage) steps(steps []Step) []practice.Phase {
	var phases []practice.Phase
	number := 0
	for _, step := range steps {
		if step.Breaths == 0 {
			free := practice.Free(step.Length)
			free.Text = step.Text
			phases = append(phases, free)
		}
		for range step.Breaths {
			number++
			for role, counts := range step.Counts.Four() {
				if kind := breath.OfABreath[role]; counts > 0 {
					phases = append(phases, practice.Phase{
						Kind: kind, Through: step.Airway.Of(kind), Breath: number, Counts: counts, Word: p.WordBefore,
					})
				}
			}
		}
	}
	return phases
}

// Round returns one round at the measure.
func (p *Passage) Round(m Measure) []practice.Phase { return p.RoundSince(m, m.Counts) }

// RoundSince returns one round at the measure that began with these counts: what was then breathed in steps stays in
// steps, also where the stops between them are gone by now.
func (p *Passage) RoundSince(m Measure, began breath.Counts) []practice.Phase {
	return p.Practice.Round(practice.Setting{
		Stops:      began,
		Breaths:    p.Breaths,
		Sides:      p.Sides,
		Counts:     m.Counts,
		Strokes:    m.Strokes,
		Open:       p.Open,
		Start:      p.Side,
		Airway:     p.Airway,
		Zone:       p.Zone,
		Aperture:   p.Aperture,
		WordBefore: p.WordBefore, NaturalPause: p.NaturalPause,
	})
}

// SideBreaths returns how many breaths a round has on each side of the body; 0 where it has no sides.
func (p *Passage) SideBreaths() int {
	breaths := 0
	if len(p.Sides) == 0 {
		return breaths
	}
	for _, ph := range p.Round(p.Measure) {
		breaths = max(breaths, ph.Breath)
	}
	return breaths / len(p.Sides)
}

// RoundSpan returns the planned length of one round at the measure, in milliseconds.
func (p *Passage) RoundSpan(m Measure) breath.Exact {
	var span breath.Exact
	for _, ph := range p.Round(m) {
		span = span.Add(ph.Span(p.TempoIn(&ph, m)))
	}
	return span
}

// TempoIn returns the tempo that a phase of a round runs at: strokes have their rate, and the breath after them the
// plan's tempo (docs/rules/figures.md, section 2).
func (p *Passage) TempoIn(ph *practice.Phase, m Measure) breath.Exact {
	if p.CountsStrokes() && ph.Kind != breath.Stroke {
		return p.PlanTempo
	}
	return m.Tempo
}

// TempoAround returns the tempo of beat, lead-in, opening and closing while the rounds run at the measure: theirs in a
// counted practice, the plan's in others (pacing.md section 3).
func (p *Passage) TempoAround(m Measure) breath.Exact {
	if p.TakesCounts() {
		return m.Tempo
	}
	return p.PlanTempo
}

// Span returns the planned length of the phases in milliseconds at the tempo.
func Span(phases []practice.Phase, tempo breath.Exact) breath.Exact {
	var span breath.Exact
	for _, ph := range phases {
		span = span.Add(ph.Span(tempo))
	}
	return span
}

// RoundsWithin returns the most rounds that fit into the time, and at least one: the largest r with r x round + (r-1) x
// rest <= within (pacing.md section 3). All are in milliseconds.
func RoundsWithin(within, round, rest breath.Exact) int {
	return int(max(1, within.Add(rest).Div(round.Add(rest)).Floor()))
}

// TotalRounds returns how many rounds the passage has at the measure, as planned.
func (p *Passage) TotalRounds(m Measure) int {
	if !p.ByMinutes() {
		return p.Rounds
	}
	return RoundsWithin(p.Millis(), p.RoundSpan(m), p.RestBetween)
}

// Millis returns the planned minutes in milliseconds.
func (p *Passage) Millis() breath.Exact { return p.Minutes.Times(60_000) }

// StrokesWithin returns the most strokes at the rate that fit into the time in milliseconds.
func StrokesWithin(within, rate breath.Exact) int {
	return int(max(0, within.Div(breath.CountLength(rate)).Floor()))
}

// PlannedLength returns the length of the passage as planned, in milliseconds.
func (p *Passage) PlannedLength() breath.Exact {
	if p.Type != Practice {
		return p.Length
	}
	tempo := p.TempoAround(p.Measure)
	around := Span(p.Beat(), tempo).Add(Span(p.Lead(), tempo)).Add(Span(p.Opening(), tempo)).Add(Span(p.Closing(), tempo))
	if p.OwnPace {
		return around.Add(p.OwnSpan()).Add(p.Recall)
	}
	rounds := p.TotalRounds(p.Measure)
	return around.Add(p.RoundSpan(p.Measure).Times(rounds)).Add(p.BetweenSpan(p.Measure).Times(rounds - 1))
}

// Rows returns about how many rows the cue sheet of the plan has, one a count.
func (p *Plan) Rows() int {
	count := func(phases []practice.Phase) (rows int) {
		for _, ph := range phases {
			rows += ph.Counts + 1 - ph.First()
		}
		return rows
	}
	rows := 0
	for i := range p.Passages {
		passage := &p.Passages[i]
		rows += 3
		if passage.Type == Practice {
			rows += passage.CountIn + passage.LeadIn + count(passage.Opening()) + count(passage.Closing())
		}
		if passage.Led() {
			rows += passage.TotalRounds(
				passage.Measure,
			) * (1 + count(passage.AfterRest()) + count(passage.Round(passage.Measure)))
		}
	}
	return rows
}

// Length returns the length of the class as planned, in milliseconds; what waits counts as planned.
func (p *Plan) Length() breath.Exact {
	var length breath.Exact
	for i := range p.Passages {
		length = length.Add(p.Passages[i].PlannedLength())
	}
	return length
}
