package plan

import (
	"fmt"
	"slices"
	"strings"

	"vastlantern/core/breath"
	"vastlantern/core/fact"
	"vastlantern/core/practice"
)

// Beside is what those who do not hold, or who breathe shorter, do beside the others in the same time (pacing.md
// section 6): nothing else, breathe through the holds, or a shorter breath over and over.
type Beside struct {
	Breathe        bool
	Inhale, Exhale int // counts of a shorter breath, 0 for none
}

// None reports whether nothing runs beside.
func (b Beside) None() bool { return b == Beside{} }

// Shorter reports whether it is a breath of its own.
func (b Beside) Shorter() bool { return b.Inhale > 0 }

// String writes it as plans and scripts have it: breathe, a:c or none.
func (b Beside) String() string {
	switch {
	case b.Breathe:
		return "breathe"
	case b.Shorter():
		return fmt.Sprintf("%d:%d", b.Inhale, b.Exhale)
	}
	return "none"
}

// Name returns the lane for a person.
func (b Beside) Name() fact.Fact {
	switch {
	case b.None():
		return fact.New("lane.none")
	case b.Shorter():
		return fact.New("lane.shorter", "counts", b)
	}
	return fact.New("lane.breathe")
}

// ParseBeside reads breathe, a:c or none; ok is false for any other text.
func ParseBeside(text string) (b Beside, ok bool) {
	switch text {
	case "none":
		return Beside{}, true
	case "breathe":
		return Beside{Breathe: true}, true
	}
	c, err := breath.ParseCounts(text)
	if err != nil || strings.Count(text, ":") != 1 {
		return Beside{}, false
	}
	return Beside{Inhale: c.Inhale, Exhale: c.Exhale}, true
}

// RowsOf returns how many rows the phases have, one a count.
func RowsOf(phases []practice.Phase) (rows int) {
	for _, ph := range phases {
		rows += ph.Counts + 1 - ph.First()
	}
	return rows
}

// RunsOn reports whether a shorter breath beside the passage goes on from round to round: where a round is only a few
// rows and no rest is between two.
func (p *Passage) RunsOn() bool { return p.HasFixedCounts() && !p.HasRests() }

// NeededBeside returns how many rows one start of it needs: one breath, or two where the sides alternate.
func (p *Passage) NeededBeside(b Beside) int {
	if p.Practice.Alternates() {
		return 2 * (b.Inhale + b.Exhale)
	}
	return b.Inhale + b.Exhale
}

// AgainstBeside returns why the shorter breath does not go with the passage, whose rounds have so many rows; none if it
// does.
func (p *Passage) AgainstBeside(b Beside, rows int) fact.Fact {
	switch needed := p.NeededBeside(b); {
	case !b.Shorter():
		return fact.Fact{}
	case p.HasOpenPhases():
		return fact.New("lane.not-with-open-phases")
	case p.NaturalPause.Sign() > 0:
		return fact.New("lane.not-with-natural-pause")
	case rows < needed:
		return fact.New("lane.needs-counts", "needed", needed, "there", rows)
	}
	return fact.Fact{}
}

func (p *Passage) readBeside(o reader) {
	value, there := o.fields["beside"]
	if !there || !p.Led() {
		return // elsewhere it is misplaced, which is reported already
	}
	text, _ := value.(string)
	b, ok := ParseBeside(text)
	if !ok || b.None() {
		o.fail("beside", "allowed.beside")
		return
	}
	rows := RowsOf(p.Round(p.Measure))
	if p.RunsOn() {
		rows *= p.TotalRounds(p.Measure)
	}
	if why := p.AgainstBeside(b, rows); !why.None() {
		o.failWith("beside", why)
		return
	}
	p.Beside = b
}

// LaneOffer is something that could run beside a passage.
type LaneOffer struct {
	Beside    Beside
	PerMinute breath.Exact // breaths of a shorter breath
	Left      int          // counts of a round that no breath of it takes
}

// UsualLaneLimit is how many breaths a minute the gentler lane takes at most where the school does not say (common
// practice): a lane that breathes faster than the class would wake up those who should be spared.
const UsualLaneLimit = 10

// The shorter breaths that are offered: none slower than adults settle at who attend to their breath, 8 to 14 s (common
// practice), so that it is gentle.
const (
	longestBreath = 12_000 // milliseconds
	mostOffers    = 4
)

// LaneOffers returns what could run beside the rounds of the passage at the measure, at most at so many breaths a
// minute, 0 for the usual limit: breathe through the holds, where there are some, and shorter breaths that leave the
// fewest counts of the round over, those closest to the main breath first. It is empty at own pace.
func (p *Passage) LaneOffers(m Measure, limit int) []LaneOffer {
	if !p.Led() {
		return nil
	}
	if limit == 0 {
		limit = UsualLaneLimit
	}
	shortest := breath.Int(60_000).Div(breath.Int(int64(limit)))
	round := p.Round(m)
	rows, breaths := RowsOf(round), 0
	holds := false
	for _, ph := range round {
		breaths = max(breaths, ph.Breath)
		holds = holds || ph.Kind.Held()
	}
	if p.RunsOn() {
		rows *= p.TotalRounds(m)
	}
	var shorter []LaneOffer
	row := breath.CountLength(m.Tempo)
	for counts := 2; counts <= 2*breath.MostCounts; counts++ {
		span := row.Times(counts)
		if span.Less(shortest) {
			continue
		}
		if breath.Int(longestBreath).Less(span) || p.TakesCounts() && breaths > 0 && counts*breaths >= rows {
			break // as long as the breath that it should be gentler than
		}
		b := Beside{Inhale: counts / 2, Exhale: counts - counts/2}
		if p.NeededBeside(b) > rows {
			break
		}
		if p.AgainstBeside(b, rows).None() {
			shorter = append(shorter, LaneOffer{b, breath.Int(60_000).Div(span), rows % p.NeededBeside(b)})
		}
	}
	least := rows
	for _, o := range shorter {
		least = min(least, o.Left)
	}
	shorter = slices.DeleteFunc(shorter, func(o LaneOffer) bool { return o.Left > least })
	slices.Reverse(shorter) // all are shorter than the main breath: the longest is the closest
	var offers []LaneOffer
	if holds {
		offers = append(offers, LaneOffer{Beside: Beside{Breathe: true}})
	}
	offers = append(offers, shorter...)
	return offers[:min(mostOffers, len(offers))]
}
