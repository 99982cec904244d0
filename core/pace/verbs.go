package pace

import (
	"slices"
	"strings"

	"vastlantern/core/fact"
	"vastlantern/core/plan"
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
	ToHand       Verb = "by-hand"
	ToRecall     Verb = "recall"
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

// placeNames is the places as documents name them, in the order of their bits.
var placeNames = []string{
	"talk", "free", "setup", "opening", "round", "rest", "pause", "own", "recall", "closing", "setup-of-closing",
	"pause-of-closing",
	"pause-of-own",
}

// Places returns where in a class the verb is accepted, if the practice and the moment allow it.
func (v Verb) Places() []string {
	var list []string
	r := ruleOf(v)
	for i, name := range placeNames {
		if r != nil && r.where&(1<<i) != 0 {
			list = append(list, name)
		}
	}
	return list
}

// places has the stages that are one place; setup and pause depend on what they lead to.
var places = map[Stage]place{
	Talk:    inTalk,
	Free:    inFree,
	Opening: inOpening,
	Round:   inRound,
	Rest:    inRest,
	Own:     inOwn,
	Recall:  inRecall,
	Closing: inClosing,
}

// rule is everything that is said of a verb: the table "where each verb is accepted" of pacing.md section 4 and what
// the verb does there. Refusals are ids of messages.
type rule struct {
	verb  Verb
	takes []Argument
	// where the verb is accepted, and why it is refused elsewhere
	where     place
	otherwise string
	// what of the passage, and what of the moment, is against the verb there; empty for nothing
	passage, moment func(*machine) string
	// do refuses what depends on the values given, before it changes anything
	do func(*machine, Adjustment) (Answer, error)
	// eases reports whether it asked less of the room; nil for never
	eases func(*Answer) Ease
	// did is what an accepted one did, in place of the message "did.<verb>"
	did func(*Answer) fact.Fact
	// relief is whether it can be what ended a strain
	relief Relief
	// effect is what it means for how the class was led
	effect effect
}

// Relief is whether an adjustment can be what ended a strain that was seen.
type Relief int

// Most adjustments change what is breathed and so can; some only end it, which brings natural breath; some cannot.
const (
	Relieves Relief = iota
	ByEnding
	NoRelief
)

// effect is what a verb means for how the class was led.
type effect int

const (
	changesClass effect = iota
	goesOn              // ends what waits, as planned
	onlyRemarks         // is recorded, and nothing else
)

// rules is every verb. Undo has no do: it changes what was folded, not the machine (undo.go).
var rules []rule

func init() { // not a literal: the rules refer to the machine, whose methods refer to the table
	const noRoundsToCome, noHoldsHere = "refused.no-rounds-to-come", "refused.no-holds-here"
	counted := ofKind((*plan.Passage).TakesCounts, "refused.practice-not-counted")
	rules = []rule{
		{
			verb:      ToTempo,
			takes:     []Argument{toNumber, carry},
			where:     beforeClose | atClosing,
			otherwise: "refused.nothing-counted",
			passage:   notAtOwnPace,
			do:        (*machine).setTempo,
			eases:     slowerMayEase,
			did:       didTempo,
		},
		{verb: Release, where: inOpening | inRound | inClosing, otherwise: "refused.no-hold", moment: inHold,
			do: (*machine).release, eases: always},
		{
			verb:      ToCounts,
			takes:     []Argument{toCounts},
			where:     beforeClose | atOwnPace,
			otherwise: "refused.no-breath-to-come",
			passage:   counted,
			do:        (*machine).setCounts,
			eases:     fewerCountsEase,
			did:       didCounts,
		},
		{verb: DropHolds, takes: []Argument{carry}, where: beforeClose | atOwnPace | atClosing, otherwise: noHoldsHere,
			do: (*machine).dropHolds, eases: always, did: didHolds},
		{
			verb:      RestoreHolds,
			takes:     []Argument{carry},
			where:     beforeClose | atOwnPace | atClosing,
			otherwise: noHoldsHere,
			moment:    haveDropped,
			do:        (*machine).restoreHolds,
			did:       didHolds,
			relief:    NoRelief,
		},
		{
			verb:      ToBeside,
			takes:     []Argument{toText},
			where:     beforeClose | atClosing,
			otherwise: "refused.nothing-led",
			passage:   notAtOwnPace,
			do:        (*machine).setBeside,
			did:       didBeside,
		},
		{
			verb:      ToHand,
			takes:     []Argument{toPhases},
			where:     beforeClose | atClosing,
			otherwise: "refused.nothing-counted",
			passage:   ledAndCounted,
			do:        (*machine).setByHand,
			did:       didHand,
		},
		{verb: ToRecall, takes: []Argument{wholeRounds}, where: inOwn, otherwise: "refused.no-own-pace", passage: counted,
			do: (*machine).callBack, did: didRecall, relief: ByEnding},
		{verb: Rounds, takes: []Argument{byOrTo}, where: beforeClose, otherwise: noRoundsToCome, passage: severalRounds,
			do: (*machine).setRounds, did: didRounds, relief: ByEnding},
		{verb: LastRound, where: beforeClose, otherwise: noRoundsToCome, passage: severalRounds,
			do: (*machine).lastRound, did: didRounds, relief: ByEnding},
		{verb: Again, where: inRound, otherwise: "refused.no-round",
			do: (*machine).again, relief: NoRelief},
		{verb: Enough, where: inRound | inPause, otherwise: "refused.no-strokes-in-progress", moment: strokesBegun,
			do: (*machine).enough, eases: always},
		{
			verb:      ToStrokes,
			takes:     []Argument{toWhole},
			where:     beforeClose | atOwnPace | atClosing,
			otherwise: "refused.no-strokes-here",
			passage:   ofKind((*plan.Passage).CountsStrokes, "refused.practice-without-strokes"),
			do:        (*machine).setStrokes,
			eases:     fewerStrokesEase,
			did:       didStrokes,
		},
		{
			verb:      ToPause,
			where:     inSetup | inOpening | inRound | inRest | inClosing | inSetupOfClosing | inOwn | inRecall,
			otherwise: "refused.breathing-freely",
			do:        (*machine).pause,
			eases:     perhaps,
		},
		{verb: Resume, where: inPause | inPauseOfClosing | inPauseOfOwn, otherwise: "refused.no-pause",
			do: (*machine).endPause, effect: goesOn, relief: NoRelief},
		{verb: Advance, where: anywhere, moment: notCounted,
			do: (*machine).advance, effect: goesOn, relief: ByEnding},
		{verb: Close, where: beforeClose | atOwnPace, otherwise: "refused.no-closing-to-come",
			do: (*machine).toClosing, relief: ByEnding},
		{verb: Next, where: anywhere, do: (*machine).toNext, relief: ByEnding},
		{verb: End, where: anywhere, do: (*machine).toEnd, relief: ByEnding},
		{verb: FinishBy, takes: []Argument{deadline}, where: anywhere,
			do: (*machine).finishBy, did: didFinish, relief: ByEnding},
		{verb: Undo, where: anywhere, did: didUndo, relief: NoRelief},
		{verb: Note, takes: []Argument{text, carry}, where: anywhere,
			do: (*machine).remark, did: didNote, effect: onlyRemarks, relief: NoRelief},
		{verb: Signal, takes: []Argument{see}, where: anywhere,
			do: (*machine).remark, did: didSignal, effect: onlyRemarks},
	}
	slices.SortFunc(rules, func(a, b rule) int { return strings.Compare(string(a.verb), string(b.verb)) })
	for i := range rules {
		everyVerb = append(everyVerb, rules[i].verb)
		if rules[i].moment != nil {
			byMoment = append(byMoment, i)
		}
	}
}

// ruleOf returns the rule of a verb, nil if there is no such verb.
func ruleOf(v Verb) *rule {
	i, found := slices.BinarySearch(everyVerb, v)
	if !found {
		return nil
	}
	return &rules[i]
}

func notAtOwnPace(m *machine) string {
	if m.here().OwnPace {
		return "refused.own-pace"
	}
	return ""
}

func ledAndCounted(m *machine) string {
	if why := notAtOwnPace(m); why != "" {
		return why
	}
	return ofKind((*plan.Passage).TakesCounts, "refused.practice-not-counted")(m)
}

func severalRounds(m *machine) string {
	if m.here().Practice.FillsMinutes() {
		return "refused.one-round-practice"
	}
	return notAtOwnPace(m)
}

func ofKind(is func(*plan.Passage) bool, otherwise string) func(*machine) string {
	return func(m *machine) string {
		if is(m.here()) {
			return ""
		}
		return otherwise
	}
}

func inHold(m *machine) string {
	if !m.unit[m.phase].Kind.Held() {
		return "refused.no-hold"
	}
	return ""
}

func haveDropped(m *machine) string {
	if !m.holds.dropped && !m.droppedLater() {
		return "refused.no-holds-dropped"
	}
	return ""
}

// notCounted returns against advance where a count is running: it ends stretches of time, and open phases.
func notCounted(m *machine) string {
	ph := &m.unit[m.phase]
	if ph.Kind.Led() && !ph.Waits {
		return "refused.count-running"
	}
	return ""
}

// against returns the reason why the verb is refused at the row in progress whatever it brings, or none.
func (m *machine) against(v Verb) fact.Fact {
	r := ruleOf(v)
	if r == nil {
		return fact.New("refused.unknown-verb", "verb", v)
	}
	if id := m.forbids(r, m.place()); id != "" {
		return fact.New(id)
	}
	return fact.Fact{}
}

func (m *machine) forbids(r *rule, here place) string {
	switch {
	case r.effect == onlyRemarks:
		return ""
	case m.over:
		return "refused.class-over"
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
		if set&(1<<i) != 0 && rules[i].moment(m) != "" {
			set &^= 1 << i
		}
	}
	return set
}

// metAt is the verbs that are met at the place, whatever the moment.
func (m *machine) metAt(here place) VerbSet {
	var set VerbSet
	for i := range rules {
		r := &rules[i]
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
	everyVerb []Verb // sorted, as rules are
	byMoment  []int  // the rules that look at the moment
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

// Has reports whether the verb is one of the set.
func (s VerbSet) Has(verb Verb) bool {
	i, found := slices.BinarySearch(everyVerb, verb)
	return found && s&(1<<i) != 0
}

// Verbs returns every verb there is, sorted.
func Verbs() []Verb { return slices.Clone(everyVerb) }

// Takes returns what comes with the verb.
func (v Verb) Takes() []Argument {
	if r := ruleOf(v); r != nil {
		return r.takes
	}
	return nil
}

// Remarks reports whether the verb only records something: a note, or what was seen.
func (v Verb) Remarks() bool {
	r := ruleOf(v)
	return r != nil && r.effect == onlyRemarks
}

// Relief returns whether the verb can be what ended a strain.
func (v Verb) Relief() Relief {
	if r := ruleOf(v); r != nil {
		return r.relief
	}
	return NoRelief
}

// GoesOn reports whether the verb only ends what waits.
func (v Verb) GoesOn() bool {
	r := ruleOf(v)
	return r != nil && r.effect == goesOn
}

// Name returns the message that names the verb.
func (v Verb) Name() fact.Fact { return fact.New("verb." + string(v)) }

func refuse(id string, args ...any) (Answer, error) { return Answer{}, fact.New(id, args...) }
