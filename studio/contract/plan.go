package contract

import (
	"encoding/json"

	"vastlantern/core/breath"
	"vastlantern/core/fact"
	"vastlantern/core/plan"
)

// Plan is a plan as it is edited.
type Plan struct {
	ID       int64           `json:"id"`
	Revision int64           `json:"revision"`
	Group    *Group          `json:"group" jsonschema:"nullable"`
	Document json.RawMessage `json:"document"` // the plan file
	Summary  PlanSummary     `json:"summary"`
	Groups   []Group         `json:"groups"` // to choose from
}

// PlanSave stores a document in the place of a revision.
type PlanSave struct {
	Revision int64           `json:"revision"`
	GroupID  int64           `json:"group_id"` // 0 for none
	Document json.RawMessage `json:"document"`
}

// Template is a plan of ours to begin with.
type Template struct {
	ID       string `json:"id"`
	Title    string `json:"title"`
	About    string `json:"about"`
	LengthMS int64  `json:"length_ms"`
}

// Begin makes a new plan from a template, or from a class that was led.
type Begin struct {
	Template string `json:"template,omitempty"`
	ClassID  int64  `json:"class_id,omitempty"`
	How      string `json:"how,omitempty"` // of a class: planned, taught, or advised, as the record advises
	GroupID  int64  `json:"group_id"`      // 0 for none, or for that of the class
}

// PlanText is a plan file as it was read from disk.
type PlanText struct {
	Text    string `json:"text"`
	GroupID int64  `json:"group_id"`
}

// Draft asks what a document means, without storing it, after one change that the core makes.
type Draft struct {
	Document json.RawMessage `json:"document"`
	GroupID  int64           `json:"group_id"`                     // 0 for none
	Change   *Change         `json:"change" jsonschema:"nullable"` // null for none
}

// ChangeKind is what a Change does.
type ChangeKind string

// The changes that the core makes in a document.
const (
	ChangeAdd         ChangeKind = "add"           // adds Text, a passage or a practice's whole course, at the end
	ChangeShort       ChangeKind = "short"         // rewrites the passage from Text
	ChangeGentle      ChangeKind = "gentle"        // the passage in its gentle variant
	ChangeAdvised     ChangeKind = "advised"       // the passage as the group's record advises
	ChangeSplit       ChangeKind = "split"         // the passage made two
	ChangeRounds      ChangeKind = "rounds"        // Rounds more of the passage
	ChangeRoundsToEnd ChangeKind = "rounds-to-end" // the passage's rounds so that it ends by EndMS of the class
	ChangeTempoToEnd  ChangeKind = "tempo-to-end"  // the same by its tempo
	ChangeFit         ChangeKind = "fit"           // all rounds so that the plan fits its slot
	ChangeRest        ChangeKind = "rest"          // LengthMS more of natural breath at the end
	ChangeTalks       ChangeKind = "talks"         // talks as long as they usually take
	ChangeApply       ChangeKind = "apply"         // what the advice says whose key is Text
	ChangeCount       ChangeKind = "count"         // Counts of one Phase of the passage
	ChangeOwnWords    ChangeKind = "own-words"     // the passage's own words from Text, a line each
	ChangePacer       ChangeKind = "pacer"         // who sets the pace of the passage, and which phases wait
	ChangeAgain       ChangeKind = "again"         // the practice's lines that come round again, where Counts is 1
)

// ChangeKinds is all of them.
var ChangeKinds = []ChangeKind{
	ChangeAdd, ChangeShort, ChangeGentle, ChangeAdvised, ChangeSplit, ChangeRounds, ChangeRoundsToEnd, ChangeTempoToEnd,
	ChangeFit, ChangeRest, ChangeTalks,
	ChangeApply, ChangeCount, ChangeOwnWords, ChangePacer,
	ChangeAgain,
}

// Change is one change that the core makes in a document. Which fields it has follows from what it does.
type Change struct {
	Do       ChangeKind   `json:"do"`
	Passage  int          `json:"passage,omitempty"` // from 1
	Text     string       `json:"text,omitempty"`    // as it is written the short way
	Phase    breath.Phase `json:"phase,omitempty"`
	Counts   int          `json:"counts,omitempty"` // or seconds, of an open phase
	Rounds   int          `json:"rounds,omitempty"`
	EndMS    int64        `json:"end_ms,omitempty"`
	LengthMS int64        `json:"length_ms,omitempty"`
	Pacer    plan.Pacer   `json:"pacer,omitempty"`
	// the phases that wait, where the pacer is the teacher; none means all
	Waits []breath.Phase `json:"waits,omitempty"`
}

// Addition is something that the time to spare has room for: more rounds of a passage, from 1, or, for passage 0, a
// rest at the end.
type Addition struct {
	Passage  int   `json:"passage"`
	Rounds   int   `json:"rounds"`
	LengthMS int64 `json:"length_ms"`
}

// Drafted is the answer to a Draft. Where the change could not be made, Document is as it came and Problem says why.
type Drafted struct {
	Document json.RawMessage `json:"document"`
	Summary  PlanSummary     `json:"summary"`
	Problem  *fact.Fact      `json:"problem" jsonschema:"nullable"`
	Changed  *fact.Fact      `json:"changed" jsonschema:"nullable"` // the change, where the core made one
}

// PlanSummary is the numbers of a plan.
type PlanSummary struct {
	Title     string           `json:"title"`
	LengthMS  int64            `json:"length_ms"`
	SlotMS    int64            `json:"slot_ms"`  // 0 if none is set
	SpareMS   int64            `json:"spare_ms"` // below 0 if the plan is too long
	StartsMS  *float64         `json:"starts_ms" jsonschema:"nullable"`
	Passages  []PassageSummary `json:"passages"`
	Errors    []FieldError     `json:"errors"`
	Advice    []Advice         `json:"advice"`
	Strong    []StrongCaution  `json:"strong"`    // what must be read before it is led
	Additions []Addition       `json:"additions"` // what the time to spare has room for
}

// StrongCaution is a caution that must be acknowledged before the plan is led, and the passages that have it.
type StrongCaution struct {
	ID       string    `json:"id"` // of what it is about
	Say      fact.Fact `json:"say"`
	Passages []string  `json:"passages"` // the names of those that it is for
}

// Offer is a field that a passage can be given beyond its length, counts and tempo, and what holds where it is not.
type Offer struct {
	Field   string     `json:"field"` // one of an object with a dot, as aperture.inhale
	About   plan.About `json:"about"`
	Choices []string   `json:"choices"` // the words that it takes, the default first; empty for a number, a text or a flag
	Flag    bool       `json:"flag"`
	Text    bool       `json:"text"`    // words, parted by spaces
	Unit    string     `json:"unit"`    // of a number
	Default string     `json:"default"` // of a number
}

// PassageSummary is the numbers of one passage.
type PassageSummary struct {
	Name          string      `json:"name"`
	Type          plan.Type   `json:"type"`
	Practice      string      `json:"practice"`
	Term          string      `json:"term"`
	Offers        []Offer     `json:"offers"` // the fields that it can be given
	Short         string      `json:"short"`  // as Draft takes it
	Says          []string    `json:"says"`   // what tells it from others beyond this
	StartMS       int64       `json:"start_ms"`
	LengthMS      int64       `json:"length_ms"`
	Rounds        int         `json:"rounds"` // 0 if there are none
	RoundMS       int64       `json:"round_ms"`
	PerMinute     float64     `json:"per_minute"` // breaths
	Counts        string      `json:"counts"`
	TrueRatio     string      `json:"true_ratio"` // as it really runs with the words' own beats
	LongestHoldMS int64       `json:"longest_hold_ms"`
	HeldMS        int64       `json:"held_ms"`  // in all holds
	CountMS       float64     `json:"count_ms"` // one count or stroke; 0 if nothing is counted
	Opening       []fact.Fact `json:"opening"`  // its steps
	Closing       []fact.Fact `json:"closing"`
	OwnPace       bool        `json:"own_pace"`
	Cautions      []Caution   `json:"cautions"`
	Findings      []Finding   `json:"findings"` // for the plan's group and hour
	Gentler       bool        `json:"gentler"`  // there is a gentle variant to take
	Soften        bool        `json:"soften"`   // and for this group it should be taken
	// the phases of one, from 0; empty if there are none
	Round  []ScorePhase `json:"round"`
	Lanes  []LaneOffer  `json:"lanes"`                        // what could run beside it, the gentlest first
	Beside *fact.Fact   `json:"beside" jsonschema:"nullable"` // the gentler lane; null if there is none
	// the round as those breathe it who take what runs beside; empty if nothing does
	LaneRound []ScorePhase `json:"lane_round"`
	// its counts that can be chosen; empty if there are none
	Roles []Role `json:"roles"`
	// who sets the pace, and who can; empty if it is not a practice
	Pacer  plan.Pacer   `json:"pacer"`
	Pacers []plan.Pacer `json:"pacers"`
	// the phases that wait for the teacher, and those that can; empty if that cannot be chosen
	Waits   []breath.Phase `json:"waits"`
	CanWait []breath.Phase `json:"can_wait"`
	// what comes round again at own pace: what it says, and whether it does; empty if the practice has nothing
	Again   []string `json:"again"`
	AgainOn bool     `json:"again_on"`
	// the teacher's own, a line each, as ChangeOwnWords takes them
	OwnWords string    `json:"own_words"`
	Lines    []OwnLine `json:"lines"` // the same, as they are understood
	// what was typed of it and is nothing else, and why somebody should look at it ("none" for nothing)
	Remark string     `json:"remark"`
	Check  plan.Check `json:"check"`
}

// OwnLine is a line of the teacher's own words and the place where it comes. What does not matter for the place is
// empty or 0.
type OwnLine struct {
	Text      string      `json:"text"`
	Place     []fact.Fact `json:"place"` // where it comes, in parts
	Stage     string      `json:"stage"` // where it is not the usual one of the passage
	First     int         `json:"first"` // rounds
	Last      int         `json:"last"`
	LastRound bool        `json:"last_round"`
	Breath    int         `json:"breath"`
	Phase     string      `json:"phase"`
	Through   string      `json:"through"`
	Part      string      `json:"part"`
	SecondMS  int64       `json:"second_ms"` // below 0 if it is not timed
	EveryMS   int64       `json:"every_ms"`  // 0 if it comes once
	AheadMS   int64       `json:"ahead_ms"`
	Who       plan.Who    `json:"who"`
	Say       bool        `json:"say"`
}

// OwnLinesOf returns the lines of a passage.
func OwnLinesOf(p *plan.Passage) []OwnLine {
	list := []OwnLine{}
	for i := range p.Lines {
		l := &p.Lines[i]
		one := OwnLine{
			Text:      l.Text,
			Place:     l.Place(p),
			First:     l.First,
			Last:      l.Last,
			LastRound: l.LastRound,
			Breath:    l.Breath,
			Phase:     string(l.Phase),
			Through:   string(l.Through),
			Part:      l.Part,
			SecondMS:  -1,
			EveryMS:   l.Every.Times(1000).Round(),
			AheadMS:   l.Ahead.Times(1000).Round(),
			Who:       l.Who,
			Say:       l.Say,
		}
		if l.Stage != p.UsualStage() {
			one.Stage = l.Stage
		}
		if l.Second.Sign() >= 0 {
			one.SecondMS = l.Second.Times(1000).Round()
		}
		list = append(list, one)
	}
	return list
}

// LaneOffer is something that could run beside a passage.
type LaneOffer struct {
	Beside string    `json:"beside"` // breathe, or a:c
	Says   fact.Fact `json:"says"`
}

// Role is one of the counts of a passage that can be chosen: those of its inhales, for instance.
type Role struct {
	Phase  breath.Phase `json:"phase"`
	Counts int          `json:"counts"` // or seconds, of an open phase
}

// Typed is lines as a teacher types them, to know what they would be.
type Typed struct {
	Text    string `json:"text"`
	GroupID int64  `json:"group_id"` // 0 for none
}

// TypedRead is what the lines would be.
type TypedRead struct {
	Lines       []TypedLine  `json:"lines"`       // those that are not empty
	Completions []Completion `json:"completions"` // of the last line
}

// TypedLine is one line: the passages that it would be, or what is wrong with it.
type TypedLine struct {
	Line     int            `json:"line"` // from 1
	Passages []TypedPassage `json:"passages"`
	Problem  *LineProblem   `json:"problem" jsonschema:"nullable"`
}

// TypedPassage is a passage as a line was understood.
type TypedPassage struct {
	Summary PassageSummary `json:"summary"`
	Facts   []TypedFact    `json:"facts"`
	Doubts  []TypedDoubt   `json:"doubts"`
}

// TypedDoubt is a piece of a line that was read all the same, and may be meant in another way: words that were kept as
// a remark, a name that is not in the practice book, or a reading of several.
type TypedDoubt struct {
	Kind    string      `json:"kind"` // words, name or reading
	Problem LineProblem `json:"problem"`
}

// TypedFact is one thing that was understood of a line: a field of the plan file, and its value. Of rounds, minutes,
// seconds, breaths, strokes, rate, counts, open_seconds, side, practice and script it is the bare value, of others as a
// line says it.
type TypedFact struct {
	Field   string `json:"field"`
	Value   string `json:"value"`
	Assumed bool   `json:"assumed"` // the line did not say it
}

// LineProblem is a word that is not understood. From and To are UTF-16 units of the line, both 0 for all of it.
type LineProblem struct {
	From    int       `json:"from"`
	To      int       `json:"to"`
	Given   string    `json:"given"`
	Say     fact.Fact `json:"say"`
	Nearest []string  `json:"nearest"` // what could be meant in its place
}

// Completion is a way in which the line may go on.
type Completion struct {
	Line string `json:"line"` // all of it
	Says string `json:"says"` // what it would be; empty for a word
}

// Phrases is what a teacher may want to say again.
type Phrases struct {
	Phrases []string `json:"phrases"`
}

// MovePlan plans a class for another time.
type MovePlan struct {
	StartsMS float64 `json:"starts_ms"`
}

// LastTime is what a group was taught last.
type LastTime struct {
	ClassID   int64         `json:"class_id"` // 0 if there was none
	Title     string        `json:"title"`
	StartedMS float64       `json:"started_ms"`
	Passages  []LastPassage `json:"passages"`
}

// LastPassage is a passage as it was taught.
type LastPassage struct {
	Name     string   `json:"name"`
	Practice string   `json:"practice"` // empty for talks and free breathing
	Short    string   `json:"short"`
	Says     []string `json:"says"`
}

// PlainText is a class as plain text, one line a passage.
type PlainText struct {
	Text string   `json:"text"`
	Left []string `json:"left"` // what the text does not say
}
