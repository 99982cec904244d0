package plan

import (
	"encoding/json"
	"maps"
	"strconv"

	"vastlantern/core/breath"
	"vastlantern/core/fact"
)

// split makes two passages of one: half of the rounds, or of the time, in each, the first with the opening and the
// second with the closing. Prompts and lines go where their moment goes. One round and what is timed by its strokes is
// refused.
func (f Fields) split(p *Passage) (first, second Fields, err error) {
	first, second = f.Clone(), f.Clone()
	if p.Type != Practice {
		delete(second.values, "script")
		halveTime(first, second, "seconds", p.Length.Div(breath.Int(1000)))
		delete(first.values, "breaths")
		delete(second.values, "breaths")
		splitLines(first, second, 0, p)
		return first, second, nil
	}
	before := 0
	switch {
	case p.OwnPace && p.Rounds == 0:
		halveTime(first, second, "minutes", p.Minutes)
	case p.Practice.FillsMinutes() || p.TotalRounds(p.Measure) < 2:
		return Fields{}, Fields{}, fact.New("plan.one-round-split", "name", p.Name())
	case p.ByMinutes():
		halveTime(first, second, "minutes", p.Minutes)
		before = p.TotalRounds(p.Measure) / 2
	default:
		before = (p.Rounds + 1) / 2
		first.SetRounds(before)
		second.SetRounds(p.Rounds - before)
	}
	if len(p.ClosingSteps) > 0 {
		first.values["closing"] = []any{}
	}
	if len(p.OpeningSteps) > 0 {
		second.values["opening"] = []any{}
	}
	splitPrompts(first, second, before, p)
	splitLines(first, second, before, p)
	return first, second, nil
}

// halveTime gives each half of the time, to a tenth.
func halveTime(first, second Fields, field string, whole breath.Exact) {
	tenths := whole.Times(10).Floor()
	text := func(tenths int64) json.Number {
		return json.Number(strconv.FormatFloat(float64(tenths)/10, 'f', -1, 64))
	}
	first.values[field], second.values[field] = text(tenths-tenths/2), text(tenths/2)
}

// splitPrompts shares out the prompts of rounds and rests; those of an own-pace stretch stay with the first.
func splitPrompts(first, second Fields, before int, p *Passage) {
	list, _ := first.values["prompts"].([]any)
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
	first.values["prompts"], second.values["prompts"] = early, late
}

// splitLines shares out the teacher's own words: those of a round, a rest or a second go with it, those of the opening
// to the first, those of the closing to the second, and what is for every one to both.
func splitLines(first, second Fields, before int, p *Passage) {
	list, _ := first.values["lines"].([]any)
	if len(list) == 0 {
		return
	}
	early, late := []any{}, []any{}
	for i, entry := range list {
		line, ok := entry.(map[string]any)
		if !ok || i >= len(p.Lines) {
			continue
		}
		inFirst, inSecond := p.Lines[i].parted(line, before, first.firstHalf())
		if inFirst != nil {
			early = append(early, inFirst)
		}
		if inSecond != nil {
			late = append(late, inSecond)
		}
	}
	first.values["lines"], second.values["lines"] = early, late
}

// firstHalf returns how long a first half is that is timed, in seconds; 0 for one of rounds.
func (f Fields) firstHalf() breath.Exact {
	for field, seconds := range map[string]int{"seconds": 1, "minutes": 60} {
		if number, ok := f.values[field].(json.Number); ok {
			if x, err := breath.ParseExact(number.String()); err == nil {
				return x.Times(seconds)
			}
		}
	}
	return breath.Exact{}
}

// parted returns the line in each of the two passages, the first of them with the rounds up to one, or with the seconds
// up to half; nil if it does not belong.
func (l *Line) parted(fields map[string]any, before int, half breath.Exact) (inFirst, inSecond map[string]any) {
	number := func(text string) json.Number { return json.Number(text) }
	switch {
	case l.Second.Sign() >= 0:
		if l.Stage == "round" || l.Second.Less(half) && l.Every.Sign() == 0 {
			return fields, nil
		}
		at := l.Second
		if at.Less(half) { // it comes again: first in the second half at the next of its times
			inFirst = fields
			at = at.Add(l.Every.Times(-int(at.Sub(half).Div(l.Every).Floor())))
		}
		inSecond = maps.Clone(fields)
		inSecond["second"] = number(at.Sub(half).String())
		return inFirst, inSecond
	case l.Stage == "setup" || l.Stage == "opening":
		return fields, nil
	case l.Stage == "closing" || l.LastRound:
		return nil, fields
	case l.First == 0 || before == 0:
		return fields, fields
	}
	span := func(from, to int) map[string]any {
		if to < from {
			return nil
		}
		moved := maps.Clone(fields)
		moved["round"] = number(strconv.Itoa(from))
		if from < to {
			moved["round"] = []any{number(strconv.Itoa(from)), number(strconv.Itoa(to))}
		}
		return moved
	}
	return span(l.First, min(l.Last, before)), span(max(l.First-before, 1), l.Last-before)
}
