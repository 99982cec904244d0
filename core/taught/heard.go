package taught

import (
	"slices"

	"vastlantern/core/breath"
	"vastlantern/core/pace"
	"vastlantern/core/plan"
)

// Heard is something that a microphone told of the room, in milliseconds from the start of the class.
type Heard struct {
	Phase     breath.Phase // stroke, or the phase that was chanted or hummed
	From, To  int64        // from the first stroke to the last, or from when the room sounded until it was silent
	PerMinute breath.Exact // of strokes; 0 for a chant or a hum
}

// HeardPhase is the strokes of a kept round, or its chant or hum, as it was heard, beside what was planned and led.
type HeardPhase struct {
	Passage int // from 1
	Round   int
	Breath  int
	At      int64 // ms from the start of the class
	Phase   breath.Phase
	Strokes HeardRate   // of strokes
	Lasted  HeardLength // of a chant or a hum
}

// HeardRate is strokes a minute.
type HeardRate struct{ Planned, Led, Heard breath.Exact }

// HeardLength is in milliseconds.
type HeardLength struct{ Planned, Led, Heard int64 }

// span is the rows of one phase that can be told by ear.
type span struct {
	first    pace.Row
	to       int64
	weighted breath.Exact // the rates of the rows times their milliseconds
}

// HeardOf sets what was heard beside the phases that it was heard in, in their order. Phases in which nothing was heard
// are left out, and what was heard outside of kept rounds too. rows are those of the class as it was led.
func HeardOf(p *plan.Plan, rows []pace.Row, heard []Heard) []HeardPhase {
	list := []HeardPhase{}
	planned := plannedLengths(p)
	for _, s := range spans(p, rows) {
		one := HeardPhase{
			Passage: s.first.Passage, Round: s.first.Round, Breath: s.first.Breath, At: s.first.At, Phase: s.first.Phase,
		}
		led := s.to - s.first.At
		if one.Phase == breath.Stroke {
			rate, ok := s.rate(heard)
			if !ok || led == 0 {
				continue
			}
			one.Strokes = HeardRate{
				Planned: p.Passages[one.Passage-1].Measure.Tempo, Led: s.weighted.Div(breath.Int(led)), Heard: rate,
			}
		} else {
			lasted := s.lasted(heard)
			if lasted == 0 {
				continue
			}
			one.Lasted = HeardLength{Planned: planned[key{one.Passage, one.Breath}], Led: led, Heard: lasted}
		}
		list = append(list, one)
	}
	return list
}

// spans returns the phases of kept rounds that can be told by ear.
func spans(p *plan.Plan, rows []pace.Row) []span {
	var list []span
	for i, row := range rows {
		if row.Stage != pace.Round || !row.Kept || row.End() < 0 || row.Phase != p.Passages[row.Passage-1].Hears() {
			continue
		}
		if i == 0 || len(list) == 0 || startsPhase(rows[i-1], row) {
			list = append(list, span{first: row})
		}
		s := &list[len(list)-1]
		s.to = row.End()
		s.weighted = s.weighted.Add(row.Tempo.Mul(breath.Int(row.Dur)))
	}
	return list
}

// key names a phase of every round of a passage.
type key struct{ passage, breath int }

// plannedLengths returns how long the phases that can be told by ear are in the first round as it was planned, in
// milliseconds.
func plannedLengths(p *plan.Plan) map[key]int64 {
	lengths := map[key]int64{}
	for _, s := range spans(p, pace.Sheet(p).Rows) {
		if k := (key{s.first.Passage, s.first.Breath}); s.first.Round == 1 {
			lengths[k] = s.to - s.first.At
		}
	}
	return lengths
}

// rate returns the median of the rates that were heard in the middle of the span, false if there is none.
func (s *span) rate(heard []Heard) (breath.Exact, bool) {
	var rates []breath.Exact
	for _, h := range heard {
		if middle := (h.From + h.To) / 2; h.Phase == breath.Stroke && s.first.At <= middle && middle < s.to {
			rates = append(rates, h.PerMinute)
		}
	}
	if len(rates) == 0 {
		return breath.Exact{}, false
	}
	slices.SortFunc(rates, breath.Exact.Cmp)
	n := len(rates)
	return rates[(n-1)/2].Add(rates[n/2]).Div(breath.Int(2)), true
}

// lasted returns how long the longest sound was of which half at least lies in this phase, in milliseconds; 0 if none
// was heard.
func (s *span) lasted(heard []Heard) (longest int64) {
	for _, h := range heard {
		inside := min(h.To, s.to) - max(h.From, s.first.At)
		if h.Phase == s.first.Phase && 2*inside >= h.To-h.From {
			longest = max(longest, h.To-h.From)
		}
	}
	return longest
}
