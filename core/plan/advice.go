package plan

import (
	"fmt"
	"slices"
	"time"

	"vastlantern/core/breath"
	"vastlantern/core/practice"
)

// Advice is something about the order or the length of a plan that a teacher may want to change. It forbids nothing.
type Advice struct {
	Passage int // from 1; 0 for the plan as a whole
	Say     string
	Why     string
}

// lateFrom is the hour from which a class counts as late in the evening (common practice, with no source).
const lateFrom = 20

// leastRest is how long a lying rest at the end is at least, in milliseconds (common practice, with no source).
const leastRest = 60_000

// Advise is the advice on a plan: first of the whole, then passage by passage.
func (p *Plan) Advise() []Advice {
	var list []Advice
	if p.Slot.Sign() > 0 {
		if over := p.Length().Sub(p.Slot.Times(60_000)); over.Sign() > 0 {
			list = append(list, Advice{0, fmt.Sprintf("The plan is %s longer than its slot.", shortTime(breath.Int(over.Div(breath.Int(1000)).Round()*1000))),
				"What is over is taken from the closing rest, which should stay whole."})
		}
	}
	if n := len(p.Passages); n > 0 {
		if first := &p.Passages[0]; first.Type == Practice {
			list = append(list, Advice{1, "Let the room settle before the first practice.", "Who has just arrived follows a count better after finding the seat and the natural breath."})
		}
		if last := &p.Passages[n-1]; last.Type != Free || last.Length.Less(breath.Int(leastRest)) {
			list = append(list, Advice{n, "Close with a minute or more of rest.", "Changes are noticed in the quiet afterwards, and nobody should get up straight from a practice."})
		}
	}
	return slices.Concat(list, p.adviseOnOrder(), p.adviseOnLanes())
}

// shortestBreath is how long a breath of the gentler lane takes at least, in milliseconds.
const shortestBreath = 4000

func (p *Plan) adviseOnLanes() []Advice {
	var list []Advice
	for i := range p.Passages {
		passage := &p.Passages[i]
		counts := passage.Beside.Inhale + passage.Beside.Exhale
		switch {
		case passage.Beside.Breathe && !passage.Holds():
			list = append(list, Advice{i + 1, fmt.Sprintf("Leave out what stands beside %s.", passage.Name()), "It has no hold to breathe through."})
		case passage.Beside.Shorter() && passage.rowLength().Times(counts).Less(breath.Int(shortestBreath)):
			list = append(list, Advice{i + 1, fmt.Sprintf("Give the breath beside %s more counts.", passage.Name()), "It would take less than four seconds."})
		}
	}
	return list
}

// rowLength is how long a count or a stroke of the rounds lasts as planned, in milliseconds.
func (p *Passage) rowLength() breath.Exact { return breath.CountLength(p.Measure.Tempo) }

// Holds tells whether there is a hold anywhere in the passage.
func (p *Passage) Holds() bool {
	for _, ph := range slices.Concat(p.Opening(), p.Round(p.Measure), p.Closing()) {
		if ph.Kind.Held() {
			return true
		}
	}
	return false
}

// Late tells whether the time is late in the evening where it was written; no time is not.
func Late(at time.Time) bool { return !at.IsZero() && (at.Hour() >= lateFrom || at.Hour() < 4) }

func (p *Plan) adviseOnOrder() []Advice {
	var list []Advice
	calmed, breathed := 0, false
	late := Late(p.StartsAt)
	for i := range p.Passages {
		passage := &p.Passages[i]
		if passage.Type != Practice {
			continue
		}
		name := passage.Name()
		switch as := passage.Practice.TaughtAs; {
		case as == practice.Calming:
			calmed = i + 1
		case as == practice.Warming && late:
			list = append(list, Advice{i + 1, fmt.Sprintf("Leave %s for another time of day.", name), "Strokes and other warming practices are not taught late in the evening."})
		case as == practice.Warming && calmed > 0:
			list = append(list, Advice{i + 1, fmt.Sprintf("Move %s before %s.", name, p.Passages[calmed-1].Name()), "Warming practices come before calming ones; a class ends quietly."})
		}
		held := passage.Measure.Counts.Holds()
		if held && !breathed {
			list = append(list, Advice{i + 1, fmt.Sprintf("Put a breath without holds before %s.", name), "Holds come once the breath is even, and after the postures where a class has them."})
		}
		breathed = breathed || !held
	}
	return list
}
