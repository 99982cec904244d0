package pace

import (
	"fmt"
	"slices"

	"vastlantern/core/breath"
	"vastlantern/core/practice"
)

// Verb is what an adjustment does (pacing.md section 4).
type Verb string

// The verbs.
const (
	ToTempo      Verb = "tempo"
	Release      Verb = "release"
	ToCounts     Verb = "counts"
	DropHolds    Verb = "drop-holds"
	RestoreHolds Verb = "restore-holds"
	ToBeside     Verb = "beside"
	Rounds       Verb = "rounds"
	LastRound    Verb = "last-round"
	Again        Verb = "again"
	Enough       Verb = "enough"
	ToStrokes    Verb = "strokes"
	ToPause      Verb = "pause"
	Resume       Verb = "resume"
	Advance      Verb = "advance"
	Close        Verb = "close"
	Next         Verb = "next"
	End          Verb = "end"
	FinishBy     Verb = "finish-by"
	Undo         Verb = "undo"
	Note         Verb = "note"
	Signal       Verb = "signal"
)

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
	inPauseOfOwn // of a stretch at own pace that had begun, or of its recall

	anywhere    = 1<<iota - 1
	beforeClose = inSetup | inOpening | inRound | inRest | inPause
	atOwnPace   = inOwn | inRecall | inPauseOfOwn
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
		switch {
		case m.leads == Closing:
			return inPauseOfClosing
		case m.leads == Recall, m.leads == Own && m.ownLeft.Sign() > 0:
			return inPauseOfOwn
		}
		return inPause
	}
	return places[m.stage]
}

// places has the stages that are one place; setup and pause depend on what they lead to.
var places = map[Stage]place{
	Talk: inTalk, Free: inFree, Opening: inOpening, Round: inRound, Rest: inRest, Own: inOwn, Recall: inRecall, Closing: inClosing,
}

// rule is one line of the table: where the verb is met and the reason it is refused elsewhere; what of the passage, and
// what of the moment, speaks against it there, as a reason or none; and what it does. do refuses what depends on the
// values given, before it changes anything.
type rule struct {
	where     place
	otherwise refusal
	passage   func(*machine) refusal
	moment    func(*machine) refusal
	do        func(*machine, Adjustment) (Answer, error)
}

// verbs is the table "where each verb is met" of pacing.md section 4, and the rule of each. Undo is not in it: it
// changes what was folded, not the machine (undo.go).
var verbs map[Verb]rule

func init() { // not a literal: the rules refer to the machine, whose methods refer to the table
	const notYetClosed refusal = "there are no rounds to come here"
	verbs = map[Verb]rule{
		ToTempo:      {beforeClose | atClosing, "nothing is counted here", notAtOwnPace, nil, (*machine).setTempo},
		Release:      {inOpening | inRound | inClosing, "no hold in progress", nil, inHold, (*machine).release},
		ToCounts:     {beforeClose | atOwnPace, "there is no breath to come whose counts could change", ofKind(practice.Counted, "nothing is counted out in this practice"), nil, (*machine).setCounts},
		DropHolds:    {beforeClose | atOwnPace | atClosing, "there are no holds here", nil, nil, (*machine).dropHolds},
		RestoreHolds: {beforeClose | atOwnPace | atClosing, "there are no holds here", nil, haveDropped, (*machine).restoreHolds},
		ToBeside:     {beforeClose | atClosing, "nothing is led here that something could stand beside", notAtOwnPace, nil, (*machine).setBeside},
		Rounds:       {beforeClose, notYetClosed, severalRounds, nil, (*machine).setRounds},
		LastRound:    {beforeClose, notYetClosed, severalRounds, nil, (*machine).lastRound},
		Again:        {inRound, "no round in progress", nil, nil, (*machine).again},
		Enough:       {inRound | inPause, "no strokes in progress", nil, strokesBegun, (*machine).enough},
		ToStrokes:    {beforeClose | atOwnPace | atClosing, "there are no strokes here", ofKind(practice.Strokes, "there are no strokes in this practice"), nil, (*machine).setStrokes},
		ToPause:      {inSetup | inOpening | inRound | inRest | inClosing | inSetupOfClosing | inOwn | inRecall, "everybody breathes freely already", nil, nil, (*machine).pause},
		Resume:       {inPause | inPauseOfClosing | inPauseOfOwn, "not in a pause", nil, nil, (*machine).endPause},
		Advance:      {anywhere, "", nil, notCounted, (*machine).advance},
		Close:        {beforeClose | atOwnPace, "there is no closing to come here", nil, nil, (*machine).toClosing},
		Next:         {anywhere, "", nil, nil, (*machine).toNext},
		End:          {anywhere, "", nil, nil, (*machine).toEnd},
		FinishBy:     {anywhere, "", nil, nil, (*machine).finishBy},
		Undo:         {anywhere, "", nil, nil, nil},
		Note:         {anywhere, "", nil, nil, (*machine).remark},
		Signal:       {anywhere, "", nil, nil, (*machine).remark},
	}
	for verb := range verbs {
		everyVerb = append(everyVerb, verb)
	}
	slices.Sort(everyVerb)
	for i, verb := range everyVerb {
		sortedRules = append(sortedRules, verbs[verb])
		if verbs[verb].moment != nil {
			byMoment = append(byMoment, i)
		}
	}
}

func notAtOwnPace(m *machine) refusal {
	if m.here().OwnPace {
		return "everybody goes at their own pace here"
	}
	return ""
}

func severalRounds(m *machine) refusal {
	if m.here().Practice.FillsMinutes() {
		return "this practice is one round"
	}
	return notAtOwnPace(m)
}

func ofKind(kind practice.Kind, otherwise refusal) func(*machine) refusal {
	return func(m *machine) refusal {
		if m.here().Is(kind) {
			return ""
		}
		return otherwise
	}
}

func inHold(m *machine) refusal {
	if !m.unit[m.phase].Kind.Held() {
		return "no hold in progress"
	}
	return ""
}

func haveDropped(m *machine) refusal {
	if !m.holds.dropped {
		return "no holds are dropped"
	}
	return ""
}

// notCounted is against advance where a count is running: it ends stretches of time, and open phases.
func notCounted(m *machine) refusal {
	ph := &m.unit[m.phase]
	if ph.Kind != breath.Talk && ph.Kind != breath.Free && !ph.Waits {
		return "the count is running, there is nothing to end"
	}
	return ""
}

// against is the reason why the verb is refused at the row in progress whatever it brings, or none.
func (m *machine) against(v Verb) refusal {
	r, known := verbs[v]
	if !known {
		return refusal(fmt.Sprintf("there is no adjustment %q", v))
	}
	return m.forbids(v, &r, m.place())
}

func (m *machine) forbids(v Verb, r *rule, here place) refusal {
	switch {
	case v == Note || v == Signal:
		return ""
	case m.over:
		return "the class has ended"
	case r.where&here == 0:
		return r.otherwise
	}
	if r.passage != nil {
		if why := r.passage(m); why != "" {
			return why
		}
	}
	if r.moment != nil {
		return r.moment(m)
	}
	return ""
}

// met is the verbs that are met at the row in progress. What only the place and the passage decide is kept: most rows
// are like the one before.
func (m *machine) met() VerbSet {
	here := m.place()
	if m.metHere.place != here || m.metHere.passage != m.passage {
		m.metHere = metHere{here, m.passage, m.metAt(here)}
	}
	set := m.metHere.verbs
	for _, i := range byMoment {
		if set&(1<<i) != 0 && sortedRules[i].moment(m) != "" {
			set &^= 1 << i
		}
	}
	return set
}

// metAt is the verbs that are met at the place, whatever the moment.
func (m *machine) metAt(here place) VerbSet {
	var set VerbSet
	for i := range sortedRules {
		r := &sortedRules[i]
		if r.where&here != 0 && (r.passage == nil || r.passage(m) == "") {
			set |= 1 << i
		}
	}
	return set
}

// metHere is the verbs that are met at a place of a passage.
type metHere struct {
	place   place
	passage int
	verbs   VerbSet
}

var (
	everyVerb   []Verb // sorted
	sortedRules []rule // of everyVerb, in the same order
	byMoment    []int  // the rules that look at the moment
)

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

// refusal is a reason in words for the teacher.
type refusal string

func (r refusal) Error() string { return string(r) }

func refuse(format string, args ...any) (Answer, error) {
	return Answer{}, refusal(fmt.Sprintf(format, args...))
}
