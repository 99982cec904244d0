// Package cue computes what is shown and said in a class, to whom and when (cues.md): what is done now and next, what
// the hand does, the calls, the practice's prompts and the teacher's own lines. Screens, voice, cards and files show
// these and make up none.
//
// Cues follow from the timeline. After an adjustment, what was shown stays, and from that moment on the cues of the new
// timeline apply (class.go). The cues of one timeline are made in runs.go, hand.go, calls.go and lines.go.
package cue

import (
	"cmp"
	"iter"
	"slices"

	"vastlantern/core/pace"
	"vastlantern/core/plan"
)

// Kind is what a cue is about.
type Kind string

// The kinds, in the order in which cues of one moment stand.
const (
	Now        Kind = "now"
	Next       Kind = "next"
	Hand       Kind = "hand"
	Line       Kind = "line"
	Prompt     Kind = "prompt"
	Last       Kind = "last"
	Half       Kind = "half"
	Minute     Kind = "minute"
	HalfMinute Kind = "half-minute"
)

// Kinds is all of them, in their order.
var Kinds = []Kind{Now, Next, Hand, Line, Prompt, Last, Half, Minute, HalfMinute}

// Open is the end of a cue of which it is not known.
const Open = -1

// Cue is something that is shown or said. Times are whole milliseconds from the start of the class.
type Cue struct {
	At      int64
	Until   int64 // exclusive; Open where it is not known
	Passage int   // of the row in which it begins, from 1
	Stage   pace.Stage
	Round   int
	Who     plan.Who
	Kind    Kind
	Text    string
	Bare    string  // of what comes next: Text without its counts or its length, for screens that show no numbers
	Say     bool    // of a line: the voice says it
	Fingers Fingers // of the hand: what it comes to do

	key int64 // what tells it from others of its kind and text: of now and next where the run begins, of a line its number
}

// doing reports whether it is what is done, or what follows it.
func (k Kind) doing() bool { return k == Now || k == Next }

// calls reports whether it is a call: of the last round, half way, or the time that is left.
func (k Kind) calls() bool { return k == Last || k == Half || k == Minute || k == HalfMinute }

// lasts reports whether the cue is there at t.
func (c *Cue) lasts(t int64) bool { return c.At <= t && (c.Until == Open || t < c.Until) }

// same reports whether two cues are one that goes on.
func (c *Cue) same(other *Cue) bool {
	return c.Kind == other.Kind && c.Text == other.Text && c.Who == other.Who && c.key == other.key
}

// Lane is whose cues are wanted.
type Lane bool

// The two lanes: that of the sheet, and the gentler one beside it.
const (
	Main   Lane = false
	Beside Lane = true
)

// Sheet returns the cues of a plan as written. What waits is taken at its planned length.
func Sheet(p *plan.Plan, lane Lane) []Cue { return AsPlanned(p, lane).Cues() }

// Replay returns the cues of a class that was led with the script.
func Replay(p *plan.Plan, script []pace.Adjustment, lane Lane) []Cue {
	c := Begin(p, lane)
	for _, a := range script {
		c.Adjust(a)
	}
	return c.Cues()
}

func (f *fold) sorted() []Cue {
	list := make([]Cue, 0, len(f.cues))
	for c := range f.inOrder() {
		list = append(list, *c)
	}
	return list
}

// before returns the order of cues: by time, and at the same time by kind.
func before(a, b *Cue) int {
	if a.At != b.At {
		return cmp.Compare(a.At, b.At)
	}
	return cmp.Compare(slices.Index(Kinds, a.Kind), slices.Index(Kinds, b.Kind))
}

// inOrder returns the cues in their order. Nearly all are now and next, and stand in it already: only the others are
// sorted.
func (f *fold) inOrder() iter.Seq[*Cue] {
	var doing, others []*Cue
	doing = make([]*Cue, 0, len(f.cues))
	for i := range f.cues {
		if c := &f.cues[i]; c.Kind.doing() {
			doing = append(doing, c)
		} else {
			others = append(others, c)
		}
	}
	for _, list := range [][]*Cue{doing, others} {
		if !slices.IsSortedFunc(list, before) {
			slices.SortStableFunc(list, before)
		}
	}
	return func(yield func(*Cue) bool) {
		rest := others
		for _, c := range doing {
			for len(rest) > 0 && before(rest[0], c) < 0 {
				if !yield(rest[0]) {
					return
				}
				rest = rest[1:]
			}
			if !yield(c) {
				return
			}
		}
		for _, c := range rest {
			if !yield(c) {
				return
			}
		}
	}
}
