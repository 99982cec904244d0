package plan

import "vastlantern/core/breath"

// talkStep is what the lengths of talks are rounded to, in seconds.
const talkStep = 5

// LengthenTalks plans the talks so many times as long, to five seconds and at least five; those that are kept stay.
func (d Document) LengthenTalks(p *Plan, times breath.Exact) {
	for i, fields := range d.Passages() {
		if one := &p.Passages[i]; !fields.Broken() && one.Type == Talk && !one.Keep {
			seconds := one.Length.Mul(times).Div(breath.Int(1000*talkStep)).Round() * talkStep
			fields.set("seconds", breath.Int(max(talkStep, seconds)))
		}
	}
}
