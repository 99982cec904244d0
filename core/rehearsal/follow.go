package rehearsal

import (
	"math"
	"slices"

	"vastlantern/core/breath"
	"vastlantern/core/pace"
	"vastlantern/core/plan"
)

// Sign is something that is to be seen of somebody for a while: one of the signals of core/room, by its id. Times are
// milliseconds from the start of the class.
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

	Interrupted = "interrupted" // somebody comes in
)

// OfStrain reports whether a sign is one of strain; the others are of attention.
func OfStrain(id string) bool { return id != Late && id != Restless && id != Interrupted }

// part is one phase of a class as it is breathed.
type part struct {
	from, to       int64 // ms
	kind           breath.Phase
	through        breath.Through
	passage, round int
	breath, number int // number is of the part within its round: by it chance tells parts apart
	counts         int
	tempo          float64 // counts or strokes a minute
	first, last    bool    // of its breath
	moved          bool    // no part of its breath moves any more after it
	byHand         bool    // it lasted as long as the teacher breathed, and is over
}

func (p *part) seconds() float64 { return float64(p.to-p.from) / 1000 }

// at returns a moment of the part, so many seconds after its beginning.
func (p *part) at(seconds float64) int64 { return p.from + int64(math.Round(seconds*1000)) }

// stretch is a round, or what is between: on the main lane, and on the gentler one where there is one.
type stretch struct{ main, lane []part }

// Class is a timeline as people follow it.
type Class struct {
	stretches []stretch
	passages  int
	happens   Happens
}

// Happens is what there is in a room besides what is led.
type Happens struct {
	// Prompts is when the teacher spoke to the attention of all, in milliseconds: for a minute it is there.
	Prompts []int64
	// Latecomer comes in after that many milliseconds, and sits down at the last place; nobody does at 0.
	Latecomer int64
	// Now is how far the class is: what waits for the teacher lasted until then at least. 0 for a plan.
	Now int64
}

// Of returns a timeline to be followed.
func Of(tl pace.Timeline, p *plan.Plan, happens Happens) *Class {
	c := &Class{passages: len(p.Passages), happens: happens}
	lane := tl.Lane(p).Rows
	next := 0
	for from := 0; from < len(tl.Rows); {
		to := from + 1
		for to < len(tl.Rows) && !tl.Rows[to].Starts && sameStretch(&tl.Rows[from], &tl.Rows[to]) {
			to++
		}
		one := stretch{main: partsOf(tl.Rows[from:to], happens.Now)}
		first := next
		for next < len(lane) && (to == len(tl.Rows) || lane[next].At < tl.Rows[to].At) {
			next++
		}
		if !tl.Rows[from].Beside.None() {
			one.lane = partsOf(lane[first:next], happens.Now)
		}
		c.stretches = append(c.stretches, one)
		from = to
	}
	return c
}

func sameStretch(a, b *pace.Row) bool {
	return a.Passage == b.Passage && a.Stage == b.Stage && a.Round == b.Round && a.Kept == b.Kept
}

// goesOn reports whether a row is one count more of a part. Strokes at another rate are another part.
func goesOn(p *part, row *pace.Row, tempo float64) bool {
	return row.Phase == p.kind && row.Breath == p.breath && row.Through == p.through && row.Phase.Led() &&
		(row.Phase != breath.Stroke || tempo == p.tempo)
}

// partsOf gathers rows into phases.
func partsOf(rows []pace.Row, now int64) []part {
	var parts []part
	for i := range rows {
		row := &rows[i]
		end := row.End()
		over := end >= 0
		if !over {
			end = max(row.At, now)
		}
		tempo := row.Tempo.Float()
		if n := len(parts); n > 0 && goesOn(&parts[n-1], row, tempo) {
			parts[n-1].to = end
			parts[n-1].counts++
		} else {
			parts = append(parts, part{
				from:    row.At,
				to:      end,
				kind:    row.Phase,
				through: row.Through,
				passage: row.Passage,
				round:   row.Round,
				breath:  row.Breath,
				number:  n,
				counts:  1,
				tempo:   tempo,
				byHand:  row.Open && row.Phase.Moves() && over,
			})
		}
	}
	moved := false // in this breath, which ends with its exhale or the hold after it
	for i := range parts {
		p := &parts[i]
		p.first = i == 0 || parts[i-1].last
		moved = moved && !p.first || !p.kind.Held()
		p.last = moved && (i+1 == len(parts) || parts[i+1].breath != p.breath || parts[i+1].kind.Begins())
	}
	for i := range slices.Backward(parts) {
		p := &parts[i]
		p.moved = p.last || parts[i+1].moved && parts[i+1].kind.Held()
	}
	return parts
}
