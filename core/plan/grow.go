package plan

import (
	"errors"
	"fmt"

	"vastlantern/core/breath"
)

// What can grow from one class of a course to the next.
const (
	GrowNothing = "nothing"
	GrowRounds  = "rounds" // a round more each time
	GrowCounts  = "counts" // a count of the inhale more each time, the ratio kept
)

// Grow takes one passage of the document, from 1, so many steps up, as a course over several classes does; p is the plan
// of that document before, for a group of the level. It takes fewer where more would overrun the slot or be more than is
// advised for the practice, and tells how many it took. An error says what cannot grow, or, as Errors, that it would grow
// beyond what is allowed.
func (d Document) Grow(p *Plan, passage int, what string, steps int, level string) (taken int, err error) {
	if steps == 0 || what == GrowNothing {
		return steps, nil
	}
	fields, err := d.Passage(passage)
	if err != nil || !p.Passages[passage-1].HasRounds() {
		return 0, errors.New("this is no practice that is led in rounds")
	}
	last := fields.Clone()
	for taken < steps {
		grown := fields.Clone()
		if err := grown.grow(&p.Passages[passage-1], what, taken+1); err != nil {
			return taken, err
		}
		d.Replace(passage, grown)
		next, err := Read(d)
		if err != nil {
			return taken, err
		}
		overrun := p.Slot.Sign() > 0 && p.Slot.Times(60_000).Less(next.Length())
		if one := &next.Passages[passage-1]; overrun || next.advised(passage-1, level) < one.TotalRounds(one.Measure) {
			d.Replace(passage, last)
			return taken, nil
		}
		last, taken = grown, taken+1
	}
	return taken, nil
}

// grow takes the fields of the passage so many steps up.
func (f Fields) grow(p *Passage, what string, steps int) error {
	c := p.Measure.Counts
	switch {
	case what == GrowRounds:
		f.SetRounds(min(p.TotalRounds(p.Measure)+steps, MostRounds))
	case c.Inhale == 0:
		return fmt.Errorf("%s has no counts that could grow", p.Name())
	default:
		f.SetCounts(c.Scaled(c.Inhale + steps))
	}
	return nil
}

// talkStep is what the lengths of talks are rounded to, in seconds.
const talkStep = 5

// LengthenTalks plans the talks so many times as long, to five seconds and at least five; those that are kept stay.
func (d Document) LengthenTalks(p *Plan, times breath.Exact) {
	for i, fields := range d.Passages() {
		if one := &p.Passages[i]; !fields.broken() && one.Type == Talk && !one.Keep {
			seconds := one.Length.Mul(times).Div(breath.Int(1000*talkStep)).Round() * talkStep
			fields.set("seconds", breath.Int(max(talkStep, seconds)))
		}
	}
}
