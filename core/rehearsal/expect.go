package rehearsal

import (
	"slices"

	"vastlantern/core/pace"
	"vastlantern/core/plan"
)

// Expectation is for how many people of a room a passage is beyond what is easy, over many seeds. It is a model, not a
// measurement.
type Expectation struct {
	Passage int // from 1
	// the round in which it first comes to half of those rooms in which it comes to anybody; 0 if it comes to nobody
	FromRound int
	People    int // in the room
	Low       int // of those beyond ease: a tenth of the rooms has no more
	Median    int
	High      int // nine tenths have no more
}

// MostSeeds is how many rooms are tried at most.
const MostSeeds = 2000

// Expect has so many rooms of one kind, each with a seed of its own from 1, follow a plan as written.
func Expect(p *plan.Plan, room Room, seeds int) []Expectation {
	class := Of(pace.Sheet(p), p, Happens{})
	beyond := make([][]int, len(p.Passages)) // people, by passage and seed
	first := make([][]int, len(p.Passages))  // the round, of those rooms in which there is anybody
	for i := range beyond {
		beyond[i] = make([]int, seeds)
	}
	for seed := range seeds {
		people := room.Seat(int64(seed + 1))
		firsts := make([]int, len(p.Passages))
		for who := range people {
			course := class.Follow(&people[who], who, int64(seed+1), false, false)
			for i, round := range course.First {
				if round == 0 {
					continue
				}
				beyond[i][seed]++
				if firsts[i] == 0 || round < firsts[i] {
					firsts[i] = round
				}
			}
		}
		for i, round := range firsts {
			if round > 0 {
				first[i] = append(first[i], round)
			}
		}
	}
	list := make([]Expectation, len(p.Passages))
	for i := range list {
		slices.Sort(beyond[i])
		slices.Sort(first[i])
		list[i] = Expectation{
			Passage:   i + 1,
			People:    room.Size(),
			Low:       at(beyond[i], 10),
			Median:    at(beyond[i], 50),
			High:      at(beyond[i], 90),
			FromRound: at(first[i], 50),
		}
	}
	return list
}

// at returns a percentile of a sorted list by the nearest rank, 0 of an empty one.
func at(sorted []int, percent int) int {
	if len(sorted) == 0 {
		return 0
	}
	return sorted[max((len(sorted)*percent+99)/100, 1)-1]
}
