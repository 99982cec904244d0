// Package care holds the cautions: what a teacher should know before a practice is led, for anybody and for the group
// at hand. The wording defers to doctors and other licensed professionals and to local rules, and promises nothing.
package care

import (
	"slices"

	"vastlantern/core/fact"
	"vastlantern/core/plan"
)

// Caution is one thing to be careful about, whoever is in the room.
type Caution struct {
	ID     string // of the aspect, or EveryoneID
	Say    fact.Fact
	Strong bool // to be read before the practice is led
}

// EveryoneID is the id of the caution that belongs to every practice.
const EveryoneID = "everyone"

// Everyone is the caution that belongs to every practice.
var Everyone = Caution{ID: EveryoneID, Say: fact.New("caution.everyone")}

// Of returns the cautions of the passage as planned, strong ones first; none for talks and free breathing.
func Of(p *plan.Passage) []Caution {
	if p.Practice == nil {
		return nil
	}
	var strong, mild []Caution
	for _, name := range Aspects(p) {
		a := aspects[name]
		c := Caution{string(name), a.caution(name, freeBeside(p, name)), a.strong}
		if a.strong {
			strong = append(strong, c)
		} else {
			mild = append(mild, c)
		}
	}
	return append(append(strong, mild...), Everyone)
}

// caution returns the caution of an aspect in full, from the same table that answers for a group. inLane says that a
// gentler lane is planned that does without.
func (a aspect) caution(name Aspect, inLane bool) fact.Fact {
	var parts []fact.Fact
	switch leave, careful := len(a.leave) > 0, len(a.careful) > 0; {
	case leave && careful:
		parts = append(parts, fact.New("caution.leave-out-carefully", "leave", names(a.leave), "careful", names(a.careful)))
	case leave:
		parts = append(parts, fact.New("caution.leave-out", "conditions", names(a.leave)))
	case careful:
		parts = append(parts, fact.New("caution.carefully", "conditions", names(a.careful)))
	}
	if slices.Contains(a.leave, Asthma) {
		parts = append(parts, fact.New("caution.asthma"))
	}
	if a.late {
		parts = append(parts, fact.New("caution.late", "why", name.late()))
	}
	if a.more {
		parts = append(parts, name.more())
	}
	switch {
	case inLane:
		parts = append(parts, fact.New("caution.lane"))
	case !a.more:
		parts = append(parts, name.instead())
	}
	return fact.New("caution", "name", name.Name(), "parts", parts)
}

func names(list []Condition) []fact.Fact {
	words := make([]fact.Fact, len(list))
	for i, c := range list {
		words[i] = c.Name()
	}
	return words
}

// Room is who and when a passage is for.
type Room struct {
	Present map[Condition]int // how many people, where known; 1 stands for "someone"
	Under16 bool
	Late    bool // late in the evening
	Rules   Rules
}

// Rules are the questions of care on which schools differ.
type Rules struct {
	SlowStrokes      bool // high blood pressure: slow strokes instead of none
	LeaveOutAtMenses bool // menstruation: strong practices are left out, not left to the person
	NewcomersMay     bool // hold as long as they breathe in
	LaneLimit        int  // breaths a minute that the gentler lane takes at most; 0 for the usual limit
}

// Finding is what the rules say of one passage for one room.
type Finding struct {
	Aspect  Aspect
	With    Condition // empty if it is for the age or the hour
	Do      Do
	Say     fact.Fact // what and why
	Instead fact.Fact // the alternative
}

// For returns what the rules say of the passage for the room, the heaviest first.
func For(p *plan.Passage, room Room) []Finding {
	var list []Finding
	for _, name := range Aspects(p) {
		findings := aspects[name].findings(name, p, room)
		switch {
		case freeBeside(p, name):
			toLane(findings)
		case laneHelps(p, name, room.Rules.LaneLimit):
			offerLane(findings)
		}
		list = append(list, findings...)
	}
	if room.Under16 && beyondEqual(p) {
		list = append(list, Finding{FullHold, "", Gentle, fact.New("finding.under-16"), fact.New("instead.under-16")})
	}
	rank := map[Do]int{LeaveOut: 0, Gentle: 1, Carefully: 2}
	slices.SortStableFunc(list, func(a, b Finding) int { return rank[a.Do] - rank[b.Do] })
	return list
}

// freeBeside reports whether those who take what runs beside the passage do without the aspect.
func freeBeside(p *plan.Passage, name Aspect) bool {
	switch name {
	case FullHold, EmptyHold:
		return !p.Beside.None()
	case Strokes:
		return p.Beside.Shorter()
	}
	return false
}

// laneHelps reports whether a gentler lane could be planned that does without the aspect.
func laneHelps(p *plan.Passage, name Aspect, limit int) bool {
	return p.Beside.None() && slices.ContainsFunc(p.LaneOffers(p.Measure, limit), func(o plan.LaneOffer) bool {
		with := *p
		with.Beside = o.Beside
		return freeBeside(&with, name)
	})
}

// offerLane tells of the lane that could be added.
func offerLane(findings []Finding) {
	for i := range findings {
		if f := &findings[i]; f.Do == LeaveOut && f.With != "" {
			f.Instead = fact.New("instead.or-lane", "instead", f.Instead)
		}
	}
}

// toLane has the people for whom something is left out take the gentler lane instead: the passage stays for the others.
func toLane(findings []Finding) {
	for i := range findings {
		if f := &findings[i]; f.Do == LeaveOut && f.With != "" {
			f.Do, f.Instead = Carefully, fact.New("instead.say-lane")
			f.Say = fact.New("finding.in-lane", "finding", f.Say)
		}
	}
}

func (a aspect) findings(name Aspect, p *plan.Passage, room Room) []Finding {
	var list []Finding
	add := func(with Condition, do Do, id string, args ...any) {
		say := fact.New(id, append([]any{"aspect", name.Name()}, args...)...)
		list = append(list, Finding{name, with, do, say, name.instead()})
	}
	for _, c := range a.leave {
		switch {
		case room.Present[c] == 0:
		case c == HighBloodPressure && name == Strokes && room.Rules.SlowStrokes:
			add(c, Carefully, "finding.slow-strokes", "with", c.Name(), "rate", slowStrokes)
		case c == Asthma:
			add(c, LeaveOut, "finding.asthma")
		case c == Newcomers && room.Rules.NewcomersMay && !beyondEqual(p):
			add(c, Carefully, "finding.newcomers-equal")
		case c == Newcomers:
			add(c, LeaveOut, "finding.newcomers")
		default:
			add(c, LeaveOut, "finding.leave-out", "with", c.Name(), "people", room.Present[c])
		}
	}
	for _, c := range a.careful {
		switch {
		case room.Present[c] == 0:
		case c == Menstruation && room.Rules.LeaveOutAtMenses:
			add(c, LeaveOut, "finding.leave-out-school", "with", c.Name(), "people", room.Present[c])
		case c == Menstruation:
			add(c, Carefully, "finding.menstruation", "with", c.Name())
		default:
			add(c, Carefully, "finding.carefully", "with", c.Name(), "instead", name.instead())
		}
	}
	if a.more {
		add("", Carefully, "finding.everyone", "more", name.more())
	}
	if room.Late && a.late {
		add("", LeaveOut, "finding.late", "why", name.late())
	}
	return list
}

// slowStrokes is the rate that still counts as slow, in strokes a minute (common practice, with no source).
const slowStrokes = 60

// beyondEqual reports whether a hold of the rounds is longer than the inhale.
func beyondEqual(p *plan.Passage) bool {
	if p.HasOpenPhases() {
		return p.Open[0].Less(p.Open[1]) || p.Open[0].Less(p.Open[3])
	}
	c := p.Measure.Counts
	return c.Hold > c.Inhale || c.Empty > c.Inhale
}
