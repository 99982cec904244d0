package rehearsal

import (
	"cmp"
	"math"
	"slices"

	"vastlantern/core/breath"
)

// Course is how a class went for one person. What comes after Highest and First is there only where somebody watches.
type Course struct {
	Highest []float64 // the most strain in each passage
	First   []int     // of each passage, the round in which strain first came to Visible; 0 if it did not

	Signs  []Sign
	Points []Point // strain over time, straight from one to the next
	Acts   []Act
	Loads  []Load
	// Breaths is how many were led while the person was there, and Followed how many of them the person breathed.
	Breaths, Followed int
	Wrong             int // nostrils that were mixed up
	// Hurried is when phases by hand began that were over before the person was done, in milliseconds.
	Hurried []int64
}

// Point is strain at a moment, whether one follows, and on which lane.
type Point struct {
	At      int64
	Strain  float64
	Follows bool
	Beside  bool
}

// Act is what somebody does from a moment on until the next act. A breath that moves is done at Until, which may be
// before the next.
type Act struct {
	At, Until int64
	Do        Doing
	Through   breath.Through // which way the air goes; it reports where the hand is
	Counts    int            // strokes
}

// Doing is what is to be seen of somebody's breath: one of the phases that are led, or one of these.
type Doing string

// What people do while nothing is led, or while they do not follow.
const (
	Natural Doing = "natural"
	Absent  Doing = "absent"
	Comes   Doing = "comes" // through the room, to the place
)

// Load is what a phase asked of somebody.
type Load struct {
	At, Until int64
	Sign      string  // that it is the cause of, when it is too much; empty if it can be of none
	Beyond    float64 // seconds beyond what is easy, strokes beyond for strokes; 0 if it was easy
	Held      bool    // a hold
	Passage   int
	Round     int
}

// body is one person on the way through a class.
type body struct {
	*Person
	who, seed int64
	happens   *Happens
	strain    float64
	stopped   bool    // until the next rest
	lane      int     // the passage in which the gentler lane was taken
	rested    bool    // natural breath came after one arrived
	count     float64 // seconds of a count, as it was last
	through   breath.Through
	hold      bool // the last hold was too long
	empty     bool
	strokes   float64 // so far, in a row
	began     int64   // when this breath did
	moved     float64 // seconds that this breath has moved, those through a blocked nostril weighted
	long      float64 // seconds of it beyond what is easy
	hard      bool    // something of this breath was too much
	behind    int64   // until when one breathes what was led before
	watched   bool
	course    Course
}

// Follow has a person follow the class: who is their place in the room, latecomer whether it is the one who comes late.
// watched is whether it is to be known what is seen when.
func (c *Class) Follow(p *Person, who int, seed int64, watched, latecomer bool) Course {
	b := &body{
		Person: p, who: int64(who), seed: seed, watched: watched, happens: &c.happens, count: 1,
		course: Course{Highest: make([]float64, c.passages), First: make([]int, c.passages)},
	}
	arrives := int64(0)
	if latecomer {
		arrives = c.happens.Latecomer
	}
	if arrives > 0 && watched {
		b.arrive(arrives)
	}
	for _, one := range c.stretches {
		parts := one.main
		if arrives > 0 && !b.joins(parts, arrives) {
			continue
		}
		beside := len(one.lane) > 0 && b.takesLane(one.lane[0].passage)
		if beside {
			parts = one.lane
		}
		for i := range parts {
			b.breathe(&parts[i], beside)
		}
	}
	return b.course
}

// How somebody comes late, in milliseconds: guesses.
const (
	walks   = 6000
	settles = 60_000 // after which one joins by oneself
	noticed = 20_000 // for which it can be seen that something interrupts
)

func (b *body) arrive(at int64) {
	b.course.Acts = append(
		b.course.Acts,
		Act{At: 0, Until: at, Do: Absent},
		Act{At: at, Until: at + walks, Do: Comes},
		Act{At: at + walks, Until: at + walks, Do: Natural},
	)
	b.course.Signs = append(b.course.Signs, Sign{ID: Interrupted, At: at, Until: at + noticed})
}

// joins reports whether a latecomer breathes with the others: after the first natural breath of all, or after a while.
func (b *body) joins(parts []part, arrived int64) bool {
	if b.rested || len(parts) == 0 {
		return b.rested
	}
	first := &parts[0]
	seated := arrived + walks
	b.rested = first.to >= seated && resting(first.kind)
	return first.from >= arrived+settles || b.rested && first.from >= seated
}

// resting reports whether nothing is led in a phase.
func resting(kind breath.Phase) bool { return kind == breath.Free || kind == breath.Talk }

// nearlyAll is the Limit from which on one pushes through.
const nearlyAll = 0.95

// takesLane reports whether one breathes the gentler way: from when it begins to strain, until the passage is over.
// Those who push through never do.
func (b *body) takesLane(passage int) bool {
	if b.Limit < nearlyAll && b.strain >= Visible/2 {
		b.lane = passage
	}
	return b.lane == passage
}

// restEvery is how far apart the points of strain are while it fades, in seconds.
const restEvery = 2

// breathe takes one phase.
func (b *body) breathe(p *part, beside bool) {
	switch p.kind {
	case breath.Free, breath.Talk, breath.Still:
		b.rest(p)
	case breath.Beat, breath.Lead:
		return
	default:
		b.lead(p, beside)
	}
}

func (b *body) rest(p *part) {
	start := b.strain
	if b.watched {
		b.act(Act{At: p.from, Until: p.to, Do: Natural})
		for s := 0.0; s < p.seconds(); s += restEvery {
			b.strain = start * math.Exp2(-s/b.Fade)
			b.point(p.at(s), false)
		}
	}
	b.strain = start * math.Exp2(-p.seconds()/b.Fade)
	if p.kind != breath.Still {
		b.stopped, b.through = false, breath.None
	}
	b.point(p.to, false)
}

func (b *body) point(at int64, beside bool) {
	if b.watched {
		b.course.Points = append(b.course.Points, Point{at, b.strain, !b.stopped, beside})
	}
}

func (b *body) act(a Act) { b.course.Acts = append(b.course.Acts, a) }

// lead takes a phase that is led.
func (b *body) lead(p *part, beside bool) {
	if p.first {
		b.began, b.moved, b.long, b.hard = p.from, 0, 0, false
	}
	if b.watched {
		b.distracted(p)
		if p.last {
			b.course.Breaths++
		}
	}
	if !b.stopped {
		b.load(p, beside)
		if b.watched && p.last && !b.stopped {
			b.course.Followed++
		}
	}
	b.count = p.seconds() / float64(p.counts)
	index := p.passage - 1
	b.course.Highest[index] = max(b.course.Highest[index], b.strain)
	if b.strain >= Visible && b.course.First[index] == 0 {
		b.course.First[index] = max(p.round, 1)
	}
}

// strokesWeigh is what a stroke beyond is, in seconds beyond an easy hold. A guess.
const strokesWeigh = 0.2

// slope is strain that grows from a second of a phase on, by so much a second.
type slope struct{ from, rate float64 }

// asks returns how a phase strains, how far it is beyond what is easy, and what is seen of that. Rates do not fall from
// slope to slope.
func (b *body) asks(p *part) (slopes []slope, of Load) {
	seconds := p.seconds()
	of = Load{At: p.from, Until: p.to, Passage: p.passage, Round: p.round, Held: p.kind.Held()}
	beyond := func(easy, rate float64, sign string) {
		of.Sign, of.Beyond = sign, max(0, seconds-easy)
		slopes = []slope{{max(0, easy), rate}}
	}
	switch p.kind {
	case breath.Hold:
		beyond(b.Full, b.Growth, Rushed)
	case breath.Empty:
		beyond(b.Empty, emptyHarder*b.Growth, Gasp)
	case breath.Stroke:
		fast := max(0, p.tempo/b.Rate-1)
		left := max(0, b.Strokes-b.strokes)            // strokes until they are too many
		each := strokesWeigh * b.Growth * p.tempo / 60 // strain a second, for a stroke beyond each time
		b.strokes += float64(p.counts)
		of.Sign, of.Beyond = Strokes, max(0, float64(p.counts)-left)+float64(p.counts)*fast
		slopes = []slope{{0, each * fast}, {60 * left / p.tempo, each * (fast + 1)}}
	default:
		weight := 1.0
		if b.Blocked != "" && string(p.through) == b.Blocked {
			weight = throughBlocked
		}
		beyond((b.Comfort*b.Reach-b.moved)/weight, b.Growth*weight/2, Early) // a long breath is less than a long hold
		b.moved += weight * seconds
	}
	return slopes, of
}

// load is what a phase asks for, and what is to be seen of it.
func (b *body) load(p *part, beside bool) {
	if p.kind != breath.Stroke {
		b.strokes = 0
	}
	slopes, of := b.asks(p)
	b.hard = b.hard || of.Beyond > 0
	var signs map[string]bool
	if b.watched {
		b.point(p.from, beside)
		signs = b.begins(p)
		b.course.Loads = append(b.course.Loads, b.whole(p, of))
	}
	seen := b.grow(p, slopes, beside)
	if b.watched {
		if seen >= 0 && (of.Sign == Early || of.Sign == Strokes) {
			b.show(p, of.Sign, 3, p.at(seen), b.Shows)
		}
		b.does(p, of, slopes, signs)
	}
	switch p.kind {
	case breath.Hold:
		b.hold = of.Beyond > 0
	case breath.Empty:
		b.empty = of.Beyond > 0
	case breath.Exhale:
		b.hold = false
	case breath.Inhale:
		b.empty = false
	}
	b.point(p.to, beside)
	if p.last && !b.hard && !b.stopped {
		b.strain *= easesABreath
		b.point(p.to, beside)
	}
}

// whole returns a load with that of the whole breath at its end: a breath is too long as a whole.
func (b *body) whole(p *part, of Load) Load {
	if of.Sign != Early {
		return of
	}
	b.long += of.Beyond
	if !p.moved {
		of.Sign = ""
		return of
	}
	of.At, of.Beyond = b.began, b.long
	return of
}

// grow has strain grow along slopes, and gives the second from which on there is something to be seen of it while it
// grows, -1 for none.
func (b *body) grow(p *part, slopes []slope, beside bool) (seen float64) {
	seen = -1
	for i, s := range slopes {
		until := p.seconds()
		if i+1 < len(slopes) {
			until = min(until, slopes[i+1].from)
		}
		if s.from >= until || s.rate == 0 {
			continue
		}
		b.point(p.at(s.from), beside)
		to := b.strain + s.rate*(until-s.from)
		if seen < 0 && to >= Visible {
			seen = s.from + max(0, (Visible-b.strain)/s.rate)
		}
		if to >= b.Limit {
			at := p.at(s.from + (b.Limit-b.strain)/s.rate)
			b.strain, b.stopped = b.Limit, true
			if b.watched {
				b.point(at, beside)
				b.act(Act{At: at, Until: at, Do: Natural})
			}
			return seen
		}
		b.strain = to
	}
	return seen
}

// How long a sign is to be seen, in milliseconds: guesses.
const (
	short = 2500
	while = 6000
	long  = 15_000
)

var lasts = map[string]int64{
	Gasp:     short,
	Rushed:   short,
	Early:    short,
	Late:     short,
	Strokes:  while,
	Tight:    while,
	Unwell:   long,
	Restless: long,
}

// show has a sign be seen, if chance has it so. number tells the signs of a phase apart.
func (b *body) show(p *part, id string, number int64, at int64, likely float64) bool {
	if b.chance(p, number) >= likely {
		return false
	}
	b.course.Signs = append(b.course.Signs, Sign{id, at, at + lasts[id], p.passage, p.round})
	return true
}

func (b *body) chance(p *part, number int64) float64 {
	return chance(b.seed, b.who, int64(p.passage), int64(p.round), int64(p.number), number)
}

// begins returns what is to be seen when a phase begins: of what was before it. Below Visible nothing is seen of
// strain; of some people little.
func (b *body) begins(p *part) map[string]bool {
	seen := map[string]bool{}
	if b.strain >= Visible {
		switch {
		case p.kind == breath.Inhale && b.empty:
			seen[Gasp] = b.show(p, Gasp, 1, p.from, b.Shows)
		case p.kind == breath.Exhale && b.hold:
			seen[Rushed] = b.show(p, Rushed, 2, p.from, b.Shows)
		}
		if b.strain >= 2*Visible {
			b.show(p, Tight, 5, p.from, b.Shows/2)
		}
		if b.strain >= 3*Visible {
			b.show(p, Unwell, 6, p.from, b.Dizzy)
		}
	}
	return seen
}

const attentionLasts = 60_000 // ms after the teacher spoke to it: a guess

// attentive reports whether the teacher spoke to the attention of all a short while ago.
func (b *body) attentive(at int64) bool {
	for _, prompt := range b.happens.Prompts {
		if prompt <= at && at < prompt+attentionLasts {
			return true
		}
	}
	return false
}

// What somebody does not keep to. Guesses.
const (
	most      = 1.5  // s that one is off at most
	attended  = 0.5  // of it is left after the teacher spoke to the attention
	findsOver = 1500 // ms until a nostril that was mixed up is changed
)

// How a breath is shared between in and out, how short somebody follows one who leads by breathing, as a share of a
// comfortable breath, and from how many seconds on it can be seen that somebody is behind. Guesses.
const (
	shareIn    = 0.45
	follows    = 0.6
	seenBehind = 0.5
)

// hurried is for how many seconds one still breathes when a phase by hand is over; 0 if it lasted long enough.
func (b *body) hurried(p *part) float64 {
	if !p.byHand {
		return 0
	}
	share := 1 - shareIn
	if p.kind.Begins() {
		share = shareIn
	}
	return max(0, follows*share*b.Comfort-p.seconds())
}

// does is how a phase is breathed.
func (b *body) does(p *part, of Load, slopes []slope, signs map[string]bool) {
	keeps := 1.0
	if b.attentive(p.from) {
		keeps = attended
	}
	drifts := keeps * b.Keeps * normal(b.seed, b.who, int64(p.passage), int64(p.round), int64(p.number), 9)
	off := min(most, math.Abs(drifts)) // nobody knows a cue before it comes
	act := Act{At: p.at(off), Until: p.at(p.seconds() + off), Do: Doing(p.kind), Through: p.through, Counts: p.counts}
	act.At, act.Until = max(act.At, b.behind), max(act.Until, b.behind)
	switch {
	case signs[Gasp] || signs[Rushed]:
		act.Until = min(act.Until, act.At+1000)
	case of.Sign == Early && of.Beyond > 0: // as far as the breath goes
		act.Until = min(act.Until, act.At+int64(1000*max(2, slopes[0].from)))
	}
	late := p.kind == breath.Inhale && drifts > b.count
	if hurried := b.hurried(p); hurried > 0 {
		act.Until += int64(1000 * hurried)
		b.behind = act.Until
		b.course.Hurried = append(b.course.Hurried, p.from)
		late = late || hurried > seenBehind
	}
	one := p.through == breath.Left || p.through == breath.Right
	if one && b.through == p.through.Other() && b.chance(p, 11) < keeps*b.Mixes/max(b.count, 0.5) {
		b.course.Wrong++
		wrong := act
		wrong.Through, wrong.Until = p.through.Other(), act.At+findsOver
		b.act(wrong)
		act.At, act.Until = wrong.Until, max(wrong.Until, act.Until)
		late = true
	}
	if one {
		b.through = p.through
	}
	if late {
		b.show(p, Late, 10, p.from, b.Shows)
	}
	b.act(act)
}

// distracted is when attention goes away by itself, or with somebody who comes late.
func (b *body) distracted(p *part) {
	const minute = 60_000
	for m := p.from / minute; m <= p.to/minute; m++ {
		at := m*minute + int64(minute*chance(b.seed, b.who, m, 12))
		if chance(b.seed, b.who, m, 7) < b.Wanders {
			b.restless(p, at)
		}
	}
	const share, within = 0.35, 30_000
	if b.happens.Latecomer > 0 && chance(b.seed, b.who, 77) < share {
		b.restless(p, b.happens.Latecomer+int64(within*chance(b.seed, b.who, 78)))
	}
}

// restless has attention be away from a moment of a phase on.
func (b *body) restless(p *part, at int64) {
	if p.from <= at && at < p.to && !b.attentive(at) && b.chance(p, 8) < b.Shows {
		b.course.Signs = append(b.course.Signs, Sign{Restless, at, at + lasts[Restless], p.passage, p.round})
	}
}

// StrainAt returns the strain at a moment, in milliseconds from the start of the class. Between points it goes
// straight.
func (c *Course) StrainAt(at int64) float64 {
	next, _ := slices.BinarySearchFunc(c.Points, at, func(p Point, at int64) int { return cmp.Compare(p.At, at) })
	switch {
	case len(c.Points) == 0:
		return 0
	case next == len(c.Points):
		return c.Points[next-1].Strain
	case next == 0 || c.Points[next].At == at:
		return c.Points[next].Strain
	}
	before, after := c.Points[next-1], c.Points[next]
	return before.Strain + (after.Strain-before.Strain)*float64(at-before.At)/float64(after.At-before.At)
}
