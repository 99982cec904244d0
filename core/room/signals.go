package room

import (
	"fmt"
	"slices"

	"vastlantern/core/breath"
	"vastlantern/core/pace"
	"vastlantern/core/plan"
	"vastlantern/core/practice"
)

// Seen is something that a teacher sees in the room.
type Seen struct {
	ID   string
	Name string // in few words, as on a button
	rule func(Scene) Proposal
	can  func(p *plan.Passage, m plan.Measure) bool // whether a passage can show it; nil for every one
	with []breath.Phase                             // the phases in which it shows; empty for any
}

// Fits tells whether a passage can show it, with the measure that is in force in it.
func (s Seen) Fits(p *plan.Passage, m plan.Measure) bool { return s.can == nil || s.can(p, m) }

// With is the phases in which it shows; empty for any.
func (s Seen) With() []breath.Phase { return s.with }

func led(p *plan.Passage, _ plan.Measure) bool       { return p.Led() }
func practised(p *plan.Passage, _ plan.Measure) bool { return p.Type == plan.Practice }
func breathed(p *plan.Passage, _ plan.Measure) bool {
	return p.Type == plan.Practice && !p.Is(practice.Strokes)
}
func held(p *plan.Passage, m plan.Measure) bool {
	return p.Is(practice.Open) || p.Is(practice.Counted) && m.Counts.Hold > 0
}
func stroked(p *plan.Passage, _ plan.Measure) bool { return p.Is(practice.Strokes) }
func atTheNose(p *plan.Passage, _ plan.Measure) bool {
	return p.Type == plan.Practice && (p.Practice.Sided() || p.Aperture.Width() == "narrow")
}

// Scene is what a proposal rests on.
type Scene struct {
	Now     pace.Moment
	Passage *plan.Passage // nil once the class is over
	Before  int           // how often the same was seen in this passage before
	SlotEnd int64         // of the class's slot, milliseconds from its start; 0 where it has none
	// LaneLimit is how many breaths a minute the gentler lane takes at most; 0 for the usual limit.
	LaneLimit int
}

// Proposal is what to do about it. Where nothing is to be pressed, Do is empty and Say is a prompt for the room.
type Proposal struct {
	Do  []pace.Adjustment // without their moment
	Say string
	// Lane is what is there for some, so that not everybody is eased: the gentler lane, where it can be opened here. Its Do is
	// empty where there is none.
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
	{"gasp", "a gasp on the way in", gasp, breathed, in},
	{"rushed", "a rushed exhale after the hold", rushed, held, out},
	{"early", "done before the count", early, led, nil},
	{"late", "still moving at the cue", late, led, nil},
	{"tight", "shoulders lifting, tight faces", tight, practised, holding},
	{"restless", "restless, eyes open", restless, nil, nil},
	{"strokes", "strokes fall apart", strokesApart, stroked, strokes},
	{"belly", "belly drawn in on the inhale", prompt("Back to belly breath: a hand there, and let it come toward the hand."), breathed, in},
	{"pinched", "pinched nose, elbow up", prompt("Lightly at the nose. Elbow down, head straight."), atTheNose, nil},
	{"interrupted", "an interruption", natural("Natural breath. The same round again when it is quiet."), nil, nil},
	{"pressure", "dry throat, pressure in the head", natural("Natural breath. Shorter when it goes on."), practised, nil},
	{"unwell", "dizzy, tingling, unwell", natural("Natural breath for everyone. Help that person; leave this practice for today."), nil, nil},
	{"backs", "backs tire", prompt("A chair, the wall, lying down or child's pose: all are equal."), nil, nil},
	{"settled", "settled, faces soft", prompt("Keep it as it is."), nil, nil},
	{"clock", "the clock runs ahead", finish, nil, nil},
}

// Propose is what to do about what was seen.
func Propose(id string, s Scene) (Proposal, error) {
	for _, seen := range Signals {
		if seen.ID != id {
			continue
		}
		if s.Passage == nil {
			return Proposal{Say: "The class is over."}, nil
		}
		p := seen.rule(s)
		if slices.Contains(ofSome, id) {
			p.Lane = s.lane()
		}
		return p, nil
	}
	return Proposal{}, fmt.Errorf("there is no signal %q", id)
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

func prompt(text string) func(Scene) Proposal {
	return func(Scene) Proposal { return Proposal{Say: text} }
}

func natural(text string) func(Scene) Proposal {
	return func(s Scene) Proposal { return s.propose(text, pace.Adjustment{Do: pace.ToPause}) }
}

// propose leaves out what would be refused where the class is.
func (s Scene) propose(text string, do ...pace.Adjustment) Proposal {
	p := Proposal{Say: text}
	for _, a := range do {
		if s.Now.Met.Has(a.Do) {
			p.Do = append(p.Do, a)
		}
	}
	return p
}

func (s Scene) counts(c breath.Counts, text string) Proposal {
	return s.propose(text, pace.Adjustment{Do: pace.ToCounts, Counts: [4]int{c.Inhale, c.Hold, c.Exhale, c.Empty}})
}

// from tells from when on a shorter phase acts: still in this breath, in a later breath of the round, or with the next round.
// Where nothing of the kind comes any more, there is nothing to press for.
func (s Scene) from(kinds ...breath.Phase) (when string, comes bool) {
	for _, ph := range s.Now.Ahead {
		if !slices.Contains(kinds, ph.Kind) {
			continue
		}
		if ph.Breath == s.Now.Ahead[0].Breath {
			return "from this breath", true
		}
		return "from the next breath", true
	}
	last := s.Now.Stage == pace.Round && s.Now.Round >= s.Now.Next.Total
	return "from the next round", !last
}

// nextTime is a proposal with nothing to press: this passage has none of it left.
func nextTime(text string) Proposal {
	return Proposal{Say: text + ", next time: it does not come again here"}
}

// gasp: the empty hold was too long. One count less, two where it is five or more; nothing of it when it happens
// again. Where there is none, the exhale was.
func gasp(s Scene) Proposal {
	c := s.Now.Counts
	was := c.Empty
	when, comes := s.from(breath.Empty)
	switch {
	case s.Passage.Is(practice.Open) && was > 0:
		return s.shorterOpen()
	case !s.Passage.Is(practice.Counted) && was > 0:
		return s.propose("no holds", pace.Adjustment{Do: pace.DropHolds})
	case was == 0 && c.Exhale > 1 && s.Passage.Is(practice.Counted):
		c.Exhale--
		return s.counts(c, fmt.Sprintf("exhale %d to %d, from the next round", c.Exhale+1, c.Exhale))
	case was == 0:
		return Proposal{Say: "Softer, and as long as is comfortable."}
	case s.Before > 0:
		c.Empty = 0
	case was >= 5:
		c.Empty -= 2
	default:
		c.Empty--
	}
	text := fmt.Sprintf("empty hold %d to %d", was, c.Empty)
	if !comes {
		return nextTime(text)
	}
	return s.counts(c, text+", "+when)
}

// shorterOpen is about an empty hold that lasts until the teacher goes on: nothing can be pressed for it beforehand.
func (s Scene) shorterOpen() Proposal {
	planned := s.Passage.Open[3].Div(breath.Int(1000))
	shorter := max(1, planned.Times(3).Div(breath.Int(4)).Floor()) // a quarter less, as of a full hold
	return Proposal{Say: fmt.Sprintf("A shorter empty hold next time: go on after %d s instead of %s s.", shorter, planned)}
}

// rushed: the full hold was too long. A quarter less, at least one count; no holds when it happens again.
func rushed(s Scene) Proposal {
	c := s.Now.Counts
	if c.Hold == 0 {
		return Proposal{Say: "Let the exhale go slowly: it has its whole count."}
	}
	if s.Before > 0 || !s.Passage.Is(practice.Counted) {
		return s.noHolds()
	}
	was := c.Hold
	c.Hold -= max(1, (was+2)/4) // a quarter, to the nearest count
	when, comes := s.from(breath.Hold)
	text := fmt.Sprintf("hold %d to %d", was, c.Hold)
	if !comes {
		return nextTime(text)
	}
	return s.counts(c, text+", "+when)
}

func (s Scene) noHolds() Proposal {
	when, comes := s.from(breath.Hold, breath.Empty)
	if !comes {
		return nextTime("no holds")
	}
	return s.propose("no holds, "+when, pace.Adjustment{Do: pace.DropHolds})
}

func early(s Scene) Proposal {
	to := Faster(s.Passage, s.Now.Next.Tempo)
	return s.propose(fmt.Sprintf("faster, %s to %s", s.Now.Next.Tempo, to), pace.Adjustment{Do: pace.ToTempo, To: to})
}

func late(s Scene) Proposal {
	to := Slower(s.Passage, s.Now.Next.Tempo)
	return s.propose(fmt.Sprintf("slower, %s to %s", s.Now.Next.Tempo, to), pace.Adjustment{Do: pace.ToTempo, To: to})
}

// tight: no holds; where there are none, a count less in and out, but no fewer than two.
func tight(s Scene) Proposal {
	c := s.Now.Next.Counts
	if c.Holds() || s.Now.Counts.Holds() {
		return s.noHolds()
	}
	if !s.Passage.Is(practice.Counted) || min(c.Inhale, c.Exhale) <= leastCounts(s.Passage) {
		return Proposal{Say: "Shoulders down, soft face."}
	}
	before := c
	c.Inhale--
	c.Exhale--
	return s.counts(c, fmt.Sprintf("%s to %s, from the next round", before, c))
}

// leastCounts is the fewest counts of an inhale or an exhale that are proposed.
func leastCounts(p *plan.Passage) int {
	if p.SharesZones() {
		return practice.LeastZoned
	}
	return 2
}

func restless(s Scene) Proposal {
	if s.Now.Next.Total <= s.Now.Round {
		return Proposal{Say: "Say the numbers again, softly."}
	}
	return s.propose(fmt.Sprintf("one round less, %d in all; say the numbers again", s.Now.Next.Total-1), pace.Adjustment{Do: pace.Rounds, Relative: true, By: -1})
}

// strokesApart: the round ends with this stroke and is kept; the next ones have a quarter fewer.
func strokesApart(s Scene) Proposal {
	if !s.Passage.Is(practice.Strokes) {
		return Proposal{Say: "There are no strokes here."}
	}
	n := s.Now.Next.Strokes
	fewer := max(1, n-max(1, n/4))
	do := []pace.Adjustment{{Do: pace.Enough}}
	text := "enough: the round ends here"
	if !s.Passage.Practice.FillsMinutes() && fewer < n && s.Now.Next.Total > s.Now.Round {
		do = append(do, pace.Adjustment{Do: pace.ToStrokes, To: breath.Int(int64(fewer))})
		text += fmt.Sprintf(", then %d strokes instead of %d", fewer, n)
	}
	return s.propose(text, do...)
}

func finish(s Scene) Proposal {
	if s.SlotEnd == 0 {
		return Proposal{Say: "This class has no slot to end by."}
	}
	return s.propose("refit to the end of the slot; the closing rest stays", pace.Adjustment{Do: pace.FinishBy, To: breath.Int(s.SlotEnd)})
}
