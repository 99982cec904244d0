package taught

import (
	"vastlantern/core/breath"
	"vastlantern/core/pace"
)

// SeenAfter is a sign that was seen after holds that waited for the teacher: open holds, and holds by hand.
type SeenAfter struct {
	Passage int          // from 1
	Phase   breath.Phase // hold or empty
	Sign    string
	Seen    int   // after how many holds
	Holds   int   // how many of the phase there were in the passage that were as long
	Over    int64 // ms, whole seconds: the shortest hold after which it was seen
}

// seenWithin is how long after the end of a hold a sign still belongs to it, in milliseconds: a breath and a half, by
// our judgement.
const seenWithin = 15_000

// hold is a hold that waited.
type hold struct {
	passage  int
	phase    breath.Phase
	from, to int64
}

// seenAfter sets signs beside the holds that they were seen after, passage by passage in the order in which they were
// seen first. A sign that was seen twice after one hold counts once.
func seenAfter(rows []pace.Row, answers []pace.Answer) []SeenAfter {
	var holds []hold
	for _, row := range rows {
		if row.Open && row.Phase.Held() {
			holds = append(holds, hold{row.Passage, row.Phase, row.At, row.End()})
		}
	}
	type kind struct {
		passage int
		phase   breath.Phase
		sign    string
	}
	var order []kind
	after := map[kind]map[int]bool{} // by the hold's place in the list
	for _, a := range answers {
		if a.Do != pace.Signal || !a.Refused.None() {
			continue
		}
		last := -1
		for i, h := range holds {
			if h.from <= a.At && a.At < h.to+seenWithin {
				last = i
			}
		}
		if last < 0 {
			continue
		}
		of := kind{holds[last].passage, holds[last].phase, a.See}
		if after[of] == nil {
			after[of] = map[int]bool{}
			order = append(order, of)
		}
		after[of][last] = true
	}
	list := make([]SeenAfter, 0, len(order))
	for _, of := range order {
		one := SeenAfter{Passage: of.passage, Phase: of.phase, Sign: of.sign, Seen: len(after[of]), Over: -1}
		for i := range after[of] {
			if length := (holds[i].to - holds[i].from) / 1000 * 1000; one.Over < 0 || length < one.Over {
				one.Over = length
			}
		}
		for _, h := range holds {
			if h.passage == of.passage && h.phase == of.phase && h.to-h.from >= one.Over {
				one.Holds++
			}
		}
		list = append(list, one)
	}
	return list
}
