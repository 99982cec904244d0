package taught

import (
	"vastlantern/core/breath"
	"vastlantern/core/plan"
)

// Plan writes into the document of the plan that the class was led from what was taught: the rounds that were kept, at
// the tempo, counts and strokes that they ended with. What was not reached is left out.
func (r Record) Plan(doc plan.Document, p *plan.Plan) {
	for i, fields := range doc.Passages() {
		if was := &r.Passages[i]; was.Length > 0 && p.Passages[i].Led() && was.Rounds > 0 {
			again := Next{Counts: was.Counts, Strokes: was.Strokes, Tempo: was.TempoEnd, Rounds: was.Rounds}
			if hand := was.HandTempo(); hand > 0 {
				again.Tempo = breath.Int(int64(hand))
			}
			again.Apply(fields, &p.Passages[i])
		}
	}
	doc.KeepOnly(func(number int) bool { return r.Passages[number-1].Length > 0 })
}

// AsPlanned reports whether all rounds of a class were led and nothing was eased.
func (r Record) AsPlanned() bool {
	for _, p := range r.Passages {
		if p.Eased || p.Rounds < p.PlannedRounds {
			return false
		}
	}
	return true
}
