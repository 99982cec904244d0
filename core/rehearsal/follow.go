package rehearsal

import (
	"math"

	"vastlantern/core/breath"
	"vastlantern/core/pace"
	"vastlantern/core/plan"
)

// Sign is something that is to be seen of somebody for a while: one of the signals of core/room, by its id. Times are milliseconds
// from the start of the class.
type Sign struct {
	ID        string
	At, Until int64
	Passage   int // from 1
	Round     int
}

// What is to be seen, by the ids of core/room. Each has its own cause.
const (
	Gasp     = "gasp"     // after an empty hold that was too long
	Rushed   = "rushed"   // after a full hold that was too long
	Early    = "early"    // the breath is too long
	Late     = "late"     // does not keep the count
	Tight    = "tight"    // much strain
	Restless = "restless" // attention is away
	Strokes  = "strokes"  // too many, or too fast
	Unwell   = "unwell"   // rare, of great strain: natural breath for all at once
)

// OfStrain tells whether a sign is one of strain; the others are of attention.
func OfStrain(id string) bool { return id != Late && id != Restless }

// part is one phase of a class as it is breathed, in seconds.
type part struct {
	from, to       int64 // ms
	kind           breath.Phase
	through        breath.Through
	passage, round int
	breath         int
	seconds        float64
	counts         int
	whole          float64 // how long the breath moves that ends with this part, without its holds; 0 where it ends with another
}

// stretch is a round, or what stands between: on the main lane, and on the gentler one where there is one.
type stretch struct{ main, lane []part }

// Class is a timeline as people follow it.
type Class struct {
	stretches []stretch
	passages  int
}

// Of is a timeline to be followed. What waits for the teacher has no length yet, and is left out.
func Of(tl pace.Timeline, p *plan.Plan) *Class {
	c := &Class{passages: len(p.Passages)}
	lane := tl.Lane(p).Rows
	next := 0
	for from := 0; from < len(tl.Rows); {
		to := from + 1
		for to < len(tl.Rows) && !tl.Rows[to].Starts && sameStretch(&tl.Rows[from], &tl.Rows[to]) {
			to++
		}
		one := stretch{main: partsOf(tl.Rows[from:to])}
		first := next
		for next < len(lane) && (to == len(tl.Rows) || lane[next].At < tl.Rows[to].At) {
			next++
		}
		if !tl.Rows[from].Beside.None() {
			one.lane = partsOf(lane[first:next])
		}
		c.stretches = append(c.stretches, one)
		from = to
	}
	return c
}

func sameStretch(a, b *pace.Row) bool {
	return a.Passage == b.Passage && a.Stage == b.Stage && a.Round == b.Round && a.Kept == b.Kept
}

// partsOf gathers rows into phases.
func partsOf(rows []pace.Row) []part {
	var parts []part
	for i := range rows {
		row := &rows[i]
		if row.Dur < 0 {
			continue
		}
		if n := len(parts); n > 0 && row.Phase == parts[n-1].kind && row.Breath == parts[n-1].breath && row.Through == parts[n-1].through && row.Phase != breath.Free {
			parts[n-1].to = row.End()
			parts[n-1].counts++
		} else {
			parts = append(parts, part{row.At, row.End(), row.Phase, row.Through, row.Passage, row.Round, row.Breath, 0, 1, 0})
		}
	}
	whole := 0.0
	for i := range parts {
		p := &parts[i]
		p.seconds = float64(p.to-p.from) / 1000
		if i > 0 && p.breath != parts[i-1].breath {
			whole = 0
		}
		if !p.kind.Held() {
			whole += p.seconds
		}
		if i+1 == len(parts) || parts[i+1].breath != p.breath || parts[i+1].kind == breath.Inhale {
			p.whole = whole
			whole = 0
		}
	}
	return parts
}

// Course is how a class went for one person. Signs and Points are there only where somebody watches.
type Course struct {
	Highest []float64 // the most strain in each passage
	First   []int     // of each passage, the round in which strain first came to Visible; 0 where it did not
	Signs   []Sign
	Points  []Point // strain over time
}

// Point is strain at a moment, and whether one follows, and on which lane.
type Point struct {
	At      int64
	Strain  float64
	Follows bool
	Beside  bool
}

// body is one person on the way through a class.
type body struct {
	*Person
	who, seed int64
	strain    float64
	stopped   bool // until the next rest
	away      int64
	hold      bool // the last hold was too long
	empty     bool
	watched   bool
	course    Course
}

// Follow has a person follow the class: who is their place in the room. watched is whether it is to be known what is seen when.
func (c *Class) Follow(p *Person, who int, seed int64, watched bool) Course {
	b := &body{watched: watched, Person: p, who: int64(who), seed: seed, course: Course{Highest: make([]float64, c.passages), First: make([]int, c.passages)}}
	for _, one := range c.stretches {
		parts := one.main
		beside := len(one.lane) > 0 && b.takesLane()
		if beside {
			parts = one.lane
		}
		for i := range parts {
			b.breathe(&parts[i])
			if watched {
				b.course.Points = append(b.course.Points, Point{parts[i].to, b.strain, !b.stopped, beside})
			}
		}
	}
	return b.course
}

// nearlyAll is the Limit from which on one pushes through.
const nearlyAll = 0.95

// takesLane tells whether one breathes the gentler way: when it begins to strain, and never those who push through.
func (b *body) takesLane() bool { return b.Limit < nearlyAll && b.strain >= Visible/2 }

// breathe takes one phase.
func (b *body) breathe(p *part) {
	switch p.kind {
	case breath.Free, breath.Talk, breath.Still:
		b.strain *= math.Exp2(-p.seconds / b.Fade)
		if p.kind != breath.Still {
			b.stopped = false
		}
		return
	case breath.Beat, breath.Lead:
		return
	}
	if !b.stopped {
		b.load(p)
	}
	index := p.passage - 1
	b.course.Highest[index] = max(b.course.Highest[index], b.strain)
	if b.strain >= Visible && b.course.First[index] == 0 {
		b.course.First[index] = max(p.round, 1)
	}
}

// strokesWeigh is what a stroke beyond is, in seconds beyond an easy hold. A guess.
const strokesWeigh = 0.2

// load is what a phase asks for, and what is to be seen of it.
func (b *body) load(p *part) {
	beyond := 0.0
	switch p.kind {
	case breath.Hold:
		beyond = max(0, p.seconds-b.Full)
		b.hold = beyond > 0
	case breath.Empty:
		beyond = emptyHarder * max(0, p.seconds-b.Empty)
		b.empty = beyond > 0
	case breath.Stroke:
		rate := 60 * float64(p.counts) / p.seconds
		beyond = strokesWeigh * (max(0, float64(p.counts)-b.Strokes) + float64(p.counts)*max(0, rate/b.Rate-1))
	}
	long := 0.0
	if p.whole > 0 && p.kind != breath.Stroke {
		whole := p.whole
		if b.Blocked != "" && string(p.through) == b.Blocked {
			whole *= throughBlocked
		}
		long = max(0, whole-b.Comfort*b.Reach)
	}
	b.strain += b.Growth * (beyond + long/2) // a long breath is less than a long hold
	if p.whole > 0 && beyond == 0 && long == 0 && !b.hold && !b.empty {
		b.strain *= easesABreath
	}
	if b.watched {
		b.show(p, beyond, long)
	}
	if p.kind == breath.Exhale {
		b.hold = false
	}
	if p.kind == breath.Inhale {
		b.empty = false
	}
	if b.strain >= b.Limit {
		b.strain, b.stopped = b.Limit, true
	}
}

// How long a sign is to be seen, in milliseconds: guesses.
const (
	short = 2500
	while = 6000
	long  = 15_000
)

// show is what is to be seen in a phase. Below Visible nothing is seen of strain; of some people little.
func (b *body) show(p *part, beyond, over float64) {
	see := func(id string, number int64, likely float64, lasts int64) {
		if chance(b.seed, b.who, int64(p.passage), int64(p.round), int64(p.breath), int64(len(p.kind)), number) < likely {
			b.course.Signs = append(b.course.Signs, Sign{id, p.from, p.from + lasts, p.passage, p.round})
		}
	}
	if b.strain >= Visible {
		switch {
		case p.kind == breath.Inhale && b.empty:
			see(Gasp, 1, b.Shows, short)
		case p.kind == breath.Exhale && b.hold:
			see(Rushed, 2, b.Shows, short)
		case p.kind == breath.Stroke && beyond > 0:
			see(Strokes, 3, b.Shows, while)
		case over > 0:
			see(Early, 4, b.Shows, short)
		}
		if b.strain >= 2*Visible {
			see(Tight, 5, b.Shows/2, while)
		}
		if b.strain >= 3*Visible {
			see(Unwell, 6, b.Dizzy, long)
		}
	}
	if p.kind == breath.Inhale && p.from >= b.away {
		if chance(b.seed, b.who, p.from/60_000, 7) < b.Wanders*p.seconds/60*4 {
			b.away = p.from + 2*long
			see(Restless, 8, b.Shows, long)
		}
		if off := normal(b.seed, b.who, int64(p.passage), int64(p.round), int64(p.breath), 9) * b.Keeps; off > 1 {
			see(Late, 10, b.Shows, short)
		}
	}
}
