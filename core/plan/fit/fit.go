// Package fit chooses rounds and tempo so that a plan, or one passage of it, ends when it should.
package fit

import (
	"slices"

	"vastlantern/core/breath"
	"vastlantern/core/plan"
)

// Fit is how many rounds each passage gets so that the plan fits its time.
type Fit struct {
	Rounds []int        // by passage; 0 if the rounds are left as they are
	Length breath.Exact // of the plan with them, milliseconds
	Over   breath.Exact // what is too long all the same, with one round each; 0 if it fits
	Exact  bool         // no choice is nearer; false if there were too many to look at all of them
}

// mostChoices bounds how many choices of rounds are looked at. Plans of some ten practices need a few hundred.
const mostChoices = 200_000

// fitted is a passage whose rounds can be chosen.
type fitted struct {
	passage int          // from 0
	round   breath.Exact // a round and its rest, milliseconds
	planned breath.Exact // rounds as they are planned
	ideal   breath.Exact // rounds that would keep the proportions, not whole
	most    int          // rounds that are proposed at most
}

// To chooses rounds for the passages that are led in rounds or for minutes and not kept, so that the plan is no longer
// than the time in milliseconds and as near as possible to the planned proportions, for a group of the level (one of
// practice.Levels, or empty).
//
// What is optimised: the rounds are whole, at least 1 and at most what is advised for the practice or planned already,
// the plan is not too long, and the sum over the passages of the squares of (rounds - ideal) x length of a round is the
// least that there is; the ideal is the planned rounds times the one factor that would fill the time exactly, or, where
// that is beyond what is advised, just that, and the others share what is left. Of two choices that are equally near,
// the longer one, and then the one with more rounds in the earlier passages.
func To(p *plan.Plan, time breath.Exact, level string) Fit {
	fit := Fit{Rounds: make([]int, len(p.Passages)), Exact: true}
	var free []fitted
	var planned breath.Exact // what the rounds that can be chosen take
	for i := range p.Passages {
		passage := &p.Passages[i]
		if passage.Keep || !passage.HasRounds() {
			continue
		}
		one := fitted{
			passage: i,
			round:   passage.RoundSpan(passage.Measure).Add(passage.BetweenSpan(passage.Measure)),
			most:    p.AdvisedRounds(i, level),
		}
		one.planned = breath.Int(int64(passage.TotalRounds(passage.Measure)))
		planned = planned.Add(one.round.Mul(one.planned))
		free = append(free, one)
	}
	fit.Length = p.Length()
	if len(free) == 0 {
		fit.Over = breath.Max(breath.Exact{}, fit.Length.Sub(time))
		return fit
	}
	within := time.Sub(fit.Length.Sub(planned))
	share(free, within)
	s := search{within: within, free: free, rounds: make([]int, len(free))}
	s.run()
	fit.Exact = s.looked <= mostChoices
	for i, rounds := range s.best {
		fit.Rounds[free[i].passage] = rounds
		fit.Length = fit.Length.Add(free[i].round.Times(rounds))
	}
	fit.Length = fit.Length.Sub(planned)
	fit.Over = breath.Max(breath.Exact{}, fit.Length.Sub(time))
	return fit
}

// share gives each passage its ideal: the planned rounds times one factor, so that all fill the time, but none more
// than is advised for it.
func share(free []fitted, time breath.Exact) {
	full := make([]bool, len(free))
	for again := true; again; {
		again = false
		left, planned := time, breath.Exact{}
		for i, f := range free {
			if full[i] {
				left = left.Sub(f.round.Times(f.most))
			} else {
				planned = planned.Add(f.round.Mul(f.planned))
			}
		}
		for i := range free {
			f := &free[i]
			if full[i] {
				continue
			}
			f.ideal = f.planned.Mul(left).Div(planned)
			if most := breath.Int(int64(f.most)); most.Less(f.ideal) {
				f.ideal, full[i], again = most, true, true
			}
		}
	}
}

// search goes through the choices of rounds, the passages with the longest rounds first, and leaves out those that
// cannot become nearer than the best so far.
type search struct {
	within breath.Exact
	free   []fitted
	order  []int          // of the passages
	after  []breath.Exact // by place in the order: what the passages from there on are off at least
	least  []breath.Exact // what they take at least, with one round each

	rounds []int
	looked int

	best      []int
	bestOff   breath.Exact // the sum of the squares
	bestTaken breath.Exact
}

func (s *search) run() {
	n := len(s.free)
	s.order = make([]int, n)
	for i := range s.order {
		s.order[i] = i
	}
	slices.SortStableFunc(s.order, func(a, b int) int { return s.free[b].round.Cmp(s.free[a].round) })
	s.after, s.least = make([]breath.Exact, n+1), make([]breath.Exact, n+1)
	for place := n - 1; place >= 0; place-- {
		f := s.free[s.order[place]]
		s.after[place] = s.after[place+1].Add(f.off(f.nearest()))
		s.least[place] = s.least[place+1].Add(f.round)
	}
	if s.within.Less(s.least[0]) { // one round each is the least there is
		s.best = slices.Repeat([]int{1}, n)
		return
	}
	s.choose(0, breath.Exact{}, breath.Exact{})
}

// nearest returns the whole number of rounds that is nearest to the ideal.
func (f fitted) nearest() int { return min(bounded(f.ideal.Add(breath.Ratio(1, 2)).Floor()), f.most) }

func bounded(rounds int64) int { return int(min(max(rounds, 1), plan.MaxRounds)) }

// off returns the square of how far that many rounds are from the ideal, in milliseconds.
func (f fitted) off(rounds int) breath.Exact {
	d := breath.Int(int64(rounds)).Sub(f.ideal).Mul(f.round)
	return d.Mul(d)
}

// choose tries the rounds of the passage at the place, the nearest first and then further and further away to both
// sides: each side ends where it cannot become nearer any more.
func (s *search) choose(place int, taken, off breath.Exact) {
	if place == len(s.order) {
		s.keep(taken, off)
		return
	}
	f := s.free[s.order[place]]
	most := min(
		bounded(s.within.Sub(taken).Sub(s.least[place+1]).Div(f.round).Floor()),
		f.most,
	) // the others get one each at least
	try := func(rounds int) bool {
		s.looked++
		next := off.Add(f.off(rounds))
		if s.looked > mostChoices && s.best != nil ||
			s.best != nil && s.bestOff.Less(next.Add(s.bound(place+1, taken.Add(f.round.Times(rounds))))) {
			return false
		}
		s.rounds[s.order[place]] = rounds
		s.choose(place+1, taken.Add(f.round.Times(rounds)), next)
		return true
	}
	from := min(f.nearest(), most)
	for rounds := from; rounds >= 1 && try(rounds); rounds-- {
	}
	for rounds := from + 1; rounds <= most && try(rounds); rounds++ {
	}
}

// bound returns what the passages from the place on are off at least. If they kept to their ideals they would take the
// rest of the time and a bit more or less; what is more has to be saved by them, at best in equal parts.
func (s *search) bound(place int, taken breath.Exact) breath.Exact {
	var ideal breath.Exact
	for _, i := range s.order[place:] {
		ideal = ideal.Add(s.free[i].ideal.Mul(s.free[i].round))
	}
	over := taken.Add(ideal).Sub(s.within)
	if over.Sign() <= 0 {
		return s.after[place]
	}
	if place == len(s.order) {
		return breath.Exact{}
	}
	return breath.Max(s.after[place], over.Mul(over).Div(breath.Int(int64(len(s.order)-place))))
}

func (s *search) keep(taken, off breath.Exact) {
	if s.best != nil {
		switch c := off.Cmp(s.bestOff); {
		case c > 0:
			return
		case c == 0:
			longer := taken.Cmp(s.bestTaken)
			if longer < 0 || longer == 0 && slices.Compare(s.rounds, s.best) <= 0 {
				return
			}
		}
	}
	s.best, s.bestOff, s.bestTaken = slices.Clone(s.rounds), off, taken
}

// Addition is something that the time to spare has room for.
type Addition struct {
	Passage int          // from 1; 0 for a rest at the end
	Rounds  int          // more, of the passage
	Length  breath.Exact // milliseconds
}

// Additions returns what fits into the time to spare of the slot, for a group of the level: for each passage that is
// led in rounds and not kept, how many more, within what is advised for the practice; and last a rest, which is always
// good. Nothing where no minute is to spare.
func Additions(p *plan.Plan, level string) []Addition {
	spare := p.Slot.Times(60_000).Sub(p.Length())
	if p.Slot.Sign() == 0 || spare.Less(breath.Int(60_000)) {
		return nil
	}
	var list []Addition
	for i := range p.Passages {
		passage := &p.Passages[i]
		if passage.Keep || !passage.HasRounds() {
			continue
		}
		round := passage.RoundSpan(passage.Measure).Add(passage.BetweenSpan(passage.Measure))
		if more := min(int(spare.Div(round).Floor()),
			p.AdvisedRounds(i, level)-passage.TotalRounds(passage.Measure)); more > 0 {
			list = append(list, Addition{i + 1, more, round.Times(more)})
		}
	}
	whole := breath.Int(spare.Div(breath.Int(30_000)).Floor() * 30_000) // half minutes
	return append(list, Addition{0, 0, whole})
}

// EndAt returns where the passage, from 0, ends in the plan, in milliseconds.
func EndAt(p *plan.Plan, passage int) breath.Exact {
	var end breath.Exact
	for i := range passage + 1 {
		end = end.Add(p.Passages[i].PlannedLength())
	}
	return end
}

// RoundsToEnd returns how many rounds the passage, from 0, can have and end by that time of the class, in milliseconds:
// at least one, which may be too long.
func RoundsToEnd(p *plan.Plan, passage int, end breath.Exact) (rounds int, fits bool) {
	one := p.Passages[passage]
	round := one.RoundSpan(one.Measure).Add(one.BetweenSpan(one.Measure))
	spare := end.Sub(EndAt(p, passage))
	total := breath.Int(int64(one.TotalRounds(one.Measure))).Add(spare.Div(round)).Floor()
	return bounded(total), total >= 1
}

// TempoToEnd returns the slowest tempo, in hundredths of a count a minute, at which the passage, from 0, ends by that
// time of the class, in milliseconds. It is within what the field allows; fits is false if that is not quick enough.
func TempoToEnd(p *plan.Plan, passage int, end breath.Exact) (tempo breath.Exact, fits bool) {
	before := EndAt(p, passage).Sub(p.Passages[passage].PlannedLength())
	ends := func(hundredths int64) bool {
		one := p.Passages[passage]
		rounds := one.TotalRounds(one.Measure)
		one.Measure.Tempo = breath.Ratio(hundredths, 100)
		one.Rounds, one.Minutes = rounds, breath.Exact{}
		return !end.Less(before.Add(one.PlannedLength()))
	}
	slowest, fastest := p.Passages[passage].TempoLimits()
	low, high := slowest*100, fastest*100
	if !ends(high) {
		return breath.Ratio(high, 100), false
	}
	for low < high { // quicker is never longer
		middle := (low + high) / 2
		if ends(middle) {
			high = middle
		} else {
			low = middle + 1
		}
	}
	return breath.Ratio(low, 100), true
}

// Apply writes the rounds into the document that the plan was read from. A passage that gets as many as it has stays as
// it is written, in minutes too.
func (f Fit) Apply(doc plan.Document, p *plan.Plan) {
	for i, fields := range doc.Passages() {
		passage, rounds := &p.Passages[i], f.Rounds[i]
		if rounds > 0 && rounds != passage.TotalRounds(passage.Measure) {
			fields.SetRounds(rounds)
		}
	}
}
