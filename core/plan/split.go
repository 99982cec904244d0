package plan

import (
	"encoding/json"
	"fmt"
	"maps"
	"strconv"

	"vastlantern/core/breath"
)

// Split makes two passages of one: half of the rounds, or of the time, in each, the first with the opening and the
// second with the closing. Prompts go where their moment goes. One round and what is timed by its strokes is refused.
func Split(fields Doc, p *Passage) (first, second Doc, err error) {
	first, second = maps.Clone(fields), maps.Clone(fields)
	if p.Type != Practice {
		delete(second, "script")
		halveTime(first, second, "seconds", p.Length.Div(breath.Int(1000)))
		delete(first, "breaths")
		delete(second, "breaths")
		return first, second, nil
	}
	before := 0
	switch {
	case p.OwnPace:
		halveTime(first, second, "minutes", p.Minutes)
	case p.Practice.FillsMinutes() || p.TotalRounds(p.Measure) < 2:
		return nil, nil, fmt.Errorf("%s is one round, which cannot be made two", p.Name())
	case p.ByMinutes():
		halveTime(first, second, "minutes", p.Minutes)
		before = p.TotalRounds(p.Measure) / 2
	default:
		before = (p.Rounds + 1) / 2
		SetRounds(first, before)
		SetRounds(second, p.Rounds-before)
	}
	if len(p.ClosingSteps) > 0 {
		first["closing"] = []any{}
	}
	if len(p.OpeningSteps) > 0 {
		second["opening"] = []any{}
	}
	splitPrompts(first, second, before, p)
	return first, second, nil
}

// halveTime gives each half of the time, to a tenth.
func halveTime(first, second Doc, field string, whole breath.Exact) {
	tenths := whole.Times(10).Floor()
	text := func(tenths int64) json.Number {
		return json.Number(strconv.FormatFloat(float64(tenths)/10, 'f', -1, 64))
	}
	first[field], second[field] = text(tenths-tenths/2), text(tenths/2)
}

// splitPrompts shares out the prompts of rounds and rests; those of an own-pace stretch stay with the first.
func splitPrompts(first, second Doc, before int, p *Passage) {
	list, _ := first["prompts"].([]any)
	if len(list) == 0 {
		return
	}
	early, late := []any{}, []any{}
	for i, entry := range list {
		prompt, ok := entry.(map[string]any)
		if !ok || i >= len(p.Prompts) {
			continue
		}
		of := p.Prompts[i]
		field, at := "round", of.Round
		if of.Rest >= 0 {
			field, at = "rest", of.Rest
		}
		if at <= before {
			early = append(early, prompt)
			continue
		}
		moved := maps.Clone(prompt)
		moved[field] = json.Number(strconv.Itoa(at - before))
		late = append(late, moved)
	}
	first["prompts"], second["prompts"] = early, late
}
