package contract

import (
	"vastlantern/core/breath"
	"vastlantern/core/cue"
	"vastlantern/core/fact"
	"vastlantern/core/pace"
	"vastlantern/core/plan"
)

// Lead starts a class.
type Lead struct {
	PlanID int64 `json:"plan_id"`
	// EndRunning ends the class that is being led, if there is one, instead of refusing to start another.
	EndRunning bool `json:"end_running"`
	// Fit chooses rounds so that a class that begins late ends when its slot does. The stored plan stays as it is.
	Fit bool `json:"fit"`
	// Gentle is the passages, from 1, that are led in their gentle variant. The stored plan stays as it is.
	Gentle []int `json:"gentle,omitempty"`
	// Acknowledged is the ids of the strong cautions that were read; without each of them the class does not begin.
	Acknowledged []string `json:"acknowledged"`
	// UID is the class's own name, 32 hexadecimal digits: one that is begun twice under the same is begun once. The
	// program chooses one where it is empty.
	UID string `json:"uid,omitempty"`
}

// Try plays a plan without leading a class: the adjustments so far, each at its time, and how far it is.
type Try struct {
	Script []Tried `json:"script"`
	AtMS   int64   `json:"at_ms"`
}

// Tried is an adjustment of a Try.
type Tried struct {
	AtMS   int64  `json:"at_ms"`
	Adjust Adjust `json:"adjust"`
}

// Score is the timeline of a class from the stage in progress on: all that a screen needs to play it by itself
// until the next adjustment.
type Score struct {
	ClassID   int64   `json:"class_id"`
	Revision  int     `json:"revision"` // the number of adjustments so far, refused ones too
	Title     string  `json:"title"`
	Group     *Group  `json:"group" jsonschema:"nullable"`
	StartedMS float64 `json:"started_ms"` // of the clock
	SlotMS    int64   `json:"slot_ms"`    // 0 if none is set
	// the class has come to its end; nothing more will change
	Over   bool         `json:"over"`
	Phases []ScorePhase `json:"phases"` // the last has no end where Wait is there
	// the gentler lane over the same time; empty if nothing runs beside
	Lane []ScorePhase `json:"lane"`
	// what follows the last phase, which waits for the teacher
	Wait       *Wait          `json:"wait" jsonschema:"nullable"`
	EndMS      int64          `json:"end_ms"`    // of the class; what waits taken at its planned end
	Cues       []Cue          `json:"cues"`      // from a moment ago on
	LaneCues   []Cue          `json:"lane_cues"` // now, next and hand of the gentler lane
	Spoken     []Spoken       `json:"spoken"`
	LaneSpoken []Spoken       `json:"lane_spoken"` // to those on the gentler lane, where one voice speaks to both
	Passages   []ScorePassage `json:"passages"`
	Answer     *Answer        `json:"answer" jsonschema:"nullable"` // to the last adjustment
	Unstored   *Unstored      `json:"unstored" jsonschema:"nullable"`
	// Edition orders scores with the same revision, which answers and the stream may bring crosswise: one with a smaller
	// number knows less. It grows beyond restarts of the program. 0 where there is no stream.
	Edition  int64  `json:"edition,omitempty"`
	Language string `json:"language"` // of what is said, a BCP 47 tag
	Left     Ways   `json:"left"`
	Right    Ways   `json:"right"`
	// the recorded voice; null if the browser's own speaks
	Speaker *Speaker `json:"speaker" jsonschema:"nullable"`
	Sample  bool     `json:"sample"` // to try the program with; it is not saved
	CardUp  CardUp   `json:"card_up"`
	// Ear is the lead screen that listens to the room, by the name that it gave itself; empty if none does. One listens at
	// a time. Not told to the room.
	Ear string `json:"ear,omitempty"`
	// the way of the fingers at the nose that the plan or the school takes; two with a space between stand side by side
	FingersBy string `json:"fingers_by"`
}

// Ways is both ways in which a side can be said: ScorePhase.Side is the one that the class takes, and a participant may
// take the other.
type Ways struct {
	Named string `json:"named"` // left, right
	Hand  string `json:"hand"`  // what the hand does for it
}

// Cue is something that is shown or said for a time, as core/cue has it: what is done now and next, what the hand does,
// lines, prompts and calls.
type Cue struct {
	AtMS    int64    `json:"at_ms"`
	UntilMS int64    `json:"until_ms"` // exclusive; -1 where it is not known
	Passage int      `json:"passage"`
	Kind    cue.Kind `json:"kind"`
	Who     plan.Who `json:"who"`
	Text    string   `json:"text"`
	// Bare is of what comes next: Text without its counts or its length, where that differs.
	Bare string `json:"bare,omitempty"`
	// Fingers is of the hand: what it comes to do.
	Fingers cue.Fingers `json:"fingers,omitempty"`
}

// Spoken is what the voice says at a moment besides the counts and words of phases.
type Spoken struct {
	AtMS int64    `json:"at_ms"`
	Who  plan.Who `json:"who"`
	Text string   `json:"text"`
}

// CardUp is the card of the teacher's own words that is up on the lead screens; passage 0 if none was turned.
type CardUp struct {
	Passage int `json:"passage"` // from 1
	Card    int `json:"card"`    // from 0
}

// RoomCode is the short code that joins the room.
type RoomCode struct {
	Code     string `json:"code"`
	Address  string `json:"address"`   // of its page, in full
	OnlyHere bool   `json:"only_here"` // no other device reaches it
}

// Room is what a room screen shows: the class that is led, without what is only for the teacher; null if none is.
type Room struct {
	Score *Score    `json:"score" jsonschema:"nullable"`
	Next  *Upcoming `json:"next" jsonschema:"nullable"`  // while none is led
	Bring string    `json:"bring"`                       // what people are asked to bring
	Asked *Asked    `json:"asked" jsonschema:"nullable"` // after a class, where the teacher wants to know
	// CheckIn is what is asked in one touch before a class and after it, where the plan asks.
	CheckIn *CheckInAsked `json:"check_in" jsonschema:"nullable"`
}

// CheckInAsked is a question to the room.
type CheckInAsked struct {
	ID       int64        `json:"id"`
	After    bool         `json:"after"` // else it is asked before
	Question plan.CheckIn `json:"question"`
	Answers  []string     `json:"answers"`  // to choose from
	UntilMS  float64      `json:"until_ms"` // on the application's clock
}

// CheckInAnswer is one touch in answer to it. It has nothing of who sent it.
type CheckInAnswer struct {
	ID     int64  `json:"id"`
	After  bool   `json:"after"`
	Answer string `json:"answer"`
	// made up by the page for this one answer, so that it counts once where it is sent again
	Ballot string `json:"ballot"`
}

// Asked is a class after which those who breathed are asked how it was.
type Asked struct {
	ClassID int64   `json:"class_id"`
	UntilMS float64 `json:"until_ms"`
	Lanes   bool    `json:"lanes"`   // a gentler lane ran beside
	Counted string  `json:"counted"` // what could be counted at own pace, rounds or strokes; empty for nothing
}

// How is what a class can have been for one who breathed.
type How string

// What is answered in one touch (handbook.md section 9).
const (
	Easy    How = "easy"
	Right   How = "right"
	TooMuch How = "too-much"
)

// MostCounted is the most rounds or strokes that an answer can tell.
const MostCounted = 5000

// RoomAnswer is the only thing that a room page sends. It has nothing of who sent it.
type RoomAnswer struct {
	ClassID int64  `json:"class_id"`
	How     How    `json:"how"`
	Lane    string `json:"lane"` // which lane was taken, main or beside; empty if it is not told
	// how many rounds or strokes were counted at own pace; 0 if it is not told
	Amount int `json:"amount,omitempty"`
	// made up by the page for this one answer, so that it counts once where it is sent again
	Ballot string `json:"ballot"`
}

// RoomAnswered is what the page gets for it.
type RoomAnswered struct {
	Counted bool `json:"counted"` // false if as many have answered as there were phones
}

// Upcoming is the next class, as everybody may know it.
type Upcoming struct {
	PlanID   int64        `json:"plan_id"`
	CheckIn  plan.CheckIn `json:"check_in"` // what the room is asked before and after; empty for nothing
	Title    string       `json:"title"`
	StartsMS float64      `json:"starts_ms"`
	LengthMS int64        `json:"length_ms"`
	Passages []string     `json:"passages"` // the names of what will be practised, each once
}

// Wait reports what comes after a phase that has no end yet.
type Wait struct {
	PlannedEndMS int64        `json:"planned_end_ms"`
	Phases       []ScorePhase `json:"phases"` // timed from the end of the wait
	LengthMS     int64        `json:"length_ms"`
}

// ScorePhase is one phase of a class: its counts, each lasting from its own time to that of the next.
type ScorePhase struct {
	Passage  int            `json:"passage"` // from 1
	Practice string         `json:"practice"`
	Stage    pace.Stage     `json:"stage"`
	Round    int            `json:"round"`
	Breath   int            `json:"breath"`
	Kind     breath.Phase   `json:"kind"`
	Through  breath.Through `json:"through"`
	First    int            `json:"first"` // number of the first count; 0 is a word's own beat
	Of       int            `json:"of"`
	AtMS     []int64        `json:"at_ms"`  // of each count
	EndMS    int64          `json:"end_ms"` // -1 where it has none yet
	Says     []string       `json:"says"`   // at each count
	Shows    []string       `json:"shows"`  // large at each count: the number, counting down, a syllable
	Starts   bool           `json:"starts"` // a round begins here
	Kept     bool           `json:"kept"`
	// of each count, as it is said: belly, ribs, chest; forward, side, up; wide, narrow
	Parts   []string    `json:"parts,omitempty"`
	Word    string      `json:"word"`            // for what is done, in the words of the class
	Side    string      `json:"side"`            // as it is said; empty if both nostrils breathe
	Fingers cue.Fingers `json:"fingers"`         // what the fingers do at the nose; empty if the hand is down
	Open    bool        `json:"open"`            // lasts until the teacher goes on
	Verbs   []pace.Verb `json:"verbs,omitempty"` // the adjustments that are met here; not told to the room
}

// LaneNames is what two lanes are called: no lane is the lesser.
type LaneNames struct {
	Main   string `json:"main"`
	Beside string `json:"beside"`
}

// ScorePassage is a passage of the running order at this point.
type ScorePassage struct {
	Name     string    `json:"name"`
	Type     plan.Type `json:"type"`
	Practice string    `json:"practice"`
	Term     string    `json:"term"`
	Script   string    `json:"script"`
	Cards    []string  `json:"cards"`    // its parts, which are shown one after the other; empty if nothing is written
	StartMS  int64     `json:"start_ms"` // as it was or will be
	EndMS    int64     `json:"end_ms"`
	Rounds   int       `json:"rounds"` // the total in force, 0 if there are none
	Counts   string    `json:"counts"`
	// Distinct is what tells it from its like: the side, the width, set 2 of 4.
	Distinct []fact.Fact `json:"distinct"`
	Tempo    float64     `json:"tempo"` // counts a minute in force
	Slower   float64     `json:"slower"`
	Faster   float64     `json:"faster"`
	Cautions []Caution   `json:"cautions"`
	Findings []Finding   `json:"findings"` // for the class's group and hour
	InForce  InForce     `json:"in_force"`
	// what could run beside it as it is in force, the gentlest first; not told to the room
	Lanes      []LaneOffer `json:"lanes"`
	Steps      []fact.Fact `json:"steps"`        // the closing
	Carries    int         `json:"carries"`      // later passages that a change of its tempo can be carried to
	HandAtNose bool        `json:"hand_at_nose"` // it closes or narrows nostrils with the fingers
	// where a hand lies on the body: front, sides, back or round; belly, ribs, chest or all; empty if nowhere
	HandPlace string `json:"hand_place"`
	// the sides of the body in the order in which a round breathes them, and how many breaths there are on each; empty
	// if it has none
	Sides       []string `json:"sides"`
	SideBreaths int      `json:"side_breaths"`
	// the syllables that are said in the place of numbers, each with a fingertip at the thumb; empty if there are none
	Syllables []string    `json:"syllables"`
	Numbers   plan.Screen `json:"numbers"` // what carries the count on the room's screens; empty of a stretch
	// one round of as many strokes as its minutes hold: its time is shown, not their number
	Timed bool `json:"timed"`
	// HandTempo is the tempo at which the teacher has breathed by hand in the last three rounds; 0 if it is not known,
	// and where the class is not there. Not told to the room.
	HandTempo int      `json:"hand_tempo"`
	Signs     []string `json:"signs"` // the signals that can be seen in it; not told to the room
	// Hears is the phase that can be told by ear: stroke, the one that is chanted or hummed, or the one whose breath
	// itself is loud, which HearsBreath says; empty where none can. Not told to the room.
	Hears         breath.Phase `json:"hears,omitempty"`
	HearsBreath   bool         `json:"hears_breath,omitempty"`
	HearsBothWays bool         `json:"hears_both_ways,omitempty"` // of strokes: each is heard twice, in and out
	// LinesFor is for whom it has lines of the teacher's own.
	LinesFor []plan.Who `json:"lines_for"`
	// LaneNames is what its two lanes are called as they are in force, each by what is done in it; empty if it has one
	// only.
	LaneNames LaneNames `json:"lane_names"`
	// OwnRound is a round of what is breathed at own pace, from 0, and Pattern the same in one line; empty elsewhere.
	OwnRound []ScorePhase `json:"own_round"`
	Pattern  string       `json:"pattern"`
	// Choices is the counts of which each person takes one at own pace; empty if there is no choice.
	Choices []string `json:"choices"`
}

// Adjust makes a live adjustment. Key is the sender's own name for it: the same key again changes nothing and gets
// the first answer.
type Adjust struct {
	Key string    `json:"key"`
	Do  pace.Verb `json:"do"`
	// To is as in a script: a number, the four numbers of counts, a word, or a list of words.
	To   any    `json:"to,omitempty" jsonschema:"oneof_type=number;string;array"`
	By   *int   `json:"by,omitempty"`
	ToMS *int64 `json:"to_ms,omitempty"` // finish-by: the deadline, from the class's start
	// Because is what was seen in the room and led to this; it has no effect and is recorded.
	Because string  `json:"because,omitempty"`
	Carry   bool    `json:"carry,omitempty"`
	Text    *string `json:"text,omitempty"`
	See     *string `json:"see,omitempty"`
	// PressedMS is the moment of the press on the application's clock, where the sender knows it: what comes too late
	// does no longer act, and a note or what was seen gets its moment.
	PressedMS *float64 `json:"pressed_ms,omitempty"`
	Origin    string   `json:"-"` // the device, which the door knows
}

// Unstored is what was pressed and is kept only in memory, because the data file could not be written. It is stored as
// soon as that is possible again.
type Unstored struct {
	Why     fact.Fact       `json:"why"`
	Presses []UnstoredPress `json:"presses"`
}

// UnstoredPress is one adjustment of it.
type UnstoredPress struct {
	Number int       `json:"number"`
	AtMS   int64     `json:"at_ms"`
	Do     pace.Verb `json:"do"`
}

// Running is the class that is being led, for the way back to it; ClassID is 0 if none is.
type Running struct {
	ClassID int64  `json:"class_id"`
	Title   string `json:"title"`
}

// Answer is what became of an adjustment.
type Answer struct {
	Number  int        `json:"number"` // within the class, from 1
	AtMS    int64      `json:"at_ms"`
	Do      pace.Verb  `json:"do"`
	Refused *fact.Fact `json:"refused" jsonschema:"nullable"` // the reason; null if it was accepted
	// what it did, and from when on, or that it was refused and why
	Did     fact.Fact `json:"did"`
	When    pace.When `json:"when"`   // from when on it acts
	Before  InForce   `json:"before"` // in the passage that it was met in
	After   InForce   `json:"after"`
	Undone  pace.Verb `json:"undone,omitempty"` // the verb that an undo took back
	LateMS  int64     `json:"late_ms"`          // how far beyond its deadline a finish-by could not help ending
	Text    string    `json:"text"`             // of a note
	See     string    `json:"see"`              // of a signal, its id
	Because string    `json:"because"`          // the id of what was seen and led to this
	Origin  string    `json:"origin"`           // the device that it was made on; empty if nobody has to sign in
}

// Preview is what an adjustment would do if it were made now.
type Preview struct {
	Answer Answer `json:"answer"`
	// ChangeMS is by how much later the class would end than without it; less than 0 for earlier.
	ChangeMS int64 `json:"change_ms"`
	EndMS    int64 `json:"end_ms"` // of the class with it, from its start
	Fewer    int   `json:"fewer"`  // rounds that the class would have less; below 0 for more
}

// Gap is a stretch of a class in which no screen of the teacher's showed the count.
type Gap struct {
	Away  fact.Fact `json:"away"`  // where the class was when it was lost from sight
	Now   fact.Fact `json:"now"`   // where it is by the clock
	Again bool      `json:"again"` // whether what was lost can be taken again
}

// TakeAgain takes again what was in progress at that time, with natural breath for everybody in between. Key is as in
// Adjust.
type TakeAgain struct {
	Key    string `json:"key"`
	FromMS int64  `json:"from_ms"`
	Origin string `json:"-"`
}

// Signal is something that can be seen in the room.
type Signal struct {
	ID   string         `json:"id"`
	Name fact.Fact      `json:"name"`
	With []breath.Phase `json:"with"` // the phases in which it shows; empty for any
}

// Saw says what was seen in a class. Key is as in Adjust.
type Saw struct {
	Key       string   `json:"key"`
	See       string   `json:"see"`
	PressedMS *float64 `json:"pressed_ms,omitempty"` // as in Adjust
	Origin    string   `json:"-"`
}

// Proposed is what to do about what was seen: adjustments to send as they are except for their keys, or only words.
type Proposed struct {
	Score Score     `json:"score"`
	Say   fact.Fact `json:"say"`
	Do    []Adjust  `json:"do"`
	// Lane is what there is for some: it opens the gentler lane. Null where that cannot be.
	Lane *Adjust `json:"lane" jsonschema:"nullable"`
}

// Taps is moments that were tapped, in milliseconds and in order, at each count or at each inhale.
type Taps struct {
	AtMS    []int64 `json:"at_ms"`
	Breaths bool    `json:"breaths"`
}

// Tapped is the room's own pace.
type Tapped struct {
	IntervalMS float64 `json:"interval_ms"`
	SpreadMS   float64 `json:"spread_ms"`
	Used       int     `json:"used"`
	Aside      int     `json:"aside"`
	Tempo      float64 `json:"tempo"` // at which the class would be as quick as the room; 0 if nothing is counted
}

// Listens says that a lead screen listens to the room from now on, or that it does no longer.
type Listens struct {
	Ear string `json:"ear"` // as Score.Ear
	On  bool   `json:"on"`
}

// HeardStrokes is how the room was heard to stroke.
type HeardStrokes struct {
	PerMinute float64 `json:"per_minute"`
	FromMS    int64   `json:"from_ms"` // of the class: the first stroke that it rests on
	// AtMS is how far a rehearsal is. Of a class the program knows it.
	AtMS int64 `json:"at_ms,omitempty"`
}

// FastestHeard bounds the rate of strokes that a screen tells, a minute.
const FastestHeard = 1000

// FromHeard is what to do about what was heard: adjustments to send as they are except for their keys. Without any,
// nothing is proposed.
type FromHeard struct {
	Say *fact.Fact `json:"say" jsonschema:"nullable"`
	Do  []Adjust   `json:"do"`
}

// Heard is something that a lead screen heard of the room, in milliseconds of the class: numbers, never sound.
type Heard struct {
	Phase  breath.Phase `json:"phase"` // stroke, or the phase that was chanted or hummed
	FromMS int64        `json:"from_ms"`
	ToMS   int64        `json:"to_ms"`
	// PerMinute is of strokes; 0 for a chant or a hum, which lasted from FromMS to ToMS.
	PerMinute float64 `json:"per_minute"`
}

// HeardMore is what a lead screen heard since it told the last time. What is told twice counts once.
type HeardMore struct {
	Heard []Heard `json:"heard"`
}

// HeardKept is how much of it was kept.
type HeardKept struct {
	Kept int `json:"kept"`
}

// InForce is what is in force in a passage: the tempo at once, all else from the next round on.
type InForce struct {
	Tempo   float64 `json:"tempo"` // counts or strokes a minute
	Rounds  int     `json:"rounds"`
	Counts  string  `json:"counts"`
	Four    [4]int  `json:"four"` // the counts as inhale, hold, exhale, empty hold
	Strokes int     `json:"strokes"`
	Beside  string  `json:"beside"` // the gentler lane: breathe, a:c or none
	// ByHand is the phases that wait for the teacher, in the order of a breath.
	ByHand []breath.Phase `json:"by_hand"`
}

// Adjusted is the answer to an Adjust, with the score after it.
type Adjusted struct {
	Answer Answer `json:"answer"`
	Score  Score  `json:"score"`
}

// SidesOf returns the sides of the body that a round is breathed on.
func SidesOf(p *plan.Passage) []string {
	sides := []string{}
	for _, side := range p.Sides {
		sides = append(sides, string(side))
	}
	return sides
}
