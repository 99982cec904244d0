package plan

import (
	"encoding/json"
	"slices"
	"strconv"

	"vastlantern/core/breath"
	"vastlantern/core/fact"
	"vastlantern/core/practice"
)

// SetCount plans the passage, which is p, with so many counts of one of its phases, of a counted practice, or so many
// seconds, of an open one. An error says that there is no such phase; whether the number is allowed is for Read to say.
func (f Fields) SetCount(p *Passage, phase breath.Phase, n int) error {
	role := phase.Role()
	switch {
	case role < 0 || p.Type != Practice:
	case p.TakesCounts():
		c := p.Measure.Counts
		*[]*int{&c.Inhale, &c.Hold, &c.Exhale, &c.Empty}[role] = n
		f.SetCounts(c)
		return nil
	case p.HasOpenPhases():
		lengths := make([]any, len(p.Open))
		for i, length := range p.Open {
			lengths[i] = json.Number(length.Div(breath.Int(1000)).String())
		}
		lengths[role] = json.Number(strconv.Itoa(n))
		f.values["open_seconds"] = lengths
		return nil
	}
	return fact.New("plan.no-counts-of-phase", "name", p.Name(), "phase", phase)
}

// Role is one of the counts of a passage that a teacher chooses: those of its inhales, for instance.
type Role struct {
	Phase  breath.Phase
	Counts int // or seconds, of an open practice; 0 if the phase is left out
}

// Roles returns the counts of the passage that can be chosen, in the order of the round; none if the practice fixes
// them.
func (p *Passage) Roles() []Role {
	if p.Type != Practice {
		return nil
	}
	c := p.Measure.Counts
	var roles []Role
	for i, n := range c.Four() {
		step := slices.IndexFunc(p.Practice.Figure, func(s practice.Step) bool { return s.Counts == string(rune('a'+i)) })
		if step < 0 {
			continue
		}
		if p.HasOpenPhases() {
			n = int(p.Open[i].Div(breath.Int(1000)).Floor())
		}
		roles = append(roles, Role{p.Practice.Figure[step].Phase, n})
	}
	return roles
}
