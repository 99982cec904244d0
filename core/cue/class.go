package cue

import (
	"cmp"
	"iter"
	"slices"
	"sort"

	"vastlantern/core/pace"
	"vastlantern/core/plan"
)

// Class follows a class as it is led, adjustment by adjustment.
type Class struct {
	led *pace.Class
	fold
}

// Begin returns the cues of a class at its start.
func Begin(p *plan.Plan, lane Lane) *Class {
	c := &Class{led: pace.Begin(p), fold: fold{plan: p, lane: lane}}
	c.stand(0, c.state())
	return c
}

// AsPlanned returns a class that nobody leads: what waits for the teacher takes its planned length. It is not to be
// adjusted.
func AsPlanned(p *plan.Plan, lane Lane) *Class {
	c := &Class{led: pace.Begin(p), fold: fold{plan: p, lane: lane}}
	tl := pace.Sheet(p)
	c.stand(0, state{rows: tl.Rows, known: len(tl.Rows), end: tl.End, totals: c.led.Passages()})
	return c
}

// Copy returns the same cues, which stay as they are when this class is adjusted.
func (c *Class) Copy() *Class {
	copied := *c
	copied.led = c.led.Copy()
	copied.cues, copied.given = slices.Clip(c.cues), slices.Clip(c.given)
	return &copied
}

// Until returns the same cues, for adjusting as far as the timeline of a class goes that stops early.
func (c *Class) Until(early *pace.Class) *Class {
	copied := c.Copy()
	copied.led = c.led.Until(early.Stops())
	return copied
}

// Adjust makes an adjustment. One that is refused changes no cue.
func (c *Class) Adjust(a pace.Adjustment) { c.Follow(c.led, c.led.Adjust(a)) }

// Follow is Adjust where the adjustment was made already, by the same class as it is led elsewhere, with that answer.
func (c *Class) Follow(led *pace.Class, answer pace.Answer) {
	c.led = led
	if answer.Refused.None() && !answer.Do.Remarks() {
		c.stand(answer.At, c.state())
	}
}

// Cues returns every cue, past and to come at this point.
func (c *Class) Cues() []Cue { return c.sorted() }

// All is Cues one by one, for who takes only some of them. What is pointed at stays as it is.
func (c *Class) All() iter.Seq[*Cue] { return c.inOrder() }

// Len returns how many there are.
func (c *Class) Len() int { return len(c.cues) }

// far is the time of what comes after something that waits: nobody knows when that is.
const far = int64(1) << 50

// state is the timeline of a class: its rows, and after one that waits those that will follow it.
type state struct {
	rows   []pace.Row
	known  int   // how many of the rows have their time
	wait   int64 // how long what waits is planned to last, from its start
	end    int64 // of the class; beyond far if that is not known
	totals []pace.Passage
	cut    bool // the rows stop before the end of the class (pace.Class.Until)
}

func (c *Class) state() state {
	tl := c.led.Timeline()
	s := state{rows: tl.Rows, known: len(tl.Rows), end: tl.End, totals: c.led.Passages()}
	if s.cut = tl.Then != nil; s.cut {
		s.end = s.rows[s.known-1].End()
	}
	if !tl.Open {
		return s
	}
	ahead := c.led.Ahead()
	s.cut = ahead.Then.Then != nil
	last := &s.rows[s.known-1]
	s.wait = max(0, ahead.PlannedEnd-last.At)
	s.rows = slices.Clone(s.rows)
	s.rows[s.known-1].Dur = far - last.At
	for _, row := range ahead.Then.Rows {
		row.At += far
		s.rows = append(s.rows, row)
	}
	s.end = far + ahead.Then.End
	if s.cut {
		s.end = s.rows[len(s.rows)-1].End()
	}
	return s
}

// length returns how long a stretch of the class takes, what waits in it as planned.
func (s *state) length(from, to int64) int64 {
	if from < far && to >= far {
		return to - far + s.rows[s.known-1].At + s.wait - from
	}
	return to - from
}

// fold gathers the cues of one state after the other.
type fold struct {
	plan *plan.Plan
	lane Lane

	cues  []Cue // none that begins later than the state before but those of the newest
	from  int64 // since when it stands so
	state state
	given []event
}

// event is a call that was given because of what happened, or that comes once: it stays as it was given.
type event struct {
	cue     Cue
	passage int // from 0
	total   int // holds as long as this is the passage's total; 0 for always
}

// stand replaces the state of the class from t on.
func (f *fold) stand(t int64, s state) {
	f.keepGiven(t)
	before := f.state
	f.from, f.state = t, s
	f.gaveLast(t, &before)

	var was []Cue // there at t
	fresh, past := f.currentCues(), 0
	if s.cut {
		fresh = append(fresh, f.stood(t)...)
	}
	for i := range f.cues {
		if f.cues[i].At < t {
			past++
		}
	}
	kept := make([]Cue, 0, past+len(fresh))
	for i := range f.cues {
		switch c := &f.cues[i]; {
		case c.At >= t:
		case c.lasts(t):
			was = append(was, *c)
		default:
			kept = append(kept, *c)
		}
	}
	for _, c := range was {
		i := slices.IndexFunc(fresh, func(d Cue) bool { return d.same(&c) && d.lasts(t) })
		if i < 0 {
			c.Until = t
			kept = append(kept, c)
			continue
		}
		c.Until = fresh[i].Until
		kept = append(kept, c)
		fresh = slices.Delete(fresh, i, i+1)
	}
	for i := range fresh {
		d := &fresh[i]
		if d.Until != Open && d.Until <= t {
			continue
		}
		if d.At < t {
			d.At = t
			f.place(d)
		}
		kept = append(kept, *d)
	}
	f.cues = slices.DeleteFunc(kept, func(c Cue) bool { return c.Until != Open && c.Until <= c.At })
}

// currentCues returns the cues of the state, from its beginning to its end.
func (f *fold) currentCues() []Cue {
	s := &f.state
	rows := s.rows
	if f.lane == Beside {
		rows = pace.Timeline{Rows: rows}.Lane(f.plan).Rows
	}
	runs := f.runsOf(rows)
	list := f.nowAndNext(runs)
	list = append(list, f.hands(runs)...)
	lines := f.lines(s.rows)
	list = append(list, lines...)
	if !s.cut {
		main := runs
		if f.lane == Beside {
			main = f.runsOf(s.rows)
		}
		calls := f.calls(main)
		list = append(list, f.prompts(main, calls, lines)...)
		list = append(list, calls...)
	}
	sure := list[:0]
	for i := range list {
		c := &list[i]
		if c.At > far/2 || c.At >= s.end {
			continue
		}
		if c.Until > far/2 {
			c.Until = Open
		}
		if !c.Kind.doing() {
			f.place(c)
		}
		sure = append(sure, *c)
	}
	return sure
}

// stood returns the calls that were there at t, if their passage goes on, and the prompts, if their stage does. Which
// others come depends on the end of the passage, so those come with the whole class.
func (f *fold) stood(t int64) []Cue {
	var list []Cue
	here := Cue{At: t}
	f.place(&here)
	for _, c := range f.cues {
		sameStage := c.Stage == here.Stage && c.Round == here.Round
		switch {
		case c.Passage != here.Passage || !c.lasts(t):
		case c.Kind.calls() || c.Kind == Prompt && sameStage:
			list = append(list, c)
		}
	}
	return list
}

// place puts down in which row a cue begins.
func (f *fold) place(c *Cue) {
	rows := f.state.rows
	i := sort.Search(len(rows), func(i int) bool { return rows[i].At+max(rows[i].Dur, 0) > c.At })
	if i = min(i, len(rows)-1); i >= 0 {
		c.Passage, c.Stage, c.Round = rows[i].Passage, rows[i].Stage, rows[i].Round
	}
}

// keepGiven keeps the calls that have begun before t and come once.
func (f *fold) keepGiven(t int64) {
	for _, c := range f.cues {
		once := c.Kind == Minute || c.Kind == HalfMinute
		if !once || c.At >= t || c.At < f.from {
			continue
		}
		passage := int(c.key)
		if !slices.ContainsFunc(f.given, func(e event) bool { return e.passage == passage && e.cue.Kind == c.Kind }) {
			f.given = append(f.given, event{cue: c, passage: passage})
		}
	}
}

// gaveLast gives the call of the last round at once where the round in progress was made the last one at t.
func (f *fold) gaveLast(t int64, before *state) {
	s := &f.state
	i := slices.IndexFunc(s.rows, func(r pace.Row) bool { return r.At <= t && t < r.At+r.Dur })
	if i < 0 || before.totals == nil {
		return
	}
	row := s.rows[i]
	passage := row.Passage - 1
	total := s.totals[passage].Total
	if row.Stage == pace.Round && row.Kept && row.Round == total && total < before.totals[passage].Total &&
		!row.BecameLast {
		given := Cue{
			At:    t,
			Until: t + calling,
			Who:   plan.ForAll,
			Kind:  Last,
			Text:  f.plan.Words.Text(string(Last)),
			key:   int64(passage),
		}
		f.given = append(f.given, event{given, passage, total})
	}
}

// Spoken is something that the voice says besides the counts and the words of phases.
type Spoken struct {
	At   int64
	Who  plan.Who
	Text string
}

// Spoken returns what the voice says at this point: the hand, the calls, and the lines that are to be said, each when
// its place begins. What waits has no time yet.
func (c *Class) Spoken() []Spoken {
	var list []Spoken
	for _, one := range c.cues {
		if one.Kind == Hand || one.Kind.calls() {
			list = append(list, Spoken{one.At, one.Who, one.Text})
		}
	}
	for _, place := range c.saidPlaces() {
		if place.At < far/2 {
			list = append(list, place)
		}
	}
	slices.SortStableFunc(list, func(a, b Spoken) int { return cmp.Compare(a.At, b.At) })
	return list
}
