package homework

import (
	"slices"
	"strconv"
	"strings"

	"vastlantern/core/breath"
	"vastlantern/core/fact"
	"vastlantern/core/plan"
	"vastlantern/core/practice"
	"vastlantern/core/school"
)

// Growth is a way to grow that is proposed, and that the teacher changes freely.
type Growth struct {
	ID    string
	Name  fact.Fact
	Steps []Step
}

// Limits are those of the school and of the group.
type Limits struct {
	Holds   bool // new holds may be practised at home
	Highest int  // count that an inhale grows to
}

// The highest inhale that is proposed: common practice, with no source.
const (
	highestNewcomer = 6
	highestOther    = 8
)

// LimitsOf returns what the school allows a group of the level at home. A school that teaches holds one to one, or
// gives newcomers none before a teacher has prepared them, has no new hold proposed.
func LimitsOf(choices school.Choices, level string) Limits {
	newcomers := level == practice.Levels[0]
	limits := Limits{
		Holds:   choices.Way("holding").ID != "alone" && (!newcomers || choices.Way("newcomers").NewcomersMay),
		Highest: highestOther,
	}
	if newcomers {
		limits.Highest = highestNewcomer
	}
	return limits
}

// Growths returns the ways to grow that fit a passage as it goes home, within the limits. The examples of handbook.md
// section 9 are where they come from: one round, then three; minutes by the month; longer counts; strokes by five.
func Growths(p *plan.Passage, limits Limits) []Growth {
	var list []Growth
	add := func(id string, steps []Step) {
		if len(steps) > 1 {
			list = append(list, Growth{ID: id, Name: fact.New("growth." + id), Steps: steps})
		}
	}
	if !p.Practice.FillsMinutes() {
		add("rounds", growRounds(p, limits))
	}
	add("minutes", growMinutes(ceiling(p)))
	if p.TakesCounts() {
		add("counts", growCounts(p.Measure.Counts, limits.Highest))
	}
	if p.CountsStrokes() && !p.Practice.FillsMinutes() {
		add("strokes", growStrokes(p.Measure.Strokes, p.TotalRounds(p.Measure)))
	}
	return list
}

// ceiling returns the most minutes a day that are advised of a passage as it is: those of the practice book where it
// bounds them, and never more than goes home. It does not ask for the level of a group, which grows as well.
func ceiling(p *plan.Passage) int {
	if most := p.Practice.Bounds.Of(p.Measure.Counts).Most.Minutes; most > 0 {
		return min(most, MaxMinutes)
	}
	return MaxMinutes
}

// Exceeds returns that a day of the passage, taken in so many pieces, lasts longer than is advised; none if it does
// not.
func Exceeds(p *plan.Passage, pieces int) fact.Fact {
	most := ceiling(p)
	if breath.Int(int64(most) * 60_000).Less(p.RoundsSpan().Times(pieces)) {
		return fact.New("home.exceeds", "minutes", most)
	}
	return fact.Fact{}
}

// growRounds is one round, then three, then a hold where there was none and the school allows one, or more rounds.
func growRounds(p *plan.Passage, limits Limits) []Step {
	most := plan.RoundsWithin(breath.Int(int64(ceiling(p))*60_000), p.RoundSpan(p.Measure), p.BetweenSpan(p.Measure))
	if rounds := p.Practice.Bounds.Of(p.Measure.Counts).Most.Rounds; rounds > 0 {
		most = min(most, rounds)
	}
	steps := []Step{{"x1", 3, Day}}
	counts := p.Measure.Counts
	canHold := slices.ContainsFunc(p.Practice.Figure, func(s practice.Step) bool { return s.Phase == breath.Hold })
	hold := limits.Holds && p.TakesCounts() && !counts.Holds() && canHold
	for i, rounds := range []int{3, 5} {
		switch {
		case i == 1 && hold && len(steps) > 1:
			const firstHold = 4
			steps = append(steps, Step{"hold " + strconv.Itoa(min(counts.Inhale, firstHold)) + " x3", 1, Week})
		case rounds <= most:
			steps = append(steps, Step{"x" + strconv.Itoa(rounds), 4 + 3*i, Day})
		}
	}
	return steps
}

// growMinutes is longer month by month, up to the most that is advised.
func growMinutes(most int) (steps []Step) {
	for _, minutes := range []int{3, 5, 7, 10, 15} {
		if minutes <= most {
			steps = append(steps, Step{strconv.Itoa(minutes) + " min", 1, Month})
		}
	}
	const enough = 4 // steps: the longest
	return steps[max(0, len(steps)-enough):]
}

// growCounts is the same ratio on longer counts, a week each.
func growCounts(counts breath.Counts, highest int) []Step {
	const enough, atOnce = 4, 2 // steps, and counts that an inhale grows by
	steps := []Step{{counts.String(), 1, Week}}
	for last, inhale := counts.Inhale, counts.Inhale+1; inhale <= min(highest, last+atOnce) &&
		len(steps) < enough; inhale++ {
		next := counts.Scaled(inhale)
		if next.Total()*counts.Inhale == counts.Total()*inhale { // else the ratio has no whole counts there
			steps, last = append(steps, Step{next.String(), 1, Week}), inhale
		}
	}
	return steps
}

// growStrokes is five more a week, up to sixty, in the rounds of the class.
func growStrokes(strokes, rounds int) (steps []Step) {
	const more, most, enough = 5, 60, 8
	for n := strokes; n <= most && len(steps) < enough; n += more {
		says := strings.Join([]string{strconv.Itoa(n), "strokes", "x" + strconv.Itoa(rounds)}, " ")
		steps = append(steps, Step{says, 1, Week})
	}
	return steps
}
