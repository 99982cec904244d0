package taught

import (
	"cmp"
	"maps"
	"math"
	"slices"

	"vastlantern/core/breath"
	"vastlantern/core/fact"
	"vastlantern/core/plan"
)

// Next is what a practice of a group should be next time, and why.
type Next struct {
	Counts  breath.Counts // of counted practices
	Strokes int           // of strokes
	Tempo   breath.Exact  // 0 if nothing is counted
	Rounds  int
	Length  int64 // of the rounds, about, in milliseconds: without what comes before and after them
	Why     fact.Fact
	BasedOn int  // on how many of the last classes with the practice
	Eased   bool // it goes back to where an easier class ended
	Climbs  bool // it is a step up
	Capped  bool // it has fewer rounds than before: no more are advised in one class with the new counts
	Back    bool // the plan is more than one step above what was taught
}

// The bounds that the rules of next time use: handbook.md section 4, common practice where it marks it so.
const (
	streak      = 3       // classes in a row led as planned before anything grows
	longEnough  = 300_000 // ms: rounds grow up to five minutes, then counts or the ratio do
	highestBase = 6       // counts of the inhale, from which on the ratio grows
	moreStrokes = 5
)

// bases is what base counts grow through.
var bases = []int{2, 3, 4, 5, 6, 8}

// firstBase is what the inhale begins with on a new rung.
const firstBase = 4

// Guide is what a programme that the group follows asks for next time, and why.
type Guide struct {
	Practice string
	Next     Next
}

// Follow has the practice of a programme be what its step asks for; what is in no programme does not climb beside it.
func (h *History) Follow(g Guide) {
	if h.guides == nil {
		h.guides = map[string]Next{}
	}
	h.guides[g.Practice] = g.Next
}

// Next returns what the practice should be next time; false if the group was never led in it.
func (h *History) Next(practice string) (Next, bool) {
	if guided, there := h.guides[practice]; there {
		guided.BasedOn = 1
		return guided, true
	}
	past := h.past[practice]
	if len(past) == 0 {
		return Next{}, false
	}
	last := past[len(past)-1]
	next := Next{
		Counts:  last.Counts,
		Strokes: last.Strokes,
		Tempo:   last.TempoEnd,
		Rounds:  max(last.Rounds, last.PlannedRounds),
	}
	n := steady(past)
	next.BasedOn = max(n, 1)
	switch {
	case last.Eased:
		next.Rounds, next.Eased = last.Rounds, true
		if n := len(last.Done); n > 0 && last.Strokes > 0 {
			next.Strokes = min(last.Strokes, max(last.Done[n-1].Strokes, 1)) // as done, not as it was in force
		}
		next.Why = fact.New("next.eased", "measure", next.Words())
	case last.Rounds < last.PlannedRounds:
		next.Why = fact.New("next.cut-short", "led", last.Rounds, "planned", last.PlannedRounds)
	case last.Settling:
		next.Why = fact.New("next.settling", "times", n)
	case n >= streak && h.calm < streak && !h.unrest.None():
		next.Why = fact.New("next.unrest", "times", n, "unrest", h.unrest, "ago", h.calm+1)
	case n >= streak && h.climber() != practice:
		next.Why = fact.New("next.other-first", "times", n, "name", h.called(h.climber()))
	case n >= streak && !next.climb(last, h.Level):
		next.Why = fact.New("next.no-more", "times", n)
	case n >= streak:
		next.Climbs = true
		next.Why = fact.New("next.step-up", "times", n, "measure", next.Words())
	default:
		next.Why = fact.New("next.not-yet", "times", n, "needed", streak)
	}
	next.Length = next.length(last)
	return next, true
}

// For returns what a planned passage should be next time. It is Next where the passage is the main figure of its
// practice, one step from it or far above it; another figure of the class stays as it is planned. False if nothing is
// proposed.
func (h *History) For(p *plan.Passage) (Next, bool) {
	next, known := h.Next(p.Practice.ID)
	if !known {
		return Next{}, false
	}
	if _, guided := h.guides[p.Practice.ID]; guided || next.Counts.Inhale == 0 {
		return next, true
	}
	past := h.past[p.Practice.ID]
	planned := p.Measure.Counts
	switch main := past[len(past)-1]; planned {
	case main.Counts, main.PlannedCounts:
		return next, true
	}
	for _, other := range h.newest[p.Practice.ID] {
		if planned == other.Counts || planned == other.PlannedCounts {
			return Next{}, false
		}
	}
	if oneStep(planned, next.Counts) {
		return next, true
	}
	next.Back = Rung(planned) > Rung(next.Counts) ||
		Rung(planned) == Rung(next.Counts) && planned.Inhale > next.Counts.Inhale
	if next.Back {
		next.Why = fact.New("next.far-above", "why", next.Why)
	}
	return next, next.Back
}

// oneStep reports whether two breaths are at most a step from each other: the next base count of the same ratio, or the
// next rung.
func oneStep(a, b breath.Counts) bool {
	if a.Scaled(b.Inhale) == b || b.Scaled(a.Inhale) == a {
		low, high := min(a.Inhale, b.Inhale), max(a.Inhale, b.Inhale)
		return high <= above(low)
	}
	apart := Rung(a) - Rung(b)
	return a.Empty == 0 && b.Empty == 0 && -1 <= apart && apart <= 1 && apart != 0
}

// length returns how long the rounds will take: as a planned round did, at the new tempo and with the new counts.
func (n *Next) length(last Passage) int64 {
	round := breath.Int(last.Round)
	if last.PlannedTempo.Sign() > 0 && n.Tempo.Sign() > 0 {
		round = round.Mul(last.PlannedTempo).Div(n.Tempo)
	}
	if before := last.PlannedCounts.Total(); before > 0 {
		round = round.Times(n.Counts.Total()).Div(breath.Int(int64(before)))
	}
	if more := n.Strokes - last.Strokes; more != 0 && n.Tempo.Sign() > 0 {
		round = round.Add(breath.CountLength(n.Tempo).Times(more))
	}
	return round.Times(n.Rounds).Round()
}

// climber returns the practice whose turn it is to take a step up: that of a programme, else of those of the last class
// that were led as planned often enough, the one that has waited longest; if none was, of all practices. Empty if there
// is none.
func (h *History) climber() string {
	for practice := range h.guides {
		if len(h.past[practice]) > 0 {
			return practice
		}
	}
	return cmp.Or(h.point, h.longest(h.latest), h.longest(slices.Sorted(maps.Keys(h.past))))
}

// longest returns which of the practices was led as planned most often in a row, and often enough.
func (h *History) longest(practices []string) (who string) {
	most := streak - 1
	for _, practice := range practices {
		past := h.past[practice]
		if n := steady(past); n > most && !past[len(past)-1].Settling {
			who, most = practice, n
		}
	}
	return who
}

// called returns the practice's name as it was led last.
func (h *History) called(practice string) string {
	past := h.past[practice]
	return past[len(past)-1].Name
}

// steady returns how many classes, the latest last, were led as planned, each with what the last one had.
func steady(past []Passage) (n int) {
	last := past[len(past)-1]
	for i := len(past) - 1; i >= 0; i-- {
		p := past[i]
		if p.Eased || p.Rounds < p.PlannedRounds || p.Counts != last.Counts || p.Strokes != last.Strokes ||
			p.Rounds != last.Rounds {
			break
		}
		n++
	}
	return n
}

// climb takes one step up: rounds up to five minutes, then the base count, then the ratio from a smaller base. Of
// strokes some more a round; of what has neither counts nor strokes, a round. What is advised in one class for the
// level ends the growth of rounds and strokes, and counts grow within it, in fewer rounds. False if there is no step to
// take.
func (n *Next) climb(last Passage, level string) bool {
	before := *n
	switch more := min(max(last.Rounds+1, last.Rounds*6/5), n.within(last, level)); { // a fifth more where there are many
	case last.Strokes > 0:
		n.Strokes = min(last.Strokes+moreStrokes, plan.MaxStrokes)
		if n.within(last, level) < n.Rounds {
			n.Strokes = before.Strokes
		}
	case more > last.Rounds && (last.Counts.Inhale == 0 || int64(last.Rounds)*last.Round < longEnough):
		n.Rounds = more
	case last.Counts.Inhale == 0:
	case last.Counts.Inhale < highestBase:
		n.Counts = last.Counts.Scaled(above(last.Counts.Inhale))
	case Rung(last.Counts)+1 < len(Ladder):
		n.Counts = Ladder[Rung(last.Counts)+1].Scaled(firstBase)
	default:
		n.Counts = last.Counts.Scaled(above(last.Counts.Inhale))
	}
	if n.Counts != last.Counts {
		within := n.within(last, level)
		n.Capped = within < n.Rounds
		n.Rounds = min(n.Rounds, within)
	}
	return n.Counts != before.Counts || n.Rounds != before.Rounds || n.Strokes != before.Strokes
}

// within returns how many rounds are advised in one class with the counts and strokes of next time.
func (n *Next) within(last Passage, level string) int {
	most := last.Bounds.Of(n.Counts).For(level)
	if most.Rounds > 0 {
		return most.Rounds
	}
	one := *n
	one.Rounds = 1
	if round := one.length(last); round > 0 {
		return int(min(max(int64(most.Minutes)*60_000/round, 1), plan.MaxRounds))
	}
	return n.Rounds
}

// above returns the next base count.
func above(inhale int) int {
	for _, base := range bases {
		if base > inhale {
			return base
		}
	}
	return inhale + 1
}

// Words returns the measure as a teacher says it: "4:4:8, 6 rounds".
func (n *Next) Words() fact.Fact {
	switch {
	case n.Strokes > 0:
		return fact.New("measure.strokes", "strokes", n.Strokes, "rounds", n.Rounds)
	case n.Counts.Inhale > 0:
		return fact.New("measure.counts", "counts", n.Counts, "rounds", n.Rounds)
	}
	return fact.New("measure.rounds", "rounds", n.Rounds)
}

// Whole is Words with the tempo and how long it takes: "4:4:8, 6 rounds at 48, about 4 min".
func (n *Next) Whole() fact.Fact {
	words := n.Words()
	if n.Tempo.Sign() > 0 {
		words = fact.New("measure.at-tempo", "measure", words, "tempo", math.Round(n.Tempo.Float()*10)/10)
	}
	const minute = 60_000
	if n.Length < minute {
		return fact.New("measure.about-seconds", "measure", words, "seconds", (n.Length+500)/1000)
	}
	return fact.New("measure.about-minutes", "measure", words, "minutes", (n.Length+minute/2)/minute)
}

// Apply plans the passage p, which has these fields, as it should be next time.
func (n *Next) Apply(fields plan.Fields, p *plan.Passage) {
	if n.Tempo.Sign() > 0 && !n.Tempo.Equal(p.Measure.Tempo) {
		fields.SetTempo(p, n.Tempo) // first: it may pin the rounds of a passage that is planned in minutes
	}
	if n.Rounds != p.TotalRounds(p.Measure) && !p.Practice.FillsMinutes() {
		fields.SetRounds(n.Rounds)
	}
	if n.Counts.Inhale > 0 && n.Counts != p.Measure.Counts {
		fields.SetCounts(n.Counts)
	}
	if n.Strokes > 0 && n.Strokes != p.Measure.Strokes && !p.Practice.FillsMinutes() {
		fields.SetStrokes(n.Strokes)
	}
}
