package pace

import (
	"fmt"
	"slices"

	"vastlantern/core/breath"
)

// Verb is what an adjustment does (pacing.md section 4).
type Verb string

// The verbs.
const (
	ToTempo   Verb = "tempo"
	Release   Verb = "release"
	Rounds    Verb = "rounds"
	LastRound Verb = "last-round"
	Again     Verb = "again"
	ToPause   Verb = "pause"
	Resume    Verb = "resume"
	Advance   Verb = "advance"
	Close     Verb = "close"
	Next      Verb = "next"
	End       Verb = "end"
	Note      Verb = "note"
	Signal    Verb = "signal"
)

// Adjustment is one live adjustment. At is in whole milliseconds from the start of the class.
type Adjustment struct {
	At       int64
	Do       Verb
	To       breath.Exact // tempo: counts a minute; rounds: the new total
	Relative bool         // rounds: By is given and not To
	By       int          // rounds: this many more or less
	Carry    bool         // tempo: scale later counted passages too
	Text     string       // note
	See      string       // signal
}

// When tells from when on an accepted adjustment acts.
type When string

// The moments from which adjustments act.
const (
	Now       When = "now"
	NextCount When = "next count"
	AfterHold When = "after this hold"
	NextRound When = "next round"
	Never     When = "no change"
)

// Answer is what became of an adjustment. Refused is empty where it was accepted; otherwise it is the reason, in
// words for the teacher.
type Answer struct {
	Adjustment
	Refused string
	When    When
	Before  breath.Exact // the value replaced: tempo, or total of rounds
	After   breath.Exact
}

// place is where in a class an adjustment is met. The numbers are bits, so that a rule can name several.
type place uint16

const (
	inTalk place = 1 << iota
	inFree
	inSetup // beat and lead-in before the opening, a round or an own-pace stretch
	inOpening
	inRound
	inRest
	inPause
	inOwn
	inRecall
	inClosing
	inSetupOfClosing
	inPauseOfClosing

	anywhere    = 1<<iota - 1
	beforeClose = inSetup | inOpening | inRound | inRest | inPause
	atClosing   = inClosing | inSetupOfClosing | inPauseOfClosing
)

func (m *machine) place() place {
	switch m.stage {
	case Setup:
		if m.leads == Closing {
			return inSetupOfClosing
		}
		return inSetup
	case Pause:
		if m.leads == Closing {
			return inPauseOfClosing
		}
		return inPause
	}
	return places[m.stage]
}

// places has the stages that are one place; setup and pause depend on what they lead to.
var places = map[Stage]place{
	Talk: inTalk, Free: inFree, Opening: inOpening, Round: inRound, Rest: inRest, Own: inOwn, Recall: inRecall, Closing: inClosing,
}

// rule is one line of the table: where the verb is met, the reason it is refused elsewhere, and what it does there.
// do refuses what depends on more than the place, before it changes anything.
type rule struct {
	where     place
	otherwise string
	do        func(*machine, Adjustment) (Answer, error)
}

// verbs is the table "where each verb is met" of pacing.md section 4, and the rule of each.
var verbs map[Verb]rule

func init() { // not a literal: the rules refer to the machine, whose methods refer to the table
	verbs = map[Verb]rule{
		ToTempo:   {beforeClose | atClosing, "nothing is counted here", (*machine).setTempo},
		Release:   {inOpening | inRound | inClosing, "no hold in progress", (*machine).release},
		Rounds:    {beforeClose, "there are no rounds to come here", (*machine).setRounds},
		LastRound: {beforeClose, "there are no rounds to come here", (*machine).lastRound},
		Again:     {inRound, "no round in progress", (*machine).again},
		ToPause:   {inSetup | inOpening | inRound | inRest | inClosing | inSetupOfClosing, "nothing to pause: everybody breathes freely", (*machine).pause},
		Resume:    {inPause | inPauseOfClosing, "not in a pause", (*machine).endPause},
		Advance:   {anywhere, "", (*machine).advance},
		Close:     {beforeClose | inOwn | inRecall, "there is no closing to come here", (*machine).toClosing},
		Next:      {anywhere, "", (*machine).toNext},
		End:       {anywhere, "", (*machine).toEnd},
		Note:      {anywhere, "", (*machine).remark},
		Signal:    {anywhere, "", (*machine).remark},
	}
}

// Verbs is every verb there is, sorted.
func Verbs() []Verb {
	all := make([]Verb, 0, len(verbs))
	for verb := range verbs {
		all = append(all, verb)
	}
	slices.Sort(all)
	return all
}

// adjusted is the answer to the adjustment, and the machine after it.
func (m *machine) adjusted(a Adjustment) (Answer, machine) {
	c := m.copy()
	c.runTo(breath.Int(a.At))
	answer, err := c.apply(a)
	answer.Adjustment = a
	if err != nil {
		answer = Answer{Adjustment: a, Refused: err.Error()}
	} else if answer.When == "" {
		answer.When = Now
	}
	return answer, c
}

func (m *machine) apply(a Adjustment) (Answer, error) {
	r, known := verbs[a.Do]
	switch {
	case !known:
		return Answer{}, fmt.Errorf("there is no adjustment %q", a.Do)
	case a.Do == Note || a.Do == Signal:
		return m.remark(a)
	case m.over:
		return Answer{}, errOver
	case r.where&m.place() == 0:
		return Answer{}, refusal(r.otherwise)
	}
	return r.do(m, a)
}

// refusal is a reason in words for the teacher.
type refusal string

func (r refusal) Error() string { return string(r) }

const errOver = refusal("the class has ended")

// remark records something and changes nothing.
func (m *machine) remark(Adjustment) (Answer, error) { return Answer{When: Never}, nil }
