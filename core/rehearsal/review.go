package rehearsal

import (
	"cmp"
	"slices"

	"vastlantern/core/breath"
	"vastlantern/core/pace"
	"vastlantern/core/plan"
)

// Review is what is to be learned of a class that was led with a simulated room. Times are milliseconds from its start;
// -1 is never.
type Review struct {
	Courses []Course // of each of the people
	Shown   []Shown  // what was to be seen of each, in the order of time
	Moments []Moment // what was to be seen in the room, in the order of time
	Said    []Said   // what was said to be seen
	Eased   []Eased  // what was made easier for all, except for natural breath where something asked for it
	Held    []Holds  // of each of the people
	End     int64    // of the class, or how far it came
	Over    bool     // it came to its end
	Late    int64    // how far beyond the slot it ended, less than 0 for within it; 0 if there is no slot
	Slot    bool
	Rest    int64 // of the natural breath at the end, as it was
	Planned int64 // as it was planned; 0 if the plan ends with something else
	Next    Advice
}

// Shown is one thing that was to be seen of one person for a while.
type Shown struct {
	Who       int
	ID        string
	At, Until int64
	Times     int
	Passage   int
	Round     int       // the first
	Named     int64     // when it was said on the pad
	Met       int64     // when its cause was met, or was over
	By        pace.Verb // the adjustment that met it; empty if it passed
	Pressed   int64     // when that was pressed
}

// Moment is one thing that was to be seen in a room for a while, of some people.
type Moment struct {
	ID        string
	At, Until int64
	People    []int
	Few       bool // too few to do anything about it: attention that is away for a moment
	Named     int64
	Pressed   int64 // the adjustment that met its cause in somebody first
	By        pace.Verb
}

// Missed reports whether something was there to be seen, and neither said nor met.
func (m *Moment) Missed() bool { return !m.Few && m.Named < 0 && m.Pressed < 0 }

// Said is what was said to be seen, and whether it was there.
type Said struct {
	At    int64
	ID    string
	There bool
	Else  []string // what was there in its place
	Known bool     // whether the model knows of such a thing at all
}

// Eased is an adjustment that made it easier for all.
type Eased struct {
	At       int64
	Do       pace.Verb
	Strained int  // how many it was too much for then, or would have become too much for in this passage
	AtEase   int  // how many had no need of it
	Lane     bool // whether a gentler lane ran beside, or could have
}

// Needless reports whether nobody had any need of it.
func (e *Eased) Needless() bool { return e.Strained == 0 }

// Holds is how many holds somebody held, and how many were too long.
type Holds struct{ Held, Exceeded int }

// How what was seen, said and done belong together, in milliseconds. Guesses.
const (
	apart    = 45_000 // the same once more within this is the same thing
	together = 5000   // the same in somebody else; of attention, which comes and goes
	grace    = 15_000 // after it was last to be seen, in which it may be said
	attends  = 30_000 // in which a slower tempo answers attention that is away
	tookWell = 20_000 // in which natural breath comes for somebody who is unwell
)

// Review looks back on a class.
func (l *Led) Review() Review {
	timeline, answers := pace.Replay(l.Plan, l.Script)
	class := Of(timeline, l.Plan, l.happens(answers))
	r := Review{
		Courses: l.follow(class, true),
		End:     min(l.Now, timeline.End),
		Over:    !timeline.Open && l.Now >= timeline.End,
	}
	if timeline.Open {
		r.End = l.Now
	}
	took := accepted(answers)
	for who := range r.Courses {
		r.cut(who, r.End)
		r.shown(who, class, took)
	}
	slices.SortStableFunc(r.Shown, func(a, b Shown) int { return cmp.Compare(a.At, b.At) })
	r.moments(len(l.People))
	r.said(took)
	for i, a := range answers {
		if a.Eases() != pace.EasesNothing && !(a.Do == pace.ToPause && r.asksForRest(a.At)) {
			r.Eased = append(r.Eased, l.eased(&r, i, &a))
		}
	}
	r.clock(timeline, l.Plan)
	r.Next = r.advice()
	return r
}

func accepted(answers []pace.Answer) []pace.Answer {
	return slices.DeleteFunc(slices.Clone(answers), func(a pace.Answer) bool { return !a.Refused.None() })
}

// cut leaves out what did not come to be any more.
func (r *Review) cut(who int, end int64) {
	c := &r.Courses[who]
	c.Signs = slices.DeleteFunc(c.Signs, func(s Sign) bool { return s.At >= end })
	c.Loads = slices.DeleteFunc(c.Loads, func(l Load) bool { return l.At >= end })
	c.Points = slices.DeleteFunc(c.Points, func(p Point) bool { return p.At > end })
	c.Acts = slices.DeleteFunc(c.Acts, func(a Act) bool { return a.At >= end })
	var holds Holds
	for _, load := range c.Loads {
		if load.Held {
			holds.Held++
			if load.Beyond > 0 {
				holds.Exceeded++
			}
		}
	}
	r.Held = append(r.Held, holds)
}

// shown gathers what was to be seen of somebody.
func (r *Review) shown(who int, class *Class, took []pace.Answer) {
	first := len(r.Shown)
	for _, sign := range r.Courses[who].Signs {
		list := r.Shown[first:]
		at := -1
		for i := range list {
			if list[i].ID == sign.ID && sign.At-list[i].Until < apart {
				at = i
			}
		}
		if at >= 0 {
			list[at].Until, list[at].Times = max(list[at].Until, sign.Until), list[at].Times+1
			continue
		}
		r.Shown = append(
			r.Shown,
			Shown{
				Who:     who,
				ID:      sign.ID,
				At:      sign.At,
				Until:   sign.Until,
				Times:   1,
				Passage: sign.Passage,
				Round:   sign.Round,
				Named:   -1,
				Met:     -1,
				Pressed: -1,
			},
		)
	}
	for i := first; i < len(r.Shown); i++ {
		s := &r.Shown[i]
		s.Named = namedAt(took, s.ID, s.At, s.Until)
		var rested bool
		if s.Met, rested = r.met(s, class); s.Met < 0 {
			continue
		}
		for _, a := range took {
			if a.At >= s.At && a.At <= s.Met && answers(s.ID, &a, rested) {
				s.By, s.Pressed = a.Do, a.At
			}
		}
	}
}

func namedAt(took []pace.Answer, id string, from, to int64) int64 {
	for _, a := range took {
		if a.Do == pace.Signal && a.See == id && a.At >= from && a.At <= to+grace {
			return a.At
		}
	}
	return -1
}

// answers reports whether an adjustment can have met what was to be seen; rested is where what met it was natural
// breath for all.
func answers(id string, a *pace.Answer, rested bool) bool {
	switch {
	case a.Do == pace.Signal:
		return !OfStrain(id) && a.See == id
	case a.Do.Relief() == pace.ByEnding:
		return rested
	}
	return a.Do.Relief() == pace.Relieves
}

// met returns when the cause of something was met, or was over: a hold or a breath that was shorter by half a second at
// least, natural breath for all, strain that is no longer to be seen. rested is where it was natural breath.
func (r *Review) met(s *Shown, class *Class) (at int64, rested bool) {
	course := &r.Courses[s.Who]
	rest := within(class.rest(s.At), r.End)
	switch s.ID {
	case Unwell, Interrupted:
		return rest, true
	case Late, Restless:
		return r.attended(s, class), false
	case Tight:
		for _, p := range course.Points {
			if p.At > s.At && p.Strain < Visible {
				return p.At, rest >= 0 && rest <= p.At
			}
		}
		return -1, false
	}
	const less = 0.5
	cause, again := Load{}, false
	for _, load := range course.Loads {
		switch {
		case load.At <= s.At:
			if load.Sign == s.ID && load.Beyond > 0 {
				cause = load
			}
		case load.Sign == s.ID:
			again = true
			if load.Beyond <= max(0, cause.Beyond-less) {
				return load.At, rest >= 0 && rest <= load.At
			}
		}
	}
	if again {
		return -1, false
	}
	for _, load := range course.Loads { // it never came again: from the next round on
		if load.At > s.At && (load.Round != s.Round || load.Passage != s.Passage) {
			return load.At, rest >= 0 && rest <= load.At
		}
	}
	if rest < 0 { // the class was left before it could come again
		return r.End, false
	}
	return rest, true
}

func within(at, end int64) int64 {
	if at < 0 || at > end {
		return -1
	}
	return at
}

// attended returns when the teacher spoke to attention that was away, or led more slowly, or let all breathe.
func (r *Review) attended(s *Shown, class *Class) int64 {
	if s.Named >= 0 {
		return s.Named
	}
	if slower := class.slowed(s.At, s.Until+attends); slower >= 0 {
		return slower
	}
	if rest := class.rest(s.At); rest >= 0 && rest <= s.Until+attends && rest <= r.End {
		return rest
	}
	return -1
}

// rest returns when all breathe freely from a moment on, -1 for never.
func (c *Class) rest(from int64) int64 {
	for _, one := range c.stretches {
		for i := range one.main {
			if p := &one.main[i]; p.from >= from && resting(p.kind) {
				return p.from
			}
		}
	}
	return -1
}

// slowed returns when counts became longer, -1 where they did not.
func (c *Class) slowed(from, to int64) int64 {
	tempo := 0.0
	for _, one := range c.stretches {
		for i := range one.main {
			p := &one.main[i]
			if p.from > from && p.from <= to && p.tempo > 0 && p.tempo < tempo {
				return p.from
			}
			if p.tempo > 0 {
				tempo = p.tempo
			}
		}
	}
	return -1
}

// moments gathers what was to be seen in the room.
func (r *Review) moments(people int) {
	for i := range r.Shown {
		s := &r.Shown[i]
		gap := int64(apart)
		if !OfStrain(s.ID) {
			gap = together
		}
		at := slices.IndexFunc(r.Moments, func(m Moment) bool { return m.ID == s.ID && s.At-m.Until < gap })
		if at < 0 {
			at = len(r.Moments)
			r.Moments = append(r.Moments, Moment{ID: s.ID, At: s.At, Until: s.Until, Named: -1, Pressed: -1})
		}
		m := &r.Moments[at]
		m.Until = max(m.Until, s.Until)
		if !slices.Contains(m.People, s.Who) {
			m.People = append(m.People, s.Who)
		}
		if s.Named >= 0 && (m.Named < 0 || s.Named < m.Named) {
			m.Named = s.Named
		}
		if s.Pressed >= 0 && (m.Pressed < 0 || s.Pressed < m.Pressed) {
			m.Pressed, m.By = s.Pressed, s.By
		}
	}
	for i := range r.Moments {
		m := &r.Moments[i]
		m.Few = (m.ID == Late || m.ID == Restless) && len(m.People) < max(2, people/4)
	}
}

// modelled is what is to be seen in a simulated room at all.
var modelled = []string{Gasp, Rushed, Early, Late, Tight, Restless, Strokes, Unwell, Interrupted}

const settled = "settled" // faces soft: there is nothing to be seen

// said looks at what was said to be seen.
func (r *Review) said(took []pace.Answer) {
	for _, a := range took {
		if a.Do != pace.Signal {
			continue
		}
		one := Said{At: a.At, ID: a.See, Known: slices.Contains(modelled, a.See) || a.See == settled}
		for _, s := range r.Shown {
			switch {
			case a.At < s.At || a.At > s.Until+apart:
			case s.ID == a.See:
				one.There = true
			case a.At > s.Until+grace:
			case !slices.Contains(one.Else, s.ID):
				one.Else = append(one.Else, s.ID)
			}
		}
		if a.See == settled {
			one.There = !slices.ContainsFunc(one.Else, OfStrain)
		}
		r.Said = append(r.Said, one)
	}
}

// asksForRest reports whether something was there that natural breath for all is the answer to, whoever is at ease.
func (r *Review) asksForRest(at int64) bool {
	return slices.ContainsFunc(r.Shown, func(s Shown) bool {
		return (s.ID == Unwell || s.ID == Interrupted) && at >= s.At && at <= s.Until+apart
	})
}

// eased looks at an adjustment of the script: who had need of it.
func (l *Led) eased(r *Review, i int, a *pace.Answer) Eased {
	one := Eased{At: a.At, Do: a.Do, Lane: a.Passage > 0 && l.laneThere(a)}
	otherwise := l.without(i)
	for who := range r.Courses {
		needs := r.Courses[who].StrainAt(a.At) >= Visible/2 || r.shows(who, a.At)
		if !needs && a.Passage > 0 {
			needs = otherwise[who].Highest[a.Passage-1] >= Visible
		}
		if needs {
			one.Strained++
		} else {
			one.AtEase++
		}
	}
	return one
}

func (l *Led) laneThere(a *pace.Answer) bool {
	p := &l.Plan.Passages[a.Passage-1]
	return p.Led() && (!a.Before.Beside.None() || len(p.LaneOffers(a.Before.Measure, 0)) > 0)
}

// shows reports whether there was something to be seen of somebody at a moment, or shortly before.
func (r *Review) shows(who int, at int64) bool {
	return slices.ContainsFunc(r.Shown, func(s Shown) bool { return s.Who == who && at >= s.At && at <= s.Until+grace })
}

// clock is how the class stood to its slot, and what was left of the rest at its end.
func (r *Review) clock(timeline pace.Timeline, p *plan.Plan) {
	if slot := p.Slot.Times(60_000).Round(); slot > 0 {
		r.Slot, r.Late = true, timeline.End-slot
		if timeline.Open {
			r.Late = r.End - slot
		}
	}
	last := len(p.Passages)
	if last == 0 || p.Passages[last-1].Type != plan.Free {
		return
	}
	r.Planned = p.Passages[last-1].Length.Round()
	for _, row := range timeline.Rows {
		if row.Passage == last && row.Phase == breath.Free {
			r.Rest += max(0, min(max(row.End(), row.At), r.End)-row.At)
		}
	}
}
