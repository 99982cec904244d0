// Package care holds the cautions: what a teacher should know before a practice is led, for anybody and for the group
// at hand. The wording defers to doctors and other licensed professionals and to local rules, and promises nothing.
package care

import (
	"fmt"
	"slices"
	"strings"

	"vastlantern/core/plan"
	"vastlantern/core/practice"
)

// Caution is one thing to be careful about, whoever is in the room.
type Caution struct {
	Text   string `json:"text"`
	Strong bool   `json:"strong"` // to be read before the practice is led
}

// Everyone is the caution that belongs to every practice.
var Everyone = Caution{Text: "Stop and breathe naturally when dizzy, tingling, short of breath, in pain or panicky. Never strain; sit down. " +
	"Never in water or while driving, and not on a full stomach. This is no medical advice: ask a doctor or another licensed professional, and follow local rules."}

// Of is the cautions of the passage as planned, strong ones first; none for talks and free breathing.
func Of(p *plan.Passage) []Caution {
	if p.Practice == nil {
		return nil
	}
	var strong, mild []Caution
	for _, name := range Aspects(p) {
		a := aspects[name]
		c := Caution{a.text(freeBeside(p, name)), a.strong}
		if a.strong {
			strong = append(strong, c)
		} else {
			mild = append(mild, c)
		}
	}
	return append(append(strong, mild...), Everyone)
}

// text is the caution of an aspect in full, from the same table that answers for a group. inLane says that a gentler lane is planned
// that does without.
func (a aspect) text(inLane bool) string {
	var parts []string
	if len(a.leave) > 0 {
		parts = append(parts, "leave it out with "+names(a.leave))
	}
	if len(a.careful) > 0 {
		parts = append(parts, "go carefully with "+names(a.careful))
	}
	text := a.name + ": "
	if len(parts) > 0 {
		text += strings.Join(parts, "; ") + ". "
	}
	if slices.Contains(a.leave, Asthma) {
		text += "With asthma only after a doctor's word. "
	}
	if a.late != "" {
		text += "Not late in the evening: " + a.late + ". "
	}
	if inLane {
		return text + a.more + laneThere
	}
	return strings.TrimSpace(text + a.more + a.instead)
}

// What a teacher is told about the gentler lane, where one is planned and where one can be.
const (
	laneThere = "The gentler lane does without, in the same time."
	laneOffer = " A gentler lane can be added that does without, in the same time."
)

func names(list []Condition) string {
	words := make([]string, len(list))
	for i, c := range list {
		words[i] = c.Name()
	}
	if n := len(words); n > 1 {
		return strings.Join(words[:n-1], ", ") + " or " + words[n-1]
	}
	return words[0]
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
	With    Condition // empty where it is for the age or the hour
	Do      Do
	Say     string // what and why, in one or two sentences
	Instead string // the alternative
}

// For is what the rules say of the passage for the room, the heaviest first.
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
		list = append(list, Finding{FullHold, "", Gentle, "Under 16: no hold beyond an equal count.", "Holds no longer than the inhale, or none."})
	}
	rank := map[Do]int{LeaveOut: 0, Gentle: 1, Carefully: 2}
	slices.SortStableFunc(list, func(a, b Finding) int { return rank[a.Do] - rank[b.Do] })
	return list
}

// freeBeside tells whether those who take what stands beside the passage do without the aspect.
func freeBeside(p *plan.Passage, name Aspect) bool {
	switch name {
	case FullHold, EmptyHold:
		return !p.Beside.None()
	case Strokes:
		return p.Beside.Shorter()
	}
	return false
}

// laneHelps tells whether a gentler lane could be planned that does without the aspect.
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
			f.Instead += laneOffer
		}
	}
}

// toLane has the people for whom something is left out take the gentler lane instead: the passage stays for the others.
func toLane(findings []Finding) {
	for i := range findings {
		if f := &findings[i]; f.Do == LeaveOut && f.With != "" {
			f.Do, f.Instead = Carefully, "Say before it begins who breathes in the gentler lane."
			f.Say = strings.TrimSuffix(f.Say, ".") + ": in the gentler lane."
		}
	}
}

func (a aspect) findings(name Aspect, p *plan.Passage, room Room) []Finding {
	var list []Finding
	add := func(with Condition, do Do, say string) {
		list = append(list, Finding{name, with, do, say, a.instead})
	}
	for _, c := range a.leave {
		switch {
		case room.Present[c] == 0:
		case c == HighBloodPressure && name == Strokes && room.Rules.SlowStrokes:
			add(c, Carefully, fmt.Sprintf("%s with %s: slow only, %d a minute or fewer, as your school has it.", a.name, c.Name(), slowStrokes))
		case c == Asthma:
			add(c, LeaveOut, fmt.Sprintf("%s: someone has asthma; not without a doctor's word.", a.name))
		case c == Newcomers && room.Rules.NewcomersMay && !beyondEqual(p):
			add(c, Carefully, fmt.Sprintf("%s: there are newcomers, who may hold as long as they breathe in, as your school has it.", a.name))
		case c == Newcomers:
			add(c, LeaveOut, fmt.Sprintf("%s: there are newcomers, and a teacher prepares them first.", a.name))
		default:
			add(c, LeaveOut, fmt.Sprintf("%s: %s%s.", a.name, c.Name(), people(room.Present[c])))
		}
	}
	for _, c := range a.careful {
		switch {
		case room.Present[c] == 0:
		case c == Menstruation && room.Rules.LeaveOutAtMenses:
			add(c, LeaveOut, fmt.Sprintf("%s: %s%s, as your school has it.", a.name, c.Name(), people(room.Present[c])))
		case c == Menstruation:
			add(c, Carefully, fmt.Sprintf("%s during %s: say aloud that everyone decides alone.", a.name, c.Name()))
		default:
			add(c, Carefully, fmt.Sprintf("%s with %s: %s", a.name, c.Name(), a.instead))
		}
	}
	if a.more != "" {
		add("", Carefully, a.name+": "+a.more)
	}
	if room.Late && a.late != "" {
		add("", LeaveOut, fmt.Sprintf("%s: not late in the evening, %s.", a.name, a.late))
	}
	return list
}

// slowStrokes is the rate that still counts as slow, in strokes a minute (common practice, with no source).
const slowStrokes = 60

func people(n int) string {
	if n > 1 {
		return fmt.Sprintf(" (%d people)", n)
	}
	return " (someone in the room)"
}

// beyondEqual tells whether a hold of the rounds is longer than the inhale.
func beyondEqual(p *plan.Passage) bool {
	if p.Is(practice.Open) {
		return p.Open[0].Less(p.Open[1]) || p.Open[0].Less(p.Open[3])
	}
	c := p.Measure.Counts
	return c.Hold > c.Inhale || c.Empty > c.Inhale
}
