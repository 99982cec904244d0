package taught

import (
	"slices"

	"vastlantern/core/breath"
	"vastlantern/core/pace"
)

// LedBreath is a breath of a kept round that was led by hand, at least in part (pacing.md section 7).
type LedBreath struct {
	At     int64 // ms from the start of the class
	Round  int
	Lasted [4]int64 // ms, in the order of breath.OfABreath; the phases that were counted too

	number int // of the breath in its round
	byHand bool
}

// breathe adds a row of a kept round to its breath.
func (p *Passage) breathe(row pace.Row) {
	role := row.Phase.Role()
	if role < 0 || row.End() < 0 {
		return
	}
	last := len(p.Breaths) - 1
	if last < 0 || p.Breaths[last].Round != row.Round || p.Breaths[last].number != row.Breath {
		p.Breaths = append(p.Breaths, LedBreath{At: row.At, Round: row.Round, number: row.Breath})
		last++
	}
	one := &p.Breaths[last]
	one.Lasted[role] += row.Dur
	one.byHand = one.byHand || row.Planned > 0
	if row.Planned > 0 && row.Phase.Moves() {
		p.handCounts += row.Planned + row.PlannedBeat
		p.handTook += row.Dur
	}
}

// onlyByHand leaves the breaths of which nothing was by hand: the counts tell all of them.
func (p *Passage) onlyByHand() {
	p.Breaths = slices.DeleteFunc(p.Breaths, func(b LedBreath) bool { return !b.byHand })
}

// HandTempo returns the tempo at which inhales and exhales by hand were breathed in all kept rounds, in counts a
// minute, rounded half up and within the range of a tempo; 0 if none was by hand.
func (p *Passage) HandTempo() int {
	if p.handTook == 0 {
		return 0
	}
	tempo := breath.Int(60_000).Times(p.handCounts).Div(breath.Int(p.handTook)).Round()
	return int(min(max(tempo, breath.SlowestTempo), breath.FastestTempo))
}

// MeanBreath returns how long the phases of a breath by hand were on average, in milliseconds rounded half up, in the
// order of breath.OfABreath; all 0 if no breath was.
func (p *Passage) MeanBreath() (mean [4]int64) {
	for role := range mean {
		sum := int64(0)
		for i := range p.Breaths {
			sum += p.Breaths[i].Lasted[role]
		}
		if n := len(p.Breaths); n > 0 {
			mean[role] = breath.Ratio(sum, int64(n)).Round()
		}
	}
	return mean
}
