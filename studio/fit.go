package studio

import (
	"encoding/json"
	"fmt"
	"slices"
	"strconv"
	"time"

	"vastlantern/core/breath"
	"vastlantern/core/plan"
	"vastlantern/core/practice"
	"vastlantern/studio/contract"
)

// fitted makes a change in a document that is about its time: the whole fitted to its slot, one passage made to end at
// a time, or more of something. The error says why it cannot be.
func fitted(doc plan.Doc, p *plan.Plan, d contract.Draft) (changed plan.Doc, words string, err error) {
	if d.Fit {
		return fitToSlot(doc, p)
	}
	number := d.Passage
	if d.More != nil {
		number = d.More.Passage
	}
	if d.More != nil && number == 0 {
		return addRest(doc, d.More.LengthMS)
	}
	list, _ := doc["passages"].([]any)
	if number < 1 || number > len(list) {
		return nil, "", fmt.Errorf("there is no passage %d", number)
	}
	fields, _ := list[number-1].(map[string]any)
	passage := &p.Passages[number-1]
	if fields == nil || !passage.Led() || passage.Practice.FillsMinutes() {
		return nil, "", fmt.Errorf("%s has no rounds that could be chosen", passage.Name())
	}
	switch {
	case d.More == nil && d.By == "tempo" && passage.Is(practice.Open):
		return nil, "", fmt.Errorf("%s has no tempo", passage.Name())
	case d.More != nil:
		plan.SetRounds(fields, passage.TotalRounds(passage.Measure)+d.More.Rounds)
	case d.By == "rounds":
		rounds, fits := p.RoundsToEnd(number-1, breath.Int(*d.EndMS))
		if !fits {
			return nil, "", fmt.Errorf("with one round %s still ends later", passage.Name())
		}
		plan.SetRounds(fields, rounds)
		words = fmt.Sprintf("%d rounds", rounds)
	default:
		tempo, fits := p.TempoToEnd(number-1, breath.Int(*d.EndMS))
		if !fits {
			return nil, "", fmt.Errorf("at tempo %s, the quickest, %s still ends later", tempo, passage.Name())
		}
		plan.SetTempo(fields, passage, tempo)
		words = fmt.Sprintf("tempo %s", tempo)
	}
	return doc, words, nil
}

func fitToSlot(doc plan.Doc, p *plan.Plan) (plan.Doc, string, error) {
	if p.Slot.Sign() == 0 {
		return nil, "", fmt.Errorf("no slot is set: there is nothing to fit to")
	}
	fit := p.FitTo(p.Slot.Times(60_000))
	if fit.Over.Sign() > 0 {
		return nil, "", fmt.Errorf("with one round each it is still %s s too long: shorten a talk or a rest, leave a passage out, or keep fewer as they are", strconv.FormatInt(fit.Over.Div(breath.Int(1000)).Round(), 10))
	}
	fit.Apply(doc, p)
	return doc, "fitted to the slot", nil
}

// fitInto fits the plan into the time that is left of its slot, which becomes its slot; with one round each where even
// that is too long.
func fitInto(doc plan.Doc, p *plan.Plan, left time.Duration) {
	whole := left.Truncate(time.Second)
	p.FitTo(breath.Int(whole.Milliseconds())).Apply(doc, p)
	doc["slot_min"] = json.Number(strconv.FormatFloat(whole.Minutes(), 'f', 4, 64))
}

// addRest gives the end of a plan more natural breath: the last passage, if it is one that is timed, or one more.
func addRest(doc plan.Doc, ms int64) (plan.Doc, string, error) {
	list, _ := doc["passages"].([]any)
	seconds := ms / 1000
	if n := len(list); n > 0 {
		last, _ := list[n-1].(map[string]any)
		if number, ok := last["seconds"].(json.Number); ok && last["type"] == string(plan.Free) {
			if before, err := number.Int64(); err == nil {
				last["seconds"] = json.Number(strconv.FormatInt(before+seconds, 10))
				return doc, "a longer rest", nil
			}
		}
	}
	doc["passages"] = append(list, map[string]any{"type": string(plan.Free), "title": "Rest", "seconds": json.Number(strconv.FormatInt(seconds, 10))})
	return doc, "a rest at the end", nil
}

// split makes two passages of one.
func split(doc plan.Doc, p *plan.Plan, number int) (plan.Doc, error) {
	list, _ := doc["passages"].([]any)
	if number < 1 || number > len(list) {
		return nil, fmt.Errorf("there is no passage %d", number)
	}
	fields, _ := list[number-1].(map[string]any)
	first, second, err := plan.Split(fields, &p.Passages[number-1])
	if err != nil {
		return nil, err
	}
	doc["passages"] = slices.Concat(list[:number-1], []any{map[string]any(first), map[string]any(second)}, list[number:])
	return doc, nil
}
