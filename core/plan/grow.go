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
// of that document before. Rounds stop at MostRounds. An error says what cannot grow, or, as Errors, that it would grow
// beyond what is allowed.
func (d Document) Grow(p *Plan, passage int, what string, steps int) error {
	if steps == 0 || what == GrowNothing {
		return nil
	}
	fields, err := d.Passage(passage)
	if err != nil || !p.Passages[passage-1].Led() {
		return errors.New("this is no practice that is led")
	}
	one := &p.Passages[passage-1]
	if what == GrowRounds {
		fields.SetRounds(min(one.TotalRounds(one.Measure)+steps, MostRounds))
		return nil
	}
	c := one.Measure.Counts
	if c.Inhale == 0 {
		return fmt.Errorf("%s has no counts that could grow", one.Name())
	}
	fields.SetCounts(c.Scaled(c.Inhale + steps))
	_, err = Read(d)
	return err
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
