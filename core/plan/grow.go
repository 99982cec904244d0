package plan

import (
	"encoding/json"
	"errors"
	"fmt"
	"strconv"

	"vastlantern/core/breath"
)

// What can grow from one class of a course to the next.
const (
	GrowNothing = "nothing"
	GrowRounds  = "rounds" // a round more each time
	GrowCounts  = "counts" // a count of the inhale more each time, the ratio kept
)

// Grow takes one passage of a document, from 1, so many steps up, as a course over several classes does; p is the plan
// of that document before. Rounds stop at MostRounds. An error says what cannot grow, or, as Errors, that it would grow
// beyond what is allowed.
func Grow(doc Doc, p *Plan, passage int, what string, steps int) error {
	if steps == 0 || what == GrowNothing {
		return nil
	}
	list, _ := doc["passages"].([]any)
	if passage < 1 || passage > len(p.Passages) || passage > len(list) || !p.Passages[passage-1].Led() {
		return errors.New("this is no practice that is led")
	}
	fields, _ := list[passage-1].(map[string]any)
	one := &p.Passages[passage-1]
	if what == GrowRounds {
		SetRounds(fields, min(one.TotalRounds(one.Measure)+steps, MostRounds))
		return nil
	}
	c := one.Measure.Counts
	if c.Inhale == 0 {
		return fmt.Errorf("%s has no counts that could grow", one.Name())
	}
	fields["counts"] = c.Scaled(c.Inhale + steps).String()
	_, err := Read(doc)
	return err
}

// talkStep is what the lengths of talks are rounded to, in seconds.
const talkStep = 5

// LengthenTalks plans the talks so many times as long, to five seconds and at least five; those that are kept stay.
func LengthenTalks(doc Doc, p *Plan, times breath.Exact) {
	list, _ := doc["passages"].([]any)
	for i := range p.Passages {
		fields, ok := list[i].(map[string]any)
		if one := &p.Passages[i]; ok && one.Type == Talk && !one.Keep {
			seconds := one.Length.Mul(times).Div(breath.Int(1000*talkStep)).Round() * talkStep
			fields["seconds"] = json.Number(strconv.FormatInt(max(talkStep, seconds), 10))
		}
	}
}
