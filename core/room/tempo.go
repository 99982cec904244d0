// Package room holds what a teacher does about what is seen in the room: how much slower "slower" is.
package room

import "vastlantern/core/breath"

// step is how far one press moves the tempo: a twenty-fifth of it, in whole counts a minute and at least one. Small
// enough not to startle, large enough to be felt within a round (common practice, with no source).
func step(tempo breath.Exact) breath.Exact {
	return breath.Max(breath.Int(1), breath.Int(tempo.Div(breath.Int(25)).Round()))
}

// Slower is the tempo one step below, whole, within the range of counted practices.
func Slower(tempo breath.Exact) breath.Exact {
	return breath.Max(breath.Int(breath.SlowestTempo), breath.Int(tempo.Sub(step(tempo)).Round()))
}

// Faster is the tempo one step above, whole, within the range of counted practices.
func Faster(tempo breath.Exact) breath.Exact {
	return breath.Min(breath.Int(breath.FastestTempo), breath.Int(tempo.Add(step(tempo)).Round()))
}
