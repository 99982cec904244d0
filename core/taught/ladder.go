package taught

import (
	"cmp"
	"slices"

	"vastlantern/core/breath"
	"vastlantern/core/fact"
	"vastlantern/core/plan"
)

// Ladder is the rungs that ratios are climbed by, inhale : hold : exhale as multiples of the inhale (handbook.md
// section 4). The square with an empty hold comes once 1:1:1 is easy.
var Ladder = []breath.Counts{
	{Inhale: 1, Exhale: 1},
	{Inhale: 1, Exhale: 2},
	{Inhale: 1, Hold: 1, Exhale: 1},
	{Inhale: 1, Hold: 1, Exhale: 2},
	{Inhale: 1, Hold: 2, Exhale: 2},
	{Inhale: 1, Hold: 3, Exhale: 2},
	{Inhale: 1, Hold: 4, Exhale: 2},
}

const afterTriple = 3 // the rung above 1:1:1, on which the square stands

// Rung returns the lowest rung that asks for as much as the counts do, from 0; one above the ladder if none does.
func Rung(c breath.Counts) int {
	rung := slices.IndexFunc(Ladder, func(r breath.Counts) bool {
		return c.Hold <= r.Hold*c.Inhale && c.Exhale <= r.Exhale*c.Inhale
	})
	if rung < 0 {
		rung = len(Ladder)
	}
	if c.Empty > 0 {
		rung = max(rung, afterTriple)
	}
	return rung
}

// rungName returns a rung as a teacher says it.
func rungName(rung int) fact.Fact {
	if rung >= len(Ladder) {
		return fact.New("rung.above")
	}
	return fact.New("rung.ratio", "ratio", Ladder[rung])
}

// History is what a group has been taught, as far as the next class depends on it.
type History struct {
	Level   string               // of the group, one of practice.Levels; empty if it is not known
	past    map[string][]Passage // by practice, of each class its main figure, the latest last
	newest  map[string][]Passage // by practice, everything that was led of it in the last class with it
	highest int                  // the rung that was reached in kept rounds, of any counted practice
	counted bool                 // anything counted was taught
	talks   []breath.Exact       // how much longer than planned each talk took, the latest last
	latest  []string             // the practices of the last class, in its order
	point   string               // the practice that the last class was about, where its plan says so
	calm    int                  // how many classes in a row, up to the last, had nothing eased and a room that was ready
	unrest  fact.Fact            // why the last one that was not so was not, as a clause
	guides  map[string]Next      // what a programme asks for, by practice
	told    fact.Fact            // why those who breathed in the last class are not ready for a step; none if they are
}

// Add takes a class into account; classes come in the order of their times.
func (h *History) Add(r Record) {
	if h.past == nil {
		h.past, h.newest = map[string][]Passage{}, map[string][]Passage{}
	}
	var led []string
	eased, point := false, ""
	here := map[string][]Passage{}
	for _, p := range r.Passages {
		if p.Type == plan.Talk && p.Length > 0 && p.PlannedLength > 0 && !p.CutShort {
			h.talks = append(h.talks, breath.Ratio(p.Length, p.PlannedLength))
		}
		if p.Rounds == 0 || p.Trial || p.OwnPace {
			continue
		}
		if here[p.Practice] == nil {
			led = append(led, p.Practice)
		}
		here[p.Practice] = append(here[p.Practice], p)
		eased = eased || p.Eased
		if p.Point && point == "" {
			point = p.Practice
		}
		if p.Counts.Inhale > 0 {
			h.highest, h.counted = max(h.highest, Rung(p.Counts)), true
		}
	}
	if len(led) == 0 { // nothing was led that could climb
		return
	}
	for practice, passages := range here {
		h.past[practice] = append(h.past[practice], mainFigure(passages))
		h.newest[practice] = passages
	}
	h.told = r.Told.Unready()
	switch {
	case eased:
		h.calm, h.unrest = 0, fact.New("unrest.eased")
	case !h.told.None():
		h.calm, h.unrest = 0, h.told
	default:
		h.calm++
	}
	h.latest, h.point = led, point
}

// mainFigure returns the passage of a class that stands for a practice which was led in several: the one that the plan
// says was the point; else, of the figure on which the class stayed longest at a stretch, one that was eased, else the
// longest, the last of several as long.
func mainFigure(passages []Passage) Passage {
	if i := slices.IndexFunc(passages, func(p Passage) bool { return p.Point }); i >= 0 {
		return passages[i]
	}
	stay := make([]int64, len(passages))
	for from := 0; from < len(passages); {
		to, sum := from, int64(0)
		for ; to < len(passages) && passages[to].Pattern == passages[from].Pattern; to++ {
			sum += passages[to].Length
		}
		for ; from < to; from++ {
			stay[from] = sum
		}
	}
	best := 0
	for i, p := range passages {
		if cmp.Or(
			cmp.Compare(stay[i], stay[best]),
			later(p.Eased, passages[best].Eased),
			cmp.Compare(p.Length, passages[best].Length),
		) >= 0 {
			best = i
		}
	}
	return passages[best]
}

// lastTime returns what was led of the practice of a passage that was planned in the last class with it: the same
// figure where there was one, else the main one.
func (h *History) lastTime(p *plan.Passage) (last Passage, known bool) {
	past := h.past[p.Practice.ID]
	if len(past) == 0 {
		return Passage{}, false
	}
	for _, one := range slices.Backward(h.newest[p.Practice.ID]) {
		if one.Pattern == p.Pattern() {
			return one, true
		}
	}
	return past[len(past)-1], true
}

// Advise returns what the group's own past says of a plan: one step at a time, and no rung left out. It forbids
// nothing.
func (h *History) Advise(p *plan.Plan) []plan.Advice {
	var list []plan.Advice
	var climbing []string
	for i := range p.Passages {
		passage := &p.Passages[i]
		if !passage.Led() || passage.Trial {
			continue
		}
		steps := h.steps(passage)
		if len(steps) > 0 && !slices.Contains(climbing, passage.Name()) {
			climbing = append(climbing, passage.Name())
		}
		if len(steps) > 0 && !h.told.None() {
			list = append(
				list,
				plan.Advice{
					Passage: i + 1,
					Say:     fact.New("advice.step-after-unrest", "name", passage.Name(), "unrest", h.told),
					Why:     fact.New("advice.step-after-unrest.why"),
				},
			)
		}
		if len(steps) > 1 {
			list = append(
				list,
				plan.Advice{Passage: i + 1, Say: fact.New("advice.several-steps", "name", passage.Name(), "steps", steps),
					Why: fact.New("advice.several-steps.why")},
			)
		}
		if rung := Rung(passage.Measure.Counts); h.counted && passage.TakesCounts() && rung > h.highest+1 {
			list = append(list, plan.Advice{Passage: i + 1, Say: fact.New("advice.ratio", "name", passage.Name()),
				Why: fact.New("advice.ratio.why", "highest", rungName(h.highest), "next", rungName(h.highest+1))})
		}
	}
	if len(climbing) > 1 {
		list = append(list, plan.Advice{Say: fact.New("advice.several-practices", "names", fact.Names(climbing)),
			Why: fact.New("advice.several-practices.why")})
	}
	return list
}

// steps returns what grows in a passage against the last time.
func (h *History) steps(p *plan.Passage) []fact.Fact {
	last, known := h.lastTime(p)
	if !known {
		return nil
	}
	var steps []fact.Fact
	if p.TakesCounts() {
		if c := p.Measure.Counts; c.Inhale > last.Counts.Inhale {
			steps = append(steps, fact.New("step.counts", "before", last.Counts, "after", c))
		}
		if before, now := Rung(last.Counts), Rung(p.Measure.Counts); now > before {
			steps = append(steps, fact.New("step.ratio", "before", rungName(before), "after", rungName(now)))
		}
	}
	before := last.Rounds
	if !last.Eased {
		before = max(before, last.PlannedRounds) // a class that was cut short is planned as it was
	}
	if rounds := p.TotalRounds(p.Measure); rounds > before {
		steps = append(steps, fact.New("step.rounds", "before", before, "after", rounds))
	}
	return steps
}

// Bounds of what is learned from: common practice, with no source.
const (
	fewestTalks = 5
	latestTalks = 12
	worthSaying = 15 // per cent
)

// Talks returns how many times their planned length the group's talks usually take, the median of the last ones that
// ran to their end, and of how many; 0 if too few are known or the plan is about right.
func (h *History) Talks() (times breath.Exact, of int) {
	latest := h.talks[max(0, len(h.talks)-latestTalks):]
	if len(latest) < fewestTalks {
		return breath.Exact{}, 0
	}
	sorted := slices.SortedFunc(slices.Values(latest), func(a, b breath.Exact) int { return a.Cmp(b) })
	n := len(sorted)
	median := sorted[n/2]
	if n%2 == 0 {
		median = sorted[n/2-1].Add(sorted[n/2]).Div(breath.Int(2))
	}
	if off := median.Times(100).Sub(breath.Int(100)); cmp.Compare(max(off.Round(), -off.Round()), worthSaying) < 0 {
		return breath.Exact{}, 0
	}
	return median, n
}
