package room

import (
	"slices"

	"vastlantern/core/breath"
	"vastlantern/core/fact"
	"vastlantern/core/pace"
	"vastlantern/core/plan"
	"vastlantern/core/practice"
)

// Seen is something that a teacher sees in the room.
type Seen struct {
	ID   string
	rule func(Scene) Proposal
	can  func(p *plan.Passage, m plan.Measure) bool // whether a passage can show it; nil for every one
	with []breath.Phase                             // the phases in which it shows; empty for any
}

// Name returns it in few words, as on a button.
func (s Seen) Name() fact.Fact { return fact.New("signal." + s.ID) }

// Fits reports whether a passage can show it, with the measure that is in force in it.
func (s Seen) Fits(p *plan.Passage, m plan.Measure) bool { return s.can == nil || s.can(p, m) }

// With returns the phases in which it shows; empty for any.
func (s Seen) With() []breath.Phase { return s.with }

func led(p *plan.Passage, _ plan.Measure) bool       { return p.Led() }
func practised(p *plan.Passage, _ plan.Measure) bool { return p.Type == plan.Practice }
func breathed(p *plan.Passage, _ plan.Measure) bool {
	return p.Type == plan.Practice && !p.CountsStrokes()
}
func held(p *plan.Passage, m plan.Measure) bool {
	return p.HasOpenPhases() || p.TakesCounts() && m.Counts.Hold > 0
}
func stroked(p *plan.Passage, _ plan.Measure) bool { return p.CountsStrokes() }
func atTheNose(p *plan.Passage, _ plan.Measure) bool {
	return p.Type == plan.Practice && (p.Practice.Sided() || p.Aperture.Width() == "narrow")
}

// Scene is what a proposal rests on.
type Scene struct {
	Now     pace.Moment
	Passage *plan.Passage // nil once the class is over
	Before  int           // how often the same was seen in this passage before
	SlotEnd int64         // of the class's slot, milliseconds from its start; 0 if it has none
	// LaneLimit is how many breaths a minute the gentler lane takes at most; 0 for the usual limit.
	LaneLimit int
}

// Proposal is what to do about it. Where nothing is to be pressed, Do is empty and Say is a prompt for the room.
type Proposal struct {
	Do  []pace.Adjustment // without their moment
	Say fact.Fact
	// Lane is what is there for some, so that not everybody is eased: the gentler lane, where it can be opened here.
	// Its Do is empty if there is none.
	Lane pace.Adjustment
}

var (
	in      = []breath.Phase{breath.Inhale}
	out     = []breath.Phase{breath.Exhale}
	holding = []breath.Phase{breath.Hold, breath.Empty}
	strokes = []breath.Phase{breath.Stroke}
)

// Signals is everything that can be seen, in the order of the pad: what to do now and next about each is handed down
// in the trade (common practice, with no source); how much is the rule of this table.
var Signals = []Seen{
	{"gasp", gasp, breathed, in},
	{"rushed", rushed, held, out},
	{"early", early, led, nil},
	{"late", late, led, nil},
	{"tight", tight, practised, holding},
	{"restless", restless, nil, nil},
	{"strokes", strokesApart, stroked, strokes},
	{"belly", prompt("propose.belly"), breathed, in},
	{"pinched", prompt("propose.pinched"), atTheNose, nil},
	{"interrupted", natural("propose.interrupted"), nil, nil},
	{"pressure", natural("propose.pressure"), practised, nil},
	{"unwell", natural("propose.unwell"), nil, nil},
	{"backs", prompt("propose.backs"), nil, nil},
	{"settled", prompt("propose.settled"), nil, nil},
	{"clock", finish, nil, nil},
}

// Propose returns what to do about what was seen.
func Propose(id string, s Scene) (Proposal, error) {
	for _, seen := range Signals {
		if seen.ID != id {
			continue
		}
		if s.Passage == nil {
			return only("propose.class-over"), nil
		}
		p := seen.rule(s)
		if slices.Contains(ofSome, id) {
			p.Lane = s.lane()
		}
		return p, nil
	}
	return Proposal{}, fact.New("signal.unknown", "signal", id)
}

// ofSome is what is often seen in some people only: a hold or a breath that is too long for them.
var ofSome = []string{"gasp", "rushed", "late", "tight"}

// lane opens the gentler lane that is offered first.
func (s Scene) lane() pace.Adjustment {
	offers := s.Passage.LaneOffers(s.Now.Next.Measure, s.LaneLimit)
	if len(offers) == 0 || !s.Now.Next.Beside.None() || !s.Now.Met.Has(pace.ToBeside) {
		return pace.Adjustment{}
	}
	return pace.Adjustment{Do: pace.ToBeside, Text: offers[0].Beside.String()}
}

// only returns a proposal with nothing to press.
func only(id string, args ...any) Proposal { return Proposal{Say: fact.New(id, args...)} }

func prompt(id string) func(Scene) Proposal {
	return func(Scene) Proposal { return only(id) }
}

func natural(id string) func(Scene) Proposal {
	return func(s Scene) Proposal { return s.propose(fact.New(id), pace.Adjustment{Do: pace.ToPause}) }
}

// propose leaves out what would be refused where the class is.
func (s Scene) propose(say fact.Fact, do ...pace.Adjustment) Proposal {
	p := Proposal{Say: say}
	for _, a := range do {
		if s.Now.Met.Has(a.Do) {
			p.Do = append(p.Do, a)
		}
	}
	return p
}

func (s Scene) counts(c breath.Counts, say fact.Fact) Proposal {
	return s.propose(say, pace.Adjustment{Do: pace.ToCounts, Counts: [4]int{c.Inhale, c.Hold, c.Exhale, c.Empty}})
}

// from tells from when on a shorter phase acts: still in this breath, in a later breath of the round, or with the next
// round. Where nothing of the kind comes any more, there is nothing to press for.
func (s Scene) from(kinds ...breath.Phase) (when fact.Fact, comes bool) {
	for _, ph := range s.Now.Ahead {
		if !slices.Contains(kinds, ph.Kind) {
			continue
		}
		if ph.Breath == s.Now.Ahead[0].Breath {
			return fact.New("when.this-breath"), true
		}
		return fact.New("when.next-breath"), true
	}
	if s.Now.Stage == pace.Round && s.Now.Round >= s.Now.Next.Total {
		return fact.New("when.next-time"), false
	}
	return fact.New("when.next-round"), true
}

// gasp: the empty hold was too long. One count less, two where it is five or more; nothing of it when it happens again.
// If there is none, the exhale was.
func gasp(s Scene) Proposal {
	c := s.Now.Counts
	was := c.Empty
	when, comes := s.from(breath.Empty)
	switch {
	case s.Passage.HasOpenPhases() && was > 0:
		return s.shorterOpen()
	case !s.Passage.TakesCounts() && was > 0:
		return s.propose(fact.New("propose.no-holds"), pace.Adjustment{Do: pace.DropHolds})
	case was == 0 && c.Exhale > 1 && s.Passage.TakesCounts():
		c.Exhale--
		return s.counts(
			c,
			fact.New("propose.exhale", "before", c.Exhale+1, "after", c.Exhale, "when", fact.New("when.next-round")),
		)
	case was == 0:
		return only("propose.softer")
	case s.Before > 0:
		c.Empty = 0
	case was >= 5:
		c.Empty -= 2
	default:
		c.Empty--
	}
	say := fact.New("propose.empty-hold", "before", was, "after", c.Empty, "when", when)
	if !comes {
		return Proposal{Say: say}
	}
	return s.counts(c, say)
}

// shorterOpen returns about an empty hold that lasts until the teacher goes on: nothing can be pressed for it
// beforehand.
func (s Scene) shorterOpen() Proposal {
	planned := s.Passage.Open[3].Div(breath.Int(1000))
	shorter := max(1, planned.Times(3).Div(breath.Int(4)).Floor()) // a quarter less, as of a full hold
	return only("propose.open-hold", "seconds", shorter, "planned", planned)
}

// rushed: the full hold was too long. A quarter less, at least one count; no holds when it happens again.
func rushed(s Scene) Proposal {
	c := s.Now.Counts
	if c.Hold == 0 {
		return only("propose.slow-exhale")
	}
	if s.Before > 0 || !s.Passage.TakesCounts() {
		return s.noHolds()
	}
	was := c.Hold
	c.Hold -= max(1, (was+2)/4) // a quarter, to the nearest count
	when, comes := s.from(breath.Hold)
	say := fact.New("propose.hold", "before", was, "after", c.Hold, "when", when)
	if !comes {
		return Proposal{Say: say}
	}
	return s.counts(c, say)
}

func (s Scene) noHolds() Proposal {
	when, comes := s.from(breath.Hold, breath.Empty)
	say := fact.New("propose.no-holds-from", "when", when)
	if !comes {
		return Proposal{Say: say}
	}
	return s.propose(say, pace.Adjustment{Do: pace.DropHolds})
}

func early(s Scene) Proposal {
	to := Faster(s.Passage, s.Now.Next.Tempo)
	return s.propose(
		fact.New("propose.faster", "before", s.Now.Next.Tempo, "after", to),
		pace.Adjustment{Do: pace.ToTempo, To: to},
	)
}

func late(s Scene) Proposal {
	to := Slower(s.Passage, s.Now.Next.Tempo)
	return s.propose(
		fact.New("propose.slower", "before", s.Now.Next.Tempo, "after", to),
		pace.Adjustment{Do: pace.ToTempo, To: to},
	)
}

// tight: no holds; if there are none, a count less in and out, but no fewer than two.
func tight(s Scene) Proposal {
	c := s.Now.Next.Counts
	if c.Holds() || s.Now.Counts.Holds() {
		return s.noHolds()
	}
	if !s.Passage.TakesCounts() || min(c.Inhale, c.Exhale) <= leastCounts(s.Passage) {
		return only("propose.shoulders")
	}
	before := c
	c.Inhale--
	c.Exhale--
	return s.counts(c, fact.New("propose.counts", "before", before, "after", c, "when", fact.New("when.next-round")))
}

// leastCounts returns the fewest counts of an inhale or an exhale that are proposed.
func leastCounts(p *plan.Passage) int {
	if p.SharesZones() {
		return practice.LeastZoned
	}
	return 2
}

func restless(s Scene) Proposal {
	if s.Now.Next.Total <= s.Now.Round {
		return only("propose.say-numbers")
	}
	return s.propose(
		fact.New("propose.fewer-rounds", "rounds", s.Now.Next.Total-1),
		pace.Adjustment{Do: pace.Rounds, Relative: true, By: -1},
	)
}

// strokesApart: the round ends with this stroke and is kept; the next ones have a quarter fewer.
func strokesApart(s Scene) Proposal {
	if !s.Passage.CountsStrokes() {
		return only("propose.no-strokes")
	}
	n := s.Now.Next.Strokes
	fewer := max(1, n-max(1, n/4))
	do := []pace.Adjustment{{Do: pace.Enough}}
	say := fact.New("propose.enough")
	if !s.Passage.Practice.FillsMinutes() && fewer < n && s.Now.Next.Total > s.Now.Round {
		do = append(do, pace.Adjustment{Do: pace.ToStrokes, To: breath.Int(int64(fewer))})
		say = fact.New("propose.enough-then", "strokes", fewer, "before", n)
	}
	return s.propose(say, do...)
}

func finish(s Scene) Proposal {
	if s.SlotEnd == 0 {
		return only("propose.no-slot")
	}
	return s.propose(fact.New("propose.finish"), pace.Adjustment{Do: pace.FinishBy, To: breath.Int(s.SlotEnd)})
}
