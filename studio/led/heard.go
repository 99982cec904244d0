package led

import (
	"math"

	"vastlantern/core/breath"
	"vastlantern/core/fact"
	"vastlantern/core/room"
	"vastlantern/studio/contract"
)

// BecauseHeard is why an adjustment was made that follows what was heard.
const BecauseHeard = "heard-strokes"

// ProposeHeard returns what to do about how the room was heard to stroke, at a time of the class.
func (c *Class) ProposeHeard(at int64, heard contract.HeardStrokes) (contract.FromHeard, error) {
	if heard.PerMinute <= 0 || heard.PerMinute > contract.FastestHeard {
		return contract.FromHeard{}, fact.New("heard.rate", "given", heard.PerMinute)
	}
	scene := room.Scene{Now: c.Led.At(at)}
	if scene.Now.Passage > 0 {
		scene.Passage = &c.Plan.Passages[scene.Now.Passage-1]
	}
	changed := int64(0)
	for _, a := range c.Answers {
		if a.Refused.None() && a.Changes() {
			changed = a.At
		}
	}
	rate := breath.Ratio(int64(math.Round(heard.PerMinute*100)), 100)
	proposal, ok := room.ProposeHeard(room.Heard{PerMinute: rate, From: heard.FromMS}, scene, changed)
	if !ok {
		return contract.FromHeard{Do: []contract.Adjust{}}, nil
	}
	do, err := asAdjusts(proposal.Do, BecauseHeard)
	return contract.FromHeard{Say: &proposal.Say, Do: do}, err
}
