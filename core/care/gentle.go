package care

import (
	"encoding/json"
	"fmt"
	"maps"

	"vastlantern/core/breath"
	"vastlantern/core/plan"
	"vastlantern/core/practice"
)

// replaced are the practices whose gentle variant is another practice.
var replaced = map[Aspect]string{Strokes: "belly-breath", Joy: "counted-breath", Sun: "nadi-shodhana", Moon: "nadi-shodhana"}

// GentleOf rewrites the passage's document to its gentle variant, of as nearly the same length as whole rounds allow:
// without holds, or as the practice that runs beside it. It returns the document and the change in words; the words
// are empty where there is nothing to soften.
func GentleOf(doc plan.Doc, p *plan.Passage) (plan.Doc, string) {
	holds, other := false, ""
	for _, name := range Aspects(p) {
		switch {
		case name == FullHold || name == EmptyHold:
			holds = true
		case replaced[name] != "":
			other = replaced[name]
		}
	}
	switch {
	case other != "":
		return inPlaceOf(doc, p, other)
	case holds:
		return withoutHolds(doc, p)
	}
	return doc, ""
}

func inPlaceOf(doc plan.Doc, p *plan.Passage, id string) (plan.Doc, string) {
	next := plan.Doc{"type": string(plan.Practice), "practice": id}
	for _, kept := range []string{"keep", "script", "trial", "pace", "lead_in"} {
		if value, there := doc[kept]; there {
			next[kept] = value
		}
	}
	fill(next, p)
	return next, fmt.Sprintf("%s in place of %s", id, p.Name())
}

func withoutHolds(doc plan.Doc, p *plan.Passage) (plan.Doc, string) {
	next := maps.Clone(doc)
	switch {
	case p.Is(practice.Open): // has no counts: an even breath at own pace stands for it
		next = plan.Doc{"type": string(plan.Practice), "practice": "counted-breath", "pace": "own"}
	case p.Is(practice.Counted):
		next["counts"] = p.Measure.Counts.Flat().String()
	}
	for _, steps := range []string{"opening", "closing"} {
		if list, ok := next[steps].([]any); ok {
			next[steps] = flatSteps(list)
		}
	}
	fill(next, p)
	return next, p.Name() + " without holds"
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

// fill gives the document the minutes, or the rounds, that come nearest to the length that the passage has.
func fill(doc plan.Doc, p *plan.Passage) {
	delete(doc, "rounds")
	delete(doc, "minutes")
	measure := "rounds"
	if doc["pace"] == "own" {
		measure = "minutes"
	}
	doc[measure] = json.Number("1")
	one, err := plan.Read(plan.Doc{
		"format": plan.Format, "version": json.Number("1"), "tempo": json.Number(p.PlanTempo.String()), "passages": []any{map[string]any(doc)},
	})
	if err != nil {
		return // the passage has errors of its own, which the plan shows
	}
	soft := &one.Passages[0]
	left := p.PlannedLength().Sub(soft.PlannedLength())
	if soft.OwnPace {
		minutes := breath.Int(1).Add(left.Div(breath.Int(60_000)))
		doc[measure] = json.Number(breath.Max(minutes, breath.Ratio(1, 10)).String())
		return
	}
	more := left.Div(soft.RoundSpan(soft.Measure).Add(soft.RestBetween)).Round()
	doc[measure] = json.Number(fmt.Sprint(min(plan.MostRounds, max(1, 1+more))))
}
