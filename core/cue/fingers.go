package cue

import (
	"vastlantern/core/breath"
	"vastlantern/core/pace"
	"vastlantern/core/plan"
)

// Fingers is what the fingers do at the nose, for a drawing of it.
type Fingers string

// What fingers can do. That both nostrils are closed in a hold between one-sided breaths is common practice, with no
// source.
const (
	NoFingers  Fingers = ""
	CloseLeft  Fingers = "left"
	CloseRight Fingers = "right"
	CloseBoth  Fingers = "both"
	Narrow     Fingers = "narrow" // both nostrils are narrowed, not closed
	Lower      Fingers = "down"   // the hand comes down
)

// FingersIn returns what the fingers do in a row, after what they did in the row before it.
func FingersIn(r *pace.Row, before Fingers, of *plan.Plan) Fingers {
	p := &of.Passages[r.Passage-1]
	switch {
	case p.Type != plan.Practice:
		return NoFingers
	case p.Practice.TakesField("aperture"):
		if r.Part == string(Narrow) {
			return Narrow
		}
		return NoFingers
	case !handAtNose(p):
		return NoFingers
	case r.Through == breath.Left || r.Through == breath.Right:
		return closing(r.Through.Other())
	case before != NoFingers && r.Phase.Held():
		return CloseBoth
	case before != NoFingers && r.Phase == breath.Still:
		return before
	}
	return NoFingers
}

// closing returns the fingers that close the side.
func closing(side breath.Through) Fingers {
	if side == breath.Left {
		return CloseLeft
	}
	return CloseRight
}

// HandAtNose reports whether a passage brings the hand to the nose: to close one nostril, or to narrow both.
func HandAtNose(p *plan.Passage) bool {
	return handAtNose(p) || p.Type == plan.Practice && p.Practice.TakesField("aperture")
}

// handAtNose reports whether the practice breathes through one nostril at a time.
func handAtNose(p *plan.Passage) bool { return p.Type == plan.Practice && p.Practice.Sided() }

// HandPlace returns where a hand lies on the body in a passage: front, sides, back or round in belly breath, and in
// three-part breath belly, ribs, chest or all; empty if it lies nowhere (handbook.md section 3).
func HandPlace(p *plan.Passage) string {
	switch {
	case p.Type != plan.Practice:
		return ""
	case p.Practice.TakesField("attention"):
		return p.Attention
	case p.Practice.TakesField("zone"):
		return p.Zone
	}
	return ""
}
