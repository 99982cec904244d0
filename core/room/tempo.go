// Package room turns signs seen in the room into proposals, and decides how much slower "slower" is.
package room

import (
	"vastlantern/core/breath"
	"vastlantern/core/plan"
)

// step returns how far one press moves the tempo: a twenty-fifth of it, in whole counts a minute and at least one.
// Small enough not to startle, large enough to be felt within a round (common practice, with no source).
func step(tempo breath.Exact) breath.Exact {
	return breath.Max(breath.Int(1), breath.Int(tempo.Div(breath.Int(25)).Round()))
}

// Slower returns the tempo one step below, whole, within the range of the passage: counts or strokes a minute.
func Slower(p *plan.Passage, tempo breath.Exact) breath.Exact {
	slowest, _ := bounds(p)
	return breath.Max(slowest, breath.Int(tempo.Sub(step(tempo)).Round()))
}

// Faster returns the tempo one step above, whole, within the range of the passage.
func Faster(p *plan.Passage, tempo breath.Exact) breath.Exact {
	_, fastest := bounds(p)
	return breath.Min(fastest, breath.Int(tempo.Add(step(tempo)).Round()))
}

func bounds(p *plan.Passage) (slowest, fastest breath.Exact) {
	if p.CountsStrokes() {
		return breath.Int(breath.SlowestRate), breath.Int(breath.FastestRate)
	}
	return breath.Int(breath.SlowestTempo), breath.Int(breath.FastestTempo)
}
