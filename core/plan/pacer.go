package plan

import (
	"maps"
	"slices"

	"vastlantern/core/breath"
	"vastlantern/core/fact"
)

// Pacer is who sets the pace of a practice passage (pacing.md sections 7 and 8).
type Pacer string

// The pacers.
const (
	PacedByBeat    Pacer = "beat" // a tempo or a rate
	PacedByTeacher Pacer = "hand" // phases wait for the teacher, who leads by breathing
	PacedByEach    Pacer = "own"  // each person
)

// Pacer returns who sets the pace of the passage; empty if it is not a practice.
func (p *Passage) Pacer() Pacer {
	switch {
	case p.Type != Practice:
		return ""
	case p.OwnPace:
		return PacedByEach
	case p.HasOpenPhases() || p.ByHand != 0:
		return PacedByTeacher
	}
	return PacedByBeat
}

// Pacers returns who can set the pace of the passage; none if it is not a practice.
func (p *Passage) Pacers() []Pacer {
	switch {
	case p.Type != Practice:
		return nil
	case p.HasOpenPhases():
		return []Pacer{PacedByTeacher, PacedByEach}
	case p.TakesCounts():
		return []Pacer{PacedByBeat, PacedByTeacher, PacedByEach}
	}
	return []Pacer{PacedByBeat, PacedByEach}
}

// CanWait returns the phases of the passage that can wait for the teacher, in the order of a breath; none if that is
// not for the passage to choose.
func (p *Passage) CanWait() []breath.Phase {
	if !p.TakesCounts() || p.OwnPace {
		return nil
	}
	var list []breath.Phase
	for _, role := range p.Roles() {
		if role.Counts > 0 && !slices.Contains(list, role.Phase) {
			list = append(list, role.Phase)
		}
	}
	return list
}

// Waits returns the phases of the passage that wait for the teacher, of those that can.
func (p *Passage) Waits() []breath.Phase {
	return slices.DeleteFunc(p.CanWait(), func(phase breath.Phase) bool { return !p.ByHand.Has(phase) })
}

// SetPacer has the passage, which is p, paced by the beat, the teacher or each person. By the teacher, waits are the
// phases that wait; none means all of them. The length stays as nearly as it can: rounds stay rounds, minutes stay
// minutes, and what has no rounds at own pace lasts as long as it did. It returns the fields that do not go with the
// new pace and were removed. The error says that the passage cannot be paced so.
func (f Fields) SetPacer(p *Passage, by Pacer, waits []breath.Phase) (removed []string, err error) {
	if !slices.Contains(p.Pacers(), by) {
		return nil, fact.New("plan.not-paced-so", "name", p.Name(), "pacer", fact.New("pacer."+string(by)))
	}
	length := p.PlannedLength()
	if by == PacedByEach && !p.OwnPace {
		f.SetAgain(p, true)
	} else if by != PacedByEach {
		f.SetAgain(p, false)
	}
	now := *p
	now.OwnPace = by == PacedByEach
	for _, field := range slices.Sorted(maps.Keys(f.values)) {
		if known := fieldNamed[field]; known != nil && field != "by_hand" && !known.on.holds(&now, field) {
			delete(f.values, field)
			if field != "rounds" {
				removed = append(removed, field)
			}
		}
	}
	delete(f.values, "by_hand")
	delete(f.values, "pace")
	switch {
	case by == PacedByEach:
		f.values["pace"] = "own"
		switch {
		case p.OwnPace:
		case p.ByMinutes():
			f.SetMinutes(p.Minutes)
		case p.TakesCounts():
			f.SetRounds(p.TotalRounds(p.Measure))
		default:
			f.SetMinutes(breath.Ratio(-length.Div(breath.Int(-30_000)).Floor(), 2)) // in half minutes, up
		}
	case by == PacedByTeacher && p.TakesCounts():
		f.values["by_hand"] = handField(waits, now.CanWait())
		if p.Beside.Shorter() {
			delete(f.values, "beside")
			removed = append(removed, "beside")
		}
	}
	return removed, nil
}

// handField returns the field by_hand for the phases that wait, of those that can.
func handField(waits, can []breath.Phase) any {
	list := []any{}
	for _, phase := range can {
		if slices.Contains(waits, phase) {
			list = append(list, string(phase))
		}
	}
	if len(list) == 0 || len(list) == len(can) {
		return "all"
	}
	return list
}
