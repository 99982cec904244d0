package plan

import (
	"vastlantern/core/breath"
)

// MaxShown is how often all lines of a class can be shown: each time is a cue that every screen is sent. A class of
// twelve hours with a hundred lines on each of its breaths would have millions.
const MaxShown = 100_000

// LinesShown returns about how often the lines of the plan are shown, each place and each time counted.
func (p *Plan) LinesShown() int {
	shown := 0
	for i := range p.Passages {
		passage := &p.Passages[i]
		if len(passage.Lines) == 0 {
			continue
		}
		rounds, breaths := 1, 1
		if passage.Led() {
			rounds = passage.TotalRounds(passage.Measure)
			for _, ph := range passage.Round(passage.Measure) {
				breaths = max(breaths, ph.Breath)
			}
		}
		length := passage.PlannedLength()
		for n := range passage.Lines {
			shown += passage.Lines[n].shown(rounds, breaths, length)
		}
	}
	return shown
}

// shown returns about how often the line is shown in a passage of so many rounds, each of so many breaths, that lasts
// so many milliseconds.
func (l *Line) shown(rounds, breaths int, length breath.Exact) int {
	switch {
	case l.Every.Sign() > 0:
		return 1 + int(length.Div(l.Every.Times(1000)).Floor())
	case l.Second.Sign() >= 0 || l.LastRound && l.Phase == "":
		return 1
	case l.LastRound:
		rounds = 1
	case l.First > 0:
		rounds = max(0, min(l.Last, rounds)-l.First+1)
	}
	if l.Breath > 0 || l.Phase == "" && l.Through == "" && l.Part == "" {
		breaths = 1
	}
	return rounds * breaths
}
