package plan

import (
	"encoding/json"
	"slices"
	"strconv"
	"strings"
	"time"

	"vastlantern/core/breath"
)

// leastFill is the least that a passage lasts which ends when the slot does, where it says nothing of it, seconds.
const leastFill = 60

// Fills reports whether a passage of the document lasts until a time or the end of the slot.
func (d Document) Fills() bool {
	return slices.ContainsFunc(d.Passages(), func(f Fields) bool { return f.values["fill"] != nil })
}

// FillUp gives each passage that lasts until the end of the slot, or until a time of day, the length that is left for
// it in the document, whose plan is p, and reports whether that changed any. A passage is never shorter than it says;
// without a slot, or a start for a time of day, it keeps its length (docs/rules/formats.md). Several that last until
// the end share what is left alike.
func (d Document) FillUp(p *Plan) (changed bool) {
	var toEnd []int
	others := breath.Exact{}
	for i := range p.Passages {
		if p.Passages[i].Fill == FillToEnd {
			toEnd = append(toEnd, i)
		}
	}
	at := breath.Exact{} // where the passage begins
	for i := range p.Passages {
		one := &p.Passages[i]
		if one.Fill != "" && one.Fill != FillToEnd && !p.StartsAt.IsZero() {
			changed = d.lasts(i, one, p.untilClock(one.Fill).Sub(at)) || changed
		}
		length := one.PlannedLength()
		at = at.Add(length)
		if one.Fill != FillToEnd {
			others = others.Add(length)
		}
	}
	if p.Slot.Sign() <= 0 {
		return changed
	}
	left := p.Slot.Times(60_000).Sub(others)
	for k, i := range toEnd {
		share := left.Div(breath.Int(int64(len(toEnd) - k)))
		one := &p.Passages[i]
		changed = d.lasts(i, one, share) || changed
		left = left.Sub(one.PlannedLength())
	}
	return changed
}

// untilClock returns how long it is from the start of the class to the next time of day as HH:MM there, milliseconds.
func (p *Plan) untilClock(clock string) breath.Exact {
	hour, minute, _ := strings.Cut(clock, ":")
	h, _ := strconv.Atoi(hour)
	m, _ := strconv.Atoi(minute)
	start := p.StartsAt
	end := time.Date(start.Year(), start.Month(), start.Day(), h, m, 0, 0, start.Location())
	if !end.After(start) {
		if h < 12 && end.Add(12*time.Hour).After(start) { // 7:15 of a class in the evening
			end = end.Add(12 * time.Hour)
		} else {
			end = end.AddDate(0, 0, 1)
		}
	}
	return breath.Int(end.Sub(start).Milliseconds())
}

// lasts gives passage i, from 0, a length in milliseconds, in whole seconds, and reports whether it had another. What
// is
// around the rounds of a practice is taken off its minutes.
func (d Document) lasts(i int, p *Passage, length breath.Exact) bool {
	least := breath.Int(leastFill)
	if p.FillLeast.Sign() > 0 {
		least = p.FillLeast.Div(breath.Int(1000))
	}
	fields, err := d.Passage(i + 1)
	if err != nil {
		return false
	}
	field, twin, most := "seconds", "breaths", secondsLimits.high
	if p.Type == Practice {
		rounds := p.TotalRounds(p.Measure)
		inside := p.RoundSpan(p.Measure).Times(rounds).Add(p.BetweenSpan(p.Measure).Times(rounds - 1))
		if p.OwnPace {
			inside = p.OwnSpan()
		}
		length = length.Sub(p.PlannedLength().Sub(inside))
		field, twin, most = "minutes", "rounds", minutesLimits.high*60
	}
	whole := breath.Max(breath.Int(length.Div(breath.Int(1000)).Floor()), least)
	if breath.Int(most).Less(whole) {
		whole = breath.Int(most)
	}
	value := json.Number(whole.String())
	if field == "minutes" {
		value = json.Number(breath.Int(whole.Div(breath.Int(6)).Floor()).Div(breath.Int(10)).String()) // tenths
	}
	if before, _ := fields.values[field].(json.Number); before == value {
		return false
	}
	fields.values[field] = value
	delete(fields.values, twin)
	if again, err := One(fields); err == nil {
		again.Fill, again.FillLeast = p.Fill, p.FillLeast
		*p = again
	}
	return true
}
