package plan

import (
	"maps"

	"vastlantern/core/breath"
)

// InPlaceOf returns a passage of the practice with the id that stands for the passage p of these fields: as nearly of
// the same length as whole rounds allow, with its script and its pace.
func (f Fields) InPlaceOf(p *Passage, id string) Fields {
	next := NewFields(id)
	for _, kept := range []string{"keep", "script", "trial", "pace", "lead_in"} {
		if value, there := f.values[kept]; there {
			next.values[kept] = value
		}
	}
	next.fill(p)
	return next
}

// WithoutHolds returns the passage p of these fields without holds, as nearly of the same length as whole rounds allow.
// What has no counts becomes an even breath at own pace.
func (f Fields) WithoutHolds(p *Passage) Fields {
	next := f.Clone()
	switch {
	case p.HasOpenPhases():
		next = NewFields("counted-breath")
		next.values["pace"] = "own"
	case p.TakesCounts():
		next.SetCounts(p.Measure.Counts.Flat())
	}
	for _, steps := range []string{"opening", "closing"} {
		if list, ok := next.values[steps].([]any); ok {
			next.values[steps] = flatSteps(list)
		}
	}
	next.fill(p)
	return next
}

func flatSteps(list []any) []any {
	flat := make([]any, len(list))
	for i, entry := range list {
		flat[i] = entry
		step, ok := entry.(map[string]any)
		if !ok {
			continue
		}
		if text, ok := step["counts"].(string); ok {
			if c, err := breath.ParseCounts(text); err == nil {
				soft := maps.Clone(step)
				soft["counts"] = c.Flat().String()
				flat[i] = soft
			}
		}
	}
	return flat
}

// fill gives the passage the minutes, or the rounds, that come nearest to the length of p.
func (f Fields) fill(p *Passage) {
	ownPace := f.values["pace"] == "own"
	if ownPace {
		f.SetMinutes(breath.Int(1))
	} else {
		f.SetRounds(1)
	}
	soft, err := OneAt(p.PlanTempo, f, p.Practice)
	if err != nil {
		return // the passage has errors of its own, which the plan shows
	}
	left := p.PlannedLength().Sub(soft.PlannedLength())
	if soft.OwnPace {
		minutes := breath.Int(1).Add(left.Div(breath.Int(60_000)))
		f.SetMinutes(breath.Max(minutes, breath.Ratio(1, 10)))
		return
	}
	more := left.Div(soft.RoundSpan(soft.Measure).Add(soft.BetweenSpan(soft.Measure))).Round()
	f.SetRounds(int(min(MaxRounds, max(1, 1+more))))
}
