package plan

import "vastlantern/core/breath"

// AdvisedRounds returns the most rounds that are proposed for a passage, from 0, in a group of the level (one of
// practice.Levels, or empty if it is not known): what the practice's bounds leave it, where a class has several
// passages of the practice in proportion to how long they are planned, and never fewer than are planned. It is of no
// use for passages without rounds.
func (p *Plan) AdvisedRounds(passage int, level string) int {
	one := &p.Passages[passage]
	return max(one.TotalRounds(one.Measure), p.advised(passage, level))
}

// advised returns how many rounds the practice's bounds leave the passage, also where more are planned; at least one.
func (p *Plan) advised(passage int, level string) int {
	one := &p.Passages[passage]
	most := one.Practice.Bounds.Of(one.Measure.Counts).For(level)
	if most.Rounds > 0 {
		return most.Rounds
	}
	var all breath.Exact
	for i := range p.Passages {
		if other := &p.Passages[i]; other.Type == Practice && other.HasRounds() && other.Practice.ID == one.Practice.ID {
			all = all.Add(other.RoundsSpan())
		}
	}
	share := breath.Int(int64(most.Minutes) * 60_000).Mul(one.RoundsSpan()).Div(all)
	return min(RoundsWithin(share, one.RoundSpan(one.Measure), one.BetweenSpan(one.Measure)), MaxRounds)
}

// RoundsSpan returns how long the rounds of the passage take as planned, with what is between them, in milliseconds.
func (p *Passage) RoundsSpan() breath.Exact {
	rounds := p.TotalRounds(p.Measure)
	return p.RoundSpan(p.Measure).Times(rounds).Add(p.BetweenSpan(p.Measure).Times(rounds - 1))
}
