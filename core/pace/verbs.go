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
	Passage int // the one it was met in, from 1; 0 after the end of the class
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

// rule is one line of the table: where the verb is met and the reason it is refused elsewhere; what more must be so
// there, as a reason against or none; and what it does. do refuses what depends on the values given, before it
// changes anything.
type rule struct {
	where     place
	otherwise refusal
	also      func(*machine) refusal
	do        func(*machine, Adjustment) (Answer, error)
}

// verbs is the table "where each verb is met" of pacing.md section 4, and the rule of each.
var verbs map[Verb]rule

func init() { // not a literal: the rules refer to the machine, whose methods refer to the table
	verbs = map[Verb]rule{
		ToTempo:   {beforeClose | atClosing, "nothing is counted here", notAtOwnPace, (*machine).setTempo},
		Release:   {inOpening | inRound | inClosing, "no hold in progress", inHold, (*machine).release},
		Rounds:    {beforeClose, "there are no rounds to come here", notAtOwnPace, (*machine).setRounds},
		LastRound: {beforeClose, "there are no rounds to come here", notAtOwnPace, (*machine).lastRound},
		Again:     {inRound, "no round in progress", nil, (*machine).again},
		ToPause:   {inSetup | inOpening | inRound | inRest | inClosing | inSetupOfClosing, "everybody breathes freely already", nil, (*machine).pause},
		Resume:    {inPause | inPauseOfClosing, "not in a pause", nil, (*machine).endPause},
		Advance:   {anywhere, "", uncounted, (*machine).advance},
		Close:     {beforeClose | inOwn | inRecall, "there is no closing to come here", nil, (*machine).toClosing},
		Next:      {anywhere, "", nil, (*machine).toNext},
		End:       {anywhere, "", nil, (*machine).toEnd},
		Note:      {anywhere, "", nil, (*machine).remark},
		Signal:    {anywhere, "", nil, (*machine).remark},
	}
	for verb := range verbs {
		everyVerb = append(everyVerb, verb)
	}
	slices.Sort(everyVerb)
}

func notAtOwnPace(m *machine) refusal {
	if m.here().OwnPace {
		return "everybody goes at their own pace here"
	}
	return ""
}

func inHold(m *machine) refusal {
	if !m.unit[m.phase].Kind.Held() {
		return "no hold in progress"
	}
	return ""
}

func uncounted(m *machine) refusal {
	if kind := m.unit[m.phase].Kind; kind != breath.Talk && kind != breath.Free {
		return "the count is running, there is nothing to end"
	}
	return ""
}

// against is the reason why the verb is refused at the row in progress whatever it brings, or none.
func (m *machine) against(v Verb) refusal {
	r, known := verbs[v]
	switch {
	case !known:
		return refusal(fmt.Sprintf("there is no adjustment %q", v))
	case v == Note || v == Signal:
		return ""
	case m.over:
		return "the class has ended"
	case r.where&m.place() == 0:
		return r.otherwise
	case r.also != nil:
		return r.also(m)
	}
	return ""
}

// met is the verbs that are met at the row in progress.
func (m *machine) met() VerbSet {
	var set VerbSet
	for i, verb := range everyVerb {
		if m.against(verb) == "" {
			set |= 1 << i
		}
	}
	return set
}

// everyVerb is sorted.
var everyVerb []Verb

// VerbSet is some of the verbs.
type VerbSet uint32

// List is the verbs of the set, sorted.
func (s VerbSet) List() []Verb {
	var list []Verb
	for i, verb := range everyVerb {
		if s&(1<<i) != 0 {
			list = append(list, verb)
		}
	}
	return list
}

// Verbs is every verb there is, sorted.
func Verbs() []Verb { return slices.Clone(everyVerb) }

// adjusted is the answer to the adjustment, and the machine after it.
func (m *machine) adjusted(a Adjustment) (Answer, machine) {
	c := m.copy()
	c.runTo(breath.Int(a.At))
	passage := 0
	if !c.over {
		passage = c.passage + 1
	}
	answer, err := c.apply(a)
	if err != nil {
		answer = Answer{Refused: err.Error()}
	} else if answer.When == "" {
		answer.When = Now
	}
	answer.Adjustment, answer.Passage = a, passage
	return answer, c
}

func (m *machine) apply(a Adjustment) (Answer, error) {
	if why := m.against(a.Do); why != "" {
		return Answer{}, why
	}
	return verbs[a.Do].do(m, a)
}

// refusal is a reason in words for the teacher.
type refusal string

func (r refusal) Error() string { return string(r) }

// remark records something and changes nothing.
func (m *machine) remark(Adjustment) (Answer, error) { return Answer{When: Never}, nil }
